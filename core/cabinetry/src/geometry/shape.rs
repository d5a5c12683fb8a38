//! The shapes a cabinet can have.

use std::f64::consts::{FRAC_PI_2, PI};

use super::Face;
use super::solid::{Axis, Solid};

/// Width, height and depth, m.
pub type Sizes = [f64; 3];

/// What the sizes are taken of.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq)]
pub enum Measured {
    /// The finished cabinet.
    #[default]
    Outside,
    /// The room in it.
    Inside,
}

/// A shape, with what it needs besides width, height and depth.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum EnclosureShape {
    /// Six boards at right angles.
    Rectangular,
    /// Boards between two equal sides that slant: behind a seat, under one, or both.
    Wedge {
        /// Depth at the top, the front upright, m; as below where absent.
        top_depth: Option<f64>,
        /// Height at the back, m; as in front where absent.
        back_height: Option<f64>,
        /// How far the top of the front leans back, m.
        lean: f64,
    },
    /// A regular prism, standing; the width is taken across two flats, of an odd one across the circle inside it twice.
    Prism {
        /// How many sides.
        sides: u8,
    },
    /// A pipe.
    Cylinder {
        /// Whether it lies, with its end in front.
        lying: bool,
    },
    /// A pyramid without its top.
    Pyramid {
        /// Width at the top, m.
        top_width: f64,
        /// Depth at the top, m.
        top_depth: f64,
    },
    /// A box whose four upright edges are round.
    Rounded {
        /// Radius outside, m.
        radius: f64,
    },
    /// A box with a step in its upper back, over a wheel arch or under a shelf.
    Step {
        /// How high the step is, from the top down, m.
        height: f64,
        /// How deep it is, from the back, m.
        depth: f64,
    },
}

/// Why a shape cannot be built.
#[derive(Debug, Clone, Copy, PartialEq, thiserror::Error)]
pub enum EnclosureShapeError {
    /// Boards fill all of it.
    #[error("the panels leave no room inside; make the cabinet larger or the panels thinner")]
    NoRoom,
    /// A part of the shape does not fit its sizes.
    #[error("{what} must be below {most:.4} m here")]
    TooLarge {
        /// Which value.
        what: &'static str,
        /// What it must stay below, m.
        most: f64,
    },
}

/// Straight pieces that stand for a full turn, and for a rounded corner.
const AROUND: usize = 96;
const CORNER: usize = 12;

