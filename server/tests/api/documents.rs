//! Documents of builds are saved, changed, refused, archived and brought back, whatever their kind.

use diesel::{Connection, PgConnection, RunQueryDsl};
use diesel_migrations::{EmbeddedMigrations, MigrationHarness, embed_migrations};
use oak_design::document::KINDS;
use serde_json::{Value, json};

use crate::support::{DEMO, Site, cluster, design};

fn resized(volume: &str) -> Value {
    let mut next = design();
    next["enclosure"]["volume"] = json!(volume);
    next
}

/// A content of a kind, and another.
fn contents(kind: &str) -> [Value; 2] {
    match kind {
        "title" => [json!({ "name": "Nook", "notes": "" }), json!({ "name": "Cabin", "notes": "port side" })],
        "brief" => [json!({ "lowest": "30 Hz" }), json!({ "lowest": "28 Hz" })],
        "variant" => [design(), resized("50 l")],
        "preset" => [
            json!({ "name": "Films", "filters": [{ "kind": "high_pass", "order": 4, "frequency": "20 Hz" }] }),
            json!({ "name": "Rock", "filters": [{ "kind": "low_shelf", "frequency": "40 Hz", "gain": "-4 dB" }] }),
        ],
        "place" => {
            let field = |along: &str| json!({ "name": "Field", "kind": "outdoors", "cabinets": [{ "across": "0 m", "along": along }], "seats": [] });
            [field("0 m"), field("2 m")]
        }
        "workshop" => {
            let made = |kerf: &str, finish: &str| {
                json!({
                    "kerf": kerf, "glue": "pva", "assembly": "clamps", "fixing": "wood_screws", "finish": finish, "feet": "rubber",
                    "terminal": "cup", "leads": "spades", "paper": "a4"
                })
            };
            [made("3.2 mm", "rolled"), made("2 mm", "veneer")]
        }
        "progress" => [
            json!({ "ticks": [{ "step": "label", "at": "2026-05-01T18:30:00Z" }] }),
            json!({ "ticks": [{ "step": "label", "at": "2026-05-01T18:30:00Z", "failed": true }] }),
        ],
        "entry" => [
            json!({ "at": "2026-05-01T18:30:00Z", "text": "Cut the front." }),
            json!({ "at": "2026-05-01T18:30:00Z", "text": "Cut the front.", "mistake": "1 mm short", "hours": "2 h" }),
        ],
        "measurement" => {
            let made = |notes: &str| {
                json!({
                    "of": "impedance_box", "source": "text", "at": "2026-05-01T18:30:00Z", "phased": false, "notes": notes,
                    "points": [[10.0, 6.5, 0.0], [20.0, 31.5, 0.0]],
                })
            };
            [made("grille off"), made("grille on")]
        }
        other => panic!("no contents of {other}"),
    }
}

