//! JSON Schemas of the open files, made from the Rust types.

use serde_json::{Map, Value, json};
use utoipa::OpenApi;

use crate::file::{
    RawAir, RawAlignment, RawAmplifier, RawArea, RawArrangement, RawAssembly, RawBattery, RawBuild,
    RawChamber, RawCoils, RawDesign, RawDrive, RawDriver, RawDriverArray, RawEnclosure, RawEnd, RawEntry,
    RawFamily, RawFeet, RawFillMaterial, RawFilter, RawFilterKind, RawFinish, RawFixing, RawFlare, RawFrame,
    RawGlue, RawIsobaric, RawLayout, RawLeads, RawListening, RawListeningPlace, RawMains, RawMeasuredBoard,
    RawMeasuredVolume, RawMeasurement, RawMeasurements, RawMounting, RawMouth, RawPaper, RawPart,
    RawPartWiring, RawPassage, RawPort, RawPortSection, RawPreset, RawPrinted, RawProgramme, RawProgress,
    RawRadiator, RawSaid, RawSeat, RawSegment, RawSheet, RawSheetCoils, RawSignal, RawSpace, RawStand,
    RawStock, RawStuffing, RawTerminal, RawTick, RawTraceKind, RawTraceSource, RawWalls, RawWorkshop, Typed,
};

#[derive(OpenApi)]
#[openapi(components(schemas(
    RawBuild,
    RawDesign,
    RawDriver,
    RawEnclosure,
    RawFamily,
    RawPort,
    RawPortSection,
    RawEnd,
    RawAmplifier,
    RawDrive,
    RawAir,
    RawArrangement,
    RawChamber,
    RawCoils,
    RawFillMaterial,
    RawFlare,
    RawFrame,
    RawIsobaric,
    RawSignal,
    RawFilter,
    RawFilterKind,
    RawAlignment,
    RawPart,
    RawPartWiring,
    RawMains,
    RawMounting,
    RawPreset,
    RawListeningPlace,
    RawListening,
    RawWalls,
    RawStand,
    RawSeat,
    RawArea,
    RawBattery,
    RawWorkshop,
    RawMeasurement,
    RawTraceKind,
    RawTraceSource,
    RawSheet,
    RawLayout,
    RawStock,
    RawAssembly,
    RawFeet,
    RawFinish,
    RawFixing,
    RawGlue,
    RawLeads,
    RawPaper,
    RawTerminal,
    RawProgress,
    RawTick,
    RawPrinted,
    RawSaid,
    RawEntry,
    RawMeasurements,
    RawMeasuredBoard,
    RawMeasuredVolume,
    RawDriverArray,
    RawMouth,
    RawPassage,
    RawProgramme,
    RawRadiator,
    RawSegment,
    RawSheetCoils,
    RawSpace,
    RawStuffing,
    Typed
)))]
struct Files;

/// The published schemas: file name stem and root type.
pub const SCHEMAS: [(&str, &str); 3] =
    [("design", "RawDesign"), ("driver", "RawDriver"), ("build", "RawBuild")];

/// The JSON Schema (2020-12) of one kind of file; `None` for a kind that is not in [`SCHEMAS`].
pub fn schema(kind: &str) -> Option<Value> {
    let (_, root) = SCHEMAS.iter().find(|(name, _)| *name == kind)?;
    let document = serde_json::to_value(Files::openapi()).ok()?;
    let mut definitions = document["components"]["schemas"].clone();
    point_to_definitions(&mut definitions);
    let mut schema = Map::new();
    schema.insert("$schema".into(), json!("https://json-schema.org/draft/2020-12/schema"));
    schema.insert("title".into(), json!(format!("Oak Drum {kind} file")));
    schema.insert("$ref".into(), json!(format!("#/$defs/{root}")));
    schema.insert("$defs".into(), definitions);
    Some(Value::Object(schema))
}

fn point_to_definitions(value: &mut Value) {
    match value {
        Value::Object(map) => {
            if let Some(Value::String(target)) = map.get_mut("$ref") {
                *target = target.replace("#/components/schemas/", "#/$defs/");
            }
            map.values_mut().for_each(point_to_definitions);
        }
        Value::Array(items) => items.iter_mut().for_each(point_to_definitions),
        _ => {}
    }
}
