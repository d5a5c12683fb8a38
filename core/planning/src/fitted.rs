//! Sizes for a box that go into the place that a brief leaves it.

use oak_cabinetry::Contents;
use oak_cabinetry::geometry::Solid;
use oak_design::built::Built;
use oak_design::field::{self, Field};
use oak_design::file::{
    RawBody, RawBrief, RawDesign, RawEnclosureShape, RawFace, RawFold, RawPlace, RawPortBuild, RawRatio,
    RawStack, Typed,
};
use oak_design::resolve::{Brief, ResolvedDesign, resolve_design};

use crate::check::{place, size};

/// Proportions that are tried, the usual ones first.
const RATIOS: [RawRatio; 6] = [
    RawRatio::CubeRoot,
    RawRatio::SquareRoot,
    RawRatio::Golden,
    RawRatio::Low,
    RawRatio::Tower,
    RawRatio::Cube,
];
/// Which of width, height and depth are as large as they may be.
const FILLED: [[bool; 3]; 6] = [
    [true, true, false],
    [true, false, true],
    [false, true, true],
    [true, false, false],
    [false, false, true],
    [false, true, false],
];
const FIELDS: [&Field; 3] = [&field::BODY_WIDTH, &field::BODY_HEIGHT, &field::BODY_DEPTH];

/// How a design's box stands to its place.
#[derive(Debug, Clone, Copy, PartialEq, PartialOrd)]
struct Standing {
    /// Less than nothing for each thing that forbids building it.
    faults: i32,
    /// What the place allows over what it takes, at most 1; less where a way in it came out another length than was asked for.
    room: f64,
}

/// Share of its length that a way may be off by in a box that is looked no further from: what folding usually costs (common practice).
const AS_ASKED: f64 = 0.05;

impl Standing {
    const DONE: Self = Self { faults: 0, room: 1.0 };

    fn of(brief: &Brief, built: &Built) -> Self {
        if built.unbuildable.is_some() {
            return Self { faults: i32::MIN, room: 0.0 };
        }
        let ratios = [size::ratio(brief, built), place::ratio(brief, built)];
        let room = ratios.into_iter().flatten().fold(1.0, f64::min) * likeness(built);
        // What rounding makes is no fault.
        let room = if room > 1.0 - 1e-6 { 1.0 } else { room };
        Self { faults: -i32::try_from(built.forbids().len()).unwrap_or(i32::MAX), room }
    }
}

/// How near a folded way comes to the length that was asked for: 1 where it is as near as folding gets it, and where there is none.
fn likeness(built: &Built) -> f64 {
    let lengths = built.boxed.as_ref().and_then(|boxed| {
        Some((boxed.contents.path.as_ref()?.length(), boxed.cabinet.fold.as_ref()?.length()))
    });
    lengths.map_or(1.0, |(asked, laid)| {
        let share = (laid / asked).min(asked / laid);
        if share >= 1.0 - AS_ASKED { 1.0 } else { share }
    })
}

/// The best so far of the boxes that were looked at.
struct Search<'a> {
    brief: &'a Brief,
    design: &'a RawDesign,
    most: &'a Most,
    /// What goes in, where the boxes differ in their sizes alone.
    contents: Option<Contents>,
    best: Standing,
    body: Option<RawBody>,
}

