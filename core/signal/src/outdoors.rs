//! Cabinets in the open, on the ground.

use crate::in_place::Stand;

/// Level at a distance (m) over that at 1 m, dB: 6 dB less for each doubling. What air swallows of the bass over such distances is
/// nothing: under 0.1 dB in 100 m below 125 Hz (ISO 9613-1).
pub fn distance_loss(distance: f64) -> f64 {
    -20.0 * distance.log10()
}

/// A pair that plays to where the first one faces: the second stands a quarter of the wave behind it and plays a quarter of the period later, reversed
/// (a gradient pair, Olson 1946, J. Acoust. Soc. Am. 17, 192; from memory). `speed` in m/s.
pub fn steered_pair(first: Stand, frequency: f64, speed: f64) -> [Stand; 2] {
    let apart = speed / frequency / 4.0;
    let place = first.point([0.0, 0.0, -apart]);
    let second = Stand { place, gain: -first.gain, delay: first.delay + apart / speed, ..first };
    [first, second]
}

/// Where a front of a width (m) begins to play less to its sides: its half against the wave, `k a = 1` (Beranek, Acoustics, ch. 4; from memory), Hz.
pub fn beams(width: f64, speed: f64) -> f64 {
    speed / (std::f64::consts::PI * width)
}
