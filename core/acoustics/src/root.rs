//! Where something changes along a line: by halving, by fifths where four places cost little more than one, or by
//! interpolation where the value itself is known.

/// Halvings that leave nothing of a double's digits.
pub(crate) const ALL: usize = 80;

/// Where a condition that holds at `low` and not at `high` ceases to hold, after a number of halvings.
pub(crate) fn end_of(
    mut low: f64,
    mut high: f64,
    halvings: usize,
    mut holds: impl FnMut(f64) -> bool,
) -> f64 {
    for _ in 0..halvings {
        let middle = 0.5 * (low + high);
        if holds(middle) {
            low = middle;
        } else {
            high = middle;
        }
    }
    0.5 * (low + high)
}

/// Where a condition that does not hold at `low` and does at `high` begins to hold, after a number of rounds that each ask
/// at four places.
pub(crate) fn begin_of(
    mut low: f64,
    mut high: f64,
    rounds: usize,
    mut holds: impl FnMut([f64; 4]) -> [bool; 4],
) -> f64 {
    for _ in 0..rounds {
        let fifth = (high - low) / 5.0;
        let places = [1.0, 2.0, 3.0, 4.0].map(|k| low + k * fifth);
        match holds(places).iter().position(|holds| *holds) {
            Some(0) => high = places[0],
            Some(first) => (low, high) = (places[first - 1], places[first]),
            None => low = places[3],
        }
    }
    0.5 * (low + high)
}

/// More looks than any value needs that has a zero.
const MOST: usize = 200;

/// Where a continuous value that has opposite signs at two places is zero, within a distance or, for none, to the last bits:
/// inverse quadratic steps where they are safe, halving where not (Chandrupatla 1997, "A new hybrid quadratic/bisection algorithm for finding the zero of a
/// nonlinear function without using derivatives"). `None` of a value with one sign.
pub fn zero(first: f64, second: f64, within: f64, mut value: impl FnMut(f64) -> f64) -> Option<f64> {
    let (mut a, mut b) = (first, second);
    let (mut at_a, mut at_b) = (value(a), value(b));
    if at_a == 0.0 {
        return Some(a);
    }
    if at_a.signum() * at_b.signum() > 0.0 && at_b != 0.0 {
        return None;
    }
    let mut share = 0.5;
    for _ in 0..MOST {
        let x = a + share * (b - a);
        let at_x = value(x);
        let (c, at_c) = if at_x.signum() * at_a.signum() > 0.0 {
            (a, at_a)
        } else {
            let left = (b, at_b);
            (b, at_b) = (a, at_a);
            left
        };
        (a, at_a) = (x, at_x);
        let (best, at_best) = if at_a.abs() < at_b.abs() { (a, at_a) } else { (b, at_b) };
        let least = (2.0 * f64::EPSILON * best.abs() + within) / (b - a).abs();
        if at_best == 0.0 || least.is_nan() || least > 0.5 || !at_x.is_finite() {
            return Some(best);
        }
        let (xi, phi) = ((a - b) / (c - b), (at_a - at_b) / (at_c - at_b));
        share = if phi * phi < xi && (1.0 - phi) * (1.0 - phi) < 1.0 - xi {
            at_a / (at_b - at_a) * at_c / (at_b - at_c)
                + (c - a) / (b - a) * at_a / (at_c - at_a) * at_b / (at_c - at_b)
        } else {
            0.5
        };
        share = share.clamp(least, 1.0 - least);
    }
    Some(a)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_zero_is_found_to_the_last_bits_in_few_looks() {
        type Case<'a> = (&'a dyn Fn(f64) -> f64, f64, f64, f64);
        let cases: [Case<'_>; 4] = [
            (&|x| x * x - 2.0, 0.0, 2.0, std::f64::consts::SQRT_2),
            (&|x| 1e6 - 1.0 / x, 1e-9, 10.0, 1e-6),
            (&|x| (x - 0.3).tan(), -1.0, 1.5, 0.3),
            (&|x: f64| x.powi(9) - 1e-9, 0.0, 4.0, 0.1),
        ];
        for (value, low, high, place) in cases {
            let mut looks = 0;
            let found = zero(low, high, 0.0, |x| {
                looks += 1;
                value(x)
            })
            .expect("it changes its sign");
            assert!((found - place).abs() <= 1e-14 * place.abs().max(1e-2), "{found} for {place}");
            assert!(looks < 60, "{looks} looks for {place}");
        }
    }

    #[test]
    fn a_value_of_one_sign_has_no_zero_and_one_at_an_end_is_found() {
        assert_eq!(zero(0.1, 3.0, 0.0, |x| -1.0 / x), None);
        assert_eq!(zero(0.1, 3.0, 0.0, |x| x), None);
        assert_eq!(zero(0.0, 3.0, 0.0, |x| x), Some(0.0));
        assert_eq!(zero(-3.0, 0.0, 0.0, |x| x), Some(0.0));
    }

    #[test]
    fn both_find_the_place() {
        for place in [0.013, 0.2, 0.5, 0.799_999, 0.999] {
            assert!((end_of(0.0, 1.0, ALL, |x| x < place) - place).abs() < 1e-12);
            assert!((begin_of(0.0, 1.0, 20, |all| all.map(|x| x >= place)) - place).abs() < 1e-12);
        }
    }
}
