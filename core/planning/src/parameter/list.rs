//! The list of them.

use oak_acoustics::enclosure::PortTuning;
use oak_acoustics::medium::Stuffing;
use oak_design::field::{self, Field};
use oak_design::file::{
    RawAir, RawChamber, RawDesign, RawDriverArray, RawFamily, RawLinked, RawPort, RawPortSection,
    RawStuffing, Typed,
};

use super::{Held, Parameter, Span};

const DIGITS: u32 = 4;
const ROOM_TO_TURN: Span = Span::Times(0.6, 1.6);
const FILLS: &[&str] = &["empty", "lined", "half full", "full", "packed"];
const STUFFINGS: [RawStuffing; 5] =
    [RawStuffing::None, RawStuffing::Lined, RawStuffing::Half, RawStuffing::Full, RawStuffing::Packed];

/// All of them, in the order of a list.
pub static PARAMETERS: [Parameter; 14] = [
    Parameter {
        id: "volume",
        name: "Volume",
        field: &field::VOLUME,
        read: |held| has_box(held).then_some(held.built.design.volumes[0])?,
        write: |raw, _, value| lead(raw) && put(&mut raw.enclosure.volume, &field::VOLUME, value),
        base: |_| 0.0,
        span: ROOM_TO_TURN,
        suggestions: true,
    },
    Parameter {
        id: "front_volume",
        name: "Front volume",
        field: &field::VOLUME,
        read: |held| two_chambers(held).then_some(held.built.design.volumes[1])?,
        write: |raw, _, value| lead(raw) && put(&mut front(raw).volume, &field::VOLUME, value),
        base: |_| 0.0,
        span: ROOM_TO_TURN,
        suggestions: true,
    },
    Parameter {
        id: "tuning",
        name: "Tuning",
        field: &field::TUNING,
        read: |held| Some(rear_tuning(held)?.reactance),
        write: |raw, _, value| {
            free_lengths(&mut raw.enclosure.ports);
            put(&mut raw.enclosure.tuning, &field::TUNING, value)
        },
        base: |_| 0.0,
        span: Span::Times(0.7, 1.4),
        suggestions: true,
    },
    Parameter {
        id: "front_tuning",
        name: "Front tuning",
        field: &field::TUNING,
        read: |held| Some(front_tuning(held)?.reactance),
        write: |raw, _, value| {
            free_lengths(&mut front(raw).ports);
            put(&mut front(raw).tuning, &field::TUNING, value)
        },
        base: |_| 0.0,
        span: Span::Times(0.7, 1.4),
        suggestions: true,
    },
    Parameter {
        id: "port_area",
        name: "Port area",
        field: &PORT_AREA,
        read: |held| Some(area(rear_tuning(held)?)),
        write: |raw, held, value| {
            let Some(tuning) = rear_tuning(held) else { return false };
            free_lengths(&mut raw.enclosure.ports);
            widen(&mut raw.enclosure.ports, value / area(tuning))
                && keep(&mut raw.enclosure.tuning, tuning.reactance)
        },
        base: |_| 0.0,
        span: Span::Times(0.4, 2.5),
        suggestions: true,
    },
    Parameter {
        id: "front_port_area",
        name: "Front port area",
        field: &PORT_AREA,
        read: |held| Some(area(front_tuning(held)?)),
        write: |raw, held, value| {
            let Some(tuning) = front_tuning(held) else { return false };
            let front = front(raw);
            free_lengths(&mut front.ports);
            widen(&mut front.ports, value / area(tuning)) && keep(&mut front.tuning, tuning.reactance)
        },
        base: |_| 0.0,
        span: Span::Times(0.4, 2.5),
        suggestions: true,
    },
    Parameter {
        id: "radiator_mass",
        name: "Mass on each radiator",
        field: &field::RADIATOR_ADDED,
        read: |held| {
            let radiator = held
                .raw
                .enclosure
                .radiator
                .as_ref()
                .filter(|_| family(held) == RawFamily::PassiveRadiator)?;
            Some(field::RADIATOR_ADDED.read(radiator.added_mass.as_ref()).unwrap_or(0.0))
        },
        write: |raw, _, value| {
            raw.enclosure
                .radiator
                .as_mut()
                .is_some_and(|radiator| put(&mut radiator.added_mass, &field::RADIATOR_ADDED, value))
        },
        base: |held| {
            let radiator = held.raw.enclosure.radiator.as_ref();
            radiator.and_then(|radiator| field::RADIATOR_MASS.read(radiator.mass.as_ref())).unwrap_or(0.0)
        },
        span: Span::Times(0.5, 2.0),
        suggestions: true,
    },
    Parameter {
        id: "line_length",
        name: "Length of the path",
        field: &WAY_LENGTH,
        read: |held| Some(held.built.compiled.passage?.length),
        write: |raw, held, value| stretch(raw, held, value),
        base: |_| 0.0,
        span: Span::Times(0.75, 1.35),
        suggestions: true,
    },
    Parameter {
        id: "line_area",
        name: "Area at its beginning",
        field: &field::SEGMENT_START,
        read: |held| Some(held.built.compiled.passage?.start),
        write: |raw, held, value| {
            let Some(facts) = held.built.compiled.passage else { return false };
            let factor = value / facts.start;
            raw.enclosure.passage.as_mut().is_some_and(|passage| {
                passage.segments.iter_mut().all(|segment| {
                    scale(&mut segment.start, &field::SEGMENT_START, factor)
                        && scale(&mut segment.end, &field::SEGMENT_END, factor)
                })
            })
        },
        base: |_| 0.0,
        span: ROOM_TO_TURN,
        suggestions: true,
    },
    Parameter {
        id: "added_mass",
        name: "Mass on each cone",
        field: &field::ADDED_MASS,
        read: |held| {
            let driver_array = held.raw.driver_array.as_ref();
            Some(
                driver_array
                    .and_then(|driver_array| field::ADDED_MASS.read(driver_array.added_mass.as_ref()))
                    .unwrap_or(0.0),
            )
        },
        write: |raw, _, value| {
            put(
                &mut raw.driver_array.get_or_insert_with(RawDriverArray::default).added_mass,
                &field::ADDED_MASS,
                value,
            )
        },
        base: |held| held.built.design.driver.driver.mms,
        span: Span::Times(1.0, 2.0),
        suggestions: true,
    },
    Parameter {
        id: "ql",
        name: "Leakage (QL)",
        field: &field::QL,
        read: |held| has_box(held).then(|| field::QL.read(held.raw.enclosure.ql.as_ref()))?,
        write: |raw, _, value| put(&mut raw.enclosure.ql, &field::QL, value),
        base: |_| 0.0,
        span: Span::Between(3.0, 20.0),
        suggestions: false,
    },
    Parameter {
        id: "fill",
        name: "Fill",
        field: &FILL,
        read: |held| {
            let enclosure = &held.raw.enclosure;
            let fill = enclosure.fill.unwrap_or(RawStuffing::None);
            // Fill by weight counts as the amount that is nearest.
            let off = |at: usize, gain: f64| (Stuffing::ALL[at].gain() - gain).abs();
            let at = match held.built.design.fills[0] {
                Some(fill) if fill.weighed => (0..STUFFINGS.len())
                    .min_by(|a, b| off(*a, fill.filled.gain).total_cmp(&off(*b, fill.filled.gain))),
                _ => STUFFINGS.iter().position(|one| *one == fill),
            };
            has_box(held).then_some(at?).map(|at| at as f64)
        },
        write: |raw, _, value| {
            let Some(fill) = STUFFINGS.get(value.round() as usize) else { return false };
            // What was typed beside it would hide what it does.
            (raw.enclosure.fill, raw.enclosure.gain, raw.enclosure.qa) = (Some(*fill), None, None);
            (raw.enclosure.fill_density, raw.enclosure.fill_material) = (None, None);
            true
        },
        base: |_| 0.0,
        span: Span::Choices(FILLS),
        suggestions: false,
    },
    Parameter {
        id: "line_fill",
        name: "Fill along the path",
        field: &field::FILL_DENSITY,
        read: |held| {
            let segments = &held.raw.enclosure.passage.as_ref().filter(|_| has_path(held))?.segments;
            segments.iter().find_map(|segment| field::FILL_DENSITY.read(segment.fill_density.as_ref()))
        },
        write: |raw, _, value| {
            raw.enclosure.passage.as_mut().is_some_and(|passage| {
                // Where there is none there stays none: it is kept out of the mouth on purpose.
                let filled = passage.segments.iter_mut().filter(|segment| segment.fill_density.is_some());
                filled.fold(false, |_, segment| put(&mut segment.fill_density, &field::FILL_DENSITY, value))
            })
        },
        base: |_| 0.0,
        span: Span::Between(2.0, 24.0),
        suggestions: false,
    },
    Parameter {
        id: "temperature",
        name: "Temperature of the air",
        field: &field::TEMPERATURE,
        read: |held| {
            let air = held.raw.air.as_ref();
            Some(air.and_then(|air| field::TEMPERATURE.read(air.temperature.as_ref())).unwrap_or(20.0))
        },
        write: |raw, held, value| {
            // A port is built once; on a cold day it keeps its length.
            hold_lengths(raw, held);
            put(&mut raw.air.get_or_insert_with(RawAir::default).temperature, &field::TEMPERATURE, value)
        },
        base: |_| 0.0,
        span: Span::Between(-10.0, 40.0),
        suggestions: false,
    },
];

