//! What comes before the drivers, from its raw form.

use oak_acoustics::source::{Branch, Chain, Part, PartForm, Source, Traced};
use oak_cabinetry::{Item, ItemBlock, Opening, Place};
use oak_signal::filter::{Alignment, FLATTEST, Filter, Pass, Slope, Width};

use super::body::USUAL_RIM;
use super::reading::Reading;
use crate::field;
use crate::file::{
    LONGEST_NAME, MOST_BUILT_IN, MOST_FILTERS, MOST_PARTS, MOST_TRACE_POINTS, RawAlignment, RawAmplifier,
    RawFace, RawFilter, RawFilterKind, RawMains, RawMounting, RawPart, RawPartWiring, RawPreset, RawSignal,
};
use crate::problem::{Problem, ProblemKind};

/// Filters, the amplifier's resistance and passive parts; what is bypassed is checked and left out.
pub(super) fn source(raw: &RawSignal, reading: &mut Reading) -> Source {
    for (name, found, max) in
        [("signal.filters", raw.filters.len(), MOST_FILTERS), ("signal.parts", raw.parts.len(), MOST_PARTS)]
    {
        if found > max {
            reading.note(name, ProblemKind::TooMany { found, max });
        }
    }
    let none = RawAmplifier::default();
    let (built_in, output_resistance) = of_amplifier(raw.amplifier.as_ref().unwrap_or(&none), reading);
    Source {
        chain: chain(&raw.filters, "signal.filters", reading).then(built_in),
        output_resistance,
        parts: parts(&raw.parts, reading),
    }
}

/// What an amplifier has built in, and its resistance, ohm.
fn of_amplifier(raw: &RawAmplifier, reading: &mut Reading) -> (Chain, f64) {
    if raw.filters.len() > MOST_BUILT_IN {
        let kind = ProblemKind::TooMany { found: raw.filters.len(), max: MOST_BUILT_IN };
        reading.note("signal.amplifier.filters", kind);
    }
    let resistance = reading.optional(
        "signal.amplifier.output_resistance",
        &field::AMPLIFIER_RESISTANCE,
        &raw.output_resistance,
    );
    (chain(&raw.filters, "signal.amplifier.filters", reading), resistance.unwrap_or(0.0))
}

/// Room around what is passed through an opening, m (common practice).
const PASSES: f64 = 0.002;

/// An amplifier in the board of a box, as something that takes up room there; with boards of a thickness (m) around it where it needs a chamber
/// of its own.
pub(super) fn mounted(raw: &RawMounting, board: f64, reading: &mut Reading) -> Option<Item> {
    let at = |name: &str| format!("signal.amplifier.mounting.{name}");
    let width = reading.required(&at("width"), &field::MOUNTING_WIDTH, &raw.width);
    let height = reading.required(&at("height"), &field::MOUNTING_HEIGHT, &raw.height);
    let depth = reading.required(&at("depth"), &field::MOUNTING_DEPTH, &raw.depth);
    let across = reading.optional(&at("across"), &field::MOUNTING_ACROSS, &raw.across);
    let up = reading.optional(&at("up"), &field::MOUNTING_UP, &raw.up);
    let rim = reading.optional(&at("rim"), &field::MOUNTING_RIM, &raw.rim).unwrap_or(USUAL_RIM);
    let walls = if raw.open_back { board } else { 0.0 };
    let size = [width? + 2.0 * walls, height? + 2.0 * walls, depth? + walls];
    // It is passed through from outside, with a little room on every side.
    let opening = Opening { size: [width? + 2.0 * PASSES, height? + 2.0 * PASSES], round: false, rim };
    let place = Place { face: raw.face.unwrap_or(RawFace::Back).into(), across, up };
    let name = if raw.open_back { "amplifier in its chamber" } else { "amplifier" };
    Some(Item {
        name: name.to_owned(),
        volume: size.iter().product(),
        block: Some(ItemBlock { place, size, opening: Some(opening) }),
    })
}

fn parts(raw: &[RawPart], reading: &mut Reading) -> Vec<Part> {
    let read = |(index, part): (usize, &RawPart)| {
        let form = form(part, &format!("signal.parts[{index}]"), reading)?;
        let found = Part { in_series: part.wiring != RawPartWiring::Across, form };
        (!part.bypassed).then_some(found)
    };
    raw.iter().enumerate().filter_map(read).collect()
}

