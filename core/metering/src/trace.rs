//! An impedance over frequency.

use oak_design::Problem;
use oak_design::exchange::{TraceReading, read_trace_text};
use oak_design::problem::ProblemKind;

use crate::Complex;

/// Reads a trace from text; `file` names it in what is wrong with it.
///
/// # Errors
/// It is no text, or no trace.
pub(crate) fn read_text(file: &str, bytes: &[u8]) -> Result<TraceReading, Problem> {
    let text = std::str::from_utf8(bytes);
    let text = text.map_err(|error| wrong(file, format!("it is no text in UTF-8: {error}")))?;
    read_trace_text(text).map_err(|problem| Problem::new(file, problem.kind))
}

/// A file that is not what it should be.
pub(crate) fn wrong(file: &str, reason: String) -> Problem {
    Problem::new(file, ProblemKind::Unshapeable { reason })
}

/// A measured impedance.
#[derive(Debug, Clone, PartialEq)]
pub struct Impedance {
    /// Hz, rising.
    pub frequency: Vec<f64>,
    /// Ohm.
    pub value: Vec<Complex>,
    /// Whether its phase was measured; 0 throughout where not.
    pub phased: bool,
    /// What was found while it was read.
    pub notes: Vec<String>,
}

impl Impedance {
    /// Reads one from text, its magnitude in ohms whatever its header says; `file` names it in what is wrong with it.
    ///
    /// # Errors
    /// It is no trace, or holds what is no impedance.
    pub fn read(file: &str, bytes: &[u8]) -> Result<Self, Problem> {
        let reading = read_text(file, bytes)?;
        if let Some(at) = reading.magnitude.iter().position(|size| *size <= 0.0) {
            let (size, frequency) = (reading.magnitude[at], reading.frequency[at]);
            return Err(wrong(
                file,
                format!("{size} ohm at {frequency} Hz is no impedance; more than 0 is allowed"),
            ));
        }
        let phase = |at: usize| reading.phase.as_ref().map_or(0.0, |phase| phase[at].to_radians());
        let value =
            reading.magnitude.iter().enumerate().map(|(at, size)| Complex::from_polar(*size, phase(at)));
        Ok(Self {
            value: value.collect(),
            phased: reading.phase.is_some(),
            frequency: reading.frequency,
            notes: reading.notes,
        })
    }

    /// The part between two frequencies, Hz.
    #[must_use]
    pub fn between(&self, low: f64, high: f64) -> Self {
        self.only(|at| (low..=high).contains(&self.frequency[at]))
    }

    /// One of so many points.
    #[must_use]
    pub fn every(&self, step: usize) -> Self {
        self.only(|at| at % step == 0)
    }

    fn only(&self, kept: impl Fn(usize) -> bool) -> Self {
        let places: Vec<usize> = (0..self.frequency.len()).filter(|at| kept(*at)).collect();
        Self {
            frequency: places.iter().map(|at| self.frequency[*at]).collect(),
            value: places.iter().map(|at| self.value[*at]).collect(),
            phased: self.phased,
            notes: self.notes.clone(),
        }
    }
}

/// A trace with what each of its values is measured by: the mean size of its neighbours, which noise moves less than its own.
#[derive(Debug, Clone)]
pub struct Weighed {
    trace: Impedance,
    size: Vec<f64>,
}

/// Neighbours on either side.
const BESIDE: usize = 3;

impl Weighed {
    /// Weighs a trace.
    pub fn of(trace: Impedance) -> Self {
        let count = trace.value.len();
        let mean = |at: usize| {
            let near = at.saturating_sub(BESIDE)..(at + BESIDE + 1).min(count);
            let all = near.len() as f64;
            near.map(|at| trace.value[at].norm()).sum::<f64>() / all
        };
        let size = (0..count).map(mean).collect();
        Self { trace, size }
    }

    /// What a circuit is off by, as a share of the impedance: both parts, or the magnitude where no phase was measured.
    pub fn off(&self, all: &mut Vec<f64>, of: impl Fn(usize, f64) -> Complex) {
        for (at, frequency) in self.trace.frequency.iter().enumerate() {
            let off = self.apart(at, of(at, *frequency));
            all.push(off.re);
            if self.trace.phased {
                all.push(off.im);
            }
        }
    }

    /// Where it was measured, Hz.
    pub fn frequency(&self) -> &[f64] {
        &self.trace.frequency
    }

    /// How many values [`Self::off`] gives.
    pub fn parts(&self) -> usize {
        self.trace.value.len() * if self.trace.phased { 2 } else { 1 }
    }

    /// What a circuit's value at a point is off by, as a share of the impedance: its magnitude alone where no phase was measured.
    pub fn apart(&self, at: usize, ours: Complex) -> Complex {
        let value = self.trace.value[at];
        let off = if self.trace.phased { ours - value } else { Complex::from(ours.norm() - value.norm()) };
        off / self.size[at]
    }

    /// What a circuit leaves: the root of the mean square.
    pub fn left(&self, of: impl Fn(usize, f64) -> Complex) -> f64 {
        let mut all = Vec::new();
        self.off(&mut all, of);
        (all.iter().map(|one| one * one).sum::<f64>() / all.len().max(1) as f64).sqrt()
    }
}
