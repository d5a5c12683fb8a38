//! Briefs, checks, suggestions, searches. One program, so that it is built and linked once.

mod boards;
mod build_plan;
mod cabinet;
mod checks;
mod compare;
mod conditions;
mod cut;
mod driver_match;
mod drivers;
mod place;
mod recommend;
mod scale;
mod signal;
mod starts;
mod suggestions;
mod support;
