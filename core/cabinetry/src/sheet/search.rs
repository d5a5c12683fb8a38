//! The best layout of many.
//!
//! A board is laid out at a time; the rules by which and the order in which that is done are tried out, first every rule with the usual orders,
//! then orders with a few boards exchanged. Fewest sheets count first, then what they cost, then how large the largest piece is
//! that is left over. What is drawn by lot is drawn from a fixed seed, so that the same boards lie the same way each time.

use oak_acoustics::Stop;

use super::pack::{CHOICES, RESTS, Rule, pack};
use super::{Blank, Layout, Saw, Sheet, SheetLayout};

/// How long is searched.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Effort {
    /// The usual orders only: some tens of layouts, for a price.
    Quick,
    /// So many exchanges after that.
    Rounds(u32),
}

/// A search as it goes on.
pub struct Search<'a> {
    /// Hears of each round done, out of how many.
    pub told: &'a mut dyn FnMut(u32, u32),
    /// Ends it early, with the best found so far.
    pub stop: &'a Stop,
}

/// How good a layout is: the less the better, in this order.
type Score = (usize, usize, u64, u64);

fn score(layout: &Layout, sheets: &[Sheet]) -> Score {
    // In cents and square millimetres, so that rounding decides nothing.
    let cost = (layout.cost(sheets) * 100.0).round() as u64;
    let offcut = (layout.largest_offcut() * 1e6).round() as u64;
    // What is at hand is no sheet that one buys.
    let bought = layout.sheets.iter().filter(|one| sheets[one.sheet].at_hand.is_none()).count();
    (layout.left.len(), bought, cost, u64::MAX - offcut)
}

/// How a layout was found, to find it again at once.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Recipe {
    /// In which order the boards were laid out, as positions.
    pub order: Vec<usize>,
    /// By which of the rules.
    pub rule: usize,
}

/// Of all rules those that a quick look tries: where the shorter side left over is the shortest, with the larger piece as large as it can be, in
/// strips up the sheet and in strips across it.
const QUICK: [usize; 3] = [0, 6, 8];

fn rules() -> Vec<Rule> {
    CHOICES
        .iter()
        .flat_map(|choice| RESTS.map(|rest| (*choice, rest)))
        .flat_map(|(choice, rest)| [true, false].map(|largest| Rule { choice, rest, largest }))
        .collect()
}

/// Lays boards out on sheets as they were found to lie before; `None` where the recipe is not for so many boards.
pub fn lay_out_as(blanks: &[Blank], sheets: &[Sheet], saw: &Saw, recipe: &Recipe) -> Option<Layout> {
    let rule = *rules().get(recipe.rule)?;
    let mut seen = vec![false; blanks.len()];
    recipe.order.iter().for_each(|at| {
        if let Some(seen) = seen.get_mut(*at) {
            *seen = true;
        }
    });
    let whole = recipe.order.len() == blanks.len() && seen.iter().all(|seen| *seen);
    whole.then(|| {
        let order = &recipe.order;
        smaller(pack(blanks, order, sheets, saw, rule), blanks, order, sheets, saw, rule)
    })
}

/// Whether one layout is better than another, or as good.
pub fn is_no_worse(one: &Layout, other: &Layout, sheets: &[Sheet]) -> bool {
    score(one, sheets) <= score(other, sheets)
}

