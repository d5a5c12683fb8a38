//! Names of the types that the API describes: of two with one name the description would hold but one.

use std::collections::BTreeMap;
use std::fs;

use anyhow::{Context, Result};
use syn::visit::{self, Visit};
use syn::{Attribute, Ident};

use crate::command;
use crate::imports::gather;

/// Each name that several types bear, with the files that they stand in.
pub fn shared() -> Result<Vec<String>> {
    let root = command::root();
    let mut files = Vec::new();
    for folder in ["core", "server/src"] {
        gather(&root.join(folder), &mut files)?;
    }
    let mut known: BTreeMap<String, Vec<String>> = BTreeMap::new();
    for file in files {
        let place = file.strip_prefix(&root).unwrap_or(&file).display().to_string();
        let text = fs::read_to_string(&file)?;
        for name in names(&text).with_context(|| place.clone())? {
            known.entry(name).or_default().push(place.clone());
        }
    }
    let several = known.into_iter().filter(|(_, places)| places.len() > 1);
    Ok(several
        .map(|(name, places)| {
            format!("{name} is described by {}: one would hide the other", places.join(", "))
        })
        .collect())
}

/// The names of a file's types that are described.
fn names(text: &str) -> Result<Vec<String>> {
    struct Found(Vec<String>);
    impl Found {
        fn take(&mut self, name: &Ident, attributes: &[Attribute]) {
            let mut described = false;
            for attribute in attributes.iter().filter(|attribute| attribute.path().is_ident("derive")) {
                // A derive that cannot be read is the compiler's to name.
                let _ = attribute.parse_nested_meta(|meta| {
                    described |= meta.path.segments.last().is_some_and(|last| last.ident == "ToSchema");
                    Ok(())
                });
            }
            if described {
                self.0.push(name.to_string());
            }
        }
    }
    impl<'ast> Visit<'ast> for Found {
        fn visit_item_struct(&mut self, item: &'ast syn::ItemStruct) {
            self.take(&item.ident, &item.attrs);
            visit::visit_item_struct(self, item);
        }
        fn visit_item_enum(&mut self, item: &'ast syn::ItemEnum) {
            self.take(&item.ident, &item.attrs);
            visit::visit_item_enum(self, item);
        }
    }
    let mut found = Found(Vec::new());
    found.visit_file(&syn::parse_file(text)?);
    Ok(found.0)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn types_that_are_described_are_found_and_others_not() {
        let text = "#[derive(Debug, ToSchema)] struct A; #[derive(utoipa::ToSchema)] enum B {} #[derive(Debug)] struct C;";
        assert_eq!(names(text).expect("Rust"), ["A", "B"]);
    }

    #[test]
    fn no_two_types_of_the_api_share_a_name() {
        assert_eq!(shared().expect("readable"), Vec::<String>::new());
    }
}