/// Passive parts by themselves; what is bypassed is left out.
///
/// # Errors
/// Every problem, with its place.
pub fn resolve_parts(raw: &[RawPart]) -> Result<Vec<Part>, Vec<Problem>> {
    let mut reading = Reading::default();
    let found = parts(raw, &mut reading);
    if reading.problems.is_empty() { Ok(found) } else { Err(reading.problems) }
}

/// The main loudspeakers, SI.
#[derive(Debug, Clone, PartialEq)]
pub struct Mains {
    /// Their own roll-off and their filters.
    pub chain: Chain,
    /// From them to the listener, m.
    pub distance: f64,
    /// From the sub to the listener, m.
    pub sub_distance: f64,
    /// Delay of the link to the sub, s.
    pub link_delay: f64,
}

/// What is usual of mains that nothing is said of: F3 (Hz), order and distance (m).
const USUAL_MAINS: (f64, u32, f64) = (60.0, 2, 3.0);

/// Reads the main loudspeakers.
pub(super) fn mains(raw: Option<&RawMains>, reading: &mut Reading) -> Option<Mains> {
    let raw = raw?;
    let (usual_frequency, usual_order, usual_distance) = USUAL_MAINS;
    let frequency = reading.optional("signal.mains.frequency", &field::MAINS_FREQUENCY, &raw.frequency);
    let order = match raw.order {
        None => Some(usual_order),
        Some(_) => reading.count("signal.mains.order", &field::MAINS_ORDER, &raw.order),
    };
    let roll_off = Filter::Pass {
        pass: Pass::High,
        alignment: Alignment::Butterworth,
        order: order.unwrap_or(usual_order),
        frequency: frequency.unwrap_or(usual_frequency),
    };
    let roll_off = if raw.trace.is_empty() {
        Some(roll_off)
    } else {
        measured(&over_passband(&raw.trace), "signal.mains.trace", reading)
    };
    let filter = raw.high_pass.as_ref().map(|raw| one_chain(raw, "signal.mains.high_pass", reading));
    let distance = reading.optional("signal.mains.distance", &field::MAINS_DISTANCE, &raw.distance);
    let sub_distance = reading.optional("signal.mains.sub_distance", &field::SUB_DISTANCE, &raw.sub_distance);
    let link_delay = reading.optional("signal.mains.link_delay", &field::LINK_DELAY, &raw.link_delay);
    let distance = distance.unwrap_or(usual_distance);
    Some(Mains {
        chain: roll_off?.chain().ok()?.then(filter.unwrap_or_default()),
        distance,
        sub_distance: sub_distance.unwrap_or(distance),
        link_delay: link_delay.unwrap_or(0.0),
    })
}

/// Where main loudspeakers play evenly, Hz: their level there is what a crossover is judged over.
const EVEN: std::ops::RangeInclusive<f64> = 150.0..=500.0;

/// A measured trace over the mean level of its passband, dB; of one that does not reach it, over that of its upper half.
fn over_passband(trace: &[[f64; 3]]) -> Vec<[f64; 3]> {
    let even: Vec<f64> = trace.iter().filter(|row| EVEN.contains(&row[0])).map(|row| row[1]).collect();
    let upper = || trace[trace.len() / 2..].iter().map(|row| row[1]).collect();
    let known = if even.is_empty() { upper() } else { even };
    let level = known.iter().sum::<f64>() / known.len().max(1) as f64;
    trace.iter().map(|[frequency, here, phase]| [*frequency, here - level, *phase]).collect()
}

/// Filters that are kept by a name, with that name.
///
/// # Errors
/// Every problem, with its place.
pub fn resolve_preset(preset: &RawPreset) -> Result<(String, Chain), Vec<Problem>> {
    let mut reading = Reading::default();
    reading.text("name", &preset.name, 1, LONGEST_NAME);
    if preset.filters.len() > MOST_FILTERS {
        reading.note("filters", ProblemKind::TooMany { found: preset.filters.len(), max: MOST_FILTERS });
    }
    let chain = chain(&preset.filters, "filters", &mut reading);
    if reading.problems.is_empty() {
        Ok((preset.name.trim().to_owned(), chain))
    } else {
        Err(reading.problems)
    }
}

