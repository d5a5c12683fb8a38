//! Drivers in and out of tables and lists, and what is said of their sheets.

use crate::support::{DEMO, any_text, demo_builds};
use oak_design::Problem;
use oak_design::exchange::{ColumnChoice, ImportAsk, read_driver_table, read_drivers, write_driver_table};
use oak_design::file::{RawCoils, RawDriver, RawDriverArray, Typed};
use oak_design::problem::ProblemKind;
use oak_design::report::DriverReport;
use oak_design::resolve::{resolve_driver, resolve_driver_array};
use proptest::prelude::*;

#[test]
fn a_table_of_drivers_is_taken_whole_or_not_at_all() {
    let table = "name;fs [Hz];re (ohm);qms;qes;vas (l);sd (cm2);frequency range\n\
                 Good;30,5;5,6;4;0,4;60;350;20-200\n\
                 Bad;0;5,6;4;0,4;2 cuft;350;\n\
                 ;30;5,6;4;;60;350 kg;\n\
                 Short;30\n";
    let (drivers, report) = read_driver_table(table.as_bytes()).expect("a table");
    assert!(drivers.is_empty());
    assert_eq!((report.rows, report.imported, report.problem_count), (4, 0, 5));
    assert_eq!(report.columns[7].field, "frequency_range");
    let told: Vec<_> = report.problems.iter().map(|p| (p.line, p.field.as_str())).collect();
    assert_eq!(told, [(3, "fs"), (4, "name"), (4, "sd"), (4, "qes"), (5, "")]);
    assert!(report.problems[0].message.contains("0 Hz is outside 5 Hz to 2000 Hz"));

    let good: String = table.lines().take(2).collect::<Vec<_>>().join("\n");
    let (drivers, report) = read_driver_table(good.as_bytes()).expect("a table");
    assert_eq!((drivers.len(), report.imported), (1, 1));
    assert_eq!(drivers[0].vas, Some(Typed::from("60 l")));
}

#[test]
fn a_byte_order_mark_tabs_and_windows_line_ends_are_no_trouble() {
    let table = "\u{feff}name\tfs (Hz)\tre (ohm)\tqms\tqes\tvas (l)\tsd (cm2)\r\nTabbed\t30,5\t5,6\t4\t0,4\t60\t350\r\n";
    let (drivers, report) = read_driver_table(table.as_bytes()).expect("a table");
    assert_eq!((report.imported, report.problem_count), (1, 0));
    let driver = resolve_driver(&drivers[0]).expect("a driver").driver;
    assert!((driver.fs() - 30.5).abs() < 1e-9, "{} Hz", driver.fs());
}

#[test]
fn tables_that_cannot_be_read_say_why() {
    let told = |bytes: &[u8]| read_driver_table(bytes).expect_err("unreadable").to_string();
    assert!(told(b"").contains("no header"));
    assert!(told(b"name,fs\n").contains("no rows"));
    assert!(told(b"\xff\xfe\x00name").contains("not UTF-8"));
    assert!(told(b"name,fs\0\n").contains("not UTF-8"));
    assert!(told("name,".repeat(300).as_bytes()).contains("200 columns"));
    assert!(told(b"[{\"name\": ").contains("JSON"));
    assert!(told(b"[]").contains("no rows"));

    // What is wrong with the columns bars every row, and the report still shows what each column was taken for.
    let barred = |text: &str| {
        let (drivers, report) = read_drivers(text.as_bytes(), &skipping()).expect("a table");
        assert!(drivers.is_empty() && report.good == 0 && report.problems[0].line == 1, "{text}");
        report.problems[0].message.clone()
    };
    assert!(barred("a,b\n1,2\n").contains("\"a\", \"b\""));
    assert!(barred("name,vas (kg)\nx,1\n").contains("vas (kg)"));
    assert!(barred("name,vas,VAS (l)\nx,1 l,1\n").contains("two columns hold vas"));
    // Quoted by another delimiter than the header shows: one cell, and no column that is called so.
    assert!(barred("name:fs:re\nx:30:4\n").contains("name:fs:re"));
}

fn skipping() -> ImportAsk {
    ImportAsk { columns: None, skip_bad: true }
}

