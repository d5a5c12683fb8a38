//! What each family of cabinets is known for.

use crate::support::woofer;
use oak_acoustics::element::End;
use oak_acoustics::enclosure::{
    Aperiodic, Bandpass4, Bandpass6, Enclosure, Fidelity, FrontPath, Losses, OpenBaffle, PassiveRadiator,
    Port, Ported, Radiator, Sealed, Setting,
};
use oak_acoustics::medium::{Air, CrossSection};
use oak_acoustics::response::{Figures, FrequencyGrid, Response};

const LOSSLESS: Losses = Losses { ql: None, qa: None };

fn response(enclosure: &Enclosure, fidelity: Fidelity, from: f64, to: f64, points: usize) -> Response {
    let compiled =
        enclosure.compile(&Setting::new(woofer(), Air::reference()).with(fidelity)).expect("compiles");
    let grid = FrequencyGrid::logarithmic(from, to, points).expect("grid");
    Response::of(&compiled.network, &grid, 2.83)
}

/// Level change over one octave, dB.
fn slope(enclosure: &Enclosure, from: f64) -> f64 {
    let levels: Vec<_> = response(enclosure, Fidelity::TEXTBOOK, from, 2.0 * from, 2).level().collect();
    levels[1] - levels[0]
}

fn vented(volume: f64, tuning: f64) -> Ported {
    let section = CrossSection::Round { radius: 0.05 };
    let port = Port::new(section, None);
    Ported { volume, losses: LOSSLESS, ports: vec![port], tuning: Some(tuning) }
}

fn sealed(volume: f64) -> Sealed {
    Sealed { volume, losses: LOSSLESS }
}

fn radiators(mass: f64) -> Radiator {
    Radiator { mass, compliance: 7e-4, resistance: 1.0, area: 0.0346, count: 2, xmax: None }
}

/// A box with a slot 200 mm by 30 mm that narrows to a share of its height half-way in.
fn slotted(waist: f64, length: Option<f64>, tuning: Option<f64>) -> Ported {
    let port = vented(0.04, 30.0).ports[0];
    let section = CrossSection::Slot { width: 0.2, height: 0.03 };
    Ported { ports: vec![Port { section, length, waist, ..port }], tuning, ..vented(0.04, 30.0) }
}

#[test]
fn a_slot_that_narrows_in_its_middle_tunes_lower_and_is_faster_there() {
    let tuned = |waist: f64| {
        let enclosure = Enclosure::Ported(slotted(waist, Some(0.35), None));
        let compiled = enclosure.compile(&Setting::new(woofer(), Air::reference())).expect("builds");
        (
            compiled.port_tuning.as_ref().expect("ported").clone(),
            response(&enclosure, Fidelity::FULL, 20.0, 60.0, 40),
        )
    };
    let (even, slow) = tuned(1.0);
    // As good as even it is even.
    let (nearly, _) = tuned(1.0 - 1e-6);
    assert!((nearly.reactance / even.reactance - 1.0).abs() < 1e-4, "{nearly:?} {even:?}");
    let (half, fast) = tuned(0.5);
    // Helmholtz: the mass of areas that fall to a half and rise again is ln(1/2)/(1/2 - 1) = 1.386 times as large along its length.
    assert!(half.reactance < 0.93 * even.reactance, "{} {}", half.reactance, even.reactance);
    assert!((half.reactance / half.helmholtz / (even.reactance / even.helmholtz) - 1.0).abs() < 0.01);
    let speed = |response: &Response| response.air_speed(0).fold(0.0, f64::max);
    assert!(speed(&fast) > 1.6 * speed(&slow), "{} {}", speed(&fast), speed(&slow));
    // As long as the tuning needs: shorter.
    let long = |waist: f64| {
        let enclosure = Enclosure::Ported(slotted(waist, None, Some(35.0)));
        let compiled = enclosure.compile(&Setting::new(woofer(), Air::reference())).expect("builds");
        compiled.lengths()[1][0]
    };
    assert!(long(0.5) < 0.8 * long(1.0), "{} {}", long(0.5), long(1.0));
}

#[test]
fn in_a_wall_the_driver_is_itself() {
    // Small 1972: the second-order high-pass x^2/sqrt((1 - x^2)^2 + (x/Qts)^2), x = f/Fs; over its value far up.
    let response = response(&Enclosure::InfiniteBaffle, Fidelity::TEXTBOOK, 6.0, 6000.0, 31);
    let gain = |f: f64| {
        let x = f / woofer().fs();
        x * x / ((1.0 - x * x).powi(2) + (x / woofer().qts()).powi(2)).sqrt()
    };
    let last = response.pressure[30].norm() / gain(6000.0);
    for (f, p) in response.frequency.iter().zip(&response.pressure) {
        assert!((p.norm() / last / gain(*f) - 1.0).abs() < 1e-6, "{f} Hz");
    }
}