#[test]
fn every_kind_of_document_is_saved_changed_archived_and_brought_back_in_one_way() {
    let site = Site::start();
    for kind in KINDS.map(|kind| kind.id) {
        let (build, _) = site.build_with_variant();
        let [first, second] = contents(kind);
        // A build has its title from the beginning.
        let made = match site.documents(&build, kind).first() {
            Some(made) => made.clone(),
            None => site.new_document(&build, kind, &first).expect(201).json(),
        };
        assert_eq!((&made["content"], &made["revision"]), (&first, &json!(1)), "{kind}");
        let path = format!("/api/v1/documents/{}", made["id"].as_str().expect("id"));
        let body = |content: &Value, archived: bool| json!({ "build": build, "kind": kind, "content": content, "archived": archived });

        let changed = site.put(&path, "\"1\"", &body(&second, false)).expect(200);
        assert_eq!(changed.etag.as_deref(), Some("\"2\""));
        let stale = site.put(&path, "\"1\"", &body(&first, false)).expect(412).json();
        assert_eq!((&stale["current_revision"], &stale["type"]), (&json!(2), &json!("urn:oak-drum:stale")));

        site.put(&path, "\"2\"", &body(&second, true)).expect(200);
        assert!(site.documents(&build, kind).iter().all(|one| one["id"] != made["id"]), "{kind}");
        let put_away = site.get(&format!("/api/v1/builds/{build}/archived")).expect(200).json();
        assert_eq!(put_away.as_array().map(Vec::len), Some(1), "{kind}");
        assert_eq!(site.get(&path).expect(200).json()["archived"], true);
        site.put(&path, "\"3\"", &body(&second, false)).expect(200);
        assert!(site.documents(&build, kind).iter().any(|one| one["id"] == made["id"]), "{kind}");

        let history = site.get(&format!("{path}/revisions")).expect(200).json();
        let history: Vec<_> = history
            .as_array()
            .expect("list")
            .iter()
            .map(|one| (one["revision"].as_i64(), one["archived"].as_bool(), one["content"].clone()))
            .collect();
        let saved = [(4, false, &second), (3, true, &second), (2, false, &second), (1, false, &first)];
        let saved =
            saved.map(|(revision, archived, content)| (Some(revision), Some(archived), content.clone()));
        assert_eq!(history, saved, "{kind}");
        let earlier = site.get(&format!("{path}/revisions?before=2")).expect(200).json();
        assert_eq!(earlier.as_array().map(Vec::len), Some(1));
    }
}

#[test]
fn a_document_is_refused_that_is_of_another_kind_twice_there_or_one_too_many() {
    let site = Site::start();
    let (build, variant) = site.build_with_variant();
    let path = format!("/api/v1/documents/{variant}");
    let brief = json!({ "build": build, "kind": "brief", "content": {} });
    site.put(&path, "\"1\"", &brief).expect(409);
    let drum = json!({ "build": build, "kind": "drum", "content": {} });
    site.put(&path, "\"1\"", &drum).expect(404);
    let again = json!({ "build": build, "kind": "variant", "content": design() });
    let headers = [("content-type", "application/json"), ("if-none-match", "*")];
    let twice = site.send("PUT", &path, &headers, again.to_string().as_bytes()).expect(412).json();
    assert_eq!(twice["current_revision"], 1);
    site.send("PUT", &path, &headers[..1], again.to_string().as_bytes()).expect(428);

    site.new_document(&build, "brief", &json!({})).expect(201);
    let second = site.new_document(&build, "brief", &json!({})).expect(422).json();
    assert!(second["detail"].as_str().expect("why").contains("at most 1 brief"), "{second}");
    let wrong = site.new_document(&build, "title", &json!({ "name": "", "notes": "" })).expect(422);
    assert!(wrong.told("name").contains("1"), "{}", wrong.text);
    let elsewhere = "00000000-0000-0000-0000-000000000000";
    site.new_document(elsewhere, "brief", &json!({})).expect(404);
    // One that begins archived takes none.
    let away = json!({ "build": build, "kind": "brief", "content": {}, "archived": true });
    let key = "/api/v1/documents/01930000-0000-7000-8000-000000000001";
    let away = site.send("PUT", key, &headers, away.to_string().as_bytes()).expect(201).json();
    assert_eq!(away["archived"], true);
    assert_eq!(site.documents(&build, "brief").len(), 1);
    // An archived one makes room, and does not come back where another has taken it.
    let first = site.documents(&build, "brief").remove(0);
    let path = format!("/api/v1/documents/{}", first["id"].as_str().expect("id"));
    let body =
        |archived: bool| json!({ "build": build, "kind": "brief", "content": {}, "archived": archived });
    site.put(&path, "\"1\"", &body(true)).expect(200);
    site.new_document(&build, "brief", &json!({})).expect(201);
    site.put(&path, "\"2\"", &body(false)).expect(422);
}

