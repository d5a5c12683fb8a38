//! The solver against published closed forms. Each test names its source and tolerance.

use std::f64::consts::PI;

use approx::assert_relative_eq;
use oak_acoustics::driver::{Driver, Sheet};
use oak_acoustics::element::End;
use oak_acoustics::enclosure::{Enclosure, Fidelity, Losses, Port, Ported, Sealed, Setting};
use oak_acoustics::medium::{Air, CrossSection};
use oak_acoustics::network::Network;
use oak_acoustics::response::{Figures, FrequencyGrid, Response};

const VOLTS: f64 = 2.83;

/// A driver without inductance, for circuits that have none.
fn driver(qts: f64) -> Driver {
    let sheet = Sheet {
        re: Some(6.0),
        fs: Some(30.0),
        qms: Some(1e9),
        qts: Some(qts),
        vas: Some(0.1),
        sd: Some(0.035),
        ..Sheet::default()
    };
    sheet.complete(&Air::reference()).expect("a complete sheet").driver
}

fn compile(enclosure: &Enclosure, driver: &Driver) -> Network {
    enclosure
        .compile(&Setting::new(driver, Air::reference()).with(Fidelity::TEXTBOOK))
        .expect("compiles")
        .network
}

/// A ported box of textbook proportions: `alpha = Vas/Vb`, `h = Fb/Fs`.
fn ported(driver: &Driver, alpha: f64, h: f64, ql: Option<f64>) -> Network {
    let air = Air::reference();
    let volume = driver.vas(&air) / alpha;
    let section = CrossSection::Round { radius: 0.02 };
    let port = Port::new(section, None);
    let tuning = Some(h * driver.fs());
    let enclosure =
        Enclosure::Ported(Ported { volume, losses: Losses { ql, qa: None }, ports: vec![port], tuning });
    compile(&enclosure, driver)
}

#[test]
fn a_sealed_box_is_the_second_order_system_of_small_1972() {
    let air = Air::reference();
    // Small, "Closed-box loudspeaker systems", J. AES 1972: eq. 20 (Qtc), F3 from eq. 78. 1e-6.
    for qtc in [0.5, 0.577, std::f64::consts::FRAC_1_SQRT_2, 1.0] {
        let driver = driver(0.35);
        let alpha = (qtc / driver.qts()).powi(2) - 1.0;
        let sealed = Sealed { volume: driver.vas(&air) / alpha, losses: Losses::default() };
        let closed = sealed.closed_box(&driver, &air);
        assert_relative_eq!(closed.qtc, qtc, max_relative = 1e-9);
        assert_relative_eq!(closed.fc, driver.fs() * (1.0 + alpha).sqrt(), max_relative = 1e-9);

        let network = compile(&Enclosure::Sealed(sealed), &driver);
        let figures = Figures::of(&network, VOLTS);
        let u = 1.0 / (qtc * qtc) - 2.0;
        // Half power here is 3 dB exactly, not 10 log10 2.
        let power = 10f64.powf(0.3) - 1.0;
        let x = 0.5 * (u + (u * u + 4.0 * power).sqrt());
        let f3 = closed.fc * (x / power).sqrt();
        assert_relative_eq!(figures.f3.expect("reaches the piston band"), f3, max_relative = 1e-6);

        let grid = FrequencyGrid::logarithmic(10.0, 500.0, 60).expect("grid");
        for (f, level) in grid.frequencies().iter().zip(Response::of(&network, &grid, VOLTS).level()) {
            let r = f / closed.fc;
            let gain = r.powi(4) / ((1.0 - r * r).powi(2) + (r / qtc).powi(2));
            let expected = driver.reference_level(VOLTS, &air) + 10.0 * gain.log10();
            assert_relative_eq!(level, expected, epsilon = 1e-6);
        }
    }
}

#[test]
fn box_losses_lower_the_q_by_the_share_of_stiffness_they_act_on() {
    // Small 1972, section 2; first order in 1/QL, so 1 % where the losses are a tenth of the total.
    let air = Air::reference();
    let driver = driver(0.35);
    for losses in [Losses { ql: Some(10.0), qa: None }, Losses { ql: None, qa: Some(10.0) }] {
        let sealed = Sealed { volume: 0.03, losses };
        let closed = sealed.closed_box(&driver, &air);
        let network = compile(&Enclosure::Sealed(sealed), &driver);
        let grid = FrequencyGrid::logarithmic(closed.fc, closed.fc * 1.01, 2).expect("grid");
        let level = Response::of(&network, &grid, VOLTS).level().next().expect("a level");
        let q_heard = 10f64.powf((level - driver.reference_level(VOLTS, &air)) / 20.0);
        assert_relative_eq!(q_heard, closed.qtc, max_relative = 0.01);
    }
}

