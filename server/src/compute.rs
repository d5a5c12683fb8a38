//! Where computation happens: on threads of its own, as many at once as there are cores, each ended when nobody waits for it any
//! more. The threads that answer and those of the database are never held up by it.

use std::panic::{AssertUnwindSafe, catch_unwind};
use std::sync::Arc;

use oak_acoustics::Stop;
use rayon::{ThreadPool, ThreadPoolBuilder};
use tokio::sync::{OwnedSemaphorePermit, Semaphore, oneshot};

use crate::error::ApiError;

/// Requests that may wait for a turn; more are turned away.
const WAITING: usize = 32;

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

#[cfg(test)]
mod tests {
    use std::sync::mpsc;
    use std::time::Duration;

    use super::*;

    fn compute() -> Compute {
        Compute::new(1).expect("threads")
    }

    #[actix_web::test]
    async fn a_computation_that_breaks_down_is_answered_and_the_next_one_runs() {
        let compute = compute();
        let broken: Result<(), _> = compute.quick(|| panic!("broken")).await;
        assert!(matches!(broken, Err(ApiError::Internal { .. })));
        assert_eq!(compute.quick(|| 5).await.expect("runs"), 5);
    }

    #[actix_web::test]
    async fn more_than_can_wait_are_turned_away_and_places_are_given_back() {
        let compute = compute();
        let (release, wait) = mpsc::channel::<()>();
        let held = actix_web::rt::spawn({
            let compute = compute.clone();
            async move { compute.long(move |_| wait.recv().is_ok()).await }
        });
        while compute.long.turns.available_permits() > 0 {
            tokio::time::sleep(Duration::from_millis(5)).await;
        }
        let waiting: Vec<_> = (0..WAITING)
            .map(|_| {
                let compute = compute.clone();
                actix_web::rt::spawn(async move { compute.long(|_| ()).await })
            })
            .collect();
        while compute.long.places.available_permits() > 0 {
            tokio::time::sleep(Duration::from_millis(5)).await;
        }
        assert!(matches!(compute.long(|_| ()).await, Err(ApiError::Overloaded)));
        compute.quick(|| ()).await.expect("quick ones do not wait behind long ones");
        release.send(()).expect("somebody waits");
        assert!(held.await.expect("joined").expect("done"));
        for one in waiting {
            one.await.expect("joined").expect("had its turn");
        }
        compute.long(|_| ()).await.expect("there is room again");
    }

    #[actix_web::test]
    async fn who_leaves_stops_what_was_computed_for_them() {
        let compute = compute();
        let (tell, told) = mpsc::channel();
        let work = compute.long(move |stop| {
            let begun = std::time::Instant::now();
            while !stop.stopped() && begun.elapsed() < Duration::from_secs(60) {
                std::thread::sleep(Duration::from_millis(2));
            }
            tell.send(stop.stopped()).expect("somebody waits");
        });
        let left = tokio::time::timeout(Duration::from_millis(100), work).await;
        assert!(left.is_err(), "it was left");
        assert!(told.recv_timeout(Duration::from_secs(60)).expect("ends"));
        let leaving = compute.told(|stop| while !stop.stopped() {}).await.expect("begins");
        drop(leaving);
        compute.long(|_| ()).await.expect("its thread is free again");
    }
}
