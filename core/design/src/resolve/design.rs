//! A design file becomes a cabinet that can be compiled.

use std::borrow::Cow;

use oak_acoustics::driver::{Driver, DriverArray};
use oak_acoustics::enclosure::{CompileError, Compiled, Enclosure, Fidelity, Setting};
use oak_acoustics::medium::{Air, Space};
use oak_acoustics::response::Allowance;
use oak_acoustics::source::Source;
use oak_acoustics::starting_point::Wishes;
use oak_cabinetry::Body;
use oak_cabinetry::cut::Joints;
use oak_cabinetry::geometry::Face;

use super::body::body;
use super::brief::resolve_brief;
use super::driver::{ResolvedDriver, resolve_driver};
use super::driver_array::driver_array;
use super::enclosure::{ChamberFill, enclosure, filled, gain};
use super::listening_place::resolve_listening_place;
use super::measured::{MeasuredDriver, measured};
use super::playing::Playing;
use super::reading::{Reading, space as space_of};
use super::signal::{Mains, mains, mounted, resolve_preset, source};
use crate::drive::{Drive, DriveOrigin};
use crate::field;
use crate::file::{
    LONGEST_NAME, LONGEST_NOTE, RawAir, RawAmplifier, RawArrangement, RawBody, RawBuild, RawDesign, RawDrive,
    RawEnclosure, RawFamily, RawProgramme, RawSignal, RawSpace, Typed,
};
use crate::problem::{Problem, ProblemKind, Range};

/// Air speed at which a port with straight edges is heard, common practice: 5 % of Mach.
const USUAL_AIR_SPEED: f64 = 17.0;

/// A complete design, SI.
#[derive(Debug, Clone, PartialEq)]
pub struct ResolvedDesign {
    /// The driver as its sheet has it.
    pub driver: ResolvedDriver,
    /// The drivers as they are used.
    pub driver_array: DriverArray,
    /// The cabinet.
    pub enclosure: Enclosure,
    /// The box itself, as wished.
    pub body: Body,
    /// How its boards are joined.
    pub joints: Joints,
    /// What was measured of its driver.
    pub measured: MeasuredDriver,
    /// Net volumes of the chambers behind and before the drivers, without what fill makes of them, m3.
    pub volumes: [Option<f64>; 2],
    /// By how much fill makes each seem larger.
    pub gains: [f64; 2],
    /// The fill of each, of those that have some.
    pub fills: [Option<ChamberFill>; 2],
    /// How the two drivers of a pair stand.
    pub arrangement: Option<RawArrangement>,
    /// What stands at the terminals.
    pub drive: Drive,
    /// All that the amplifier gives which the design names itself.
    pub amplifier: Option<Drive>,
    /// The lowest impedance that this amplifier stands, ohm.
    pub minimum_load: Option<f64>,
    /// What comes before the drivers: filters, the amplifier's resistance, passive parts.
    pub source: Source,
    /// The main loudspeakers that play what is above.
    pub mains: Option<Mains>,
    /// What it may be driven to.
    pub allowance: Allowance,
    /// The air.
    pub air: Air,
    /// The space it radiates into.
    pub space: Space,
    /// How many equal cabinets stand close together.
    pub cabinets: u32,
    /// Where what sounds stands, m, by element of its network; known once its box is drawn.
    pub places: Vec<(usize, [f64; 3])>,
    /// What it is played through beside its own filters, and where it is heard.
    pub playing: Playing,
    /// The tunings behind and before the driver as typed, to speak of them in the user's words.
    tunings_typed: [String; 2],
}

impl ResolvedDesign {
    /// All drivers together as one behind cable and amplifier.
    pub fn as_driven(&self) -> Driver {
        self.setting().driver()
    }

    /// Everything around the cabinet.
    pub fn setting(&self) -> Setting {
        Setting {
            driver_array: self.driver_array,
            air: self.air,
            space: self.space,
            cabinets: self.cabinets,
            source: self.source.clone(),
            fidelity: Fidelity::FULL,
        }
    }

