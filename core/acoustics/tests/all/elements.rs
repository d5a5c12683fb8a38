//! Physical elements by themselves: reciprocity, passivity, limits and published values.

use crate::support;
use std::f64::consts::PI;

use crate::support::{any_driver_array, any_enclosure, any_profile, any_source, woofer};
use approx::assert_relative_eq;
use oak_acoustics::Complex;
use oak_acoustics::element::{
    At, Chamber, Duct, Element, End, Loads, Mass, MovingCoil, Passage, Resistance, Slice, before_wall,
    piston_impedance,
};
use oak_acoustics::enclosure::{Enclosure, Losses, Sealed, Setting};
use oak_acoustics::lanes::Path;
use oak_acoustics::medium::{Air, CrossSection, Space, WallLosses};
use oak_acoustics::network::{Network, Node};
use oak_acoustics::response::{Figures, FrequencyGrid, Response};
use oak_acoustics::solve::Solver;
use oak_acoustics::starting_point::{Ask, Wishes};
use proptest::prelude::*;

const INSIDE: [Node; 2] = [Node::Inside(0), Node::Inside(1)];
const ZERO: Complex = Complex::new(0.0, 0.0);

fn at(air: &Air, frequency: f64) -> At<'_> {
    At { omega: 2.0 * PI * frequency, air, space: Space::Half }
}

/// `reference/opening-wall`: axially symmetric finite elements, for tubes of one radius.
#[test]
fn air_before_a_wall_is_as_long_as_finite_elements_have_it() {
    let text = include_str!("../../../../reference/opening-wall/results.json");
    let results: Vec<serde_json::Value> = serde_json::from_str(text).expect("results");
    assert!(results.len() >= 20);
    for result in &results {
        let [reach, gap, extra] =
            ["reach", "gap", "extra"].map(|key| result[key].as_f64().expect("a number"));
        // In a tube of any radius the same.
        let found = before_wall(0.05, 0.05 * gap, 0.05 * reach) / 0.05;
        assert_relative_eq!(found, extra, max_relative = 0.075, epsilon = 0.004);
    }
}

/// Admittances `[n * n]` of an element.
fn admittance(element: &dyn Element, frequency: f64) -> Vec<Complex> {
    let air = Air::reference();
    let n = element.terminals().len();
    let mut y = vec![ZERO; n * n];
    element.admit(&at(&air, frequency), &mut y);
    y
}

fn round(radius: f64) -> CrossSection {
    CrossSection::Round { radius }
}

#[test]
fn a_port_in_a_corner_loses_what_a_round_one_of_the_same_area_over_perimeter_does() {
    let side = 0.1_f64;
    let (area, edge) = (side * side / 2.0, side * (2.0 + 2.0_f64.sqrt()));
    let loss = |section: CrossSection| {
        let duct = Duct::new(INSIDE, section, 0.3, 1, [End::Free, End::Free]);
        // The ends have no loss: what is left is the wall's, over the area.
        let impedance = -1.0 / admittance(&duct, 40.0)[1];
        impedance.re * section.area()
    };
    let corner = loss(CrossSection::Corner { side });
    assert_relative_eq!(corner, loss(round(2.0 * area / edge)), max_relative = 2e-3);
    assert!(corner > 1.3 * loss(round((area / PI).sqrt())), "{corner}");
}

