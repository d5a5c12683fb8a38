//! How a build is made: its sheets and saw, joints' glue, fixings, finish, hours, prices.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::{RawMaterial, Typed};

/// How a build is made. Whatever is absent is as usual.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawWorkshop {
    /// Sheets to cut from; those that are usually sold where empty.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 24)]
    pub sheets: Vec<RawSheet>,
    /// Width of the saw's cut; 3.2 mm where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub kerf: Option<Typed>,
    /// What is taken off the edges of a sheet first; 5 mm where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub trim: Option<Typed>,
    /// How much larger boards are cut at first, on every side, to be trimmed; nothing where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub oversize: Option<Typed>,
    /// Whether grain may run any way on what is cut.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub any_grain: bool,
    /// Narrowest side of what goes into the car: sheets are cut to that at the shop; whole where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hatch_width: Option<Typed>,
    /// Longest side of what goes into the car.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hatch_length: Option<Typed>,
    /// What a kit of ready-cut boards for one cabinet costs; not compared where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub kit: Option<Typed>,
    /// Glue.
    #[serde(default)]
    pub glue: RawGlue,
    /// What holds the boards while it sets.
    #[serde(default)]
    pub assembly: RawAssembly,
    /// What holds the drivers.
    #[serde(default)]
    pub fixing: RawFixing,
    /// Surface.
    #[serde(default)]
    pub finish: RawFinish,
    /// Coats of it; as usual for the finish where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub coats: Option<Typed>,
    /// Radius that outside edges are rounded with; none where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub round_over: Option<Typed>,
    /// What it stands on.
    #[serde(default)]
    pub feet: RawFeet,
    /// How many handles.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub handles: Option<Typed>,
    /// Whether it has corner protectors.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub corners: bool,
    /// Whether it has a grille.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub grille: bool,
    /// Where the lead comes in.
    #[serde(default)]
    pub terminal: RawTerminal,
    /// How leads are fixed to the driver.
    #[serde(default)]
    pub leads: RawLeads,
    /// Length of lead beyond what is needed, to work outside the hole; 300 mm where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub slack: Option<Typed>,
    /// Opening that a hand with its sleeve needs; 100 mm where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hand: Option<Typed>,
    /// Cutter of the router; 12 mm where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cutter: Option<Typed>,
    /// Outside diameter of the guide bush on the router; 17 mm where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub bush: Option<Typed>,
    /// Whether a cheap box for trial is built first.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub mock_up: bool,
    /// Whether cabinets of a pair are mirror images.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub mirrored: bool,
    /// When work begins, as year-month-day; today where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(max_length = 10)]
    pub start: Option<String>,
    /// Hours free on each day of the week, Monday first; two in the evening and six on Saturday and Sunday where empty.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 7)]
    pub hours: Vec<f64>,
    /// Temperature of the workshop; 20 degC where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub temperature: Option<Typed>,
    /// Paper of templates and of the book.
    #[serde(default)]
    pub paper: RawPaper,
    /// Layouts on sheets that were found by a long search, while they are for the boards of the design.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 16)]
    pub layouts: Vec<RawLayout>,
    /// Prices and what is in stock, by the name of the item in the parts list.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 300)]
    pub items: Vec<RawStock>,
}

/// Most sheets that are offered.
pub const MOST_SHEETS: usize = 24;
/// Most items with a price or in stock.
pub const MOST_STOCK: usize = 300;

/// A sheet to cut from.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawSheet {
    /// What it is of.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub material: Option<RawMaterial>,
    /// How thick it is, as the design has it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub thickness: Option<Typed>,
    /// m.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub width: Option<Typed>,
    /// Along its grain.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub height: Option<Typed>,
    /// What one costs; found from its volume where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub price: Option<Typed>,
    /// How many offcuts like it are at hand; sold in any number where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub at_hand: Option<Typed>,
}

/// A layout of boards on sheets: how it was found, to find it again.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawLayout {
    /// Which boards on which sheets it is for, as the program names them.
    #[schema(max_length = 64)]
    pub boards: String,
    /// In which order they were laid out.
    #[schema(max_items = 400)]
    pub order: Vec<u32>,
    /// By which rule.
    pub rule: u32,
}

/// Most layouts that are kept, and most boards of one.
pub const MOST_LAYOUTS: usize = 16;
/// Most boards of a layout that is kept.
pub const MOST_LAID: usize = 400;

/// Price and stock of an item.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawStock {
    /// Which, as the parts list names it.
    #[schema(max_length = 80)]
    pub item: String,
    /// What one costs.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub price: Option<Typed>,
    /// How much is in stock.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub stock: Option<Typed>,
    /// Whether what is missing has been bought.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub bought: bool,
}

/// Kinds of glue.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawGlue {
    /// White or yellow wood glue.
    #[default]
    Pva,
    /// Polyurethane, which foams.
    Polyurethane,
    /// Construction adhesive from a cartridge.
    Construction,
}

/// What holds boards while glue sets.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawAssembly {
    /// Clamps only.
    #[default]
    Clamps,
    /// Brads from a nailer, and some clamps.
    Nails,
    /// Screws through the board into the edge.
    Screws,
    /// Pocket screws from inside.
    PocketScrews,
}

/// What holds drivers.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawFixing {
    /// Wood screws.
    #[default]
    WoodScrews,
    /// Machine screws into T-nuts from behind.
    TNuts,
    /// Machine screws into threaded inserts.
    Inserts,
}

/// Finishes.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawFinish {
    /// Left as it is.
    Raw,
    /// Paint from a roller, eggshell.
    #[default]
    Rolled,
    /// Textured paint, sprayed.
    Texture,
    /// Sprayed to a high gloss.
    Gloss,
    /// Veneer glued with contact adhesive, under clear coat.
    Veneer,
    /// Gel stain under clear coat.
    Stain,
    /// Clear coat on the wood.
    Clear,
    /// Carpet.
    Carpet,
}

/// What a cabinet stands on.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawFeet {
    /// Rubber feet.
    #[default]
    Rubber,
    /// Spikes.
    Spikes,
    /// A plinth that it stands on.
    Plinth,
    /// None.
    None,
}

/// Where the lead comes in.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawTerminal {
    /// A terminal cup with binding posts.
    #[default]
    Cup,
    /// Binding posts through the board.
    Posts,
    /// A locking connector for the stage.
    Locking,
    /// None: its amplifier is in the box.
    None,
}

/// How leads are fixed to the driver.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawLeads {
    /// Crimped spades with sleeves.
    #[default]
    Spades,
    /// Ring terminals.
    Rings,
    /// Soldered.
    Soldered,
}

/// Paper to print on.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawPaper {
    /// 210 by 297 mm.
    #[default]
    A4,
    /// 8.5 by 11 inches.
    Letter,
}
