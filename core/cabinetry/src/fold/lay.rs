//! A way laid into its room.

use super::{Corner, DuctPath, Fold};

/// The room of a way, m.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Plan {
    /// Across, as wide as every channel.
    pub width: f64,
    /// Along the channels.
    pub run: f64,
    /// Across them.
    pub stack: f64,
    /// Whether the mouth is at the high end of the run.
    pub mouth_high: bool,
}

/// A piece of a laid way.
#[derive(Debug, Clone, PartialEq)]
pub struct Stretch {
    /// The channel it lies in, from 0; of turns the one before.
    pub channel: usize,
    /// Whether it is a turn's.
    pub turn: bool,
    /// Where it begins along the way, m.
    pub from: f64,
    /// m.
    pub length: f64,
    /// Area where it begins and ends, m2.
    pub areas: [f64; 2],
    /// Its middle line: places along run and stack, m.
    pub line: Vec<[f64; 2]>,
    /// Its corners where it begins and ends on the side where the stack begins, then back on the other: places along run and stack, m.
    pub outline: [[f64; 2]; 4],
}

/// A board between two channels: places along run and stack, m.
#[derive(Debug, Clone, PartialEq)]
pub struct FoldPanel {
    /// Corners, from the wall it stands on to its free end and back.
    pub corners: [[f64; 2]; 4],
    /// From the wall to its free end, along it, m.
    pub length: f64,
    /// Where it stands on that wall and where its free end is, each to the side where the stack begins, m.
    pub stands: [f64; 2],
    /// Its middle along the stack, m.
    pub middle: f64,
    /// What is left between its free end and the wall there, m.
    pub gap: f64,
}

/// A turn: what fills its outer corners, as outlines along run and stack, m.
#[derive(Debug, Clone, PartialEq)]
pub struct Turn {
    /// One for each corner; empty where they are left square.
    pub fillers: [Vec<[f64; 2]>; 2],
}

/// The board that closes the last channel on its outer side: places along run and stack, m.
#[derive(Debug, Clone, PartialEq)]
pub struct Closing {
    /// Its corners.
    pub corners: [[f64; 2]; 4],
    /// The dead space behind it.
    pub dead: [[f64; 2]; 4],
}

/// A laid way.
#[derive(Debug, Clone, PartialEq)]
pub struct Laid {
    /// From the beginning to the mouth.
    pub stretches: Vec<Stretch>,
    /// Between the channels.
    pub panels: Vec<FoldPanel>,
    /// Between the channels.
    pub turns: Vec<Turn>,
    /// On the outer side of the last channel, where there is one.
    pub closing: Option<Closing>,
    /// The room it was laid into.
    pub plan: Plan,
}

/// A place in a channel.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Spot {
    /// Which channel, from 0.
    pub channel: usize,
    /// Along run and stack, in the middle of the channel, m.
    pub at: [f64; 2],
    /// How high the channel is there, m.
    pub height: f64,
    /// Where it is along the way, m.
    pub along: f64,
}

/// Rounds in which heights and places along the way find each other, at most, and the part of the room by which they may still move
/// in the last.
const ROUNDS: usize = 14;
const STILL: f64 = 1e-12;
/// Least height of a channel and least gap, m: less is no way for bass (common practice).
const LEAST: f64 = 0.005;
/// Share of the other end's height below which the ends of the channels are not stretched to fill the room.
const EVEN: f64 = 0.9;
/// Largest share of the run that a gap may take.
const WIDEST: f64 = 0.45;

impl Fold {
    /// Lays a way with so many folds; `None` where its boards leave no room for it.
    ///
    /// All channels together fill the room, so where it is smaller or larger than the way needs, every area is by the same share.
    pub fn lay(&self, path: &DuctPath, folds: u32, plan: &Plan) -> Option<Laid> {
        let count = folds as usize + 1;
        let even = (plan.stack - f64::from(folds) * self.thickness) / count as f64;
        if even <= 0.0 {
            return None;
        }
        let mut layout = Layout {
            fold: self,
            plan,
            heights: vec![[even; 2]; count],
            dead: None,
            gaps: vec![even.min(WIDEST * plan.run); count - 1],
        };
        for _ in 0..ROUNDS {
            let next = layout.towards(path)?;
            let moved = next.heights.iter().flatten().zip(layout.heights.iter().flatten());
            let settled = moved.map(|(next, last)| (next - last).abs()).all(|by| by < STILL * plan.stack);
            layout = next;
            if settled {
                break;
            }
        }
        let layout = layout.shifted()?;
        let stretches = layout.walk(true);
        Some(Laid {
            panels: layout.panels(),
            turns: layout.turns(),
            closing: layout.closing(),
            stretches,
            plan: *plan,
        })
    }
}

