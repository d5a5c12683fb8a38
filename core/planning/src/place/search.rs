//! Where in a room cabinets play most evenly.

use oak_acoustics::Stop;
use oak_design::Problem;
use oak_design::conditions::{Question, RawQuestion};
use oak_design::file::RawListeningPlace;
use oak_design::heard;
use oak_design::problem::ProblemKind;
use oak_design::resolve::resolve_listening_place;
use oak_signal::best_place::{self, Found, judge, search};
use oak_signal::room::{Mode, ModeKind, NEAREST, Room};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::no_place;
use super::scene::cone_at;

/// Where places are looked for.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawPlaceSearch {
    /// The room with its seats, and the areas where a cabinet may stand.
    pub place: RawListeningPlace,
    /// How many cabinets are placed: 1 or 2.
    #[schema(minimum = 1, maximum = 2)]
    pub cabinets: u32,
    /// Where its first cone is over the middle of its underside: across, up and forward, m.
    pub cone: [f64; 3],
    /// Its outside width and depth, m; a point where it has no box.
    pub size: [f64; 2],
}

/// The best places of a search.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct BestPlaces {
    /// The most even first.
    pub found: Vec<BestPlace>,
    /// Spread of the places as they are now, dB; unknown without cabinets.
    pub now: Option<f64>,
    /// How many places, or pairs of places, were judged.
    pub judged: usize,
}

/// One place, or one pair.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct BestPlace {
    /// Middle of the underside of each cabinet, m.
    pub at: Vec<[f64; 3]>,
    /// Standard deviation of the level over all seats from 20 to 120 Hz, dB.
    pub spread: f64,
    /// Mean level there against 1 m in the open, dB.
    pub level: f64,
    /// Why: which standing waves it drives less than it might.
    pub why: String,
}

/// Less than this through a wall is a matter of rounding, m.
const TOUCHING: f64 = 1e-3;
/// How many are kept.
const KEPT: usize = 8;
/// Most places that pairs are made of: 180,000 pairs.
const MOST_FOR_PAIRS: usize = 600;

/// A search that can be carried out in pieces.
#[derive(Debug)]
pub struct Candidates {
    room: Room,
    seats: Vec<[f64; 3]>,
    /// Middles of the undersides of cabinets, and the cone of each.
    middles: Vec<[f64; 3]>,
    places: Vec<[f64; 3]>,
    count: usize,
    now: Option<f64>,
}

impl RawPlaceSearch {
    /// For a design in its place.
    ///
    /// # Errors
    /// Every problem with design or place; that there is no place.
    pub fn of(question: &RawQuestion, cabinets: u32) -> Result<Self, Vec<Problem>> {
        let Question { design, .. } = question.resolve()?;
        let Some(place) = question.conditions.place.clone() else {
            return Err(no_place());
        };
        let built = design.built().map_err(|problem| vec![problem])?;
        let [width, _, depth] = built.outside().unwrap_or_default();
        Ok(Self { place, cabinets, cone: heard::cone(&built), size: [width, depth] })
    }

