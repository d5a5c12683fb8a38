//! Runs the computation on a design and lays out what comes back.

use oak_acoustics::driver::Driver;
use oak_acoustics::driver::SuspensionFrom;
use oak_acoustics::enclosure::{Compiled, PassageFacts, PortTuning};
use oak_acoustics::medium::{Air, Space};
use oak_acoustics::network::{Network, Reference, Way};
use oak_acoustics::response::{Ceiling, Figures, FrequencyGrid, Limit, Peak, Response};
use serde::Serialize;
use utoipa::ToSchema;

use crate::field::Field;
use crate::problem::Problem;
use crate::resolve::{ResolvedDesign, ResolvedDriver};

/// Everything computed of one design. SI throughout, but dB, degrees and ms where a name says so.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Report {
    /// Drive at the terminals, V RMS.
    pub volts: f64,
    /// The space it radiates into: `full`, `half`, `quarter` or `eighth`.
    pub space: &'static str,
    /// The driver as completed.
    pub driver: DriverReport,
    /// All drivers together as they are used, behind their cable.
    pub used: UsedReport,
    /// Single figures.
    pub figures: FigureReport,
    /// Curves over frequency.
    pub curves: Curves,
    /// What runs out first.
    pub ceiling: CeilingReport,
}

/// All drivers together as one, SI.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct UsedReport {
    /// How many drivers.
    pub count: u32,
    /// ohm.
    pub nominal: f64,
    /// Cable counted, ohm.
    pub re: f64,
    /// Hz.
    pub fs: f64,
    /// Mechanical Q.
    pub qms: f64,
    /// Electrical Q, cable counted.
    pub qes: f64,
    /// Total Q.
    pub qts: f64,
    /// m3.
    pub vas: f64,
    /// kg.
    pub mms: f64,
    /// m2.
    pub sd: f64,
    /// m.
    pub xmax: Option<f64>,
    /// W.
    pub pe: Option<f64>,
    /// Air between the cones of an isobaric pair, m3.
    pub trapped: Option<f64>,
}

/// The largest clean output over the frequencies of the curves.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CeilingReport {
    /// dB at 1 m; null where nothing limits.
    pub level: Vec<Option<f32>>,
    /// The drive it takes, V RMS; null where nothing limits.
    pub volts: Vec<Option<f32>>,
    /// What binds, from low to high frequencies.
    pub ribbon: Vec<RibbonPiece>,
}

/// A stretch of frequencies in which one thing runs out first.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct RibbonPiece {
    /// Hz.
    pub from: f64,
    /// Hz.
    pub to: f64,
    /// `voltage`, `current`, `heat`, `cone`, `radiator`, `air` or `nothing`.
    pub limit: &'static str,
}

/// A line or horn as it came out, SI.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct PassageReport {
    /// m.
    pub length: f64,
    /// m3.
    pub volume: f64,
    /// m2.
    pub start: f64,
    /// m2.
    pub end: f64,
    /// Cut-off of a widening way, Hz.
    pub cutoff: Option<f64>,
    /// Where it brakes the cone, Hz.
    pub resonance: Option<f64>,
}

/// A driver with every value, stated or derived, SI.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct DriverReport {
    /// ohm.
    pub nominal: f64,
    /// ohm.
    pub re: f64,
    /// H.
    pub le: f64,
    /// Hz.
    pub fs: f64,
    /// Mechanical Q.
    pub qms: f64,
    /// Electrical Q.
    pub qes: f64,
    /// Total Q.
    pub qts: f64,
    /// m3.
    pub vas: f64,
    /// m/N.
    pub cms: f64,
    /// kg.
    pub mms: f64,
    /// T m.
    pub bl: f64,
    /// m2.
    pub sd: f64,
    /// m.
    pub xmax: Option<f64>,
    /// W.
    pub pe: Option<f64>,
    /// m3, `Sd Xmax`.
    pub vd: Option<f64>,
    /// Hz, `Fs/Qes`.
    pub ebp: f64,
    /// Half-space reference efficiency, 0 to 1.
    pub eta0: f64,
    /// dB at 1 m in half space for 1 W into Re.
    pub level_1w: f64,
    /// dB at 1 m in half space for 2.83 V.
    pub level_2v83: f64,
    /// Which stated value the suspension was taken from: `vas`, `cms`, `mms` or `bl`.
    pub suspension_from: &'static str,
    /// Stated values that the others contradict by more than 5 %.
    pub doubts: Vec<DoubtReport>,
}

/// A stated value that the others contradict.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct DoubtReport {
    /// Which field.
    pub field: &'static str,
    /// As stated, SI.
    pub stated: f64,
    /// As it follows from the rest, SI.
    pub derived: f64,
    /// The same in words.
    pub message: String,
}

