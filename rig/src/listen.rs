//! The measuring box on a socket.
//!
//! A line of text is a command, a line or several the answer; words are parted by spaces, numbers have a point. Every answer ends with a line that begins with `ok` or `error`.
//!
//! | command | answer |
//! |---|---|
//! | `identify` | `ok oak-rig 1 NAME` |
//! | `room` | `ok DEGREES`: by its thermometer, degC |
//! | `setup KIND [mass_g=G]` | `ok`; kinds as in a session folder |
//! | `range LOW HIGH` | `ok`; Hz |
//! | `points COUNT` | `ok` |
//! | `arm` | `ok`, or what is wrong with the leads |
//! | `sweep` | `progress PERCENT` now and then, then `ok` |
//! | `read` | `point FREQUENCY SIZE PHASE` for each, then `ok COUNT` |
//! | `abort` | `ok`; ends a sweep that runs |
//! | `act seal`, `act cut MM`, `act block L`, `act swap`, `act break_in`, `act bypass`, `act reset` | `ok`: what a builder would do to the cabinet |
//! | `fault none`, `unplugged`, `clipping`, `silent`, `garbage` | `ok`: what goes wrong from now on |
//!
//! Errors are `error CODE WORDS` with the codes `unknown`, `range`, `unplugged`, `clipping`, `not_armed`, `not_swept`, `aborted`.

use std::io::{BufRead, BufReader, ErrorKind, Write};
use std::net::{TcpListener, TcpStream};
use std::sync::{Arc, Mutex, PoisonError};
use std::time::{Duration, Instant};

use crate::measure::Wired;
use crate::scenario::{Act, Bench};

/// What goes wrong.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq)]
enum Fault {
    #[default]
    None,
    Unplugged,
    Clipping,
    Silent,
    Garbage,
}

/// What all connections share.
#[derive(Debug)]
struct Shared {
    bench: Bench,
    first: Bench,
    fault: Fault,
    swept: u64,
}

/// How long a sweep lasts, and how often it tells how far it is.
const SWEEP: Duration = Duration::from_secs(4);
const TELL: Duration = Duration::from_millis(100);
/// Longest command, bytes.
const LONGEST: usize = 200;
const MOST_POINTS: u32 = 2000;

/// One connection.
struct Session {
    shared: Arc<Mutex<Shared>>,
    wired: Wired,
    range: [f64; 2],
    points: u32,
    armed: bool,
    found: Option<Vec<[f64; 3]>>,
    quicker: f64,
}

/// Answers on a listener for ever, sweeping so many times quicker than a real one.
///
/// # Errors
/// The socket.
pub fn listen(listener: &TcpListener, bench: Bench, quicker: f64) -> std::io::Result<()> {
    let shared = Arc::new(Mutex::new(Shared { first: bench.clone(), bench, fault: Fault::None, swept: 0 }));
    for stream in listener.incoming() {
        let mut session = Session {
            shared: Arc::clone(&shared),
            wired: Wired::Boxed(false),
            range: [8.0, 800.0],
            points: 400,
            armed: false,
            found: None,
            quicker,
        };
        let stream = stream?;
        std::thread::spawn(move || {
            // Whoever hangs up has heard enough.
            let _ = session.serve(&stream);
        });
    }
    Ok(())
}

