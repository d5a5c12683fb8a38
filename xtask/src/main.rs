//! Project commands: `cargo xtask demo`, `cargo xtask test` and what they are made of.

mod command;
mod demo;
mod end_to_end;
mod front_end;
mod generate;
mod layers;
mod machine;
mod reference;
mod stages;
mod test;

use std::process::ExitCode;

use clap::{Parser, Subcommand};

#[derive(Parser)]
#[command(name = "cargo xtask", about, disable_version_flag = true)]
struct Arguments {
    #[command(subcommand)]
    command: Command,
}

#[derive(Subcommand)]
enum Command {
    /// Installs what is missing, builds everything and starts it with demo data.
    Demo {
        /// Port on 127.0.0.1.
        #[arg(long, default_value_t = 7373)]
        port: u16,
    },
    /// Runs every check: format, layers, lints, Cargo tests, front end, browser.
    Test,
    /// Runs the browser tests alone, or another Playwright project after `--`.
    E2e {
        /// Against the release build, as for speed figures.
        #[arg(long)]
        release: bool,
        /// Arguments of Playwright.
        #[arg(last = true)]
        arguments: Vec<String>,
    },
    /// Writes the generated files anew: API description, schemas, front-end types and quantities.
    Generate,
    /// Computes the reference results anew with the general-purpose tools they come from.
    Reference,
    /// Times the solver beside NumPy and ngspice on the same circuits.
    Speed,
    /// Checks which folder may use which.
    Layers,
}

fn main() -> ExitCode {
    let outcome = match Arguments::parse().command {
        Command::Demo { port } => demo::run(port),
        Command::Test => test::run(),
        Command::E2e { release, arguments } => end_to_end::prepare_and_run(release, &arguments),
        Command::Generate => generate::run(),
        Command::Reference => reference::run(),
        Command::Speed => reference::speed(),
        Command::Layers => layers::run(),
    };
    match outcome {
        Ok(()) => ExitCode::SUCCESS,
        Err(error) => {
            eprintln!("error: {error:#}");
            ExitCode::FAILURE
        }
    }
}