/// A largest or smallest value and its frequency.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct PeakReport {
    /// The value.
    pub value: f64,
    /// Hz.
    pub frequency: f64,
}

/// One port as it came out.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct PortReport {
    /// m.
    pub length: f64,
    /// Area of one port, m2.
    pub area: f64,
    /// First resonance of the pipe itself, Hz.
    pub pipe_resonance: f64,
}

/// Single figures of a design at its drive.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FigureReport {
    /// What F3, F6 and F10 refer to: `piston`, the level that the driver's parameters promise, or `passband`, the
    /// highest level.
    pub reference: &'static str,
    /// Its level, dB.
    pub reference_level: f64,
    /// Hz.
    pub f3: Option<f64>,
    /// Hz.
    pub f6: Option<f64>,
    /// Hz.
    pub f10: Option<f64>,
    /// Where the band that begins at F3 ends, Hz.
    pub f3_upper: Option<f64>,
    /// Highest level, dB.
    pub level_peak: PeakReport,
    /// Depth of the deepest dip between two peaks of the passband, dB.
    pub ripple: f64,
    /// Largest cone excursion from F3 up, peak, m.
    pub excursion_in_band: Option<PeakReport>,
    /// Where the cone stands stillest, peak, m.
    pub excursion_minimum: Option<PeakReport>,
    /// Largest travel of a radiator from F3 up, peak, m.
    pub radiator_travel: Option<PeakReport>,
    /// Lowest frequency above which the cone stays within Xmax, Hz.
    pub within_xmax_above: Option<f64>,
    /// Fastest air in an opening, peak, m/s.
    pub air_speed: Option<PeakReport>,
    /// Which opening that is.
    pub fastest_opening: Option<String>,
    /// Lowest impedance, ohm.
    pub impedance_minimum: PeakReport,
    /// Largest group delay from F10 up, s.
    pub group_delay: PeakReport,
    /// Highest efficiency, 0 to 1.
    pub efficiency: PeakReport,
    /// Sealed: system resonance, Hz.
    pub fc: Option<f64>,
    /// Sealed: Q at that resonance, box losses included.
    pub qtc: Option<f64>,
    /// Tuning, where the box-side reactance crosses zero, Hz; of two ported chambers the front one's.
    pub fb: Option<f64>,
    /// Ported: tuning by Helmholtz's formula, Hz.
    pub fb_helmholtz: Option<f64>,
    /// Impedance minimum between the two peaks, Hz.
    pub fb_impedance: Option<f64>,
    /// Two ported chambers: tuning of the rear one, Hz.
    pub fb_rear: Option<f64>,
    /// Passive radiators: where they cancel the cone, Hz.
    pub notch: Option<f64>,
    /// Each port; of two ported chambers the front one's.
    pub ports: Vec<PortReport>,
    /// Two ported chambers: each port of the rear one.
    pub rear_ports: Vec<PortReport>,
    /// Lines and horns.
    pub passage: Option<PassageReport>,
}

/// Curves, every list of the same length. Seven digits (single precision) are kept.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Curves {
    /// Hz.
    pub frequency: Vec<f32>,
    /// dB re 20 uPa at 1 m in the space of the design.
    pub level: Vec<f32>,
    /// Degrees, without the travel time.
    pub phase: Vec<f32>,
    /// ms, without the travel time.
    pub group_delay: Vec<f32>,
    /// Excursion of the cone that moves farthest, one-way peak, mm.
    pub excursion: Vec<f32>,
    /// Peak air speed in each port, throat and mouth, m/s.
    pub air_speed: Vec<Vec<f32>>,
    /// What these are called.
    pub air_labels: Vec<String>,
    /// One-way peak travel of each kind of radiator, mm.
    pub radiator_travel: Vec<Vec<f32>>,
    /// ohm.
    pub impedance: Vec<f32>,
    /// Degrees.
    pub impedance_phase: Vec<f32>,
    /// A RMS.
    pub current: Vec<f32>,
    /// Real power, W.
    pub power: Vec<f32>,
    /// Apparent power, VA.
    pub apparent_power: Vec<f32>,
    /// Share of the real power that leaves as sound, %.
    pub efficiency: Vec<f32>,
    /// Pressure in each chamber, Pa RMS.
    pub chamber_pressure: Vec<Vec<f32>>,
    /// What these are called.
    pub chamber_labels: Vec<&'static str>,
}

/// One design computed over a grid.
#[derive(Debug)]
pub struct Computed {
    /// The network and what its family knows.
    pub compiled: Compiled,
    /// Curves.
    pub response: Response,
    /// Figures.
    pub figures: Figures,
    /// Largest clean output.
    pub ceiling: Ceiling,
}

