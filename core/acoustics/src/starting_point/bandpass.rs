//! Bandpass boxes.

use super::port::{narrow_words, tuned_from};
use super::search::{Band, Look};
use super::{Ask, Refusal, Start, StartingPoint, litres, refuse};
use crate::enclosure::{Bandpass4, Bandpass6, Enclosure, FrontPath, Losses, Ported, Sealed};

/// Starting points of the fourth order, by S: the front chamber's damping.
pub static BANDPASS4: &[StartingPoint] = &[
    StartingPoint { id: "flat", name: "Flat, S 0.7", start: |ask| fourth(ask, 0.7) },
    StartingPoint { id: "wide", name: "Wider, S 0.6", start: |ask| fourth(ask, 0.6) },
    StartingPoint { id: "widest", name: "Widest, S 0.5", start: |ask| fourth(ask, 0.5) },
];

/// Starting points of the sixth order with both ports in the open.
pub static BANDPASS6_PARALLEL: &[StartingPoint] = &[
    StartingPoint { id: "wide", name: "Widest band", start: |ask| sixth(ask, FrontPath::Parallel, 0.3) },
    StartingPoint { id: "loud", name: "Louder, narrower", start: |ask| sixth(ask, FrontPath::Parallel, 0.9) },
];

/// Starting points of the sixth order with one chamber behind the other.
pub static BANDPASS6_SERIES: &[StartingPoint] = &[
    StartingPoint { id: "wide", name: "Widest band", start: |ask| sixth(ask, FrontPath::Series, 0.3) },
    StartingPoint { id: "loud", name: "Louder, narrower", start: |ask| sixth(ask, FrontPath::Series, 2.0) },
];

/// Tuning of a fourth-order bandpass over the lower end of its band, which reaches about as far below the tuning in octaves as above it.
const REACH: f64 = 1.45;

/// `Vf = (2 S Qts)^2 Vas`, `Fb = Qbp Fs/Qts`, `Vr = Vas/((Qbp/Qts)^2 - 1)` (after Geddes 1989, from memory), with
/// Qbp for the passband at the driver's own level: `Qbp = 1/(2 S)`, or for the lowest note wished for. In less room than that the
/// chamber before the driver takes at most half, which lowers S, and the other the rest, which raises Qbp and with it the tuning.
fn fourth(ask: &Ask, s: f64) -> Result<Start, Refusal> {
    let (fs, qts, vas) = (ask.driver.fs(), ask.driver.qts(), ask.vas());
    let wished = ask.wishes.lowest.map(|lowest| REACH * lowest * qts / fs);
    let qbp = wished.unwrap_or(0.5 / s);
    if qbp < 1.08 * qts {
        return refuse(format!(
            "Qts {qts:.2} is too high for a closed rear chamber here (Qbp {qbp:.2} must be above it). Take a driver with a stronger motor, or seal it."
        ));
    }
    let wanted = [(2.0 * s * qts).powi(2) * vas, vas / ((qbp / qts).powi(2) - 1.0)];
    let (both, cut) = ask.within(wanted[0] + wanted[1]);
    let short = both < wanted[0] + wanted[1];
    let front = if short { wanted[0].min(0.5 * both) } else { wanted[0] };
    let rear = both - front;
    let s = (front / vas).sqrt() / (2.0 * qts);
    let tuning = fs * (1.0 + vas / rear).sqrt();
    let Some((chamber, narrow)) = tuned_from(ask, front, tuning, tuning / REACH, false) else {
        return refuse(format!("No port tunes a front chamber of {} to {tuning:.0} Hz.", litres(front)));
    };
    let enclosure = Enclosure::Bandpass4(Bandpass4 {
        rear: Sealed { volume: rear, losses: Losses::CLOSED },
        front: chamber,
    });
    let ripple = Look::at(ask, &enclosure, tuning).map_or(0.0, |look| look.band().ripple);
    let ripple = if ripple < 0.3 { "no ripple".to_owned() } else { format!("{ripple:.1} dB of ripple") };
    let reason = format!(
        "S {s:.2} gives {ripple}. Rear {} closed, front {} tuned to {tuning:.0} Hz (after Geddes 1989).{cut}{}",
        litres(rear),
        litres(front),
        narrow_words(narrow)
    );
    Ok(Start { enclosure, reason })
}

