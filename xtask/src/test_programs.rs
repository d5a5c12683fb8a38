//! Cargo's test programs, several at a time. `cargo test` runs them one after another, and some wait most of their time for a
//! server or a database.

use std::path::{Path, PathBuf};
use std::process::Output;
use std::sync::Mutex;
use std::thread;

use anyhow::{Context, Result, anyhow, ensure};
use serde_json::Value;

use crate::command;

/// As many programs run at the same time.
const AT_ONCE: usize = 3;

/// A test program and the folder of its crate, where Cargo would run it.
#[derive(Debug, PartialEq)]
struct TestProgram {
    file: PathBuf,
    folder: PathBuf,
}

/// Builds what is missing and runs every test of the workspace; says what each program said when it ends.
///
/// # Errors
/// Every program that failed, by its name.
pub fn run() -> Result<()> {
    let arguments = ["test", "--quiet", "--workspace", "--no-run", "--message-format", "json"];
    let mut programs = listed(&command::output("cargo", "", &arguments)?)?;
    ensure!(!programs.is_empty(), "Cargo names no test program");
    // Those that wait come first: the others compute beside them.
    programs.sort_by_key(|program| program.folder.ends_with("server"));
    let failed = run_all(programs);
    ensure!(failed.is_empty(), "failed: {}", failed.join(", "));
    Ok(())
}

/// The test programs that Cargo's messages name, one JSON value a line.
fn listed(messages: &str) -> Result<Vec<TestProgram>> {
    let values = messages.lines().map(serde_json::from_str::<Value>).collect::<Result<Vec<_>, _>>()?;
    let tests = values.iter().filter(|value| value["profile"]["test"] == true);
    let program = |value: &Value| {
        let (file, manifest) = (value["executable"].as_str()?, value["manifest_path"].as_str()?);
        Some(TestProgram { file: file.into(), folder: Path::new(manifest).parent()?.to_owned() })
    };
    tests.map(|value| program(value).ok_or_else(|| anyhow!("no program in {value}"))).collect()
}

/// Runs all, the last first; returns the names of those that failed.
fn run_all(programs: Vec<TestProgram>) -> Vec<String> {
    let (waiting, failed) = (Mutex::new(programs), Mutex::new(Vec::new()));
    thread::scope(|scope| {
        for _ in 0..AT_ONCE {
            scope.spawn(|| {
                while let Some(program) = lock(&waiting).pop() {
                    if let Err(error) = program.run() {
                        println!("{error:#}");
                        lock(&failed).push(program.file.display().to_string());
                    }
                }
            });
        }
    });
    failed.into_inner().unwrap_or_else(std::sync::PoisonError::into_inner)
}

fn lock<T>(mutex: &Mutex<T>) -> std::sync::MutexGuard<'_, T> {
    mutex.lock().unwrap_or_else(std::sync::PoisonError::into_inner)
}

impl TestProgram {
    fn run(&self) -> Result<()> {
        let folder = self.folder.to_string_lossy();
        let mut command = command::program(&self.file.to_string_lossy(), &folder, &["--quiet"]);
        let Output { status, stdout, stderr } =
            command.output().with_context(|| format!("{} cannot be started", self.file.display()))?;
        let said = [stdout, stderr].map(|text| String::from_utf8_lossy(&text).into_owned()).concat();
        println!("{}{said}", self.file.display());
        ensure!(status.success(), "{} failed", self.file.display());
        Ok(())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn test_programs_and_their_folders_are_read_from_what_cargo_says() {
        let messages = r#"{"reason":"compiler-artifact","manifest_path":"/p/core/units/Cargo.toml","profile":{"test":false},"executable":null}
{"reason":"compiler-artifact","manifest_path":"/p/server/Cargo.toml","profile":{"test":true},"executable":"/p/target/jobs-1"}
{"reason":"build-finished","success":true}"#;
        let jobs = TestProgram { file: "/p/target/jobs-1".into(), folder: "/p/server".into() };
        assert_eq!(listed(messages).expect("read"), [jobs]);
        assert!(listed("no JSON").is_err());
    }

    #[test]
    fn every_program_that_fails_is_named_and_the_others_run() {
        let program = |name: &str| TestProgram { file: name.into(), folder: "/".into() };
        let mut failed =
            run_all(vec![program("true"), program("false"), program("true"), program("no-such-program")]);
        failed.sort();
        assert_eq!(failed, ["false", "no-such-program"]);
    }
}
