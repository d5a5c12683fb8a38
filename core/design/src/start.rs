//! Starting points as design files.

use oak_acoustics::Stop;
use oak_acoustics::element::End;
use oak_acoustics::enclosure::{
    Bandpass4, Bandpass6, Enclosure, FrontHorn, Line, Losses, Mouth, Port, Ported, Radiator, Sealed,
    TappedHorn,
};
use oak_acoustics::medium::{CrossSection, Frame};
use oak_acoustics::profile::{Flare, Profile};
use oak_acoustics::starting_point::{self, Ask, MAKER, Recommended, StartingPoint};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::field::{self, Field};
use crate::file::{
    DESIGN_FORMAT, RawAir, RawBrief, RawChamber, RawDesign, RawDriver, RawDriverArray, RawEnclosure, RawEnd,
    RawFamily, RawFlare, RawFrame, RawMouth, RawPassage, RawPort, RawPortSection, RawRadiator, RawSegment,
    RawSignal, RawSpace, Typed, VERSION,
};
use crate::problem::Problem;
use crate::resolve::{Record, read_wishes, resolve_design};

/// What a starting point is asked for with.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawAsk {
    /// Kind of cabinet.
    pub family: RawFamily,
    /// The driver.
    pub driver: RawDriver,
    /// What is done to it, and how many there are.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub driver_array: Option<RawDriverArray>,
    /// What comes before it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub signal: Option<RawSignal>,
    /// The space it radiates into.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub space: Option<RawSpace>,
    /// The air.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub air: Option<RawAir>,
    /// Most air in all chambers and ways together.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub volume: Option<Typed>,
    /// Lowest note.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lowest: Option<Typed>,
    /// What must be reached: says the space, the lowest note and the size where they are not given here.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub brief: Option<RawBrief>,
}

/// What one starting point says: a design to begin with, or why there is none.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct StartReport {
    /// As written on the command line.
    pub starting_point: &'static str,
    /// As written for people.
    pub name: &'static str,
    /// Where the design comes from, or why there is none.
    pub reason: String,
    /// The design; the reason stands in its notes.
    pub design: Option<RawDesign>,
}

/// The starting points of a family.
pub fn starting_points(family: RawFamily) -> &'static [StartingPoint] {
    match family {
        RawFamily::Sealed => starting_point::SEALED,
        RawFamily::Ported => starting_point::PORTED,
        RawFamily::PassiveRadiator => starting_point::PASSIVE_RADIATOR,
        RawFamily::Aperiodic => starting_point::APERIODIC,
        RawFamily::Bandpass4 => starting_point::BANDPASS4,
        RawFamily::Bandpass6Parallel => starting_point::BANDPASS6_PARALLEL,
        RawFamily::Bandpass6Series => starting_point::BANDPASS6_SERIES,
        RawFamily::Line => starting_point::LINE,
        RawFamily::MassLoadedLine => starting_point::MASS_LOADED_LINE,
        RawFamily::BackHorn => starting_point::BACK_HORN,
        RawFamily::FrontHorn => starting_point::FRONT_HORN,
        RawFamily::TappedHorn => starting_point::TAPPED_HORN,
        RawFamily::SlotFlare => starting_point::SLOT_FLARE,
        RawFamily::OpenBaffle => starting_point::OPEN_BAFFLE,
        RawFamily::InfiniteBaffle => starting_point::INFINITE_BAFFLE,
    }
}

impl RawAsk {
    /// A question about a driver alone.
    pub fn of(driver: RawDriver, family: RawFamily) -> Self {
        Self {
            family,
            driver,
            driver_array: None,
            signal: None,
            space: None,
            air: None,
            volume: None,
            lowest: None,
            brief: None,
        }
    }

