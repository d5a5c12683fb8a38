//! A folded way, laid out: where its boards stand, how far it is from what was asked, and what that does.

use oak_acoustics::Stop;
use oak_acoustics::response::{FrequencyGrid, Response};
use oak_cabinetry::{Body, Contents, Corner, DuctPath, Laid};
use serde::Serialize;
use utoipa::ToSchema;

use super::Computed;
use crate::built::{Boxed, Built};
use crate::problem::Problem;
use crate::resolve::ResolvedDesign;

/// Places along a way where its area is told.
const PLACES: usize = 96;
/// Where the judgement of a fold's effect begins, Hz, and at how many frequencies up to the crossover it is judged.
const LOWEST: f64 = 15.0;
const POINTS: usize = 80;
/// Level below the loudest that is no longer of interest, dB.
const FAINT: f64 = 12.0;
/// Folds that are offered.
const OFFERED: std::ops::RangeInclusive<u32> = 0..=5;

/// A way as it was folded. SI throughout.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FoldReport {
    /// How often it turns back.
    pub folds: usize,
    /// Its length along its middle: as asked, and as built, m.
    pub length: [f64; 2],
    /// Places along it, as shares of its length.
    pub along: Vec<f64>,
    /// Area asked for at these places, m2.
    pub wanted: Vec<f64>,
    /// Area built there, m2.
    pub built: Vec<f64>,
    /// Largest share by which the built area is off, less than nothing where it is too small, and where along the way, m.
    pub worst: [f64; 2],
    /// The boards between the channels, from the beginning of the way.
    pub panels: Vec<FoldPanelReport>,
    /// Where the rear and the front of the drivers speak into it: as asked and as built, m from its beginning; of horns with a rear chamber
    /// none.
    pub drivers: Vec<[f64; 2]>,
    /// The same fold with its corners counted along their middle, mitred and curved: its length, m.
    pub corners: [f64; 3],
    /// Where the cone stands still: as designed and as built, Hz.
    pub tuning: Option<[f64; 2]>,
    /// Largest change of level from the design, dB, and where, Hz, as far as it plays.
    pub change: Option<[f64; 2]>,
    /// What it comes to, in words.
    pub words: String,
}

/// A board between two channels, m.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FoldPanelReport {
    /// From the wall it stands on to its free end.
    pub length: f64,
    /// As wide as the room.
    pub width: f64,
    /// Its upper side, or of upright ones its front, at the wall and at the free end, from where the stack begins.
    pub stands: [f64; 2],
    /// Its middle from there.
    pub middle: f64,
    /// Between its free end and the wall there.
    pub gap: f64,
}

/// The same way with another number of folds.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FoldOffer {
    /// How many.
    pub folds: u32,
    /// Width, height and depth outside, m.
    pub outside: [f64; 3],
    /// Largest share by which its area is off.
    pub off: f64,
    /// Share by which its length is off.
    pub length_off: f64,
    /// Whether everything goes in.
    pub fits: bool,
}

impl FoldReport {
    /// Lays a fold out; `None` where the box has none.
    pub(super) fn of(
        wished: &ResolvedDesign,
        computed: &Computed,
        crossover: f64,
    ) -> Result<Option<Self>, Problem> {
        let built = &computed.built;
        let Some(Boxed { contents, cabinet }) = &built.boxed else { return Ok(None) };
        let (Some(path), Some(laid)) = (&contents.path, &cabinet.fold) else { return Ok(None) };
        let parts: Vec<f64> = (0..=PLACES).map(|step| step as f64 / PLACES as f64).collect();
        let resonance = |design: &ResolvedDesign| design.enclosure.resonance(&design.setting());
        let tuning = resonance(wished).zip(resonance(&built.design)).map(|(asked, found)| [asked, found]);
        let change = change(wished, built, crossover)?;
        let drivers = match (wished.enclosure.path(), built.design.enclosure.path()) {
            (Some((_, asked)), Some((_, found))) => {
                [0, 1].map(|k| [asked[k], found[k]]).into_iter().filter(|pair| pair[0] > 0.0).collect()
            }
            _ => Vec::new(),
        };
        let folds = laid.panels.len();
        let counted = |corner: Corner| {
            let fold = oak_cabinetry::Fold { corner, ..wished.body.fold.clone() };
            fold.lay(path, folds as u32, &laid.plan).map_or(laid.length(), |laid| laid.length())
        };
        let worst = laid.worst(path);
        Ok(Some(Self {
            folds,
            length: [path.length(), laid.length()],
            wanted: parts.iter().map(|part| path.area(part * path.length())).collect(),
            built: parts.iter().map(|part| laid.area(part * laid.length())).collect(),
            along: parts,
            worst,
            panels: laid
                .panels
                .iter()
                .map(|panel| FoldPanelReport {
                    length: panel.length,
                    width: laid.plan.width,
                    stands: panel.stands,
                    middle: panel.middle,
                    gap: panel.gap,
                })
                .collect(),
            drivers,
            corners: [Corner::Square, Corner::Mitred, Corner::Curved].map(counted),
            words: words(path, laid, worst, tuning, change),
            tuning,
            change,
        }))
    }
}

