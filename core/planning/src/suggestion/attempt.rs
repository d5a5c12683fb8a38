//! What is tried to fix a design, one function a way.

use oak_cabinetry::geometry::Face;
use oak_design::field::{self, Field};
use oak_design::file::{
    RawBrief, RawDesign, RawDriverArray, RawEnd, RawFace, RawFamily, RawFold, RawPlace, RawPort,
    RawPortBuild, RawPortSection, RawStack, Typed,
};
use oak_design::start::RawAsk;

use super::bench::{Bench, Change, Found, Turn};
use super::moved;
use super::trial::{Attempt, FoldChange, PortChange};
use crate::check::Verdict;
use crate::fitted::fitted;
use crate::parameter::{Held, PARAMETERS, Parameter};

/// How far a value is turned, as factors of where it stands.
const LADDER: [f64; 8] = [1.04, 1.1, 1.2, 1.35, 1.55, 1.8, 2.2, 2.8];
/// Bisections between the last step that falls short and the first that fixes.
const ROUNDS: usize = 7;

/// Boards that drivers are moved to.
const DRIVER_FACES: [RawFace; 4] = [RawFace::Front, RawFace::Top, RawFace::Bottom, RawFace::Left];

/// Folds that are tried.
const FOLDS: std::ops::RangeInclusive<u32> = 0..=4;

const PORT_WAYS: [PortChange; 10] = [
    PortChange::Turns(1),
    PortChange::Turns(2),
    PortChange::Slot(0),
    PortChange::Slot(1),
    PortChange::Slot(2),
    PortChange::Face(RawFace::Top),
    PortChange::Face(RawFace::Bottom),
    PortChange::Face(RawFace::Left),
    PortChange::Face(RawFace::Right),
    PortChange::Face(RawFace::Back),
];

/// Parameters that help each other: their names.
const PAIRS: [[&str; 2]; 5] = [
    ["volume", "tuning"],
    ["tuning", "port_area"],
    ["volume", "port_area"],
    ["front_volume", "front_tuning"],
    ["front_tuning", "front_port_area"],
];

/// Kinds of cabinets that are tried instead.
const FAMILIES: [RawFamily; 4] =
    [RawFamily::Sealed, RawFamily::Ported, RawFamily::PassiveRadiator, RawFamily::Bandpass4];

/// Everything that may help; nothing where nothing is short.
pub(super) fn attempts(bench: &Bench<'_>) -> Vec<Attempt> {
    if bench.check.verdict != Verdict::Short {
        return Vec::new();
    }
    let usable = |parameter: &&Parameter| parameter.suggestions && parameter.value(&bench.held).is_some();
    let named = |id: &str| PARAMETERS.iter().find(|parameter| parameter.id == id).filter(usable);
    let turns = PARAMETERS
        .iter()
        .filter(usable)
        .flat_map(|parameter| [true, false].map(|up| Attempt::Turn(parameter, up)));
    let pairs = PAIRS.iter().filter_map(|[a, b]| Some([named(a)?, named(b)?])).flat_map(|[a, b]| {
        [[true, true], [true, false], [false, true], [false, false]]
            .map(|[up, also]| Attempt::Both([(a, up), (b, also)]))
    });
    let others = [
        Attempt::Drivers { series: false },
        Attempt::Drivers { series: true },
        Attempt::Fewer { series: false },
        Attempt::Fewer { series: true },
        Attempt::Power,
        Attempt::Cabinets,
        Attempt::Loudness,
        Attempt::Less,
    ];
    let own = bench.ask.design.enclosure.family;
    // Of those that the brief allows, where it names any.
    let allowed = &bench.brief.families;
    let kinds = if allowed.is_empty() { FAMILIES.to_vec() } else { allowed.clone() };
    let families = kinds.into_iter().filter(|family| *family != own).map(Attempt::Family);
    // Only what does not fit is helped by building it otherwise.
    let fits = bench.check.id == "fits";
    let ports = PORT_WAYS.into_iter().filter(|_| fits).map(Attempt::Port);
    let ways = FOLDS.flat_map(|folds| [FoldChange::Times(folds), FoldChange::Turned(folds)]);
    let way = bench.held.built.design.enclosure.path().is_some();
    // Folded otherwise it has another shape as well.
    let folds = ways.filter(|_| way && (fits || bench.check.id == "place")).map(Attempt::Fold);
    // What a builder does first: other sizes, another board.
    let placed = fits || ["size", "place"].contains(&bench.check.id);
    let sizes = placed.then_some(Attempt::Sizes);
    let faces = DRIVER_FACES.into_iter().filter(|_| placed && !way).map(Attempt::Face);
    let mounted = moved::attempts(bench);
    mounted
        .into_iter()
        .chain(sizes)
        .chain(faces)
        .chain(ports)
        .chain(folds)
        .chain(turns)
        .chain(pairs)
        .chain(families)
        .chain(others)
        .collect()
}

