//! A session: a folder with the design as the builder believes it, what is known of each trace, and the traces.

mod boxed;

use std::collections::BTreeMap;

use oak_acoustics::medium::Air;
use oak_design::Problem;
use oak_design::file::{Typed, open_design};
use oak_design::problem::ProblemKind;
use oak_design::resolve::{ResolvedDesign, resolve_design};
use oak_units::{Dimension, parse_quantity};
use serde::Deserialize;

use crate::answer::{Answer, DriverAnswer, Estimate};
use crate::cabinet::{Near, Seen};
use crate::driver::{Bench, Measured, measure};
use crate::loopback::{self, lowpass};
use crate::trace::Impedance;

/// The files of a folder by their names.
pub type Folder = BTreeMap<String, Vec<u8>>;

/// What is known of a session.
#[derive(Debug, Clone, PartialEq, Deserialize)]
pub struct RawSession {
    /// By a thermometer.
    #[serde(default)]
    pub room_temperature: Option<Typed>,
    /// The traces.
    pub traces: Vec<RawTrace>,
}

/// What is known of a trace. Fields beside these are left alone.
#[derive(Debug, Clone, PartialEq, Deserialize)]
pub struct RawTrace {
    /// Its file.
    pub file: String,
    /// What was measured.
    pub kind: TraceKind,
    /// Which driver, counted from 1.
    #[serde(default)]
    pub driver: Option<u32>,
    /// Mass on the cone, g.
    #[serde(default)]
    pub added_mass_g: Option<f64>,
}

/// What was measured.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum TraceKind {
    /// Impedance of the finished box.
    ImpedanceBox,
    /// The same with its port shut at its outer mouth.
    ImpedanceBlocked,
    /// Impedance of a driver in free air.
    ImpedanceFree,
    /// The same with a mass on its cone.
    ImpedanceMass,
    /// Sound close to a cone.
    NearfieldCone,
    /// Sound in the mouth of a port.
    NearfieldPort,
    /// The electrical chain alone.
    Loopback,
}

/// Share by which a cone's area may be off its sheet; one standard deviation.
const AREA: f64 = 0.015;
/// Most bytes of a file of a session.
pub const LARGEST_FILE: usize = 64 << 20;

/// Works a session out.
///
/// # Errors
/// Every problem with its files, named by file and field.
pub fn work_out(folder: &Folder) -> Result<Answer, Vec<Problem>> {
    let one = |problem| vec![problem];
    let design = open_design(file(folder, "design.json").map_err(one)?).map_err(one)?;
    let design = resolve_design(&design)?;
    let wrong = |reason: String| vec![Problem::new("session.json", ProblemKind::Unshapeable { reason })];
    let session = file(folder, "session.json").map_err(one)?;
    let session: RawSession = serde_json::from_slice(session).map_err(|error| wrong(error.to_string()))?;
    let mut answer = Answer::default();
    let air = air(&session, &design, &mut answer).map_err(one)?;
    let traces = read_all(folder, &session)?;
    for (raw, trace) in &traces {
        answer.notes.extend(trace.notes.iter().map(|note| format!("{}: {note}", raw.file)));
    }
    let measured = drivers(&traces, &mut answer);
    answer.driver = driver(&measured, &design, &air, &mut answer);
    let built = design.built().map_err(one)?;
    let of = |kind: TraceKind| traces.iter().find(|(raw, _)| raw.kind == kind).map(|(_, trace)| trace);
    let near = near(folder, &session).map_err(one)?;
    let open = of(TraceKind::ImpedanceBox);
    let seen = open.map(|open| Seen { open, shut: of(TraceKind::ImpedanceBlocked), near: &near });
    boxed::tell(seen, &measured, &built, &air, &mut answer);
    chain(folder, &session, &mut answer).map_err(one)?;
    Ok(answer)
}

/// Whether a kind of trace is read as an impedance.
fn is_read(kind: TraceKind) -> bool {
    matches!(
        kind,
        TraceKind::ImpedanceFree
            | TraceKind::ImpedanceMass
            | TraceKind::ImpedanceBox
            | TraceKind::ImpedanceBlocked
    )
}

/// Looks for a filter in the electrical chain, where that was measured.
fn chain(folder: &Folder, session: &RawSession, answer: &mut Answer) -> Result<(), Problem> {
    let Some(trace) = session.traces.iter().find(|trace| trace.kind == TraceKind::Loopback) else {
        answer.notes.push("lowpass: there is no trace of the electrical chain alone.".to_owned());
        return Ok(());
    };
    answer.lowpass = lowpass(&loopback::read(&trace.file, file(folder, &trace.file)?)?);
    match answer.lowpass {
        Some(_) => answer.alarms.push("lowpass".to_owned()),
        None => answer.notes.push("lowpass: the electrical chain has none.".to_owned()),
    }
    Ok(())
}

