//! `cargo xtask demo`.

use std::io::{BufRead, BufReader};
use std::net::TcpListener;
use std::os::unix::process::{CommandExt, ExitStatusExt};
use std::path::Path;
use std::process::{Child, Command, Stdio};

use anyhow::{Context, Result, bail};
use oak_cluster::{Cluster, ClusterError};

use crate::machine::{LIBPQ, POSTGRESQL};
use crate::stages::Clock;
use crate::{command, front_end, machine, stages};

/// Installs, builds, starts and waits for Ctrl-C.
pub fn run(port: u16, companion: Option<&str>) -> Result<()> {
    check_port(port)?;
    machine::check_node()?;
    let whole = Clock::start();
    stages::run(&[("Packages of the machine", || machine::install(&[POSTGRESQL, LIBPQ]))])?;
    // The server reads the interface from its folder, so that both are built at the same time.
    stages::beside(
        &[("Server (some minutes the first time)", command::build)],
        &[("Packages of the interface", front_end::install), ("Interface", front_end::build)],
    )?;
    let cluster = start_cluster()?;
    println!("Ready after {}", whole.read());
    let outcome = serve(&cluster, port, companion);
    println!("Stopping the database");
    cluster.stop()?;
    outcome
}

fn check_port(port: u16) -> Result<()> {
    match TcpListener::bind(("127.0.0.1", port)) {
        Ok(_) => Ok(()),
        Err(error) => Err(error).with_context(|| {
            format!(
                "port {port} on 127.0.0.1 cannot be used; choose another, as in: cargo xtask demo --port 7400"
            )
        }),
    }
}

/// Folders that may hold the data, in the order they are looked at: the one asked for, or the project's
/// and, for root with a checkout that the server's user may not enter, the machine's.
fn start_cluster() -> Result<Cluster> {
    if let Some(folder) = std::env::var_os("OAK_DRUM_DATA") {
        return start_in(Path::new(&folder));
    }
    let own = command::root().join(".oak-drum");
    let shared = Path::new("/var/lib/oak-drum");
    if shared.join("data").exists() && !own.join("data").exists() {
        return start_in(shared);
    }
    match start_in(&own) {
        Err(error) if matches!(error.downcast_ref(), Some(ClusterError::OutOfReach { .. })) => {
            start_in(shared)
        }
        outcome => outcome,
    }
}

fn start_in(folder: &Path) -> Result<Cluster> {
    let cluster = Cluster::start_in(folder)?;
    println!("Data are kept in {}", folder.display());
    Ok(cluster)
}

fn serve(cluster: &Cluster, port: u16, companion: Option<&str>) -> Result<()> {
    let (mut rig, rig_address) = start_rig()?;
    let mut server = Command::new(command::programs().join("oak-drum-server"));
    server.args(["serve", "--port", &port.to_string()]);
    if let Some(address) = companion {
        server.args(["--companion", address, "--companion-keys"]).arg(cluster.folder());
    }
    let mut server = server
        .arg("--demo")
        .arg(command::root().join("demo"))
        .args(["--rig", &rig_address])
        .env("OAK_DRUM_DATABASE_URL", cluster.url())
        // A group of its own: Ctrl-C reaches this process, which then asks the server to finish.
        .process_group(0)
        .spawn()
        .context("the server cannot be started")?;
    stop_on_signal(&server)?;
    println!("Ctrl-C stops it");
    let status = server.wait()?;
    // It keeps nothing; gone already is as good as ended.
    let _ = rig.kill();
    rig.wait()?;
    if status.success() || status.signal() == Some(15) {
        return Ok(());
    }
    bail!("the server ended with {status}; what it had acknowledged is kept")
}

/// The simulated measuring box, and where it listens.
fn start_rig() -> Result<(Child, String)> {
    let mut rig = Command::new(command::programs().join("oak-rig"))
        .arg(command::root().join("demo/rig/pit-organ.json"))
        .stdout(Stdio::piped())
        .process_group(0)
        .spawn()
        .context("the simulated measuring box cannot be started")?;
    let mut line = String::new();
    let output = rig.stdout.take().context("the simulated measuring box says nothing")?;
    BufReader::new(output).read_line(&mut line)?;
    print!("{line}");
    let address = line.split_whitespace().last().context("the simulated measuring box says nothing")?;
    Ok((rig, address.to_owned()))
}

fn stop_on_signal(server: &Child) -> Result<()> {
    let id = server.id().to_string();
    ctrlc::set_handler(move || {
        println!();
        // Gone already is as good as told.
        let _ = Command::new("kill").args(["-TERM", &id]).status();
    })?;
    Ok(())
}
