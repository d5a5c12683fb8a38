//! `oak-drum`: the core without a server.

use std::fmt::Write;
use std::path::{Path, PathBuf};
use std::process::ExitCode;

use anyhow::{Context, bail};
use clap::{Parser, Subcommand, ValueEnum};
use oak_cabinetry::drawing::write_dxf;
use oak_design::Problem;
use oak_design::conditions::{RawBasis, RawConditions, RawQuestion};
use oak_design::exchange::{write_limit_table, write_response_table};
use oak_design::file::{RawBuild, RawFamily, Typed, open_build, open_design, open_driver};
use oak_design::quantities::{meanings, quantities};
use oak_design::report::{BuiltExport, Report, compute};
use oak_design::resolve::ResolvedDesign;
use oak_design::response::FrequencyGrid;
use oak_design::schema::{SCHEMAS, schema};
use oak_design::start::{RawAsk, starting_points};
use oak_design::transient::{Played, TransientReport, excitation};
use oak_metering::folder::{self, Folder, work_out};
use oak_metering::sweep::{Depth, Sweep, write_wav};
use oak_planning::build_plan::{Flat, flat_drawing};

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
    /// Writes a design file to begin with: a usual starting point around a driver.
    Start {
        #[command(subcommand)]
        what: Started,
    },
    /// Writes the largest clean output of a design and what binds it at each frequency, as CSV.
    Limits(Spanned),
    /// Writes a design as it is built, with its box in three dimensions, for other programs to work out again, as JSON.
    Built(Asked),
    /// Writes a board of a design at full size, as DXF: cut, recess, drill, mark and label on layers of their own.
    Panel {
        #[command(flatten)]
        asked: Asked,
        /// Number of the board, as on its label.
        #[arg(long)]
        number: u32,
    },
    /// Writes what is heard of a step or tone burst, as CSV.
    Transient(Transient),
    /// Works out a folder of measurements: `design.json`, `session.json` and the traces that it names. Drivers in free air, alone and with a mass on the cone; closed and ported boxes by their impedance, as they are and with their ports shut; standing waves by the impedance and the sound at the openings; a low-pass hidden in the chain.
    Measure {
        /// The folder.
        folder: PathBuf,
        /// How the answer is written.
        #[arg(long, value_enum, default_value_t = Answered::Json)]
        format: Answered,
    },
    /// Writes an exponential sweep to measure with, as a WAV file of 24 bits (Farina 2000).
    Sweep {
        /// The file.
        file: PathBuf,
        /// Samples a second.
        #[arg(long, default_value_t = 48_000)]
        rate: u32,
        /// How long it lasts, s.
        #[arg(long, default_value_t = 10.0)]
        seconds: f64,
        /// Where it begins, Hz.
        #[arg(long, default_value_t = 5.0)]
        from: f64,
        /// Where it ends, Hz.
        #[arg(long, default_value_t = 1000.0)]
        to: f64,
    },
    /// Takes long work out of a database's queue: `oak-drum-server worker`, the program beside this one.
    Worker {
        /// As that program takes them; the database is named by OAK_DRUM_DATABASE_URL.
        #[arg(trailing_var_arg = true, allow_hyphen_values = true)]
        arguments: Vec<String>,
    },
    /// Prints the JSON Schema of a kind of file: design, driver or build.
    Schema {
        /// Which kind.
        kind: String,
    },
    /// Prints every quantity that files can hold, with units and ranges, as JSON.
    Quantities,
    /// Prints what every quantity means, the glossary, and the pipes that are easily had, as JSON.
    Meanings,
}

#[derive(Subcommand)]
enum Started {
    /// A design file.
    Design(StartDesign),
}

#[derive(clap::Args)]
struct StartDesign {
    /// Driver file (JSON; see docs/schema/driver.schema.json).
    #[arg(long)]
    driver: PathBuf,
    /// Kind of cabinet, as in design files.
    #[arg(long)]
    family: String,
    /// Which starting point; the first that has an answer where absent.
    #[arg(long)]
    starting_point: Option<String>,
    /// Most air in all chambers and ways together, with its unit: "60 l".
    #[arg(long)]
    volume: Option<String>,
    /// Lowest note: "32.7 Hz".
    #[arg(long)]
    lowest: Option<String>,
}

