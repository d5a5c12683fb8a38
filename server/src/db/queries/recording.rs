//! Traces and recordings as they came.

use diesel::pg::PgConnection;
use diesel::prelude::*;
use uuid::Uuid;

use crate::db::schema::recordings;
use crate::error::ApiError;

/// Most files of one build.
pub const MOST: i64 = 1000;

/// Keeps a file of a build by its hash; one that is there already is there once.
///
/// # Errors
/// The database; a build that holds as many as it may.
pub fn add(connection: &mut PgConnection, build: Uuid, hash: &str, content: &[u8]) -> Result<(), ApiError> {
    super::build::find(connection, build)?;
    connection.transaction(|connection| {
        let count: i64 =
            recordings::table.filter(recordings::build_id.eq(build)).count().get_result(connection)?;
        if count >= MOST {
            return Err(ApiError::TooMany { what: "files of measurements", most: MOST as u32 });
        }
        diesel::insert_into(recordings::table)
            .values((
                recordings::hash.eq(hash),
                recordings::build_id.eq(build),
                recordings::content.eq(content),
            ))
            .on_conflict_do_nothing()
            .execute(connection)?;
        Ok(())
    })
}

/// A file by its name.
///
/// # Errors
/// The database; there is none of that name.
pub fn find(connection: &mut PgConnection, hash: &str) -> Result<Vec<u8>, ApiError> {
    let found = recordings::table.find(hash).select(recordings::content).first(connection).optional()?;
    found.ok_or(ApiError::NotFound { what: "file of a measurement" })
}