/// Heights and gaps while they are being found.
#[derive(Clone)]
struct Layout<'a> {
    fold: &'a Fold,
    plan: &'a Plan,
    /// Height of each channel at the low and high end of the run, m.
    heights: Vec<[f64; 2]>,
    /// Height of the dead space behind the closing board at both ends, m.
    dead: Option<[f64; 2]>,
    /// Between each board and the wall it ends before, m.
    gaps: Vec<f64>,
}

/// Whether a channel with so many folds after it is run through from low to high, where the mouth is at the high end or not.
pub(crate) fn runs_up(folds_after: usize, mouth_high: bool) -> bool {
    folds_after.is_multiple_of(2) == mouth_high
}

impl Layout<'_> {
    /// Whether a channel is run through from low to high: the last one towards the mouth, the others in turn.
    fn upward(&self, channel: usize) -> bool {
        runs_up(self.heights.len() - 1 - channel, self.plan.mouth_high)
    }

    /// Where a channel's straight run begins and ends along the run, m.
    fn ends(&self, channel: usize) -> [f64; 2] {
        let before = channel.checked_sub(1).map_or(0.0, |turn| self.gaps[turn]);
        let after = self.gaps.get(channel).copied().unwrap_or(0.0);
        if self.upward(channel) { [before, self.plan.run - after] } else { [self.plan.run - before, after] }
    }

    fn height(&self, channel: usize, run: f64) -> f64 {
        let [low, high] = self.heights[channel];
        low + (high - low) * run / self.plan.run
    }

    /// A board's thickness along the stack, which grows as it slants.
    fn thick(&self, panel: usize) -> f64 {
        self.slanted(self.edge(panel, |_| self.fold.thickness))
    }

    /// Thickness along the stack of a board that lies at these places at both ends of the run, m.
    fn slanted(&self, [low, high]: [f64; 2]) -> f64 {
        self.fold.thickness * 1.0_f64.hypot((high - low) / self.plan.run)
    }

    /// Where a channel ends along the stack at both ends of the run, with boards of a thickness between them.
    fn edge(&self, channel: usize, thick: impl Fn(usize) -> f64) -> [f64; 2] {
        let panels: f64 = (0..channel).map(thick).sum();
        [0, 1].map(|end| self.heights[..=channel].iter().map(|height| height[end]).sum::<f64>() + panels)
    }

    /// The line of a channel's end along the stack at a place along the run, m.
    fn below(&self, channel: usize, run: f64) -> f64 {
        let [low, high] = self.edge(channel, |panel| self.thick(panel));
        low + (high - low) * run / self.plan.run
    }

    /// Heights and gaps as the way wants them where they now lie along it, stretched to fill the room.
    fn towards(&self, path: &DuctPath) -> Option<Self> {
        let walked = self.walk(false);
        let total: f64 = walked.iter().map(|stretch| stretch.length).sum();
        let scale = path.length() / total;
        let wanted = |along: f64| path.area(along * scale) / self.plan.width;
        let mut next = self.clone();
        for stretch in walked.iter().filter(|stretch| !stretch.turn) {
            let [begin, end] = self.ends(stretch.channel);
            let (first, last) = (wanted(stretch.from), wanted(stretch.from + stretch.length));
            let slope = (last - first) / (end - begin);
            next.heights[stretch.channel] = [first - slope * begin, first + slope * (self.plan.run - begin)]
                .map(|height| height.max(LEAST / 4.0));
        }
        let (thick, below) = self.lines();
        let panels: f64 = thick.iter().sum();
        let sums = [0, 1].map(|end| next.heights.iter().map(|height| height[end]).sum::<f64>());
        let [most, least] = [sums[0].max(sums[1]), sums[0].min(sums[1])];
        let closed = least < EVEN * most;
        let closing = below.last().map_or(0.0, |ends| self.slanted(*ends));
        let interior = self.plan.stack - panels - if closed { closing } else { 0.0 };
        if interior <= 0.0 {
            return None;
        }
        let stretched = sums.map(|sum| interior / if closed { most } else { sum });
        next.dead = closed.then(|| sums.map(|sum| (most - sum) * interior / most));
        for height in &mut next.heights {
            *height = [height[0] * stretched[0], height[1] * stretched[1]];
        }
        let mean = f64::midpoint(stretched[0], stretched[1]);
        for (turn, gap) in next.gaps.iter_mut().enumerate() {
            // A turn is three stretches: into it, past the board's end, out of it.
            let middle = &walked[4 * turn + 2];
            *gap = (wanted(middle.from + middle.length / 2.0) * mean).max(LEAST).min(WIDEST * self.plan.run);
        }
        Some(next)
    }

    /// With boards where they were put by hand; `None` where that leaves a channel nothing.
    fn shifted(&self) -> Option<Self> {
        let mut next = self.clone();
        for (panel, at) in self.fold.panels.iter().enumerate().take(self.gaps.len()) {
            let Some(at) = at else { continue };
            let [low, high] = next.edge(panel, |panel| self.thick(panel));
            let by = at - (f64::midpoint(low, high) + self.thick(panel) / 2.0);
            for end in 0..2 {
                next.heights[panel][end] += by;
                next.heights[panel + 1][end] -= by;
            }
        }
        let open = next.heights.iter().flatten().all(|height| *height > 0.0);
        open.then_some(next)
    }

    /// How thick each board is along the stack, and where each channel ends at both ends of the run, m.
    fn lines(&self) -> (Vec<f64>, Vec<[f64; 2]>) {
        let mut thick = Vec::with_capacity(self.gaps.len());
        let mut below = Vec::with_capacity(self.heights.len());
        let (mut at, mut boards) = ([0.0; 2], 0.0);
        for [low, high] in &self.heights {
            at = [at[0] + low, at[1] + high];
            below.push(at.map(|at| at + boards));
            if thick.len() < self.gaps.len() {
                thick.push(self.slanted(at));
                boards += thick[thick.len() - 1];
            }
        }
        (thick, below)
    }

    /// The way as it now lies, with its middle line where that is wanted.
    fn walk(&self, drawn: bool) -> Vec<Stretch> {
        let width = self.plan.width;
        let corner: Corner = self.fold.corner;
        let (thick, below) = self.lines();
        let below = |channel: usize, run: f64| {
            let [low, high] = below[channel];
            low + (high - low) * run / self.plan.run
        };
        let line = |points: &dyn Fn() -> Vec<[f64; 2]>| if drawn { points() } else { Vec::new() };
        let mut stretches = Vec::with_capacity(4 * self.heights.len());
        let mut from = 0.0;
        let mut lay = |channel, turn, length: f64, areas, line, outline| {
            stretches.push(Stretch { channel, turn, from, length, areas, line, outline });
            from += length;
        };
        for channel in 0..self.heights.len() {
            let [begin, end] = self.ends(channel);
            let middle = |run: f64| [run, below(channel, run) - self.height(channel, run) / 2.0];
            let (first, last) = (middle(begin), middle(end));
            let length = (last[0] - first[0]).hypot(last[1] - first[1]);
            // Square to a middle line that slants a channel is less high.
            let lean = (end - begin).abs() / length;
            let areas = [begin, end].map(|run| width * self.height(channel, run) * lean);
            let [over, under] = [begin, end].map(|run| {
                let under = below(channel, run);
                [under - self.height(channel, run), under]
            });
            let outline = [[begin, over[0]], [end, under[0]], [end, under[1]], [begin, over[1]]];
            lay(channel, false, length, areas, line(&|| vec![first, last]), outline);
            let Some(gap) = self.gaps.get(channel).copied() else { continue };
            let (into, out) = (self.height(channel, end), self.height(channel + 1, end));
            let corners = self.corners(channel);
            let outward = if self.upward(channel) { 1.0 } else { -1.0 };
            let (near, thick) = (below(channel, end), thick[channel]);
            let bend = |height: f64, [at_wall, least]: [f64; 2]| {
                let length = corner.length(height, gap);
                let interior = (height + at_wall) / 2.0 * gap;
                let area = width * (interior - corner.filler(least, gap)) / length;
                (length, [area; 2])
            };
            let before =
                line(&|| corner.line(into, gap).iter().map(|[u, v]| [end + outward * u, near - v]).collect());
            let block = |from: f64, to: f64| {
                let wall = end + outward * gap;
                [[end, from], [wall, from], [wall, to], [end, to]]
            };
            let (length, areas) = bend(into, corners[0]);
            lay(channel, true, length, areas, before, block(near - into, near));
            let past = end + outward * gap / 2.0;
            let across = line(&|| vec![[past, near], [past, near + thick]]);
            lay(channel, true, thick, [width * gap; 2], across, block(near, near + thick));
            let after = line(&|| {
                let points = corner.line(out, gap);
                points.iter().rev().map(|[u, v]| [end + outward * u, near + thick + v]).collect()
            });
            let (length, areas) = bend(out, corners[1]);
            lay(channel, true, length, areas, after, block(near + thick, near + thick + out));
        }
        stretches
    }

    fn panels(&self) -> Vec<FoldPanel> {
        let panel = |channel: usize| {
            let upward = self.upward(channel);
            let free = self.ends(channel)[1];
            let wall = if upward { 0.0 } else { self.plan.run };
            let (thick, [a, b]) = (self.thick(channel), [wall, free].map(|run| self.below(channel, run)));
            FoldPanel {
                corners: [[wall, a], [free, b], [free, b + thick], [wall, a + thick]],
                length: (free - wall).hypot(b - a),
                stands: [a, b],
                middle: self.below(channel, self.plan.run / 2.0) + thick / 2.0,
                gap: self.gaps[channel],
            }
        };
        (0..self.gaps.len()).map(panel).collect()
    }

    fn closing(&self) -> Option<Closing> {
        let [low, high] = self.dead?;
        let run = self.plan.run;
        let last = self.heights.len() - 1;
        let upper = [0.0, run].map(|at| [at, self.below(last, at)]);
        let lower = [[0.0, self.plan.stack - low], [run, self.plan.stack - high]];
        Some(Closing {
            corners: [upper[0], upper[1], lower[1], lower[0]],
            dead: [lower[0], lower[1], [run, self.plan.stack], [0.0, self.plan.stack]],
        })
    }

    /// Heights of the channels before and after a turn at the wall, and the least from the board's free end to there, which a filler must
    /// keep to.
    fn corners(&self, channel: usize) -> [[f64; 2]; 2] {
        let end = self.ends(channel)[1];
        let wall = if self.upward(channel) { self.plan.run } else { 0.0 };
        [channel, channel + 1].map(|channel| {
            let [at_end, at_wall] = [end, wall].map(|run| self.height(channel, run));
            [at_wall, at_end.min(at_wall)]
        })
    }

    fn turns(&self) -> Vec<Turn> {
        let turn = |channel: usize| {
            let end = self.ends(channel)[1];
            let outward = if self.upward(channel) { 1.0 } else { -1.0 };
            let (near, gap) = (self.below(channel, end), self.gaps[channel]);
            let far = near + self.thick(channel);
            let [[_, into], [_, out]] = self.corners(channel);
            let outline = |height: f64, from: f64, sign: f64| -> Vec<[f64; 2]> {
                let corners = self.fold.corner.outline(height, gap);
                corners.iter().map(|[u, v]| [end + outward * u, from + sign * v]).collect()
            };
            Turn { fillers: [outline(into, near, -1.0), outline(out, far, 1.0)] }
        };
        (0..self.gaps.len()).map(turn).collect()
    }
}

