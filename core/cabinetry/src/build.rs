//! From a wish to a box: sizes solved, volumes added up.

use oak_acoustics::root::zero;

use crate::body::{Body, Brace, PortBuild};
use crate::cabinet::{BuildError, Cabinet, Chamber};
use crate::contents::{Contents, PortSize};
use crate::finding::Finding;
use crate::fold::{DuctPath, Laid, MOST_FOLDS, Seat, runs_up};
use crate::geometry::{Axis, EnclosureShape, Face, Sizes, Solid};
use crate::ledger::{Entry, Ledger};
use crate::pipe::Fittings;
use crate::place::{self, Strip};

/// How near the volume of a solved box comes to what is wanted, as a share.
const EXACT: f64 = 1e-6;
/// Where looking for a size ends, as a share of the volume wanted, and after how many steps at the latest.
const NEAR: f64 = 1e-10;
const ROUNDS: usize = 80;
/// Least depth of a chamber, m.
const LEAST_DEPTH: f64 = 1e-6;
/// Least room that counts as a chamber, m3.
const LEAST: f64 = 1e-6;
/// Span in which a free size is looked for, m.
const SIZES: [f64; 2] = [0.02, 8.0];

/// What room a box has before anything is placed.
struct Interiors {
    outer: Solid,
    interior: Solid,
    chambers: Vec<Chamber>,
    unused: Option<Solid>,
}

/// Hears of what eats of a room: what to call it, its volume (m3), and whether that is estimated.
type Told<'a> = dyn FnMut(&dyn Fn() -> String, f64, bool) + 'a;

/// The room between the boards, as far as what eats of it asks.
enum Interior<'a> {
    Solid(&'a Solid),
    /// Width, height and depth, m.
    Cuboid(Sizes),
}

impl Interior<'_> {
    fn volume(&self) -> f64 {
        match self {
            Self::Solid(solid) => solid.volume(),
            Self::Cuboid(sizes) => sizes.iter().product(),
        }
    }

    /// Length along an axis, m.
    fn along(&self, axis: Axis) -> f64 {
        match self {
            Self::Solid(solid) => {
                let [low, high] = solid.bounds().map(|point| point[axis.index()]);
                high - low
            }
            Self::Cuboid(sizes) => sizes[axis.index()],
        }
    }

    /// Area across an axis at a place from its low end (m), or in the middle, m2.
    fn across(&self, axis: Axis, at: Option<f64>) -> f64 {
        match self {
            Self::Solid(solid) => {
                let [low, high] = solid.bounds().map(|point| point[axis.index()]);
                solid.area_at(axis, at.map_or(f64::midpoint(low, high), |at| low + at))
            }
            Self::Cuboid(sizes) => {
                let along = sizes[axis.index()];
                let within = at.is_none_or(|at| (0.0..=along).contains(&at));
                if within { sizes.iter().product::<f64>() / along } else { 0.0 }
            }
        }
    }
}

impl Body {
    /// Builds the box around its contents.
    ///
    /// # Errors
    /// See [`BuildError`].
    pub fn build(&self, contents: &Contents) -> Result<Cabinet, BuildError> {
        if contents.path.is_some() && self.fold.folds.is_none() {
            return self.best_fold(contents);
        }
        let mut cabinet = self.empty(contents)?;
        place::fill(self, contents, &mut cabinet);
        Ok(cabinet)
    }

    /// The box with its chambers and its way as it is folded, with nothing mounted.
    fn empty(&self, contents: &Contents) -> Result<Cabinet, BuildError> {
        let (sizes, taken) = self.solve(contents)?;
        let Interiors { outer, interior, chambers, unused } = self.interiors(sizes, contents, taken)?;
        let fold = match (&contents.path, chambers.last()) {
            (Some(path), Some(chamber)) => Some(self.lay(path, chamber)?),
            _ => None,
        };
        let free = self.shape.free();
        let solved = [0, 1, 2].map(|k| self.sizes[k].is_none() && free[k]);
        Ok(Cabinet {
            outer,
            interior,
            sizes,
            solved,
            chambers,
            unused,
            fold,
            parts: Vec::new(),
            findings: Vec::new(),
        })
    }