#[test]
fn a_huge_box_is_a_wall_and_a_tight_vent_is_none() {
    let open = response(&Enclosure::InfiniteBaffle, Fidelity::FULL, 10.0, 300.0, 40);
    let close = |other: &Enclosure, of: &Response| {
        let other = response(other, Fidelity::FULL, 10.0, 300.0, 40);
        let pairs = other.impedance.iter().zip(&of.impedance);
        assert!(pairs.clone().all(|(a, b)| (a - b).norm() < 2e-3 * b.norm()));
    };
    close(&Enclosure::Sealed(sealed(500.0)), &open);
    let shut = response(&Enclosure::Sealed(sealed(0.03)), Fidelity::FULL, 10.0, 300.0, 40);
    close(&Enclosure::Aperiodic(Aperiodic { chamber: sealed(0.03), resistance: 1e9 }), &shut);
}

#[test]
fn a_resistive_vent_lowers_the_impedance_peak() {
    let peak = |enclosure: &Enclosure| {
        let response = response(enclosure, Fidelity::FULL, 10.0, 200.0, 300);
        response.impedance.iter().map(|z| z.norm()).fold(0.0, f64::max)
    };
    let chamber = sealed(0.02);
    let shut = peak(&Enclosure::Sealed(chamber));
    let vented = peak(&Enclosure::Aperiodic(Aperiodic { chamber, resistance: 6e3 }));
    assert!(vented < 0.5 * shut, "{vented} of {shut} ohm");
}

#[test]
fn a_radiator_without_a_suspension_is_a_port_of_the_same_mass() {
    // Small 1974, passive-radiator systems: the ported box is the limit of infinite radiator compliance.
    let air = Air::reference();
    let (volume, area, count, mass) = (0.044, 0.0346, 2, 0.25);
    let radiator = Radiator { mass, compliance: 1e6, resistance: 0.0, area, count, xmax: None };
    let with_radiators = Enclosure::PassiveRadiator(PassiveRadiator { volume, losses: LOSSLESS, radiator });
    // The same acoustic mass in a pipe, end corrections taken off: L = M S/rho.
    let acoustic = mass / (f64::from(count) * area * area);
    let section = CrossSection::Round { radius: 0.05 };
    let corrections =
        [End::Free, End::Flanged].iter().map(|end| end.length_correction(section.area())).sum::<f64>();
    let length = acoustic * section.area() / air.density - corrections;
    let port = Port::new(section, Some(length));
    let ported = Enclosure::Ported(Ported { volume, losses: LOSSLESS, ports: vec![port], tuning: None });
    let [a, b] = [with_radiators, ported].map(|one| response(&one, Fidelity::TEXTBOOK, 10.0, 200.0, 60));
    for (a, b) in a.level().zip(b.level()) {
        assert!((a - b).abs() < 1e-6, "{a} {b}");
    }
}

#[test]
fn radiators_tune_where_the_cone_stands_still_and_notch_at_their_own_resonance() {
    let enclosure = Enclosure::PassiveRadiator(PassiveRadiator {
        volume: 0.044,
        losses: LOSSLESS,
        radiator: Radiator { resistance: 1e-3, ..radiators(0.3) },
    });
    let compiled = enclosure
        .compile(&Setting::new(woofer(), Air::reference()).with(Fidelity::TEXTBOOK))
        .expect("compiles");
    let found = compiled.radiator_tuning.expect("radiators");
    assert!(found.notch < found.tuning);
    let response = response(&enclosure, Fidelity::TEXTBOOK, 5.0, 60.0, 4000);
    let at_least = |values: Vec<f64>| {
        let index = (0..values.len()).min_by(|a, b| values[*a].total_cmp(&values[*b])).expect("values");
        response.frequency[index]
    };
    let notch = at_least(response.level().collect());
    assert!((notch / found.notch - 1.0).abs() < 2e-3, "{notch} {}", found.notch);
    let still = at_least(response.cone_velocity[0].iter().map(|v| v.norm()).collect());
    assert!((still / found.tuning - 1.0).abs() < 2e-3, "{still} {}", found.tuning);
}

#[test]
fn heavier_radiators_tune_lower_and_have_travel_but_no_air_speed() {
    let figures = |mass| {
        let radiator = radiators(mass);
        let enclosure =
            Enclosure::PassiveRadiator(PassiveRadiator { volume: 0.044, losses: LOSSLESS, radiator });
        let compiled = enclosure.compile(&Setting::new(woofer(), Air::reference())).expect("compiles");
        assert_eq!(compiled.network.openings.len(), 1);
        assert_eq!(Figures::of(&compiled.network, 2.83).air_speed, None);
        compiled.radiator_tuning.expect("radiators").tuning
    };
    assert!(figures(0.4) < figures(0.2));
}

