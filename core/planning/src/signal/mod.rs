//! What comes before the drivers, block by block: what each does here, how the amplifier suits, and filters that would help.

mod amplifier;
mod biquads;
mod crossover;
mod debate;
mod name;
mod part;
mod proposal;
mod survey;
mod textbook;

pub use amplifier::{AmplifierReport, AmplifierVerdict};
pub use biquads::{BiquadFailure, BiquadSheet, biquads};
pub use crossover::{CrossoverReport, SumReport, crossover};
pub use debate::Debate;
pub use name::{filter_name, part_name};
pub use part::{PassiveReport, SoldValue};
pub use proposal::Proposal;

use oak_design::Problem;
use oak_design::conditions::{Question, RawBasis, RawQuestion};
use serde::Serialize;
use utoipa::ToSchema;

pub use textbook::Textbook;

pub use survey::{ChainReport, FilterReport};

use survey::Survey;
pub(crate) use survey::signed;

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
    /// Where builders disagree.
    pub debates: Vec<Debate>,
    /// Corner (Hz) and Q of a sealed box, for a Linkwitz transform.
    pub sealed: Option<[f64; 2]>,
    /// Where the cone begins to beam: cross over below, Hz.
    pub beams: f64,
}

/// Reports on the chain of a design in its conditions.
///
/// # Errors
/// Every problem with design or brief, with its place.
pub fn signal(question: &RawQuestion) -> Result<SignalReport, Vec<Problem>> {
    let Question { design, brief } = question.resolve()?;
    // On the bench nothing is asked.
    let brief = brief.filter(|_| question.conditions.basis == RawBasis::InUse);
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
        debates: debate::debates(&survey),
        sealed: survey.built.compiled.closed_box.map(|closed| [closed.fc, closed.qtc]),
        beams: survey.beams(),
    })
}
