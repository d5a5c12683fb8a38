//! What a workshop learns from its builds, against the two-level model integrated by brute force, and by simulated workshops.

use oak_acoustics::enclosure::Enclosure;
use oak_design::file::{
    RawDesign, RawFillMaterial, RawFoundBox, RawFoundValue, RawJoinery, RawMaterial, RawMeasuredBoard,
    RawMeasurements, RawStuffing, Typed, open_design,
};
use oak_design::resolve::resolve_design;
use oak_metering::learned::{LearnedQuantity, LearnedValue, learned, with_learned};
use rand::{Rng, SeedableRng};
use rand_chacha::ChaCha8Rng;

const BUILD: &str = include_str!("../../../../demo/builds/pit-organ.json");

/// A ported design of the demo, with nothing stated of its losses.
fn design() -> RawDesign {
    let build: serde_json::Value = serde_json::from_str(BUILD).expect("a build");
    let ported = |design: &&serde_json::Value| design["enclosure"]["family"] == "ported";
    let text = build["variants"].as_array().expect("variants").iter().find(ported).expect("one").to_string();
    let mut design = open_design(text.as_bytes()).expect("a design");
    (design.enclosure.ql, design.enclosure.qa, design.measured) = (None, None, None);
    design
}

fn number(value: f64, error: f64) -> Option<RawFoundValue> {
    Some(RawFoundValue { value: Typed::Number(value), error: Typed::Number(error), expected: None })
}

fn length(metres: f64, error: f64) -> Option<RawFoundValue> {
    let written = |metres: f64| Typed::Text(format!("{} mm", metres * 1e3));
    Some(RawFoundValue { value: written(metres), error: written(error), expected: None })
}

/// A build whose box was found to be so.
fn found(found: RawFoundBox) -> Vec<RawDesign> {
    let measured = RawMeasurements { found: Some(found), ..RawMeasurements::default() };
    vec![RawDesign { measured: Some(measured), ..design() }]
}

fn leaking(ql: f64, error: f64) -> Vec<RawDesign> {
    found(RawFoundBox { ql: number(ql, error), ..RawFoundBox::default() })
}

fn one(all: &[LearnedValue], quantity: LearnedQuantity) -> &LearnedValue {
    let mut of_it = all.iter().filter(|value| value.quantity == quantity);
    let first = of_it.next().expect("learned");
    assert!(of_it.next().is_none(), "one kind of it alone");
    first
}

/// Mean and deviation of the next build's value, both unknowns on a grid: prior mean `m`, workshops' scatter `w`, builds' scatter about `b`.
fn by_brute_force(seen: &[(f64, f64)], [m, w, b]: [f64; 3]) -> [f64; 2] {
    let normal = |x: f64, deviation: f64| (-0.5 * (x / deviation).powi(2)).exp() / deviation;
    let [mut total, mut first, mut second] = [0.0; 3];
    for i in 0..1500 {
        let mean = m + w * (f64::from(i) / 1500.0 - 0.5) * 12.0;
        for j in 0..300 {
            let spread = 5.0 * b * (f64::from(j) + 0.5) / 300.0;
            let likelihood: f64 =
                seen.iter().map(|(value, error)| normal(value - mean, error.hypot(spread))).product();
            let weight = likelihood * normal(mean - m, w) * (-0.5 * (spread / b).powi(2)).exp();
            total += weight;
            first += weight * mean;
            second += weight * (mean * mean + spread * spread);
        }
    }
    let mean = first / total;
    [mean, (second / total - mean * mean).sqrt()]
}

