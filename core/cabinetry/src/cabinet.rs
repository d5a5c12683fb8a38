//! A box with everything in its place, and what keeps one from being built.

use crate::body::Body;
use crate::finding::Finding;
use crate::fold::Laid;
use crate::geometry::{Axis, EnclosureShapeError, Point, Sizes, Solid};
use crate::ledger::Ledger;
use crate::part::Part;

/// A box with everything in its place.
#[derive(Debug, Clone, PartialEq)]
pub struct Cabinet {
    /// The whole.
    pub outer: Solid,
    /// The room between the boards.
    pub interior: Solid,
    /// Width, height and depth, of what the wish measures, m.
    pub sizes: Sizes,
    /// Which of them were found.
    pub solved: [bool; 3],
    /// The chamber behind the drivers, and the one before them.
    pub chambers: Vec<Chamber>,
    /// Closed off beside a chamber that is shorter than its way's channels.
    pub unused: Option<Solid>,
    /// The way of a line or horn, laid into the last chamber.
    pub fold: Option<Laid>,
    /// What is mounted in it.
    pub parts: Vec<Part>,
    /// What does not fit, and what is near.
    pub findings: Vec<Finding>,
}

/// One room for air.
#[derive(Debug, Clone, PartialEq)]
pub struct Chamber {
    /// Between boards and partition.
    pub interior: Solid,
    /// What is left of it.
    pub ledger: Ledger,
}

/// Why a box cannot be built.
#[derive(Debug, Clone, Copy, PartialEq, thiserror::Error)]
pub enum BuildError {
    /// The shape itself.
    #[error(transparent)]
    EnclosureShape(#[from] EnclosureShapeError),
    /// No sizes give the volume.
    #[error(
        "no size within {least:.2} to {most:.0} m gives the wanted volume; state another, or leave more of them free"
    )]
    NoSize {
        /// Smallest that was tried, m.
        least: f64,
        /// Largest, m.
        most: f64,
    },
    /// A partition has no place that leaves room on both sides.
    #[error("no place for the partition leaves room for what goes into both chambers; make the box larger")]
    NoPartition,
    /// Two chambers in a shape that is cut only across its own axis.
    #[error("a partition for two chambers needs a plain shape: a box, a wedge, a prism or a pipe")]
    NotDivisible,
    /// A way in anything but a plain box.
    #[error("a line or horn is folded between six boards at right angles; choose a plain box")]
    NotFoldable,
    /// Fold boards fill all of it.
    #[error(
        "the boards between the channels leave no path that can be built; make the box larger or the folds fewer"
    )]
    NoFold,
}

impl Cabinet {
    /// The room that a way is laid into.
    pub fn path_interior(&self) -> Option<&Solid> {
        self.fold.as_ref().and(self.chambers.last()).map(|chamber| &chamber.interior)
    }

    /// The board between two chambers: square to which axis, and where it begins and ends along it, m.
    pub(crate) fn partition(&self) -> Option<(Axis, [f64; 2])> {
        let [behind, before] = self.chambers.as_slice() else { return None };
        let ([a, b], [c, d]) = (behind.interior.bounds(), before.interior.bounds());
        Axis::ALL.into_iter().find_map(|axis| {
            let k = axis.index();
            let between = if b[k] <= c[k] { [b[k], c[k]] } else { [d[k], a[k]] };
            (between[0] > a[k].min(c[k]) && between[1] < b[k].max(d[k]) && between[0] <= between[1])
                .then_some((axis, between))
        })
    }

    /// A place of the fold, along run and stack, in space, so far (m) across from the middle.
    pub fn fold_point(&self, body: &Body, at: [f64; 2], across: f64) -> Option<Point> {
        Some(body.fold.point(self.path_interior()?, at, across))
    }
}
