//! In the open: how loud it is far away, where it begins to beam, and a pair that is steered.

use std::f64::consts::PI;

use oak_signal::outdoors::{beams, distance_loss, steered_pair};
use serde::Serialize;
use utoipa::ToSchema;

use super::scene::Scene;

/// What is to be known in the open.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FieldReport {
    /// Level of all cabinets at this drive over some distances, m and dB.
    pub distances: Vec<[f64; 2]>,
    /// Where a second cabinet stands behind the first and how it plays, so that both play to the front only.
    pub steered: SteeredReport,
    /// All that in words.
    pub words: String,
}

/// The second of a steered pair; its polarity is the other one.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct SteeredReport {
    /// For which frequency, Hz.
    pub frequency: f64,
    /// Where it stands, m.
    pub at: [f64; 3],
    /// Which way it faces, rad.
    pub turned: f64,
    /// How much later it plays, s.
    pub delay: f64,
}

/// Where the level is told in the open, m.
const RINGS: [f64; 6] = [2.0, 5.0, 10.0, 20.0, 50.0, 100.0];
/// Width of a front that is not known, m.
const USUAL_FRONT: f64 = 0.5;

pub(super) fn report(scene: &Scene<'_>) -> Option<FieldReport> {
    if scene.room.is_some() {
        return None;
    }
    let first = scene.place.stands.first()?;
    let speed = scene.built().design.air.speed;
    let band = scene.band();
    let frequency = (band.start() * band.end()).sqrt();
    // Of the middle of its underside.
    let stand = oak_signal::in_place::Stand {
        place: first.at,
        turned: first.turned,
        gain: first.gain,
        delay: first.delay,
    };
    let [_, behind] = steered_pair(stand, frequency, speed);
    let front = scene.built().outside().map_or(USUAL_FRONT, |[width, height, _]| width.max(height));
    let words = format!(
        "A front of {:.0} cm plays alike to all sides below {:.0} Hz: one cabinet cannot be aimed, a pair can. The level falls by 6 dB for each doubling of the distance on open ground; air \
         swallows practically no bass. A second cabinet {:.2} m behind the first, {:.1} ms later and reversed, takes the sound to the back away around {frequency:.0} Hz and adds up to 6 dB to \
         the front.",
        front * 100.0,
        beams(front, speed),
        speed / frequency / 4.0,
        (behind.delay - first.delay) * 1e3,
    );
    Some(FieldReport {
        distances: distances(scene),
        steered: SteeredReport {
            frequency,
            at: behind.place,
            turned: if first.turned > PI { first.turned - 2.0 * PI } else { first.turned },
            delay: behind.delay,
        },
        words,
    })
}

fn distances(scene: &Scene<'_>) -> Vec<[f64; 2]> {
    let together: f64 = scene.stands.iter().map(|stand| stand.gain).sum::<f64>().abs();
    let alone = f64::from(scene.built().design.cabinets);
    let more = 20.0 * (together / alone).log10();
    let level = |distance| [distance, scene.free_level() + more + distance_loss(distance)];
    // Cabinets that take each other away have no level at a distance in general.
    RINGS.into_iter().map(level).filter(|[_, level]| level.is_finite()).collect()
}