/// Computes a resolved design.
///
/// # Errors
/// What only shows when the ports are worked out.
pub fn compute(design: &ResolvedDesign, grid: &FrequencyGrid) -> Result<Computed, Problem> {
    let compiled = design.compile()?;
    let response = Response::of(&compiled.network, grid, design.volts);
    let figures = Figures::of(&compiled.network, design.volts);
    let ceiling = Ceiling::of(&compiled.network, &response, &design.allowance);
    Ok(Computed { compiled, response, figures, ceiling })
}

impl Report {
    /// Computes a resolved design and lays out the results.
    ///
    /// # Errors
    /// See [`compute`].
    pub fn of(design: &ResolvedDesign, grid: &FrequencyGrid) -> Result<Self, Problem> {
        let computed = compute(design, grid)?;
        Ok(Self {
            volts: design.volts,
            space: match design.space {
                Space::Full => "full",
                Space::Half => "half",
                Space::Quarter => "quarter",
                Space::Eighth => "eighth",
            },
            driver: DriverReport::of(&design.driver),
            used: UsedReport::of(design),
            figures: FigureReport::of(&computed),
            curves: Curves::of(&computed.compiled.network, &computed.response),
            ceiling: CeilingReport::of(&computed.response, &computed.ceiling),
        })
    }
}

impl DriverReport {
    /// Lays out a driver, with values that depend on air at reference conditions.
    pub fn of(resolved: &ResolvedDriver) -> Self {
        let (d, air) = (&resolved.driver, Air::reference());
        Self {
            nominal: d.nominal,
            re: d.re,
            le: d.inductance.at_one_kilohertz(),
            fs: d.fs(),
            qms: d.qms(),
            qes: d.qes(),
            qts: d.qts(),
            vas: d.vas(&air),
            cms: d.cms,
            mms: d.mms,
            bl: d.bl,
            sd: d.sd,
            xmax: d.xmax,
            pe: d.pe,
            vd: d.vd(),
            ebp: d.ebp(),
            eta0: d.eta0(&air),
            level_1w: d.reference_level(d.re.sqrt(), &air),
            level_2v83: d.reference_level(2.83, &air),
            suspension_from: match resolved.suspension_from {
                SuspensionFrom::Vas => "vas",
                SuspensionFrom::Cms => "cms",
                SuspensionFrom::Mms => "mms",
                SuspensionFrom::Bl => "bl",
            },
            doubts: resolved
                .doubts
                .iter()
                .map(|doubt| DoubtReport {
                    field: doubt.field.name(),
                    stated: doubt.stated,
                    derived: doubt.derived,
                    message: doubt_in_words(doubt.field, doubt.stated, doubt.derived),
                })
                .collect(),
        }
    }
}

fn doubt_in_words(field: &Field, stated: f64, derived: f64) -> String {
    let off = (stated / derived - 1.0) * 100.0;
    let (symbol, stated, derived) = (field.symbol, field.write(stated), field.write(derived));
    format!(
        "{symbol} is stated as {stated}; the other values give {derived} ({off:+.0} %). The other values are used."
    )
}

impl From<Peak> for PeakReport {
    fn from(peak: Peak) -> Self {
        Self { value: peak.value, frequency: peak.frequency }
    }
}

impl UsedReport {
    fn of(design: &ResolvedDesign) -> Self {
        let (motor, air) = (&design.motor, Air::reference());
        let d: Driver = motor.as_driven();
        let pairs = if motor.isobaric.is_some() { 2 } else { 1 };
        Self {
            count: motor.wiring.count() * pairs,
            nominal: d.nominal,
            re: d.re,
            fs: d.fs(),
            qms: d.qms(),
            qes: d.qes(),
            qts: d.qts(),
            vas: d.vas(&air),
            mms: d.mms,
            sd: d.sd,
            xmax: d.xmax,
            pe: d.pe,
            trapped: motor.isobaric.and_then(|pair| pair.trapped),
        }
    }
}

impl CeilingReport {
    fn of(response: &Response, ceiling: &Ceiling) -> Self {
        let finite = |values: &[f64]| {
            values.iter().map(|value| value.is_finite().then_some(*value as f32)).collect::<Vec<_>>()
        };
        let mut ribbon: Vec<RibbonPiece> = Vec::new();
        for (frequency, limit) in response.frequency.iter().zip(&ceiling.limit) {
            let limit = limit_name(*limit);
            match ribbon.last_mut() {
                Some(piece) if piece.limit == limit => piece.to = *frequency,
                last => {
                    // Pieces meet where the next begins.
                    if let Some(piece) = last {
                        piece.to = *frequency;
                    }
                    ribbon.push(RibbonPiece { from: *frequency, to: *frequency, limit });
                }
            }
        }
        Self { level: finite(&ceiling.level), volts: finite(&ceiling.volts), ribbon }
    }
}

