//! From text to a raw form.

use serde::de::DeserializeOwned;
use serde_json::Value;

use super::restore::{restore, restored};
use super::{BUILD_FORMAT, DESIGN_FORMAT, DRIVER_FORMAT, RawBuild, RawDesign, RawDriver, VERSION};
use crate::problem::{Problem, ProblemKind};

/// Reads JSON text of any version this program knows into a raw form.
///
/// # Errors
/// One problem, at the place in the document where reading stopped, or of a text with control characters.
pub fn read_json<T: DeserializeOwned>(text: &[u8]) -> Result<T, Problem> {
    let text = &*restored(text);
    let mut reader = serde_json::Deserializer::from_slice(text);
    let value = serde_path_to_error::deserialize(&mut reader).map_err(|error| malformed(&error))?;
    reader.end().map_err(|error| Problem::new("", ProblemKind::Malformed { reason: error.to_string() }))?;
    if may_hold_controls(text) {
        let texts: Value = serde_json::from_slice(text)
            .map_err(|error| Problem::new("", ProblemKind::Malformed { reason: error.to_string() }))?;
        plain_texts("", &texts)?;
    }
    Ok(value)
}

/// Reads a JSON value of any version this program knows into a raw form. Its texts were looked through where it came in.
///
/// # Errors
/// The place where reading stopped.
pub fn read_value<T: DeserializeOwned>(mut value: Value) -> Result<T, Problem> {
    restore(&mut value);
    read_lifted(value)
}

fn read_lifted<T: DeserializeOwned>(value: Value) -> Result<T, Problem> {
    serde_path_to_error::deserialize(value).map_err(|error| malformed(&error))
}

/// Reads a JSON value that says a format and a version.
///
/// # Errors
/// See [`open_design`].
pub fn open_value<T: DeserializeOwned>(mut value: Value, wanted: &'static str) -> Result<T, Problem> {
    restore(&mut value);
    check_format(&value, wanted)?;
    read_lifted(value)
}

fn malformed(error: &serde_path_to_error::Error<serde_json::Error>) -> Problem {
    let path = error.path().to_string();
    let kind = ProblemKind::Malformed { reason: error.inner().to_string() };
    Problem::new(if path == "." { String::new() } else { path }, kind)
}

/// Refuses control characters other than line ends and tabs: no name, note or file needs them, and databases, terminals and
/// tables come to grief over them.
///
/// # Errors
/// The character, at the field.
pub fn plain_text(field: &str, text: &str) -> Result<(), Problem> {
    match text.chars().find(|c| c.is_control() && !matches!(c, '\n' | '\r' | '\t')) {
        Some(found) => Err(Problem::new(field, ProblemKind::ControlCharacter { code: u32::from(found) })),
        None => Ok(()),
    }
}

fn plain_texts(field: &str, value: &Value) -> Result<(), Problem> {
    match value {
        Value::String(text) => plain_text(field, text),
        Value::Array(items) => items
            .iter()
            .enumerate()
            .try_for_each(|(index, item)| plain_texts(&format!("{field}[{index}]"), item)),
        Value::Object(fields) => fields.iter().try_for_each(|(name, value)| {
            let place = if field.is_empty() { name.clone() } else { format!("{field}.{name}") };
            plain_text(&place, name)?;
            plain_texts(&place, value)
        }),
        _ => Ok(()),
    }
}

/// Whether a JSON text may hold control characters: escaped, or, from U+007F to U+009F, as they are.
fn may_hold_controls(text: &[u8]) -> bool {
    text.windows(2).any(|pair| matches!(pair, b"\\u" | b"\\b" | b"\\f" | [_, 0x7f] | [0xc2, 0x80..=0x9f]))
}

/// Opens a design file of any version this program knows.
///
/// # Errors
/// Another format, a newer version, or the place where the text is not such a file.
pub fn open_design(text: &[u8]) -> Result<RawDesign, Problem> {
    open(text, DESIGN_FORMAT)
}

/// Opens a driver file; see [`open_design`].
///
/// # Errors
/// See [`open_design`].
pub fn open_driver(text: &[u8]) -> Result<RawDriver, Problem> {
    open(text, DRIVER_FORMAT)
}

/// Opens a build file; see [`open_design`].
///
/// # Errors
/// See [`open_design`].
pub fn open_build(text: &[u8]) -> Result<RawBuild, Problem> {
    open(text, BUILD_FORMAT)
}

/// The one door for documents from outside.
fn open<T: DeserializeOwned>(text: &[u8], wanted: &'static str) -> Result<T, Problem> {
    let text = text.strip_prefix(b"\xef\xbb\xbf").unwrap_or(text);
    check_format(&read_json(text)?, wanted)?;
    read_json(text)
}

fn check_format(document: &Value, wanted: &'static str) -> Result<(), Problem> {
    let found = document.get("format").and_then(Value::as_str).unwrap_or("").to_owned();
    if found != wanted {
        return Err(Problem::new("format", ProblemKind::OtherFormat { found, wanted }));
    }
    let version = document.get("version").and_then(Value::as_u64).unwrap_or(0);
    if version != u64::from(VERSION) {
        return Err(Problem::new("version", ProblemKind::OtherVersion { found: version, known: VERSION }));
    }
    Ok(())
}