/// The squared fourth-order high-pass of Thiele 1971 and Small 1973 (vented-box systems, part I, eq. 13
/// and 20 to 24).
fn fourth_order_gain(f: f64, fs: f64, qts: f64, alpha: f64, h: f64, ql: f64) -> f64 {
    let x = f / (fs * h.sqrt());
    let a1 = (ql + h * qts) / (h.sqrt() * ql * qts);
    let a2 = (h + (alpha + 1.0 + h * h) * ql * qts) / (h * ql * qts);
    let a3 = (h * ql + qts) / (h.sqrt() * ql * qts);
    let real = x.powi(4) - a2 * x * x + 1.0;
    let imaginary = a3 * x - a1 * x.powi(3);
    x.powi(8) / (real * real + imaginary * imaginary)
}

#[test]
fn a_ported_box_is_the_fourth_order_system_of_thiele_and_small() {
    // With the port as a mass the network is that circuit, so 1e-6 dB.
    let air = Air::reference();
    for (qts, alpha, h, ql) in [
        (0.3827, std::f64::consts::SQRT_2, 1.0, 1e9),
        (0.30, 3.03, 1.235, 1e9),
        (0.4048, 1.0613, 1.0, 7.0),
        (0.55, 0.6, 0.8, 5.0),
    ] {
        let driver = driver(qts);
        let network = ported(&driver, alpha, h, Some(ql));
        let grid = FrequencyGrid::logarithmic(10.0, 500.0, 60).expect("grid");
        for (f, level) in grid.frequencies().iter().zip(Response::of(&network, &grid, VOLTS).level()) {
            let gain = fourth_order_gain(*f, driver.fs(), qts, alpha, h, ql);
            let expected = driver.reference_level(VOLTS, &air) + 10.0 * gain.log10();
            assert_relative_eq!(level, expected, epsilon = 1e-6);
        }
    }
}

#[test]
fn the_lossless_butterworth_box_is_three_db_down_at_fs() {
    // Thiele 1971, table I, no. 5: Qts 0.3827, Vas/Vb 1.4142, Fb = Fs, F3 = Fs. The half-power
    // frequency of a 4th-order Butterworth; 0.1 % for the four digits of the table.
    let driver = driver(0.382_683_4);
    let figures = Figures::of(&ported(&driver, std::f64::consts::SQRT_2, 1.0, None), VOLTS);
    assert_relative_eq!(figures.f3.expect("F3"), driver.fs(), max_relative = 1e-3);
}

#[test]
fn quasi_butterworth_at_qts_0_30_is_flat_as_the_design_page_states() {
    // Lossless QB3 at Qts 0.30: h 1.235, alpha 3.03 (A1 = A2 = 0). Maximally flat: no peak above the
    // reference, and less than 0.01 dB of loss an octave above F3.
    let driver = driver(0.30);
    let figures = Figures::of(&ported(&driver, 3.03, 1.235, None), VOLTS);
    assert!(figures.level_peak.value - figures.reference_level < 0.01);
    let h = |x| fourth_order_gain(x, 1.0, 0.30, 3.03, 1.235, 1e12);
    assert_relative_eq!(h(figures.f3.expect("F3") / driver.fs()), 10f64.powf(-0.3), max_relative = 1e-3);
}

#[test]
fn sensitivity_follows_from_the_reference_efficiency() {
    // Small 1972 (direct-radiator), eq. 24 and 32: 112 dB + 10 log10 eta0 at 1 W, 1 m, half space, within
    // 0.2 dB of that rounded constant and exactly by pressure.
    let air = Air::reference();
    let driver = driver(0.35);
    let one_watt = driver.re.sqrt();
    let eta0 = driver.eta0(&air);
    let pressure = (eta0 * air.density * air.speed / (2.0 * PI)).sqrt();
    // With a lossless suspension Qms is infinite and both routes are the same.
    assert_relative_eq!(driver.reference_pressure(one_watt, &air), pressure, max_relative = 1e-9);
    assert_relative_eq!(driver.reference_level(one_watt, &air), 112.0 + 10.0 * eta0.log10(), epsilon = 0.2);
}

