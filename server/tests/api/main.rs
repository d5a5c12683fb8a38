//! The API over HTTP, with a real server and a real database.

#[path = "../support/mod.rs"]
mod support;

mod bad_input;
mod cabinet;
mod documents;
mod guards;
mod hostile;
mod library;
mod limits;
mod workbench;
mod workshop;
