//! Pages to print.
//!
//! `paper` is a page as marks on it, `face` are the typefaces and how wide words are, `flow` lays words, tables and pictures out down the pages,
//! `picture` draws drawings and curves into a frame, `write` makes a PDF of pages. [`book`] is the build book, [`templates`] are holes at
//! full size.

mod book;
mod curves;
mod face;
mod flow;
mod paper;
mod picture;
mod template;
mod write;

pub use book::{Chapter, book};
pub use template::templates;
