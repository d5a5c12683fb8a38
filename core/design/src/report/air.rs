//! Ports to be cut and radiators to be weighted.

use oak_acoustics::enclosure::Enclosure;
use oak_acoustics::medium::CrossSection;
use oak_acoustics::network::OpeningKind;
use oak_acoustics::response::Response;
use oak_cabinetry::geometry::Point;
use oak_cabinetry::{Cabinet, Contents, Fittings, PartKind};
use serde::Serialize;
use utoipa::ToSchema;

use super::Computed;
use crate::problem::Problem;

/// Limits of air speed, peak m/s: straight edges and generous flares (common practice).
const SPEEDS: [f64; 2] = [17.0, 34.0];
/// Small 1973: least area over the product of tuning and displaced volume, s.
const SMALL: f64 = 0.8;
/// How far below its tuning a port is still listened to.
const BELOW: f64 = 0.8;
/// m/s2.
const GRAVITY: f64 = 9.81;
/// Share of the travel that a sag may take (common practice).
const SAG: f64 = 0.05;

/// How a port is to be cut. SI throughout.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PortCutReport {
    /// What to call it.
    pub name: String,
    /// 0 behind the drivers, 1 before them.
    pub chamber: usize,
    /// Which of its chamber, from 0.
    pub index: usize,
    /// From end to end, m.
    pub overall: f64,
    /// Straight piece between the flares: by the integral over their profile, and counting half of each, m. Without flares both are all of it.
    pub straight: [f64; 2],
    /// Across the hole in the board, m; of a slot its width and height.
    pub hole: [f64; 2],
    /// Across what is seen outside, m.
    pub seen: f64,
    /// Across the bell inside, m.
    pub inner: f64,
    /// Whether the bell inside goes through the hole.
    pub passes: bool,
    /// Area of all equal ones, m2.
    pub area: f64,
    /// Fastest air at the design's drive, peak m/s, and where, Hz.
    pub fastest: [f64; 2],
    /// Least area at this drive for 17 and for 34 m/s, m2.
    pub least: [f64; 2],
    /// Least area by Small's rule, m2; without a stated travel of the cone none.
    pub small: Option<f64>,
    /// What a tube is put together of; none of one of boards.
    pub fittings: Option<FittingsReport>,
}

/// What a tube is put together of and closed with. SI throughout.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FittingsReport {
    /// Of a bent one the straight pieces from outside inward, each to the shoulders of its elbows, m. Less than nothing where two elbows
    /// are in each other's way.
    pub pieces: Vec<f64>,
    /// From the corner of an elbow to its shoulder, m.
    pub elbow: f64,
    /// How deep a socket is, m.
    pub socket: f64,
    /// Across a coupling outside, and its length, m.
    pub coupling: [f64; 2],
    /// Length of a cap, m.
    pub cap: f64,
}

impl FittingsReport {
    /// Of a tube along its middle line, with flares of these radii (m).
    fn of(path: &[Point], fittings: Fittings, [outer, inner]: [f64; 2]) -> Self {
        let Fittings { elbow, socket, coupling, cap } = fittings;
        let legs = path.len().saturating_sub(1);
        let pieces = path.windows(2).enumerate().filter(|_| legs > 1).map(|(leg, pair)| {
            let long = pair[0].iter().zip(pair[1]).map(|(a, b)| (b - a).powi(2)).sum::<f64>().sqrt();
            let begin = if leg == 0 { outer } else { elbow };
            let end = if leg + 1 == legs { inner } else { elbow };
            long - begin - end
        });
        Self { pieces: pieces.collect(), elbow, socket, coupling: [coupling, 2.0 * socket], cap }
    }
}

