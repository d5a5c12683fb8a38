//! A driver in a wall.

use super::{Compiled, Setting};
use crate::network::Node;

/// The room behind is so large that it does not push back, and nobody listens there.
pub(super) fn compile(setting: &Setting) -> Compiled {
    let mut network = setting.network();
    setting.mount(&mut network, [Node::Outside, Node::Elsewhere]);
    Compiled::of(network)
}
