//! Lines and horns: closed forms, staircases, openwind's finite elements, and what each is known for.

use std::f64::consts::PI;

use crate::support::woofer;
use oak_acoustics::Complex;
use oak_acoustics::driver::{Driver, DriverArray, Sheet, Wiring};
use oak_acoustics::element::{At, Chamber, Element, End, Passage, Slice, mouth_impedance, pipe_impedance};
use oak_acoustics::enclosure::{
    Enclosure, FrontHorn, Line, Losses, Mouth, Port, Ported, Sealed, Setting, TappedHorn,
};
use oak_acoustics::medium::{Air, CrossSection, Fill, Frame, Space};
use oak_acoustics::network::{Node, OpeningKind};
use oak_acoustics::profile::{Flare, Profile, Segment, cutoff};
use oak_acoustics::response::{Figures, FrequencyGrid, Response};
use serde_json::Value;

const INSIDE: [Node; 2] = [Node::Inside(0), Node::Inside(1)];
const J: Complex = Complex::new(0.0, 1.0);

fn at(air: &Air, frequency: f64) -> At<'_> {
    At { omega: 2.0 * PI * frequency, air, space: Space::Half }
}

fn admittance(element: &dyn Element, at: &At<'_>) -> Vec<Complex> {
    let n = element.terminals().len();
    let mut y = vec![Complex::new(0.0, 0.0); n * n];
    element.admit(at, &mut y);
    y
}

fn plain(flare: Flare, length: f64, start: f64, end: f64) -> Segment {
    Segment { flare, length, start, end, width: None, fill: None }
}

fn lossless(profile: &Profile) -> Passage {
    Passage::new(INSIDE, &profile.slices(0.0, profile.length()), [None, None], false)
}

/// Chain matrix `[a, b, c, d]` of an admittance matrix.
fn chain(y: &[Complex]) -> [Complex; 4] {
    let through = -y[1];
    [y[3] / through, through.inv(), (y[0] * y[3] - y[1] * y[2]) / through, y[0] / through]
}

/// A cone is solved exactly whatever it is cut into; only the friction at its walls is that of the middle of a slice.
#[test]
fn a_straight_sided_way_is_cut_no_finer_than_its_walls_need() {
    let air = Air::reference();
    let wool = Fill::polyester(12.0, Frame::Limp);
    for (fill, most, within) in [(Some(wool), 1, 1e-9), (None, 6, 3e-4)] {
        let segment = Segment { fill, ..plain(Flare::Conical, 2.3, 0.045, 0.025) };
        let profile = Profile { segments: vec![segment] };
        let coarse = profile.slices(0.0, 2.3);
        assert!(coarse.len() <= most, "{}", coarse.len());
        let root = |at: f64| (0.045f64.sqrt() + at * (0.025f64.sqrt() - 0.045f64.sqrt())).powi(2);
        let fine: Vec<Slice> = (0..200)
            .map(|k| Slice {
                length: 2.3 / 200.0,
                start: root(f64::from(k) / 200.0),
                end: root(f64::from(k + 1) / 200.0),
                width: None,
                fill,
            })
            .collect();
        let [coarse, fine] = [coarse, fine].map(|slices| Passage::new(INSIDE, &slices, [None, None], true));
        for frequency in [15.0, 37.0, 74.5, 150.0, 400.0] {
            let at = at(&air, frequency);
            for (coarse, fine) in admittance(&coarse, &at).iter().zip(admittance(&fine, &at)) {
                assert!((coarse - fine).norm() < within * fine.norm(), "{frequency} Hz: {coarse} {fine}");
            }
        }
    }
}