static PORT_AREA: Field = Field {
    path: "port_area",
    symbol: "Port area",
    dimension: oak_units::Dimension::Area,
    unit: "cm2",
    min: 2e-5,
    max: 2.0,
    meaning: "Area of all ports of the chamber together.",
};

static WAY_LENGTH: Field = Field {
    path: "way_length",
    symbol: "Length",
    dimension: oak_units::Dimension::Length,
    unit: "m",
    min: 0.05,
    max: 40.0,
    meaning: "From the closed end or the throat to the mouth.",
};

static FILL: Field = Field {
    path: "enclosure.fill",
    symbol: "Fill",
    dimension: oak_units::Dimension::Number,
    unit: "",
    min: 0.0,
    max: 4.0,
    meaning: "How much fill is in the box.",
};

fn family(held: &Held<'_>) -> RawFamily {
    held.raw.enclosure.family
}

fn two_chambers(held: &Held<'_>) -> bool {
    matches!(family(held), RawFamily::Bandpass4 | RawFamily::Bandpass6Parallel | RawFamily::Bandpass6Series)
}

fn has_path(held: &Held<'_>) -> bool {
    held.built.compiled.passage.is_some()
}

/// Whether `enclosure.volume` is the volume of a chamber of this family.
fn has_box(held: &Held<'_>) -> bool {
    !matches!(
        family(held),
        RawFamily::Line
            | RawFamily::MassLoadedLine
            | RawFamily::TappedHorn
            | RawFamily::OpenBaffle
            | RawFamily::InfiniteBaffle
    )
}

