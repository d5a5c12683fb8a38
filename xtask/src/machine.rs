//! What the machine must have, and how it gets it.

use std::path::Path;
use std::process::{Command, Stdio};

use anyhow::{Context, Result, bail, ensure};

use crate::command;

/// A Debian package and the file that shows it is there.
pub struct Package {
    name: &'static str,
    shown_by: &'static str,
}

/// The database server.
pub const POSTGRESQL: Package = Package { name: "postgresql", shown_by: "/usr/lib/postgresql" };
/// The database's client library, to link with.
pub const LIBPQ: Package = Package { name: "libpq-dev", shown_by: "/usr/include/postgresql/libpq-fe.h" };
/// The browser of the tests.
pub const CHROMIUM: Package =
    Package { name: "chromium-headless-shell", shown_by: "/usr/bin/chromium-headless-shell" };
/// The circuit simulator behind the reference results.
pub const NGSPICE: Package = Package { name: "ngspice", shown_by: "/usr/bin/ngspice" };

const OLDEST_NODE: u32 = 20;

impl Package {
    fn is_missing(&self) -> bool {
        !Path::new(self.shown_by).exists()
    }
}

/// Installs the packages that are missing.
///
/// # Errors
/// Where there are no rights to, or the package manager fails.
pub fn install(packages: &[Package]) -> Result<()> {
    let missing: Vec<_> = packages.iter().filter(|package| package.is_missing()).map(|p| p.name).collect();
    if missing.is_empty() {
        return Ok(());
    }
    let names = missing.join(" ");
    let by_hand = format!("install it by hand: apt-get install {names}");
    ensure!(
        succeeds("sh", &["-c", "command -v apt-get"]),
        "{names} is missing and this is not Debian; {by_hand}"
    );
    let sudo = !is_root();
    if sudo && !succeeds("sudo", &["-n", "true"]) && !succeeds("sudo", &["-v"]) {
        bail!("{names} is missing and there are no rights to install it (neither root nor sudo); {by_hand}");
    }
    println!("Installing {names} from Debian's packages");
    apt(sudo, &["update", "-qq"])?;
    let mut arguments = vec!["install", "-y", "-qq", "--no-install-recommends"];
    arguments.extend(&missing);
    apt(sudo, &arguments)?;
    let still: Vec<_> = packages.iter().filter(|package| package.is_missing()).map(|p| p.name).collect();
    ensure!(still.is_empty(), "{} is still missing after it was installed", still.join(" "));
    Ok(())
}

fn apt(sudo: bool, arguments: &[&str]) -> Result<()> {
    let mut command = Command::new(if sudo { "sudo" } else { "env" });
    command.args(["DEBIAN_FRONTEND=noninteractive", "apt-get"]).args(arguments).stdout(Stdio::null());
    command::finish(command)
}

fn is_root() -> bool {
    command::output("id", "", &["-u"]).is_ok_and(|id| id.trim() == "0")
}

fn succeeds(program: &str, arguments: &[&str]) -> bool {
    let status = Command::new(program).args(arguments).stdout(Stdio::null()).stderr(Stdio::null()).status();
    status.is_ok_and(|status| status.success())
}

/// Checks that Node.js is new enough.
///
/// # Errors
/// Where it is missing or too old.
pub fn check_node() -> Result<()> {
    let text = command::output("node", "", &["--version"])
        .with_context(|| format!("Node.js is missing; version {OLDEST_NODE} or newer is needed"))?;
    let major = text.trim().trim_start_matches('v').split('.').next().and_then(|major| major.parse().ok());
    ensure!(
        major.is_some_and(|major: u32| major >= OLDEST_NODE),
        "Node.js {} is too old; version {OLDEST_NODE} or newer is needed",
        text.trim()
    );
    command::output("npm", "", &["--version"]).context("npm, which comes with Node.js, is missing")?;
    Ok(())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_there_is_not_installed_again() {
        let present = Package { name: "no-such-package-at-all", shown_by: "/" };
        install(&[present]).expect("nothing to do");
    }
}
