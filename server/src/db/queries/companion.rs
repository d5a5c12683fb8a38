//! Links for phones, and what a phone may read and write by one. Whether a link still holds is asked of the database at every request, by its
//! own time.

use chrono::{DateTime, Utc};
use diesel::dsl::{IntervalDsl, now};
use diesel::pg::PgConnection;
use diesel::prelude::*;
use oak_design::conditions::{RawConditions, RawQuestion};
use oak_design::document::{PROGRESS, RawDocument, TITLE, WORKSHOP};
use oak_design::file::{RawProgress, RawTick};
use oak_planning::build_plan::{RawPlanQuestion, ToldStep, take_over};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

use super::document;
use crate::db::schema::companion_links;
use crate::error::ApiError;

/// How long a link can be opened, minutes, and how long its page then works, hours.
const JOIN_WITHIN: i32 = 10;
const LASTS: i32 = 12;
/// Most steps that are told at once, and in all by one link.
pub const MOST_TOLD: usize = 100;
const MOST_WRITES: i32 = 5000;
/// Most links of a build that are listed.
const MOST_LISTED: i64 = 20;
/// How often a write is tried that somebody else was quicker than.
const TRIES: usize = 8;

/// What a page for phones is for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Purpose {
    /// The steps of the build: read and ticked.
    Steps,
}

impl Purpose {
    fn id(self) -> &'static str {
        match self {
            Self::Steps => "steps",
        }
    }
}

/// How a link stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LinkState {
    /// It can be opened.
    Waiting,
    /// A phone has opened it.
    Joined,
    /// Its time is over.
    Expired,
    /// It was taken back.
    Revoked,
}

/// A link for a phone; what it is opened with is only known when it is made.
#[derive(Debug, Serialize, ToSchema)]
pub struct CompanionLink {
    /// Its key.
    pub id: Uuid,
    /// The variant that its page is about.
    pub variant: Uuid,
    /// What its page is for.
    pub purpose: Purpose,
    /// How it stands.
    pub state: LinkState,
    /// When it was made.
    pub created_at: DateTime<Utc>,
    /// Until when it can be opened.
    pub join_before: DateTime<Utc>,
    /// Until when its page works.
    pub expires_at: DateTime<Utc>,
}

#[derive(Queryable)]
struct Row {
    id: Uuid,
    variant: Uuid,
    purpose: String,
    created_at: DateTime<Utc>,
    join_before: DateTime<Utc>,
    joined_at: Option<DateTime<Utc>>,
    expires_at: DateTime<Utc>,
    revoked_at: Option<DateTime<Utc>>,
    now: DateTime<Utc>,
}

impl Row {
    fn show(self) -> Result<CompanionLink, ApiError> {
        let purpose = match self.purpose.as_str() {
            "steps" => Purpose::Steps,
            other => return Err(ApiError::internal(format!("a link for {other}"))),
        };
        let ends = if self.joined_at.is_some() { self.expires_at } else { self.join_before };
        let state = match (self.revoked_at, self.joined_at) {
            (Some(_), _) => LinkState::Revoked,
            _ if ends <= self.now => LinkState::Expired,
            (None, Some(_)) => LinkState::Joined,
            (None, None) => LinkState::Waiting,
        };
        Ok(CompanionLink {
            id: self.id,
            variant: self.variant,
            purpose,
            state,
            created_at: self.created_at,
            join_before: self.join_before,
            expires_at: self.expires_at,
        })
    }
}

#[diesel::dsl::auto_type(no_type_alias)]
fn shown() -> _ {
    let time: diesel::dsl::AsExprOf<diesel::dsl::now, diesel::sql_types::Timestamptz> =
        diesel::dsl::now.into_sql::<diesel::sql_types::Timestamptz>();
    companion_links::table.select((
        companion_links::id,
        companion_links::variant_id,
        companion_links::purpose,
        companion_links::created_at,
        companion_links::join_before,
        companion_links::joined_at,
        companion_links::expires_at,
        companion_links::revoked_at,
        time,
    ))
}

/// Makes a link to a page of a variant; of its secret only the hash is given here.
pub fn add(
    connection: &mut PgConnection,
    build: Uuid,
    variant: Uuid,
    purpose: Purpose,
    token_hash: &[u8],
) -> Result<CompanionLink, ApiError> {
    connection.transaction(|connection| {
        let found = document::find(connection, variant)?;
        if found.build != build || !matches!(found.document, RawDocument::Variant(_)) {
            return Err(ApiError::NotFound { what: "variant in this build" });
        }
        // A phone changes what is done, and makes no documents.
        let progress = document::new_id(build, &PROGRESS);
        match document::add(connection, progress, build, &RawDocument::Progress(Box::default()), false) {
            Ok(_) | Err(ApiError::Stale { .. } | ApiError::TooMany { .. }) => {}
            Err(error) => return Err(error),
        }
        let id = Uuid::now_v7();
        let time = now.into_sql::<diesel::sql_types::Timestamptz>();
        diesel::insert_into(companion_links::table)
            .values((
                companion_links::id.eq(id),
                companion_links::build_id.eq(build),
                companion_links::variant_id.eq(variant),
                companion_links::purpose.eq(purpose.id()),
                companion_links::token_hash.eq(token_hash),
                companion_links::join_before.eq(time + JOIN_WITHIN.minutes()),
                companion_links::expires_at.eq(time + LASTS.hours()),
            ))
            .execute(connection)?;
        find(connection, id)
    })
}

