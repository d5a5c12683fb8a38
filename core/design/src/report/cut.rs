//! The boards of a design as they are cut.

use oak_cabinetry::cut::{Edge, EdgeJoint, FlatHole, FlatPart, Groove, Joinery, Stand, flat_parts};
use oak_cabinetry::geometry::Face;
use serde::Serialize;
use utoipa::ToSchema;

use crate::built::{Boxed, Built};

/// Every board as it is cut.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CutReport {
    /// How many equal cabinets the brief counts; the boards are those of all.
    pub cabinets: u32,
    /// The boards, numbered.
    pub panels: Vec<CutPanel>,
    /// What is not cut flat, in words: rounded corners, pipes.
    pub notes: Vec<&'static str>,
}

/// One board as it is cut.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CutPanel {
    /// The number on its label.
    pub number: u32,
    /// What it is.
    pub name: String,
    /// How many alike, of all cabinets.
    pub count: u32,
    /// Width and height of the blank, m.
    pub size: [f64; 2],
    /// Of one layer as measured, m.
    pub thickness: f64,
    /// Which layer of how many, the outermost first.
    pub layer: Option<[u32; 2]>,
    /// Whether it is one of the outside.
    pub outside: bool,
    /// Along which side the grain runs, 0 along the width, 1 along the height; of what has no grain none.
    pub grain: Option<u8>,
    /// What it is of, in files.
    pub material: &'static str,
    /// What it is of.
    pub material_name: &'static str,
    /// Outline of its outer side from its lowest corner, as seen from outside, m.
    pub outer: Vec<[f64; 2]>,
    /// Outline of its inner side, m.
    pub inner: Vec<[f64; 2]>,
    /// Its edges, from each corner to the next.
    pub edges: Vec<CutEdge>,
    /// Holes and recesses.
    pub holes: Vec<FlatHole>,
    /// Where boards inside stand on its inner side: which, and its outline as seen from outside, m.
    pub stands: Vec<Stand>,
    /// What other boards stand in, and what is milled off along tongues.
    pub grooves: Vec<Groove>,
    /// Outline of a window, m.
    pub window: Option<Vec<[f64; 2]>>,
    /// Mass of one, around its holes, kg.
    pub mass: f64,
}

/// One edge.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CutEdge {
    /// The board that it meets.
    pub meets: Option<String>,
    /// How they meet.
    pub joint: EdgeJoint,
    /// What holds it beside glue.
    pub joinery: Joinery,
    /// Middles of dowels in the edge, from its first corner, m.
    pub dowels: Vec<f64>,
    /// Tilt of the saw from square, degrees: positive where the outer side is the longer one.
    pub bevel: f64,
}

impl CutReport {
    /// Of a built design; `None` where it has no box.
    pub fn of(built: &Built) -> Option<Self> {
        let Boxed { contents, cabinet } = built.boxed.as_ref()?;
        let design = &built.design;
        let flat = flat_parts(&design.body, contents, cabinet, &design.joints);
        let cabinets = design.cabinets;
        let panels: Vec<CutPanel> =
            (1..).zip(&flat).map(|(number, part)| panel(number, part, cabinets)).collect();
        Some(Self { cabinets, panels, notes: notes(cabinet) })
    }
}

fn notes(cabinet: &oak_cabinetry::Cabinet) -> Vec<&'static str> {
    let fillers = cabinet.fold.iter().flat_map(|laid| &laid.turns).flat_map(|turn| &turn.fillers);
    let filled = fillers.filter(|filler| !filler.is_empty()).count() > 0;
    let turns = filled.then_some(
        "What fills the corners of its turns is cut from what is left over, to the side section: triangles or quarters as wide as the path.",
    );
    let shell = cabinet.outer.sides.iter().filter(|face| **face == Face::Shell).count();
    let round = match (shell, cabinet.outer.sides.len()) {
        (0, _) => None,
        (shell, all) if shell == all => Some("The wall is a pipe, cut to the length between its discs."),
        _ => Some(
            "The rounded edges are not cut flat: round the corners of thick boards over, bend a slotted board, or stack layers.",
        ),
    };
    turns.into_iter().chain(round).collect()
}

/// The grain runs up the walls and across lids and floors; inside along the longer side.
fn grain(part: &FlatPart) -> Option<u8> {
    if !part.panel.material.has_grain {
        return None;
    }
    let [width, height] = part.size();
    Some(match part.face {
        Some(Face::Top | Face::Bottom | Face::Tread) => 0,
        Some(_) => 1,
        None => u8::from(height > width),
    })
}

fn panel(number: u32, part: &FlatPart, cabinets: u32) -> CutPanel {
    let edge = |edge: &Edge| CutEdge {
        meets: edge.meets.map(Face::name),
        joint: edge.joint,
        joinery: edge.joinery,
        dowels: edge.dowels.clone(),
        bevel: edge.bevel.to_degrees(),
    };
    CutPanel {
        number,
        name: part.name.clone(),
        count: part.count * cabinets,
        size: part.size(),
        thickness: part.panel.thickness,
        layer: part.layer,
        outside: part.face.is_some(),
        grain: grain(part),
        material: part.panel.material.id,
        material_name: part.panel.material.name,
        outer: part.outer.clone(),
        inner: part.inner.clone(),
        edges: part.edges.iter().map(edge).collect(),
        holes: part.holes.clone(),
        stands: part.stands.clone(),
        grooves: part.grooves.clone(),
        window: part.window.clone(),
        mass: part.wood() * part.panel.material.density,
    }
}
