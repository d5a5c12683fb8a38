//! `oak-rig`: a simulated measuring box on a socket of this machine.

use std::net::{Ipv4Addr, TcpListener};
use std::path::PathBuf;
use std::process::ExitCode;

use oak_rig::{Scenario, listen};

/// Reads `oak-rig SCENARIO [PORT] [TIMES QUICKER]`.
fn run() -> Result<(), String> {
    let arguments: Vec<String> = std::env::args().skip(1).collect();
    let usage = "oak-rig SCENARIO.json [PORT, 0 for any] [how many times quicker it sweeps]";
    let path = PathBuf::from(arguments.first().ok_or(usage)?);
    let port: u16 = arguments.get(1).map_or(Ok(0), |text| text.parse()).map_err(|_| usage)?;
    let quicker: f64 = arguments.get(2).map_or(Ok(1.0), |text| text.parse()).map_err(|_| usage)?;
    if !(0.1..=1000.0).contains(&quicker) {
        return Err(format!("{quicker} times is not within 0.1 and 1000"));
    }
    let text = std::fs::read_to_string(&path).map_err(|error| format!("{}: {error}", path.display()))?;
    let scenario = Scenario::read(&text).map_err(|error| format!("{}: {error}", path.display()))?;
    let listener = TcpListener::bind((Ipv4Addr::LOCALHOST, port))
        .map_err(|error| format!("port {port} on 127.0.0.1 cannot be used: {error}"))?;
    let address = listener.local_addr().map_err(|error| error.to_string())?;
    println!("The simulated measuring box is at {address}");
    listen(&listener, scenario.bench(), quicker).map_err(|error| error.to_string())
}

fn main() -> ExitCode {
    match run() {
        Ok(()) => ExitCode::SUCCESS,
        Err(error) => {
            eprintln!("error: {error}");
            ExitCode::FAILURE
        }
    }
}