/// Radiators with the mass that can be put on them. SI throughout.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct RadiatorReport {
    /// Mass that the design adds to each, kg.
    pub added: f64,
    /// How many whole washers come nearest.
    pub washers: u32,
    /// One washer, kg.
    pub each: f64,
    /// Bolt and nut, kg.
    pub bolt: f64,
    /// What they weigh together, kg.
    pub built: f64,
    /// Tuning as designed and with whole washers, Hz.
    pub tuning: [f64; 2],
    /// Where the radiator cancels the cone, with whole washers, Hz.
    pub notch: f64,
    /// How far it hangs through where it lies level, m.
    pub sag: f64,
    /// Largest one-way travel at the design's drive, m, and where, Hz.
    pub travel: [f64; 2],
    /// What it can do, m.
    pub xmax: Option<f64>,
    /// Volume that all radiators can move over what the cones can, where both are stated.
    pub moves: Option<f64>,
    /// Force on the box of the radiators that none stands opposite to, N peak, and where, Hz.
    pub force: [f64; 2],
    /// What of it wants a look, in words.
    pub words: String,
}

/// All ports of a box.
pub(super) fn ports(computed: &Computed, contents: &Contents, cabinet: &Cabinet) -> Vec<PortCutReport> {
    let design = &computed.built.design;
    let (network, response) = (&computed.built.compiled.network, &computed.response);
    let openings: Vec<usize> = network
        .openings
        .iter()
        .enumerate()
        .filter(|(_, one)| one.kind == OpeningKind::Port)
        .map(|(k, _)| k)
        .collect();
    let all = contents.ports.iter().enumerate().flat_map(|(chamber, ports)| {
        ports.iter().enumerate().map(move |(index, port)| (chamber, index, port))
    });
    // Lines and horns have their throat and mouth among the openings; their ports come last.
    let count: usize = contents.ports.iter().map(Vec::len).sum();
    let openings = &openings[openings.len().saturating_sub(count)..];
    let compiled = &computed.built.compiled;
    let tuned =
        [compiled.rear_tuning.as_ref().or(compiled.port_tuning.as_ref()), compiled.port_tuning.as_ref()];
    let tuned = tuned.map(|tuning| tuning.map_or(0.0, |tuning| tuning.reactance));
    let driver = &design.driver.driver;
    let displaced = driver.xmax.map(|xmax| driver.sd * xmax * f64::from(contents.drivers.count));
    all.zip(openings)
        .map(|((chamber, index, port), opening)| {
            let tuning = tuned[chamber];
            let build = design.body.port_build(chamber == 1, index);
            let [outer, inner] = build.flares;
            let hole = port.hole(build.wall);
            let bell = port.passage()[1] + 2.0 * (inner + if inner > 0.0 { build.wall } else { 0.0 });
            let area = port.section.area() * f64::from(port.count);
            let speeds = response.air_speed(*opening).zip(&response.frequency);
            let fastest = speeds
                .filter(|(_, frequency)| **frequency >= BELOW * tuning)
                .map(|(speed, frequency)| [speed, *frequency])
                .max_by(|a, b| a[0].total_cmp(&b[0]))
                .unwrap_or([0.0; 2]);
            let part = cabinet
                .parts
                .iter()
                .find(|part| part.kind == PartKind::Port && part.chamber == chamber && part.index == index);
            let name = part.map_or_else(|| "port".to_owned(), oak_cabinetry::Part::name);
            let tube = part.filter(|_| matches!(port.section, CrossSection::Round { .. }));
            let fittings = tube.map(|part| {
                let fittings = build.fittings.or_usual(port.outside(build.wall)[0]);
                FittingsReport::of(&part.path, fittings, build.flares)
            });
            PortCutReport {
                name,
                chamber,
                index,
                overall: port.built(&build.flares),
                straight: if outer + inner > 0.0 { port.straight(&build.flares) } else { [port.length; 2] },
                hole,
                seen: port.seen(&build)[0],
                inner: bell,
                passes: bell <= hole[1] + 1e-9,
                area,
                fastest,
                least: SPEEDS.map(|speed| area * fastest[0] / speed),
                small: displaced.map(|displaced| SMALL * tuning * displaced),
                fittings,
            }
        })
        .collect()
}

