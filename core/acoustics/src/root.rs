//! Where something changes along a line, by halving.

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