fn find(connection: &mut PgConnection, id: Uuid) -> Result<CompanionLink, ApiError> {
    let row: Option<Row> = shown().filter(companion_links::id.eq(id)).first(connection).optional()?;
    row.ok_or(ApiError::NotFound { what: "link" })?.show()
}

/// The latest links of a build.
pub fn of_build(connection: &mut PgConnection, build: Uuid) -> Result<Vec<CompanionLink>, ApiError> {
    let rows: Vec<Row> = shown()
        .filter(companion_links::build_id.eq(build))
        .order(companion_links::created_at.desc())
        .limit(MOST_LISTED)
        .load(connection)?;
    rows.into_iter().map(Row::show).collect()
}

/// Takes a link back: its page opens no more, and one that is open gets no further answer.
pub fn revoke(connection: &mut PgConnection, id: Uuid) -> Result<CompanionLink, ApiError> {
    let still = companion_links::table.find(id).filter(companion_links::revoked_at.is_null());
    diesel::update(still).set(companion_links::revoked_at.eq(now)).execute(connection)?;
    find(connection, id)
}

/// Swaps a link's secret for a session, once; returns how long that lasts, s.
pub fn join(connection: &mut PgConnection, token: &[u8], session: &[u8]) -> Result<i64, ApiError> {
    let open = companion_links::table
        .filter(companion_links::token_hash.eq(token))
        .filter(companion_links::session_hash.is_null())
        .filter(companion_links::revoked_at.is_null())
        .filter(companion_links::join_before.gt(now));
    let until: Option<DateTime<Utc>> = diesel::update(open)
        .set((companion_links::session_hash.eq(session), companion_links::joined_at.eq(now)))
        .returning(companion_links::expires_at)
        .get_result(connection)
        .optional()?;
    let until = until.ok_or(ApiError::NotJoined)?;
    Ok((until - Utc::now()).num_seconds().max(0))
}

/// What a request by a link may touch.
#[derive(Debug, Clone, Copy)]
pub struct Visit {
    link: Uuid,
    build: Uuid,
    variant: Uuid,
}

/// The link of a session that still holds for a purpose.
pub fn visit(connection: &mut PgConnection, session: &[u8], purpose: Purpose) -> Result<Visit, ApiError> {
    let found: Option<(Uuid, Uuid, Uuid)> = companion_links::table
        .filter(companion_links::session_hash.eq(session))
        .filter(companion_links::purpose.eq(purpose.id()))
        .filter(companion_links::revoked_at.is_null())
        .filter(companion_links::expires_at.gt(now))
        .select((companion_links::id, companion_links::build_id, companion_links::variant_id))
        .first(connection)
        .optional()?;
    let (link, build, variant) = found.ok_or(ApiError::NotJoined)?;
    Ok(Visit { link, build, variant })
}

/// What is asked for a page of steps.
#[derive(Debug)]
pub struct Asked {
    /// Name of the build.
    pub build: String,
    /// The design, how it is made and what is done.
    pub question: RawPlanQuestion,
}

/// The variant of a link as it stands, with the brief of its build, how it is made and what is done.
pub fn question(connection: &mut PgConnection, visit: &Visit) -> Result<Asked, ApiError> {
    let (design, brief) = document::variant(connection, visit.variant)?;
    let mut sole = |kind| document::sole(connection, visit.build, kind);
    let title = sole(&TITLE)?;
    let workshop = sole(&WORKSHOP)?;
    let progress = sole(&PROGRESS)?;
    let workshop = match workshop.map(|found| found.document) {
        Some(RawDocument::Workshop(workshop)) => Some(*workshop),
        _ => None,
    };
    let progress = match progress.map(|found| found.document) {
        Some(RawDocument::Progress(progress)) => *progress,
        _ => RawProgress::default(),
    };
    let build = match title.map(|found| found.document) {
        Some(RawDocument::Title(title)) => title.name.clone(),
        _ => String::new(),
    };
    let conditions = RawConditions { workshop, ..RawConditions::default() };
    let today = Utc::now().date_naive().to_string();
    Ok(Asked {
        build,
        question: RawPlanQuestion { question: RawQuestion { design, brief, conditions }, progress, today },
    })
}

/// Takes over what became of steps, whoever else changes it meanwhile; returns what is known of all.
pub fn tell(
    connection: &mut PgConnection,
    visit: &Visit,
    told: &[ToldStep],
) -> Result<Vec<RawTick>, ApiError> {
    let count = i32::try_from(told.len()).unwrap_or(i32::MAX);
    let room =
        companion_links::table.find(visit.link).filter(companion_links::writes.le(MOST_WRITES - count));
    let counted = diesel::update(room)
        .set(companion_links::writes.eq(companion_links::writes + count))
        .execute(connection)?;
    if counted == 0 {
        return Err(ApiError::Quota { most: MOST_WRITES, what: "steps" });
    }
    for _ in 0..TRIES {
        let found = document::sole(connection, visit.build, &PROGRESS)?;
        let found = found.ok_or(ApiError::NotFound { what: "build" })?;
        let RawDocument::Progress(before) = found.document else {
            return Err(ApiError::NotFound { what: "build" });
        };
        let mut progress = before.clone();
        for step in told {
            take_over(&mut progress, step);
        }
        if progress == before {
            return Ok(progress.ticks);
        }
        let next = RawDocument::Progress(progress.clone());
        match document::change(connection, found.id, found.revision, &next, found.archived) {
            Ok(_) => return Ok(progress.ticks),
            Err(ApiError::Stale { .. }) => {}
            Err(error) => return Err(error),
        }
    }
    Err(ApiError::Overloaded)
}
