//! A cabinet as it really is, and what it does.

use std::f64::consts::{PI, TAU};

use crate::{Air, Complex};

/// What a coil does besides resist.
#[derive(Debug, Clone, Copy)]
pub enum Coil {
    /// A power of frequency: ohm at 1 rad/s, and the exponent (Vanderkooy, JAES 37, 1989).
    Power {
        /// Ohm at 1 rad/s.
        size: f64,
        /// 0.5 to 1.
        power: f64,
    },
    /// An inductance whose field no longer fills the iron above a frequency: `j w L tanh(x)/x`, `x = sqrt(j f/fe)`.
    Core {
        /// H.
        inductance: f64,
        /// Hz.
        edge: f64,
    },
}

impl Coil {
    /// Impedance at a frequency (Hz), ohm.
    pub fn impedance(self, frequency: f64) -> Complex {
        let turned = Complex::new(0.0, TAU * frequency);
        match self {
            Self::Power { size, power } => size * turned.powf(power),
            Self::Core { inductance, edge } => {
                let x = Complex::new(0.0, frequency / edge).sqrt();
                turned * inductance * x.tanh() / x
            }
        }
    }
}

/// Drivers of one sort.
#[derive(Debug, Clone, Copy)]
pub struct Driver {
    /// Ohm.
    pub re: f64,
    /// The coil.
    pub coil: Coil,
    /// N/A.
    pub bl: f64,
    /// kg.
    pub mms: f64,
    /// m/N at Fs.
    pub cms: f64,
    /// kg/s.
    pub rms: f64,
    /// m2.
    pub sd: f64,
    /// Share by which the compliance falls in a decade, and whether what it loses is rubbed away (Knudsen and Jensen, JAES 41, 1993).
    pub creep: (f64, bool),
}

impl Driver {
    /// Hz.
    pub fn fs(&self) -> f64 {
        (self.mms * self.cms).sqrt().recip() / TAU
    }

    /// By the coil's resistance alone.
    pub fn qes(&self) -> f64 {
        TAU * self.fs() * self.mms * self.re / self.bl.powi(2)
    }

    /// By friction alone.
    pub fn qms(&self) -> f64 {
        TAU * self.fs() * self.mms / self.rms
    }

    /// m3.
    pub fn vas(&self, air: &Air) -> f64 {
        air.density * air.speed.powi(2) * self.sd * self.sd * self.cms
    }

    /// What is moved, with a mass (kg) on the cone, N s/m.
    pub fn mechanical(&self, frequency: f64, added: f64) -> Complex {
        let omega = TAU * frequency;
        let (share, rubs) = self.creep;
        let turned = if rubs { PI / 2.0 / std::f64::consts::LN_10 } else { 0.0 };
        let gives = 1.0 - share * Complex::new((frequency / self.fs()).log10(), turned);
        let spring = Complex::new(0.0, omega * self.cms) * gives;
        // The resistance is what is left over at Fs, so that Qms is what it is said to be.
        let left = self.rms - if rubs { (1.0 / spring_at(self, share, turned)).re } else { 0.0 };
        Complex::new(left, omega * (self.mms + added)) + spring.inv()
    }

    /// What the coil is while the cone is held, ohm.
    pub fn electrical(&self, frequency: f64) -> Complex {
        self.re + self.coil.impedance(frequency)
    }

    /// Impedance in free air with a mass (kg) on the cone, ohm.
    pub fn free(&self, frequency: f64, added: f64) -> Complex {
        self.electrical(frequency) + self.bl.powi(2) / self.mechanical(frequency, added)
    }
}

fn spring_at(driver: &Driver, share: f64, turned: f64) -> Complex {
    let omega = TAU * driver.fs();
    Complex::new(0.0, omega * driver.cms) * (1.0 - share * Complex::new(0.0, turned))
}

/// Equal round ports.
#[derive(Debug, Clone, Copy)]
pub struct Port {
    /// How many.
    pub count: f64,
    /// m.
    pub radius: f64,
    /// m, of the wood.
    pub length: f64,
    /// What both ends add, m.
    pub ends: f64,
}

/// A standing wave of the box.
#[derive(Debug, Clone, Copy)]
pub struct Mode {
    /// Hz.
    pub frequency: f64,
    /// Its pressure at the cones and at the ports' inner ends, over its mean square.
    pub at: [f64; 2],
    /// Its Q.
    pub q: f64,
}

impl Mode {
    /// What it adds to the impedance of the air of a box (m3/Pa) at a place of pressure 1, Pa s/m3.
    fn adds(&self, compliance: f64, frequency: f64) -> Complex {
        let [omega, own] = [frequency, self.frequency].map(|f| TAU * f);
        Complex::new(0.0, omega / compliance) / Complex::new(own * own - omega * omega, omega * own / self.q)
    }
}

impl Port {
    /// What all of them set against a flow, open or shut at their mouths, Pa s/m3.
    fn against(&self, air: &Air, frequency: f64, shut: bool) -> Complex {
        let [open, closed] = air.duct(self.radius, self.length, frequency);
        let mass = air.density * self.ends / (PI * self.radius * self.radius);
        // Shut at its mouth it has the inner end alone: half of both, near enough.
        let (wave, share) = if shut { (closed, 0.5) } else { (open, 1.0) };
        (wave + Complex::new(0.0, TAU * frequency * mass * share)) / self.count
    }

