//! The cabinet of a design file, family by family.

use oak_acoustics::element::End;
use oak_acoustics::enclosure::{
    Aperiodic, Bandpass4, Bandpass6, Enclosure, FrontHorn, FrontPath, Line, Losses, Mouth, OpenBaffle,
    PassiveRadiator, Port, Ported, Radiator, Sealed, TappedHorn,
};
use oak_acoustics::medium::{CrossSection, Fill, Filled, Frame, Lining, Stuffing, fill_materials};
use oak_acoustics::profile::{Flare, Profile, Segment};

use super::reading::Reading;
use crate::field::{self, Field};
use crate::file::{
    RawChamber, RawEnclosure, RawEnd, RawFamily, RawFillMaterial, RawFlare, RawFrame, RawMouth, RawPassage,
    RawPort, RawPortSection, RawRadiator, RawSegment, RawStuffing, Typed,
};
use crate::problem::{ProblemKind, Range};

/// Most port entries in one chamber, and most stretches of one way.
const MOST: usize = 8;
/// Mechanical Q of a radiator at its own resonance where its friction is not stated, common practice.
const USUAL_RADIATOR_Q: f64 = 8.0;
/// Width of a slot that is as wide as the box until that is known, m.
const UNTIL_BUILT: f64 = 0.3;
/// T of a hyperbolic flare where none is stated: loads best just above the cut-off (Salmon 1946).
const USUAL_T: f64 = 0.6;

/// Resolves the cabinet; `None` where a value has a problem.
pub(super) fn enclosure(raw: &RawEnclosure, reading: &mut Reading) -> Option<Enclosure> {
    let rear = Chamber { raw: &raw.rear(), place: "enclosure" };
    let empty = RawChamber::default();
    let front = Chamber { raw: raw.front.as_ref().unwrap_or(&empty), place: "enclosure.front" };
    let sixth = |path, reading: &mut Reading| {
        let (rear, front) = (rear.vented(reading), front.vented(reading));
        Some(Enclosure::Bandpass6(Bandpass6 { rear: rear?, front: front?, path }))
    };
    Some(match raw.family {
        RawFamily::InfiniteBaffle => Enclosure::InfiniteBaffle,
        RawFamily::OpenBaffle => {
            let path = reading.required("enclosure.baffle_path", &field::BAFFLE_PATH, &raw.baffle_path);
            Enclosure::OpenBaffle(OpenBaffle { path: path? })
        }
        RawFamily::Sealed => Enclosure::Sealed(rear.closed(reading)?),
        RawFamily::Aperiodic => {
            let chamber = rear.closed(reading);
            let place = "enclosure.vent_resistance";
            let resistance = reading.required(place, &field::VENT_RESISTANCE, &raw.vent_resistance);
            Enclosure::Aperiodic(Aperiodic { chamber: chamber?, resistance: resistance? })
        }
        RawFamily::Ported => Enclosure::Ported(rear.vented(reading)?),
        RawFamily::PassiveRadiator => {
            let chamber = rear.closed(reading);
            let radiator = radiator(raw.radiator.as_ref(), reading);
            let (Sealed { volume, losses }, radiator) = (chamber?, radiator?);
            Enclosure::PassiveRadiator(PassiveRadiator { volume, losses, radiator })
        }
        RawFamily::Bandpass4 => {
            let (rear, front) = (rear.closed(reading), front.vented(reading));
            Enclosure::Bandpass4(Bandpass4 { rear: rear?, front: front? })
        }
        RawFamily::Bandpass6Parallel => return sixth(FrontPath::Parallel, reading),
        RawFamily::Bandpass6Series => return sixth(FrontPath::Series, reading),
        RawFamily::Line | RawFamily::MassLoadedLine | RawFamily::BackHorn | RawFamily::SlotFlare => {
            Enclosure::Line(line(raw, &rear, reading)?)
        }
        RawFamily::FrontHorn => {
            let (rear, throat) = (rear.closed(reading), front.closed_if_any(reading));
            let way = passage(raw.passage.as_ref(), reading);
            let mouth = mouth(raw.passage.as_ref(), RawMouth::Walls);
            Enclosure::FrontHorn(FrontHorn { rear: rear?, throat: throat?, profile: way?, mouth })
        }
        RawFamily::TappedHorn => Enclosure::TappedHorn(tapped(raw, reading)?),
    })
}

