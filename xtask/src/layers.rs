//! Which folder may use which. Crates guard themselves; this guards the folders inside them.

use std::fs;
use std::path::Path;

use anyhow::{Context, Result, ensure};

use crate::command;
use crate::imports::{self, Uses, gather};
use crate::schema_names;

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
    // A rule judges what was computed; it computes nothing.
    Rule {
        folder: "core/planning/src/check",
        without: &["Response::of", "Figures::of", "oak_acoustics::starting_point"],
    },
    Rule { folder: "server/src/db", without: &["actix_web::Http"] },
    Rule { folder: "web/src/model", without: &["from 'react", "fetch("] },
];

/// A folder, and the folders and files of the same source that nothing in it uses.
struct Layer {
    folder: &'static str,
    below: &'static [&'static str],
}

const LAYERS: &[Layer] = &[
    Layer {
        folder: "core/acoustics/src/medium",
        below: &["driver", "element", "network", "solve", "enclosure", "response"],
    },
    Layer {
        folder: "core/acoustics/src/driver",
        below: &["element", "network", "solve", "enclosure", "response"],
    },
    Layer { folder: "core/acoustics/src/element", below: &["network", "solve", "enclosure", "response"] },
    Layer { folder: "core/acoustics/src/cavity", below: &["network", "solve", "enclosure", "response"] },
    Layer { folder: "core/acoustics/src/network", below: &["solve", "enclosure", "response"] },
    Layer {
        folder: "core/acoustics/src/profile",
        below: &["network", "solve", "enclosure", "response", "starting_point"],
    },
    Layer { folder: "core/acoustics/src/solve", below: &["enclosure", "response", "starting_point"] },
    // A line's tuning is found by solving what lies behind the drivers.
    Layer { folder: "core/acoustics/src/enclosure", below: &["response", "starting_point"] },
    Layer { folder: "core/acoustics/src/response", below: &["enclosure", "starting_point"] },
    Layer { folder: "core/cabinetry/src/geometry", below: &["body", "build", "place", "panel", "drawing"] },
    Layer { folder: "core/cabinetry/src/place", below: &["panel", "drawing"] },
    Layer { folder: "core/cabinetry/src/panel", below: &["drawing"] },
    Layer { folder: "core/design/src/file", below: &["resolve", "report", "exchange"] },
    Layer { folder: "core/design/src/resolve", below: &["report", "exchange"] },
    Layer { folder: "server/src/db", below: &["routes"] },
    Layer {
        folder: "web/src/model",
        below: &[
            "api/client",
            "api/documents",
            "api/queries",
            "api/simulator",
            "actions",
            "features",
            "lanes",
            "section",
            "scene",
            "ui",
        ],
    },
    Layer { folder: "web/src/lanes", below: &["features", "actions"] },
    Layer { folder: "web/src/section", below: &["features", "actions"] },
    Layer { folder: "web/src/scene", below: &["features", "actions", "lanes", "section"] },
    Layer { folder: "web/src/ui", below: &["features", "actions", "lanes", "section", "scene"] },
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
    let files = imports::read(&command::root())?;
    for layer in LAYERS {
        breaches.extend(upward(&files, layer)?);
    }
    breaches.extend(circles(&files));
    breaches.extend(schema_names::shared()?);
    ensure!(breaches.is_empty(), "layers are broken:\n{}", breaches.join("\n"));
    Ok(())
}

/// What a layer uses of those that it lies below.
fn upward(files: &Uses, Layer { folder, below }: &Layer) -> Result<Vec<String>> {
    let (source, _) = folder.split_once("/src/").context("a layer lies in a source")?;
    let within =
        |file: &str, place: &str| file.strip_prefix(place).is_some_and(|rest| rest.starts_with(['/', '.']));
    let mut breaches = Vec::new();
    for name in *below {
        let place = format!("{source}/src/{name}");
        let guards = |place: &str| files.keys().any(|file| within(file, place));
        ensure!(
            guards(folder) && guards(&place),
            "the layer rule of {folder} against {place} guards nothing"
        );
        for (file, used) in files.iter().filter(|(file, _)| within(file, folder)) {
            let up = used.iter().filter(|other| within(other, &place));
            breaches.extend(up.map(|other| format!("{file}: {other} has no place in {folder}")));
        }
    }
    Ok(breaches)
}

/// Every circle of files, and of folders.
fn circles(files: &Uses) -> Vec<String> {
    let found = imports::circles(files).into_iter().chain(imports::circles(&imports::by_folder(files)));
    found.map(|circle| format!("a circle: {}", circle.join(", "))).collect()
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
    fn what_a_layer_uses_of_those_above_it_is_named_by_its_real_import() {
        let one = |name: &str| name.to_owned();
        let uses = |names: &[&str]| names.iter().map(|name| one(name)).collect();
        let files = Uses::from([
            (one("core/x/src/low/a.rs"), uses(&["core/x/src/high/b.rs", "core/x/src/highest.rs"])),
            (one("core/x/src/high/b.rs"), uses(&["core/x/src/low/a.rs"])),
            (one("core/x/src/highest.rs"), uses(&[])),
        ]);
        let layer = Layer { folder: "core/x/src/low", below: &["high"] };
        let found = upward(&files, &layer).expect("a source");
        assert_eq!(found, ["core/x/src/low/a.rs: core/x/src/high/b.rs has no place in core/x/src/low"]);
        assert!(upward(&files, &Layer { folder: "core/x/src/low", below: &["gone"] }).is_err());
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
