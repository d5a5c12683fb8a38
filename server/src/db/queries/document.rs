//! The documents of builds and their revisions, whatever their kind.

use std::collections::{BTreeMap, HashMap};

use chrono::{DateTime, Utc};
use diesel::dsl::{count_star, max};
use diesel::pg::PgConnection;
use diesel::prelude::*;
use oak_design::document::{BRIEF, DocumentKind, KINDS, RawDocument, TITLE, VARIANT};
use oak_design::file::{RawBrief, RawDesign};
use serde_json::Value;
use uuid::Uuid;

use crate::db::rows::{Document, NextDocument, Revision, Unreadable};
use crate::db::schema::{builds, document_revisions, documents};
use crate::error::ApiError;

/// Most revisions that are listed at once.
pub const MOST_REVISIONS: i64 = 200;

#[derive(Queryable)]
struct Row {
    id: Uuid,
    build_id: Uuid,
    kind: String,
    number: i32,
    revision: i32,
    archived_at: Option<DateTime<Utc>>,
    content: Value,
    saved_at: DateTime<Utc>,
}

/// Documents with their newest revision, as [`Row`]s.
#[diesel::dsl::auto_type(no_type_alias)]
fn newest() -> _ {
    let at_newest = document_revisions::document_id
        .eq(documents::id)
        .and(document_revisions::revision.eq(documents::revision));
    documents::table.inner_join(document_revisions::table.on(at_newest)).select((
        documents::id,
        documents::build_id,
        documents::kind,
        documents::number,
        documents::revision,
        documents::archived_at,
        document_revisions::content,
        document_revisions::created_at,
    ))
}

/// What a document that cannot be read is called: by what is left of it.
fn name_of(kind: &str, content: &Value) -> String {
    let name = content.get("name").and_then(Value::as_str);
    let kind = DocumentKind::of(kind).map_or(kind, |kind| kind.names[0]);
    name.map_or_else(|| format!("The {kind}"), str::to_owned)
}

fn read(kind: &str, what: impl FnOnce() -> String, content: Value) -> Result<RawDocument, ApiError> {
    let read = match DocumentKind::of(kind) {
        Some(kind) => kind.read(content).map_err(|problem| problem.to_string()),
        None => Err(format!("this program knows no documents called \"{kind}\"")),
    };
    read.map_err(|reason| ApiError::Unreadable { what: what(), reason })
}

impl Row {
    fn show(self) -> Result<Document, ApiError> {
        let what = || format!("{} {}", self.kind, self.id);
        Ok(Document {
            document: read(&self.kind, what, self.content)?,
            id: self.id,
            build: self.build_id,
            number: self.number,
            revision: self.revision,
            archived: self.archived_at.is_some(),
            saved_at: self.saved_at,
        })
    }
}

/// The documents of a build in their order, or those that were archived, the latest first; and those that cannot be read.
pub fn of_build(
    connection: &mut PgConnection,
    build: Uuid,
    archived: bool,
) -> Result<(Vec<Document>, Vec<Unreadable>), ApiError> {
    let of_build = newest().filter(documents::build_id.eq(build));
    let rows: Vec<Row> = if archived {
        let put_away = of_build.filter(documents::archived_at.is_not_null());
        put_away.order(documents::archived_at.desc()).load(connection)?
    } else {
        let present = of_build.filter(documents::archived_at.is_null());
        present.order((documents::kind, documents::position, documents::id)).load(connection)?
    };
    let (mut read, mut unreadable) = (Vec::with_capacity(rows.len()), Vec::new());
    for row in rows {
        let (id, name) = (row.id, name_of(&row.kind, &row.content));
        match row.show() {
            Ok(document) => read.push(document),
            Err(error) => unreadable.push(Unreadable { id, name, reason: error.to_string() }),
        }
    }
    Ok((read, unreadable))
}

/// The key of the only document of a kind in a build.
fn sole_id(build: Uuid, kind: &DocumentKind) -> Uuid {
    let name = kind.id.bytes().fold(0, |name, letter| name << 8 | u128::from(letter));
    Uuid::from_u128(build.as_u128() ^ name)
}

