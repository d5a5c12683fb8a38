//! Where a brace helps most.

use oak_acoustics::Stop;

use super::all::walls;
use super::{Plate, Wall};
use crate::body::{Body, Brace};
use crate::cabinet::Cabinet;
use crate::contents::Contents;
use crate::geometry::Axis;

/// Most braces that are proposed.
const MOST: usize = 4;

/// Where a brace may stand, as shares of the room: unequal spans do not ring together (common practice).
const PLACES: [f64; 8] = [0.45, 0.55, 0.38, 0.62, 0.3, 0.7, 0.22, 0.78];

/// Braces that raise the weakest board to a frequency (Hz), or as far as a few of them do, with those already there; none of
/// them touches what is mounted. Each is the one that helps most.
pub fn propose(body: &Body, contents: &Contents, wanted: f64, stop: &Stop) -> Vec<Brace> {
    let mut better = body.clone();
    // A brace does not change how often a way is best folded.
    if let Some(laid) = body.build(contents).ok().and_then(|cabinet| cabinet.fold) {
        better.fold.folds = u32::try_from(laid.panels.len()).ok();
    }
    let forbidden = |cabinet: &Cabinet| cabinet.findings.iter().filter(|finding| finding.forbids()).count();
    let mut proposed = Vec::new();
    while proposed.len() < MOST {
        let Ok(now) = better.build(contents) else { break };
        let weakest = weakest_of(&better, contents, &now);
        if weakest >= wanted {
            break;
        }
        let tries = Axis::ALL.into_iter().flat_map(|axis| PLACES.map(|place| (axis, place)));
        let best = tries
            .take_while(|_| !stop.stopped())
            .filter_map(|(axis, place)| {
                let mut tried = better.clone();
                let [low, high] = now.interior.bounds().map(|point| point[axis.index()]);
                let at = ((high - low) * place / 0.005).round() * 0.005;
                let brace = Brace { axis, at: Some(at), thickness: body.panel.thickness, open: 0.6 };
                tried.braces.push(brace);
                let built = tried.build(contents).ok()?;
                // It lands on nothing and leaves every port its air.
                if forbidden(&built) > forbidden(&now) {
                    return None;
                }
                // Several boards are weak alike: the sum over them sees help that the weakest alone does not.
                Some((brace, score(&tried, contents, &built, wanted)))
            })
            .max_by(|a, b| a.1.total_cmp(&b.1));
        let Some((brace, gained)) = best else { break };
        if gained <= score(&better, contents, &now, wanted) + 1e-6 {
            break;
        }
        better.braces.push(brace);
        proposed.push(brace);
    }
    proposed
}

/// The lowest resonance of all boards, Hz.
pub fn weakest_of(body: &Body, contents: &Contents, cabinet: &Cabinet) -> f64 {
    let all = walls(body, contents, cabinet);
    all.iter().filter_map(Wall::weakest).map(Plate::resonance).fold(f64::INFINITY, f64::min)
}

/// How far all boards are towards a frequency.
fn score(body: &Body, contents: &Contents, cabinet: &Cabinet, wanted: f64) -> f64 {
    let all = walls(body, contents, cabinet);
    let each = all.iter().filter_map(Wall::weakest).map(|field| (field.resonance() / wanted).min(1.0).ln());
    each.sum()
}