    /// Compiles the cabinet as typed, whatever its box makes of it.
    ///
    /// # Errors
    /// What only shows when ports and ways are worked out.
    pub(crate) fn compile(&self) -> Result<Compiled, Problem> {
        let mut compiled = self.enclosure.compile(&self.setting()).map_err(|error| self.problem(error))?;
        compiled.network.places.clone_from(&self.places);
        Ok(compiled)
    }

    fn problem(&self, error: CompileError) -> Problem {
        let chamber = |front: bool| if front { "enclosure.front" } else { "enclosure" };
        match error {
            CompileError::TuningTooHigh { highest, front } => {
                let range = Range { min: field::TUNING.min, max: highest, field: &field::TUNING };
                let given = self.tunings_typed[usize::from(front)].clone();
                let kind = ProblemKind::TuningTooHigh { given, range };
                Problem::new(format!("{}.tuning", chamber(front)), kind)
            }
            CompileError::TuningTooLow { lowest, front } => {
                let range = Range { min: lowest, max: field::TUNING.max, field: &field::TUNING };
                let given = self.tunings_typed[usize::from(front)].clone();
                let kind = ProblemKind::TuningTooLow { given, range };
                Problem::new(format!("{}.tuning", chamber(front)), kind)
            }
            CompileError::Untunable { front } => {
                Problem::new(format!("{}.ports", chamber(front)), ProblemKind::Untunable)
            }
            CompileError::NothingToTune { front } => Problem::new(
                format!("{}.tuning", chamber(front)),
                ProblemKind::Excludes { other: "ports[0].length" },
            ),
            CompileError::LengthUnknown { port, front } => {
                let names: &[&str] = if front {
                    &["enclosure.front.tuning", "enclosure.front.ports.length"]
                } else {
                    &["enclosure.tuning", "enclosure.ports.length"]
                };
                Problem::new(
                    format!("{}.ports[{port}].length", chamber(front)),
                    ProblemKind::MissingOneOf { names, needed: 1 },
                )
            }
            CompileError::Flare { segment, error } => Problem::new(
                format!("enclosure.passage.segments[{segment}].flare"),
                ProblemKind::Unshapeable { reason: error.to_string() },
            ),
            CompileError::Stub { error } => Problem::new(
                "enclosure.passage.stub.flare",
                ProblemKind::Unshapeable { reason: error.to_string() },
            ),
            CompileError::BeyondEnd { length, second } => Problem::new(
                if second { "enclosure.passage.front_at" } else { "enclosure.passage.driver_at" },
                ProblemKind::BeyondEnd { length },
            ),
            CompileError::TapsReversed { first } => {
                Problem::new("enclosure.passage.front_at", ProblemKind::NotBeyond { other: first })
            }
        }
    }
}

