//! From what a program or a microphone wrote to the points of a measurement.

use oak_design::Problem;
use oak_design::exchange::TraceUnit;
use oak_design::file::{MOST_MEASURED_POINTS, RawTraceKind};
use serde::Serialize;
use utoipa::ToSchema;

use crate::Complex;
use crate::process::value_at;
use crate::sweep::{Impulse, Recording, Sweep, Window, deconvolve};
use crate::trace::{Impedance, read_text, wrong};

/// A trace as it was understood.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ReadMeasurement {
    /// Hz rising, ohm or dB, degrees.
    pub points: Vec<[f64; 3]>,
    /// Whether it has a phase; the third of each point stands for nothing otherwise.
    pub phased: bool,
    /// How many rows or samples it was made of.
    pub rows: usize,
    /// How it was written, in words.
    pub form: String,
    /// Of a recording of a level: Hz that was played, second and third harmonic over the fundamental, dB.
    pub harmonics: Vec<[f64; 3]>,
    /// Of a recording: when the sweep comes, s from its beginning.
    pub arrives: Option<f64>,
    /// What was found out of order, left out or taken for granted.
    pub remarks: Vec<String>,
}

/// Reads a trace of a kind from a text, whatever its columns; `file` names it in what is wrong with it.
///
/// # Errors
/// It is no trace, or not of that kind.
pub fn read_trace(of: RawTraceKind, file: &str, bytes: &[u8]) -> Result<ReadMeasurement, Problem> {
    let reading = read_text(file, bytes)?;
    let rows = reading.frequency.len();
    let phased = reading.phase.is_some();
    let phase = |at: usize| reading.phase.as_ref().map_or(0.0, |phase| phase[at]);
    let points: Vec<[f64; 3]> = if of.is_impedance() {
        Impedance::read(file, bytes)?;
        (0..rows).map(|at| [reading.frequency[at], reading.magnitude[at], phase(at)]).collect()
    } else {
        if reading.unit == TraceUnit::Ohm {
            return Err(wrong(file, "it is an impedance, and a level is wanted here".to_owned()));
        }
        reading.levels(rows).unwrap_or_default()
    };
    let points = thinned(&points, of.is_impedance(), phased);
    let (form, mut remarks) = (reading.form, reading.notes);
    if points.len() < rows {
        remarks.push(format!(
            "{rows} rows are kept as {} points, each the mean of its neighbours.",
            points.len()
        ));
    }
    Ok(ReadMeasurement {
        points: points.into_iter().map(rounded).collect(),
        phased,
        rows,
        form,
        harmonics: Vec::new(),
        arrives: None,
        remarks,
    })
}

/// Points evenly over the octaves, each the mean of those about it; what is not too many stays as it is.
fn thinned(points: &[[f64; 3]], impedance: bool, phased: bool) -> Vec<[f64; 3]> {
    if points.len() <= MOST_MEASURED_POINTS {
        return points.to_vec();
    }
    let (low, high) = (points[0][0].ln(), points[points.len() - 1][0].ln());
    let slot = |frequency: f64| {
        ((frequency.ln() - low) / (high - low) * (MOST_MEASURED_POINTS - 1) as f64).round() as usize
    };
    let mut kept = Vec::with_capacity(MOST_MEASURED_POINTS);
    for near in points.chunk_by(|a, b| slot(a[0]) == slot(b[0])) {
        let count = near.len() as f64;
        let value = |[_, size, phase]: &[f64; 3]| {
            let size = if impedance { *size } else { 10f64.powf(size / 20.0) };
            Complex::from_polar(size, phase.to_radians())
        };
        let frequency = near.iter().map(|point| point[0].ln()).sum::<f64>() / count;
        let mean = near.iter().map(value).sum::<Complex>() / count;
        // Without a phase the sizes are averaged.
        let size = if phased {
            mean.norm()
        } else {
            near.iter().map(|point| value(point).norm()).sum::<f64>() / count
        };
        let size = if impedance { size } else { 20.0 * size.log10() };
        kept.push([frequency.exp(), size, if phased { mean.arg().to_degrees() } else { 0.0 }]);
    }
    kept
}

/// To six digits, so that a document stays small.
fn rounded(point: [f64; 3]) -> [f64; 3] {
    let to = |value: f64| {
        if value == 0.0 || !value.is_finite() {
            return value;
        }
        let scale = 10f64.powi(5 - value.abs().log10().floor() as i32);
        (value * scale).round() / scale
    };
    point.map(to)
}

/// A calibration of a microphone: how much it is too loud at a frequency, Hz and dB.
#[derive(Debug, Clone, PartialEq)]
pub struct Calibration {
    points: Vec<[f64; 2]>,
}

impl Calibration {
    /// Reads one from a text: frequency, and the microphone's own level, dB.
    ///
    /// # Errors
    /// It is no trace of a level.
    pub fn read(file: &str, bytes: &[u8]) -> Result<Self, Problem> {
        Ok(Self { points: crate::loopback::read(file, bytes)? })
    }

