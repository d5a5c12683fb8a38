//! The front end's packages and its build.

use std::fs;

use anyhow::Result;

use crate::command;

/// Installs the packages of the lock file, where that has not been done for this lock file.
pub fn install() -> Result<()> {
    let web = command::root().join("web");
    let lock = fs::read_to_string(web.join("package-lock.json"))?;
    let stamp = web.join("node_modules/.installed-from-lock");
    if fs::read_to_string(&stamp).is_ok_and(|installed| installed == lock) {
        return Ok(());
    }
    npm(&["ci", "--no-audit", "--no-fund"])?;
    fs::write(stamp, lock)?;
    Ok(())
}

/// Builds what the server embeds.
pub fn build() -> Result<()> {
    npm(&["run", "--silent", "build"])
}

/// Runs npm in the front end's folder.
pub fn npm(arguments: &[&str]) -> Result<()> {
    command::run("npm", "web", arguments)
}
