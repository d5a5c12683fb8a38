//! Plane polygons, counter-clockwise.

/// Area of a polygon, m2; negative where it runs clockwise.
pub fn area(points: &[[f64; 2]]) -> f64 {
    pairs(points).map(|(a, b)| a[0] * b[1] - a[1] * b[0]).sum::<f64>() / 2.0
}

/// Each corner with the next, round to the first.
pub(super) fn pairs(points: &[[f64; 2]]) -> impl Iterator<Item = ([f64; 2], [f64; 2])> + '_ {
    points.iter().copied().zip(points.iter().copied().cycle().skip(1))
}

/// What lies on the side of a line where `normal . p <= limit`. Of a polygon that the line leaves in several pieces
/// these hang together by edges without width, which its area does not see.
pub(super) fn clipped(points: &[[f64; 2]], normal: [f64; 2], limit: f64) -> Vec<[f64; 2]> {
    let beyond = |p: [f64; 2]| normal[0] * p[0] + normal[1] * p[1] - limit;
    let mut kept = Vec::with_capacity(points.len() + 2);
    for (a, b) in pairs(points) {
        let (da, db) = (beyond(a), beyond(b));
        if da <= 0.0 {
            kept.push(a);
        }
        if (da < 0.0 && db > 0.0) || (da > 0.0 && db < 0.0) {
            let part = da / (da - db);
            kept.push([a[0] + part * (b[0] - a[0]), a[1] + part * (b[1] - a[1])]);
        }
    }
    kept
}

/// How long a line across a polygon runs inside it, where coordinate `fixed` is `at`, m.
pub(super) fn chord(points: &[[f64; 2]], fixed: usize, at: f64) -> f64 {
    let mut crossings: Vec<f64> = pairs(points)
        .filter(|(a, b)| (a[fixed] <= at) != (b[fixed] <= at))
        .map(|(a, b)| {
            let part = (at - a[fixed]) / (b[fixed] - a[fixed]);
            a[1 - fixed] + part * (b[1 - fixed] - a[1 - fixed])
        })
        .collect();
    crossings.sort_by(f64::total_cmp);
    crossings.chunks_exact(2).map(|pair| pair[1] - pair[0]).sum()
}

/// Whether a point lies inside.
pub(super) fn holds(points: &[[f64; 2]], [x, y]: [f64; 2]) -> bool {
    pairs(points)
        .filter(|(a, b)| (a[1] <= y) != (b[1] <= y))
        .filter(|(a, b)| x < a[0] + (y - a[1]) / (b[1] - a[1]) * (b[0] - a[0]))
        .count()
        % 2
        == 1
}
