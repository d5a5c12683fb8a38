//! How sure a prediction is: a design built many times, each time with other random deviations.

use oak_acoustics::Stop;
use oak_acoustics::driver::Driver;
use oak_acoustics::enclosure::{Enclosure, Mouth, Port};
use oak_acoustics::response::{FrequencyGrid, Response};
use oak_design::Problem;
use oak_design::conditions::{Question, RawConditions, RawQuestion};
use oak_design::field::Field;
use oak_design::file::{RawBrief, RawDesign};
use oak_design::problem::{ProblemKind, Range};
use oak_design::report::compute_unboxed;
use oak_design::resolve::ResolvedDesign;
use oak_units::Dimension;
use rand::SeedableRng;
use rand_chacha::ChaCha8Rng;
use rand_distr::{Distribution, StandardNormal};
use rayon::prelude::*;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// How far values may be off: two standard deviations as a share, so that 19 of 20 are nearer. Usual figures (common practice)
/// where absent.
#[derive(Debug, Clone, Copy, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawSpreads {
    /// Resonance of the driver; 0.10.
    #[serde(default)]
    pub fs: Option<f64>,
    /// Electrical Q; 0.15.
    #[serde(default)]
    pub qes: Option<f64>,
    /// Mechanical Q; 0.20.
    #[serde(default)]
    pub qms: Option<f64>,
    /// Vas; 0.15.
    #[serde(default)]
    pub vas: Option<f64>,
    /// Volumes of the box; 0.03.
    #[serde(default)]
    pub volume: Option<f64>,
    /// Lengths of ports, and of lines and horns; 0.03.
    #[serde(default)]
    pub port_length: Option<f64>,
}

/// What is built many times.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawTolerance {
    /// The design.
    pub design: RawDesign,
    /// What it must reach, where it must.
    #[serde(default)]
    pub brief: Option<RawBrief>,
    /// In which conditions.
    #[serde(default)]
    pub conditions: RawConditions,
    /// How far values may be off.
    #[serde(default)]
    pub spreads: RawSpreads,
}

/// What comes of it.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Tolerance {
    /// The spreads that were used.
    pub spreads: RawSpreads,
    /// How often it was built.
    pub samples: usize,
    /// Hz.
    pub frequency: Vec<f32>,
    /// The level that one of 40 falls short of, dB at 1 m, `[n]`.
    pub low: Vec<f32>,
    /// The level as designed, dB, `[n]`.
    pub level: Vec<f32>,
    /// The level that one of 40 exceeds, dB, `[n]`.
    pub high: Vec<f32>,
    /// F3, Hz.
    pub f3: Option<Percentiles>,
    /// Qtc of a closed box.
    pub qtc: Option<Percentiles>,
    /// Tuning, Hz.
    pub tuning: Option<Percentiles>,
    /// Highest level above the reference, dB.
    pub peak: Percentiles,
    /// The share of boxes whose F3 reaches the lowest note of the brief.
    pub reaching: Option<f64>,
    /// How sure that is, in words.
    pub words: Vec<String>,
}

/// A figure as designed and as built out.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Percentiles {
    /// As designed.
    pub designed: f64,
    /// One of 40 is lower.
    pub low: f64,
    /// Half are lower.
    pub middle: f64,
    /// One of 40 is higher.
    pub high: f64,
}

/// Boxes that are built.
pub const SAMPLES: usize = 400;
/// The same deviations every time, so that an answer can be had again.
const SEED: u64 = 19_061_968;
/// No value is further off than this many standard deviations: nobody sells such a driver.
const FURTHEST: f64 = 3.0;
const POINTS: usize = 120;

