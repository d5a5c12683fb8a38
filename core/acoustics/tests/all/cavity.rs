//! A chamber with standing waves against closed forms, a chain of ducts and a finite-element solution.

use oak_acoustics::Stop;
use std::f64::consts::PI;

use approx::assert_relative_eq;
use oak_acoustics::Complex;
use oak_acoustics::cavity::{Block, Cavity, CavityError, Patch, Reduced};
use oak_acoustics::medium::{Air, Fill, Frame, Lining};

const SIZE: [f64; 3] = [0.22, 0.924, 0.26];

/// A square of an area around a place in the front.
fn front(x: f64, y: f64, area: f64) -> Patch {
    let half = area.sqrt() / 2.0;
    Patch { low: [x - half, y - half, SIZE[2]], high: [x + half, y + half, SIZE[2]] }
}

fn cavity(blocks: Vec<Block>) -> Cavity {
    Cavity {
        size: SIZE,
        blocks,
        openings: vec![vec![front(0.11, 0.75, 0.0144)], vec![front(0.11, 0.12, 0.0036)]],
        free: 1.0,
    }
}

fn reduced(cavity: &Cavity) -> Reduced {
    cavity.reduce(&Air::reference(), &Stop::default(), &|_, _| {}).expect("not given up")
}

fn impedance(reduced: &Reduced, frequency: f64, row: usize, column: usize) -> Complex {
    reduced.impedance(&Air::reference(), 2.0 * PI * frequency)[(row, column)]
}

/// Where a curve is highest between two frequencies.
fn peak(reduced: &Reduced, from: f64, to: f64, row: usize, column: usize) -> f64 {
    let steps = 4000;
    let at = |step: usize| from + (to - from) * step as f64 / steps as f64;
    // Of one opening alone the energy that is lost peaks with the wave itself, whatever else is near.
    let size = |step: &usize| {
        let found = impedance(reduced, at(*step), row, column);
        if row == column { found.re } else { found.norm() }
    };
    at((0..=steps).max_by(|a, b| size(a).total_cmp(&size(b))).expect("some"))
}

const DENSE: Fill = Fill { resistivity: 12_000.0, bulk_density: 40.0, frame: Frame::Rigid, lining: None };

#[test]
fn a_duct_with_a_lined_wall_is_lining_and_passage_side_by_side() {
    let air = Air::reference();
    let [wide, long] = [0.1, 1.2];
    for (thick, fill) in [(0.03, DENSE), (0.05, Fill::polyester(20.0, Frame::Limp)), (0.08, DENSE)] {
        let chamber = reduced(&Cavity {
            size: [wide, long, wide],
            blocks: vec![Block { low: [0.0; 3], high: [wide, long, thick], fill }],
            openings: [0.0, long].map(|y| vec![Patch { low: [0.0, y, thick], high: [wide, y, wide] }]).into(),
            free: 1.0,
        });
        // Deep in dense fill the passage is no longer all there is; near a pole a shift of a thousandth is much.
        let highest = if thick > 0.06 { 70.0 } else { 200.0 };
        for frequency in [30.0, 65.0, 140.0, 180.0].into_iter().filter(|f| *f < highest) {
            let omega = 2.0 * PI * frequency;
            let lining = Some(Lining { share: thick / wide, depth: thick });
            let (density, modulus) = Fill { lining, ..fill }.at(omega, &air);
            let (number, own) =
                ((density / modulus).sqrt() * omega, (density * modulus).sqrt() / (wide * wide));
            let expected = Complex::new(0.0, -1.0) * own / (number * long).sin();
            let found = impedance(&chamber, frequency, 0, 1);
            let off = (found / expected - 1.0).norm();
            assert!(off < 0.04, "{thick} at {frequency} Hz: {found} {expected}, off {off}");
        }
    }
}

#[test]
fn at_low_frequencies_it_is_the_lumped_chamber() {
    let air = Air::reference();
    let chamber = reduced(&cavity(Vec::new()));
    let volume: f64 = SIZE.iter().product();
    for (row, column) in [(0, 0), (0, 1), (1, 1)] {
        let found = impedance(&chamber, 8.0, row, column);
        let spring = 1.0 / (2.0 * PI * 8.0 * air.compliance(volume));
        assert_relative_eq!(-found.im, spring, max_relative = 0.02);
    }
}

#[test]
fn what_one_opening_does_to_another_goes_both_ways() {
    let block = Block { low: [0.0; 3], high: [0.22, 0.3, 0.26], fill: DENSE };
    let chamber = reduced(&cavity(vec![block]));
    for frequency in [40.0, 170.0, 333.0, 600.0] {
        let (there, back) = (impedance(&chamber, frequency, 0, 1), impedance(&chamber, frequency, 1, 0));
        assert!((there / back - 1.0).norm() < 1e-6, "{there} {back}");
        // Fill takes energy.
        assert!(impedance(&chamber, frequency, 0, 0).re > 0.0);
    }
    assert!(chamber.error < 0.01, "{}", chamber.error);
}