    /// What every starting point of the family says.
    ///
    /// # Errors
    /// Every problem with what was given, with its place.
    pub fn answer(&self, stop: &Stop) -> Result<Vec<StartReport>, Vec<Problem>> {
        let ask = self.read()?;
        let recommends = match self.family {
            RawFamily::Sealed => ask.recommended.sealed.is_some(),
            RawFamily::Ported => ask.recommended.ported.is_some(),
            RawFamily::Aperiodic
            | RawFamily::PassiveRadiator
            | RawFamily::Bandpass4
            | RawFamily::Bandpass6Parallel
            | RawFamily::Bandpass6Series
            | RawFamily::Line
            | RawFamily::MassLoadedLine
            | RawFamily::BackHorn
            | RawFamily::FrontHorn
            | RawFamily::TappedHorn
            | RawFamily::SlotFlare
            | RawFamily::OpenBaffle
            | RawFamily::InfiniteBaffle => false,
        };
        Ok(starting_points(self.family)
            .iter()
            .filter(|starting_point| starting_point.id != MAKER || recommends)
            .take_while(|_| !stop.stopped())
            .map(|starting_point| self.answer_of(starting_point, &ask))
            .collect())
    }

    /// What one starting point says.
    ///
    /// # Errors
    /// Every problem with what was given, with its place.
    pub fn answer_by(&self, starting_point: &StartingPoint) -> Result<StartReport, Vec<Problem>> {
        Ok(self.answer_of(starting_point, &self.read()?))
    }

    /// Everything but the cabinet as a design, in an infinite baffle, which has no values of its own.
    pub fn blank(&self) -> RawDesign {
        self.design("Start", String::new(), RawEnclosure::empty(RawFamily::InfiniteBaffle))
    }

    fn read(&self) -> Result<Ask, Vec<Problem>> {
        let design = self.blank();
        let wishes = read_wishes(self.volume.as_ref(), self.lowest.as_ref());
        match (resolve_design(&design), wishes) {
            (Ok(resolved), Ok(wishes)) => {
                let Record { sealed, ported, .. } = resolved.driver.record;
                let recommended = Recommended { sealed, ported };
                let one = resolved.driver_size();
                let size = [one.frame, one.depth];
                Ok(Ask { recommended, size, ..Ask::new(resolved.setting(), wishes) })
            }
            (design, wishes) => {
                let problems = [design.err(), wishes.err()];
                Err(problems.into_iter().flatten().flatten().collect())
            }
        }
    }

    fn answer_of(&self, starting_point: &StartingPoint, ask: &Ask) -> StartReport {
        let (reason, design) = match (starting_point.start)(ask) {
            Ok(start) => {
                let enclosure = raw_enclosure(self.family, &start.enclosure);
                let design = self.design(starting_point.name, start.reason.clone(), enclosure);
                match resolve_design(&design) {
                    Ok(_) => (start.reason, Some(design)),
                    Err(problems) => (out_of_range(&start.reason, &problems), None),
                }
            }
            Err(refusal) => (refusal.0, None),
        };
        StartReport { starting_point: starting_point.id, name: starting_point.name, reason, design }
    }

    fn design(&self, name: &str, notes: String, enclosure: RawEnclosure) -> RawDesign {
        RawDesign {
            format: DESIGN_FORMAT.to_owned(),
            version: VERSION,
            name: name.to_owned(),
            driver: self.driver.clone(),
            driver_array: self.driver_array.clone(),
            enclosure,
            body: None,
            signal: self.signal.clone(),
            space: self.space,
            air: self.air.clone(),
            measured: None,
            notes,
        }
    }
}

/// Why a cabinet that a rule gives is none that can be worked with.
fn out_of_range(reason: &str, problems: &[Problem]) -> String {
    let words: Vec<String> = problems.iter().map(Problem::to_string).collect();
    format!(
        "{reason} That is beyond what can be designed here: {}. A higher lowest note makes it smaller.",
        words.join("; ")
    )
}

/// A value in its field's usual unit, rounded to what can be built.
fn typed(si: f64, field: &Field, digits: u32) -> Option<Typed> {
    Some(field.typed(si, digits))
}

