//! What a workshop has learned from its own builds: how tight its joints are, how much longer its ports act than formulas say, what its
//! fill absorbs, how thick its boards are.
//!
//! Each quantity of each kind is a normal model of two levels: builds scatter about the workshop's own mean by an unknown spread, and each
//! was measured with an error of its own. Means and spreads before any build are common practice. The spread is integrated out on a
//! grid; given it, everything is conjugate (Gelman et al., Bayesian Data Analysis, 3rd ed., section 5.4, from memory).

use std::collections::BTreeMap;

use oak_acoustics::enclosure::Enclosure;
use oak_cabinetry::panel::Material;
use oak_design::field;
use oak_design::file::{
    RawDesign, RawFamily, RawFillMaterial, RawFoundValue, RawJoinery, RawMaterial, RawMeasuredBoard,
    RawPortSection, RawStuffing, Typed,
};
use oak_design::resolve::{ResolvedDesign, resolve_design};
use serde::Serialize;
use utoipa::ToSchema;

use crate::session::LEAKING;

/// More builds than this and a value is offered without being asked for.
const FEW: u32 = 2;
/// A calliper on a board, m (common practice).
const CALLIPER: f64 = 5e-5;
/// Spreads that are tried, over the one expected: from hardly any to this many times it.
const WIDEST: f64 = 5.0;
const SPREADS: usize = 80;

/// What was learned of one quantity of one kind.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LearnedValue {
    /// Which quantity.
    pub quantity: LearnedQuantity,
    /// Of which kind, in words: "butt joints", "round ports".
    pub of: String,
    /// How many builds it comes from.
    pub builds: u32,
    /// Whether it is offered without being asked for: it takes more than two builds.
    pub offered: bool,
    /// What the next build will most likely have: QL; radii of the port; QA over that of the tables; m.
    pub value: f64,
    /// Two in three builds will lie within this.
    pub span: [f64; 2],
    /// What is taken without any build.
    pub usual: f64,
    /// What it is about.
    #[serde(skip)]
    group: Group,
}

/// A quantity that a workshop learns.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LearnedQuantity {
    /// Leakage QL by what holds the joints.
    Leakage,
    /// Length that ports act longer by, over the radius of a circle of their area, by their shape.
    PortEnds,
    /// Absorption QA over that of the tables, by the material of the fill.
    Fill,
    /// Thickness of boards by material and the thickness they are sold as, m.
    Thickness,
}

