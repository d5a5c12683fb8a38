//! Measuring: files, the measuring box, and what they say.

use std::net::{Ipv4Addr, SocketAddr, TcpListener};

use oak_metering::sweep::{Depth, Sweep, write_wav};
use oak_rig::{Scenario, listen};
use serde_json::{Value, json};

use crate::support::{Site, design};

/// A measuring box of the demo in this process, a hundred times as quick as a real one.
fn rig() -> SocketAddr {
    let scenario = include_str!("../../../demo/rig/pit-organ.json");
    let bench = Scenario::read(scenario).expect("a scenario").bench();
    let listener = TcpListener::bind((Ipv4Addr::LOCALHOST, 0)).expect("a port");
    let address = listener.local_addr().expect("an address");
    std::thread::spawn(move || listen(&listener, bench, 100.0));
    address
}

fn organ() -> Value {
    let build: Value =
        serde_json::from_str(include_str!("../../../demo/builds/pit-organ.json")).expect("demo");
    build["variants"][0].clone()
}

/// The last line of a sweep.
fn swept(site: &Site, of: &str, mass: Option<&str>) -> Value {
    let mut ask = json!({ "of": of });
    if let Some(mass) = mass {
        ask["added_mass"] = json!(mass);
    }
    let text = site.post("/api/v1/measure/rig/sweep", &ask).expect(200).text;
    let last = text.lines().last().expect("a line");
    serde_json::from_str(last).expect("JSON")
}

fn measurement(of: &str, found: &Value) -> Value {
    json!({
        "of": of, "source": "rig", "at": "2026-05-01T18:30:00Z", "variant": "Pedal C, two tubes",
        "room_temperature": "17.5 degC", "phased": true, "points": found["points"],
    })
}

fn report(site: &Site, design: &Value, measurements: &[Value]) -> Value {
    let body = json!({ "question": { "design": design }, "measurements": measurements, "on": "2026-05-01" });
    site.post("/api/v1/measure/report", &body).expect(200).json()
}

fn ids(list: &Value) -> Vec<&str> {
    list.as_array().expect("a list").iter().filter_map(|one| one["id"].as_str()).collect()
}

#[test]
fn the_organ_is_found_low_with_a_leak_and_mended_step_by_step() {
    let site = Site::with_rig(rig());
    let known = site.get("/api/v1/measure/rig").expect(200).json();
    assert_eq!(
        (known["name"].as_str(), known["simulated"].as_bool()),
        (Some("Pit organ, first box"), Some(true))
    );
    let drivers = |site: &Site| {
        let free = measurement("impedance_free", &swept(site, "impedance_free", None)["found"]);
        let mut mass = measurement("impedance_mass", &swept(site, "impedance_mass", Some("57 g"))["found"]);
        mass["added_mass"] = json!("57 g");
        [free, mass]
    };
    let boxed = |site: &Site| {
        ["impedance_blocked", "impedance_box"].map(|of| measurement(of, &swept(site, of, None)["found"]))
    };
    let act = |command: &str| {
        site.post("/api/v1/measure/rig/act", &json!({ "command": command })).expect(204);
    };
    let bench = drivers(&site);
    let first = report(&site, &organ(), &[bench.to_vec(), boxed(&site).to_vec()].concat());
    assert_eq!(first["answer"]["leak"], true);
    assert_eq!(ids(&first["remedies"])[..2], ["seal", "port"]);
    assert_eq!(first["answer"]["alarms"], json!(["leak", "tuning", "driver"]));
    act("act seal");
    let second = report(&site, &organ(), &[bench.to_vec(), boxed(&site).to_vec()].concat());
    assert_eq!(second["answer"]["leak"], false);
    let cut = second["answer"]["port_cut_mm"]["value"].as_f64().expect("a length");
    assert!((30.0..50.0).contains(&cut), "{cut} mm");
    let port = &second["remedies"][0];
    assert_eq!(port["id"], "port");
    act(&format!("act cut {cut:.1}"));
    // The box that stands there now is the variant that the remedy has made.
    let third = report(&site, &port["design"], &[bench.to_vec(), boxed(&site).to_vec()].concat());
    assert_eq!(third["answer"]["alarms"], json!([]));
    assert_eq!(third["remedies"], json!([]));
    assert!(ids(&third["findings"]).contains(&"good"), "{}", third["findings"]);
}

