//! Boards laid out one after the other.

use super::tree::{Content, Node, Rect, Split};
use super::{Blank, Layout, Saw, Sheet, SheetLayout};

/// Which of the free pieces a board goes into.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Choice {
    /// Where the shorter side that is left over is the shortest.
    ShortSide,
    /// Where the longer side that is left over is the shortest.
    LongSide,
    /// Into the smallest.
    Area,
}

/// How what is left around a board is cut.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Rest {
    /// So that the larger piece becomes as large as it can.
    LargerPiece,
    /// Along the shorter side that is left over.
    Shorter,
    /// Along the longer one.
    Longer,
    /// Into strips up the sheet.
    Upright,
    /// Into strips across it.
    Level,
}

pub(super) const CHOICES: [Choice; 3] = [Choice::ShortSide, Choice::LongSide, Choice::Area];
pub(super) const RESTS: [Rest; 5] =
    [Rest::LargerPiece, Rest::Shorter, Rest::Longer, Rest::Upright, Rest::Level];

/// How boards are laid out.
#[derive(Debug, Clone, Copy)]
pub(super) struct Rule {
    pub choice: Choice,
    pub rest: Rest,
    /// Which sheet is begun where none that is begun has room: the cheapest that holds the board, or the largest.
    pub largest: bool,
}

/// A way down a tree, left or right at every cut.
type Way = Vec<bool>;

struct Free {
    sheet: usize,
    way: Way,
    rect: Rect,
}

/// Lays boards out in an order.
pub(super) fn pack(blanks: &[Blank], order: &[usize], sheets: &[Sheet], saw: &Saw, rule: Rule) -> Layout {
    let mut layout = Layout { sheets: Vec::new(), left: Vec::new() };
    let mut free: Vec<Free> = Vec::new();
    for &blank in order {
        if let Some((at, turned)) = choose(&blanks[blank], &free, rule.choice) {
            place(&mut layout, &mut free, at, (blank, turned), blanks, saw, rule);
        } else if begin(&mut layout, &mut free, &blanks[blank], sheets, saw, rule) {
            match choose(&blanks[blank], &free, rule.choice) {
                Some((at, turned)) => {
                    place(&mut layout, &mut free, at, (blank, turned), blanks, saw, rule);
                }
                None => layout.left.push(blank),
            }
        } else {
            layout.left.push(blank);
        }
    }
    layout
}

fn sizes(blank: &Blank) -> impl Iterator<Item = ([f64; 2], bool)> + '_ {
    let turned = [blank.size[1], blank.size[0]];
    let both = blank.turns && (blank.size[0] - blank.size[1]).abs() > 1e-9;
    std::iter::once((blank.size, false)).chain(both.then_some((turned, true)))
}

fn choose(blank: &Blank, free: &[Free], choice: Choice) -> Option<(usize, bool)> {
    let score = |rect: Rect, size: [f64; 2]| {
        let [a, b] = [0, 1].map(|k| rect.size[k] - size[k]);
        match choice {
            Choice::ShortSide => [a.min(b), a.max(b)],
            Choice::LongSide => [a.max(b), a.min(b)],
            Choice::Area => [rect.area(), a.min(b)],
        }
    };
    let all = free.iter().enumerate().flat_map(|(at, piece)| {
        let fits = sizes(blank).filter(|(size, _)| piece.rect.holds(*size));
        fits.map(move |(size, turned)| (at, turned, score(piece.rect, size)))
    });
    all.min_by(|(.., a), (.., b)| a[0].total_cmp(&b[0]).then(a[1].total_cmp(&b[1])))
        .map(|(at, turned, _)| (at, turned))
}

/// What is left of a sheet once its edges are trimmed.
pub(super) fn trimmed(sheet: &Sheet, saw: &Saw) -> Rect {
    Rect { at: [saw.trim; 2], size: sheet.size.map(|side| (side - 2.0 * saw.trim).max(0.0)) }
}

/// The pieces that a sheet is carried home in.
pub(super) fn carried(sheet: &Sheet, saw: &Saw) -> Node {
    let mut root = Node::offcut(trimmed(sheet, saw));
    if let Some(most) = saw.transport {
        quarter(&mut root, most, saw.kerf);
    }
    root
}

fn quarter(node: &mut Node, most: [f64; 2], kerf: f64) {
    // It goes into the car either way round.
    let fits = |size: [f64; 2]| {
        let (short, long) = (size[0].min(size[1]), size[0].max(size[1]));
        short <= most[0].min(most[1]) + 1e-9 && long <= most[0].max(most[1]) + 1e-9
    };
    let rect = node.rect;
    if fits(rect.size) {
        return;
    }
    let axis = usize::from(rect.size[1] > rect.size[0]);
    let far = ((rect.size[axis] - kerf) / 2.0).max(0.0);
    if far < LEAST {
        return;
    }
    let [mut low, mut high] = rect.cut(axis, far, kerf).map(Node::offcut);
    quarter(&mut low, most, kerf);
    quarter(&mut high, most, kerf);
    node.content = Content::Cut(Box::new(Split { axis, far, low, high }));
}

