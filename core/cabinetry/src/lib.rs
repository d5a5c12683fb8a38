//! The box itself: from wanted litres to boards.
//!
//! [`body`] is the box as wished, with what is not said left open; [`contents`] is what goes in and how much air is to be
//! left. [`build`] solves the sizes and adds up the [`ledger`]; [`place`] mounts everything and says what does not fit.
//! [`fold`] lays the way of a line or horn back and forth in it. [`drawing`] draws it. [`geometry`] knows the shapes: every drawing, volume and check comes from the same bodies. [`modes`] are the standing
//! waves of a room, [`panel`] the boards around it. SI throughout.

pub mod body;
pub mod build;
mod cabinet;
pub mod contents;
pub mod cut;
pub mod drawing;
mod finding;
pub mod flare;
pub mod fold;
pub mod geometry;
pub mod ledger;
mod material;
pub mod modes;
pub mod panel;
mod part;
mod pipe;
pub mod place;
pub mod sheet;

pub use body::{Body, Brace, Item, ItemBlock, Layer, Opening, Panel, Place, PortBuild, Washers};
pub use build::USUAL_WALL;
pub use cabinet::{BuildError, Cabinet, Chamber};
pub use contents::{BoltCircle, CONE_OF_FRAME, Contents, DriverSize, Pair, PortSize, RadiatorSize, frame_of};
pub use finding::Finding;
pub use fold::{Corner, DuctPath, Fold, Laid, Seat, Stretch};
pub use ledger::{Entry, Ledger};
pub use part::{Part, PartKind, Piece};
pub use pipe::{Fittings, PIPES, Pipe};
pub use place::Mouth;