/// A key for a new document.
pub fn new_id(build: Uuid, kind: &DocumentKind) -> Uuid {
    if kind.most == 1 { sole_id(build, kind) } else { Uuid::now_v7() }
}

/// What the next document of each kind in a build is.
pub fn next(
    connection: &mut PgConnection,
    build: Uuid,
) -> Result<BTreeMap<&'static str, NextDocument>, ApiError> {
    let highest: Vec<(String, Option<i32>)> = documents::table
        .filter(documents::build_id.eq(build))
        .group_by(documents::kind)
        .select((documents::kind, max(documents::number)))
        .load(connection)?;
    let number = |kind: &DocumentKind| {
        let found = highest.iter().find(|(id, _)| id == kind.id);
        found.and_then(|(_, number)| *number).map_or(0, |number| number + 1)
    };
    let of = |kind: &DocumentKind| NextDocument {
        number: number(kind),
        id: (kind.most == 1).then(|| sole_id(build, kind)),
    };
    Ok(KINDS.into_iter().map(|kind| (kind.id, of(kind))).collect())
}

/// One document, archived or not.
pub fn find(connection: &mut PgConnection, id: Uuid) -> Result<Document, ApiError> {
    let row: Option<Row> = newest().filter(documents::id.eq(id)).first(connection).optional()?;
    row.ok_or(ApiError::NotFound { what: "document" })?.show()
}

/// The document of a kind that a build has one of, archived or not.
pub fn sole(
    connection: &mut PgConnection,
    build: Uuid,
    kind: &DocumentKind,
) -> Result<Option<Document>, ApiError> {
    let of_kind = newest().filter(documents::build_id.eq(build)).filter(documents::kind.eq(kind.id));
    let row: Option<Row> =
        of_kind.order(documents::archived_at.is_not_null()).first(connection).optional()?;
    row.map(Row::show).transpose()
}

/// A variant with the brief of its build.
pub fn variant(connection: &mut PgConnection, id: Uuid) -> Result<(RawDesign, Option<RawBrief>), ApiError> {
    let found = find(connection, id)?;
    let RawDocument::Variant(design) = found.document else {
        return Err(ApiError::NotFound { what: "variant" });
    };
    let brief: Option<Row> = newest()
        .filter(documents::build_id.eq(found.build))
        .filter(documents::kind.eq(BRIEF.id))
        .filter(documents::archived_at.is_null())
        .first(connection)
        .optional()?;
    let brief = match brief.map(Row::show) {
        Some(Ok(Document { document: RawDocument::Brief(brief), .. })) => Some(*brief),
        _ => None,
    };
    Ok((*design, brief))
}

/// Designs with something measured in the workshop, build by build, the newest of each first; what is archived, or cannot be read, is left out.
pub fn measured_designs(connection: &mut PgConnection) -> Result<Vec<Vec<RawDesign>>, ApiError> {
    let rows: Vec<(Uuid, Value)> = newest()
        .inner_join(builds::table.on(builds::id.eq(documents::build_id)))
        .filter(builds::archived_at.is_null())
        .filter(documents::archived_at.is_null())
        .filter(documents::kind.eq(VARIANT.id))
        .filter(document_revisions::content.has_key("measured"))
        .order((documents::build_id, document_revisions::created_at.desc()))
        .select((documents::build_id, document_revisions::content))
        .load(connection)?;
    let mut builds: BTreeMap<Uuid, Vec<RawDesign>> = BTreeMap::new();
    for (build, content) in rows {
        if let Ok(RawDocument::Variant(design)) = VARIANT.read(content) {
            builds.entry(build).or_default().push(*design);
        }
    }
    Ok(builds.into_values().collect())
}

/// The titles of some builds, as they are stored.
fn titles(connection: &mut PgConnection, of: &[Uuid]) -> Result<Vec<(Uuid, Value)>, ApiError> {
    let of_them = newest().filter(documents::build_id.eq_any(of)).filter(documents::kind.eq(TITLE.id));
    Ok(of_them.select((documents::build_id, document_revisions::content)).load(connection)?)
}

/// What is shown of builds in a list.
#[derive(Debug, Default)]
pub struct Summary {
    /// Name and notes.
    pub title: Value,
    /// How many variants it has.
    pub variants: i64,
    /// When anything of it was last saved.
    pub saved_at: Option<DateTime<Utc>>,
}