fn line(raw: &RawEnclosure, rear: &Chamber<'_>, reading: &mut Reading) -> Option<Line> {
    let boxed = raw.family == RawFamily::SlotFlare;
    // A line's driver may sit along it; horns and flares begin at the chamber.
    let along = matches!(raw.family, RawFamily::Line | RawFamily::MassLoadedLine);
    let chamber = match raw.family {
        RawFamily::SlotFlare => rear.closed(reading).map(Some),
        RawFamily::BackHorn => rear.closed_if_any(reading),
        _ => Some(coupling(raw.passage.as_ref(), reading)),
    };
    let profile = passage(raw.passage.as_ref(), reading);
    let way = raw.passage.as_ref();
    let path = optional_at(way.map(|way| &way.path), "path", &field::MOUTH_PATH, reading);
    let mouth = if raw.family == RawFamily::MassLoadedLine {
        let ports = ports(&raw.ports, "enclosure", reading);
        Mouth::Ports(ports?)
    } else {
        let horn = raw.family == RawFamily::BackHorn;
        let end = mouth(way, if horn { RawMouth::Walls } else { RawMouth::Flanged });
        Mouth::Open { end, path }
    };
    let driver_at = optional_at(way.map(|way| &way.driver_at), "driver_at", &field::DRIVER_AT, reading);
    let stub = match way.and_then(|way| way.stub.as_ref()).filter(|_| along) {
        Some(stub) => Some(segment(stub, "enclosure.passage.stub", None, reading)?),
        None => None,
    };
    Some(Line {
        profile: profile?,
        driver_at: if along { driver_at } else { 0.0 },
        chamber: chamber?,
        stub,
        inner: boxed.then_some(End::Flanged),
        mouth,
    })
}

fn coupling(way: Option<&RawPassage>, reading: &mut Reading) -> Option<Sealed> {
    let typed = way.and_then(|way| way.chamber.clone());
    let volume = reading.optional("enclosure.passage.chamber", &field::COUPLING, &typed)?;
    Some(Sealed { volume, losses: Losses::default() })
}

fn tapped(raw: &RawEnclosure, reading: &mut Reading) -> Option<TappedHorn> {
    let profile = passage(raw.passage.as_ref(), reading);
    let way = raw.passage.as_ref();
    let first = optional_at(way.map(|way| &way.driver_at), "driver_at", &field::DRIVER_AT, reading);
    let front_at = way.and_then(|way| way.front_at.clone());
    let second = reading.required("enclosure.passage.front_at", &field::FRONT_AT, &front_at);
    Some(TappedHorn { profile: profile?, taps: [first, second?], mouth: mouth(way, RawMouth::Walls) })
}

fn optional_at(
    typed: Option<&Option<Typed>>,
    name: &str,
    field: &'static Field,
    reading: &mut Reading,
) -> f64 {
    let typed = typed.cloned().flatten();
    reading.optional(&format!("enclosure.passage.{name}"), field, &typed).unwrap_or(0.0)
}

fn mouth(raw: Option<&RawPassage>, usual: RawMouth) -> End {
    match raw.and_then(|way| way.mouth).unwrap_or(usual) {
        RawMouth::Flanged => End::Flanged,
        RawMouth::Free => End::Free,
        RawMouth::Walls => End::Mouth,
    }
}

/// A chamber in the file and where it stands there.
struct Chamber<'a> {
    raw: &'a RawChamber,
    place: &'a str,
}

impl Chamber<'_> {
    /// Volume as it seems, fill counted, and losses.
    fn closed(&self, reading: &mut Reading) -> Option<Sealed> {
        let at = |name: &str| format!("{}.{name}", self.place);
        let volume = reading.required(&at("volume"), &field::VOLUME, &self.raw.volume);
        reading.optional(&at("gain"), &field::GAIN, &self.raw.gain);
        reading.optional(&at("fill_density"), &field::CHAMBER_FILL, &self.raw.fill_density);
        let filled = filled(self.raw);
        let losses = Losses {
            ql: reading.optional(&at("ql"), &field::QL, &self.raw.ql),
            qa: reading.optional(&at("qa"), &field::QA, &self.raw.qa).or(filled.map(|fill| fill.filled.qa)),
        };
        Some(Sealed { volume: volume? * gain(self.raw), losses })
    }

    /// `Some(None)` where there is no chamber.
    fn closed_if_any(&self, reading: &mut Reading) -> Option<Option<Sealed>> {
        if self.raw.volume.is_none() { Some(None) } else { self.closed(reading).map(Some) }
    }

    fn vented(&self, reading: &mut Reading) -> Option<Ported> {
        let chamber = self.closed(reading);
        let tuning = reading.optional(&format!("{}.tuning", self.place), &field::TUNING, &self.raw.tuning);
        let ports = ports(&self.raw.ports, self.place, reading);
        let Sealed { volume, losses } = chamber?;
        Some(Ported { volume, losses, ports: ports?, tuning })
    }
}

/// Fill of a chamber.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ChamberFill {
    /// Its mass over the chamber's volume, kg/m3.
    pub density: f64,
    /// Whether that is given; else it is what an amount usually weighs.
    pub weighed: bool,
    /// The same of polyester wool that resists flow as much, kg/m3.
    pub polyester: f64,
    /// What it comes to.
    pub filled: Filled,
}