fn any_element() -> impl Strategy<Value = Box<dyn Element>> {
    let section = prop_oneof![
        (0.002f64..0.12).prop_map(round),
        (0.02f64..0.5, 0.001f64..0.08).prop_map(|(width, height)| CrossSection::Slot { width, height }),
    ];
    let end = prop_oneof![Just(End::Free), Just(End::Flanged), (1u8..=3).prop_map(End::Walls)];
    let duct = (section, 0.005f64..3.0, 1u32..6, end.clone(), end, any::<bool>()).prop_map(
        |(section, length, count, inner, outer, opens)| {
            let nodes = if opens { [Node::Inside(0), Node::Outside] } else { INSIDE };
            Box::new(Duct::new(nodes, section, length, count, [inner, outer])) as Box<dyn Element>
        },
    );
    let mass = (0.1f64..1e3).prop_map(|mass| Box::new(Mass::new(INSIDE, mass)) as Box<dyn Element>);
    let leak =
        (1e2f64..1e8).prop_map(|r| Box::new(Resistance::new(INSIDE[0], INSIDE[1], r)) as Box<dyn Element>);
    let chamber = (1e-9f64..1e-5, proptest::option::of(1.0f64..500.0)).prop_map(|(compliance, qa)| {
        Box::new(Chamber::new(INSIDE[0], compliance, qa, 200.0)) as Box<dyn Element>
    });
    let loads = prop_oneof![Just(Loads::None), Just(Loads::Front), (0.05f64..2.0).prop_map(Loads::Dipole)];
    let coil = (any_driver_array(), loads).prop_map(|(driver_array, loads)| {
        let poles = [Node::Amplifier, Node::Ground];
        Box::new(MovingCoil::new([Node::Outside, Node::Inside(0)], poles, driver_array.layer(), loads))
            as Box<dyn Element>
    });
    let passage = (any_slices(), any::<bool>()).prop_map(|(slices, walls)| {
        let nodes = [Node::Inside(0), Node::Outside];
        Box::new(Passage::new(nodes, &slices, [None, Some(End::Mouth)], walls)) as Box<dyn Element>
    });
    prop_oneof![duct, mass, leak, chamber, coil, passage]
}

fn any_slices() -> impl Strategy<Value = Vec<Slice>> {
    any_profile().prop_map(|profile| profile.slices(0.0, profile.length()))
}

