//! Computations on threads of their own.

use std::sync::mpsc;
use std::time::Duration;

use oak_server::compute::{Compute, WAITING};
use oak_server::error::ApiError;

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
    while compute.free()[0] > 0 {
        tokio::time::sleep(Duration::from_millis(5)).await;
    }
    let waiting: Vec<_> = (0..WAITING)
        .map(|_| {
            let compute = compute.clone();
            actix_web::rt::spawn(async move { compute.long(|_| ()).await })
        })
        .collect();
    while compute.free()[1] > 0 {
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
