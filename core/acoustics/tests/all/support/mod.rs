//! Random drivers and cabinets.
#![allow(dead_code)]

use oak_acoustics::driver::{
    Change, Coils, Driver, DriverArray, DualCoil, Isobaric, Sheet, SheetCoils, Wiring,
};
use oak_acoustics::element::End;
use oak_acoustics::enclosure::{
    Aperiodic, Bandpass4, Bandpass6, CompileError, Enclosure, FrontHorn, FrontPath, Line, Losses, Mouth,
    OpenBaffle, PassiveRadiator, Port, Ported, Radiator, Sealed, Setting, TappedHorn,
};
use oak_acoustics::medium::{Air, CrossSection, Fill, Frame};
use oak_acoustics::profile::{Flare, Profile, Segment};
use oak_acoustics::source::{Branch, Chain, Part, PartForm, Section, Source};
use oak_acoustics::starting_point::{self, StartingPoint};
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
    sheet.complete(&Air::reference()).expect("complete").driver
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
            sheet.complete(&Air::reference()).expect("complete").driver
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
        |(section, length, count, inner, outer)| Port {
            section,
            length: Some(length),
            count,
            inner,
            outer,
            path: 0.0,
            waist: 1.0,
            extra: 0.0,
        },
    );
    (0.005f64..0.5, any_losses(), proptest::collection::vec(port, 1..4))
        .prop_map(|(volume, losses, ports)| Ported { volume, losses, ports, tuning: None })
}

fn any_radiator() -> impl Strategy<Value = Radiator> {
    (0.02f64..1.0, 1e-4f64..3e-3, 0.1f64..8.0, 0.008f64..0.12, 1u32..5).prop_map(
        |(mass, compliance, resistance, area, count)| Radiator {
            mass,
            compliance,
            resistance,
            area,
            count,
            xmax: None,
        },
    )
}

/// Any driver changed, wired and paired in any way.
pub fn any_driver_array() -> impl Strategy<Value = DriverArray> {
    let coils = prop_oneof![
        Just(Coils::Series),
        Just(Coils::Parallel),
        Just(Coils::One),
        (0.0f64..20.0).prop_map(|resistance| Coils::OneLoaded { resistance }),
    ];
    let stated = prop_oneof![Just(SheetCoils::Series), Just(SheetCoils::Parallel)];
    let coils = proptest::option::of((stated, coils));
    let change = (0.0f64..0.1, 0.0f64..0.3, -10.0f64..150.0, coils).prop_map(
        |(added_mass, softening, coil_heat, coils)| Change {
            added_mass,
            softening,
            coil_heat,
            coils: coils.map_or(DualCoil::AsStated, |(stated, used)| DualCoil::Rewired { stated, used }),
        },
    );
    let isobaric = (any::<bool>(), proptest::option::of(1e-4f64..0.02))
        .prop_map(|(in_series, trapped)| Isobaric { in_series, trapped });
    (any_driver(), change, 1u32..4, 1u32..4, proptest::option::of(isobaric), 0.0f64..2.0).prop_map(
        |(driver, change, series, parallel, isobaric, series_resistance)| DriverArray {
            driver: change.apply(&driver),
            wiring: Wiring { series, parallel },
            isobaric,
            series_resistance: if series_resistance < 0.5 { 0.0 } else { series_resistance },
        },
    )
}

/// Any passive part.
fn any_part() -> impl Strategy<Value = Part> {
    let chain = (0.05f64..20.0, 0.0f64..0.02, proptest::option::of(1e-6f64..2e-3)).prop_map(
        |(resistance, inductance, capacitance)| {
            PartForm::Chain(Branch { resistance, inductance, capacitance })
        },
    );
    let trap = (1e-4f64..0.02, 0.05f64..2.0, 1e-6f64..1e-3, 0.0f64..0.2, proptest::option::of(1.0f64..30.0))
        .prop_map(|(inductance, coil_resistance, capacitance, capacitor_resistance, resistance)| {
            PartForm::Trap { inductance, coil_resistance, capacitance, capacitor_resistance, resistance }
        });
    (any::<bool>(), prop_oneof![chain, trap]).prop_map(|(in_series, form)| Part { in_series, form })
}

/// Any rational filter that stays a number on the axis.
fn any_filter() -> impl Strategy<Value = Section> {
    let three = || proptest::array::uniform3(0.2f64..3.0);
    (15.0f64..150.0, three(), three()).prop_map(|(frequency, numerator, denominator)| Section {
        frequency,
        numerator,
        denominator,
    })
}

/// Anything before the drivers: filters, an amplifier with a resistance of its own, passive parts.
pub fn any_source() -> impl Strategy<Value = Source> {
    let list = proptest::collection::vec(any_filter(), 0..4);
    let chain = (list, prop_oneof![-2.0f64..-0.3, 0.3f64..2.0], 0.0f64..0.01)
        .prop_map(|(sections, gain, delay)| Chain { sections, gain, delay, ..Chain::default() });
    let parts = proptest::collection::vec(any_part(), 0..4);
    (chain, prop_oneof![Just(0.0), 0.01f64..3.0], parts)
        .prop_map(|(chain, output_resistance, parts)| Source { chain, output_resistance, parts })
}

