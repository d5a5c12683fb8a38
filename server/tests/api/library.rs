//! The library is searched, filtered, sorted, imported with a look first, and stays quick when it is large.

use serde_json::{Value, json};

use crate::support::{DEMO, Site, driver};

fn demo() -> Site {
    let site = Site::start();
    let table = std::fs::read(format!("{DEMO}/drivers.csv")).expect("drivers.csv");
    site.send("POST", "/api/v1/drivers/import", &[("content-type", "text/csv")], &table).expect(200);
    site
}

fn names(page: &Value) -> Vec<String> {
    let drivers = page["drivers"].as_array().expect("drivers");
    drivers.iter().map(|driver| driver["document"]["name"].as_str().expect("name").to_owned()).collect()
}

#[test]
fn a_filter_gives_what_is_within_all_its_bounds_and_nothing_else() {
    let site = demo();
    let all = site.get("/api/v1/drivers?limit=500").expect(200).json();
    let list = all["drivers"].as_array().expect("drivers");
    assert_eq!(all["total"].as_u64(), Some(list.len() as u64));
    let found =
        site.get("/api/v1/drivers?fs_max=30&qts_min=0.3&xmax_min=0.008&sort=fs&descending=true").json();
    let number = |driver: &Value, name: &str| driver[name].as_f64().unwrap_or(f64::NAN);
    let within = |driver: &&Value| {
        number(driver, "fs") <= 30.0 && number(driver, "qts") >= 0.3 && number(driver, "xmax") >= 0.008
    };
    let expected = list.iter().filter(within).count();
    assert!(expected > 2 && expected < list.len(), "{expected}");
    assert_eq!(found["total"].as_u64(), Some(expected as u64));
    let fs: Vec<f64> =
        found["drivers"].as_array().expect("drivers").iter().map(|driver| number(driver, "fs")).collect();
    assert!(fs.windows(2).all(|pair| pair[0] >= pair[1]), "{fs:?}");
    site.get("/api/v1/drivers?fs_mox=30").expect(400);
    site.get("/api/v1/drivers?fs_max=low").expect(400);
}

#[test]
fn pages_lie_side_by_side_without_gap_or_overlap() {
    let site = demo();
    let all = names(&site.get("/api/v1/drivers?limit=500&sort=nominal").json());
    let mut paged = Vec::new();
    for offset in (0..all.len()).step_by(7) {
        paged.extend(names(
            &site.get(&format!("/api/v1/drivers?sort=nominal&limit=7&offset={offset}")).json(),
        ));
    }
    assert_eq!(paged, all);
}

#[test]
fn words_tags_and_stock_find_a_driver_and_signs_are_no_wildcards() {
    let site = demo();
    let mut kept = driver();
    kept["name"] = json!("Bittern 100%_x");
    kept["tags"] = json!(["for the boat", "loud"]);
    kept["on_hand"] = json!(2);
    kept["price"] = json!(79.5);
    kept["frequency_range"] = json!("20 - 2000 Hz");
    site.post("/api/v1/drivers", &kept).expect(201);
    let found = |query: &str| names(&site.get(&format!("/api/v1/drivers?{query}")).expect(200).json());
    assert_eq!(found("find=BITTERN%20boat"), ["Bittern 100%_x"]);
    assert_eq!(found("find=100%25_x"), ["Bittern 100%_x"]);
    assert!(found("find=100%25y").is_empty());
    assert_eq!(found("tag=for%20the%20boat"), ["Bittern 100%_x"]);
    // As people speak of woofers, by their nominal size.
    let ten = found("find=10in");
    assert!(ten.contains(&"Heron 250/4".to_owned()) && !ten.contains(&"Crane 380/4".to_owned()), "{ten:?}");
    for same in ["find=10%20inch", "find=25%20cm", "find=254mm"] {
        assert_eq!(found(same), ten, "{same}");
    }
    assert!(found("find=10").contains(&"Heron 250/4".to_owned()));
    assert!(found("find=heron%2010").iter().all(|name| name.starts_with("Heron")));
    assert_eq!(found("in_stock=true&find=bittern"), ["Bittern 100%_x"]);
    let on_shelf = found("in_stock=true");
    assert!(
        on_shelf.contains(&"Crane 380/4".to_owned()) && !on_shelf.contains(&"Wren 130/8".to_owned()),
        "{on_shelf:?}"
    );
    assert_eq!(found("price_min=79.5&price_max=79.5"), ["Bittern 100%_x"]);
    let tags = site.get("/api/v1/drivers").json()["tags"].clone();
    assert_eq!(tags, json!(["for the boat", "loud", "small", "stage", "sub"]));
}