/// Webster's equation in `psi = p sqrt(S)` is `psi'' + (k^2 - mu^2) psi = 0` where `sqrt(S)'' = mu^2 sqrt(S)`:
/// conical mu = 0, exponential m/2, hyperbolic 1/x0 (Salmon 1946). The chain matrix follows from `cos` and `sin` of
/// `b L`, `b^2 = k^2 - mu^2`, with the root of the area and its slope at both ends.
fn closed_form(
    air: &Air,
    omega: f64,
    length: f64,
    roots: [f64; 2],
    slopes: [f64; 2],
    mu: f64,
) -> [Complex; 4] {
    let k = omega / air.speed;
    let b = Complex::new(k * k - mu * mu, 0.0).sqrt();
    let (cos, sin) = ((b * length).cos(), (b * length).sin() / b);
    let [s1, s2] = roots;
    let [d1, d2] = slopes;
    let inertia = J * omega * air.density;
    // psi1 = psi2 cos - psi2' sin, psi1' = psi2 b^2 sin + psi2' cos; u = -(s psi' - s' psi)/(j w rho).
    [
        (s2 * cos - d2 * sin) / s1,
        inertia * sin / (s1 * s2),
        ((d1 * s2 - s1 * d2) * cos - (d1 * d2 - s1 * s2 * (-b * b)) * sin) / inertia,
        (s1 * cos + d1 * sin) / s2,
    ]
}

/// As many short cylinders as asked, each of the area at its middle.
fn staircase(profile: &Profile, steps: usize) -> Passage {
    let step = profile.length() / steps as f64;
    let area = |x: f64| {
        let mut before = 0.0;
        for segment in &profile.segments {
            if x <= before + segment.length {
                return segment.area_at(x - before);
            }
            before += segment.length;
        }
        profile.end()
    };
    let slice = |k: usize| {
        let area = area((k as f64 + 0.5) * step);
        Slice { length: step, start: area, end: area, width: None, fill: None }
    };
    Passage::new(INSIDE, &(0..steps).map(slice).collect::<Vec<_>>(), [None, None], false)
}

#[test]
fn flares_have_the_matrices_of_their_closed_forms_and_of_fine_staircases() {
    let air = Air::reference();
    let (length, start, end) = (2.3, 0.008, 0.25);
    let (s1, s2): (f64, f64) = (f64::sqrt(start), f64::sqrt(end));
    let rate = (s2 / s1).ln() / length;
    let t = 0.6;
    // cosh u + T sinh u = s2/s1, by Newton's method.
    let mut u = 1.0f64;
    for _ in 0..50 {
        u -= (u.cosh() + t * u.sinh() - s2 / s1) / (u.sinh() + t * u.cosh());
    }
    let stretch = u / length;
    let growth = (s2 - s1) / length;
    let cases = [
        (Flare::Conical, [growth; 2], 0.0),
        (Flare::Exponential, [s1 * rate, s2 * rate], rate),
        (Flare::Hyperbolic { t }, [s1 * t * stretch, s1 * (u.sinh() + t * u.cosh()) * stretch], stretch),
    ];
    for (flare, slopes, mu) in cases {
        let profile = Profile { segments: vec![plain(flare, length, start, end)] };
        for frequency in [12.0, 35.0, 80.0, 190.0, 430.0] {
            let at = at(&air, frequency);
            let known = closed_form(&air, at.omega, length, [s1, s2], slopes, mu);
            let determinant = known[0] * known[3] - known[1] * known[2];
            assert!((determinant - 1.0).norm() < 1e-9, "{flare:?}: the closed form itself, {determinant}");
            for (what, element, within) in
                [("slices", lossless(&profile), 2e-3), ("staircase", staircase(&profile, 6000), 2e-3)]
            {
                let found = chain(&admittance(&element, &at));
                for (index, (found, known)) in found.iter().zip(&known).enumerate() {
                    // Each against the larger of its pair, so that a zero crossing does not count.
                    let size = known.norm().max(1e-2 * known_size(index, &air, start, end));
                    let off = (found - known).norm() / size;
                    assert!(
                        off < within,
                        "{flare:?} {what} at {frequency} Hz, entry {index}: {found} {known}"
                    );
                }
            }
        }
    }
}

fn known_size(index: usize, air: &Air, start: f64, end: f64) -> f64 {
    let impedance = air.density * air.speed / (start * end).sqrt();
    [1.0, impedance, impedance.recip(), 1.0][index]
}