/// Lays boards out on sheets.
pub fn lay_out(
    blanks: &[Blank],
    sheets: &[Sheet],
    saw: &Saw,
    effort: Effort,
    search: Option<Search<'_>>,
) -> (Layout, Recipe) {
    let rules = rules();
    let tried: Vec<usize> = if effort == Effort::Quick { QUICK.to_vec() } else { (0..rules.len()).collect() };
    let mut best: Option<(Score, Layout, Recipe)> = None;
    let consider = |order: Vec<usize>, rule: usize, best: &mut Option<(Score, Layout, Recipe)>| {
        let by = rules[rule];
        let layout = smaller(pack(blanks, &order, sheets, saw, by), blanks, &order, sheets, saw, by);
        let score = score(&layout, sheets);
        if best.as_ref().is_none_or(|(known, ..)| score < *known) {
            *best = Some((score, layout, Recipe { order, rule }));
        }
    };
    let mut orders = orders(blanks);
    if effort == Effort::Quick {
        orders.truncate(2);
    }
    for order in orders {
        for &rule in &tried {
            consider(order.clone(), rule, &mut best);
        }
    }
    if let Effort::Rounds(rounds) = effort
        && blanks.len() > 1
    {
        let mut lot = Lot(0x9e37_79b9_7f4a_7c15);
        let mut search = search;
        for round in 0..rounds {
            if search.as_ref().is_some_and(|search| search.stop.stopped()) {
                break;
            }
            let Some((.., known)) = &best else { break };
            let Recipe { mut order, mut rule } = known.clone();
            if lot.below(8) == 0 {
                // Now and then from the beginning.
                (1..order.len()).rev().for_each(|at| order.swap(at, lot.below(at + 1)));
            }
            for _ in 0..=lot.below(3) {
                let (a, b) = (lot.below(order.len()), lot.below(order.len()));
                if lot.below(2) == 0 {
                    order.swap(a, b);
                } else {
                    let moved = order.remove(a);
                    order.insert(b.min(order.len()), moved);
                }
            }
            if lot.below(2) == 0 {
                rule = lot.below(rules.len());
            }
            consider(order, rule, &mut best);
            if let Some(search) = &mut search {
                (search.told)(round + 1, rounds);
            }
        }
    }
    let none = Layout { sheets: Vec::new(), left: Vec::new() };
    best.map_or((none, Recipe { order: Vec::new(), rule: 0 }), |(_, layout, recipe)| (layout, recipe))
}

/// The same with every sheet exchanged for the cheapest that holds what is cut from it.
fn smaller(
    mut layout: Layout,
    blanks: &[Blank],
    order: &[usize],
    sheets: &[Sheet],
    saw: &Saw,
    rule: Rule,
) -> Layout {
    for at in 0..layout.sheets.len() {
        let now = layout.sheets[at].sheet;
        let used = |kind: usize| layout.sheets.iter().filter(|one| one.sheet == kind).count() as u32;
        let mut cheaper: Vec<usize> = (0..sheets.len())
            .filter(|kind| sheets[*kind].price < sheets[now].price)
            .filter(|kind| sheets[*kind].at_hand.is_none_or(|most| used(*kind) < most))
            .collect();
        cheaper.sort_by(|a, b| sheets[*a].price.total_cmp(&sheets[*b].price));
        let here: Vec<usize> = layout.sheets[at].root.laid().map(|laid| laid.blank).collect();
        let order: Vec<usize> = order.iter().copied().filter(|blank| here.contains(blank)).collect();
        let found = cheaper.into_iter().find_map(|kind| {
            let one = [Sheet { at_hand: Some(1), ..sheets[kind] }];
            let alone = pack(blanks, &order, &one, saw, rule);
            (alone.left.is_empty() && alone.sheets.len() == 1).then_some((kind, alone))
        });
        if let Some((kind, mut alone)) = found {
            layout.sheets[at] = SheetLayout { sheet: kind, root: alone.sheets.remove(0).root };
        }
    }
    layout
}

/// Large boards first, by each measure of large; equal ones stay as they came.
fn orders(blanks: &[Blank]) -> Vec<Vec<usize>> {
    let [area, long, short, width, height]: [fn(&Blank) -> f64; 5] = [
        |blank| blank.size[0] * blank.size[1],
        |blank| blank.size[0].max(blank.size[1]),
        |blank| blank.size[0].min(blank.size[1]),
        |blank| blank.size[0],
        |blank| blank.size[1],
    ];
    let by = |key: fn(&Blank) -> f64, then: fn(&Blank) -> f64| {
        let mut order: Vec<usize> = (0..blanks.len()).collect();
        order.sort_by(|a, b| {
            let [a, b] = [a, b].map(|at| &blanks[*at]);
            key(b).total_cmp(&key(a)).then(then(b).total_cmp(&then(a)))
        });
        order
    };
    vec![by(area, long), by(long, short), by(short, long), by(width, height), by(height, width)]
}

/// Numbers that look drawn by lot: xorshift of 64 bits (Marsaglia, Journal of Statistical Software 8, 14, 2003).
struct Lot(u64);

impl Lot {
    fn below(&mut self, most: usize) -> usize {
        self.0 ^= self.0 << 13;
        self.0 ^= self.0 >> 7;
        self.0 ^= self.0 << 17;
        (self.0 % most as u64) as usize
    }
}
