//! The solver and its physics, by themselves and against references. One program, so that it is built and linked once.

mod cavity;
mod circuit_simulator;
mod circuits;
mod closed_form;
mod elements;
mod families;
mod invariants;
mod limits;
mod source;
mod starting_points;
mod support;
mod ways;
