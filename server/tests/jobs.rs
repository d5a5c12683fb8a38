//! Jobs: started by the server, carried out by workers of their own, and none is lost with a worker.

mod support;

use std::time::{Duration, Instant};

use diesel::{Connection, PgConnection, RunQueryDsl};
use oak_server::db::queries::job;
use oak_server::jobs::KINDS;
use serde_json::{Value, json};
use support::matches::{ask, assert_whole, build_named, ended, enlarge, nook, page, started, wait};
use support::program::Program;
use support::{Site, cluster};

/// A server on a database of its own.
fn server(threads: &str) -> (Program, Site, String) {
    let url = cluster().database().expect("a database");
    let (program, site) = Program::server(&url, threads);
    (program, site, url)
}

fn database(url: &str) -> PgConnection {
    PgConnection::establish(url).expect("connects")
}

fn execute(connection: &mut PgConnection, statement: &str) -> usize {
    diesel::sql_query(statement).execute(connection).expect(statement)
}

#[test]
fn every_kind_is_known_to_the_database_by_its_name() {
    let kinds: Vec<_> = KINDS.iter().map(|kind| (kind.id(), kind.name())).collect();
    assert_eq!(kinds, job::NAMES);
}

#[test]
fn a_match_ranks_what_it_finds_and_each_row_becomes_a_design_that_keeps_its_word() {
    let (_program, site, _) = server("2");
    let (build, brief) = nook(&site);
    let job = ask(&site, &json!({ "brief": brief })).expect(202).json();
    let id = job["id"].as_str().expect("id").to_owned();
    let page = wait(&site, &id, |job| job["state"] == "finished");
    assert_eq!(page["job"]["done"], page["job"]["total"]);
    let rows = page["rows"].as_array().expect("rows");
    assert_eq!(page["job"]["found"].as_u64(), Some(rows.len() as u64));
    let score = |row: &Value| row["found"]["score"].as_f64().expect("a score");
    assert!(rows.len() > 60 && rows.windows(2).all(|pair| score(&pair[0]) >= score(&pair[1])));
    // The library is small, so every box is drawn.
    assert!(rows.iter().all(|row| row["found"]["box_checked"] == true));
    let complete = rows.iter().filter(|row| score(row) > 99.999).count() as u64;
    assert_eq!(page["job"]["complete"].as_u64(), Some(complete));

    for row in rows.iter().step_by(9) {
        let (driver, family) = (row["driver"].as_str().expect("id"), row["family"].as_str().expect("family"));
        let design =
            site.get(&format!("/api/v1/driver-matches/{id}/drivers/{driver}/{family}")).expect(200).json();
        let checks =
            site.post("/api/v1/judge", &json!({ "brief": brief, "design": design })).expect(200).json();
        // Until its box is drawn its size is an estimate, and a line may change where it is folded.
        let drawn = row["found"]["box_checked"] == true;
        let parts = row["found"]["parts"].as_array().expect("parts").iter();
        for part in parts.filter(|part| drawn || (part["id"] != "size" && family != "line")) {
            let checks = checks.as_array().expect("checks");
            let check = checks.iter().find(|check| check["id"] == part["id"]).expect("the same rules");
            assert_eq!(check["reached"], part["reached"], "{row}");
            assert_eq!(check["words"], part["words"], "{row}");
        }
        site.new_document(&build, "variant", &design).expect(201);
        let all = site.get(&format!("/api/v1/driver-matches/{id}/drivers/{driver}")).expect(200).json();
        assert!(
            all.as_array()
                .expect("rows")
                .iter()
                .all(|row| row["found"].is_null() != row["refused"].is_null())
        );
    }
    let points = site.get(&format!("/api/v1/driver-matches/{id}/points")).expect(200).json();
    let points = points.as_array().expect("points");
    let number = |point: &Value, name: &str| point[name].as_f64().expect("a number");
    let beats = |a: &Value, b: &Value| {
        number(a, "volume") < number(b, "volume")
            && number(a, "f3") < number(b, "f3")
            && number(a, "loudness") > number(b, "loudness")
    };
    assert!(points.iter().any(|point| point["front"] == true));
    for point in points {
        let beaten = points.iter().any(|other| beats(other, point));
        assert!(!(beaten && point["front"] == true), "{point}");
    }
    assert_eq!(site.get(&format!("/api/v1/builds/{build}/driver-match")).expect(200).json()["id"], id);
    let next = started(&site);
    assert_ne!(next, id);
    site.get(&format!("/api/v1/driver-matches/{id}")).expect(404);
}

