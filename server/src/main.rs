//! `oak-drum-server`: serves the interface and the API on loopback.

use std::path::PathBuf;
use std::process::ExitCode;

use anyhow::Context;
use clap::{Parser, Subcommand};
use diesel::{Connection, PgConnection};
use oak_server::app::{self, State};
use oak_server::{db, demo};
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
}

#[actix_web::main]
async fn main() -> ExitCode {
    let filter =
        EnvFilter::try_from_default_env().unwrap_or_else(|_| EnvFilter::new("warn,tracing_actix_web=error"));
    tracing_subscriber::fmt().with_env_filter(filter).with_writer(std::io::stderr).init();
    let outcome = match Arguments::parse().command {
        Command::Serve(arguments) => serve(arguments).await,
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
    if let Some(folder) = &arguments.demo {
        demo::load(&mut connection, folder)?;
    }
    drop(connection);
    let state = State { pool: db::pool(&arguments.database_url, 8) };
    let port = arguments.port;
    let (server, port) = app::start(state, port, arguments.workers)
        .with_context(|| format!("port {port} on 127.0.0.1 cannot be used; choose another with --port"))?;
    println!("Oak Drum is at http://127.0.0.1:{port}/");
    server.await?;
    Ok(())
}

fn print_openapi() -> anyhow::Result<()> {
    let state = State { pool: db::pool("postgres://", 1) };
    println!("{}", app::openapi(state).to_pretty_json()?);
    Ok(())
}
