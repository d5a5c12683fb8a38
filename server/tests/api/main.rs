//! The API over HTTP, with a real server and a real database.

mod bad_input;
mod cabinet;
mod companion;
mod compute;
mod documents;
mod errors;
mod guards;
mod hostile;
mod library;
mod limits;
mod measure;
mod photo;
mod place;
mod plan;
mod signal;
#[path = "../support/mod.rs"]
mod support;
mod workbench;
mod workshop;