#[test]
fn what_goes_wrong_at_the_measuring_box_is_said_and_nothing_comes_of_it() {
    let site = Site::with_rig(rig());
    let fault = |what: &str| {
        site.post("/api/v1/measure/rig/act", &json!({ "command": format!("fault {what}") })).expect(204);
        let line = swept(&site, "impedance_box", None);
        assert_eq!(line["found"], Value::Null, "{what}");
        line["failed"].as_str().expect("a reason").to_owned()
    };
    assert!(fault("unplugged").contains("a lead is off"));
    assert!(fault("clipping").contains("turn it down"));
    assert!(fault("garbage").contains("no measurement"));
    assert!(fault("silent").contains("said nothing for 5 s"));
    let refused = site.post("/api/v1/measure/rig/act", &json!({ "command": "quit" })).expect(400);
    assert!(refused.json()["detail"].as_str().expect("words").contains("begins with"));
    let massless = site.post("/api/v1/measure/rig/sweep", &json!({ "of": "impedance_mass" })).expect(400);
    assert!(massless.json()["detail"].as_str().expect("words").contains("added_mass"));
    // Without one there is none, and it is said how to name one.
    let alone = Site::start();
    assert_eq!(alone.get("/api/v1/measure/rig").expect(200).json(), Value::Null);
    let off = alone.post("/api/v1/measure/rig/sweep", &json!({ "of": "loopback" })).expect(409);
    assert!(off.json()["detail"].as_str().expect("words").contains("--rig"));
    // Nobody is at home.
    let gone = TcpListener::bind((Ipv4Addr::LOCALHOST, 0)).expect("a port").local_addr().expect("an address");
    let away = Site::with_rig(gone).get("/api/v1/measure/rig").expect(502);
    assert!(away.json()["detail"].as_str().expect("words").contains("does not answer"));
}

