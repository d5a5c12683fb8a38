//! The box of a design file.

use oak_acoustics::medium::{Fill, Frame};
use oak_cabinetry::geometry::{Axis, EnclosureShape, Face, Measured};
use oak_cabinetry::panel::{MATERIALS, Material};
use oak_cabinetry::{
    Body, Brace, Corner, Fittings, Fold, Item, ItemBlock, Layer, Opening, Panel, Place, PortBuild,
    USUAL_WALL, Washers,
};

use super::reading::Reading;
use crate::field::{self, Field};
use crate::file::{
    RawAxis, RawBody, RawCorner, RawEnclosure, RawEnclosureShape, RawFace, RawFold, RawFrame, RawLinked,
    RawMaterial, RawMeasured, RawOpening, RawPlace, RawPort, RawPortBuild, RawPortSection, RawStack,
    RawWashers, Typed,
};
use crate::problem::ProblemKind;

/// Boards where none are stated, m (common practice).
const USUAL_BOARD: f64 = 0.018;
/// Share of a brace that is cut out where none is stated (common practice).
const USUAL_WINDOW: f64 = 0.6;
/// Density of a layer of fill where none is stated, kg/m3: loose polyester wool (common practice).
const USUAL_DENSITY: f64 = 12.0;
/// One washer, and bolt with nut, where none are stated, kg: of 30 mm and of 8 by 60 mm (common practice).
const USUAL_WASHER: f64 = 0.010;
const USUAL_BOLT: f64 = 0.025;
/// How far the plate of an item reaches beyond its opening where nothing is said, m (common practice).
pub(super) const USUAL_RIM: f64 = 0.02;
const LONGEST_ITEM: usize = 40;

impl From<RawFace> for Face {
    fn from(raw: RawFace) -> Self {
        match raw {
            RawFace::Front => Self::Front,
            RawFace::Back => Self::Back,
            RawFace::Left => Self::Left,
            RawFace::Right => Self::Right,
            RawFace::Top => Self::Top,
            RawFace::Bottom => Self::Bottom,
            RawFace::Tread => Self::Tread,
            RawFace::Riser => Self::Riser,
            RawFace::Shell => Self::Shell,
        }
    }
}

fn material(raw: Option<RawMaterial>) -> Option<&'static Material> {
    raw.and_then(|raw| Material::named(raw.id()))
}

/// Resolves the box; one of usual boards and proportions where there is none.
pub(super) fn body(raw: Option<&RawBody>, enclosure: &RawEnclosure, reading: &mut Reading) -> Option<Body> {
    let empty = RawBody::default();
    let raw = raw.unwrap_or(&empty);
    let mut lengths = Lengths { raw, reading, whole: true };
    let sizes = [
        lengths.optional("width", &field::BODY_WIDTH, &raw.width),
        lengths.optional("height", &field::BODY_HEIGHT, &raw.height),
        lengths.optional("depth", &field::BODY_DEPTH, &raw.depth),
    ];
    let shape = lengths.shape();
    let sizes = led(raw, enclosure, shape.as_ref(), sizes);
    let thickness = lengths.optional("thickness", &field::THICKNESS, &raw.thickness).unwrap_or(USUAL_BOARD);
    let partition = lengths.optional("partition", &field::PARTITION, &raw.partition).unwrap_or(thickness);
    let recess = lengths.optional("recess", &field::RECESS, &raw.recess).unwrap_or(0.0);
    let strips = lengths.optional("strips", &field::STRIPS, &raw.strips).unwrap_or(0.0);
    let panel =
        Panel { thickness, layers: 1, inset: 0.0, material: material(raw.material).unwrap_or(&MATERIALS[0]) };
    let panels = lengths.panels(&panel);
    // A pipe that stands has no front.
    let usual = if raw.shape == RawEnclosureShape::Pipe { Face::Top } else { Face::Front };
    let drivers =
        lengths.place("driver", raw.driver.as_ref(), usual, [&field::DRIVER_ACROSS, &field::DRIVER_UP]);
    let aside = match raw.shape {
        RawEnclosureShape::Pipe => Face::Bottom,
        RawEnclosureShape::LyingPipe => Face::Back,
        RawEnclosureShape::Prism => Face::Top,
        _ => Face::Left,
    };
    let radiators = lengths.place(
        "radiator",
        raw.radiator.as_ref(),
        aside,
        [&field::RADIATOR_ACROSS, &field::RADIATOR_UP],
    );
    let ports = lengths.ports("ports", &raw.ports, &enclosure.ports, thickness);
    let front = enclosure.front.as_ref().map(|front| front.ports.as_slice()).unwrap_or_default();
    let front_ports = lengths.ports("front_ports", &raw.front_ports, front, thickness);
    let braces = lengths.braces(thickness);
    lengths.at_most("joints", raw.joints.len(), 24);
    let items = lengths.items();
    let fills = lengths.layers();
    let fold = lengths.fold(thickness);
    let washers = lengths.washers(enclosure);
    let whole = lengths.whole;
    whole.then_some(Body {
        shape: shape?,
        sizes,
        proportions: raw.ratio.of(),
        measured: match raw.measured {
            RawMeasured::Outside => Measured::Outside,
            RawMeasured::Inside => Measured::Inside,
        },
        panel,
        panels,
        partition: Panel { thickness: partition, ..panel },
        drivers,
        ports,
        front_ports,
        radiators,
        recess,
        braces,
        strips,
        items,
        fills,
        fold,
        washers,
    })
}

