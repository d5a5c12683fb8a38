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
use oak_design::file::{RawDesign, RawSignal};
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
    /// Filters that it has built in, in their order.
    pub built_in: Vec<FilterReport>,
    /// The amplifier that is to come later, or why it cannot be judged.
    pub later: Option<LaterReport>,
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

/// The amplifier that is to come later.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LaterReport {
    /// How it suits.
    pub amplifier: AmplifierReport,
    /// Level that it makes possible over the one now, dB, where the first limit is the amplifier's; nothing where either is not known.
    pub louder: Option<f64>,
}

/// The design with the amplifier that is to come later.
fn later(question: &RawQuestion, now: &AmplifierReport) -> Result<Option<LaterReport>, Vec<Problem>> {
    let Some(signal) = question.design.signal.as_ref().filter(|signal| signal.later_amplifier.is_some())
    else {
        return Ok(None);
    };
    let signal =
        RawSignal { amplifier: signal.later_amplifier.clone(), later_amplifier: None, ..signal.clone() };
    let design = RawDesign { signal: Some(signal), ..question.design.clone() };
    let Question { design, brief } = question.about(&design)?;
    let survey = Survey::of(design, brief).map_err(|problem| vec![problem])?;
    let amplifier = amplifier::report(&survey);
    let louder = now.volts.zip(amplifier.volts).map(|(now, later)| 20.0 * (later / now).log10());
    Ok(Some(LaterReport { amplifier, louder }))
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
    let amplifier = amplifier::report(&survey);
    let built_in = raw.amplifier.as_ref().map_or(&[][..], |amplifier| amplifier.filters.as_slice());
    Ok(SignalReport {
        later: later(question, &amplifier)?,
        built_in: built_in.iter().map(|filter| survey.filter(filter)).collect(),
        conditions: design.conditions(),
        volts: design.drive.volts,
        filters: raw.filters.iter().map(|filter| survey.filter(filter)).collect(),
        chain: survey.chain(),
        amplifier,
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