#[test]
fn traces_and_recordings_are_read_and_kept_as_they_came() {
    let site = Site::start();
    let (build, _) = site.build_with_variant();
    let text = [("content-type", "text/plain")];
    let rows: String = (1..=50).map(|k| format!("{}\t{}\t{}\n", 10 * k, 6 + k, 20 - k)).collect();
    let read = site.send("POST", "/api/v1/measure/read?of=impedance_box&file=z.txt", &text, rows.as_bytes());
    let read = read.expect(200).json();
    assert_eq!((read["rows"].as_i64(), read["phased"].as_bool()), (Some(50), Some(true)));
    assert_eq!(read["points"][2], json!([30.0, 9.0, 17.0]));
    // A sweep that comes back a quarter as loud and a little late.
    let sweep = Sweep::new(48_000, 1.0, 10.0, 1000.0).expect("a sweep");
    let mut samples = vec![0.0; 30_000];
    samples.extend(sweep.samples().iter().map(|sample| 0.25 * sample));
    samples.extend(vec![0.0; 200_000]);
    let wav = write_wav(48_000, &samples, Depth::Bits24);
    let sound = [("content-type", "audio/wav")];
    let path = "/api/v1/measure/read?of=nearfield_cone&seconds=1&from=10&to=1000";
    let found = site.send("POST", path, &sound, &wav).expect(200).json();
    for point in found["points"].as_array().expect("points") {
        let [frequency, level] = [0, 1].map(|k| point[k].as_f64().expect("a number"));
        if (25.0..700.0).contains(&frequency) {
            assert!((level + 12.04).abs() < 0.3, "{frequency} Hz: {level} dB");
        }
    }
    let keep = format!("/api/v1/builds/{build}/recordings");
    let hash = site.send("POST", &keep, &sound, &wav).expect(201).json()["hash"]
        .as_str()
        .expect("a name")
        .to_owned();
    let given = site.get(&format!("/api/v1/recordings/{hash}")).expect(200);
    assert_eq!(given.kind, "application/octet-stream");
    assert_eq!(given.headers["content-disposition"], "attachment");
    // A calibration is taken out of a level.
    let loud = site.send("POST", &keep, &text, b"10 3.0\n1000 3.0\n").expect(201).json();
    let calibration = loud["hash"].as_str().expect("a name");
    let level = "20 80\n200 80\n";
    let path = format!("/api/v1/measure/read?of=seat&calibration={calibration}");
    let read = site.send("POST", &path, &text, level.as_bytes()).expect(200).json();
    assert_eq!(read["points"][0][1], 77.0);
    // What is damaged is told, and by its name.
    for (of, kind, bytes, words) in [
        ("impedance_box", "text/plain", b"nothing here".to_vec(), "no rows"),
        ("impedance_box", "text/plain", b"10 5\n20 -5\n".to_vec(), "no impedance"),
        ("nearfield_cone", "audio/wav", wav[..20_000].to_vec(), "no WAV file that can be read"),
        ("nearfield_cone", "audio/wav", b"OggS".to_vec(), "does not begin as a WAV"),
        (
            "nearfield_cone",
            "audio/wav",
            write_wav(48_000, &vec![0.0; 600_000], Depth::Bits16),
            "no sweep is heard",
        ),
        ("impedance_box", "audio/wav", wav.clone(), "two channels"),
    ] {
        let answer = site.send(
            "POST",
            &format!("/api/v1/measure/read?of={of}&seconds=1&from=10&to=1000"),
            &[("content-type", kind)],
            &bytes,
        );
        let detail = answer.expect(422).json()["detail"].as_str().expect("words").to_owned();
        assert!(detail.contains(words), "{words}: {detail}");
    }
    site.send("POST", &keep, &[("content-type", "image/png")], &wav).expect(415);
    site.send("POST", &keep, &sound, b"<svg onload='x'/>").expect(422);
    for name in ["..%2f..%2fetc%2fpasswd", &"0".repeat(64)] {
        site.get(&format!("/api/v1/recordings/{name}")).expect(404);
    }
    let sent = site.get("/api/v1/measure/sweep?seconds=2&bits=16").expect(200);
    assert_eq!(sent.kind, "audio/wav");
    site.get("/api/v1/measure/sweep?bits=12").expect(400);
    assert!(site.get("/api/v1/measure/sweep?seconds=900").expect(422).told("seconds").contains("900"));
}

#[test]
fn a_measurement_is_a_document_whose_values_are_checked() {
    let site = Site::start();
    let (build, _) = site.build_with_variant();
    let good = json!({
        "of": "impedance_box", "source": "text", "at": "2026-05-01T18:30:00Z", "phased": false,
        "points": [[10.0, 6.0, 0.0], [20.0, 30.0, 0.0]],
    });
    site.new_document(&build, "measurement", &good).expect(201);
    let with = |field: &str, value: Value| {
        let mut other = good.clone();
        other[field] = value;
        other
    };
    for (field, value, place) in [
        ("points", json!([[10.0, 6.0, 0.0]]), "points"),
        ("points", json!([[20.0, 6.0, 0.0], [10.0, 6.0, 0.0]]), "points[1]"),
        ("points", json!([[10.0, 6.0, 0.0], [20.0, -6.0, 0.0]]), "points[1]"),
        ("points", json!(vec![[1.0, 1.0, 0.0]; 601]), "points"),
        ("room_temperature", json!("140 degC"), "room_temperature"),
        ("of", json!("impedance_mass"), "added_mass"),
        ("raw", json!("../etc"), "raw"),
        ("at", json!("yesterday"), "at"),
        ("driver", json!(1.5), "driver"),
    ] {
        let told = site.new_document(&build, "measurement", &with(field, value)).expect(422).json();
        assert_eq!(told["errors"][0]["field"], place, "{told}");
    }
    // Export and import carry it along.
    let file = site.get(&format!("/api/v1/builds/{build}/build.json")).expect(200).json();
    assert_eq!(file["measurements"].as_array().map(Vec::len), Some(1));
    let again = site.post("/api/v1/builds/import", &file).expect(201).json();
    let copy = again["id"].as_str().expect("an id");
    assert_eq!(site.documents(copy, "measurement")[0]["content"]["points"], good["points"]);
    // A report says which measurement is wrong.
    let body = json!({
        "question": { "design": design() }, "on": "2026-05-01",
        "measurements": [good, with("points", json!([[10.0, 0.0, 0.0], [20.0, 1.0, 0.0]]))],
    });
    let told = site.post("/api/v1/measure/report", &body).expect(422).json();
    assert_eq!(told["errors"][0]["field"], "measurements[1].points[0]");
    let plan = site.post("/api/v1/measure/plan", &design()).expect(200).json();
    assert!(plan["steps"].as_array().is_some_and(|steps| steps.len() >= 6));
}