impl Search<'_> {
    fn done(&self) -> bool {
        self.best == Standing::DONE
    }

    fn with(&self, body: &RawBody) -> Option<ResolvedDesign> {
        resolve_design(&RawDesign { body: Some(body.clone()), ..self.design.clone() }).ok()
    }

    /// What the sides of the place allow over those of a box, which is quickly told; 1 where it is not.
    fn sides(&self, design: &ResolvedDesign) -> f64 {
        let Some(contents) = &self.contents else { return 1.0 };
        let outside = design.body.outside(contents);
        outside.map_or(0.0, |outside| size::sides(self.brief, outside).min(1.0))
    }

    /// How the design stands in a box; nothing where one that suits is known, or it cannot be worked out.
    fn look(&mut self, body: &RawBody) -> Option<Standing> {
        if self.done() {
            return None;
        }
        let design = self.with(body)?;
        self.judge(body, &design)
    }

    fn judge(&mut self, body: &RawBody, design: &ResolvedDesign) -> Option<Standing> {
        let found = Standing::of(self.brief, &design.built().ok()?);
        if found > self.best {
            (self.best, self.body) = (found, Some(body.clone()));
        }
        Some(found)
    }

    fn look_at_ways(&mut self, body: &RawBody) {
        let front = self.design.enclosure.front.as_ref().map_or(0, |front| front.ports.len());
        let ports = &self.design.enclosure.ports;
        let across = ports.first().and_then(|port| field::DIAMETER.read(port.diameter.as_ref()));
        let tucked = across.map(|across| across / 2.0 + TUCKED);
        for way in ways(body, [ports.len(), front], tucked, self.most) {
            self.look(&way);
        }
    }

    /// Looks at those that the place has room for, and then at the nearest of the others.
    fn look_at_all(&mut self, bodies: impl Iterator<Item = RawBody>) {
        let mut larger = Vec::new();
        for body in bodies {
            if self.done() {
                return;
            }
            let Some(design) = self.with(&body) else { continue };
            let sides = self.sides(&design);
            if sides < 1.0 - 1e-6 {
                larger.push((sides, body));
                continue;
            }
            // What goes in needs but another place for what is mounted.
            let found = self.judge(&body, &design);
            if self.contents.is_some() && found.is_some_and(|found| found.room >= 1.0) {
                self.look_at_ways(&body);
            }
        }
        larger.sort_by(|a, b| b.0.total_cmp(&a.0));
        for (_, body) in larger.iter().take(NEAREST) {
            self.look(body);
        }
    }
}

/// The design with sizes for its box, where a brief limits them and the usual proportions do not go in or cannot be built: the first that
/// does, or the one that comes nearest; with the drivers on top or ports that turn where they find no room. Sizes that are written already stay.
#[must_use]
pub fn fitted(brief: &Brief, asked: &RawBrief, design: RawDesign) -> RawDesign {
    let stated = |body: &RawBody| body.width.is_some() || body.height.is_some() || body.depth.is_some();
    if design.body.as_ref().is_some_and(stated) {
        return design;
    }
    let Some(built) = resolve_design(&design).ok().and_then(|found| found.built().ok()) else {
        return design;
    };
    let best = Standing::of(brief, &built);
    let proud = built.design.driver_size().proud(built.design.body.recess);
    let most = Most::of(brief, asked, proud);
    let lumped = design.enclosure.family.is_of_its_volume();
    let contents = built.boxed.as_ref().filter(|_| lumped).map(|boxed| boxed.contents.clone());
    let mut search =
        Search { brief, design: &design, most: &most, contents, best, body: design.body.clone() };
    let own = design.body.clone().unwrap_or_default();
    if lumped && best.room >= 1.0 && !search.done() {
        search.look_at_ways(&own);
    }
    let frame = size::frame(&built.design.driver);
    search.look_at_all(bodies(brief, asked, own.clone(), lumped, frame, &most));
    if lumped && search.best.room < 1.0 {
        let nearest = search.body.clone().unwrap_or(own);
        search.look_at_ways(&nearest);
    }
    let body = search.body;
    let found = RawDesign { body, ..design };
    if lumped { found } else { without_waste(brief, found, frame) }
}

/// Share of a box that may be closed off beside a chamber before another box is looked for.
const WASTE: f64 = 0.02;

/// The smallest of the boxes that do as well, where a good part of one is closed off beside the chamber that its way begins at.
fn without_waste(brief: &Brief, design: RawDesign, frame: f64) -> RawDesign {
    let stands = |body: &Option<RawBody>| {
        let built = resolve_design(&RawDesign { body: body.clone(), ..design.clone() }).ok()?.built().ok()?;
        let cabinet = &built.boxed.as_ref()?.cabinet;
        let closed_off = cabinet.unused.as_ref().map_or(0.0, Solid::volume);
        Some((Standing::of(brief, &built), cabinet.outer.volume(), closed_off))
    };
    let Some((standing, volume, closed_off)) = stands(&design.body) else { return design };
    if closed_off < WASTE * volume {
        return design;
    }
    let own = design.body.clone().unwrap_or_default();
    let others = wide(brief, own, frame).filter_map(|body| {
        let body = Some(body);
        let (found, volume, _) = stands(&body)?;
        (found >= standing).then_some((volume, body))
    });
    let least = others.filter(|(other, _)| *other < volume).min_by(|a, b| a.0.total_cmp(&b.0));
    match least {
        Some((_, body)) => RawDesign { body, ..design },
        None => design,
    }
}