#[test]
fn the_best_places_of_a_room_are_found_and_kept() {
    let (_program, site, _) = server("2");
    let (build, _) = nook(&site);
    let design = &site.documents(&build, "variant")[0]["content"];
    let place = &site.documents(&build, "place")[0]["content"];
    let question = json!({ "design": design, "conditions": { "place": place } });
    let path = format!("/api/v1/builds/{build}/best-places");
    site.post(&path, &json!({ "question": question, "cabinets": 2 })).expect(202);
    let end = Instant::now() + Duration::from_secs(120);
    let found = loop {
        let found = site.get(&path).expect(200).json();
        if found["job"]["state"] == "finished" {
            break found;
        }
        assert!(Instant::now() < end, "{found}");
        std::thread::sleep(Duration::from_millis(50));
    };
    let places = found["job"]["total"].as_u64().expect("places");
    assert_eq!(found["job"]["done"].as_u64(), Some(places));
    assert_eq!(found["best"]["judged"].as_u64(), Some(places * (places - 1) / 2));
    let best = found["best"]["found"].as_array().expect("places");
    let spreads: Vec<f64> = best.iter().map(|one| one["spread"].as_f64().expect("dB")).collect();
    assert!(spreads.is_sorted() && spreads[0] < found["best"]["now"].as_f64().expect("dB"));
    assert_eq!(best[0]["at"].as_array().map(Vec::len), Some(2));
}

#[test]
fn a_job_outlives_the_worker_that_carries_it_out() {
    let (_program, site, url) = server("0");
    enlarge(&site, 4);
    let id = started(&site);
    std::thread::sleep(Duration::from_millis(300));
    assert_eq!(page(&site, &id)["job"]["state"], "waiting", "nobody is there to do it");
    let first = Program::worker(&url);
    wait(&site, &id, |job| job["done"].as_u64() > Some(0));
    drop(first);
    assert_eq!(page(&site, &id)["job"]["state"], "running", "it was killed on the way");
    let (_second, _third) = (Program::worker(&url), Program::worker(&url));
    wait(&site, &id, ended);
    assert_whole(&site, &id);
    let left = execute(&mut database(&url), "DELETE FROM fang_tasks");
    assert_eq!(left, 0, "nothing of it stays in the queue");
}

#[test]
fn a_cancelled_job_stops_and_keeps_what_it_has() {
    let (_program, site, url) = server("0");
    enlarge(&site, 4);
    let id = started(&site);
    let _worker = Program::worker(&url);
    wait(&site, &id, |job| job["done"].as_u64() > Some(0));
    let cancelled = site.post(&format!("/api/v1/jobs/{id}/cancel"), &json!({})).expect(200).json();
    assert_eq!(cancelled["state"], "cancelled");
    std::thread::sleep(Duration::from_millis(200));
    let done = page(&site, &id)["job"]["done"].clone();
    std::thread::sleep(Duration::from_millis(800));
    let page = page(&site, &id);
    assert_eq!(page["job"]["done"], done, "nothing more is done");
    assert!(page["job"]["done"].as_u64() < page["job"]["total"].as_u64());
    assert!(!page["rows"].as_array().expect("rows").is_empty());
    let again = site.post(&format!("/api/v1/jobs/{id}/cancel"), &json!({})).expect(200).json();
    assert_eq!(again["finished_at"], page["job"]["finished_at"], "what has ended stays as it is");
    // The worker is free for the next one.
    let next = started(&site);
    wait(&site, &next, |job| job["state"] == "finished");
}

