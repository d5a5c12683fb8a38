//! Everything that another program needs to work a design out again as it is built: for checks from outside.

use oak_acoustics::driver::{Driver, Inductance};
use oak_acoustics::element::End;
use oak_acoustics::enclosure::{Duct, Enclosure, FrontPath, Losses, Mouth, Port, PortTuning, Sealed};
use oak_acoustics::medium::{Air, CrossSection};
use oak_acoustics::network::OpeningKind;
use oak_acoustics::profile::Profile;
use oak_acoustics::source::{Branch, Chain, Part, Section, Source};
use serde::Serialize;

use super::ModelReport;
use crate::built::{Boxed, Built};
use crate::resolve::ResolvedDesign;

/// A design as it is built, SI.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct BuiltExport {
    /// Drive, V RMS.
    pub volts: f64,
    /// Solid angle it radiates into.
    pub solid_angle: f64,
    /// The air.
    pub air: AirExport,
    /// All drivers together as one, without the cable.
    pub driver: DriverExport,
    /// Cable and the like, ohm.
    pub series_resistance: f64,
    /// What comes before the drivers, besides.
    pub source: SourceExport,
    /// Where the middle of the drivers looks out, m.
    pub cone_at: Option<[f64; 3]>,
    /// Chambers behind and before the drivers.
    pub chambers: Vec<ChamberExport>,
    /// Ports, those of the chamber behind the drivers first.
    pub ports: Vec<PortExport>,
    /// Passive radiators.
    pub radiator: Option<RadiatorExport>,
    /// The way of a line, from its closed end.
    pub passage: Option<PassageExport>,
    /// Room, what eats of it and what is left, chamber by chamber.
    pub ledgers: Vec<LedgerExport>,
    /// Space that is closed off beside a chamber, m3.
    pub unused: Option<f64>,
    /// The box in three dimensions; absent where there is none.
    pub model: Option<ModelReport>,
    /// What forbids building it, in words.
    pub forbids: Vec<String>,
}

/// Filters, the amplifier's resistance and passive parts, SI.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct SourceExport {
    /// Filters as rational functions of `s = j f/frequency`; they multiply the drive.
    pub sections: Vec<SectionExport>,
    /// Factor at every frequency; negative where the polarity is reversed.
    pub gain: f64,
    /// s.
    pub delay: f64,
    /// ohm.
    pub output_resistance: f64,
    /// Passive parts, from the amplifier to the drivers.
    pub parts: Vec<PassiveExport>,
}

/// `(b0 + b1 s + b2 s^2)/(a0 + a1 s + a2 s^2)`.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[allow(missing_docs)]
pub struct SectionExport {
    pub frequency: f64,
    pub numerator: [f64; 3],
    pub denominator: [f64; 3],
}

/// Branches side by side at one place of the passive circuit.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct PassiveExport {
    /// In the live lead; else from that lead to the return.
    pub in_series: bool,
    /// Each a resistance (ohm), an inductance (H) and, where there is one, a capacitance (F) one behind the other.
    pub branches: Vec<(f64, f64, Option<f64>)>,
}

impl SourceExport {
    fn of(source: &Source) -> Self {
        let Chain { sections, gain, delay, .. } = &source.chain;
        let section = |Section { frequency, numerator, denominator }: &Section| SectionExport {
            frequency: *frequency,
            numerator: *numerator,
            denominator: *denominator,
        };
        let branch = |branch: Branch| (branch.resistance, branch.inductance, branch.capacitance);
        let part = |part: &Part| PassiveExport {
            in_series: part.in_series,
            branches: part.form.branches().map(branch).collect(),
        };
        Self {
            sections: sections.iter().map(section).collect(),
            gain: *gain,
            delay: *delay,
            output_resistance: source.output_resistance,
            parts: source.parts.iter().map(part).collect(),
        }
    }
}

/// Air, SI.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[allow(missing_docs)]
pub struct AirExport {
    pub density: f64,
    pub speed: f64,
    pub pressure: f64,
    pub viscosity: f64,
    pub conductivity: f64,
    pub specific_heat: f64,
    pub gamma: f64,
}

