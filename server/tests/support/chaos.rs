//! Kills what takes part in a job while it runs: a worker, the server, the database; and sees that the job ends whole all the same.

use std::time::Duration;

use oak_cluster::Throwaway;

use super::matches::{assert_whole, ended, page, started, wait};
use super::program::Program;

/// A small generator of its own (Knuth's linear congruential one), so that a run can be had again by its seed.
struct Random(u64);

impl Random {
    fn below(&mut self, most: u64) -> u64 {
        self.0 = self.0.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        (self.0 >> 33) % most
    }
}

/// So many kills, each during a job of its own, with a worker beside the server's own thread.
pub fn run(kills: usize, seed: u64) {
    let throwaway = Throwaway::start().expect("a cluster");
    let url = throwaway.database().expect("a database");
    let mut random = Random(seed);
    let (mut server, mut site) = Program::server(&url, "1");
    let mut worker = Some(Program::worker(&url));
    let mut running = 0;
    for kill in 0..kills {
        let id = started(&site);
        std::thread::sleep(Duration::from_millis(random.below(500)));
        running += usize::from(!ended(&page(&site, &id)["job"]));
        match random.below(3) {
            0 => {
                drop(worker.take());
                worker = Some(Program::worker(&url));
            }
            1 => {
                drop(server);
                (server, site) = Program::server(&url, "1");
            }
            _ => {
                throwaway.cluster().crash().expect("crashes");
                std::thread::sleep(Duration::from_millis(random.below(400)));
                throwaway.cluster().revive().expect("comes back");
                wait_for_health(&site, kill);
            }
        }
        wait(&site, &id, ended);
        assert_whole(&site, &id);
    }
    assert!(running > kills / 2, "only {running} of {kills} kills met a job that ran");
}

fn wait_for_health(site: &super::Site, kill: usize) {
    for _ in 0..200 {
        if site.get("/api/v1/drivers?limit=1").status == 200 {
            return;
        }
        std::thread::sleep(Duration::from_millis(100));
    }
    panic!("kill {kill}: the server does not find its database again");
}
