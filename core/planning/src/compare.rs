//! Drivers compared with all else equal: in the same box, and each in its own.

use oak_acoustics::Stop;
use oak_design::file::{RawDesign, RawDriver, RawEnclosure, RawFamily};
use oak_design::problem::{ProblemKind, Range};
use oak_design::report::{Computed, compute_undelayed};
use oak_design::resolve::resolve_design;
use oak_design::response::FrequencyGrid;
use oak_design::start::RawAsk;
use oak_design::{Problem, field};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Fewest and most drivers that are compared.
pub const DRIVERS: std::ops::RangeInclusive<usize> = 2..=6;

/// What is compared.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawComparison {
    /// Two to six drivers.
    #[schema(min_items = 2, max_items = 6)]
    pub drivers: Vec<RawDriver>,
    /// The kind of cabinet.
    pub family: RawFamily,
    /// The box that all are put into; absent, that which suits the one in the middle.
    #[serde(default)]
    pub enclosure: Option<RawEnclosure>,
}

/// Drivers beside each other.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Comparison {
    /// The box that all are put into; absent where none of them suggests one.
    pub enclosure: Option<RawEnclosure>,
    /// The drivers, in order.
    pub rows: Vec<ComparedDriver>,
}

/// One driver in both boxes.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ComparedDriver {
    /// What it is called.
    pub name: String,
    /// In the same box as the others, or why it cannot be.
    pub same: Boxed,
    /// In the box that its own values lead to.
    pub own: Boxed,
}

/// A driver in a box at 2.83 V, or why there is none.
#[derive(Debug, Clone, Default, PartialEq, Serialize, ToSchema)]
pub struct Boxed {
    /// The whole design.
    pub design: Option<RawDesign>,
    /// Where the box comes from, or why there is none.
    pub reason: String,
    /// Air in it, m3.
    pub volume: Option<f64>,
    /// −3 dB frequency, Hz.
    pub f3: Option<f64>,
    /// Level of the plain at 2.83 V, dB.
    pub level: Option<f64>,
    /// How far the highest level stands above the plain, dB.
    pub peak: Option<f64>,
    /// Largest clean level at F3, dB: within Xmax, Pe and a quiet port.
    pub clean: Option<f64>,
    /// Lowest impedance, ohm.
    pub impedance: Option<f64>,
}

/// Compares drivers.
///
/// # Errors
/// Every problem with the drivers, with its place, or with their number.
pub fn compare(ask: &RawComparison, stop: &Stop) -> Result<Comparison, Vec<Problem>> {
    let count = ask.drivers.len();
    if !DRIVERS.contains(&count) {
        let (min, max) = (*DRIVERS.start() as f64, *DRIVERS.end() as f64);
        let range = Range { min, max, field: &field::SERIES };
        return Err(vec![Problem::new(
            "drivers",
            ProblemKind::OutOfRange { given: count.to_string(), range },
        )]);
    }
    let drivers = ask.drivers.iter().enumerate().take_while(|_| !stop.stopped());
    let owns = drivers.map(|(at, driver)| {
        let place = |problem: Problem| Problem {
            field: problem.field.replacen("driver", &format!("drivers[{at}]"), 1),
            ..problem
        };
        own(driver, ask.family, stop).map_err(|problems| problems.into_iter().map(place).collect::<Vec<_>>())
    });
    let (owns, problems): (Vec<_>, Vec<_>) = owns.partition(Result::is_ok);
    let problems: Vec<Problem> = problems.into_iter().filter_map(Result::err).flatten().collect();
    if !problems.is_empty() {
        return Err(problems);
    }
    let owns: Vec<Boxed> = owns.into_iter().filter_map(Result::ok).collect();
    let enclosure = ask.enclosure.clone().or_else(|| middle(&owns));
    let row = |(driver, own): (&RawDriver, Boxed)| ComparedDriver {
        name: driver.name.clone(),
        same: enclosure.as_ref().map_or_else(Boxed::default, |enclosure| same(driver, enclosure)),
        own,
    };
    let rows = ask.drivers.iter().zip(owns).take_while(|_| !stop.stopped()).map(row).collect();
    Ok(Comparison { enclosure, rows })
}

/// The box of the driver whose own one is neither among the smaller nor among the larger half.
fn middle(owns: &[Boxed]) -> Option<RawEnclosure> {
    let mut found: Vec<(f64, &RawDesign)> =
        owns.iter().filter_map(|own| Some((own.volume.unwrap_or(0.0), own.design.as_ref()?))).collect();
    found.sort_by(|a, b| a.0.total_cmp(&b.0));
    found.get(found.len().saturating_sub(1) / 2).map(|(_, design)| design.enclosure.clone())
}

/// In the box of the first starting point that has one for it.
fn own(driver: &RawDriver, family: RawFamily, stop: &Stop) -> Result<Boxed, Vec<Problem>> {
    let starts = RawAsk::of(driver.clone(), family).answer(stop)?;
    let Some(start) = starts.iter().find(|start| start.design.is_some()) else {
        let reason = starts.into_iter().next().map(|start| start.reason).unwrap_or_default();
        return Ok(Boxed { reason, ..Boxed::default() });
    };
    let design = start.design.clone().map(|design| RawDesign { name: driver.name.clone(), ..design });
    Ok(design
        .map_or_else(Boxed::default, |design| boxed(design, format!("{}: {}", start.name, start.reason))))
}

fn same(driver: &RawDriver, enclosure: &RawEnclosure) -> Boxed {
    let mut design = RawAsk::of(driver.clone(), enclosure.family).blank();
    design.name.clone_from(&driver.name);
    design.enclosure = enclosure.clone();
    boxed(design, String::new())
}

fn boxed(design: RawDesign, reason: String) -> Boxed {
    let grid = FrequencyGrid::logarithmic(10.0, 500.0, 240).expect("within the allowed range");
    let told =
        |problems: Vec<Problem>| problems.iter().map(ToString::to_string).collect::<Vec<_>>().join("; ");
    let computed = resolve_design(&design).map_err(told).and_then(|resolved| {
        let computed = compute_undelayed(&resolved, &grid).map_err(|problem| problem.to_string())?;
        Ok((resolved.air(), computed))
    });
    match computed {
        Ok((air, computed)) => Boxed {
            volume: (air > 0.0).then_some(air),
            f3: computed.figures.f3,
            level: Some(computed.figures.reference_level),
            peak: Some(computed.figures.level_peak.value - computed.figures.reference_level),
            clean: clean(&computed),
            impedance: Some(computed.figures.impedance_minimum.value),
            design: Some(design),
            reason,
        },
        Err(reason) => Boxed { reason, ..Boxed::default() },
    }
}

/// Largest clean level at F3, dB; `None` where there is no F3 or nothing limits.
pub(crate) fn clean(computed: &Computed) -> Option<f64> {
    let f3 = computed.figures.f3?;
    let at = computed.response.frequency.partition_point(|frequency| *frequency < f3);
    computed.max_output.level.get(at).copied().filter(|level| level.is_finite())
}
