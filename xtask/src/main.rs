//! Project commands: `cargo xtask demo`, `cargo xtask test` and what they are made of.

mod command;
mod demo;
mod end_to_end;
mod front_end;
mod generate;
mod imports;
mod layers;
mod machine;
mod reference;
mod schema_names;
mod stages;
mod test;
mod test_programs;
mod words;

use std::process::ExitCode;

use anyhow::{Result, bail};
use pico_args::Arguments;

const HELP: &str = "\
Usage: cargo xtask COMMAND

  demo [--port PORT]  Installs what is missing, builds everything and starts it with demo data, at 7373 or another port.
       [--companion ADDRESS:PORT]  Opens pages for phones at an address that this machine has in the local network.
  test                Runs every check: format, layers, lints, Cargo tests, front end, browser.
  e2e [-- ARGUMENT]   Runs the browser tests alone, or another Playwright project.
  generate            Writes the generated files anew: API description, schemas, front-end types and quantities.
  reference           Computes the reference results anew with the general-purpose tools they come from.
  speed               Times the solver beside NumPy and ngspice on the same circuits.
  layers              Checks which folder may use which, and that nothing goes in circles.
  words               Prints everything the program says, as one text to read.
";

const PORT: u16 = 7373;

fn main() -> ExitCode {
    match run(Arguments::from_env()) {
        Ok(()) => ExitCode::SUCCESS,
        Err(error) => {
            eprintln!("error: {error:#}");
            ExitCode::FAILURE
        }
    }
}

fn run(mut arguments: Arguments) -> Result<()> {
    if arguments.contains(["-h", "--help"]) {
        print!("{HELP}");
        return Ok(());
    }
    let command = arguments.subcommand()?.unwrap_or_default();
    let port = arguments.opt_value_from_str("--port")?;
    let companion: Option<String> = arguments.opt_value_from_str("--companion")?;
    let rest: Vec<String> = arguments
        .finish()
        .into_iter()
        .map(|word| word.to_string_lossy().into_owned())
        .filter(|word| word != "--")
        .collect();
    if (port.is_some() || companion.is_some()) && command != "demo" || !rest.is_empty() && command != "e2e" {
        bail!("cargo xtask {command} takes no such argument\n\n{HELP}");
    }
    match command.as_str() {
        "demo" => demo::run(port.unwrap_or(PORT), companion.as_deref()),
        "test" => test::run(),
        "e2e" => end_to_end::prepare_and_run(&rest),
        "generate" => generate::run(),
        "reference" => reference::run(),
        "speed" => reference::speed(),
        "layers" => layers::run(),
        "words" => words::run(),
        "" => bail!("which command?\n\n{HELP}"),
        other => bail!("{other} is no command\n\n{HELP}"),
    }
}
