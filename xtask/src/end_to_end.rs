//! The browser tests: real server, real database, Debian's Chromium.

use anyhow::Result;
use oak_cluster::Throwaway;

use crate::machine::{CHROMIUM, LIBPQ, POSTGRESQL};
use crate::{command, front_end, machine};

/// One database for each browser worker; `playwright.config.ts` starts as many workers.
const WORKERS: usize = 3;

/// Installs and builds what the tests need, then runs them.
pub fn prepare_and_run(arguments: &[String]) -> Result<()> {
    machine::check_node()?;
    machine::install(&[POSTGRESQL, LIBPQ, CHROMIUM])?;
    front_end::install()?;
    front_end::build()?;
    command::build()?;
    run(arguments)
}

/// Runs Playwright with the databases and the server program it needs, which must be built.
pub fn run(arguments: &[String]) -> Result<()> {
    let cluster = Throwaway::start()?;
    let databases: Vec<_> = (0..WORKERS).map(|_| cluster.database()).collect::<Result<_, _>>()?;
    let mut playwright = command::program("npx", "web", &["--no-install", "playwright", "test"]);
    if !arguments.iter().any(|argument| argument.starts_with("--project")) {
        playwright.arg("--project=chromium");
    }
    playwright
        .args(arguments)
        .env("OAK_DRUM_SERVER", command::programs().join("oak-drum-server"))
        .env("OAK_DRUM_RIG", command::programs().join("oak-rig"))
        .env("OAK_DRUM_DATABASES", databases.join(" "));
    command::finish(playwright)
}
