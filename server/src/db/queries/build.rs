//! Builds: what their documents belong to.

use chrono::{DateTime, Utc};
use diesel::dsl::now;
use diesel::pg::PgConnection;
use diesel::prelude::*;
use oak_design::document::RawTitle;
use oak_design::file::RawBuild;
use uuid::Uuid;

use super::document;
use crate::db::rows::{Build, OpenBuild};
use crate::db::schema::builds;
use crate::error::ApiError;

/// What a build is called whose name cannot be read.
const NAMELESS: &str = "Build without a name";

fn show(connection: &mut PgConnection, ids: &[Uuid]) -> Result<Vec<Build>, ApiError> {
    let mut summaries = document::summaries(connection, ids)?;
    let shown = ids.iter().map(|id| {
        let summary = summaries.remove(id).unwrap_or_default();
        let title = serde_json::from_value(summary.title)
            .unwrap_or_else(|_| RawTitle { name: NAMELESS.to_owned(), notes: String::new() });
        Build {
            id: *id,
            name: title.name,
            notes: title.notes,
            variant_count: summary.variants,
            updated_at: summary.saved_at.unwrap_or_default(),
        }
    });
    Ok(shown.collect())
}

/// All builds, in the order they were made; or those that were archived, the latest first.
pub fn list(connection: &mut PgConnection, archived: bool) -> Result<Vec<Build>, ApiError> {
    let ids: Vec<Uuid> = if archived {
        let put_away = builds::table.filter(builds::archived_at.is_not_null());
        put_away.order(builds::archived_at.desc()).select(builds::id).load(connection)?
    } else {
        let present = builds::table.filter(builds::archived_at.is_null());
        present.order((builds::created_at, builds::id)).select(builds::id).load(connection)?
    };
    show(connection, &ids)
}

/// One build as it stands in a list.
pub fn find(connection: &mut PgConnection, id: Uuid) -> Result<Build, ApiError> {
    present(connection, id)?;
    show(connection, &[id])?.pop().ok_or(ApiError::NotFound { what: "build" })
}

fn present(connection: &mut PgConnection, id: Uuid) -> Result<(), ApiError> {
    let present = builds::table.find(id).filter(builds::archived_at.is_null()).select(builds::id);
    let found: Option<Uuid> = present.first(connection).optional()?;
    found.map(|_| ()).ok_or(ApiError::NotFound { what: "build" })
}

/// One build with its documents.
pub fn open(connection: &mut PgConnection, id: Uuid) -> Result<OpenBuild, ApiError> {
    connection.transaction(|connection| {
        present(connection, id)?;
        let (documents, unreadable) = document::of_build(connection, id, false)?;
        Ok(OpenBuild { id, documents, unreadable, next: document::next(connection, id)? })
    })
}

/// Adds a build with its documents, all or nothing.
pub fn add(connection: &mut PgConnection, id: Uuid, raw: RawBuild) -> Result<OpenBuild, ApiError> {
    raw.check()?;
    connection.transaction(|connection| {
        let added = diesel::insert_into(builds::table)
            .values(builds::id.eq(id))
            .on_conflict_do_nothing()
            .execute(connection)?;
        if added == 0 {
            return Err(ApiError::Conflict { reason: format!("there is a build {id} already") });
        }
        for one in raw.into_documents() {
            document::add(connection, document::new_id(id, one.kind()), id, &one, false)?;
        }
        open(connection, id)
    })
}

/// Archives a build; one that is archived stays so.
pub fn archive(connection: &mut PgConnection, id: Uuid) -> Result<(), ApiError> {
    let present = builds::table.find(id).filter(builds::archived_at.is_null());
    diesel::update(present).set(builds::archived_at.eq(now)).execute(connection)?;
    let known: Option<Uuid> = builds::table.find(id).select(builds::id).first(connection).optional()?;
    known.map(|_| ()).ok_or(ApiError::NotFound { what: "build" })
}

/// Brings a build back.
pub fn restore(connection: &mut PgConnection, id: Uuid) -> Result<Build, ApiError> {
    diesel::update(builds::table.find(id))
        .set(builds::archived_at.eq(None::<DateTime<Utc>>))
        .execute(connection)?;
    find(connection, id)
}
