//! The open design and driver files.
//!
//! A file holds what was typed, units and all, and may be incomplete: the *raw* form in [`file`].
//! [`resolve`] turns it into the complete SI form that the core computes with, or returns every problem
//! at once, each with its place. [`report`] runs the computation and lays out the results;
//! [`motion`] shows what moves at one frequency; [`start`] makes designs to begin with; [`exchange`] reads and writes tables.

pub mod built;
pub mod cavity_check;
pub mod conditions;
pub mod document;
mod drive;
pub mod exchange;
pub mod field;
pub mod file;
pub mod glossary;
pub mod heard;
pub mod motion;
pub mod problem;
pub mod quantities;
pub mod report;
pub mod resolve;
pub mod schema;
pub mod start;
pub mod trace;
pub mod transient;
mod typed;
pub mod working;

pub use oak_acoustics::response;
pub use problem::{Problem, ProblemKind, Range};
