//! A step of the work.

use serde::Serialize;
use utoipa::ToSchema;

use super::hands::Reach;

/// What one does at a time.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Step {
    /// Its name in the plan, which stays the same however the plan changes.
    pub id: String,
    /// In which part of the work.
    pub phase: Phase,
    /// What that is called.
    pub phase_name: &'static str,
    /// What it is.
    pub title: String,
    /// What to do.
    pub how: String,
    /// Why.
    pub why: String,
    /// Lines of the parts list that it uses.
    pub parts: Vec<String>,
    /// Boards that it is about, by their numbers.
    pub panels: Vec<u32>,
    /// Tools.
    pub tools: Vec<&'static str>,
    /// How many clamps, and how far they must open, m.
    pub clamps: Option<(u32, f64)>,
    /// Work on all cabinets, minutes.
    pub minutes: f64,
    /// What must pass before the next step, and how long that takes, h.
    pub wait: Option<(String, f64)>,
    /// What can hurt.
    pub caution: Option<&'static str>,
    /// What to look at before it counts as done.
    pub check: String,
    /// What to do where that fails.
    pub fails: Option<Remedy>,
    /// A value that is measured here and flows back into the design.
    pub measures: Option<Measures>,
    /// Where builders differ: what each does.
    pub methods: Vec<(&'static str, &'static str)>,
    /// Steps before it.
    pub after: Vec<String>,
    /// Whether a hand works inside the box.
    #[serde(skip)]
    pub inside: bool,
    /// How a hand gets there, once the box is closed.
    pub reach: Option<Reach>,
}

/// What to do where a check fails: what the logbook would say, and what of the design changes.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Remedy {
    /// What went wrong, for the log.
    pub mistake: String,
    /// How it is usually put right.
    pub fix: String,
    /// Which value of the design changes, as a place in its file; none where it is only work.
    pub changes: Option<&'static str>,
}

/// A value that is measured in the workshop.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Measures {
    /// `thickness`, `cutout`, `depth` or `volume`.
    pub what: &'static str,
    /// Of a board's thickness: which material, in files.
    pub material: Option<&'static str>,
    /// What the design has, SI.
    pub drawn: f64,
}

impl Measures {
    /// Of no board.
    pub(super) fn of(what: &'static str, drawn: f64) -> Self {
        Self { what, material: None, drawn }
    }
}

/// Parts of the work, in their order.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Phase {
    /// A cheap box for trial.
    MockUp,
    /// What arrives is looked at.
    Arrive,
    /// Boards are cut.
    Cut,
    /// Holes and joints.
    Holes,
    /// It is put together.
    Assemble,
    /// What goes into it.
    Fit,
    /// It is proved.
    Prove,
    /// It is finished.
    Finish,
    /// It is done.
    Done,
}

impl Phase {
    /// What to call it.
    pub fn name(self) -> &'static str {
        match self {
            Self::MockUp => "Test box",
            Self::Arrive => "Before you cut",
            Self::Cut => "Cut the boards",
            Self::Holes => "Holes and joints",
            Self::Assemble => "Put it together",
            Self::Fit => "Fit it out",
            Self::Prove => "Prove it",
            Self::Finish => "Finish",
            Self::Done => "Last steps",
        }
    }
}

impl Step {
    /// With nothing said yet.
    pub(super) fn new(id: impl Into<String>, phase: Phase, title: impl Into<String>, minutes: f64) -> Self {
        Self {
            id: id.into(),
            phase,
            phase_name: phase.name(),
            title: title.into(),
            how: String::new(),
            why: String::new(),
            parts: Vec::new(),
            panels: Vec::new(),
            tools: Vec::new(),
            clamps: None,
            minutes,
            wait: None,
            caution: None,
            check: String::new(),
            fails: None,
            measures: None,
            methods: Vec::new(),
            after: Vec::new(),
            inside: false,
            reach: None,
        }
    }

    pub(super) fn how(mut self, how: impl Into<String>) -> Self {
        self.how = how.into();
        self
    }

    pub(super) fn why(mut self, why: impl Into<String>) -> Self {
        self.why = why.into();
        self
    }

    pub(super) fn check(mut self, check: impl Into<String>) -> Self {
        self.check = check.into();
        self
    }

    pub(super) fn tools(mut self, tools: &[&'static str]) -> Self {
        self.tools = tools.to_vec();
        self
    }

    pub(super) fn parts(mut self, parts: &[&str]) -> Self {
        self.parts = parts.iter().map(|part| (*part).to_owned()).collect();
        self
    }

    pub(super) fn panels(mut self, panels: Vec<u32>) -> Self {
        self.panels = panels;
        self
    }

    pub(super) fn after(mut self, after: &[&'static str]) -> Self {
        self.after = after.iter().map(|name| (*name).to_owned()).collect();
        self
    }

    pub(super) fn caution(mut self, caution: &'static str) -> Self {
        self.caution = Some(caution);
        self
    }

    pub(super) fn wait(mut self, of: &str, hours: f64) -> Self {
        self.wait = (hours > 0.0).then(|| (of.to_owned(), hours));
        self
    }

    pub(super) fn fails(mut self, mistake: &str, fix: &str, changes: Option<&'static str>) -> Self {
        self.fails = Some(Remedy { mistake: mistake.to_owned(), fix: fix.to_owned(), changes });
        self
    }

    pub(super) fn methods(mut self, methods: &[(&'static str, &'static str)]) -> Self {
        self.methods = methods.to_vec();
        self
    }

    pub(super) fn inside(mut self) -> Self {
        self.inside = true;
        self
    }
}
