//! What a cabinet compiles to: nodes that carry pressure or voltage, elements between them that
//! carry volume velocity or current.

use serde::Serialize;
use utoipa::ToSchema;

use crate::driver::Driver;
use crate::element::Element;
use crate::medium::{Air, Space};
pub use crate::node::Node;
use crate::source::Chain;

/// What air leaves through.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum OpeningKind {
    /// A port, or the mouth of a line or horn: its air speed matters, because it has an edge.
    Port,
    /// Where air enters a line or horn: fast, but without an edge.
    Throat,
    /// A passive diaphragm: its travel matters.
    Diaphragm,
}

/// Where air leaves through something other than a driven cone.
#[derive(Debug, Clone, PartialEq)]
pub struct Opening {
    /// What to call it.
    pub label: String,
    /// What kind of thing it is.
    pub kind: OpeningKind,
    /// Which element, by position in [`Network::elements`].
    pub element: usize,
    /// Which terminal of it faces outward.
    pub terminal: usize,
    /// Area of the mouth or of the moving surface, or of the waist of a port that has one, m2.
    pub area: f64,
    /// One-way travel that a diaphragm can make, m.
    pub xmax: Option<f64>,
}

/// A driven cone, or several side by side that move as one.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Cone {
    /// Which element, by position in [`Network::elements`]; terminal 0 is its front, terminal 1 its
    /// rear.
    pub element: usize,
    /// Moving area, m2.
    pub area: f64,
}

/// A chamber whose pressure is reported.
#[derive(Debug, Clone, PartialEq)]
pub struct ReportedChamber {
    /// What to call it.
    pub label: &'static str,
    /// Where its pressure stands.
    pub node: Node,
}

/// A branch of a passive part, whose resistance turns current into heat.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PassivePart {
    /// Which part, by position in its source.
    pub which: usize,
    /// The element, by position in [`Network::elements`]; its current leaves terminal 1.
    pub element: usize,
    /// ohm.
    pub resistance: f64,
}

/// An extra way that sound travels before it meets the rest.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Path {
    /// The element that sounds.
    pub element: usize,
    /// Its terminal at the outside.
    pub terminal: usize,
    /// How much farther it has to the listener than the nearest, m.
    pub distance: f64,
}

/// What the level of a design is compared with.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Reference {
    /// The level that the driver's parameters promise for its piston band.
    Piston,
    /// The mean power of the passband.
    Passband,
}

/// A compiled cabinet.
#[derive(Debug)]
pub struct Network {
    /// The air everywhere in it.
    pub air: Air,
    /// The space it radiates into.
    pub space: Space,
    /// How many equal cabinets stand so close together that their sound adds up.
    pub cabinets: u32,
    /// All drivers together as one behind cable and amplifier, for what follows from parameters alone.
    pub driver: Driver,
    /// Filters before the amplifier: they multiply its voltage.
    pub chain: Chain,
    /// Output resistance of the amplifier, ohm; what it drives begins behind it.
    pub output_resistance: f64,
    /// Passive parts between amplifier and drivers.
    pub passive_parts: Vec<PassivePart>,
    /// The most of the voltage that the passive parts let through to the drivers.
    pub passes: f64,
    /// Resistance of the coils alone, ohm: what turns current into heat.
    pub coil_resistance: f64,
    /// Number of inside nodes.
    pub nodes: usize,
    /// Everything between the nodes.
    pub elements: Vec<Box<dyn Element>>,
    /// The driven cones.
    pub cones: Vec<Cone>,
    /// Ports and the like whose air speed or travel is reported.
    pub openings: Vec<Opening>,
    /// Chambers whose pressure is reported.
    pub chambers: Vec<ReportedChamber>,
    /// Longer ways to the listener; what is not named here has none.
    pub paths: Vec<Path>,
    /// Where what sounds stands in space, m, by element; what is not named here stands as far back as its way is longer.
    pub places: Vec<(usize, [f64; 3])>,
    /// What the level is compared with.
    pub reference: Reference,
}

impl Network {
    /// An empty network for all drivers together as one, with coils of a resistance (ohm).
    pub fn new(air: Air, driver: Driver, coil_resistance: f64) -> Self {
        Self {
            air,
            space: Space::Half,
            cabinets: 1,
            driver,
            chain: Chain::default(),
            output_resistance: 0.0,
            passive_parts: Vec::new(),
            passes: 1.0,
            coil_resistance,
            nodes: 0,
            elements: Vec::new(),
            cones: Vec::new(),
            openings: Vec::new(),
            chambers: Vec::new(),
            paths: Vec::new(),
            places: Vec::new(),
            reference: Reference::Piston,
        }
    }

    /// One more inside node.
    pub fn node(&mut self) -> Node {
        self.nodes += 1;
        Node::Inside(self.nodes - 1)
    }

    /// Names a node whose pressure is reported.
    pub fn chamber(&mut self, label: &'static str, node: Node) {
        self.chambers.push(ReportedChamber { label, node });
    }

    /// Pressure at 1 m that a unit of volume velocity of each cabinet makes at an angular frequency (1/s), without its phase, Pa s/m3:
    /// `omega rho n/Omega`.
    pub fn source(&self, omega: f64) -> f64 {
        omega * self.air.density * f64::from(self.cabinets) / self.space.angle()
    }

    /// What of a signal (V RMS) reaches the drivers where nothing shapes it: through the gain of the filters and the passive parts, V RMS.
    pub fn passband_volts(&self, volts: f64) -> f64 {
        volts * self.chain.gain.abs() * self.passes
    }

    /// Piston-band level at 1 m that the parameters promise at a drive (V RMS), dB re 20 uPa; with the gain of the filters, which shape it
    /// besides, and with what passive parts let through.
    pub fn piston_level(&self, volts: f64) -> f64 {
        let narrowing = 2.0 * std::f64::consts::PI / self.space.angle();
        self.driver.reference_level(self.passband_volts(volts), &self.air)
            + 20.0 * (narrowing * f64::from(self.cabinets)).log10()
    }

    /// Adds an element and returns its position.
    pub fn add(&mut self, element: impl Element + 'static) -> usize {
        self.elements.push(Box::new(element));
        self.elements.len() - 1
    }
}
