//! Boxes: shapes, parts, places, drawings. One program, so that it is built and linked once.

mod cut;
mod drawings;
mod findings;
mod fitting;
mod flare;
mod fold;
mod parts;
mod shapes;
mod sheets;
mod support;
mod voxels;
mod waves;
