//! What walls near a source do to it, without the rest of the room.

use oak_acoustics::Complex;

/// Images of a source in up to three walls at right angles through the origin, itself first. `walls` says for each axis whether there is one.
pub fn images(source: [f64; 3], walls: [bool; 3]) -> Vec<[f64; 3]> {
    let mut images = vec![source];
    for axis in (0..3).filter(|axis| walls[*axis]) {
        let mirrored = |place: &[f64; 3]| {
            let mut place = *place;
            place[axis] = -place[axis];
            place
        };
        let others: Vec<_> = images.iter().map(mirrored).collect();
        images.extend(others);
    }
    images
}

/// Pressure at a seat over that of the direct sound: `sum of r0/r exp(-j k (r - r0))`, `k` in 1/m. Half space is twice the direct sound.
pub fn over_direct(source: [f64; 3], seat: [f64; 3], walls: [bool; 3], k: f64) -> Complex {
    let distance = |place: &[f64; 3]| -> f64 {
        place.iter().zip(&seat).map(|(a, b)| (a - b).powi(2)).sum::<f64>().sqrt()
    };
    let direct = distance(&source);
    let part = |image: [f64; 3]| {
        let r = distance(&image);
        Complex::from_polar(direct / r, -k * (r - direct))
    };
    images(source, walls).into_iter().map(part).sum()
}

/// Power that a small source gives near walls over that in the open, whatever the seat: `sum of sin(2kd)/(2kd)`, `d` the distance to each wall, edge and
/// corner (Waterhouse 1958, J. Acoust. Soc. Am. 30, 4; Allison 1974, J. Audio Eng. Soc. 22(5); from memory).
pub fn power_gain(distances: [Option<f64>; 3], k: f64) -> f64 {
    let mut gain = 0.0;
    for which in 0..8u8 {
        let chosen = (0..3).filter(|axis| which & (1 << axis) != 0).map(|axis| distances[axis]);
        // Squares of the distances to the walls that meet there.
        let Some(squares) = chosen.map(|distance| distance.map(|d| d * d)).collect::<Option<Vec<f64>>>()
        else {
            continue;
        };
        let kd = 2.0 * k * squares.iter().sum::<f64>().sqrt();
        gain += if kd < 1e-6 { 1.0 } else { kd.sin() / kd };
    }
    gain
}
