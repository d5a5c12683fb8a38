//! What is measured of a build, in the order in which a builder can do it.

use oak_acoustics::enclosure::Enclosure;
use oak_design::built::Built;
use oak_design::file::RawTraceKind;
use serde::Serialize;
use utoipa::ToSchema;

/// One measurement.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PlanStep {
    /// What it is of.
    pub of: RawTraceKind,
    /// Which driver, counted from 1, where each is measured by itself.
    pub driver: Option<u32>,
    /// Its name.
    pub title: String,
    /// What is done, a sentence a line.
    pub how: Vec<String>,
    /// What it will settle.
    pub settles: String,
    /// What stays open without it.
    pub without: String,
    /// Whether it is in the smallest set, for a first verdict.
    pub smallest: bool,
    /// Minutes.
    pub minutes: u32,
    /// For an impedance with a mass: what to stick on, kg.
    pub mass: Option<f64>,
    /// From the microphone to what it listens to, m; absent without one.
    pub distance: Option<f64>,
    /// Highest frequency that it tells, Hz; absent where it tells all that is swept.
    pub highest: Option<f64>,
}

/// A plan of measurements.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MeasuringPlan {
    /// In order.
    pub steps: Vec<PlanStep>,
    /// What to mind, whatever is measured.
    pub cautions: Vec<String>,
    /// What this kind of cabinet does not let the program work out; nothing where it does.
    pub limits: String,
}

/// Of the moving mass, what is stuck to a cone (common practice: a fifth to a third).
const MASS: f64 = 0.25;
/// Drivers that are planned by themselves, at most.
const MOST_DRIVERS: u32 = 4;
/// Of an opening's radius, how near a microphone stands for 1 dB (Keele 1974: 0.11 radii).
const NEAR: f64 = 0.11;

/// The plan of a build.
pub fn measuring_plan(built: &Built) -> MeasuringPlan {
    let plan = Plan { built, steps: Vec::new() };
    let known = matches!(built.design.enclosure, Enclosure::Sealed(_) | Enclosure::Ported(_));
    let limits = if known {
        String::new()
    } else {
        "Of this kind of cabinet the driver and the electrical chain are worked out; what was measured of the box is laid on the prediction, and no values of the box are fitted.".to_owned()
    };
    MeasuringPlan {
        steps: plan.steps(),
        cautions: [
            "Start far down and turn up slowly. Stop at any buffeting, scraping or smell.",
            "Switch off before a lead is moved. Inside an amplifier with a mains plug nothing is touched: that is for a licensed electrician.",
            "A sound card's input takes about 1 V. An amplifier's output goes to it through the jig's divider only, and never from a bridged amplifier, which has no grounded side.",
            "Loud sweeps: 85 dBA for 8 hours, and half the time for every 3 dB more (NIOSH). Mind the neighbours.",
        ]
        .map(str::to_owned)
        .to_vec(),
        limits,
    }
}

struct Plan<'a> {
    built: &'a Built,
    steps: Vec<PlanStep>,
}

