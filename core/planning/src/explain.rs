//! How what only a brief asks for is worked out: cost, kind, evenness, and whether the box as drawn fits its place.

use oak_design::Problem;
use oak_design::built::Boxed;
use oak_design::conditions::{Question, RawBasis, RawQuestion};
use oak_design::report::WeightReport;
use oak_design::working::{Input, Working};

use crate::Case;
use crate::build_plan::Cost;
use crate::check::{Check, judge};

const BRIEF: &str = "The brief and the driver's sheet.";
const EVEN: &str =
    "Spans by common practice: 3 dB more is heard as a note that booms, 6 dB less as one that is missing.";
const FITS: &str = "Parts are rods, blocks and prisms of their real size; distances between them by the library parry3d. Clear air of one \
    diameter before a port's end, 5 mm beside what moves air and 20 mm behind a magnet: common practice.";
const PLACE: &str = "Corners of the box against the place, in the upright section. A gap under a driver of a quarter of its cone's diameter, \
    and a head no wider than the box: common practice.";
const SIZE: &str =
    "The box as drawn, from panel to panel, against every limit of the brief; the tightest one is shown.";
const WEIGHT: &str = "Densities of the materials by handbook, editable by the material; the mass of a driver over the square of its frame is common \
    practice.";

fn value(symbol: &'static str, value: impl Into<String>) -> Input {
    Input { symbol, value: value.into() }
}

fn millimetres(sizes: impl IntoIterator<Item = f64>) -> String {
    let each: Vec<_> = sizes.into_iter().map(|size| format!("{:.0}", size * 1e3)).collect();
    format!("{} mm", each.join(" × "))
}

/// Of every check that no figure of the design stands behind.
fn of_checks(case: &Case<'_>) -> Vec<Working> {
    judge(case).iter().filter_map(|check| of(case, check)).collect()
}

fn of(case: &Case<'_>, check: &Check) -> Option<Working> {
    let outside = || {
        let built = case.built();
        Some((millimetres(built.outside()?), built.boxed.as_ref()?.cabinet.parts.len()))
    };
    let (formula, inputs, source) = match check.id {
        "cost" => {
            let cost = Cost::of(case)?;
            let mut inputs: Vec<_> =
                cost.shops.iter().map(|(shop, sum)| value(shop.name(), format!("{sum:.1}"))).collect();
            inputs.push(value("cabinets", cost.cabinets.to_string()));
            inputs.push(value("budget", format!("{:.0}", case.brief.budget?)));
            (
                "cost = sum over the parts list of packs × price; packs = amount less what is in stock, up to whole ones; met while cost ≤ budget",
                inputs,
                "Driver by its sheet, whole sheets of the layout; the rest at usual prices (common practice) or at the workshop's own. The parts list stands under Build.",
            )
        }
        "family" => (
            "the kind of cabinet is among those that the brief allows",
            vec![
                value("kind", case.raw.enclosure.family.name()),
                value(
                    "allowed",
                    case.brief.families.iter().map(|family| family.name()).collect::<Vec<_>>().join(", "),
                ),
            ],
            BRIEF,
        ),
        "even" => (
            "from F3 to the crossover: L(f) ≤ Lref + 3 dB and L(f) ≥ Lref − 6 dB; the largest excess is shown",
            vec![
                value("Lref", format!("{:.1} dB", case.computed.figures.reference_level)),
                value("F3", format!("{:.1} Hz", case.computed.figures.f3?)),
            ],
            EVEN,
        ),
        "size" => {
            let mut inputs = vec![value("outside", outside()?.0)];
            let sides = ["width", "height", "depth"].into_iter().zip(case.brief.outside);
            inputs.extend(sides.filter_map(|(name, most)| Some(value(name, millimetres([most?])))));
            inputs.extend(case.brief.free.map(|free| value("in all", format!("{:.1} l", free * 1e3))));
            ("each outside size ≤ its limit; outside volume ≤ its limit", inputs, SIZE)
        }
        "weight" => {
            let built = case.built();
            let Boxed { contents, cabinet } = built.boxed.as_ref()?;
            let weight = WeightReport::of(&built.design, contents, cabinet);
            let kilograms = |mass: f64| format!("{mass:.1} kg");
            (
                "volume of each board as it is cut, around its holes, × density; drivers 75 kg/m² × frame²; density × volume of fill",
                vec![
                    value("panels", kilograms(weight.panels)),
                    value("boards inside", kilograms(weight.braces)),
                    value("drivers", kilograms(weight.drivers)),
                    value("radiators", kilograms(weight.radiators)),
                    value("tubes", kilograms(weight.tubes)),
                    value("fill", kilograms(weight.fill)),
                    value("most", kilograms(case.brief.weight?)),
                ],
                WEIGHT,
            )
        }
        "fits" => {
            let (sizes, parts) = outside()?;
            (
                "every part within its chamber, no two in the same place, with air where air must pass",
                vec![value("outside", sizes), value("parts", parts.to_string())],
                FITS,
            )
        }
        "place" => {
            let mut inputs = vec![value("outside", outside()?.0)];
            let place = case.brief.outside;
            inputs.extend(
                place.into_iter().collect::<Option<Vec<_>>>().map(|place| value("place", millimetres(place))),
            );
            inputs.extend(case.brief.top_depth.map(|depth| value("deep at its top", millimetres([depth]))));
            inputs.extend(case.brief.head.map(|head| value("head", millimetres([head]))));
            (
                "depth(y) ≤ depth + (depth at the top − depth) y/height; height + feet ≤ height of the place; 0.98 ≤ width/head ≤ 1.15",
                inputs,
                PLACE,
            )
        }
        _ => return None,
    };
    Some(Working { id: check.id, name: check.name, result: check.reached.clone(), formula, inputs, source })
}

/// How each figure of a design is worked out, in its conditions; in use what the brief asks as well.
///
/// # Errors
/// What is wrong with design or brief.
pub fn workings(ask: &RawQuestion) -> Result<Vec<Working>, Vec<Problem>> {
    let Question { design, brief } = ask.resolve()?;
    let mut workings = oak_design::working::workings(&design).map_err(|problem| vec![problem])?;
    if let (Some(brief), RawBasis::InUse) = (&brief, ask.conditions.basis) {
        workings.extend(of_checks(&Case::of(brief, &ask.design)?));
    }
    Ok(workings)
}