fn any_fill() -> impl Strategy<Value = Option<Fill>> {
    let frame = prop_oneof![Just(Frame::Rigid), Just(Frame::Limp)];
    proptest::option::of((2.0f64..60.0, frame).prop_map(|(density, frame)| Fill::polyester(density, frame)))
}

/// Any way that can be shaped.
pub fn any_profile() -> impl Strategy<Value = Profile> {
    let flare = prop_oneof![
        Just(Flare::Conical),
        Just(Flare::Exponential),
        (0.0f64..3.0).prop_map(|t| Flare::Hyperbolic { t }),
        Just(Flare::Tractrix),
        Just(Flare::Parabolic),
    ];
    let width = proptest::option::of(0.1f64..0.8);
    let segment = (flare, 0.1f64..2.0, 0.002f64..0.2, 0.002f64..0.2, width, any_fill()).prop_map(
        |(flare, length, start, end, width, fill)| {
            let fits = flare.check(length, start, end).is_ok();
            Segment { flare: if fits { flare } else { Flare::Conical }, length, start, end, width, fill }
        },
    );
    proptest::collection::vec(segment, 1..4).prop_map(|segments| Profile { segments })
}

fn any_line() -> impl Strategy<Value = Line> {
    let open = (any_mouth(), 0.0f64..1.0).prop_map(|(end, path)| Mouth::Open { end, path });
    let mouth = prop_oneof![open, any_ported().prop_map(|ported| Mouth::Ports(ported.ports))];
    let stub = proptest::option::of(any_profile().prop_map(|profile| profile.segments[0]));
    (
        any_profile(),
        0.0f64..0.9,
        proptest::option::of(any_sealed()),
        stub,
        proptest::option::of(any_end()),
        mouth,
    )
        .prop_map(|(profile, at, chamber, stub, inner, mouth)| {
            let driver_at = if at < 0.3 { 0.0 } else { at * profile.length() };
            Line { profile, driver_at, chamber, stub, inner, mouth }
        })
}

fn any_mouth() -> impl Strategy<Value = End> {
    prop_oneof![Just(End::Free), Just(End::Flanged), Just(End::Mouth)]
}

/// Any cabinet of any family.
pub fn any_enclosure() -> impl Strategy<Value = Enclosure> {
    let radiators = (any_sealed(), any_radiator()).prop_map(|(Sealed { volume, losses }, radiator)| {
        Enclosure::PassiveRadiator(PassiveRadiator { volume, losses, radiator })
    });
    let path = prop_oneof![Just(FrontPath::Parallel), Just(FrontPath::Series)];
    let front_horn = (any_sealed(), proptest::option::of(any_sealed()), any_profile(), any_mouth()).prop_map(
        |(rear, throat, profile, mouth)| Enclosure::FrontHorn(FrontHorn { rear, throat, profile, mouth }),
    );
    let tapped = (any_profile(), 0.0f64..0.4, 0.5f64..0.95, any_mouth()).prop_map(
        |(profile, first, second, mouth)| {
            let taps = [first, second].map(|part| part * profile.length());
            Enclosure::TappedHorn(TappedHorn { profile, taps, mouth })
        },
    );
    prop_oneof![
        Just(Enclosure::InfiniteBaffle),
        (0.05f64..2.0).prop_map(|path| Enclosure::OpenBaffle(OpenBaffle { path })),
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
        any_line().prop_map(Enclosure::Line),
        front_horn,
        tapped,
    ]
    // A slit that is all friction has no tuning, which is refused.
    .prop_filter("it can be tuned", |enclosure| {
        let compiled = enclosure.compile(&Setting::new(woofer(), Air::reference()));
        !matches!(compiled, Err(CompileError::Untunable { .. }))
    })
}

/// The starting points of every family.
pub fn every_family() -> [(&'static str, &'static [StartingPoint]); 15] {
    [
        ("sealed", starting_point::SEALED),
        ("aperiodic", starting_point::APERIODIC),
        ("ported", starting_point::PORTED),
        ("passive radiator", starting_point::PASSIVE_RADIATOR),
        ("bandpass 4", starting_point::BANDPASS4),
        ("bandpass 6 parallel", starting_point::BANDPASS6_PARALLEL),
        ("bandpass 6 series", starting_point::BANDPASS6_SERIES),
        ("line", starting_point::LINE),
        ("mass-loaded line", starting_point::MASS_LOADED_LINE),
        ("back horn", starting_point::BACK_HORN),
        ("front horn", starting_point::FRONT_HORN),
        ("tapped horn", starting_point::TAPPED_HORN),
        ("slot and flare", starting_point::SLOT_FLARE),
        ("open baffle", starting_point::OPEN_BAFFLE),
        ("infinite baffle", starting_point::INFINITE_BAFFLE),
    ]
}
