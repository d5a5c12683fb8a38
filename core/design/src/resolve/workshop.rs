//! How a build is made, from its raw form.

use super::reading::Reading;
use crate::field::{self, Field};
use crate::file::{
    MOST_LAID, MOST_LAYOUTS, MOST_SHEETS, MOST_STOCK, RawAssembly, RawFeet, RawFinish, RawFixing, RawGlue,
    RawLayout, RawLeads, RawMaterial, RawPaper, RawSheet, RawStock, RawTerminal, RawWorkshop, Typed,
};
use crate::problem::{Problem, ProblemKind};
use oak_cabinetry::panel::Material;
use oak_cabinetry::sheet::{Recipe, Saw, Sheet};

/// How a build is made, SI.
#[derive(Debug, Clone, PartialEq)]
pub struct Workshop {
    /// Sheets that are offered by name; empty where the usual ones are.
    pub sheets: Vec<OfferedSheet>,
    /// How they are cut.
    pub saw: Saw,
    /// How much larger boards are cut at first on every side, m.
    pub oversize: f64,
    /// Whether grain may run any way.
    pub any_grain: bool,
    /// What a kit of ready-cut boards for one cabinet costs.
    pub kit: Option<f64>,
    /// Glue.
    pub glue: RawGlue,
    /// What holds boards while it sets.
    pub assembly: RawAssembly,
    /// What holds drivers.
    pub fixing: RawFixing,
    /// Surface.
    pub finish: RawFinish,
    /// Coats of it.
    pub coats: Option<u32>,
    /// Radius of outside edges, m.
    pub round_over: f64,
    /// What it stands on.
    pub feet: RawFeet,
    /// How many handles.
    pub handles: u32,
    /// Whether it has corner protectors.
    pub corners: bool,
    /// Whether it has a grille.
    pub grille: bool,
    /// Where the lead comes in.
    pub terminal: RawTerminal,
    /// How leads are fixed.
    pub leads: RawLeads,
    /// Length of lead to work outside the hole, m.
    pub slack: f64,
    /// What a hand needs, m.
    pub hand: f64,
    /// Cutter and guide bush of the router, m.
    pub router: [f64; 2],
    /// Whether a box for trial is built first.
    pub mock_up: bool,
    /// Whether cabinets of a pair are mirror images.
    pub mirrored: bool,
    /// When work begins, as year, month, day.
    pub start: Option<[i32; 3]>,
    /// Hours free on each day of the week, Monday first.
    pub hours: [f64; 7],
    /// degC.
    pub temperature: f64,
    /// Paper to print on.
    pub paper: RawPaper,
    /// Layouts that a long search found: for which boards, and how.
    pub layouts: Vec<(String, Recipe)>,
    /// Prices and stock.
    pub items: Vec<Stocked>,
}

/// A sheet that somebody named.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct OfferedSheet {
    /// What it is of.
    pub material: &'static Material,
    /// As the design has it, m.
    pub thickness: f64,
    /// Its size and number; its price is 0 where none was given.
    pub sheet: Sheet,
    /// Whether its price was given.
    pub priced: bool,
}

/// Price and stock of an item.
#[derive(Debug, Clone, PartialEq)]
pub struct Stocked {
    /// Which.
    pub item: String,
    /// What one costs.
    pub price: Option<f64>,
    /// How much is in stock.
    pub stock: f64,
    /// Whether the rest has been bought.
    pub bought: bool,
}

/// What is usual where nothing is said (common practice): kerf of a circular or panel saw, what is taken off a sheet's edges, lead to work
/// outside the hole, what a hand with its sleeve passes, cutter and bush of a router, m.
const KERF: f64 = 0.0032;
const TRIM: f64 = 0.005;
const SLACK: f64 = 0.3;
const HAND: f64 = 0.1;
const CUTTER: f64 = 0.012;
const BUSH: f64 = 0.017;
/// Hours in the evening and on a free day.
const HOURS: [f64; 7] = [2.0, 2.0, 2.0, 2.0, 2.0, 6.0, 6.0];
const TEMPERATURE: f64 = 20.0;
/// Longest name of an item.
const LONGEST_ITEM: usize = 80;

