//! What is mounted in a box, and the room it takes.

use serde::Serialize;
use utoipa::ToSchema;

use crate::body::Opening;
use crate::geometry::{Face, Point, Solid, bounds};

/// What a part is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum PartKind {
    /// A driver.
    Driver,
    /// A port.
    Port,
    /// A passive radiator.
    Radiator,
    /// Something of its own size.
    Item,
    /// A brace.
    Brace,
    /// The board between two chambers.
    Partition,
    /// A board between two channels of a way, with what fills the corners of its turn.
    Fold,
    /// The board that closes the last channel of a way on its outer side.
    Closing,
    /// The board that ends a chamber shorter than the channels of its way.
    ChamberEnd,
    /// Where a way opens.
    Mouth,
    /// Square strips along the inside edges.
    Strip,
}

impl PartKind {
    /// Whether it is a board inside the box.
    pub fn is_panel(self) -> bool {
        matches!(
            self,
            Self::Brace | Self::Partition | Self::Fold | Self::Closing | Self::ChamberEnd | Self::Strip
        )
    }
}

/// A simple piece of space, m.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
#[serde(tag = "shape", rename_all = "snake_case")]
pub enum Piece {
    /// A round rod, straight or tapering.
    Rod {
        /// Middle of one end.
        #[schema(value_type = [f64; 3])]
        from: Point,
        /// Middle of the other.
        #[schema(value_type = [f64; 3])]
        to: Point,
        /// Its radius at either end.
        radii: [f64; 2],
    },
    /// A block along the axes.
    Block {
        /// Its lowest corner.
        #[schema(value_type = [f64; 3])]
        low: Point,
        /// Its highest corner.
        #[schema(value_type = [f64; 3])]
        high: Point,
    },
    /// A body between two equal outlines.
    Prism {
        /// One.
        #[schema(value_type = Vec<[f64; 3]>)]
        near: Vec<Point>,
        /// The other.
        #[schema(value_type = Vec<[f64; 3]>)]
        far: Vec<Point>,
    },
}

/// Something mounted.
#[derive(Debug, Clone, PartialEq)]
pub struct Part {
    /// What it is.
    pub kind: PartKind,
    /// Which of its kind, in the order of the design, from 0; equal ones share it.
    pub index: usize,
    /// In which chamber: 0 behind the drivers, 1 before them.
    pub chamber: usize,
    /// In which face; of a brace or partition none.
    pub face: Option<Face>,
    /// Middle of its opening on the outer side, in that face's coordinates, m.
    pub at: [f64; 2],
    /// The room it takes, beyond the board it sits in.
    pub pieces: Vec<Piece>,
    /// Middle line of a port, from its mouth inward.
    pub path: Vec<Point>,
    /// Wall of a port, m.
    pub wall: f64,
    /// What is cut out of its board for it, where that is no driver, radiator or port.
    pub opening: Option<Opening>,
    /// Its own name.
    pub label: Option<String>,
}

impl Part {
    /// One with no place yet.
    pub(crate) fn of(kind: PartKind, index: usize, chamber: usize) -> Self {
        Self {
            kind,
            index,
            chamber,
            face: None,
            at: [0.0; 2],
            pieces: Vec::new(),
            path: Vec::new(),
            wall: 0.0,
            opening: None,
            label: None,
        }
    }

    /// What to call it.
    pub fn name(&self) -> String {
        if let Some(label) = &self.label {
            return label.to_lowercase();
        }
        let number =
            |word: &str| if self.index > 0 { format!("{word} {}", self.index + 1) } else { word.to_owned() };
        match (self.kind, self.chamber) {
            (PartKind::Driver, _) => "driver".to_owned(),
            (PartKind::Port, 1) => number("front port"),
            (PartKind::Port, _) => number("port"),
            (PartKind::Radiator, _) => "radiator".to_owned(),
            (PartKind::Brace, _) => number("brace"),
            (PartKind::Item, _) => number("item"),
            (PartKind::Partition, _) => "partition".to_owned(),
            (PartKind::Fold, _) => format!("fold board {}", self.index + 1),
            (PartKind::Closing, _) => "closing board".to_owned(),
            (PartKind::ChamberEnd, _) => "end board of the chamber".to_owned(),
            (PartKind::Mouth, _) => "mouth".to_owned(),
            (PartKind::Strip, _) => "corner strips".to_owned(),
        }
    }
}

impl Piece {
    /// Smallest and largest coordinates, m.
    pub fn bounds(&self) -> [Point; 2] {
        match self {
            Self::Block { low, high } => [*low, *high],
            Self::Prism { near, far } => bounds(near.iter().chain(far).copied()),
            &Self::Rod { from, to, radii } => {
                let far = (0..3).map(|k| (to[k] - from[k]).powi(2)).sum::<f64>().sqrt().max(1e-12);
                // A disc reaches as far along an axis as its tilt lets it.
                let tilt = [0, 1, 2].map(|k| (1.0 - ((to[k] - from[k]) / far).powi(2)).max(0.0).sqrt());
                let [near, end] = radii.map(|radius| tilt.map(|tilt| tilt * radius));
                [
                    [0, 1, 2].map(|k| (from[k] - near[k]).min(to[k] - end[k])),
                    [0, 1, 2].map(|k| (from[k] + near[k]).max(to[k] + end[k])),
                ]
            }
        }
    }
}

/// How far one gets from a place in a direction before the room ends, m.
pub fn clear(interior: &Solid, from: Point, direction: Point) -> f64 {
    const STEP: f64 = 2e-3;
    const FAR: usize = 5000;
    let at = |far: f64| [0, 1, 2].map(|k| from[k] + far * direction[k]);
    let Some(last) = (1..FAR).find(|step| !interior.holds(at(*step as f64 * STEP))) else {
        return FAR as f64 * STEP;
    };
    let [mut low, mut high] = [(last - 1) as f64 * STEP, last as f64 * STEP];
    for _ in 0..20 {
        let middle = f64::midpoint(low, high);
        if interior.holds(at(middle)) { low = middle } else { high = middle }
    }
    low
}
