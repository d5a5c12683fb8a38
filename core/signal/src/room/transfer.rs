//! What of a source arrives at a seat, as a sum over modes.

use std::f64::consts::{PI, TAU};

use oak_acoustics::Complex;
use rayon::prelude::*;

use super::{Mode, Room};

/// Nearer than this a seat is in the near field of a source, where the sum says nothing, m.
pub const NEAREST: f64 = 0.3;
/// Modes are summed up to this many times the highest frequency, and at least to [`LEAST`].
const SPAN: f64 = 5.0;
/// Hz.
const LEAST: f64 = 600.0;
/// Modes above this many times the highest frequency are summed as powers of frequency, once for all frequencies.
const FAR: f64 = 2.0;
/// As many powers: of `(1/FAR)^2` the eighth is a hundred-thousandth.
const POWERS: usize = 8;
/// Decay of the static field that is taken out of the sum and put back from mirror images, 1/m.
const SCREENING: f64 = 3.2;
/// Mirror images farther than this add less than 1e-8, m.
const FARTHEST_IMAGE: f64 = 5.5;

/// `T = p(seat)/(j w rho U/(2 pi 1 m))`: what the level at 1 m in half space is multiplied with.
#[derive(Debug, Clone, PartialEq)]
pub struct Transfers {
    /// `[sources][seats][n]`.
    pub values: Vec<Vec<Vec<Complex>>>,
}

/// Modes as the sum takes them.
struct Sum<'a> {
    room: &'a Room,
    frequencies: &'a [f64],
    near: Vec<Mode>,
    far: Vec<Mode>,
    /// Square of the highest angular frequency.
    scale: f64,
}

impl Room {
    /// What of each source arrives at each seat at frequencies (Hz): `2 pi (1 m) (c^2/V) sum of e psi(seat) psi(source)/(w_N^2 - w^2 + 2 j w d_N)` with
    /// its static tail taken out, `-1/(w_N^2 + K^2 c^2)` a mode, and put back as `1/2 sum over hard-wall images of exp(-K r)/r`.
    ///
    /// Where the walls of an axis differ, their damping couples modes, which a sum of single modes leaves out: against finite elements
    /// up to 0.9 dB off with absorptions of 0.04 to 0.1, 0.5 dB where they are alike.
    pub fn transfers(&self, sources: &[[f64; 3]], seats: &[[f64; 3]], frequencies: &[f64]) -> Transfers {
        let sum = Sum::of(self, frequencies);
        let seats: Vec<Shapes> = seats.iter().map(|seat| sum.shapes(*seat)).collect();
        // What resonates at each frequency is the same for all pairs.
        let resonances = sum.resonances();
        let of_source = |source: &[f64; 3]| {
            let source = sum.shapes(*source);
            seats.iter().map(|seat| sum.pair(&source, seat, &resonances)).collect()
        };
        Transfers { values: sources.par_iter().map(of_source).collect() }
    }
}

