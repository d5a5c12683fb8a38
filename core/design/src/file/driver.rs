//! The driver file.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::{Typed, VERSION};

/// What the `format` of a driver file says.
pub const DRIVER_FORMAT: &str = "oak-drum/driver";

/// A driver as its data sheet states it. Fs, Re, Sd, two of Qms, Qes, Qts and one of Vas, Cms, Mms, Bl
/// determine the rest.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawDriver {
    /// Always `oak-drum/driver`.
    #[serde(default = "format")]
    #[schema(pattern = "^oak-drum/driver$")]
    pub format: String,
    /// Version of the format.
    #[serde(default = "version")]
    #[schema(minimum = 2, maximum = 2)]
    pub version: u32,
    /// What to call it.
    #[serde(default)]
    #[schema(max_length = 120)]
    pub name: String,
    /// Who makes it.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    #[schema(max_length = 120)]
    pub maker: String,
    /// Nominal size of the frame.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub size: Option<Typed>,
    /// Nominal impedance.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub nominal: Option<Typed>,
    /// DC resistance of the coil.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub re: Option<Typed>,
    /// Coil inductance.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub le: Option<Typed>,
    /// Resonance in free air.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub fs: Option<Typed>,
    /// Mechanical Q.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub qms: Option<Typed>,
    /// Electrical Q.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub qes: Option<Typed>,
    /// Total Q.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub qts: Option<Typed>,
    /// Volume of air as stiff as the suspension.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub vas: Option<Typed>,
    /// Compliance of the suspension.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cms: Option<Typed>,
    /// Moving mass with air load.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub mms: Option<Typed>,
    /// Force factor.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub bl: Option<Typed>,
    /// Effective cone area.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub sd: Option<Typed>,
    /// One-way linear excursion.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub xmax: Option<Typed>,
    /// Continuous power.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pe: Option<Typed>,
    /// Second inductance, with `r2` across it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub l2: Option<Typed>,
    /// Resistance across `l2`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub r2: Option<Typed>,
    /// Exponent of the coil's impedance, instead of `l2` and `r2`; `le` is then the value at 1 kHz.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub inductance_exponent: Option<Typed>,
    /// From the front of the frame to the back of the magnet.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub depth: Option<Typed>,
    /// Across the hole it needs.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cutout: Option<Typed>,
    /// Across its magnet.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub magnet: Option<Typed>,
    /// What it takes of the room in a box.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub displacement: Option<Typed>,
    /// How thick the frame is where it lies on the board.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub rim: Option<Typed>,
    /// Diameter of the circle that its bolts stand on.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub bolt_circle: Option<Typed>,
    /// How many bolts hold it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub bolts: Option<Typed>,
    /// Diameter of the hole for each.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub bolt_hole: Option<Typed>,
    /// The closed box that its maker recommends: net volume.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub sealed_volume: Option<Typed>,
    /// The ported box that its maker recommends: net volume.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ported_volume: Option<Typed>,
    /// The tuning of that box.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ported_tuning: Option<Typed>,
    /// Printed level at 1 m for 1 W; only compared.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub level_1w: Option<Typed>,
    /// Printed level at 1 m for 2.83 V; only compared.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub level_2v83: Option<Typed>,
    /// What one costs.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub price: Option<Typed>,
    /// How many are on hand.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub on_hand: Option<Typed>,
    /// Coils, and how the values above were taken; one coil where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub coils: Option<RawSheetCoils>,
    /// The frequency range as printed. Kept for the record and never used: the box decides how low a driver plays.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    #[schema(max_length = 120)]
    pub frequency_range: String,
    /// Words to find it by.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 20)]
    pub tags: Vec<String>,
    /// Where values come from, by the name of the field; from the sheet where nothing is said.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub sources: BTreeMap<String, RawSource>,
    /// Anything worth keeping.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    #[schema(max_length = 10000)]
    pub notes: String,
}

/// Where a value comes from.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawSource {
    /// How it was had.
    pub kind: RawSourceKind,
    /// When it was measured or changed, as written.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    #[schema(max_length = 40)]
    pub on: String,
    /// What stood there before, so that it can be taken back; absent where there was nothing.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub was: Option<Typed>,
}

/// How a value was had.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawSourceKind {
    /// Read off the maker's sheet.
    Sheet,
    /// Measured.
    Measured,
    /// Worked out from the other values and put in the place of what was stated.
    Derived,
}

