//! Which driver in which cabinet reaches a brief: a library searched, family by family.
//!
//! `tunable` has the continuous values of each family, `sketch` judges a cabinet roughly, `tune` finds the best values, `score` says
//! how well a finished design does, `front` which of many are beaten in nothing.

mod front;
mod score;
mod sketch;
mod tunable;
mod tune;

use oak_acoustics::enclosure::{Enclosure, Fidelity, Port, Ported};
use oak_acoustics::medium::CrossSection;
use oak_acoustics::starting_point::{Ask, Wishes, port};
use oak_design::Problem;
use oak_design::field;
use oak_design::file::{
    DESIGN_FORMAT, RawBrief, RawDesign, RawDriver, RawDriverArray, RawEnclosure, RawFamily, Typed, VERSION,
};
use oak_design::problem::{ProblemKind, Range};
use oak_design::resolve::{Brief, ResolvedDesign, resolve_brief, resolve_design};
use oak_design::start::{raw_enclosure, starting_points};

pub use front::front;
pub use score::{Found, Part};
use sketch::{Evaluator, Sketch};
use tunable::{Around, SHAPES, TunableFamily};

use crate::check::size;
use crate::fitted::fitted;
use crate::wiring::wiring_options;
use crate::{Case, wiring};

/// A cabinet that no brief limits holds this much at most, m3.
const VAST: f64 = 1.0;
/// A starting point's own cabinet is preferred to a tuned one that is better by less than this many doublings.
const PREFERENCE: f64 = 0.002;
/// What a constraint may be off by in a sketch, doublings.
const SLACK: f64 = 0.02;

/// The families that are searched, as written in files.
const SEARCHED: [&str; 5] = ["sealed", "ported", "passive_radiator", "bandpass4", "line"];

/// What is searched for.
#[derive(Debug, Clone)]
pub struct DriverMatch {
    raw: RawBrief,
    brief: Brief,
    lowest: f64,
    drivers: u32,
    shapes: Vec<&'static TunableFamily>,
}

/// What came of one driver in one family.
#[derive(Debug, Clone, PartialEq)]
pub struct Outcome {
    /// The family.
    pub family: RawFamily,
    /// Its best cabinet, or why there is none.
    pub found: Result<Found, String>,
}

/// A cabinet among those of one family.
struct Candidate {
    starting_point: &'static str,
    reason: Option<String>,
    enclosure: Enclosure,
    sketch: Sketch,
}

impl DriverMatch {
    /// A search for a brief with a number of equal drivers.
    ///
    /// # Errors
    /// Every problem with the brief, which must name a lowest note and allow a family that is searched, or with the number.
    pub fn new(raw: &RawBrief, drivers: u32) -> Result<Self, Vec<Problem>> {
        let brief = resolve_brief(raw)?;
        let missing = || {
            let wanted = &field::BRIEF_LOWEST;
            let range = Range { min: wanted.min, max: wanted.max, field: wanted };
            vec![Problem::new("lowest", ProblemKind::Missing { range })]
        };
        let lowest = brief.lowest.ok_or_else(missing)?;
        let allowed =
            |tunable: &&TunableFamily| brief.families.is_empty() || brief.families.contains(&tunable.family);
        let shapes: Vec<_> = SHAPES.iter().filter(allowed).collect();
        if shapes.is_empty() {
            let kind = ProblemKind::MissingOneOf { names: &SEARCHED, needed: 1 };
            return Err(vec![Problem::new("families", kind)]);
        }
        if !(1..=wiring::MOST).contains(&drivers) {
            let range = Range { min: 1.0, max: f64::from(wiring::MOST), field: &field::SERIES };
            let kind = ProblemKind::OutOfRange { given: drivers.to_string(), range };
            return Err(vec![Problem::new("drivers", kind)]);
        }
        Ok(Self { raw: raw.clone(), lowest, drivers, shapes, brief })
    }

    /// The families that are searched, of those that the brief allows.
    pub fn families(&self) -> impl Iterator<Item = RawFamily> {
        self.shapes.iter().map(|tunable| tunable.family)
    }

    /// The brief, resolved.
    pub fn brief(&self) -> &Brief {
        &self.brief
    }

