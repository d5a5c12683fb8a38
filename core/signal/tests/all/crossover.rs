//! Sub and mains together.

use approx::assert_relative_eq;
use oak_acoustics::Complex;
use oak_acoustics::source::Chain;
use oak_signal::crossover::{EITHER, MOST_DELAY, ON_THE_SUB, align, evenness, frequencies, travelled};
use oak_signal::filter::{Alignment, Filter, Pass};
use std::f64::consts::TAU;

fn halves(order: u32) -> [Vec<Complex>; 2] {
    let at = |pass| {
        let filter = Filter::Pass { pass, alignment: Alignment::LinkwitzRiley, order, frequency: 80.0 };
        let chain: Chain = filter.chain().expect("a filter");
        frequencies(80.0).iter().map(|frequency| chain.transfer(TAU * frequency)).collect()
    };
    [at(Pass::Low), at(Pass::High)]
}

#[test]
fn matched_halves_need_no_delay_and_second_order_one_inverted() {
    for (order, inverted) in [(4, false), (2, true), (8, false)] {
        let [sub, mains] = halves(order);
        let found = align(&sub, &mains, &frequencies(80.0), EITHER);
        assert!(found.evenness.flatness < 1e-6, "order {order}: {:?}", found.evenness);
        // Optima are flat: half a period and a flip trade places only where they are no better.
        assert!(found.delay.abs() < 1e-6);
        assert_eq!(found.inverted, inverted, "order {order}");
    }
}

#[test]
fn a_longer_way_is_made_good_by_delay_on_the_other() {
    let grid = frequencies(80.0);
    let [sub, mains] = halves(4);
    // The sub stands 2 m nearer: it has to wait 5.83 ms.
    let far = travelled(&mains, &grid, 2.0, 343.0);
    let found = align(&sub, &far, &grid, EITHER);
    assert_relative_eq!(found.delay, 2.0 / 343.0, epsilon = 2e-5);
    assert!(found.evenness.flatness < 1e-4);
    assert!(evenness(&sub, &far, &grid, 0.0, false).span > 3.0);
    // A wireless link of 12 ms on the sub is made good on the mains, as far as is looked.
    let late: Vec<Complex> =
        sub.iter().zip(&grid).map(|(value, f)| value * Complex::from_polar(1.0, -TAU * f * 0.012)).collect();
    let found = align(&late, &mains, &grid, EITHER);
    assert_relative_eq!(found.delay, -0.012, epsilon = 2e-5);
    // On the sub alone there is less to be had.
    let alone = align(&late, &mains, &grid, ON_THE_SUB);
    assert!(alone.delay >= 0.0 && alone.evenness.flatness > found.evenness.flatness);
}

#[test]
fn what_is_found_is_the_best_of_all_that_was_looked_at() {
    let grid = frequencies(80.0);
    // A sub with a corner of its own, mains that fall from 60 Hz: no delay makes them flat.
    let [sub, _] = halves(4);
    let own = Filter::Pass { pass: Pass::High, alignment: Alignment::Butterworth, order: 4, frequency: 30.0 };
    let own = own.chain().expect("a filter");
    let sub: Vec<Complex> = sub.iter().zip(&grid).map(|(value, f)| value * own.transfer(TAU * f)).collect();
    let mains =
        Filter::Pass { pass: Pass::High, alignment: Alignment::Butterworth, order: 2, frequency: 60.0 };
    let mains = mains.chain().expect("a filter");
    let mains: Vec<Complex> = grid.iter().map(|f| mains.transfer(TAU * f)).collect();
    let found = align(&sub, &mains, &grid, EITHER);
    let tried = (-3200..=3200)
        .flat_map(|k| [false, true].map(|inverted| (f64::from(k) * 5e-6, inverted)))
        .map(|(delay, inverted)| evenness(&sub, &mains, &grid, delay, inverted).flatness)
        .fold(f64::MAX, f64::min);
    assert!(found.evenness.flatness < tried + 0.02, "{} {tried}", found.evenness.flatness);
    assert!(found.delay.abs() <= MOST_DELAY + 1e-4);
}