/// By how much its fill makes a chamber seem larger.
pub(super) fn gain(raw: &RawChamber) -> f64 {
    field::GAIN.read(raw.gain.as_ref()).or(filled(raw).map(|fill| fill.filled.gain)).unwrap_or(1.0)
}

/// Its fill: by weight where that is given, else by amount.
pub(super) fn filled(raw: &RawChamber) -> Option<ChamberFill> {
    if let Some(density) = field::CHAMBER_FILL.read(raw.fill_density.as_ref()) {
        let id = match raw.fill_material.unwrap_or_default() {
            RawFillMaterial::Polyester => "polyester",
            RawFillMaterial::Wool => "wool",
            RawFillMaterial::Glass => "glass",
            RawFillMaterial::Mineral => "mineral",
        };
        let sold = fill_materials().into_iter().find(|sold| sold.id == id);
        let polyester = sold.map_or(density, |sold| sold.as_polyester(density));
        return Some(ChamberFill {
            density,
            weighed: true,
            polyester,
            filled: Filled::of_polyester(polyester),
        });
    }
    raw.fill.map(stuffing).map(|amount| ChamberFill {
        density: amount.density(),
        weighed: false,
        polyester: amount.density(),
        filled: Filled { gain: amount.gain(), qa: amount.qa() },
    })
}

fn stuffing(raw: RawStuffing) -> Stuffing {
    match raw {
        RawStuffing::None => Stuffing::None,
        RawStuffing::Lined => Stuffing::Lined,
        RawStuffing::Half => Stuffing::Half,
        RawStuffing::Full => Stuffing::Full,
        RawStuffing::Packed => Stuffing::Packed,
    }
}

fn radiator(raw: Option<&RawRadiator>, reading: &mut Reading) -> Option<Radiator> {
    let empty = RawRadiator::default();
    let raw = raw.unwrap_or(&empty);
    let at = |name: &str| format!("enclosure.radiator.{name}");
    let area = reading.required(&at("area"), &field::RADIATOR_AREA, &raw.area);
    let mass = reading.required(&at("mass"), &field::RADIATOR_MASS, &raw.mass);
    let added = reading.optional(&at("added_mass"), &field::RADIATOR_ADDED, &raw.added_mass);
    let compliance = reading.required(&at("compliance"), &field::RADIATOR_COMPLIANCE, &raw.compliance);
    let resistance = reading.optional(&at("resistance"), &field::RADIATOR_RESISTANCE, &raw.resistance);
    let xmax = reading.optional(&at("xmax"), &field::RADIATOR_XMAX, &raw.xmax);
    let count = reading.count(&at("count"), &field::RADIATOR_COUNT, &raw.count);
    let (mass, compliance) = (mass?, compliance?);
    let friction = resistance.unwrap_or_else(|| (mass / compliance).sqrt() / USUAL_RADIATOR_Q);
    Some(Radiator {
        mass: mass + added.unwrap_or(0.0),
        compliance,
        resistance: friction,
        area: area?,
        count: count?,
        xmax,
    })
}

fn passage(raw: Option<&RawPassage>, reading: &mut Reading) -> Option<Profile> {
    let segments = raw.map(|way| way.segments.as_slice()).unwrap_or_default();
    if segments.is_empty() || segments.len() > MOST {
        reading.note("enclosure.passage.segments", ProblemKind::NoWay);
        return None;
    }
    let mut resolved = Vec::with_capacity(segments.len());
    let mut whole = true;
    for (index, raw) in segments.iter().enumerate() {
        let before = resolved.last().map(|segment: &Segment| segment.end);
        match segment(raw, &format!("enclosure.passage.segments[{index}]"), before, reading) {
            Some(segment) => resolved.push(segment),
            None => whole = false,
        }
    }
    whole.then_some(Profile { segments: resolved })
}

