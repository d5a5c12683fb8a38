//! How near the answers come to hidden cabinets, over many of them.

use std::fmt::{self, Display};

use oak_metering::answer::{Answer, Estimate};
use oak_metering::folder::work_out;
use oak_rig::{Hidden, Kind, Setup, Truth, draw, folder, truth};
use rayon::prelude::*;

/// What was asked for, what came out.
pub struct Tried {
    pub hidden: Hidden,
    pub truth: Truth,
    pub answer: Answer,
}

/// Many cabinets, measured and worked out; all traces where no kinds are named.
pub fn tried(kind: Kind, noise: f64, seeds: std::ops::Range<u64>, kinds: &[&str]) -> Vec<Tried> {
    let one = |seed: u64| {
        let hidden = draw(&Setup { seed, kind, noise });
        let answer = work_out(&folder(&hidden, seed, kinds));
        let answer = answer.unwrap_or_else(|problems| panic!("{seed}: {problems:?}"));
        Tried { truth: truth(&hidden), hidden, answer }
    };
    seeds.into_par_iter().map(one).collect()
}

/// A line of the table: how far off of each cabinet that has the quantity, and the stated error.
#[derive(Debug, Clone)]
pub struct Line {
    pub name: &'static str,
    /// Off, and the stated error in the same unit.
    pub off: Vec<(f64, f64)>,
    /// Cabinets for which nothing was said.
    pub silent: usize,
}

impl Line {
    /// What 95 % do not exceed.
    pub fn most(&self) -> f64 {
        let mut all: Vec<f64> = self.off.iter().map(|one| one.0.abs()).collect();
        all.sort_by(f64::total_cmp);
        if all.is_empty() { 0.0 } else { all[(all.len() * 95).div_ceil(100) - 1] }
    }

    pub fn median(&self) -> f64 {
        let mut all: Vec<f64> = self.off.iter().map(|one| one.0.abs()).collect();
        all.sort_by(f64::total_cmp);
        all.get(all.len() / 2).copied().unwrap_or(0.0)
    }

    /// Share within so many stated errors.
    pub fn within(&self, times: f64) -> f64 {
        self.off.iter().filter(|(off, error)| off.abs() <= times * error).count() as f64
            / self.off.len().max(1) as f64
    }
}

/// Yes or no, against what is so.
#[derive(Debug, Clone, Copy, Default)]
pub struct Told {
    pub found: usize,
    pub missed: usize,
    pub falsely: usize,
    pub rightly_not: usize,
}

impl Told {
    fn count(&mut self, so: bool, said: bool) {
        *(match (so, said) {
            (true, true) => &mut self.found,
            (true, false) => &mut self.missed,
            (false, true) => &mut self.falsely,
            (false, false) => &mut self.rightly_not,
        }) += 1;
    }

    pub fn found(&self) -> f64 {
        self.found as f64 / (self.found + self.missed).max(1) as f64
    }

    pub fn falsely(&self) -> f64 {
        self.falsely as f64 / (self.falsely + self.rightly_not).max(1) as f64
    }
}

