//! A session: a design as the builder believes it, and what was measured of it.

mod boxed;

pub use boxed::AsFound;
pub(crate) use boxed::LEAKING;

use oak_acoustics::medium::Air;
use oak_design::built::Built;
use oak_design::file::RawTraceKind;
use oak_design::resolve::{Measurement, ResolvedDesign};

use crate::Complex;
use crate::answer::{Answer, DriverAnswer, Estimate};
use crate::cabinet::{Near, Seen};
use crate::driver::{Bench, Measured, measure};
use crate::loopback::lowpass;
use crate::trace::Impedance;

/// Share by which a cone's area may be off its sheet; one standard deviation.
const AREA: f64 = 0.015;

/// A trace as it is worked with.
#[derive(Debug, Clone)]
pub struct Taken {
    /// What it is of.
    pub of: RawTraceKind,
    /// Which driver, counted from 1.
    pub driver: u32,
    /// On the cone, kg.
    pub added_mass: Option<f64>,
    /// What it is called where something of it is said.
    pub name: String,
    /// Its values.
    pub values: Values,
}

/// Values of a trace.
#[derive(Debug, Clone)]
pub enum Values {
    /// Of an impedance.
    Impedance(Impedance),
    /// Frequency (Hz) and level, dB over anything.
    Level(Vec<[f64; 2]>),
}

/// All that was measured of a design.
#[derive(Debug)]
pub struct Session<'a> {
    /// As the builder believes it.
    pub built: &'a Built,
    /// The air of the day.
    pub air: Air,
    /// What was measured.
    pub traces: &'a [Taken],
}

/// What a session comes to, with what remedies are worked out from.
#[derive(Debug)]
pub struct Worked {
    /// The answer.
    pub answer: Answer,
    /// Each driver that was measured in free air.
    pub drivers: Vec<Measured>,
    /// Air in the box and how much longer its ports act than drawn, m3 and m, where both are known.
    pub found: Option<AsFound>,
}

impl Session<'_> {
    /// Works it out.
    pub fn work_out(&self) -> Worked {
        self.work_out_with(Answer::default())
    }

    /// The same, going on with an answer.
    pub(crate) fn work_out_with(&self, mut answer: Answer) -> Worked {
        let drivers = drivers(self.traces, &mut answer);
        answer.driver = driver(&drivers, &self.built.design, &self.air, &mut answer);
        let near: Vec<Near> = self.traces.iter().filter_map(near).collect();
        let of = |kind: RawTraceKind| self.traces.iter().find(|trace| trace.of == kind)?.impedance();
        let seen = of(RawTraceKind::ImpedanceBox).map(|open| Seen {
            open,
            shut: of(RawTraceKind::ImpedanceBlocked),
            near: &near,
        });
        let found = boxed::tell(seen, &drivers, self.built, &self.air, &mut answer);
        chain(self.traces, &mut answer);
        Worked { answer, drivers, found }
    }
}

impl Taken {
    /// Its values as an impedance; `None` of a level.
    pub fn impedance(&self) -> Option<&Impedance> {
        match &self.values {
            Values::Impedance(impedance) => Some(impedance),
            Values::Level(_) => None,
        }
    }

    /// Its values as a level; `None` of an impedance.
    pub fn level(&self) -> Option<&[[f64; 2]]> {
        match &self.values {
            Values::Level(levels) => Some(levels),
            Values::Impedance(_) => None,
        }
    }
}

impl From<&Measurement> for Taken {
    fn from(of: &Measurement) -> Self {
        let points = &of.points;
        let values = if of.of.is_impedance() {
            let value = |[_, size, phase]: &[f64; 3]| {
                Complex::from_polar(*size, if of.phased { phase.to_radians() } else { 0.0 })
            };
            Values::Impedance(Impedance {
                frequency: points.iter().map(|[frequency, ..]| *frequency).collect(),
                value: points.iter().map(value).collect(),
                phased: of.phased,
                notes: Vec::new(),
            })
        } else {
            Values::Level(points.iter().map(|[frequency, level, _]| [*frequency, *level]).collect())
        };
        let name = format!("Driver {}", of.driver);
        Self { of: of.of, driver: of.driver, added_mass: of.added_mass, name, values }
    }
}

