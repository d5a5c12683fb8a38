//! A face of a box as something is mounted in it.

use crate::cabinet::Cabinet;
use crate::geometry::{Face, Frame, dot, minus};

/// A face outside and the same one inside, in the outer one's coordinates: where it begins and ends, m.
pub(crate) struct MountingFace {
    pub frame: Frame,
    pub low: [f64; 2],
    pub high: [f64; 2],
    /// How deep its inner side lies, m.
    pub deep: f64,
}

impl MountingFace {
    pub fn of(cabinet: &Cabinet, face: Face) -> Option<Self> {
        let frame = Frame::of(&cabinet.outer, face)?;
        let inner = Frame::of(&cabinet.interior, face)?;
        let offset = minus(inner.origin, frame.origin);
        let low = [frame.u, frame.v].map(|direction| dot(offset, direction));
        let high = [low[0] + inner.size[0], low[1] + inner.size[1]];
        let deep = -dot(offset, frame.normal);
        Some(Self { frame, low, high, deep })
    }

    /// As one chamber has it: a side of a divided box belongs to both.
    pub fn of_chamber(cabinet: &Cabinet, face: Face, chamber: usize) -> Option<Self> {
        let mut face_plate = Self::of(cabinet, face)?;
        if cabinet.chambers.len() == 1 {
            return Some(face_plate);
        }
        let [low, high] = cabinet.chambers[chamber].interior.bounds();
        let [a, b] = [low, high].map(|corner| face_plate.at(corner));
        face_plate.low = [0, 1].map(|k| face_plate.low[k].max(a[k].min(b[k])));
        face_plate.high = [0, 1].map(|k| face_plate.high[k].min(a[k].max(b[k])));
        Some(face_plate)
    }

    pub fn size(&self, k: usize) -> f64 {
        self.high[k] - self.low[k]
    }

    pub fn middle(&self, k: usize) -> f64 {
        f64::midpoint(self.low[k], self.high[k])
    }
}
