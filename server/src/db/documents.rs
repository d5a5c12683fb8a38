//! Documents in and out of JSONB.

use oak_design::file::restore;
use serde::Serialize;
use serde::de::DeserializeOwned;
use serde_json::Value;

use crate::error::ApiError;

/// A raw form for storage.
pub(crate) fn to_value(document: &impl Serialize) -> Result<Value, ApiError> {
    serde_json::to_value(document).map_err(ApiError::internal)
}

/// A stored document of any version as its raw form.
///
/// # Errors
/// It cannot be read; the error names it.
pub(crate) fn from_value<T: DeserializeOwned>(
    what: impl Into<String>,
    mut value: Value,
) -> Result<T, ApiError> {
    restore(&mut value);
    serde_path_to_error::deserialize(value)
        .map_err(|error| ApiError::Unreadable { what: what.into(), reason: error.to_string() })
}
