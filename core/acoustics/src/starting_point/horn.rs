//! Horns, and boxes with a slot and flare.

use std::f64::consts::{PI, TAU};

use super::search::{Band, Look, crossing};
use super::{Ask, Refusal, Start, StartingPoint, litres, refuse};
use crate::element::End;
use crate::enclosure::{Enclosure, FrontHorn, Line, Losses, Mouth, Sealed, TappedHorn};
use crate::profile::{Flare, Profile, Segment};

/// Starting points of front-loaded horns, by flare.
pub static FRONT_HORN: &[StartingPoint] = &[
    StartingPoint { id: "exponential", name: "Exponential", start: |ask| front(ask, Flare::Exponential) },
    StartingPoint {
        id: "hyperbolic",
        name: "Hyperbolic, T 0.6",
        start: |ask| front(ask, Flare::Hyperbolic { t: 0.6 }),
    },
    StartingPoint { id: "tractrix", name: "Tractrix", start: |ask| front(ask, Flare::Tractrix) },
    StartingPoint { id: "conical", name: "Conical", start: |ask| front(ask, Flare::Conical) },
];

/// Starting points of back-loaded horns.
pub static BACK_HORN: &[StartingPoint] =
    &[StartingPoint { id: "exponential", name: "Exponential", start: back }];

/// Starting points of tapped horns.
pub static TAPPED_HORN: &[StartingPoint] =
    &[StartingPoint { id: "search", name: "Widest band", start: tapped }];

/// Starting points of boxes with a slot and flare.
pub static SLOT_FLARE: &[StartingPoint] = &[StartingPoint { id: "stage", name: "Stage", start: slot_flare }];

fn segment(flare: Flare, length: f64, start: f64, end: f64, width: Option<f64>) -> Segment {
    Segment { flare, length, start, end, width, fill: None }
}

fn weak(ask: &Ask, most: f64, what: &str) -> Result<(), Refusal> {
    let qts = ask.driver.qts();
    if qts <= most {
        return Ok(());
    }
    refuse(format!(
        "Qts {qts:.2} is too high for {what}: the motor is too weak to work against the air in the throat, so that the horn would only colour it. Horns want a Qts below {most}, best near 0.3."
    ))
}

/// Mouth whose circumference is a wave, in as much of the sphere as the walls leave.
fn mouth(ask: &Ask, cutoff: f64) -> f64 {
    let wave = ask.setting.air.speed / cutoff;
    wave * wave / (4.0 * PI) * ask.setting.space.angle() / (4.0 * PI)
}

/// A front-loaded horn for a lowest note.
struct FullSize {
    cutoff: f64,
    profile: Profile,
    /// Volume of the rear chamber, m3, and the one that would cancel the throat's reactance.
    rear: f64,
    cancelling: Option<f64>,
}

impl FullSize {
    /// Keele 1977: throat `2 pi Fs Qts Vas/c`; rear chamber that cancels the throat's reactance at the cut-off.
    fn of(ask: &Ask, flare: Flare, lowest: f64) -> Self {
        let (fs, qts, vas, c) = (ask.driver.fs(), ask.driver.qts(), ask.vas(), ask.setting.air.speed);
        let cutoff = lowest / 1.15;
        let throat = (TAU * fs * qts * vas / c).clamp(0.15 * ask.driver.sd, 1.5 * ask.driver.sd);
        let mouth = mouth(ask, cutoff).max(2.0 * throat);
        let length = length_of(flare, cutoff, throat, mouth, c);
        // Throat reactance above the cut-off of an exponential horn falls as 1/f like that of a stiffness.
        let sprung = throat * c / (TAU * cutoff);
        let cancelling = (sprung < 0.9 * vas).then(|| (sprung.recip() - vas.recip()).recip());
        let rear =
            cancelling.unwrap_or(f64::INFINITY).clamp(0.1 * vas, 4.0 * vas).min(2.0).max(ask.holding());
        let profile = Profile { segments: vec![segment(flare, length, throat, mouth, None)] };
        Self { cutoff, profile, rear, cancelling }
    }