impl Default for Workshop {
    fn default() -> Self {
        resolve_workshop(&RawWorkshop::default()).expect("what is usual can be read")
    }
}

/// Resolves how a build is made.
///
/// # Errors
/// Every problem, with its place.
pub fn resolve_workshop(raw: &RawWorkshop) -> Result<Workshop, Vec<Problem>> {
    let mut reading = Reading::default();
    let longest = raw.layouts.iter().map(|layout| layout.order.len()).max().unwrap_or(0);
    for (name, found, max) in [
        ("sheets", raw.sheets.len(), MOST_SHEETS),
        ("items", raw.items.len(), MOST_STOCK),
        ("layouts", raw.layouts.len(), MOST_LAYOUTS),
        ("layouts.order", longest, MOST_LAID),
    ] {
        if found > max {
            reading.note(name, ProblemKind::TooMany { found, max });
        }
    }
    let sheets = raw.sheets.iter().take(MOST_SHEETS).enumerate();
    let sheets = sheets.filter_map(|(index, raw)| sheet(index, raw, &mut reading)).collect();
    let items = raw.items.iter().take(MOST_STOCK).enumerate();
    let items = items.filter_map(|(index, raw)| stocked(index, raw, &mut reading)).collect();
    let mut usual = |name: &str, field: &'static Field, typed: &Option<Typed>, usual: f64| {
        reading.optional(name, field, typed).unwrap_or(usual)
    };
    let saw = Saw {
        kerf: usual("kerf", &field::WORKSHOP_KERF, &raw.kerf, KERF),
        trim: usual("trim", &field::WORKSHOP_TRIM, &raw.trim, TRIM),
        transport: None,
    };
    let workshop = Workshop {
        sheets,
        saw,
        oversize: usual("oversize", &field::WORKSHOP_OVERSIZE, &raw.oversize, 0.0),
        any_grain: raw.any_grain,
        kit: None,
        glue: raw.glue,
        assembly: raw.assembly,
        fixing: raw.fixing,
        finish: raw.finish,
        coats: None,
        round_over: usual("round_over", &field::WORKSHOP_ROUND_OVER, &raw.round_over, 0.0),
        feet: raw.feet,
        handles: 0,
        corners: raw.corners,
        grille: raw.grille,
        terminal: raw.terminal,
        leads: raw.leads,
        slack: usual("slack", &field::WORKSHOP_SLACK, &raw.slack, SLACK),
        hand: usual("hand", &field::WORKSHOP_HAND, &raw.hand, HAND),
        router: [
            usual("cutter", &field::WORKSHOP_CUTTER, &raw.cutter, CUTTER),
            usual("bush", &field::WORKSHOP_BUSH, &raw.bush, BUSH),
        ],
        mock_up: raw.mock_up,
        mirrored: raw.mirrored,
        start: None,
        hours: HOURS,
        temperature: usual("temperature", &field::WORKSHOP_TEMPERATURE, &raw.temperature, TEMPERATURE),
        paper: raw.paper,
        layouts: raw.layouts.iter().map(recipe).collect(),
        items,
    };
    let coats = raw.coats.as_ref().and_then(|_| reading.count("coats", &field::WORKSHOP_COATS, &raw.coats));
    let handles =
        raw.handles.as_ref().and_then(|_| reading.count("handles", &field::WORKSHOP_HANDLES, &raw.handles));
    let kit = reading.optional("kit", &field::WORKSHOP_KIT, &raw.kit);
    let width = reading.optional("hatch_width", &field::WORKSHOP_HATCH, &raw.hatch_width);
    let length = reading.optional("hatch_length", &field::WORKSHOP_HATCH_LENGTH, &raw.hatch_length);
    let workshop = Workshop {
        coats,
        kit,
        handles: handles.unwrap_or(0),
        saw: Saw {
            transport: width.or(length).map(|one| [width.unwrap_or(one), length.unwrap_or(f64::MAX)]),
            ..saw
        },
        start: start(raw.start.as_deref(), &mut reading),
        hours: hours(&raw.hours, &mut reading),
        ..workshop
    };
    if reading.problems.is_empty() { Ok(workshop) } else { Err(reading.problems) }
}