/// A build whose one variant was found to have a QL.
fn found_build(name: &str, ql: f64) -> Value {
    let mut variant = organ();
    variant["enclosure"].as_object_mut().expect("a chamber").remove("ql");
    let ql = json!({ "value": ql, "error": 0.3 });
    variant["measured"] = json!({ "found": { "of": variant["name"], "ql": ql } });
    json!({ "format": "oak-drum/build", "version": variant["version"], "name": name, "variants": [variant] })
}

#[test]
fn the_workshop_learns_from_its_builds_and_offers_it_from_three_on() {
    let site = Site::start();
    let learned = |site: &Site| site.get("/api/v1/workshop/learned").expect(200).json();
    assert_eq!(learned(&site), json!([]));
    let mut plain = organ();
    plain["enclosure"].as_object_mut().expect("a chamber").remove("ql");
    let with = |site: &Site, few_too: bool| {
        let ask = json!({ "design": plain, "few_too": few_too });
        site.post("/api/v1/workshop/learned/design", &ask).expect(200).json()
    };
    let mut builds = Vec::new();
    for (name, ql) in [("First", 11.0), ("Second", 12.0), ("Third", 11.5)] {
        builds.push(site.post("/api/v1/builds/import", &found_build(name, ql)).expect(201).json());
        let found = learned(&site);
        let count = builds.len();
        assert_eq!(found[0]["quantity"], "leakage");
        assert_eq!(found[0]["builds"], count);
        assert_eq!(found[0]["offered"], count > 2);
        assert_eq!(with(&site, false)["set"].as_array().expect("a list").is_empty(), count < 3);
        assert_eq!(with(&site, true)["set"].as_array().expect("a list").len(), 1);
    }
    let found = learned(&site);
    let ql = found[0]["value"].as_f64().expect("a number");
    assert!((9.5..12.0).contains(&ql), "{ql}");
    let offered = with(&site, false);
    let written = offered["design"]["enclosure"]["ql"].as_f64().expect("a number");
    assert!((written / ql - 1.0).abs() < 0.06, "{written} for {ql}");
    // What is archived counts no longer.
    let id = builds[0]["id"].as_str().expect("an id");
    site.delete(&format!("/api/v1/builds/{id}"), "*").expect(204);
    assert_eq!(learned(&site)[0]["builds"], 2);
}

#[test]
fn what_was_found_is_checked_like_every_other_value() {
    let site = Site::start();
    let mut build = found_build("Found", 11.0);
    build["variants"][0]["measured"]["found"]["ql"]["error"] = json!(-1);
    let refused = site.post("/api/v1/builds/import", &build).expect(422).text;
    assert!(refused.contains("measured.found.ql.error"), "{refused}");
    let mut build = found_build("Found", 11.0);
    build["variants"][0]["measured"]["found"]["of"] = json!("x".repeat(121));
    let refused = site.post("/api/v1/builds/import", &build).expect(422).text;
    assert!(refused.contains("measured.found.of"), "{refused}");
}
