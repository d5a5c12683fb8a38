//! Boxes for tests.
#![allow(dead_code)]

use oak_acoustics::element::End;
use oak_acoustics::medium::CrossSection;
use oak_cabinetry::geometry::{Axis, EnclosureShape, Face, Measured, Solid};
use oak_cabinetry::panel::MATERIALS;
use oak_cabinetry::{Body, Contents, Corner, DriverSize, Fittings, Fold, Panel, Place, PortBuild, PortSize};
use proptest::prelude::*;

pub fn panel() -> Panel {
    Panel { thickness: 0.018, layers: 1, inset: 0.0, material: &MATERIALS[0] }
}

pub fn fold() -> Fold {
    Fold {
        folds: None,
        stack: Axis::Y,
        corner: Corner::Square,
        mouth: None,
        thickness: 0.018,
        panels: Vec::new(),
    }
}

pub fn body(shape: EnclosureShape) -> Body {
    Body {
        shape,
        sizes: [None; 3],
        proportions: [1.0, 1.26, 0.79],
        measured: Measured::Outside,
        panel: panel(),
        panels: Vec::new(),
        partition: panel(),
        drivers: Place { face: Face::Front, across: None, up: None },
        ports: Vec::new(),
        front_ports: Vec::new(),
        radiators: Place { face: Face::Left, across: None, up: None },
        recess: 0.0,
        braces: Vec::new(),
        strips: 0.0,
        items: Vec::new(),
        fills: Vec::new(),
        fold: fold(),
        washers: Default::default(),
    }
}

/// A driver of 250 mm and the air it asks for, m3.
pub fn contents(litres: f64) -> Contents {
    Contents {
        drivers: DriverSize::of(0.0346, [Some(0.25), None, None, None], None),
        wanted: [Some(litres * 1e-3), None],
        ports: [Vec::new(), Vec::new()],
        through: false,
        radiators: None,
        path: None,
        gain: [1.0; 2],
    }
}

pub fn tube(diameter: f64, length: f64) -> PortSize {
    PortSize {
        section: CrossSection::Round { radius: diameter / 2.0 },
        length,
        count: 1,
        walls: 0,
        ends: [End::Flanged, End::Free],
        waist: 1.0,
    }
}

pub fn slot(width: f64, height: f64, length: f64, walls: u32) -> PortSize {
    PortSize {
        section: CrossSection::Slot { width, height },
        length,
        count: 1,
        walls,
        ends: [End::Flanged, End::Free],
        waist: 1.0,
    }
}

pub fn build(turns: u32) -> PortBuild {
    PortBuild {
        face: None,
        across: None,
        up: None,
        wall: 0.004,
        turns,
        flares: [0.0; 2],
        flange: None,
        fittings: Fittings::default(),
        full_width: false,
    }
}

/// Volume of a closed surface, m3, by the divergence theorem: another way than the shapes' own.
pub fn enclosed(solid: &Solid) -> f64 {
    let cone = |a: [f64; 3], b: [f64; 3], c: [f64; 3]| {
        (a[0] * (b[1] * c[2] - b[2] * c[1])
            + a[1] * (b[2] * c[0] - b[0] * c[2])
            + a[2] * (b[0] * c[1] - b[1] * c[0]))
            / 6.0
    };
    solid
        .facets()
        .iter()
        .map(|facet| {
            facet.corners.windows(2).skip(1).map(|pair| cone(facet.corners[0], pair[0], pair[1])).sum::<f64>()
        })
        .sum()
}

pub fn any_shape() -> impl Strategy<Value = EnclosureShape> {
    prop_oneof![
        Just(EnclosureShape::Rectangular),
        (0.4..1.0, 0.5..1.0, 0.0..0.2).prop_map(|(top, back, lean)| EnclosureShape::Wedge {
            top_depth: Some(0.4 * top * (1.0 - lean)),
            back_height: Some(0.6 * back),
            lean: 0.4 * lean,
        }),
        (3_u8..=12).prop_map(|sides| EnclosureShape::Prism { sides }),
        any::<bool>().prop_map(|lying| EnclosureShape::Cylinder { lying }),
        (0.4..1.0, 0.4..1.0)
            .prop_map(|(a, b)| EnclosureShape::Pyramid { top_width: 0.5 * a, top_depth: 0.4 * b }),
        (0.01..0.15).prop_map(|radius| EnclosureShape::Rounded { radius }),
        (0.1..0.5, 0.1..0.3).prop_map(|(height, depth)| EnclosureShape::Step { height, depth }),
    ]
}
