//! The values of a data sheet as fields of a file, and what a hint about one says.

use oak_acoustics::driver::Quantity;

use crate::field::{self, Field};

/// A value that contradicts nothing and still looks wrong.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SheetHint {
    /// Which value.
    pub field: &'static Field,
    /// What it may be.
    pub slip: &'static str,
    /// What it then is, SI.
    pub value: Option<f64>,
}

pub(super) fn field_of(quantity: Quantity) -> &'static Field {
    match quantity {
        Quantity::Fs => &field::FS,
        Quantity::Re => &field::RE,
        Quantity::Sd => &field::SD,
        Quantity::Qms => &field::QMS,
        Quantity::Qes => &field::QES,
        Quantity::Vas => &field::VAS,
        Quantity::Cms => &field::CMS,
        Quantity::Mms => &field::MMS,
        Quantity::Bl => &field::BL,
        Quantity::Qts => &field::QTS,
    }
}
