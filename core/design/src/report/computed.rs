//! A design computed over a grid: what every report is made of.

use oak_acoustics::network::Network;
use oak_acoustics::response::{Figures, FrequencyGrid, MaxOutput, Response};

use crate::built::Built;
use crate::problem::Problem;
use crate::resolve::ResolvedDesign;

/// One design computed over a grid.
#[derive(Debug)]
pub struct Computed {
    /// As it is built.
    pub built: Built,
    /// Curves.
    pub response: Response,
    /// Figures.
    pub figures: Figures,
    /// Largest clean output.
    pub max_output: MaxOutput,
}

/// Computes a resolved design.
///
/// # Errors
/// What only shows when the ports are worked out.
pub fn compute(design: &ResolvedDesign, grid: &FrequencyGrid) -> Result<Computed, Problem> {
    computed(design, grid, Response::of)
}

/// As [`compute`], the response without its group delay: what a judgement needs, in a third of the time.
///
/// # Errors
/// See [`compute`].
pub fn compute_undelayed(design: &ResolvedDesign, grid: &FrequencyGrid) -> Result<Computed, Problem> {
    computed(design, grid, Response::without_delay)
}

fn computed(
    design: &ResolvedDesign,
    grid: &FrequencyGrid,
    respond: fn(&Network, &FrequencyGrid, f64) -> Response,
) -> Result<Computed, Problem> {
    Ok(solved(design.built()?, grid, respond))
}

/// As [`compute_undelayed`], without a look at the box.
///
/// # Errors
/// See [`compute`].
pub fn compute_unboxed(design: &ResolvedDesign, grid: &FrequencyGrid) -> Result<Computed, Problem> {
    Ok(solved(design.unboxed()?, grid, Response::without_delay))
}

fn solved(
    built: Built,
    grid: &FrequencyGrid,
    respond: fn(&Network, &FrequencyGrid, f64) -> Response,
) -> Computed {
    let Built { design, compiled, .. } = &built;
    let response = respond(&compiled.network, grid, design.drive.volts);
    let figures = Figures::of(&compiled.network, design.drive.volts);
    let max_output = MaxOutput::of(&compiled.network, &response, &design.allowance);
    Computed { built, response, figures, max_output }
}
