//! `cargo xtask reference`: the committed reference results, computed anew.

use anyhow::Result;

use crate::command;
use crate::machine::{self, NGSPICE};

/// Runs every script under `reference/`.
pub fn run() -> Result<()> {
    machine::install(&[NGSPICE])?;
    command::run("python3", "reference/ngspice", &["run.py"])
}
