//! Drivers as they came out.

use oak_acoustics::driver::Driver;
use oak_acoustics::medium::Air;
use oak_units::Dimension;
use serde::Serialize;
use utoipa::ToSchema;

use crate::resolve::{ResolvedDesign, ResolvedDriver, SheetDoubt};

/// All drivers together as one, SI.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct UsedReport {
    /// How many drivers.
    pub count: u32,
    /// ohm.
    pub nominal: f64,
    /// Cable counted, ohm.
    pub re: f64,
    /// Hz.
    pub fs: f64,
    /// Mechanical Q.
    pub qms: f64,
    /// Electrical Q, cable counted.
    pub qes: f64,
    /// Total Q.
    pub qts: f64,
    /// m3.
    pub vas: f64,
    /// kg.
    pub mms: f64,
    /// m2.
    pub sd: f64,
    /// m.
    pub xmax: Option<f64>,
    /// W.
    pub pe: Option<f64>,
    /// Air between the cones of an isobaric pair, m3.
    pub trapped: Option<f64>,
}

/// A driver with every value, stated or derived, SI.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct DriverReport {
    /// ohm.
    pub nominal: f64,
    /// ohm.
    pub re: f64,
    /// H.
    pub le: f64,
    /// Hz.
    pub fs: f64,
    /// Mechanical Q.
    pub qms: f64,
    /// Electrical Q.
    pub qes: f64,
    /// Total Q.
    pub qts: f64,
    /// m3.
    pub vas: f64,
    /// m/N.
    pub cms: f64,
    /// kg.
    pub mms: f64,
    /// T m.
    pub bl: f64,
    /// m2.
    pub sd: f64,
    /// m.
    pub xmax: Option<f64>,
    /// W.
    pub pe: Option<f64>,
    /// m3, `Sd Xmax`.
    pub vd: Option<f64>,
    /// Hz, `Fs/Qes`.
    pub ebp: f64,
    /// Half-space reference efficiency, 0 to 1.
    pub eta0: f64,
    /// dB at 1 m in half space for 1 W into Re.
    pub level_1w: f64,
    /// dB at 1 m in half space for 2.83 V.
    pub level_2v83: f64,
    /// The stated values it was made from; others follow, or contradict.
    pub used: Vec<&'static str>,
    /// Stated values that the ones in use contradict by more than 5 %, or 1 dB.
    pub doubts: Vec<DoubtReport>,
    /// Values that would, each alone, put everything in agreement.
    pub reconciling: Vec<Reconciling>,
    /// What else looks like a slip.
    pub hints: Vec<HintReport>,
}

/// A value that would put everything in agreement.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Reconciling {
    /// Which field.
    pub field: &'static str,
    /// As it would be, SI.
    pub value: f64,
    /// How what was stated probably came about.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub slip: Option<&'static str>,
}

/// A value that contradicts nothing and still looks wrong.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct HintReport {
    /// Which field.
    pub field: &'static str,
    /// What it may be, in words.
    pub message: String,
    /// What it then is, SI.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub value: Option<f64>,
}

/// A stated value that the others contradict.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct DoubtReport {
    /// Which field.
    pub field: &'static str,
    /// As stated, SI.
    pub stated: f64,
    /// As it follows from the rest, SI.
    pub derived: f64,
    /// The same in words, with what probably happened.
    pub message: String,
}

impl DriverReport {
    /// Lays out a driver, with values that depend on air at reference conditions.
    pub fn of(resolved: &ResolvedDriver) -> Self {
        let (d, air) = (&resolved.driver, Air::reference());
        Self {
            nominal: d.nominal,
            re: d.re,
            le: d.inductance.at_one_kilohertz(),
            fs: d.fs(),
            qms: d.qms(),
            qes: d.qes(),
            qts: d.qts(),
            vas: d.vas(&air),
            cms: d.cms,
            mms: d.mms,
            bl: d.bl,
            sd: d.sd,
            xmax: d.xmax,
            pe: d.pe,
            vd: d.vd(),
            ebp: d.ebp(),
            eta0: d.eta0(&air),
            level_1w: d.reference_level(d.re.sqrt(), &air),
            level_2v83: d.reference_level(2.83, &air),
            used: resolved.used.iter().map(|field| field.name()).collect(),
            doubts: resolved.doubts.iter().map(Into::into).collect(),
            reconciling: resolved
                .reconciling
                .iter()
                .map(|one| Reconciling { field: one.field.name(), value: one.value, slip: one.slip })
                .collect(),
            hints: resolved
                .hints
                .iter()
                .map(|hint| HintReport {
                    field: hint.field.name(),
                    message: format!("{} {}.", hint.field.symbol, hint.slip),
                    value: hint.value,
                })
                .collect(),
        }
    }
}

impl From<&SheetDoubt> for DoubtReport {
    fn from(doubt: &SheetDoubt) -> Self {
        let SheetDoubt { field, stated, derived, slip } = *doubt;
        let (said, follows) = (field.write(stated), field.write(derived));
        let off = match field.dimension {
            Dimension::Level => format!("{:+.1} dB", stated - derived),
            _ => format!("{:+.0} %", (stated / derived - 1.0) * 100.0),
        };
        let slip = slip.map_or(String::new(), |slip| format!(": it {slip}"));
        let message =
            format!("{} is stated as {said}; the other values give {follows} ({off}){slip}.", field.symbol);
        Self { field: field.name(), stated, derived, message }
    }
}

impl UsedReport {
    pub(super) fn of(design: &ResolvedDesign) -> Self {
        let (driver_array, air) = (&design.driver_array, Air::reference());
        let d: Driver = design.as_driven();
        let pairs = if driver_array.isobaric.is_some() { 2 } else { 1 };
        Self {
            count: driver_array.wiring.count() * pairs,
            nominal: d.nominal,
            re: d.re,
            fs: d.fs(),
            qms: d.qms(),
            qes: d.qes(),
            qts: d.qts(),
            vas: d.vas(&air),
            mms: d.mms,
            sd: d.sd,
            xmax: d.xmax,
            pe: d.pe,
            trapped: driver_array.isobaric.and_then(|pair| pair.trapped),
        }
    }
}
