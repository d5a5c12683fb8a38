//! Standing waves in the sound at a cone and in the mouth of a port, which show them long before the impedance does.

use super::model::{Against, Boxed, EXPLAINS, WAVE_Q, Wave};
use super::ports::Ports;
use crate::fit::fit;

/// The sound close to an opening.
#[derive(Debug, Clone)]
pub struct Near {
    /// In the mouth of a port; else at a cone.
    pub port: bool,
    /// Hz, and dB over anything.
    pub levels: Vec<[f64; 2]>,
}

/// What is left of a trace beside the circuit: Hz, what the ports set against the air there, dB with what is smooth taken out.
struct Left {
    port: bool,
    at: Vec<(f64, Option<Against>)>,
    level: Vec<f64>,
    smooth: Vec<[f64; TERMS]>,
    /// What is usual in it, dB.
    usual: f64,
}

/// Microphone, room and chain are smooth beside a standing wave: a polynomial over the logarithm of frequency.
const TERMS: usize = 5;
/// Frequencies at which a wave is looked for, each over the last.
const STEP: f64 = 1.01;
/// Pressures that are tried at cone and mouth.
const TRIED: [[f64; 2]; 5] = [[0.5, 0.0], [0.6, 0.6], [0.6, -0.6], [0.0, 0.6], [1.2, 1.2]];
/// How far one may lie from where it was found, as a share, and what its pressures are beforehand.
const NEAR: f64 = 0.02;
const PRESSURE: f64 = 0.8;
/// The mains and their harmonics, Hz, and how wide each stands in a trace.
const MAINS: [f64; 2] = [50.0, 60.0];
const HUM: f64 = 2.0;
/// So far below the loudest sound is noise, dB.
const FAINT: f64 = 40.0;
/// Up to this part of its own first resonance a port is as it was drawn.
const PIPE: f64 = 0.6;
/// Fewest points that are worth a look.
const FEWEST: usize = 30;

/// The wave that explains most of what the sound has beside a circuit without it, with the error of its frequency (Hz). `None` where chance explains as much.
pub fn loudest(
    of: &Boxed,
    ports: Option<&Ports>,
    near: &[Near],
    [low, high]: [f64; 2],
) -> Option<(Wave, f64)> {
    let high = ports.map_or(high, |ports| high.min(PIPE * ports.pipe()));
    let left: Vec<Left> = near.iter().filter_map(|near| Left::of(of, ports, near, [low, high])).collect();
    let mut best = None::<(Wave, f64)>;
    let mut frequency = low * 1.1;
    while frequency < high / 1.1 && !left.is_empty() {
        for at in TRIED {
            let wave = Wave { frequency, at, q: WAVE_Q.0 };
            let [mut onto, mut size] = [0.0; 2];
            for left in &left {
                let moved = left.moved(of, wave);
                onto += left.level.iter().zip(&moved).map(|(level, moved)| level * moved).sum::<f64>()
                    / left.usual.powi(2);
                size += moved.iter().map(|moved| moved * moved).sum::<f64>() / left.usual.powi(2);
            }
            let explains = if onto > 0.0 { onto * onto / size.max(f64::MIN_POSITIVE) } else { 0.0 };
            if explains > best.as_ref().map_or(EXPLAINS, |(_, most)| *most) {
                best = Some((wave, explains));
            }
        }
        frequency *= STEP;
    }
    let (found, _) = best?;
    let residuals = |values: &[f64]| {
        let wave = Wave { frequency: values[0].exp(), at: [values[1], values[2]], q: values[3].exp() };
        let mut all = Vec::new();
        for left in &left {
            let moved = left.moved(of, wave);
            all.extend(left.level.iter().zip(&moved).map(|(level, moved)| (moved - level) / left.usual));
        }
        let [cone, mouth] = wave.at.map(|at| at / PRESSURE);
        all.extend([
            (values[0] - found.frequency.ln()) / NEAR,
            cone,
            mouth,
            (values[3] - WAVE_Q.0.ln()) / WAVE_Q.1,
        ]);
        all
    };
    let data = left.iter().map(|left| left.level.len()).sum();
    let settled = fit(&[found.frequency.ln(), found.at[0], found.at[1], WAVE_Q.0.ln()], data, &residuals)?;
    let [frequency, cone, mouth, q] = [0, 1, 2, 3].map(|at| settled.values[at]);
    let (_, error) = settled.of(|values| values[0].exp());
    Some((Wave { frequency: frequency.exp(), at: [cone, mouth], q: q.exp() }, error))
}

