//! Finds the values of a family that reach a brief best.

use std::cell::RefCell;

use cobyla::{Func, RhoBeg, StopTols, minimize};
use oak_acoustics::enclosure::Enclosure;

use super::sketch::{Evaluator, Sketch};
use super::tunable::TunableFamily;

/// First steps of the optimiser, as logarithms: from a point of the grid, and twice again from the best that was seen.
const STEPS: [f64; 3] = [0.25, 0.12, 0.05];
/// The step it stops at, as a part of the first.
const LEAST: f64 = 0.1;
/// Doublings that a round must gain for another to follow.
const LITTLE: f64 = 0.002;
/// Doublings that constraints may be violated by after a round for another to follow.
const HOPELESS: f64 = 0.25;
/// What stands for the merit and the bounds of a cabinet that cannot be compiled.
const IMPOSSIBLE: f64 = 50.0;

/// A point that was looked at: merit with what is violated, logarithms, and the sketch.
type Seen = (f64, Vec<f64>, Sketch);

/// The best cabinet of a family and its sketch: a coarse grid, COBYLA (Powell 1994) from its best point, then from the best
/// found while that gains anything, with the place, evenness and what can be built as constraints. `None` where none can be compiled.
///
/// The lower end of a box jumps where its shelf sinks 3 dB below the plain; that is why the best point that was looked at
/// counts, and not where the optimiser ends.
pub(super) fn tune(tunable: &TunableFamily, evaluator: &Evaluator) -> Option<(Enclosure, Sketch)> {
    let look = |x: Vec<f64>| {
        let sketch = evaluator.sketch(&tunable.build(&evaluator.around, &x))?;
        Some((sketch.with_violations(), x, sketch))
    };
    let mut best =
        tunable.grid(&evaluator.around).into_iter().filter_map(look).min_by(|a, b| a.0.total_cmp(&b.0))?;
    for step in STEPS {
        let before = best.0;
        best = refine(tunable, evaluator, best, step);
        if before - best.0 < LITTLE || best.2.violation() > HOPELESS {
            break;
        }
    }
    let (_, x, sketch) = best;
    Some((tunable.build(&evaluator.around, &x), sketch))
}

fn refine(tunable: &TunableFamily, evaluator: &Evaluator, start: Seen, step: f64) -> Seen {
    let from = start.1.clone();
    let best = RefCell::new(start);
    // The optimiser asks for merit and every constraint of a point one after the other.
    let last: RefCell<Option<(Vec<f64>, Option<Sketch>)>> = RefCell::default();
    let sketch = |x: &[f64]| -> Option<Sketch> {
        if let Some((known, sketch)) = &*last.borrow()
            && known == x
        {
            return *sketch;
        }
        let found = evaluator.sketch(&tunable.build(&evaluator.around, x));
        *last.borrow_mut() = Some((x.to_vec(), found));
        if let Some(sketch) = found.filter(|sketch| sketch.with_violations() < best.borrow().0) {
            *best.borrow_mut() = (sketch.with_violations(), x.to_vec(), sketch);
        }
        found
    };
    let merit = |x: &[f64], (): &mut ()| sketch(x).map_or(IMPOSSIBLE, |sketch| sketch.merit);
    let within = [0, 1, 2, 3, 4].map(|which| {
        let sketch = &sketch;
        move |x: &[f64], (): &mut ()| sketch(x).map_or(-IMPOSSIBLE, |sketch| sketch.within[which])
    });
    let constraints: Vec<&dyn Func<()>> = within.iter().map(|within| within as &dyn Func<()>).collect();
    let bounds: Vec<(f64, f64)> =
        tunable.bounds(&evaluator.around).into_iter().map(|[low, high]| (low, high)).collect();
    let stop = StopTols { xtol_abs: vec![LEAST * step; from.len()], ..StopTols::default() };
    // That it stops is enough: what it saw has been kept.
    let _ = minimize(merit, &from, &bounds, &constraints, (), tunable.looks, RhoBeg::All(step), Some(stop));
    best.into_inner()
}