/// A driver's parameters by their usual names, SI; of the coil whichever model it has.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[allow(missing_docs)]
pub struct DriverExport {
    pub re: f64,
    pub le: f64,
    pub l2: f64,
    pub r2: f64,
    /// `K (j w)^n` instead of the three before.
    pub power_law: Option<[f64; 2]>,
    pub bl: f64,
    pub mms: f64,
    pub cms: f64,
    pub rms: f64,
    pub sd: f64,
}

/// A chamber.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
pub struct ChamberExport {
    /// As it seems with its fill, m3.
    pub apparent: f64,
    /// Leakage Q.
    pub ql: Option<f64>,
    /// Absorption Q.
    pub qa: Option<f64>,
    /// What both are referred to, Hz.
    pub referred_to: f64,
}

/// A port, or several equal ones.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
pub struct PortExport {
    /// In which chamber: 0 behind the drivers, 1 before them; of a line at its end.
    pub chamber: usize,
    /// Whether it leads into the other chamber instead of outside.
    pub inside: bool,
    /// `round`, `slot` or `corner`.
    pub section: &'static str,
    /// Diameter; width and height; length along either wall, m.
    pub sides: [f64; 2],
    /// Of a slot, its height half-way in over that at its ends, between which it changes evenly.
    pub waist: f64,
    /// As cut, m.
    pub length: f64,
    /// How many.
    pub count: u32,
    /// How its inner and outer end correct its length: over their radius.
    pub ends: [f64; 2],
    /// Whether its outer end is in a wide wall.
    pub flanged: bool,
    /// How much farther it has to the listener, m.
    pub path: f64,
    /// Where it opens outside, m.
    pub at: Option<[f64; 3]>,
}

/// Passive radiators.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[allow(missing_docs)]
pub struct RadiatorExport {
    pub mass: f64,
    pub compliance: f64,
    pub resistance: f64,
    pub area: f64,
    pub count: u32,
    pub at: Option<[f64; 3]>,
}

/// A line.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct PassageExport {
    /// Stretches from the closed end.
    pub stretches: Vec<StretchExport>,
    /// Where the drivers sit, m.
    pub driver_at: f64,
    /// Whether it opens in a wide wall.
    pub flanged: bool,
    /// Where it opens, m.
    pub at: Option<[f64; 3]>,
    /// How much farther that has to the listener, m.
    pub path: f64,
}

/// A stretch of a line.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct StretchExport {
    /// m.
    pub length: f64,
    /// At places evenly along it, its ends among them, m2.
    pub areas: Vec<f64>,
    /// Of a rectangular one, m.
    pub width: Option<f64>,
    /// Flow resistivity (Pa s/m2) and bulk density (kg/m3) of what fills it.
    pub fill: Option<[f64; 2]>,
    /// Share of the section that it takes and how thick it is, m, where it only lines a wall.
    pub lining: Option<[f64; 2]>,
    /// Whether that stands still.
    pub rigid: bool,
}

/// A chamber's room, added up, m3.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct LedgerExport {
    /// Between boards and partition.
    pub gross: f64,
    /// What is taken off it, and whether it is drawn somewhere.
    pub entries: Vec<(String, f64, bool)>,
    /// What is left.
    pub net: f64,
}

/// Places along a stretch where its area is told.
const PLACES: usize = 33;

