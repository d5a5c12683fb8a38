//! What can be bought: names, packs and usual prices.
//!
//! Prices are from memory, in money that a euro or a dollar is one of, and no shop's; the workshop's own stand over them (common practice).

use oak_design::file::{RawFinish, RawGlue};
use serde::Serialize;
use utoipa::ToSchema;

/// Where one buys it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Shop {
    /// Drivers, radiators, amplifiers.
    Sound,
    /// Sheets, strips, veneer.
    Timber,
    /// Screws, glue, feet.
    Hardware,
    /// Pipes and what joins them.
    Pipes,
    /// Wire and connectors.
    Electrical,
    /// Fill, damping sheet, gasket.
    Damping,
    /// Filler, paper, paint.
    Paint,
}

impl Shop {
    /// All of them, in the order of a list.
    pub const ALL: [Self; 7] = [
        Self::Sound,
        Self::Timber,
        Self::Hardware,
        Self::Pipes,
        Self::Electrical,
        Self::Damping,
        Self::Paint,
    ];

    /// What to call it.
    pub fn name(self) -> &'static str {
        match self {
            Self::Sound => "Drivers and amplifier",
            Self::Timber => "Timber",
            Self::Hardware => "Hardware",
            Self::Pipes => "Pipes",
            Self::Electrical => "Wire and connectors",
            Self::Damping => "Fill and gaskets",
            Self::Paint => "Finish",
        }
    }
}

/// Something that is sold in packs.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Ware {
    /// Its name in the parts list, or its beginning where sizes follow.
    pub id: &'static str,
    /// What to call it.
    pub name: &'static str,
    /// What its amount is counted in.
    pub unit: &'static str,
    /// How much is in a pack.
    pub pack: f64,
    /// What a pack costs.
    pub price: f64,
    /// Where one buys it.
    pub shop: Shop,
}

const fn ware(
    id: &'static str,
    name: &'static str,
    unit: &'static str,
    pack: f64,
    price: f64,
    shop: Shop,
) -> Ware {
    Ware { id, name, unit, pack, price, shop }
}

use Shop::{Damping, Electrical, Hardware, Paint, Pipes, Timber};

/// Everything but drivers, sheets and tubes, whose prices follow from the design.
pub static WARES: &[Ware] = &[
    ware("glue.pva", "Wood glue, PVA", "ml", 250.0, 5.0, Hardware),
    ware("glue.polyurethane", "Polyurethane glue", "ml", 250.0, 9.0, Hardware),
    ware("glue.construction", "Construction adhesive", "ml", 290.0, 6.0, Hardware),
    ware("brads", "Brads, 18 gauge", "pieces", 1000.0, 9.0, Hardware),
    ware("screw.wood", "Wood screws", "pieces", 50.0, 5.0, Hardware),
    ware("screw.pocket", "Pocket screws", "pieces", 100.0, 9.0, Hardware),
    ware("screw.machine", "Machine screws with washers", "pieces", 8.0, 4.0, Hardware),
    ware("tnut", "T-nuts", "pieces", 8.0, 4.0, Hardware),
    ware("insert", "Threaded inserts", "pieces", 8.0, 5.0, Hardware),
    ware("dowel", "Dowels", "pieces", 50.0, 3.0, Hardware),
    ware("sealant", "Acrylic sealant", "ml", 300.0, 4.0, Hardware),
    ware("washer", "Washers for the radiators", "pieces", 10.0, 4.0, Hardware),
    ware("radiator.bolt", "Bolt and nut of a radiator", "pieces", 1.0, 1.0, Hardware),
    ware("feet.rubber", "Rubber feet", "pieces", 4.0, 6.0, Hardware),
    ware("feet.spikes", "Spikes with discs", "pieces", 4.0, 18.0, Hardware),
    ware("handle", "Handles with screws", "pieces", 1.0, 9.0, Hardware),
    ware("corner", "Corner protectors", "pieces", 4.0, 5.0, Hardware),
    ware("grille.cloth", "Grille cloth", "m2", 1.0, 12.0, Hardware),
    ware("grille.studs", "Grille studs and sockets", "pieces", 4.0, 3.0, Hardware),
    ware("timber.strip", "Square timber strip", "m", 1.0, 1.6, Timber),
    ware("timber.frame", "Strip for the grille frame", "m", 1.0, 1.6, Timber),
    ware("veneer", "Veneer", "m2", 1.0, 25.0, Timber),
    ware("flare", "Flares", "pieces", 1.0, 6.0, Pipes),
    ware("elbow", "Elbows", "pieces", 1.0, 5.0, Pipes),
    ware("terminal.cup", "Terminal cup", "pieces", 1.0, 6.0, Electrical),
    ware("terminal.posts", "Binding posts, pair", "pieces", 1.0, 7.0, Electrical),
    ware("terminal.locking", "Locking connector", "pieces", 1.0, 8.0, Electrical),
    ware("wire", "Speaker wire, two cores", "m", 1.0, 2.0, Electrical),
    ware("spade", "Spade terminals with sleeves", "pieces", 10.0, 3.0, Electrical),
    ware("ring", "Ring terminals", "pieces", 10.0, 3.0, Electrical),
    ware("solder", "Solder and heat-shrink", "pieces", 1.0, 5.0, Electrical),
    ware("fill.polyester", "Polyester wadding", "g", 500.0, 9.0, Damping),
    ware("fill.layers", "Fill for the layers", "g", 500.0, 9.0, Damping),
    ware("gasket", "Gasket tape, closed cells", "m", 10.0, 5.0, Damping),
    ware("filler", "Wood filler", "g", 250.0, 5.0, Paint),
    ware("paper", "Sandpaper", "sheets", 1.0, 0.9, Paint),
    ware("sealer", "Sealer for inside and edges", "ml", 375.0, 8.0, Paint),
    ware("primer", "Primer", "ml", 375.0, 9.0, Paint),
    ware("paint.eggshell", "Eggshell paint", "ml", 375.0, 14.0, Paint),
    ware("paint.texture", "Textured paint", "ml", 1000.0, 24.0, Paint),
    ware("paint.gloss", "High-gloss lacquer", "ml", 375.0, 19.0, Paint),
    ware("polish", "Polishing compound", "g", 250.0, 12.0, Paint),
    ware("glue.contact", "Contact adhesive", "ml", 650.0, 14.0, Paint),
    ware("stain", "Gel stain", "ml", 250.0, 14.0, Paint),
    ware("clear", "Clear coat", "ml", 375.0, 16.0, Paint),
    ware("carpet", "Cabinet carpet", "m2", 1.0, 11.0, Paint),
];

