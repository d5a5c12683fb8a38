//! Pictures.

use diesel::pg::PgConnection;
use diesel::prelude::*;
use uuid::Uuid;

use crate::db::schema::photos;
use crate::error::ApiError;
use crate::photo::Photo;

/// Most pictures of one build.
pub const MOST: i64 = 2000;

/// Keeps a picture of a build; one that is there already is there once.
///
/// # Errors
/// The database; a build that holds as many as it may.
pub fn add(connection: &mut PgConnection, build: Uuid, photo: &Photo) -> Result<(), ApiError> {
    super::build::find(connection, build)?;
    connection.transaction(|connection| {
        let count: i64 = photos::table.filter(photos::build_id.eq(build)).count().get_result(connection)?;
        if count >= MOST {
            return Err(ApiError::TooMany { what: "pictures", most: MOST as u32 });
        }
        diesel::insert_into(photos::table)
            .values((
                photos::hash.eq(&photo.hash),
                photos::build_id.eq(build),
                photos::content.eq(&photo.content),
            ))
            .on_conflict_do_nothing()
            .execute(connection)?;
        Ok(())
    })
}

/// A picture by its name.
///
/// # Errors
/// The database; there is none of that name.
pub fn find(connection: &mut PgConnection, hash: &str) -> Result<Vec<u8>, ApiError> {
    let found = photos::table.find(hash).select(photos::content).first(connection).optional()?;
    found.ok_or(ApiError::NotFound { what: "picture" })
}