proptest! {
    #[test]
    fn every_element_is_reciprocal(element in any_element(), frequency in 5.0f64..2000.0) {
        let y = admittance(element.as_ref(), frequency);
        let n = element.terminals().len();
        for row in 0..n {
            for column in 0..row {
                let (a, b) = (y[row * n + column], y[column * n + row]);
                // A motor turns voltage into pressure as it turns velocity into voltage, but with the opposite sign.
                let gyrates = row >= 2 && column < 2;
                let b = if gyrates { -b } else { b };
                prop_assert!((a - b).norm() <= 1e-12 * a.norm().max(1e-300));
            }
        }
    }

    #[test]
    fn no_element_gives_power_whatever_pressures_it_meets(
        element in any_element(),
        frequency in 5.0f64..2000.0,
        parts in proptest::array::uniform8(-1.0f64..1.0),
    ) {
        let y = admittance(element.as_ref(), frequency);
        let n = element.terminals().len();
        let pressures: Vec<_> = parts.chunks(2).map(|part| Complex::new(part[0], part[1])).collect();
        let (mut taken, mut size) = (0.0, 0.0);
        for row in 0..n {
            let flow: Complex = (0..n).map(|column| y[row * n + column] * pressures[column]).sum();
            taken += (pressures[row].conj() * flow).re;
            size += pressures[row].norm() * flow.norm();
        }
        prop_assert!(taken >= -1e-9 * size, "{taken} of {size}");
    }

    /// A rigid, empty, frictionless way takes nothing: what goes in comes out as sound.
    #[test]
    fn a_lossless_way_only_passes_power_on(
        slices in any_slices(), frequency in 5.0f64..1000.0, parts in proptest::array::uniform4(-1.0f64..1.0),
    ) {
        let slices: Vec<_> = slices.into_iter().map(|slice| Slice { fill: None, ..slice }).collect();
        for outer in [Node::Inside(1), Node::Outside] {
            let way = Passage::new([Node::Inside(0), outer], &slices, [Some(End::Free), Some(End::Mouth)], false);
            let y = admittance(&way, frequency);
            let second = if outer == Node::Outside { ZERO } else { Complex::new(parts[2], parts[3]) };
            let pressures = [Complex::new(parts[0], parts[1]), second];
            let flows = [y[0] * pressures[0] + y[1] * pressures[1], y[2] * pressures[0] + y[3] * pressures[1]];
            let taken = (pressures[0].conj() * flows[0] + pressures[1].conj() * flows[1]).re;
            let mut y = [ZERO; 4];
            let radiated = way.admit(&at(&Air::reference(), frequency), &mut y) * flows[1].norm_sqr();
            let size = pressures[0].norm() * flows[0].norm() + pressures[1].norm() * flows[1].norm();
            prop_assert!((taken - radiated).abs() <= 1e-7 * size, "{taken} {radiated} of {size}");
            prop_assert!(radiated >= 0.0);
        }
    }

    /// In every family, with any drivers behind any filters and parts: real power at the amplifier is what heats coils, cable and parts,
    /// what friction takes from the cones, what every other element takes, and what leaves as sound, each face against the others.
    #[test]
    fn power_in_is_power_out(
        driver_array in any_driver_array(), enclosure in any_enclosure(), source in any_source(), frequency in 8.0f64..800.0,
    ) {
        let (air, volts) = (Air::reference(), 10.0);
        let setting = Setting { source, ..Setting::new(driver_array, air) };
        let network = enclosure.compile(&setting).expect("compiles").network;
        let mut solver = Solver::new(&network);
        solver.solve(frequency, volts);
        let supplied = (solver.pressure(Node::Amplifier) * solver.current().conj()).re;
        let at = at(&air, frequency);
        let one = if network.cones.len() > 1 { driver_array.layer() } else { driver_array.equivalent() };
        let lost: f64 = (0..network.elements.len())
            .map(|element| {
                let here = &network.elements[element];
                if let Some(cone) = network.cones.iter().find(|cone| cone.element == element) {
                    let velocity = solver.outflow(element, 0) / cone.area;
                    let coil = one.blocked_impedance(at.omega).re * solver.outflow(element, 2).norm_sqr();
                    return coil + one.mechanical_impedance(at.omega).re * velocity.norm_sqr();
                }
                let through = |(terminal, node): (usize, &Node)| {
                    let flow = solver.outflow(element, terminal);
                    let across = match node {
                        Node::Outside => solver.pressure_outside(element, terminal),
                        inside => solver.pressure(*inside),
                    };
                    -(across.conj() * flow).re
                };
                let mut admittance = vec![ZERO; here.terminals().len().pow(2)];
                let load = here.admit(&at, &mut admittance);
                let sounds = here.terminals().iter().position(|node| *node == Node::Outside);
                let sound = sounds.map_or(0.0, |terminal| load * solver.outflow(element, terminal).norm_sqr());
                here.terminals().iter().enumerate().map(through).sum::<f64>() - sound
            })
            .sum();
        let taken = lost + solver.radiated();
        prop_assert!((supplied - taken).abs() < 1e-6 * supplied, "{supplied} W in, {taken} W out");
    }

    /// The wide registers compute what the narrow ones do.
    #[test]
    fn frequencies_side_by_side_are_frequencies_one_by_one(
        driver_array in any_driver_array(), enclosure in any_enclosure(), lowest in 8.0f64..100.0, span in 1.1f64..8.0,
    ) {
        let network = enclosure.compile(&Setting::new(driver_array, Air::reference())).expect("compiles").network;
        let grid = FrequencyGrid::logarithmic(lowest, lowest * span, 9).expect("a grid");
        let all: Vec<_> = Path::all().into_iter().map(|path| path.forced(|| Response::of(&network, &grid, 1.0))).collect();
        let same = |wide: Complex, one: Complex| (wide - one).norm() <= 1e-8 * one.norm();
        for other in &all[1..] {
            for index in 0..9 {
                prop_assert!(same(other.pressure[index], all[0].pressure[index]), "heard, {index}");
                prop_assert!(same(other.impedance[index], all[0].impedance[index]), "impedance, {index}");
            }
        }
    }
}

