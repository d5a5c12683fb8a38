//! The continuous values of each family that is searched, as an optimiser sees them: logarithms, each with its bounds.

use std::f64::consts::PI;

use oak_acoustics::driver::Driver;
use oak_acoustics::element::End;
use oak_acoustics::enclosure::{Bandpass4, Enclosure, Losses, PassiveRadiator, Port, Ported, Sealed};
use oak_acoustics::medium::Air;
use oak_acoustics::starting_point::{opposed, port, tapered};
use oak_design::file::RawFamily;

/// A family with values to tune.
#[derive(Debug)]
pub(super) struct TunableFamily {
    /// Which.
    pub family: RawFamily,
    /// Lowest and highest of each value.
    bounds: fn(&Around) -> Vec<[f64; 2]>,
    /// How many values are tried of each before the optimiser begins.
    pub steps: &'static [usize],
    /// How often the optimiser may look, each of the three times.
    pub looks: usize,
    /// The cabinet of given values, ports of known length.
    build: fn(&Around, &[f64]) -> Enclosure,
}

/// What bounds and cabinets depend on.
#[derive(Debug, Clone, Copy)]
pub(super) struct Around {
    /// All drivers as one.
    pub driver: Driver,
    /// How many there are.
    pub count: u32,
    /// The air.
    pub air: Air,
    /// Lowest note, Hz.
    pub lowest: f64,
    /// Most air in the cabinet with its ports, m3.
    pub room: f64,
}

/// One for each family that is searched.
pub(super) static SHAPES: [TunableFamily; 5] = [
    TunableFamily {
        family: RawFamily::Sealed,
        bounds: |around| vec![around.volumes(1.0)],
        steps: &[16],
        looks: 7,
        build: |_, x| Enclosure::Sealed(Sealed { volume: x[0], losses: Losses::CLOSED }),
    },
    TunableFamily {
        family: RawFamily::Ported,
        bounds: |around| vec![around.volumes(1.0), around.tunings(0.55, 1.8), around.areas()],
        steps: &[5, 7, 1],
        looks: 38,
        build: |around, x| Enclosure::Ported(around.ported(x[0], x[1], x[2])),
    },
    TunableFamily {
        family: RawFamily::PassiveRadiator,
        bounds: |around| vec![around.volumes(1.0), around.tunings(0.5, 1.8)],
        steps: &[5, 7],
        looks: 16,
        build: |around, x| {
            let [volume, tuning] = [x[0], x[1]];
            let count = (2 * around.count).min(4);
            let radiator = opposed(&around.driver, &around.air, volume, tuning, count);
            Enclosure::PassiveRadiator(PassiveRadiator { volume, losses: Losses::USUAL, radiator })
        },
    },
    TunableFamily {
        family: RawFamily::Bandpass4,
        bounds: |around| {
            vec![around.volumes(0.8), around.volumes(0.8), around.tunings(1.0, 4.0), around.areas()]
        },
        steps: &[3, 3, 4, 1],
        looks: 26,
        build: |around, x| {
            let rear = Sealed { volume: x[0], losses: Losses::CLOSED };
            Enclosure::Bandpass4(Bandpass4 { rear, front: around.ported(x[1], x[2], x[3]) })
        },
    },
    TunableFamily {
        family: RawFamily::Line,
        bounds: |around| {
            let quarter = around.air.speed / (4.0 * around.lowest);
            vec![[(0.5 * quarter).ln(), (1.3 * quarter).min(8.0).ln()], [0.4f64.ln(), 1.8f64.ln()]]
        },
        steps: &[3, 2],
        looks: 7,
        build: |around, x| Enclosure::Line(tapered(x[1] * around.driver.sd, x[0])),
    },
];

/// How far from its bounds a value is tried first, as a part of the way between them.
const INSET: f64 = 0.04;

impl TunableFamily {
    pub fn bounds(&self, around: &Around) -> Vec<[f64; 2]> {
        (self.bounds)(around)
    }

    /// The cabinet of logarithms.
    pub fn build(&self, around: &Around, logarithms: &[f64]) -> Enclosure {
        let values: Vec<f64> = logarithms.iter().map(|x| x.exp()).collect();
        (self.build)(around, &values)
    }

    /// Evenly spaced values of each, all of them with all others.
    pub fn grid(&self, around: &Around) -> Vec<Vec<f64>> {
        let bounds = self.bounds(around);
        let mut points = vec![Vec::new()];
        for ([low, high], &steps) in bounds.into_iter().zip(self.steps) {
            // The upper end of a volume is most often the best.
            let share = |k: usize| if steps > 1 { k as f64 / (steps - 1) as f64 } else { 0.5 };
            let values = (0..steps).map(|k| low + (high - low) * (INSET + (1.0 - 2.0 * INSET) * share(k)));
            points = values
                .flat_map(|value| {
                    points.iter().map(move |point| [point.as_slice(), &[value]].concat()).collect::<Vec<_>>()
                })
                .collect();
        }
        points
    }
}

impl Around {
    /// Volumes from a small part of Vas to a few times it, within the room or a part of it.
    fn volumes(&self, part: f64) -> [f64; 2] {
        let vas = self.driver.vas(&self.air);
        let most = (4.0 * vas).min(part * self.room);
        [(0.04 * vas).min(0.3 * most).ln(), most.ln()]
    }

    fn tunings(&self, low: f64, high: f64) -> [f64; 2] {
        [(low * self.lowest.min(self.driver.fs())).ln(), (high * self.lowest.max(self.driver.fs())).ln()]
    }

    /// Areas from one that only hisses to half of the cone.
    fn areas(&self) -> [f64; 2] {
        let least = (0.25 * PI * 0.02f64.powi(2)).max(port::LEAST * self.driver.sd);
        [least.ln(), (0.5 * self.driver.sd).max(1.5 * least).ln()]
    }

    /// A chamber with a round port of an area (m2), as long as Helmholtz's formula has it for a tuning (Hz). Where that is
    /// none at all, it has the least length that counts; so every value has a cabinet.
    fn ported(&self, volume: f64, tuning: f64, area: f64) -> Ported {
        let length = port_length(volume, tuning, area, &self.air).max(SHORTEST);
        Ported { volume, losses: Losses::USUAL, ports: vec![round(area, length)], tuning: None }
    }
}

/// Shortest pipe that is still one and not a hole, m.
pub(super) const SHORTEST: f64 = 0.02;

fn round(area: f64, length: f64) -> Port {
    port::round((4.0 * area / PI).sqrt(), Some(length))
}

/// Length (m) that tunes a volume (m3) by a port of an area (m2) to a frequency (Hz); negative where there is none.
fn port_length(volume: f64, tuning: f64, area: f64, air: &Air) -> f64 {
    let omega = 2.0 * PI * tuning;
    let ends = End::Free.length_correction(area) + End::Flanged.length_correction(area);
    area * air.speed.powi(2) / (volume * omega * omega) - ends
}