impl Stretch {
    /// The outline of a part of it, between two shares of its length and over a share of its height: places along run and stack, m. A turn is
    /// taken whole.
    pub fn part(&self, [from, to]: [f64; 2], share: f64) -> Vec<[f64; 2]> {
        let [a, b, c, d] = self.outline;
        let ([from, to], share) = if self.turn { ([0.0, 1.0], 1.0) } else { ([from, to], share) };
        let between =
            |one: [f64; 2], other: [f64; 2], at: f64| [0, 1].map(|k| one[k] + at * (other[k] - one[k]));
        let at = |part: f64, share: f64| between(between(d, c, part), between(a, b, part), share);
        vec![at(from, share), at(to, share), at(to, 0.0), at(from, 0.0)]
    }
}

impl Laid {
    /// Whether air can pass all along.
    pub fn is_open(&self) -> bool {
        self.stretches.iter().flat_map(|stretch| stretch.areas).all(|area| area >= LEAST * self.plan.width)
    }

    /// m.
    pub fn length(&self) -> f64 {
        self.stretches.iter().map(|stretch| stretch.length).sum()
    }

    /// Air in it, m3.
    pub fn volume(&self) -> f64 {
        self.stretches
            .iter()
            .map(|stretch| stretch.length * (stretch.areas[0] + stretch.areas[1]) / 2.0)
            .sum()
    }

