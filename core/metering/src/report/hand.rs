//! What one reads off by hand, beside the fits.

use oak_acoustics::enclosure::Enclosure;
use oak_design::built::Built;
use oak_design::file::RawTraceKind;
use serde::Serialize;
use utoipa::ToSchema;

use crate::Complex;
use crate::answer::Answer;
use crate::driver::{BAND, Measured, points};
use crate::process::smooth;
use crate::session::Taken;
use crate::trace::{Impedance, Weighed};

/// A driver by the classic three points.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ByHand {
    /// Which, counted from 1.
    pub driver: u32,
    /// Of the coil, as the fit has it in place of a meter, ohm.
    pub re: f64,
    /// At the peak, Hz.
    pub fs: f64,
    /// From the width of the peak.
    pub qms: f64,
    /// From its height.
    pub qes: f64,
    /// The fit's Fs, Qms and Qes.
    pub fitted: [f64; 3],
    /// Hz, what was measured and what the fit has there, ohm; over the band that was fitted.
    pub curve: Vec<[f64; 3]>,
    /// What the fit leaves of the impedance, RMS as a share.
    pub left: f64,
}

/// The tuning by one way.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TuningWay {
    /// Its name for programs.
    pub id: &'static str,
    /// Which way.
    pub way: &'static str,
    /// Hz.
    pub hz: f64,
    /// What it is off by, and why.
    pub about: &'static str,
}

pub(super) fn by_hand(traces: &[Taken], drivers: &[Measured]) -> Vec<ByHand> {
    let free = traces.iter().filter(|trace| trace.of == RawTraceKind::ImpedanceFree);
    let each = free.filter_map(|trace| {
        let impedance = trace.impedance()?;
        Some((trace.driver, impedance))
    });
    each.zip(drivers)
        .filter_map(|((driver, impedance), fit)| {
            // As a meter would have it: not every trace goes down to where the coil is alone.
            let by = points(impedance, Some(fit.re.0))?;
            Some((driver, by, impedance, fit))
        })
        .map(|(driver, by, impedance, fit)| ByHand {
            driver,
            re: by.re,
            fs: by.fs,
            qms: by.qms,
            qes: by.qes,
            fitted: [fit.fs.0, fit.qms.0, fit.qes.0],
            curve: curve(impedance, fit),
            left: left(impedance, fit),
        })
        .collect()
}

/// The part of a trace that was fitted.
fn fitted(impedance: &Impedance, fit: &Measured) -> Impedance {
    let [low, high] = BAND.map(|part| part * fit.fs.0);
    impedance.between(low, high)
}

fn curve(impedance: &Impedance, fit: &Measured) -> Vec<[f64; 3]> {
    let seen = fitted(impedance, fit);
    let at = |(frequency, value): (&f64, &Complex)| {
        [*frequency, value.norm(), fit.model.impedance(*frequency, 0.0).norm()]
    };
    seen.frequency.iter().zip(&seen.value).map(at).collect()
}

fn left(impedance: &Impedance, fit: &Measured) -> f64 {
    Weighed::of(fitted(impedance, fit)).left(|_, frequency| fit.model.impedance(frequency, 0.0))
}

/// How far from the fitted tuning a dip is looked for, as shares.
const NEAR: [f64; 2] = [0.7, 1.4];
/// A null is one that lies so far below the mean of its octave, dB.
const DEEP: f64 = 4.0;