/// One filter by itself; `None` where it is none.
pub fn resolve_filter(raw: &RawFilter) -> Option<Chain> {
    filter(raw, "", &mut Reading::default())?.chain().ok()
}

/// Filters one by one; what is bypassed leaves everything as it is.
///
/// # Errors
/// Every problem, with its place.
pub fn resolve_filters(filters: &[RawFilter]) -> Result<Vec<Chain>, Vec<Problem>> {
    let mut reading = Reading::default();
    let chains = filters
        .iter()
        .enumerate()
        .map(|(index, raw)| one_chain(raw, &format!("signal.filters[{index}]"), &mut reading))
        .collect();
    if reading.problems.is_empty() { Ok(chains) } else { Err(reading.problems) }
}

fn chain(filters: &[RawFilter], list: &str, reading: &mut Reading) -> Chain {
    let chains = filters.iter().take(MOST_FILTERS).enumerate();
    chains.fold(Chain::default(), |whole, (index, raw)| {
        whole.then(one_chain(raw, &format!("{list}[{index}]"), reading))
    })
}

/// One of several; as nothing with a problem noted where it is none, and where it is bypassed.
fn one_chain(raw: &RawFilter, place: &str, reading: &mut Reading) -> Chain {
    let Some(filter) = filter(raw, place, reading) else { return Chain::default() };
    match filter.chain() {
        Ok(chain) if !raw.bypassed => chain,
        Ok(_) => Chain::default(),
        Err(error) => {
            let kind = ProblemKind::Unshapeable { reason: error.to_string() };
            reading.note(&format!("{place}.order"), kind);
            Chain::default()
        }
    }
}

/// One filter; `None` with a problem noted where it is none.
fn filter(raw: &RawFilter, place: &str, reading: &mut Reading) -> Option<Filter> {
    let at = |name: &str| format!("{place}.{name}");
    let frequency =
        |reading: &mut Reading| reading.required(&at("frequency"), &field::FILTER_FREQUENCY, &raw.frequency);
    let gain = |reading: &mut Reading| reading.required(&at("gain"), &field::FILTER_GAIN, &raw.gain);
    let q = |reading: &mut Reading| reading.optional(&at("q"), &field::FILTER_Q, &raw.q);
    let pass = |reading: &mut Reading, pass| {
        let order = match raw.order {
            None => Some(2),
            Some(_) => reading.count(&at("order"), &field::FILTER_ORDER, &raw.order),
        };
        let frequency = frequency(reading)?;
        Some(Filter::Pass { pass, alignment: alignment(raw.alignment), order: order?, frequency })
    };
    let shelf = |reading: &mut Reading, side| {
        let first =
            reading.optional(&at("order"), &field::FILTER_ORDER, &raw.order).is_some_and(|order| order < 2.0);
        let slope = reading.optional(&at("slope"), &field::FILTER_SLOPE, &raw.slope);
        let q = q(reading);
        let slope = match (first, slope) {
            (true, _) => Slope::First,
            (false, Some(slope)) => Slope::S(slope),
            (false, None) => Slope::Q(q.unwrap_or(FLATTEST)),
        };
        let (frequency, gain) = (frequency(reading), gain(reading));
        Some(Filter::Shelf { side, frequency: frequency?, gain: gain?, slope })
    };
    match raw.kind {
        RawFilterKind::HighPass => pass(reading, Pass::High),
        RawFilterKind::LowPass => pass(reading, Pass::Low),
        RawFilterKind::LowShelf => shelf(reading, Pass::Low),
        RawFilterKind::HighShelf => shelf(reading, Pass::High),
        RawFilterKind::Parametric => {
            let octaves = reading.optional(&at("octaves"), &field::FILTER_OCTAVES, &raw.octaves);
            let q = q(reading).unwrap_or(1.0);
            let width = octaves.map_or(Width::Q(q), Width::Octaves);
            let (frequency, gain) = (frequency(reading), gain(reading));
            Some(Filter::Parametric { frequency: frequency?, gain: gain?, width })
        }
        RawFilterKind::LinkwitzTransform => {
            let own = [frequency(reading), reading.required(&at("q"), &field::FILTER_Q, &raw.q)];
            let wanted = [
                reading.required(&at("wanted_frequency"), &field::WANTED_FREQUENCY, &raw.wanted_frequency),
                reading.required(&at("wanted_q"), &field::WANTED_Q, &raw.wanted_q),
            ];
            Some(Filter::LinkwitzTransform { own: [own[0]?, own[1]?], wanted: [wanted[0]?, wanted[1]?] })
        }
        RawFilterKind::AllPass => {
            let q = q(reading);
            Some(Filter::AllPass { frequency: frequency(reading)?, q })
        }
        RawFilterKind::Delay => {
            reading.required(&at("delay"), &field::FILTER_DELAY, &raw.delay).map(Filter::Delay)
        }
        RawFilterKind::Gain => gain(reading).map(Filter::Gain),
        RawFilterKind::Invert => Some(Filter::Invert),
        RawFilterKind::Measured => measured(&raw.trace, &at("trace"), reading),
    }
}