/// Smaller pieces are not cut apart for the car, m.
const LEAST: f64 = 0.1;

fn begin(
    layout: &mut Layout,
    free: &mut Vec<Free>,
    blank: &Blank,
    sheets: &[Sheet],
    saw: &Saw,
    rule: Rule,
) -> bool {
    let used = |at: usize| layout.sheets.iter().filter(|one| one.sheet == at).count() as u32;
    let fits = |root: &Node| {
        let pieces: Vec<Rect> = root.offcuts().collect();
        sizes(blank).any(|(size, _)| pieces.iter().any(|piece| piece.holds(size)))
    };
    let found = sheets
        .iter()
        .enumerate()
        .filter(|(at, sheet)| sheet.at_hand.is_none_or(|most| used(*at) < most))
        .map(|(at, sheet)| (at, sheet, carried(sheet, saw)))
        .filter(|(_, _, root)| fits(root))
        .min_by(|(_, a, _), (_, b, _)| {
            let area = |sheet: &Sheet| sheet.size[0] * sheet.size[1];
            let [larger, cheaper] =
                [area(b).total_cmp(&area(a)), a.price.total_cmp(&b.price).then(area(a).total_cmp(&area(b)))];
            // What is at hand comes first.
            let hand = b.at_hand.is_some().cmp(&a.at_hand.is_some());
            hand.then(if rule.largest { larger } else { cheaper })
        });
    let Some((at, _, root)) = found else { return false };
    let sheet = layout.sheets.len();
    leaves(&root, sheet, &mut Vec::new(), free);
    layout.sheets.push(SheetLayout { sheet: at, root });
    true
}

fn leaves(node: &Node, sheet: usize, way: &mut Way, free: &mut Vec<Free>) {
    match &node.content {
        Content::Offcut => free.push(Free { sheet, way: way.clone(), rect: node.rect }),
        Content::Board { .. } => {}
        Content::Cut(split) => {
            for (high, next) in [(false, &split.low), (true, &split.high)] {
                way.push(high);
                leaves(next, sheet, way, free);
                way.pop();
            }
        }
    }
}

fn place(
    layout: &mut Layout,
    free: &mut Vec<Free>,
    at: usize,
    (blank, turned): (usize, bool),
    blanks: &[Blank],
    saw: &Saw,
    rule: Rule,
) {
    let Free { sheet, way, rect } = free.swap_remove(at);
    let [w, h] = blanks[blank].size;
    let size = if turned { [h, w] } else { [w, h] };
    let mut node = &mut layout.sheets[sheet].root;
    for high in &way {
        let Content::Cut(split) = &mut node.content else { unreachable!("ways lead through cuts") };
        node = if *high { &mut split.high } else { &mut split.low };
    }
    let mut cut = cut_out(rect, size, (blank, turned), saw.kerf, rule.rest);
    std::mem::swap(node, &mut cut);
    let mut here = way;
    leaves(node, sheet, &mut here, free);
}

/// A piece with a board cut from its lower left.
fn cut_out(rect: Rect, size: [f64; 2], (blank, turned): (usize, bool), kerf: f64, rest: Rest) -> Node {
    let left = [0, 1].map(|k| rect.size[k] - size[k]);
    let cut = left.map(|left| left > 1e-9);
    let first = match (cut, rest) {
        ([true, false], _) => 0,
        ([false, true], _) => 1,
        (_, Rest::LargerPiece) => usize::from(left[1] * rect.size[0] > left[0] * rect.size[1]),
        (_, Rest::Shorter) => usize::from(left[1] < left[0]),
        (_, Rest::Longer) => usize::from(left[1] >= left[0]),
        (_, Rest::Upright) => 0,
        (_, Rest::Level) => 1,
    };
    let mut found = Node { rect: Rect { size, ..rect }, content: Content::Board { blank, turned } };
    let second = 1 - first;
    if cut[second] {
        // The strip that the first cut leaves, cut to length.
        let mut strip = rect;
        strip.size[first] = size[first];
        let [_, high] = strip.cut(second, size[second], kerf);
        let split = Split { axis: second, far: size[second], low: found, high: Node::offcut(high) };
        found = Node { rect: strip, content: Content::Cut(Box::new(split)) };
    }
    if cut[first] {
        let [_, high] = rect.cut(first, size[first], kerf);
        let split = Split { axis: first, far: size[first], low: found, high: Node::offcut(high) };
        found = Node { rect, content: Content::Cut(Box::new(split)) };
    }
    found
}
