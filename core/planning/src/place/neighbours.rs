//! What passes the wall to the neighbours: a rough figure, and said to be one.

use oak_signal::exposure::wall_reduction;
use serde::Serialize;
use utoipa::ToSchema;

use super::scene::Scene;

/// What the neighbours hear.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct NeighboursReport {
    /// Mass of the wall, kg/m2.
    pub mass: f64,
    /// Octave by octave.
    pub bands: Vec<BandReport>,
    /// All that in words.
    pub words: String,
}

/// One octave.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct BandReport {
    /// Its middle, Hz.
    pub frequency: f64,
    /// Level in the room, dB.
    pub inside: f64,
    /// What the wall takes off, dB.
    pub reduction: f64,
    /// Level beyond it, dB.
    pub beyond: f64,
    /// What ears just hear, dB.
    pub threshold: f64,
}

/// Octaves (Hz) and the threshold of hearing there, dB (ISO 226:2003, table 1; from memory).
const OCTAVES: [(f64, f64); 3] = [(31.5, 59.5), (63.0, 37.5), (125.0, 22.1)];

pub(super) fn report(scene: &Scene<'_>) -> Option<NeighboursReport> {
    let mass = scene.place.wall_mass?;
    let (level, _) = scene.loudness();
    let spectrum = scene.spectrum();
    let power = |level: f64| 10f64.powf(level / 10.0);
    let whole: f64 = spectrum.iter().map(|(_, level)| power(*level)).sum();
    let band = |(frequency, threshold): (f64, f64)| {
        let share: f64 = spectrum
            .iter()
            .filter(|(at, _)| (at / frequency).log2().abs() <= 0.5)
            .map(|(_, level)| power(*level) / whole)
            .sum();
        let inside = level + 10.0 * share.log10();
        let reduction = wall_reduction(mass, frequency);
        BandReport { frequency, inside, reduction, beyond: inside - reduction, threshold }
    };
    let bands: Vec<BandReport> =
        OCTAVES.into_iter().map(band).filter(|band| band.inside.is_finite()).collect();
    let loudest =
        bands.iter().max_by(|a, b| (a.beyond - a.threshold).total_cmp(&(b.beyond - b.threshold)))?;
    let over = loudest.beyond - loudest.threshold;
    let what = format!(
        "Through a wall of {mass:.0} kg/m² about {:.0} dB arrive at {} Hz",
        loudest.beyond, loudest.frequency
    );
    let words = if over > 0.0 {
        let quieter = (over / 5.0).ceil() * 5.0;
        format!(
            "{what}, {over:.0} dB over what ears just hear: the neighbours hear it. {quieter:.0} dB less would be needed, and a second wall of the same kind does not bring that: play \
             more quietly, or build a room within the room. By mass law, rough: walls resonate, and holes and floors let through more."
        )
    } else {
        format!(
            "{what}, {:.0} dB under what ears just hear. By mass law, rough: walls resonate, and holes and floors let through more.",
            -over
        )
    };
    Some(NeighboursReport { mass, bands, words })
}
