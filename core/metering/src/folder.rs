//! A folder with the design as the builder believes it, what is known of each trace, and the traces.

use std::collections::BTreeMap;

use oak_acoustics::medium::Air;
use oak_design::Problem;
use oak_design::conditions::{RawConditions, RawQuestion};
use oak_design::file::{RawTraceKind, Typed, open_design};
use oak_design::problem::ProblemKind;
use oak_design::resolve::{ResolvedDesign, resolve_design};
use oak_units::{Dimension, parse_quantity};
use serde::Deserialize;

use crate::answer::Answer;
use crate::loopback;
use crate::remedy::remedies;
use crate::session::{Session, Taken, Values};
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
    pub kind: RawTraceKind,
    /// Which driver, counted from 1.
    #[serde(default)]
    pub driver: Option<u32>,
    /// Mass on the cone, g.
    #[serde(default)]
    pub added_mass_g: Option<f64>,
}

/// Most bytes of a file of a session.
pub const LARGEST_FILE: usize = 64 << 20;

/// Works a folder out.
///
/// # Errors
/// Every problem with its files, named by file and field.
pub fn work_out(folder: &Folder) -> Result<Answer, Vec<Problem>> {
    let one = |problem| vec![problem];
    let raw = open_design(file(folder, "design.json").map_err(one)?).map_err(one)?;
    let design = resolve_design(&raw)?;
    let wrong = |reason: String| vec![Problem::new("session.json", ProblemKind::Unshapeable { reason })];
    let session = file(folder, "session.json").map_err(one)?;
    let session: RawSession = serde_json::from_slice(session).map_err(|error| wrong(error.to_string()))?;
    let mut answer = Answer::default();
    let air = air(&session, &design, &mut answer).map_err(one)?;
    let traces = read_all(folder, &session, &mut answer)?;
    let built = design.built().map_err(one)?;
    let question = RawQuestion { conditions: RawConditions::bench(), ..RawQuestion::of(raw) };
    let mut worked = Session { built: &built, air, traces: &traces }.work_out_with(answer);
    worked.answer.remedies = remedies(&question, &built, &worked, "")?.iter().map(Into::into).collect();
    Ok(worked.answer)
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

/// Kinds of traces that are worked with; others are left alone.
fn is_read(kind: RawTraceKind) -> bool {
    !matches!(kind, RawTraceKind::NearfieldRadiator | RawTraceKind::Seat)
}

fn read_all(folder: &Folder, session: &RawSession, answer: &mut Answer) -> Result<Vec<Taken>, Vec<Problem>> {
    let (mut read, mut problems) = (Vec::new(), Vec::new());
    for trace in session.traces.iter().filter(|trace| is_read(trace.kind)) {
        let values = file(folder, &trace.file).and_then(|bytes| {
            if trace.kind.is_impedance() {
                Impedance::read(&trace.file, bytes).map(Values::Impedance)
            } else {
                loopback::read(&trace.file, bytes).map(Values::Level)
            }
        });
        let mass = trace.added_mass_g;
        match values {
            Ok(values) => {
                if let Values::Impedance(found) = &values {
                    answer.notes.extend(found.notes.iter().map(|note| format!("{}: {note}", trace.file)));
                }
                read.push(Taken {
                    of: trace.kind,
                    driver: trace.driver.unwrap_or(1),
                    added_mass: mass.map(|grams| grams * 1e-3),
                    name: trace.file.clone(),
                    values,
                });
            }
            Err(problem) => problems.push(problem),
        }
        let weighed = mass.is_some_and(|mass| (0.1..=1000.0).contains(&mass));
        if trace.kind == RawTraceKind::ImpedanceMass && !weighed {
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