#[test]
fn an_empty_room_rings_where_its_closed_form_says() {
    let air = Air::reference();
    let chamber = reduced(&cavity(Vec::new()));
    for half_waves in 1..=3_u32 {
        let expected = f64::from(half_waves) * air.speed / (2.0 * SIZE[1]);
        let found = peak(&chamber, expected - 20.0, expected + 20.0, 1, 1);
        assert_relative_eq!(found, expected, max_relative = 2e-3);
    }
    // Across: c/(2 0.26 m), the lowest wave forward.
    let forward = air.speed / (2.0 * SIZE[2]);
    assert_relative_eq!(peak(&chamber, forward - 15.0, forward + 12.0, 1, 1), forward, max_relative = 5e-3);
}

#[test]
fn dense_fill_at_one_end_takes_the_wave_and_thin_foam_does_not() {
    let height = |chamber: &Reduced| {
        let found = peak(chamber, 140.0, 230.0, 0, 1);
        impedance(chamber, found, 0, 1).norm()
    };
    let empty = height(&reduced(&cavity(Vec::new())));
    let foam = Fill::polyester(25.0, Frame::Rigid);
    let lined = Block { low: [0.0; 3], high: [0.22, 0.02, 0.26], fill: foam };
    let thin = height(&reduced(&cavity(vec![lined])));
    let block = Block { low: [0.0, 0.616, 0.0], high: [0.22, 0.924, 0.26], fill: DENSE };
    let dense = height(&reduced(&cavity(vec![block])));
    // Common practice: thin foam hardly helps, dense fill in a third of the box removes it.
    assert!(thin > 0.6 * empty, "{thin} {empty}");
    assert!(dense < 0.1 * empty, "{dense} {empty}");
}

#[test]
fn giving_up_gives_nothing() {
    let air = Air::reference();
    let stop = Stop::default();
    let told = |done, _| {
        if done >= 3 {
            stop.stop();
        }
    };
    assert_eq!(cavity(Vec::new()).reduce(&air, &stop, &told).expect_err("stopped"), CavityError::Stopped);
    let hall = Cavity { size: [8.0; 3], ..cavity(Vec::new()) };
    let refused = hall.reduce(&air, &Stop::default(), &|_, _| {}).expect_err("too large");
    assert!(matches!(refused, CavityError::TooLarge { unknowns } if unknowns > 3_000_000), "{refused}");
    assert!(refused.to_string().contains("90000"), "{refused}");
}

/// Reference: scikit-fem, `reference/scikit-fem/run.py`; the same room, openings, fill and losses.
fn finite_elements(name: &str) -> Vec<[f64; 7]> {
    let path = format!("{}/../../reference/scikit-fem/{name}.csv", env!("CARGO_MANIFEST_DIR"));
    let mut reader = csv::Reader::from_path(path).expect("committed");
    reader.deserialize::<[f64; 7]>().map(|row| row.expect("seven numbers")).collect()
}

#[test]
fn it_agrees_with_finite_elements() {
    let lining = Block { low: [0.0; 3], high: [0.22, 0.924, 0.04], fill: DENSE };
    let block = Block { low: [0.0, 0.616, 0.0], high: [0.22, 0.924, 0.26], fill: DENSE };
    for (name, blocks) in [("empty", vec![]), ("dense-block", vec![block]), ("lining", vec![lining])] {
        let chamber = reduced(&Cavity {
            size: SIZE,
            blocks,
            openings: vec![vec![front(0.11, 0.75, 0.0144)], vec![front(0.11, 0.12, 0.0036)]],
            free: 1.0,
        });
        let rows = finite_elements(name);
        for [frequency, a, b, c, d, e, f] in &rows {
            let pairs = [
                ((0, 0), Complex::new(*a, *b)),
                ((0, 1), Complex::new(*c, *d)),
                ((1, 1), Complex::new(*e, *f)),
            ];
            // Beside a zero of one impedance the others say how large a difference counts.
            let scale = pairs.iter().map(|pair| pair.1.norm()).fold(0.0, f64::max);
            for ((row, column), theirs) in pairs {
                let ours = impedance(&chamber, *frequency, row, column);
                // The air that crowds before an opening converges slowest on either mesh: 2 % of its mass, too, is agreement.
                let area = [0.0144, 0.0036][row.max(column)];
                let crowded = 2.0 * PI * frequency * 0.849 * 1.204 / (PI * area).sqrt();
                let off = (ours - theirs).norm() / (0.5 * scale).max(theirs.norm()).max(crowded);
                // Within a hundredth of a wave's own frequency half a percent of frequency is what counts.
                let on_peak =
                    name == "empty" && [186.0, 369.0, 374.0].iter().any(|at| (frequency - at).abs() < 4.0);
                assert!(
                    off < if on_peak { 0.1 } else { 0.02 },
                    "{name} {frequency} Hz {row}{column}: {ours} {theirs} {off}"
                );
            }
        }
    }
}
