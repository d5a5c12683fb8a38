//! Ported boxes.

use super::alignment::{flat, keele};
use super::port::{narrow_words, tuned};
use super::search::Look;
use super::{Ask, MAKER, Refusal, Start, StartingPoint, litres, refuse};
use crate::enclosure::{Enclosure, Losses, Ported};

/// Starting points of ported boxes.
pub static PORTED: &[StartingPoint] = &[
    StartingPoint { id: "flat", name: "Flat", start: flat_start },
    StartingPoint { id: "boom_box", name: "Low tuning (SBB4)", start: boom_box },
    StartingPoint { id: "shelf", name: "Extended shelf", start: shelf },
    StartingPoint { id: "lowest_note", name: "To the lowest note", start: lowest_note },
    StartingPoint { id: "all_round", name: "All-round", start: all_round },
    StartingPoint { id: "at_fs", name: "At Fs", start: at_fs },
    StartingPoint { id: MAKER, name: "As the maker recommends", start: recommended },
];

/// Leakage of a usual ported box (Small 1973).
const QL: f64 = 7.0;
/// Ripple that is still called flat, dB.
const RIPPLE: f64 = 1.0;
/// Tuning of an all-round box for home, Hz (common practice: 30 to 35).
const ALL_ROUND: f64 = 32.0;

/// Volume (m3) and tuning (Hz) of the flat alignment.
pub(super) fn flat_box(ask: &Ask) -> Result<(f64, f64, &'static str), Refusal> {
    let qts = ask.driver.qts();
    match flat(qts, QL) {
        Some((found, name)) if found.alpha < 60.0 => {
            Ok((ask.vas() / found.alpha, found.h * ask.driver.fs(), name))
        }
        _ if qts < 0.2 => refuse(format!(
            "Qts {qts:.2} is so low that the flat box would be tiny and tuned high: this driver suits a horn, or needs series resistance."
        )),
        _ => refuse(format!(
            "Qts {qts:.2} is too high for a port without a large peak: seal it, vent it aperiodically, or take an open baffle."
        )),
    }
}

fn start(ask: &Ask, volume: f64, tuning: f64, reason: &str) -> Result<Start, Refusal> {
    let Some((ported, narrow)) = tuned(ask, volume, tuning) else {
        return refuse(format!("No port tunes {} to {tuning:.0} Hz.", litres(volume)));
    };
    let reason = format!("{reason}{}", narrow_words(narrow));
    Ok(Start { enclosure: Enclosure::Ported(ported), reason })
}

/// The box of the data sheet, one share for each driver.
fn recommended(ask: &Ask) -> Result<Start, Refusal> {
    let Some([one, tuning]) = ask.recommended.ported else {
        return refuse("The data sheet recommends no ported box.".to_owned());
    };
    let (volume, cut) = ask.within(one * f64::from(ask.setting.driver_array.wiring.count()));
    let reason = format!(
        "{} tuned to {tuning:.1} Hz, as the data sheet recommends for each driver.{cut}",
        litres(one)
    );
    start(ask, volume, tuning, &reason)
}

/// Cuts a box to the size wished for and tunes it anew for the lowest F3 without a peak.
fn sized(ask: &Ask, volume: f64, tuning: f64) -> (f64, f64, String) {
    let (cut, words) = ask.within(volume);
    if cut >= volume {
        return (volume, tuning, String::new());
    }
    let retuned = flattest_tuning(ask, cut, RIPPLE).unwrap_or(tuning);
    (cut, retuned, format!("{words} Tuned anew to {retuned:.0} Hz for it."))
}

/// The tuning of a volume with the lowest F3 whose peak stays within a ripple (dB).
fn flattest_tuning(ask: &Ask, volume: f64, ripple: f64) -> Option<f64> {
    let fs = ask.driver.fs();
    (0..28)
        .map(|k| fs * 0.55 * 2f64.powf(f64::from(k) / 14.0))
        .filter_map(|tuning| {
            let look = Look::at(ask, &Enclosure::Ported(plain(ask, volume, tuning)), 1.2 * fs)?;
            (look.peak() <= ripple).then_some((look.f3()?, tuning))
        })
        .min_by(|a, b| a.0.total_cmp(&b.0))
        .map(|(_, tuning)| tuning)
}

/// A box whose port is ideal for comparing tunings: as wide as is quiet, however long.
fn plain(ask: &Ask, volume: f64, tuning: f64) -> Ported {
    let diameter =
        (4.0 * super::port::quiet_area(&ask.driver, tuning) / std::f64::consts::PI).sqrt().clamp(0.02, 0.2);
    Ported {
        volume,
        losses: Losses::USUAL,
        ports: vec![super::port::round(diameter, None)],
        tuning: Some(tuning),
    }
}