impl Attempt {
    /// What comes of it.
    pub(super) fn run(self, bench: &Bench<'_>) -> Option<Found> {
        match self {
            Self::Turn(parameter, up) => turn(bench, parameter, up),
            Self::Both(pair) => both(bench, pair),
            Self::Drivers { series: true } => drivers(bench, true, 2.0, "Twice the drivers, in series"),
            Self::Drivers { series: false } => drivers(bench, false, 2.0, "Twice the drivers, in parallel"),
            Self::Family(kind) => family(bench, kind),
            Self::Sizes => sizes(bench),
            Self::Face(face) => driver_face(bench, face),
            Self::Port(way) => port(bench, way),
            Self::Fold(way) => fold(bench, way),
            Self::Mounted(words, design, effort) => built_otherwise(bench, *design, words, effort),
            Self::Fewer { series } => drivers(bench, series, 0.5, "Half as many drivers"),
            Self::Power => power(bench),
            Self::Cabinets => cabinets(bench),
            Self::Loudness => loudness(bench),
            Self::Less => content(bench),
        }
    }
}

fn turned(bench: &Bench<'_>, parameter: &'static Parameter, after: f64) -> Option<(Turn, RawDesign)> {
    let before = parameter.value(&bench.held)?;
    let design = parameter.set(&bench.held, after)?;
    Some((Turn::of(parameter.id, parameter.name, parameter.field, before, after), design))
}

/// Turns one parameter as little as fixes; where nothing does, as far as it helps most.
fn turn(bench: &Bench<'_>, parameter: &'static Parameter, up: bool) -> Option<Found> {
    let try_at = |factor: f64, digits: Option<u32>| {
        let exact = parameter.times(&bench.held, factor)?;
        let after = digits.map_or(exact, |digits| rounded(exact, digits, parameter));
        let (turn, design) = turned(bench, parameter, after)?;
        let (check, seen) = bench.look(&bench.ask.brief, &design)?;
        let change = Change { words: String::new(), turns: vec![turn], design: Some(design), brief: None };
        Some(bench.found(change, factor.ln().abs(), &check, &seen))
    };
    let direction = |factor: f64| if up { factor } else { factor.recip() };
    let (mut low, mut best) = (1.0, None::<Found>);
    for (step, factor) in LADDER.into_iter().enumerate() {
        let Some(found) = try_at(direction(factor), None) else { break };
        if found.met {
            return Some(narrowed(&try_at, direction, [low, factor]).unwrap_or(found));
        }
        // Two steps that only make it worse: the other way, then.
        let helped = found.ratio > bench.check.ratio * 1.002;
        let worse = found.ratio < bench.check.ratio * 0.998;
        if step == 1 && worse && best.is_none() {
            return None;
        }
        if helped && best.as_ref().is_none_or(|best| found.ratio > best.ratio) {
            best = Some(found);
        }
        low = factor;
    }
    best
}

/// The least that fixes between a factor that does not and one that does, rounded to what people set.
fn narrowed(
    try_at: &impl Fn(f64, Option<u32>) -> Option<Found>,
    direction: impl Fn(f64) -> f64,
    [mut low, mut high]: [f64; 2],
) -> Option<Found> {
    for _ in 0..ROUNDS {
        let middle = (low * high).sqrt();
        if try_at(direction(middle), None).is_some_and(|found| found.met) {
            high = middle;
        } else {
            low = middle;
        }
    }
    // A little beyond, so that a rounded value still fixes.
    [(1.012, 2), (1.004, 3), (1.0, 4)]
        .into_iter()
        .find_map(|(beyond, digits)| try_at(direction(high * beyond), Some(digits)).filter(|found| found.met))
}

