//! The modes of a rectangular room (Morse and Ingard, Theoretical Acoustics, ch. 9; Kuttruff, Room Acoustics, ch. 3; from memory).

use std::f64::consts::{PI, TAU};

use serde::Serialize;
use utoipa::ToSchema;

use super::Room;

/// Between how many pairs of walls a mode stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ModeKind {
    /// The pressure of the whole room.
    Pressure,
    /// Between two walls.
    Axial,
    /// Between two pairs of walls.
    Tangential,
    /// Between all walls.
    Oblique,
}

/// One mode.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Mode {
    /// Half waves along each axis.
    pub order: [u32; 3],
    /// Hz, without damping.
    pub frequency: f64,
    /// How quickly it dies away: its pressure falls as `exp(-damping t)`, 1/s.
    pub damping: f64,
}

impl Mode {
    /// Time in which it falls by 60 dB, s.
    pub fn decay(&self) -> f64 {
        3.0 * std::f64::consts::LN_10 / self.damping
    }

    /// Between how many pairs of walls it stands.
    pub fn kind(&self) -> ModeKind {
        match self.order.iter().filter(|order| **order > 0).count() {
            0 => ModeKind::Pressure,
            1 => ModeKind::Axial,
            2 => ModeKind::Tangential,
            _ => ModeKind::Oblique,
        }
    }

    /// Angular frequency, rad/s.
    pub fn omega(&self) -> f64 {
        TAU * self.frequency
    }

    /// `e_l e_m e_n`: 1 for no half wave along an axis, else 2.
    pub fn weight(&self) -> f64 {
        self.order.iter().map(|order| if *order == 0 { 1.0 } else { 2.0 }).product()
    }

    /// `cos(l pi x/Lx) cos(m pi y/Ly) cos(n pi z/Lz)` at a place of its room.
    pub fn shape(&self, room: &Room, place: [f64; 3]) -> f64 {
        (0..3).map(|axis| (f64::from(self.order[axis]) * PI * place[axis] / room.size[axis]).cos()).product()
    }
}

impl Room {
    /// A mode by its half waves: `f = (c/2) sqrt(sum (l/L)^2)`, `d = (c/2) sum of e (beta_0 + beta_L)/L` with the admittance `beta = alpha/8` of
    /// each wall; a leak adds `pi f_leak` to the pressure of the whole room.
    pub fn mode(&self, order: [u32; 3]) -> Mode {
        let c = self.air.speed;
        let square = |axis: usize| (f64::from(order[axis]) / self.size[axis]).powi(2);
        let frequency = c / 2.0 * (square(0) + square(1) + square(2)).sqrt();
        let walls = |axis: usize| {
            let weight = if order[axis] == 0 { 1.0 } else { 2.0 };
            weight * (self.absorption[axis][0] + self.absorption[axis][1]) / 8.0 / self.size[axis]
        };
        let leak = if order == [0; 3] { PI * self.leak } else { 0.0 };
        Mode { order, frequency, damping: c / 2.0 * (walls(0) + walls(1) + walls(2)) + leak }
    }

    /// Every mode up to a frequency (Hz), from low to high.
    pub fn modes(&self, up_to: f64) -> Vec<Mode> {
        let mut modes = self.unsorted_modes(up_to);
        modes.sort_by(|a, b| a.frequency.total_cmp(&b.frequency));
        modes
    }

    pub(super) fn unsorted_modes(&self, up_to: f64) -> Vec<Mode> {
        // In half waves a metre.
        let most = 2.0 * up_to / self.air.speed;
        let mut modes = Vec::new();
        let highest = |left: f64, axis: usize| (left.max(0.0).sqrt() * self.size[axis]).floor() as u32;
        for l in 0..=highest(most * most, 0) {
            let left = most * most - (f64::from(l) / self.size[0]).powi(2);
            for m in 0..=highest(left, 1) {
                let left = left - (f64::from(m) / self.size[1]).powi(2);
                modes.extend((0..=highest(left, 2)).map(|n| self.mode([l, m, n])));
            }
        }
        modes
    }
}