fn segment(raw: &RawSegment, place: &str, before: Option<f64>, reading: &mut Reading) -> Option<Segment> {
    let at = |name: &str| format!("{place}.{name}");
    let length = reading.required(&at("length"), &field::SEGMENT_LENGTH, &raw.length);
    let start = match (&raw.start, before) {
        (None, Some(area)) => Some(area),
        _ => reading.required(&at("start"), &field::SEGMENT_START, &raw.start),
    };
    let end = match &raw.end {
        None => start,
        _ => reading.optional(&at("end"), &field::SEGMENT_END, &raw.end),
    };
    let t = reading.optional(&at("t"), &field::SEGMENT_T, &raw.t);
    let width = reading.optional(&at("width"), &field::SEGMENT_WIDTH, &raw.width);
    let density = reading.optional(&at("fill_density"), &field::FILL_DENSITY, &raw.fill_density);
    let resistivity =
        reading.optional(&at("fill_resistivity"), &field::FILL_RESISTIVITY, &raw.fill_resistivity);
    let share = reading.optional(&at("fill_share"), &field::FILL_SHARE, &raw.fill_share);
    let flare = match raw.flare {
        RawFlare::Conical => Flare::Conical,
        RawFlare::Exponential => Flare::Exponential,
        RawFlare::Hyperbolic => Flare::Hyperbolic { t: t.unwrap_or(USUAL_T) },
        RawFlare::Tractrix => Flare::Tractrix,
        RawFlare::Parabolic => Flare::Parabolic,
    };
    let frame = match raw.fill_frame.unwrap_or(RawFrame::Limp) {
        RawFrame::Limp => Frame::Limp,
        RawFrame::Rigid => Frame::Rigid,
    };
    let fill = density.map(|density| {
        let fill = Fill::polyester(density, frame);
        let lining = share.filter(|share| *share < 1.0).zip(start).map(|(share, start)| {
            // Along one side of a passage as wide as is said, or as high as wide.
            let area = f64::midpoint(start, end.unwrap_or(start));
            Lining { share, depth: share * width.map_or(area.sqrt(), |width| area / width) }
        });
        Fill { resistivity: resistivity.unwrap_or(fill.resistivity), lining, ..fill }
    });
    Some(Segment { flare, length: length?, start: start?, end: end?, width, fill })
}

fn ports(raw: &[RawPort], chamber: &str, reading: &mut Reading) -> Option<Vec<Port>> {
    if raw.is_empty() || raw.len() > MOST {
        let range = Range { min: 1.0, max: MOST as f64, field: &field::COUNT };
        reading.note(
            &format!("{chamber}.ports"),
            ProblemKind::OutOfRange { given: raw.len().to_string(), range },
        );
        return None;
    }
    let ports: Vec<_> = raw
        .iter()
        .enumerate()
        .map(|(index, port)| self::port(&format!("{chamber}.ports[{index}]"), port, reading))
        .collect();
    ports.into_iter().collect()
}

fn port(place: &str, raw: &RawPort, reading: &mut Reading) -> Option<Port> {
    let place = |name: &str| format!("{place}.{name}");
    let section = match raw.shape {
        RawPortSection::Round => reading
            .required(&place("diameter"), &field::DIAMETER, &raw.diameter)
            .map(|diameter| CrossSection::Round { radius: diameter / 2.0 }),
        RawPortSection::Slot => {
            let width = if raw.is_across() {
                Some(UNTIL_BUILT)
            } else {
                reading.required(&place("width"), &field::WIDTH, &raw.width)
            };
            let height = reading.required(&place("height"), &field::HEIGHT, &raw.height);
            width.zip(height).map(|(width, height)| CrossSection::Slot { width, height })
        }
        RawPortSection::Corner => reading
            .required(&place("side"), &field::SIDE, &raw.side)
            .map(|side| CrossSection::Corner { side }),
    };
    let length = reading.optional(&place("length"), &field::LENGTH, &raw.length);
    let count = reading.count(&place("count"), &field::COUNT, &raw.count);
    let path = reading.optional(&place("path"), &field::PATH, &raw.path);
    let waist = reading.optional(&place("waist"), &field::WAIST, &raw.waist);
    let waist = match (section, waist) {
        (Some(CrossSection::Slot { height, .. }), Some(waist)) if waist > height => {
            let range = Range { min: field::WAIST.min, max: height, field: &field::WAIST };
            reading
                .note(&place("waist"), ProblemKind::OutOfRange { given: field::WAIST.write(waist), range });
            None
        }
        (Some(CrossSection::Slot { height, .. }), Some(waist)) => Some(waist / height),
        _ => None,
    };
    let outer = raw.outer_end.unwrap_or(RawEnd::Flanged);
    if !matches!(outer, RawEnd::Free | RawEnd::Flanged) {
        reading.note(
            &place("outer_end"),
            ProblemKind::NotHere { given: "a wall", allowed: "\"free\" and \"flanged\"" },
        );
    }
    Some(Port {
        section: section?,
        length,
        count: count?,
        // What lies in a corner ends along two walls.
        inner: end(raw.inner_end.unwrap_or(if raw.shape == RawPortSection::Corner {
            RawEnd::TwoWalls
        } else {
            RawEnd::Free
        })),
        outer: end(outer),
        path: path.unwrap_or(0.0),
        waist: waist.unwrap_or(1.0),
        extra: 0.0,
    })
}

fn end(raw: RawEnd) -> End {
    match raw {
        RawEnd::Free => End::Free,
        RawEnd::Flanged => End::Flanged,
        RawEnd::OneWall => End::Walls(1),
        RawEnd::TwoWalls => End::Walls(2),
        RawEnd::ThreeWalls => End::Walls(3),
    }
}