/// Sizes without the one that follows from the volume.
fn led(
    raw: &RawBody,
    enclosure: &RawEnclosure,
    shape: Option<&EnclosureShape>,
    mut sizes: [Option<f64>; 3],
) -> [Option<f64>; 3] {
    let Some(shape) = shape.filter(|_| enclosure.family.is_of_its_volume()) else { return sizes };
    let follower = raw.follower(shape.free());
    for (at, size) in sizes.iter_mut().enumerate() {
        if follower == Some(RawLinked::size(at)) {
            *size = None;
        }
    }
    sizes
}

/// Reads the values of a box.
struct Lengths<'a, 'b> {
    raw: &'a RawBody,
    reading: &'b mut Reading,
    whole: bool,
}

impl Lengths<'_, '_> {
    fn optional(&mut self, name: &str, field: &'static Field, typed: &Option<Typed>) -> Option<f64> {
        let found = self.reading.optional(&format!("body.{name}"), field, typed);
        self.whole &= found.is_some() == typed.is_some();
        found
    }

    fn required(&mut self, name: &str, field: &'static Field, typed: &Option<Typed>) -> Option<f64> {
        let found = self.reading.required(&format!("body.{name}"), field, typed);
        self.whole &= found.is_some();
        found
    }

    fn count(&mut self, name: &str, field: &'static Field, typed: &Option<Typed>) -> u32 {
        let found = self.reading.count(&format!("body.{name}"), field, typed);
        self.whole &= found.is_some();
        found.unwrap_or(1)
    }

    fn at_most(&mut self, name: &str, found: usize, max: usize) {
        if found > max {
            self.reading.note(&format!("body.{name}"), ProblemKind::TooMany { found, max });
            self.whole = false;
        }
    }

    fn shape(&mut self) -> Option<EnclosureShape> {
        let raw = self.raw;
        Some(match raw.shape {
            RawEnclosureShape::Box => EnclosureShape::Rectangular,
            RawEnclosureShape::Wedge => EnclosureShape::Wedge {
                top_depth: self.optional("top_depth", &field::BODY_TOP_DEPTH, &raw.top_depth),
                back_height: self.optional("back_height", &field::BODY_BACK_HEIGHT, &raw.back_height),
                lean: self.optional("lean", &field::BODY_LEAN, &raw.lean).unwrap_or(0.0),
            },
            RawEnclosureShape::Prism => {
                let sides =
                    if raw.sides.is_some() { self.count("sides", &field::BODY_SIDES, &raw.sides) } else { 6 };
                EnclosureShape::Prism { sides: u8::try_from(sides).unwrap_or(6) }
            }
            RawEnclosureShape::Pipe => EnclosureShape::Cylinder { lying: false },
            RawEnclosureShape::LyingPipe => EnclosureShape::Cylinder { lying: true },
            RawEnclosureShape::Pyramid => {
                let top_width = self.required("top_width", &field::BODY_TOP_WIDTH, &raw.top_width);
                let top_depth = self.required("top_depth", &field::BODY_TOP_DEPTH, &raw.top_depth);
                EnclosureShape::Pyramid { top_width: top_width?, top_depth: top_depth? }
            }
            RawEnclosureShape::Rounded => {
                EnclosureShape::Rounded { radius: self.required("radius", &field::BODY_RADIUS, &raw.radius)? }
            }
            RawEnclosureShape::Step => {
                let height = self.required("step_height", &field::BODY_STEP_HEIGHT, &raw.step_height);
                let depth = self.required("step_depth", &field::BODY_STEP_DEPTH, &raw.step_depth);
                EnclosureShape::Step { height: height?, depth: depth? }
            }
        })
    }

