//! What the impedance of the finished box says.

use oak_acoustics::driver::Driver;
use oak_acoustics::enclosure::Enclosure;
use oak_acoustics::medium::Air;
use oak_design::built::Built;

use crate::answer::{Answer, DriverAnswer, Estimate};
use crate::cabinet::{Believed, Found, Ports, Seen, measure, trim};
use crate::driver::{Measured, Model};

/// In the box a cone carries more air than on the bench, by up to some per cent of its mass; how far the driver may be off what was measured of it besides, Fs, Qms, Qes.
const HEAVIER: f64 = 0.02;
const MEASURED: [f64; 3] = [0.012, 0.1, 0.015];
/// And how far off its sheet (common practice).
const SHEET: [f64; 3] = [0.15, 0.35, 0.15];
/// By how much the tuning of a fitted circuit is off that of a real box, as a share; one standard deviation.
const CIRCUIT: f64 = 0.0008;
/// The same of Fc: standing waves weigh on the cone as well, and nothing there tells their air from the cone's own mass.
const CLOSED: f64 = 0.003;
/// Nobody cuts a port nearer than this, m.
const SAW: f64 = 4e-4;
/// Below this a box leaks (`QL` of a sound one is 4 and more; common practice).
pub(crate) const LEAKING: f64 = 3.4;
/// A port that is off by less is left as it is: by so many errors, and a share of the tuning that nobody hears.
const ERRORS: f64 = 2.5;
const UNHEARD: f64 = 0.012;
/// Of a driver that is as its sheet says, values are off by less, as a share.
const AS_THE_SHEET: f64 = 0.05;
/// How far Vas may be off a sheet, as a share.
const VAS: f64 = 0.12;
/// A box without a drawing is about so tall, over the cube root of its volume.
const TALL: f64 = 1.4;
/// A quantity that is not known better than this, as a share, is not told.
const TOLD: f64 = 0.5;

/// A box as it was found, in the design's own air.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct AsFound {
    /// Air in it, its fill included, m3.
    pub air: f64,
    /// How much longer its ports act than drawn, m.
    pub longer: f64,
}

/// Fills in what a box is, where its impedance was measured.
pub(super) fn tell(
    seen: Option<Seen<'_>>,
    drivers: &[Measured],
    built: &Built,
    air: &Air,
    answer: &mut Answer,
) -> Option<AsFound> {
    let mut note = |words: &str| answer.notes.push(words.to_owned());
    let Some(seen) = seen else {
        note(
            "tuning_hz, ql, qa, qtc, effective_volume_l, leak, reversed, box_mode_hz: there is no impedance of the finished box.",
        );
        return None;
    };
    let design = &built.design;
    let tuning = match &design.enclosure {
        Enclosure::Sealed(_) => None,
        Enclosure::Ported(ported) => built
            .compiled
            .port_tuning
            .as_ref()
            .map(|tuning| (tuning.reactance, Ports::of(ported, tuning, air))),
        _ => {
            note(
                "tuning_hz, ql, qa, qtc, effective_volume_l, leak, reversed, box_mode_hz: closed and ported boxes are worked out, and no others by this version.",
            );
            return None;
        }
    };
    let believed = believed(drivers, built, air, tuning);
    let Some(found) = measure(&seen, &believed) else {
        note(
            "tuning_hz, ql, qa, qtc, effective_volume_l, leak, reversed, box_mode_hz: the trace of the box is too short to tell them.",
        );
        return None;
    };
    answer.reversed = Some(found.reversed);
    if found.reversed {
        note(
            "tuning_hz, ql, qa, qtc, effective_volume_l, leak, port_cut_mm, box_mode_hz: with a driver wired backwards the box cannot be seen.",
        );
        answer.alarms.push("reversed".to_owned());
        return None;
    }
    let found = Found {
        tuning: (
            found.tuning.0,
            found.tuning.1.hypot(if found.qtc.is_some() { CLOSED } else { CIRCUIT } * found.tuning.0),
        ),
        ..found
    };
    answer.tuning_hz = Some(Estimate::times(found.tuning, 1.0));
    answer.ql = Some(Estimate::times(found.ql, 1.0));
    answer.qtc = found.qtc.map(|qtc| Estimate::times(qtc, 1.0));
    answer.qa = (found.qa.1 < TOLD * found.qa.0).then(|| Estimate::times(found.qa, 1.0));
    if answer.qa.is_none() {
        answer.notes.push(
            "qa: these traces do not tell absorption from leaks well; the box with its port shut does."
                .to_owned(),
        );
    }
    match &found.wave {
        Some((wave, _)) => answer.box_mode_hz = Some(Estimate::times(*wave, 1.0)),
        None => answer.notes.push("box_mode_hz: no standing wave moves the impedance.".to_owned()),
    }
    answer.leak = Some(found.ql.0 < LEAKING);
    answer.effective_volume_l = Some(volume(&found, built, air, answer));
    if found.ql.0 < LEAKING {
        answer.alarms.push("leak".to_owned());
    }
    let port = port(&found, built, air, answer);
    driver(&design.driver.driver, answer);
    let air = answer.effective_volume_l.map(|volume| volume.value * 1e-3);
    port.or(air.map(|air| AsFound { air, longer: 0.0 }))
}