    /// What comes of a driver in every family that is searched.
    ///
    /// # Errors
    /// Every problem with the driver.
    pub fn outcomes(&self, driver: &RawDriver) -> Result<Vec<Outcome>, Vec<Problem>> {
        let driver_array = self.wired(driver)?;
        let empty = RawEnclosure::empty(RawFamily::InfiniteBaffle);
        let design = self.design(driver.clone(), driver_array.clone(), empty, String::new());
        let design = resolve_design(&design)?.in_use(Some(&self.brief));
        let frame = size::frame(&design.driver);
        let room = size::room(&self.brief).map_or(VAST, |room| size::left(room, self.drivers, frame));
        let outcome = |tunable: &&'static TunableFamily| {
            let found = if room > 0.0 {
                let evaluator = self.evaluator(&design, room);
                self.best(tunable, &evaluator, driver, driver_array.as_ref())
            } else {
                Err("The drivers alone take more room than the place has.".to_owned())
            };
            Outcome { family: tunable.family, found }
        };
        Ok(self.shapes.iter().map(outcome).collect())
    }

    /// What was found for a driver as a whole design; amplifier, programme and space stand in the brief.
    pub fn found(&self, driver: RawDriver, found: Found) -> RawDesign {
        let design = self.design(driver, found.driver_array, found.enclosure, found.reason);
        RawDesign { body: found.body, ..design }
    }

    /// What was found for a driver once its box is drawn; `None` where that cannot be worked out.
    pub fn drawn(&self, driver: &RawDriver, found: &Found) -> Option<Found> {
        let design = fitted(&self.brief, &self.raw, self.found(driver.clone(), found.clone()));
        let case = Case::of(&self.brief, &design).ok()?;
        Some(Found::of(&case, &found.starting_point, Some(found.reason.clone())))
    }

    fn design(
        &self,
        driver: RawDriver,
        driver_array: Option<RawDriverArray>,
        enclosure: RawEnclosure,
        notes: String,
    ) -> RawDesign {
        RawDesign {
            format: DESIGN_FORMAT.to_owned(),
            version: VERSION,
            name: format!("{}, {}", driver.name, enclosure.family.name().to_lowercase()),
            driver,
            driver_array,
            enclosure,
            body: None,
            signal: None,
            space: None,
            air: None,
            measured: None,
            notes,
        }
    }

    /// How the drivers are wired: the lowest load that the amplifier stands, or the highest there is.
    ///
    /// # Errors
    /// Every problem with the driver.
    pub fn wired(&self, driver: &RawDriver) -> Result<Option<RawDriverArray>, Vec<Problem>> {
        let least = self.brief.load.unwrap_or(0.0);
        let standing = wiring_options(driver, self.drivers, least, f64::INFINITY)?;
        let way = match standing.into_iter().next() {
            Some(way) => Some(way),
            None => wiring_options(driver, self.drivers, 0.0, f64::INFINITY)?.pop(),
        };
        let count = |count: u32| (count > 1).then(|| Typed::Number(f64::from(count)));
        let driver_array = way.map(|way| RawDriverArray {
            coils: way.coils,
            series: count(way.series),
            parallel: count(way.parallel),
            ..RawDriverArray::default()
        });
        Ok(driver_array.filter(|driver_array| *driver_array != RawDriverArray::default()))
    }

    fn evaluator(&self, design: &ResolvedDesign, room: f64) -> Evaluator {
        let driver = design.as_driven();
        let around = Around { driver, count: self.drivers, air: design.air, lowest: self.lowest, room };
        Evaluator::new(&self.brief, design, around)
    }

    fn best(
        &self,
        tunable: &'static TunableFamily,
        evaluator: &Evaluator,
        driver: &RawDriver,
        driver_array: Option<&RawDriverArray>,
    ) -> Result<Found, String> {
        let (by_starting_point, mut refusal) = self.by_starting_point(tunable.family, evaluator);
        if by_starting_point.is_none() {
            // It is the driver that does not suit, and not the place, where there is no start without a wish either.
            let ask = Ask::new(evaluator.setting.clone(), Wishes::default());
            if starting_points(tunable.family)
                .iter()
                .all(|starting_point| (starting_point.start)(&ask).is_err())
            {
                return Err(refusal.unwrap_or_default());
            }
            refusal = None;
        }
        let tuned = tune::tune(tunable, evaluator).map(|(enclosure, sketch)| Candidate {
            starting_point: "To the brief",
            reason: None,
            enclosure,
            sketch,
        });
        let worth = |candidate: &Candidate| candidate.sketch.with_violations();
        let best = match (by_starting_point, tuned) {
            (Some(starting_point), Some(tuned)) if worth(&tuned) + PREFERENCE < worth(&starting_point) => {
                tuned
            }
            (Some(starting_point), _) => starting_point,
            (None, Some(tuned)) => tuned,
            (None, None) => return Err(refusal.unwrap_or_else(|| "It cannot be built.".to_owned())),
        };
        if let Some(why) = best.sketch.within.iter().position(|within| *within < -SLACK) {
            return Err(refusal.unwrap_or_else(|| UNFIT[why].to_owned()));
        }
        self.finish(tunable.family, best, driver, driver_array)
    }

    /// The best of the starting points, and why one has none.
    fn by_starting_point(
        &self,
        family: RawFamily,
        evaluator: &Evaluator,
    ) -> (Option<Candidate>, Option<String>) {
        // A plain port is as good to begin with, and quicker.
        let plain = evaluator.setting.clone().with(Fidelity { ducts: false, ..Fidelity::FULL });
        let wishes = Wishes { volume: Some(evaluator.around.room), lowest: Some(self.lowest) };
        let ask = Ask::new(plain, wishes);
        let mut refusal = None;
        let mut best: Option<Candidate> = None;
        for starting_point in starting_points(family) {
            match (starting_point.start)(&ask) {
                Ok(start) => {
                    let Some(sketch) = evaluator.sketch(&start.enclosure) else { continue };
                    let worth = sketch.with_violations();
                    if best.as_ref().is_none_or(|best| worth < best.sketch.with_violations()) {
                        let reason = Some(start.reason);
                        let enclosure = start.enclosure;
                        best = Some(Candidate {
                            starting_point: starting_point.name,
                            reason,
                            enclosure,
                            sketch,
                        });
                    }
                }
                Err(why) => refusal = refusal.or(Some(why.0)),
            }
        }
        (best, refusal)
    }

    /// Rounds a cabinet to what can be built, simulates it with everything in it, and says how it does.
    fn finish(
        &self,
        family: RawFamily,
        best: Candidate,
        driver: &RawDriver,
        driver_array: Option<&RawDriverArray>,
    ) -> Result<Found, String> {
        let enclosure = raw_enclosure(family, &built(best.enclosure, best.sketch.tuning));
        let design = self.design(driver.clone(), driver_array.cloned(), enclosure, String::new());
        let told = |problems: Vec<Problem>| {
            problems.into_iter().next().map_or_else(String::new, |problem| problem.to_string())
        };
        let case = Case::unboxed(&self.brief, &design).map_err(told)?;
        let found = Found::of(&case, best.starting_point, best.reason.clone());
        // Only what reaches everything else is worth a drawing.
        if !found.holds_back.is_empty() {
            return Ok(found);
        }
        let design = fitted(&self.brief, &self.raw, design);
        let case = Case::of(&self.brief, &design).map_err(told)?;
        Ok(Found::of(&case, best.starting_point, best.reason))
    }
}

