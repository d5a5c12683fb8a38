//! A finished box, measured by the impedance of its drivers.

use super::model::{Against, Boxed, EXPLAINS, WAVE_Q, Wave};
use super::ports::Ports;
use super::sound::{Near, loudest};
use crate::driver::{BAND, Coil, Model};
use crate::fit::{Fit, ROUNDS, settle};
use crate::trace::{Impedance, Weighed};

/// What is known before the box is measured. Of each: a value and how far it may be off, as a share (one standard deviation).
#[derive(Debug, Clone)]
pub struct Believed {
    /// Hz, of all drivers as one.
    pub fs: (f64, f64),
    /// By friction alone.
    pub qms: (f64, f64),
    /// By the coil's resistance alone.
    pub qes: (f64, f64),
    /// The driver as it was measured by itself, and how many times its impedance all of them have.
    pub coil: Option<(Model, f64)>,
    /// Stiffness of the air over that of the suspension.
    pub alpha: f64,
    /// The lowest standing wave of the box, Hz.
    pub wave: f64,
    /// Hz, and the ports as drawn; nothing where there is none.
    pub tuning: Option<(f64, Ports)>,
    /// Of the box, m3/Pa.
    pub compliance: f64,
    /// Of several drivers, whether they stand in series.
    pub series: bool,
    /// How many they are.
    pub count: u32,
}

/// What was measured of a box.
#[derive(Debug, Clone, Copy)]
pub struct Seen<'a> {
    /// As it is.
    pub open: &'a Impedance,
    /// With its ports shut at their mouths.
    pub shut: Option<&'a Impedance>,
    /// The sound at its openings; it tells standing waves, and nothing else is taken from it.
    pub near: &'a [Near],
}

/// What a box is, each with its standard error.
#[derive(Debug, Clone)]
pub struct Found {
    /// Hz; of a closed box Fc.
    pub tuning: (f64, f64),
    /// Leaks.
    pub ql: (f64, f64),
    /// What is absorbed.
    pub qa: (f64, f64),
    /// Stiffness of the air over that of the suspension.
    pub alpha: (f64, f64),
    /// Total Q of a closed box at Fc.
    pub qtc: Option<(f64, f64)>,
    /// The standing wave that moves the impedance most, Hz, and by how much, as a share.
    pub wave: Option<((f64, f64), f64)>,
    /// Whether one of several drivers works against the others: then nothing above is so.
    pub reversed: bool,
    /// The circuit that was fitted.
    pub model: Boxed,
}

/// Tunings and stiffnesses that are tried first, over what is believed.
const STARTS: [f64; 3] = [1.0, 0.85, 1.18];
/// Of so many points one is taken for that.
const COARSE: usize = 4;
/// What absorbs, leaks and rubs, and how far each may be off, as a logarithm (common practice).
const ABSORBS: (f64, f64) = (80.0, 0.6);
const LEAKS: (f64, f64) = (8.0, 1.0);
const RUBS: (f64, f64) = (1.0, 0.3);
/// The air of a port over that of its box is as drawn within so much, as a logarithm.
const PLUG: f64 = 0.1;
/// And what leaks with it shut may be off what leaks with it open by so much, as a logarithm.
const SEEP: f64 = 0.5;
/// A box is never farther from its drawing than some of this, as a logarithm.
const FAR: f64 = 0.5;
/// Between two sweeps a coil warms by no more than some of this, as a share.
const WARMING: f64 = 0.01;
/// A standing wave's pressure at a place, over its mean: no more than the root of two in one direction, and how far it may be off.
const PRESSURE: (f64, f64) = (0.6, 0.5);
/// Most waves that are looked for, and how far one may lie from where it was found, and the lowest from where it was drawn, as a share.
const WAVES: usize = 3;
const NEAR: f64 = 0.03;
const DRAWN: f64 = 0.12;
/// Pressures at cones and ports that are tried first: the lowest wave weighs on both long before it is seen.
const LIKELY: [[f64; 2]; 2] = [[0.6, -0.6], [0.6, 0.6]];
/// A wave is seen this far beside it, as a factor.
const BESIDE: f64 = 1.25;
/// Waves are looked for above so many times tuning or resonance.
const LOWEST: f64 = 2.0;
/// The sound close to an opening has waves of the room as well; the box's own begin at this part of the lowest that is drawn.
const BELOW: f64 = 0.75;
/// Frequencies at which one is looked for, each over the last.
const STEP: f64 = 1.015;
/// A wave ripples the impedance no farther beside it than this, as a logarithm.
const RIPPLES: f64 = 0.15;
/// Ripple that is one, as a share of the impedance.
const RIPPLE: f64 = 0.012;

