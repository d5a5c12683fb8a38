//! A design file becomes a cabinet that can be compiled.

use oak_acoustics::element::End;
use oak_acoustics::enclosure::{CompileError, Compiled, Enclosure, Fidelity, Losses, Port, Ported, Sealed};
use oak_acoustics::medium::{Air, CrossSection};

use super::driver::{ResolvedDriver, resolve_driver};
use super::reading::Reading;
use crate::field;
use crate::file::{
    LONGEST_NAME, LONGEST_NOTE, RawAir, RawBuild, RawDesign, RawDrive, RawEnclosure, RawEnd, RawFamily,
    RawPort, RawShape, Typed,
};
use crate::problem::{Problem, ProblemKind, Range};

/// Drive where a file names none: 1 W into 8 ohm.
const USUAL_VOLTS: f64 = 2.83;
/// Most port entries in one cabinet.
const MOST_PORTS: usize = 8;

/// A complete design, SI.
#[derive(Debug, Clone, PartialEq)]
pub struct ResolvedDesign {
    /// The driver.
    pub driver: ResolvedDriver,
    /// The cabinet.
    pub enclosure: Enclosure,
    /// Drive at the terminals, V RMS.
    pub volts: f64,
    /// The air.
    pub air: Air,
    /// The tuning as typed, to speak of it in the user's words.
    tuning_typed: Option<Typed>,
}

impl ResolvedDesign {
    /// Compiles the cabinet.
    ///
    /// # Errors
    /// What only shows when the ports are worked out.
    pub fn compile(&self) -> Result<Compiled, Problem> {
        let compiled = self.enclosure.compile(&self.driver.driver, &self.air, Fidelity::FULL);
        compiled.map_err(|error| match error {
            CompileError::TuningTooHigh { highest } => {
                let range = Range { min: field::TUNING.min, max: highest, field: &field::TUNING };
                let given = self.tuning_typed.as_ref().map(Typed::to_string).unwrap_or_default();
                Problem::new("enclosure.tuning", ProblemKind::TuningTooHigh { given, range })
            }
            CompileError::NothingToTune => {
                Problem::new("enclosure.tuning", ProblemKind::Excludes { other: "enclosure.ports[0].length" })
            }
            CompileError::LengthUnknown { port } => {
                let names = &["enclosure.tuning", "enclosure.ports.length"];
                Problem::new(
                    format!("enclosure.ports[{port}].length"),
                    ProblemKind::MissingOneOf { names, needed: 1 },
                )
            }
        })
    }
}

/// Resolves a design.
///
/// # Errors
/// Every problem, with its place.
pub fn resolve_design(raw: &RawDesign) -> Result<ResolvedDesign, Vec<Problem>> {
    let mut reading = Reading::default();
    reading.text("name", &raw.name, 1, LONGEST_NAME);
    reading.text("notes", &raw.notes, 0, LONGEST_NOTE);
    let driver = resolve_driver(&raw.driver);
    if let Err(problems) = &driver {
        reading.problems.extend(problems.iter().cloned().map(|problem| problem.within("driver")));
    }
    let enclosure = enclosure(&raw.enclosure, &mut reading);
    let nominal = driver.as_ref().map_or(f64::NAN, |resolved| resolved.driver.nominal);
    let volts = volts(raw.drive.as_ref(), nominal, &mut reading);
    let air = air(raw.air.as_ref(), &mut reading);
    match (driver, enclosure, reading.problems.is_empty()) {
        (Ok(driver), Some(enclosure), true) => {
            Ok(ResolvedDesign { driver, enclosure, volts, air, tuning_typed: raw.enclosure.tuning.clone() })
        }
        _ => Err(reading.problems),
    }
}

/// Checks the texts of a build; its variants may be unfinished, so they are not resolved.
///
/// # Errors
/// Every problem, with its place.
pub fn check_build(name: &str, notes: &str) -> Result<(), Vec<Problem>> {
    let mut reading = Reading::default();
    reading.text("name", name, 1, LONGEST_NAME);
    reading.text("notes", notes, 0, LONGEST_NOTE);
    if reading.problems.is_empty() { Ok(()) } else { Err(reading.problems) }
}

