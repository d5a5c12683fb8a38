//! Where computation happens: on threads of its own, as many at once as there are cores, each ended when nobody waits for it any
//! more. The threads that answer and those of the database are never held up by it.

use std::panic::{AssertUnwindSafe, catch_unwind};
use std::sync::Arc;

use oak_acoustics::Stop;
use rayon::{ThreadPool, ThreadPoolBuilder};
use tokio::sync::{OwnedSemaphorePermit, Semaphore, oneshot};

use crate::error::ApiError;

/// Requests that may wait for a turn; more are turned away.
pub const WAITING: usize = 32;

/// Two lanes: quick computations, of some milliseconds, do not wait behind long ones.
#[derive(Clone)]
pub struct Compute {
    quick: Lane,
    long: Lane,
}

#[derive(Clone)]
struct Lane {
    threads: Arc<ThreadPool>,
    /// One for each thread.
    turns: Arc<Semaphore>,
    /// One for each that works or waits.
    places: Arc<Semaphore>,
}

/// Stops a computation when it is dropped: with the request that waits for it.
pub struct StopOnDrop(Stop);

impl Drop for StopOnDrop {
    fn drop(&mut self) {
        self.0.stop();
    }
}

impl Lane {
    fn new(name: &'static str, count: usize, niceness: i32) -> Result<Self, rayon::ThreadPoolBuildError> {
        let threads = ThreadPoolBuilder::new()
            .num_threads(count)
            .thread_name(move |number| format!("{name}-{number}"))
            .start_handler(move |_| yield_to_others(niceness))
            .build()?;
        Ok(Self {
            threads: Arc::new(threads),
            turns: Arc::new(Semaphore::new(count)),
            places: Arc::new(Semaphore::new(count + WAITING)),
        })
    }

    async fn turn(&self) -> Result<[OwnedSemaphorePermit; 2], ApiError> {
        let place = Arc::clone(&self.places).try_acquire_owned().map_err(|_| ApiError::Overloaded)?;
        let turn = Arc::clone(&self.turns).acquire_owned().await.map_err(ApiError::internal)?;
        Ok([place, turn])
    }

    async fn run<T: Send + 'static>(
        &self,
        work: impl FnOnce(&Stop) -> T + Send + 'static,
    ) -> Result<T, ApiError> {
        let permits = self.turn().await?;
        let stop = Stop::default();
        let leaving = StopOnDrop(stop.clone());
        let (send, receive) = oneshot::channel();
        self.threads.spawn(move || {
            let done = catch_unwind(AssertUnwindSafe(|| work(&stop)));
            drop(permits);
            // Nobody may be waiting any more.
            let _ = send.send(done.map_err(|panic| ApiError::panicked(&*panic)));
        });
        let done = receive.await.map_err(ApiError::internal)?;
        drop(leaving);
        done
    }
}

impl Compute {
    /// With so many threads in each lane.
    ///
    /// # Errors
    /// No threads can be started.
    pub fn new(threads: usize) -> Result<Self, rayon::ThreadPoolBuildError> {
        Ok(Self { quick: Lane::new("quick", threads, 0)?, long: Lane::new("long", threads, 10)? })
    }

    /// How many turns and places of the long lane are free.
    pub fn free(&self) -> [usize; 2] {
        [&self.long.turns, &self.long.places].map(|free| free.available_permits())
    }

    /// A computation of some milliseconds.
    ///
    /// # Errors
    /// Too much is asked at once, or it broke down.
    pub async fn quick<T: Send + 'static>(
        &self,
        work: impl FnOnce() -> T + Send + 'static,
    ) -> Result<T, ApiError> {
        self.quick.run(|_| work()).await
    }

    /// A computation that may take seconds; it looks at its [`Stop`] at least every 200 ms.
    ///
    /// # Errors
    /// Too much is asked at once, or it broke down.
    pub async fn long<T: Send + 'static>(
        &self,
        work: impl FnOnce(&Stop) -> T + Send + 'static,
    ) -> Result<T, ApiError> {
        self.long.run(work).await
    }

    /// A computation that tells on the way how far it is; it goes on by itself, until what it is told to stop by is dropped.
    ///
    /// # Errors
    /// Too much is asked at once.
    pub async fn told(&self, work: impl FnOnce(&Stop) + Send + 'static) -> Result<StopOnDrop, ApiError> {
        let permits = self.long.turn().await?;
        let stop = Stop::default();
        let leaving = StopOnDrop(stop.clone());
        self.long.threads.spawn(move || {
            if let Err(panic) = catch_unwind(AssertUnwindSafe(|| work(&stop))) {
                crate::error::incident(&*panic);
            }
            drop(permits);
        });
        Ok(leaving)
    }
}

/// Lets the threads that answer go first.
pub(crate) fn yield_to_others(niceness: i32) {
    if niceness > 0 {
        // Where the system does not let us, it works all the same.
        let _ = rustix::process::nice(niceness);
    }
}