/// Resolves a design.
///
/// # Errors
/// Every problem, with its place.
pub fn resolve_design(raw: &RawDesign) -> Result<ResolvedDesign, Vec<Problem>> {
    let mut reading = Reading::default();
    reading.text("name", &raw.name, 1, LONGEST_NAME);
    reading.text("notes", &raw.notes, 0, LONGEST_NOTE);
    let driver = resolve_driver(&raw.driver);
    if let Err(problems) = &driver {
        reading.problems.extend(problems.iter().cloned().map(|problem| problem.within("driver")));
    }
    let one = driver.as_ref().ok().map(|resolved| resolved.driver);
    let driver_array = driver_array(raw.driver_array.as_ref(), &raw.driver, one, &mut reading);
    let body = body(raw.body.as_ref(), &raw.enclosure, &mut reading);
    let stated = with_volume(&raw.enclosure, body.as_ref());
    let mut enclosure = enclosure(&stated, &mut reading);
    let chambers = [Some(stated.rear()), stated.front.clone()];
    let volumes = chambers.each_ref().map(|chamber| field::VOLUME.read(chamber.as_ref()?.volume.as_ref()));
    let gains = chambers.each_ref().map(|chamber| chamber.as_ref().map_or(1.0, gain));
    let arrangement = raw
        .driver_array
        .as_ref()
        .and_then(|driver_array| driver_array.isobaric.as_ref())
        .map(|pair| pair.arrangement);
    let nominal = driver_array.as_ref().map_or(f64::NAN, |driver_array| driver_array.equivalent().nominal);
    let no_signal = RawSignal::default();
    let signal = raw.signal.as_ref().unwrap_or(&no_signal);
    let drive = drive(signal.drive.as_ref(), nominal, &mut reading);
    let air = air(raw.air.as_ref(), &mut reading);
    let (allowance, amplifier) = allowance(signal.amplifier.as_ref(), driver_array.as_ref(), &mut reading);
    let minimum_load = signal.amplifier.as_ref().and_then(|amplifier| {
        reading.optional("signal.amplifier.minimum_load", &field::AMPLIFIER_LOAD, &amplifier.minimum_load)
    });
    let source = source(signal, &mut reading);
    let mut body = body.map(|body| with_amplifier(body, signal, &mut reading));
    let measured = measured(raw.measured.as_ref(), body.as_mut(), enclosure.as_mut(), &mut reading);
    if let Some(later) = &signal.later_amplifier {
        check_later(later, driver_array.as_ref(), body.as_ref(), &mut reading);
    }
    let mains = mains(signal.mains.as_ref(), &mut reading);
    let space = space_of(raw.space.unwrap_or(RawSpace::Half));
    let typed = |typed: Option<&Typed>| typed.map(ToString::to_string).unwrap_or_default();
    let front = raw.enclosure.front.as_ref().and_then(|front| front.tuning.as_ref());
    let tunings_typed = [typed(raw.enclosure.tuning.as_ref()), typed(front)];
    match (driver, driver_array, enclosure, body, reading.problems.is_empty()) {
        (Ok(driver), Some(driver_array), Some(enclosure), Some(body), true) => Ok(ResolvedDesign {
            driver,
            driver_array,
            enclosure,
            body,
            joints: raw.body.as_ref().map_or_else(Joints::default, joints),
            measured,
            volumes,
            gains,
            fills: chambers.each_ref().map(|chamber| filled(chamber.as_ref()?)),
            arrangement,
            drive,
            amplifier,
            minimum_load,
            source,
            mains,
            allowance,
            air,
            space,
            cabinets: 1,
            places: Vec::new(),
            playing: Playing::default(),
            tunings_typed,
        }),
        _ => Err(reading.problems),
    }
}

/// How the boards of a box are joined.
fn joints(raw: &RawBody) -> Joints {
    Joints {
        overlap: raw.overlap.into(),
        usual: raw.joinery.into(),
        pairs: raw.joints.iter().map(|joint| (joint.between.map(Face::from), joint.joinery.into())).collect(),
        housed: raw.housed,
    }
}

/// The box with the amplifier that is mounted in it.
fn with_amplifier(mut body: Body, signal: &RawSignal, reading: &mut Reading) -> Body {
    let mounting = signal.amplifier.as_ref().and_then(|amplifier| amplifier.mounting.as_ref());
    let board = body.panel.thickness;
    body.items.extend(mounting.and_then(|mounting| mounted(mounting, board, reading)));
    body
}

/// Checks the values of an amplifier that is to come later, as those of one that is there.
fn check_later(
    later: &RawAmplifier,
    driver_array: Option<&DriverArray>,
    body: Option<&Body>,
    reading: &mut Reading,
) {
    let mut own = Reading::default();
    allowance(Some(later), driver_array, &mut own);
    own.optional("signal.amplifier.minimum_load", &field::AMPLIFIER_LOAD, &later.minimum_load);
    let signal = RawSignal { amplifier: Some(later.clone()), ..RawSignal::default() };
    source(&signal, &mut own);
    if let Some(body) = body {
        with_amplifier(body.clone(), &signal, &mut own);
    }
    reading.problems.extend(own.problems.into_iter().map(|problem| Problem {
        field: problem.field.replacen("signal.amplifier", "signal.later_amplifier", 1),
        ..problem
    }));
}