/// Drivers that work against each other do not feel the box: a circuit without it then leaves about as little as one with it.
const AS_WELL: f64 = 1.15;
/// Where the box that it finds is nothing like the drawn one, so much more is still as good.
const NEARLY: f64 = 3.0;
/// A box is nothing like the drawn one beyond this, as a logarithm of tuning and of stiffness.
const STRANGE: [f64; 2] = [0.5, 0.9];

/// Positions among the values: those of the driver come first.
const ALPHA: usize = Model::VALUES;
const QL: usize = ALPHA + 1;
const QA: usize = ALPHA + 2;
const WARMER: usize = ALPHA + 3;
const TUNING: usize = ALPHA + 4;
const RUBBING: usize = ALPHA + 5;
/// The air of the ports that are shut over that of the box, to what was drawn; a logarithm.
const PLUGGED: usize = ALPHA + 6;
/// What leaks with the ports shut over what leaks else, as a logarithm: a plug is never quite tight.
const SEEPS: usize = ALPHA + 7;
/// Of each wave: frequency, pressure at cone and mouth, Q.
const OF_WAVE: usize = 4;

/// A box with its ports shut is less of what the circuit says than one with them open (leaks past what shuts them): so much less does it count.
const SHUT: f64 = 0.4;

/// One of the traces, with what the ports do at each of its frequencies.
struct Trace {
    weighed: Weighed,
    ports: Vec<crate::Complex>,
    shut: bool,
}

impl Trace {
    fn of(trace: Impedance, ports: Option<&Ports>, shut: bool) -> Self {
        let each =
            |ports: &Ports| trace.frequency.iter().map(|frequency| ports.against(*frequency, shut)).collect();
        let ports = ports.map(each);
        Self { weighed: Weighed::of(trace), ports: ports.unwrap_or_default(), shut }
    }
}

/// The traces and what is known, as a problem of least squares.
struct Task<'a> {
    traces: Vec<Trace>,
    believed: &'a Believed,
    coil: Coil,
    together: f64,
    /// Where waves are, Hz, and how far each may be off, as a share.
    waves: Vec<(f64, f64)>,
}

