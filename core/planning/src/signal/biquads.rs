//! The filters of a design as a signal processor takes them.

use std::fmt::Write as _;

use oak_acoustics::source::Chain;
use oak_design::Problem;
use oak_design::file::RawFilter;
use oak_design::resolve::resolve_filters;
use oak_signal::biquad::{Biquad, BiquadError, Biquads, NumberFormat};
use serde::Serialize;
use utoipa::ToSchema;

use super::name::filter_name;

/// Why there is no sheet.
#[derive(Debug, Clone, PartialEq)]
pub enum BiquadFailure {
    /// The filters are not in order.
    Problems(Vec<Problem>),
    /// They cannot be sampled.
    Sampling(BiquadError),
}

/// Filters as biquads, `y = b0 x + b1 x1 + b2 x2 - a1 y1 - a2 y2`.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BiquadSheet {
    /// Samples a second.
    pub sample_rate: f64,
    /// One after another.
    pub sections: Vec<NamedBiquad>,
    /// Factor at every frequency; negative where the polarity is reversed.
    pub gain: f64,
    /// s; apart, because it is no biquad.
    pub delay: f64,
    /// The same in samples.
    pub delay_samples: f64,
    /// How far the biquads lie from what is drawn at most between 5 and 500 Hz, dB.
    pub deviation: f64,
    /// What 32-bit floating point costs besides, dB at most.
    pub single_precision: f64,
    /// What six digits behind the point cost, dB at most.
    pub six_decimals: f64,
}

/// One section with the filter that it is of.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct NamedBiquad {
    /// The filter.
    pub filter: String,
    /// Its coefficients.
    pub biquad: Biquad,
}

/// The filters that are not bypassed, at a sample rate, 1/s.
///
/// # Errors
/// See [`BiquadFailure`].
pub fn biquads(filters: &[RawFilter], sample_rate: f64) -> Result<BiquadSheet, BiquadFailure> {
    let chains = resolve_filters(filters).map_err(BiquadFailure::Problems)?;
    let mut sections = Vec::new();
    for (raw, chain) in filters.iter().zip(&chains) {
        let made = Biquads::of(chain, sample_rate).map_err(BiquadFailure::Sampling)?;
        let name = filter_name(raw);
        sections.extend(made.sections.into_iter().map(|biquad| NamedBiquad { filter: name.clone(), biquad }));
    }
    let whole = chains.into_iter().fold(Chain::default(), Chain::then);
    let made = Biquads::of(&whole, sample_rate).map_err(BiquadFailure::Sampling)?;
    let cost = |format| made.kept_as(format).deviation(&whole)[0];
    Ok(BiquadSheet {
        sample_rate,
        sections,
        gain: made.gain,
        delay: made.delay,
        delay_samples: made.delay_samples,
        deviation: made.deviation(&whole)[0],
        single_precision: cost(NumberFormat::Single),
        six_decimals: cost(NumberFormat::Decimals(6)),
    })
}

impl BiquadSheet {
    /// As a table: a line a section, coefficients with every digit that they need.
    pub fn csv(&self) -> String {
        let mut text = String::from("filter,b0,b1,b2,a1,a2\n");
        for NamedBiquad { filter, biquad: Biquad { b: [b0, b1, b2], a: [a1, a2] } } in &self.sections {
            let _ = writeln!(text, "\"{}\",{b0},{b1},{b2},{a1},{a2}", filter.replace('"', "\"\""));
        }
        let _ = writeln!(text, "gain,{},0,0,0,0", self.gain);
        let _ = writeln!(text, "\"delay, samples\",{},,,,", self.delay_samples);
        text
    }
}
