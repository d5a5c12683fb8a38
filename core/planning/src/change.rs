//! What each change to the drivers does, one after the other, in the same box.

use oak_acoustics::medium::Air;
use oak_acoustics::response::Figures;
use oak_design::Problem;
use oak_design::file::{RawDesign, RawDriverArray};
use oak_design::resolve::resolve_design;
use serde::Serialize;
use utoipa::ToSchema;

/// The drivers after one more change, as one, SI.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ChangeStep {
    /// What was changed: `sheet`, `break_in`, `added_mass`, `coils`, `coil_temperature`, `wiring`, `isobaric`, `cable`.
    pub id: &'static str,
    /// The same in words.
    pub name: &'static str,
    /// Hz.
    pub fs: f64,
    /// Total Q.
    pub qts: f64,
    /// m3.
    pub vas: f64,
    /// Nominal load, ohm.
    pub load: f64,
    /// dB at 1 m in half space for 2.83 V.
    pub level: f64,
    /// In the same box, Hz; absent where the box has none.
    pub f3: Option<f64>,
}

/// One kind of change: whether a motor has it, and how it is added to another.
struct Kind {
    id: &'static str,
    name: &'static str,
    present: fn(&RawDriverArray) -> bool,
    add: fn(&mut RawDriverArray, &RawDriverArray),
}

/// In the order in which a builder does them.
const KINDS: [Kind; 7] = [
    Kind {
        id: "break_in",
        name: "broken in",
        present: |driver_array| driver_array.break_in.is_some(),
        add: |to, from| to.break_in.clone_from(&from.break_in),
    },
    Kind {
        id: "added_mass",
        name: "mass added",
        present: |driver_array| driver_array.added_mass.is_some(),
        add: |to, from| to.added_mass.clone_from(&from.added_mass),
    },
    Kind {
        id: "coils",
        name: "coils rewired",
        present: |driver_array| driver_array.coils.is_some(),
        add: |to, from| {
            to.coils = from.coils;
            to.idle_coil_resistance.clone_from(&from.idle_coil_resistance);
        },
    },
    Kind {
        id: "coil_temperature",
        name: "coil hot",
        present: |driver_array| driver_array.coil_temperature.is_some(),
        add: |to, from| to.coil_temperature.clone_from(&from.coil_temperature),
    },
    Kind {
        id: "wiring",
        name: "several drivers",
        present: |driver_array| driver_array.series.is_some() || driver_array.parallel.is_some(),
        add: |to, from| {
            to.series.clone_from(&from.series);
            to.parallel.clone_from(&from.parallel);
        },
    },
    Kind {
        id: "isobaric",
        name: "in pairs",
        present: |driver_array| driver_array.isobaric.is_some(),
        add: |to, from| to.isobaric.clone_from(&from.isobaric),
    },
    Kind {
        id: "cable",
        name: "on its cable",
        present: |driver_array| {
            driver_array.series_resistance.is_some() || driver_array.cable_length.is_some()
        },
        add: |to, from| {
            to.series_resistance.clone_from(&from.series_resistance);
            to.cable_length.clone_from(&from.cable_length);
            to.cable_area.clone_from(&from.cable_area);
        },
    },
];

/// The sheet's driver, then after each change that the design makes to it.
///
/// # Errors
/// What is wrong with the design.
pub fn steps(design: &RawDesign) -> Result<Vec<ChangeStep>, Vec<Problem>> {
    let wanted = design.driver_array.clone().unwrap_or_default();
    let mut driver_array = RawDriverArray::default();
    let mut steps = vec![step("sheet", "as on its sheet", design, &driver_array)?];
    for kind in KINDS.iter().filter(|kind| (kind.present)(&wanted)) {
        (kind.add)(&mut driver_array, &wanted);
        steps.push(step(kind.id, kind.name, design, &driver_array)?);
    }
    Ok(steps)
}

fn step(
    id: &'static str,
    name: &'static str,
    design: &RawDesign,
    driver_array: &RawDriverArray,
) -> Result<ChangeStep, Vec<Problem>> {
    let raw = RawDesign { driver_array: Some(driver_array.clone()), ..design.clone() };
    let resolved = resolve_design(&raw)?;
    let (driver, air) = (resolved.as_driven(), Air::reference());
    // A box that cannot be worked out has its problem told elsewhere.
    let f3 =
        resolved.built().ok().and_then(|built| Figures::of(&built.compiled.network, resolved.drive.volts).f3);
    Ok(ChangeStep {
        id,
        name,
        fs: driver.fs(),
        qts: driver.qts(),
        vas: driver.vas(&air),
        load: driver.nominal,
        level: driver.reference_level(2.83, &air),
        f3,
    })
}