    /// The box with as many folds as suit it: where everything goes in, then where the way comes out nearest to what was asked and
    /// the sizes to the proportions.
    fn best_fold(&self, contents: &Contents) -> Result<Cabinet, BuildError> {
        let off = |cabinet: &Cabinet| {
            let missed = match (&contents.path, &cabinet.fold) {
                (Some(path), Some(laid)) => {
                    (laid.length() / path.length()).ln().abs() + laid.worst(path)[0].ln_1p().abs()
                }
                _ => 0.0,
            };
            let spread = [0, 1, 2].map(|k| (cabinet.sizes[k] / self.proportions[k]).ln());
            let mean = spread.iter().sum::<f64>() / 3.0;
            OFF * missed + spread.map(|size| (size - mean).abs()).iter().sum::<f64>()
        };
        let forbidden = |cabinet: &Cabinet| cabinet.findings.iter().any(Finding::forbids);
        // With whether anything forbids it and how far it is off.
        let mut best: Option<(Cabinet, (bool, f64))> = None;
        let mut refused = BuildError::NoFold;
        let mut worse = 0;
        let length = contents.path.as_ref().map_or(0.0, DuctPath::length);
        // Once folded into channels hardly longer than wide there is nothing more to find.
        let worth = |folds: &u32| *folds == 0 || length > SHORTEST * f64::from(folds + 1);
        let mut counts: Vec<u32> = (0..=MOST_FOLDS).take_while(worth).collect();
        // In the box as it would be without boards the way lies about so often; the nearest numbers come first.
        if let Ok(sizes) = self.filled(contents, 0.0) {
            let likely = length / sizes[self.fold.run().index()] - 1.0;
            counts.sort_by(|a, b| (f64::from(*a) - likely).abs().total_cmp(&(f64::from(*b) - likely).abs()));
        }
        for folds in counts {
            let mut wish = self.clone();
            wish.fold.folds = Some(folds);
            match wish.empty(contents) {
                Ok(mut cabinet) => {
                    let far = off(&cabinet);
                    // What is mounted makes none better that is farther off already.
                    let hopeless = best.as_ref().is_some_and(|(_, known)| (false, far) >= *known);
                    if !hopeless {
                        place::fill(&wish, contents, &mut cabinet);
                    }
                    let found = (forbidden(&cabinet), far);
                    let better = !hopeless && best.as_ref().is_none_or(|(_, known)| found < *known);
                    worse = if better { 0 } else { worse + 1 };
                    if better {
                        best = Some((cabinet, found));
                    }
                }
                Err(error) => {
                    worse += 1;
                    refused = error;
                }
            }
            // Beside the best number on both sides each is farther off.
            if worse == 2 && best.as_ref().is_some_and(|(_, (forbids, _))| !forbids) {
                break;
            }
        }
        best.map(|(cabinet, _)| cabinet).ok_or(refused)
    }

    /// Lays a way into its chamber.
    fn lay(&self, path: &DuctPath, chamber: &Chamber) -> Result<Laid, BuildError> {
        let plan = self.fold.plan(&chamber.interior);
        let laid = self.fold.lay(path, self.fold.folds.unwrap_or(0), &plan);
        laid.filter(Laid::is_open).ok_or(BuildError::NoFold)
    }

    /// Sizes with those left free found, and what the boards of a fold take, m3.
    ///
    /// The channels are made as long as the way needs; what else is free follows from the volume.
    fn solve(&self, contents: &Contents) -> Result<(Sizes, f64), BuildError> {
        let Some(path) = &contents.path else { return Ok((self.filled(contents, 0.0)?, 0.0)) };
        if self.shape != EnclosureShape::Rectangular {
            return Err(BuildError::NotFoldable);
        }
        let folds = self.fold.folds.unwrap_or(0);
        let run = self.fold.run().index();
        let mut long = self.clone();
        let mut sizes = self.filled(contents, 0.0)?;
        // To begin with, as many whole boards as there are channels.
        let interior = self.interiors(sizes, contents, 0.0)?.interior;
        let [low, high] = interior.bounds();
        let panel = (high[0] - low[0]) * (high[run] - low[run]) * self.fold.thickness;
        let mut taken = f64::from(folds + 1) * panel;
        sizes = self.filled(contents, taken).unwrap_or(sizes);
        for _ in 0..STRETCHES {
            let interiors = self.interiors(sizes, contents, taken)?;
            let plan = interiors.chambers.last().map(|chamber| self.fold.plan(&chamber.interior));
            let laid = plan.and_then(|plan| self.fold.lay(path, folds, &plan)).ok_or(BuildError::NoFold)?;
            let stated = self.sizes[run].is_some();
            let short = if stated { 0.0 } else { path.length() - laid.length() };
            let settled = (laid.taken() - taken).abs() < LAID * path.volume();
            if settled && short.abs() < LAID * path.length() {
                break;
            }
            taken = laid.taken();
            if !stated {
                long.sizes[run] = Some((sizes[run] + short / f64::from(folds + 1)).clamp(SIZES[0], SIZES[1]));
            }
            sizes = long.filled(contents, taken)?;
        }
        Ok((sizes, taken))
    }

