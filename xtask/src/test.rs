//! `cargo xtask test`.

use anyhow::Result;

use crate::command::run as cargo_or_npm;
use crate::machine::{CHROMIUM, LIBPQ, POSTGRESQL};
use crate::stages::Stage;
use crate::{end_to_end, front_end, generate, layers, machine, stages};

const STAGES: &[Stage] = &[
    ("packages of the machine", packages),
    ("packages of the front end", front_end::install),
    ("format", || cargo_or_npm("cargo", "", &["fmt", "--all", "--check"])),
    ("layers", layers::run),
    ("lints", || {
        let arguments = ["clippy", "--quiet", "--workspace", "--all-targets", "--", "--deny", "warnings"];
        cargo_or_npm("cargo", "", &arguments)
    }),
    ("front end: types, lints, unit tests", || {
        ["check", "lint", "test"].iter().try_for_each(|script| front_end::npm(&["run", "--silent", script]))
    }),
    ("front end: build", front_end::build),
    ("Cargo tests", || cargo_or_npm("cargo", "", &["test", "--quiet", "--workspace"])),
    ("generated files are current", generate::check),
    ("browser tests", || end_to_end::run(&[])),
];

/// Runs every check.
pub fn run() -> Result<()> {
    stages::run(STAGES)
}

fn packages() -> Result<()> {
    machine::check_node()?;
    machine::install(&[POSTGRESQL, LIBPQ, CHROMIUM])
}