/// A value as people set it, in its usual unit.
fn rounded(value: f64, digits: u32, parameter: &Parameter) -> f64 {
    parameter.field.read(Some(&parameter.field.typed(value, digits))).unwrap_or(value)
}

/// Two parameters a little each, where together they harm nothing.
fn both(bench: &Bench<'_>, pair: [(&'static Parameter, bool); 2]) -> Option<Found> {
    let direction = |up: bool, factor: f64| if up { factor } else { factor.recip() };
    let [(first, up), (second, also)] = pair;
    let mut steps: Vec<(f64, f64)> =
        LADDER[1..6].iter().flat_map(|a| LADDER[1..5].iter().map(move |b| (*a, *b))).collect();
    steps.sort_by(|a, b| (a.0 * a.1).total_cmp(&(b.0 * b.1)));
    steps.into_iter().find_map(|(a, b)| {
        let after = rounded(first.times(&bench.held, direction(up, a))?, 2, first);
        let (one, design) = turned(bench, first, after)?;
        let held = Held::of(&design).ok()?;
        let before = second.value(&bench.held)?;
        let after = rounded(second.times(&held, direction(also, b))?, 2, second);
        let design = second.set(&held, after)?;
        let other = Turn::of(second.id, second.name, second.field, before, after);
        let (check, seen) = bench.look(&bench.ask.brief, &design)?;
        let change =
            Change { words: String::new(), turns: vec![one, other], design: Some(design), brief: None };
        let found = bench.found(change, 0.2 + (a * b).ln(), &check, &seen);
        (found.met && found.suggestion.harms == 0).then_some(found)
    })
}

/// The box in sizes that go into the brief's place.
fn sizes(bench: &Bench<'_>) -> Option<Found> {
    let mut design = bench.ask.design.clone();
    if let Some(body) = &mut design.body {
        (body.width, body.height, body.depth) = (None, None, None);
        body.order.clear();
    }
    let design = fitted(&bench.brief, &bench.ask.brief, design);
    let outside =
        Held::of(&design).ok()?.built.outside()?.map(|size| format!("{:.1}", size * 100.0)).join(" × ");
    let words = format!("Sized for its place: {outside} cm outside");
    // What does not fit for want of a turn is not made another box first.
    built_otherwise(bench, design, words, if bench.check.id == "fits" { 0.3 } else { 0.02 })
}

/// The drivers in another board.
fn driver_face(bench: &Bench<'_>, face: RawFace) -> Option<Found> {
    let mut design = bench.ask.design.clone();
    let body = design.body.get_or_insert_default();
    if body.driver.as_ref().is_some_and(|place| place.face == face) {
        return None;
    }
    body.driver = Some(RawPlace { face, across: None, up: None });
    // Where it is a port that finds no room, that is turned first.
    let own = bench.check.id != "fits" || bench.check.words.contains("driver");
    let words = format!("The drivers in the {}", Face::from(face).name());
    built_otherwise(bench, design, words, if own { 0.04 } else { 0.2 })
}

/// A change that only concerns how it is built, where it helps.
fn built_otherwise(bench: &Bench<'_>, design: RawDesign, words: String, effort: f64) -> Option<Found> {
    let (check, seen) = bench.look(&bench.ask.brief, &design)?;
    let change = Change { words, turns: Vec::new(), design: Some(design), brief: None };
    let found = bench.found(change, effort, &check, &seen);
    (found.met || found.ratio > bench.check.ratio).then_some(found)
}