#[test]
fn a_fourth_order_bandpass_falls_12_db_an_octave_on_both_sides() {
    let enclosure = Enclosure::Bandpass4(Bandpass4 { rear: sealed(0.025), front: vented(0.02, 55.0) });
    assert!((slope(&enclosure, 4.0) - 12.04).abs() < 0.3, "{}", slope(&enclosure, 4.0));
    assert!((slope(&enclosure, 800.0) + 12.04).abs() < 0.3, "{}", slope(&enclosure, 800.0));
}

#[test]
fn a_series_bandpass_falls_24_db_and_a_parallel_one_keeps_both_ports_apart() {
    let sixth =
        |path| Enclosure::Bandpass6(Bandpass6 { rear: vented(0.06, 28.0), front: vented(0.02, 70.0), path });
    // Below both tunings the rear air goes round through the open ports and meets the front air.
    for path in [FrontPath::Parallel, FrontPath::Series] {
        assert!((slope(&sixth(path), 2.5) - 24.08).abs() < 1.0, "{path:?} {}", slope(&sixth(path), 2.5));
    }
    let compiled =
        sixth(FrontPath::Parallel).compile(&Setting::new(woofer(), Air::reference())).expect("compiles");
    let (rear, front) = (compiled.rear_tuning.expect("rear"), compiled.port_tuning.expect("front"));
    assert!((rear.reactance - 28.0).abs() < 1e-3 && (front.reactance - 70.0).abs() < 1e-3);
    assert_eq!(compiled.network.openings.len(), 2);
}

#[test]
fn a_driver_between_two_chambers_is_not_heard_itself() {
    let shut = Ported { ports: vec![], ..vented(0.02, 60.0) };
    let enclosure =
        Enclosure::Bandpass4(Bandpass4 { rear: sealed(0.025), front: Ported { tuning: None, ..shut } });
    let response = response(&enclosure, Fidelity::FULL, 20.0, 200.0, 5);
    assert!(response.pressure.iter().all(|p| p.norm() < 1e-12));
}

#[test]
fn an_open_baffle_loses_6_db_an_octave_more_than_a_wall_and_is_whole_at_a_sixth_of_a_wave() {
    let air = Air::reference();
    let path = 0.6;
    let open = Enclosure::OpenBaffle(OpenBaffle { path });
    let over_wall = |frequency: f64| {
        let level = |enclosure: &Enclosure| {
            let frequencies = response(enclosure, Fidelity::TEXTBOOK, frequency, 1.01 * frequency, 2);
            frequencies.level().next().expect("a level")
        };
        level(&open) - level(&Enclosure::InfiniteBaffle)
    };
    let whole = air.speed / (6.0 * path);
    assert!(over_wall(whole).abs() < 1e-6, "{}", over_wall(whole));
    // Far below, the two faces cancel but for the way round: `2 sin(kD/2)`.
    assert!((over_wall(8.0) - over_wall(4.0) - 6.02).abs() < 0.02);
    // At half a wave they add, at a whole one they cancel.
    assert!((over_wall(3.0 * whole) - 6.02).abs() < 0.01);
    assert!(over_wall(6.0 * whole) < -60.0);
}

#[test]
fn a_port_that_is_farther_by_half_a_wave_cancels_the_cone_where_both_are_alike() {
    let far = |path: f64| {
        let mut ported = vented(0.05, 30.0);
        ported.ports[0].path = path;
        Enclosure::Ported(ported)
    };
    let near = response(&far(0.0), Fidelity::TEXTBOOK, 20.0, 60.0, 5);
    let away = response(&far(2.0), Fidelity::TEXTBOOK, 20.0, 60.0, 5);
    let air = Air::reference();
    for k in 0..5 {
        let omega = 2.0 * std::f64::consts::PI * near.frequency[k];
        let scale = oak_acoustics::Complex::new(0.0, omega * air.density / (2.0 * std::f64::consts::PI));
        let cone = scale * woofer().sd * near.cone_velocity[0][k];
        let port = near.pressure[k] - cone;
        let late = oak_acoustics::Complex::cis(-omega / air.speed * 2.0);
        assert!((away.pressure[k] - (cone + port * late)).norm() < 1e-9 * cone.norm());
        // What the cone does is the same wherever the port is heard from.
        assert!((away.cone_velocity[0][k] - near.cone_velocity[0][k]).norm() < 1e-15);
    }
}
