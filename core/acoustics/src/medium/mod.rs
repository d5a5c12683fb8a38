//! What sound travels in.

mod air;
mod fill;
mod space;
mod stuffing;
mod viscothermal;

pub use air::Air;
pub use fill::{Fill, FillMaterial, Frame, Lining, POLYESTER, fill_materials};
pub use space::Space;
pub use stuffing::{Filled, Stuffing};
pub use viscothermal::{CrossSection, Layers, WallLosses, Walls};