fn openwind() -> (Air, Vec<Value>) {
    let folder = concat!(env!("CARGO_MANIFEST_DIR"), "/../../reference/openwind");
    let plan = std::fs::read_to_string(format!("{folder}/cases.json")).expect("cases.json");
    let plan: Value = serde_json::from_str(&plan).expect("JSON");
    let of = |key: &str| plan["air"][key].as_f64().expect("a number");
    let air = Air {
        density: of("density"),
        speed: of("speed"),
        pressure: of("density") * of("speed").powi(2) / of("gamma"),
        viscosity: of("viscosity"),
        conductivity: of("conductivity"),
        specific_heat: of("specific_heat"),
        gamma: of("gamma"),
    };
    (air, plan["cases"].as_array().expect("cases").clone())
}

fn results(name: &str) -> Vec<(f64, Complex)> {
    let file = format!("{}/../../reference/openwind/{name}.csv", env!("CARGO_MANIFEST_DIR"));
    let mut rows = csv::Reader::from_path(file).expect("results");
    rows.deserialize()
        .map(|row| row.expect("three numbers"))
        .map(|(f, re, im)| (f, Complex::new(re, im)))
        .collect()
}

/// Where the reactance falls through zero, Hz, interpolated: the resonances of the input impedance.
fn resonances(points: &[(f64, Complex)]) -> Vec<f64> {
    points
        .windows(2)
        .filter(|two| two[0].1.im > 0.0 && two[1].1.im <= 0.0)
        .map(|two| {
            // 1/z is smooth there.
            let (a, b) = (two[0].1.inv().im, two[1].1.inv().im);
            two[0].0 + (two[1].0 - two[0].0) * a / (a - b)
        })
        .collect()
}

/// openwind (PyPI) 0.12: finite elements with Zwikker-Kosten losses; `reference/openwind/run.py`.
#[test]
fn ducts_and_horns_agree_with_finite_elements_to_1_percent_and_0_2_percent_of_resonance() {
    let (air, cases) = openwind();
    for case in &cases {
        let name = case["name"].as_str().expect("name");
        let theirs = results(name);
        let number = |value: &Value| value.as_f64().expect("a number");
        let segment = |bore: &Value| {
            let area = |at: usize| PI * number(&bore[at]).powi(2);
            let flare = if bore[4] == "exponential" { Flare::Exponential } else { Flare::Conical };
            plain(flare, number(&bore[1]) - number(&bore[0]), area(2), area(3))
        };
        let profile =
            Profile { segments: case["bore"].as_array().expect("bore").iter().map(segment).collect() };
        let open = case["radiation"] != "perfectly_open";
        let way = Passage::new(INSIDE, &profile.slices(0.0, profile.length()), [None, None], true);
        let ours: Vec<_> = theirs
            .iter()
            .map(|(frequency, _)| {
                let at = at(&air, *frequency);
                let [a, b, c, d] = chain(&admittance(&way, &at));
                let ka = at.omega / air.speed * (profile.end() / PI).sqrt();
                let load = pipe_impedance(ka) * air.density * air.speed / profile.end();
                let load = if open { load } else { Complex::new(0.0, 0.0) };
                (*frequency, (a * load + b) / (c * load + d))
            })
            .collect();
        let (found, known) = (resonances(&ours), resonances(&theirs));
        assert_eq!(found.len(), known.len(), "{name}");
        assert!(!known.is_empty(), "{name}");
        for (found, known) in found.iter().zip(&known) {
            assert!((found / known - 1.0).abs() < 2e-3, "{name}: resonance {found} {known} Hz");
        }
        for ((frequency, ours), (_, theirs)) in ours.iter().zip(&theirs) {
            let pole = known.iter().any(|pole| (frequency / pole - 1.0).abs() < 0.03);
            let off = (ours.norm() / theirs.norm() - 1.0).abs();
            assert!(pole || off < 0.01, "{name} at {frequency} Hz: {ours} {theirs}");
        }
    }
}

