//! Screws, pilot holes, nuts, wire and clamps.

use std::f64::consts::PI;

use oak_cabinetry::panel::Material;

/// A wood screw: diameter of its shank and its length, m.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Screw {
    /// m.
    pub diameter: f64,
    /// m.
    pub length: f64,
}

/// Lengths that wood screws are sold in, m (common practice).
const LENGTHS: [f64; 13] =
    [0.012, 0.016, 0.020, 0.025, 0.030, 0.035, 0.040, 0.045, 0.050, 0.060, 0.070, 0.080, 0.100];

impl Screw {
    /// The longest that is sold up to a length (m); `None` where even the shortest is too long.
    pub fn within(diameter: f64, most: f64) -> Option<Self> {
        let length = LENGTHS.into_iter().rev().find(|length| *length <= most + 1e-9)?;
        Some(Self { diameter, length })
    }

    /// Through a board of a thickness (m) into the edge of another: two and a half times that, so that half as much again as the board is
    /// held (common practice); thinner than a fifth of the edge, so that it does not split.
    pub fn into_edge(thickness: f64) -> Self {
        let diameter = if thickness < 0.0145 { 0.0035 } else { 0.004 };
        let wanted = 2.5 * thickness;
        let length = LENGTHS.into_iter().find(|length| *length >= wanted - 1e-9).unwrap_or(0.1);
        Self { diameter, length }
    }

    /// What to call it.
    pub fn name(&self) -> String {
        format!("{} x {} mm", short(self.diameter * 1e3), short(self.length * 1e3))
    }

    /// The hole that is drilled for it first, m: of its root, two thirds of the shank, 70 % in soft wood and 90 % in hard wood, to the
    /// next half millimetre up. USDA Wood Handbook (FPL-GTR-190), chapter 8, wood screws, from memory; boards of fibres and chips are
    /// taken as hard wood, because they split at the edge.
    pub fn pilot(&self, material: &Material) -> f64 {
        let share = if ["pine_ply", "poplar_ply"].contains(&material.id) { 0.7 } else { 0.9 };
        let root = 2.0 / 3.0 * self.diameter;
        (share * root * 2e3 - 1e-9).ceil() / 2e3
    }
}

/// A number without needless digits.
fn short(value: f64) -> String {
    let rounded = (value * 10.0).round() / 10.0;
    format!("{rounded}")
}

/// A metric thread for a bolt hole of a diameter (m): its diameter, m.
pub fn thread_for(hole: f64) -> f64 {
    let threads = [0.008, 0.006, 0.005, 0.004, 0.003];
    threads.into_iter().find(|thread| thread + 0.0003 <= hole).unwrap_or(0.003)
}

/// The hole for the barrel of a T-nut, and for a threaded insert, of a thread (m), m (common practice; measure yours).
pub fn nut_hole(thread: f64, insert: bool) -> f64 {
    let millimetres = match ((thread * 1e3).round() as u32, insert) {
        (..=3, false) => 4.5,
        (4, false) => 5.5,
        (5, false) => 6.5,
        (6, false) => 8.0,
        (_, false) => 10.0,
        (..=3, true) => 5.0,
        (4, true) => 6.0,
        (5, true) => 8.0,
        (6, true) => 9.0,
        (_, true) => 12.0,
    };
    millimetres * 1e-3
}

/// Across the head of a pan-head screw of a diameter, m: twice it (ISO 7049 and ISO 7045, from memory: 8 mm at 4, 9.5 at 5, 12 at 6 mm).
pub fn head(diameter: f64) -> f64 {
    2.0 * diameter
}

/// Usual number of bolts of a driver of a frame (m) where its sheet says nothing (common practice).
pub fn usual_bolts(frame: f64) -> u32 {
    if frame < 0.19 { 4 } else { 8 }
}

/// A wire of two cores.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Wire {
    /// American wire gauge.
    pub gauge: u32,
    /// Area of one core, m2.
    pub area: f64,
}

impl Wire {
    /// Diameter is 0.127 mm times 92 to the power of (36 - n)/39 (ASTM B258).
    pub fn gauge(gauge: u32) -> Self {
        let diameter = 0.127e-3 * 92f64.powf((36.0 - f64::from(gauge)) / 39.0);
        Self { gauge, area: PI / 4.0 * diameter * diameter }
    }

    /// Resistance of both cores of a length (m), ohm; copper at 20 degC.
    pub fn resistance(&self, length: f64) -> f64 {
        2.0 * length * 1.724e-8 / self.area
    }

    /// For a current (A RMS) through a length (m) into a load (ohm): 12 is usual (common practice); heavier where a fiftieth of the load or 3 A/mm2 is
    /// passed, lighter where 14 is enough for five times the one and twice the other.
    pub fn usual(current: f64, length: f64, load: f64) -> Self {
        let enough = |wire: &Self, [long, strong]: [f64; 2]| {
            wire.resistance(length) * long <= load / 50.0 && current * strong <= 3.0e6 * wire.area
        };
        let light = Self::gauge(14);
        if enough(&light, [5.0, 2.0]) {
            return light;
        }
        let usual = Self::gauge(12);
        if enough(&usual, [1.0, 1.0]) { usual } else { Self::gauge(10) }
    }

    /// Across one core in mm2, as it is sold.
    pub fn square_millimetres(&self) -> f64 {
        let sold = [1.5, 2.5, 4.0, 6.0];
        let own = self.area * 1e6;
        sold.into_iter().min_by(|a, b| (a - own).abs().total_cmp(&(b - own).abs())).unwrap_or(own)
    }
}

/// Width of the spade that a driver of a frame (m) usually takes, mm (common practice: small ones 4.75, others 6.35).
pub fn spade(frame: f64) -> f64 {
    if frame < 0.17 { 4.75 } else { 6.35 }
}

/// Clamps around a board of a perimeter (m): one every 200 mm, four at least, twelve at most at a time (common practice: 8 to 12 of a big box).
pub fn clamps(perimeter: f64) -> u32 {
    ((perimeter / 0.2).ceil() as u32).clamp(4, 12)
}
