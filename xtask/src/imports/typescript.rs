//! What each file of the front end takes from the others, types as well: who reads one must read the other. A part that is loaded when it is
//! wanted (`import()`) hangs on nothing.

use std::collections::BTreeSet;
use std::fs;
use std::path::{Component, Path, PathBuf};

use anyhow::Result;

use super::{Uses, gather};

/// What each file below a folder imports of the others.
pub fn read(root: &Path, folder: &str) -> Result<Uses> {
    let mut files = Vec::new();
    gather(&root.join(folder), &mut files)?;
    let name = |file: &Path| file.strip_prefix(root).unwrap_or(file).display().to_string();
    let all: BTreeSet<String> = files.iter().map(|file| name(file)).collect();
    let mut uses = Uses::new();
    for file in &files {
        let text = fs::read_to_string(file)?;
        let beside = Path::new(&name(file)).parent().unwrap_or(Path::new("")).to_owned();
        let found = imports(&text).into_iter().filter_map(|target| {
            let place = flat(&beside.join(target));
            let endings = [".ts", ".tsx", "/index.ts"].map(|ending| format!("{place}{ending}"));
            endings.into_iter().find(|one| all.contains(one))
        });
        uses.insert(name(file), found.collect());
    }
    Ok(uses)
}

/// A path without `.` and `..`.
fn flat(path: &Path) -> String {
    let mut found = PathBuf::new();
    for part in path.components() {
        match part {
            Component::ParentDir => {
                found.pop();
            }
            Component::CurDir => {}
            other => found.push(other),
        }
    }
    found.display().to_string()
}

/// The relative targets of all import and export declarations.
fn imports(text: &str) -> Vec<&str> {
    let mut found = Vec::new();
    for statement in text.split(';') {
        let statement = statement.trim_start();
        let begins = |word: &str| statement.lines().any(|line| line.starts_with(word));
        if !(begins("import ") || begins("export ")) {
            continue;
        }
        let Some((_, rest)) = statement.rsplit_once(" from '").or_else(|| statement.split_once("import '"))
        else {
            continue;
        };
        if let Some((target, _)) = rest.split_once('\'')
            && target.starts_with('.')
        {
            found.push(target);
        }
    }
    found
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn imports_are_read_in_all_their_forms() {
        let text = "// from './comment'\nimport a from './a';\nimport {\n  b,\n  type C,\n} from '../b';\n\
                    import type { D } from './d';\nimport './styles.css';\nimport x from 'react';\n\
                    export { e } from './e';\nconst f = lazy(() => import('./f'));\n";
        assert_eq!(imports(text), ["./a", "../b", "./d", "./styles.css", "./e"]);
        assert_eq!(flat(Path::new("web/src/a/../b/./c")), "web/src/b/c");
    }
}
