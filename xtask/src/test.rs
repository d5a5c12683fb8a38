//! `cargo xtask test`.

use anyhow::Result;

use crate::machine::{CHROMIUM, LIBPQ, POSTGRESQL};
use crate::stages::{Clock, Stage};
use crate::{command, end_to_end, front_end, generate, layers, machine, stages};

const MACHINE: &[Stage] = &[("packages of the machine", packages)];

const COMPILE: &[Stage] = &[
    ("format", || command::run("cargo", "", &["fmt", "--all", "--check"])),
    ("layers", layers::run),
    ("programs and tests", || command::run("cargo", "", &["test", "--quiet", "--workspace", "--no-run"])),
];

const FRONT_END: &[Stage] =
    &[("front end: packages", front_end::install), ("front end: build", front_end::build)];

const CHECKS: &[Stage] = &[
    ("Cargo tests", || command::run("cargo", "", &["test", "--quiet", "--workspace"])),
    ("generated files are current", generate::check),
];

const BROWSER: &[Stage] = &[("browser tests", || end_to_end::run(&[]))];

/// Cargo lets one at a time into the folder of what is built: the lints come when the tests, which are built, run already.
const LINTS: &[Stage] = &[
    ("front end: types, lints, unit tests", || {
        ["check", "lint", "test"].into_iter().try_for_each(front_end::quietly)
    }),
    ("lints", || {
        let arguments = ["clippy", "--quiet", "--workspace", "--all-targets", "--", "--deny", "warnings"];
        command::run("cargo", "", &arguments)
    }),
];

/// Runs every check. What is compiled fills the processors; then tests of jobs and of the browser, which wait most of the time, have the
/// lints beside them.
pub fn run() -> Result<()> {
    let clock = Clock::start();
    stages::run(MACHINE)?;
    stages::beside(&[COMPILE, FRONT_END])?;
    stages::beside(&[CHECKS, BROWSER, LINTS])?;
    println!("All passed in {}", clock.read());
    Ok(())
}

fn packages() -> Result<()> {
    machine::check_node()?;
    machine::install(&[POSTGRESQL, LIBPQ, CHROMIUM])
}