impl EnclosureShape {
    /// The body of these sizes, standing on the floor (`y = 0`), its back at `z = 0`, its middle at `x = 0`.
    ///
    /// # Errors
    /// See [`EnclosureShapeError`].
    pub fn solid(&self, sizes: Sizes) -> Result<Solid, EnclosureShapeError> {
        let [width, height, depth] = sizes;
        let half = width / 2.0;
        let across = [-half, half];
        let below = |what, value: f64, most: f64| {
            if value < most { Ok(value) } else { Err(EnclosureShapeError::TooLarge { what, most }) }
        };
        Ok(match *self {
            Self::Rectangular => side_view(
                across,
                vec![[0.0, 0.0], [height, 0.0], [height, depth], [0.0, depth]],
                vec![Face::Back, Face::Top, Face::Front, Face::Bottom],
            ),
            Self::Wedge { top_depth, back_height, lean } => {
                let lean = below("lean", lean, depth)?;
                let top = below("top_depth", top_depth.unwrap_or(depth - lean), depth - lean + 1e-9)?;
                let back = back_height.unwrap_or(height);
                side_view(
                    across,
                    vec![[0.0, 0.0], [back, depth - lean - top], [height, depth - lean], [0.0, depth]],
                    vec![Face::Back, Face::Top, Face::Front, Face::Bottom],
                )
            }
            Self::Step { height: down, depth: deep } => {
                let (down, deep) = (below("step_height", down, height)?, below("step_depth", deep, depth)?);
                side_view(
                    across,
                    vec![
                        [0.0, 0.0],
                        [height - down, 0.0],
                        [height - down, deep],
                        [height, deep],
                        [height, depth],
                        [0.0, depth],
                    ],
                    vec![Face::Back, Face::Tread, Face::Riser, Face::Top, Face::Front, Face::Bottom],
                )
            }
            Self::Pyramid { top_width, top_depth } => {
                let (w, d) = (top_width / 2.0, (depth - top_depth) / 2.0);
                let top = vec![[d, -w], [depth - d, -w], [depth - d, w], [d, w]];
                let mut solid = plan(
                    [0.0, height],
                    rectangle(half, depth),
                    vec![Face::Left, Face::Front, Face::Right, Face::Back],
                );
                solid.outlines[1] = top;
                solid
            }
            Self::Rounded { radius } => {
                let least = half.min(depth / 2.0);
                let body = Self::Rectangular.solid(sizes)?;
                rounded(&body, below("radius", radius, least)?)
            }
            Self::Prism { sides } => prism(usize::from(sides), width, height),
            Self::Cylinder { lying } => {
                let circle = |middle: [f64; 2]| {
                    // As wide as has the circle's area.
                    let turn = 2.0 * PI / AROUND as f64;
                    let radius = half * (turn / turn.sin()).sqrt();
                    around(middle, radius, 0.0, AROUND)
                };
                let shell = vec![Face::Shell; AROUND];
                if lying {
                    Solid::prism(Axis::Z, [0.0, depth], circle([0.0, half]), shell, [Face::Back, Face::Front])
                } else {
                    plan([0.0, height], circle([half, 0.0]), shell)
                }
            }
        })
    }

    /// Width, height and depth inside, m, of a shape that these say all of; `None` of any other. Much quicker than [`Self::build`].
    ///
    /// # Errors
    /// Where the boards leave no room.
    pub(crate) fn cuboid(
        &self,
        sizes: Sizes,
        measured: Measured,
        panels: impl Fn(Face) -> f64,
    ) -> Option<Result<Sizes, EnclosureShapeError>> {
        if *self != Self::Rectangular {
            return None;
        }
        let pairs = [[Face::Left, Face::Right], [Face::Bottom, Face::Top], [Face::Back, Face::Front]];
        let inside = match measured {
            Measured::Inside => sizes,
            Measured::Outside => [0, 1, 2].map(|k| sizes[k] - pairs[k].map(&panels).iter().sum::<f64>()),
        };
        let open = inside.iter().all(|size| *size > 0.0);
        Some(if open { Ok(inside) } else { Err(EnclosureShapeError::NoRoom) })
    }

    /// The body and the room in it, for sizes of either and what the boards take off at each face (m).
    ///
    /// # Errors
    /// See [`EnclosureShapeError`].
    pub fn build(
        &self,
        sizes: Sizes,
        measured: Measured,
        panels: impl Fn(Face) -> f64,
    ) -> Result<[Solid; 2], EnclosureShapeError> {
        // The corners are rounded last: a rounding within the boards leaves the room square.
        let plain = if matches!(self, Self::Rounded { .. }) { &Self::Rectangular } else { self };
        let stated = plain.solid(sizes)?;
        let [outer, inner] = match measured {
            Measured::Outside => {
                let interior = stated.inset(&panels).ok_or(EnclosureShapeError::NoRoom)?;
                [stated, interior]
            }
            Measured::Inside => {
                [stated.inset(|face| -panels(face)).ok_or(EnclosureShapeError::NoRoom)?, stated]
            }
        };
        let Self::Rounded { radius } = *self else { return Ok([outer, inner]) };
        let [low, high] = outer.bounds();
        let most = (high[0] - low[0]).min(high[2] - low[2]) / 2.0;
        if radius >= most {
            return Err(EnclosureShapeError::TooLarge { what: "radius", most });
        }
        let left = radius - panels(Face::Shell);
        let interior = if left > 1e-4 { rounded(&inner, left) } else { inner };
        Ok([rounded(&outer, radius), interior])
    }

