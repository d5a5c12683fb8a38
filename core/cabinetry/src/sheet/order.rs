//! In which order a sheet is cut.

use super::tree::{Content, Node, Rect};

/// One cut, as one stands at the saw.
#[derive(Debug, Clone, PartialEq)]
pub struct CutStep {
    /// What the fence is set to, m.
    pub fence: f64,
    /// Whether the fence moves for it.
    pub moves: bool,
    /// Whether it parts left from right, as the sheet is drawn; else below from above.
    pub upright: bool,
    /// The piece that is cut.
    pub piece: Rect,
    /// How long the cut is, m.
    pub length: f64,
    /// Boards that fall out of it ready, as positions.
    pub ready: Vec<usize>,
}

/// Every cut of a sheet, a piece before what is cut from it; of those that can be made next always one that the fence stands for, else
/// the one whose setting most of them share.
pub fn steps(root: &Node) -> Vec<CutStep> {
    let mut open: Vec<&Node> = vec![root];
    let mut steps: Vec<CutStep> = Vec::new();
    let mut fence = f64::NAN;
    loop {
        let can = || open.iter().enumerate().filter_map(|(at, node)| Some((at, far(node)?)));
        let same = |a: f64, b: f64| (a - b).abs() < SAME;
        let next = can().find(|(_, far)| same(*far, fence)).or_else(|| {
            let sharing = |wanted: f64| can().filter(|(_, far)| same(*far, wanted)).count();
            can().max_by(|(at, a), (other, b)| {
                // Wide pieces first: they lie steadier on the saw; then in the order they came.
                sharing(*a).cmp(&sharing(*b)).then(a.total_cmp(b)).then(other.cmp(at))
            })
        });
        let Some((at, setting)) = next else { break };
        let node = open.remove(at);
        let Content::Cut(split) = &node.content else { break };
        let ready = [&split.low, &split.high]
            .into_iter()
            .filter_map(|part| match part.content {
                Content::Board { blank, .. } => Some(blank),
                _ => None,
            })
            .collect();
        steps.push(CutStep {
            fence: setting,
            moves: !same(setting, fence),
            upright: split.axis == 0,
            piece: node.rect,
            length: node.rect.size[1 - split.axis],
            ready,
        });
        fence = setting;
        open.extend([&split.low, &split.high]);
    }
    steps
}

/// Settings of a fence that are one, m.
const SAME: f64 = 5e-5;

fn far(node: &Node) -> Option<f64> {
    match &node.content {
        Content::Cut(split) => Some(split.far),
        _ => None,
    }
}
