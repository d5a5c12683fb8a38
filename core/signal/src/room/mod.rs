//! A rectangular room: its modes, and what of a source arrives at a seat.

mod modes;
mod transfer;

pub use modes::{Mode, ModeKind};
pub use transfer::{NEAREST, Transfers};

use oak_acoustics::medium::Air;

/// A rectangular room with locally reacting walls. Its corner is the origin.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Room {
    /// Inside, m.
    pub size: [f64; 3],
    /// Random-incidence absorption of the two walls across each axis, the one at the origin first: 0.01 to 0.3.
    pub absorption: [[f64; 2]; 3],
    /// Corner of a leak, Hz: below it the pressure of a small room falls again.
    pub leak: f64,
    /// The air.
    pub air: Air,
}

impl Room {
    /// All walls alike, and no leak.
    pub fn even(size: [f64; 3], absorption: f64, air: Air) -> Self {
        Self { size, absorption: [[absorption; 2]; 3], leak: 0.0, air }
    }

    /// m3.
    pub fn volume(&self) -> f64 {
        self.size.iter().product()
    }

    /// Area of all walls, m2.
    pub fn surface(&self) -> f64 {
        let [x, y, z] = self.size;
        2.0 * (x * y + y * z + z * x)
    }

    /// Area times absorption, m2.
    pub fn absorbing_area(&self) -> f64 {
        let area = |axis: usize| self.volume() / self.size[axis];
        (0..3).map(|axis| area(axis) * (self.absorption[axis][0] + self.absorption[axis][1])).sum()
    }

    /// Whether a place is inside.
    pub fn holds(&self, place: [f64; 3]) -> bool {
        place.iter().zip(&self.size).all(|(at, size)| (0.0..=*size).contains(at))
    }

    /// Reverberation time by Sabine, `55.3 V/(c A)`, s; what oblique modes have.
    pub fn reverberation(&self) -> f64 {
        24.0 * std::f64::consts::LN_10 * self.volume() / (self.air.speed * self.absorbing_area())
    }
}
