//! Tests of what comes before the drivers and after the box.

mod biquads;
mod filters;
mod passive;