fn measured(trace: &[[f64; 3]], place: &str, reading: &mut Reading) -> Option<Filter> {
    let found = trace.len();
    if found > MOST_TRACE_POINTS {
        reading.note(place, ProblemKind::TooMany { found, max: MOST_TRACE_POINTS });
        return None;
    }
    let traced = Traced::new(trace);
    if let Err(error) = &traced {
        reading.note(place, ProblemKind::Unshapeable { reason: error.to_string() });
    }
    traced.ok().map(Filter::Measured)
}

fn alignment(raw: Option<RawAlignment>) -> Alignment {
    match raw.unwrap_or_default() {
        RawAlignment::Butterworth => Alignment::Butterworth,
        RawAlignment::LinkwitzRiley => Alignment::LinkwitzRiley,
        RawAlignment::Bessel => Alignment::Bessel,
        RawAlignment::BesselPhase => Alignment::BesselPhase,
    }
}

/// What stands at one place of the passive circuit; `None` with a problem noted where nothing does.
fn form(raw: &RawPart, place: &str, reading: &mut Reading) -> Option<PartForm> {
    let at = |name: &str| format!("{place}.{name}");
    let resistance = reading.optional(&at("resistance"), &field::PART_RESISTANCE, &raw.resistance);
    let zero = |reading: &mut Reading, name: &str, field, typed| {
        reading.optional(&at(name), field, typed).unwrap_or(0.0)
    };
    let coil = zero(reading, "coil_resistance", &field::PART_COIL_RESISTANCE, &raw.coil_resistance);
    let capacitor =
        zero(reading, "capacitor_resistance", &field::PART_CAPACITOR_RESISTANCE, &raw.capacitor_resistance);
    if raw.wiring == RawPartWiring::Trap {
        let inductance = reading.required(&at("inductance"), &field::PART_INDUCTANCE, &raw.inductance);
        let capacitance = reading.required(&at("capacitance"), &field::PART_CAPACITANCE, &raw.capacitance);
        return Some(PartForm::Trap {
            inductance: inductance?,
            coil_resistance: coil,
            capacitance: capacitance?,
            capacitor_resistance: capacitor,
            resistance,
        });
    }
    let inductance = reading.optional(&at("inductance"), &field::PART_INDUCTANCE, &raw.inductance);
    let capacitance = reading.optional(&at("capacitance"), &field::PART_CAPACITANCE, &raw.capacitance);
    if raw.resistance.is_none() && raw.inductance.is_none() && raw.capacitance.is_none() {
        reading.note(
            place,
            ProblemKind::MissingOneOf { names: &["resistance", "inductance", "capacitance"], needed: 1 },
        );
        return None;
    }
    let wire = inductance.map_or(0.0, |_| coil) + capacitance.map_or(0.0, |_| capacitor);
    Some(PartForm::Chain(Branch {
        resistance: resistance.unwrap_or(0.0) + wire,
        inductance: inductance.unwrap_or(0.0),
        capacitance,
    }))
}
