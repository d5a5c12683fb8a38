//! Pipes, flared kits and fittings as they are sold.

/// A pipe or a kit of a flared port as it is sold.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Pipe {
    /// Its name.
    pub name: &'static str,
    /// Diameter outside, m; of a kit that of its tube.
    pub outside: f64,
    /// Diameter inside, m.
    pub inside: f64,
    /// Radius of the flares at both ends, m; none of a plain pipe.
    pub flare: f64,
    /// Across the flange that is screwed on the board, m; none of a plain pipe.
    pub flange: f64,
    /// What it is joined and closed with.
    pub fittings: Fittings,
}

/// Elbows, couplings and caps that go with a pipe: their sizes, m, or those of them that are said.
#[derive(Debug, Clone, Copy, Default, PartialEq)]
pub struct Fittings<Size = f64> {
    /// From the corner of a sharp elbow to its shoulder.
    pub elbow: Size,
    /// How deep a socket is.
    pub socket: Size,
    /// Across a coupling outside.
    pub coupling: Size,
    /// Length of a cap over all.
    pub cap: Size,
}

impl Fittings {
    /// For a pipe of a diameter outside (m), where nothing is known of them: an elbow turns within 0.55 diameters, a socket is half a
    /// diameter deep and a sixteenth thicker all round, a cap a socket with an end a sixteenth thick (common practice, from memory).
    pub const fn usual(outside: f64) -> Self {
        Self {
            elbow: 0.55 * outside,
            socket: 0.5 * outside,
            coupling: 1.125 * outside,
            cap: 0.5625 * outside,
        }
    }
}

impl Fittings<Option<f64>> {
    /// With the usual sizes for a pipe of a diameter outside (m) where none are said.
    pub fn or_usual(self, outside: f64) -> Fittings {
        let usual = Fittings::usual(outside);
        Fittings {
            elbow: self.elbow.unwrap_or(usual.elbow),
            socket: self.socket.unwrap_or(usual.socket),
            coupling: self.coupling.unwrap_or(usual.coupling),
            cap: self.cap.unwrap_or(usual.cap),
        }
    }
}

const fn pipe(name: &'static str, outside: f64, inside: f64) -> Pipe {
    Pipe { name, outside, inside, flare: 0.0, flange: 0.0, fittings: Fittings::usual(outside) }
}

const fn kit(name: &'static str, inside: f64, flare: f64, flange: f64) -> Pipe {
    let outside = inside + 0.006;
    Pipe { name, outside, inside, flare, flange, fittings: Fittings::usual(outside) }
}

/// What ports are easily made of, all from memory: measure yours. DN: drain pipes for houses with thin walls (EN 1329-1, EN 1401-1). PN 10:
/// pressure pipes with thick walls (EN 1452-2). Schedule 40: inch pipes (ASTM D1785). Kits of two flares and a tube between them:
/// sizes as are common.
pub static PIPES: &[Pipe] = &[
    pipe("DN 40", 0.040, 0.0364),
    pipe("DN 50", 0.050, 0.0440),
    pipe("DN 75", 0.075, 0.0690),
    pipe("DN 90", 0.090, 0.0840),
    pipe("DN 110", 0.110, 0.1036),
    pipe("DN 125", 0.125, 0.1186),
    pipe("DN 160", 0.160, 0.1536),
    pipe("DN 200", 0.200, 0.1922),
    pipe("DN 250", 0.250, 0.2376),
    pipe("DN 315", 0.315, 0.2996),
    pipe("PN 10, 63 mm", 0.063, 0.0570),
    pipe("PN 10, 90 mm", 0.090, 0.0814),
    pipe("PN 10, 110 mm", 0.110, 0.1016),
    pipe("PN 10, 160 mm", 0.160, 0.1476),
    pipe("PN 10, 200 mm", 0.200, 0.1846),
    pipe("PN 10, 315 mm", 0.315, 0.2908),
    pipe("Schedule 40, 2 in", 0.0603, 0.0525),
    pipe("Schedule 40, 3 in", 0.0889, 0.0779),
    pipe("Schedule 40, 4 in", 0.1143, 0.1023),
    pipe("Schedule 40, 6 in", 0.1683, 0.1541),
    pipe("Schedule 40, 8 in", 0.2191, 0.2027),
    pipe("Schedule 40, 10 in", 0.2731, 0.2545),
    pipe("Schedule 40, 12 in", 0.3239, 0.3032),
    kit("Flared kit, 50 mm", 0.050, 0.016, 0.100),
    kit("Flared kit, 70 mm", 0.070, 0.020, 0.130),
    kit("Flared kit, 3 in", 0.0762, 0.022, 0.140),
    kit("Flared kit, 100 mm", 0.100, 0.028, 0.180),
    kit("Flared kit, 6 in", 0.1524, 0.040, 0.250),
];