/// The way of a design folded other times; empty where it has none.
pub fn fold_offers(built: &Built, stop: &Stop) -> Vec<FoldOffer> {
    let Some(Boxed { contents, .. }) = &built.boxed else { return Vec::new() };
    let Some(path) = &contents.path else { return Vec::new() };
    OFFERED
        .take_while(|_| !stop.stopped())
        .filter_map(|folds| offer(&built.design.body, contents, path, folds))
        .collect()
}

fn offer(body: &Body, contents: &Contents, path: &DuctPath, folds: u32) -> Option<FoldOffer> {
    let mut other = body.clone();
    other.fold.folds = Some(folds);
    // Boards put by hand stand where they were put for another number.
    if body.fold.folds != Some(folds) {
        other.fold.panels.clear();
    }
    let cabinet = other.build(contents).ok()?;
    let laid = cabinet.fold.as_ref()?;
    let [low, high] = cabinet.outer.bounds();
    Some(FoldOffer {
        folds,
        outside: [0, 1, 2].map(|k| high[k] - low[k]),
        off: laid.worst(path)[0],
        length_off: laid.length() / path.length() - 1.0,
        fits: !cabinet.findings.iter().any(|finding| finding.forbids()),
    })
}

/// The largest change of level between a design and what was built of it, where either plays (dB, Hz).
fn change(wished: &ResolvedDesign, built: &Built, crossover: f64) -> Result<Option<[f64; 2]>, Problem> {
    let grid = FrequencyGrid::logarithmic(LOWEST, crossover.max(2.0 * LOWEST), POINTS)
        .expect("within the allowed range");
    let compiled = wished.compile()?;
    let [before, after] = [&compiled, &built.compiled]
        .map(|compiled| Response::without_delay(&compiled.network, &grid, wished.drive.volts).pressure);
    let loudest = before.iter().map(|pressure| pressure.norm()).fold(0.0, f64::max);
    let faint = loudest * 10.0_f64.powf(-FAINT / 20.0);
    let changes = before.iter().zip(&after).zip(grid.frequencies());
    let heard = changes.filter(|((before, after), _)| before.norm().max(after.norm()) > faint);
    let each =
        heard.map(|((before, after), frequency)| [20.0 * (after.norm() / before.norm()).log10(), *frequency]);
    Ok(each.max_by(|a, b| a[0].abs().total_cmp(&b[0].abs())))
}

fn words(
    path: &DuctPath,
    laid: &Laid,
    worst: [f64; 2],
    tuning: Option<[f64; 2]>,
    change: Option<[f64; 2]>,
) -> String {
    let mut words = Vec::new();
    let missing = laid.length() - path.length();
    if missing.abs() > 0.01 * path.length() {
        let (by, other) = if missing > 0.0 { ("long", "less") } else { ("short", "more") };
        words.push(format!(
            "The path comes out {:.0} mm too {by}: leave the size along its channels open, or fold it once {other}.",
            missing.abs() * 1e3
        ));
    }
    words.push(format!(
        "Its area is within {:.0} % of what was asked for; the most it is off is {:.2} m along.",
        (worst[0].abs() * 100.0).ceil(),
        worst[1]
    ));
    let shifted = tuning.map(|[asked, built]| format!("moves the tuning from {asked:.1} to {built:.1} Hz"));
    let louder = change.map(|[by, at]| format!("changes the level by at most {by:+.1} dB, at {at:.0} Hz"));
    match (shifted, louder) {
        (Some(shifted), Some(louder)) => words.push(format!("Built so, it {shifted} and {louder}.")),
        (None, Some(louder)) => words.push(format!("Built so, it {louder}.")),
        (Some(shifted), None) => words.push(format!("Built so, it {shifted}.")),
        (None, None) => {}
    }
    words.join(" ")
}
