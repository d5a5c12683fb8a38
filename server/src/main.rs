//! `oak-drum-server`: serves the interface and the API on loopback.

use std::path::PathBuf;
use std::process::ExitCode;

use anyhow::Context;
use clap::{Parser, Subcommand};
use diesel::{Connection, PgConnection};
use oak_server::app::{self, State};
use oak_server::{db, demo, jobs};
use tracing_subscriber::EnvFilter;

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
    /// Takes long work out of the database's queue, beside any number of other workers.
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
    /// Threads for long work in this program; 0 leaves it to workers of their own. One for each core where absent.
    #[arg(long)]
    search_threads: Option<usize>,
}

#[derive(clap::Args)]
struct Worker {
    /// PostgreSQL address of a database that a server has set up.
    #[arg(long, env = "OAK_DRUM_DATABASE_URL", hide_env_values = true)]
    database_url: String,
    /// Threads; one for each core where absent.
    #[arg(long)]
    threads: Option<usize>,
}

/// One for each core where nothing else is said.
fn threads(asked: Option<usize>) -> usize {
    asked.unwrap_or_else(|| std::thread::available_parallelism().map_or(1, usize::from))
}

#[actix_web::main]
async fn main() -> ExitCode {
    let filter =
        EnvFilter::try_from_default_env().unwrap_or_else(|_| EnvFilter::new("warn,tracing_actix_web=error"));
    tracing_subscriber::fmt().with_env_filter(filter).with_writer(std::io::stderr).init();
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
    let state = State::new(&arguments.database_url, 8)?;
    state.queue.set_up().await.context("the queue for long work")?;
    let threads = threads(arguments.search_threads);
    if threads > 0 {
        jobs::start(&arguments.database_url, threads)?;
    }
    let port = arguments.port;
    let (server, port) = app::start(state, port, arguments.workers)
        .with_context(|| format!("port {port} on 127.0.0.1 cannot be used; choose another with --port"))?;
    println!("Oak Drum is at http://127.0.0.1:{port}/");
    server.await?;
    Ok(())
}

async fn worker(arguments: Worker) -> anyhow::Result<()> {
    let threads = threads(arguments.threads).max(1);
    let state = State::new(&arguments.database_url, u32::try_from(threads).unwrap_or(1) + 1)?;
    state.queue.set_up().await.context("the queue for long work")?;
    println!("Waiting for work on {threads} threads");
    jobs::work(&state.queue, state.pool.clone(), threads, tokio::signal::ctrl_c()).await?;
    Ok(())
}

fn print_openapi() -> anyhow::Result<()> {
    let state = State::new("postgres://", 1)?;
    println!("{}", app::openapi(state).to_pretty_json()?);
    Ok(())
}