/// Sound at cones and in ports, in dB over anything.
fn near(folder: &Folder, session: &RawSession) -> Result<Vec<Near>, Problem> {
    let of = |trace: &RawTrace| {
        let port = match trace.kind {
            TraceKind::NearfieldCone => false,
            TraceKind::NearfieldPort => true,
            _ => return None,
        };
        let levels = file(folder, &trace.file).and_then(|bytes| loopback::read(&trace.file, bytes));
        Some(levels.map(|levels| Near { port, levels }))
    };
    session.traces.iter().filter_map(of).collect()
}

fn file<'a>(folder: &'a Folder, name: &str) -> Result<&'a [u8], Problem> {
    let found = folder.get(name).ok_or_else(|| {
        let reason = format!(
            "there is no such file; the folder has: {}",
            folder.keys().cloned().collect::<Vec<_>>().join(", ")
        );
        Problem::new(name, ProblemKind::Unshapeable { reason })
    })?;
    if found.len() > LARGEST_FILE {
        return Err(Problem::new(name, ProblemKind::TooMany { found: found.len(), max: LARGEST_FILE }));
    }
    Ok(found)
}

/// The air of the day: the design's, as warm as the room was.
fn air(session: &RawSession, design: &ResolvedDesign, answer: &mut Answer) -> Result<Air, Problem> {
    let Some(typed) = &session.room_temperature else {
        answer.notes.push("No room temperature is given: the air of the design is taken.".to_owned());
        return Ok(design.air);
    };
    let wrong =
        |reason: String| Problem::new("session.json: room_temperature", ProblemKind::Unshapeable { reason });
    let text = match typed {
        Typed::Text(text) => text.clone(),
        Typed::Number(number) => format!("{number} degC"),
    };
    let quantity = parse_quantity(&text, Dimension::Temperature).map_err(|error| wrong(error.to_string()))?;
    if !(-20.0..=50.0).contains(&quantity.si) {
        return Err(wrong(format!("{text} is no temperature of a room; -20 to 50 degC are allowed")));
    }
    Ok(Air::new(quantity.si, design.air.pressure, 0.0))
}

type Read<'a> = (&'a RawTrace, Impedance);

fn read_all<'a>(folder: &Folder, session: &'a RawSession) -> Result<Vec<Read<'a>>, Vec<Problem>> {
    let (mut read, mut problems) = (Vec::new(), Vec::new());
    for trace in session.traces.iter().filter(|trace| is_read(trace.kind)) {
        let found = file(folder, &trace.file).and_then(|bytes| Impedance::read(&trace.file, bytes));
        match found {
            Ok(found) => read.push((trace, found)),
            Err(problem) => problems.push(problem),
        }
        let mass = trace.added_mass_g;
        if trace.kind == TraceKind::ImpedanceMass && !mass.is_some_and(|mass| (0.1..=1000.0).contains(&mass))
        {
            let given = mass.map_or_else(|| "nothing".to_owned(), |mass| mass.to_string());
            let reason = format!("{given} is no mass on a cone; 0.1 to 1000 g are allowed");
            problems.push(Problem::new(
                format!("{}: added_mass_g", trace.file),
                ProblemKind::Unshapeable { reason },
            ));
        }
    }
    if problems.is_empty() { Ok(read) } else { Err(problems) }
}

/// Every driver that was measured in free air.
fn drivers(traces: &[Read<'_>], answer: &mut Answer) -> Vec<Measured> {
    let of = |kind: TraceKind, number: Option<u32>| {
        traces.iter().find(|(raw, _)| raw.kind == kind && raw.driver.unwrap_or(1) == number.unwrap_or(1))
    };
    let free = traces.iter().filter(|(raw, _)| raw.kind == TraceKind::ImpedanceFree);
    let mut found = Vec::new();
    for (raw, trace) in free {
        let mass = of(TraceKind::ImpedanceMass, raw.driver);
        let loaded = mass.and_then(|(raw, trace)| Some((trace, raw.added_mass_g? * 1e-3)));
        match measure(&Bench { free: trace, loaded }) {
            Some(one) => found.push(one),
            None => answer.notes.push(format!("{}: no resonance of a driver is in it.", raw.file)),
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