#[test]
fn a_new_document_says_where_the_next_of_its_kind_stands() {
    let site = Site::start();
    let (build, variant) = site.build_with_variant();
    let path = format!("/api/v1/builds/{build}");
    let next = site.get(&path).json()["next"].clone();
    assert_eq!(next["variant"], json!({ "number": 1 }));
    assert_eq!(next["brief"]["number"], 0);
    // Two that begin the brief at once come to the same document.
    let brief = format!("/api/v1/documents/{}", next["brief"]["id"].as_str().expect("a key"));
    let body = json!({ "build": build, "kind": "brief", "content": {} }).to_string();
    let headers = [("content-type", "application/json"), ("if-none-match", "*")];
    site.send("PUT", &brief, &headers, body.as_bytes()).expect(201);
    site.send("PUT", &brief, &headers, body.as_bytes()).expect(412);

    let second = site.new_document(&build, "variant", &design()).expect(201).json();
    assert_eq!(second["number"], 1);
    let order = json!({ "documents": [second["id"], variant] });
    site.put(&format!("{path}/order"), "", &order).expect(204);
    let ids: Vec<_> = site.documents(&build, "variant").into_iter().map(|one| one["id"].clone()).collect();
    assert_eq!(ids, [second["id"].clone(), json!(variant)]);
    let mixed = json!({ "documents": [variant, next["brief"]["id"]] });
    site.put(&format!("{path}/order"), "", &mixed).expect(404);
}

/// What an older program stored, and what its page still has to send, is read as this one's.
#[test]
fn documents_of_an_older_version_are_lifted_from_store_and_request_alike() {
    let url = cluster().database().expect("a database");
    let site = Site::start_on(&url);
    let (build, variant) = site.build_with_variant();
    let old = std::fs::read_to_string(format!("{DEMO}/old/build-version-1.json")).expect("the old file");
    let old = serde_json::from_str::<Value>(&old).expect("JSON")["variants"][0].clone();
    let mut connection = PgConnection::establish(&url).expect("connects");
    diesel::sql_query("UPDATE document_revisions SET content = $1 WHERE document_id = $2::uuid")
        .bind::<diesel::sql_types::Jsonb, _>(&old)
        .bind::<diesel::sql_types::Text, _>(&variant)
        .execute(&mut connection)
        .expect("stored");
    let stored = &site.documents(&build, "variant")[0]["content"];
    assert_eq!((&stored["version"], &stored["signal"]["drive"]["voltage"]), (&json!(2), &json!("12 V")));
    let sent = site.change((&build, &variant), 1, &old).expect(200).json();
    assert_eq!(&sent["content"], stored);
}

#[test]
fn of_two_writers_one_is_refused_and_nothing_is_lost() {
    let site = Site::start();
    let (build, variant) = site.build_with_variant();
    let statuses: Vec<u16> = std::thread::scope(|scope| {
        let write = |volume: &'static str| {
            let (site, of) = (&site, (build.as_str(), variant.as_str()));
            move || site.change(of, 1, &resized(volume)).status
        };
        let writers = ["40 l", "41 l", "42 l", "43 l"].map(|volume| scope.spawn(write(volume)));
        writers.into_iter().map(|writer| writer.join().expect("a status")).collect()
    });
    assert_eq!(statuses.iter().filter(|status| **status == 200).count(), 1, "{statuses:?}");
    assert_eq!(statuses.iter().filter(|status| **status == 412).count(), 3, "{statuses:?}");
    assert_eq!(site.get(&format!("/api/v1/documents/{variant}")).json()["revision"], 2);
}

#[test]
fn a_tuning_out_of_reach_may_be_kept_and_is_told_when_computed() {
    let site = Site::start();
    let (build, variant) = site.build_with_variant();
    let mut high = design();
    high["enclosure"]["tuning"] = json!("300 Hz");
    site.change((&build, &variant), 1, &high).expect(200);
    let answer = site.post("/api/v1/simulate", &json!({ "design": high })).expect(422);
    assert!(answer.told("enclosure.tuning").contains("300 Hz is higher than these ports reach"));
    let highest = answer.json()["errors"][0]["max"].as_f64().expect("the highest tuning");
    high["enclosure"]["tuning"] = json!(format!("{} Hz", highest * 0.99));
    site.post("/api/v1/simulate", &json!({ "design": high })).expect(200);
}

