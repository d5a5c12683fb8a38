//! Impedance of drivers in a closed or ported box.

use std::f64::consts::TAU;

use crate::Complex;
use crate::driver::Model;

/// A standing wave of a box.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Wave {
    /// Hz.
    pub frequency: f64,
    /// Its pressure at the cones and at the inner ends of the ports, over the root of its mean square.
    pub at: [f64; 2],
    /// How little it is damped.
    pub q: f64,
}

/// Q of standing waves in boxes, and how far it may be off, as a logarithm (common practice).
pub(super) const WAVE_Q: (f64, f64) = (30.0, 0.6);
/// A wave is one where it explains so many times what is usual: three values more, and some hundred places to find it, do as much by chance.
pub(super) const EXPLAINS: f64 = 30.0;

impl Wave {
    /// What it adds to the impedance of the air, over that of the box's compliance at 1 rad/s.
    fn adds(&self, frequency: f64) -> Complex {
        let [omega, own] = [frequency, self.frequency].map(|f| TAU * f);
        Complex::new(0.0, omega) / Complex::new(own * own - omega * omega, omega * own / self.q)
    }
}

/// What the ports set against the air at a frequency.
#[derive(Debug, Clone, Copy)]
pub enum Against {
    /// Open: at the tuning, and here; any unit.
    Open {
        /// At the tuning.
        tuned: Complex,
        /// Here.
        here: Complex,
    },
    /// Shut at their mouths: over the impedance of the box's compliance at 1 rad/s.
    Shut(Complex),
}

/// What moves, over anything that is the same at all frequencies.
#[derive(Debug, Clone, Copy)]
pub struct Moves {
    /// All cones.
    pub cones: Complex,
    /// All ports.
    pub ports: Complex,
}

/// Drivers with their box behind them (Small, JAES 20 and 21, 1972 and 1973), its standing waves included.
#[derive(Debug, Clone, PartialEq)]
pub struct Boxed {
    /// The drivers as one, as it moves there.
    pub driver: Model,
    /// Stiffness of the air over that of the suspension.
    pub alpha: f64,
    /// Hz, where box and port are in balance with every loss taken out; nothing where there is no port.
    pub tuning: Option<f64>,
    /// Leaks at the tuning, or at Fc of a closed box.
    pub ql: f64,
    /// What the air and its fill absorb.
    pub qa: f64,
    /// Friction in the port over that of its walls.
    pub rubs: f64,
    /// Standing waves.
    pub waves: Vec<Wave>,
    /// Of several drivers, the part that moves the air together: 1, and less with one of them wired backwards.
    pub together: f64,
    /// Whether they stand in series.
    pub series: bool,
}

impl Boxed {
    /// Resonance of the closed box, Hz.
    pub fn fc(&self) -> f64 {
        self.driver.fs * (1.0 + self.alpha).sqrt()
    }

    /// Impedance at a frequency (Hz), ohm, with a coil that is warmer by a share.
    pub fn impedance(&self, frequency: f64, port: Option<Against>, warmer: f64) -> Complex {
        let still = self.driver.still(frequency) + self.driver.re * warmer;
        let (air, _) = self.behind(frequency, port);
        let boxed = self.driver.motion(frequency, 0.0, TAU * self.driver.fs * self.alpha * air);
        if self.together >= 1.0 {
            return still + boxed;
        }
        let free = self.driver.motion(frequency, 0.0, Complex::from(0.0));
        let (apart, together) = (1.0 - self.together, self.together);
        if self.series {
            still + apart * free + together * boxed
        } else {
            (apart / (still + free) + together / (still + boxed)).inv()
        }
    }

    /// What cones and ports move at a frequency (Hz) for a voltage.
    pub fn moves(&self, frequency: f64, port: Option<Against>) -> Moves {
        let (air, taken) = self.behind(frequency, port);
        let motion = self.driver.motion(frequency, 0.0, TAU * self.driver.fs * self.alpha * air);
        let cones = motion / (self.driver.still(frequency) + motion);
        Moves { cones, ports: taken * cones }
    }

    /// What the air behind the cones sets against them, over the impedance of the box's compliance at 1 rad/s, and what the ports take of their flow.
    fn behind(&self, frequency: f64, port: Option<Against>) -> (Complex, Complex) {
        let omega = TAU * frequency;
        let at = TAU * self.tuning.unwrap_or_else(|| self.fc());
        let even = Complex::new(omega / self.qa + at / self.ql, omega).inv();
        let mut air = [even; 3];
        for wave in &self.waves {
            let adds = wave.adds(frequency);
            let [cone, mouth] = wave.at;
            for (air, part) in air.iter_mut().zip([cone * cone, cone * mouth, mouth * mouth]) {
                *air += adds * part;
            }
        }
        let Some((port, tuning)) = port.zip(self.tuning) else { return (air[0], Complex::from(0.0)) };
        let port = match port {
            Against::Open { tuned, here } => {
                let scale = (1.0 / at - self.inside(tuning)).max(1e-3 / at) / tuned.im;
                Complex::new(here.re * self.rubs, here.im) * scale
            }
            Against::Shut(port) => port,
        };
        let share = air[1] / (air[2] + port);
        (air[0] - air[1] * share, share)
    }

    /// What standing waves weigh at the inner end of the ports at a frequency (Hz), over the impedance of the box's compliance at 1 rad/s. At the tuning, the port and this are
    /// in balance with the box.
    pub fn inside(&self, frequency: f64) -> f64 {
        self.waves.iter().map(|wave| wave.adds(frequency).im * wave.at[1] * wave.at[1]).sum()
    }
}
