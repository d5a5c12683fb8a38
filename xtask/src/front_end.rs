//! The front end's packages and its build.

use std::collections::hash_map::DefaultHasher;
use std::fs;
use std::hash::{Hash, Hasher};
use std::path::{Path, PathBuf};

use anyhow::{Context, Result};

use crate::command;

/// What the build is made of, besides the installed packages.
const SOURCES: [&str; 9] = [
    "src",
    "public",
    "index.html",
    "companion.html",
    "package.json",
    "package-lock.json",
    "tsconfig.json",
    "vite.config.ts",
    "vite.companion.config.ts",
];

/// Installs the packages of the lock file, where that has not been done for this lock file.
pub fn install() -> Result<()> {
    let web = command::root().join("web");
    let lock = fs::read_to_string(web.join("package-lock.json"))?;
    let stamp = web.join("node_modules/.installed-from-lock");
    if fs::read_to_string(&stamp).is_ok_and(|installed| installed == lock) {
        return Ok(());
    }
    npm(&["ci", "--silent", "--no-audit", "--no-fund"])?;
    fs::write(stamp, lock)?;
    Ok(())
}

/// Builds what the server serves, where that has not been done for these sources.
pub fn build() -> Result<()> {
    let web = command::root().join("web");
    let stamp = web.join("node_modules/.built-from");
    let now = fingerprint(&web)?;
    let built = fs::read_to_string(&stamp).is_ok_and(|before| before == now);
    if built && web.join("dist/index.html").exists() && web.join("dist-companion/companion.html").exists() {
        return Ok(());
    }
    npm(&["run", "--silent", "build"])?;
    fs::write(stamp, now)?;
    Ok(())
}

/// Runs a script that stands beside something else: what it says comes in one piece when it is done.
pub fn quietly(script: &str) -> Result<()> {
    command::run_quietly("npm", "web", &["run", "--silent", script])
}

/// Runs npm in the front end's folder.
fn npm(arguments: &[&str]) -> Result<()> {
    command::run("npm", "web", arguments)
}

/// Names and contents of all sources, as a number.
fn fingerprint(web: &Path) -> Result<String> {
    let mut hasher = DefaultHasher::new();
    for source in SOURCES {
        hash(&web.join(source), &mut hasher)?;
    }
    // Imported from beside the front end.
    hash(&command::root().join("demo/builds"), &mut hasher)?;
    Ok(format!("{:016x}", hasher.finish()))
}

fn hash(path: &Path, hasher: &mut DefaultHasher) -> Result<()> {
    path.hash(hasher);
    if path.is_dir() {
        let mut entries: Vec<PathBuf> =
            fs::read_dir(path)?.map(|entry| Ok(entry?.path())).collect::<std::io::Result<_>>()?;
        // A test changes nothing that is built.
        entries.retain(|entry| !entry.to_string_lossy().contains(".test."));
        entries.sort();
        return entries.iter().try_for_each(|entry| hash(entry, hasher));
    }
    fs::read(path).with_context(|| path.display().to_string())?.hash(hasher);
    Ok(())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_changed_source_changes_the_fingerprint() {
        let folder = std::env::temp_dir().join(format!("oak-drum-sources-{}", std::process::id()));
        fs::create_dir_all(&folder).expect("a folder");
        let of = |text: &str| {
            fs::write(folder.join("one.ts"), text).expect("written");
            let mut hasher = DefaultHasher::new();
            hash(&folder, &mut hasher).expect("read");
            hasher.finish()
        };
        let first = of("a");
        fs::write(folder.join("one.test.ts"), "a test").expect("written");
        let (again, other) = (of("a"), of("b"));
        fs::remove_dir_all(&folder).expect("removed");
        assert!(first == again && first != other);
    }
}
