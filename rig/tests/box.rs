//! The measuring box as a program, spoken to as the server speaks to it.

use std::io::{BufRead, BufReader, Write};
use std::net::TcpStream;
use std::process::{Child, Command, Stdio};

struct Started {
    child: Child,
    address: String,
}

impl Drop for Started {
    fn drop(&mut self) {
        // It keeps nothing.
        let _ = self.child.kill();
        let _ = self.child.wait();
    }
}

fn start() -> Started {
    let scenario = concat!(env!("CARGO_MANIFEST_DIR"), "/../demo/rig/pit-organ.json");
    let mut child = Command::new(env!("CARGO_BIN_EXE_oak-rig"))
        .args([scenario, "0", "40"])
        .stdout(Stdio::piped())
        .spawn()
        .expect("a program");
    let mut line = String::new();
    BufReader::new(child.stdout.take().expect("its output")).read_line(&mut line).expect("a line");
    let address = line.split_whitespace().last().expect("an address").to_owned();
    Started { child, address }
}

struct Talk {
    reader: BufReader<TcpStream>,
    writer: TcpStream,
}

impl Talk {
    fn to(started: &Started) -> Self {
        let writer = TcpStream::connect(&started.address).expect("a connection");
        writer.set_read_timeout(Some(std::time::Duration::from_secs(20))).expect("a time-out");
        Self { reader: BufReader::new(writer.try_clone().expect("the same")), writer }
    }

    fn say(&mut self, command: &str) {
        self.writer.write_all(format!("{command}\n").as_bytes()).expect("said");
    }

    /// Lines up to the first that begins with `ok` or `error`.
    fn hear(&mut self) -> Vec<String> {
        let mut lines = Vec::new();
        loop {
            let mut line = String::new();
            assert_ne!(self.reader.read_line(&mut line).expect("a line"), 0, "it hung up after {lines:?}");
            lines.push(line.trim().to_owned());
            if line.starts_with("ok") || line.starts_with("error") {
                return lines;
            }
        }
    }

    fn ask(&mut self, command: &str) -> String {
        self.say(command);
        self.hear().pop().expect("an answer")
    }

    fn swept(&mut self) -> Vec<[f64; 3]> {
        assert_eq!(self.ask("arm"), "ok");
        self.say("sweep");
        assert_eq!(self.hear().pop().as_deref(), Some("ok"));
        self.say("read");
        let lines = self.hear();
        assert_eq!(lines.last().cloned(), Some(format!("ok {}", lines.len() - 1)));
        let point = |line: &String| {
            let numbers: Vec<f64> = line
                .strip_prefix("point ")
                .expect("a point")
                .split(' ')
                .map(|one| one.parse().expect("a number"))
                .collect();
            <[f64; 3]>::try_from(numbers).expect("three")
        };
        lines[..lines.len() - 1].iter().map(point).collect()
    }
}

/// Where the impedance dips between its two highest peaks, Hz.
fn dip(points: &[[f64; 3]]) -> f64 {
    let below = |top: f64| points.iter().filter(move |[f, ..]| *f < top);
    let [high, ..] = *points
        .iter()
        .filter(|[f, ..]| (24.0..60.0).contains(f))
        .max_by(|a, b| a[1].total_cmp(&b[1]))
        .expect("a peak");
    let [low, ..] = *below(22.0).max_by(|a, b| a[1].total_cmp(&b[1])).expect("a peak");
    let between = points.iter().filter(|[f, ..]| (low..high).contains(f));
    between.min_by(|a, b| a[1].total_cmp(&b[1])).expect("a dip")[0]
}

#[test]
fn a_box_is_swept_and_what_a_builder_does_to_it_shows() {
    let started = start();
    let mut talk = Talk::to(&started);
    assert_eq!(talk.ask("identify"), "ok oak-rig 1 Pit organ, first box");
    assert_eq!(talk.ask("room"), "ok 17.5");
    assert_eq!(talk.ask("setup impedance_box"), "ok");
    assert_eq!(talk.ask("range 10 200"), "ok");
    assert_eq!(talk.ask("points 500"), "ok");
    assert!(talk.ask("sweep").starts_with("error not_armed"));
    assert!(talk.ask("read").starts_with("error not_swept"));
    let before = talk.swept();
    assert_eq!(before.len(), 500);
    assert!((before[0][0] - 10.0).abs() < 1e-3 && (before[499][0] - 200.0).abs() < 1e-3);
    assert_eq!(talk.ask("act seal"), "ok");
    assert_eq!(talk.ask("act cut 60"), "ok");
    let after = talk.swept();
    assert!(dip(&after) > dip(&before) + 0.8, "{} after {}", dip(&after), dip(&before));
    assert_eq!(talk.ask("act reset"), "ok");
    let again = talk.swept();
    assert!((dip(&again) - dip(&before)).abs() < 0.3);
}

#[test]
fn what_goes_wrong_is_said_and_a_sweep_that_is_ended_gives_nothing() {
    let started = start();
    let mut talk = Talk::to(&started);
    assert_eq!(talk.ask("fault unplugged"), "ok");
    assert!(talk.ask("arm").starts_with("error unplugged"));
    assert_eq!(talk.ask("fault clipping"), "ok");
    assert_eq!(talk.ask("arm"), "ok");
    talk.say("sweep");
    assert!(talk.hear().pop().expect("an end").starts_with("error clipping"));
    assert_eq!(talk.ask("fault garbage"), "ok");
    assert_eq!(talk.ask("arm"), "ok");
    talk.say("sweep");
    talk.hear();
    talk.say("read");
    assert!(talk.hear().iter().any(|line| !line.starts_with("point ") && !line.starts_with("ok")));
    assert_eq!(talk.ask("fault none"), "ok");
    assert_eq!(talk.ask("arm"), "ok");
    talk.say("sweep\nabort");
    assert!(talk.hear().pop().expect("an end").starts_with("error aborted"));
    assert_eq!(talk.hear(), ["ok"]);
    for wrong in
        ["setup everything", "range 100 10", "range a b", "points 1", "act paint", "fault fire", "hello"]
    {
        assert!(talk.ask(wrong).starts_with("error "), "{wrong}");
    }
}
