//! What several tests of files use.
#![allow(dead_code)]

use oak_design::file::{RawBuild, Typed, open_build};
use proptest::prelude::*;

pub const DEMO: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo");

pub fn demo_builds() -> Vec<RawBuild> {
    let mut paths: Vec<_> = std::fs::read_dir(format!("{DEMO}/builds"))
        .expect("demo")
        .map(|entry| entry.expect("entry").path())
        .collect();
    paths.sort();
    paths.iter().map(|path| open_build(&std::fs::read(path).expect("readable")).expect("a build")).collect()
}

/// A text or number as somebody might type it, good or not.
pub fn any_typed() -> impl Strategy<Value = Typed> {
    prop_oneof![
        (-1e6f64..1e6).prop_map(Typed::from),
        (-1000i32..1000).prop_map(|whole| Typed::from(f64::from(whole))),
        "\\PC{0,16}".prop_map(|text| Typed::from(text.as_str())),
    ]
}

/// Names and notes with everything that a table has to quote.
pub fn any_text() -> impl Strategy<Value = String> {
    "[a-zA-Z0-9 ,;\"'\n\u{e9}\u{4f4e}/-]{0,24}[a-z0-9]"
}
