//! Measuring, against drivers that the fit does not know. One program, so that it is built and linked once.

mod cabinet;
mod compare;
mod driver;
mod learned;
mod linear;
mod loopback;
mod process;
mod remedies;
mod rigs;
#[path = "../scoreboard/mod.rs"]
mod scoreboard;
mod sessions;
mod support;
mod sweep;
