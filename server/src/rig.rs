//! A measuring box on a socket, and what it is asked. Its lines are described in `rig/src/listen.rs`.

use std::io::{BufRead, BufReader, ErrorKind, Write};
use std::net::{SocketAddr, TcpStream};
use std::time::{Duration, Instant};

use oak_acoustics::Stop;
use oak_design::file::{MOST_MEASURED_POINTS, RawTraceKind};

/// Why a measuring box gave nothing.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
pub enum RigError {
    /// Nobody answers there.
    #[error("the measuring box does not answer at {0}: is it switched on and connected?")]
    Away(SocketAddr),
    /// It has said nothing for too long.
    #[error("the measuring box has said nothing for {0} s: switch it off and on, and measure again")]
    Silent(u64),
    /// It says what is wrong itself.
    #[error("{0}")]
    Refused(String),
    /// What it says makes no sense.
    #[error("the measuring box sent what is no measurement (\"{0}\"): nothing was kept; measure again")]
    Garbage(String),
    /// It was ended from here.
    #[error("the sweep was ended: nothing was kept")]
    Aborted,
}

/// How long it may take to answer, and how long it may be silent while it sweeps.
const CONNECT: Duration = Duration::from_secs(2);
const PATIENCE: Duration = Duration::from_secs(5);
/// How often it is looked whether anybody still wants a sweep.
const LOOK: Duration = Duration::from_millis(100);
/// Longest line, bytes.
const LONGEST: usize = 400;
/// Of a line that makes no sense, what is shown.
const SHOWN: usize = 40;

/// A measuring box.
pub struct Rig {
    reader: BufReader<TcpStream>,
    writer: TcpStream,
    address: SocketAddr,
}

/// What is asked of a sweep.
#[derive(Debug, Clone, PartialEq)]
pub struct Asked {
    /// What is connected.
    pub of: RawTraceKind,
    /// On the cone, kg.
    pub mass: Option<f64>,
    /// Hz.
    pub range: [f64; 2],
    /// How many.
    pub points: usize,
}

impl Rig {
    /// Connects.
    ///
    /// # Errors
    /// Nobody answers.
    pub fn connect(address: SocketAddr) -> Result<Self, RigError> {
        let away = |_| RigError::Away(address);
        let writer = TcpStream::connect_timeout(&address, CONNECT).map_err(away)?;
        writer.set_read_timeout(Some(LOOK)).map_err(away)?;
        writer.set_write_timeout(Some(PATIENCE)).map_err(away)?;
        let reader = BufReader::new(writer.try_clone().map_err(away)?);
        Ok(Self { reader, writer, address })
    }

    /// Says a line, and gives the rest of the answer behind its `ok`.
    ///
    /// # Errors
    /// It refuses, is silent, or makes no sense.
    pub fn ask(&mut self, command: &str) -> Result<String, RigError> {
        self.say(command)?;
        let line = self.line(&Stop::default())?;
        told(&line)?.ok_or_else(|| garbage(&line))
    }

    /// Sweeps, telling how many of a hundred parts are done.
    ///
    /// # Errors
    /// It refuses, is silent, makes no sense, or is told to stop.
    pub fn sweep(
        &mut self,
        asked: &Asked,
        stop: &Stop,
        progress: &mut dyn FnMut(u32),
    ) -> Result<Vec<[f64; 3]>, RigError> {
        let kind = serde_json::to_value(asked.of).ok();
        let kind = kind.as_ref().and_then(|kind| kind.as_str()).unwrap_or_default();
        let mass = asked.mass.map_or_else(String::new, |mass| format!(" mass_g={:.2}", mass * 1e3));
        self.ask(&format!("setup {kind}{mass}"))?;
        self.ask(&format!("range {} {}", asked.range[0], asked.range[1]))?;
        self.ask(&format!("points {}", asked.points.min(MOST_MEASURED_POINTS)))?;
        self.ask("arm")?;
        self.say("sweep")?;
        loop {
            let line = match self.line(stop) {
                Err(RigError::Aborted) => {
                    // Whether it hears that or not, this connection ends.
                    let _ = self.say("abort");
                    return Err(RigError::Aborted);
                }
                other => other?,
            };
            if let Some(percent) = line.strip_prefix("progress ") {
                progress(percent.parse().map_err(|_| garbage(&line))?);
                continue;
            }
            told(&line)?.ok_or_else(|| garbage(&line))?;
            break;
        }
        self.read(asked.of)
    }

