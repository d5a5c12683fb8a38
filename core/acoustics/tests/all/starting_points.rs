//! Starting points against published alignments, and against what they claim.

use crate::support::{any_driver_array, every_family, woofer};
use oak_acoustics::driver::{Driver, DriverArray, Sheet, Wiring};
use oak_acoustics::enclosure::{Enclosure, Setting};
use oak_acoustics::medium::{Air, POLYESTER, fill_materials};
use oak_acoustics::response::{Figures, FrequencyGrid, Response};
use oak_acoustics::starting_point::{
    self, Ask, MAKER, Recommended, Start, StartingPoint, Wishes, butterworth, chebyshev, flat, keele,
    quasi_butterworth,
};
use proptest::prelude::*;

/// Nearly no leakage.
const LOSSLESS: f64 = 1e9;

fn driver(fs: f64, qts: f64, vas: f64, sd: f64) -> Driver {
    let qms = 6.0;
    let sheet = Sheet {
        re: Some(5.6),
        fs: Some(fs),
        qms: Some(qms),
        qts: Some(qts),
        vas: Some(vas),
        sd: Some(sd),
        xmax: Some(6e-3),
        ..Sheet::default()
    };
    sheet.complete(&Air::reference()).expect("complete").driver
}

fn ask(driver: Driver, wishes: Wishes) -> Ask {
    Ask::new(Setting::new(driver, Air::reference()), wishes)
}

fn start(starting_points: &[StartingPoint], id: &str, ask: &Ask) -> Result<Start, String> {
    let starting_point =
        starting_points.iter().find(|starting_point| starting_point.id == id).expect("a starting point");
    (starting_point.start)(ask).map_err(|refusal| refusal.0)
}

/// Thiele 1971, table I, alignments no. 5 to 7, and Small 1973 for QL 7.
#[test]
fn butterworth_and_chebyshev_alignments_are_those_of_thiele_and_small() {
    let b4 = butterworth(LOSSLESS);
    assert!((b4.qts - 0.3827).abs() < 2e-4 && (b4.h - 1.0).abs() < 1e-3, "{b4:?}");
    assert!((b4.alpha - std::f64::consts::SQRT_2).abs() < 2e-3, "{b4:?}");
    for (qts, alpha) in [(0.415, 1.055), (0.466, 0.729)] {
        let c4 = chebyshev(qts, LOSSLESS).expect("an alignment");
        assert!((c4.alpha - alpha).abs() < 0.01, "{c4:?}");
        assert!(c4.h < 1.0);
    }
    let leaky = butterworth(7.0);
    assert!((leaky.qts - 0.4048).abs() < 2e-4, "{leaky:?}");
    assert!((leaky.alpha - 1.0613).abs() < 3e-3, "{leaky:?}");
}

/// Thiele 1971: a lossless quasi-Butterworth box for Qts 0.30 (value from memory).
#[test]
fn a_quasi_butterworth_box_is_that_of_thiele() {
    let qb3 = quasi_butterworth(0.30, LOSSLESS).expect("an alignment");
    assert!((qb3.h - 1.235).abs() < 2e-3 && (qb3.alpha - 3.03).abs() < 0.01, "{qb3:?}");
}

/// Every alignment put into the solver as the textbook circuit is as flat as it claims.
#[test]
fn flat_boxes_are_flat_and_two_peaks_are_equal() {
    for qts in [0.25, 0.32, 0.40, 0.45, 0.5] {
        let (found, name) = flat(qts, 7.0).expect("an alignment");
        let magnitude = |x: f64| {
            let (a1, a3) = (
                (7.0 + found.h * qts) / (found.h.sqrt() * 7.0 * qts),
                (found.h * 7.0 + qts) / (found.h.sqrt() * 7.0 * qts),
            );
            let a2 = (found.h + (found.alpha + 1.0 + found.h * found.h) * 7.0 * qts) / (found.h * 7.0 * qts);
            let (re, im) = (x.powi(4) - a2 * x * x + 1.0, a3 * x - a1 * x.powi(3));
            20.0 * (x.powi(4) / re.hypot(im)).log10()
        };
        let peak = (0..800).map(|k| magnitude(0.4 * 1.01f64.powi(k))).fold(f64::MIN, f64::max);
        let most = if name == "QB3" { 0.01 } else { 4.0 };
        assert!(peak < most, "{name} for {qts}: {peak} dB");
        assert!(magnitude(40.0).abs() < 0.02);
    }
}

