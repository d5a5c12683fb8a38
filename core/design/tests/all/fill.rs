//! What fill in a chamber does.

use crate::cabinet::{design, ported, report};
use approx::assert_relative_eq;
use oak_design::file::{RawDesign, RawStuffing, Typed};
use oak_design::report::compute_undelayed;
use oak_design::resolve::resolve_design;
use oak_design::response::FrequencyGrid;

#[test]
fn fill_before_a_port_is_noticed() {
    let mut raw = ported();
    let face = oak_design::file::RawFace::Back;
    let thickness = Some(Typed::from("300 mm"));
    let layer = |thickness: &Option<Typed>| oak_design::file::RawLayer {
        face,
        thickness: thickness.clone(),
        density: Some(Typed::from("20 kg/m3")),
        resistivity: None,
        frame: None,
    };
    raw.body.get_or_insert_default().fills = vec![layer(&thickness)];
    let fill = &report(&raw).fills[0];
    assert_eq!(fill.blocks, ["port"]);
    let volume: f64 = (0..3).map(|k| fill.bounds[1][k] - fill.bounds[0][k]).product();
    assert_relative_eq!(fill.mass, 20.0 * volume, max_relative = 1e-9);
    raw.body.get_or_insert_default().fills = vec![layer(&Some(Typed::from("20 mm")))];
    assert!(report(&raw).fills[0].blocks.is_empty());
}

#[test]
fn both_methods_of_fill_lower_the_tuning() {
    let mut raw = ported();
    let empty = report(&raw).damping.expect("tuned");
    assert!(empty.physical.is_none());
    let tunings: Vec<f64> = empty.quick.iter().map(|amount| amount.tuning).collect();
    assert!(tunings.windows(2).all(|pair| pair[1] < pair[0]), "{tunings:?}");
    // A port of one length: the tuning goes with one over the root of the gain.
    let packed = empty.quick.last().expect("packed");
    assert_relative_eq!(packed.tuning / tunings[0], packed.gain.sqrt().recip(), max_relative = 0.02);
    raw.body.get_or_insert_default().fills = vec![oak_design::file::RawLayer {
        face: oak_design::file::RawFace::Back,
        thickness: Some(Typed::from("100 mm")),
        density: Some(Typed::from("30 kg/m3")),
        resistivity: None,
        frame: None,
    }];
    let filled = report(&raw).damping.expect("tuned").physical.expect("layers");
    assert!(filled.share > 0.05 && filled.share < 0.6, "{}", filled.share);
    // Isothermal where it is filled: 1.4 times the air there at most.
    assert!(
        filled.gain > 1.0 && filled.gain <= 1.0 + 0.41 * filled.share,
        "{} of {}",
        filled.gain,
        filled.share
    );
    assert!(filled.tuning < tunings[0]);
}

#[test]
fn fill_by_weight_does_what_the_amount_of_that_weight_does_and_stands_beside_it() {
    use oak_design::file::RawFillMaterial;
    let plain = || {
        let mut raw = design("Narrowboat nook", "Sealed, bench berth");
        (raw.enclosure.fill, raw.enclosure.gain, raw.enclosure.qa) = (None, None, None);
        raw
    };
    let weighed = |density: &str, material: Option<RawFillMaterial>| {
        let mut raw = plain();
        raw.enclosure.fill_density = Some(Typed::from(density));
        raw.enclosure.fill_material = material;
        raw
    };
    let response = |raw: &RawDesign| {
        let grid = FrequencyGrid::logarithmic(10.0, 500.0, 60).expect("a grid");
        let computed = compute_undelayed(&resolve_design(raw).expect("resolves"), &grid).expect("computes");
        (
            computed.response.level().collect::<Vec<_>>(),
            computed.built.compiled.closed_box.expect("a closed box").fc,
        )
    };
    let mut full = plain();
    full.enclosure.fill = Some(RawStuffing::Full);
    assert_eq!(response(&full), response(&weighed("10 g/l", None)));
    // An amount beside it says nothing.
    let mut both = weighed("10 kg/m3", None);
    both.enclosure.fill = Some(RawStuffing::Lined);
    assert_eq!(response(&both), response(&full));
    // Finer fibres resist more.
    let (_, polyester) = response(&weighed("4 g/l", None));
    let (_, glass) = response(&weighed("4 g/l", Some(RawFillMaterial::Glass)));
    assert!(glass < polyester - 0.1, "{glass} {polyester}");

    let raw = weighed("6.4 g/l", Some(RawFillMaterial::Wool));
    let boxed = report(&raw);
    let row = boxed.damping.expect("tuned").quick.last().expect("rows").clone();
    assert_eq!(row.id, "weighed");
    assert_relative_eq!(row.mass, 6.4 * boxed.chambers[0].net, max_relative = 1e-9);
    assert_relative_eq!(row.gain, boxed.chambers[0].gain, max_relative = 1e-12);
    assert_relative_eq!(row.tuning, response(&raw).1, max_relative = 1e-4);

    let much = resolve_design(&weighed("100 g/l", None)).expect_err("too much");
    assert!(much.iter().any(|problem| problem.field == "enclosure.fill_density"), "{much:?}");
}
