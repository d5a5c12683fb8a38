//! What stands side by side, and how far apart.

use crate::contents::DriverSize;
use crate::geometry::Point;
use crate::part::Piece;

/// Between two things in one board, m (common practice).
pub(super) const BETWEEN: f64 = 0.012;

/// The middle of a row of ports beside or below the drivers, in their face.
pub(super) type Row = [f64; 2];

/// Basket and magnet of each driver at one place, as far as they lie behind the board.
pub(super) fn rods(drivers: &DriverSize, board: f64, at: impl Fn(f64) -> Point) -> Vec<Piece> {
    let second = drivers.second().map(|far| (far, 0.0));
    let rods = |(behind, board): (f64, f64)| {
        let at = &at;
        let rod = move |([from, to], radii): ([f64; 2], [f64; 2])| Piece::Rod {
            from: at(behind + from),
            to: at(behind + to),
            radii,
        };
        drivers.rods(board).into_iter().map(rod)
    };
    std::iter::once((0.0, board)).chain(second).flat_map(rods).collect()
}