/// Keele 1974 (coefficients from memory) approximates the flat boxes for QL 7 within its usual tenth.
#[test]
fn keeles_rules_are_near_the_alignments() {
    for qts in [0.28, 0.32, 0.36, 0.40] {
        let (found, _) = flat(qts, 7.0).expect("an alignment");
        let [volume, fb, _] = keele(qts);
        assert!((fb / found.h - 1.0).abs() < 0.1, "{qts}: {fb} {}", found.h);
        assert!((volume * found.alpha).ln().abs() < 0.35, "{qts}: {volume} {}", 1.0 / found.alpha);
    }
}

/// The level at Fc over the piston level is Qtc (Small 1972), in the solved network too.
#[test]
fn a_closed_box_has_the_qtc_that_was_asked_for() {
    let ask = ask(woofer(), Wishes::default());
    for (id, qtc) in [("butterworth", 0.707), ("bessel", 0.577), ("critical", 0.5), ("chebyshev", 1.0)] {
        let start = start(starting_point::SEALED, id, &ask).expect("a box");
        let compiled = start.enclosure.compile(&ask.setting).expect("compiles");
        let closed = compiled.closed_box.expect("sealed");
        let grid = FrequencyGrid::logarithmic(closed.fc, closed.fc * 1.01, 2).expect("grid");
        let level = Response::levels(&compiled.network, &grid, 2.83)[0];
        let gain = 10f64.powf((level - compiled.network.piston_level(2.83)) / 20.0);
        assert!((gain / qtc - 1.0).abs() < 0.04, "{id}: {gain}");
        assert!(start.reason.contains(&format!("{qtc:.2}")), "{}", start.reason);
    }
}

#[test]
fn a_wish_for_the_lowest_note_is_met_or_refused() {
    let wishes = Wishes { lowest: Some(32.7), volume: None };
    let ask = ask(driver(28.0, 0.38, 0.12, 0.05), wishes);
    let found = start(starting_point::PORTED, "lowest_note", &ask).expect("a box");
    let compiled = found.enclosure.compile(&ask.setting).expect("compiles");
    let f3 = Figures::of(&compiled.network, 2.83).f3.expect("a band");
    assert!(f3 <= 1.1 * 32.7, "{f3}");
    for (starting_points, id) in [
        (starting_point::LINE, "tapered"),
        (starting_point::LINE, "straight"),
        (starting_point::MASS_LOADED_LINE, "two_thirds"),
    ] {
        let start = start(starting_points, id, &ask).expect("a line");
        let resonance = start.enclosure.resonance(&ask.setting).expect("one");
        assert!((resonance / 32.7 - 1.0).abs() < 2e-3, "{id} {resonance}");
    }
    let high = Ask { wishes: Wishes { lowest: Some(12.0), volume: None }, ..ask };
    assert!(start(starting_point::PORTED, "lowest_note", &high).expect_err("too low").contains("12 Hz"));
}

#[test]
fn a_size_that_is_wished_for_is_kept() {
    let most = 0.03;
    let ask = ask(woofer(), Wishes { volume: Some(most), lowest: None });
    for (family, starting_points) in every_family() {
        for starting_point in starting_points {
            let Ok(start) = (starting_point.start)(&ask) else { continue };
            let air = match &start.enclosure {
                Enclosure::Sealed(sealed) => sealed.volume,
                Enclosure::Ported(ported) => ported.volume,
                Enclosure::PassiveRadiator(cabinet) => cabinet.volume,
                Enclosure::Bandpass4(cabinet) => cabinet.rear.volume + cabinet.front.volume,
                Enclosure::Bandpass6(cabinet) => cabinet.rear.volume + cabinet.front.volume,
                Enclosure::Line(line) if line.chamber.is_none() => line.profile.volume(),
                _ => 0.0,
            };
            assert!(air <= 1.0001 * most, "{family}, {}: {air}", starting_point.name);
        }
    }
}

#[test]
fn a_weak_motor_gets_no_horn_and_a_strong_one_no_open_baffle() {
    let weak = ask(driver(40.0, 1.2, 0.1, 0.05), Wishes::default());
    for starting_points in [
        starting_point::FRONT_HORN,
        starting_point::BACK_HORN,
        starting_point::TAPPED_HORN,
        starting_point::PORTED,
    ] {
        for starting_point in starting_points.iter().filter(|starting_point| {
            !["all_round", "at_fs", "lowest_note", MAKER].contains(&starting_point.id)
        }) {
            let refusal = (starting_point.start)(&weak).expect_err("no start");
            assert!(refusal.0.contains("1.20"), "{}: {}", starting_point.name, refusal.0);
        }
    }
    let strong = ask(driver(40.0, 0.25, 0.1, 0.05), Wishes::default());
    for starting_point in starting_point::OPEN_BAFFLE {
        assert!((starting_point.start)(&strong).expect_err("no start").0.contains("0.25"));
    }
}