/// From the edge of a box to a port in its corner: board, wall of the tube and a little air, m (common practice).
const TUCKED: f64 = 0.032;

/// Of boxes that are larger than the place, so many are looked at.
const NEAREST: usize = 3;

/// How large a box may be.
struct Most {
    /// Width, height and depth as the brief has them.
    whole: [Option<Typed>; 3],
    /// The same without what stands proud of a board there.
    less: [Option<Typed>; 3],
    /// How much that is, m.
    proud: f64,
}

impl Most {
    fn of(brief: &Brief, asked: &RawBrief, proud: f64) -> Self {
        let whole = [&asked.width, &asked.height, &asked.depth].map(Clone::clone);
        let less = [0, 1, 2].map(|k| less(&whole[k], brief.outside[k], FIELDS[k], proud));
        Self { whole, less, proud }
    }
}

/// A size without what stands proud, in whole millimetres.
fn less(typed: &Option<Typed>, most: Option<f64>, field: &Field, proud: f64) -> Option<Typed> {
    match most {
        Some(most) if proud > 0.0 => Some(field.typed(((most - proud) * 1e3).floor() * 1e-3, 4)),
        _ => typed.clone(),
    }
}

/// The same with the drivers on top, with ports that turn up at the back or come out elsewhere, and both, where nothing is written of
/// them. Ports are those of the rear and of the front chamber; the middle of a rear one in a corner is `tucked` (m) from either edge.
fn ways(own: &RawBody, ports: [usize; 2], tucked: Option<f64>, most: &Most) -> impl Iterator<Item = RawBody> {
    let place = RawPlace { face: RawFace::Top, across: None, up: None };
    let above = own.driver.is_none().then(|| {
        // What stands proud does so there.
        let moved = |size: &Option<Typed>, from: &Option<Typed>, to: &Option<Typed>| {
            if size == from { to.clone() } else { size.clone() }
        };
        let height = moved(&own.height, &most.whole[1], &most.less[1]);
        let depth = moved(&own.depth, &most.less[2], &most.whole[2]);
        RawBody { driver: Some(place), height, depth, ..own.clone() }
    });
    let turned = |turns: f64| RawPortBuild { turns: Some(Typed::Number(turns)), ..RawPortBuild::default() };
    let at = |face: RawFace| RawPortBuild { face: Some(face), ..RawPortBuild::default() };
    let free = ports != [0, 0] && own.ports.is_empty() && own.front_ports.is_empty();
    let with = |body: &RawBody, behind: &RawPortBuild, before: &RawPortBuild| RawBody {
        ports: vec![behind.clone(); ports[0]],
        front_ports: vec![before.clone(); ports[1]],
        ..body.clone()
    };
    let turn = turned(1.0);
    let mut all: Vec<RawBody> = above.iter().cloned().collect();
    if free {
        let boxes = [Some(own), above.as_ref()];
        all.extend(boxes.into_iter().flatten().map(|body| with(body, &turn, &turn)));
    }
    // What has a chamber in front has boards of its own for its ports; the one behind goes past the magnet in a corner of its board.
    if free && ports[1] > 0 {
        let plain = RawPortBuild::default();
        let front = [plain.clone(), turn.clone(), turned(2.0), at(RawFace::Left), at(RawFace::Top)];
        let mut rear = front[..if ports[0] > 0 { 3 } else { 1 }].to_vec();
        let aside = tucked.map(|off| field::PORT_ACROSS.typed(off, 4));
        let aside = aside.filter(|_| ports[0] == 1);
        rear.extend(aside.into_iter().flat_map(|off| {
            [0.0, 1.0, 2.0].map(|turns| RawPortBuild {
                across: Some(off.clone()),
                up: Some(off.clone()),
                ..turned(turns)
            })
        }));
        for (behind, before) in rear.iter().flat_map(|rear| front.iter().map(move |front| (rear, front))) {
            let body = with(own, behind, before);
            // As they come they were looked at before.
            if (*behind != plain || *before != plain) && !all.contains(&body) {
                all.push(body);
            }
        }
    }
    all.into_iter()
}