impl Task<'_> {
    fn ports(&self) -> usize {
        if self.believed.tuning.is_some() { SEEPS + 1 } else { WARMER + 1 }
    }

    fn model(&self, values: &[f64]) -> Boxed {
        let at = |which: usize| values[which].exp();
        let ported = self.believed.tuning.is_some();
        let wave = |of: &[f64]| Wave { frequency: of[0].exp(), at: [of[1], of[2]], q: of[3].exp() };
        Boxed {
            driver: Model::of(values),
            alpha: at(ALPHA),
            tuning: ported.then(|| at(TUNING)),
            ql: at(QL),
            qa: at(QA),
            rubs: if ported { at(RUBBING) } else { 1.0 },
            waves: values[self.ports()..].chunks(OF_WAVE).map(wave).collect(),
            together: self.together,
            series: self.believed.series,
        }
    }

    /// The impedance of a trace at each of its points.
    fn circuit<'b>(
        &'b self,
        of: &'b Boxed,
        trace: &'b Trace,
        [warmer, plugged, seeps]: [f64; 3],
    ) -> impl Fn(usize, f64) -> crate::Complex + 'b {
        let tuned = self.tuned(of);
        let warmer = if trace.shut { warmer } else { 0.0 };
        let mut of = of.clone();
        of.ql *= if trace.shut { (-seeps).exp() } else { 1.0 };
        let compliance = self.believed.compliance / plugged.exp();
        move |at, frequency| {
            let port = tuned.map(|tuned| match (trace.shut, trace.ports[at]) {
                (true, here) => Against::Shut(here * compliance),
                (false, here) => Against::Open { tuned, here },
            });
            of.impedance(frequency, port, warmer)
        }
    }

    fn tuned(&self, of: &Boxed) -> Option<crate::Complex> {
        let tuning = self.believed.tuning.as_ref().zip(of.tuning);
        tuning.map(|((_, ports), tuning)| ports.against(tuning, false))
    }

    /// What differs between the traces: by how much the coil is warmer in the second one, and the air of the ports that are shut.
    fn between(&self, values: &[f64]) -> [f64; 3] {
        let ported = |at: usize| if self.believed.tuning.is_some() { values[at] } else { 0.0 };
        [values[WARMER], ported(PLUGGED), ported(SEEPS)]
    }

    /// What the circuit is off by at all points of all traces.
    fn off(&self, of: &Boxed, between: [f64; 3], all: &mut Vec<f64>) {
        for trace in &self.traces {
            trace.weighed.off(all, self.circuit(of, trace, between));
        }
    }

    /// By how much each of them counts.
    fn trust(&self) -> Vec<f64> {
        let of = |trace: &Trace| vec![if trace.shut { SHUT } else { 1.0 }; trace.weighed.parts()];
        self.traces.iter().flat_map(of).collect()
    }

    fn residuals(&self, values: &[f64]) -> Vec<f64> {
        let of = self.model(values);
        let mut all = Vec::new();
        self.off(&of, self.between(values), &mut all);
        Model::hold(&self.coil, self.believed.coil.as_ref().map(|(of, _)| of), &mut all, values);
        let known = |at: usize, (value, share): (f64, f64)| (values[at] - value.ln()) / share;
        let Believed { fs, qms, qes, .. } = self.believed;
        all.extend([known(Model::FS, *fs), known(Model::QMS, *qms), known(Model::QES, *qes)]);
        all.extend([known(QL, LEAKS), known(QA, ABSORBS), values[WARMER] / WARMING]);
        all.push(known(ALPHA, (self.believed.alpha, FAR)));
        if let Some((tuning, _)) = self.believed.tuning {
            all.extend([
                known(RUBBING, RUBS),
                known(TUNING, (tuning, FAR)),
                values[PLUGGED] / PLUG,
                values[SEEPS] / SEEP,
            ]);
        }
        for (of, found) in values[self.ports()..].chunks(OF_WAVE).zip(&self.waves) {
            let (found, off) = found;
            all.extend([
                (of[0] - found.ln()) / off,
                (of[1].abs() - PRESSURE.0) / PRESSURE.1,
                (of[2].abs() - PRESSURE.0) / PRESSURE.1,
                (of[3] - WAVE_Q.0.ln()) / WAVE_Q.1,
            ]);
        }
        all
    }

    fn fit(&self, start: &[f64], rounds: usize) -> Option<(f64, Fit)> {
        let found = settle(start, &self.trust(), rounds, &|values| self.residuals(values))?;
        Some((self.left(&found.values), found))
    }

    /// The root of the mean square of what is left of the data.
    fn left(&self, values: &[f64]) -> f64 {
        let mut all = Vec::new();
        self.off(&self.model(values), self.between(values), &mut all);
        (all.iter().map(|one| one * one).sum::<f64>() / all.len().max(1) as f64).sqrt()
    }

    fn start(&self, off: f64, [cone, mouth]: [f64; 2]) -> Vec<f64> {
        let Believed { fs, qms, qes, alpha, tuning, .. } = self.believed;
        let mut start = Model::start(&self.coil, fs.0, qms.0, qes.0);
        start.extend([alpha.ln(), LEAKS.0.ln(), ABSORBS.0.ln(), 0.0]);
        match tuning {
            Some((tuning, _)) => start.extend([(off * tuning).ln(), 0.0, 0.0, 0.0]),
            None => start[ALPHA] += 2.0 * off.ln(),
        }
        start.extend([self.believed.wave.ln(), cone, mouth, WAVE_Q.0.ln()]);
        start
    }

    /// What a trace and the circuit are apart in a band, Hz, as shares of the impedance: the place of each point, and both parts.
    fn near(
        &self,
        trace: &Trace,
        of: &Boxed,
        between: [f64; 3],
        [low, high]: [f64; 2],
    ) -> Vec<(usize, crate::Complex)> {
        let circuit = self.circuit(of, trace, between);
        let counts = if trace.shut { SHUT } else { 1.0 };
        let frequencies = trace.weighed.frequency().iter().enumerate();
        let inside = frequencies.filter(|(_, frequency)| (low..=high).contains(*frequency));
        inside
            .map(|(at, frequency)| (at, trace.weighed.apart(at, circuit(at, *frequency)) * counts))
            .collect()
    }

    /// How far a wave moves the impedance of the open box at most, as a share.
    fn ripple(&self, of: &Boxed, number: usize) -> f64 {
        let mut even = of.clone();
        even.waves.remove(number);
        let trace = &self.traces[0];
        let [with, without] = [of, &even].map(|of| self.circuit(of, trace, [0.0; 3]));
        let own = of.waves[number].frequency;
        let near =
            trace.weighed.frequency().iter().enumerate().filter(|(_, f)| (*f / own).ln().abs() < RIPPLES);
        near.map(|(at, f)| (with(at, *f) / without(at, *f) - 1.0).norm()).fold(0.0, f64::max)
    }

    /// By how much a wave lowers the squares near it, over their mean.
    fn explained(&self, values: &[f64], number: usize) -> f64 {
        let own = values[self.ports() + OF_WAVE * number].exp();
        let mut silent = values.to_vec();
        silent[self.ports() + OF_WAVE * number + 1] = 0.0;
        silent[self.ports() + OF_WAVE * number + 2] = 0.0;
        let band = [own / BESIDE, own * BESIDE];
        let squares = |values: &[f64]| {
            let of = self.model(values);
            let each = self.traces.iter().flat_map(|trace| self.near(trace, &of, self.between(values), band));
            each.map(|(_, apart)| apart.norm_sqr()).sum::<f64>()
        };
        (squares(&silent) - squares(values)) / self.left(values).powi(2)
    }

    /// Where one more wave would explain most of what is left: its frequency, pressures at cone and mouth, and by how much the squares fall, over their mean.
    fn one_more(&self, values: &[f64]) -> Option<([f64; 3], f64)> {
        let usual = self.left(values).powi(2);
        let of = self.model(values);
        let lowest = LOWEST * of.tuning.unwrap_or(0.0).max(of.driver.fs);
        let highest = self
            .traces
            .iter()
            .filter_map(|trace| trace.weighed.frequency().last())
            .fold(0.0f64, |a, b| a.max(*b))
            / 1.05;
        let before: Vec<_> = self
            .traces
            .iter()
            .map(|trace| self.near(trace, &of, self.between(values), [0.0, f64::INFINITY]))
            .collect();
        let with = |wave: Wave| {
            let band = [wave.frequency / BESIDE, wave.frequency * BESIDE];
            let mut of = of.clone();
            of.waves.push(wave);
            let mut along = [0.0; 2];
            for (trace, before) in self.traces.iter().zip(&before) {
                for (at, with) in self.near(trace, &of, self.between(values), band) {
                    let (_, without) = &before[at];
                    let moved = with - without;
                    along[0] -= moved.re * without.re + moved.im * without.im;
                    along[1] += moved.norm_sqr();
                }
            }
            along
        };
        let mut best = None::<([f64; 3], f64)>;
        let mut frequency = lowest;
        while frequency < highest {
            let taken = of.waves.iter().any(|wave| (wave.frequency / frequency).ln().abs() < 2.0 * NEAR);
            for at in [[0.5, 0.0], [0.6, 0.6], [0.6, -0.6], [0.0, 0.6]] {
                if taken || (self.believed.tuning.is_none() && at[1] != 0.0) {
                    continue;
                }
                let [onto, size] = with(Wave { frequency, at, q: WAVE_Q.0 });
                let along = onto / size.max(f64::MIN_POSITIVE);
                let explains = along * along * size / usual;
                if along > 0.0 && best.is_none_or(|(_, most)| explains > most) {
                    let scale = along.sqrt().min(2.0);
                    best = Some(([frequency, at[0] * scale, at[1] * scale], explains));
                }
            }
            frequency *= STEP;
        }
        best
    }
}

