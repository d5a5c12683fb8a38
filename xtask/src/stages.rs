//! Progress of a long command, one line when a stage begins and one when it ends.

use std::time::Instant;

use anyhow::{Context, Result};

/// One stage: its name and what it does.
pub type Stage = (&'static str, fn() -> Result<()>);

/// Runs stages in order up to the first that fails.
pub fn run(stages: &[Stage]) -> Result<()> {
    let begun = Instant::now();
    for (number, (name, work)) in stages.iter().enumerate() {
        let place = format!("[{}/{}]", number + 1, stages.len());
        println!("{place} {name}");
        let stage_begun = Instant::now();
        work().with_context(|| format!("stage \"{name}\""))?;
        println!("{place} {name}: done in {} s", stage_begun.elapsed().as_secs());
    }
    println!("All passed in {} s", begun.elapsed().as_secs());
    Ok(())
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
}
