//! Random drivers and cabinets.
#![allow(dead_code)]

use oak_acoustics::driver::{Driver, Sheet};
use oak_acoustics::element::End;
use oak_acoustics::enclosure::{
    Aperiodic, Bandpass4, Bandpass6, Enclosure, FrontPath, Losses, PassiveRadiator, Port, Ported, Radiator,
    Sealed,
};
use oak_acoustics::medium::{Air, CrossSection};
use proptest::prelude::*;

/// A 250 mm woofer without coil inductance.
pub fn woofer() -> Driver {
    let sheet = Sheet {
        re: Some(3.4),
        fs: Some(24.0),
        qms: Some(5.4),
        qes: Some(0.381),
        vas: Some(0.0633),
        sd: Some(0.0346),
        ..Sheet::default()
    };
    sheet.complete(&Air::reference()).expect("complete").0
}

/// Any driver that could be built.
pub fn any_driver() -> impl Strategy<Value = Driver> {
    (15.0f64..90.0, 0.15f64..1.4, 1.5f64..12.0, 2.0f64..12.0, 0.004f64..0.3, 0.008f64..0.15, 0.0f64..3e-3)
        .prop_map(|(fs, qes, qms, re, vas, sd, le)| {
            let sheet = Sheet {
                re: Some(re),
                le: Some(le),
                fs: Some(fs),
                qms: Some(qms),
                qes: Some(qes),
                vas: Some(vas),
                sd: Some(sd),
                xmax: Some(8e-3),
                ..Sheet::default()
            };
            sheet.complete(&Air::reference()).expect("complete").0
        })
}

pub fn any_end() -> impl Strategy<Value = End> {
    prop_oneof![Just(End::Free), Just(End::Flanged), (1u8..=3).prop_map(End::Walls)]
}

pub fn any_section() -> impl Strategy<Value = CrossSection> {
    prop_oneof![
        (0.01f64..0.12).prop_map(|radius| CrossSection::Round { radius }),
        (0.05f64..0.5, 0.004f64..0.08).prop_map(|(width, height)| CrossSection::Slot { width, height }),
    ]
}

pub fn any_losses() -> impl Strategy<Value = Losses> {
    (proptest::option::of(2.0f64..200.0), proptest::option::of(2.0f64..200.0))
        .prop_map(|(ql, qa)| Losses { ql, qa })
}

fn any_sealed() -> impl Strategy<Value = Sealed> {
    (0.002f64..0.5, any_losses()).prop_map(|(volume, losses)| Sealed { volume, losses })
}

fn any_ported() -> impl Strategy<Value = Ported> {
    let port = (any_section(), 0.02f64..1.5, 1u32..5, any_end(), any_end()).prop_map(
        |(section, length, count, inner, outer)| Port { section, length: Some(length), count, inner, outer },
    );
    (0.005f64..0.5, any_losses(), proptest::collection::vec(port, 1..4))
        .prop_map(|(volume, losses, ports)| Ported { volume, losses, ports, tuning: None })
}

fn any_radiator() -> impl Strategy<Value = Radiator> {
    (0.02f64..1.0, 1e-4f64..3e-3, 0.1f64..8.0, 0.008f64..0.12, 1u32..5).prop_map(
        |(mass, compliance, resistance, area, count)| Radiator { mass, compliance, resistance, area, count },
    )
}

/// Any cabinet of any family.
pub fn any_enclosure() -> impl Strategy<Value = Enclosure> {
    let radiators = (any_sealed(), any_radiator()).prop_map(|(Sealed { volume, losses }, radiator)| {
        Enclosure::PassiveRadiator(PassiveRadiator { volume, losses, radiator })
    });
    let path = prop_oneof![Just(FrontPath::Parallel), Just(FrontPath::Series)];
    prop_oneof![
        Just(Enclosure::InfiniteBaffle),
        any_sealed().prop_map(Enclosure::Sealed),
        (any_sealed(), 1e2f64..1e6)
            .prop_map(|(chamber, resistance)| Enclosure::Aperiodic(Aperiodic { chamber, resistance })),
        any_ported().prop_map(Enclosure::Ported),
        radiators,
        (any_sealed(), any_ported())
            .prop_map(|(rear, front)| Enclosure::Bandpass4(Bandpass4 { rear, front })),
        (any_ported(), any_ported(), path).prop_map(|(rear, front, path)| Enclosure::Bandpass6(Bandpass6 {
            rear,
            front,
            path
        })),
    ]
}
