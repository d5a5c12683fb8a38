//! The Oak Drum web server: REST under `/api/v1`, the interface beside it.
//!
//! Handlers are thin: they read, call the core or a query, and answer. [`error`] is the only place that
//! knows HTTP statuses, [`db`] the only one that knows SQL.

pub mod app;
mod assets;
mod body;
pub mod companion;
pub mod compute;
pub mod db;
pub mod demo;
pub mod error;
mod guard;
mod headers;
pub mod jobs;
pub mod photo;
pub mod rig;
mod routes;
pub mod state;
mod tag;

/// A search makes many small vectors, and takes about a tenth longer with the allocator of the system.
#[global_allocator]
static ALLOCATOR: mimalloc::MiMalloc = mimalloc::MiMalloc;