    /// Which of width, height and depth say anything here; the others follow.
    pub fn free(&self) -> [bool; 3] {
        match self {
            Self::Prism { .. } | Self::Cylinder { lying: false } => [true, true, false],
            Self::Cylinder { lying: true } => [true, false, true],
            _ => [true; 3],
        }
    }

    /// The faces it has.
    pub fn faces(&self) -> Vec<Face> {
        use Face::{Back, Bottom, Front, Left, Right, Riser, Shell, Side, Top, Tread};
        match self {
            Self::Rectangular | Self::Wedge { .. } | Self::Pyramid { .. } => {
                vec![Front, Back, Left, Right, Top, Bottom]
            }
            Self::Rounded { .. } => vec![Front, Back, Left, Right, Top, Bottom, Shell],
            Self::Step { .. } => vec![Front, Back, Left, Right, Top, Bottom, Tread, Riser],
            Self::Prism { sides } => {
                let mut faces = vec![Front, Top, Bottom];
                faces.extend((2..=*sides).map(Side));
                faces
            }
            Self::Cylinder { lying: true } => vec![Front, Back, Shell],
            Self::Cylinder { lying: false } => vec![Top, Bottom, Shell],
        }
    }
}

/// Seen from the side and equally wide all over; corners are (up, forward).
fn side_view(across: [f64; 2], outline: Vec<[f64; 2]>, sides: Vec<Face>) -> Solid {
    Solid::prism(Axis::X, across, outline, sides, [Face::Left, Face::Right])
}

/// Seen from above and equally high all over; corners are (forward, across).
fn plan(up: [f64; 2], outline: Vec<[f64; 2]>, sides: Vec<Face>) -> Solid {
    Solid::prism(Axis::Y, up, outline, sides, [Face::Bottom, Face::Top])
}

fn rectangle(half: f64, depth: f64) -> Vec<[f64; 2]> {
    vec![[0.0, -half], [depth, -half], [depth, half], [0.0, half]]
}

/// Points on a circle from an angle on, a full turn.
fn around([u, v]: [f64; 2], radius: f64, from: f64, count: usize) -> Vec<[f64; 2]> {
    (0..count)
        .map(|index| {
            let angle = from + 2.0 * PI * index as f64 / count as f64;
            [u + radius * angle.cos(), v + radius * angle.sin()]
        })
        .collect()
}

/// A rectangular body with its upright edges rounded.
fn rounded(body: &Solid, radius: f64) -> Solid {
    let [low, high] = body.bounds();
    let centres = [
        ([low[2] + radius, low[0] + radius], 2.0),
        ([high[2] - radius, low[0] + radius], 3.0),
        ([high[2] - radius, high[0] - radius], 0.0),
        ([low[2] + radius, high[0] - radius], 1.0),
    ];
    let mut outline = Vec::new();
    let mut sides = Vec::new();
    for (([u, v], quarter), face) in
        centres.into_iter().zip([Face::Left, Face::Front, Face::Right, Face::Back])
    {
        for step in 0..=CORNER {
            let angle = FRAC_PI_2 * (quarter + step as f64 / CORNER as f64);
            outline.push([u + radius * angle.cos(), v + radius * angle.sin()]);
            sides.push(if step < CORNER { Face::Shell } else { face });
        }
    }
    plan([low[1], high[1]], outline, sides)
}

fn prism(sides: usize, width: f64, height: f64) -> Solid {
    let apothem = width / 2.0;
    let turn = 2.0 * PI / sides as f64;
    // The first edge lies square to the front.
    let outline = around([apothem, 0.0], apothem / (turn / 2.0).cos(), -turn / 2.0, sides);
    let faces = (0..sides).map(|index| if index == 0 { Face::Front } else { Face::Side(index as u8 + 1) });
    plan([0.0, height], outline, faces.collect())
}
