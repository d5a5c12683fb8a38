//! Source files, and what each uses.

use std::collections::{BTreeMap, BTreeSet};
use std::fs;
use std::path::{Path, PathBuf};

use anyhow::Result;

/// Files by their place in the project, and those that each uses.
pub type Uses = BTreeMap<String, BTreeSet<String>>;

/// Source files below a folder; tests, benches and generated files may reach further.
pub fn gather(folder: &Path, files: &mut Vec<PathBuf>) -> Result<()> {
    for entry in fs::read_dir(folder)? {
        let path = entry?.path();
        let name = path.file_name().unwrap_or_default().to_string_lossy().into_owned();
        if path.is_dir() {
            if !matches!(name.as_str(), "tests" | "benches" | "examples" | "testing") {
                gather(&path, files)?;
            }
        } else if [".rs", ".ts", ".tsx"].iter().any(|end| name.ends_with(end))
            && !name.contains(".test.")
            && !name.ends_with(".d.ts")
        {
            files.push(path);
        }
    }
    files.sort();
    Ok(())
}