/// Volume over Vas, tuning and lower end of the band (Hz) of a chamber, whether its port stands beside the driver, and what was found.
type Known = ([f64; 3], bool, Option<(Ported, bool)>);

/// Tries boxes around the driver and keeps the one with the widest band, level counted by `loud` octaves a 3 dB.
fn sixth(ask: &Ask, path: FrontPath, loud: f64) -> Result<Start, Refusal> {
    let (fs, qts, vas) = (ask.driver.fs(), ask.driver.qts(), ask.vas());
    if qts > 0.75 {
        return refuse(format!(
            "Qts {qts:.2} is too high for two ported chambers: the band would be one peak. 0.25 to 0.5 is usual."
        ));
    }
    let low = ask.lowest_or(1.1 * fs);
    // Many candidates share a chamber.
    let mut known: Vec<Known> = Vec::new();
    let mut chamber = |volume: f64, tuning: f64, low: f64, beside: bool| {
        let asked = [volume, tuning, low];
        let same = |(of, by, _): &&Known| *by == beside && (0..3).all(|k| of[k].total_cmp(&asked[k]).is_eq());
        if let Some((.., found)) = known.iter().find(same) {
            return found.clone();
        }
        let found = tuned_from(ask, volume * vas, tuning, low, beside);
        known.push((asked, beside, found.clone()));
        found
    };
    let mut best: Option<(f64, Bandpass6, Band)> = None;
    let mut tried = 0;
    for [rear, front, lower, ratio] in shapes() {
        let (behind, before) = match path {
            FrontPath::Parallel => (lower * low, ratio * lower * low),
            FrontPath::Series => (0.8 * ratio * lower * low, 1.25 * lower * low),
        };
        if ask.wishes.volume.is_some_and(|most| (rear + front) * vas > most) {
            continue;
        }
        let from = behind.min(before);
        let found =
            chamber(rear, behind, from, path == FrontPath::Series).zip(chamber(front, before, from, false));
        let Some(((rear, tight), (front, narrow))) = found else { continue };
        let bulk = (rear.volume + front.volume) / vas;
        let candidate = Bandpass6 { rear, front, path };
        let enclosure = Enclosure::Bandpass6(candidate.clone());
        let Some(look) = Look::at(ask, &enclosure, 1.6 * low) else { continue };
        tried += 1;
        let band = look.band();
        let score = band.octaves + loud * band.gain / 3.0
            - (band.from / low).log2().max(0.0)
            - 0.15 * bulk
            - 1.5 * f64::from(u8::from(tight) + u8::from(narrow))
            - 0.2 * (-3.0 - band.gain).max(0.0)
            - 0.2 * (band.hollow - 3.0).max(0.0);
        if best.as_ref().is_none_or(|(most, ..)| score > *most) {
            best = Some((score, candidate, band));
        }
    }
    let Some((_, found, band)) = best else {
        return refuse(
            "No two ported chambers of the size wished for can be tuned around this driver.".into(),
        );
    };
    let reason = format!(
        "The best of {tried} boxes around this driver: within 3 dB from {:.0} to {:.0} Hz, {:+.1} dB against the driver in a wall; rear {}, front {}.",
        band.from,
        band.to,
        band.gain,
        litres(found.rear.volume),
        litres(found.front.volume)
    );
    Ok(Start { enclosure: Enclosure::Bandpass6(found), reason })
}

/// Volumes behind and before the driver over Vas, lower tuning over the lowest note, upper tuning over the lower.
fn shapes() -> impl Iterator<Item = [f64; 4]> {
    [0.25, 0.4, 0.65, 1.0].into_iter().flat_map(|rear| {
        [0.12, 0.2, 0.35, 0.6].into_iter().flat_map(move |front| {
            [0.75, 0.9, 1.1].into_iter().flat_map(move |lower| {
                [1.7, 2.1, 2.6, 3.2].into_iter().map(move |ratio| [rear, front, lower, ratio])
            })
        })
    })
}