/// The ware of a name, or the one that a name with sizes begins with.
pub(super) fn ware_of(id: &str) -> Option<&'static Ware> {
    let named = |ware: &&Ware| {
        id == ware.id || id.strip_prefix(ware.id).is_some_and(|rest| rest.starts_with([' ', '.']))
    };
    WARES.iter().filter(named).max_by_key(|ware| ware.id.len())
}

/// Usual price of a cubic metre of board, by its material.
static BOARDS: &[(&str, f64)] = &[
    ("mdf", 700.0),
    ("particle_board", 450.0),
    ("pine_ply", 1100.0),
    ("poplar_ply", 1400.0),
    ("birch_ply", 2200.0),
    ("hardwood", 3500.0),
    ("pvc", 2500.0),
    ("acrylic", 6000.0),
    ("aluminium", 20_000.0),
];

/// Usual price of a cubic metre of a board.
pub(super) fn board_price(material: &str) -> f64 {
    BOARDS.iter().find(|(id, _)| *id == material).map_or(BOARDS[0].1, |(_, price)| *price)
}

/// What a radiator usually costs, for the area of its cone (m2).
pub(super) fn radiator_price(area: f64) -> f64 {
    10.0 + 1200.0 * area
}

/// What a metre of tube usually costs, for its diameter (m).
pub(super) fn tube_price(diameter: f64) -> f64 {
    3.0 + 60.0 * diameter
}

/// What an amplifier usually costs, for its power (W).
pub(super) fn amplifier_price(power: f64) -> f64 {
    40.0 + 0.4 * power
}

/// Facts of a glue (common practice, makers' sheets from memory).
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Glue {
    /// Its ware.
    pub id: &'static str,
    /// What to call it.
    pub name: &'static str,
    /// How much goes on a square metre, ml.
    pub spread: f64,
    /// Within how many minutes the boards must be together.
    pub open: f64,
    /// How long they stay clamped, h.
    pub clamp: f64,
    /// Until it bears, h.
    pub full: f64,
    /// Coldest that it sets at, degC.
    pub coldest: f64,
}

impl Glue {
    /// Of a kind.
    pub fn of(kind: RawGlue) -> Self {
        match kind {
            RawGlue::Pva => Self {
                id: "glue.pva",
                name: "wood glue",
                spread: 180.0,
                open: 8.0,
                clamp: 1.0,
                full: 24.0,
                coldest: 8.0,
            },
            RawGlue::Polyurethane => Self {
                id: "glue.polyurethane",
                name: "polyurethane glue",
                spread: 160.0,
                open: 20.0,
                clamp: 4.0,
                full: 24.0,
                coldest: 5.0,
            },
            RawGlue::Construction => Self {
                id: "glue.construction",
                name: "construction adhesive",
                spread: 350.0,
                open: 15.0,
                clamp: 12.0,
                full: 48.0,
                coldest: 5.0,
            },
        }
    }
}

/// What one reads of a finish.
pub fn finish_name(finish: RawFinish) -> &'static str {
    match finish {
        RawFinish::Raw => "left raw",
        RawFinish::Rolled => "eggshell, rolled",
        RawFinish::Texture => "textured paint, sprayed",
        RawFinish::Gloss => "high gloss",
        RawFinish::Veneer => "veneer under clear coat",
        RawFinish::Stain => "gel stain under clear coat",
        RawFinish::Clear => "clear coat",
        RawFinish::Carpet => "carpet",
    }
}