/// The radiators of a box; `None` where it has none.
pub(super) fn radiators(computed: &Computed) -> Result<Option<RadiatorReport>, Problem> {
    let design = &computed.built.design;
    let (Enclosure::PassiveRadiator(cabinet), Some(designed)) =
        (&design.enclosure, &computed.built.compiled.radiator_tuning)
    else {
        return Ok(None);
    };
    let radiator = cabinet.radiator;
    let washers = design.body.washers;
    let (count, built) = washers.nearest();
    let mass = radiator.mass - washers.added + built;
    let mut weighted = design.clone();
    if let Enclosure::PassiveRadiator(other) = &mut weighted.enclosure {
        other.radiator.mass = mass;
    }
    let compiled = weighted.compile()?;
    let tuned = compiled.radiator_tuning.unwrap_or(*designed);
    let network = &computed.built.compiled.network;
    let opening = network.openings.iter().position(|opening| opening.kind == OpeningKind::Diaphragm);
    let response: &Response = &computed.response;
    let travels: Vec<[f64; 2]> = opening.map_or_else(Vec::new, |opening| {
        response.opening_travel(opening).zip(&response.frequency).map(|(travel, f)| [travel, *f]).collect()
    });
    let largest = |of: &dyn Fn(&[f64; 2]) -> f64| {
        travels.iter().map(|one| [of(one), one[1]]).max_by(|a, b| a[0].total_cmp(&b[0])).unwrap_or([0.0; 2])
    };
    let travel = largest(&|one| one[0]);
    let lone = f64::from(radiator.count % 2);
    let force = largest(&|[travel, frequency]| {
        lone * mass * travel * (2.0 * std::f64::consts::PI * frequency).powi(2)
    });
    let sag = mass * GRAVITY * radiator.compliance;
    let cones = design
        .driver
        .driver
        .xmax
        .map(|xmax| xmax * design.driver.driver.sd * f64::from(design.driver_array.wiring.count()));
    let moves = radiator
        .xmax
        .zip(cones)
        .map(|(xmax, cones)| xmax * radiator.area * f64::from(radiator.count) / cones);
    Ok(Some(RadiatorReport {
        added: washers.added,
        washers: count,
        each: washers.each,
        bolt: washers.bolt,
        built,
        tuning: [designed.tuning, tuned.tuning],
        notch: tuned.notch,
        sag,
        travel,
        xmax: radiator.xmax,
        moves,
        force,
        words: radiator_words(travel, radiator.xmax, moves, sag, force),
    }))
}

fn radiator_words(
    travel: [f64; 2],
    xmax: Option<f64>,
    moves: Option<f64>,
    sag: f64,
    force: [f64; 2],
) -> String {
    let mut words = Vec::new();
    if let Some(xmax) = xmax {
        if travel[0] > xmax {
            words.push(format!(
                "At this drive each wants {:.1} mm one way at {:.0} Hz and has {:.1} mm: use less drive, or more or larger radiators.",
                travel[0] * 1e3,
                travel[1],
                xmax * 1e3
            ));
        }
        if sag > SAG * xmax {
            words.push(format!(
                "Lying level it would sag by {:.1} mm, {:.0} % of its travel: mount it upright.",
                sag * 1e3,
                100.0 * sag / xmax
            ));
        }
    }
    if let Some(moves) = moves.filter(|moves| *moves < 2.0) {
        words.push(format!(
            "All radiators move {moves:.1} times what the cones can; twice is the usual least (common practice)."
        ));
    }
    if force[0] > 1.0 {
        words.push(format!(
            "It shakes the box with {:.0} N at {:.0} Hz: a second one in the opposite board cancels that.",
            force[0], force[1]
        ));
    }
    if words.is_empty() {
        words.push("Travel, sag and balance are in order.".to_owned());
    }
    words.join(" ")
}
