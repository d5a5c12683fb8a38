//! Lifts documents of older versions to the one that this program writes.

use std::borrow::Cow;

use serde_json::{Map, Value, json};

use super::{DESIGN_FORMAT, VERSION};

/// A JSON text with every document in it at [`VERSION`]; untouched where none is older, or where it is not JSON.
pub(super) fn restored(text: &[u8]) -> Cow<'_, [u8]> {
    if !may_be_old(text) {
        return Cow::Borrowed(text);
    }
    let Ok(mut document) = serde_json::from_slice(text) else { return Cow::Borrowed(text) };
    restore(&mut document);
    serde_json::to_vec(&document).map_or(Cow::Borrowed(text), Cow::Owned)
}

/// Lifts a document, and those inside it, to [`VERSION`].
pub fn restore(document: &mut Value) {
    match document {
        Value::Array(items) => items.iter_mut().for_each(restore),
        Value::Object(fields) => {
            fields.values_mut().for_each(restore);
            let format = fields.get("format").and_then(Value::as_str).unwrap_or("").to_owned();
            let old = fields.get("version").and_then(Value::as_u64) == Some(1);
            if old && format.starts_with("oak-drum/") {
                if format == DESIGN_FORMAT {
                    part_signal(fields);
                }
                fields.insert("version".to_owned(), json!(VERSION));
            }
        }
        _ => {}
    }
}

/// Version 1 had the amplifier, the programme and the quiet air of a design in `limits`. The amplifier went to its signal; programme
/// and air are the brief's, so that what stood here is kept as a note.
fn part_signal(design: &mut Map<String, Value>) {
    let mut signal = Map::new();
    if let Some(Value::Object(mut limits)) = design.remove("limits") {
        let asked: Vec<String> = [("programme", "programme"), ("air_speed", "limit of air speed")]
            .into_iter()
            .filter_map(|(key, words)| {
                let value = limits.shift_remove(key)?;
                let text = value.as_str().map_or_else(|| value.to_string(), str::to_owned);
                (!value.is_null()).then(|| format!("{words}: {text}"))
            })
            .collect();
        if !asked.is_empty() {
            let line = format!("Before the brief held them, {}.", asked.join("; "));
            let notes = match design.get("notes").and_then(Value::as_str) {
                Some(notes) if !notes.is_empty() => format!("{notes}\n{line}"),
                _ => line,
            };
            design.insert("notes".to_owned(), json!(notes));
        }
        if !limits.is_empty() {
            signal.insert("amplifier".to_owned(), Value::Object(limits));
        }
    }
    if let Some(drive) = design.shift_remove("drive").filter(|drive| !drive.is_null()) {
        signal.insert("drive".to_owned(), drive);
    }
    if !signal.is_empty() {
        design.insert("signal".to_owned(), Value::Object(signal));
    }
}

/// Whether a text may hold a document of version 1; cheap, as every request passes here.
fn may_be_old(text: &[u8]) -> bool {
    const KEY: &[u8] = b"\"version\"";
    text.windows(KEY.len()).enumerate().filter(|(_, window)| *window == KEY).any(|(at, _)| {
        let mut rest = text[at + KEY.len()..].iter().filter(|byte| !b" \t\r\n:".contains(byte));
        rest.next() == Some(&b'1') && !rest.next().is_some_and(u8::is_ascii_digit)
    })
}
