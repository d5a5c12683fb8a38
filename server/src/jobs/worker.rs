//! Carries out jobs, piece by piece, on threads of its own.

use std::collections::HashSet;
use std::panic::{AssertUnwindSafe, catch_unwind};
use std::sync::atomic::{AtomicBool, Ordering};
use std::sync::{Arc, Condvar, Mutex, PoisonError};
use std::thread::{self, JoinHandle};
use std::time::Duration;

use fang::Task;
use uuid::Uuid;

use super::queue::{self, Piece};
use super::{Failure, Wanted};
use crate::db::queries::job;
use crate::db::{self, Pool};
use crate::error::{ApiError, incident};

/// Jobs go behind what somebody waits for.
const NICENESS: i32 = 10;
/// How often a thread without work looks for some.
const LOOK: Duration = Duration::from_millis(150);
/// How long it waits after the database failed.
const PAUSE: Duration = Duration::from_secs(1);
/// How many times within a lease a worker says what it works on, and looks for what others have lost.
const BEATS: f64 = 5.0;

/// Threads at work on jobs.
pub struct Workers {
    shared: Arc<Shared>,
    threads: Vec<JoinHandle<()>>,
}

struct Shared {
    pool: Pool,
    /// Without a word for so long, s, a piece counts as lost and goes to another worker.
    lease: f64,
    held: Mutex<HashSet<Uuid>>,
    stop: AtomicBool,
    /// Counts the pieces that were ended, and wakes what sleeps when one was, because others may wait for it, and when it is to stop.
    bell: (Mutex<u64>, Condvar),
    /// Why they stopped by themselves.
    refused: Mutex<Option<String>>,
}

/// Starts so many threads, with connections of their own so that answers do not wait for them. A piece of which nothing is heard for
/// the length of a lease, s, counts as lost and goes to another worker.
///
/// # Errors
/// No thread can be started.
pub fn start_workers(database_url: &str, count: usize, lease: f64) -> std::io::Result<Workers> {
    let shared = Arc::new(Shared {
        lease,
        pool: db::pool(database_url, u32::try_from(count).unwrap_or(1) + 2),
        held: Mutex::default(),
        stop: AtomicBool::new(false),
        bell: Default::default(),
        refused: Mutex::default(),
    });
    let mut threads = Vec::new();
    for number in 0..count {
        let shared = Arc::clone(&shared);
        threads.push(thread::Builder::new().name(format!("job-{number}")).spawn(move || {
            crate::compute::yield_to_others(NICENESS);
            shared.work();
        })?);
    }
    let beating = Arc::clone(&shared);
    threads.push(thread::Builder::new().name("job-beat".to_owned()).spawn(move || beating.beat())?);
    Ok(Workers { shared, threads })
}

impl Workers {
    /// Lets every thread finish its piece, and waits for them.
    pub fn stop(self) {
        self.shared.stop();
        for thread in self.threads {
            // A thread that broke down has said so in the log.
            let _ = thread.join();
        }
    }

    /// Why they stopped by themselves, where they did.
    pub fn refused(&self) -> Option<String> {
        self.shared.refused.lock().unwrap_or_else(PoisonError::into_inner).clone()
    }
}

impl Shared {
    fn stop(&self) {
        self.stop.store(true, Ordering::Relaxed);
        self.bell.1.notify_all();
    }

    /// How many pieces were ended.
    fn ended(&self) -> u64 {
        *self.bell.0.lock().unwrap_or_else(PoisonError::into_inner)
    }

    fn ring(&self) {
        *self.bell.0.lock().unwrap_or_else(PoisonError::into_inner) += 1;
        self.bell.1.notify_all();
    }

    fn stopped(&self) -> bool {
        self.stop.load(Ordering::Relaxed)
    }

    /// Sleeps, unless it is to stop.
    fn rest(&self, time: Duration) {
        let guard = self.bell.0.lock().unwrap_or_else(PoisonError::into_inner);
        let _ = self.bell.1.wait_timeout_while(guard, time, |_| !self.stopped());
    }

    /// Sleeps until it is time to look for work again, or another thread has ended a piece since `ended` were.
    fn await_work(&self, ended: u64) {
        let guard = self.bell.0.lock().unwrap_or_else(PoisonError::into_inner);
        let _ = self.bell.1.wait_timeout_while(guard, LOOK, |now| *now == ended && !self.stopped());
    }

