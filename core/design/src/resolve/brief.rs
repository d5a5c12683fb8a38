//! A brief becomes numbers.

use oak_acoustics::medium::Space;

use super::playing::Playing;
use super::reading::{Reading, space};
use super::workshop::Workshop;
use crate::field;
use crate::file::{RawBrief, RawFamily, RawProgramme};
use crate::problem::{Problem, ProblemKind, Range};

/// What a build must reach, SI; what is `None` is left open.
#[derive(Debug, Clone, PartialEq)]
pub struct Brief {
    /// The space it radiates into.
    pub space: Option<Space>,
    /// Crest factor of what is played, dB.
    pub crest: Option<f64>,
    /// Lowest note, Hz.
    pub lowest: Option<f64>,
    /// Where others take over, Hz.
    pub crossover: Option<f64>,
    /// Level at the listener, dB.
    pub loudness: Option<f64>,
    /// Highest level at the listener that it may ever reach, dB.
    pub loudest: Option<f64>,
    /// Distance of the listener, m.
    pub distance: f64,
    /// Whether loudness is meant at the seats of the place instead.
    pub at_seats: bool,
    /// Most outside width, height and depth, m.
    pub outside: [Option<f64>; 3],
    /// Depth of the place at its top, where it is a wedge, m.
    pub top_depth: Option<f64>,
    /// Width of the amplifier head that is to stand on it, m.
    pub head: Option<f64>,
    /// Most that it may weigh, kg.
    pub weight: Option<f64>,
    /// Most outside volume, m3.
    pub free: Option<f64>,
    /// How many equal cabinets stand close together, each with such an amplifier.
    pub cabinets: u32,
    /// What the parts may cost.
    pub budget: Option<f64>,
    /// Power of the amplifier into its minimum load, W.
    pub power: Option<f64>,
    /// Minimum load of the amplifier, ohm.
    pub load: Option<f64>,
    /// Fastest air in a port, peak m/s.
    pub air_speed: Option<f64>,
    /// Families that are allowed; all where empty.
    pub families: Vec<RawFamily>,
    /// What it is played through and where it is heard.
    pub playing: Playing,
    /// How it is made, where that is not as usual.
    pub workshop: Option<Workshop>,
}

impl Brief {
    /// Played through a preset and heard in a place.
    #[must_use]
    pub fn played(mut self, playing: Playing) -> Self {
        self.playing = playing;
        self
    }
}

/// Resolves a brief.
///
/// # Errors
/// Every problem, with its place.
pub fn resolve_brief(raw: &RawBrief) -> Result<Brief, Vec<Problem>> {
    let mut reading = Reading::default();
    reading.text("template", raw.template.as_deref().unwrap_or(""), 0, 40);
    let sides = [
        ("width", &field::BRIEF_WIDTH, &raw.width),
        ("height", &field::BRIEF_HEIGHT, &raw.height),
        ("depth", &field::BRIEF_DEPTH, &raw.depth),
    ];
    let outside = sides.map(|(place, field, typed)| reading.optional(place, field, typed));
    // How a place leans is known from both its depths and its height.
    let leans = raw.top_depth.is_some();
    for (place, field, _) in sides[1..].iter().filter(|(_, _, typed)| leans && typed.is_none()) {
        reading.note(place, ProblemKind::Missing { range: Range { min: field.min, max: field.max, field } });
    }
    let brief = Brief {
        space: raw.space.map(space),
        crest: raw.programme.map(RawProgramme::crest),
        lowest: reading.optional("lowest", &field::BRIEF_LOWEST, &raw.lowest),
        crossover: reading.optional("crossover", &field::BRIEF_CROSSOVER, &raw.crossover),
        loudness: reading.optional("loudness", &field::BRIEF_LOUDNESS, &raw.loudness),
        loudest: reading.optional("loudest", &field::BRIEF_LOUDEST, &raw.loudest),
        distance: reading.optional("distance", &field::BRIEF_DISTANCE, &raw.distance).unwrap_or(1.0),
        at_seats: raw.at_seats,
        outside,
        top_depth: reading.optional("top_depth", &field::BRIEF_TOP_DEPTH, &raw.top_depth),
        head: reading.optional("head_width", &field::BRIEF_HEAD, &raw.head_width),
        weight: reading.optional("weight", &field::BRIEF_WEIGHT, &raw.weight),
        free: reading.optional("volume", &field::BRIEF_FREE, &raw.volume),
        cabinets: reading.count("cabinets", &field::BRIEF_CABINETS, &raw.cabinets).unwrap_or(1),
        budget: reading.optional("budget", &field::BRIEF_BUDGET, &raw.budget),
        power: reading.optional("amplifier_power", &field::BRIEF_POWER, &raw.amplifier_power),
        load: reading.optional("amplifier_load", &field::BRIEF_LOAD, &raw.amplifier_load),
        air_speed: raw.air_noise.map(|starting_point| starting_point.speed()),
        families: raw.families.clone(),
        playing: Playing::default(),
        workshop: None,
    };
    if let (Some(lowest), Some(crossover)) = (brief.lowest, brief.crossover)
        && crossover <= lowest
    {
        let range = Range { min: lowest, max: field::BRIEF_CROSSOVER.max, field: &field::BRIEF_CROSSOVER };
        let given = raw.crossover.as_ref().map(ToString::to_string).unwrap_or_default();
        reading.note("crossover", ProblemKind::OutOfRange { given, range });
    }
    if reading.problems.is_empty() { Ok(brief) } else { Err(reading.problems) }
}