    /// Sizes with those left free found for the volume.
    fn filled(&self, contents: &Contents, taken: f64) -> Result<Sizes, BuildError> {
        let free = self.shape.free();
        let with = |scale: f64| -> Sizes {
            let found = [0, 1, 2].map(|k| self.sizes[k].unwrap_or(scale * self.proportions[k]));
            // What a shape does not ask for follows from its width.
            [0, 1, 2].map(|k| if free[k] { found[k] } else { found[0] })
        };
        if self.sized() {
            return Ok(with(0.0));
        }
        let wanted: f64 = contents.wanted.iter().flatten().sum();
        // Too small for its boards, its steps or its corners is too small.
        let mounted = self.mounted(contents, taken);
        let over = |scale: f64| self.volumes(with(scale), contents, mounted).map(|net| net - wanted).ok();
        let mean = self.proportions.iter().product::<f64>().cbrt();
        let [mut low, mut high] = SIZES.map(|size| size / mean);
        let none = BuildError::NoSize { least: SIZES[0], most: SIZES[1] };
        let (mut short, mut more) = (None, over(high).filter(|more| *more >= 0.0).ok_or(none)?);
        // By halves until something can be built, then by chords: the end that stands still counts half each time (Illinois).
        let mut weights = [1.0, 1.0];
        for _ in 0..ROUNDS {
            if more <= NEAR * wanted {
                break;
            }
            let middle = short.map_or((low * high).sqrt(), |short: f64| {
                let [below, above] = [short * weights[0], more * weights[1]];
                low - below * (high - low) / (above - below)
            });
            match over(middle) {
                Some(value) if value >= 0.0 => {
                    (high, more) = (middle, value);
                    weights = [weights[0] / 2.0, 1.0];
                }
                value => {
                    (low, short) = (middle, value);
                    weights = [1.0, weights[1] / 2.0];
                }
            }
        }
        // The smallest box that can be built may hold more than is wanted already: then none fits.
        if more > EXACT * wanted {
            return Err(none);
        }
        Ok(with(high))
    }

    /// What everything but boards takes that depend on the sizes, with those of a fold (m3), m3.
    fn mounted(&self, contents: &Contents, folded: f64) -> f64 {
        let mut taken = 0.0;
        for front in [false, true] {
            self.each_entry(front, contents, folded, &mut |_, volume, _| taken += volume);
        }
        taken
    }

    /// Net volume of all chambers, m3, with what is mounted in them (m3).
    fn volumes(&self, sizes: Sizes, contents: &Contents, mounted: f64) -> Result<f64, BuildError> {
        let panels = |face| self.panel(face).taken();
        let built;
        let interior = match self.shape.cuboid(sizes, self.measured, panels) {
            Some(sizes) => Interior::Cuboid(sizes?),
            None => {
                built = self.shape.build(sizes, self.measured, panels)?;
                Interior::Solid(&built[1])
            }
        };
        let split =
            contents.divided().then(|| (self.split_axis(contents, &interior), self.partition.total()));
        let partition = split.map_or(0.0, |(axis, thick)| interior.across(axis, None) * thick);
        let mut taken = mounted + self.unused(contents, &interior);
        // A partition stands across those that are not parallel to it.
        let left = |axis: Axis| match split {
            Some((across, thick)) if axis != across => 1.0 - thick / interior.along(across),
            _ => 1.0,
        };
        let brace =
            |brace: &Brace| left(brace.axis) * brace.volume_across(interior.across(brace.axis, brace.at));
        let braces = self.braces.iter().map(brace).sum();
        let strips = match interior {
            _ if self.strips <= 0.0 || contents.path.is_some() => 0.0,
            Interior::Cuboid(sizes) => self.strips_of_cuboid(sizes, split.map(|(_, thick)| thick)),
            Interior::Solid(solid) => {
                let strips = self.strips_in(contents, solid, solid);
                let cut = |strip: &Strip| {
                    split.map_or(0.0, |(axis, thick)| strip.across(axis, self.strips) * thick)
                };
                strips.iter().map(|strip| strip.volume(self.strips) - cut(strip)).sum()
            }
        };
        self.boards(braces, strips, &mut |_, volume, _| taken += volume);
        Ok(interior.volume() - partition - taken)
    }