/// A cabinet as a file has it, rounded to what can be built.
pub fn raw_enclosure(family: RawFamily, enclosure: &Enclosure) -> RawEnclosure {
    let empty = RawEnclosure::empty(family);
    match enclosure {
        Enclosure::InfiniteBaffle => empty,
        Enclosure::OpenBaffle(baffle) => {
            RawEnclosure { baffle_path: typed(baffle.path, &field::BAFFLE_PATH, 3), ..empty }
        }
        Enclosure::Sealed(sealed) => with_rear(empty, closed(sealed)),
        Enclosure::Aperiodic(aperiodic) => RawEnclosure {
            vent_resistance: typed(aperiodic.resistance, &field::VENT_RESISTANCE, 3),
            ..with_rear(empty, closed(&aperiodic.chamber))
        },
        Enclosure::Ported(ported) => with_rear(empty, vented(ported)),
        Enclosure::PassiveRadiator(cabinet) => {
            let chamber = Sealed { volume: cabinet.volume, losses: cabinet.losses };
            RawEnclosure { radiator: Some(radiator(&cabinet.radiator)), ..with_rear(empty, closed(&chamber)) }
        }
        Enclosure::Bandpass4(Bandpass4 { rear, front }) => {
            RawEnclosure { front: Some(vented(front)), ..with_rear(empty, closed(rear)) }
        }
        Enclosure::Bandpass6(Bandpass6 { rear, front, .. }) => {
            RawEnclosure { front: Some(vented(front)), ..with_rear(empty, vented(rear)) }
        }
        Enclosure::Line(line) => raw_line(empty, line),
        Enclosure::FrontHorn(FrontHorn { rear, throat, profile, mouth }) => RawEnclosure {
            front: throat.as_ref().map(closed),
            passage: Some(passage(profile, *mouth)),
            ..with_rear(empty, closed(rear))
        },
        Enclosure::TappedHorn(TappedHorn { profile, taps: [first, second], mouth }) => {
            let way = RawPassage {
                driver_at: typed(*first, &field::DRIVER_AT, 3),
                front_at: typed(*second, &field::FRONT_AT, 4),
                ..passage(profile, *mouth)
            };
            RawEnclosure { passage: Some(way), ..empty }
        }
    }
}

fn raw_line(empty: RawEnclosure, line: &Line) -> RawEnclosure {
    let mut enclosure = match &line.chamber {
        Some(chamber) => with_rear(empty, closed(chamber)),
        None => empty,
    };
    let mouth = match &line.mouth {
        Mouth::Open { end, .. } => *end,
        Mouth::Ports(ports) => {
            enclosure.ports = ports.iter().map(port).collect();
            End::Flanged
        }
    };
    let along = (line.driver_at > 0.0).then(|| typed(line.driver_at, &field::DRIVER_AT, 3)).flatten();
    enclosure.passage = Some(RawPassage { driver_at: along, ..passage(&line.profile, mouth) });
    enclosure
}

fn with_rear(empty: RawEnclosure, rear: RawChamber) -> RawEnclosure {
    let RawChamber { volume, fill, fill_density, fill_material, gain, ql, qa, tuning, ports } = rear;
    RawEnclosure { volume, fill, fill_density, fill_material, gain, ql, qa, tuning, ports, ..empty }
}

fn chamber(volume: f64, losses: Losses) -> RawChamber {
    RawChamber {
        volume: typed(volume, &field::VOLUME, 3),
        ql: losses.ql.map(Typed::Number),
        qa: losses.qa.map(Typed::Number),
        ..RawChamber::default()
    }
}

fn closed(sealed: &Sealed) -> RawChamber {
    chamber(sealed.volume, sealed.losses)
}

