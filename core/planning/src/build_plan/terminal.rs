//! A place for what lets the lead in, where none is drawn yet.

use oak_design::Problem;
use oak_design::built::Built;
use oak_design::conditions::RawQuestion;
use oak_design::file::{RawBody, RawDesign, RawFace, RawItem, RawOpening, RawTerminal, Typed};
use oak_design::resolve::resolve_design;
use serde::Serialize;
use utoipa::ToSchema;

use super::making::Making;
use super::with_making;

/// A design whose terminal has a hole.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TerminalReport {
    /// Where it is and what it takes, in words.
    pub words: String,
    /// The design with it.
    pub design: RawDesign,
}

/// What is cut for a kind of terminal (common practice, from memory).
struct Cut {
    name: &'static str,
    round: bool,
    /// Width and height of the hole and depth behind the board, mm.
    size: [f64; 3],
    /// Rim of its plate, mm.
    rim: f64,
}

impl Cut {
    fn of(terminal: RawTerminal) -> Option<Self> {
        match terminal {
            RawTerminal::Cup => {
                Some(Self { name: "terminal cup", round: true, size: [76.0, 76.0, 50.0], rim: 12.0 })
            }
            RawTerminal::Posts => {
                Some(Self { name: "binding posts", round: false, size: [50.0, 30.0, 25.0], rim: 15.0 })
            }
            RawTerminal::Locking => {
                Some(Self { name: "locking connector", round: true, size: [24.0, 24.0, 30.0], rim: 8.0 })
            }
            RawTerminal::None => None,
        }
    }
}

/// Boards that are tried, the usual one first, and on each the places of its middle as parts of the sides: low first, so that the lead hangs.
const FACES: [RawFace; 3] = [RawFace::Back, RawFace::Left, RawFace::Right];
const PLACES: [[f64; 2]; 9] = [
    [0.5, 0.2],
    [0.3, 0.2],
    [0.7, 0.2],
    [0.5, 0.35],
    [0.25, 0.35],
    [0.75, 0.35],
    [0.5, 0.5],
    [0.5, 0.7],
    [0.5, 0.85],
];

/// A design with a hole for the workshop's terminal at the first place where nothing is in its way; `None` where it has one, needs none, or no
/// board has room for it.
///
/// # Errors
/// Every problem with design or brief; why its box cannot be built.
pub fn with_terminal(question: &RawQuestion) -> Result<Option<TerminalReport>, Vec<Problem>> {
    Ok(with_making(question, |making, _| placed(&making))?.flatten())
}

fn placed(making: &Making<'_>) -> Option<TerminalReport> {
    if !making.lacks_terminal_hole() {
        return None;
    }
    let cut = Cut::of(making.workshop.terminal)?;
    let before = making.built.forbids().len();
    let [low, high] = making.cabinet.outer.bounds();
    let side = |axis: usize| high[axis] - low[axis];
    FACES.into_iter().find_map(|face| {
        let (name, sides) = match face {
            RawFace::Back => ("back", [side(0), side(1)]),
            RawFace::Left => ("left side", [side(2), side(1)]),
            _ => ("right side", [side(2), side(1)]),
        };
        PLACES.into_iter().find_map(|place| {
            let at = [0, 1].map(|k| (place[k] * sides[k] * 1e3).round());
            let design = with(making.raw, &cut, face, at);
            let built = resolve_design(&design).ok()?.built().ok()?;
            let free = built.forbids().len() <= before && hole_stands(&design, &built, cut.name);
            free.then(|| TerminalReport { words: words(&cut, name, at), design })
        })
    })
}

/// Whether the hole is cut in a board and breaks no rule of holes.
fn hole_stands(design: &RawDesign, built: &Built, name: &str) -> bool {
    Making::of(design, built, None).is_some_and(|making| {
        let holes = making.holes();
        let mut own = holes.iter().filter(|hole| hole.hole.what == name).peekable();
        own.peek().is_some() && own.all(|hole| hole.faults.is_empty())
    })
}

fn with(design: &RawDesign, cut: &Cut, face: RawFace, at: [f64; 2]) -> RawDesign {
    let mm = |length: f64| Some(Typed::from(format!("{length:.0} mm").as_str()));
    let [width, height, depth] = cut.size.map(mm);
    let [across, up] = at.map(mm);
    let item = RawItem {
        name: cut.name.to_owned(),
        volume: None,
        face: Some(face),
        width,
        height,
        depth,
        across,
        up,
        opening: Some(if cut.round { RawOpening::Round } else { RawOpening::Rectangular }),
        rim: mm(cut.rim),
    };
    let mut design = design.clone();
    let items = &mut design.body.get_or_insert_with(RawBody::default).items;
    // One that was counted without a place is the same one.
    let counted = |item: &RawItem| item.face.is_none() && item.name.to_lowercase().contains("terminal");
    match items.iter().position(counted) {
        Some(at) => items[at] = item,
        None => items.push(item),
    }
    design
}

fn words(cut: &Cut, face: &str, [across, up]: [f64; 2]) -> String {
    let [width, height, _] = cut.size;
    let size =
        if cut.round { format!("{width:.0} mm across") } else { format!("{width:.0} x {height:.0} mm") };
    format!(
        "A hole of {size} for the {} in the {face}, its middle {across:.0} mm from the left and {up:.0} mm from below.",
        cut.name
    )
}