#[test]
fn what_a_match_cannot_be_started_with_is_named_and_changes_nothing() {
    let (_program, site, url) = server("0");
    let (build, brief) = nook(&site);
    let id = started(&site);
    execute(&mut database(&url), "UPDATE jobs SET finished_at = now()");
    let told = ask(&site, &json!({ "brief": { "loudness": "95 dB" } })).expect(422).told("lowest");
    assert!(told.contains('5') && told.contains("500"), "{told}");
    let told = ask(&site, &json!({ "brief": brief, "drivers": 9 })).expect(422).told("drivers");
    assert!(told.contains('9') && told.contains('8'), "{told}");
    let mut horns = brief.clone();
    horns["families"] = json!(["front_horn"]);
    let told = ask(&site, &json!({ "brief": horns })).expect(422).told("families");
    assert!(told.contains("ported"), "{told}");
    ask(&site, &json!({ "brief": brief, "drivers": "two" })).expect(400);
    let nowhere = "/api/v1/builds/00000000-0000-0000-0000-000000000000/driver-matches";
    site.post(nowhere, &json!({ "brief": brief })).expect(404);
    site.get(&format!("/api/v1/driver-matches/{id}?limit=0")).expect(400);
    site.get(&format!("/api/v1/driver-matches/{id}?family=shoebox")).expect(400);
    let kept = site.get(&format!("/api/v1/builds/{build}/driver-match")).expect(200).json();
    assert_eq!(kept["id"], id, "what was found before is still there");
}

#[test]
fn one_at_a_time_in_a_build_also_when_two_start_at_once() {
    let (_program, site, _) = server("0");
    let (build, brief) = nook(&site);
    let body = json!({ "brief": brief });
    let path = format!("/api/v1/builds/{build}/driver-matches");
    let mut statuses: Vec<u16> = std::thread::scope(|scope| {
        let all: Vec<_> = (0..6).map(|_| scope.spawn(|| site.post(&path, &body).status)).collect();
        all.into_iter().map(|one| one.join().expect("answered")).collect()
    });
    statuses.sort_unstable();
    assert_eq!(statuses, [202, 409, 409, 409, 409, 409]);
    let jobs = site.get("/api/v1/jobs").expect(200).json();
    assert_eq!(jobs.as_array().expect("jobs").len(), 1);
    assert_eq!(jobs[0]["build_name"], "Narrowboat nook");
    let (_, other) = build_named(&site, "Pit organ");
    let (pit, _) = build_named(&site, "Pit organ");
    site.post(&format!("/api/v1/builds/{pit}/driver-matches"), &json!({ "brief": other })).expect(202);
}

#[test]
fn a_long_job_does_not_hold_up_a_short_one() {
    let (_program, site, url) = server("0");
    let (pit, brief) = build_named(&site, "Pit organ");
    let short = json!({ "brief": brief });
    enlarge(&site, 8);
    let long = started(&site);
    // What leaves the library after a job was started is still looked at by it.
    let mut connection = database(&url);
    execute(&mut connection, "UPDATE drivers SET archived_at = now() WHERE name LIKE 'Copy%'");
    let id = site.post(&format!("/api/v1/builds/{pit}/driver-matches"), &short).expect(202).json();
    assert!(id["total"].as_i64() < page(&site, &long)["job"]["total"].as_i64());
    let id = id["id"].as_str().expect("id");
    let _worker = Program::worker(&url);
    wait(&site, id, ended);
    let job = page(&site, &long)["job"].clone();
    assert_eq!(job["state"], "running", "{job}");
}