    fn read(&mut self, of: RawTraceKind) -> Result<Vec<[f64; 3]>, RigError> {
        self.say("read")?;
        let mut points: Vec<[f64; 3]> = Vec::new();
        loop {
            let line = self.line(&Stop::default())?;
            if let Some(rest) = line.strip_prefix("point ") {
                let numbers: Option<Vec<f64>> = rest.split(' ').map(|word| word.parse().ok()).collect();
                let point = numbers.and_then(|numbers| <[f64; 3]>::try_from(numbers).ok());
                let point = point.filter(|point| point.iter().all(|value| value.is_finite()));
                let rises = |point: &[f64; 3]| points.last().is_none_or(|last| last[0] < point[0]);
                let sound = |point: &[f64; 3]| point[0] > 0.0 && (!of.is_impedance() || point[1] > 0.0);
                let point =
                    point.filter(|point| rises(point) && sound(point) && points.len() < MOST_MEASURED_POINTS);
                points.push(point.ok_or_else(|| garbage(&line))?);
                continue;
            }
            let count = told(&line)?.ok_or_else(|| garbage(&line))?;
            let complete = count.parse() == Ok(points.len()) && points.len() >= 2;
            return if complete { Ok(points) } else { Err(garbage(&line)) };
        }
    }

    fn say(&mut self, command: &str) -> Result<(), RigError> {
        let gone = |_| RigError::Away(self.address);
        self.writer.write_all(format!("{command}\n").as_bytes()).map_err(gone)
    }

    fn line(&mut self, stop: &Stop) -> Result<String, RigError> {
        let begun = Instant::now();
        let mut bytes = Vec::new();
        loop {
            if stop.stopped() {
                return Err(RigError::Aborted);
            }
            match self.reader.fill_buf() {
                Ok([]) => return Err(RigError::Away(self.address)),
                Ok(available) => {
                    let end = available.iter().position(|byte| *byte == b'\n');
                    let taken = end.map_or(available.len(), |end| end + 1);
                    bytes.extend_from_slice(&available[..taken]);
                    self.reader.consume(taken);
                    if end.is_some() {
                        return Ok(String::from_utf8_lossy(&bytes).trim_end().to_owned());
                    }
                    if bytes.len() > LONGEST {
                        return Err(garbage(&String::from_utf8_lossy(&bytes)));
                    }
                }
                Err(error) if matches!(error.kind(), ErrorKind::WouldBlock | ErrorKind::TimedOut) => {}
                Err(_) => return Err(RigError::Away(self.address)),
            }
            if begun.elapsed() > PATIENCE {
                return Err(RigError::Silent(PATIENCE.as_secs()));
            }
        }
    }
}

/// What stands behind `ok`; nothing where a line does not begin so.
fn told(line: &str) -> Result<Option<String>, RigError> {
    if let Some(rest) = line.strip_prefix("error ") {
        // A code, then words.
        let words = rest.split_once(' ').map_or(rest, |(_, words)| words);
        return Err(RigError::Refused(format!("the measuring box: {words}")));
    }
    Ok((line == "ok").then(String::new).or_else(|| line.strip_prefix("ok ").map(str::to_owned)))
}

fn garbage(line: &str) -> RigError {
    RigError::Garbage(line.chars().filter(|one| !one.is_control()).take(SHOWN).collect())
}