#[test]
fn the_next_box_is_foretold_as_the_two_level_model_says() {
    for seen in [
        vec![(12.0, 0.6)],
        vec![(9.0, 0.5), (13.0, 2.0)],
        vec![(5.0, 0.3), (5.5, 0.4), (4.6, 0.2), (8.0, 3.0)],
    ] {
        let builds: Vec<_> = seen.iter().map(|(ql, error)| leaking(*ql, *error)).collect();
        let all = learned(&builds);
        let value = one(&all, LearnedQuantity::Leakage);
        let logs: Vec<(f64, f64)> = seen.iter().map(|(ql, error)| (f64::ln(*ql), error / ql)).collect();
        let [mean, deviation] = by_brute_force(&logs, [7f64.ln(), 0.5, 0.25]);
        assert!((value.value.ln() - mean).abs() < 2e-3, "{} for {}", value.value, mean.exp());
        let half = 0.5 * (value.span[1] / value.span[0]).ln();
        assert!((half / deviation - 1.0).abs() < 0.01, "{half} for {deviation}");
        assert_eq!((value.builds as usize, value.offered), (seen.len(), seen.len() > 2));
        assert!((value.usual - 7.0).abs() < 1e-9);
    }
}

#[test]
fn a_value_of_which_little_is_sure_moves_it_little() {
    let at = |error: f64| one(&learned(&[leaking(20.0, error)]), LearnedQuantity::Leakage).value;
    assert!(at(1.0) > at(10.0) && at(10.0) > at(40.0) && at(40.0) > 7.0);
}

#[test]
fn many_builds_outweigh_what_was_held_before() {
    let builds: Vec<_> = (0..60).map(|k| leaking(if k % 2 == 0 { 11.0 } else { 13.0 }, 0.1)).collect();
    let all = learned(&builds);
    let value = one(&all, LearnedQuantity::Leakage);
    assert!((value.value - (11.0f64 * 13.0).sqrt()).abs() < 0.08, "{}", value.value);
    let half = 0.5 * (value.span[1] / value.span[0]).ln();
    assert!((half - 0.5 * (13.0f64 / 11.0).ln()).abs() < 0.02, "{half}");
}

#[test]
fn two_in_three_of_the_next_boxes_lie_within_what_is_foretold() {
    let mut random = ChaCha8Rng::seed_from_u64(7);
    let mut normal = || {
        let [u, v]: [f64; 2] = [random.random_range(1e-12..1.0), random.random_range(0.0..1.0)];
        (-2.0 * u.ln()).sqrt() * (std::f64::consts::TAU * v).cos()
    };
    let mut within = 0;
    const WORKSHOPS: usize = 240;
    for workshop in 0..WORKSHOPS {
        // A workshop as is held before any build, of one to six builds.
        let mean = 0.15 * normal();
        let spread = 0.1 * normal().abs();
        let designs: Vec<_> = (0..=workshop % 6)
            .map(|_| {
                let radii = mean + spread * normal() + 0.02 * normal();
                found(RawFoundBox {
                    port_ends: length(radii * radius(), 0.02 * radius()),
                    ..RawFoundBox::default()
                })
            })
            .collect();
        let next = mean + spread * normal();
        let all = learned(&designs);
        let [low, high] = one(&all, LearnedQuantity::PortEnds).span;
        within += usize::from((low..=high).contains(&next));
    }
    // 68 %, and what chance makes of 240.
    let share = within as f64 / WORKSHOPS as f64;
    assert!((0.59..0.80).contains(&share), "{share:.2}");
}

/// Radius of a circle of the area of the design's port, m.
fn radius() -> f64 {
    let design = resolve_design(&design()).expect("resolved");
    let Enclosure::Ported(ported) = &design.enclosure else { panic!("ported") };
    (ported.ports[0].section.area() / std::f64::consts::PI).sqrt()
}

#[test]
fn a_leak_teaches_nothing_and_a_build_counts_once() {
    assert!(learned(&[leaking(2.1, 0.1)]).is_empty());
    let newest_first = [leaking(9.0, 0.2), leaking(2.1, 0.1), leaking(4.0, 0.2)].concat();
    let all = learned(&[newest_first]);
    let value = one(&all, LearnedQuantity::Leakage);
    assert_eq!(value.builds, 1);
    assert_eq!(all, learned(&[leaking(9.0, 0.2)]));
}

