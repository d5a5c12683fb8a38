//! Butterworth filters.

use std::f64::consts::PI;

use oak_acoustics::source::Section;

use super::{first_order, second_order};

/// Poles evenly on the left half of the unit circle, in pairs: `s^2 + 2 sin((2k - 1) pi/2n) s + 1`, of an odd order one more at -1.
pub(super) fn low_pass(order: u32, frequency: f64) -> Vec<Section> {
    let pair = |k: u32| {
        let angle = f64::from(2 * k - 1) * PI / f64::from(2 * order);
        second_order(frequency, 2.0 * angle.sin(), 1.0)
    };
    let single = (order % 2 == 1).then(|| first_order(frequency, 1.0));
    single.into_iter().chain((1..=order / 2).map(pair)).collect()
}