/// The driver as it was measured, else as its sheet has it.
fn believed(drivers: &[Measured], built: &Built, air: &Air, tuning: Option<(f64, Ports)>) -> Believed {
    let design = &built.design;
    let all = design.driver_array.equivalent();
    let sheet = Believed {
        fs: (all.fs(), SHEET[0]),
        qms: (all.qms(), SHEET[1]),
        qes: (all.qes(), SHEET[2]),
        coil: None,
        alpha: all.vas(air) / design.enclosure.air(),
        wave: built.lowest_wave().unwrap_or_else(|| air.speed / (2.0 * TALL * design.enclosure.air().cbrt())),
        tuning,
        compliance: design.enclosure.air() / air.bulk_modulus(),
        series: all.re > design.driver.driver.re,
        count: design.driver_array.wiring.count(),
    };
    let Some(first) = drivers.first() else { return sheet };
    let mean =
        |of: fn(&Model) -> f64| drivers.iter().map(|one| of(&one.model)).sum::<f64>() / drivers.len() as f64;
    Believed {
        fs: (mean(|of| of.fs) * (1.0 - 0.5 * HEAVIER), MEASURED[0]),
        qms: (mean(|of| of.qms) * (1.0 + 0.5 * HEAVIER), MEASURED[1]),
        qes: (mean(|of| of.qes) * (1.0 + 0.5 * HEAVIER), MEASURED[2]),
        coil: Some((first.model, all.re / design.driver.driver.re)),
        ..sheet
    }
}

/// Vas over the ratio of stiffnesses: from the driver as it was measured, else from its sheet.
fn volume(found: &Found, built: &Built, air: &Air, answer: &mut Answer) -> Estimate {
    let [all, one] = [built.design.driver_array.equivalent(), built.design.driver.driver]
        .map(|driver| driver.vas(air) * 1e3);
    let measured = answer.driver.vas_l;
    let (vas, error) = measured.map_or((all, VAS * all), |vas| (vas.value * all / one, vas.se * all / one));
    if measured.is_none() {
        answer.cannot_tell_apart.push(["volume".to_owned(), "vas".to_owned()]);
        answer
            .notes
            .push("effective_volume_l: rests on the sheet's Vas; a mass on the cone tells it.".to_owned());
    }
    let value = vas / found.alpha.0;
    Estimate { value, se: value * (error / vas).hypot(found.alpha.1 / found.alpha.0) }
}

/// How far a box's volume may be off its drawing, as a share.
const DRAWN: f64 = 0.04;

/// How long the port is to be for the design's own tuning, in the design's own air.
fn port(found: &Found, built: &Built, air: &Air, answer: &mut Answer) -> Option<AsFound> {
    let (Some(tuning), Enclosure::Ported(ported)) = (&built.compiled.port_tuning, &built.design.enclosure)
    else {
        return None;
    };
    let first = tuning.ports.first()?;
    let own = built.design.air;
    let there = own.speed / air.speed;
    // As drawn, and as measured: each by how far it may be off.
    let drawn = built.design.enclosure.air();
    let seen = answer
        .effective_volume_l
        .map_or((drawn, 1.0), |volume| (volume.value * 1e-3, volume.se / volume.value));
    let [a, b] = [DRAWN, seen.1].map(|error| error.powi(-2));
    let volume = ((drawn * a + seen.0 * b) / (a + b), (a + b).sqrt().recip());
    let compliance = (volume.0 / own.bulk_modulus(), volume.1);
    let ports = Ports::of(ported, tuning, &own);
    let trim = trim(
        &found.model,
        &ports,
        (found.tuning.0 * there, found.tuning.1 * there),
        tuning.reactance,
        compliance,
    );
    let Some(trim) = trim else {
        answer.notes.push("port_cut_mm, port_length_mm: no length of the port gives such a tuning; the traces or the drawing are wrong.".to_owned());
        return None;
    };
    let (cut, error) = (trim.cut.0, trim.cut.1.hypot(SAW));
    answer.port_cut_mm = Some(Estimate::times((cut, error), 1e3));
    answer.port_length_mm = Some(Estimate::times((first.length + trim.longer.0, trim.longer.1), 1e3));
    let share = (found.tuning.0 * there / tuning.reactance - 1.0).abs();
    let as_found = Some(AsFound { air: volume.0, longer: trim.acts });
    if cut.abs() < ERRORS * error || share < UNHEARD {
        return as_found;
    }
    answer.alarms.push("tuning".to_owned());
    as_found
}

/// A driver that is not what its sheet says.
fn driver(sheet: &Driver, answer: &mut Answer) {
    let DriverAnswer { fs_hz, qes: q, .. } = &answer.driver;
    let off = [(fs_hz, sheet.fs()), (q, sheet.qes())]
        .into_iter()
        .any(|(found, sheet)| found.is_some_and(|found| (found.value / sheet - 1.0).abs() > AS_THE_SHEET));
    if off {
        answer.alarms.push("driver".to_owned());
    }
}
