//! What a build is made of: documents of some kinds, each kept in revisions of its own.
//!
//! A new kind is a variant of [`RawDocument`] and its entry in [`KINDS`]; the compiler asks for the rest of this file. The store,
//! the API, history, archive, export and import take it from here.

use serde::{Deserialize, Serialize};
use serde_json::Value;
use utoipa::ToSchema;

use crate::file::{
    BUILD_FORMAT, DESIGN_FORMAT, RawBrief, RawBuild, RawDesign, RawEntry, RawListeningPlace, RawMeasurement,
    RawPreset, RawProgress, RawWorkshop, VERSION, open_value, read_value,
};
use crate::problem::Problem;
use crate::resolve::{
    check_entry, check_progress, check_title, resolve_brief, resolve_design, resolve_listening_place,
    resolve_measurement, resolve_preset, resolve_workshop,
};

/// What a build is called and what it is for.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawTitle {
    /// What to call it.
    #[schema(max_length = 120)]
    pub name: String,
    /// What it is for.
    #[serde(default)]
    #[schema(max_length = 10000)]
    pub notes: String,
}

/// One document of a build, as typed.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
#[serde(tag = "kind", content = "content", rename_all = "snake_case")]
pub enum RawDocument {
    /// Name and notes of the build.
    Title(RawTitle),
    /// What the build must reach.
    Brief(Box<RawBrief>),
    /// A candidate design.
    Variant(Box<RawDesign>),
    /// Filters kept by a name.
    Preset(RawPreset),
    /// Where the build is listened to.
    Place(Box<RawListeningPlace>),
    /// How it is made.
    Workshop(Box<RawWorkshop>),
    /// What has been done of it.
    Progress(Box<RawProgress>),
    /// An entry of its logbook.
    Entry(Box<RawEntry>),
    /// A trace that was measured.
    Measurement(Box<RawMeasurement>),
}

/// A kind of document.
#[derive(Debug)]
pub struct DocumentKind {
    /// Its name in the store and the API.
    pub id: &'static str,
    /// Its name for people, of one and of several.
    pub names: [&'static str; 2],
    /// Most of them in one build, archived ones left out.
    pub most: u32,
    read: fn(Value) -> Result<RawDocument, Problem>,
}

/// Name and notes.
pub static TITLE: DocumentKind = DocumentKind {
    id: "title",
    names: ["name", "names"],
    most: 1,
    read: |value| read_value(value).map(RawDocument::Title),
};

/// The brief.
pub static BRIEF: DocumentKind = DocumentKind {
    id: "brief",
    names: ["brief", "briefs"],
    most: 1,
    read: |value| read_value(value).map(RawDocument::Brief),
};

/// A candidate design.
pub static VARIANT: DocumentKind = DocumentKind {
    id: "variant",
    names: ["variant", "variants"],
    most: 100,
    read: |value| open_value(value, DESIGN_FORMAT).map(RawDocument::Variant),
};

/// Filters kept by a name.
pub static PRESET: DocumentKind = DocumentKind {
    id: "preset",
    names: ["preset", "presets"],
    most: 50,
    read: |value| read_value(value).map(RawDocument::Preset),
};

/// Where the build is listened to.
pub static PLACE: DocumentKind = DocumentKind {
    id: "place",
    names: ["place", "places"],
    most: 20,
    read: |value| read_value(value).map(RawDocument::Place),
};

/// How the build is made.
pub static WORKSHOP: DocumentKind = DocumentKind {
    id: "workshop",
    names: ["workshop", "workshops"],
    most: 1,
    read: |value| read_value(value).map(RawDocument::Workshop),
};

/// What has been done of it.
pub static PROGRESS: DocumentKind = DocumentKind {
    id: "progress",
    names: ["progress", "progress"],
    most: 1,
    read: |value| read_value(value).map(RawDocument::Progress),
};

/// An entry of its logbook.
pub static ENTRY: DocumentKind = DocumentKind {
    id: "entry",
    names: ["log entry", "log entries"],
    most: 2000,
    read: |value| read_value(value).map(RawDocument::Entry),
};

/// A trace that was measured.
pub static MEASUREMENT: DocumentKind = DocumentKind {
    id: "measurement",
    names: ["measurement", "measurements"],
    most: 500,
    read: |value| read_value(value).map(RawDocument::Measurement),
};

/// All kinds of documents.
pub static KINDS: [&DocumentKind; 9] =
    [&TITLE, &BRIEF, &VARIANT, &PRESET, &PLACE, &WORKSHOP, &PROGRESS, &ENTRY, &MEASUREMENT];

impl DocumentKind {
    /// The kind of a name; nothing where there is none.
    pub fn of(id: &str) -> Option<&'static Self> {
        KINDS.into_iter().find(|kind| kind.id == id)
    }

