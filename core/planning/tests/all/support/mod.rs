//! What several tests of plans use.
#![allow(dead_code)]

pub mod recommended;
pub mod remedies;
pub mod workshop;

use oak_design::exchange::{ImportAsk, read_drivers};
use oak_design::file::{RawBuild, RawDriver, open_build};

const DRIVERS: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo/drivers.csv");
const BUILDS: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo/builds");

/// The drivers of the demo.
pub fn demo_drivers() -> Vec<RawDriver> {
    read_drivers(&std::fs::read(DRIVERS).expect("file"), &ImportAsk::default()).expect("a table").0
}

/// The builds of the demo, in the order of their files.
pub fn demo_builds() -> Vec<RawBuild> {
    let mut paths: Vec<_> =
        std::fs::read_dir(BUILDS).expect("demo").map(|entry| entry.expect("entry").path()).collect();
    paths.sort();
    paths.iter().map(|path| open_build(&std::fs::read(path).expect("file")).expect("a build")).collect()
}

/// One of them.
pub fn demo_build(name: &str) -> RawBuild {
    demo_builds().into_iter().find(|build| build.name == name).expect("in the demo")
}