    /// Wood in the boards between its channels and the one that closes them, m3.
    pub fn wood(&self) -> f64 {
        let closing = self.closing.iter().map(|closing| closing.corners);
        let panels = self.panels.iter().map(|panel| panel.corners).chain(closing);
        panels.map(|corners| crate::geometry::area(&corners).abs()).sum::<f64>() * self.plan.width
    }

    /// What its boards, the fillers of its corners and the dead space take, m3.
    pub fn taken(&self) -> f64 {
        let polygons = self.panels.iter().map(|panel| panel.corners.to_vec());
        let fillers = self.turns.iter().flat_map(|turn| turn.fillers.iter().cloned());
        let closing =
            self.closing.iter().flat_map(|closing| [closing.corners.to_vec(), closing.dead.to_vec()]);
        polygons
            .chain(fillers)
            .chain(closing)
            .map(|corners| crate::geometry::area(&corners).abs())
            .sum::<f64>()
            * self.plan.width
    }

    /// Area at a place along it (m), m2.
    pub fn area(&self, at: f64) -> f64 {
        let found = self.stretches.iter().find(|stretch| at <= stretch.from + stretch.length);
        found.or(self.stretches.last()).map_or(0.0, |stretch| {
            let part = ((at - stretch.from) / stretch.length).clamp(0.0, 1.0);
            stretch.areas[0] + part * (stretch.areas[1] - stretch.areas[0])
        })
    }