#[derive(clap::Args)]
struct Transient {
    #[command(flatten)]
    asked: Asked,
    /// step or burst.
    #[arg(long, value_enum, default_value_t = Play::Step)]
    play: Play,
    /// Frequency of a burst, Hz.
    #[arg(long, default_value_t = 40.0)]
    frequency: f64,
    /// Cycles of a burst.
    #[arg(long, default_value_t = 5.0)]
    cycles: f64,
}

#[derive(Clone, Copy, ValueEnum)]
enum Play {
    Step,
    Burst,
}

/// A design, and the conditions it is computed in.
#[derive(clap::Args)]
struct Asked {
    /// Design file (JSON; see docs/schema/design.schema.json).
    design: PathBuf,
    /// Build file whose brief has the design used: its space, its amplifier, its programme.
    #[arg(long)]
    build: Option<PathBuf>,
    /// Name of a place in the build file: the levels at its seats are computed too.
    #[arg(long, requires = "build")]
    place: Option<String>,
    /// Name of a preset in the build file that it is played through.
    #[arg(long, requires = "build")]
    preset: Option<String>,
    /// in-use: as the brief has it, without one as the design says; bench: 2.83 V, half space.
    #[arg(long, value_enum, default_value_t = Conditions::InUse)]
    conditions: Conditions,
}

#[derive(Clone, Copy, ValueEnum)]
enum Conditions {
    InUse,
    Bench,
}

/// A design and the frequencies it is computed at.
#[derive(clap::Args)]
struct Spanned {
    #[command(flatten)]
    asked: Asked,
    /// Lowest frequency, Hz.
    #[arg(long, default_value_t = 10.0)]
    from: f64,
    /// Highest frequency, Hz.
    #[arg(long, default_value_t = 500.0)]
    to: f64,
    /// Number of frequencies, spaced evenly in octaves.
    #[arg(long, default_value_t = 600)]
    points: usize,
}

#[derive(clap::Args)]
struct Simulate {
    #[command(flatten)]
    spanned: Spanned,
    /// csv: the curves; json: curves, figures and the completed driver.
    #[arg(long, value_enum, default_value_t = Format::Csv)]
    format: Format,
}

#[derive(Clone, Copy, ValueEnum)]
enum Format {
    Csv,
    Json,
}

#[derive(Clone, Copy, ValueEnum)]
enum Answered {
    Json,
}

/// Larger files are not design files.
const LARGEST_FILE: u64 = 4 << 20;

fn main() -> ExitCode {
    let outcome = match Arguments::parse().command {
        Command::Simulate(arguments) => simulate(&arguments),
        Command::Start { what: Started::Design(arguments) } => start(&arguments),
        Command::Limits(arguments) => limits(&arguments),
        Command::Built(asked) => built(&asked),
        Command::Panel { asked, number } => panel(&asked, number),
        Command::Transient(arguments) => transient(&arguments),
        Command::Measure { folder, format: Answered::Json } => measure(&folder),
        Command::Sweep { file, rate, seconds, from, to } => {
            Sweep::new(rate, seconds, from, to).map_err(|problems| all(&file, &problems)).and_then(|sweep| {
                std::fs::write(&file, write_wav(rate, &sweep.samples(), Depth::Bits24))
                    .with_context(|| format!("{} cannot be written", file.display()))?;
                Ok(String::new())
            })
        }
        Command::Schema { kind } => print_schema(&kind),
        Command::Worker { arguments } => worker(&arguments),
        Command::Quantities => pretty(&quantities()),
        Command::Meanings => pretty(&meanings()),
    };
    match outcome {
        Ok(text) => {
            // A closed pipe (`| head`) is the reader's choice, not an error.
            let _ = std::io::Write::write_all(&mut std::io::stdout(), text.as_bytes());
            ExitCode::SUCCESS
        }
        Err(error) => {
            eprintln!("error: {error:#}");
            ExitCode::FAILURE
        }
    }
}