    /// Width, height and depth outside, m, without a look at what is mounted where.
    ///
    /// # Errors
    /// See [`BuildError`].
    pub fn outside(&self, contents: &Contents) -> Result<Sizes, BuildError> {
        let (sizes, _) = self.solve(contents)?;
        let [outer, _] = self.shape.build(sizes, self.measured, |face| self.panel(face).taken())?;
        let [low, high] = outer.bounds();
        Ok([0, 1, 2].map(|k| high[k] - low[k]))
    }

    /// Net volume of each chamber, m3.
    ///
    /// # Errors
    /// See [`BuildError`].
    pub fn net(&self, contents: &Contents) -> Result<[Option<f64>; 2], BuildError> {
        let (sizes, taken) = self.solve(contents)?;
        let interiors = self.interiors(sizes, contents, taken)?;
        let net = |index: usize| interiors.chambers.get(index).map(|chamber| chamber.ledger.net());
        Ok([net(0), net(1)])
    }

    fn interiors(&self, sizes: Sizes, contents: &Contents, taken: f64) -> Result<Interiors, BuildError> {
        let [outer, interior] = self.shape.build(sizes, self.measured, |face| self.panel(face).taken())?;
        let ledger = |chamber: &Solid, front: bool| Ledger {
            gross: chamber.volume(),
            entries: self.entries(front, contents, chamber, &interior, taken),
            wanted: contents.wanted[usize::from(front)].unwrap_or(0.0),
            gain: contents.gain[usize::from(front)],
        };
        if !contents.divided() {
            let ledger = ledger(&interior, false);
            let chambers = vec![Chamber { interior: interior.clone(), ledger }];
            return Ok(Interiors { outer, interior, chambers, unused: None });
        }
        let axis = self.split_axis(contents, &Interior::Solid(&interior));
        // A way begins on top or in front, so there is its chamber.
        let turned = contents.path.is_some();
        let thick = self.partition.total();
        let [low, high] = interior.bounds().map(|point| point[axis.index()]);
        let split = |at: f64| {
            let low = interior.below(axis, at - thick / 2.0).ok_or(BuildError::NotDivisible)?;
            let high = interior.above(axis, at + thick / 2.0).ok_or(BuildError::NotDivisible)?;
            Ok::<_, BuildError>(if turned { [high, low] } else { [low, high] })
        };
        // Both chambers miss their volume by the same share.
        let missed = |at: f64| {
            let Ok([behind, before]) = split(at) else { return f64::NAN };
            let [rear, front] = [ledger(&behind, false), ledger(&before, true)];
            rear.net() * front.wanted - front.net() * rear.wanted
        };
        let within = thick / 2.0 + LEAST_DEPTH;
        let at = zero(low + within, high - within, 1e-12, missed).ok_or(BuildError::NoPartition)?;
        let [mut behind, mut before] = split(at)?;
        let mut unused = None;
        // What is too low for its drivers is made as high as they need, and ends before the wall.
        let least = self.chamber_height(contents).filter(|least| high - at - thick / 2.0 < *least);
        if let Some([whole, rest]) = least.and_then(|least| split(high - thick / 2.0 - least).ok()) {
            let way = ledger(&rest, true);
            let missed = |chamber: &Solid| {
                let rear = ledger(chamber, false);
                rear.net() * way.wanted - way.net() * rear.wanted
            };
            if let Some([chamber, beyond]) = self.shortened(&whole, thick, missed) {
                (behind, before, unused) = (chamber, rest, Some(beyond));
            }
        }
        // Where one chamber is fuller than the whole box is large, the other is pressed to nothing.
        if [&behind, &before].iter().any(|chamber| chamber.volume() < LEAST) {
            return Err(BuildError::NoPartition);
        }
        let chambers = [(behind, false), (before, true)]
            .map(|(interior, front)| Chamber { ledger: ledger(&interior, front), interior });
        Ok(Interiors { outer, interior, chambers: chambers.into(), unused })
    }

