//! In which conditions a figure stands: drive, space, amplifier and programme, named once and the same for every screen.

use oak_acoustics::medium::Space;
use oak_acoustics::source::Chain;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

pub use crate::drive::{Drive, DriveOrigin};
use crate::file::{RawBrief, RawDesign, RawFilter, RawListeningPlace, RawPreset, RawWorkshop};
use crate::problem::Problem;
pub use crate::resolve::Playing;
use crate::resolve::{
    Brief, ResolvedDesign, Workshop, resolve_brief, resolve_design, resolve_listening_place, resolve_preset,
    resolve_workshop,
};

/// What the conditions of a figure begin with.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawBasis {
    /// As the brief uses it: in its space, driven by the amplifier at hand. Without a brief as the design itself says.
    #[default]
    InUse,
    /// On the bench: 2.83 V, half space, no filters before the amplifier, nobody who listens.
    Bench,
}

/// The conditions that figures can be wanted in.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawConditions {
    /// In use or on the bench.
    #[serde(default)]
    pub basis: RawBasis,
    /// Filters that everything is played through, behind those of the design.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub preset: Option<RawPreset>,
    /// Where it is listened to.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub place: Option<RawListeningPlace>,
    /// How it is made, for what it costs and how it is cut.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub workshop: Option<RawWorkshop>,
}

impl RawConditions {
    /// On the bench.
    pub fn bench() -> Self {
        Self { basis: RawBasis::Bench, ..Self::default() }
    }

    /// What it is played through, and where it is heard; on the bench nothing and nowhere.
    ///
    /// # Errors
    /// Every problem, with its place.
    pub fn playing(&self) -> Result<Playing, Vec<Problem>> {
        let within = |problems: Vec<Problem>, list: &str| {
            problems.into_iter().map(|problem| problem.within(list)).collect::<Vec<_>>()
        };
        let preset = self.preset.as_ref().map(resolve_preset).transpose();
        let place = self.place.as_ref().map(resolve_listening_place).transpose();
        match (preset, place) {
            _ if self.basis == RawBasis::Bench => Ok(Playing::default()),
            (Ok(preset), Ok(place)) => Ok(Playing { preset, place }),
            (preset, place) => {
                let preset = preset.err().map(|problems| within(problems, "conditions.preset"));
                let place = place.err().map(|problems| within(problems, "conditions.place"));
                Err([preset, place].into_iter().flatten().flatten().collect())
            }
        }
    }

    /// A brief in these conditions; without those of the bench, which asks nothing.
    ///
    /// # Errors
    /// Every problem, with its place.
    pub fn asked(&self, brief: &RawBrief) -> Result<Brief, Vec<Problem>> {
        match (resolve_brief(brief), self.playing(), self.made()) {
            (Ok(brief), Ok(playing), Ok(workshop)) => Ok(Brief { workshop, ..brief.played(playing) }),
            (brief, playing, workshop) => {
                let brief = brief.err().map(|problems| {
                    problems.into_iter().map(|problem| problem.within("brief")).collect::<Vec<_>>()
                });
                Err([brief, playing.err(), workshop.err()].into_iter().flatten().flatten().collect())
            }
        }
    }

    /// How it is made, where that is not as usual.
    ///
    /// # Errors
    /// Every problem, with its place.
    pub fn made(&self) -> Result<Option<Workshop>, Vec<Problem>> {
        self.workshop.as_ref().map(resolve_workshop).transpose().map_err(|problems| {
            problems.into_iter().map(|problem| problem.within("conditions.workshop")).collect()
        })
    }
}

/// A design, and the conditions in which its figures are wanted.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawQuestion {
    /// Whose figures are asked about.
    pub design: RawDesign,
    /// What it is made for.
    #[serde(default)]
    pub brief: Option<RawBrief>,
    /// In which conditions.
    #[serde(default)]
    pub conditions: RawConditions,
}

/// A question with its design in the conditions that are wanted.
#[derive(Debug, Clone, PartialEq)]
pub struct Question {
    /// In its conditions.
    pub design: ResolvedDesign,
    /// What it is made for.
    pub brief: Option<Brief>,
}

impl RawQuestion {
    /// About a design as it says itself.
    pub fn of(design: RawDesign) -> Self {
        Self { design, brief: None, conditions: RawConditions::default() }
    }