#[test]
fn joints_ports_fill_and_boards_are_kept_apart() {
    let mut mitred = leaking(5.0, 0.2);
    mitred[0].body.get_or_insert_default().joinery = RawJoinery::Mitre;
    let mut filled = found(RawFoundBox {
        qa: Some(RawFoundValue {
            expected: Some(Typed::Number(20.0)),
            ..number(10.0, 0.5).expect("a value")
        }),
        ..RawFoundBox::default()
    });
    filled[0].enclosure.fill = Some(RawStuffing::Half);
    filled[0].enclosure.fill_material = Some(RawFillMaterial::Wool);
    let board = |material, nominal: &str, measured: &str| RawMeasuredBoard {
        material,
        nominal: nominal.into(),
        measured: measured.into(),
    };
    let boards = vec![
        board(RawMaterial::BirchPly, "18 mm", "17.4 mm"),
        board(RawMaterial::BirchPly, "12 mm", "11.6 mm"),
        board(RawMaterial::Mdf, "18 mm", "18.1 mm"),
    ];
    let measured = RawMeasurements { boards, ..RawMeasurements::default() };
    let boarded = vec![RawDesign { measured: Some(measured), ..design() }];
    let all = learned(&[leaking(11.0, 0.3), mitred, filled, boarded]);
    let told: Vec<_> = all.iter().map(|value| (value.quantity, value.of.as_str(), value.builds)).collect();
    assert_eq!(
        told,
        [
            (LearnedQuantity::Leakage, "butt joints", 1),
            (LearnedQuantity::Leakage, "mitre joints", 1),
            (LearnedQuantity::Fill, "sheep's wool", 1),
            (LearnedQuantity::Thickness, "Birch plywood sold as 12 mm", 1),
            (LearnedQuantity::Thickness, "Birch plywood sold as 18 mm", 1),
            (LearnedQuantity::Thickness, "MDF sold as 18 mm", 1),
        ]
    );
    let fill = &all[2];
    assert!(
        fill.value < 0.75 && fill.value > 0.5,
        "half of what the tables say, from one build: {}",
        fill.value
    );
    let ply = &all[4];
    assert!((0.0174..0.01755).contains(&ply.value) && (ply.usual - 0.018).abs() < 1e-9, "{}", ply.value);
}

#[test]
fn a_few_builds_are_used_only_where_that_is_asked_and_nothing_written_is_changed() {
    let box_of = |ql: f64| {
        found(RawFoundBox { ql: number(ql, 0.3), port_ends: length(0.006, 0.0005), ..RawFoundBox::default() })
    };
    let two = learned(&[box_of(11.0), box_of(12.0)]);
    let three = learned(&[box_of(11.0), box_of(12.0), box_of(11.5)]);
    let plain = design();
    assert_eq!(with_learned(&plain, &two, false).design, plain);
    let asked = with_learned(&plain, &two, true);
    assert_eq!(asked.set.len(), 2, "{:?}", asked.set);
    let offered = with_learned(&plain, &three, false);
    assert!(
        offered.set[0].starts_with("QL ") && offered.set[0].ends_with("(butt joints, 3 builds)"),
        "{:?}",
        offered.set
    );
    // The values that were set are those of the design that is then settled.
    let resolved = resolve_design(&offered.design).expect("resolved");
    let Enclosure::Ported(ported) = &resolved.enclosure else { panic!("ported") };
    assert!((ported.losses.ql.expect("a QL") - three[0].value).abs() < 0.06 * three[0].value);
    assert!(ported.ports[0].extra > 0.002, "{}", ported.ports[0].extra);
    let tuning = |design: &RawDesign| {
        let built = resolve_design(design).expect("resolved").built().expect("built");
        built.compiled.port_tuning.expect("ported").ports[0].length
    };
    assert!(
        tuning(&offered.design) < tuning(&plain),
        "a port that acts longer is cut shorter for its tuning"
    );
    let mut written = plain.clone();
    written.enclosure.ql = Some(Typed::Number(5.0));
    written.measured = Some(RawMeasurements { port_ends: Some("1 mm".into()), ..RawMeasurements::default() });
    let kept = with_learned(&written, &three, true);
    assert_eq!(kept.design, written);
    assert!(kept.set.is_empty());
}
