//! Builds.

use chrono::{DateTime, Utc};
use diesel::dsl::{count_star, max, now};
use diesel::pg::PgConnection;
use diesel::prelude::*;
use oak_design::file::{RawBrief, RawBuild};
use oak_design::resolve::check_build;
use serde_json::Value;
use uuid::Uuid;

use super::variant;
use crate::db::documents::{from_value, to_value};
use crate::db::rows::{Build, BuildWithVariants};
use crate::db::schema::{builds, variant_revisions, variants};
use crate::error::ApiError;

#[derive(Queryable, Selectable)]
#[diesel(table_name = builds, check_for_backend(diesel::pg::Pg))]
struct Row {
    id: Uuid,
    revision: i32,
    name: String,
    notes: String,
    brief: Option<Value>,
    updated_at: DateTime<Utc>,
}

impl Row {
    fn show(self, connection: &mut PgConnection) -> Result<Build, ApiError> {
        let of_build =
            variants::table.filter(variants::build_id.eq(self.id)).filter(variants::archived_at.is_null());
        let variant_count = of_build.select(count_star()).first(connection)?;
        let newest: Option<DateTime<Utc>> = of_build
            .inner_join(variant_revisions::table)
            .select(max(variant_revisions::created_at))
            .first(connection)?;
        let brief =
            self.brief.map(|brief| from_value(format!("the brief of {}", self.name), brief)).transpose();
        let (brief, brief_problem) = match brief {
            Ok(brief) => (brief, None),
            Err(error) => (None, Some(error.to_string())),
        };
        Ok(Build {
            id: self.id,
            revision: self.revision,
            name: self.name,
            notes: self.notes,
            brief,
            brief_problem,
            variant_count,
            updated_at: newest.map_or(self.updated_at, |newest| newest.max(self.updated_at)),
        })
    }
}

/// All builds, in the order they were made; or those that were archived, the latest first.
pub fn list(connection: &mut PgConnection, archived: bool) -> Result<Vec<Build>, ApiError> {
    let rows = if archived {
        let put_away = builds::table.filter(builds::archived_at.is_not_null());
        put_away.order(builds::archived_at.desc()).select(Row::as_select()).load(connection)?
    } else {
        let present = builds::table.filter(builds::archived_at.is_null());
        present.order(builds::id).select(Row::as_select()).load(connection)?
    };
    rows.into_iter().map(|row| row.show(connection)).collect()
}

/// One build without its variants.
pub fn find(connection: &mut PgConnection, id: Uuid) -> Result<Build, ApiError> {
    let row = builds::table
        .find(id)
        .filter(builds::archived_at.is_null())
        .select(Row::as_select())
        .first(connection)
        .optional()?;
    row.ok_or(ApiError::NotFound { what: "build" })?.show(connection)
}

/// One build with its variants.
pub fn open(connection: &mut PgConnection, id: Uuid) -> Result<BuildWithVariants, ApiError> {
    connection.transaction(|connection| {
        let build = find(connection, id)?;
        let (variants, unreadable) = variant::of_build(connection, id)?;
        Ok(BuildWithVariants { build, variants, unreadable })
    })
}

/// Adds a build with its variants, all or nothing.
pub fn add(connection: &mut PgConnection, raw: &RawBuild) -> Result<BuildWithVariants, ApiError> {
    raw.check()?;
    connection.transaction(|connection| {
        let id = Uuid::now_v7();
        diesel::insert_into(builds::table)
            .values((
                builds::id.eq(id),
                builds::name.eq(raw.name.trim()),
                builds::notes.eq(&raw.notes),
                builds::brief.eq(raw.brief.as_ref().map(to_value).transpose()?),
            ))
            .execute(connection)?;
        for design in &raw.variants {
            variant::add(connection, id, design)?;
        }
        open(connection, id)
    })
}

/// Changes name, notes and brief of a build that is still at a revision.
pub fn change(
    connection: &mut PgConnection,
    id: Uuid,
    expected: i32,
    name: &str,
    notes: &str,
    brief: Option<&RawBrief>,
) -> Result<Build, ApiError> {
    check_build(name, notes, brief)?;
    // A brief that could not be read was not shown, so it was not taken away.
    let hidden = brief.is_none() && find(connection, id)?.brief_problem.is_some();
    let kept: Option<Value> = if hidden {
        builds::table.find(id).select(builds::brief).first(connection)?
    } else {
        brief.map(to_value).transpose()?
    };
    let at_revision =
        builds::table.find(id).filter(builds::revision.eq(expected)).filter(builds::archived_at.is_null());
    let row = diesel::update(at_revision)
        .set((
            builds::name.eq(name.trim()),
            builds::notes.eq(notes),
            builds::brief.eq(kept),
            builds::revision.eq(expected + 1),
            builds::updated_at.eq(now),
        ))
        .returning(Row::as_returning())
        .get_result(connection)
        .optional()?;
    match row {
        Some(row) => row.show(connection),
        None => Err(ApiError::Stale { current: find(connection, id)?.revision }),
    }
}

/// Puts a build away.
pub fn archive(connection: &mut PgConnection, id: Uuid, expected: i32) -> Result<(), ApiError> {
    let at_revision =
        builds::table.find(id).filter(builds::revision.eq(expected)).filter(builds::archived_at.is_null());
    match diesel::update(at_revision).set(builds::archived_at.eq(now)).execute(connection)? {
        0 => Err(ApiError::Stale { current: find(connection, id)?.revision }),
        _ => Ok(()),
    }
}

/// Brings a build back.
pub fn restore(connection: &mut PgConnection, id: Uuid) -> Result<Build, ApiError> {
    diesel::update(builds::table.find(id))
        .set(builds::archived_at.eq(None::<DateTime<Utc>>))
        .execute(connection)?;
    find(connection, id)
}
