//! Places that elements join.

/// A place with one pressure.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Node {
    /// The listener's side. Pressure there is zero for the network, and whatever flows into it is
    /// heard.
    Outside,
    /// Open air that the listener does not hear: behind a wall that the driver is mounted in.
    Elsewhere,
    /// A place inside the cabinet.
    Inside(usize),
}