    /// How high along the stack a chamber at the beginning of a way must be for its drivers, m.
    fn chamber_height(&self, contents: &Contents) -> Option<f64> {
        let drivers = &contents.drivers;
        let [begin, _] = self.fold.outsides();
        match contents.path.as_ref()?.seat {
            Seat::Throat => Some(drivers.depth - self.partition.total() + AIR_BEHIND),
            Seat::Chamber if self.drivers.face == begin => {
                Some(drivers.depth - self.panel(begin).total() + AIR_BEHIND)
            }
            Seat::Chamber => Some(drivers.cutout + 2.0 * RIM_ROOM),
            Seat::Along(_) | Seat::Between(_) => None,
        }
    }

    /// A chamber at the beginning of a way, cut off by a board (m) where it misses its volume no more, and what is left beyond; `None` where
    /// all of it is needed.
    fn shortened(&self, whole: &Solid, thick: f64, missed: impl Fn(&Solid) -> f64) -> Option<[Solid; 2]> {
        let run = self.fold.run();
        let [low, high] = whole.bounds().map(|point| point[run.index()]);
        let cut = |long: f64| {
            if self.begins_low() {
                [whole.below(run, low + long), whole.above(run, low + long + thick)]
            } else {
                [whole.above(run, high - long), whole.below(run, high - long - thick)]
            }
        };
        let most = high - low - thick - LEAST_DEPTH;
        let long = zero(LEAST_DEPTH, most, 1e-12, |long| cut(long)[0].as_ref().map_or(f64::NAN, &missed))?;
        let [chamber, beyond] = cut(long);
        Some([chamber?, beyond?])
    }

    /// Whether a way begins at the low end of its first channel.
    fn begins_low(&self) -> bool {
        runs_up(self.fold.folds.unwrap_or(0) as usize, self.fold.mouth_face() == self.fold.ends()[1])
    }

    /// What a chamber that is as high as its drivers need leaves of the room beside it, with the board there, m3.
    fn unused(&self, contents: &Contents, interior: &Interior<'_>) -> f64 {
        let Some(height) = self.chamber_height(contents).filter(|_| contents.divided()) else { return 0.0 };
        let mut needed = contents.wanted[0].unwrap_or(0.0);
        self.each_entry(false, contents, 0.0, &mut |_, volume, _| needed += volume);
        let area = interior.across(self.fold.stack, None);
        let unused = height * area - needed;
        let end_board = height * area / interior.along(self.fold.run()) * self.partition.total();
        if unused > end_board { unused } else { 0.0 }
    }

    /// Along which axis a partition divides a room: forward, along a standing pipe, or as a way is stacked.
    fn split_axis(&self, contents: &Contents, interior: &Interior<'_>) -> Axis {
        match (&contents.path, interior) {
            (Some(_), _) => self.fold.stack,
            (None, Interior::Solid(solid)) if solid.axis == Axis::Y => Axis::Y,
            (None, _) => Axis::Z,
        }
    }

    /// How a port is built; the list in the wish may be shorter than the design's.
    pub fn port_build(&self, front: bool, index: usize) -> PortBuild {
        let list = if front { &self.front_ports } else { &self.ports };
        let plain = PortBuild {
            face: None,
            across: None,
            up: None,
            wall: USUAL_WALL,
            turns: 0,
            flares: [0.0; 2],
            flange: None,
            fittings: Fittings::default(),
            full_width: false,
        };
        list.get(index).copied().unwrap_or(plain)
    }

    /// The face a port comes out of.
    pub(crate) fn port_face(&self, front: bool, index: usize, contents: &Contents) -> Face {
        // In a divided box the chamber behind has no part of the front.
        let usual = match &contents.path {
            Some(_) => self.fold.mouth_face(),
            None if contents.divided() && !front => Face::Back,
            None => self.drivers.face,
        };
        self.port_build(front, index).face.unwrap_or(usual)
    }

    /// How thick the board is that the drivers sit in, m.
    fn driver_board(&self, contents: &Contents) -> f64 {
        match contents.path.as_ref().map(|path| path.seat) {
            Some(Seat::Between(_)) => self.fold.thickness,
            _ if contents.drivers_inside() => self.partition.total(),
            _ => self.panel(self.drivers.face).total(),
        }
    }