/// However this processor computes it, every curve and figure is the same to the last digit that is shown.
#[test]
fn every_path_of_the_processor_gives_the_same_digits() {
    let ask = Ask::new(Setting::new(support::woofer(), Air::reference()), Wishes::default());
    let grid = FrequencyGrid::logarithmic(10.0, 500.0, 121).expect("a grid");
    let mut compared = 0;
    for (family, starting_points) in support::every_family() {
        let Ok(start) = (starting_points[0].start)(&ask) else { continue };
        let setting = Setting::new(support::woofer(), Air::reference());
        let network = start.enclosure.compile(&setting).expect("compiles").network;
        let shown = |path: Path| {
            path.forced(|| {
                let response = Response::of(&network, &grid, 20.0);
                let figures = Figures::of(&network, 20.0);
                let curve =
                    |values: Vec<f64>| values.iter().map(|value| format!("{value:.4e}")).collect::<Vec<_>>();
                let impedance = response.impedance.iter().map(|z| z.norm()).collect();
                let delay = response
                    .group_delay
                    .iter()
                    .map(|delay| delay * 1e3)
                    .map(|ms| (ms * 100.0).round())
                    .collect();
                (
                    [
                        curve(response.level().collect()),
                        curve(response.excursion().collect()),
                        curve(impedance),
                        curve(delay),
                    ],
                    format!("{:?} {:.4}", figures.f3.map(|f3| format!("{f3:.4}")), figures.reference_level),
                )
            })
        };
        let all: Vec<_> = Path::all().into_iter().map(shown).collect();
        for other in &all[1..] {
            assert_eq!(other, &all[0], "{family}");
            compared += 1;
        }
    }
    assert!(compared >= 13 * (Path::all().len() - 1), "{compared} comparisons");
}

/// Two ducts joined end to end, solved as a network, against one of their joint length.
#[test]
fn a_duct_cut_in_two_is_the_same_duct() {
    let air = Air::reference();
    let section = round(0.03);
    let no_end = |nodes, length| Duct::new(nodes, section, length, 1, [End::Free, End::Free]);
    // End corrections would be counted at the cut; a mass with the opposite sign takes them off again.
    let correction = 2.0 * End::Free.length_correction(section.area()) * air.density / section.area();
    for frequency in [20.0, 150.0, 600.0, 1300.0] {
        let whole = admittance(&no_end(INSIDE, 0.5), frequency);
        let first = admittance(&no_end(INSIDE, 0.2), frequency);
        let second = admittance(&no_end(INSIDE, 0.3), frequency);
        let between = Complex::new(0.0, -2.0 * PI * frequency * correction).inv();
        // Unknown pressures on both sides of the correcting mass; drive p = 1 at the left, 0 at the right.
        let (a, b) = (first[3] + between, second[0] + between);
        let determinant = a * b - between * between;
        let right_of_cut = -first[2] * between / determinant;
        let through = second[2] * right_of_cut;
        assert!((through / whole[2] - 1.0).norm() < 1e-9, "{frequency} Hz: {through} against {}", whole[2]);
    }
}

#[test]
fn a_short_duct_is_a_mass_and_equal_ducts_add_up() {
    let air = Air::reference();
    let section = round(0.05);
    let (length, frequency) = (0.1, 20.0);
    let duct = |count| Duct::new(INSIDE, section, length, count, [End::Free, End::Flanged]);
    let area = section.area();
    let effective = length + End::Free.length_correction(area) + End::Flanged.length_correction(area);
    let mass = admittance(&Mass::new(INSIDE, air.density * effective / area), frequency);
    let one = admittance(&duct(1), frequency);
    // Within the share that the wall layer adds to the mass, delta/a, and no more than 3 %.
    assert!((one[1] / mass[1] - 1.0).norm() < 0.03, "{} {}", one[1], mass[1]);
    let three = admittance(&duct(3), frequency);
    for (a, b) in three.iter().zip(&one) {
        assert!((a - 3.0 * b).norm() < 1e-12 * a.norm());
    }
}

