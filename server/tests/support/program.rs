//! The real programs: server and worker, ended with the test.

use std::io::{BufRead, BufReader};
use std::process::{Child, Command, Stdio};

use super::{DEMO, Site};

/// A program of ours that is killed when it is dropped.
pub struct Program(Child);

impl Drop for Program {
    fn drop(&mut self) {
        let _ = self.0.kill();
        let _ = self.0.wait();
    }
}

impl Program {
    /// Starts the program with arguments and returns its first line.
    pub fn start(url: &str, arguments: &[&str]) -> (Self, String) {
        let mut child = Command::new(env!("CARGO_BIN_EXE_oak-drum-server"))
            .args(arguments)
            .env("OAK_DRUM_DATABASE_URL", url)
            .stdout(Stdio::piped())
            .stderr(Stdio::null())
            .spawn()
            .expect("starts");
        let mut line = String::new();
        BufReader::new(child.stdout.take().expect("stdout")).read_line(&mut line).expect("a line");
        (Self(child), line.trim().to_owned())
    }

    /// A worker of one thread.
    pub fn worker(url: &str) -> Self {
        Self::start(url, &["worker", "--threads", "1", "--lease", "1"]).0
    }

    /// A server with the demo and some threads for jobs.
    pub fn server(url: &str, threads: &str) -> (Self, Site) {
        let arguments = ["serve", "--port", "0", "--demo", DEMO, "--job-threads", threads, "--lease", "1"];
        let (program, line) = Self::start(url, &arguments);
        let address = line.strip_prefix("Oak Drum is at ").expect("an address").trim_end_matches('/');
        (program, Site::at(address))
    }

    /// Ends it the polite way; how it ended.
    pub fn terminate(mut self) -> std::process::ExitStatus {
        let id = self.0.id().to_string();
        assert!(Command::new("kill").args(["-TERM", &id]).status().expect("runs").success());
        self.0.wait().expect("ends")
    }

    /// Whether it has ended by itself within some seconds.
    pub fn ends_within(&mut self, seconds: u64) -> bool {
        let begun = std::time::Instant::now();
        while begun.elapsed().as_secs() < seconds {
            if self.0.try_wait().expect("asked").is_some() {
                return true;
            }
            std::thread::sleep(std::time::Duration::from_millis(50));
        }
        false
    }
}