/// A quantity of a kind.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord)]
enum Group {
    Leakage(&'static str),
    PortEnds(&'static str),
    Fill(&'static str),
    /// Material, and the thickness it is sold as in tenths of a millimetre.
    Thickness(&'static str, u32),
}

/// What is held before any build, and on which scale: mean, how far a workshop's own mean lies from it, how far its builds scatter (common
/// practice).
struct Before {
    mean: f64,
    workshops: f64,
    builds: f64,
    /// Builds scatter by shares of the value and not by amounts.
    by_share: bool,
}

impl Group {
    fn before(&self) -> Before {
        match self {
            Self::Leakage(_) => Before { mean: USUAL_QL.ln(), workshops: 0.5, builds: 0.25, by_share: true },
            Self::PortEnds(_) => Before { mean: 0.0, workshops: 0.15, builds: 0.1, by_share: false },
            Self::Fill(_) => Before { mean: 0.0, workshops: 0.6, builds: 0.3, by_share: true },
            Self::Thickness(_, sold) => {
                Before { mean: f64::from(*sold) * 1e-4, workshops: 5e-4, builds: 2e-4, by_share: false }
            }
        }
    }

    fn quantity(&self) -> LearnedQuantity {
        match self {
            Self::Leakage(_) => LearnedQuantity::Leakage,
            Self::PortEnds(_) => LearnedQuantity::PortEnds,
            Self::Fill(_) => LearnedQuantity::Fill,
            Self::Thickness(..) => LearnedQuantity::Thickness,
        }
    }

    fn words(&self) -> String {
        match self {
            Self::Leakage(name) | Self::PortEnds(name) | Self::Fill(name) => (*name).to_owned(),
            Self::Thickness(name, sold) => format!("{name} sold as {} mm", f64::from(*sold) / 10.0),
        }
    }
}

/// QL of a usual box (Small 1973; common practice).
const USUAL_QL: f64 = 7.0;

/// A value with its standard error.
type Seen = (f64, f64);

/// What was learned from builds, of each its designs, the newest first. Of each build a quantity of a kind counts once.
pub fn learned(builds: &[Vec<RawDesign>]) -> Vec<LearnedValue> {
    let mut groups: BTreeMap<Group, Vec<Seen>> = BTreeMap::new();
    for designs in builds {
        let mut once: BTreeMap<Group, Seen> = BTreeMap::new();
        for (group, seen) in designs.iter().flat_map(seen) {
            once.entry(group).or_insert(seen);
        }
        for (group, seen) in once {
            groups.entry(group).or_default().push(seen);
        }
    }
    groups.into_iter().map(|(group, seen)| value(group, &seen)).collect()
}

fn value(group: Group, seen: &[Seen]) -> LearnedValue {
    let before = group.before();
    let [mean, error] = next(&before, seen);
    let told = |x: f64| if before.by_share { x.exp() } else { x };
    let builds = u32::try_from(seen.len()).unwrap_or(u32::MAX);
    LearnedValue {
        quantity: group.quantity(),
        of: group.words(),
        builds,
        offered: builds > FEW,
        value: told(mean),
        span: [told(mean - error), told(mean + error)],
        usual: told(before.mean),
        group,
    }
}

/// Mean and standard deviation of what the next build will have.
fn next(before: &Before, seen: &[Seen]) -> [f64; 2] {
    let vague = before.workshops.powi(2).recip();
    let mixed = (0..SPREADS).map(|k| {
        let spread = WIDEST * before.builds * (k as f64 + 0.5) / SPREADS as f64;
        let weights =
            seen.iter().map(|(value, error)| (value - before.mean, error * error + spread * spread));
        let [mut total, mut first, mut second, mut volume] = [0.0; 4];
        for (off, variance) in weights {
            total += variance.recip();
            first += off / variance;
            second += off * off / variance;
            volume += variance.ln();
        }
        let precision = vague + total;
        let fit = second - first * first / precision;
        let likelihood = -0.5 * (fit + volume + (precision / vague).ln());
        let belief = -0.5 * (spread / before.builds).powi(2);
        (likelihood + belief, first / precision, precision.recip() + spread * spread)
    });
    let mixed: Vec<_> = mixed.collect();
    let most = mixed.iter().map(|(log, ..)| *log).fold(f64::NEG_INFINITY, f64::max);
    let weights = || mixed.iter().map(|(log, ..)| (log - most).exp());
    let total: f64 = weights().sum();
    let mean = weights().zip(&mixed).map(|(weight, (_, mean, _))| weight * mean).sum::<f64>() / total;
    let second =
        weights().zip(&mixed).map(|(weight, (_, at, variance))| weight * (variance + (at - mean).powi(2)));
    [before.mean + mean, (second.sum::<f64>() / total).sqrt()]
}

/// What a design says that was measured, on the scales of its groups.
fn seen(raw: &RawDesign) -> Vec<(Group, Seen)> {
    let Some(measured) = &raw.measured else { return Vec::new() };
    let mut all: Vec<(Group, Seen)> = measured.boards.iter().filter_map(board).collect();
    let Some(found) = &measured.found else { return all };
    let Ok(design) = resolve_design(raw) else { return all };
    // A leak is sealed, and says nothing of the joints.
    let ql = found.ql.as_ref().and_then(|ql| read(&field::FOUND_QL, &field::FOUND_ERROR, ql));
    let ql = ql.filter(|(value, _)| *value >= LEAKING);
    all.extend(ql.map(|(value, error)| (Group::Leakage(joints(raw)), (value.ln(), error / value))));
    let ends = found.port_ends.as_ref();
    let ends = ends.and_then(|ends| read(&field::FOUND_PORT_ENDS, &field::FOUND_LENGTH_ERROR, ends));
    if let (Some((value, error)), Some((name, radius))) = (ends, port(raw, &design)) {
        all.push((Group::PortEnds(name), (value / radius, error / radius)));
    }
    let qa = found.qa.as_ref().and_then(|qa| {
        let expected = field::FOUND_QA.read(qa.expected.as_ref())?;
        let (value, error) = read(&field::FOUND_QA, &field::FOUND_ERROR, qa)?;
        Some(((value / expected).ln(), error / value))
    });
    if let (Some(seen), Some(fill)) = (qa, fill(raw)) {
        all.push((Group::Fill(fill), seen));
    }
    all
}

fn read(value: &field::Field, error: &field::Field, found: &RawFoundValue) -> Option<Seen> {
    Some((value.read(Some(&found.value))?, error.read(Some(&found.error))?))
}

fn board(board: &RawMeasuredBoard) -> Option<(Group, Seen)> {
    let sold = field::MEASURED_NOMINAL.read(Some(&board.nominal))?;
    let measured = field::MEASURED_THICKNESS.read(Some(&board.measured))?;
    Some((thickness(board.material, sold), (measured, CALLIPER)))
}

fn thickness(material: RawMaterial, sold: f64) -> Group {
    let name = Material::named(material.id()).map_or(material.id(), |material| material.name);
    // Nothing that is sold is as thick as a number of tenths of a millimetre can hold.
    Group::Thickness(name, (sold * 1e4).round().clamp(0.0, 1e4) as u32)
}

fn joints(raw: &RawDesign) -> &'static str {
    match raw.body.as_ref().map(|body| body.joinery).unwrap_or_default() {
        RawJoinery::Butt => "butt joints",
        RawJoinery::Dowels => "dowelled joints",
        RawJoinery::Rabbet => "rabbet joints",
        RawJoinery::Tongue => "tongue joints",
        RawJoinery::Mitre => "mitre joints",
    }
}

/// The shape of the ports, and the radius of a circle of the area of one, m.
fn port(raw: &RawDesign, design: &ResolvedDesign) -> Option<(&'static str, f64)> {
    let Enclosure::Ported(ported) = &design.enclosure else { return None };
    let name = match raw.enclosure.ports.first()?.shape {
        RawPortSection::Round => "round ports",
        RawPortSection::Slot => "slot ports",
        RawPortSection::Corner => "corner ports",
    };
    let area = ported.ports.first()?.section.area();
    Some((name, (area / std::f64::consts::PI).sqrt()))
}

fn fill(raw: &RawDesign) -> Option<&'static str> {
    let chamber = &raw.enclosure;
    let stuffed = chamber.fill.is_some_and(|fill| fill != RawStuffing::None);
    (stuffed || chamber.fill_density.is_some()).then(|| match chamber.fill_material.unwrap_or_default() {
        RawFillMaterial::Polyester => "polyester wool",
        RawFillMaterial::Wool => "sheep's wool",
        RawFillMaterial::Glass => "glass wool",
        RawFillMaterial::Mineral => "mineral wool",
    })
}

/// A design with what the workshop has learned, and what that changed.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LearnedDesign {
    /// The design.
    pub design: RawDesign,
    /// What was set, in words, with the builds behind each; empty where nothing applies.
    pub set: Vec<String>,
}

/// A design with the workshop's own values where nothing is written; those from a few builds only where they are asked for.
pub fn with_learned(raw: &RawDesign, learned: &[LearnedValue], few_too: bool) -> LearnedDesign {
    let mut design = raw.clone();
    let Ok(resolved) = resolve_design(raw) else { return LearnedDesign { design, set: Vec::new() } };
    let mut set = Vec::new();
    let find =
        |group: &Group| learned.iter().find(|value| value.group == *group && (few_too || value.offered));
    let loses =
        matches!(raw.enclosure.family, RawFamily::Sealed | RawFamily::Ported | RawFamily::PassiveRadiator);
    let mut put = |typed: &mut Option<Typed>, value: &LearnedValue, written: Typed, what: &str| {
        let builds =
            if value.builds == 1 { "1 build".to_owned() } else { format!("{} builds", value.builds) };
        set.push(format!("{what} {} ({}, {builds})", shown(&written), value.of));
        *typed = Some(written);
    };
    let ql = find(&Group::Leakage(joints(raw))).filter(|_| loses && design.enclosure.ql.is_none());
    if let Some(value) = ql {
        let written = field::QL.typed(value.value.clamp(field::QL.min, field::QL.max), 2);
        put(&mut design.enclosure.ql, value, written, "QL");
    }
    let qa = fill(raw)
        .and_then(|name| find(&Group::Fill(name)))
        .filter(|_| loses && design.enclosure.qa.is_none());
    if let (Some(value), Some(expected)) = (qa, absorption(&resolved)) {
        let written = field::QA.typed((expected * value.value).clamp(field::QA.min, field::QA.max), 2);
        put(&mut design.enclosure.qa, value, written, "QA");
    }
    let open = design.measured.as_ref().is_none_or(|measured| measured.port_ends.is_none());
    let ports = port(raw, &resolved).and_then(|(name, radius)| Some((find(&Group::PortEnds(name))?, radius)));
    if let Some((value, radius)) = ports.filter(|_| open) {
        let limits = &field::MEASURED_PORT_ENDS;
        let written = limits.typed((value.value * radius).clamp(limits.min, limits.max), 2);
        put(&mut design.measured.get_or_insert_default().port_ends, value, written, "ports act longer by");
    }
    LearnedDesign { design, set }
}

fn shown(typed: &Typed) -> String {
    match typed {
        Typed::Number(number) => number.to_string(),
        Typed::Text(text) => text.clone(),
    }
}

/// QA that tables say of the fill, whatever is written.
pub(crate) fn tabled_absorption(raw: &RawDesign) -> Option<f64> {
    let mut raw = raw.clone();
    raw.enclosure.qa = None;
    absorption(&resolve_design(&raw).ok()?)
}

fn absorption(design: &ResolvedDesign) -> Option<f64> {
    match &design.enclosure {
        Enclosure::Sealed(sealed) => sealed.losses.qa,
        Enclosure::Ported(ported) => ported.losses.qa,
        Enclosure::PassiveRadiator(cabinet) => cabinet.losses.qa,
        _ => None,
    }
}