#[test]
fn an_exponential_horn_lets_through_above_mc_over_4_pi() {
    let air = Air::reference();
    let (length, start, end): (f64, f64, f64) = (3.0, 0.01, 0.9);
    let m = (end / start).ln() / length;
    let lowest = cutoff(length, start, end, &air);
    assert!((lowest - m * air.speed / (4.0 * PI)).abs() < 1e-9);
    // Resistance at the throat over that of a wide tube: little below the cut-off, nearly all well above it.
    let profile = Profile { segments: vec![plain(Flare::Exponential, length, start, end)] };
    let share = |frequency: f64| {
        let at = at(&air, frequency);
        let [a, b, c, d] = chain(&admittance(&lossless(&profile), &at));
        let load = mouth_impedance(&at, end);
        ((a * load + b) / (c * load + d)).re * start / (air.density * air.speed)
    };
    assert!(share(0.6 * lowest) < 0.1, "{}", share(0.6 * lowest));
    let above: f64 = (0..20).map(|k| share(lowest * (3.0 + 0.1 * f64::from(k)))).sum::<f64>() / 20.0;
    assert!((0.75..1.15).contains(&above), "{above}");
}

#[test]
fn a_closed_stub_is_a_chamber_at_low_frequencies() {
    let air = Air::reference();
    let profile = Profile { segments: vec![plain(Flare::Conical, 1.2, 0.002, 0.001)] };
    let stub = lossless(&profile);
    let frequency = 2.0;
    let y = admittance(&stub, &at(&air, frequency));
    let into_stub = y[0] - y[1] * y[2] / y[3];
    let chamber = Chamber::new(Node::Inside(0), air.compliance(profile.volume()), None, 1.0);
    let lumped = admittance(&chamber, &at(&air, frequency))[0];
    assert!((into_stub / lumped - 1.0).norm() < 3e-3, "{into_stub} {lumped}");
}

#[test]
fn a_way_cut_anywhere_is_the_same_way() {
    let air = Air::reference();
    let segments = vec![
        plain(Flare::Conical, 0.9, 0.05, 0.03),
        Segment {
            fill: Some(Fill::polyester(10.0, Frame::Limp)),
            ..plain(Flare::Exponential, 1.1, 0.03, 0.06)
        },
    ];
    let profile = Profile { segments };
    let part = |from, to| Passage::new(INSIDE, &profile.slices(from, to), [None, None], true);
    for cut in [0.3, 0.9, 1.4] {
        for frequency in [20.0, 90.0, 400.0] {
            let at = at(&air, frequency);
            let whole = chain(&admittance(&part(0.0, 2.0), &at));
            let [a, b, c, d] = chain(&admittance(&part(0.0, cut), &at));
            let [e, f, g, h] = chain(&admittance(&part(cut, 2.0), &at));
            let joined = [a * e + b * g, a * f + b * h, c * e + d * g, c * f + d * h];
            for (joined, whole) in joined.iter().zip(&whole) {
                assert!((joined - whole).norm() < 3e-3 * whole.norm().max(1e-6), "{cut} {frequency}");
            }
        }
    }
}

fn line(profile: Profile) -> Line {
    let mouth = Mouth::Open { end: End::Flanged, path: 0.0 };
    Line { profile, driver_at: 0.0, chamber: None, stub: None, inner: None, mouth }
}

fn straight(length: f64, start: f64, end: f64, fill: Option<Fill>) -> Profile {
    Profile { segments: vec![Segment { fill, ..plain(Flare::Conical, length, start, end) }] }
}

/// A woofer whose suspension is soft, so that the line alone brakes it.
fn still(line: &Line) -> (f64, f64) {
    let setting = Setting::new(woofer(), Air::reference());
    let enclosure = Enclosure::Line(line.clone());
    let compiled = enclosure.compile(&setting).expect("compiles");
    let figures = Figures::of(&compiled.network, 2.83);
    (figures.excursion_minimum.expect("a minimum").frequency, enclosure.resonance(&setting).expect("one"))
}

