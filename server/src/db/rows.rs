//! What is stored, as the API shows it.

use std::collections::BTreeMap;

use chrono::{DateTime, Utc};
use oak_design::document::RawDocument;
use oak_design::file::{RawBrief, RawDriver, RawFamily};
use oak_planning::driver_match::Found;
use serde::Serialize;
use serde_json::Value;
use utoipa::ToSchema;
use uuid::Uuid;

/// A driver in the library.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct Driver {
    /// Its key.
    pub id: Uuid,
    /// Counts its changes; the ETag.
    pub revision: i32,
    /// As typed.
    pub document: RawDriver,
    /// Nominal impedance, ohm.
    pub nominal: f64,
    /// DC resistance, ohm.
    pub re: f64,
    /// Resonance, Hz.
    pub fs: f64,
    /// Total Q.
    pub qts: f64,
    /// Equivalent volume, m3.
    pub vas: f64,
    /// Cone area, m2.
    pub sd: f64,
    /// dB at 1 m in half space for 2.83 V.
    pub level: f64,
    /// One-way linear excursion, m.
    pub xmax: Option<f64>,
    /// Continuous power, W.
    pub pe: Option<f64>,
    /// What one costs.
    pub price: Option<f64>,
    /// How many are on hand.
    pub on_hand: Option<i32>,
    /// When it was put away, if it was.
    pub archived_at: Option<DateTime<Utc>>,
    /// Last change.
    pub updated_at: DateTime<Utc>,
}

/// A page of the library.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct DriverPage {
    /// How many drivers answer in all.
    pub total: i64,
    /// How many drivers there are, archived ones left out.
    pub library: i64,
    /// This page of them.
    pub drivers: Vec<Driver>,
    /// Drivers that belong on this page and cannot be read.
    pub unreadable: Vec<Unreadable>,
    /// Every tag in the library.
    pub tags: Vec<String>,
}

/// A driver that is much like another.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct AlikeDriver {
    /// Its key.
    pub id: Uuid,
    /// What it is called.
    pub name: String,
    /// `name` or `values`.
    pub by: &'static str,
}

/// A cabinet project, as it stands in a list.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct Build {
    /// Its key.
    pub id: Uuid,
    /// What it is called.
    pub name: String,
    /// What it is for.
    pub notes: String,
    /// How many variants it has.
    pub variant_count: i64,
    /// When anything of it was last saved.
    pub updated_at: DateTime<Utc>,
}

/// A document of a build, at its newest revision.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct Document {
    /// Its key.
    pub id: Uuid,
    /// The build it belongs to.
    pub build: Uuid,
    /// What it is told apart by among its kind, counted from 0 in the order of making; it stays in whatever order they stand.
    pub number: i32,
    /// Newest revision; the ETag.
    pub revision: i32,
    /// Whether it was put away.
    pub archived: bool,
    /// When this revision was saved.
    pub saved_at: DateTime<Utc>,
    /// What it says.
    #[serde(flatten)]
    pub document: RawDocument,
}

/// A build with its documents, those of a kind in their order.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct OpenBuild {
    /// Its key.
    pub id: Uuid,
    /// What it is made of.
    pub documents: Vec<Document>,
    /// Documents of it that cannot be read.
    pub unreadable: Vec<Unreadable>,
    /// What the next document of each kind is.
    pub next: BTreeMap<&'static str, NextDocument>,
}

/// The next document of a kind in a build.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct NextDocument {
    /// Its number.
    pub number: i32,
    /// Its key, where a build has one of its kind: two that begin it at once come to the same document.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub id: Option<Uuid>,
}

/// One saved state of a document.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct Revision {
    /// Which.
    pub revision: i32,
    /// When it was saved.
    pub created_at: DateTime<Utc>,
    /// Whether it was put away by it.
    pub archived: bool,
    /// What it said.
    #[serde(flatten)]
    pub document: RawDocument,
}

/// How a job stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum JobState {
    /// Nothing is done yet.
    Waiting,
    /// At work.
    Running,
    /// All is done.
    Finished,
    /// It was cancelled; what it had come to stays.
    Cancelled,
    /// It could not be done.
    Failed,
}

/// Something long that workers carry out piece by piece.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct Job {
    /// Its key.
    pub id: Uuid,
    /// Its kind.
    pub kind: String,
    /// Its kind, for people.
    pub name: &'static str,
    /// The build it is for.
    pub build: Option<Uuid>,
    /// What that is called.
    pub build_name: Option<String>,
    /// How it stands.
    pub state: JobState,
    /// Units of work in all.
    pub total: i32,
    /// Units that are done.
    pub done: i32,
    /// Why it could not be done.
    pub failure: Option<String>,
    /// When it was started.
    pub created_at: DateTime<Utc>,
    /// When it ended.
    pub finished_at: Option<DateTime<Utc>>,
    /// What it is asked.
    #[serde(skip)]
    pub input: Value,
    /// What it has come to so far.
    #[serde(skip)]
    pub result: Option<Value>,
    /// Units that were put into the queue so far.
    #[serde(skip)]
    pub queued: i32,
    /// Where the next piece begins.
    #[serde(skip)]
    pub cursor: Option<Value>,
}

impl Job {
    /// Whether it is to be carried on.
    pub fn at_work(&self) -> bool {
        matches!(self.state, JobState::Waiting | JobState::Running)
    }
}

/// The drivers of the library looked at for a build's brief.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct DriverMatch {
    /// How the work stands.
    #[serde(flatten)]
    pub job: Job,
    /// The brief as it was then.
    pub brief: RawBrief,
    /// How many equal drivers each cabinet has.
    pub drivers: u32,
    /// Cabinets that were found so far.
    pub found: i32,
    /// Of these, such that reach all that is asked.
    pub complete: i32,
}

/// A stored document that cannot be read.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct Unreadable {
    /// Its key.
    pub id: Uuid,
    /// What it is called.
    pub name: String,
    /// What the reader says.
    pub reason: String,
}

/// A cabinet for a driver, or why there is none.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct DriverMatchRow {
    /// The driver.
    pub driver: Uuid,
    /// What it is called.
    pub name: String,
    /// How many of it are on hand.
    pub on_hand: Option<i32>,
    /// Whether the driver was changed after it was looked at.
    pub stale: bool,
    /// The kind of cabinet.
    pub family: RawFamily,
    /// The cabinet.
    pub found: Option<Found>,
    /// Why there is none.
    pub refused: Option<String>,
}

/// The best of what was found.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct DriverMatchPage {
    /// How it stands.
    pub job: DriverMatch,
    /// The best that it has found.
    pub rows: Vec<DriverMatchRow>,
}

/// A cabinet as a point.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct DriverMatchPoint {
    /// The driver.
    pub driver: Uuid,
    /// What it is called.
    pub name: String,
    /// The kind of cabinet.
    pub family: RawFamily,
    /// Air in it, m3.
    pub volume: f64,
    /// Lowest note, Hz.
    pub f3: f64,
    /// Largest clean level at the listener, dB.
    pub loudness: f64,
    /// How well the brief is met, per cent.
    pub score: f64,
    /// Whether no other is as small, as low and as loud.
    pub front: bool,
}
