//! Tests of what comes before the drivers and after the box.

mod biquads;
mod crossover;
mod energy;
mod filters;
mod helpers;
mod in_place;
mod passive;
mod room;