    fn work(&self) {
        let mut failing = false;
        while !self.stopped() {
            let ended = self.ended();
            let taken = self.pool.get().map_err(ApiError::unreachable);
            match taken.and_then(|mut connection| queue::take(&mut connection)) {
                Ok(Some(task)) => {
                    self.carry_out(&task);
                    self.ring();
                }
                Ok(None) => self.await_work(ended),
                Err(error) => {
                    if !failing {
                        tracing::error!(%error, "no work can be taken");
                    }
                    failing = true;
                    self.rest(PAUSE);
                    continue;
                }
            }
            failing = false;
        }
    }

    fn carry_out(&self, task: &Task) {
        self.hold(task.id, true);
        if let Err(error) = self.attempt(task) {
            // The piece stays as it is, and is taken up again when its lease has run out.
            tracing::error!(task = %task.id, %error, "a piece of a job could not be kept");
        }
        self.hold(task.id, false);
    }

    fn hold(&self, id: Uuid, held: bool) {
        let mut all = self.held.lock().unwrap_or_else(PoisonError::into_inner);
        if held {
            all.insert(id)
        } else {
            all.remove(&id)
        };
    }

    fn attempt(&self, task: &Task) -> Result<(), ApiError> {
        let get = || self.pool.get().map_err(ApiError::unreachable);
        let Ok(piece) = serde_json::from_value::<Piece>(task.metadata.clone()) else {
            tracing::error!(task = %task.id, "a task that is no piece of a job is thrown away");
            return queue::discard(&mut *get()?, task);
        };
        let job = job::lookup(&mut *get()?, piece.job)?.filter(|job| job.at_work());
        let Some(job) = job else { return queue::discard(&mut *get()?, task) };
        let Some(kind) = super::kind(&job.kind) else {
            return queue::fail(&mut *get()?, job.id, "This program does not know such jobs.");
        };
        let wanted = Wanted::new(&self.pool, job.id);
        let done = catch_unwind(AssertUnwindSafe(|| kind.work(&self.pool, &job, &piece.work, &wanted)));
        match done {
            Ok(Ok(keep)) => match queue::complete(&mut *get()?, task, &piece, keep) {
                Err(error @ ApiError::Unavailable(_)) => Err(error),
                Err(error) => queue::fail(&mut *get()?, job.id, &error.to_string()),
                Ok(()) => Ok(()),
            },
            Ok(Err(Failure::Unwanted)) => queue::discard(&mut *get()?, task),
            Ok(Err(Failure::Final(why))) => queue::fail(&mut *get()?, job.id, &why),
            Ok(Err(Failure::Passing(error))) => queue::retry(&mut *get()?, task, &piece, &error.to_string()),
            Err(panic) => {
                let id = incident(&*panic);
                queue::fail(
                    &mut *get()?,
                    job.id,
                    &format!("The computation broke down (incident {id} in the log)."),
                )
            }
        }
    }

    fn beat(&self) {
        let mut failing = false;
        while !self.stopped() {
            match self
                .pool
                .get()
                .map_err(ApiError::unreachable)
                .and_then(|mut connection| self.tend(&mut connection))
            {
                Ok(()) => failing = false,
                Err(error) => {
                    if !failing {
                        tracing::error!(%error, "a worker cannot say that it lives");
                    }
                    failing = true;
                }
            }
            self.rest(Duration::from_secs_f64(self.lease / BEATS));
        }
    }

    fn tend(&self, connection: &mut diesel::pg::PgConnection) -> Result<(), ApiError> {
        if let Err(error) = db::check_schema(connection) {
            if let db::MigrateError::Other { .. } | db::MigrateError::Newer { .. } = error {
                *self.refused.lock().unwrap_or_else(PoisonError::into_inner) = Some(error.to_string());
                tracing::error!(%error, "the worker stops");
                self.stop();
            }
            return Ok(());
        }
        let held: Vec<Uuid> =
            self.held.lock().unwrap_or_else(PoisonError::into_inner).iter().copied().collect();
        if !held.is_empty() {
            queue::touch(connection, &held)?;
        }
        queue::sweep(connection)?;
        queue::reclaim(connection, self.lease)
    }
}