fn vented(ported: &Ported) -> RawChamber {
    RawChamber {
        tuning: ported.tuning.and_then(|tuning| typed(tuning, &field::TUNING, 3)),
        ports: ported.ports.iter().map(port).collect(),
        ..chamber(ported.volume, ported.losses)
    }
}

fn port(port: &Port) -> RawPort {
    let millimetres = |length: f64, field| typed(length, field, 4);
    let (shape, diameter, width, height, side) = match port.section {
        CrossSection::Round { radius } => {
            (RawPortSection::Round, millimetres(2.0 * radius, &field::DIAMETER), None, None, None)
        }
        CrossSection::Slot { width, height } => {
            let (width, height) = (millimetres(width, &field::WIDTH), millimetres(height, &field::HEIGHT));
            (RawPortSection::Slot, None, width, height, None)
        }
        CrossSection::Corner { side } => {
            (RawPortSection::Corner, None, None, None, millimetres(side, &field::SIDE))
        }
    };
    RawPort {
        shape,
        diameter,
        width,
        height,
        waist: None,
        side,
        length: port.length.and_then(|length| millimetres(length, &field::LENGTH)),
        count: (port.count > 1).then(|| Typed::Number(f64::from(port.count))),
        inner_end: Some(RawEnd::Free),
        outer_end: Some(RawEnd::Flanged),
        path: None,
    }
}

fn radiator(radiator: &Radiator) -> RawRadiator {
    RawRadiator {
        area: typed(radiator.area, &field::RADIATOR_AREA, 4),
        mass: typed(radiator.mass, &field::RADIATOR_MASS, 4),
        added_mass: typed(0.0, &field::RADIATOR_ADDED, 3),
        compliance: typed(radiator.compliance, &field::RADIATOR_COMPLIANCE, 3),
        resistance: typed(radiator.resistance, &field::RADIATOR_RESISTANCE, 3),
        xmax: radiator.xmax.and_then(|xmax| typed(xmax, &field::RADIATOR_XMAX, 3)),
        count: Some(Typed::Number(f64::from(radiator.count))),
    }
}

fn passage(profile: &Profile, mouth: End) -> RawPassage {
    let segment = |(index, segment): (usize, &oak_acoustics::profile::Segment)| {
        let (flare, t) = match segment.flare {
            Flare::Conical => (RawFlare::Conical, None),
            Flare::Exponential => (RawFlare::Exponential, None),
            Flare::Hyperbolic { t } => (RawFlare::Hyperbolic, typed(t, &field::SEGMENT_T, 3)),
            Flare::Tractrix => (RawFlare::Tractrix, None),
            Flare::Parabolic => (RawFlare::Parabolic, None),
        };
        // A tractrix is refused when it is rounded shorter than it can be.
        let slack = if segment.flare == Flare::Tractrix { 1.0 + 5e-4 } else { 1.0 };
        RawSegment {
            flare,
            t,
            length: typed(segment.length * slack, &field::SEGMENT_LENGTH, 4),
            start: (index == 0).then(|| typed(segment.start, &field::SEGMENT_START, 4)).flatten(),
            end: typed(segment.end, &field::SEGMENT_END, 4),
            width: segment.width.and_then(|width| typed(width, &field::SEGMENT_WIDTH, 3)),
            fill_density: segment.fill.and_then(|fill| typed(fill.bulk_density, &field::FILL_DENSITY, 3)),
            fill_resistivity: None,
            fill_share: None,
            fill_frame: segment.fill.map(|fill| match fill.frame {
                Frame::Limp => RawFrame::Limp,
                Frame::Rigid => RawFrame::Rigid,
            }),
        }
    };
    let mouth = match mouth {
        End::Mouth => RawMouth::Walls,
        End::Free => RawMouth::Free,
        End::Flanged | End::Walls(_) => RawMouth::Flanged,
    };
    RawPassage {
        segments: profile.segments.iter().enumerate().map(segment).collect(),
        mouth: Some(mouth),
        ..RawPassage::default()
    }
}