/// The cabinet with a volume to begin with where a box whose sizes are all stated leaves none to choose: its own follows.
fn with_volume<'a>(raw: &'a RawEnclosure, body: Option<&Body>) -> Cow<'a, RawEnclosure> {
    let one = matches!(
        raw.family,
        RawFamily::Sealed | RawFamily::Ported | RawFamily::PassiveRadiator | RawFamily::Aperiodic
    );
    let Some(body) = body.filter(|body| one && raw.volume.is_none() && body.sized()) else {
        return Cow::Borrowed(raw);
    };
    let sizes = [0, 1, 2].map(|k| body.sizes[k].or(body.sizes[0]).unwrap_or(0.0));
    let volume = (INSIDE * sizes.iter().product::<f64>()).clamp(field::VOLUME.min, field::VOLUME.max);
    Cow::Owned(RawEnclosure { volume: Some(field::VOLUME.typed(volume, 4)), ..raw.clone() })
}

/// Share of a box's outside that is air, to begin with.
const INSIDE: f64 = 0.7;

/// Reads what a builder wishes for.
///
/// # Errors
/// Every problem, with its place.
pub fn read_wishes(volume: Option<&Typed>, lowest: Option<&Typed>) -> Result<Wishes, Vec<Problem>> {
    let mut reading = Reading::default();
    let wishes = Wishes {
        volume: reading.optional("volume", &field::VOLUME, &volume.cloned()),
        lowest: reading.optional("lowest", &field::TUNING, &lowest.cloned()),
    };
    if reading.problems.is_empty() { Ok(wishes) } else { Err(reading.problems) }
}

/// Checks the texts of a build.
///
/// # Errors
/// Every problem, with its place.
pub fn check_title(name: &str, notes: &str) -> Result<(), Vec<Problem>> {
    let mut reading = Reading::default();
    reading.text("name", name, 1, LONGEST_NAME);
    reading.text("notes", notes, 0, LONGEST_NOTE);
    if reading.problems.is_empty() { Ok(()) } else { Err(reading.problems) }
}

impl RawBuild {
    /// Resolves and compiles every variant.
    ///
    /// # Errors
    /// Every problem, with its place.
    pub fn check(&self) -> Result<(), Vec<Problem>> {
        let mut problems = check_title(&self.name, &self.notes).err().unwrap_or_default();
        if let Some(Err(found)) = self.brief.as_ref().map(resolve_brief) {
            problems.extend(found.into_iter().map(|problem| problem.within("brief")));
        }
        for (index, variant) in self.variants.iter().enumerate() {
            let found = match resolve_design(variant) {
                Ok(resolved) => resolved.compile().err().into_iter().collect(),
                Err(found) => found,
            };
            problems.extend(found.into_iter().map(|problem| problem.within(&format!("variants[{index}]"))));
        }
        for (index, preset) in self.presets.iter().enumerate() {
            let found = resolve_preset(preset).err().unwrap_or_default();
            problems.extend(found.into_iter().map(|problem| problem.within(&format!("presets[{index}]"))));
        }
        for (index, place) in self.places.iter().enumerate() {
            let found = resolve_listening_place(place).err().unwrap_or_default();
            problems.extend(found.into_iter().map(|problem| problem.within(&format!("places[{index}]"))));
        }
        if problems.is_empty() { Ok(()) } else { Err(problems) }
    }
}

fn drive(raw: Option<&RawDrive>, nominal: f64, reading: &mut Reading) -> Drive {
    let Some(raw) = raw else { return Drive::USUAL };
    if raw.power.is_some() && raw.voltage.is_some() {
        reading.note("signal.drive.power", ProblemKind::Excludes { other: "signal.drive.voltage" });
    }
    let power = reading.optional("signal.drive.power", &field::DRIVE_POWER, &raw.power);
    let voltage = reading.optional("signal.drive.voltage", &field::DRIVE_VOLTAGE, &raw.voltage);
    stated(power, voltage, nominal)
        .map_or(Drive::USUAL, |drive| Drive { origin: DriveOrigin::Typed, ..drive })
}