impl RawSpreads {
    fn values(&self) -> [(&'static str, f64); 6] {
        let or = |given: Option<f64>, usual| given.unwrap_or(usual);
        [
            ("fs", or(self.fs, 0.10)),
            ("qes", or(self.qes, 0.15)),
            ("qms", or(self.qms, 0.20)),
            ("vas", or(self.vas, 0.15)),
            ("volume", or(self.volume, 0.03)),
            ("port_length", or(self.port_length, 0.03)),
        ]
    }
}

static SPREAD: Field = Field {
    path: "spreads",
    symbol: "Spread",
    dimension: Dimension::Fraction,
    unit: "%",
    min: 0.0,
    max: 0.5,
    meaning: "How far a value may be off.",
};

/// How far each value of one box is off: factors.
#[derive(Debug, Clone, Copy)]
struct Perturbation {
    fs: f64,
    qes: f64,
    qms: f64,
    vas: f64,
    volume: f64,
    port_length: f64,
}

impl Perturbation {
    fn draw(spreads: &[(&'static str, f64); 6], percentiles: &mut ChaCha8Rng) -> Self {
        let [fs, qes, qms, vas, volume, port_length] = spreads.map(|(_, spread)| {
            let normal: f64 = StandardNormal.sample(percentiles);
            // Logarithms are spread evenly to both sides, and no value gets below nothing.
            (0.5 * spread * normal.clamp(-FURTHEST, FURTHEST)).exp()
        });
        Self { fs, qes, qms, vas, volume, port_length }
    }
}

/// One box as it came out.
struct Built {
    levels: Vec<f64>,
    f3: Option<f64>,
    qtc: Option<f64>,
    tuning: Option<f64>,
    peak: f64,
}

/// Builds a design many times.
///
/// # Errors
/// What is wrong with design, brief or spreads.
pub fn tolerance(ask: &RawTolerance, stop: &Stop) -> Result<Tolerance, Vec<Problem>> {
    let spreads = ask.spreads.values();
    let range = Range { min: SPREAD.min, max: SPREAD.max, field: &SPREAD };
    let wrong = |(name, spread): &(&str, f64)| {
        let kind = ProblemKind::OutOfRange { given: SPREAD.write(*spread), range };
        (!(range.min..=range.max).contains(spread)).then(|| Problem::new(format!("spreads.{name}"), kind))
    };
    let problems: Vec<Problem> = spreads.iter().filter_map(wrong).collect();
    if !problems.is_empty() {
        return Err(problems);
    }
    let RawTolerance { design, brief, conditions, .. } = ask.clone();
    let Question { design, brief } = RawQuestion { design, brief, conditions }.resolve()?;
    let lowest = brief.and_then(|brief| brief.lowest);
    // Boards and ports are cut once, and then the box is what it is.
    let one = |problem| vec![problem];
    let design = design.built().map_err(one)?.design;
    let grid = FrequencyGrid::logarithmic(10.0, 500.0, POINTS).expect("within the allowed range");
    let designed = built(&design, &grid).map_err(one)?;
    let mut percentiles = ChaCha8Rng::seed_from_u64(SEED);
    let offs: Vec<Perturbation> =
        (0..SAMPLES).map(|_| Perturbation::draw(&spreads, &mut percentiles)).collect();
    let boxes: Vec<Built> = offs
        .into_par_iter()
        .filter(|_| !stop.stopped())
        .filter_map(|perturbation| built(&shaken(&design, perturbation), &grid).ok())
        .collect();
    Ok(report(&spreads, lowest, &grid, &designed, &boxes))
}

fn built(design: &ResolvedDesign, grid: &FrequencyGrid) -> Result<Built, Problem> {
    let computed = compute_unboxed(design, grid)?;
    let tuned = computed.built.compiled.port_tuning.as_ref().or(computed.built.compiled.rear_tuning.as_ref());
    Ok(Built {
        levels: Response::level(&computed.response).collect(),
        f3: computed.figures.f3,
        qtc: computed.built.compiled.closed_box.map(|closed| closed.qtc),
        tuning: tuned.map(|tuning| tuning.reactance),
        peak: computed.figures.level_peak.value - computed.figures.reference_level,
    })
}

/// The design as one builder gets it. All its drivers are off alike, as those of one batch are.
fn shaken(design: &ResolvedDesign, perturbation: Perturbation) -> ResolvedDesign {
    let mut shaken = design.clone();
    shaken.driver_array.driver = off_by(&design.driver_array.driver, perturbation);
    shake_enclosure(&mut shaken.enclosure, perturbation);
    shaken
}

/// A driver whose Fs, Qes, Qms and Vas are off: Cms follows Vas, Mms follows Fs and Cms, Bl and Rms the Qs.
fn off_by(driver: &Driver, perturbation: Perturbation) -> Driver {
    let cms = driver.cms * perturbation.vas;
    let mms = driver.mms / (perturbation.vas * perturbation.fs * perturbation.fs);
    // Qes = ws Mms Re/Bl^2 and Qms = ws Mms/Rms.
    let momentum = perturbation.fs * mms / driver.mms;
    Driver {
        cms,
        mms,
        bl: driver.bl * (momentum / perturbation.qes).sqrt(),
        rms: driver.rms * momentum / perturbation.qms,
        ..*driver
    }
}

fn shake_enclosure(enclosure: &mut Enclosure, perturbation: Perturbation) {
    let ports = |ports: &mut Vec<Port>| {
        for port in ports {
            port.length = port.length.map(|length| length * perturbation.port_length);
        }
    };
    match enclosure {
        Enclosure::InfiniteBaffle | Enclosure::OpenBaffle(_) => {}
        Enclosure::Sealed(sealed) => sealed.volume *= perturbation.volume,
        Enclosure::Aperiodic(aperiodic) => aperiodic.chamber.volume *= perturbation.volume,
        Enclosure::Ported(ported) => {
            ported.volume *= perturbation.volume;
            ports(&mut ported.ports);
        }
        Enclosure::PassiveRadiator(cabinet) => cabinet.volume *= perturbation.volume,
        Enclosure::Bandpass4(bandpass) => {
            bandpass.rear.volume *= perturbation.volume;
            bandpass.front.volume *= perturbation.volume;
            ports(&mut bandpass.front.ports);
        }
        Enclosure::Bandpass6(bandpass) => {
            for chamber in [&mut bandpass.rear, &mut bandpass.front] {
                chamber.volume *= perturbation.volume;
                ports(&mut chamber.ports);
            }
        }
        Enclosure::Line(line) => {
            line.profile.segments.iter_mut().for_each(|segment| segment.length *= perturbation.port_length);
            line.driver_at *= perturbation.port_length;
            if let Some(chamber) = &mut line.chamber {
                chamber.volume *= perturbation.volume;
            }
            if let Mouth::Ports(mouth) = &mut line.mouth {
                ports(mouth);
            }
        }
        Enclosure::FrontHorn(horn) => {
            horn.rear.volume *= perturbation.volume;
            if let Some(throat) = &mut horn.throat {
                throat.volume *= perturbation.volume;
            }
            horn.profile.segments.iter_mut().for_each(|segment| segment.length *= perturbation.port_length);
        }
        Enclosure::TappedHorn(horn) => {
            horn.profile.segments.iter_mut().for_each(|segment| segment.length *= perturbation.port_length);
            horn.taps.iter_mut().for_each(|tap| *tap *= perturbation.port_length);
        }
    }
}

fn report(
    spreads: &[(&'static str, f64); 6],
    lowest: Option<f64>,
    grid: &FrequencyGrid,
    designed: &Built,
    boxes: &[Built],
) -> Tolerance {
    let percentiles = |designed: Option<f64>, of: fn(&Built) -> Option<f64>| {
        Some(Percentiles::of(designed?, boxes.iter().filter_map(of).collect()))
    };
    let f3 = percentiles(designed.f3, |built| built.f3);
    let at = |part: f64| -> Vec<f32> {
        let level = |k: usize| {
            let mut levels: Vec<f64> = boxes.iter().map(|built| built.levels[k]).collect();
            levels.sort_by(f64::total_cmp);
            quantile(&levels, part) as f32
        };
        (0..grid.frequencies().len()).map(level).collect()
    };
    let reaching = lowest.map(|lowest| {
        let reach = boxes.iter().filter(|built| built.f3.is_some_and(|f3| f3 <= lowest * 1.001));
        reach.count() as f64 / boxes.len().max(1) as f64
    });
    let [fs, qes, qms, vas, volume, port_length] = spreads.map(|(_, spread)| Some(spread));
    let peak = Percentiles::of(designed.peak, boxes.iter().map(|built| built.peak).collect());
    Tolerance {
        spreads: RawSpreads { fs, qes, qms, vas, volume, port_length },
        samples: boxes.len(),
        frequency: grid.frequencies().iter().map(|frequency| *frequency as f32).collect(),
        low: at(0.025),
        level: designed.levels.iter().map(|level| *level as f32).collect(),
        high: at(0.975),
        words: words(f3, peak, lowest.zip(reaching)),
        f3,
        qtc: percentiles(designed.qtc, |built| built.qtc),
        tuning: percentiles(designed.tuning, |built| built.tuning),
        peak,
        reaching,
    }
}

impl Percentiles {
    fn of(designed: f64, mut values: Vec<f64>) -> Self {
        values.sort_by(f64::total_cmp);
        let at = |part| quantile(&values, part);
        Self { designed, low: at(0.025), middle: at(0.5), high: at(0.975) }
    }
}

/// The value that a part of some stays below, in order, by linear interpolation; not a number where there is none.
fn quantile(values: &[f64], part: f64) -> f64 {
    let Some(last) = values.len().checked_sub(1) else { return f64::NAN };
    let place = part * last as f64;
    let (low, high) = (place.floor() as usize, place.ceil() as usize);
    values[low] + (values[high] - values[low]) * place.fract()
}

fn words(f3: Option<Percentiles>, peak: Percentiles, reaching: Option<(f64, f64)>) -> Vec<String> {
    let mut words = Vec::new();
    if let Some(Percentiles { designed, low, high, .. }) = f3 {
        let perturbation = ((high - designed).max(designed - low) / designed * 100.0).round();
        let sure = if perturbation <= 5.0 {
            "F3 is sure"
        } else if perturbation <= 12.0 {
            "F3 is fairly sure"
        } else {
            "F3 is not sure"
        };
        words.push(format!(
            "{sure}: 19 of 20 such boxes come out between {low:.1} and {high:.1} Hz, up to {perturbation:.0} % off the designed {designed:.1} Hz."
        ));
    } else {
        words.push("There is no F3 to be sure of.".to_owned());
    }
    if let Some((lowest, share)) = reaching {
        let percent = (share * 100.0).round();
        words.push(match percent as u32 {
            100 => format!("Practically all of them reach the {lowest:.1} Hz of the brief."),
            0 => format!("Practically none of them reaches the {lowest:.1} Hz of the brief."),
            _ => format!("{percent:.0} % of them reach the {lowest:.1} Hz of the brief."),
        });
    }
    if peak.high > 3.0 && peak.high > peak.designed + 1.0 {
        words.push(format!(
            "In 1 box of 40 the bass stands out by {:.1} dB or more, {:.1} dB more than designed: a driver with a high Qts does that. Measure the driver before cutting.",
            peak.high,
            peak.high - peak.designed
        ));
    }
    words
}