impl BuiltExport {
    /// Lays a design out.
    pub fn of(design: &ResolvedDesign, built: &Built) -> Self {
        let enclosure = &built.design.enclosure;
        let network = &built.compiled.network;
        let place = |element: usize| {
            built.design.places.iter().find(|(found, _)| *found == element).map(|(_, place)| *place)
        };
        let opening = |kind: OpeningKind, at: usize| {
            network.openings.iter().filter(|opening| opening.kind == kind).nth(at)
        };
        let driver = design.driver_array.equivalent();
        let Air { density, speed, pressure, viscosity, conductivity, specific_heat, gamma } = design.air;
        Self {
            volts: design.drive.volts,
            solid_angle: design.space.angle(),
            air: AirExport { density, speed, pressure, viscosity, conductivity, specific_heat, gamma },
            driver: DriverExport::of(&driver),
            series_resistance: design.driver_array.series_resistance,
            source: SourceExport::of(&design.source),
            cone_at: network.cones.first().and_then(|cone| place(cone.element)),
            chambers: chambers(enclosure, built, design),
            ports: ports(enclosure, built)
                .into_iter()
                .enumerate()
                .map(|(at, port)| {
                    let element = opening(OpeningKind::Port, at).map(|opening| opening.element);
                    PortExport { at: element.and_then(place), ..port }
                })
                .collect(),
            radiator: enclosure.radiators().map(|cabinet| {
                let found = &cabinet.radiator;
                RadiatorExport {
                    mass: found.mass,
                    compliance: found.compliance,
                    resistance: found.resistance,
                    area: found.area,
                    count: found.count,
                    at: opening(OpeningKind::Diaphragm, 0).and_then(|opening| place(opening.element)),
                }
            }),
            passage: match enclosure.duct() {
                Some(Duct::Line(line)) => Some(PassageExport {
                    stretches: stretches(&line.profile),
                    driver_at: line.driver_at,
                    flanged: matches!(line.mouth, Mouth::Open { end: End::Flanged, .. }),
                    at: match line.mouth {
                        Mouth::Open { .. } => {
                            opening(OpeningKind::Port, 0).and_then(|opening| place(opening.element))
                        }
                        Mouth::Ports(_) => None,
                    },
                    path: match line.mouth {
                        Mouth::Open { path, .. } => path,
                        Mouth::Ports(_) => 0.0,
                    },
                }),
                Some(Duct::FrontHorn(_) | Duct::TappedHorn(_)) | None => None,
            },
            ledgers: built.boxed.as_ref().map(|boxed| ledgers(design, boxed)).unwrap_or_default(),
            unused: built.boxed.as_ref().and_then(|boxed| Some(boxed.cabinet.unused.as_ref()?.volume())),
            model: built
                .boxed
                .as_ref()
                .map(|Boxed { contents, cabinet }| ModelReport::of(design, contents, cabinet)),
            forbids: built.forbids(),
        }
    }
}

impl DriverExport {
    fn of(driver: &Driver) -> Self {
        let (le, l2, r2, power_law) = match driver.inductance {
            Inductance::Plain { le } => (le, 0.0, 0.0, None),
            Inductance::Shunted { le, l2, r2 } => (le, l2, r2, None),
            Inductance::PowerLaw { k, n } => (0.0, 0.0, 0.0, Some([k, n])),
        };
        let Driver { re, bl, mms, cms, rms, sd, .. } = *driver;
        Self { re, le, l2, r2, power_law, bl, mms, cms, rms, sd }
    }
}

fn chambers(enclosure: &Enclosure, built: &Built, design: &ResolvedDesign) -> Vec<ChamberExport> {
    let compiled = &built.compiled;
    let chamber = |apparent: f64, losses: Losses, referred_to: f64| ChamberExport {
        apparent,
        ql: losses.ql,
        qa: losses.qa,
        referred_to,
    };
    let driver = design.as_driven();
    let closed =
        |sealed: &Sealed| chamber(sealed.volume, sealed.losses, sealed.closed_box(&driver, &design.air).fc);
    let tuned = |tuning: &Option<PortTuning>| tuning.as_ref().map_or(0.0, |tuning| tuning.reactance);
    match enclosure {
        Enclosure::Sealed(sealed) => vec![closed(sealed)],
        Enclosure::Ported(ported) => {
            vec![chamber(ported.volume, ported.losses, tuned(&compiled.port_tuning))]
        }
        Enclosure::PassiveRadiator(cabinet) => {
            let tuning = compiled.radiator_tuning.as_ref().map_or(0.0, |tuning| tuning.tuning);
            vec![chamber(cabinet.volume, cabinet.losses, tuning)]
        }
        Enclosure::Bandpass4(bandpass) => {
            let front = &bandpass.front;
            vec![closed(&bandpass.rear), chamber(front.volume, front.losses, tuned(&compiled.port_tuning))]
        }
        Enclosure::Bandpass6(bandpass) => {
            let (rear, front) = (&bandpass.rear, &bandpass.front);
            vec![
                chamber(rear.volume, rear.losses, tuned(&compiled.rear_tuning)),
                chamber(front.volume, front.losses, tuned(&compiled.port_tuning)),
            ]
        }
        Enclosure::InfiniteBaffle
        | Enclosure::OpenBaffle(_)
        | Enclosure::Aperiodic(_)
        | Enclosure::Line(_)
        | Enclosure::FrontHorn(_)
        | Enclosure::TappedHorn(_) => Vec::new(),
    }
}

