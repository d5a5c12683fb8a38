//! A trace that was measured, checked.

use super::progress::{hash, moment};
use super::reading::Reading;
use crate::field;
use crate::file::{
    LONGEST_NAME, LONGEST_NOTE, MOST_HARMONICS, MOST_MEASURED_POINTS, RawMeasurement, RawTraceKind,
    RawTraceSource,
};
use crate::problem::{Problem, ProblemKind};

/// A trace in SI.
#[derive(Debug, Clone, PartialEq)]
pub struct Measurement {
    /// What it is of.
    pub of: RawTraceKind,
    /// Which driver, counted from 1.
    pub driver: u32,
    /// On the cone, kg.
    pub added_mass: Option<f64>,
    /// Off the axis, rad.
    pub angle: Option<f64>,
    /// Of the room, degC.
    pub room_temperature: Option<f64>,
    /// How it came here: what came otherwise had another gain.
    pub source: RawTraceSource,
    /// How loud the sweep was, dB of full scale.
    pub sweep_level: Option<f64>,
    /// Hz, second and third harmonic over the fundamental, dB.
    pub harmonics: Vec<[f64; 3]>,
    /// Whether its phase was measured.
    pub phased: bool,
    /// Hz rising, ohm or dB, degrees.
    pub points: Vec<[f64; 3]>,
}

const LONGEST_FILE: usize = 200;
const MOST_REMARKS: usize = 20;

/// Reads a trace that was measured.
///
/// # Errors
/// Every problem, with its place.
pub fn resolve_measurement(raw: &RawMeasurement) -> Result<Measurement, Vec<Problem>> {
    let mut reading = Reading::default();
    moment("at", &raw.at, &mut reading);
    reading.text("notes", &raw.notes, 0, LONGEST_NOTE);
    reading.text("file", &raw.file, 0, LONGEST_FILE);
    reading.text("calibration", &raw.calibration, 0, LONGEST_FILE);
    if let Some(variant) = &raw.variant {
        reading.text("variant", variant, 1, LONGEST_NAME);
    }
    if raw.remarks.len() > MOST_REMARKS {
        reading.note("remarks", ProblemKind::TooMany { found: raw.remarks.len(), max: MOST_REMARKS });
    }
    for (index, remark) in raw.remarks.iter().take(MOST_REMARKS).enumerate() {
        reading.text(&format!("remarks[{index}]"), remark, 0, LONGEST_NOTE);
    }
    for (name, given) in [("raw", &raw.raw), ("photo", &raw.photo)] {
        if let Some(given) = given {
            hash(name, given, &mut reading);
        }
    }
    let driver = reading.count("driver", &field::MEASUREMENT_DRIVER, &raw.driver);
    let added_mass = reading.optional("added_mass", &field::MEASUREMENT_MASS, &raw.added_mass);
    if raw.of == RawTraceKind::ImpedanceMass && raw.added_mass.is_none() {
        reading.required("added_mass", &field::MEASUREMENT_MASS, &None);
    }
    reading.optional("distance", &field::MEASUREMENT_DISTANCE, &raw.distance);
    let angle = reading.optional("angle", &field::MEASUREMENT_ANGLE, &raw.angle);
    reading.optional("drive", &field::MEASUREMENT_DRIVE, &raw.drive);
    let room_temperature =
        reading.optional("room_temperature", &field::MEASUREMENT_TEMPERATURE, &raw.room_temperature);
    points(raw, &mut reading);
    harmonics(raw, &mut reading);
    match (driver, reading.problems.is_empty()) {
        (Some(driver), true) => Ok(Measurement {
            of: raw.of,
            driver,
            added_mass,
            angle,
            room_temperature,
            source: raw.source,
            sweep_level: raw.sweep_level,
            harmonics: raw.harmonics.clone(),
            phased: raw.phased,
            points: raw.points.clone(),
        }),
        _ => Err(reading.problems),
    }
}

fn harmonics(raw: &RawMeasurement, reading: &mut Reading) {
    if let Some(level) = raw.sweep_level
        && !(-120.0..=20.0).contains(&level)
    {
        let reason = format!("{level} dB is no level of a sweep; -120 to 20 dB are allowed");
        reading.note("sweep_level", ProblemKind::Unshapeable { reason });
    }
    if raw.harmonics.len() > MOST_HARMONICS {
        let kind = ProblemKind::TooMany { found: raw.harmonics.len(), max: MOST_HARMONICS };
        reading.note("harmonics", kind);
    }
    let sound = |point: &[f64; 3]| point.iter().all(|value| value.is_finite()) && point[0] > 0.0;
    if let Some(at) = raw.harmonics.iter().position(|point| !sound(point)) {
        let reason = "frequency and levels are numbers, and a frequency is over 0 Hz".to_owned();
        reading.note(&format!("harmonics[{at}]"), ProblemKind::Unshapeable { reason });
    }
}

fn points(raw: &RawMeasurement, reading: &mut Reading) {
    let points = &raw.points;
    let mut wrong = |place: String, reason: &str| {
        reading.note(&place, ProblemKind::Unshapeable { reason: reason.to_owned() });
    };
    if points.len() < 2 {
        wrong("points".to_owned(), "fewer than two points are no trace");
    }
    if points.len() > MOST_MEASURED_POINTS {
        let kind = ProblemKind::TooMany { found: points.len(), max: MOST_MEASURED_POINTS };
        reading.note("points", kind);
        return;
    }
    let finite = |point: &[f64; 3]| point.iter().all(|value| value.is_finite());
    if let Some(at) = points.iter().position(|point| !finite(point) || point[0] <= 0.0) {
        wrong(format!("points[{at}]"), "frequency, size and phase are numbers, and a frequency is over 0 Hz");
    } else if let Some(at) = points.windows(2).position(|two| two[1][0] <= two[0][0]) {
        wrong(format!("points[{}]", at + 1), "frequencies rise from point to point");
    } else if let Some(at) = points.iter().position(|point| raw.of.is_impedance() && point[1] <= 0.0) {
        wrong(format!("points[{at}]"), "an impedance is over 0 ohm");
    }
}
