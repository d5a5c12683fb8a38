//! What the impedance of the finished box says.

use std::f64::consts::TAU;

use oak_acoustics::enclosure::Enclosure;
use oak_acoustics::medium::Air;
use oak_design::built::Built;

use crate::answer::{Answer, DriverAnswer, Estimate, Prediction, RemedyAnswer};
use crate::cabinet::{Believed, Found, measure, port_cut};
use crate::trace::Impedance;

/// How far a driver may be off what was measured of it: its cone carries more air in the box, its coil is as warm as it is.
const MEASURED: [f64; 3] = [0.02, 0.15, 0.02];
/// And how far off its sheet (common practice), Fs, Qms, Qes.
const SHEET: [f64; 3] = [0.15, 0.35, 0.15];
/// By how much the tuning of a lumped circuit is off that of ducts with walls and ends of their own, as a share; one standard deviation.
const LUMPED: f64 = 0.0015;
/// Below this a box leaks (`QL` of a sound one is 4 and more; common practice).
const LEAKING: f64 = 3.4;
/// A port that is off by less is left as it is, m.
const TRIMMED: f64 = 2e-3;
/// Of a driver that is as its sheet says, values are off by less, as a share.
const AS_THE_SHEET: f64 = 0.05;
/// How far Vas may be off a sheet, as a share.
const VAS: f64 = 0.12;

/// Fills in what a box is, where its impedance was measured.
pub(super) fn tell(trace: Option<&Impedance>, built: &Built, air: &Air, answer: &mut Answer) {
    let mut note = |words: &str| answer.notes.push(words.to_owned());
    let Some(trace) = trace else {
        note("tuning_hz, ql, qtc, effective_volume_l, leak: there is no impedance of the finished box.");
        return;
    };
    let design = &built.design;
    let tuning = match &design.enclosure {
        Enclosure::Sealed(_) => None,
        Enclosure::Ported(_) => built.compiled.port_tuning.as_ref().map(|tuning| tuning.reactance),
        _ => {
            note(
                "tuning_hz, ql, qtc, effective_volume_l, leak: closed and ported boxes are worked out, and no others by this version.",
            );
            return;
        }
    };
    let all = design.as_driven();
    let believed = believed(
        &answer.driver,
        [all.fs(), all.qms(), all.qes()],
        all.vas(air) / design.enclosure.air(),
        tuning,
    );
    let Some(found) = measure(trace, &believed) else {
        note("tuning_hz, ql, qtc, effective_volume_l, leak: the trace of the box is too short to tell them.");
        return;
    };
    let found = Found { tuning: (found.tuning.0, found.tuning.1.hypot(LUMPED * found.tuning.0)), ..found };
    note("qa: one trace does not tell absorption from leaks; it is taken as usual.");
    answer.tuning_hz = Some(Estimate::times(found.tuning, 1.0));
    answer.ql = Some(Estimate::times(found.ql, 1.0));
    answer.qtc = found.qtc.map(|qtc| Estimate::times(qtc, 1.0));
    answer.leak = Some(found.ql.0 < LEAKING);
    answer.effective_volume_l = Some(volume(&found, all.vas(air), answer));
    if found.ql.0 < LEAKING {
        answer.alarms.push("leak".to_owned());
        answer.remedies.push(RemedyAnswer {
            what: "Seal the leak: terminals, screws, gasket, seams".to_owned(),
            by: format!("QL {:.1} becomes 7 or more", found.ql.0),
            predicted: Prediction { tuning_hz: found.tuning.0 },
        });
    }
    port(&found, built, air, answer);
    driver(all.fs(), all.qes(), answer);
}

/// The driver as it was measured, else as its sheet has it.
fn believed(measured: &DriverAnswer, sheet: [f64; 3], alpha: f64, tuning: Option<f64>) -> Believed {
    let DriverAnswer { fs_hz, qms, qes, .. } = measured;
    let ([fs, qms, qes], off) = match (fs_hz, qms, qes) {
        (Some(fs), Some(qms), Some(qes)) => ([fs.value, qms.value, qes.value], MEASURED),
        _ => (sheet, SHEET),
    };
    Believed { fs: (fs, off[0]), qms: (qms, off[1]), qes: (qes, off[2]), alpha, tuning }
}

/// Vas over the ratio of stiffnesses: from the driver as it was measured, else from its sheet.
fn volume(found: &Found, sheet: f64, answer: &mut Answer) -> Estimate {
    let one = answer.driver.vas_l;
    let (vas, error) = one.map_or((sheet * 1e3, VAS * sheet * 1e3), |vas| (vas.value, vas.se));
    if one.is_none() {
        answer.cannot_tell_apart.push(["volume".to_owned(), "vas".to_owned()]);
        answer
            .notes
            .push("effective_volume_l: rests on the sheet's Vas; a mass on the cone tells it.".to_owned());
    }
    let value = vas / found.alpha.0;
    Estimate { value, se: value * (error / vas).hypot(found.alpha.1 / found.alpha.0) }
}

/// How long the port is to be for the design's own tuning, in the design's own air.
fn port(found: &Found, built: &Built, air: &Air, answer: &mut Answer) {
    let Some(tuning) = &built.compiled.port_tuning else { return };
    let [first, ..] = tuning.ports.as_slice() else { return };
    let own = built.design.air;
    let effective = own.speed / (2.0 * first.pipe_resonance);
    let there = own.speed / air.speed;
    let (cut, error) =
        port_cut(effective, (found.tuning.0 * there, found.tuning.1 * there), tuning.reactance);
    answer.port_cut_mm = Some(Estimate::times((cut, error), 1e3));
    // As long as tuning and volume have it: with the volume not known better than Vas, the cut is the surer of the two.
    if let (1, Some(volume)) = (tuning.ports.len(), answer.effective_volume_l) {
        let area = first.area * f64::from(first.count);
        let omega = TAU * found.tuning.0;
        let long = air.speed.powi(2) * area / (omega * omega * volume.value * 1e-3);
        let share = (2.0 * found.tuning.1 / found.tuning.0).hypot(volume.se / volume.value);
        let ends = effective - first.length;
        answer.port_length_mm = Some(Estimate::times((long - ends, long * share), 1e3));
    }
    if cut.abs() < TRIMMED.max(2.0 * error) {
        return;
    }
    answer.alarms.push("tuning".to_owned());
    let (what, by) = if cut > 0.0 { ("Cut each port", cut) } else { ("Make each port longer", -cut) };
    answer.remedies.push(RemedyAnswer {
        what: what.to_owned(),
        by: format!("{:.0} mm", by * 1e3),
        predicted: Prediction { tuning_hz: tuning.reactance },
    });
}

/// A driver that is not what its sheet says.
fn driver(fs: f64, qes: f64, answer: &mut Answer) {
    let DriverAnswer { fs_hz, qes: q, .. } = &answer.driver;
    let off = [(fs_hz, fs), (q, qes)]
        .into_iter()
        .any(|(found, sheet)| found.is_some_and(|found| (found.value / sheet - 1.0).abs() > AS_THE_SHEET));
    if off {
        answer.alarms.push("driver".to_owned());
    }
}
