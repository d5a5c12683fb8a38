//! How the cross-section of a line or horn changes along its way.

mod flare;

pub use flare::{Flare, FlareError};

use crate::element::Slice;
use crate::medium::{Air, Fill};

/// A stretch of one kind of flare.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Segment {
    /// How the area changes.
    pub flare: Flare,
    /// Length along the way, m.
    pub length: f64,
    /// Area where it begins, m2.
    pub start: f64,
    /// Area where it ends, m2.
    pub end: f64,
    /// Width of a rectangular section, m; `None` is round.
    pub width: Option<f64>,
    /// What fills it.
    pub fill: Option<Fill>,
}

/// Segments one after the other.
#[derive(Debug, Clone, PartialEq)]
pub struct Profile {
    /// In the order of the way.
    pub segments: Vec<Segment>,
}

/// Slices of a whole profile, spread over its segments by their length.
const SLICES: f64 = 64.0;
/// Fewest slices of a segment that is not straight-sided.
const FEWEST: f64 = 8.0;
/// By how much the logarithm of the area may change within a slice of a straight-sided segment without fill: its wall losses
/// are those of its middle, which leaves out a few thousandths of them.
const WIDENING: f64 = 0.1;

impl Profile {
    /// Length of the whole way, m.
    pub fn length(&self) -> f64 {
        self.segments.iter().map(|segment| segment.length).sum()
    }

    /// Area where it begins, m2.
    pub fn start(&self) -> f64 {
        self.segments.first().map_or(0.0, |segment| segment.start)
    }

    /// Area where it ends, m2.
    pub fn end(&self) -> f64 {
        self.segments.last().map_or(0.0, |segment| segment.end)
    }

    /// Volume of air in it, m3.
    pub fn volume(&self) -> f64 {
        self.slices(0.0, self.length()).iter().map(Slice::volume).sum()
    }

    /// Checks that every segment can be shaped.
    ///
    /// # Errors
    /// The first segment that cannot, by position.
    pub fn check(&self) -> Result<(), (usize, FlareError)> {
        for (index, segment) in self.segments.iter().enumerate() {
            segment
                .flare
                .check(segment.length, segment.start, segment.end)
                .map_err(|error| (index, error))?;
        }
        Ok(())
    }

    /// The part between two places along the way (m), cut into short straight-sided slices.
    pub fn slices(&self, from: f64, to: f64) -> Vec<Slice> {
        let whole = self.length();
        let mut slices = Vec::new();
        let mut begins = 0.0;
        for segment in &self.segments {
            let (near, far) = ((from - begins).max(0.0), (to - begins).min(segment.length));
            if far - near > 1e-9 * whole {
                segment.cut(near, far, whole, &mut slices);
            }
            begins += segment.length;
        }
        slices
    }

    /// Area at a place along the way (m), m2.
    pub fn area_at(&self, x: f64) -> f64 {
        let mut begins = 0.0;
        for segment in &self.segments {
            if x <= begins + segment.length {
                return segment.area_at(x - begins);
            }
            begins += segment.length;
        }
        self.end()
    }
}

impl Segment {
    /// Area at a place along the segment (m), m2.
    pub fn area_at(&self, x: f64) -> f64 {
        self.flare.curve(self.length, self.start, self.end).area_at(x)
    }

    fn cut(&self, near: f64, far: f64, whole: f64, slices: &mut Vec<Slice>) {
        let curve = self.flare.curve(self.length, self.start, self.end);
        let share = (SLICES * (far - near) / whole).ceil();
        let mut start = curve.area_at(near);
        // A slice is exact but for its wall losses, which fill takes the place of.
        let count = match (self.flare, self.fill) {
            (Flare::Conical, Some(_)) => 1.0,
            (Flare::Conical, None) => {
                ((curve.area_at(far) / start).ln().abs() / WIDENING).ceil().clamp(1.0, SLICES)
            }
            _ => share.max(FEWEST * (far - near) / self.length).ceil(),
        };
        let step = (far - near) / count;
        for k in 1..=count as usize {
            let end = curve.area_at(near + step * k as f64);
            slices.push(Slice { length: step, start, end, width: self.width, fill: self.fill });
            start = end;
        }
    }
}

impl Slice {
    /// Volume, m3.
    pub fn volume(&self) -> f64 {
        self.length * (self.start + (self.start * self.end).sqrt() + self.end) / 3.0
    }
}

/// Frequency below which a flare lets little through: `m c/(4 pi)` for an exponential one, where `m` is its
/// rate of growth over its length (Webster 1919; Olson 1947).
pub fn cutoff(length: f64, start: f64, end: f64, air: &Air) -> f64 {
    (end / start).ln() / length * air.speed / (4.0 * std::f64::consts::PI)
}
