//! A pre-cut kit: the sizes of its boards, as they are labelled, make a box.

use oak_units::{Dimension, parse_quantity};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::field;
use crate::file::{RawBody, RawEnclosureShape, RawFace, RawItem, RawPanel, Typed};
use crate::problem::{Problem, ProblemKind};

/// The boards of a kit as text: a line each, a label and three sizes.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawKit {
    /// Such as `Front 400 x 600 x 18 mm` and `Sides (2) 564 x 282 x 18`.
    #[schema(max_length = 5000)]
    pub text: String,
}

/// A board that was understood.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct KitBoard {
    /// Its label.
    pub label: String,
    /// What it was taken for: `front`, `side`, `top` or `inside`.
    pub role: &'static str,
    /// Its two sides, m.
    pub sides: [f64; 2],
    /// m.
    pub thickness: f64,
    /// How many there are.
    pub count: u32,
}

/// What the boards make.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct KitReading {
    /// The boards that were understood, in the order of the text.
    pub boards: Vec<KitBoard>,
    /// Lines that were not.
    pub left: Vec<String>,
    /// Width, height and depth outside, m; absent where the boards do not go together.
    pub outside: Option<[f64; 3]>,
    /// Room between the boards, without those inside, m3.
    pub room: Option<f64>,
    /// The box of a design, with what stands inside as things that take room.
    pub body: Option<RawBody>,
    /// How the boards go together, or why they do not.
    pub words: String,
}

/// Longest text that is read, characters.
const LONGEST: usize = 5000;
/// What saw and tape may be off by, m.
const OFF: f64 = 1.5e-3;

impl RawKit {
    /// Reads it.
    ///
    /// # Errors
    /// A text that is too long.
    pub fn read(&self) -> Result<KitReading, Problem> {
        let found = self.text.chars().count();
        if found > LONGEST {
            return Err(Problem::new("text", ProblemKind::Length { found, min: 0, max: LONGEST }));
        }
        let (mut boards, mut left) = (Vec::new(), Vec::new());
        for line in self.text.lines().map(str::trim).filter(|line| !line.is_empty()) {
            match board(line) {
                Some(board) => boards.push(board),
                None => left.push(line.to_owned()),
            }
        }
        Ok(together(boards, left))
    }
}

/// Words of labels, and what they name.
const ROLES: [(&str, &[&str]); 4] = [
    ("inside", &["brace", "divider", "shelf", "inner", "inside", "partition", "port", "slot", "strip"]),
    ("front", &["front", "baffle", "back", "rear"]),
    ("side", &["side", "left", "right"]),
    ("top", &["top", "bottom", "lid", "base", "floor"]),
];

/// A line with a label, three sizes and perhaps a count: `Sides (2): 564 x 282 x 18 mm`, `2x side 22 1/4 x 11 x 3/4 in`.
fn board(line: &str) -> Option<KitBoard> {
    let lower = line.to_lowercase().replace(['×', '*'], "x");
    let role = ROLES.iter().find(|(_, words)| words.iter().any(|word| lower.contains(word)))?.0;
    let parts: Vec<&str> = lower.split('x').collect();
    if parts.len() < 3 {
        return None;
    }
    let [first, second, third] = [parts[parts.len() - 3], parts[parts.len() - 2], parts[parts.len() - 1]];
    let words = |c: char| c.is_alphabetic() || matches!(c, ')' | ':' | '=');
    let label_end = first.char_indices().rfind(|(_, c)| words(*c)).map_or(0, |(at, c)| at + c.len_utf8());
    let unit = third.trim().trim_start_matches(|c: char| !c.is_alphabetic() && c != '"').trim();
    let unit = if unit.is_empty() { "mm" } else { unit };
    let size = |text: &str| {
        let digits = text.trim().trim_end_matches(|c: char| c.is_alphabetic() || c == '"').trim();
        parse_quantity(&format!("{digits} {unit}"), Dimension::Length).ok().map(|read| read.si)
    };
    let (a, b, thickness) = (size(&first[label_end..])?, size(second)?, size(third)?);
    let before: String = parts[..parts.len() - 3].iter().map(|part| format!("{part}x")).collect();
    let head = before + &first[..label_end];
    let count = head.split(|c: char| !c.is_ascii_digit()).find(|text| !text.is_empty());
    // A front and a back of one label, a top and a bottom, are two.
    let pairs = [["front", "back"], ["top", "bottom"], ["left", "right"]];
    let both = pairs.iter().any(|pair| pair.iter().all(|word| lower.contains(word)));
    let count = count.and_then(|text| text.parse().ok()).unwrap_or(if both { 2 } else { 1 });
    let sane = [a, b, thickness].iter().all(|size| (1e-3..8.0).contains(size)) && (1..=20).contains(&count);
    let label: String = line.chars().take(head.chars().count()).collect();
    let label = label.trim_matches([' ', ':', '=', '(']).to_owned();
    sane.then_some(KitBoard { label, role, sides: [a, b], thickness, count })
}

