//! Progress of a long command: one line when a stage begins and one when it ends, with its time.

use std::fs;
use std::thread;
use std::time::Instant;

use anyhow::{Context, Result, anyhow};

/// One stage: its name and what it does.
pub type Stage = (&'static str, fn() -> Result<()>);

/// Runs stages in order up to the first that fails.
pub fn run(stages: &[Stage]) -> Result<()> {
    stages.iter().try_for_each(|(name, work)| {
        let clock = Clock::start();
        println!("{name} …");
        work().with_context(|| format!("stage \"{name}\""))?;
        println!("{name}: done in {}", clock.read());
        Ok(())
    })
}

/// Runs two rows of stages at the same time, each up to its first failure. Seconds of the processors are those of both.
pub fn beside(one: &[Stage], other: &[Stage]) -> Result<()> {
    thread::scope(|scope| {
        let beside = scope.spawn(|| run(other));
        let outcome = run(one);
        outcome.and(beside.join().map_err(|_| anyhow!("a stage broke down"))?)
    })
}

/// Seconds on the wall, and of the processors.
pub struct Clock {
    wall: Instant,
    processors: f64,
}

impl Clock {
    /// Begins.
    pub fn start() -> Self {
        Self { wall: Instant::now(), processors: processor_seconds() }
    }

    /// What has passed, in words.
    pub fn read(&self) -> String {
        let processors = processor_seconds() - self.processors;
        format!("{:.1} s ({processors:.0} s of the processors)", self.wall.elapsed().as_secs_f64())
    }
}

/// What this process and the programs it has waited for have used, s; nothing where the system does not tell.
fn processor_seconds() -> f64 {
    let stat = fs::read_to_string("/proc/self/stat").unwrap_or_default();
    // The name of the program, in brackets, may hold anything. Behind it, in hundredths: own user and system time, then the children's.
    let behind = stat.rsplit(')').next().unwrap_or_default();
    let times = behind.split_whitespace().skip(11).take(4).filter_map(|time| time.parse::<f64>().ok());
    times.sum::<f64>() / 100.0
}

#[cfg(test)]
mod tests {
    use super::*;
    use std::sync::atomic::{AtomicUsize, Ordering};

    #[test]
    fn the_first_failure_stops_the_rest_and_names_its_stage() {
        static RUN: AtomicUsize = AtomicUsize::new(0);
        fn counted() -> Result<()> {
            RUN.fetch_add(1, Ordering::Relaxed);
            Ok(())
        }
        let stages: &[Stage] =
            &[("first", counted), ("second", || anyhow::bail!("broken")), ("third", counted)];
        let error = run(stages).expect_err("the second fails");
        assert_eq!(format!("{error:#}"), "stage \"second\": broken");
        assert_eq!(RUN.load(Ordering::Relaxed), 1);
    }

    #[test]
    fn what_runs_beside_is_waited_for_and_fails_the_whole() {
        static RUN: AtomicUsize = AtomicUsize::new(0);
        fn counted() -> Result<()> {
            RUN.fetch_add(1, Ordering::Relaxed);
            Ok(())
        }
        let bad: &[Stage] = &[("bad", || anyhow::bail!("broken"))];
        let good: &[Stage] = &[("good", counted), ("better", counted)];
        assert_eq!(format!("{:#}", beside(good, bad).expect_err("one fails")), "stage \"bad\": broken");
        assert_eq!(format!("{:#}", beside(bad, good).expect_err("the other fails")), "stage \"bad\": broken");
        assert_eq!(RUN.load(Ordering::Relaxed), 4);
    }

    #[test]
    fn what_a_child_uses_is_counted() {
        let before = processor_seconds();
        let busy = "i=0; while [ $i -lt 200000 ]; do i=$((i+1)); done";
        assert!(std::process::Command::new("sh").args(["-c", busy]).status().expect("runs").success());
        assert!(processor_seconds() > before);
    }
}
