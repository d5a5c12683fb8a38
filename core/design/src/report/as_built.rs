//! What a design and its box come to together, in short.

use oak_acoustics::medium::Filled;
use serde::Serialize;
use utoipa::ToSchema;

use crate::built::Built;

/// The box of a design, in short, SI.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct AsBuiltReport {
    /// Net volumes of the chambers behind and before the drivers, m3.
    pub volumes: [Option<f64>; 2],
    /// What the fill of those chambers comes to, of those that have some.
    pub fills: [Option<Filled>; 2],
    /// Width, height and depth, of what the design measures; absent where there is no box.
    pub sizes: Option<[f64; 3]>,
    /// Width, height and depth outside, m.
    pub outside: Option<[f64; 3]>,
    /// Which values follow from the others: `volume`, `width`, `height`, `depth`.
    pub follows: Vec<&'static str>,
    /// What forbids building it, in words.
    pub forbids: Vec<String>,
}

impl AsBuiltReport {
    pub(super) fn of(built: &Built) -> Self {
        let cabinet = built.boxed.as_ref().map(|boxed| &boxed.cabinet);
        let solved = cabinet.map_or([false; 3], |cabinet| cabinet.solved);
        let names = ["width", "height", "depth"];
        let sizes = (0..3).filter(|k| solved[*k]).map(|k| names[k]);
        Self {
            volumes: built.design.volumes,
            fills: built.design.fills.map(|fill| fill.map(|fill| fill.filled)),
            sizes: cabinet.map(|cabinet| cabinet.sizes),
            outside: built.outside(),
            follows: built.volume_follows().then_some("volume").into_iter().chain(sizes).collect(),
            forbids: built.forbids(),
        }
    }
}
