//! Standing waves of a room.

use std::f64::consts::PI;

use crate::geometry::{Axis, EnclosureShape, Point, Solid, dot, length, minus};

/// What drives or hears a standing wave: a cone, the inner end of a port.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Opening {
    /// Its middle, m.
    pub at: Point,
    /// Direction it faces.
    pub normal: Point,
    /// Radius of a disc of its area, m.
    pub radius: f64,
}

impl Opening {
    /// A disc of an area (m2) at a place, facing along a normal.
    pub fn disc(at: Point, normal: Point, area: f64) -> Self {
        Self { at, normal, radius: (area / PI).sqrt() }
    }
}

/// How the pressure of a standing wave is spread.
#[derive(Debug, Clone, PartialEq)]
pub enum Spread {
    /// A product of cosines from a corner of a box.
    Cosines {
        /// The corner, m.
        corner: Point,
        /// Wave numbers, rad/m.
        numbers: [f64; 3],
    },
    /// Along one axis, equal across it.
    Along {
        /// Which.
        axis: Axis,
        /// Where the room begins and ends, m.
        span: [f64; 2],
        /// Pressure at as many even steps, 1 at most.
        values: Vec<f64>,
    },
}

/// A standing wave.
#[derive(Debug, Clone, PartialEq)]
pub struct Mode {
    /// Hz.
    pub frequency: f64,
    /// Half waves across, up and forward.
    pub order: [u32; 3],
    /// Its shape.
    pub spread: Spread,
}

impl Mode {
    /// Pressure at a place, -1 to 1.
    pub fn pressure(&self, at: Point) -> f64 {
        match &self.spread {
            Spread::Cosines { corner, numbers } => {
                (0..3).map(|k| (numbers[k] * (at[k] - corner[k])).cos()).product()
            }
            Spread::Along { axis, span: [from, to], values } => {
                let steps = values.len() - 1;
                let place = ((at[axis.index()] - from) / (to - from)).clamp(0.0, 1.0) * steps as f64;
                let below = (place as usize).min(steps - 1);
                let part = place - below as f64;
                values[below] * (1.0 - part) + values[below + 1] * part
            }
        }
    }

    /// How firmly an opening holds it, -1 to 1: its pressure averaged over the opening. The mean of a plane wave over a disc is
    /// its value in the middle times `2 J1(x)/x`, x the wave number along the disc times the radius.
    pub fn coupling(&self, opening: &Opening) -> f64 {
        let along = match &self.spread {
            Spread::Cosines { numbers, .. } => {
                let through = dot(*numbers, opening.normal.map(f64::abs));
                (dot(*numbers, *numbers) - through * through).max(0.0).sqrt()
            }
            Spread::Along { axis, span, .. } => {
                let number = PI * f64::from(self.order[axis.index()]) / (span[1] - span[0]);
                number * (1.0 - opening.normal[axis.index()].powi(2)).max(0.0).sqrt()
            }
        };
        let x = along * opening.radius;
        let share = if x < 1e-6 { 1.0 } else { 2.0 * libm::j1(x) / x };
        self.pressure(opening.at) * share
    }

    /// How many axes it moves along.
    pub fn axes(&self) -> usize {
        self.order.iter().filter(|order| **order > 0).count()
    }
}

/// Standing waves of a room up to a frequency (Hz), the lowest first. A box has them in closed form,
/// `f = c/2 sqrt((l/Lx)^2 + (m/Ly)^2 + (n/Lz)^2)`; of any other shape those along its three axes, from its
/// cross-section there.
pub fn standing_waves(interior: &Solid, plain: bool, speed: f64, highest: f64) -> Vec<Mode> {
    let mut modes =
        if plain { cosines(interior, speed, highest) } else { along_axes(interior, speed, highest) };
    modes.sort_by(|a, b| a.frequency.total_cmp(&b.frequency));
    modes
}

fn cosines(interior: &Solid, speed: f64, highest: f64) -> Vec<Mode> {
    let [corner, far] = interior.bounds();
    let size = minus(far, corner);
    let most = size.map(|side| (2.0 * highest * side / speed) as u32);
    let mut modes = Vec::new();
    for l in 0..=most[0] {
        for m in 0..=most[1] {
            for n in 0..=most[2] {
                let order = [l, m, n];
                let numbers = [0, 1, 2].map(|k| PI * f64::from(order[k]) / size[k]);
                let frequency = speed * length(numbers) / (2.0 * PI);
                if l + m + n > 0 && frequency <= highest {
                    modes.push(Mode { frequency, order, spread: Spread::Cosines { corner, numbers } });
                }
            }
        }
    }
    modes
}

/// Pieces that a room is cut into along an axis.
const CUTS: usize = 96;
/// Half waves that are looked for along one axis.
const MOST: u32 = 6;