    /// All that it holds, m3.
    fn holds(&self) -> f64 {
        self.profile.volume() + self.rear
    }
}

/// Most that a horn holds whose lowest note nobody asked for, m3: two people still move it (common practice).
const MOVABLE: f64 = 0.8;

/// As low as was asked for; else a little above Fs, or as low as a horn goes that can still be moved.
fn front(ask: &Ask, flare: Flare) -> Result<Start, Refusal> {
    weak(ask, 0.5, "a front-loaded horn")?;
    let (fs, qts, c) = (ask.driver.fs(), ask.driver.qts(), ask.setting.air.speed);
    let usual = 1.1 * fs;
    let too_large = |lowest: &f64| FullSize::of(ask, flare, *lowest).holds() > MOVABLE;
    let steps = (0..60).map(|step| usual * 1.03_f64.powi(step));
    let movable = || steps.clone().find(|lowest| !too_large(lowest)).unwrap_or(usual);
    let lowest = ask.wishes.lowest.unwrap_or_else(movable);
    let horn = FullSize::of(ask, flare, lowest);
    let (throat, mouth) = (horn.profile.start(), horn.profile.end());
    let does = match horn.cancelling {
        Some(volume) if (horn.rear / volume - 1.0).abs() < 0.02 => "cancels the throat's reactance",
        Some(volume) if horn.rear > volume => {
            "is as small as can be built, too large to cancel the throat's reactance"
        }
        Some(_) => "is as large as makes sense, too small to cancel the throat's reactance",
        None => "cannot cancel the throat's reactance: the cone's own suspension is stiffer",
    };
    if horn.profile.check().is_err() {
        return refuse(format!(
            "This flare cannot join a throat of {:.0} cm2 and a mouth of {:.0} cm2.",
            throat * 1e4,
            mouth * 1e4
        ));
    }
    if let Some(most) = ask.wishes.volume.filter(|most| horn.holds() > *most) {
        return refuse(format!(
            "A horn for {lowest:.0} Hz in this space holds {}, more than the {} wished for. In a corner its mouth may be smaller.",
            litres(horn.holds()),
            litres(most)
        ));
    }
    let larger = if ask.wishes.lowest.is_none() && lowest > usual {
        format!(
            " It is for {lowest:.0} Hz: one for {usual:.0} Hz, near the driver's own resonance, would hold {}.",
            litres(FullSize::of(ask, flare, usual).holds())
        )
    } else {
        String::new()
    };
    let reason = format!(
        "Throat {:.0} cm2 from Fs, Qts and Vas (Keele 1977), cut-off {:.0} Hz, mouth {:.0} cm2, one wavelength around for the space it stands in, {:.2} m long (half a wave would be {:.2} m). The rear chamber of {} {does}; the cone's mass limits above {:.0} Hz.{larger}",
        throat * 1e4,
        horn.cutoff,
        mouth * 1e4,
        horn.profile.length(),
        c / (2.0 * lowest),
        litres(horn.rear),
        2.0 * fs / qts
    );
    let rear = Sealed { volume: horn.rear, losses: Losses::CLOSED };
    let profile = horn.profile;
    Ok(Start {
        enclosure: Enclosure::FrontHorn(FrontHorn { rear, throat: None, profile, mouth: End::Mouth }),
        reason,
    })
}

/// Length of a flare with a cut-off (Hz) between two areas, m.
fn length_of(flare: Flare, cutoff: f64, throat: f64, mouth: f64, c: f64) -> f64 {
    let exponential = (mouth / throat).ln() * c / (4.0 * PI * cutoff);
    match flare {
        Flare::Hyperbolic { t } => {
            let ratio = (mouth / throat).sqrt();
            let turns = crossing(1e-3, 20.0, |u| Some(u.cosh() + t * u.sinh() - ratio)).unwrap_or(1.0);
            turns * c / (TAU * cutoff)
        }
        Flare::Tractrix => {
            let (inner, outer) = ((throat / PI).sqrt(), (mouth / PI).sqrt());
            1.0001 * (outer * (outer / inner).acosh() - (outer * outer - inner * inner).sqrt())
        }
        // Straight sides have no cut-off: as long as the exponential one, then they load less at its end.
        _ => exponential,
    }
}

