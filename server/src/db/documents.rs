//! Documents in and out of JSONB.

use serde::Serialize;
use serde::de::DeserializeOwned;
use serde_json::Value;

use crate::error::ApiError;

/// A raw form for storage.
pub(super) fn to_value(document: &impl Serialize) -> Result<Value, ApiError> {
    serde_json::to_value(document).map_err(|error| ApiError::Database(error.into()))
}

/// A stored document as its raw form.
pub(super) fn from_value<T: DeserializeOwned>(value: Value) -> Result<T, ApiError> {
    serde_json::from_value(value).map_err(|error| ApiError::Database(error.into()))
}