/// Kirchhoff's attenuation in a wide tube: `sqrt(omega nu/2)/(a c) (1 + (gamma - 1)/sqrt(Pr))`
/// (Kirchhoff 1868; Pierce, Acoustics, 1981, eq. 10-5.8). First order in the layer over the radius, so
/// within twice that ratio.
#[test]
fn a_wide_tube_attenuates_as_kirchhoff_found() {
    let air = Air::reference();
    let viscosity = air.viscosity / air.density;
    let prandtl = air.viscosity * air.specific_heat / air.conductivity;
    for (radius, frequency) in [(0.01, 200.0), (0.025, 100.0), (0.05, 1000.0)] {
        let omega = 2.0 * PI * frequency;
        let attenuation =
            (Complex::new(0.0, omega) * WallLosses::at(&air, round(radius), omega).slowness()).re;
        let kirchhoff = (omega * viscosity / 2.0).sqrt() / (radius * air.speed)
            * (1.0 + (air.gamma - 1.0) / prandtl.sqrt());
        let layer = (viscosity / omega).sqrt() / radius;
        assert!((attenuation / kirchhoff - 1.0).abs() < 2.0 * layer, "{attenuation} {kirchhoff} {layer}");
    }
}

#[test]
fn end_corrections_are_those_published() {
    let area = PI; // of a mouth with radius 1 m
    // Rayleigh 1896, section 307: 8/(3 pi). Levine and Schwinger 1948: 0.6133.
    assert!((End::Flanged.length_correction(area) - 0.848_826).abs() < 1e-6);
    assert!((End::Free.length_correction(area) - 0.6133).abs() < 5e-4);
    // A mouth and its mirror image in one wall act as a mouth of twice the area.
    let doubled = End::Free.length_correction(2.0 * area);
    assert!((End::Walls(1).length_correction(area) - doubled).abs() < 1e-12);
    assert!(End::Walls(3).length_correction(area) > End::Walls(2).length_correction(area));
}

/// Values of `1 - 2 J1(x)/x` and `2 H1(x)/x` from the tables of J1 and H1 in Abramowitz and Stegun (tables
/// 9.1 and 12.1): J1(2) = 0.57672 48, H1(2) = 0.64676 37; J1(4) = -0.06604 33, H1(4) = 1.06972 67.
#[test]
fn a_piston_radiates_as_tabulated() {
    for (x, j1, h1) in [(2.0, 0.576_724_8, 0.646_763_7), (4.0, -0.066_043_3, 1.069_726_7)] {
        let z = piston_impedance(x / 2.0);
        assert!((z.re - (1.0 - 2.0 * j1 / x)).abs() < 1e-6, "{z}");
        assert!((z.im - 2.0 * h1 / x).abs() < 1e-6, "{z}");
    }
}

/// In a baffle, what the cone radiates is `rho omega^2 |U|^2/(2 pi c)` at low frequencies, whatever the box:
/// integrated over the half sphere at 1 m it must be what the level says.
#[test]
fn the_level_is_the_power_that_is_radiated() {
    let (air, driver) = (Air::reference(), woofer());
    let sealed = Enclosure::Sealed(Sealed { volume: 0.04, losses: Losses::default() });
    let network: Network = sealed.compile(&Setting::new(driver, air)).expect("compiles").network;
    let grid = FrequencyGrid::logarithmic(20.0, 120.0, 12).expect("grid");
    let response = Response::of(&network, &grid, 2.83);
    for (k, frequency) in response.frequency.iter().enumerate() {
        let ka = 2.0 * PI * frequency / air.speed * (driver.sd / PI).sqrt();
        let radiated = response.radiated[k];
        let intensity = response.pressure[k].norm_sqr() / (air.density * air.speed);
        // The piston is a point source as long as ka is small; its resistance is then (ka)^2/2 to (ka)^2/6.
        assert!((radiated / (2.0 * PI * intensity) - 1.0).abs() < ka * ka / 3.0 + 1e-9, "{frequency} Hz");
    }
}