    /// How much a microphone is too loud at a frequency, dB; beyond its ends as there.
    pub fn at(&self, frequency: f64) -> f64 {
        let (Some(first), Some(last)) = (self.points.first(), self.points.last()) else { return 0.0 };
        value_at(&self.points, frequency.clamp(first[0], last[0])).unwrap_or(0.0)
    }

    /// A trace of levels with what is the microphone's own taken out.
    pub fn taken_out(&self, points: &mut [[f64; 3]]) {
        for point in points {
            point[1] -= self.at(point[0]);
        }
    }
}

/// How a recording of the sweep is made into a trace.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Take {
    /// What was played.
    pub sweep: Sweep,
    /// Two-channel jig: ohms of the resistor between the channels; the first channel is the amplifier's side of it, the second the driver's.
    pub resistor: Option<f64>,
    /// How long after its beginning the response is kept, s; a reflection that comes later is cut off. Near fields and impedances take all of it.
    pub gate: Option<f64>,
}

/// Points of an octave that a recording is read off at.
const AN_OCTAVE: f64 = 72.0;
/// Before the response, and after it where nothing is gated, s.
const BEFORE: f64 = 0.25;
const AFTER: f64 = 1.2;
/// A recording with less above its noise than this is none, dB.
const HEARD: f64 = 12.0;
/// The mains hum, if they do, at these and their harmonics, Hz.
const MAINS: [f64; 2] = [50.0, 60.0];
/// So far above its neighbours in the silence a line is a hum, dB.
const HUM: f64 = 15.0;

/// What a recording of the sweep says: a level by its first channel, an impedance by two.
///
/// # Errors
/// It is too short, or no sweep is in it.
pub fn read_recording(
    of: RawTraceKind,
    file: &str,
    recording: &Recording,
    take: &Take,
) -> Result<ReadMeasurement, Problem> {
    // The same sweep over time, whatever rate it was recorded at.
    let take = &Take { sweep: Sweep { rate: recording.rate, ..take.sweep }, ..*take };
    let sweep = &take.sweep;
    let samples = recording.channels[0].len();
    let seconds = samples as f64 / f64::from(recording.rate);
    if seconds < sweep.seconds {
        return Err(wrong(
            file,
            format!("it lasts {seconds:.1} s, and the sweep alone {:.1} s", sweep.seconds),
        ));
    }
    let mut remarks = Vec::new();
    if recording.clipped > 0 {
        remarks.push(format!(
            "{} samples are clipped: turn the input down and measure again.",
            recording.clipped
        ));
    }
    remarks.extend(hums(&recording.channels[0], f64::from(recording.rate)));
    let (values, arrives, harmonics) = match (of.is_impedance(), take.resistor) {
        (true, None) => {
            return Err(wrong(
                file,
                "an impedance asks for two channels and the resistor between them".to_owned(),
            ));
        }
        (true, Some(resistor)) => jig(file, recording, take, resistor)?,
        (false, _) => heard(file, &recording.channels[0], take)?,
    };
    let form =
        format!("{} samples a second, {} channels, {seconds:.1} s", recording.rate, recording.channels.len());
    let points = values.into_iter().map(|(frequency, value)| {
        let size = if of.is_impedance() { value.norm() } else { 20.0 * value.norm().log10() };
        rounded([frequency, size, value.arg().to_degrees()])
    });
    Ok(ReadMeasurement {
        points: points.collect(),
        phased: true,
        rows: samples,
        form,
        harmonics,
        arrives: Some(arrives),
        remarks,
    })
}

fn grid(sweep: &Sweep) -> Vec<f64> {
    // The ends of a sweep fade.
    let (low, high) = (1.15 * sweep.from, 0.9 * sweep.to);
    let count = ((high / low).log2() * AN_OCTAVE).ceil().clamp(2.0, MOST_MEASURED_POINTS as f64 - 1.0);
    (0..=count as u32).map(|k| low * (high / low).powf(f64::from(k) / count)).collect()
}

/// Frequency (Hz) and value, when the sweep came, s, and the harmonics of a level.
type Heard = (Vec<(f64, Complex)>, f64, Vec<[f64; 3]>);

