//! A chamber whose standing waves count, in the place of a lumped one.

use std::sync::Arc;

use crate::cavity::{Chamber, Reduced};
use crate::element::{Passage, Slice};
use crate::network::{Network, Node};

/// How the air of a chamber is modelled. The first opening is that of the drivers, then those of ports or radiators in the order
/// of the design.
#[derive(Debug, Clone)]
pub enum ChamberModel {
    /// As ducts one after the other along its longest axis: waves along that axis alone.
    Chain {
        /// The room from end to end, both closed.
        slices: Vec<Slice>,
        /// Where each opening is, m from the beginning.
        openings: Vec<f64>,
    },
    /// In all three directions.
    Waves(Arc<Reduced>),
}

/// Openings nearer than this along the axis share their pressure, m.
const SAME: f64 = 1e-3;

impl ChamberModel {
    /// Adds the air; the node of each opening.
    pub(super) fn install(&self, network: &mut Network) -> Vec<Node> {
        match self {
            Self::Waves(reduced) => {
                let nodes: Vec<Node> = (0..reduced.openings()).map(|_| network.node()).collect();
                network.add(Chamber { nodes: nodes.clone(), reduced: Arc::clone(reduced) });
                nodes
            }
            Self::Chain { slices, openings } => chain(network, slices, openings),
        }
    }
}

fn chain(network: &mut Network, slices: &[Slice], openings: &[f64]) -> Vec<Node> {
    let length: f64 = slices.iter().map(|slice| slice.length).sum();
    let mut order: Vec<usize> = (0..openings.len()).collect();
    order.sort_by(|a, b| openings[*a].total_cmp(&openings[*b]));
    let mut nodes = vec![Node::Outside; openings.len()];
    let (mut before, mut at) = (None, 0.0);
    for index in order {
        let place = openings[index].clamp(0.0, length);
        let last = before.filter(|_| place - at < SAME);
        nodes[index] = last.unwrap_or_else(|| {
            let node = network.node();
            if place - at >= SAME {
                // Before the first opening the room ends at a wall, which is a node that nothing else meets.
                let begin = before.unwrap_or_else(|| network.node());
                network.add(Passage::new([begin, node], &between(slices, at, place), [None, None], true));
            }
            at = place;
            node
        });
        before = Some(nodes[index]);
    }
    if let Some(last) = before.filter(|_| length - at >= SAME) {
        let wall = network.node();
        network.add(Passage::new([last, wall], &between(slices, at, length), [None, None], true));
    }
    nodes
}

/// The slices between two places, those on the edges cut.
fn between(slices: &[Slice], from: f64, to: f64) -> Vec<Slice> {
    let mut begin = 0.0;
    let mut found = Vec::new();
    for slice in slices {
        let end = begin + slice.length;
        let (low, high) = (from.max(begin), to.min(end));
        if high - low > 1e-9 {
            let root = |at: f64| {
                let part = (at - begin) / slice.length;
                let root = slice.start.sqrt() + part * (slice.end.sqrt() - slice.start.sqrt());
                root * root
            };
            found.push(Slice { length: high - low, start: root(low), end: root(high), ..*slice });
        }
        begin = end;
    }
    found
}
