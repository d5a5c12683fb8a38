//! The committed reference results, computed anew, and how quick the tools they come from are.

use anyhow::Result;

use crate::command;
use crate::machine::{self, NGSPICE};

/// Python packages of the scripts under `reference/`, as they were when the results were made.
const PACKAGES: &[&str] =
    &["ezdxf==1.4.3", "numpy==2.4.6", "openwind==0.12.4", "scikit-fem==12.0.2", "scipy==1.17.1"];

/// `cargo xtask reference`: runs every script that makes results.
pub fn run() -> Result<()> {
    let python = python()?;
    command::run("python3", "reference/ngspice", &["run.py"])?;
    command::run(&python, "reference/openwind", &["run.py"])?;
    command::run(&python, "reference/scikit-fem", &["run.py"])?;
    command::run(&python, "reference/filters", &["run.py"])?;
    command::run(&python, "reference/sweep", &["run.py"])?;
    command::run(&python, "reference/opening-wall", &["run.py"])?;
    // These ask the program for what it would build.
    command::build()?;
    ["reference/as-built", "reference/dxf", "reference/voxels"]
        .into_iter()
        .try_for_each(|folder| command::run(&python, folder, &["run.py"]))
}

/// `cargo xtask speed`: the solver beside NumPy and ngspice on the same circuits.
pub fn speed() -> Result<()> {
    let python = python()?;
    command::run(&python, "reference/speed", &["compare.py"])
}

/// A Python of the scripts' own, under `target/`.
fn python() -> Result<String> {
    machine::install(&[NGSPICE])?;
    let home = command::root().join("target/reference-python");
    let python = home.join("bin/python").to_string_lossy().into_owned();
    if !home.join("bin/python").exists() {
        command::run("python3", "", &["-m", "venv", &home.to_string_lossy()])?;
    }
    let install = [&["-m", "pip", "install", "--quiet"], PACKAGES].concat();
    command::run(&python, "", &install)?;
    Ok(python)
}