#[test]
fn a_line_of_2_8_m_brakes_the_cone_near_a_quarter_wave_and_lower_when_tapered() {
    let air = Air::reference();
    let area = woofer().sd;
    let end = End::Flanged.length_correction(area);
    let quarter = air.speed / (4.0 * (2.8 + end));
    let (cone, reactance) = still(&line(straight(2.8, area, area, None)));
    assert!((cone / quarter - 1.0).abs() < 0.03, "{cone} {quarter}");
    assert!((reactance / quarter - 1.0).abs() < 0.01, "{reactance} {quarter}");
    let (tapered, _) = still(&line(straight(2.8, area, 0.5 * area, None)));
    assert!(tapered < 0.95 * cone, "{tapered} {cone}");
    let (filled, _) = still(&line(straight(2.8, area, area, Some(Fill::polyester(1.5, Frame::Limp)))));
    assert!(filled < cone, "{filled} {cone}");
}

/// Common practice: a well filled 30 Hz line delays by about a quarter of a period, 8.3 ms; a box with a port of that
/// tuning by 20 ms and more.
#[test]
fn a_filled_30_hz_line_delays_by_about_8_ms_and_a_port_by_more_than_twice_that() {
    let air = Air::reference();
    let area = woofer().sd;
    let length = air.speed / (4.0 * 30.0) - End::Flanged.length_correction(area);
    let profile = straight(length, area, area, Some(Fill::polyester(8.0, Frame::Limp)));
    let grid = FrequencyGrid::logarithmic(26.0, 34.0, 9).expect("grid");
    let delay = |enclosure: Enclosure| {
        let compiled = enclosure.compile(&Setting::new(woofer(), air)).expect("compiles");
        Response::of(&compiled.network, &grid, 2.83).group_delay[4]
    };
    let line = delay(Enclosure::Line(line(profile)));
    assert!((0.0065..0.0100).contains(&line), "{line} s");
    let section = CrossSection::Round { radius: 0.05 };
    let port = Port::new(section, None);
    let losses = Losses { ql: Some(7.0), qa: Some(100.0) };
    let ported = Ported { volume: 0.05, losses, ports: vec![port], tuning: Some(30.0) };
    let ported = delay(Enclosure::Ported(ported));
    assert!(ported > 2.0 * line, "{ported} s");
}

fn stage_woofer() -> Driver {
    let sheet = Sheet {
        re: Some(5.5),
        fs: Some(40.0),
        qms: Some(6.0),
        qes: Some(0.38),
        vas: Some(0.18),
        sd: Some(0.053),
        ..Sheet::default()
    };
    sheet.complete(&Air::reference()).expect("complete").driver
}

/// Common practice: 20 to 30 % where a direct radiator has low single digits.
#[test]
fn a_horn_of_stage_size_passes_20_to_30_percent_in_its_band() {
    let driver = stage_woofer();
    let air = Air::reference();
    // Keele 1977: throat area 2 pi Fs Qts Vas/c.
    let throat = 2.0 * PI * driver.fs() * driver.qts() * driver.vas(&air) / air.speed;
    let horn = FrontHorn {
        rear: Sealed { volume: 0.04, losses: Losses { ql: Some(20.0), qa: Some(50.0) } },
        throat: None,
        profile: Profile { segments: vec![plain(Flare::Exponential, 2.2, throat, 0.55)] },
        mouth: End::Mouth,
    };
    let setting = Setting { space: Space::Quarter, ..Setting::new(driver, air) };
    let compiled = Enclosure::FrontHorn(horn).compile(&setting).expect("compiles");
    let grid = FrequencyGrid::logarithmic(70.0, 180.0, 60).expect("grid");
    let response = Response::of(&compiled.network, &grid, 2.83);
    let mean = response.efficiency().sum::<f64>() / 60.0;
    assert!((0.2..0.35).contains(&mean), "{mean}");
    let direct = Enclosure::Sealed(Sealed { volume: 0.05, losses: Losses::default() });
    let direct = direct.compile(&Setting::new(driver, air)).expect("compiles");
    let plain = FrequencyGrid::logarithmic(150.0, 250.0, 60).expect("grid");
    let low = Response::of(&direct.network, &plain, 2.83).efficiency().sum::<f64>() / 60.0;
    assert!(low < 0.06, "{low}");
}