/// A chamber that rolls the horn off above 250 Hz, or lower where the driver needs more room, and a horn whose first resonance is the lowest note.
fn back(ask: &Ask) -> Result<Start, Refusal> {
    weak(ask, 0.6, "a back-loaded horn")?;
    let (c, sd) = (ask.setting.air.speed, ask.driver.sd);
    let tuning = ask.lowest_or(0.75 * ask.driver.fs());
    let throat = 0.6 * sd;
    let mouth = mouth(ask, 1.6 * tuning).clamp(3.0 * throat, 12.0 * throat);
    let chamber = Sealed { volume: (throat * c / (TAU * 250.0)).max(ask.holding()), losses: Losses::USUAL };
    let upper = throat * c / (TAU * chamber.volume);
    let with = |length: f64| Line {
        profile: Profile { segments: vec![segment(Flare::Exponential, length, throat, mouth, None)] },
        driver_at: 0.0,
        chamber: Some(chamber),
        stub: None,
        inner: None,
        mouth: Mouth::Open { end: End::Mouth, path: 0.0 },
    };
    let resonance = |length: f64| Enclosure::Line(with(length)).resonance(&ask.setting);
    let found = crossing(0.5, 8.0, |length| Some(resonance(length).unwrap_or(500.0) - tuning));
    let Some(length) = found else {
        return refuse(format!(
            "A back-loaded horn for {tuning:.0} Hz would be longer than 8 m or shorter than 0.5 m."
        ));
    };
    let line = with(length);
    let whole = line.profile.volume() + chamber.volume;
    if let Some(most) = ask.wishes.volume.filter(|most| whole > *most) {
        return refuse(format!(
            "A back-loaded horn for {tuning:.0} Hz holds {}, more than the {} wished for.",
            litres(whole),
            litres(most)
        ));
    }
    let reason = format!(
        "Throat 0.6 Sd behind a chamber of {} that lets little above {upper:.0} Hz into the horn; {length:.2} m long so that it helps from {tuning:.0} Hz (2.7 to 3 m is usual for small full-range drivers), mouth {:.0} cm2.",
        litres(chamber.volume),
        mouth * 1e4
    );
    Ok(Start { enclosure: Enclosure::Line(line), reason })
}

fn tapped(ask: &Ask) -> Result<Start, Refusal> {
    weak(ask, 0.6, "a tapped horn")?;
    let (c, sd) = (ask.setting.air.speed, ask.driver.sd);
    let lowest = ask.lowest_or(1.1 * ask.driver.fs());
    let seat = SEAT * ask.size[0];
    let mut best: Option<(f64, TappedHorn, Band)> = None;
    let mut tried = 0;
    for waves in [0.24, 0.28, 0.33] {
        for throat in [0.35, 0.6, 0.9] {
            for widening in [3.0, 5.0, 8.0] {
                let length = waves * c / lowest;
                let profile = Profile {
                    segments: vec![segment(
                        Flare::Conical,
                        length,
                        throat * sd,
                        widening * throat * sd,
                        None,
                    )],
                };
                if length < 4.0 * seat || ask.wishes.volume.is_some_and(|most| profile.volume() > most) {
                    continue;
                }
                let taps = [seat, length - seat];
                let candidate = TappedHorn { profile, taps, mouth: End::Mouth };
                let Some(look) = Look::at(ask, &Enclosure::TappedHorn(candidate.clone()), 1.6 * lowest)
                else {
                    continue;
                };
                tried += 1;
                let band = look.band();
                let score = band.octaves + 0.05 * band.gain
                    - 0.2 * (band.hollow - 3.0).max(0.0)
                    - 2.0 * (band.from / lowest).log2().max(0.0);
                if best.as_ref().is_none_or(|(most, ..)| score > *most) {
                    best = Some((score, candidate, band));
                }
            }
        }
    }
    let Some((_, horn, band)) = best else {
        return refuse(format!(
            "No tapped horn for {lowest:.0} Hz fits around this driver in the size wished for."
        ));
    };
    let reason = format!(
        "The best of {tried} horns around this driver: {:.2} m from {:.0} to {:.0} cm2, holding {}; within 3 dB from {:.0} to {:.0} Hz, {:+.1} dB against the driver in a wall.",
        horn.profile.length(),
        horn.profile.start() * 1e4,
        horn.profile.end() * 1e4,
        litres(horn.profile.volume()),
        band.from,
        band.to,
        band.gain
    );
    Ok(Start { enclosure: Enclosure::TappedHorn(horn), reason })
}

