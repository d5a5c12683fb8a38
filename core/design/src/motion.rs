//! What cones and air do at one frequency: amplitudes and phases, to be shown slowly.

use std::f64::consts::{SQRT_2, TAU};

use oak_acoustics::Complex;
use oak_acoustics::driver::REFERENCE_PRESSURE;
use oak_acoustics::network::{Network, Node, OpeningKind, Path};
use oak_acoustics::response::{FrequencyGrid, Response};
use serde::Serialize;
use utoipa::ToSchema;

use crate::built::Built;
use crate::field;
use crate::problem::{Problem, ProblemKind, Range};
use crate::resolve::ResolvedDesign;

/// One thing that moves to and fro.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Mover {
    /// What it is: `cone`, `port` or `radiator`.
    pub kind: &'static str,
    /// What it is called.
    pub label: String,
    /// One-way peak travel, outward positive, m.
    pub travel: f64,
    /// By how much it leads the drive voltage, degrees.
    pub phase: f64,
    /// What it sounds; absent inside the cabinet.
    pub sound: Option<Sound>,
}

/// What one mover contributes to what is heard.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Sound {
    /// Level at 1 m that it would have alone, dB.
    pub level: f64,
    /// By how much it leads the sum, degrees: within a quarter turn of 0 it adds, near 180 it takes away.
    pub beside_sum: f64,
}

/// Everything that moves at a frequency.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Motion {
    /// Hz.
    pub frequency: f64,
    /// What moves.
    pub movers: Vec<Mover>,
    /// Level at 1 m of all together, dB.
    pub level: f64,
    /// What is to be seen, in plain words.
    pub words: Vec<String>,
}

/// Lowest and highest frequency that is shown, Hz.
const SPAN: [f64; 2] = [5.0, 1000.0];

/// Computes what moves at a frequency (Hz).
///
/// # Errors
/// What only shows when the ports are worked out, or a frequency that cannot be computed.
pub fn motion(design: &ResolvedDesign, frequency: f64) -> Result<Motion, Problem> {
    let range = Range { min: SPAN[0], max: SPAN[1], field: &field::TUNING };
    if !(range.min..=range.max).contains(&frequency) {
        let given = field::TUNING.write(frequency);
        return Err(Problem::new("frequency", ProblemKind::OutOfRange { given, range }));
    }
    let Built { design, compiled, .. } = design.built()?;
    let grid = FrequencyGrid::logarithmic(frequency, frequency * 1.001, 2).expect("within the allowed range");
    let response = Response::without_delay(&compiled.network, &grid, design.drive.volts);
    let movers = movers(&design, &compiled.network, &response, frequency);
    let level = level_of(response.pressure[0]);
    let words = words(frequency, &movers);
    Ok(Motion { frequency, movers, level, words })
}

fn level_of(pressure: Complex) -> f64 {
    20.0 * (pressure.norm().max(1e-20) / REFERENCE_PRESSURE).log10()
}

fn movers(design: &ResolvedDesign, network: &Network, response: &Response, frequency: f64) -> Vec<Mover> {
    let omega = TAU * frequency;
    let air = &design.air;
    let sound = |element: usize, terminal: usize, flow: Complex| {
        if network.elements[element].terminals()[terminal] != Node::Outside {
            return None;
        }
        let same = |path: &&Path| path.element == element && path.terminal == terminal;
        let kind = network.paths.iter().find(same).map_or(0.0, |path| path.distance);
        // A small source at 1 m: j w rho U/(Omega r).
        let source = Complex::new(0.0, network.source(omega));
        let pressure = source * flow * Complex::cis(-omega * kind / air.speed);
        let beside_sum = (pressure * response.pressure[0].conj()).arg().to_degrees();
        Some(Sound { level: level_of(pressure), beside_sum })
    };
    let mover = |kind, label, velocity: Complex, sound| {
        let travel = velocity / Complex::new(0.0, omega);
        Mover { kind, label, travel: SQRT_2 * travel.norm(), phase: travel.arg().to_degrees(), sound }
    };
    let cones =
        network.cones.iter().zip(&response.cone_velocity).enumerate().map(|(at, (cone, velocity))| {
            let label = if network.cones.len() > 1 { format!("Cone {}", at + 1) } else { "Cone".to_owned() };
            mover("cone", label, velocity[0], sound(cone.element, 0, velocity[0] * cone.area))
        });
    let openings = network.openings.iter().zip(&response.opening_velocity).map(|(opening, velocity)| {
        let kind = match opening.kind {
            OpeningKind::Port | OpeningKind::Throat => "port",
            OpeningKind::Diaphragm => "radiator",
        };
        let flow = velocity[0] * opening.area;
        mover(kind, opening.label.clone(), velocity[0], sound(opening.element, opening.terminal, flow))
    });
    cones.chain(openings).collect()
}

/// Louder than the cone by this much an opening does the work, dB.
const DOES_THE_WORK: f64 = 6.0;

fn words(frequency: f64, movers: &[Mover]) -> Vec<String> {
    let Some(cone) = movers.iter().find(|mover| mover.kind == "cone") else { return Vec::new() };
    let heard = |mover: &Mover| mover.sound.map_or(f64::NEG_INFINITY, |sound| sound.level);
    let openings = movers.iter().filter(|mover| mover.kind != "cone" && mover.sound.is_some());
    let loudest = openings.max_by(|a, b| heard(a).total_cmp(&heard(b)));
    let moves = format!("At {frequency:.1} Hz the cone moves {} each way", millimetres(cone.travel));
    let Some(other) = loudest else {
        return vec![
            format!("{moves}."),
            "Nothing but the cone sounds: for half the frequency at the same level it has to move four times as far."
                .to_owned(),
        ];
    };
    let name = if other.kind == "radiator" { "radiator" } else { "air in the opening" };
    let (Some(ours), Some(theirs)) = (cone.sound, other.sound) else {
        return vec![
            format!("{moves}, the {name} {}.", millimetres(other.travel)),
            "The cone is inside: only the openings are heard.".to_owned(),
        ];
    };
    let ahead = theirs.level - ours.level;
    let between = turned(theirs.beside_sum - ours.beside_sum);
    let work = if ahead > DOES_THE_WORK {
        format!(
            "{moves}, the {name} {}: the {name} does the work, {ahead:.0} dB louder than the cone.",
            millimetres(other.travel)
        )
    } else if ahead < -DOES_THE_WORK {
        format!(
            "{moves}, the {name} {}: the cone does the work, {:.0} dB louder.",
            millimetres(other.travel),
            -ahead
        )
    } else {
        format!("{moves}, the {name} {}: both are about equally loud.", millimetres(other.travel))
    };
    let together = if between < 60.0 {
        "Both push outwards together, so their sounds add."
    } else if between > 120.0 && ahead.abs() > DOES_THE_WORK {
        "One pushes out while the other draws in, so the weaker takes a little from the stronger."
    } else if between > 120.0 {
        "One pushes out while the other draws in, so their sounds cancel: that is why the level falls so fast here."
    } else {
        "One is a quarter of a cycle behind the other: as at every tuning, where the air swings against the spring of the box and \
         holds the cone nearly still."
    };
    vec![work, together.to_owned()]
}

fn turned(degrees: f64) -> f64 {
    let turned = degrees.rem_euclid(360.0);
    turned.min(360.0 - turned)
}

fn millimetres(metres: f64) -> String {
    format!("{} mm", oak_units::significant(metres * 1e3, 2))
}
