//! What is stored, as the API shows it.

use chrono::{DateTime, Utc};
use oak_design::file::{RawBrief, RawDesign, RawDriver, RawFamily};
use oak_planning::driver_match::Found;
use serde::Serialize;
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

/// A cabinet project.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct Build {
    /// Its key.
    pub id: Uuid,
    /// Counts the changes of its name and notes; the ETag.
    pub revision: i32,
    /// What it is called.
    pub name: String,
    /// What it is for.
    pub notes: String,
    /// What it must reach.
    pub brief: Option<RawBrief>,
    /// How many variants it has.
    pub variant_count: i64,
    /// Last change of it or of a variant.
    pub updated_at: DateTime<Utc>,
}

/// A candidate design, at its newest revision.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct Variant {
    /// Its key.
    pub id: Uuid,
    /// The build it belongs to.
    pub build_id: Uuid,
    /// Newest revision; the ETag.
    pub revision: i32,
    /// What it is told apart by, counted from 0 in the order of making; it stays in whatever order they stand.
    pub mark: i32,
    /// As typed.
    pub document: RawDesign,
    /// When this revision was kept.
    pub kept_at: DateTime<Utc>,
}

/// A build with its variants in order.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct BuildWithVariants {
    /// The build.
    #[serde(flatten)]
    pub build: Build,
    /// Its variants.
    pub variants: Vec<Variant>,
}

/// One kept state of a variant.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct Revision {
    /// Which.
    pub revision: i32,
    /// When it was kept.
    pub created_at: DateTime<Utc>,
    /// As typed.
    pub document: RawDesign,
}

/// How a search stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SearchState {
    /// No worker has begun.
    Waiting,
    /// At work.
    Running,
    /// All drivers have been looked at.
    Finished,
    /// It was called off; what had been found stays.
    Cancelled,
    /// It broke down.
    Failed,
}

/// A search of the library for a build's brief.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct Search {
    /// Its key.
    pub id: Uuid,
    /// Whose brief it is for.
    pub build: Uuid,
    /// The brief as it was then.
    pub brief: RawBrief,
    /// How many equal drivers each cabinet has.
    pub drivers: i32,
    /// How it stands.
    pub state: SearchState,
    /// Drivers that are looked at in all.
    pub total: i32,
    /// Drivers that have been.
    pub done: i32,
    /// Cabinets that were found so far.
    pub found: i32,
    /// Of these, such that reach all that is asked.
    pub complete: i32,
    /// Why it broke down.
    pub failure: Option<String>,
    /// When it was begun.
    pub created_at: DateTime<Utc>,
    /// When it ended.
    pub finished_at: Option<DateTime<Utc>>,
}

/// A cabinet for a driver, or why there is none.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct SearchRow {
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

/// The best of a search.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct SearchPage {
    /// How it stands.
    pub search: Search,
    /// The best that it has found.
    pub rows: Vec<SearchRow>,
}

/// A cabinet as a point.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct SearchPoint {
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