/// Why a command is not carried out: a code and words.
type Refused = (&'static str, String);

impl Session {
    fn serve(&mut self, stream: &TcpStream) -> std::io::Result<()> {
        stream.set_nodelay(true)?;
        let mut reader = BufReader::new(stream.try_clone()?);
        let mut writer = stream.try_clone()?;
        loop {
            stream.set_read_timeout(None)?;
            let Some(line) = line_of(&mut reader)? else { return Ok(()) };
            let words: Vec<&str> = line.split_whitespace().collect();
            if words.first() == Some(&"sweep") {
                self.sweep(stream, &mut reader, &mut writer)?;
                continue;
            }
            if words.first() == Some(&"quit") {
                return Ok(());
            }
            let answer = match self.answer(&words) {
                Ok(answer) => answer,
                Err((code, words)) => format!("error {code} {words}\n"),
            };
            writer.write_all(answer.as_bytes())?;
        }
    }

    fn with<T>(&self, work: impl FnOnce(&mut Shared) -> T) -> T {
        work(&mut self.shared.lock().unwrap_or_else(PoisonError::into_inner))
    }

    fn answer(&mut self, words: &[&str]) -> Result<String, Refused> {
        match *words {
            ["identify"] => Ok(format!("ok oak-rig 1 {}\n", self.with(|shared| shared.bench.name.clone()))),
            ["room"] => Ok(format!("ok {:.1}\n", self.with(|shared| shared.bench.celsius))),
            ["setup", kind, ref rest @ ..] => self.setup(kind, rest),
            ["range", low, high] => {
                let [low, high] = [number(low, 1.0, 20_000.0)?, number(high, 1.0, 20_000.0)?];
                if high <= low {
                    return Err(("range", "the second frequency is over the first".to_owned()));
                }
                self.range = [low, high];
                Ok("ok\n".to_owned())
            }
            ["points", count] => {
                self.points = number(count, 2.0, f64::from(MOST_POINTS))? as u32;
                Ok("ok\n".to_owned())
            }
            ["arm"] => self.arm(),
            ["read"] => self.read(),
            ["abort"] => Ok("ok\n".to_owned()),
            ["act", ref what @ ..] => self.act(what),
            ["fault", what] => self.fail(what),
            _ => Err(("unknown", format!("there is no command \"{}\"", words.join(" ")))),
        }
    }

    fn setup(&mut self, kind: &str, rest: &[&str]) -> Result<String, Refused> {
        let mass = rest.iter().find_map(|word| word.strip_prefix("mass_g="));
        let mass = mass.map_or(Ok(0.0), |grams| number(grams, 0.1, 1000.0))? * 1e-3;
        let wired = Wired::named(kind, mass);
        let wired = wired.ok_or_else(|| ("unknown", format!("{kind} is nothing that can be connected")))?;
        let ports = self.with(|shared| shared.bench.cabinet.port.is_some());
        if !ports && matches!(wired, Wired::Port | Wired::Boxed(true)) {
            return Err(("range", "this box has no port".to_owned()));
        }
        (self.wired, self.armed, self.found) = (wired, false, None);
        Ok("ok\n".to_owned())
    }

    fn arm(&mut self) -> Result<String, Refused> {
        match self.with(|shared| shared.fault) {
            Fault::Unplugged => Err(("unplugged", "no current flows: a lead is off".to_owned())),
            _ => {
                self.armed = true;
                Ok("ok\n".to_owned())
            }
        }
    }

    fn read(&self) -> Result<String, Refused> {
        let found = self.found.as_ref().ok_or_else(|| ("not_swept", "nothing was swept yet".to_owned()))?;
        let garbage = self.with(|shared| shared.fault) == Fault::Garbage;
        let mut text = String::new();
        for (at, [frequency, size, phase]) in found.iter().enumerate() {
            if garbage && at == found.len() / 3 {
                text.push_str("po\u{fffd}nt 1;;\n");
            }
            text.push_str(&format!("point {frequency:.4} {size:.5} {phase:.3}\n"));
        }
        text.push_str(&format!("ok {}\n", found.len()));
        Ok(text)
    }

    fn act(&mut self, what: &[&str]) -> Result<String, Refused> {
        let act = match *what {
            ["seal"] => Act::Seal,
            ["cut", millimetres] => Act::Cut(number(millimetres, -500.0, 500.0)? * 1e-3),
            ["block", litres] => Act::Block(number(litres, -500.0, 500.0)? * 1e-3),
            ["swap"] => Act::Swap,
            ["break_in"] => Act::BreakIn,
            ["bypass"] => Act::Bypass,
            ["reset"] => {
                self.with(|shared| shared.bench = shared.first.clone());
                return Ok("ok\n".to_owned());
            }
            _ => {
                return Err((
                    "unknown",
                    "seal, cut, block, swap, break_in, bypass and reset can be done".to_owned(),
                ));
            }
        };
        self.with(|shared| shared.bench.change(act));
        Ok("ok\n".to_owned())
    }

    fn fail(&mut self, what: &str) -> Result<String, Refused> {
        let fault = match what {
            "none" => Fault::None,
            "unplugged" => Fault::Unplugged,
            "clipping" => Fault::Clipping,
            "silent" => Fault::Silent,
            "garbage" => Fault::Garbage,
            _ => {
                return Err((
                    "unknown",
                    "none, unplugged, clipping, silent and garbage can go wrong".to_owned(),
                ));
            }
        };
        self.with(|shared| shared.fault = fault);
        Ok("ok\n".to_owned())
    }

    /// Sweeps in real time; whatever is said meanwhile ends it.
    fn sweep(
        &mut self,
        stream: &TcpStream,
        reader: &mut BufReader<TcpStream>,
        writer: &mut TcpStream,
    ) -> std::io::Result<()> {
        if !self.armed {
            return writer.write_all(b"error not_armed it is not armed\n");
        }
        self.armed = false;
        let (fault, bench, seed) = self.with(|shared| {
            shared.swept += 1;
            (shared.fault, shared.bench.clone(), shared.swept)
        });
        let lasts = SWEEP.div_f64(self.quicker);
        let begun = Instant::now();
        while begun.elapsed() < lasts {
            let left = lasts.saturating_sub(begun.elapsed()).min(TELL);
            stream.set_read_timeout(Some(left.max(Duration::from_millis(1))))?;
            match line_of(reader) {
                Ok(Some(line)) if line.trim() == "abort" => {
                    writer.write_all(b"error aborted it was ended\nok\n")?;
                    return Ok(());
                }
                Ok(Some(_)) => {}
                Ok(None) => return Ok(()),
                Err(error) if matches!(error.kind(), ErrorKind::WouldBlock | ErrorKind::TimedOut) => {}
                Err(error) => return Err(error),
            }
            if fault != Fault::Silent {
                let percent = (100.0 * begun.elapsed().as_secs_f64() / lasts.as_secs_f64()).min(100.0);
                writer.write_all(format!("progress {percent:.0}\n").as_bytes())?;
            }
        }
        match fault {
            // It says nothing any more until somebody hangs up.
            Fault::Silent => {
                stream.set_read_timeout(None)?;
                while line_of(reader)?.is_some() {}
                Ok(())
            }
            Fault::Clipping => writer.write_all(b"error clipping the input is overdriven: turn it down\n"),
            Fault::None | Fault::Unplugged | Fault::Garbage => {
                self.found = Some(bench.sweep(self.wired, self.range, self.points, seed));
                writer.write_all(b"ok\n")
            }
        }
    }
}

/// The next line; nothing where the other side has hung up.
fn line_of(reader: &mut impl BufRead) -> std::io::Result<Option<String>> {
    let mut bytes = Vec::new();
    loop {
        let available = match reader.fill_buf() {
            Ok(available) => available,
            Err(error) if bytes.is_empty() => return Err(error),
            Err(error) if matches!(error.kind(), ErrorKind::WouldBlock | ErrorKind::TimedOut) => continue,
            Err(error) => return Err(error),
        };
        if available.is_empty() {
            return Ok(None);
        }
        let end = available.iter().position(|byte| *byte == b'\n');
        let taken = end.map_or(available.len(), |end| end + 1);
        bytes.extend_from_slice(&available[..taken]);
        reader.consume(taken);
        if bytes.len() > LONGEST {
            return Err(std::io::Error::new(ErrorKind::InvalidData, "a command is too long"));
        }
        if end.is_some() {
            return Ok(Some(String::from_utf8_lossy(&bytes).trim().to_owned()));
        }
    }
}

fn number(text: &str, low: f64, high: f64) -> Result<f64, Refused> {
    let value = text.parse::<f64>().ok().filter(|value| (low..=high).contains(value));
    value.ok_or_else(|| ("range", format!("{text} is not within {low} and {high}")))
}