/// Why a cabinet that violates a constraint is none, in the order of the constraints.
const UNFIT: [&str; 5] = [
    "No cabinet of this kind around it fits the place.",
    "Every one that fits booms by more than 3 dB, or sags by more than 6 dB within the band.",
    "A port that is wide enough is too long for any box that fits.",
    "The box that fits is so large for the port that a hole in the wall tunes it too low.",
    "Its radiators would have to be lighter than cones are.",
];

/// A cabinet as it is built: ports of pipes that are sold, as long as the tuning needs.
fn built(enclosure: Enclosure, tuning: Option<f64>) -> Enclosure {
    let chamber = |chamber: Ported| match tuning {
        Some(tuning) if chamber.tuning.is_none() => {
            let ports = chamber.ports.into_iter().map(sold).collect();
            Ported { tuning: Some(tuning), ports, ..chamber }
        }
        _ => chamber,
    };
    match enclosure {
        Enclosure::Ported(ported) => Enclosure::Ported(chamber(ported)),
        Enclosure::Bandpass4(bandpass) => {
            let front = chamber(bandpass.front);
            Enclosure::Bandpass4(oak_acoustics::enclosure::Bandpass4 { front, ..bandpass })
        }
        other => other,
    }
}

fn sold(port: Port) -> Port {
    let CrossSection::Round { radius } = port.section else { return port };
    let diameter = ((2.0 * radius / port::STEP).ceil() * port::STEP).max(port::STEP);
    Port { section: CrossSection::Round { radius: 0.5 * diameter }, length: None, ..port }
}