    /// How long a port is inside the room, m.
    pub(crate) fn inside(&self, port: &PortSize, front: bool, index: usize, contents: &Contents) -> f64 {
        let panel = if contents.through && !front {
            self.partition.total()
        } else {
            self.panel(self.port_face(front, index, contents)).total()
        };
        (port.built(&self.port_build(front, index).flares) - panel).max(0.0)
    }

    /// What eats the room of a chamber of an interior: boards and strips where they lie.
    fn entries(
        &self,
        front: bool,
        contents: &Contents,
        chamber: &Solid,
        interior: &Solid,
        folded: f64,
    ) -> Vec<Entry> {
        let mut entries = Vec::new();
        let mut told = |what: &dyn Fn() -> String, volume, estimated| {
            entries.push(Entry { what: what(), volume, estimated });
        };
        self.each_entry(front, contents, folded, &mut told);
        let taken = |brace: &Brace| brace.volume_across(chamber.area_at(brace.axis, brace.place(interior)));
        let strips = self.strips_in(contents, chamber, interior);
        let strips = strips.iter().map(|strip| strip.volume(self.strips)).sum();
        self.boards(self.braces.iter().map(taken).sum(), strips, &mut told);
        entries
    }

    /// Tells of braces and strips, m3.
    fn boards(&self, braces: f64, strips: f64, told: &mut Told<'_>) {
        let name = if self.braces.len() > 1 { "Braces" } else { "Brace" };
        for (name, volume) in [(name, braces), (STRIPS, strips)] {
            if volume > 0.0 {
                told(&|| name.to_owned(), volume, false);
            }
        }
    }

    /// Tells of everything but boards and strips that eats the room of a chamber.
    fn each_entry(&self, front: bool, contents: &Contents, folded: f64, told: &mut Told<'_>) {
        let mut enter = |what: &dyn Fn() -> String, volume: f64, estimated: bool| {
            // What was measured may be more than what was reckoned with, and then gives room.
            if volume.abs() > 0.0 {
                told(what, volume, estimated);
            }
        };
        let one = |name: &'static str| move || name.to_owned();
        let ports = &contents.ports[usize::from(front)];
        for (index, port) in ports.iter().enumerate() {
            let build = self.port_build(front, index);
            let inside = self.inside(port, front, index, contents);
            let name = || {
                let number = if ports.len() > 1 { format!(" {}", index + 1) } else { String::new() };
                if port.count > 1 { format!("{} ports{number}", port.count) } else { format!("Port{number}") }
            };
            enter(&name, port.volume(&build, inside) * f64::from(port.count), false);
        }
        if contents.path.is_some() && front == contents.divided() {
            enter(&one("Fold boards"), folded, false);
        }
        if front {
            return;
        }
        let drivers = &contents.drivers;
        let estimated = drivers.displacement.is_none();
        let count = drivers.inside();
        let name = || if count > 1 { format!("{count} drivers") } else { "Driver".to_owned() };
        enter(&name, drivers.taken(self.driver_board(contents)), estimated);
        if let Some(radiators) = contents.radiators {
            let name = if radiators.count > 1 { "Radiators" } else { "Radiator" };
            let board = self.panel(self.radiators.face).total();
            enter(&one(name), radiators.volume(board) * f64::from(radiators.count), true);
        }
        for item in &self.items {
            enter(&|| item.name.clone(), item.volume, false);
        }
    }
}

/// What strips are called in a ledger.
pub(crate) const STRIPS: &str = "Corner strips";

/// Wall of a port where none is stated, m: of plastic pipe (common practice).
pub const USUAL_WALL: f64 = 0.004;

/// Air behind a magnet, and room beside a cut-out, in a chamber that is made as high as its drivers need, m (common practice).
const AIR_BEHIND: f64 = 0.03;
const RIM_ROOM: f64 = 0.01;

/// Shortest channel that is tried, m.
const SHORTEST: f64 = 0.15;
/// How much more length and area of a way count than the proportions of its box.
const OFF: f64 = 4.0;
/// Rounds in which the channels of a fold get their length, and how near they come to it, as a share.
const STRETCHES: usize = 40;
const LAID: f64 = 1e-5;