impl Boxed {
    /// Whether it is nothing like what was drawn.
    fn strange(&self, believed: &Believed) -> bool {
        let apart = |found: f64, drawn: f64| (found / drawn).ln().abs();
        let tuning =
            self.tuning.zip(believed.tuning.as_ref()).map_or(0.0, |(found, (drawn, _))| apart(found, *drawn));
        tuning > STRANGE[0] || apart(self.alpha, believed.alpha) > STRANGE[1]
    }
}

/// Fits the circuit to the impedance of a closed or ported box, all its traces at once. `None` where a trace is too short, or leaves a value open.
///
/// What is believed of the driver keeps what the traces cannot tell apart from wandering; the tuning, the leaks and the ratio of stiffnesses come from the traces. Standing waves are
/// added one by one as long as each explains what chance does not.
pub fn measure(seen: &Seen<'_>, believed: &Believed) -> Option<Found> {
    let low = BAND[0] * believed.fs.0;
    let high = (BAND[1] * believed.fs.0).max(HIGHEST);
    let ports = believed.tuning.as_ref().map(|(_, ports)| ports);
    let open = seen.open.between(low, high);
    let least = open.value.iter().map(|value| value.norm()).fold(f64::INFINITY, f64::min);
    let coil = match &believed.coil {
        Some((of, times)) => Coil::measured(of, *times),
        None => Coil::guess(&open, 0.95 * least, believed.fs.0)?,
    };
    let traces = |every: usize| {
        let both =
            [Some((seen.open, false)), seen.shut.filter(|_| ports.is_some()).map(|trace| (trace, true))];
        let of =
            |(trace, shut): (&Impedance, bool)| Trace::of(trace.between(low, high).every(every), ports, shut);
        both.into_iter().flatten().map(of).collect::<Vec<Trace>>()
    };
    let task = |every: usize| Task {
        traces: traces(every),
        believed,
        coil,
        together: 1.0,
        waves: vec![(believed.wave, DRAWN)],
    };
    // A few of the points say which beginning is the right one.
    let coarse = task(COARSE);
    let tries = STARTS.into_iter().flat_map(|off| LIKELY.map(|at| coarse.start(off, at)));
    let (_, best) = tries.filter_map(|start| coarse.fit(&start, 1)).min_by(|a, b| a.0.total_cmp(&b.0))?;
    let mut task = task(1);
    let (mut left, mut found) = task.fit(&best.values, ROUNDS)?;
    let reversed = believed.count > 1 && {
        let strange = task.model(&found.values).strange(believed);
        let count = f64::from(believed.count);
        task.together = ((count - 2.0) / count).powi(2);
        let apart = task.fit(&task.start(1.0, LIKELY[0]), 1);
        task.together = 1.0;
        apart.is_some_and(|(against, _)| against < left * if strange { NEARLY } else { AS_WELL })
    };
    while task.waves.len() < WAVES && !reversed {
        let Some(([frequency, cone, mouth], explains)) = task.one_more(&found.values) else { break };
        if explains < EXPLAINS {
            break;
        }
        let mut start = found.values.clone();
        start.extend([frequency.ln(), cone, mouth, WAVE_Q.0.ln()]);
        task.waves.push((frequency, NEAR));
        match task.fit(&start, ROUNDS) {
            Some((less, with)) if less < left => (left, found) = (less, with),
            _ => {
                task.waves.pop();
                break;
            }
        }
    }
    let of = task.model(&found.values);
    let fc = |values: &[f64]| values[Model::FS].exp() * (1.0 + values[ALPHA].exp()).sqrt();
    let closed = believed.tuning.is_none();
    let wave = |number: usize| {
        let at = task.ports() + OF_WAVE * number;
        (found.of(|values| values[at].exp()), task.ripple(&of, number), task.explained(&found.values, number))
    };
    let each: Vec<_> = (0..task.waves.len()).map(wave).collect();
    let shown = |at: &usize| each[*at].1 > RIPPLE && each[*at].2 > EXPLAINS;
    let clear: Vec<usize> = (0..each.len()).filter(shown).collect();
    let most = clear.iter().map(|at| (each[*at].0, each[*at].1)).max_by(|a, b| a.1.total_cmp(&b.1));
    let heard = || {
        let mut plain = Boxed { waves: Vec::new(), ..of.clone() };
        let lowest = (LOWEST * of.tuning.unwrap_or(0.0).max(of.driver.fs)).max(BELOW * believed.wave);
        let (wave, error) = loudest(&plain, ports, seen.near, [lowest, high])?;
        plain.waves.push(wave);
        let ripple = task.ripple(&plain, 0);
        (ripple > RIPPLE).then_some(((wave.frequency, error), ripple))
    };
    let wave = if most.is_none() && !reversed { heard() } else { most };
    Some(Found {
        tuning: if closed { found.of(fc) } else { found.of(|values| values[TUNING].exp()) },
        ql: found.of(|values| values[QL].exp()),
        qa: found.of(|values| values[QA].exp()),
        alpha: found.of(|values| values[ALPHA].exp()),
        qtc: closed.then(|| found.of(|values| qtc(&task.model(values)))),
        wave,
        reversed,
        model: of,
    })
}

