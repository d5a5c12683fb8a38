//! Loads the demo scenario, once.

use std::path::Path;

use anyhow::{Context, bail};
use diesel::Connection;
use diesel::pg::PgConnection;
use oak_design::exchange::read_driver_table;
use oak_design::file::open_build;
use uuid::Uuid;

use crate::db::queries::{build, driver, scenario};
use crate::error::ApiError;

/// Loads `drivers.csv` and `builds/*.json` of a folder through the same doors that imports take, unless
/// that was done before. Returns whether anything was loaded.
///
/// # Errors
/// An unreadable or wrong file, or the database; nothing is loaded then.
pub fn load(connection: &mut PgConnection, folder: &Path) -> anyhow::Result<bool> {
    let table = std::fs::read(folder.join("drivers.csv")).context("demo: drivers.csv")?;
    let (drivers, report) = read_driver_table(&table)?;
    if let Some(problem) = report.problems.first() {
        bail!("demo: drivers.csv, line {}: {} {}", problem.line, problem.field, problem.message);
    }
    let mut paths = std::fs::read_dir(folder.join("builds"))?
        .map(|entry| Ok(entry?.path()))
        .collect::<std::io::Result<Vec<_>>>()?;
    paths.sort();
    let mut builds = Vec::new();
    for path in paths {
        let text = std::fs::read(&path).with_context(|| path.display().to_string())?;
        builds.push(open_build(&text).map_err(|problem| anyhow::anyhow!("{}: {problem}", path.display()))?);
    }
    connection
        .transaction(|connection| {
            if !scenario::claim(connection, "demo")? {
                return Ok(false);
            }
            driver::add(connection, &drivers)?;
            for raw in builds {
                build::add(connection, Uuid::now_v7(), raw)?;
            }
            Ok::<bool, ApiError>(true)
        })
        .map_err(Into::into)
}
