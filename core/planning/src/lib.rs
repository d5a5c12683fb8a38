//! What a build must reach, and whether a design reaches it.
//!
//! `template` holds briefs to begin with; `case` computes a design as its brief has it used; `check` judges, one rule a file;
//! `driver_match` searches drivers and cabinets for a brief, `compare` puts drivers beside each other; `wiring` lists the ways
//! to wire equal drivers, `build_plan` what is bought, cut and done and what that costs, `change` says what each change to them does. `parameter` lists the values that can be turned one at a time:
//! `recommend` says which kind of cabinet suits, `suggestion` turns them until the brief is met, `sweep` to see what each does; `tolerance` shakes what is not known exactly. `cabinet` is the box itself,
//! `signal` what comes before it, `place` what becomes of it where it is heard.

pub mod build_plan;
mod cabinet;
mod case;
pub mod change;
pub mod check;
pub mod compare;
pub mod cut;
pub mod driver_match;
mod explain;
mod firing;
mod fitted;
pub mod parameter;
pub mod place;
pub mod recommend;
pub mod scale;
pub mod signal;
mod start;
pub mod suggestion;
pub mod sweep;
pub mod template;
pub mod tolerance;
pub mod wiring;

pub use cabinet::{MaterialReport, PanelsReport, cabinet, cavity_check, drawing, folds, model, panels};
pub use case::Case;
pub use explain::workings;
pub use firing::{FiringReport, firings};
pub use fitted::fitted;
pub use start::starts;