/// Up to where a trace is looked at for standing waves, Hz.
const HIGHEST: f64 = 500.0;

/// Total Q at Fc with the coil's resistance, friction, leaks and absorption: what stops the motion there over what stiffens it.
fn qtc(of: &Boxed) -> f64 {
    let Model { fs, qms, qes, .. } = of.driver;
    let raised = of.fc() / fs;
    // Leaks and absorption act on the air's share of the stiffness alone.
    let air = of.alpha / (1.0 + of.alpha);
    (1.0 / (qms * raised) + 1.0 / (qes * raised) + air / of.ql + air / of.qa).recip()
}

/// What is taken off each port, m, and how much longer each is than drawn, with their errors.
#[derive(Debug, Clone, Copy)]
pub struct Trim {
    /// Off, or added where less than nothing.
    pub cut: (f64, f64),
    /// Over the length that was drawn.
    pub longer: (f64, f64),
    /// How much longer than drawn each acts in a box without standing waves.
    pub acts: f64,
}

/// How ports come to a wanted tuning (Hz), in a box of a compliance (m3/Pa, with its error as a share). The box and what its standing waves weigh stay; `there` is the tuning in the air of the ports.
///
/// `None` where no length of the ports does it.
pub fn trim(
    of: &Boxed,
    ports: &Ports,
    there: (f64, f64),
    wanted: f64,
    compliance: (f64, f64),
) -> Option<Trim> {
    let longer = |tuning: f64, compliance: f64| {
        let balance = 1.0 / (std::f64::consts::TAU * tuning) - of.inside(tuning);
        ports.reaching(balance / compliance, tuning)
    };
    let both = |tuning: f64, share: f64| {
        let [now, then] = [tuning, wanted].map(|tuning| longer(tuning, compliance.0 * (1.0 + share)));
        Some([now? - then?, now?])
    };
    let here = both(there.0, 0.0)?;
    let by_tuning = both(there.0 + there.1, 0.0)?;
    let by_volume = both(there.0, compliance.1)?;
    let [cut, longer] =
        [0, 1].map(|at| (here[at], (by_tuning[at] - here[at]).hypot(by_volume[at] - here[at])));
    let plain = 1.0 / (std::f64::consts::TAU * there.0);
    let acts = ports.reaching(plain / compliance.0, there.0)?;
    Some(Trim { cut, longer, acts })
}
