//! Variants and their revisions.

use chrono::{DateTime, Utc};
use diesel::dsl::{count_star, max, now};
use diesel::pg::PgConnection;
use diesel::prelude::*;
use oak_design::file::RawDesign;
use oak_design::resolve::resolve_design;
use serde_json::Value;
use uuid::Uuid;

use crate::db::documents::{from_value, to_value};
use crate::db::rows::{Revision, Unreadable, Variant};
use crate::db::schema::{builds, variant_revisions, variants};
use crate::error::ApiError;

/// Most variants in one build.
const MOST_VARIANTS: i64 = 100;

type Row = (Uuid, Uuid, i32, i32, Value, DateTime<Utc>);

fn show((id, build_id, revision, mark, document, kept_at): Row) -> Result<Variant, ApiError> {
    Ok(Variant {
        id,
        build_id,
        revision,
        mark,
        document: from_value(format!("variant {id}"), document)?,
        kept_at,
    })
}

/// The columns of a variant with its newest revision, archived or not.
macro_rules! newest {
    () => {
        variants::table
            .inner_join(
                variant_revisions::table.on(variant_revisions::variant_id
                    .eq(variants::id)
                    .and(variant_revisions::revision.eq(variants::revision))),
            )
            .select((
                variants::id,
                variants::build_id,
                variants::revision,
                variants::mark,
                variant_revisions::document,
                variant_revisions::created_at,
            ))
    };
}

/// What a document that cannot be read is called: by what is left of it.
fn name_of(document: &Value) -> String {
    document.get("name").and_then(Value::as_str).unwrap_or("a variant").to_owned()
}

/// Those that can be read, and what the others are.
fn sorted_out(rows: Vec<Row>) -> (Vec<Variant>, Vec<Unreadable>) {
    let (mut read, mut unreadable) = (Vec::with_capacity(rows.len()), Vec::new());
    for row in rows {
        let (id, name) = (row.0, name_of(&row.4));
        match show(row) {
            Ok(variant) => read.push(variant),
            Err(error) => unreadable.push(Unreadable { id, name, reason: error.to_string() }),
        }
    }
    (read, unreadable)
}

/// The variants of a build, in order, and those that cannot be read.
pub fn of_build(
    connection: &mut PgConnection,
    build: Uuid,
) -> Result<(Vec<Variant>, Vec<Unreadable>), ApiError> {
    let rows: Vec<Row> = newest!()
        .filter(variants::build_id.eq(build))
        .filter(variants::archived_at.is_null())
        .order((variants::position, variants::id))
        .load(connection)?;
    Ok(sorted_out(rows))
}

/// The variants of a build that were put away, the latest first.
pub fn archived(connection: &mut PgConnection, build: Uuid) -> Result<Vec<Variant>, ApiError> {
    let rows: Vec<Row> = newest!()
        .filter(variants::build_id.eq(build))
        .filter(variants::archived_at.is_not_null())
        .order(variants::archived_at.desc())
        .load(connection)?;
    let (read, unreadable) = sorted_out(rows);
    for one in unreadable {
        tracing::error!(variant = %one.id, name = one.name, reason = one.reason, "cannot be read");
    }
    Ok(read)
}

/// Puts the variants of a build in an order; those that are not named come after, as they stood.
pub fn arrange(connection: &mut PgConnection, build: Uuid, order: &[Uuid]) -> Result<(), ApiError> {
    connection.transaction(|connection| {
        let mut all: Vec<Uuid> = variants::table
            .filter(variants::build_id.eq(build))
            .order((variants::position, variants::id))
            .select(variants::id)
            .for_update()
            .load(connection)?;
        if order.iter().any(|id| !all.contains(id)) {
            return Err(ApiError::NotFound { what: "variant in this build" });
        }
        let place = |id: &Uuid| order.iter().position(|other| other == id).unwrap_or(order.len());
        all.sort_by_key(place);
        for (position, id) in (1..).zip(&all) {
            diesel::update(variants::table.find(id))
                .set(variants::position.eq(position))
                .execute(connection)?;
        }
        Ok(())
    })
}

/// One variant.
pub fn find(connection: &mut PgConnection, id: Uuid) -> Result<Variant, ApiError> {
    let row: Option<Row> = newest!()
        .filter(variants::id.eq(id))
        .filter(variants::archived_at.is_null())
        .first(connection)
        .optional()?;
    show(row.ok_or(ApiError::NotFound { what: "variant" })?)
}

