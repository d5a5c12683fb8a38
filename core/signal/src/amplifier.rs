//! Generic amplifiers to begin with, and what one has to spare.

use serde::Serialize;
use utoipa::ToSchema;

/// A kind of amplifier with usual values (common practice; invented entries, no maker's).
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct AmplifierKind {
    /// As files name it.
    pub id: &'static str,
    /// As people call it.
    pub name: &'static str,
    /// Power into 8, 4 and 2 ohm, W.
    pub power: [Option<f64>; 3],
    /// The lowest impedance that it stands, ohm.
    pub minimum_load: f64,
    /// ohm.
    pub output_resistance: f64,
    /// Drawn without any sound, W.
    pub idle: f64,
    /// Share of what it draws that reaches the drivers at high power.
    pub efficiency: f64,
    /// Width, height and depth of what reaches into a box that it is mounted in, m; nothing where it stands outside.
    pub inside: Option<[f64; 3]>,
    /// What is worth knowing.
    pub note: &'static str,
}

/// Every kind.
pub const AMPLIFIER_KINDS: &[AmplifierKind] = &[
    AmplifierKind {
        id: "plate_small",
        name: "Plate, 150 W",
        power: [Some(90.0), Some(150.0), None],
        minimum_load: 4.0,
        output_resistance: 0.05,
        idle: 10.0,
        efficiency: 0.65,
        inside: Some([0.21, 0.21, 0.09]),
        note: "Often has a low-pass and a subsonic filter built in that cannot be switched off.",
    },
    AmplifierKind {
        id: "plate_large",
        name: "Plate, 500 W",
        power: [Some(280.0), Some(500.0), None],
        minimum_load: 4.0,
        output_resistance: 0.03,
        idle: 15.0,
        efficiency: 0.8,
        inside: Some([0.25, 0.25, 0.11]),
        note: "Check whether its back is sealed before building a chamber for it.",
    },
    AmplifierKind {
        id: "rack",
        name: "Rack, 2 × 600 W",
        power: [Some(350.0), Some(600.0), Some(900.0)],
        minimum_load: 2.0,
        output_resistance: 0.02,
        idle: 30.0,
        efficiency: 0.75,
        inside: None,
        note: "One channel each; bridged it gives four times the power into twice the load.",
    },
    AmplifierKind {
        id: "car_mono",
        name: "Car, mono, 500 W",
        power: [None, Some(300.0), Some(500.0)],
        minimum_load: 2.0,
        output_resistance: 0.02,
        idle: 12.0,
        efficiency: 0.8,
        inside: None,
        note: "Its power is stated at a running engine's voltage; fuse it at the battery.",
    },
    AmplifierKind {
        id: "class_d_small",
        name: "Small class D, 50 W",
        power: [Some(28.0), Some(50.0), None],
        minimum_load: 4.0,
        output_resistance: 0.08,
        idle: 2.0,
        efficiency: 0.85,
        inside: None,
        note: "Runs from a battery; what it gives depends on the voltage of its supply.",
    },
];

/// Voltage to spare (V RMS) over what is needed, dB.
pub fn headroom(has: f64, needs: f64) -> f64 {
    20.0 * (has / needs).log10()
}