impl RawBuild {
    /// Resolves and compiles every variant.
    ///
    /// # Errors
    /// Every problem, with its place.
    pub fn check(&self) -> Result<(), Vec<Problem>> {
        let mut problems = check_build(&self.name, &self.notes).err().unwrap_or_default();
        for (index, variant) in self.variants.iter().enumerate() {
            let found = match resolve_design(variant) {
                Ok(resolved) => resolved.compile().err().into_iter().collect(),
                Err(found) => found,
            };
            problems.extend(found.into_iter().map(|problem| problem.within(&format!("variants[{index}]"))));
        }
        if problems.is_empty() { Ok(()) } else { Err(problems) }
    }
}

fn enclosure(raw: &RawEnclosure, reading: &mut Reading) -> Option<Enclosure> {
    let volume = reading.required("enclosure.volume", &field::VOLUME, &raw.volume);
    let losses = Losses {
        ql: reading.optional("enclosure.ql", &field::QL, &raw.ql),
        qa: reading.optional("enclosure.qa", &field::QA, &raw.qa),
    };
    match raw.family {
        RawFamily::Sealed => Some(Enclosure::Sealed(Sealed { volume: volume?, losses })),
        RawFamily::Ported => {
            let tuning = reading.optional("enclosure.tuning", &field::TUNING, &raw.tuning);
            let ports = ports(&raw.ports, reading);
            Some(Enclosure::Ported(Ported { volume: volume?, losses, ports: ports?, tuning }))
        }
    }
}

fn ports(raw: &[RawPort], reading: &mut Reading) -> Option<Vec<Port>> {
    if raw.is_empty() || raw.len() > MOST_PORTS {
        let range = Range { min: 1.0, max: MOST_PORTS as f64, field: &field::COUNT };
        reading.note("enclosure.ports", ProblemKind::OutOfRange { given: raw.len().to_string(), range });
        return None;
    }
    let ports: Vec<_> =
        raw.iter().enumerate().map(|(index, port)| self::port(index, port, reading)).collect();
    ports.into_iter().collect()
}

fn port(index: usize, raw: &RawPort, reading: &mut Reading) -> Option<Port> {
    let place = |name: &str| format!("enclosure.ports[{index}].{name}");
    let section = match raw.shape {
        RawShape::Round => reading
            .required(&place("diameter"), &field::DIAMETER, &raw.diameter)
            .map(|diameter| CrossSection::Round { radius: diameter / 2.0 }),
        RawShape::Slot => {
            let width = reading.required(&place("width"), &field::WIDTH, &raw.width);
            let height = reading.required(&place("height"), &field::HEIGHT, &raw.height);
            width.zip(height).map(|(width, height)| CrossSection::Slot { width, height })
        }
    };
    let length = reading.optional(&place("length"), &field::LENGTH, &raw.length);
    let count = match &raw.count {
        None => Some(1.0),
        typed => reading.optional(&place("count"), &field::COUNT, typed),
    };
    if let Some(count) = count.filter(|count| count.fract().abs() > 0.0) {
        let range = Range { min: field::COUNT.min, max: field::COUNT.max, field: &field::COUNT };
        reading.note(&place("count"), ProblemKind::NotWhole { given: count.to_string(), range });
        return None;
    }
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
        count: count? as u32,
        inner: end(raw.inner_end.unwrap_or(RawEnd::Free)),
        outer: end(outer),
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

fn volts(raw: Option<&RawDrive>, nominal: f64, reading: &mut Reading) -> f64 {
    let Some(raw) = raw else { return USUAL_VOLTS };
    if raw.power.is_some() && raw.voltage.is_some() {
        reading.note("drive.power", ProblemKind::Excludes { other: "drive.voltage" });
    }
    let power = reading.optional("drive.power", &field::POWER, &raw.power);
    let voltage = reading.optional("drive.voltage", &field::VOLTAGE, &raw.voltage);
    voltage.or(power.map(|watts| (watts * nominal).sqrt())).unwrap_or(USUAL_VOLTS)
}

fn air(raw: Option<&RawAir>, reading: &mut Reading) -> Air {
    let Some(raw) = raw else { return Air::reference() };
    let temperature = reading.optional("air.temperature", &field::TEMPERATURE, &raw.temperature);
    let pressure = reading.optional("air.pressure", &field::PRESSURE, &raw.pressure);
    let humidity = reading.optional("air.humidity", &field::HUMIDITY, &raw.humidity);
    Air::new(temperature.unwrap_or(20.0), pressure.unwrap_or(101_325.0), humidity.unwrap_or(0.0))
}
