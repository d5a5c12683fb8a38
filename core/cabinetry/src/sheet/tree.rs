//! A sheet and its cuts, as a tree of pieces.

/// A rectangle on a sheet, m.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Rect {
    /// Its lowest corner.
    pub at: [f64; 2],
    /// Width and height.
    pub size: [f64; 2],
}

impl Rect {
    /// m2.
    pub fn area(self) -> f64 {
        self.size[0] * self.size[1]
    }

    /// Whether something so large goes in.
    pub(super) fn holds(self, size: [f64; 2]) -> bool {
        (0..2).all(|k| size[k] <= self.size[k] + SLACK)
    }

    /// What is before and behind a cut across an axis, so far (m) from its lower side.
    pub(super) fn cut(self, axis: usize, far: f64, kerf: f64) -> [Self; 2] {
        let (mut low, mut high) = (self, self);
        low.size[axis] = far;
        high.at[axis] += far + kerf;
        high.size[axis] = (self.size[axis] - far - kerf).max(0.0);
        [low, high]
    }
}

/// Rounding that does not keep a board off a sheet, m.
const SLACK: f64 = 1e-9;

/// Where a board lies.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Laid {
    /// Which board, as a position.
    pub blank: usize,
    /// Where.
    pub rect: Rect,
    /// Whether it is turned by a right angle.
    pub turned: bool,
}

/// A cut through a piece, from one side to the other.
#[derive(Debug, Clone, PartialEq)]
pub struct Split {
    /// Across which axis the saw runs: 0 where it parts left from right.
    pub axis: usize,
    /// How far from the lower side, m: what the fence is set to.
    pub far: f64,
    /// What lies below or left of the cut.
    pub low: Node,
    /// What lies beyond it.
    pub high: Node,
}

/// A piece of a sheet.
#[derive(Debug, Clone, PartialEq)]
pub struct Node {
    /// The piece.
    pub rect: Rect,
    /// What becomes of it.
    pub content: Content,
}

/// What becomes of a piece.
#[derive(Debug, Clone, PartialEq)]
pub enum Content {
    /// It is left.
    Offcut,
    /// It is a board.
    Board {
        /// Which, as a position.
        blank: usize,
        /// Whether it is turned by a right angle.
        turned: bool,
    },
    /// It is cut.
    Cut(Box<Split>),
}

impl Node {
    pub(super) fn offcut(rect: Rect) -> Self {
        Self { rect, content: Content::Offcut }
    }

    /// Boards in it.
    pub fn laid(&self) -> Box<dyn Iterator<Item = Laid> + '_> {
        match &self.content {
            Content::Offcut => Box::new(std::iter::empty()),
            Content::Board { blank, turned } => {
                Box::new(std::iter::once(Laid { blank: *blank, rect: self.rect, turned: *turned }))
            }
            Content::Cut(split) => Box::new(split.low.laid().chain(split.high.laid())),
        }
    }

    /// What is left of it.
    pub fn offcuts(&self) -> Box<dyn Iterator<Item = Rect> + '_> {
        match &self.content {
            Content::Offcut if self.rect.area() > 0.0 => Box::new(std::iter::once(self.rect)),
            Content::Offcut | Content::Board { .. } => Box::new(std::iter::empty()),
            Content::Cut(split) => Box::new(split.low.offcuts().chain(split.high.offcuts())),
        }
    }

    /// Every cut in it, the first ones first, with the piece that it goes through.
    pub fn cuts(&self) -> Vec<(Rect, &Split)> {
        let Content::Cut(split) = &self.content else { return Vec::new() };
        let mut all = vec![(self.rect, split.as_ref())];
        all.extend(split.low.cuts());
        all.extend(split.high.cuts());
        all
    }
}