/// Bodies that may suit a place; of a folded way few, because each takes a hundred times as long.
fn bodies<'a>(
    brief: &'a Brief,
    asked: &'a RawBrief,
    own: RawBody,
    lumped: bool,
    frame: f64,
    most: &'a Most,
) -> impl Iterator<Item = RawBody> + 'a {
    let plain = own.shape == RawEnclosureShape::Box;
    let depth = most.less[2].clone();
    let limits = [most.whole[0].clone(), most.whole[1].clone(), depth.clone()];
    let leaning = brief.top_depth.filter(|_| plain).map(|_| RawBody {
        shape: RawEnclosureShape::Wedge,
        height: asked.height.clone(),
        depth: depth.clone(),
        top_depth: less(&asked.top_depth, brief.top_depth, &field::BODY_TOP_DEPTH, most.proud),
        ..own.clone()
    });
    let ratios = RATIOS.map(|ratio| RawBody { ratio, ..own.clone() });
    let filled = FILLED.into_iter().filter_map({
        let own = own.clone();
        move |filled| {
            let at = |k: usize| -> Option<Option<Typed>> {
                match (filled[k], brief.outside[k], &limits[k]) {
                    (false, _, _) => Some(None),
                    (true, Some(_), typed) => Some(typed.clone()),
                    (true, None, _) => None,
                }
            };
            Some(RawBody { width: at(0)?, height: at(1)?, depth: at(2)?, ..own.clone() })
        }
    });
    // In the proportions of the place, a little smaller until it holds what it must.
    let base = own.clone();
    let shrunk = [0.95, 0.9, 0.8, 0.7, 0.6].into_iter().filter_map(move |share| {
        let [width, height, _] = brief.outside;
        let at = |k: usize, side: f64| Some(FIELDS[k].typed((share * side * 1e3).round() * 1e-3, 4));
        let (width, height) = width.zip(height)?;
        Some(RawBody { width: at(0, width), height: at(1, height), ..base.clone() })
    });
    // A small box is hardly wider than its driver, and two chambers one behind the other make a long one.
    let free = lumped && brief.outside.iter().all(Option::is_none);
    let base = own.clone();
    let close = CLOSE.into_iter().filter(move |_| free).map(move |times| {
        let at = |k: usize| Some(FIELDS[k].typed((times[k] * frame * 1e3).round() * 1e-3, 4));
        RawBody { width: at(0), height: at(1), ..base.clone() }
    });
    // A folded way is as wide as the box: from hardly wider than the driver on.
    let wide = (!lumped).then(|| wide(brief, own, frame)).into_iter().flatten();
    leaning
        .into_iter()
        .chain(ratios)
        .chain(shrunk)
        .filter(move |_| lumped)
        .chain(filled)
        .chain(close)
        .chain(wide)
}

/// Widths and heights of boxes that are tried, over the driver's frame.
const CLOSE: [[f64; 2]; 9] = [
    [1.2, 1.2],
    [1.4, 1.2],
    [1.7, 1.2],
    [2.0, 1.2],
    [1.5, 1.5],
    [1.8, 1.4],
    [1.8, 1.8],
    [2.2, 1.8],
    [2.2, 2.2],
];

/// Boxes with a folded way, from hardly wider than the driver to as wide as the place; its channels lie as they do, or upright where nothing is
/// written of them.
fn wide(brief: &Brief, own: RawBody, frame: f64) -> impl Iterator<Item = RawBody> + use<> {
    let widest = brief.outside[0].unwrap_or(f64::INFINITY) / frame;
    let upright = RawFold { stack: RawStack::Upright, ..RawFold::default() };
    let stacks = if own.fold.is_none() { vec![None, Some(upright)] } else { vec![own.fold.clone()] };
    WIDTHS.into_iter().filter(move |times| *times < widest).flat_map(move |times| {
        let width = Some(FIELDS[0].typed((times * frame * 1e3).round() * 1e-3, 4));
        let base = RawBody { width, ..own.clone() };
        stacks.clone().into_iter().map(move |fold| RawBody { fold, ..base.clone() })
    })
}

/// Widths of boxes with folded ways that are tried, over the driver's frame.
const WIDTHS: [f64; 5] = [1.2, 1.4, 1.7, 2.1, 2.6];
