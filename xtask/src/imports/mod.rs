//! Which file uses which, read from the sources, and the circles in that.

mod files;
mod rust;
mod typescript;

use std::collections::{BTreeMap, BTreeSet};
use std::path::Path;

use anyhow::Result;

pub use files::{Uses, gather};

/// Crates whose insides are read.
const CRATES: &[&str] = &[
    "core/units",
    "core/acoustics",
    "core/cabinetry",
    "core/design",
    "core/planning",
    "cluster",
    "server",
    "cli",
    "xtask",
];

/// Reads all crates and the front end below a root.
pub fn read(root: &Path) -> Result<Uses> {
    let mut uses = Uses::new();
    for folder in CRATES {
        uses.extend(rust::read(root, folder)?);
    }
    uses.extend(typescript::read(root, "web/src")?);
    Ok(uses)
}

/// The same between folders: of a crate or the front end what lies directly in its source, of the features each folder.
pub fn by_folder(uses: &Uses) -> Uses {
    let mut folders = Uses::new();
    for (file, used) in uses {
        let Some(from) = folder(file) else { continue };
        let others = used.iter().filter_map(|other| folder(other)).filter(|other| *other != from);
        folders.entry(from.clone()).or_default().extend(others);
    }
    folders
}

/// None for the file that only lists the others.
fn folder(file: &str) -> Option<String> {
    let (source, inside) = file.split_once("/src/")?;
    let deep = if inside.starts_with("features/") { 2 } else { 1 };
    let parts: Vec<&str> = inside.split('/').collect();
    let name = parts[..deep.min(parts.len())].join("/");
    let name = name.rsplit_once('.').map_or(name.as_str(), |(stem, _)| stem);
    (!matches!(name, "lib" | "main")).then(|| format!("{source}/src/{name}"))
}

/// Every circle, as those that are in it.
pub fn circles(uses: &Uses) -> Vec<Vec<String>> {
    let reach: BTreeMap<&str, BTreeSet<&str>> =
        uses.keys().map(|from| (from.as_str(), reached(uses, from))).collect();
    let mut told = BTreeSet::new();
    let mut found = Vec::new();
    for (from, far) in &reach {
        if told.contains(from) || !far.contains(from) {
            continue;
        }
        let circle: Vec<String> = far
            .iter()
            .filter(|other| reach.get(**other).is_some_and(|back| back.contains(from)))
            .map(|other| (*other).to_owned())
            .collect();
        told.extend(far.iter().filter(|other| circle.iter().any(|one| one == **other)).copied());
        found.push(circle);
    }
    found
}

/// Everything that is used from a file on.
fn reached<'a>(uses: &'a Uses, from: &str) -> BTreeSet<&'a str> {
    let mut found = BTreeSet::new();
    let mut left: Vec<&str> = uses.get(from).into_iter().flatten().map(String::as_str).collect();
    while let Some(next) = left.pop() {
        if let Some((name, used)) = uses.get_key_value(next)
            && found.insert(name.as_str())
        {
            left.extend(used.iter().map(String::as_str));
        }
    }
    found
}

#[cfg(test)]
mod tests {
    use super::*;

    fn uses(pairs: &[(&str, &[&str])]) -> Uses {
        let each = pairs.iter().map(|(from, used)| {
            ((*from).to_owned(), used.iter().map(|name| (*name).to_owned()).collect::<BTreeSet<_>>())
        });
        each.collect()
    }

    #[test]
    fn a_circle_is_found_with_those_in_it_alone() {
        let tree = uses(&[("a", &["b", "c"]), ("b", &["c"]), ("c", &[])]);
        assert!(circles(&tree).is_empty());
        let ring = uses(&[("a", &["b"]), ("b", &["c"]), ("c", &["b", "d"]), ("d", &[])]);
        assert_eq!(circles(&ring), [["b", "c"]]);
        assert_eq!(circles(&uses(&[("a", &["a"])])), [["a"]]);
    }

    #[test]
    fn folders_are_those_of_the_source_and_each_feature() {
        let files = uses(&[
            ("core/x/src/medium/air.rs", &["core/x/src/lanes.rs"]),
            ("core/x/src/lanes.rs", &["core/x/src/medium/mod.rs"]),
            ("core/x/src/lib.rs", &["core/x/src/lanes.rs"]),
            ("web/src/features/box/A.tsx", &["web/src/features/shell/B.tsx", "web/src/ui/C.tsx"]),
        ]);
        let folders = by_folder(&files);
        assert_eq!(circles(&folders), [["core/x/src/lanes", "core/x/src/medium"]]);
        assert_eq!(
            folders["web/src/features/box"].iter().collect::<Vec<_>>(),
            ["web/src/features/shell", "web/src/ui"]
        );
    }
}