/// So many times as many drivers, as far as they stay whole ones.
fn drivers(bench: &Bench<'_>, series: bool, times: f64, words: &str) -> Option<Found> {
    let mut design = bench.ask.design.clone();
    let driver_array = design.driver_array.get_or_insert_with(RawDriverArray::default);
    let (slot, field) = if series {
        (&mut driver_array.series, &field::SERIES)
    } else {
        (&mut driver_array.parallel, &field::PARALLEL)
    };
    let count = field.read(slot.as_ref()).unwrap_or(1.0) * times;
    if count.fract() != 0.0 {
        return None;
    }
    *slot = Some(Typed::Number(count));
    built_otherwise(bench, design, words.to_owned(), 1.2)
}

/// Another kind of cabinet, by whichever of its starting points fixes with the least harm.
fn family(bench: &Bench<'_>, family: RawFamily) -> Option<Found> {
    let design = &bench.ask.design;
    let ask = RawAsk {
        driver_array: design.driver_array.clone(),
        signal: design.signal.clone(),
        space: design.space,
        air: design.air.clone(),
        volume: design.enclosure.volume.clone(),
        lowest: bench.ask.brief.lowest.clone(),
        ..RawAsk::of(design.driver.clone(), family)
    };
    let starts = ask.answer(bench.stop).ok()?;
    let found = starts.into_iter().filter_map(|start| {
        let other = RawDesign { name: design.name.clone(), body: design.body.clone(), ..start.design? };
        let other = fitted(&bench.brief, &bench.ask.brief, other);
        let (check, seen) = bench.look(&bench.ask.brief, &other)?;
        let words = format!("{} instead, by the starting point \"{}\"", family.name(), start.name);
        let change = Change { words, turns: Vec::new(), design: Some(other), brief: None };
        Some(bench.found(change, 1.0, &check, &seen))
    });
    found.filter(|found| found.met).min_by_key(|found| found.suggestion.harms)
}

/// Makes the first port a slot between both sides and of an area (m2); its height, m.
fn across_the_floor(design: &mut RawDesign, front: bool, section: f64) -> Option<f64> {
    let mut height = section.sqrt() / 4.0;
    // The room itself may follow from the volume that the slot takes, so a few rounds.
    for _ in 0..4 {
        height = (height * 1e3).round().max(5.0) * 1e-3;
        let ports =
            if front { &mut design.enclosure.front.as_mut()?.ports } else { &mut design.enclosure.ports };
        let port = ports.first_mut()?;
        port.width = None;
        port.height = Some(field::HEIGHT.typed(height, 3));
        let held = Held::of(design).ok()?;
        let [low, high] = held.built.boxed?.cabinet.interior.bounds();
        let wanted = section / (high[0] - low[0]);
        if (wanted - height).abs() <= 5e-4 {
            break;
        }
        height = wanted;
    }
    Some(height)
}

/// The port that does not fit, built another way.
fn port(bench: &Bench<'_>, way: PortChange) -> Option<Found> {
    let mut design = bench.ask.design.clone();
    let front = design.enclosure.ports.is_empty();
    let body = design.body.get_or_insert_default();
    let (builds, ports) = if front {
        (&mut body.front_ports, &mut design.enclosure.front.as_mut()?.ports)
    } else {
        (&mut body.ports, &mut design.enclosure.ports)
    };
    builds.resize_with(builds.len().max(ports.len()), Default::default);
    let (build, port) = (builds.first_mut()?, ports.first_mut()?);
    let turned = |turns: u32| (turns > 0).then(|| Typed::Number(f64::from(turns)));
    let said = |turns: u32| match turns {
        0 => "",
        1 => ", turned up once at the back",
        _ => ", turned twice, up and forward",
    };
    let words = match way {
        PortChange::Turns(turns) => {
            if build.turns == turned(turns) {
                return None;
            }
            build.turns = turned(turns);
            format!("The same port{}", said(turns))
        }
        PortChange::Face(face) => {
            if build.face == Some(face) {
                return None;
            }
            *build = RawPortBuild { face: Some(face), ..RawPortBuild::default() };
            format!("The same port out of the {}", Face::from(face).name())
        }
        PortChange::Slot(turns) => {
            if port.shape == RawPortSection::Slot && port.inner_end == Some(RawEnd::ThreeWalls) {
                return None;
            }
            let tunings = [&bench.held.built.compiled.rear_tuning, &bench.held.built.compiled.port_tuning];
            let ported = tunings.into_iter().flatten().next()?.ports.first()?;
            let section = ported.area * f64::from(ported.count);
            *build = RawPortBuild { turns: turned(turns), ..RawPortBuild::default() };
            *port = RawPort {
                shape: RawPortSection::Slot,
                diameter: None,
                side: None,
                count: None,
                inner_end: Some(RawEnd::ThreeWalls),
                ..port.clone()
            };
            let height = across_the_floor(&mut design, front, section)?;
            format!(
                "A slot along the floor, as wide as the box and {:.0} mm high{}",
                height * 1e3,
                said(turns)
            )
        }
    };
    let effort = match way {
        PortChange::Turns(turns) => 0.05 * f64::from(turns),
        PortChange::Face(_) => 0.12,
        PortChange::Slot(turns) => 0.15 + 0.05 * f64::from(turns),
    };
    built_otherwise(bench, design, words, effort)
}

