//! What comes before the drivers, block by block: what each does here, how the amplifier suits, and filters that would help.

mod amplifier;
mod biquads;
mod name;
mod part;
mod proposal;
mod survey;
mod textbook;

pub use amplifier::{AmplifierReport, AmplifierVerdict};
pub use biquads::{BiquadFailure, BiquadSheet, biquads};
pub use name::{filter_name, part_name};
pub use part::{PassiveReport, SoldValue};
pub use proposal::Proposal;

use oak_design::Problem;
use oak_design::conditions::{Question, RawQuestion};
use serde::Serialize;
use utoipa::ToSchema;

pub use textbook::Textbook;

use survey::Survey;

/// The chain from the signal to the drivers.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SignalReport {
    /// Drive and space in words: what the figures stand in.
    pub conditions: String,
    /// What is played at where no filter changes it, V RMS.
    pub volts: f64,
    /// The filters in their order.
    pub filters: Vec<FilterReport>,
    /// All of them together.
    pub chain: ChainReport,
    /// The amplifier.
    pub amplifier: AmplifierReport,
    /// Resistance of the cable and whatever else is in series, ohm.
    pub cable: f64,
    /// What the cable costs, dB.
    pub cable_loss: f64,
    /// The passive parts in their order.
    pub parts: Vec<PassiveReport>,
    /// Filters that would help.
    pub proposals: Vec<Proposal>,
    /// Passive circuits to begin with.
    pub textbook: Vec<Textbook>,
    /// Corner (Hz) and Q of a sealed box, for a Linkwitz transform.
    pub sealed: Option<[f64; 2]>,
    /// Where the cone begins to beam: cross over below, Hz.
    pub beams: f64,
}

/// One filter and what it does here.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FilterReport {
    /// What it is.
    pub name: String,
    /// What it changes at this drive: travel, level, voltage. Nothing where it is bypassed.
    pub effect: String,
    /// What is to be minded: a boost below the tuning.
    pub caution: Option<String>,
}

/// All filters together.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct ChainReport {
    /// The most that it makes louder, dB, and where, Hz: the signal clips so much earlier there.
    pub most: [f64; 2],
    /// Largest cone travel from 5 Hz up without and with it at this drive, m.
    pub travel: [f64; 2],
    /// Level at the lowest note without and with it, dB.
    pub lowest: Option<[f64; 2]>,
}

/// Reports on the chain of a design in its conditions.
///
/// # Errors
/// Every problem with design or brief, with its place.
pub fn signal(question: &RawQuestion) -> Result<SignalReport, Vec<Problem>> {
    let Question { design, brief } = question.resolve()?;
    let survey = Survey::of(design, brief).map_err(|problem| vec![problem])?;
    let design = &survey.design;
    let raw = question.design.signal.clone().unwrap_or_default();
    let cable = design.driver_array.series_resistance;
    let behind = design.as_driven().re - design.source.output_resistance;
    Ok(SignalReport {
        conditions: design.conditions(),
        volts: design.drive.volts,
        filters: raw.filters.iter().map(|filter| survey.filter(filter)).collect(),
        chain: survey.chain(),
        amplifier: amplifier::report(&survey),
        cable,
        cable_loss: 20.0 * (behind / (behind - cable)).log10(),
        parts: part::reports(&raw.parts, &survey),
        proposals: proposal::proposals(&raw.filters, &survey),
        textbook: textbook::textbook(&survey),
        sealed: survey.built.compiled.closed_box.map(|closed| [closed.fc, closed.qtc]),
        beams: survey.beams(),
    })
}