/// The response in one channel, its phase without the time it took to come.
fn heard(file: &str, samples: &[f64], take: &Take) -> Result<Heard, Problem> {
    let [impulse] = deconvolve([samples], &take.sweep);
    let from = impulse.arrives();
    let rate = f64::from(take.sweep.rate);
    let mean = |from: f64, to: f64| {
        let range = (from * rate) as usize..((to * rate) as usize).min(impulse.samples.len());
        let count = range.len().max(1) as f64;
        impulse.samples[range].iter().map(|one| one * one).sum::<f64>() / count
    };
    // What stands far behind the response is noise.
    let (signal, noise) = (mean(from, from + 0.05), mean(from + 2.0 * AFTER, from + 3.0 * AFTER));
    if signal <= 0.0 || 10.0 * (signal / noise.max(1e-30)).log10() < HEARD {
        return Err(wrong(
            file,
            "no sweep is heard in it above the noise: check lead, input and level".to_owned(),
        ));
    }
    let after = take.gate.unwrap_or(AFTER);
    let window = Window { before: BEFORE.min(4.0 * after), after };
    let frequencies = grid(&take.sweep);
    let values = impulse.response(from, window, &frequencies);
    let harmonics = harmonics(&impulse, &take.sweep, &frequencies, &values);
    Ok((frequencies.into_iter().zip(values).collect(), from, harmonics))
}

/// Points of an octave that harmonics are read off at.
const HARMONICS: f64 = 6.0;

/// Second and third harmonic over the fundamental (Farina 2000), where the sweep's end leaves room for the third.
fn harmonics(impulse: &Impulse, sweep: &Sweep, frequencies: &[f64], values: &[Complex]) -> Vec<[f64; 3]> {
    let (low, high) = (2.0 * sweep.from, 0.9 * sweep.to / 3.0);
    let count = ((high / low).log2() * HARMONICS).floor();
    if count < 1.0 {
        return Vec::new();
    }
    let played: Vec<f64> = (0..=count as u32).map(|k| low * 2f64.powf(f64::from(k) / HARMONICS)).collect();
    let [second, third] = [2, 3].map(|order| impulse.harmonic(order, &played));
    let fundamental = |frequency: f64| {
        let at = frequencies.partition_point(|one| *one < frequency).min(frequencies.len() - 1);
        values[at].norm()
    };
    let over =
        |value: Complex, frequency: f64| 20.0 * (value.norm() / fundamental(frequency)).max(1e-6).log10();
    played
        .iter()
        .zip(second.iter().zip(&third))
        .map(|(frequency, (second, third))| {
            rounded([*frequency, over(*second, *frequency), over(*third, *frequency)])
        })
        .collect()
}

/// The impedance between both sides of a resistor: `R V2/(V1 - V2)`.
fn jig(file: &str, recording: &Recording, take: &Take, resistor: f64) -> Result<Heard, Problem> {
    let [first, second] = recording.channels.as_slice() else {
        let found = recording.channels.len();
        return Err(wrong(file, format!("it has {found} channels; a jig asks for two")));
    };
    let [before, behind] = deconvolve([first, second], &take.sweep);
    let window = Window { before: BEFORE, after: AFTER };
    let frequencies = grid(&take.sweep);
    let from = before.arrives();
    let [before, behind] = [before, behind].map(|one| one.response(from, window, &frequencies));
    let each = frequencies.iter().zip(before.iter().zip(&behind)).map(|(frequency, (before, behind))| {
        let over = before - behind;
        (*frequency, resistor * behind / over)
    });
    let found: Vec<(f64, Complex)> = each.collect();
    if found.iter().any(|(_, value)| !value.is_finite() || value.norm() > 1e5) {
        return Err(wrong(
            file,
            "both channels hold the same: the driver is not connected, or the leads of the jig are"
                .to_owned(),
        ));
    }
    if found.iter().filter(|(_, value)| value.re < 0.0).count() > found.len() / 4 {
        return Err(wrong(
            file,
            "the second channel is larger than the first: the two channels are swapped".to_owned(),
        ));
    }
    Ok((found, from, Vec::new()))
}

/// Hum of the mains in what comes before the sweep is heard, in words.
fn hums(samples: &[f64], rate: f64) -> Option<String> {
    let quiet = &samples[..((0.5 * rate) as usize).min(samples.len() / 8)];
    if quiet.len() < (0.1 * rate) as usize {
        return None;
    }
    let power = |frequency: f64| {
        let turn = |(at, sample): (usize, &f64)| {
            // A Hann window, so that a line does not leak into its neighbours.
            let part = at as f64 / quiet.len() as f64;
            let weight = 0.5 - 0.5 * (std::f64::consts::TAU * part).cos();
            Complex::from_polar(weight * sample, -std::f64::consts::TAU * frequency * at as f64 / rate)
        };
        quiet.iter().enumerate().map(turn).sum::<Complex>().norm_sqr()
    };
    MAINS.into_iter().find_map(|mains| {
        let stands = |order: f64| {
            let line = power(order * mains);
            let beside = 0.5 * (power((order - 0.3) * mains) + power((order + 0.3) * mains));
            10.0 * (line / beside.max(1e-30)).log10() > HUM && line.sqrt() > 1e-4 * quiet.len() as f64
        };
        (stands(1.0) && (stands(2.0) || stands(3.0))).then(|| {
            format!("Hum of the mains at {mains:.0} Hz stands in the silence before the sweep: a ground loop, or a cable beside a transformer.")
        })
    })
}
