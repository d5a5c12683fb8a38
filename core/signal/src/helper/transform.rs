//! The lowest corner that a sealed box can be given.

use crate::filter::Filter;

/// A Linkwitz transform that amplifier and cone can pay for.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Transform {
    /// New corner, Hz.
    pub frequency: f64,
    /// Its Q.
    pub q: f64,
    /// Boost at the lowest frequencies, dB.
    pub boost: f64,
}

impl Transform {
    /// As a filter of a box with its own corner (Hz) and Q.
    pub fn filter(&self, own: [f64; 2]) -> Filter {
        Filter::LinkwitzTransform { own, wanted: [self.frequency, self.q] }
    }
}

/// The lowest corner with a Q at which a passband level (dB) is reached cleanly at every frequency: where what limits, `most` (dB at rising frequencies, Hz), never
/// lies below the level that the transformed box then has. `None` where even the box's own corner does not.
pub fn transform(frequencies: &[f64], most: &[f64], level: f64, own: [f64; 2], q: f64) -> Option<Transform> {
    let reached = |corner: f64| {
        let mut both = frequencies.iter().zip(most);
        both.all(|(frequency, most)| {
            let x = (frequency / corner).powi(2);
            let falls = 10.0 * (x * x / ((1.0 - x).powi(2) + x / (q * q))).log10();
            *most >= level + falls
        })
    };
    let own_corner = own[0];
    if !reached(own_corner) {
        return None;
    }
    let (mut low, mut high) = (own_corner / 20.0, own_corner);
    for _ in 0..60 {
        let middle = (low * high).sqrt();
        if reached(middle) {
            high = middle;
        } else {
            low = middle;
        }
    }
    Some(Transform { frequency: high, q, boost: 40.0 * (own_corner / high).log10() })
}