/// How the sides of a front, a side and a top may lie, and which covers which edge: the way that fits best.
fn together(boards: Vec<KitBoard>, left: Vec<String>) -> KitReading {
    let none = |boards: Vec<KitBoard>, left: Vec<String>, words: &str| KitReading {
        boards,
        left,
        outside: None,
        room: None,
        body: None,
        words: words.to_owned(),
    };
    let of = |role: &str| boards.iter().find(|board| board.role == role).cloned();
    let (Some(front), Some(side), Some(top)) = (of("front"), of("side"), of("top")) else {
        return none(boards, left, "A box needs a front or back, a side, and a top or bottom.");
    };
    let t = front.thickness.max(side.thickness).max(top.thickness);
    let turned = |sides: [f64; 2], turn: bool| if turn { [sides[1], sides[0]] } else { sides };
    let mut best: Option<(f64, [f64; 3], [bool; 3])> = None;
    for way in 0..64_u32 {
        let bit = |at: u32| way >> at & 1 == 1;
        let [fw, fh] = turned(front.sides, bit(0));
        let [sd, sh] = turned(side.sides, bit(1));
        let [tw, td] = turned(top.sides, bit(2));
        // Whether the front covers the sides' edges, the front the top's, and the top the sides'.
        let covers = [bit(3), bit(4), bit(5)];
        let [over_side, over_top, top_over_side] = covers;
        let grown = |size: f64, inset: bool, by: f64| if inset { size + 2.0 * by } else { size };
        let width = [grown(fw, !over_side, side.thickness), grown(tw, !top_over_side, side.thickness)];
        let height = [grown(fh, !over_top, top.thickness), grown(sh, top_over_side, top.thickness)];
        let depth = [grown(sd, over_side, front.thickness), grown(td, over_top, front.thickness)];
        let off = [width, height, depth].iter().map(|[a, b]| (a - b).abs()).fold(0.0, f64::max);
        // Of ways that fit alike the first is the usual one: upright, the front over everything.
        if best.is_none_or(|(least, ..)| off < least - 1e-6) {
            best = Some((off, [width, height, depth].map(|[a, b]| f64::midpoint(a, b)), covers));
        }
    }
    let Some((_, outside, [over_side, over_top, top_over_side])) = best.filter(|(off, ..)| *off <= OFF)
    else {
        let words =
            "These sizes do not go together as a box with straight butt joints; check the labels and sizes.";
        return none(boards, left, words);
    };
    let inside = [
        outside[0] - 2.0 * side.thickness,
        outside[1] - 2.0 * top.thickness,
        outside[2] - 2.0 * front.thickness,
    ];
    if inside.iter().any(|side| *side <= 0.0) {
        return none(boards, left, "Nothing is left between these boards.");
    }
    let items = boards
        .iter()
        .filter(|board| board.role == "inside")
        .map(|board| {
            let volume = board.sides[0] * board.sides[1] * board.thickness * f64::from(board.count);
            RawItem {
                name: board.label.chars().take(40).collect(),
                volume: Some(field::ITEM_VOLUME.typed(volume, 4)),
                ..RawItem::default()
            }
        })
        .collect();
    let typed =
        |size: f64| Some(Typed::from(format!("{} mm", oak_units::significant(size * 1e3, 5)).as_str()));
    // Boards that differ from the thickest say so.
    let panels = [
        (&front, [RawFace::Front, RawFace::Back]),
        (&side, [RawFace::Left, RawFace::Right]),
        (&top, [RawFace::Top, RawFace::Bottom]),
    ];
    let thinner = panels.into_iter().filter(|(board, _)| t - board.thickness > 1e-5);
    let panels = thinner
        .flat_map(|(board, faces)| {
            faces.map(|face| RawPanel {
                face,
                thickness: typed(board.thickness),
                layers: None,
                inset: None,
                material: None,
            })
        })
        .collect();
    let body = RawBody {
        shape: RawEnclosureShape::Box,
        panels,
        width: typed(outside[0]),
        height: typed(outside[1]),
        depth: typed(outside[2]),
        thickness: typed(t),
        items,
        ..RawBody::default()
    };
    let front = match (over_side, over_top) {
        (true, true) => "The front covers the edges of sides and top",
        (true, false) => "The front covers the edges of the sides and stands between top and bottom",
        (false, true) => "The front covers the edge of the top and stands between the sides",
        (false, false) => "The front stands between sides, top and bottom",
    };
    let top = if top_over_side { "the top lies on the sides" } else { "the top lies between the sides" };
    let words = format!("{front}; {top}.");
    KitReading {
        boards,
        left,
        outside: Some(outside),
        room: Some(inside.iter().product()),
        body: Some(body),
        words,
    }
}
