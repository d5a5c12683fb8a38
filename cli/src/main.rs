//! `oak-drum`: the core without a server.

use std::path::PathBuf;
use std::process::ExitCode;

use anyhow::{Context, bail};
use clap::{Parser, Subcommand, ValueEnum};
use oak_design::exchange::write_response_table;
use oak_design::file::open_design;
use oak_design::quantities::quantities;
use oak_design::report::{Report, compute};
use oak_design::resolve::resolve_design;
use oak_design::response::FrequencyGrid;
use oak_design::schema::{SCHEMAS, schema};

#[derive(Parser)]
#[command(name = "oak-drum", version, about = "Computes subwoofers and bass cabinets from design files")]
struct Arguments {
    #[command(subcommand)]
    command: Command,
}

#[derive(Subcommand)]
enum Command {
    /// Computes the response of a design file and writes it to standard output.
    Simulate(Simulate),
    /// Prints the JSON Schema of a kind of file: design, driver or build.
    Schema {
        /// Which kind.
        kind: String,
    },
    /// Prints every quantity that files can hold, with units, ranges and meaning, as JSON.
    Quantities,
}

#[derive(clap::Args)]
struct Simulate {
    /// Design file (JSON; see docs/schema/design.schema.json).
    design: PathBuf,
    /// Lowest frequency, Hz.
    #[arg(long, default_value_t = 10.0)]
    from: f64,
    /// Highest frequency, Hz.
    #[arg(long, default_value_t = 500.0)]
    to: f64,
    /// Number of frequencies, spaced evenly in octaves.
    #[arg(long, default_value_t = 600)]
    points: usize,
    /// csv: the curves; json: curves, figures and the completed driver.
    #[arg(long, value_enum, default_value_t = Format::Csv)]
    format: Format,
}

#[derive(Clone, Copy, ValueEnum)]
enum Format {
    Csv,
    Json,
}

/// Larger files are not design files.
const LARGEST_FILE: u64 = 4 << 20;

fn main() -> ExitCode {
    let outcome = match Arguments::parse().command {
        Command::Simulate(arguments) => simulate(&arguments),
        Command::Schema { kind } => print_schema(&kind),
        Command::Quantities => pretty(&quantities()),
    };
    match outcome {
        Ok(text) => {
            use std::io::Write;
            // A closed pipe (`| head`) is the reader's choice, not an error.
            let _ = std::io::stdout().write_all(text.as_bytes());
            ExitCode::SUCCESS
        }
        Err(error) => {
            eprintln!("error: {error:#}");
            ExitCode::FAILURE
        }
    }
}

fn simulate(arguments: &Simulate) -> anyhow::Result<String> {
    let path = arguments.design.display();
    let size = std::fs::metadata(&arguments.design).with_context(|| format!("{path}"))?.len();
    if size > LARGEST_FILE {
        bail!("{path}: is {size} bytes long; at most {LARGEST_FILE} are allowed");
    }
    let text = std::fs::read(&arguments.design).with_context(|| format!("{path}"))?;
    let grid = FrequencyGrid::logarithmic(arguments.from, arguments.to, arguments.points)
        .context("--from, --to, --points")?;
    let raw = open_design(&text).map_err(|problem| anyhow::anyhow!("{path}: {problem}"))?;
    let resolved = resolve_design(&raw).map_err(|problems| {
        let lines: Vec<_> = problems.iter().map(|problem| format!("{path}: {problem}")).collect();
        anyhow::anyhow!("{}", lines.join("\nerror: "))
    })?;
    let unreachable = |problem| anyhow::anyhow!("{path}: {problem}");
    Ok(match arguments.format {
        Format::Csv => write_response_table(&compute(&resolved, &grid).map_err(unreachable)?),
        Format::Json => {
            let report = Report::of(&resolved, &grid).map_err(unreachable)?;
            pretty(&report)?
        }
    })
}

fn print_schema(kind: &str) -> anyhow::Result<String> {
    let Some(schema) = schema(kind) else {
        let kinds: Vec<_> = SCHEMAS.iter().map(|(name, _)| *name).collect();
        bail!("there is no \"{kind}\" file; allowed are {}", kinds.join(", "));
    };
    pretty(&schema)
}

fn pretty(document: &impl serde::Serialize) -> anyhow::Result<String> {
    Ok(serde_json::to_string_pretty(document)? + "\n")
}