#[test]
fn columns_can_be_chosen_and_bad_rows_left_out() {
    let table = "Woofer|Res.|DCR|Qm|Qe|Volume [cu ft]|Piston area cm2|Colour|tags\n\
                 Good|30,5|5,6|4|0,4|2|350|red|loud, heavy\n\
                 Bad|0|5,6|4|0,4|2|350|red|\n";
    let (_, guessed) = read_drivers(table.as_bytes(), &ImportAsk::default()).expect("a table");
    let fields: Vec<_> = guessed.columns.iter().map(|column| column.field).collect();
    assert_eq!(fields, ["name", "", "re", "qms", "qes", "", "sd", "", "tags"]);
    assert_eq!(
        (guessed.good, guessed.columns[1].samples.as_slice()),
        (0, ["30,5".to_owned(), "0".to_owned()].as_slice())
    );

    let choice =
        |(field, unit): (&str, &str)| ColumnChoice { field: field.to_owned(), unit: unit.to_owned() };
    let columns = [
        ("name", ""),
        ("fs", "Hz"),
        ("re", ""),
        ("qms", ""),
        ("qes", ""),
        ("vas", "cuft"),
        ("sd", "cm2"),
        ("", ""),
        ("tags", ""),
    ];
    let columns = Some(columns.map(choice).to_vec());
    let all = ImportAsk { columns: columns.clone(), skip_bad: false };
    let (none, report) = read_drivers(table.as_bytes(), &all).expect("a table");
    assert_eq!((none.len(), report.good, report.imported, report.problem_count), (0, 1, 0, 1));
    let (one, report) =
        read_drivers(table.as_bytes(), &ImportAsk { columns, skip_bad: true }).expect("a table");
    assert_eq!((one.len(), report.imported, report.preview.len()), (1, 1, 1));
    assert_eq!(one[0].vas, Some(Typed::from("2 cuft")));
    assert_eq!(one[0].tags, ["loud", "heavy"]);

    let wrong = ImportAsk { columns: Some(vec![choice(("fs", "kg"))]), skip_bad: true };
    let (_, report) = read_drivers(table.as_bytes(), &wrong).expect("a table");
    assert!(report.problems.iter().any(|problem| problem.message.contains("1 columns were chosen")));
    assert!(
        report.problems.iter().any(|problem| problem.message.contains("\"kg\" is not a unit of frequency"))
    );
}

#[test]
fn a_list_of_driver_files_goes_out_and_comes_back() {
    let drivers: Vec<RawDriver> =
        demo_builds().into_iter().flat_map(|build| build.variants).map(|variant| variant.driver).collect();
    let text = serde_json::to_string(&drivers).expect("text");
    let (back, report) = read_drivers(text.as_bytes(), &ImportAsk::default()).expect("a list");
    assert_eq!((&back, report.problem_count), (&drivers, 0));
    let spoilt = text.replacen("oak-drum/driver", "else/driver", 1);
    let (none, report) = read_drivers(spoilt.as_bytes(), &ImportAsk::default()).expect("a list");
    assert_eq!((none.len(), report.good, report.problems[0].line), (0, drivers.len() - 1, 1));
    assert_eq!(report.problems[0].field, "format");
}