/// Power (W) into the nominal load (ohm), or a voltage (V).
fn stated(power: Option<f64>, voltage: Option<f64>, nominal: f64) -> Option<Drive> {
    let volts = voltage.map(|volts| Drive { volts, power: None, origin: DriveOrigin::Amplifier });
    volts.or(power.map(|watts| Drive::power(watts, nominal)))
}

fn air(raw: Option<&RawAir>, reading: &mut Reading) -> Air {
    let Some(raw) = raw else { return Air::reference() };
    let temperature = reading.optional("air.temperature", &field::TEMPERATURE, &raw.temperature);
    let pressure = reading.optional("air.pressure", &field::PRESSURE, &raw.pressure);
    let humidity = reading.optional("air.humidity", &field::HUMIDITY, &raw.humidity);
    Air::new(temperature.unwrap_or(20.0), pressure.unwrap_or(101_325.0), humidity.unwrap_or(0.0))
}

/// Loads (ohm) and what the amplifier gives into them (W).
fn ratings(raw: &RawAmplifier, reading: &mut Reading) -> Vec<[f64; 2]> {
    let stated = [
        (8.0, "signal.amplifier.power_8", &field::AMPLIFIER_POWER_8, &raw.power_8),
        (4.0, "signal.amplifier.power_4", &field::AMPLIFIER_POWER_4, &raw.power_4),
        (2.0, "signal.amplifier.power_2", &field::AMPLIFIER_POWER_2, &raw.power_2),
    ];
    let read = |(load, place, field, typed)| Some([load, reading.optional(place, field, typed)?]);
    stated.into_iter().filter_map(read).collect()
}

/// The root of the largest of what is made of load (ohm) and power (W) of each rating.
fn most(ratings: &[[f64; 2]], of: fn(f64, f64) -> f64) -> Option<f64> {
    ratings.iter().map(|[load, power]| of(*load, *power).sqrt()).reduce(f64::max)
}

/// What an amplifier of such ratings gives into a nominal load (ohm): the least that voltage or, of several ratings, current leaves.
fn match_rating(ratings: &[[f64; 2]], nominal: f64) -> Option<Drive> {
    let volts = most(ratings, |load, power| power * load)?;
    let by_current = most(ratings, |load, power| power / load)? * nominal;
    let volts = if ratings.len() > 1 { volts.min(by_current) } else { volts };
    Some(Drive::power(volts * volts / nominal, nominal))
}

fn allowance(
    raw: Option<&RawAmplifier>,
    driver_array: Option<&DriverArray>,
    reading: &mut Reading,
) -> (Allowance, Option<Drive>) {
    let none = RawAmplifier::default();
    let raw = raw.unwrap_or(&none);
    if raw.power.is_some() && raw.voltage.is_some() {
        reading.note("signal.amplifier.power", ProblemKind::Excludes { other: "signal.amplifier.voltage" });
    }
    let driver = driver_array.map(DriverArray::equivalent);
    let nominal = driver.map_or(f64::NAN, |driver| driver.nominal);
    let power = reading.optional("signal.amplifier.power", &field::AMPLIFIER_POWER, &raw.power);
    let voltage = reading.optional("signal.amplifier.voltage", &field::AMPLIFIER_VOLTAGE, &raw.voltage);
    let ratings = ratings(raw, reading);
    let amplifier = stated(power, voltage, nominal).or(match_rating(&ratings, nominal));
    let current = reading.optional("signal.amplifier.current", &field::AMPLIFIER_CURRENT, &raw.current);
    // Into less ohm it gives what its current allows, which the lowest rating tells.
    let rated = most(&ratings, |load, power| power / load).filter(|_| ratings.len() > 1);
    let allowance = Allowance {
        volts: amplifier.map(|amplifier| amplifier.volts),
        amperes: current.or(rated),
        heat: driver.and_then(|driver| driver.pe),
        crest: RawProgramme::Sine.crest(),
        xmax: driver.and_then(|driver| driver.xmax),
        air_speed: USUAL_AIR_SPEED,
    };
    (allowance, amplifier)
}