fn decibels(of: &Boxed, port: bool, frequency: f64, against: Option<Against>) -> f64 {
    let moves = of.moves(frequency, against);
    let flow = if port { moves.ports } else { moves.cones };
    20.0 * (flow.norm() * frequency).log10()
}

impl Left {
    fn of(of: &Boxed, ports: Option<&Ports>, near: &Near, [low, high]: [f64; 2]) -> Option<Self> {
        let tuned = ports.zip(of.tuning).map(|(ports, tuning)| ports.against(tuning, false));
        let most = near.levels.iter().map(|[_, level]| *level).fold(f64::NEG_INFINITY, f64::max);
        // What hums, and what a filter has left of the sound, tells nothing.
        let clear = |[frequency, level]: &[f64; 2]| {
            let hums = MAINS
                .iter()
                .any(|mains| (frequency / mains - (frequency / mains).round()).abs() * mains < HUM);
            (low..=high).contains(frequency) && !hums && *level > most - FAINT
        };
        let inside: Vec<[f64; 2]> = near.levels.iter().copied().filter(clear).collect();
        if inside.len() < FEWEST || (near.port && ports.is_none()) {
            return None;
        }
        let against = |frequency: f64| {
            let both = tuned.zip(ports);
            both.map(|(tuned, ports)| Against::Open { tuned, here: ports.against(frequency, false) })
        };
        let at: Vec<_> = inside.iter().map(|[frequency, _]| (*frequency, against(*frequency))).collect();
        let raw = inside
            .iter()
            .zip(&at)
            .map(|([frequency, level], (_, against))| level - decibels(of, near.port, *frequency, *against));
        let raw: Vec<f64> = raw.collect();
        let middle = (low * high).sqrt();
        let smooth = at.iter().map(|(frequency, _)| {
            let x = (frequency / middle).ln();
            std::array::from_fn(|power| x.powi(power as i32))
        });
        let smooth = orthogonal(smooth.collect());
        let level = beside(&smooth, raw);
        let mut sizes: Vec<f64> = level.iter().map(|level| level.abs()).collect();
        sizes.sort_by(f64::total_cmp);
        let usual = (1.4826 * sizes[sizes.len() / 2]).max(1e-6);
        Some(Self { port: near.port, at, level, smooth, usual })
    }

    /// What a wave moves, dB, with what is smooth taken out.
    fn moved(&self, of: &Boxed, wave: Wave) -> Vec<f64> {
        let mut with = of.clone();
        with.waves.push(wave);
        let moved = self.at.iter().map(|(frequency, against)| {
            decibels(&with, self.port, *frequency, *against) - decibels(of, self.port, *frequency, *against)
        });
        beside(&self.smooth, moved.collect())
    }
}

/// Columns at right angles to each other (Gram and Schmidt).
fn orthogonal(mut rows: Vec<[f64; TERMS]>) -> Vec<[f64; TERMS]> {
    for column in 0..TERMS {
        for before in 0..column {
            let onto: f64 = rows.iter().map(|row| row[column] * row[before]).sum();
            rows.iter_mut().for_each(|row| row[column] -= onto * row[before]);
        }
        let size =
            rows.iter().map(|row| row[column] * row[column]).sum::<f64>().sqrt().max(f64::MIN_POSITIVE);
        rows.iter_mut().for_each(|row| row[column] /= size);
    }
    rows
}

/// A curve without what is smooth in it.
fn beside(smooth: &[[f64; TERMS]], mut curve: Vec<f64>) -> Vec<f64> {
    for column in 0..TERMS {
        let onto: f64 = curve.iter().zip(smooth).map(|(value, row)| value * row[column]).sum();
        curve.iter_mut().zip(smooth).for_each(|(value, row)| *value -= onto * row[column]);
    }
    curve
}