    /// The largest share by which its area is off from a way's at the same part of the length, less than nothing where it is too
    /// small, and where, m.
    pub fn worst(&self, path: &DuctPath) -> [f64; 2] {
        const PLACES: usize = 96;
        let off = |part: f64| self.area(part * self.length()) / path.area(part * path.length()) - 1.0;
        let places = (0..=PLACES).map(|step| step as f64 / PLACES as f64);
        let worst = places.map(|part| [off(part), part * self.length()]);
        worst.max_by(|a, b| a[0].abs().total_cmp(&b[0].abs())).unwrap_or([0.0; 2])
    }

    /// Its middle line, along run and stack, m.
    pub fn line(&self) -> Vec<[f64; 2]> {
        let mut points: Vec<[f64; 2]> = Vec::new();
        for point in self.stretches.iter().flat_map(|stretch| &stretch.line) {
            if points.last().is_none_or(|last| (last[0] - point[0]).hypot(last[1] - point[1]) > 1e-6) {
                points.push(*point);
            }
        }
        points
    }

    /// The place in a channel that is nearest to a place along the way, m: within a turn, its nearer end.
    pub fn spot(&self, along: f64) -> Spot {
        let runs = self.stretches.iter().filter(|stretch| !stretch.turn);
        let far =
            |stretch: &Stretch| (stretch.from - along).max(along - stretch.from - stretch.length).max(0.0);
        let Some(stretch) = runs.min_by(|a, b| far(a).total_cmp(&far(b))) else {
            return Spot { channel: 0, at: [0.0; 2], height: 0.0, along };
        };
        let part = ((along - stretch.from) / stretch.length).clamp(0.0, 1.0);
        let [first, last] = [stretch.line[0], stretch.line[1]];
        let at = [0, 1].map(|k| first[k] + part * (last[k] - first[k]));
        let along = stretch.from + part * stretch.length;
        Spot { channel: stretch.channel, at, height: self.area(along) / self.plan.width, along }
    }

    /// The place in the next channel across the board from one; `None` in the last, and beside a turn.
    pub fn across(&self, spot: &Spot) -> Option<Spot> {
        let stretch =
            self.stretches.iter().find(|stretch| !stretch.turn && stretch.channel == spot.channel + 1)?;
        let [first, last] = [stretch.line[0], stretch.line[1]];
        let part = (spot.at[0] - first[0]) / (last[0] - first[0]);
        (0.0..=1.0).contains(&part).then(|| self.spot(stretch.from + part * stretch.length))
    }
}