/// The text of a file that is small enough to be one of ours.
fn read(path: &Path) -> anyhow::Result<Vec<u8>> {
    let shown = path.display();
    let size = std::fs::metadata(path).with_context(|| format!("{shown}"))?.len();
    if size > LARGEST_FILE {
        bail!("{shown}: is {size} bytes long; at most {LARGEST_FILE} are allowed");
    }
    std::fs::read(path).with_context(|| format!("{shown}"))
}

/// All problems of a file, a line each.
fn all(path: &Path, problems: &[Problem]) -> anyhow::Error {
    let lines: Vec<_> = problems.iter().map(|problem| format!("{}: {problem}", path.display())).collect();
    anyhow::anyhow!("{}", lines.join("\nerror: "))
}

impl Asked {
    fn question(&self) -> anyhow::Result<RawQuestion> {
        let path = &self.design;
        let design = open_design(&read(path)?).map_err(|problem| all(path, &[problem]))?;
        let build = self.build.as_ref().map(|path| {
            read(path).and_then(|text| open_build(&text).map_err(|problem| all(path, &[problem])))
        });
        let RawBuild { brief, presets, places, workshop, .. } =
            build.transpose()?.unwrap_or_else(|| RawBuild::of_documents([]));
        let basis = match self.conditions {
            Conditions::InUse => RawBasis::InUse,
            Conditions::Bench => RawBasis::Bench,
        };
        let place = named(places, self.place.as_deref(), "place", |place| &place.name)?;
        let preset = named(presets, self.preset.as_deref(), "preset", |preset| &preset.name)?;
        let conditions = RawConditions { basis, preset, place, workshop };
        Ok(RawQuestion { design, brief, conditions })
    }

    fn open(&self) -> anyhow::Result<ResolvedDesign> {
        let question = self.question()?;
        Ok(question.resolve().map_err(|problems| all(&self.design, &problems))?.design)
    }
}

/// The one of a name; none where no name is given.
fn named<T>(all: Vec<T>, name: Option<&str>, what: &str, of: fn(&T) -> &String) -> anyhow::Result<Option<T>> {
    let Some(name) = name else { return Ok(None) };
    let names = all.iter().map(|one| format!("\"{}\"", of(one))).collect::<Vec<_>>().join(", ");
    let found = all.into_iter().find(|one| of(one) == name);
    found.map(Some).ok_or_else(|| anyhow::anyhow!("no {what} \"{name}\" in the build; it has: {names}"))
}

impl Spanned {
    fn open(&self) -> anyhow::Result<(ResolvedDesign, FrequencyGrid)> {
        let grid =
            FrequencyGrid::logarithmic(self.from, self.to, self.points).context("--from, --to, --points")?;
        Ok((self.asked.open()?, grid))
    }
}

fn simulate(arguments: &Simulate) -> anyhow::Result<String> {
    let path = &arguments.spanned.asked.design;
    let (design, grid) = arguments.spanned.open()?;
    let unreachable = |problem| all(path, &[problem]);
    match arguments.format {
        Format::Csv => Ok(write_response_table(&compute(&design, &grid).map_err(unreachable)?)),
        Format::Json => pretty(&Report::of(&design, &grid).map_err(unreachable)?),
    }
}

fn limits(arguments: &Spanned) -> anyhow::Result<String> {
    let (design, grid) = arguments.open()?;
    let computed = compute(&design, &grid).map_err(|problem| all(&arguments.asked.design, &[problem]))?;
    Ok(write_limit_table(&computed))
}

fn built(asked: &Asked) -> anyhow::Result<String> {
    let design = asked.open()?;
    let built = design.built().map_err(|problem| all(&asked.design, &[problem]))?;
    pretty(&BuiltExport::of(&design, &built))
}

