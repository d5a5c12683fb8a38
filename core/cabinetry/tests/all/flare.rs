//! Rounded ends of ports.

use approx::assert_relative_eq;
use oak_acoustics::element::End;
use oak_acoustics::medium::CrossSection;
use oak_cabinetry::flare::{counts, profile};

const TUBE: CrossSection = CrossSection::Round { radius: 0.05 };

#[test]
fn no_flare_counts_nothing_and_a_small_one_less_than_half() {
    assert!(counts(TUBE, 0.0, End::Free).abs() < 1e-15);
    let small = counts(TUBE, 0.02, End::Free);
    assert!(small > 0.0 && small < 0.02, "{small}");
    // Where the tube ends along walls, the wider mouth has more of the correction to lose.
    assert!(counts(TUBE, 0.02, End::Walls(2)) < small);
}

#[test]
fn the_integral_is_that_of_the_profile() {
    // Without an end correction, against a fine sum over the quarter circle.
    let (a, r) = (0.05_f64, 0.03_f64);
    let fine: f64 = (0..100_000)
        .map(|k| {
            let x = r * (f64::from(k) + 0.5) / 100_000.0;
            (a / (a + r - (r * r - x * x).sqrt())).powi(2) * r / 100_000.0
        })
        .sum();
    assert_relative_eq!(profile(TUBE, r), fine, max_relative = 1e-3);
}

#[test]
fn a_wide_mouth_takes_end_correction_away() {
    assert!(counts(TUBE, 0.03, End::Flanged) < profile(TUBE, 0.03));
    let slot = CrossSection::Slot { width: 0.3, height: 0.03 };
    assert!(profile(slot, 0.018) < 0.018);
}
