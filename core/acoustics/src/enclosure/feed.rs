//! What stands between the amplifier and the drivers, put into a network.

use crate::element::{ElectricalBranch, Resistance};
use crate::network::{Network, Node, PassivePart};
use crate::source::Source;

/// Puts in the amplifier's resistance, a cable (ohm) and the passive parts; returns the live terminal that they leave.
pub(super) fn install(source: &Source, network: &mut Network, cable: f64) -> Node {
    let mut live = Node::Amplifier;
    for resistance in [source.output_resistance, cable] {
        if resistance > 0.0 {
            let next = network.node();
            network.add(Resistance::new(live, next, resistance));
            live = next;
        }
    }
    network.output_resistance = source.output_resistance;
    for (which, part) in source.parts.iter().enumerate() {
        let to = if part.in_series { network.node() } else { Node::Ground };
        for branch in part.form.branches() {
            let element = network.add(ElectricalBranch::new(live, to, branch));
            network.passive_parts.push(PassivePart { which, element, resistance: branch.resistance });
        }
        if part.in_series {
            live = to;
        }
    }
    live
}
