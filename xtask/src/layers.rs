//! Which folder may use which. Crates guard themselves; this guards the folders inside them.

use std::fs;
use std::path::Path;

use anyhow::{Result, ensure};

use crate::command;
use crate::imports::{self, gather};

/// A folder and the texts its files must not hold.
struct Rule {
    folder: &'static str,
    without: &'static [&'static str],
}

/// What is not checked by the compiler stands in one file.
const UNSAFE: &str = "allow(unsafe_code)";
const UNSAFE_IN: &str = "core/acoustics/src/lanes/avx2.rs";

const RULES: &[Rule] = &[
    Rule { folder: "server/src", without: &[UNSAFE] },
    Rule { folder: "cluster/src", without: &[UNSAFE] },
    Rule { folder: "cli/src", without: &[UNSAFE] },
    Rule { folder: "core", without: &["std::fs", "std::net", "std::env", "println!", "eprintln!", UNSAFE] },
    Rule {
        folder: "core/acoustics/src/medium",
        without: &["::driver", "::element", "::network", "::solve", "::enclosure", "::response"],
    },
    Rule {
        folder: "core/acoustics/src/driver",
        without: &["::element", "::network", "::solve", "::enclosure", "::response"],
    },
    Rule {
        folder: "core/acoustics/src/element",
        without: &["::network", "::solve", "::enclosure", "::response"],
    },
    Rule {
        folder: "core/acoustics/src/cavity",
        without: &["::network", "::solve", "::enclosure", "::response"],
    },
    Rule {
        folder: "core/cabinetry/src/geometry",
        without: &["::body", "::build", "::place", "::panel", "::drawing"],
    },
    Rule { folder: "core/cabinetry/src/place", without: &["::panel", "::drawing"] },
    Rule { folder: "core/cabinetry/src/panel", without: &["::drawing"] },
    Rule { folder: "core/acoustics/src/network", without: &["::solve", "::enclosure", "::response"] },
    Rule {
        folder: "core/acoustics/src/profile",
        without: &["::network", "::solve", "::enclosure", "::response", "::starting_point"],
    },
    Rule { folder: "core/acoustics/src/solve", without: &["::enclosure", "::response", "::starting_point"] },
    // A line's tuning is found by solving what lies behind the drivers.
    Rule { folder: "core/acoustics/src/enclosure", without: &["::response", "::starting_point"] },
    Rule { folder: "core/acoustics/src/response", without: &["::enclosure", "::starting_point"] },
    Rule { folder: "core/design/src/file", without: &["::resolve", "::report", "::exchange"] },
    Rule { folder: "core/design/src/resolve", without: &["::report", "::exchange"] },
    // A rule judges what was computed; it computes nothing.
    Rule { folder: "core/planning/src/check", without: &["Response::of", "Figures::of", "::starting_point"] },
    Rule { folder: "server/src/db", without: &["crate::routes", "actix_web::Http"] },
    Rule {
        folder: "web/src/model",
        without: &[
            "react",
            "../api/client",
            "../api/queries",
            "../api/remote",
            "../api/simulator",
            "../actions/",
            "../features/",
            "../lanes/",
            "../section/",
            "../ui/",
            "fetch(",
        ],
    },
    Rule { folder: "web/src/lanes", without: &["../features/", "../actions/"] },
    Rule { folder: "web/src/section", without: &["../features/", "../actions/"] },
    Rule { folder: "web/src/ui", without: &["../features/", "../actions/", "../lanes/", "../section/"] },
];

/// Checks every rule and names each breach.
pub fn run() -> Result<()> {
    let mut breaches = Vec::new();
    for rule in RULES {
        let mut files = Vec::new();
        gather(&command::root().join(rule.folder), &mut files)?;
        ensure!(!files.is_empty(), "the layer rule for {} guards nothing", rule.folder);
        for file in files {
            breaches.extend(breaches_in(&file, rule)?);
        }
    }
    breaches.extend(circles()?);
    ensure!(breaches.is_empty(), "layers are broken:\n{}", breaches.join("\n"));
    Ok(())
}

/// Every circle of files, and of folders.
fn circles() -> Result<Vec<String>> {
    let files = imports::read(&command::root())?;
    let folders = imports::by_folder(&files);
    let found = imports::circles(&files).into_iter().chain(imports::circles(&folders));
    Ok(found.map(|circle| format!("a circle: {}", circle.join(", "))).collect())
}

fn breaches_in(file: &Path, rule: &Rule) -> Result<Vec<String>> {
    let text = fs::read_to_string(file)?;
    let place = file.strip_prefix(command::root()).unwrap_or(file).display().to_string();
    let code = text.lines().enumerate().filter(|(_, line)| !line.trim_start().starts_with("//"));
    Ok(code
        .flat_map(|(number, line)| {
            let place = &place;
            let excused = move |word: &str| word == UNSAFE && place == UNSAFE_IN;
            let found = rule.without.iter().filter(move |word| line.contains(**word) && !excused(word));
            found.map(move |word| format!("{place}:{}: {word} has no place in {}", number + 1, rule.folder))
        })
        .collect())
}

#[cfg(test)]
mod tests {
    use super::*;

    fn breaches(text: &str, rule: &Rule) -> Vec<String> {
        static COUNT: std::sync::atomic::AtomicUsize = std::sync::atomic::AtomicUsize::new(0);
        let number = COUNT.fetch_add(1, std::sync::atomic::Ordering::Relaxed);
        let file = std::env::temp_dir().join(format!("oak-drum-layer-{}-{number}.rs", std::process::id()));
        fs::write(&file, text).expect("written");
        let found = breaches_in(&file, rule).expect("read");
        fs::remove_file(&file).expect("removed");
        found
    }

    const RULE: Rule = Rule { folder: "here", without: &["::enclosure", "std::fs"] };

    #[test]
    fn a_breach_is_named_with_its_line() {
        let found = breaches("use crate::medium::Air;\nuse crate::enclosure::Sealed;\n", &RULE);
        assert_eq!(found.len(), 1);
        assert!(found[0].contains(":2: ::enclosure has no place in here"), "{}", found[0]);
    }

    #[test]
    fn comments_may_name_what_code_may_not() {
        assert!(breaches("// see crate::enclosure\n/// and std::fs\n", &RULE).is_empty());
    }

    #[test]
    fn every_rule_guards_something_and_the_project_keeps_them() {
        run().expect("no breach");
    }
}