/// What is shown of some builds.
pub fn summaries(connection: &mut PgConnection, of: &[Uuid]) -> Result<HashMap<Uuid, Summary>, ApiError> {
    let mut all: HashMap<Uuid, Summary> = HashMap::new();
    for (build, title) in titles(connection, of)? {
        all.entry(build).or_default().title = title;
    }
    let counts: Vec<(Uuid, i64)> = documents::table
        .filter(documents::build_id.eq_any(of))
        .filter(documents::kind.eq(VARIANT.id))
        .filter(documents::archived_at.is_null())
        .group_by(documents::build_id)
        .select((documents::build_id, count_star()))
        .load(connection)?;
    for (build, count) in counts {
        all.entry(build).or_default().variants = count;
    }
    let saved: Vec<(Uuid, Option<DateTime<Utc>>)> = documents::table
        .inner_join(document_revisions::table)
        .filter(documents::build_id.eq_any(of))
        .group_by(documents::build_id)
        .select((documents::build_id, max(document_revisions::created_at)))
        .load(connection)?;
    for (build, at) in saved {
        all.entry(build).or_default().saved_at = at;
    }
    Ok(all)
}

/// What some builds are called.
pub fn build_names(
    connection: &mut PgConnection,
    of: impl IntoIterator<Item = Uuid>,
) -> Result<HashMap<Uuid, String>, ApiError> {
    let of: Vec<Uuid> = of.into_iter().collect();
    let titles = titles(connection, &of)?;
    Ok(titles.into_iter().map(|(build, title)| (build, name_of(TITLE.id, &title))).collect())
}

/// Puts documents of a build in an order; those of their kind that are not named come after, as they stood.
pub fn arrange(connection: &mut PgConnection, build: Uuid, order: &[Uuid]) -> Result<(), ApiError> {
    let missing = ApiError::NotFound { what: "document in this build" };
    let Some(first) = order.first() else { return Ok(()) };
    connection.transaction(|connection| {
        let all: Vec<(Uuid, String)> = documents::table
            .filter(documents::build_id.eq(build))
            .order((documents::position, documents::id))
            .select((documents::id, documents::kind))
            .for_update()
            .load(connection)?;
        let Some((_, kind)) = all.iter().find(|(id, _)| id == first).cloned() else { return Err(missing) };
        let mut alike: Vec<Uuid> =
            all.into_iter().filter(|(_, other)| *other == kind).map(|(id, _)| id).collect();
        if order.iter().any(|id| !alike.contains(id)) {
            return Err(missing);
        }
        let place = |id: &Uuid| order.iter().position(|other| other == id).unwrap_or(order.len());
        alike.sort_by_key(place);
        for (position, id) in (1..).zip(&alike) {
            diesel::update(documents::table.find(id))
                .set(documents::position.eq(position))
                .execute(connection)?;
        }
        Ok(())
    })
}

/// Adds a document to a build, behind the others of its kind.
pub fn add(
    connection: &mut PgConnection,
    id: Uuid,
    build: Uuid,
    document: &RawDocument,
    archived: bool,
) -> Result<Document, ApiError> {
    document.check()?;
    connection.transaction(|connection| {
        lock(connection, build)?;
        if let Some(current) =
            documents::table.find(id).select(documents::revision).first(connection).optional()?
        {
            return Err(ApiError::Stale { current });
        }
        if !archived {
            check_room(connection, build, document.kind())?;
        }
        let kind = document.kind().id;
        let (last, number): (Option<i32>, Option<i32>) = documents::table
            .filter(documents::build_id.eq(build))
            .filter(documents::kind.eq(kind))
            .select((max(documents::position), max(documents::number)))
            .first(connection)?;
        diesel::insert_into(documents::table)
            .values((
                documents::id.eq(id),
                documents::build_id.eq(build),
                documents::kind.eq(kind),
                documents::position.eq(last.unwrap_or(0) + 1),
                documents::number.eq(number.map_or(0, |number| number + 1)),
                documents::revision.eq(1),
                documents::archived_at.eq(archived.then(Utc::now)),
            ))
            .execute(connection)?;
        save(connection, id, 1, document, archived)?;
        find(connection, id)
    })
}