fn panel(asked: &Asked, number: u32) -> anyhow::Result<String> {
    let drawn = flat_drawing(&asked.question()?, Flat::Panel(number));
    let drawing = drawn.map_err(|problems| all(&asked.design, &problems))?;
    let drawing =
        drawing.with_context(|| format!("--number: the box of this design has no board {number}"))?;
    Ok(String::from_utf8(write_dxf(&drawing)?)?)
}

fn measure(path: &Path) -> anyhow::Result<String> {
    let mut folder = Folder::new();
    let entries = std::fs::read_dir(path).with_context(|| format!("{}", path.display()))?;
    for entry in entries {
        let entry = entry?;
        let (name, size) = (entry.file_name().to_string_lossy().into_owned(), entry.metadata()?.len());
        if entry.file_type()?.is_file() {
            if size > folder::LARGEST_FILE as u64 {
                bail!("{name}: is {size} bytes long; at most {} are allowed", folder::LARGEST_FILE);
            }
            folder.insert(name, std::fs::read(entry.path())?);
        }
    }
    pretty(&work_out(&folder).map_err(|problems| all(path, &problems))?)
}

fn transient(arguments: &Transient) -> anyhow::Result<String> {
    let played = match arguments.play {
        Play::Step => Played::Step,
        Play::Burst => Played::Burst,
    };
    let excitation =
        excitation(played, arguments.frequency, arguments.cycles).context("--frequency, --cycles")?;
    let design = arguments.asked.open()?;
    let report = TransientReport::of(&design, excitation)
        .map_err(|problem| all(&arguments.asked.design, &[problem]))?;
    let mut text = String::from("time_s,drive_v,pressure_pa\n");
    for ((time, drive), pressure) in report.time.iter().zip(&report.drive).zip(&report.pressure) {
        writeln!(text, "{time},{drive},{pressure}")?;
    }
    Ok(text)
}

fn start(arguments: &StartDesign) -> anyhow::Result<String> {
    let path = &arguments.driver;
    let driver = open_driver(&read(path)?).map_err(|problem| all(path, &[problem]))?;
    let family = RawFamily::ALL.iter().find(|family| family.id() == arguments.family).with_context(|| {
        let ids: Vec<_> = RawFamily::ALL.iter().map(|family| family.id()).collect();
        format!("--family: there is no \"{}\"; allowed are {}", arguments.family, ids.join(", "))
    })?;
    let typed = |text: &Option<String>| text.as_deref().map(Typed::from);
    let mut ask = RawAsk::of(driver, *family);
    (ask.volume, ask.lowest) = (typed(&arguments.volume), typed(&arguments.lowest));
    let chosen: Vec<_> = starting_points(*family)
        .iter()
        .filter(|starting_point| {
            arguments.starting_point.as_deref().is_none_or(|wanted| wanted == starting_point.id)
        })
        .collect();
    if chosen.is_empty() {
        let ids: Vec<_> = starting_points(*family).iter().map(|starting_point| starting_point.id).collect();
        bail!("--starting-point: {} has no such starting point; allowed are {}", family.id(), ids.join(", "));
    }
    let mut refusals = Vec::new();
    for starting_point in chosen {
        let answer = ask.answer_by(starting_point).map_err(|problems| all(path, &problems))?;
        match answer.design {
            Some(design) => return pretty(&design),
            None => refusals.push(format!("{}: {}", answer.name, answer.reason)),
        }
    }
    bail!("{}", refusals.join("\nerror: "))
}

/// Becomes the server's program, which lies beside this one: only that one knows the database.
fn worker(arguments: &[String]) -> anyhow::Result<String> {
    use std::os::unix::process::CommandExt;
    let program = std::env::current_exe()?.with_file_name("oak-drum-server");
    let error = std::process::Command::new(&program).arg("worker").args(arguments).exec();
    Err(error).with_context(|| {
        format!("{} cannot be started; build it with cargo build --release -p oak-server", program.display())
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