fn rear_tuning<'h>(held: &'h Held<'_>) -> Option<&'h PortTuning> {
    match family(held) {
        RawFamily::Ported => held.built.compiled.port_tuning.as_ref(),
        RawFamily::Bandpass6Parallel | RawFamily::Bandpass6Series => held.built.compiled.rear_tuning.as_ref(),
        RawFamily::Sealed
        | RawFamily::Aperiodic
        | RawFamily::PassiveRadiator
        | RawFamily::Bandpass4
        | RawFamily::Line
        | RawFamily::MassLoadedLine
        | RawFamily::BackHorn
        | RawFamily::FrontHorn
        | RawFamily::TappedHorn
        | RawFamily::SlotFlare
        | RawFamily::OpenBaffle
        | RawFamily::InfiniteBaffle => None,
    }
}

fn front_tuning<'h>(held: &'h Held<'_>) -> Option<&'h PortTuning> {
    held.built.compiled.port_tuning.as_ref().filter(|_| two_chambers(held))
}

fn area(tuning: &PortTuning) -> f64 {
    tuning.ports.iter().map(|port| port.area * f64::from(port.count)).sum()
}

fn front(raw: &mut RawDesign) -> &mut RawChamber {
    raw.enclosure.front.get_or_insert_with(RawChamber::default)
}

/// The volume decides, where sizes are stated as well.
fn lead(raw: &mut RawDesign) -> bool {
    if let Some(body) = &mut raw.body {
        body.lead(RawLinked::Volume);
    }
    true
}

fn put(slot: &mut Option<Typed>, field: &Field, value: f64) -> bool {
    *slot = Some(field.typed(value, DIGITS));
    true
}

fn keep(slot: &mut Option<Typed>, tuning: f64) -> bool {
    if slot.is_none() { put(slot, &field::TUNING, tuning) } else { true }
}

fn scale(slot: &mut Option<Typed>, field: &Field, factor: f64) -> bool {
    let Some(value) = field.read(slot.as_ref()) else { return slot.is_none() };
    (field.min..=field.max).contains(&(value * factor)) && put(slot, field, value * factor)
}

/// Of tuning and lengths the one touched last wins.
fn free_lengths(ports: &mut [RawPort]) {
    for port in ports {
        port.length = None;
    }
}

/// Ports keep the lengths that they have come out with, whatever is turned next.
fn hold_lengths(raw: &mut RawDesign, held: &Held<'_>) {
    fn fix(ports: &mut [RawPort], tuning: Option<&PortTuning>, typed: &mut Option<Typed>) {
        let Some(tuning) = tuning else { return };
        for (port, found) in ports.iter_mut().zip(&tuning.ports) {
            if port.length.is_none() {
                port.length = Some(field::LENGTH.typed(found.length, 6));
            }
        }
        *typed = None;
    }
    let enclosure = &mut raw.enclosure;
    fix(&mut enclosure.ports, rear_tuning(held), &mut enclosure.tuning);
    if let Some(front) = &mut enclosure.front {
        fix(&mut front.ports, front_tuning(held), &mut front.tuning);
    }
}

/// Ports of so many times the area: tubes grow, slots get higher and keep their width.
fn widen(ports: &mut [RawPort], factor: f64) -> bool {
    ports.iter_mut().all(|port| match port.shape {
        RawPortSection::Round => scale(&mut port.diameter, &field::DIAMETER, factor.sqrt()),
        RawPortSection::Slot => scale(&mut port.height, &field::HEIGHT, factor),
        RawPortSection::Corner => scale(&mut port.side, &field::SIDE, factor.sqrt()),
    })
}

/// A way of another length, everything along it in proportion.
fn stretch(raw: &mut RawDesign, held: &Held<'_>, length: f64) -> bool {
    let (Some(facts), Some(passage)) = (held.built.compiled.passage, raw.enclosure.passage.as_mut()) else {
        return false;
    };
    let factor = length / facts.length;
    passage.segments.iter_mut().all(|segment| scale(&mut segment.length, &field::SEGMENT_LENGTH, factor))
        && scale(&mut passage.driver_at, &field::DRIVER_AT, factor)
        && scale(&mut passage.front_at, &field::FRONT_AT, factor)
}
