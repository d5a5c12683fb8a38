//! `oak-rig`: a simulated measuring box on a socket of this machine, or what a microphone would record there.

use std::net::{Ipv4Addr, TcpListener};
use std::path::Path;
use std::process::ExitCode;

use oak_rig::{Bench, Played, Scenario, Wired, listen, wav};

const USAGE: &str = "oak-rig SCENARIO.json [PORT, 0 for any] [how many times quicker it sweeps]
oak-rig SCENARIO.json record KIND FILE.wav SECONDS FROM_HZ TO_HZ SILENCE_BEFORE_S SILENCE_AFTER_S";
const RATE: u32 = 48_000;

fn run() -> Result<(), String> {
    let arguments: Vec<String> = std::env::args().skip(1).collect();
    let words: Vec<&str> = arguments.iter().map(String::as_str).collect();
    let (scenario, rest) = words.split_first().ok_or(USAGE)?;
    let bench = bench(Path::new(scenario))?;
    match rest {
        ["record", kind, file, numbers @ ..] => record(&bench, kind, Path::new(file), numbers),
        [] => serve(bench, "0", "1"),
        [port] => serve(bench, port, "1"),
        [port, quicker] => serve(bench, port, quicker),
        _ => Err(USAGE.to_owned()),
    }
}

fn bench(path: &Path) -> Result<Bench, String> {
    let wrong = |error: &dyn std::fmt::Display| format!("{}: {error}", path.display());
    let text = std::fs::read_to_string(path).map_err(|error| wrong(&error))?;
    Ok(Scenario::read(&text).map_err(|error| wrong(&error))?.bench())
}

fn serve(bench: Bench, port: &str, quicker: &str) -> Result<(), String> {
    let port: u16 = port.parse().map_err(|_| USAGE)?;
    let quicker: f64 = quicker.parse().map_err(|_| USAGE)?;
    if !(0.1..=1000.0).contains(&quicker) {
        return Err(format!("{quicker} times is not within 0.1 and 1000"));
    }
    let listener = TcpListener::bind((Ipv4Addr::LOCALHOST, port))
        .map_err(|error| format!("port {port} on 127.0.0.1 cannot be used: {error}"))?;
    let address = listener.local_addr().map_err(|error| error.to_string())?;
    println!("The simulated measuring box is at {address}");
    listen(&listener, bench, quicker).map_err(|error| error.to_string())
}

fn record(bench: &Bench, kind: &str, file: &Path, numbers: &[&str]) -> Result<(), String> {
    let numbers: Option<Vec<f64>> = numbers.iter().map(|word| word.parse().ok()).collect();
    let Some([seconds, from, to, before, after]) =
        numbers.and_then(|numbers| <[f64; 5]>::try_from(numbers).ok())
    else {
        return Err(USAGE.to_owned());
    };
    let sound = seconds > 0.1 && seconds < 60.0 && from > 0.5 && to > from && 2.0 * to < f64::from(RATE);
    if !sound || !(0.0..=60.0).contains(&before) || !(0.0..=60.0).contains(&after) {
        return Err(USAGE.to_owned());
    }
    let wired = Wired::named(kind, 0.0).filter(|wired| !wired.is_impedance());
    let wired = wired.ok_or_else(|| format!("{kind} is nothing that a microphone hears"))?;
    let played = Played { rate: RATE, seconds, range: [from, to], silence: [before, after] };
    let bytes = wav(RATE, &bench.record(wired, &played));
    std::fs::write(file, bytes).map_err(|error| format!("{}: {error}", file.display()))
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