#[test]
fn a_lock_and_a_failing_piece_end_in_a_result_or_a_reason() {
    let (_program, site, url) = server("0");
    let id = started(&site);
    let mut connection = database(&url);
    let worker = Program::worker(&url);
    // Nobody gets at the job for seven seconds; statements give up after five.
    connection
        .transaction::<_, diesel::result::Error, _>(|connection| {
            execute(connection, "LOCK TABLE jobs IN ACCESS EXCLUSIVE MODE");
            std::thread::sleep(Duration::from_secs(7));
            Ok(())
        })
        .expect("held");
    wait(&site, &id, ended);
    assert_whole(&site, &id);
    drop(worker);

    let id = started(&site);
    execute(&mut connection, "UPDATE jobs SET input = '{\"brief\": 5}' WHERE finished_at IS NULL");
    let _worker = Program::worker(&url);
    let patience = std::time::Instant::now();
    let job = loop {
        let job = site.get(&format!("/api/v1/jobs/{id}")).expect(200).json();
        if ended(&job) {
            break job;
        }
        assert!(patience.elapsed() < Duration::from_secs(60), "{job}");
        std::thread::sleep(Duration::from_millis(50));
    };
    assert_eq!(job["state"], "failed");
    assert!(job["failure"].as_str().expect("a reason").contains("brief"), "{job}");
    assert_eq!(execute(&mut connection, "DELETE FROM fang_tasks"), 0);
}

#[test]
fn many_old_pieces_and_jobs_of_an_unknown_kind_cost_nothing() {
    let (program, site, url) = server("0");
    drop(program);
    let mut connection = database(&url);
    execute(
        &mut connection,
        "INSERT INTO fang_tasks (metadata, task_type, state, updated_at) \
         SELECT jsonb_build_object('job', gen_random_uuid(), 'work', '[]'::jsonb, 'units', 1, 'type', 'Piece'), 'oak-drum', \
         (CASE WHEN n % 2 = 0 THEN 'in_progress' ELSE 'new' END)::fang_task_state, now() - interval '1 day' \
         FROM generate_series(1, 20000) AS n",
    );
    execute(
        &mut connection,
        "INSERT INTO jobs (id, kind, build_id, input, total, queued) \
         SELECT gen_random_uuid(), 'of_a_later_version', id, '{}', 1, 1 FROM builds LIMIT 1",
    );
    execute(
        &mut connection,
        "INSERT INTO fang_tasks (metadata, task_type) SELECT \
         jsonb_build_object('job', id, 'work', '[]'::jsonb, 'units', 1, 'type', 'Piece'), 'oak-drum' FROM jobs",
    );
    drop(site);
    let begun = std::time::Instant::now();
    let (_program, site) = Program::server(&url, "2");
    assert!(begun.elapsed() < Duration::from_secs(30), "it starts at once");
    let id = started(&site);
    wait(&site, &id, ended);
    assert_whole(&site, &id);
    let jobs = site.get("/api/v1/jobs").expect(200).json();
    let unknown = jobs.as_array().expect("jobs").iter().find(|job| job["kind"] == "of_a_later_version");
    assert!(unknown.expect("listed")["failure"].as_str().expect("a reason").contains("does not know"));
}

#[test]
fn a_worker_stops_cleanly_and_refuses_a_schema_that_is_not_its_own() {
    let (_program, site, url) = server("0");
    enlarge(&site, 4);
    let id = started(&site);
    let worker = Program::worker(&url);
    wait(&site, &id, |job| job["done"].as_u64() > Some(0));
    assert!(worker.terminate().success(), "SIGTERM is no failure");
    let mut connection = database(&url);
    let held =
        execute(&mut connection, "UPDATE fang_tasks SET updated_at = now() WHERE state = 'in_progress'");
    assert_eq!(held, 0, "it finished what it had in hand");
    let mut running = Program::worker(&url);
    execute(&mut connection, "INSERT INTO __diesel_schema_migrations (version) VALUES ('20991231000001')");
    assert!(running.ends_within(30), "a newer server has taken over the database");
    execute(
        &mut connection,
        "UPDATE __diesel_schema_migrations SET version = '0' WHERE version = '20260123000001'",
    );
    let (mut late, line) = Program::start(&url, &["worker", "--threads", "1"]);
    assert!(late.ends_within(30) && line.is_empty(), "{line}");
}

/// Kills a worker, the server or the database while a job runs, again and again.
#[test]
fn whatever_is_killed_every_job_ends_whole() {
    let seed = 20_261_129;
    support::chaos::run(30, seed);
}
