//! What a cabinet compiles to: nodes that carry pressure, elements between them that carry volume
//! velocity.

use crate::driver::Driver;
use crate::element::{Element, MovingCoil};
use crate::medium::Air;
pub use crate::node::Node;

/// What air leaves through.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Way {
    /// A port: its air speed matters.
    Port,
    /// A passive diaphragm: its travel matters.
    Diaphragm,
}

/// Where air leaves through something other than a driven cone.
#[derive(Debug, Clone, PartialEq)]
pub struct Opening {
    /// What to call it.
    pub label: String,
    /// What kind of thing it is.
    pub way: Way,
    /// Which element, by position in [`Network::elements`].
    pub element: usize,
    /// Which terminal of it faces outward.
    pub terminal: usize,
    /// Area of the mouth or of the moving surface, m2.
    pub area: f64,
}

/// A compiled cabinet.
#[derive(Debug)]
pub struct Network {
    /// The air everywhere in it.
    pub air: Air,
    /// The driver, for its electrical side.
    pub driver: Driver,
    /// Number of inside nodes.
    pub nodes: usize,
    /// Everything between the nodes.
    pub elements: Vec<Box<dyn Element>>,
    /// Which element is the driver.
    pub cone: usize,
    /// Ports and the like whose air speed is reported.
    pub openings: Vec<Opening>,
}

impl Network {
    /// A network of one driver and nothing else yet.
    pub fn new(air: Air, driver: Driver, nodes: usize, cone: MovingCoil) -> Self {
        Self { air, driver, nodes, elements: vec![Box::new(cone)], cone: 0, openings: Vec::new() }
    }

    /// Adds an element and returns its position.
    pub fn add(&mut self, element: impl Element + 'static) -> usize {
        self.elements.push(Box::new(element));
        self.elements.len() - 1
    }
}