#[test]
fn a_driver_that_is_there_already_is_told() {
    let site = demo();
    let first = site.get("/api/v1/drivers").json()["drivers"][0]["document"].clone();
    let mut again = first.clone();
    again["name"] = json!(first["name"].as_str().expect("name").to_uppercase());
    let alike = site.post("/api/v1/drivers/alike", &again).expect(200).json();
    assert_eq!((&alike[0]["name"], &alike[0]["by"]), (&first["name"], &json!("name")));
    again["name"] = json!("Quite another");
    let alike = site.post("/api/v1/drivers/alike", &again).expect(200).json();
    assert_eq!((&alike[0]["name"], &alike[0]["by"]), (&first["name"], &json!("values")));
    again["fs"] = json!("77 Hz");
    assert_eq!(site.post("/api/v1/drivers/alike", &again).expect(200).json(), json!([]));
}

#[test]
fn a_file_is_looked_at_first_and_bad_rows_can_be_left_out() {
    let site = Site::start();
    let table = b"Model;Res;Re;Qms;Qes;Vas l;Sd cm2\nGood;30;5,6;4;0,4;60;350\nGood;30;5,6;4;0,4;60;350\nBad;0;5,6;4;0,4;60;350\n";
    let send = |query: &str| {
        let kind = [("content-type", "text/csv")];
        site.send("POST", &format!("/api/v1/drivers/import{query}"), &kind, table)
    };
    let columns = r#"[{"field":"name"},{"field":"fs"},{"field":"re"},{"field":"qms"},{"field":"qes"},{"field":"vas","unit":"l"},{"field":"sd"}]"#;
    let columns: String = columns.bytes().map(|byte| format!("%{byte:02x}")).collect();
    let look = send("?take=look").expect(200).json();
    assert_eq!(
        (&look["good"], &look["columns"][1]["field"], &look["columns"][5]["unit"]),
        (&json!(0), &json!(""), &json!("l"))
    );
    let look = send(&format!("?take=look&columns={columns}")).expect(200).json();
    assert_eq!((&look["good"], &look["imported"], &look["problem_count"]), (&json!(2), &json!(0), &json!(1)));
    assert_eq!(look["alike"], json!([{"name": "Good", "like": "an earlier row, by its name"}]));
    assert_eq!(site.get("/api/v1/drivers").json()["total"], 0);
    send(&format!("?columns={columns}")).expect(422);
    assert_eq!(site.get("/api/v1/drivers").json()["total"], 0);
    let taken = send(&format!("?take=good&columns={columns}")).expect(200).json();
    assert_eq!(taken["imported"], 2);
    assert_eq!(site.get("/api/v1/drivers").json()["total"], 2);
    send("?columns=7").expect(400);

    let list = site.get("/api/v1/drivers/export.json").expect(200).text;
    let taken =
        site.send("POST", "/api/v1/drivers/import", &[("content-type", "application/json")], list.as_bytes());
    assert_eq!(taken.expect(200).json()["imported"], 2);
}

#[test]
fn ten_thousand_drivers_are_taken_at_once_and_answer_a_filter() {
    let site = Site::start();
    let mut table = "name,fs (Hz),re (ohm),qms,qes,vas (l),sd (cm2),xmax (mm),price\n".to_owned();
    for index in 0..10_000 {
        let share = f64::from(index) / 10_000.0;
        table += &format!(
            "Driver {index},{:.2},5.6,4,{:.3},{:.1},{:.0},{:.1},{:.0}\n",
            20.0 + 60.0 * share,
            0.25 + 0.5 * (share * 37.0).fract(),
            20.0 + 180.0 * (share * 11.0).fract(),
            130.0 + 1000.0 * (share * 7.0).fract(),
            3.0 + 15.0 * (share * 5.0).fract(),
            30.0 + 300.0 * share
        );
    }
    let kind = [("content-type", "text/csv")];
    site.send("POST", "/api/v1/drivers/import", &kind, table.as_bytes()).expect(200);
    let page = site
        .get("/api/v1/drivers?find=driver&fs_min=30&fs_max=40&qts_max=0.4&sort=xmax&limit=50")
        .expect(200)
        .json();
    assert_eq!(page["library"], 10_000);
    assert_eq!(page["drivers"].as_array().expect("drivers").len(), 50);
    assert!(page["total"].as_u64().expect("total") > 300);
}
