//! `cargo xtask test`.

use anyhow::Result;

use crate::machine::{CHROMIUM, LIBPQ, POSTGRESQL};
use crate::stages::{Clock, Stage};
use crate::{command, end_to_end, front_end, generate, layers, machine, stages};

const MACHINE: &[Stage] = &[("packages of the machine", packages)];

const RUST: &[Stage] = &[
    ("format", || command::run("cargo", "", &["fmt", "--all", "--check"])),
    ("layers", layers::run),
    ("lints", || {
        let arguments = ["clippy", "--quiet", "--workspace", "--all-targets", "--", "--deny", "warnings"];
        command::run("cargo", "", &arguments)
    }),
    ("Cargo tests", || command::run("cargo", "", &["test", "--quiet", "--workspace"])),
];

const FRONT_END: &[Stage] = &[
    ("front end: packages", front_end::install),
    ("front end: types, lints, unit tests", || {
        ["check", "lint", "test"].into_iter().try_for_each(front_end::quietly)
    }),
    ("front end: build", front_end::build),
];

const WHOLE: &[Stage] =
    &[("generated files are current", generate::check), ("browser tests", || end_to_end::run(&[]))];

/// Runs every check. Compiling and the front end share the processors; the browser has them to itself.
pub fn run() -> Result<()> {
    let clock = Clock::start();
    stages::run(MACHINE)?;
    stages::beside(RUST, FRONT_END)?;
    stages::run(WHOLE)?;
    println!("All passed in {}", clock.read());
    Ok(())
}

fn packages() -> Result<()> {
    machine::check_node()?;
    machine::install(&[POSTGRESQL, LIBPQ, CHROMIUM])
}
