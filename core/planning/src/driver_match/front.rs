//! Which of many are beaten in nothing.

/// Positions of those points that no other equals or betters in every coordinate and betters in one (the Pareto front); less is
/// better in all of them. In the order given.
pub fn front<const N: usize>(points: &[[f64; N]]) -> Vec<usize> {
    // Sorted, a point can only be beaten by one before it.
    let mut order: Vec<usize> = (0..points.len()).collect();
    order.sort_by(|a, b| {
        let (a, b) = (&points[*a], &points[*b]);
        a.iter()
            .zip(b)
            .map(|(a, b)| a.total_cmp(b))
            .find(|order| order.is_ne())
            .unwrap_or(std::cmp::Ordering::Equal)
    });
    let mut kept: Vec<usize> = Vec::new();
    for at in order {
        let beaten = kept.iter().any(|other| {
            let pair = || points[*other].iter().zip(&points[at]);
            pair().all(|(other, this)| other <= this) && pair().any(|(other, this)| other < this)
        });
        if !beaten {
            kept.push(at);
        }
    }
    kept.sort_unstable();
    kept
}