    fn panels(&mut self, usual: &Panel) -> Vec<(Face, Panel)> {
        let raw = self.raw;
        self.at_most("panels", raw.panels.len(), 16);
        let mut panels = Vec::with_capacity(raw.panels.len());
        for (index, panel) in raw.panels.iter().enumerate() {
            let at = |name: &str| format!("panels[{index}].{name}");
            let thickness = self.optional(&at("thickness"), &field::BOARD_THICKNESS, &panel.thickness);
            let inset = self.optional(&at("inset"), &field::BOARD_INSET, &panel.inset);
            let layers = self.count(&at("layers"), &field::BOARD_LAYERS, &panel.layers);
            panels.push((
                panel.face.into(),
                Panel {
                    thickness: thickness.unwrap_or(usual.thickness),
                    layers,
                    inset: inset.unwrap_or(0.0),
                    material: material(panel.material).unwrap_or(usual.material),
                },
            ));
        }
        panels
    }

    fn place(
        &mut self,
        name: &str,
        raw: Option<&RawPlace>,
        usual: Face,
        [across, up]: [&'static Field; 2],
    ) -> Place {
        let Some(raw) = raw else { return Place { face: usual, across: None, up: None } };
        Place {
            face: raw.face.into(),
            across: self.optional(&format!("{name}.across"), across, &raw.across),
            up: self.optional(&format!("{name}.up"), up, &raw.up),
        }
    }

    fn ports(&mut self, list: &str, raw: &[RawPortBuild], ports: &[RawPort], panel: f64) -> Vec<PortBuild> {
        self.at_most(list, raw.len(), 8);
        let empty = RawPortBuild::default();
        let mut builds = Vec::with_capacity(ports.len());
        for index in 0..ports.len().max(raw.len()) {
            let build = raw.get(index).unwrap_or(&empty);
            let at = |name: &str| format!("{list}[{index}].{name}");
            let slot = ports.get(index).is_some_and(|port| port.shape != RawPortSection::Round);
            let usual = if slot { panel } else { USUAL_WALL };
            let turns = build
                .turns
                .as_ref()
                .map_or(0, |_| self.count(&at("turns"), &field::PORT_TURNS, &build.turns));
            builds.push(PortBuild {
                face: build.face.map(Face::from),
                across: self.optional(&at("across"), &field::PORT_ACROSS, &build.across),
                up: self.optional(&at("up"), &field::PORT_UP, &build.up),
                wall: self.optional(&at("wall"), &field::PORT_WALL, &build.wall).unwrap_or(usual),
                turns,
                flares: [
                    self.optional(&at("outer_flare"), &field::PORT_OUTER_FLARE, &build.outer_flare),
                    self.optional(&at("inner_flare"), &field::PORT_INNER_FLARE, &build.inner_flare),
                ]
                .map(|flare| flare.unwrap_or(0.0)),
                flange: self.optional(&at("flange"), &field::PORT_FLANGE, &build.flange),
                fittings: Fittings {
                    elbow: self.optional(&at("elbow"), &field::PORT_ELBOW, &build.elbow),
                    socket: self.optional(&at("socket"), &field::PORT_SOCKET, &build.socket),
                    coupling: self.optional(&at("coupling"), &field::PORT_COUPLING, &build.coupling),
                    cap: self.optional(&at("cap"), &field::PORT_CAP, &build.cap),
                },
                full_width: ports.get(index).is_some_and(RawPort::is_across),
            });
        }
        builds
    }

    fn braces(&mut self, thickness: f64) -> Vec<Brace> {
        let raw = self.raw;
        self.at_most("braces", raw.braces.len(), 12);
        let mut braces = Vec::with_capacity(raw.braces.len());
        for (index, brace) in raw.braces.iter().enumerate() {
            let at = |name: &str| format!("braces[{index}].{name}");
            braces.push(Brace {
                axis: match brace.along {
                    RawAxis::Width => Axis::X,
                    RawAxis::Height => Axis::Y,
                    RawAxis::Depth => Axis::Z,
                },
                at: self.optional(&at("at"), &field::BRACE_AT, &brace.at),
                thickness: self
                    .optional(&at("thickness"), &field::BRACE_THICKNESS, &brace.thickness)
                    .unwrap_or(thickness),
                open: self.optional(&at("open"), &field::BRACE_OPEN, &brace.open).unwrap_or(USUAL_WINDOW),
            });
        }
        braces
    }

    fn items(&mut self) -> Vec<Item> {
        let raw = self.raw;
        self.at_most("items", raw.items.len(), 16);
        let mut items = Vec::with_capacity(raw.items.len());
        for (index, item) in raw.items.iter().enumerate() {
            let found = self.reading.problems.len();
            self.reading.text(&format!("body.items[{index}].name"), &item.name, 1, LONGEST_ITEM);
            self.whole &= self.reading.problems.len() == found;
            let at = |name: &str| format!("items[{index}].{name}");
            let size = [
                self.optional(&at("width"), &field::ITEM_WIDTH, &item.width),
                self.optional(&at("height"), &field::ITEM_HEIGHT, &item.height),
                self.optional(&at("depth"), &field::ITEM_DEPTH, &item.depth),
            ];
            let [across, up] = [
                self.optional(&at("across"), &field::ITEM_ACROSS, &item.across),
                self.optional(&at("up"), &field::ITEM_UP, &item.up),
            ];
            let whole = match size {
                [Some(width), Some(height), Some(depth)] => Some([width, height, depth]),
                _ => None,
            };
            let volume = match whole {
                Some(size) if item.volume.is_none() => Some(size.iter().product()),
                _ => self.required(&at("volume"), &field::ITEM_VOLUME, &item.volume),
            };
            let rim = self.optional(&at("rim"), &field::ITEM_RIM, &item.rim).unwrap_or(USUAL_RIM);
            let opening = |[width, height, _]: [f64; 3]| {
                let round = item.opening? == RawOpening::Round;
                Some(Opening { size: [width, if round { width } else { height }], round, rim })
            };
            let block = whole.zip(item.face).map(|(size, face)| ItemBlock {
                place: Place { face: face.into(), across, up },
                opening: opening(size),
                size,
            });
            items.push(Item { name: item.name.clone(), volume: volume.unwrap_or(0.0), block });
        }
        items
    }

    fn washers(&mut self, enclosure: &RawEnclosure) -> Washers {
        let empty = RawWashers::default();
        let raw = self.raw.washers.as_ref().unwrap_or(&empty);
        let radiator = enclosure.radiator.as_ref();
        Washers {
            each: self.optional("washers.each", &field::WASHER, &raw.each).unwrap_or(USUAL_WASHER),
            bolt: self.optional("washers.bolt", &field::BOLT, &raw.bolt).unwrap_or(USUAL_BOLT),
            // What is wrong with it is told of the enclosure.
            added: radiator
                .and_then(|radiator| field::RADIATOR_ADDED.read(radiator.added_mass.as_ref()))
                .unwrap_or(0.0),
        }
    }

    fn fold(&mut self, thickness: f64) -> Fold {
        let empty = RawFold::default();
        let raw = self.raw.fold.as_ref().unwrap_or(&empty);
        let folds = raw.folds.as_ref().map(|_| self.count("fold.folds", &field::FOLDS, &raw.folds));
        self.at_most("fold.panels", raw.panels.len(), 12);
        let panels = raw.panels.iter().enumerate();
        Fold {
            folds,
            stack: if raw.stack == RawStack::Upright { Axis::Z } else { Axis::Y },
            corner: match raw.corner {
                RawCorner::Square => Corner::Square,
                RawCorner::Mitred => Corner::Mitred,
                RawCorner::Curved => Corner::Curved,
            },
            mouth: raw.mouth.map(Face::from),
            panels: panels
                .map(|(index, panel)| {
                    self.optional(&format!("fold.panels[{index}].at"), &field::FOLD_AT, &panel.at)
                })
                .collect(),
            thickness: self
                .optional("fold.thickness", &field::FOLD_THICKNESS, &raw.thickness)
                .unwrap_or(thickness),
        }
    }

    fn layers(&mut self) -> Vec<Layer> {
        let raw = self.raw;
        self.at_most("fills", raw.fills.len(), 8);
        let mut layers = Vec::with_capacity(raw.fills.len());
        for (index, layer) in raw.fills.iter().enumerate() {
            let at = |name: &str| format!("fills[{index}].{name}");
            let thickness = self.required(&at("thickness"), &field::LAYER_THICKNESS, &layer.thickness);
            let density = self.optional(&at("density"), &field::LAYER_DENSITY, &layer.density);
            let resistivity =
                self.optional(&at("resistivity"), &field::LAYER_RESISTIVITY, &layer.resistivity);
            let frame = if layer.frame == Some(RawFrame::Rigid) { Frame::Rigid } else { Frame::Limp };
            let fill = Fill::polyester(density.unwrap_or(USUAL_DENSITY), frame);
            let fill = Fill { resistivity: resistivity.unwrap_or(fill.resistivity), ..fill };
            layers.push(Layer { face: layer.face.into(), thickness: thickness.unwrap_or(0.0), fill });
        }
        layers
    }
}