impl Room {
    /// What all sources together give on a level plane at one frequency (Hz): the sum of their strengths times what of each arrives, `[along][across]`
    /// at some places along both axes of the floor (m) and one height (m).
    ///
    /// The same sum as [`Self::transfers`], put together mode by mode for all sources first, so that a plan costs little more than a seat.
    pub fn plane(
        &self,
        sources: &[([f64; 3], Complex)],
        [across, along]: [&[f64]; 2],
        up: f64,
        frequency: f64,
    ) -> Vec<Vec<Complex>> {
        let sum = Sum::of(self, std::slice::from_ref(&frequency));
        let screening = sum.screening();
        let factor = TAU * self.air.speed.powi(2) / self.volume();
        let omega = TAU * frequency;
        let modes = || sum.near.iter().chain(&sum.far);
        let most = |axis: usize| modes().map(|mode| mode.order[axis] as usize).max().unwrap_or(0) + 1;
        let cosines = |axis: usize, place: f64| -> Vec<f64> {
            (0..most(axis)).map(|order| (order as f64 * PI * place / self.size[axis]).cos()).collect()
        };
        let shapes: Vec<[Vec<f64>; 3]> =
            sources.iter().map(|(place, _)| [0, 1, 2].map(|axis| cosines(axis, place[axis]))).collect();
        let height = cosines(2, up);
        // By the half waves across and along.
        let mut flat = vec![vec![Complex::default(); most(1)]; most(0)];
        for mode in modes() {
            let [l, m, n] = mode.order.map(|order| order as usize);
            let square = mode.omega().powi(2);
            let resonance = Complex::new(square - omega * omega, 2.0 * omega * mode.damping).inv();
            let strength = (resonance - (square + screening).recip()) * mode.weight() * height[n];
            let driven: Complex =
                sources.iter().zip(&shapes).map(|((_, by), [x, y, z])| *by * (x[l] * y[m] * z[n])).sum();
            flat[l][m] += driven * strength * factor;
        }
        let x: Vec<Vec<f64>> = across.iter().map(|place| cosines(0, *place)).collect();
        let row = |place: &f64| -> Vec<Complex> {
            let y = cosines(1, *place);
            let by_l: Vec<Complex> =
                flat.iter().map(|row| row.iter().zip(&y).map(|(a, b)| a * *b).sum()).collect();
            let at = |(x, across): (&Vec<f64>, &f64)| {
                let modal: Complex = by_l.iter().zip(x).map(|(a, b)| a * *b).sum();
                let still: Complex =
                    sources.iter().map(|(at, by)| *by * sum.images(*at, [*across, *place, up])).sum();
                modal + still
            };
            x.iter().zip(across).map(at).collect()
        };
        along.par_iter().map(row).collect()
    }
}

/// A place, and how strong each mode is there.
struct Shapes {
    place: [f64; 3],
    near: Vec<f64>,
    far: Vec<f64>,
}

impl<'a> Sum<'a> {
    fn of(room: &'a Room, frequencies: &'a [f64]) -> Self {
        let highest = frequencies.iter().copied().fold(0.0, f64::max);
        let modes = room.unsorted_modes((SPAN * highest).max(LEAST));
        let (near, far) = modes.into_iter().partition(|mode| mode.frequency <= FAR * highest);
        Self { room, frequencies, near, far, scale: (TAU * highest).powi(2) }
    }

    fn shapes(&self, place: [f64; 3]) -> Shapes {
        let most =
            |axis: usize| self.far.iter().chain(&self.near).map(|mode| mode.order[axis]).max().unwrap_or(0);
        let cosines: [Vec<f64>; 3] = [0, 1, 2].map(|axis| {
            let angle = PI * place[axis] / self.room.size[axis];
            (0..=most(axis)).map(|order| (f64::from(order) * angle).cos()).collect()
        });
        let shape = |mode: &Mode| {
            let [l, m, n] = mode.order.map(|order| order as usize);
            cosines[0][l] * cosines[1][m] * cosines[2][n]
        };
        Shapes {
            place,
            near: self.near.iter().map(shape).collect(),
            far: self.far.iter().map(shape).collect(),
        }
    }

    /// Square of the static field's decay in time, 1/s2.
    fn screening(&self) -> f64 {
        (SCREENING * self.room.air.speed).powi(2)
    }

    /// `e/(w_N^2 - w^2 + 2 j w d_N) - e/(w_N^2 + K^2 c^2)`, real and imaginary parts, `[n][near modes]`.
    fn resonances(&self) -> Vec<[Vec<f64>; 2]> {
        let screening = self.screening();
        let at = |frequency: &f64| {
            let omega = TAU * frequency;
            let of = |mode: &Mode| {
                let square = mode.omega().powi(2);
                let resonance = Complex::new(square - omega * omega, 2.0 * omega * mode.damping).inv();
                (resonance - (square + screening).recip()) * mode.weight()
            };
            let both: Vec<Complex> = self.near.iter().map(of).collect();
            [both.iter().map(|z| z.re).collect(), both.iter().map(|z| z.im).collect()]
        };
        self.frequencies.par_iter().map(at).collect()
    }