#[test]
fn a_duct_tunes_where_the_handbook_formula_says() {
    // Common practice: a 46.7 cm long, 12.0 cm wide port in 106.8 l tunes to 23.7 Hz: within 0.2 Hz
    // with the usual ends, within 0.5 Hz with either extreme of the end corrections. The lossy duct is
    // within 1.5 % of Helmholtz's formula, which knows neither friction nor the air's springiness.
    let air = Air::reference();
    let driver = driver(0.35);
    for (inner, outer, tolerance) in
        [(End::Free, End::Flanged, 0.2), (End::Flanged, End::Flanged, 0.5), (End::Free, End::Free, 0.5)]
    {
        let section = CrossSection::Round { radius: 0.06 };
        let port = Port { inner, outer, ..Port::new(section, Some(0.467)) };
        let enclosure = Enclosure::Ported(Ported {
            volume: 0.1068,
            losses: Losses::default(),
            ports: vec![port],
            tuning: None,
        });
        let tuning = enclosure.compile(&Setting::new(driver, air)).expect("compiles").port_tuning;
        let tuning = tuning.expect("ported");
        assert_relative_eq!(tuning.reactance, 23.7, epsilon = tolerance);
        assert_relative_eq!(tuning.reactance, tuning.helmholtz, max_relative = 0.015);
    }
}

#[test]
fn the_pipe_itself_first_rings_near_276_hz() {
    // Common practice: a port 53.65 cm long and 11.78 cm wide first resonates near 276 Hz; 1 %.
    let section = CrossSection::Round { radius: 0.0589 };
    let port = Port::new(section, Some(0.5365));
    let enclosure =
        Enclosure::Ported(Ported { volume: 0.1, losses: Losses::default(), ports: vec![port], tuning: None });
    let compiled = enclosure.compile(&Setting::new(driver(0.35), Air::reference())).expect("compiles");
    assert_relative_eq!(
        compiled.port_tuning.expect("ported").ports[0].pipe_resonance,
        276.0,
        max_relative = 0.01
    );
    // And the solved duct shows it: the air in the mouth has a maximum there, not only in a formula.
    let grid = FrequencyGrid::logarithmic(200.0, 350.0, 600).expect("grid");
    let response = Response::of(&compiled.network, &grid, VOLTS);
    let ratio: Vec<f64> =
        response.air_speed(0).zip(response.excursion()).map(|(air, cone)| air / cone).collect();
    let top = (0..600).max_by(|a, b| ratio[*a].total_cmp(&ratio[*b])).expect("not empty");
    assert_relative_eq!(grid.frequencies()[top], 276.0, max_relative = 0.03);
}

#[test]
fn below_its_resonance_a_sealed_box_falls_12_and_a_ported_one_24_db_an_octave() {
    let driver = driver(0.38);
    let sealed = compile(&Enclosure::Sealed(Sealed { volume: 0.05, losses: Losses::default() }), &driver);
    let ported = ported(&driver, 1.4, 1.0, None);
    let grid = FrequencyGrid::logarithmic(1.0, 2.0, 2).expect("grid");
    for (network, slope) in [(&sealed, 12.0), (&ported, 24.0)] {
        let level: Vec<f64> = Response::of(network, &grid, VOLTS).level().collect();
        assert_relative_eq!(level[1] - level[0], slope, epsilon = 0.15);
    }
}

#[test]
fn group_delay_is_the_derivative_of_the_phase() {
    // Analytic delay of the second-order high-pass at its resonance: 2 Qtc/wc. 1e-4.
    let air = Air::reference();
    let driver = driver(0.35);
    let sealed = Sealed { volume: 0.03, losses: Losses::default() };
    let closed = sealed.closed_box(&driver, &air);
    let network = compile(&Enclosure::Sealed(sealed), &driver);
    let grid = FrequencyGrid::logarithmic(closed.fc, closed.fc * 2.0, 2).expect("grid");
    let delay = Response::of(&network, &grid, VOLTS).group_delay[0];
    assert_relative_eq!(delay, 2.0 * closed.qtc / (2.0 * PI * closed.fc), max_relative = 1e-4);
}

#[test]
fn the_three_ways_to_find_the_tuning_agree_in_a_lossy_box() {
    let air = Air::reference();
    let driver = Driver { rms: 2.0, ..driver(0.38) };
    let section = CrossSection::Round { radius: 0.05 };
    let port = Port::new(section, None);
    let losses = Losses { ql: Some(10.0), qa: Some(100.0) };
    let enclosure = Enclosure::Ported(Ported { volume: 0.07, losses, ports: vec![port], tuning: Some(28.0) });
    let compiled = enclosure.compile(&Setting::new(driver, air)).expect("compiles");
    let tuning = compiled.port_tuning.expect("ported");
    assert_relative_eq!(tuning.reactance, 28.0, max_relative = 1e-9);
    assert_relative_eq!(tuning.helmholtz, 28.0, max_relative = 0.02);
    let dip = Figures::of(&compiled.network, VOLTS).impedance_dip.expect("two peaks");
    assert_relative_eq!(dip, 28.0, max_relative = 0.02);
}
