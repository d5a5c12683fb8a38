//! The modules of a crate and what each uses of the others: `use` declarations and paths in code, followed through what is
//! handed on by `pub use` to the file where a name is defined.

use std::collections::{BTreeMap, BTreeSet};
use std::fs;
use std::path::Path;

use anyhow::{Context, Result};
use syn::visit::{self, Visit};
use syn::{Attribute, Item, UseTree, Visibility};

use super::{Uses, gather};

type Place = Vec<String>;

/// One file.
#[derive(Default)]
struct Module {
    file: String,
    /// Names that are defined here.
    items: BTreeSet<String>,
    /// Names that are handed on, with where they are from; `*` for all of a module.
    handed: Vec<(String, Place)>,
    /// What local names stand for.
    known: BTreeMap<String, Place>,
    /// Paths in code.
    paths: Vec<Place>,
}

/// What each file of a crate uses of its others.
pub fn read(root: &Path, krate: &str) -> Result<Uses> {
    let source = root.join(krate).join("src");
    let mut files = Vec::new();
    gather(&source, &mut files)?;
    let mut modules = BTreeMap::new();
    for file in files {
        let inside = file.strip_prefix(&source)?.with_extension("");
        let mut place: Place = inside.iter().map(|part| part.to_string_lossy().into_owned()).collect();
        if place.last().is_some_and(|last| matches!(last.as_str(), "mod" | "lib" | "main")) {
            place.pop();
        }
        let text = fs::read_to_string(&file)?;
        let name = file.strip_prefix(root)?.display().to_string();
        let module = parse(&text, name.clone()).with_context(|| name)?;
        // A library comes before the program beside it.
        modules.entry(place).or_insert(module);
    }
    Ok(uses(&modules))
}

fn parse(text: &str, file: String) -> Result<Module> {
    let parsed = syn::parse_file(text)?;
    let mut module = Module { file, ..Module::default() };
    for item in &parsed.items {
        module.take(item);
    }
    Ok(module)
}

/// Whether something is only there for tests.
fn of_tests(attributes: &[Attribute]) -> bool {
    attributes.iter().any(|attribute| {
        attribute.path().is_ident("cfg")
            && attribute.parse_args::<syn::Ident>().is_ok_and(|what| what == "test")
    })
}

impl Module {
    fn take(&mut self, item: &Item) {
        let (attributes, name) = match item {
            Item::Const(item) => (&item.attrs, Some(&item.ident)),
            Item::Enum(item) => (&item.attrs, Some(&item.ident)),
            Item::Fn(item) => (&item.attrs, Some(&item.sig.ident)),
            Item::Macro(item) => (&item.attrs, item.ident.as_ref()),
            Item::Static(item) => (&item.attrs, Some(&item.ident)),
            Item::Struct(item) => (&item.attrs, Some(&item.ident)),
            Item::Trait(item) => (&item.attrs, Some(&item.ident)),
            Item::Type(item) => (&item.attrs, Some(&item.ident)),
            Item::Impl(item) => (&item.attrs, None),
            Item::Use(item) => {
                if !of_tests(&item.attrs) {
                    let public = !matches!(item.vis, Visibility::Inherited);
                    self.declare(&item.tree, &mut Vec::new(), public);
                }
                return;
            }
            // A module within the file is part of it.
            Item::Mod(item) => {
                if !of_tests(&item.attrs) {
                    for inner in item.content.iter().flat_map(|(_, items)| items) {
                        self.take(inner);
                    }
                }
                return;
            }
            _ => return,
        };
        if of_tests(attributes) {
            return;
        }
        self.items.extend(name.map(ToString::to_string));
        self.visit_item(item);
    }

    fn declare(&mut self, tree: &UseTree, begun: &mut Place, public: bool) {
        match tree {
            UseTree::Path(path) => {
                begun.push(path.ident.to_string());
                self.declare(&path.tree, begun, public);
                begun.pop();
            }
            UseTree::Group(group) => {
                for inner in &group.items {
                    self.declare(inner, begun, public);
                }
            }
            UseTree::Name(name) => self.know(&name.ident.to_string(), &name.ident.to_string(), begun, public),
            UseTree::Rename(name) => {
                self.know(&name.ident.to_string(), &name.rename.to_string(), begun, public);
            }
            UseTree::Glob(_) => self.handed.push(("*".to_owned(), begun.clone())),
        }
    }

