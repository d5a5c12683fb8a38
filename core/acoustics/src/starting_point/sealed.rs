//! Closed boxes.

use super::search::crossing;
use super::{Ask, MAKER, Refusal, Start, StartingPoint, litres, refuse};
use crate::enclosure::{Aperiodic, Enclosure, Losses, Sealed};
use crate::response::{FrequencyGrid, Response};

/// Starting points of closed boxes.
pub static SEALED: &[StartingPoint] = &[
    StartingPoint {
        id: "butterworth",
        name: "Flattest",
        start: |ask| by_qtc(ask, 0.707, "the flattest level that a sealed box can have (Butterworth)"),
    },
    StartingPoint {
        id: "bessel",
        name: "Flattest delay",
        start: |ask| by_qtc(ask, 0.577, "the flattest group delay (Bessel)"),
    },
    StartingPoint {
        id: "critical",
        name: "Critically damped",
        start: |ask| by_qtc(ask, 0.5, "no overshoot at all, early and gentle fall"),
    },
    StartingPoint {
        id: "chebyshev",
        name: "Smallest",
        start: |ask| by_qtc(ask, 1.0, "a small box with a peak of 1.2 dB (Chebyshev)"),
    },
    StartingPoint { id: "just_seal_it", name: "Just seal it", start: just_seal_it },
    StartingPoint { id: MAKER, name: "As the maker recommends", start: recommended },
];

/// Starting points of boxes with a resistive vent.
pub static APERIODIC: &[StartingPoint] =
    &[StartingPoint { id: "even_load", name: "Even load", start: even_load }];

/// Range of volumes over Vas in which a box is looked for.
const VOLUMES: [f64; 2] = [0.02, 40.0];

fn volume_for(ask: &Ask, qtc: f64) -> Option<f64> {
    let vas = ask.vas();
    crossing(VOLUMES[0] * vas, VOLUMES[1] * vas, |volume| {
        Some(Sealed { volume, losses: Losses::CLOSED }.closed_box(&ask.driver, &ask.setting.air).qtc - qtc)
    })
}

fn by_qtc(ask: &Ask, qtc: f64, why: &str) -> Result<Start, Refusal> {
    let Some(volume) = volume_for(ask, qtc) else {
        let qts = ask.driver.qts();
        return refuse(format!(
            "Qts {qts:.2} is too near to Qtc {qtc} or above it, and a sealed box only raises Q. Take a higher Qtc, an aperiodic box, or an open baffle."
        ));
    };
    let (volume, cut) = ask.within(volume);
    let sealed = Sealed { volume, losses: Losses::CLOSED };
    let found = sealed.closed_box(&ask.driver, &ask.setting.air);
    let reason = format!(
        "Qtc {:.2}: {why}. With usual losses that needs {} and puts Fc at {:.0} Hz (Small 1972).{cut}",
        found.qtc,
        litres(volume),
        found.fc
    );
    Ok(Start { enclosure: Enclosure::Sealed(sealed), reason })
}

/// The box of the data sheet, one share for each driver.
fn recommended(ask: &Ask) -> Result<Start, Refusal> {
    let Some(one) = ask.recommended.sealed else {
        return refuse("The data sheet recommends no sealed box.".to_owned());
    };
    let (volume, cut) = ask.within(one * f64::from(ask.setting.driver_array.wiring.count()));
    let sealed = Sealed { volume, losses: Losses::CLOSED };
    let found = sealed.closed_box(&ask.driver, &ask.setting.air);
    let reason = format!(
        "{} as the data sheet recommends for each driver: Qtc {:.2}, Fc {:.0} Hz with usual losses.{cut}",
        litres(one),
        found.qtc,
        found.fc
    );
    Ok(Start { enclosure: Enclosure::Sealed(sealed), reason })
}

fn just_seal_it(ask: &Ask) -> Result<Start, Refusal> {
    // As stiff as the suspension, or a box that one can carry.
    let (volume, cut) = ask.within(ask.vas().clamp(0.008, 0.09));
    let found = Sealed { volume, losses: Losses::CLOSED }.closed_box(&ask.driver, &ask.setting.air);
    let reason = format!(
        "For a driver whose values are not trusted: a sealed box is forgiving. {} gives Qtc {:.2}; measure and line it (common practice).{cut}",
        litres(volume),
        found.qtc
    );
    Ok(Start { enclosure: Enclosure::Sealed(Sealed { volume, losses: Losses::CLOSED }), reason })
}

/// The tightest vent that halves the impedance peak.
fn even_load(ask: &Ask) -> Result<Start, Refusal> {
    let tight = volume_for(ask, 1.0f64.max(1.25 * ask.driver.qts()));
    let (volume, cut) = ask.within(tight.unwrap_or(0.5 * ask.vas()));
    let chamber = Sealed { volume, losses: Losses::CLOSED };
    let fc = chamber.closed_box(&ask.driver, &ask.setting.air).fc;
    let reactance = (std::f64::consts::TAU * fc * ask.setting.air.compliance(volume)).recip();
    let peak = |resistance: f64| {
        let enclosure = Enclosure::Aperiodic(Aperiodic { chamber, resistance });
        let network = enclosure.compile(&ask.setting).ok()?.network;
        let grid = FrequencyGrid::logarithmic((fc / 4.0).max(2.0), 3.0 * fc, 60).ok()?;
        Some(Response::of(&network, &grid, 1.0).impedance.iter().map(|z| z.norm()).fold(0.0, f64::max))
    };
    let Some(shut) = peak(1e3 * reactance) else { return refuse("This box cannot be worked out.".into()) };
    // From tight to open, the first that halves the peak.
    let mut candidates = (0..40).map(|k| reactance * 10f64.powf(1.5 - 0.075 * f64::from(k)));
    let Some(resistance) =
        candidates.find(|resistance| peak(*resistance).is_some_and(|peak| peak <= 0.5 * shut))
    else {
        return refuse(
            "No vent halves the impedance peak of this driver: its motor damps it enough already.".into(),
        );
    };
    let reason = format!(
        "A small box of {} whose vent is just restrictive enough to halve the impedance peak, from {shut:.0} to {:.0} ohm. Stuff the vent until a measurement shows that (common practice).{cut}",
        litres(volume),
        0.5 * shut
    );
    Ok(Start { enclosure: Enclosure::Aperiodic(Aperiodic { chamber, resistance }), reason })
}
