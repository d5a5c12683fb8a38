//! Designs: files, boxes settled with them, reports. One program, so that it is built and linked once.

mod as_built;
mod built;
mod cabinet;
mod data_sheets;
mod documents;
mod drivers;
mod files;
mod fill;
mod fuzz;
mod kits;
mod model;
mod motion;
mod signal;
mod support;
mod tables;
mod trace_text;