#[test]
fn an_ordinary_woofer_can_start_in_every_family() {
    let ask = ask(driver(32.0, 0.42, 0.09, 0.05), Wishes::default());
    for (family, starting_points) in every_family() {
        assert!(
            starting_points.iter().any(|starting_point| (starting_point.start)(&ask).is_ok()),
            "{family}"
        );
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(24))]

    /// Whatever the driver and the wish: every starting point gives a cabinet that compiles, or a reason.
    #[test]
    fn every_starting_point_answers_every_driver(
        driver_array in any_driver_array(),
        volume in proptest::option::of(0.003f64..0.6),
        lowest in proptest::option::of(12.0f64..120.0),
    ) {
        let ask = Ask::new(Setting::new(driver_array, Air::reference()), Wishes { volume, lowest });
        for (family, starting_points) in every_family() {
            for starting_point in starting_points {
                match (starting_point.start)(&ask) {
                    Ok(start) => {
                        prop_assert!(start.reason.ends_with('.'), "{}", start.reason);
                        let compiled = start.enclosure.compile(&ask.setting);
                        prop_assert!(compiled.is_ok(), "{family}, {}: {:?}", starting_point.name, compiled.err());
                    }
                    Err(refusal) => prop_assert!(refusal.0.len() > 20),
                }
            }
        }
    }
}

/// Keele 1977, low-frequency horn relations (from memory): throat area `2 pi Fs Qts Vas/c`, mass corner `2 Fs/Qts`, and a rear
/// chamber that with the suspension is as stiff as the throat's reactance at the cut-off, `V = St c/(2 pi fc)`.
#[test]
fn a_front_horn_begins_with_keeles_relations() {
    let air = Air::reference();
    let of = |sd: f64| {
        let ask = ask(driver(35.0, 0.3, 0.2, sd), Wishes { lowest: Some(46.0), volume: None });
        let found = start(starting_point::FRONT_HORN, "exponential", &ask).expect("a horn");
        (ask, found)
    };
    let (ask, found) = of(0.09);
    let Enclosure::FrontHorn(horn) = &found.enclosure else { panic!("{found:?}") };
    // A larger driver of the same values needs more room than that chamber has.
    let (_, larger) = of(0.13);
    let Enclosure::FrontHorn(roomy) = &larger.enclosure else { panic!("{larger:?}") };
    assert!(roomy.rear.volume > 1.02 * horn.rear.volume);
    assert!(larger.reason.contains("as small as can be built"), "{}", larger.reason);
    let throat = 2.0 * std::f64::consts::PI * 35.0 * 0.3 * 0.2 / air.speed;
    assert!((horn.profile.start() / throat - 1.0).abs() < 1e-9);
    assert!(found.reason.contains("above 233 Hz"), "{}", found.reason);
    let cutoff = 46.0 / 1.15;
    let sprung = throat * air.speed / (2.0 * std::f64::consts::PI * cutoff);
    let both = (horn.rear.volume.recip() + 0.2f64.recip()).recip();
    assert!((both / sprung - 1.0).abs() < 1e-6, "{both} {sprung}");
    let way = found.enclosure.compile(&ask.setting).expect("compiles").passage.expect("a way");
    assert!(
        (way.cutoff.expect("one") / cutoff - 1.0).abs() < 1e-6,
        "the flare has the cut-off that was chosen"
    );
    // A mouth whose circumference is a wave, halved for half space.
    let wave = air.speed / cutoff;
    assert!((horn.profile.end() / (wave * wave / (8.0 * std::f64::consts::PI)) - 1.0).abs() < 1e-9);
}

/// Fs 30 Hz, Qts 0.4, Vas 100 l in 30 l: both chambers made smaller alike and the tuning left was a band 3.6 dB hollow that was called
/// "no ripple".
#[test]
fn a_bandpass_cut_to_a_size_is_tuned_for_it_and_its_ripple_is_what_is_said() {
    for (volume, most) in [(None, 0.3), (Some(0.03), 2.0), (Some(0.05), 1.0)] {
        let asked = ask(driver(30.0, 0.4, 0.1, 0.05), Wishes { volume, lowest: None });
        let Start { enclosure, reason } = start(starting_point::BANDPASS4, "flat", &asked).expect("a start");
        let Enclosure::Bandpass4(found) = &enclosure else { panic!("a bandpass") };
        let held = found.rear.volume + found.front.volume;
        assert!(volume.is_none_or(|volume| (held / volume - 1.0).abs() < 1e-9), "{held}");
        let network = enclosure.compile(&asked.setting).expect("compiles").network;
        let figures = Figures::of(&network, 2.83);
        let said =
            reason.split("gives ").nth(1).and_then(|text| text.split(' ').next()).expect("what it gives");
        let said: f64 = if said == "no" { 0.0 } else { said.parse().expect("a number") };
        assert!((figures.ripple - said).abs() < 0.35, "{reason} {}", figures.ripple);
        assert!(figures.ripple < most, "{reason} {}", figures.ripple);
    }
}

