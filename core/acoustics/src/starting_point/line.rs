//! Transmission lines.

use super::port::{quiet_area, round};
use super::search::crossing;
use super::{Ask, Refusal, Start, StartingPoint, litres, refuse};
use crate::element::End;
use crate::enclosure::{Enclosure, Line, Mouth};
use crate::medium::{Fill, Frame, POLYESTER};
use crate::profile::{Flare, Profile, Segment};

/// Starting points of transmission lines.
pub static LINE: &[StartingPoint] = &[
    StartingPoint { id: "tapered", name: "Tapered, filled", start: |ask| open(ask, &TAPERED) },
    StartingPoint { id: "straight", name: "Straight, lightly filled", start: |ask| open(ask, &STRAIGHT) },
];

/// Starting points of mass-loaded lines.
pub static MASS_LOADED_LINE: &[StartingPoint] =
    &[StartingPoint { id: "two_thirds", name: "Two thirds of the length", start: mass_loaded }];

/// Shape of a line in terms of the cone.
struct LineProfile {
    start: f64,
    end: f64,
    driver_at: f64,
    /// Share of the length that is filled, from the closed end.
    filled: f64,
    words: &'static str,
}

/// Common practice: 1 to 1.5 Sd, tapering, the driver at a fifth to a third.
static TAPERED: LineProfile = LineProfile {
    start: 1.5,
    end: 0.75,
    driver_at: 0.25,
    filled: 0.35,
    words: "From 1.5 Sd at the closed end to 0.75 Sd at the mouth, the driver a quarter of the way along to quiet the third quarter-wave mode, the first 35 % filled with loose polyester of 12 kg/m3",
};
static STRAIGHT: LineProfile = LineProfile {
    start: 1.2,
    end: 1.2,
    driver_at: 0.3,
    filled: 0.15,
    words: "1.2 Sd all along, the driver three tenths of the way along, the first 15 % filled with loose polyester of 12 kg/m3",
};

/// Shortest and longest line that is looked for, m.
const LENGTHS: [f64; 2] = [0.3, 12.0];
/// The same over a quarter wave: fill, taper and a driver along the way shorten a line, nothing lengthens it.
const QUARTERS: [f64; 2] = [0.3, 1.1];

fn profile(sd: f64, shape: &LineProfile, length: f64) -> Profile {
    let (start, end) = (shape.start * sd, shape.end * sd);
    let between = (start.sqrt() + shape.filled * (end.sqrt() - start.sqrt())).powi(2);
    let part = |share: f64, start, end, fill| Segment {
        flare: Flare::Conical,
        length: share * length,
        start,
        end,
        width: None,
        fill,
    };
    let fill = Fill::polyester(POLYESTER[0], Frame::Limp);
    let filled = part(shape.filled, start, between, Some(fill));
    Profile { segments: vec![filled, part(1.0 - shape.filled, between, end, None)] }
}

/// A line of the tapered starting point for drivers of an area (m2), of a length (m).
pub fn tapered(sd: f64, length: f64) -> Line {
    line(sd, &TAPERED, length)
}

fn line(sd: f64, shape: &LineProfile, length: f64) -> Line {
    Line {
        profile: profile(sd, shape, length),
        driver_at: shape.driver_at * length,
        chamber: None,
        stub: None,
        inner: None,
        mouth: Mouth::Open { end: End::Flanged, path: 0.0 },
    }
}

fn resonance(ask: &Ask, line: Line) -> Option<f64> {
    Enclosure::Line(line).resonance(&ask.setting)
}

fn too_weak(ask: &Ask) -> Option<Refusal> {
    let qts = ask.driver.qts();
    (qts > 0.9).then(|| {
        Refusal(format!(
            "Qts {qts:.2} is too high for a line: it would boom at the tuning whatever the fill. 0.3 to 0.6 is usual; an open baffle suits this driver."
        ))
    })
}

fn open(ask: &Ask, shape: &LineProfile) -> Result<Start, Refusal> {
    if let Some(refusal) = too_weak(ask) {
        return Err(refusal);
    }
    let tuning = ask.lowest_or(ask.driver.fs());
    let quarter = ask.setting.air.speed / (4.0 * tuning);
    let [shortest, longest] = QUARTERS.map(|part| (part * quarter).clamp(LENGTHS[0], LENGTHS[1]));
    // Looked for at the tuning itself: one solution for each length.
    let found = crossing(shortest, longest, |length| {
        line(ask.driver.sd, shape, length).susceptance(&ask.setting, tuning)
    });
    let Some(length) = found else {
        return refuse(format!("A line for {tuning:.0} Hz would be longer than 12 m or shorter than 0.3 m."));
    };
    let line = line(ask.driver.sd, shape, length);
    let volume = line.profile.volume();
    if let Some(most) = ask.wishes.volume.filter(|most| volume > *most) {
        return refuse(format!(
            "A line for {tuning:.0} Hz holds {}, more than the {} wished for.",
            litres(volume),
            litres(most)
        ));
    }
    let reason = format!(
        "{}: {length:.2} m holds the cone nearly still at {tuning:.0} Hz, taper, fill and mouth included; an open pipe without them would need {:.2} m. Holds {}.",
        shape.words,
        quarter,
        litres(volume)
    );
    Ok(Start { enclosure: Enclosure::Line(line), reason })
}

fn mass_loaded(ask: &Ask) -> Result<Start, Refusal> {
    if let Some(refusal) = too_weak(ask) {
        return Err(refusal);
    }
    let tuning = ask.lowest_or(0.9 * ask.driver.fs());
    let length = 0.65 * ask.setting.air.speed / (4.0 * tuning);
    let shape = LineProfile { start: 1.3, end: 1.3, driver_at: 0.25, ..TAPERED };
    let most = 1.3 * ask.driver.sd * 0.5;
    let area = quiet_area(&ask.driver, tuning).clamp(0.08 * ask.driver.sd, most);
    let diameter = ((4.0 * area / std::f64::consts::PI).sqrt() / 0.005).round().max(4.0) * 0.005;
    let with = |port_length: f64| Line {
        mouth: Mouth::Ports(vec![round(diameter, Some(port_length))]),
        ..line(ask.driver.sd, &shape, length)
    };
    let found = crossing(0.003, 1.5, |port| Some(resonance(ask, with(port)).unwrap_or(2.0) - tuning));
    let Some(port) = found else {
        return refuse(format!(
            "No port of {:.0} mm tunes a line of {length:.2} m to {tuning:.0} Hz.",
            diameter * 1e3
        ));
    };
    let line = with(port);
    let volume = line.profile.volume();
    if let Some(most) = ask.wishes.volume.filter(|most| volume > *most) {
        return refuse(format!(
            "A mass-loaded line for {tuning:.0} Hz holds {}, more than the {} wished for.",
            litres(volume),
            litres(most)
        ));
    }
    let reason = format!(
        "Two thirds of a quarter wave, {length:.2} m of 1.3 Sd, brought down to {tuning:.0} Hz by a port of {:.0} mm, {:.0} mm long. Holds {}.",
        diameter * 1e3,
        port * 1e3,
        litres(volume)
    );
    Ok(Start { enclosure: Enclosure::Line(line), reason })
}