/// The way that does not fit, folded otherwise.
fn fold(bench: &Bench<'_>, way: FoldChange) -> Option<Found> {
    let mut design = bench.ask.design.clone();
    let fold = design.body.get_or_insert_default().fold.get_or_insert_default();
    let (folds, stack) = match way {
        FoldChange::Times(folds) => (folds, fold.stack),
        FoldChange::Turned(folds) if fold.stack == RawStack::Level => (folds, RawStack::Upright),
        FoldChange::Turned(folds) => (folds, RawStack::Level),
    };
    let typed = Some(Typed::Number(f64::from(folds)));
    if fold.folds == typed && fold.stack == stack {
        return None;
    }
    let (corner, thickness) = (fold.corner, fold.thickness.clone());
    *fold = RawFold { folds: typed, stack, corner, thickness, ..RawFold::default() };
    let times = match folds {
        0 => "Not folded".to_owned(),
        1 => "Folded once".to_owned(),
        _ => format!("Folded {folds} times"),
    };
    let lie = match (way, stack) {
        (FoldChange::Times(_), _) => "",
        (FoldChange::Turned(_), RawStack::Upright) => ", its channels upright behind each other",
        (FoldChange::Turned(_), RawStack::Level) => ", its channels level below each other",
    };
    let effort = 0.1 + if lie.is_empty() { 0.0 } else { 0.05 };
    built_otherwise(bench, design, format!("{times}{lie}"), effort)
}

/// An amplifier of as much power as fixes.
fn power(bench: &Bench<'_>) -> Option<Found> {
    let field = &field::BRIEF_POWER;
    let before = field.read(bench.ask.brief.amplifier_power.as_ref())?;
    let steps = [1.25, 1.6, 2.0, 2.5, 3.2, 4.0].into_iter().filter_map(|factor| {
        let typed = field.typed(before * factor, 2);
        let turn =
            Turn::of("amplifier_power", "Power of the amplifier", field, before, field.read(Some(&typed))?);
        asked(bench, turn, RawBrief { amplifier_power: Some(typed), ..bench.ask.brief.clone() })
    });
    least(bench, steps)
}

/// Checks that what several cabinets share can fix.
const SHARED: [&str; 3] = ["loudness", "air", "cone"];

/// As many more cabinets of the kind as fix.
fn cabinets(bench: &Bench<'_>) -> Option<Found> {
    let before = f64::from(bench.brief.cabinets);
    let steps = (1..=3).filter_map(|more| {
        let after = before + f64::from(more);
        let turn = Turn::of("cabinets", "Cabinets", &field::BRIEF_CABINETS, before, after);
        asked(bench, turn, RawBrief { cabinets: Some(Typed::Number(after)), ..bench.ask.brief.clone() })
    });
    SHARED.contains(&bench.check.id).then(|| least(bench, steps)).flatten()
}

/// A brief that asks for less level, in steps that are heard.
fn loudness(bench: &Bench<'_>) -> Option<Found> {
    let field = &field::BRIEF_LOUDNESS;
    let before = field.read(bench.ask.brief.loudness.as_ref())?;
    let steps = (1..=12).filter_map(|less| {
        let after = before - f64::from(less);
        let turn = Turn::of("loudness", "Loudness asked", field, before, after);
        asked(bench, turn, RawBrief { loudness: Some(field.typed(after, 4)), ..bench.ask.brief.clone() })
    });
    least(bench, steps)
}

