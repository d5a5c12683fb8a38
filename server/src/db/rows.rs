//! What is stored, as the API shows it.

use chrono::{DateTime, Utc};
use oak_design::file::{RawDesign, RawDriver};
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
    /// Last change.
    pub updated_at: DateTime<Utc>,
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