/// The word for a limit in files.
pub fn limit_name(limit: Option<Limit>) -> &'static str {
    match limit {
        None => "nothing",
        Some(Limit::Voltage) => "voltage",
        Some(Limit::Current) => "current",
        Some(Limit::Heat) => "heat",
        Some(Limit::Cone) => "cone",
        Some(Limit::Radiator) => "radiator",
        Some(Limit::Air) => "air",
    }
}

impl From<PassageFacts> for PassageReport {
    fn from(facts: PassageFacts) -> Self {
        let PassageFacts { length, volume, start, end, cutoff, resonance } = facts;
        Self { length, volume, start, end, cutoff, resonance }
    }
}

fn ports(tuning: Option<&PortTuning>) -> Vec<PortReport> {
    let ports = tuning.into_iter().flat_map(|tuning| &tuning.ports);
    ports
        .map(|port| PortReport { length: port.length, area: port.area, pipe_resonance: port.pipe_resonance })
        .collect()
}

impl FigureReport {
    fn of(computed: &Computed) -> Self {
        let Computed { figures, compiled, .. } = computed;
        let (tuning, radiators) = (compiled.port_tuning.as_ref(), compiled.radiator_tuning);
        let fb = tuning
            .map(|tuning| tuning.reactance)
            .or(radiators.map(|tuning| tuning.tuning))
            .or(compiled.passage.and_then(|passage| passage.resonance));
        Self {
            reference: match figures.reference {
                Reference::Piston => "piston",
                Reference::Passband => "passband",
            },
            reference_level: figures.reference_level,
            f3: figures.f3,
            f6: figures.f6,
            f10: figures.f10,
            f3_upper: figures.f3_upper,
            level_peak: figures.level_peak.into(),
            ripple: figures.ripple,
            excursion_in_band: figures.excursion_in_band.map(Into::into),
            excursion_minimum: figures.excursion_minimum.map(Into::into),
            radiator_travel: figures.radiator_travel.map(Into::into),
            within_xmax_above: figures.within_xmax_above,
            air_speed: figures.air_speed.map(Into::into),
            fastest_opening: figures.fastest_opening.map(|at| compiled.network.openings[at].label.clone()),
            impedance_minimum: figures.impedance_minimum.into(),
            group_delay: figures.group_delay.into(),
            efficiency: figures.efficiency.into(),
            fc: compiled.closed_box.map(|closed| closed.fc),
            qtc: compiled.closed_box.map(|closed| closed.qtc),
            fb,
            fb_helmholtz: tuning.map(|tuning| tuning.helmholtz),
            fb_impedance: fb.and(figures.impedance_dip),
            fb_rear: compiled.rear_tuning.as_ref().map(|tuning| tuning.reactance),
            notch: radiators.map(|tuning| tuning.notch),
            ports: ports(tuning),
            rear_ports: ports(compiled.rear_tuning.as_ref()),
            passage: compiled.passage.map(Into::into),
        }
    }
}

impl Curves {
    fn of(network: &Network, response: &Response) -> Self {
        let single =
            |values: &mut dyn Iterator<Item = f64>| values.map(|value| value as f32).collect::<Vec<_>>();
        let openings = |way: Way| {
            let all = network.openings.iter().enumerate();
            all.filter(move |(_, opening)| opening.way == way)
        };
        Self {
            frequency: single(&mut response.frequency.iter().copied()),
            level: single(&mut response.level()),
            phase: single(&mut response.pressure.iter().map(|p| p.arg().to_degrees())),
            group_delay: single(&mut response.group_delay.iter().map(|delay| delay * 1e3)),
            excursion: single(&mut response.excursion().map(|x| x * 1e3)),
            air_speed: openings(Way::Port).map(|(at, _)| single(&mut response.air_speed(at))).collect(),
            air_labels: openings(Way::Port).map(|(_, opening)| opening.label.clone()).collect(),
            radiator_travel: openings(Way::Diaphragm)
                .map(|(at, _)| single(&mut response.opening_travel(at).map(|x| x * 1e3)))
                .collect(),
            impedance: single(&mut response.impedance.iter().map(|z| z.norm())),
            impedance_phase: single(&mut response.impedance.iter().map(|z| z.arg().to_degrees())),
            current: single(&mut response.current.iter().map(|i| i.norm())),
            power: single(&mut response.power()),
            apparent_power: single(&mut response.current.iter().map(|i| i.norm() * response.volts)),
            efficiency: single(&mut response.efficiency().map(|share| share * 100.0)),
            chamber_pressure: response
                .room_pressure
                .iter()
                .map(|room| single(&mut room.iter().map(|p| p.norm())))
                .collect(),
            chamber_labels: network.rooms.iter().map(|room| room.label).collect(),
        }
    }
}