/// What is cancelled: above cut-off an exponential throat of area S is a stiffness of `S c/w`; with cone and chamber together, as much.
#[test]
fn a_rear_chamber_is_said_to_cancel_only_where_it_does() {
    let mut said = [0, 0];
    for (fs, qts, vas) in [
        (30.0, 0.3, 0.1),
        (25.0, 0.45, 0.3),
        (45.0, 0.25, 0.05),
        (40.0, 0.48, 0.02),
        (40.0, 0.3, 0.002),
        (20.0, 0.2, 0.4),
    ] {
        let asked = ask(driver(fs, qts, vas, 0.05), Wishes { lowest: Some(1.1 * fs), volume: None });
        for starting_point in starting_point::FRONT_HORN {
            let Ok(Start { enclosure: Enclosure::FrontHorn(horn), reason }) = (starting_point.start)(&asked)
            else {
                continue;
            };
            let cutoff = 1.1 * fs / 1.15;
            let needed =
                horn.profile.segments[0].start * asked.setting.air.speed / (std::f64::consts::TAU * cutoff);
            let sprung = (horn.rear.volume.recip() + vas.recip()).recip();
            let cancels = (sprung / needed - 1.0).abs() < 0.05;
            assert_eq!(reason.contains("cancels"), cancels, "{reason}");
            said[usize::from(cancels)] += 1;
        }
    }
    assert!(said[0] > 0 && said[1] > 0, "{said:?}");
}

#[test]
fn fills_of_starting_points_and_of_the_list_are_within_their_formula() {
    let [least, most] = POLYESTER;
    for (list, id) in [
        (starting_point::LINE, "tapered"),
        (starting_point::LINE, "straight"),
        (starting_point::MASS_LOADED_LINE, "two_thirds"),
    ] {
        let asked = ask(woofer(), Wishes::default());
        let Start { enclosure: Enclosure::Line(line), .. } = start(list, id, &asked).expect("a start") else {
            panic!("a line")
        };
        let fills: Vec<_> = line.profile.segments.iter().filter_map(|segment| segment.fill).collect();
        assert!(!fills.is_empty(), "{id}");
        assert!(fills.iter().all(|fill| (least..=most).contains(&fill.bulk_density)), "{id}: {fills:?}");
    }
    for material in fill_materials().into_iter().filter(|material| material.id.starts_with("polyester")) {
        assert!((least..=most).contains(&material.fill.bulk_density), "{}", material.name);
    }
}

#[test]
fn what_a_sheet_recommends_is_taken_as_it_is_for_each_driver() {
    let recommended = Recommended { sealed: Some(0.02), ported: Some([0.045, 34.0]) };
    let wiring = Wiring { series: 1, parallel: 2 };
    let two = DriverArray { wiring, ..DriverArray::from(woofer()) };
    for (drivers, count) in [(DriverArray::from(woofer()), 1.0), (two, 2.0)] {
        let asked =
            Ask { recommended, ..Ask::new(Setting::new(drivers, Air::reference()), Wishes::default()) };
        let sealed = start(starting_point::SEALED, MAKER, &asked).expect("recommended");
        let Enclosure::Sealed(box_of_sheet) = sealed.enclosure else { panic!("sealed") };
        assert!((box_of_sheet.volume - 0.02 * count).abs() < 1e-12);
        let ported = start(starting_point::PORTED, MAKER, &asked).expect("recommended");
        let Enclosure::Ported(box_of_sheet) = ported.enclosure else { panic!("ported") };
        assert!((box_of_sheet.volume - 0.045 * count).abs() < 1e-12);
        let found = box_of_sheet.tuning.expect("to be tuned");
        assert!((found - 34.0).abs() < 1e-9);
        // A smaller wish cuts it, and says so.
        let small = Ask { wishes: Wishes { volume: Some(0.01), lowest: None }, ..asked };
        let cut = start(starting_point::SEALED, MAKER, &small).expect("recommended");
        assert!(cut.reason.contains("Cut to the size"), "{}", cut.reason);
    }
    let none = ask(woofer(), Wishes::default());
    assert!(start(starting_point::PORTED, MAKER, &none).is_err());
}