fn along_axes(interior: &Solid, speed: f64, highest: f64) -> Vec<Mode> {
    let [low, high] = interior.bounds();
    let mut modes = Vec::new();
    for axis in Axis::ALL {
        let k = axis.index();
        let span = [low[k], high[k]];
        let step = (span[1] - span[0]) / CUTS as f64;
        let areas: Vec<f64> =
            (0..CUTS).map(|cut| interior.area_at(axis, span[0] + (cut as f64 + 0.5) * step)).collect();
        let horn = Horn::new(&areas, step);
        for half_waves in 1..=MOST {
            let number = horn.number(half_waves as usize);
            let frequency = speed * number / (2.0 * PI);
            if frequency > highest {
                break;
            }
            let mut order = [0; 3];
            order[k] = half_waves;
            let values = horn.shape(number);
            modes.push(Mode { frequency, order, spread: Spread::Along { axis, span, values } });
        }
    }
    modes
}

/// Webster's equation between closed ends, in pieces: `-(S p')' = k^2 S p`.
struct Horn {
    /// Between neighbours, m.
    links: Vec<f64>,
    /// Of each node, m3.
    masses: Vec<f64>,
}

impl Horn {
    fn new(areas: &[f64], step: f64) -> Self {
        let links: Vec<_> = areas.iter().map(|area| area.max(1e-9) / step).collect();
        let node = |index: usize| {
            let before = if index > 0 { areas[index - 1] } else { 0.0 };
            let after = areas.get(index).copied().unwrap_or(0.0);
            (before + after).max(2e-9) * step / 2.0
        };
        Self { masses: (0..=areas.len()).map(node).collect(), links }
    }

    /// How many eigenvalues lie below a square of a wave number: sign changes of the Sturm sequence.
    fn below(&self, square: f64) -> usize {
        let mut count = 0;
        let mut last = 0.0;
        for (index, mass) in self.masses.iter().enumerate() {
            let before = if index > 0 { self.links[index - 1] } else { 0.0 };
            let after = self.links.get(index).copied().unwrap_or(0.0);
            let eaten = if index > 0 { before * before / last } else { 0.0 };
            last = before + after - square * mass - eaten;
            if last == 0.0 {
                last = -1e-300;
            }
            count += usize::from(last < 0.0);
        }
        count
    }

    /// The n-th wave number above the even pressure, rad/m.
    fn number(&self, nth: usize) -> f64 {
        // No wave of more half waves than nodes is looked for, so the largest that the pieces can have bounds all.
        let stiffest = self.links.iter().fold(0.0, |most: f64, link| most.max(*link));
        let lightest = self.masses.iter().fold(f64::INFINITY, |least, mass| least.min(*mass));
        let [mut low, mut high] = [0.0, 4.0 * stiffest / lightest];
        for _ in 0..100 {
            let middle = f64::midpoint(low, high);
            if self.below(middle) > nth { high = middle } else { low = middle }
        }
        high.sqrt()
    }

    /// Pressure at the nodes at a wave number, 1 at most.
    fn shape(&self, number: f64) -> Vec<f64> {
        let mut values = vec![1.0];
        let mut flow = 0.0;
        for (index, link) in self.links.iter().enumerate() {
            flow += number * number * self.masses[index] * values[index];
            values.push(values[index] - flow / link);
        }
        let most = values.iter().fold(0.0_f64, |most, value| most.max(value.abs()));
        values.iter().map(|value| value / most).collect()
    }
}

/// Pairs of standing waves along two axes that fall together within a share of their frequency.
pub fn coinciding(modes: &[Mode], within: f64) -> Vec<[usize; 2]> {
    let first = |mode: &Mode| mode.axes() == 1 && mode.order.iter().sum::<u32>() == 1;
    let firsts: Vec<usize> = (0..modes.len()).filter(|index| first(&modes[*index])).collect();
    let mut pairs = Vec::new();
    for (nth, a) in firsts.iter().enumerate() {
        for b in &firsts[nth + 1..] {
            let [low, high] = [modes[*a].frequency, modes[*b].frequency];
            if (high - low).abs() < within * low {
                pairs.push([*a, *b]);
            }
        }
    }
    pairs
}

/// How thick a layer on a wall must be to reach where the air of a wave moves most, m: a quarter of it.
pub fn quarter_wave(frequency: f64, speed: f64) -> f64 {
    speed / (4.0 * frequency)
}

/// Whether a shape's standing waves are those of a plain box.
pub fn plain(shape: &EnclosureShape) -> bool {
    // Round edges take a little of the corners only.
    matches!(shape, EnclosureShape::Rectangular | EnclosureShape::Rounded { .. })
}