    /// Where they are in balance with a box (m3/Pa) and its standing waves, every loss taken out, Hz.
    pub fn tuning(&self, compliance: f64, modes: &[Mode], air: &Air) -> f64 {
        let off = |frequency: f64| {
            let inside: f64 =
                modes.iter().map(|mode| mode.adds(compliance, frequency).im * mode.at[1] * mode.at[1]).sum();
            self.against(air, frequency, false).im + inside - 1.0 / (TAU * frequency * compliance)
        };
        let (mut low, mut high) = (3.0, 150.0);
        for _ in 0..60 {
            let middle = f64::midpoint(low, high);
            if off(middle) < 0.0 { low = middle } else { high = middle }
        }
        f64::midpoint(low, high)
    }
}

/// A cabinet.
#[derive(Debug, Clone)]
pub struct Cabinet {
    /// Its drivers, which differ a little: of each Fs over the mean.
    pub driver: Driver,
    /// How many.
    pub count: u32,
    /// Whether they stand in series, else side by side.
    pub series: bool,
    /// How many of them are wired backwards.
    pub reversed: u32,
    /// Share by which a cone is heavier in the box.
    pub heavier: f64,
    /// m3 as it seems, its fill included.
    pub volume: f64,
    /// Of what leaks, at the tuning or Fc.
    pub ql: f64,
    /// Of what is absorbed.
    pub qa: f64,
    /// None of a closed box.
    pub port: Option<Port>,
    /// Standing waves.
    pub modes: Vec<Mode>,
    /// As it was on that day.
    pub air: Air,
}

/// What moves at a frequency at 1 V, m3/s.
#[derive(Debug, Clone, Copy)]
pub struct Flows {
    /// All cones.
    pub cones: Complex,
    /// One cone that is wired rightly.
    pub cone: Complex,
    /// All ports, outward.
    pub ports: Complex,
    /// Impedance, ohm.
    pub impedance: Complex,
}

impl Cabinet {
    /// m3/Pa.
    pub fn compliance(&self, air: &Air) -> f64 {
        self.volume / (air.density * air.speed * air.speed)
    }

    /// Where box and port are in balance with every loss taken out, Hz; of a closed box its Fc.
    pub fn tuning(&self, air: &Air) -> f64 {
        let compliance = self.compliance(air);
        let Some(port) = &self.port else {
            let driver = Driver { mms: self.driver.mms * (1.0 + self.heavier), ..self.driver };
            return driver.fs() * (1.0 + driver.vas(air) * f64::from(self.count) / self.volume).sqrt();
        };
        port.tuning(compliance, &self.modes, air)
    }

    /// What the air behind the cones sets against their flow, and what the ports take of it.
    fn behind(&self, frequency: f64, shut: bool) -> (Complex, Complex) {
        let air = &self.air;
        let (omega, compliance) = (TAU * frequency, self.compliance(air));
        let leak = TAU * self.tuning(air) * compliance / self.ql;
        let even = Complex::new(leak + omega * compliance / self.qa, omega * compliance).inv();
        let of = |a: usize, b: usize| {
            even + self
                .modes
                .iter()
                .map(|mode| mode.adds(compliance, frequency) * mode.at[a] * mode.at[b])
                .sum::<Complex>()
        };
        let Some(port) = &self.port else { return (of(0, 0), Complex::from(0.0)) };
        let against = of(1, 1) + port.against(air, frequency, shut);
        let share = of(0, 1) / against;
        (of(0, 0) - of(0, 1) * share, if shut { Complex::from(0.0) } else { share })
    }

    /// What moves, with the ports open or shut at their mouths, and a coil that is warmer by a share.
    pub fn flows(&self, frequency: f64, shut: bool, warmer: f64) -> Flows {
        let driver = Driver { re: self.driver.re * (1.0 + warmer), ..self.driver };
        let (air, taken) = self.behind(frequency, shut);
        let mechanical = driver.mechanical(frequency, driver.mms * self.heavier);
        let (coil, count) = (driver.electrical(frequency), f64::from(self.count));
        let signs = count - 2.0 * f64::from(self.reversed);
        let load = count * driver.sd * driver.sd * air;
        // Every cone: moves·v + sd·p = ±force, p of them all.
        let (moves, force) = match self.series {
            true => (mechanical, Complex::from(driver.bl)),
            false => (mechanical + driver.bl.powi(2) / coil, driver.bl / coil),
        };
        let all = force * signs / (moves + load);
        let pressure = air * driver.sd * all;
        let cone = |sign: f64| (force * sign - driver.sd * pressure) / moves;
        let electric = (count - f64::from(self.reversed)) * cone(1.0) - f64::from(self.reversed) * cone(-1.0);
        let (impedance, per_volt) = match self.series {
            true => {
                let impedance = count * coil + driver.bl * electric;
                (impedance, 1.0 / impedance)
            }
            false => ((count / coil - driver.bl * electric / coil).inv(), Complex::from(1.0)),
        };
        let cones = all * driver.sd * per_volt;
        Flows { cones, cone: cone(1.0) * driver.sd * per_volt, ports: -taken * cones, impedance }
    }

    /// How far standing waves move the impedance at most, as a share.
    pub fn rippled(&self, of: &Mode) -> f64 {
        let even = Self {
            modes: self
                .modes
                .iter()
                .filter(|mode| (mode.frequency / of.frequency - 1.0).abs() > 1e-9)
                .copied()
                .collect(),
            ..self.clone()
        };
        (-40..=40).map(|step| of.frequency * (1.0 + 0.15 * f64::from(step) / 40.0)).fold(
            0.0,
            |most: f64, frequency| {
                let [with, without] =
                    [self, &even].map(|cabinet| cabinet.flows(frequency, false, 0.0).impedance);
                most.max((with / without - 1.0).norm())
            },
        )
    }
}
