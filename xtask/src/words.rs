//! `cargo xtask words`: everything the program says, as one text to read: by crate and file what stands in its sources, then the front
//! end. Words stand beside the code that fills in their figures, so that they stay true; this is their catalogue.

use std::fs;

use anyhow::Result;
use proc_macro2::{TokenStream, TokenTree};
use syn::visit::{self, Visit};

use crate::command;
use crate::imports::gather;

/// Crates that speak: to screens, files, terminals.
const CRATES: &[&str] = &[
    "core/units",
    "core/acoustics",
    "core/cabinetry",
    "core/signal",
    "core/design",
    "core/metering",
    "core/planning",
    "core/book",
    "rig",
    "cluster",
    "server",
    "cli",
];

/// Prints all of it.
pub fn run() -> Result<()> {
    for folder in CRATES {
        println!("\n# {folder}");
        let source = command::root().join(folder).join("src");
        let mut files = Vec::new();
        gather(&source, &mut files)?;
        for file in files {
            let words = said(&fs::read_to_string(&file)?)?;
            if !words.is_empty() {
                println!("\n## {}", file.strip_prefix(&source)?.display());
            }
            for line in words {
                println!("{line}");
            }
        }
    }
    println!("\n# web");
    command::run("node", "web", &["words.mjs"])
}

/// The texts of a file that a person could read, in their order.
fn said(text: &str) -> Result<Vec<String>> {
    let mut words = Words::default();
    words.visit_file(&syn::parse_file(text)?);
    Ok(words.found)
}

#[derive(Default)]
struct Words {
    found: Vec<String>,
}

impl Words {
    fn take(&mut self, text: &str) {
        let text = text.split_whitespace().collect::<Vec<_>>().join(" ");
        let letters = text.chars().filter(|c| c.is_alphabetic()).count();
        let named = text.chars().next().is_some_and(char::is_uppercase) && letters > 2;
        let plain = !text.contains("::") && !text.starts_with("SELECT ") && !text.starts_with('/');
        if plain && letters > 2 && (text.contains(' ') || named) {
            self.found.push(text);
        }
    }

    fn tokens(&mut self, tokens: TokenStream) {
        for token in tokens {
            match token {
                TokenTree::Group(group) => self.tokens(group.stream()),
                TokenTree::Literal(literal) => {
                    if let Ok(text) = syn::parse_str::<syn::LitStr>(&literal.to_string()) {
                        self.take(&text.value());
                    }
                }
                _ => {}
            }
        }
    }
}

impl Visit<'_> for Words {
    // What only tests say is said to nobody.
    fn visit_item_mod(&mut self, item: &syn::ItemMod) {
        if item.ident != "tests" {
            visit::visit_item_mod(self, item);
        }
    }

    fn visit_attribute(&mut self, attribute: &syn::Attribute) {
        // Words of errors stand in an attribute.
        if attribute.path().is_ident("error")
            && let syn::Meta::List(list) = &attribute.meta
        {
            self.tokens(list.tokens.clone());
        }
    }

    fn visit_lit_str(&mut self, text: &syn::LitStr) {
        self.take(&text.value());
    }

    fn visit_macro(&mut self, invoked: &syn::Macro) {
        self.tokens(invoked.tokens.clone());
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_said_is_found_in_literals_macros_and_errors_and_nothing_else() {
        let text = r#"
            //! Not this.
            /// Nor this.
            #[error("no such {0} here")]
            struct Lost;
            fn f() -> String {
                let id = "ported";
                let name = "Sealed";
                format!("{id} is too \
                         long by {name}")
            }
            #[cfg(test)]
            mod tests { fn g() { panic!("not for readers"); } }
        "#;
        assert_eq!(said(text).expect("Rust"), ["no such {0} here", "Sealed", "{id} is too long by {name}"]);
    }
}