fn slot_cabinet(height: f64) -> Line {
    let width = 0.4;
    let slot = Segment { width: Some(width), ..plain(Flare::Conical, 0.06, width * height, width * height) };
    let flare = plain(Flare::Exponential, 0.2, width * height, 4.0 * width * height);
    Line {
        profile: Profile { segments: vec![slot, flare] },
        chamber: Some(Sealed { volume: 0.06, losses: Losses { ql: Some(10.0), qa: None } }),
        inner: Some(End::Flanged),
        ..line(Profile { segments: vec![] })
    }
}

#[test]
fn halving_the_slot_of_a_slot_cabinet_lowers_its_tuning() {
    let (wide, narrow) = (still(&slot_cabinet(0.05)).1, still(&slot_cabinet(0.025)).1);
    assert!(narrow < 0.9 * wide, "{narrow} {wide}");
}

/// Two drivers side by side in parallel on the same voltage: 6 dB more, half the load (common practice).
#[test]
fn two_drivers_in_parallel_on_twice_the_line_are_6_db() {
    let fill = Some(Fill::polyester(6.0, Frame::Limp));
    let one = line(straight(2.0, 0.04, 0.03, fill));
    let two = line(straight(2.0, 0.08, 0.06, fill));
    let pair = DriverArray { wiring: Wiring { series: 1, parallel: 2 }, ..DriverArray::from(woofer()) };
    let grid = FrequencyGrid::logarithmic(15.0, 60.0, 20).expect("grid");
    let solve = |line: Line, driver_array: DriverArray| {
        let compiled =
            Enclosure::Line(line).compile(&Setting::new(driver_array, Air::reference())).expect("compiles");
        Response::of(&compiled.network, &grid, 2.83)
    };
    let (single, double) = (solve(one, DriverArray::from(woofer())), solve(two, pair));
    for k in 0..20 {
        let louder = 20.0 * (double.pressure[k].norm() / single.pressure[k].norm()).log10();
        // Wall friction and end correction are not in proportion.
        assert!((louder - 6.02).abs() < 0.4, "{louder}");
        assert!((2.0 * double.impedance[k].norm() / single.impedance[k].norm() - 1.0).abs() < 0.05);
    }
}

/// What enters a way in its middle flows through the area there; inside there is no edge at which it could hiss.
#[test]
fn air_that_enters_a_way_in_its_middle_meets_the_area_there() {
    let profile = Profile { segments: vec![plain(Flare::Conical, 3.0, 0.02, 0.3)] };
    // Of a cone the root of the area grows evenly.
    let area = |at: f64| (0.02f64.sqrt() + at / 3.0 * (0.3f64.sqrt() - 0.02f64.sqrt())).powi(2);
    let setting = Setting::new(woofer(), Air::reference());
    let line = Line {
        profile: profile.clone(),
        driver_at: 1.0,
        chamber: None,
        stub: None,
        inner: None,
        mouth: Mouth::Open { end: End::Flanged, path: 0.0 },
    };
    let tapped = TappedHorn { profile, taps: [0.4, 2.0], mouth: End::Flanged };
    for (enclosure, at) in [(Enclosure::Line(line), 1.0), (Enclosure::TappedHorn(tapped), 2.0)] {
        let network = enclosure.compile(&setting).expect("compiles").network;
        let [entrance, mouth] = &network.openings[..] else { panic!("{:?}", network.openings) };
        assert!((entrance.area / area(at) - 1.0).abs() < 1e-9, "{} m2", entrance.area);
        assert_eq!((entrance.kind, mouth.kind), (OpeningKind::Throat, OpeningKind::Port));
        let response = Response::without_delay(
            &network,
            &FrequencyGrid::logarithmic(60.0, 61.0, 2).expect("a grid"),
            20.0,
        );
        let flow = response.opening_velocity[0][0].norm() * entrance.area;
        let speed = response.air_speed(0).next().expect("two frequencies");
        assert!((speed - 2f64.sqrt() * flow / area(at)).abs() < 1e-9 * speed);
    }
}