#[test]
fn builds_are_listed_archived_and_brought_back_with_what_is_in_them() {
    let site = Site::start();
    let (build, variant) = site.build_with_variant();
    let path = format!("/api/v1/builds/{build}");
    let title = site.documents(&build, "title").remove(0);
    let title = format!("/api/v1/documents/{}", title["id"].as_str().expect("id"));
    let named = json!({ "name": "Nook, port side", "notes": "under the bench" });
    site.put(&title, "\"1\"", &json!({ "build": build, "kind": "title", "content": named })).expect(200);
    let listed = site.get("/api/v1/builds").json();
    assert_eq!(
        (&listed[0]["name"], &listed[0]["notes"], &listed[0]["variant_count"]),
        (&named["name"], &named["notes"], &json!(1))
    );
    site.send("PUT", &path, &[("content-type", "application/json")], b"{\"name\": \"Other\"}").expect(409);

    site.delete(&path, "").expect(204);
    site.get(&path).expect(404);
    assert_eq!(site.get("/api/v1/builds").json(), json!([]));
    assert_eq!(site.get("/api/v1/builds?archived=true").json()[0]["id"], build);
    site.post(&format!("{path}/restore"), &json!({})).expect(200);
    assert_eq!(site.documents(&build, "variant")[0]["id"], variant);
    site.delete("/api/v1/builds/00000000-0000-0000-0000-000000000000", "").expect(404);
}

const MIGRATIONS: EmbeddedMigrations = embed_migrations!("../migrations");

#[derive(diesel::QueryableByName)]
struct Before {
    #[diesel(sql_type = diesel::sql_types::Text)]
    name: String,
    #[diesel(sql_type = diesel::sql_types::Text)]
    lowest: String,
    #[diesel(sql_type = diesel::sql_types::BigInt)]
    revisions: i64,
}

/// Down to the tables of the program before, which had names and briefs in the rows of builds, and up again.
#[test]
fn builds_of_the_program_before_come_along_with_name_brief_and_history() {
    let url = cluster().database().expect("a database");
    let site = Site::start_on(&url);
    let (build, variant) = site.build_with_variant();
    site.new_document(&build, "brief", &json!({ "lowest": "30 Hz" })).expect(201);
    site.change((&build, &variant), 1, &resized("50 l")).expect(200);

    let mut connection = PgConnection::establish(&url).expect("connects");
    // Back through what came later to the one that made documents of builds.
    while !connection
        .revert_last_migration(MIGRATIONS)
        .expect("goes back")
        .to_string()
        .starts_with("20261130")
    {}
    let before: Vec<Before> = diesel::sql_query(
        "SELECT name, brief ->> 'lowest' AS lowest, (SELECT count(*) FROM variant_revisions) AS revisions FROM builds",
    )
    .load(&mut connection)
    .expect("the tables of before");
    assert_eq!(before.len(), 1);
    assert_eq!(
        (before[0].name.as_str(), before[0].lowest.as_str(), before[0].revisions),
        ("Nook", "30 Hz", 2)
    );

    connection.run_pending_migrations(MIGRATIONS).expect("comes along");
    let site = Site::serving(&url);
    assert_eq!(site.get("/api/v1/builds").expect(200).json()[0]["name"], "Nook");
    assert_eq!(site.documents(&build, "brief")[0]["content"], json!({ "lowest": "30 Hz" }));
    let found = site.documents(&build, "variant").remove(0);
    assert_eq!((&found["id"], &found["revision"]), (&json!(variant), &json!(2)));
    assert_eq!(found["content"], resized("50 l"));
    let history = site.get(&format!("/api/v1/documents/{variant}/revisions")).expect(200).json();
    assert_eq!(history[1]["content"], design());
    // What was brought along is changed like anything else.
    let title = site.documents(&build, "title").remove(0);
    let path = format!("/api/v1/documents/{}", title["id"].as_str().expect("id"));
    let named = json!({ "build": build, "kind": "title", "content": { "name": "Cabin", "notes": "" } });
    site.put(&path, "\"1\"", &named).expect(200);
}
