//! What is done to a driver and how several work together.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::Typed;

/// Changes to the driver, and how equal ones are wired.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawDriverArray {
    /// Mass glued to each cone.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub added_mass: Option<Typed>,
    /// How much softer the suspension has become.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub break_in: Option<Typed>,
    /// Temperature of the coil; as measured, 20 degC, where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub coil_temperature: Option<Typed>,
    /// How two coils are used; as the sheet has them where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub coils: Option<RawCoils>,
    /// What closes the idle coil.
    #[serde(default, alias = "brake_resistance", skip_serializing_if = "Option::is_none")]
    pub idle_coil_resistance: Option<Typed>,
    /// Drivers in series in each group; 1 where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub series: Option<Typed>,
    /// Groups in parallel; 1 where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub parallel: Option<Typed>,
    /// Resistance between amplifier and drivers, besides the cable below.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub series_resistance: Option<Typed>,
    /// Length of the cable, one way.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cable_length: Option<Typed>,
    /// Cross-section of one core of the cable, or its gauge; 2.5 mm2 where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cable_area: Option<Typed>,
    /// Each place holds a pair, one cone behind the other.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub isobaric: Option<RawIsobaric>,
}

/// How two coils are used.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawCoils {
    /// In series.
    Series,
    /// In parallel.
    Parallel,
    /// One driven, the other open.
    One,
    /// One driven, the other shorted.
    OneShorted,
    /// One driven, the other across a resistor.
    #[serde(alias = "one_braked")]
    OneLoaded,
}

/// A pair of drivers, one cone behind the other.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawIsobaric {
    /// How they stand.
    pub arrangement: RawArrangement,
    /// Whether their coils are in series; in parallel where absent.
    #[serde(default)]
    pub coils_in_series: bool,
    /// Whether the air between is taken as rigid.
    #[serde(default)]
    pub ideal: bool,
    /// Air between the two cones; found from the arrangement and the size of the driver where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub volume: Option<Typed>,
}

/// How the two drivers of a pair stand.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RawArrangement {
    /// Front to front; one is wired the other way round.
    FaceToFace,
    /// One behind the other, facing the same way.
    InLine,
    /// Magnet to magnet; one is wired the other way round.
    BackToBack,
}
