//! `cargo xtask test`.

use anyhow::Result;

use crate::machine::{CHROMIUM, LIBPQ, POSTGRESQL};
use crate::stages::{Clock, Stage};
use crate::{command, end_to_end, front_end, generate, layers, machine, stages, test_programs};

const MACHINE: &[Stage] = &[("packages of the machine", packages)];

const COMPILE: &[Stage] = &[
    ("format", || command::run("cargo", "", &["fmt", "--all", "--check"])),
    ("layers", layers::run),
    ("lints", || {
        let arguments = ["clippy", "--quiet", "--workspace", "--all-targets", "--", "--deny", "warnings"];
        command::run("cargo", "", &arguments)
    }),
    ("programs and tests", || command::run("cargo", "", &["test", "--quiet", "--workspace", "--no-run"])),
];

const FRONT_END: &[Stage] = &[
    ("front end: packages", front_end::install),
    ("front end: build", front_end::build),
    ("front end: types, lints, unit tests", || {
        ["check", "lint", "test"].into_iter().try_for_each(front_end::quietly)
    }),
];

const CHECKS: &[Stage] =
    &[("Cargo tests", test_programs::run), ("generated files are current", generate::check)];

const BROWSER: &[Stage] = &[("browser tests", || end_to_end::run(&[]))];

/// Runs every check. What is compiled fills the processors; then the browser tests, which wait most of the time, have
/// the others beside them.
pub fn run() -> Result<()> {
    let clock = Clock::start();
    stages::run(MACHINE)?;
    stages::beside(COMPILE, FRONT_END)?;
    stages::beside(CHECKS, BROWSER)?;
    println!("All passed in {}", clock.read());
    Ok(())
}

fn packages() -> Result<()> {
    machine::check_node()?;
    machine::install(&[POSTGRESQL, LIBPQ, CHROMIUM])
}