fn flat_start(ask: &Ask) -> Result<Start, Refusal> {
    let (volume, tuning, name) = flat_box(ask)?;
    let [rule, ..] = keele(ask.driver.qts());
    let (cut_volume, cut_tuning, cut) = sized(ask, volume, tuning);
    let reason = format!(
        "{name} alignment for Qts {:.2} at QL 7 (Thiele 1971, Small 1973): {} at {tuning:.0} Hz; Keele's rule of thumb says {}.{cut}",
        ask.driver.qts(),
        litres(volume),
        litres(rule * ask.vas())
    );
    start(ask, cut_volume, cut_tuning, &reason)
}

/// Two coinciding resonances: h = 1, `4 alpha Qts^2 = 1` (SBB4, definition from memory).
fn boom_box(ask: &Ask) -> Result<Start, Refusal> {
    let qts = ask.driver.qts();
    if !(0.18..=0.6).contains(&qts) {
        return refuse(format!("SBB4 suits a Qts of 0.2 to 0.6; this driver has {qts:.2}."));
    }
    let volume = ask.vas() * 4.0 * qts * qts;
    let (volume, tuning, cut) = sized(ask, volume, ask.driver.fs());
    let reason = format!(
        "SBB4: tuned to Fs in {}, a smooth fall with less ringing than the flat box.{cut}",
        litres(volume)
    );
    start(ask, volume, tuning, &reason)
}

fn shelf(ask: &Ask) -> Result<Start, Refusal> {
    let (volume, tuning, _) = flat_box(ask)?;
    let (volume, tuning, cut) = sized(ask, 1.5 * volume, 0.7 * tuning);
    let reason = format!(
        "One and a half times the flat box, tuned 0.7 times as high: a gentle shelf that a room lifts ({}, {tuning:.0} Hz; common practice 0.6 to 0.8).{cut}",
        litres(volume)
    );
    start(ask, volume, tuning, &reason)
}

/// The smallest box that reaches a note within a ripple.
fn lowest_note(ask: &Ask) -> Result<Start, Refusal> {
    let tuning = ask.lowest_or(0.9 * ask.driver.fs());
    let vas = ask.vas();
    let reach = |volume: f64| {
        let look = Look::at(ask, &Enclosure::Ported(plain(ask, volume, tuning)), 1.2 * tuning)?;
        look.f3().filter(|f3| *f3 <= 1.08 * tuning && look.peak() <= 3.0)
    };
    let found =
        (0..48).map(|k| 0.08 * vas * 2f64.powf(f64::from(k) / 7.0)).find(|volume| reach(*volume).is_some());
    let Some(volume) = found else {
        return refuse(format!(
            "No box around this driver is within 3 dB at {tuning:.0} Hz without a peak of more than 3 dB. Equalise, or take a driver with a lower Fs."
        ));
    };
    if let Some(most) = ask.wishes.volume.filter(|most| volume > *most) {
        return refuse(format!(
            "{tuning:.0} Hz takes {}, more than the {} wished for.",
            litres(volume),
            litres(most)
        ));
    }
    let reason = format!(
        "Tuned to the lowest note, {tuning:.1} Hz, in the smallest box that still reaches it: {}.",
        litres(volume)
    );
    start(ask, volume, tuning, &reason)
}

fn all_round(ask: &Ask) -> Result<Start, Refusal> {
    let fs = ask.driver.fs();
    if !(0.6 * ALL_ROUND..=1.6 * ALL_ROUND).contains(&fs) {
        return refuse(format!(
            "An all-round tuning of 30 to 35 Hz is far from this driver's Fs of {fs:.0} Hz."
        ));
    }
    let flat_volume = flat_box(ask).map_or(ask.vas(), |(volume, ..)| volume);
    let (volume, cut) = ask.within(flat_volume.max(0.4 * ask.vas()));
    let reason = format!(
        "The usual tuning of home boxes, {ALL_ROUND:.0} Hz (common practice 30 to 35), in {}.{cut}",
        litres(volume)
    );
    start(ask, volume, ALL_ROUND, &reason)
}

fn at_fs(ask: &Ask) -> Result<Start, Refusal> {
    let fs = ask.driver.fs();
    let volume = flat_box(ask).map_or(ask.vas(), |(volume, ..)| volume);
    let (volume, cut) = ask.within(volume);
    let reason = format!(
        "A little above Fs, {:.0} Hz, as is usual for small full-range drivers (common practice), in {}.{cut}",
        1.05 * fs,
        litres(volume)
    );
    start(ask, volume, 1.05 * fs, &reason)
}
