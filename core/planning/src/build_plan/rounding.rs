//! What becomes of a box whose boards are cut to a rule's divisions.

use oak_cabinetry::geometry::EnclosureShape;
use serde::Serialize;
use utoipa::ToSchema;

use super::making::Making;

/// A box with its outside sizes rounded.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct RoundedBox {
    /// What they are rounded to, m.
    pub division: f64,
    /// What to call that.
    pub name: &'static str,
    /// Whether it is of a rule in inches.
    pub inches: bool,
    /// Width, height and depth outside, m.
    pub outside: [f64; 3],
    /// What the net volume becomes more, m3; less than nothing where it becomes less.
    pub volume: f64,
    /// What the tuning of its ports, as long as they are drawn, becomes higher, Hz; lower where it is less than nothing.
    pub tuning: Option<f64>,
}

/// A millimetre, a 32nd and a 16th of an inch.
const DIVISIONS: [(f64, &str, bool); 3] = [
    (1e-3, "whole millimetres", false),
    (0.0254 / 32.0, "32nds of an inch", true),
    (0.0254 / 16.0, "16ths of an inch", true),
];

impl Making<'_> {
    /// The box cut to each division of a rule; nothing of shapes with slanting boards, of folded and of divided boxes, whose boards do not round by
    /// their outside alone.
    ///
    /// The tuning follows Helmholtz's formula: it goes with one over the root of the volume.
    pub fn rounded(&self) -> Vec<RoundedBox> {
        let plain = self.built.design.body.shape == EnclosureShape::Rectangular;
        let [chamber] = self.cabinet.chambers.as_slice() else { return Vec::new() };
        if !plain || self.cabinet.fold.is_some() {
            return Vec::new();
        }
        let sizes = |[low, high]: [oak_cabinetry::geometry::Point; 2]| [0, 1, 2].map(|k| high[k] - low[k]);
        let outside = sizes(self.cabinet.outer.bounds());
        let inside = sizes(self.cabinet.interior.bounds());
        let net = chamber.ledger.net();
        let tuning = self.built.compiled.port_tuning.as_ref().map(|tuning| tuning.reactance);
        let round = |(division, name, inches): (f64, &'static str, bool)| {
            let rounded = outside.map(|side| (side / division).round() * division);
            let with = [0, 1, 2].map(|k| inside[k] + rounded[k] - outside[k]);
            let volume = with.iter().product::<f64>() - inside.iter().product::<f64>();
            let tuning = tuning.filter(|tuning| *tuning > 0.0);
            let tuning = tuning.map(|tuning| tuning * ((net / (net + volume)).sqrt() - 1.0));
            RoundedBox { division, name, inches, outside: rounded, volume, tuning }
        };
        DIVISIONS.map(round).to_vec()
    }
}