/// All lines of a run.
pub struct Score {
    pub lines: Vec<Line>,
    pub told: Vec<(&'static str, Told)>,
    /// Share of clean cabinets with an alarm.
    pub alarmed: f64,
}

type Of = (&'static str, fn(&Tried) -> bool, fn(&Tried) -> Option<Estimate>, fn(&Tried) -> f64, bool);

fn leaking(tried: &Tried) -> bool {
    tried.truth.ql < 3.4
}
fn seen(tried: &Tried) -> bool {
    tried.hidden.cabinet.reversed == 0
}

/// Name, of which cabinets, what was said, what is so, whether as a share.
const OF: [Of; 14] = [
    ("tuning, Hz", |t| seen(t) && t.truth.cut.is_some(), |t| t.answer.tuning_hz, |t| t.truth.tuning, false),
    ("Fc, Hz", |t| seen(t) && t.truth.cut.is_none(), |t| t.answer.tuning_hz, |t| t.truth.tuning, false),
    ("QL", |t| seen(t) && !leaking(t) && t.truth.cut.is_some(), |t| t.answer.ql, |t| t.truth.ql, true),
    (
        "QL, leaking",
        |t| seen(t) && leaking(t) && t.truth.cut.is_some(),
        |t| t.answer.ql,
        |t| t.truth.ql,
        true,
    ),
    (
        "QL, closed",
        |t| seen(t) && !leaking(t) && t.truth.cut.is_none(),
        |t| t.answer.ql,
        |t| t.truth.ql,
        true,
    ),
    (
        "QL, closed, leaking",
        |t| seen(t) && leaking(t) && t.truth.cut.is_none(),
        |t| t.answer.ql,
        |t| t.truth.ql,
        true,
    ),
    ("QA", seen, |t| t.answer.qa, |t| t.truth.qa, true),
    ("volume", seen, |t| t.answer.effective_volume_l, |t| t.truth.volume * 1e3, true),
    (
        "cut, mm",
        |t| seen(t) && !leaking(t) && t.truth.cut.is_some(),
        |t| t.answer.port_cut_mm,
        |t| t.truth.cut.unwrap_or(0.0) * 1e3,
        false,
    ),
    (
        "cut, leaking, mm",
        |t| seen(t) && leaking(t) && t.truth.cut.is_some(),
        |t| t.answer.port_cut_mm,
        |t| t.truth.cut.unwrap_or(0.0) * 1e3,
        false,
    ),
    ("Fs", |_| true, |t| t.answer.driver.fs_hz, |t| t.truth.driver[0], true),
    ("Qes", |_| true, |t| t.answer.driver.qes, |t| t.truth.driver[1], true),
    ("Qms", |_| true, |t| t.answer.driver.qms, |t| t.truth.driver[2], true),
    ("Vas", |_| true, |t| t.answer.driver.vas_l, |t| t.truth.driver[3] * 1e3, true),
];

pub fn score(all: &[Tried]) -> Score {
    let lines = OF.iter().map(|(name, which, said, so, share)| {
        let of: Vec<&Tried> = all.iter().filter(|tried| which(tried)).collect();
        let off = |tried: &&Tried| {
            let (estimate, so) = (said(tried)?, so(tried));
            let unit = if *share { so } else { 1.0 };
            Some(((estimate.value - so) / unit, estimate.se / unit))
        };
        let off: Vec<(f64, f64)> = of.iter().filter_map(off).collect();
        Line { name, silent: of.len() - off.len(), off }
    });
    let mut told = [
        ("leak", Told::default()),
        ("reversed", Told::default()),
        ("low-pass", Told::default()),
        ("box mode", Told::default()),
    ];
    for tried in all {
        let Tried { answer, truth, hidden } = tried;
        if seen(tried) {
            told[0].1.count(leaking(tried), answer.leak == Some(true));
        }
        told[1].1.count(!seen(tried), answer.reversed == Some(true));
        if let Some(filter) = hidden.chain.lowpass {
            let right = answer.lowpass.is_some_and(|found| {
                (corner_6db(&found) / filter.down_6_db() - 1.0).abs() < 0.01 && found.order == filter.order
            });
            told[2].1.count(true, right);
        } else {
            told[2].1.count(false, answer.lowpass.is_some());
        }
        if seen(tried) {
            match truth.mode {
                Some((at, _)) => {
                    told[3].1.count(
                        true,
                        answer.box_mode_hz.is_some_and(|found| (found.value / at - 1.0).abs() < 0.03),
                    );
                }
                // One that is there and moves the impedance by less is no lie.
                None => {
                    let is = |found: f64| {
                        hidden.cabinet.modes.iter().any(|mode| (found / mode.frequency - 1.0).abs() < 0.03)
                    };
                    let falsely = answer.box_mode_hz.is_some_and(|found| !is(found.value));
                    told[3].1.count(false, falsely);
                }
            }
        }
    }
    let clean: Vec<&Tried> = all.iter().filter(|tried| tried.hidden.clean).collect();
    let alarmed = clean.iter().filter(|tried| !tried.answer.alarms.is_empty()).count();
    Score { lines: lines.collect(), told: told.to_vec(), alarmed: alarmed as f64 / clean.len().max(1) as f64 }
}

fn corner_6db(found: &oak_metering::loopback::Lowpass) -> f64 {
    let (mut low, mut high) = (1.0, 5000.0);
    for _ in 0..60 {
        let middle = f64::midpoint(low, high);
        if found.level(middle) > -20.0 * 2f64.log10() { low = middle } else { high = middle }
    }
    low
}

impl Display for Score {
    fn fmt(&self, to: &mut fmt::Formatter<'_>) -> fmt::Result {
        for line in &self.lines {
            writeln!(
                to,
                "{:22} median {:8.4}  95 % {:8.4}  within 1, 2 errors {:3.0} {:3.0} %  of {} ({} silent)",
                line.name,
                line.median(),
                line.most(),
                100.0 * line.within(1.0),
                100.0 * line.within(2.0),
                line.off.len(),
                line.silent
            )?;
        }
        for (name, told) in &self.told {
            writeln!(
                to,
                "{name:22} {:3.0} % of {} found, {:4.1} % false",
                100.0 * told.found(),
                told.found + told.missed,
                100.0 * told.falsely()
            )?;
        }
        writeln!(to, "clean with an alarm    {:.1} %", 100.0 * self.alarmed)
    }
}