impl Plan<'_> {
    fn steps(mut self) -> Vec<PlanStep> {
        let drivers = self.built.design.driver_array.wiring.count().clamp(1, MOST_DRIVERS);
        self.chain();
        for number in 1..=drivers {
            self.bench(number, drivers);
        }
        self.boxed(drivers);
        self.near(drivers);
        self.add(
            PlanStep {
                without: "What the room does to it stays open.".to_owned(),
                ..PlanStep::new(RawTraceKind::Seat, "At the seat", 5)
            }
            .how(&[
                "The microphone where your head is, at ear height.",
                "The same drive as for the near fields, then one step louder.",
            ])
            .settles("What you will hear, room and all, beside what was planned for the place."),
        );
        self.steps
    }

    fn add(&mut self, step: PlanStep) {
        self.steps.push(step);
    }

    fn chain(&mut self) {
        self.add(
            PlanStep {
                without: "A low-pass that is hidden in an amplifier or a sound card would be taken for the box.".to_owned(),
                ..PlanStep::new(RawTraceKind::Loopback, "Electrical chain alone", 5)
            }
            .how(&[
                "From the sound card through everything that will play, to where the loudspeaker's terminals would be, and back into the sound card's input.",
                "No loudspeaker is connected. Every switch, filter and tone control as it will be used.",
            ])
            .settles("A low-pass hidden in the chain, with corner and order."),
        );
    }

    fn bench(&mut self, number: u32, of: u32) {
        let driver = &self.built.design.driver.driver;
        let name = if of > 1 { format!("Driver {number}") } else { "Driver".to_owned() };
        let own = if of > 1 {
            "Each by itself: a pair that was not measured is not a matched pair."
        } else {
            "Before it goes into the box."
        };
        self.add(
            PlanStep {
                driver: Some(number),
                without: "What of a difference is the driver's and what the box's cannot be told apart.".to_owned(),
                ..PlanStep::new(RawTraceKind::ImpedanceFree, &format!("{name} in free air"), 5)
            }
            .how(&[
                "Held upright, cone free on both sides, away from walls and table. Nothing under the vent of the magnet.",
                "Leads to the jig; at most about 1 V, so that the cone hardly moves.",
                own,
                "Break it in for some hours and measure again: a new suspension is stiff.",
            ])
            .settles("Fs, Qms, Qes, Re, and the coil as it really is."),
        );
        // In whole grams, as kitchen scales weigh.
        let mass = (MASS * driver.mms * 1e3).round().max(1.0) * 1e-3;
        self.add(
            PlanStep {
                driver: Some(number),
                mass: Some(mass),
                without: "Volume and Vas cannot be told apart.".to_owned(),
                ..PlanStep::new(RawTraceKind::ImpedanceMass, &format!("{name} with a mass on the cone"), 5)
            }
            .how(&[
                &format!("Weigh about {:.0} g of putty, coins or washers, and press them evenly round the middle of the cone.", mass * 1e3),
                "Everything else as before, and soon after it: a coil that has cooled down is another coil.",
            ])
            .settles("Vas, Mms and Bl."),
        );
    }

    fn boxed(&mut self, drivers: u32) {
        let ported = matches!(self.built.design.enclosure, Enclosure::Ported(_));
        if ported {
            self.add(
                PlanStep {
                    without: "Absorption and leaks are told apart less well.".to_owned(),
                    ..PlanStep::new(RawTraceKind::ImpedanceBlocked, "Box with its port shut", 5)
                }
                .how(&["A board with foam, or a ball, pressed into every port's outer mouth so that no air passes.", "The jig at the box's own terminals."])
                .settles("How much air the box really holds, and what its walls and fill absorb."),
            );
        }
        let pair = if drivers > 1 { "Whether one of the drivers is wired backwards. " } else { "" };
        let settles = if ported {
            format!("{pair}The tuning, leaks, absorption, and by how much the port is to be cut.")
        } else {
            format!("{pair}Fc, Qtc, leaks and absorption.")
        };
        self.add(
            PlanStep {
                smallest: true,
                without: "Nothing of the box can be told.".to_owned(),
                ..PlanStep::new(RawTraceKind::ImpedanceBox, "Finished box", 5)
            }
            .how(&[
                "Everything as it will play, screws tight, fill in.",
                "The jig at the box's own terminals; at most about 1 V.",
            ])
            .settles(&settles),
        );
    }

    fn near(&mut self, drivers: u32) {
        let design = &self.built.design;
        let (sd, speed) = (design.driver.driver.sd, design.air.speed);
        let radius = |area: f64| (area / std::f64::consts::PI).sqrt();
        let highest = |area: f64| Some(crate::process::highest(area, speed));
        for number in 1..=drivers {
            let name =
                if drivers > 1 { format!("Close to cone {number}") } else { "Close to the cone".to_owned() };
            self.add(
                PlanStep {
                    driver: Some(number),
                    distance: Some((NEAR * radius(sd)).clamp(0.003, 0.03)),
                    highest: highest(sd),
                    without: "A standing wave that hardly moves the impedance stays unseen.".to_owned(),
                    ..PlanStep::new(RawTraceKind::NearfieldCone, &name, 3)
                }
                .how(&[
                    "The microphone in front of the middle of the cone, so near that it just cannot touch at full travel.",
                    "One gain of the microphone for all near fields.",
                ])
                .settles("The null of the cone at the tuning, standing waves, and what the box sounds like below the corner given here."),
            );
        }
        if let Enclosure::Ported(ported) = &design.enclosure {
            let area = ported.ports.first().map_or(0.0, |port| port.section.area());
            self.add(
                PlanStep {
                    distance: Some(0.0),
                    highest: highest(area),
                    without: "The response of the whole box is not put together.".to_owned(),
                    ..PlanStep::new(RawTraceKind::NearfieldPort, "In the mouth of the port", 3)
                }
                .how(&["The tip of the microphone in the middle of the mouth, flush with the wall. The same gain as at the cone.", "Of several equal ports one is enough."])
                .settles("Waves in the box and in the pipe, and with the cone's the response of the box."),
            );
        }
        if let Some(cabinet) = design.enclosure.radiators() {
            let area = cabinet.radiator.area;
            self.add(
                PlanStep {
                    distance: Some((NEAR * radius(area)).clamp(0.003, 0.03)),
                    highest: highest(area),
                    without: "The response of the whole box is not put together.".to_owned(),
                    ..PlanStep::new(RawTraceKind::NearfieldRadiator, "Close to the radiator", 3)
                }
                .how(&["In front of the middle of the diaphragm, clear of its travel. The same gain as at the cone."])
                .settles("With the cone's the response of the box."),
            );
        }
    }
}

impl PlanStep {
    fn new(of: RawTraceKind, title: &str, minutes: u32) -> Self {
        Self {
            of,
            driver: None,
            title: title.to_owned(),
            how: Vec::new(),
            settles: String::new(),
            without: String::new(),
            smallest: false,
            minutes,
            mass: None,
            distance: None,
            highest: None,
        }
    }

    fn how(self, lines: &[&str]) -> Self {
        Self { how: lines.iter().map(|line| (*line).to_owned()).collect(), ..self }
    }

    fn settles(self, words: &str) -> Self {
        Self { settles: words.to_owned(), ..self }
    }
}