    fn pair(&self, source: &Shapes, seat: &Shapes, resonances: &[[Vec<f64>; 2]]) -> Vec<Complex> {
        let product =
            |one: &[f64], other: &[f64]| one.iter().zip(other).map(|(a, b)| a * b).collect::<Vec<_>>();
        let near = product(&source.near, &seat.near);
        let far = self.powers(&product(&source.far, &seat.far));
        let images = self.images(source.place, seat.place);
        let factor = TAU * self.room.air.speed.powi(2) / self.room.volume();
        self.frequencies
            .iter()
            .zip(resonances)
            .map(|(frequency, [re, im])| {
                let near = Complex::new(dot(re, &near), dot(im, &near));
                (near + far.at(TAU * frequency, self.scale)) * factor + images
            })
            .collect()
    }

    /// Of the modes that are far above: `1/(w_N^2 - z) = sum of z^k/w_N^(2k + 2)` with `z = w^2 - 2 j w d`, to the first order of the damping.
    fn powers(&self, products: &[f64]) -> Powers {
        let screening = self.screening();
        let mut powers = Powers { plain: [0.0; POWERS], damped: [0.0; POWERS] };
        for (mode, product) in self.far.iter().zip(products) {
            let square = mode.omega().powi(2);
            let strength = product * mode.weight();
            let part = self.scale / square;
            let mut term = strength / square;
            powers.plain[0] -= strength / (square + screening);
            for k in 0..POWERS {
                powers.plain[k] += term;
                powers.damped[k] += term * mode.damping;
                term *= part;
            }
        }
        powers
    }

    /// `1/2 sum of exp(-K r)/r` over the images of the source in hard walls.
    fn images(&self, source: [f64; 3], seat: [f64; 3]) -> f64 {
        let along = |axis: usize| {
            let size = self.room.size[axis];
            let most = (FARTHEST_IMAGE / (2.0 * size)).ceil() as i32 + 1;
            let places = (-most..=most).flat_map(move |k| {
                let shift = 2.0 * f64::from(k) * size;
                [shift + source[axis], shift - source[axis]]
            });
            places
                .map(|place| (place - seat[axis]).powi(2))
                .filter(|square| *square < FARTHEST_IMAGE.powi(2))
                .collect::<Vec<f64>>()
        };
        let [x, y, z] = [0, 1, 2].map(along);
        let mut sum = 0.0;
        for x in &x {
            for y in &y {
                for z in &z {
                    let distance = (x + y + z).sqrt();
                    if distance < FARTHEST_IMAGE {
                        sum += (-SCREENING * distance).exp() / distance.max(1e-3);
                    }
                }
            }
        }
        sum / 2.0
    }
}

/// Sums over far modes for every power of frequency.
struct Powers {
    plain: [f64; POWERS],
    damped: [f64; POWERS],
}

impl Powers {
    fn at(&self, omega: f64, scale: f64) -> Complex {
        let part = omega * omega / scale;
        let (mut re, mut im, mut power) = (0.0, 0.0, 1.0);
        for k in 0..POWERS {
            re += self.plain[k] * power;
            if k > 0 {
                // z^k = w^2k - 2 j k w^(2k - 1) d
                im -= 2.0 * k as f64 * self.damped[k] * power / omega;
            }
            power *= part;
        }
        Complex::new(re, im)
    }
}

/// Four sums side by side, which the processor's registers take.
fn dot(a: &[f64], b: &[f64]) -> f64 {
    let mut sums = [0.0; 4];
    let (fours, rest) = (a.chunks_exact(4), a.len() / 4 * 4);
    for (a, b) in fours.zip(b.chunks_exact(4)) {
        for k in 0..4 {
            sums[k] += a[k] * b[k];
        }
    }
    let rest: f64 = a[rest..].iter().zip(&b[rest..]).map(|(a, b)| a * b).sum();
    sums.iter().sum::<f64>() + rest
}
