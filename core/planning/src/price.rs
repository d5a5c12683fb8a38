//! What the parts of a cabinet cost: the drivers by their sheets, the rest by one table.

use std::f64::consts::PI;

use oak_acoustics::medium::CrossSection;
use oak_cabinetry::panel;
use oak_design::built::Boxed;

use crate::Case;

/// Usual prices, in money that a euro or a dollar is one of (common practice, from memory; no shop's).
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Prices {
    /// Of a cubic metre of board, by its material.
    pub boards: &'static [(&'static str, f64)],
    /// Of what is bought beyond what goes into the cabinet, as a share.
    pub waste: f64,
    /// Of a radiator: of any, and of a square metre of its cone.
    pub radiator: [f64; 2],
    /// Of a tube: of a metre, and of the same times its diameter in metres.
    pub tube: [f64; 2],
    /// Of a flare at one end of a tube.
    pub flare: f64,
}

/// What is reckoned with where nobody says otherwise.
pub static USUAL: Prices = Prices {
    boards: &[
        ("mdf", 700.0),
        ("particle_board", 450.0),
        ("pine_ply", 1100.0),
        ("poplar_ply", 1400.0),
        ("birch_ply", 2200.0),
        ("hardwood", 3500.0),
        ("pvc", 2500.0),
        ("acrylic", 6000.0),
        ("aluminium", 20_000.0),
    ],
    waste: 0.15,
    radiator: [10.0, 1200.0],
    tube: [3.0, 60.0],
    flare: 6.0,
};

impl Prices {
    fn board(&self, material: &str) -> f64 {
        self.boards.iter().find(|(id, _)| *id == material).map_or(self.boards[0].1, |(_, price)| *price)
    }
}

/// What a design costs, part by part.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Priced {
    /// One driver by its sheet.
    pub driver: f64,
    /// All of them.
    pub drivers: f64,
    /// Radiators.
    pub radiators: f64,
    /// Tubes with their flares; a slot's boards count as boards.
    pub ports: f64,
    /// How many cabinets are made of all this.
    pub cabinets: u32,
    /// Boards with what is left of the sheets.
    pub boards: f64,
}

impl Priced {
    /// Prices a design; `None` where its driver has no price. Of a box that nobody has drawn the boards are those of the usual proportions.
    pub fn of(case: &Case<'_>, prices: &Prices) -> Option<Self> {
        let driver = case.design.driver.record.price?;
        let drivers = driver * f64::from(case.drivers());
        let cabinets = case.brief.cabinets;
        let priced = Self { driver, drivers, radiators: 0.0, ports: 0.0, boards: 0.0, cabinets };
        let body = &case.built().design.body;
        let board = prices.board(body.panel.material.id) * (1.0 + prices.waste);
        let Some(Boxed { contents, cabinet }) = &case.built().boxed else {
            let air = case.air();
            return Some(Self {
                boards: board * body.panel.thickness * SURFACE * air.powf(2.0 / 3.0),
                ..priced
            });
        };
        let mut found = Self {
            radiators: contents.radiators.map_or(0.0, |radiators| {
                let cone = PI / 4.0 * radiators.cone * radiators.cone;
                f64::from(radiators.count) * (prices.radiator[0] + prices.radiator[1] * cone)
            }),
            boards: panel::walls(body, contents, cabinet)
                .iter()
                .map(|wall| wall.wood * prices.board(wall.panel.material.id) * (1.0 + prices.waste))
                .sum::<f64>()
                + panel::braces_and_strips(body, cabinet) * board,
            ..priced
        };
        for (front, ports) in [false, true].into_iter().zip(&contents.ports) {
            for (index, port) in ports.iter().enumerate() {
                let CrossSection::Round { radius } = port.section else { continue };
                let flares = body.port_build(front, index).flares;
                let flares = flares.into_iter().filter(|flare| *flare > 0.0).count();
                let tube = prices.tube[0] + prices.tube[1] * 2.0 * radius;
                found.ports += f64::from(port.count) * (tube * port.length + prices.flare * flares as f64);
            }
        }
        Some(found)
    }

    /// All together, of every cabinet.
    pub fn total(&self) -> f64 {
        f64::from(self.cabinets) * (self.drivers + self.radiators + self.ports + self.boards)
    }
}

/// Surface of a box of usual proportions over its volume to two thirds, with what its boards add outside.
const SURFACE: f64 = 6.8;
