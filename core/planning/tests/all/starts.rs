//! Starting points with every driver of the demo: they can be built as drawn.

use oak_acoustics::Stop;
use oak_design::file::{RawDesign, RawDriver, RawFamily, Typed};
use oak_design::resolve::resolve_design;
use oak_design::start::RawAsk;
use oak_planning::starts;
use rayon::prelude::*;

use crate::support::demo_drivers;

/// What forbids building each start that there is, with the driver's name.
fn forbidden(drivers: &[RawDriver], family: RawFamily) -> Vec<(String, Vec<String>)> {
    let of = |driver: &RawDriver| -> Vec<(String, Vec<String>)> {
        let found = starts(&RawAsk::of(driver.clone(), family), &Stop::default()).unwrap_or_default();
        let forbids =
            |design: RawDesign| resolve_design(&design).expect("resolves").built().expect("whole").forbids();
        let designs = found.into_iter().filter_map(|start| start.design);
        designs.map(|design| (driver.name.clone(), forbids(design))).collect()
    };
    drivers.par_iter().flat_map(of).collect()
}

/// A box around a driver of 46 cm with a stiff suspension, or a pipe as long as a room, is offered with the words that it cannot be built;
/// nearly everything else finds a shape in which it can.
#[test]
fn what_a_starting_point_offers_can_nearly_always_be_built() {
    let drivers = demo_drivers();
    for (family, most_unbuildable) in [
        (RawFamily::Sealed, 2),
        (RawFamily::Ported, 3),
        (RawFamily::PassiveRadiator, 2),
        (RawFamily::Aperiodic, 2),
        (RawFamily::Bandpass4, 2),
        (RawFamily::Bandpass6Parallel, 2),
        (RawFamily::Bandpass6Series, 8),
        (RawFamily::Line, 0),
        (RawFamily::MassLoadedLine, 0),
        (RawFamily::BackHorn, 0),
        (RawFamily::FrontHorn, 12),
        (RawFamily::TappedHorn, 0),
        (RawFamily::SlotFlare, 0),
    ] {
        let all = forbidden(&drivers, family);
        let bad: Vec<_> = all.iter().filter(|(_, why)| !why.is_empty()).collect();
        assert!(all.len() > 8, "{family:?}: {} starts", all.len());
        assert!(bad.len() <= most_unbuildable, "{family:?}: {} of {}: {bad:#?}", bad.len(), all.len());
    }
}

/// Where no note is asked for, a horn is no larger than can be moved, and says what a lower one would take.
#[test]
fn a_horn_that_nobody_asked_a_note_of_can_be_moved() {
    let drivers = demo_drivers();
    let mut larger = 0;
    for driver in &drivers {
        let ask = RawAsk::of(driver.clone(), RawFamily::FrontHorn);
        for start in starts(&ask, &Stop::default()).expect("starts") {
            let Some(design) = start.design else { continue };
            let air = resolve_design(&design).expect("resolves").air();
            assert!(air <= 0.81, "{}, {}: {:.0} l", driver.name, start.name, air * 1e3);
            larger += usize::from(start.reason.contains("near the driver's own resonance, would hold"));
        }
    }
    assert!(larger > 10, "{larger} say what a lower one would hold");
    // A note that is asked for is kept, whatever that takes.
    let drover = drivers.iter().find(|driver| driver.name == "Drover 380/8").expect("in the demo");
    let ask =
        RawAsk { lowest: Some(Typed::from("40 Hz")), ..RawAsk::of(drover.clone(), RawFamily::FrontHorn) };
    let start = starts(&ask, &Stop::default()).expect("starts").remove(0);
    assert!(start.reason.contains("cut-off 35 Hz"), "{}", start.reason);
}