    /// Lays the candidates out.
    ///
    /// # Errors
    /// Every problem with the place; that nobody listens, or that a cabinet may stand nowhere.
    pub fn candidates(&self) -> Result<Candidates, Vec<Problem>> {
        let place = resolve_listening_place(&self.place)?;
        let missing = |names: &'static [&'static str]| {
            vec![Problem::new("place", ProblemKind::MissingOneOf { names, needed: 1 })]
        };
        let Some(room) = place.room else {
            return Err(missing(&["width, length and height of a room or cabin"]));
        };
        let seats: Vec<[f64; 3]> = place.seats.iter().map(|seat| seat.at).collect();
        if seats.is_empty() {
            return Err(missing(&["seats"]));
        }
        let turned = place.stands.first().map_or(0.0, |stand| stand.turned);
        let (sine, cosine) = (turned.sin().abs(), turned.cos().abs());
        let [width, depth] = self.size;
        let half = [(width * cosine + depth * sine) / 2.0, (width * sine + depth * cosine) / 2.0];
        let inside = |at: &[f64; 3]| {
            (0..2).all(|axis| {
                at[axis] >= half[axis] - TOUCHING && at[axis] <= room.size[axis] - half[axis] + TOUCHING
            })
        };
        let mut middles = best_place::candidates(&room, &place.allowed(), &[]);
        middles.retain(inside);
        let clear = |at: &[f64; 3]| {
            let cone = cone_at(*at, turned, self.cone);
            room.holds(cone)
                && seats.iter().all(|seat| {
                    seat.iter().zip(&cone).map(|(a, b)| (a - b).powi(2)).sum::<f64>().sqrt() >= NEAREST
                })
        };
        middles.retain(clear);
        let count = if self.cabinets == 2 { 2 } else { 1 };
        if count == 2 && middles.len() > MOST_FOR_PAIRS {
            let every = middles.len().div_ceil(MOST_FOR_PAIRS);
            middles = middles.into_iter().step_by(every).collect();
        }
        if middles.is_empty() {
            return Err(missing(&[
                "areas inside the room in which the cabinet has room, clear of the seats",
            ]));
        }
        let places = middles.iter().map(|at| cone_at(*at, turned, self.cone)).collect();
        let stands: Vec<_> = place
            .stands
            .iter()
            .map(|stand| (cone_at(stand.at, stand.turned, self.cone), stand.gain, stand.delay))
            .collect();
        let now = judge(&room, &stands, &seats).map(|found| found.cost);
        Ok(Candidates { room, seats, middles, places, count, now })
    }
}

impl Candidates {
    /// How many places there are.
    pub fn len(&self) -> usize {
        self.places.len()
    }

    /// Whether there are none.
    pub fn is_empty(&self) -> bool {
        self.places.is_empty()
    }

    /// The best of those whose first place is one of a range; `None` where it was stopped.
    pub fn best(&self, first: std::ops::Range<usize>, stop: &Stop) -> Option<BestPlaces> {
        let (found, judged) = search(&self.room, &self.seats, &self.places, self.count, first, KEPT, stop)?;
        let found = found.iter().map(|found| self.told(found)).collect();
        Some(BestPlaces { found, now: self.now, judged })
    }

    fn told(&self, found: &Found) -> BestPlace {
        let why = self.why(&found.places);
        let at = found.which.iter().map(|which| self.middles[*which]).collect();
        BestPlace { at, spread: found.cost, level: found.level, why }
    }

    /// What these places do to the standing waves between one pair of walls in the band that is judged: hardly driven, or in full.
    fn why(&self, places: &[[f64; 3]]) -> String {
        let frequencies = best_place::frequencies();
        let band = frequencies[0]..=frequencies[frequencies.len() - 1];
        let axial = |mode: &Mode| mode.kind() == ModeKind::Axial && band.contains(&mode.frequency);
        let (mut hardly, mut full) = (Vec::new(), Vec::new());
        for mode in self.room.modes(*band.end()).into_iter().filter(axial).take(MOST_WAVES) {
            let together: f64 = places.iter().map(|at| mode.shape(&self.room, *at)).sum();
            let driven = together.abs() / places.len() as f64;
            if driven < HARDLY {
                hardly.push(format!("{:.0}", mode.frequency));
            } else if driven > FULLY {
                full.push(format!("{:.0}", mode.frequency));
            }
        }
        match (hardly.is_empty(), full.is_empty()) {
            (false, false) => {
                format!(
                    "Hardly drives the standing waves at {} Hz, but fully those at {} Hz.",
                    hardly.join(", "),
                    full.join(", ")
                )
            }
            (false, true) => format!("Hardly drives the standing waves at {} Hz.", hardly.join(", ")),
            (true, false) => {
                format!("Fully drives the standing waves at {} Hz; together they are even.", full.join(", "))
            }
            (true, true) => "Drives every standing wave in part.".to_owned(),
        }
    }
}

/// A wave that is driven less than this of its most is hardly driven, and one that is driven more than that in full.
const HARDLY: f64 = 0.35;
const FULLY: f64 = 0.85;
/// Most waves that a reason speaks of.
const MOST_WAVES: usize = 8;

impl BestPlaces {
    /// Both together.
    #[must_use]
    pub fn with(mut self, other: Self) -> Self {
        self.found.extend(other.found);
        self.found.sort_by(|a, b| a.spread.total_cmp(&b.spread).then(b.level.total_cmp(&a.level)));
        self.found.truncate(KEPT);
        Self { found: self.found, now: other.now, judged: self.judged + other.judged }
    }
}