/// How far from the ends of a tapped horn its driver sits, over its frame: so that it clears the wall there (common practice).
const SEAT: f64 = 0.53;

/// Of a slot and flare, m: the flare's length, the slot's shortest and longest, and its least height that boards keep even (common
/// practice).
const FLARE: f64 = 0.15;
const SLOTS: [f64; 2] = [0.05, 0.3];
const LEAST_SLOT: f64 = 0.012;
/// Depth of a box of usual proportions over the third root of its volume.
const DEPTH: f64 = 0.79;

/// Slot and flare go straight through a box of usual depth, and the height of the slot decides the tuning; where it would be too low to
/// build the slot is longer.
fn slot_flare(ask: &Ask) -> Result<Start, Refusal> {
    let tuning = ask.lowest_or(0.9 * ask.driver.fs());
    let (volume, cut) = ask.within(ask.vas().clamp(0.015, 0.09));
    // Both are as wide as the box.
    let width = volume.cbrt();
    let with = |long: f64, height: f64| {
        let area = width * height;
        let slot = segment(Flare::Conical, long, area, area, Some(width));
        let flare = segment(Flare::Exponential, FLARE, area, 3.0 * area, Some(width));
        Line {
            profile: Profile { segments: vec![slot, flare] },
            driver_at: 0.0,
            chamber: Some(Sealed { volume, losses: Losses::USUAL }),
            stub: None,
            inner: Some(End::Flanged),
            mouth: Mouth::Open { end: End::Flanged, path: 0.0 },
        }
    };
    let height = |long: f64| {
        let resonance = |height: f64| Enclosure::Line(with(long, height)).resonance(&ask.setting);
        crossing(0.004, 0.3, |height| Some(resonance(height).unwrap_or(2.0) - tuning))
    };
    let [shortest, longest] = SLOTS;
    let usual = (DEPTH * volume.cbrt() - FLARE).clamp(shortest, longest);
    let lengths = (0..).map(|step| usual + 0.05 * f64::from(step)).take_while(|long| *long <= longest);
    let mut tried = lengths.filter_map(|long| Some((long, height(long)?)));
    let Some((long, height)) = tried.find(|(_, height)| *height >= LEAST_SLOT) else {
        return refuse(format!(
            "No slot that can be built, at least {:.0} mm high, tunes {} to {tuning:.0} Hz. Take a higher note or a smaller chamber.",
            LEAST_SLOT * 1e3,
            litres(volume)
        ));
    };
    let reason = format!(
        "A slot of {:.0} by {:.0} mm, {:.0} mm long, and a flare to three times its area tune {} to {tuning:.0} Hz; a lower or longer slot tunes lower.{cut}",
        width * 1e3,
        height * 1e3,
        long * 1e3,
        litres(volume)
    );
    Ok(Start { enclosure: Enclosure::Line(with(long, height)), reason })
}
