//! All boards of a cabinet.

use super::{Wall, inner, wall};
use crate::body::Body;
use crate::cabinet::Cabinet;
use crate::contents::Contents;

/// All boards of a cabinet, the outer ones first, with what braces and partition make of them.
pub fn walls(body: &Body, contents: &Contents, cabinet: &Cabinet) -> Vec<Wall> {
    let mut all = wall::outer(body, contents, cabinet);
    all.extend(inner::inner(body, contents, cabinet));
    all
}