/// The coils of a driver and how the values of its sheet were taken.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawSheetCoils {
    /// One coil.
    Single,
    /// Two equal coils, measured in series.
    DualSeries,
    /// Two equal coils, measured in parallel.
    DualParallel,
    /// Two equal coils, with the resistance, inductance, impedance and force factor of each; everything else with both at work.
    DualEach,
}

impl RawSheetCoils {
    /// Every one with its spelling in files.
    pub const ALL: [(Self, &str); 4] = [
        (Self::Single, "single"),
        (Self::DualSeries, "dual_series"),
        (Self::DualParallel, "dual_parallel"),
        (Self::DualEach, "dual_each"),
    ];
}

fn format() -> String {
    DRIVER_FORMAT.to_owned()
}

fn version() -> u32 {
    VERSION
}

impl Default for RawDriver {
    fn default() -> Self {
        Self {
            format: format(),
            version: VERSION,
            name: String::new(),
            maker: String::new(),
            size: None,
            nominal: None,
            re: None,
            le: None,
            fs: None,
            qms: None,
            qes: None,
            qts: None,
            vas: None,
            cms: None,
            mms: None,
            bl: None,
            sd: None,
            xmax: None,
            pe: None,
            l2: None,
            r2: None,
            inductance_exponent: None,
            depth: None,
            cutout: None,
            magnet: None,
            displacement: None,
            rim: None,
            bolt_circle: None,
            bolts: None,
            bolt_hole: None,
            sealed_volume: None,
            ported_volume: None,
            ported_tuning: None,
            level_1w: None,
            level_2v83: None,
            price: None,
            on_hand: None,
            coils: None,
            frequency_range: String::new(),
            tags: Vec::new(),
            sources: BTreeMap::new(),
            notes: String::new(),
        }
    }
}

impl RawDriver {
    /// The typed values by the name of their field, in the order of the file.
    pub fn values(&self) -> [(&'static str, &Option<Typed>); 33] {
        [
            ("size", &self.size),
            ("nominal", &self.nominal),
            ("re", &self.re),
            ("le", &self.le),
            ("fs", &self.fs),
            ("qms", &self.qms),
            ("qes", &self.qes),
            ("qts", &self.qts),
            ("vas", &self.vas),
            ("cms", &self.cms),
            ("mms", &self.mms),
            ("bl", &self.bl),
            ("sd", &self.sd),
            ("xmax", &self.xmax),
            ("pe", &self.pe),
            ("l2", &self.l2),
            ("r2", &self.r2),
            ("inductance_exponent", &self.inductance_exponent),
            ("depth", &self.depth),
            ("cutout", &self.cutout),
            ("magnet", &self.magnet),
            ("displacement", &self.displacement),
            ("rim", &self.rim),
            ("bolt_circle", &self.bolt_circle),
            ("bolts", &self.bolts),
            ("bolt_hole", &self.bolt_hole),
            ("sealed_volume", &self.sealed_volume),
            ("ported_volume", &self.ported_volume),
            ("ported_tuning", &self.ported_tuning),
            ("level_1w", &self.level_1w),
            ("level_2v83", &self.level_2v83),
            ("price", &self.price),
            ("on_hand", &self.on_hand),
        ]
    }

    /// The same, to write to.
    pub fn value_mut(&mut self, name: &str) -> Option<&mut Option<Typed>> {
        Some(match name {
            "size" => &mut self.size,
            "nominal" => &mut self.nominal,
            "re" => &mut self.re,
            "le" => &mut self.le,
            "fs" => &mut self.fs,
            "qms" => &mut self.qms,
            "qes" => &mut self.qes,
            "qts" => &mut self.qts,
            "vas" => &mut self.vas,
            "cms" => &mut self.cms,
            "mms" => &mut self.mms,
            "bl" => &mut self.bl,
            "sd" => &mut self.sd,
            "xmax" => &mut self.xmax,
            "pe" => &mut self.pe,
            "l2" => &mut self.l2,
            "r2" => &mut self.r2,
            "inductance_exponent" => &mut self.inductance_exponent,
            "depth" => &mut self.depth,
            "cutout" => &mut self.cutout,
            "magnet" => &mut self.magnet,
            "displacement" => &mut self.displacement,
            "rim" => &mut self.rim,
            "bolt_circle" => &mut self.bolt_circle,
            "bolts" => &mut self.bolts,
            "bolt_hole" => &mut self.bolt_hole,
            "sealed_volume" => &mut self.sealed_volume,
            "ported_volume" => &mut self.ported_volume,
            "ported_tuning" => &mut self.ported_tuning,
            "level_1w" => &mut self.level_1w,
            "level_2v83" => &mut self.level_2v83,
            "price" => &mut self.price,
            "on_hand" => &mut self.on_hand,
            _ => return None,
        })
    }
}
