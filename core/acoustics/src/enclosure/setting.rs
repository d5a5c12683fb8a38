//! What a cabinet is compiled for, and how its drivers are put in.

use super::feed;
use crate::driver::{Driver, DriverArray, Isobaric};
use crate::element::{Chamber, Loads, MovingCoil};
use crate::medium::{Air, Space};
use crate::network::{Cone, Network, Node};
use crate::source::Source;

/// Which physics to include. The default is everything; the rest is there so that the same cabinet
/// can be laid beside textbook circuits.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Fidelity {
    /// Radiation resistance on what faces the open air.
    pub radiation: bool,
    /// Ports as lossy ducts; else as plain masses with the same end corrections.
    pub ducts: bool,
}

impl Fidelity {
    /// Everything.
    pub const FULL: Self = Self { radiation: true, ducts: true };
    /// The circuit of Thiele and Small.
    pub const TEXTBOOK: Self = Self { radiation: false, ducts: false };
}

/// Everything around a cabinet that its compilation depends on.
#[derive(Debug, Clone, PartialEq)]
pub struct Setting {
    /// The drivers.
    pub driver_array: DriverArray,
    /// The air.
    pub air: Air,
    /// The space it radiates into.
    pub space: Space,
    /// How many equal cabinets stand close together.
    pub cabinets: u32,
    /// What comes before the drivers.
    pub source: Source,
    /// Which physics to include.
    pub fidelity: Fidelity,
}

impl Setting {
    /// One driver or several in half space, with everything included.
    pub fn new(driver_array: impl Into<DriverArray>, air: Air) -> Self {
        let driver_array = driver_array.into();
        let source = Source::default();
        Self { driver_array, air, space: Space::Half, cabinets: 1, source, fidelity: Fidelity::FULL }
    }

    /// The same with other physics.
    #[must_use]
    pub fn with(self, fidelity: Fidelity) -> Self {
        Self { fidelity, ..self }
    }

    /// All drivers together as one behind cable and amplifier.
    pub fn driver(&self) -> Driver {
        let driver = self.driver_array.as_driven();
        Driver { re: driver.re + self.source.output_resistance, ..driver }
    }

    /// An empty network for this setting.
    pub(super) fn network(&self) -> Network {
        let Self { driver_array, air, space, cabinets, ref source, .. } = *self;
        let driver = self.driver();
        Network {
            space,
            cabinets,
            passes: source.passes(driver_array.series_resistance + source.output_resistance, driver.re),
            chain: source.chain.clone(),
            ..Network::new(air, driver, driver_array.equivalent().re)
        }
    }

    /// Puts the drivers between the air before and behind them.
    pub(super) fn mount(&self, network: &mut Network, [front, rear]: [Node; 2]) {
        let loads = if self.fidelity.radiation { Loads::Front } else { Loads::None };
        self.mount_loaded(network, [front, rear], loads);
    }

    /// As [`Self::mount`], with the load of the open air given.
    pub(super) fn mount_loaded(&self, network: &mut Network, [front, rear]: [Node; 2], loads: Loads) {
        let plus = feed::install(&self.source, network, self.driver_array.series_resistance);
        let one = self.driver_array.layer();
        let cone = |network: &mut Network, faces, poles, driver: Driver| {
            let element = network.add(MovingCoil::new(faces, poles, driver, loads));
            network.cones.push(Cone { element, area: driver.sd });
        };
        match self.driver_array.isobaric {
            Some(Isobaric { in_series, trapped: Some(volume) }) => {
                let between = network.node();
                let joint = if in_series { network.node() } else { Node::Ground };
                let inner_plus = if in_series { joint } else { plus };
                cone(network, [front, between], [plus, joint], one);
                cone(network, [between, rear], [inner_plus, Node::Ground], one);
                let compliance = self.air.compliance(volume * f64::from(self.driver_array.wiring.count()));
                network.add(Chamber::new(between, compliance, None, 1.0));
            }
            _ => cone(network, [front, rear], [plus, Node::Ground], self.driver_array.equivalent()),
        }
    }
}