/// Adds a variant at the end of a build.
pub fn add(connection: &mut PgConnection, build: Uuid, design: &RawDesign) -> Result<Variant, ApiError> {
    resolve_design(design)?;
    connection.transaction(|connection| {
        // The lock keeps two additions from taking the same position.
        let found: Option<Uuid> = builds::table
            .find(build)
            .filter(builds::archived_at.is_null())
            .select(builds::id)
            .for_update()
            .first(connection)
            .optional()?;
        found.ok_or(ApiError::NotFound { what: "build" })?;
        let of_build = variants::table.filter(variants::build_id.eq(build));
        let count: i64 =
            of_build.filter(variants::archived_at.is_null()).select(count_star()).first(connection)?;
        if count >= MOST_VARIANTS {
            return Err(ApiError::TooMany { most: MOST_VARIANTS });
        }
        let (last, mark): (Option<i32>, Option<i32>) =
            of_build.select((max(variants::position), max(variants::mark))).first(connection)?;
        let id = Uuid::now_v7();
        diesel::insert_into(variants::table)
            .values((
                variants::id.eq(id),
                variants::build_id.eq(build),
                variants::position.eq(last.unwrap_or(0) + 1),
                variants::revision.eq(1),
                variants::mark.eq(mark.map_or(0, |mark| mark + 1)),
            ))
            .execute(connection)?;
        keep(connection, id, 1, design)?;
        find(connection, id)
    })
}

fn keep(connection: &mut PgConnection, id: Uuid, revision: i32, design: &RawDesign) -> Result<(), ApiError> {
    diesel::insert_into(variant_revisions::table)
        .values((
            variant_revisions::variant_id.eq(id),
            variant_revisions::revision.eq(revision),
            variant_revisions::document.eq(to_value(design)?),
        ))
        .execute(connection)?;
    Ok(())
}

/// Keeps a new revision of a variant that is still at an expected one.
///
/// Values must be acceptable one by one; a tuning out of the ports' reach may be kept, since it is a state
/// one passes through while tuning.
pub fn change(
    connection: &mut PgConnection,
    id: Uuid,
    expected: i32,
    design: &RawDesign,
) -> Result<Variant, ApiError> {
    resolve_design(design)?;
    connection.transaction(|connection| {
        let at_revision = variants::table
            .find(id)
            .filter(variants::revision.eq(expected))
            .filter(variants::archived_at.is_null());
        if diesel::update(at_revision).set(variants::revision.eq(expected + 1)).execute(connection)? == 0 {
            return Err(ApiError::Stale { current: find(connection, id)?.revision });
        }
        keep(connection, id, expected + 1, design)?;
        find(connection, id)
    })
}

/// Puts a variant away.
pub fn archive(connection: &mut PgConnection, id: Uuid, expected: i32) -> Result<(), ApiError> {
    let at_revision = variants::table
        .find(id)
        .filter(variants::revision.eq(expected))
        .filter(variants::archived_at.is_null());
    match diesel::update(at_revision).set(variants::archived_at.eq(now)).execute(connection)? {
        0 => Err(ApiError::Stale { current: find(connection, id)?.revision }),
        _ => Ok(()),
    }
}

/// Brings a variant back.
pub fn restore(connection: &mut PgConnection, id: Uuid) -> Result<Variant, ApiError> {
    diesel::update(variants::table.find(id))
        .set(variants::archived_at.eq(None::<DateTime<Utc>>))
        .execute(connection)?;
    find(connection, id)
}

/// Every kept state of a variant, newest first; at most 500.
pub fn revisions(connection: &mut PgConnection, id: Uuid) -> Result<Vec<Revision>, ApiError> {
    let rows: Vec<(i32, DateTime<Utc>, Value)> = variant_revisions::table
        .filter(variant_revisions::variant_id.eq(id))
        .order(variant_revisions::revision.desc())
        .limit(500)
        .select((variant_revisions::revision, variant_revisions::created_at, variant_revisions::document))
        .load(connection)?;
    if rows.is_empty() {
        return Err(ApiError::NotFound { what: "variant" });
    }
    let read = |(revision, created_at, document)| match from_value(
        format!("revision {revision} of variant {id}"),
        document,
    ) {
        Ok(document) => Some(Revision { revision, created_at, document }),
        Err(error) => {
            tracing::error!(%error, "left out of the history");
            None
        }
    };
    Ok(rows.into_iter().filter_map(read).collect())
}