#[test]
fn a_likely_slip_is_named_with_the_one_value_that_mends_it() {
    let sheet = |more: &str| -> RawDriver {
        serde_json::from_str(&format!(
            r#"{{"name": "Slip", "re": "5.6 ohm", "fs": "28 Hz", "qms": 5.1, "qes": 0.38, "sd": "330 cm2", "vas": "95 l" {more}}}"#
        ))
        .expect("a driver")
    };
    let good = DriverReport::of(&resolve_driver(&sheet("")).expect("complete"));
    let mass = good.mms * 1e3;
    for (more, field, words, mended) in [
        (format!(r#","mms": "{:.2} g""#, mass / 28.35), "mms", "ounces", "mms"),
        (format!(r#","bl": "{:.2} T m""#, good.bl * 2.0), "bl", "both coils in series", "bl"),
        (format!(r#","level_1w": "{:.1} dB""#, good.level_1w + 3.0), "level_1w", "2.83 V", ""),
    ] {
        let report = DriverReport::of(&resolve_driver(&sheet(&more)).expect("complete"));
        assert_eq!(report.doubts.len(), 1, "{more}");
        assert_eq!(report.doubts[0].field, field);
        assert!(report.doubts[0].message.contains(words), "{}", report.doubts[0].message);
        if !mended.is_empty() {
            assert!(
                report.reconciling.iter().any(|value| value.field == mended),
                "{more}: {:?}",
                report.reconciling
            );
        }
    }
    // Vas of another driver: with mass and motor stated too, Vas alone puts everything right, or the cone it belongs to.
    let more = format!(r#","mms": "{mass:.1} g", "bl": "{:.2} T m""#, good.bl);
    let mut odd = sheet(&more);
    odd.vas = Some(Typed::from("60 l"));
    let report = DriverReport::of(&resolve_driver(&odd).expect("complete"));
    assert_eq!(report.doubts.iter().map(|doubt| doubt.field).collect::<Vec<_>>(), ["mms", "bl"]);
    let mending: Vec<_> = report.reconciling.iter().map(|value| value.field).collect();
    assert_eq!(mending, ["sd", "vas"]);
    approx::assert_relative_eq!(report.reconciling[1].value, 0.095, max_relative = 2e-3);
    // The area of the frame was taken for the cone's, and both coils in series for Re: what is believed first is named too.
    for (name, value, words) in [("sd", "462 cm2", "whole frame"), ("re", "22.4 ohm", "both coils in series")]
    {
        let mut slipped = sheet(&format!(r#","mms": "{mass:.1} g", "bl": "{:.2} T m""#, good.bl));
        *slipped.value_mut(name).expect("a field") = Some(Typed::from(value));
        let report = DriverReport::of(&resolve_driver(&slipped).expect("complete"));
        let mending = report.reconciling.iter().find(|value| value.field == name);
        let slip = mending.and_then(|value| value.slip);
        assert!(slip.is_some_and(|slip| slip.contains(words)), "{name}: {:?}", report.reconciling);
    }
    // Hints contradict nothing.
    let hinted = sheet(r#","nominal": "5.6 ohm", "xmax": "40 mm""#);
    let report = DriverReport::of(&resolve_driver(&hinted).expect("complete"));
    assert_eq!(report.hints.iter().map(|hint| hint.field).collect::<Vec<_>>(), ["re", "xmax"]);
}

#[test]
fn drivers_survive_the_round_trip_through_a_table() {
    let drivers: Vec<RawDriver> =
        demo_builds().into_iter().flat_map(|build| build.variants).map(|variant| variant.driver).collect();
    let (back, report) = read_driver_table(write_driver_table(&drivers).as_bytes()).expect("own writing");
    assert_eq!(report.problems, []);
    for (back, driver) in back.iter().zip(&drivers) {
        assert_eq!(resolve_driver(back), resolve_driver(driver));
        assert_eq!((&back.name, &back.maker, &back.notes), (&driver.name, &driver.maker, &driver.notes));
    }
}

proptest! {
    /// Drivers come back from a table with the same values, whatever stands in their names.
    #[test]
    fn any_drivers_survive_the_round_trip_through_a_table(
        rows in proptest::collection::vec(
            (any_text(), any_text(), 10.0f64..90.0, 0.2f64..1.5, 2.0f64..12.0, 2.0f64..12.0, 5.0f64..300.0, 80.0f64..1500.0),
            1..6,
        ),
    ) {
        let drivers: Vec<RawDriver> = rows
            .into_iter()
            .map(|(name, notes, fs, qes, qms, re, vas, sd)| RawDriver {
                name: name.trim().to_owned(),
                notes: notes.trim().to_owned(),
                fs: Some(Typed::Text(format!("{fs:.3} Hz"))),
                qes: Some(Typed::Number((qes * 1e4).round() / 1e4)),
                qms: Some(Typed::Number((qms * 1e4).round() / 1e4)),
                re: Some(Typed::Text(format!("{re:.3} ohm"))),
                vas: Some(Typed::Text(format!("{vas:.3} l"))),
                sd: Some(Typed::Text(format!("{sd:.2} cm2"))),
                ..RawDriver::default()
            })
            // Sense one by one, but no driver together: those are told elsewhere.
            .filter(|driver| resolve_driver(driver).is_ok())
            .collect();
        prop_assume!(!drivers.is_empty());
        let (back, report) = read_driver_table(write_driver_table(&drivers).as_bytes()).expect("own writing");
        prop_assert_eq!(report.problems, []);
        prop_assert_eq!(back.len(), drivers.len());
        for (back, driver) in back.iter().zip(&drivers) {
            prop_assert_eq!((&back.name, &back.notes), (&driver.name, &driver.notes));
            prop_assert_eq!(resolve_driver(back), resolve_driver(driver));
        }
    }
}

#[test]
fn the_coils_of_a_driver_survive_the_table_and_a_bad_word_does_not() {
    let table = "name,fs (Hz),re (ohm),qms,qes,vas (l),sd (cm2),coils\nTwo,30,3.6,4,0.4,20,131,dual_series\n";
    let (drivers, _) = read_driver_table(table.as_bytes()).expect("a table");
    let (again, _) = read_driver_table(write_driver_table(&drivers).as_bytes()).expect("a table");
    assert_eq!(again, drivers);
    assert!(drivers[0].coils.is_some());
    let (none, report) = read_driver_table(table.replace("dual_series", "twin").as_bytes()).expect("a table");
    assert!(none.is_empty());
    assert_eq!(report.problems[0].field, "coils");
    assert!(
        report.problems[0]
            .message
            .contains("\"twin\" is not one of single, dual_series, dual_parallel, dual_each")
    );
}

/// Invented sheets of every kind of woofer: size mm, nominal ohm, Re ohm, Fs Hz, Qms, Qes, Vas l, Sd cm2. The demo's 26 stand beside them.
const INVENTED: [[f64; 8]; 14] = [
    [100.0, 4.0, 3.4, 68.0, 3.2, 0.55, 3.1, 51.0],
    [110.0, 8.0, 6.1, 75.0, 2.6, 0.48, 3.6, 58.0],
    [140.0, 8.0, 5.6, 46.0, 3.0, 0.44, 13.5, 95.0],
    [165.0, 4.0, 3.1, 58.0, 6.0, 0.72, 11.0, 132.0],
    [180.0, 6.0, 4.6, 38.0, 3.6, 0.39, 31.0, 150.0],
    [210.0, 8.0, 5.9, 26.0, 2.2, 0.41, 95.0, 222.0],
    [250.0, 2.0, 1.6, 34.0, 7.5, 0.62, 22.0, 325.0],
    [260.0, 8.0, 5.2, 52.0, 4.8, 0.29, 58.0, 350.0],
    [300.0, 4.0, 3.0, 28.0, 9.0, 0.55, 62.0, 490.0],
    [310.0, 8.0, 6.6, 88.0, 9.5, 0.72, 41.0, 530.0],
    [380.0, 8.0, 5.1, 41.0, 7.0, 0.24, 176.0, 880.0],
    [380.0, 4.0, 3.3, 23.0, 11.0, 0.68, 140.0, 810.0],
    [460.0, 8.0, 5.0, 35.0, 5.6, 0.33, 260.0, 1220.0],
    [530.0, 8.0, 5.4, 27.0, 5.0, 0.31, 520.0, 1680.0],
];

/// A sheet by the names of its fields, in the units that these are usually read in.
type Typing = Vec<(&'static str, String)>;

fn forty() -> Vec<Typing> {
    let invented = INVENTED.map(|[size, nominal, re, fs, qms, qes, vas, sd]| {
        vec![
            ("size", format!("{size} mm")),
            ("nominal", format!("{nominal} ohm")),
            ("re", format!("{re} ohm")),
            ("fs", format!("{fs} Hz")),
            ("qms", qms.to_string()),
            ("qes", qes.to_string()),
            ("vas", format!("{vas} l")),
            ("sd", format!("{sd} cm2")),
        ]
    });
    let table = std::fs::read(format!("{DEMO}/drivers.csv")).expect("demo");
    let (demo, _) = read_driver_table(&table).expect("the demo's drivers");
    let names = ["size", "nominal", "re", "fs", "qms", "qes", "vas", "sd", "mms", "bl"];
    let typed = demo.iter().map(|driver| {
        let values = driver.values();
        let value = |name: &'static str| {
            let (_, typed) = values.iter().find(|(known, _)| *known == name)?;
            Some((name, typed.as_ref()?.to_string()))
        };
        names.into_iter().filter_map(value).collect::<Typing>()
    });
    invented.into_iter().chain(typed).collect()
}

fn judged(typing: &Typing) -> Result<DriverReport, Vec<Problem>> {
    let mut driver: RawDriver =
        serde_json::from_value(serde_json::json!({ "name": "Sheet" })).expect("a driver");
    for (name, value) in typing {
        *driver.value_mut(name).expect("a field") = Some(Typed::from(value.as_str()));
    }
    Ok(DriverReport::of(&resolve_driver(&driver)?))
}

fn number(typing: &Typing, name: &str) -> f64 {
    let (_, text) = typing.iter().find(|(known, _)| *known == name).expect("stated");
    text.split(' ').next().and_then(|text| text.parse().ok()).expect("a number")
}

#[test]
fn forty_plausible_sheets_are_not_blamed_and_forty_slips_are_found() {
    let sheets = forty();
    assert_eq!(sheets.len(), 40);
    for typing in &sheets {
        let report = judged(typing).expect("complete");
        assert!(report.hints.is_empty(), "{typing:?}: {:?}", report.hints);
    }
    // What was typed instead, of which field; without the values that would contradict it where a sheet often has none.
    type Slipping = (&'static str, &'static [&'static str], fn(&Typing) -> String);
    let slips: [Slipping; 8] = [
        ("vas", &["mms", "bl"], |typing| format!("{:.3} l", number(typing, "vas") / 28.317)),
        ("sd", &["mms", "bl"], |typing| format!("{:.0} cm2", 0.7854e-2 * number(typing, "size").powi(2))),
        ("fs", &["mms", "bl"], |typing| format!("{:.0} Hz", 10.0 * number(typing, "fs"))),
        ("re", &["mms", "bl"], |typing| format!("{:.2} ohm", number(typing, "re") / 2.0)),
        ("sd", &["mms", "bl"], |typing| format!("{:.1} cm2", number(typing, "size") / 10.0)),
        ("vas", &[], |typing| format!("{:.3} l", number(typing, "vas") / 28.317)),
        ("sd", &["mms", "bl"], |typing| format!("{:.1} cm2", number(typing, "sd") / 6.4516)),
        ("qes", &["mms", "bl"], |typing| format!("{:.1}", 10.0 * number(typing, "qes"))),
    ];
    let mut missed = Vec::new();
    for (index, typing) in sheets.iter().enumerate() {
        let right = judged(typing).expect("complete");
        let (name, hidden, wrong) = &slips[index % slips.len()];
        let mut slipped: Typing =
            typing.iter().filter(|(known, _)| !hidden.contains(known)).cloned().collect();
        let written = wrong(&slipped);
        slipped.iter_mut().find(|(known, _)| known == name).expect("stated").1 = written;
        let true_value = match *name {
            "vas" => right.vas,
            "sd" => right.sd,
            "fs" => right.fs,
            "re" => right.re,
            _ => right.qes,
        };
        let near = |value: f64| (value / true_value).ln().abs() < 0.2;
        let found = match &judged(&slipped) {
            Ok(report) => {
                report.hints.iter().any(|hint| hint.field == *name && hint.value.is_some_and(near))
                    || report.reconciling.iter().any(|one| one.field == *name && near(one.value))
            }
            // Together they are no driver at all: the value is named all the same.
            Err(problems) => problems.iter().any(|problem| match problem.kind {
                ProblemKind::Inconsistent { likeliest: Some((_, _, value)), .. } => {
                    problem.field == *name && near(value)
                }
                _ => false,
            }),
        };
        if !found {
            missed.push(format!("{slipped:?}: {:?}", judged(&slipped).map(|report| report.hints)));
        }
    }
    assert!(missed.len() <= 4, "{} of 40 missed: {missed:#?}", missed.len());
}

#[test]
fn a_sheet_that_states_each_coil_is_the_same_driver_as_with_both_wired() {
    let sheet = |re: &str, nominal: &str, bl: &str, le: &str, coils: &str| -> RawDriver {
        serde_json::from_value(serde_json::json!({
            "name": "Two coils", "re": re, "nominal": nominal, "bl": bl, "le": le, "coils": coils,
            "fs": "38 Hz", "qms": 5.0, "qes": 0.45, "sd": "220 cm2", "xmax": "8 mm",
        }))
        .expect("a sheet")
    };
    let each = resolve_driver(&sheet("3.6 ohm", "4 ohm", "7 T m", "0.8 mH", "dual_each")).expect("whole");
    let wired =
        resolve_driver(&sheet("1.8 ohm", "2 ohm", "7 T m", "0.8 mH", "dual_parallel")).expect("whole");
    assert_eq!(each.driver, wired.driver);
    // In series, as it is wired for an amplifier that wants more ohms.
    let series = RawDriverArray { coils: Some(RawCoils::Series), ..RawDriverArray::default() };
    let raw = sheet("3.6 ohm", "4 ohm", "7 T m", "0.8 mH", "dual_each");
    let found = resolve_driver_array(&raw, Some(&series)).expect("wired").driver;
    assert!((found.re - 7.2).abs() < 1e-12 && (found.bl - 14.0).abs() < 1e-12, "{found:?}");
    assert!((found.qes() - wired.driver.qes()).abs() < 1e-9, "the brake is the same");
}

#[test]
fn headers_as_sheets_and_shops_print_them_are_understood() {
    for (header, field, unit) in [
        ("Vas (l)", "vas", "l"),
        ("VAS [cu ft]", "vas", "cuft"),
        ("vas_l", "vas", "l"),
        ("Equivalent volume", "vas", "l"),
        ("Sd cm2", "sd", "cm2"),
        ("Cone area / cm²", "sd", "cm2"),
        ("Cms (mm/N)", "cms", "mm/N"),
        ("Cms um/N", "cms", "um/N"),
        ("BL (N/A)", "bl", "T m"),
        ("B x L", "bl", "T m"),
        ("Xmax_mm", "xmax", "mm"),
        ("DC resistance (ohm)", "re", "ohm"),
        ("Size (in)", "size", "in"),
        ("Model", "name", ""),
        ("Frequency response", "frequency_range", ""),
        ("Colour", "", ""),
    ] {
        let (_, report) = read_driver_table(format!("{header}\n1\n").as_bytes()).expect("a table");
        assert_eq!((report.columns[0].field, report.columns[0].unit), (field, unit), "{header}");
    }
    let (_, report) = read_driver_table(b"Vas (kg)\n1\n").expect("a table");
    assert!(report.problems.iter().any(|problem| problem.message.contains("Vas (kg)")), "{report:?}");
}

proptest! {
    #[test]
    fn no_cell_of_a_table_is_a_formula_and_all_come_back(
        sign in prop::sample::select(vec!["=", "+", "-", "@", "'", "''", "'=", "-1", "x"]),
        rest in "[a-z(1+'=@-]{0,8}",
    ) {
        let text = format!("{sign}{rest}");
        let driver = RawDriver { name: text.clone(), notes: text.clone(), maker: text.clone(), ..demo_builds()[0].variants[0].driver.clone() };
        let table = write_driver_table([&driver]);
        let mut reader = csv::Reader::from_reader(table.as_bytes());
        for cell in reader.records().flat_map(|row| row.expect("a row").iter().map(str::to_owned).collect::<Vec<_>>()) {
            let computes = cell.starts_with(['=', '+', '-', '@', '\t', '\r']) && cell.parse::<f64>().is_err();
            prop_assert!(!computes, "{cell:?}");
        }
        let (back, report) = read_driver_table(table.as_bytes()).expect("a table");
        prop_assert_eq!(report.problem_count, 0, "{:?}", report.problems);
        prop_assert_eq!((&back[0].name, &back[0].notes, &back[0].maker), (&text, &text, &text));
    }
}
