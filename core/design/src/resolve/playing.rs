//! What a design is played through beside its own filters, and where it is heard.

use oak_acoustics::source::Chain;

use super::listening_place::ListeningPlace;

/// What a design is played through, and where it is heard.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Playing {
    /// Name and filters of a preset.
    pub preset: Option<(String, Chain)>,
    /// Where it is heard.
    pub place: Option<ListeningPlace>,
}
