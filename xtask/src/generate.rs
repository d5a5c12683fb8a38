//! Files that are made from the Rust types, and the check that they are current.

use std::fs;

use anyhow::{Context, Result, ensure};

use crate::command;

const SERVER: &str = "oak-drum-server";
const CLI: &str = "oak-drum";

/// A generated file, the program that prints it, and its arguments.
const PRINTED: &[(&str, &str, &[&str])] = &[
    ("docs/openapi.json", SERVER, &["openapi"]),
    ("docs/schema/design.schema.json", CLI, &["schema", "design"]),
    ("docs/schema/driver.schema.json", CLI, &["schema", "driver"]),
    ("docs/schema/build.schema.json", CLI, &["schema", "build"]),
    ("web/src/model/quantities.json", CLI, &["quantities"]),
    ("web/src/model/meanings.json", CLI, &["meanings"]),
];
const TYPES: &str = "web/src/schema/schema.d.ts";

/// Builds the programs and writes all of them.
pub fn run() -> Result<()> {
    command::build()?;
    for (file, text) in all()? {
        fs::write(command::root().join(&file), text).with_context(|| file.clone())?;
    }
    Ok(())
}

/// Compares all of them with what is there; the programs must be built.
pub fn check() -> Result<()> {
    for (file, text) in all()? {
        let found = fs::read_to_string(command::root().join(&file)).with_context(|| file.clone())?;
        ensure!(found == text, "{file} is not current; run: cargo xtask generate");
    }
    Ok(())
}

fn all() -> Result<Vec<(String, String)>> {
    let programs = command::programs();
    let mut files = Vec::new();
    for (file, program, arguments) in PRINTED {
        let program = programs.join(program);
        files.push(((*file).to_owned(), command::output(&program.to_string_lossy(), "", arguments)?));
    }
    files.push((TYPES.to_owned(), types(&files[0].1)?));
    Ok(files)
}

fn types(openapi: &str) -> Result<String> {
    let source = std::env::temp_dir().join(format!("oak-drum-openapi-{}.json", std::process::id()));
    fs::write(&source, openapi)?;
    let source_name = source.to_string_lossy().into_owned();
    let printed = command::output("npx", "web", &["--no-install", "openapi-typescript", &source_name]);
    fs::remove_file(source)?;
    printed
}
