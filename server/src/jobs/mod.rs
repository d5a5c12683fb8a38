//! Everything long is a job: what it is asked, how far it is, what came of it, or why it could not be done.
//!
//! A kind of job is a file here that implements [`Kind`], and its line in [`KINDS`]. The job's row in the database keeps a
//! cursor; the queue holds at most [`OPEN`] pieces of each job, so that a long one does not hold up a short one. A piece that is
//! done is counted in the transaction that takes it out of the queue and puts the next one in: it counts once, whoever did
//! it and however often.

mod best_places;
mod driver_match;
mod kind;
mod queue;
mod worker;

pub use best_places::KIND as BEST_PLACES;
pub use driver_match::KIND as DRIVER_MATCH;
pub use kind::{Failure, Keep, Kind, Next, Wanted};
pub use queue::{cancel, start};
pub use worker::{Workers, start_workers};

/// Every kind of job there is.
pub static KINDS: [&dyn Kind; 2] = [&driver_match::KIND, &best_places::KIND];

/// Pieces of one job that wait in the queue or are worked on at the same time.
const OPEN: usize = 4;

/// The kind of that name.
pub fn kind(id: &str) -> Option<&'static dyn Kind> {
    KINDS.into_iter().find(|kind| kind.id() == id)
}