/// Most by which a brief is relaxed, as a share.
const RELAXED: f64 = 0.15;

/// A brief that is content with what is reached: where it is not far from what was asked.
fn content(bench: &Bench<'_>) -> Option<Found> {
    let asked = &bench.ask.brief;
    let (mut brief, mut turns) = (asked.clone(), Vec::new());
    let mut relax = |id, name, field: &'static Field, slot: &mut Option<Typed>, reached: f64| {
        let before = field.read(slot.as_ref())?;
        let typed = field.typed(reached, 4);
        *slot = Some(typed.clone());
        turns.push(Turn::of(id, name, field, before, field.read(Some(&typed))?));
        Some(())
    };
    match bench.check.id {
        "size" => {
            let standing = bench.held.built.standing()?;
            let sides: [(_, _, _, &mut Option<Typed>); 3] = [
                ("width", "Width allowed", &field::BRIEF_WIDTH, &mut brief.width),
                ("height", "Height allowed", &field::BRIEF_HEIGHT, &mut brief.height),
                ("depth", "Depth allowed", &field::BRIEF_DEPTH, &mut brief.depth),
            ];
            for (k, (id, name, field, slot)) in sides.into_iter().enumerate() {
                if bench.brief.outside[k].is_some_and(|most| standing[k] > most * (1.0 + 1e-6)) {
                    // To whole centimetres, as people measure places.
                    relax(id, name, field, slot, (standing[k] * 1e2 - 1e-4).ceil() * 1e-2)?;
                }
            }
            let volume = bench.held.built.boxed.as_ref()?.cabinet.outer.volume();
            if bench.brief.free.is_some_and(|free| volume > free) {
                let reached = (volume * 1e3).ceil() * 1e-3;
                relax("volume", "Outside volume allowed", &field::BRIEF_FREE, &mut brief.volume, reached)?;
            }
        }
        id => {
            let within =
                |field: &Field, slot: &Option<Typed>| Some(field.read(slot.as_ref())? / bench.check.ratio);
            let (id, name, field, slot, reached, step) = match id {
                "lowest" => {
                    let field = &field::BRIEF_LOWEST;
                    (id, "Lowest note asked", field, &mut brief.lowest, bench.now.lowest, 0.5)
                }
                "weight" => {
                    let field = &field::BRIEF_WEIGHT;
                    let reached = within(field, &brief.weight);
                    (id, "Weight allowed", field, &mut brief.weight, reached, 0.5)
                }
                "cost" => {
                    let field = &field::BRIEF_BUDGET;
                    let reached = within(field, &brief.budget);
                    ("budget", "Budget", field, &mut brief.budget, reached, 1.0)
                }
                _ => return None,
            };
            relax(id, name, field, slot, (reached? / step).ceil() * step)?;
        }
    }
    let near = |turn: &Turn| (turn.after / turn.before).ln().abs() <= RELAXED;
    if turns.is_empty() || !turns.iter().all(near) {
        return None;
    }
    let (check, seen) = bench.look(&brief, &bench.ask.design)?;
    let change = Change { words: String::new(), turns, design: None, brief: Some(brief) };
    Some(bench.found(change, 1.4, &check, &seen))
}

/// How the design stands to another brief.
fn asked(bench: &Bench<'_>, turn: Turn, brief: RawBrief) -> Option<Found> {
    let (check, seen) = bench.look(&brief, &bench.ask.design)?;
    let change = Change { words: String::new(), turns: vec![turn], design: None, brief: Some(brief) };
    Some(bench.found(change, 1.5, &check, &seen))
}

/// The first that fixes, or the best of what helps.
fn least(bench: &Bench<'_>, steps: impl Iterator<Item = Found>) -> Option<Found> {
    let mut best: Option<Found> = None;
    for found in steps {
        if found.met {
            return Some(found);
        }
        if found.ratio > best.as_ref().map_or(bench.check.ratio * 1.002, |best| best.ratio) {
            best = Some(found);
        }
    }
    best
}
