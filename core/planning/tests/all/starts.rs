//! Starting points with every driver of the demo: they can be built as drawn.

use oak_acoustics::Stop;
use oak_design::file::{RawBrief, RawDesign, RawDriver, RawFamily, Typed};
use oak_design::resolve::{resolve_brief, resolve_design};
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

/// Offered in a place, a line or horn that goes in is the one that was asked for: one that does not fit is not made to by folding a good
/// part of its length away.
#[test]
fn a_way_that_fits_its_place_has_the_length_that_was_asked() {
    let drivers = demo_drivers();
    let place = |width: &str, height: &str, depth: &str| RawBrief {
        lowest: Some(Typed::from("38 Hz")),
        width: Some(Typed::from(width)),
        height: Some(Typed::from(height)),
        depth: Some(Typed::from(depth)),
        ..RawBrief::default()
    };
    let places = [
        place("620 mm", "420 mm", "360 mm"),
        place("90 cm", "60 cm", "45 cm"),
        place("1100 mm", "300 mm", "300 mm"),
    ];
    let families = [RawFamily::Line, RawFamily::MassLoadedLine, RawFamily::TappedHorn, RawFamily::BackHorn];
    let mut asks = Vec::new();
    for (family, brief) in
        families.into_iter().flat_map(|family| places.iter().map(move |brief| (family, brief)))
    {
        asks.extend(drivers.iter().map(|driver| (family, brief, driver)));
    }
    let found = asks.par_iter().flat_map(|(family, brief, driver)| {
        let ask = RawAsk { brief: Some((*brief).clone()), ..RawAsk::of((*driver).clone(), *family) };
        let offered = starts(&ask, &Stop::default()).unwrap_or_default();
        let designs: Vec<_> = offered.into_iter().filter_map(|start| start.design).collect();
        let told = designs.into_iter().filter_map(|design| {
            let built = resolve_design(&design).expect("resolves").built().expect("whole");
            let boxed = built.boxed.as_ref()?;
            let asked = boxed.contents.path.as_ref()?.length();
            let outside = built.outside()?;
            let most = resolve_brief(brief).expect("resolves").outside;
            let goes_in =
                most.into_iter().zip(outside).all(|(most, size)| most.is_none_or(|most| size <= most + 1e-3));
            let length = boxed.cabinet.fold.as_ref()?.length();
            Some((
                goes_in && built.forbids().is_empty(),
                format!("{}, {family:?}: {length:.2} for {asked:.2} m", driver.name),
                length / asked,
            ))
        });
        told.collect::<Vec<_>>()
    });
    let fitting: Vec<_> = found.collect::<Vec<_>>().into_iter().filter(|(fits, _, _)| *fits).collect();
    let off: Vec<_> = fitting.iter().filter(|(_, _, share)| !(0.9..1.1).contains(share)).collect();
    assert!(fitting.len() > 20, "{} fit", fitting.len());
    assert!(off.is_empty(), "{} of {}: {off:#?}", off.len(), fitting.len());
}
