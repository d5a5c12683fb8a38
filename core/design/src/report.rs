//! Runs the computation on a design and lays out what comes back.

use oak_acoustics::driver::SuspensionFrom;
use oak_acoustics::enclosure::Compiled;
use oak_acoustics::medium::Air;
use oak_acoustics::response::{Figures, FrequencyGrid, Peak, Response};
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
    /// The driver as completed.
    pub driver: DriverReport,
    /// Single figures.
    pub figures: FigureReport,
    /// Curves over frequency.
    pub curves: Curves,
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
    /// Piston-band level that F3, F6 and F10 refer to, dB.
    pub reference_level: f64,
    /// Hz.
    pub f3: Option<f64>,
    /// Hz.
    pub f6: Option<f64>,
    /// Hz.
    pub f10: Option<f64>,
    /// Highest level, dB.
    pub level_peak: PeakReport,
    /// Largest cone excursion from F3 up, peak, m.
    pub excursion_in_band: Option<PeakReport>,
    /// Lowest frequency above which the cone stays within Xmax, Hz.
    pub within_xmax_above: Option<f64>,
    /// Fastest air in a port, peak, m/s.
    pub air_speed: Option<PeakReport>,
    /// Lowest impedance, ohm.
    pub impedance_minimum: PeakReport,
    /// Largest group delay from F10 up, s.
    pub group_delay: PeakReport,
    /// Sealed: system resonance, Hz.
    pub fc: Option<f64>,
    /// Sealed: Q at that resonance, box losses included.
    pub qtc: Option<f64>,
    /// Ported: tuning where the box-side reactance crosses zero, Hz.
    pub fb: Option<f64>,
    /// Ported: tuning by Helmholtz's formula, Hz.
    pub fb_helmholtz: Option<f64>,
    /// Ported: impedance minimum between the two peaks, Hz.
    pub fb_impedance: Option<f64>,
    /// Ported: each port.
    pub ports: Vec<PortReport>,
}

/// Curves, every list of the same length. Seven digits (single precision) are kept.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Curves {
    /// Hz.
    pub frequency: Vec<f32>,
    /// dB re 20 uPa at 1 m in half space.
    pub level: Vec<f32>,
    /// Degrees, without the travel time.
    pub phase: Vec<f32>,
    /// ms, without the travel time.
    pub group_delay: Vec<f32>,
    /// Cone excursion, one-way peak, mm.
    pub excursion: Vec<f32>,
    /// Peak air speed in each opening, m/s.
    pub air_speed: Vec<Vec<f32>>,
    /// ohm.
    pub impedance: Vec<f32>,
    /// Degrees.
    pub impedance_phase: Vec<f32>,
    /// A RMS.
    pub current: Vec<f32>,
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
}

/// Computes a resolved design.
///
/// # Errors
/// What only shows when the ports are worked out.
pub fn compute(design: &ResolvedDesign, grid: &FrequencyGrid) -> Result<Computed, Problem> {
    let compiled = design.compile()?;
    let response = Response::of(&compiled.network, grid, design.volts);
    let figures = Figures::of(&compiled.network, design.volts);
    Ok(Computed { compiled, response, figures })
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
            driver: DriverReport::of(&design.driver),
            figures: FigureReport::of(&computed),
            curves: Curves::of(&computed.response),
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
            le: d.le,
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

impl FigureReport {
    fn of(computed: &Computed) -> Self {
        let figures = &computed.figures;
        let tuning = computed.compiled.port_tuning.as_ref();
        let closed = computed.compiled.closed_box;
        Self {
            reference_level: figures.reference_level,
            f3: figures.f3,
            f6: figures.f6,
            f10: figures.f10,
            level_peak: figures.level_peak.into(),
            excursion_in_band: figures.excursion_in_band.map(Into::into),
            within_xmax_above: figures.within_xmax_above,
            air_speed: figures.air_speed.map(Into::into),
            impedance_minimum: figures.impedance_minimum.into(),
            group_delay: figures.group_delay.into(),
            fc: closed.map(|closed| closed.fc),
            qtc: closed.map(|closed| closed.qtc),
            fb: tuning.map(|tuning| tuning.reactance),
            fb_helmholtz: tuning.map(|tuning| tuning.helmholtz),
            fb_impedance: tuning.and(figures.impedance_dip),
            ports: tuning
                .into_iter()
                .flat_map(|tuning| &tuning.ports)
                .map(|port| PortReport {
                    length: port.length,
                    area: port.area,
                    pipe_resonance: port.pipe_resonance,
                })
                .collect(),
        }
    }
}

impl Curves {
    fn of(response: &Response) -> Self {
        let single =
            |values: &mut dyn Iterator<Item = f64>| values.map(|value| value as f32).collect::<Vec<_>>();
        Self {
            frequency: single(&mut response.frequency.iter().copied()),
            level: single(&mut response.level()),
            phase: single(&mut response.pressure.iter().map(|p| p.arg().to_degrees())),
            group_delay: single(&mut response.group_delay.iter().map(|delay| delay * 1e3)),
            excursion: single(&mut response.excursion().map(|x| x * 1e3)),
            air_speed: (0..response.opening_velocity.len())
                .map(|opening| single(&mut response.air_speed(opening)))
                .collect(),
            impedance: single(&mut response.impedance.iter().map(|z| z.norm())),
            impedance_phase: single(&mut response.impedance.iter().map(|z| z.arg().to_degrees())),
            current: single(&mut response.current.iter().map(|i| i.norm())),
        }
    }
}
