//! A build plan as files: tables, a calendar, drawings of sheets.

use std::fmt::Write as _;

use icalendar::{Calendar, Component, Event, EventLike};
use oak_design::exchange::{harmless, plain};
use oak_design::file::{RawStock, Typed};

use super::report::BuildPlan;

const NEVER: &str = "writing rows of equal length to memory";

/// A table as CSV; no cell of it is taken for a formula.
pub(crate) fn table<const N: usize>(head: [&str; N], rows: impl Iterator<Item = [String; N]>) -> String {
    let mut writer = csv::Writer::from_writer(Vec::new());
    writer.write_record(head).expect(NEVER);
    for row in rows {
        writer.write_record(row.map(|cell| harmless(&cell).into_owned())).expect(NEVER);
    }
    String::from_utf8(writer.into_inner().expect(NEVER)).expect("made of strings")
}

fn number(value: f64) -> String {
    oak_units::significant(value, 9)
}

/// The parts list as a table: a line a part.
pub fn parts_table(plan: &BuildPlan) -> String {
    let head = [
        "item", "name", "shop", "amount", "unit", "pack", "packs", "price", "cost", "in_stock", "bought",
        "note",
    ];
    table(
        head,
        plan.items.iter().map(|line| {
            let item = &line.item;
            [
                item.id.clone(),
                item.name.clone(),
                item.shop.name().to_owned(),
                number(item.amount),
                item.unit.to_owned(),
                number(item.pack),
                number(line.packs),
                item.price.map(number).unwrap_or_default(),
                line.cost.map(number).unwrap_or_default(),
                number(item.stock),
                if item.bought { "yes" } else { "no" }.to_owned(),
                item.note.clone(),
            ]
        }),
    )
}

/// The price list as a table that can be edited and read back.
pub fn price_table(plan: &BuildPlan) -> String {
    let rows = plan.items.iter().map(|line| {
        let item = &line.item;
        let bought = if item.bought { "yes" } else { "no" };
        [item.id.clone(), item.price.map(number).unwrap_or_default(), number(item.stock), bought.to_owned()]
    });
    table(["item", "price", "in_stock", "bought"], rows)
}

/// Reads a price list: a table with the columns item, price, in_stock and bought, in any order; others are passed over. Points and commas are
/// taken as decimal signs.
///
/// # Errors
/// What is wrong with which line, in words.
pub fn prices_of(text: &str) -> Result<Vec<RawStock>, String> {
    let first = text.lines().next().unwrap_or_default();
    let separator =
        [b';', b'\t', b','].into_iter().max_by_key(|sign| first.bytes().filter(|byte| byte == sign).count());
    let mut reader = csv::ReaderBuilder::new()
        .delimiter(separator.unwrap_or(b','))
        .flexible(true)
        .from_reader(text.trim_start_matches('\u{feff}').as_bytes());
    let head: Vec<String> = reader
        .headers()
        .map_err(|error| error.to_string())?
        .iter()
        .map(|cell| cell.trim().to_lowercase().replace(' ', "_"))
        .collect();
    let column = |name: &str| head.iter().position(|cell| cell == name);
    let Some(item) = column("item") else {
        return Err(
            "the first line names no column item; columns are item, price, in_stock, bought".to_owned()
        );
    };
    let mut found = Vec::new();
    for (line, row) in (2..).zip(reader.records()) {
        let row = row.map_err(|error| format!("line {line}: {error}"))?;
        let cell =
            |at: Option<usize>| at.and_then(|at| row.get(at)).map(str::trim).filter(|cell| !cell.is_empty());
        let Some(id) = cell(Some(item)) else { continue };
        let value = |name: &str| -> Result<Option<Typed>, String> {
            let Some(text) = cell(column(name)) else { return Ok(None) };
            let parsed: Result<f64, _> = text.replace(',', ".").parse();
            match parsed {
                Ok(value) if value.is_finite() && (0.0..=1e6).contains(&value) => {
                    Ok(Some(Typed::Number(value)))
                }
                _ => Err(format!("line {line}: {name} {text:?} is no number from 0 to 1000000")),
            }
        };
        if found.len() == oak_design::file::MOST_STOCK {
            return Err(format!("line {line}: at most {} items are allowed", oak_design::file::MOST_STOCK));
        }
        let bought = cell(column("bought"))
            .is_some_and(|cell| ["yes", "true", "1", "x"].contains(&cell.to_lowercase().as_str()));
        found.push(RawStock {
            item: plain(id).chars().take(80).collect(),
            price: value("price")?,
            stock: value("in_stock")?,
            bought,
        });
    }
    Ok(found)
}

/// The calendar as an iCalendar file (RFC 5545), in floating local time.
pub fn calendar_file(plan: &BuildPlan, name: &str) -> String {
    let mut calendar = Calendar::new();
    calendar.name(name);
    for (at, slot) in plan.calendar.iter().enumerate() {
        let mut event = Event::new();
        let mut told = plan
            .steps
            .iter()
            .find(|step| step.id == slot.step)
            .map_or_else(String::new, |step| step.how.clone());
        if let Some((of, until)) = &slot.waits {
            let _ = write!(told, " Then {} until {}.", of.to_lowercase(), until.format("%Y-%m-%d %H:%M"));
        }
        event
            .uid(&format!("{}-{at}@oak-drum", slot.step.replace(' ', "-")))
            .timestamp(chrono::DateTime::from_naive_utc_and_offset(slot.from, chrono::Utc))
            .summary(&slot.title)
            .description(told.trim())
            .starts(slot.from)
            .ends(slot.to);
        calendar.push(event.done());
    }
    calendar.done().to_string()
}