/// Looks for a filter in the electrical chain, where that was measured.
fn chain(traces: &[Taken], answer: &mut Answer) {
    let Some(levels) = traces.iter().find(|trace| trace.of == RawTraceKind::Loopback).and_then(Taken::level)
    else {
        answer.notes.push("lowpass: there is no trace of the electrical chain alone.".to_owned());
        return;
    };
    answer.lowpass = lowpass(levels);
    match answer.lowpass {
        Some(_) => answer.alarms.push("lowpass".to_owned()),
        None => answer.notes.push("lowpass: the electrical chain has none.".to_owned()),
    }
}

/// Sound at a cone or in a port.
fn near(trace: &Taken) -> Option<Near> {
    let port = match trace.of {
        RawTraceKind::NearfieldCone => false,
        RawTraceKind::NearfieldPort => true,
        _ => return None,
    };
    Some(Near { port, levels: trace.level()?.to_vec() })
}

/// Every driver that was measured in free air.
fn drivers(traces: &[Taken], answer: &mut Answer) -> Vec<Measured> {
    let mut found = Vec::new();
    for trace in traces.iter().filter(|trace| trace.of == RawTraceKind::ImpedanceFree) {
        let Some(free) = trace.impedance() else { continue };
        let mass =
            traces.iter().find(|one| one.of == RawTraceKind::ImpedanceMass && one.driver == trace.driver);
        let loaded = mass.and_then(|one| Some((one.impedance()?, one.added_mass?)));
        match measure(&Bench { free, loaded }) {
            Some(one) => found.push(one),
            None => answer.notes.push(format!("{}: no resonance of a driver is in it.", trace.name)),
        }
    }
    found
}

/// The mean of all drivers.
fn driver(all: &[Measured], design: &ResolvedDesign, air: &Air, answer: &mut Answer) -> DriverAnswer {
    if all.is_empty() {
        answer.notes.push("driver: there is no impedance of a driver in free air.".to_owned());
        return DriverAnswer::default();
    }
    let mean = |of: &dyn Fn(&Measured) -> Option<(f64, f64)>| -> Option<(f64, f64)> {
        let each: Vec<(f64, f64)> = all.iter().filter_map(of).collect();
        let count = each.len() as f64;
        let value = each.iter().map(|one| one.0).sum::<f64>() / count;
        let error = each.iter().map(|one| one.1 * one.1).sum::<f64>().sqrt() / count;
        (!each.is_empty()).then_some((value, error))
    };
    let cms = mean(&|one| one.cms);
    if cms.is_none() {
        answer.notes.push(
            "driver.vas_l, driver.bl: without a trace with a mass on the cone the moving mass is open."
                .to_owned(),
        );
        answer.cannot_tell_apart.push(["mms".to_owned(), "bl".to_owned()]);
    }
    let sd = design.driver.driver.sd;
    let vas = cms.map(|(cms, error)| {
        let vas = air.density * air.speed.powi(2) * sd * sd * cms;
        (vas, vas * (error / cms).hypot(2.0 * AREA))
    });
    let fs: Vec<f64> = all.iter().map(|one| one.fs.0).collect();
    let middle = fs.iter().sum::<f64>() / fs.len() as f64;
    let spread = fs.iter().map(|one| (one - middle).powi(2)).sum::<f64>() / (fs.len().max(2) - 1) as f64;
    let plain = |value: Option<(f64, f64)>| value.map(|value| Estimate::times(value, 1.0));
    DriverAnswer {
        fs_hz: plain(mean(&|one| Some(one.fs))),
        qes: plain(mean(&|one| Some(one.qes))),
        qms: plain(mean(&|one| Some(one.qms))),
        vas_l: vas.map(|vas| Estimate::times(vas, 1e3)),
        re_ohm: plain(mean(&|one| Some(one.re))),
        bl: plain(mean(&|one| one.bl)),
        spread_fs_hz: (fs.len() > 1).then(|| spread.sqrt()),
    }
}