pub(super) fn tunings(traces: &[Taken], answer: &Answer, built: &Built) -> Vec<TuningWay> {
    if !matches!(built.design.enclosure, Enclosure::Ported(_)) {
        return Vec::new();
    }
    let of = |kind: RawTraceKind| traces.iter().find(|trace| trace.of == kind);
    let mut ways = Vec::new();
    if let Some(fit) = answer.tuning_hz {
        ways.push(TuningWay {
            id: "fit",
            way: "Fit of the impedance",
            hz: fit.value,
            about: "Box and port in balance with every loss taken out. This one is compared with the design.",
        });
    }
    let open = of(RawTraceKind::ImpedanceBox).and_then(Taken::impedance);
    let around = answer
        .tuning_hz
        .map(|fit| fit.value)
        .or_else(|| built.compiled.port_tuning.as_ref().map(|tuning| tuning.reactance));
    if let Some((dip, phase)) = open.and_then(between_peaks) {
        ways.push(TuningWay {
            id: "dip",
            way: "Dip of the impedance",
            hz: dip,
            about: "Leaks, absorption and the coil's inductance shift it, by some percent in a lossy box.",
        });
        ways.extend(phase.map(|hz| TuningWay {
            id: "phase",
            way: "Zero phase between the peaks",
            hz,
            about: "The coil's inductance shifts it down; losses shift it as well.",
        }));
    }
    let cone = of(RawTraceKind::NearfieldCone).and_then(Taken::level);
    ways.extend(cone.and_then(|levels| null(levels, around)).map(|hz| TuningWay {
        id: "null",
            way: "Null of the cone",
        hz,
        about: "Where the cone stands nearly still. Sound from the port and the room fills the null and shifts it.",
    }));
    ways
}

/// The dip between the two highest peaks of an impedance, and where its phase is zero there, Hz.
fn between_peaks(trace: &Impedance) -> Option<(f64, Option<f64>)> {
    let size: Vec<f64> = trace.value.iter().map(|value| value.norm()).collect();
    let half = 4;
    let is_peak = |at: usize| {
        let near = at.saturating_sub(half)..(at + half + 1).min(size.len());
        at >= half && at + half < size.len() && near.clone().all(|one| size[one] <= size[at])
    };
    let mut peaks: Vec<usize> = (0..size.len()).filter(|at| is_peak(*at)).collect();
    peaks.sort_by(|a, b| size[*b].total_cmp(&size[*a]));
    let [first, second] = [*peaks.first()?, *peaks.get(1)?];
    let (low, high) = (first.min(second), first.max(second));
    let least = (low..high).min_by(|a, b| size[*a].total_cmp(&size[*b]))?;
    let dip = bottom([least - 1, least, least + 1].map(|at| [trace.frequency[at].ln(), size[at]]))?.exp();
    let phase = |at: usize| trace.value[at].arg();
    let zero = trace.phased.then(|| {
        // From the first peak the phase is below nothing, and comes up again through it.
        let at = (low..high).filter(|at| phase(*at) < 0.0 && phase(at + 1) >= 0.0);
        let at = at.min_by_key(|at| at.abs_diff(least))?;
        let part = phase(at) / (phase(at) - phase(at + 1));
        Some(trace.frequency[at] * (trace.frequency[at + 1] / trace.frequency[at]).powf(part))
    });
    Some((dip, zero.flatten()))
}

/// The lowest place of a parabola through three points.
fn bottom([a, b, c]: [[f64; 2]; 3]) -> Option<f64> {
    let (first, second) = ((b[1] - a[1]) / (b[0] - a[0]), (c[1] - b[1]) / (c[0] - b[0]));
    let bend = (second - first) / (c[0] - a[0]);
    (bend > 0.0).then(|| f64::midpoint(a[0], b[0]) - first / (2.0 * bend))
}

/// Where a level is least near a frequency, Hz.
fn null(levels: &[[f64; 2]], around: Option<f64>) -> Option<f64> {
    let around = around?;
    // Below the tuning the cone falls as well: what counts is how far a place lies below its neighbourhood.
    let trend = smooth(levels, 1);
    let below = |at: usize| levels[at][1] - trend[at][1];
    let near = |at: &usize| (NEAR[0] * around..NEAR[1] * around).contains(&levels[*at][0]);
    let inside: Vec<usize> = (1..levels.len().saturating_sub(1)).filter(near).collect();
    let least = inside.iter().copied().min_by(|a, b| below(*a).total_cmp(&below(*b)))?;
    // At an end of the stretch there is no dip; a shallow one is filled by a leak or the room, and tells nothing.
    if below(least) > -DEEP || Some(&least) == inside.first() || Some(&least) == inside.last() {
        return None;
    }
    Some(bottom([least - 1, least, least + 1].map(|at| [levels[at][0].ln(), levels[at][1]]))?.exp())
}
