//! Starting other programs.

use std::io::IsTerminal;
use std::path::{Path, PathBuf};
use std::process::Command;

use anyhow::{Context, Result, ensure};

/// The project's folder.
pub fn root() -> PathBuf {
    let here = Path::new(env!("CARGO_MANIFEST_DIR"));
    here.parent().unwrap_or(here).to_owned()
}

/// A program to run in a folder of the project.
pub fn program(name: &str, folder: &str, arguments: &[&str]) -> Command {
    let mut command = Command::new(name);
    command.args(arguments).current_dir(root().join(folder));
    command
}

/// Runs a program in a folder of the project and lets it speak for itself.
pub fn run(name: &str, folder: &str, arguments: &[&str]) -> Result<()> {
    finish(program(name, folder, arguments))
}

/// Runs a program in a folder of the project and says all that it said when it has ended.
pub fn run_quietly(name: &str, folder: &str, arguments: &[&str]) -> Result<()> {
    let mut command = program(name, folder, arguments);
    let output = command.output().with_context(|| format!("{} cannot be started", said(&command)))?;
    print!("{}{}", String::from_utf8_lossy(&output.stdout), String::from_utf8_lossy(&output.stderr));
    ensure!(output.status.success(), "{} failed", said(&command));
    Ok(())
}

/// Waits for a program and turns its failure into an error that names it.
pub fn finish(mut command: Command) -> Result<()> {
    let status = command.status().with_context(|| format!("{} cannot be started", said(&command)))?;
    ensure!(status.success(), "{} failed", said(&command));
    Ok(())
}

/// Runs a program and returns what it printed.
pub fn output(name: &str, folder: &str, arguments: &[&str]) -> Result<String> {
    let mut command = program(name, folder, arguments);
    let output = command.output().with_context(|| format!("{} cannot be started", said(&command)))?;
    ensure!(
        output.status.success(),
        "{} failed: {}",
        said(&command),
        String::from_utf8_lossy(&output.stderr)
    );
    Ok(String::from_utf8(output.stdout)?)
}

fn said(command: &Command) -> String {
    let words = std::iter::once(command.get_program()).chain(command.get_args());
    words.map(|word| word.to_string_lossy().into_owned()).collect::<Vec<_>>().join(" ")
}

/// Builds the programs. On a terminal Cargo shows how far it is.
pub fn build() -> Result<()> {
    let quiet: &[&str] = if std::io::stderr().is_terminal() { &[] } else { &["--quiet"] };
    run("cargo", "", &[&["build", "--workspace", "--bins"], quiet].concat())
}

/// Where the programs are once they are built, by [`build`] or by Cargo's tests.
pub fn programs() -> PathBuf {
    target().join("debug")
}

fn target() -> PathBuf {
    std::env::var_os("CARGO_TARGET_DIR").map_or_else(|| root().join("target"), PathBuf::from)
}
