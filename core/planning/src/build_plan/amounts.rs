//! How much there is to glue, to seal, to paint: from the boards as they are cut.

use oak_cabinetry::cut::EdgeJoint;
use oak_cabinetry::geometry::area;
use oak_design::report::CutPanel;

/// Areas and lengths of one cabinet, SI.
#[derive(Debug, Clone, Copy, Default, PartialEq)]
pub struct Amounts {
    /// Outside of its boards around their holes, m2.
    pub outside: f64,
    /// Inside of its boards, and both sides of what stands in it, m2.
    pub inside: f64,
    /// Length of all joints, m.
    pub joints: f64,
    /// What is glued: edges on boards, and layers on each other, m2.
    pub glued: f64,
    /// Outside edges, m.
    pub edges: f64,
}

impl Amounts {
    /// Of the boards of one cabinet.
    pub(super) fn of(panels: &[CutPanel], cabinets: u32) -> Self {
        let mut sum = Self::default();
        for panel in panels {
            let count = f64::from(panel.count) / f64::from(cabinets.max(1));
            let holes: f64 = panel
                .holes
                .iter()
                .filter(|hole| hole.depth.is_none())
                .map(|hole| hole_area(&hole.size, hole.round))
                .sum();
            let window = panel.window.as_ref().map_or(0.0, |window| area(window).abs());
            let [front, back] = [&panel.outer, &panel.inner].map(|outline| area(outline).abs());
            let joints = joints(panel);
            sum.joints += count * joints;
            sum.glued += count * joints * panel.thickness;
            if !panel.outside {
                sum.inside += count * 2.0 * (front - window);
                continue;
            }
            match panel.layer {
                None => {
                    sum.outside += count * (front - holes);
                    sum.inside += count * (back - holes);
                }
                Some([layer, all]) => {
                    if layer == 1 {
                        sum.outside += count * (front - holes);
                    } else {
                        sum.glued += count * (front - holes);
                    }
                    if layer == all {
                        sum.inside += count * (back - holes);
                    }
                }
            }
            // Every outside edge belongs to two boards.
            if panel.layer.is_none_or(|[layer, _]| layer == 1) {
                sum.edges += count * perimeter(&panel.outer) / 2.0;
            }
        }
        sum
    }
}

pub(super) fn hole_area(size: &[f64; 2], round: bool) -> f64 {
    let share = if round { std::f64::consts::FRAC_PI_4 } else { 1.0 };
    share * size[0] * size[1]
}

/// m.
pub(super) fn perimeter(outline: &[[f64; 2]]) -> f64 {
    (0..outline.len()).map(|k| side(outline, k)).sum()
}

fn side(outline: &[[f64; 2]], k: usize) -> f64 {
    let [a, b] = [outline[k], outline[(k + 1) % outline.len()]];
    (b[0] - a[0]).hypot(b[1] - a[1])
}

/// Length of the edges that are glued to other boards: of an outer one those that end at another, and half of those that are mitred with it; of
/// one inside all round where it is a brace or a partition, else all but one end.
fn joints(panel: &CutPanel) -> f64 {
    if panel.outside {
        let each = panel.edges.iter().enumerate().map(|(k, edge)| match edge.joint {
            EdgeJoint::Under | EdgeJoint::Round => side(&panel.outer, k),
            EdgeJoint::Mitre => side(&panel.outer, k) / 2.0,
            EdgeJoint::Over | EdgeJoint::Free => 0.0,
        });
        return each.sum();
    }
    let around = perimeter(&panel.outer);
    let held_all_round = ["brace", "partition", "end board"].iter().any(|word| panel.name.starts_with(word));
    if held_all_round { around } else { around - panel.size[0].min(panel.size[1]) }
}