fn ports(enclosure: &Enclosure, built: &Built) -> Vec<PortExport> {
    let compiled = &built.compiled;
    let of = |ports: &[Port], tuning: &Option<PortTuning>, chamber: usize, inside: bool| {
        let lengths = tuning.as_ref().map(PortTuning::lengths).unwrap_or_default();
        let port = |(port, length): (&Port, f64)| {
            let (section, sides) = match port.section {
                CrossSection::Round { radius } => ("round", [2.0 * radius; 2]),
                CrossSection::Slot { width, height } => ("slot", [width, height]),
                CrossSection::Corner { side } => ("corner", [side; 2]),
            };
            let (count, path, waist) = (port.count, port.path, port.waist);
            // A correction at unit radius.
            let mut ends = [port.inner, port.outer].map(|end| end.length_correction(std::f64::consts::PI));
            ends[0] = (ends[0] + port.extra / (port.section.area() / std::f64::consts::PI).sqrt()).max(0.0);
            let flanged = port.outer == End::Flanged;
            PortExport {
                chamber,
                inside,
                section,
                sides,
                waist,
                length,
                count,
                ends,
                flanged,
                path,
                at: None,
            }
        };
        ports.iter().zip(lengths).map(port).collect::<Vec<_>>()
    };
    match enclosure {
        Enclosure::Ported(ported) => of(&ported.ports, &compiled.port_tuning, 0, false),
        Enclosure::Bandpass4(bandpass) => of(&bandpass.front.ports, &compiled.port_tuning, 1, false),
        Enclosure::Bandpass6(bandpass) => {
            let series = bandpass.path == FrontPath::Series;
            let mut all = of(&bandpass.rear.ports, &compiled.rear_tuning, 0, series);
            all.extend(of(&bandpass.front.ports, &compiled.port_tuning, 1, false));
            all
        }
        Enclosure::Line(line) => match &line.mouth {
            Mouth::Ports(ports) => of(ports, &compiled.port_tuning, 0, false),
            Mouth::Open { .. } => Vec::new(),
        },
        Enclosure::InfiniteBaffle
        | Enclosure::OpenBaffle(_)
        | Enclosure::Sealed(_)
        | Enclosure::Aperiodic(_)
        | Enclosure::PassiveRadiator(_)
        | Enclosure::FrontHorn(_)
        | Enclosure::TappedHorn(_) => Vec::new(),
    }
}

fn stretches(profile: &Profile) -> Vec<StretchExport> {
    let segment = |segment: &oak_acoustics::profile::Segment| StretchExport {
        length: segment.length,
        areas: (0..PLACES)
            .map(|k| segment.area_at(segment.length * k as f64 / (PLACES - 1) as f64))
            .collect(),
        width: segment.width,
        fill: segment.fill.map(|fill| [fill.resistivity, fill.bulk_density]),
        lining: segment.fill.and_then(|fill| fill.lining).map(|lining| [lining.share, lining.depth]),
        rigid: segment.fill.is_some_and(|fill| fill.frame == oak_acoustics::medium::Frame::Rigid),
    };
    profile.segments.iter().map(segment).collect()
}

fn ledgers(design: &ResolvedDesign, Boxed { cabinet, .. }: &Boxed) -> Vec<LedgerExport> {
    let drawn = |what: &str| {
        design.body.items.iter().find(|item| item.name == what).is_none_or(|item| item.block.is_some())
    };
    let ledger = |chamber: &oak_cabinetry::Chamber| LedgerExport {
        gross: chamber.ledger.gross,
        entries: chamber
            .ledger
            .entries
            .iter()
            .map(|entry| (entry.what.clone(), entry.volume, drawn(&entry.what)))
            .collect(),
        net: chamber.ledger.net(),
    };
    cabinet.chambers.iter().map(ledger).collect()
}