    /// The active filters that its design is played through, as typed.
    pub fn filters(&self) -> &[RawFilter] {
        self.design.signal.as_ref().map_or(&[], |signal| signal.filters.as_slice())
    }

    /// The same question about another design.
    ///
    /// # Errors
    /// Every problem with design or brief, with its place.
    pub fn about(&self, design: &RawDesign) -> Result<Question, Vec<Problem>> {
        let playing = self.conditions.playing();
        let brief = self.brief.as_ref().map(|brief| self.conditions.asked(brief)).transpose();
        match (resolve_design(design), brief, playing) {
            (Ok(design), Ok(brief), Ok(playing)) => {
                let design = match (self.conditions.basis, &brief) {
                    (RawBasis::Bench, _) => design.on_the_bench(),
                    (RawBasis::InUse, Some(brief)) => design.in_use(Some(brief)),
                    (RawBasis::InUse, None) => design.in_use(None).played(playing),
                };
                Ok(Question { design, brief })
            }
            (design, Err(brief), _) => {
                Err([design.err(), Some(brief)].into_iter().flatten().flatten().collect())
            }
            (design, _, playing) => {
                Err([design.err(), playing.err()].into_iter().flatten().flatten().collect())
            }
        }
    }

    /// The design in its conditions.
    ///
    /// # Errors
    /// Every problem with design or brief, with its place.
    pub fn resolve(&self) -> Result<Question, Vec<Problem>> {
        self.about(&self.design)
    }
}

impl ResolvedDesign {
    /// As a brief has it used: in its space, for its programme, beside as many equal cabinets. The amplifier is the design's own, else that at hand; it is driven
    /// as the design says, else with all that the amplifier gives.
    #[must_use]
    pub fn in_use(mut self, brief: Option<&Brief>) -> Self {
        let own = self.allowance;
        let nominal = self.as_driven().nominal;
        // An amplifier gives its power into its minimum load, and into any other what its voltage makes of it.
        let at_hand = brief.and_then(|brief| Some(Drive::power(brief.power?, brief.load.unwrap_or(nominal))));
        let full = self.amplifier.or(at_hand);
        let typed = self.drive.origin == DriveOrigin::Typed;
        let drive = if typed { self.drive } else { full.unwrap_or(self.drive) };
        self.drive = drive;
        self.allowance.volts = full.map(|full| full.volts);
        if let Some(brief) = brief {
            self.space = brief.space.unwrap_or(self.space);
            self.cabinets = brief.cabinets;
            self.allowance.crest = brief.crest.unwrap_or(own.crest);
            self.allowance.air_speed = brief.air_speed.unwrap_or(own.air_speed);
            self = self.played(brief.playing.clone());
        }
        self
    }

    /// Played through a preset, behind its own filters, and heard in a place.
    #[must_use]
    fn played(mut self, playing: Playing) -> Self {
        if let Some((_, chain)) = &playing.preset {
            self.source.chain = std::mem::take(&mut self.source.chain).then(chain.clone());
        }
        self.playing = playing;
        self
    }

    /// One at 2.83 V in half space without filters; what limits it is its own, and passive parts are part of it.
    #[must_use]
    pub fn on_the_bench(mut self) -> Self {
        (self.drive, self.space, self.cabinets) = (Drive::BENCH, Space::Half, 1);
        self.source.chain = Chain::default();
        self
    }

    /// Drive and space in words.
    pub fn conditions(&self) -> String {
        let volts = oak_units::significant(self.drive.volts, 3);
        let drive = match self.drive.power {
            Some((watts, load)) => {
                let [watts, load] = [watts, load].map(|value| oak_units::significant(value, 3));
                format!("{watts} W into {load} Ω ({volts} V)")
            }
            None => format!("{volts} V"),
        };
        let space = match self.space {
            Space::Full => "free all round",
            Space::Half => "half space",
            Space::Quarter => "against a wall",
            Space::Eighth => "in a corner",
        };
        let filters = match &self.playing.preset {
            Some((name, _)) => format!(", preset {name}"),
            None if self.source.chain == Chain::default() => String::new(),
            None => ", through its filters".to_owned(),
        };
        match self.cabinets {
            1 => format!("{drive}, {space}{filters}"),
            many => format!("{many} cabinets, each with {drive}, {space}{filters}"),
        }
    }
}
