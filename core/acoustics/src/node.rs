//! Places that elements join.

/// A place with one pressure, or, on the electrical side, one voltage.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Node {
    /// The listener's side. Pressure there is zero for the network, and whatever flows into it is
    /// heard.
    Outside,
    /// Open air that the listener does not hear: behind a wall that the driver is mounted in.
    Elsewhere,
    /// The live terminal of the amplifier: its voltage is the drive.
    Amplifier,
    /// The other terminal of the amplifier, at 0 V.
    Ground,
    /// A place inside the cabinet or a joint in its wiring.
    Inside(usize),
}