    fn know(&mut self, name: &str, local: &str, begun: &Place, public: bool) {
        let mut place = begun.clone();
        if name != "self" {
            place.push(name.to_owned());
        }
        let local =
            if local == "self" { begun.last().cloned().unwrap_or_default() } else { local.to_owned() };
        if public {
            self.handed.push((local.clone(), place.clone()));
        } else {
            self.paths.push(place.clone());
        }
        self.known.insert(local, place);
    }
}

impl Visit<'_> for Module {
    fn visit_path(&mut self, path: &syn::Path) {
        let place: Place = path.segments.iter().map(|segment| segment.ident.to_string()).collect();
        if place.len() > 1 {
            self.paths.push(place);
        }
        visit::visit_path(self, path);
    }

    fn visit_item_use(&mut self, item: &syn::ItemUse) {
        self.declare(&item.tree, &mut Vec::new(), false);
    }
}

fn uses(modules: &BTreeMap<Place, Module>) -> Uses {
    let each = modules.iter().map(|(place, module)| {
        let used = module
            .paths
            .iter()
            .filter_map(|path| defined(modules, place, path, 0))
            .filter(|other| *other != place)
            .map(|other| modules[other].file.clone());
        (module.file.clone(), used.collect())
    });
    each.collect()
}

/// The module that defines what a path leads to from a module; none outside the crate, and for a module as such.
fn defined<'a>(
    modules: &'a BTreeMap<Place, Module>,
    from: &'a Place,
    path: &[String],
    depth: u32,
) -> Option<&'a Place> {
    if depth > 8 {
        return None;
    }
    let (first, rest) = path.split_first()?;
    let begin: Place = match first.as_str() {
        "crate" => Vec::new(),
        "self" => from.clone(),
        "super" => from.split_last()?.1.to_vec(),
        name => {
            let child: Place = from.iter().cloned().chain([name.to_owned()]).collect();
            if modules.contains_key(&child) {
                child
            } else {
                let known = modules[from].known.get(name)?;
                if known.first().is_some_and(|first| first == name) {
                    return None;
                }
                let whole: Place = known.iter().chain(rest).cloned().collect();
                return defined(modules, from, &whole, depth + 1);
            }
        }
    };
    let (mut here, _) = modules.get_key_value(&begin)?;
    for (at, name) in rest.iter().enumerate() {
        if name == "super" {
            (here, _) = modules.get_key_value(here.split_last()?.1)?;
            continue;
        }
        let child: Place = here.iter().cloned().chain([name.clone()]).collect();
        if let Some((child, _)) = modules.get_key_value(&child) {
            here = child;
            continue;
        }
        let module = &modules[here];
        if module.items.contains(name) {
            return Some(here);
        }
        let all = module.handed.iter().filter(|(handed, _)| handed == name || handed == "*");
        let found = all.filter_map(|(handed, place)| {
            let rest: &[String] = if handed == "*" { &rest[at..] } else { &rest[at + 1..] };
            let whole: Place = place.iter().chain(rest).cloned().collect();
            defined(modules, here, &whole, depth + 1)
        });
        return found.into_iter().next().or(Some(here));
    }
    None
}

#[cfg(test)]
mod tests {
    use super::*;

    fn house(files: &[(&str, &str)]) -> Uses {
        let modules = files.iter().map(|(place, text)| {
            let steps = place.split('/').filter(|step| !step.is_empty());
            let module = parse(text, (*place).to_owned()).expect("Rust");
            (steps.map(str::to_owned).collect(), module)
        });
        uses(&modules.collect())
    }

    #[test]
    fn names_are_followed_to_the_file_that_defines_them() {
        let uses = house(&[
            ("", "mod a; mod b; pub use b::Deep;"),
            ("a", "use crate::Deep; use super::b; fn f(_: b::inner::Other) { let x = b::free(); }"),
            ("b", "mod inner; pub use inner::{Deep, Other}; pub fn free() {}"),
            ("b/inner", "pub struct Deep; pub struct Other;"),
        ]);
        assert_eq!(uses["a"].iter().collect::<Vec<_>>(), ["b", "b/inner"]);
        assert!(uses[""].is_empty() && uses["b"].is_empty(), "handing on is no use: {uses:?}");
    }

    #[test]
    fn what_a_child_takes_from_its_parent_and_tests_take_from_anywhere() {
        let uses = house(&[
            ("", "mod a;"),
            ("a", "mod inner; pub struct Own; fn f() { inner::g(); }"),
            ("a/inner", "use super::Own; pub fn g() {} #[cfg(test)] mod tests { use crate::a::inner; }"),
        ]);
        assert!(uses["a/inner"].contains("a") && uses["a"].contains("a/inner"), "{uses:?}");
    }
}