    /// Reads the content of a document of this kind, of any version this program knows.
    ///
    /// # Errors
    /// The place where it is not such a document.
    pub fn read(&self, content: Value) -> Result<RawDocument, Problem> {
        (self.read)(content)
    }
}

impl RawDocument {
    /// Its kind.
    pub fn kind(&self) -> &'static DocumentKind {
        match self {
            Self::Title(_) => &TITLE,
            Self::Brief(_) => &BRIEF,
            Self::Variant(_) => &VARIANT,
            Self::Preset(_) => &PRESET,
            Self::Place(_) => &PLACE,
            Self::Workshop(_) => &WORKSHOP,
            Self::Progress(_) => &PROGRESS,
            Self::Entry(_) => &ENTRY,
            Self::Measurement(_) => &MEASUREMENT,
        }
    }

    /// Checks its values one by one. A state that one passes through while working, such as a tuning out of reach, may be kept.
    ///
    /// # Errors
    /// Every problem, with its place in the content.
    pub fn check(&self) -> Result<(), Vec<Problem>> {
        match self {
            Self::Title(title) => check_title(&title.name, &title.notes),
            Self::Brief(brief) => resolve_brief(brief).map(|_| ()),
            Self::Variant(design) => resolve_design(design).map(|_| ()),
            Self::Preset(preset) => resolve_preset(preset).map(|_| ()),
            Self::Place(place) => resolve_listening_place(place).map(|_| ()),
            Self::Workshop(workshop) => resolve_workshop(workshop).map(|_| ()),
            Self::Progress(progress) => check_progress(progress),
            Self::Entry(entry) => check_entry(entry).map(|_| ()),
            Self::Measurement(measurement) => resolve_measurement(measurement).map(|_| ()),
        }
    }

    /// Its content as JSON.
    ///
    /// # Errors
    /// It has no JSON form.
    pub fn content(&self) -> serde_json::Result<Value> {
        match self {
            Self::Title(title) => serde_json::to_value(title),
            Self::Brief(brief) => serde_json::to_value(brief),
            Self::Variant(design) => serde_json::to_value(design),
            Self::Preset(preset) => serde_json::to_value(preset),
            Self::Place(place) => serde_json::to_value(place),
            Self::Workshop(workshop) => serde_json::to_value(workshop),
            Self::Progress(progress) => serde_json::to_value(progress),
            Self::Entry(entry) => serde_json::to_value(entry),
            Self::Measurement(measurement) => serde_json::to_value(measurement),
        }
    }
}

impl RawBuild {
    /// The documents in a build file.
    pub fn into_documents(self) -> Vec<RawDocument> {
        let title = RawDocument::Title(RawTitle { name: self.name.trim().to_owned(), notes: self.notes });
        let brief = self.brief.map(|brief| RawDocument::Brief(Box::new(brief)));
        let variants = self.variants.into_iter().map(|design| RawDocument::Variant(Box::new(design)));
        let presets = self.presets.into_iter().map(RawDocument::Preset);
        let places = self.places.into_iter().map(|place| RawDocument::Place(Box::new(place)));
        let workshop = self.workshop.map(|workshop| RawDocument::Workshop(Box::new(workshop)));
        let progress = self.progress.map(|progress| RawDocument::Progress(Box::new(progress)));
        let log = self.log.into_iter().map(|entry| RawDocument::Entry(Box::new(entry)));
        let plans = std::iter::once(title).chain(brief).chain(variants).chain(presets).chain(places);
        let measurements = self.measurements.into_iter().map(|one| RawDocument::Measurement(Box::new(one)));
        plans.chain(workshop).chain(progress).chain(log).chain(measurements).collect()
    }

    /// A build file of documents, variants in their order.
    pub fn of_documents(documents: impl IntoIterator<Item = RawDocument>) -> Self {
        let mut build = Self {
            format: BUILD_FORMAT.to_owned(),
            version: VERSION,
            name: String::new(),
            notes: String::new(),
            brief: None,
            variants: Vec::new(),
            presets: Vec::new(),
            places: Vec::new(),
            workshop: None,
            progress: None,
            log: Vec::new(),
            measurements: Vec::new(),
        };
        for document in documents {
            match document {
                RawDocument::Title(RawTitle { name, notes }) => (build.name, build.notes) = (name, notes),
                RawDocument::Brief(brief) => build.brief = Some(*brief),
                RawDocument::Variant(design) => build.variants.push(*design),
                RawDocument::Preset(preset) => build.presets.push(preset),
                RawDocument::Place(place) => build.places.push(*place),
                RawDocument::Workshop(workshop) => build.workshop = Some(*workshop),
                RawDocument::Progress(progress) => build.progress = Some(*progress),
                RawDocument::Entry(entry) => build.log.push(*entry),
                RawDocument::Measurement(measurement) => build.measurements.push(*measurement),
            }
        }
        build
    }
}
