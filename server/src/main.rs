//! `oak-drum-server`: serves the interface and the API on loopback.

use std::net::SocketAddr;
use std::path::PathBuf;
use std::process::ExitCode;
use std::time::Duration;

use anyhow::Context;
use clap::{Parser, Subcommand};
use diesel::{Connection, PgConnection};
use oak_server::state::State;
use oak_server::{app, companion};
use oak_server::{db, demo, jobs};
use tokio::signal::unix::{SignalKind, signal};
use tracing_subscriber::filter::{LevelFilter, Targets};
use tracing_subscriber::layer::SubscriberExt;
use tracing_subscriber::util::SubscriberInitExt;

#[derive(Parser)]
#[command(name = "oak-drum-server", version, about)]
struct Arguments {
    #[command(subcommand)]
    command: Command,
}

#[derive(Subcommand)]
enum Command {
    /// Brings the database to this version and serves.
    Serve(Serve),
    /// Carries out jobs, beside any number of other workers.
    Worker(Worker),
    /// Prints the description of the API.
    Openapi,
}

#[derive(clap::Args)]
struct Serve {
    /// PostgreSQL address; kept out of the argument list because it holds a password.
    #[arg(long, env = "OAK_DRUM_DATABASE_URL", hide_env_values = true)]
    database_url: String,
    /// Port on 127.0.0.1; 0 takes any free one.
    #[arg(long, default_value_t = 7373)]
    port: u16,
    /// Folder with a demo scenario, loaded once.
    #[arg(long)]
    demo: Option<PathBuf>,
    /// Threads that answer requests.
    #[arg(long, default_value_t = 2)]
    workers: usize,
    /// Threads for jobs in this program; 0 leaves them to workers of their own. One for each core where absent.
    #[arg(long)]
    job_threads: Option<usize>,
    /// Address of this machine in the local network and a port, such as 192.168.1.20:7474: opens pages for phones there. Off where absent.
    #[arg(long, value_name = "ADDRESS:PORT")]
    companion: Option<SocketAddr>,
    /// Folder that keeps the certificate of the pages for phones; made for this run alone where absent.
    #[arg(long, requires = "companion")]
    companion_keys: Option<PathBuf>,
    /// Address of a measuring box and its port, such as 127.0.0.1:7412.
    #[arg(long, value_name = "ADDRESS:PORT")]
    rig: Option<SocketAddr>,
    #[command(flatten)]
    lease: Lease,
}

#[derive(clap::Args)]
struct Lease {
    /// Seconds without a word from a worker after which its pieces of jobs go to another.
    #[arg(long = "lease", default_value_t = 10, value_parser = clap::value_parser!(u16).range(1..=600))]
    seconds: u16,
}

#[derive(clap::Args)]
struct Worker {
    /// PostgreSQL address of a database that a server has set up.
    #[arg(long, env = "OAK_DRUM_DATABASE_URL", hide_env_values = true)]
    database_url: String,
    /// Threads; one for each core where absent.
    #[arg(long)]
    threads: Option<usize>,
    #[command(flatten)]
    lease: Lease,
}

/// One for each core where nothing else is said.
fn threads(asked: Option<usize>) -> usize {
    asked.unwrap_or_else(|| std::thread::available_parallelism().map_or(1, usize::from))
}

#[actix_web::main]
async fn main() -> ExitCode {
    let usual = || {
        Targets::new().with_default(LevelFilter::WARN).with_target("tracing_actix_web", LevelFilter::ERROR)
    };
    let filter = std::env::var("RUST_LOG").ok().and_then(|text| text.parse().ok()).unwrap_or_else(usual);
    tracing_subscriber::registry()
        .with(tracing_subscriber::fmt::layer().with_writer(std::io::stderr))
        .with(filter)
        .init();
    let outcome = match Arguments::parse().command {
        Command::Serve(arguments) => serve(arguments).await,
        Command::Worker(arguments) => worker(arguments).await,
        Command::Openapi => print_openapi(),
    };
    match outcome {
        Ok(()) => ExitCode::SUCCESS,
        Err(error) => {
            eprintln!("error: {error:#}");
            ExitCode::FAILURE
        }
    }
}

async fn serve(arguments: Serve) -> anyhow::Result<()> {
    let mut connection =
        PgConnection::establish(&arguments.database_url).context("the database cannot be reached")?;
    db::migrate(&mut connection)?;
    db::queries::driver::refill(&mut connection)?;
    if let Some(folder) = &arguments.demo {
        demo::load(&mut connection, folder)?;
    }
    drop(connection);
    let mut state = State::new(&arguments.database_url, 8)?;
    state.rig = arguments.rig;
    if let Some(address) = arguments.companion {
        let options =
            companion::Options { address, keys: arguments.companion_keys.clone(), idle: companion::IDLE };
        let started = companion::start(&arguments.database_url, state.compute.clone(), &options)?;
        println!("Pages for phones are at {}/, opened by links that the program makes", started.origin());
        state.companion = Some(started);
    }
    let workers = match threads(arguments.job_threads) {
        0 => None,
        count => Some(jobs::start_workers(&arguments.database_url, count, arguments.lease.seconds.into())?),
    };
    let port = arguments.port;
    let (server, port) = app::start(state, port, arguments.workers)
        .with_context(|| format!("port {port} on 127.0.0.1 cannot be used; choose another with --port"))?;
    println!("Oak Drum is at http://127.0.0.1:{port}/");
    server.await?;
    if let Some(workers) = workers {
        workers.stop();
    }
    Ok(())
}

/// How often a worker is asked whether it has stopped by itself.
const ASK: Duration = Duration::from_secs(1);

async fn worker(arguments: Worker) -> anyhow::Result<()> {
    let threads = threads(arguments.threads).max(1);
    let mut connection =
        PgConnection::establish(&arguments.database_url).context("the database cannot be reached")?;
    db::check_schema(&mut connection)?;
    drop(connection);
    let workers = jobs::start_workers(&arguments.database_url, threads, arguments.lease.seconds.into())?;
    println!("Waiting for work on {threads} threads");
    let mut terminated = signal(SignalKind::terminate())?;
    let mut interrupted = signal(SignalKind::interrupt())?;
    let refused = loop {
        tokio::select! {
            _ = terminated.recv() => break None,
            _ = interrupted.recv() => break None,
            () = tokio::time::sleep(ASK) => {}
        }
        if let Some(why) = workers.refused() {
            break Some(why);
        }
    };
    workers.stop();
    match refused {
        Some(why) => anyhow::bail!(why),
        None => Ok(()),
    }
}

fn print_openapi() -> anyhow::Result<()> {
    let state = State::new("postgres://", 1)?;
    println!("{}", app::openapi(state).to_pretty_json()?);
    Ok(())
}