/// Locks a build, so that two additions take turns.
fn lock(connection: &mut PgConnection, build: Uuid) -> Result<(), ApiError> {
    let found: Option<Uuid> = builds::table
        .find(build)
        .filter(builds::archived_at.is_null())
        .select(builds::id)
        .for_update()
        .first(connection)
        .optional()?;
    found.map(|_| ()).ok_or(ApiError::NotFound { what: "build" })
}

/// Refuses one more document than a build holds.
fn check_room(connection: &mut PgConnection, build: Uuid, kind: &DocumentKind) -> Result<(), ApiError> {
    let count: i64 = documents::table
        .filter(documents::build_id.eq(build))
        .filter(documents::kind.eq(kind.id))
        .filter(documents::archived_at.is_null())
        .select(count_star())
        .first(connection)?;
    if count >= i64::from(kind.most) {
        return Err(ApiError::TooMany { most: kind.most, what: kind.names[usize::from(kind.most != 1)] });
    }
    Ok(())
}

fn save(
    connection: &mut PgConnection,
    id: Uuid,
    revision: i32,
    document: &RawDocument,
    archived: bool,
) -> Result<(), ApiError> {
    diesel::insert_into(document_revisions::table)
        .values((
            document_revisions::document_id.eq(id),
            document_revisions::revision.eq(revision),
            document_revisions::content.eq(document.content().map_err(ApiError::internal)?),
            document_revisions::archived.eq(archived),
        ))
        .execute(connection)?;
    Ok(())
}

/// Saves a new revision of a document that is still at an expected one; archives it, or brings it back.
pub fn change(
    connection: &mut PgConnection,
    id: Uuid,
    expected: i32,
    document: &RawDocument,
    archived: bool,
) -> Result<Document, ApiError> {
    document.check()?;
    connection.transaction(|connection| {
        let row: Option<(Uuid, String, i32, Option<DateTime<Utc>>)> = documents::table
            .find(id)
            .select((documents::build_id, documents::kind, documents::revision, documents::archived_at))
            .for_update()
            .first(connection)
            .optional()?;
        let (build, kind, current, archived_at) = row.ok_or(ApiError::NotFound { what: "document" })?;
        if current != expected {
            return Err(ApiError::Stale { current });
        }
        if kind != document.kind().id {
            let reason = format!("this document is a {kind}, not a {}", document.kind().id);
            return Err(ApiError::Conflict { reason });
        }
        if archived_at.is_some() && !archived {
            lock(connection, build)?;
            check_room(connection, build, document.kind())?;
        }
        diesel::update(documents::table.find(id))
            .set((
                documents::revision.eq(expected + 1),
                documents::archived_at.eq(archived.then(|| archived_at.unwrap_or_else(Utc::now))),
            ))
            .execute(connection)?;
        save(connection, id, expected + 1, document, archived)?;
        find(connection, id)
    })
}

/// The states in which a document was saved, newest first, from before a revision; at most [`MOST_REVISIONS`].
pub fn revisions(
    connection: &mut PgConnection,
    id: Uuid,
    before: Option<i32>,
) -> Result<Vec<Revision>, ApiError> {
    let kind: Option<String> =
        documents::table.find(id).select(documents::kind).first(connection).optional()?;
    let kind = kind.ok_or(ApiError::NotFound { what: "document" })?;
    let rows: Vec<(i32, DateTime<Utc>, bool, Value)> = document_revisions::table
        .filter(document_revisions::document_id.eq(id))
        .filter(document_revisions::revision.lt(before.unwrap_or(i32::MAX)))
        .order(document_revisions::revision.desc())
        .limit(MOST_REVISIONS)
        .select((
            document_revisions::revision,
            document_revisions::created_at,
            document_revisions::archived,
            document_revisions::content,
        ))
        .load(connection)?;
    let shown = rows.into_iter().filter_map(|(revision, created_at, archived, content)| {
        match read(&kind, || format!("revision {revision} of {kind} {id}"), content) {
            Ok(document) => Some(Revision { revision, created_at, archived, document }),
            Err(error) => {
                tracing::error!(%error, "left out of the history");
                None
            }
        }
    });
    Ok(shown.collect())
}