fn sheet(index: usize, raw: &RawSheet, reading: &mut Reading) -> Option<OfferedSheet> {
    let at = |name: &str| format!("sheets[{index}].{name}");
    let thickness = reading.required(&at("thickness"), &field::SHEET_THICKNESS, &raw.thickness);
    let width = reading.required(&at("width"), &field::SHEET_WIDTH, &raw.width);
    let height = reading.required(&at("height"), &field::SHEET_HEIGHT, &raw.height);
    let price = reading.optional(&at("price"), &field::SHEET_PRICE, &raw.price);
    let at_hand = match raw.at_hand {
        None => None,
        Some(_) => reading.count(&at("at_hand"), &field::SHEET_AT_HAND, &raw.at_hand),
    };
    Some(OfferedSheet {
        material: Material::named(raw.material.unwrap_or(RawMaterial::Mdf).id())?,
        thickness: thickness?,
        sheet: Sheet { size: [width?, height?], at_hand, price: price.unwrap_or(0.0) },
        // What is at hand costs nothing.
        priced: price.is_some() || at_hand.is_some(),
    })
}

fn stocked(index: usize, raw: &RawStock, reading: &mut Reading) -> Option<Stocked> {
    let at = |name: &str| format!("items[{index}].{name}");
    reading.text(&at("item"), &raw.item, 1, LONGEST_ITEM);
    let price = reading.optional(&at("price"), &field::ITEM_PRICE, &raw.price);
    let stock = reading.optional(&at("stock"), &field::ITEM_STOCK, &raw.stock);
    Some(Stocked { item: raw.item.clone(), price, stock: stock.unwrap_or(0.0), bought: raw.bought })
}

fn recipe(raw: &RawLayout) -> (String, Recipe) {
    let order = raw.order.iter().map(|at| *at as usize).collect();
    (raw.boards.clone(), Recipe { order, rule: raw.rule as usize })
}

fn start(raw: Option<&str>, reading: &mut Reading) -> Option<[i32; 3]> {
    let raw = raw?;
    let parts: Vec<i32> = raw.split('-').filter_map(|part| part.parse().ok()).collect();
    match parts.as_slice() {
        [year, month, day] if is_date([*year, *month, *day]) => Some([*year, *month, *day]),
        _ => {
            reading.note("start", ProblemKind::NotDate { given: raw.to_owned() });
            None
        }
    }
}

/// Whether there is such a day.
fn is_date([year, month, day]: [i32; 3]) -> bool {
    let leap = year % 4 == 0 && (year % 100 != 0 || year % 400 == 0);
    let days = match month {
        4 | 6 | 9 | 11 => 30,
        2 => 28 + i32::from(leap),
        1..=12 => 31,
        _ => return false,
    };
    (2000..2200).contains(&year) && (1..=days).contains(&day)
}

fn hours(raw: &[f64], reading: &mut Reading) -> [f64; 7] {
    if raw.is_empty() {
        return HOURS;
    }
    let mut found = [0.0; 7];
    for (index, (slot, hours)) in found.iter_mut().zip(raw).enumerate() {
        let typed = Some(Typed::Number(*hours));
        *slot = reading.optional(&format!("hours[{index}]"), &field::WORKSHOP_HOURS, &typed).unwrap_or(0.0);
    }
    if raw.len() != 7 {
        reading.note("hours", ProblemKind::Length { found: raw.len(), min: 7, max: 7 });
    } else if found.iter().sum::<f64>() <= 0.0 {
        reading.note("hours", ProblemKind::NoHours);
    }
    found
}
