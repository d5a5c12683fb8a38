//! What can be tried.

use oak_design::file::{RawDesign, RawFace, RawFamily};

use crate::parameter::Parameter;

/// One thing to try.
pub(super) enum Attempt {
    /// A parameter upwards or downwards.
    Turn(&'static Parameter, bool),
    /// Two parameters together, each with the direction in which it is turned.
    Both([(&'static Parameter, bool); 2]),
    /// Twice as many drivers, wired.
    Drivers { series: bool },
    /// Another kind of cabinet around the same drivers.
    Family(RawFamily),
    /// The box in other sizes.
    Sizes,
    /// The drivers in another board.
    Face(RawFace),
    /// The port built another way.
    Port(PortChange),
    /// The way of a line or horn folded otherwise.
    Fold(FoldChange),
    /// Something mounted elsewhere, or built a little otherwise: what is said of it, the design, and how much is changed.
    Mounted(String, Box<RawDesign>, f64),
    /// Half as many drivers, of those in series or in parallel.
    Fewer { series: bool },
    /// A brief with more power.
    Power,
    /// A brief with more cabinets.
    Cabinets,
    /// A brief that asks less.
    Loudness,
    /// A brief that is content with what is reached.
    Less,
}

/// How a port may be built otherwise.
#[derive(Debug, Clone, Copy)]
pub(super) enum PortChange {
    /// With so many turns.
    Turns(u32),
    /// As a slot along the floor between the sides, with so many turns.
    Slot(u32),
    /// Out of another board.
    Face(RawFace),
}

/// How a way may be folded otherwise.
#[derive(Debug, Clone, Copy)]
pub(super) enum FoldChange {
    /// So often.
    Times(u32),
    /// So often, with its channels the other way: behind each other instead of below, or below instead of behind.
    Turned(u32),
}
