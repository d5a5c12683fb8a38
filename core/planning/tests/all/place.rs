//! Where a build is listened to: rooms, cars and fields.

use approx::assert_relative_eq;
use oak_acoustics::Stop;
use oak_design::conditions::{RawBasis, RawConditions, RawQuestion};
use oak_design::file::{
    RawBattery, RawBrief, RawDesign, RawFilter, RawFilterKind, RawListening, RawListeningPlace, RawPreset,
    RawSeat, RawStand, RawWalls, Typed,
};
use oak_design::report::Report;
use oak_design::resolve::resolve_listening_place;
use oak_design::response::FrequencyGrid;
use oak_design::trace::{Quantity, Trace, TraceOrigin};
use oak_planning::Case;
use oak_planning::check::judge;
use oak_planning::place::{PlaceReport, RawPlaceSearch, level_map, place};

use crate::support::{demo_build, demo_builds};

fn at(text: &str) -> Option<Typed> {
    Some(text.into())
}

fn stand(across: &str, along: &str) -> RawStand {
    RawStand { across: at(across), along: at(along), ..RawStand::default() }
}

fn seat(across: &str, along: &str) -> RawSeat {
    RawSeat { across: at(across), along: at(along), up: at("1.1 m"), ..RawSeat::default() }
}

/// A room of 4 by 5 by 2.5 m with a cabinet at a wall and two seats.
fn room() -> RawListeningPlace {
    RawListeningPlace {
        name: "Lounge".to_owned(),
        width: at("4 m"),
        length: at("5 m"),
        height: at("2.5 m"),
        cabinets: vec![stand("1 m", "4.5 m")],
        seats: vec![seat("1.6 m", "1.5 m"), seat("2.6 m", "1.5 m")],
        ..RawListeningPlace::default()
    }
}

fn field(seats: Vec<RawSeat>) -> RawListeningPlace {
    RawListeningPlace { kind: RawListening::Outdoors, cabinets: vec![stand("0 m", "0 m")], seats, ..room() }
}

fn asked(design: &RawDesign, brief: Option<&RawBrief>, place: RawListeningPlace) -> RawQuestion {
    let conditions = RawConditions { place: Some(place), ..RawConditions::default() };
    RawQuestion { design: design.clone(), brief: brief.cloned(), conditions }
}

fn sealed() -> RawDesign {
    demo_build("Narrowboat nook").variants[1].clone()
}

fn report(question: &RawQuestion) -> PlaceReport {
    place(question).expect("a report")
}

fn line<'a>(traces: &'a [Trace], quantity: Quantity, label: Option<&str>) -> &'a Trace {
    traces.iter().find(|trace| trace.quantity == quantity && trace.label.as_deref() == label).expect("a line")
}

fn near(found: &Trace, expected: &Trace, shift: f64, within: f64) {
    for (k, frequency) in found.frequency.iter().enumerate() {
        let other =
            expected.frequency.iter().position(|at| (at - frequency).abs() < 1e-3).expect("the same grid");
        let [found, expected] =
            [found.values[k], expected.values[other]].map(|value| f64::from(value.expect("a value")));
        assert!((found - expected - shift).abs() < within, "{frequency} Hz: {found} and {expected}");
    }
}

#[test]
fn with_the_room_taken_away_the_curve_at_a_seat_is_the_free_one() {
    // Far away in the open it is the level at 1 m, less the distance.
    let far = field(vec![RawSeat { up: at("0 m"), ..seat("0 m", "100 m") }]);
    let found = report(&asked(&sealed(), None, far));
    near(
        line(&found.traces, Quantity::SeatLevel, None),
        line(&found.traces, Quantity::Level, None),
        -40.0,
        0.05,
    );
    assert_eq!(found.room, None);
    let rings = found.field.expect("in the open").distances;
    assert_relative_eq!(rings[0][1] - rings[3][1], 20.0, epsilon = 1e-9);
}

#[test]
fn the_seats_are_lines_of_their_own_and_the_free_response_stays() {
    let grid = FrequencyGrid::logarithmic(10.0, 500.0, 300).expect("a grid");
    let of = |question: &RawQuestion| {
        Report::of(&question.resolve().expect("whole").design, &grid).expect("computes")
    };
    let [with, without] = [of(&asked(&sealed(), None, room())), of(&RawQuestion::of(sealed()))];
    let rest: Vec<_> =
        with.traces.iter().filter(|trace| trace.quantity != Quantity::SeatLevel).cloned().collect();
    assert_eq!(rest, without.traces);
    assert_eq!(with.figures, without.figures);
    let seats: Vec<_> = with.lines(Quantity::SeatLevel, TraceOrigin::Simulated).collect();
    let labels: Vec<_> = seats.iter().map(|trace| trace.label.as_deref()).collect();
    assert_eq!(labels, [None, Some("Seat 1"), Some("Seat 2")]);
    // The first is the mean of their power.
    for k in 0..seats[0].values.len() {
        let power = |trace: &Trace| 10f64.powf(f64::from(trace.values[k].expect("a level")) / 10.0);
        assert_relative_eq!(power(seats[0]), (power(seats[1]) + power(seats[2])) / 2.0, max_relative = 1e-4);
    }
    // On the bench nobody listens.
    let mut bench = asked(&sealed(), None, room());
    bench.conditions.basis = RawBasis::Bench;
    assert_eq!(of(&bench).lines(Quantity::SeatLevel, TraceOrigin::Simulated).count(), 0);
}

#[test]
fn a_table_and_the_report_of_the_place_hold_the_same_levels() {
    let question = asked(&sealed(), None, room());
    let grid = FrequencyGrid::logarithmic(10.0, 200.0, 400).expect("a grid");
    let traces = Report::of(&question.resolve().expect("whole").design, &grid).expect("computes").traces;
    let place = report(&question);
    for label in [None, Some("Seat 1"), Some("Seat 2")] {
        near(
            line(&traces, Quantity::SeatLevel, label),
            line(&place.traces, Quantity::SeatLevel, label),
            0.0,
            1e-3,
        );
    }
    let computed =
        oak_design::report::compute(&question.resolve().expect("whole").design, &grid).expect("computes");
    let table = oak_design::exchange::write_response_table(&computed);
    let mut lines = table.lines().skip(1);
    let at = lines
        .next()
        .expect("a heading")
        .split(',')
        .position(|name| name == "seat_2_level_db")
        .expect("a column");
    let written: f64 =
        lines.nth(99).expect("a row").split(',').nth(at).expect("a cell").parse().expect("a number");
    let drawn = line(&traces, Quantity::SeatLevel, Some("Seat 2")).values[99].expect("a level");
    assert!((written - f64::from(drawn)).abs() < 1e-3);
}

#[test]
fn a_preset_plays_behind_the_filters_of_the_design_and_is_named() {
    let cut = RawFilter { kind: RawFilterKind::Gain, gain: at("-6 dB"), ..RawFilter::default() };
    let preset = RawPreset { name: "Night".to_owned(), filters: vec![cut] };
    let conditions = RawConditions { preset: Some(preset), ..RawConditions::default() };
    let build = demo_build("Narrowboat nook");
    let brief = build.brief.expect("a brief");
    let grid = FrequencyGrid::logarithmic(10.0, 500.0, 100).expect("a grid");
    for design in &build.variants {
        let question = |conditions: &RawConditions| RawQuestion {
            conditions: conditions.clone(),
            brief: Some(brief.clone()),
            ..RawQuestion::of(design.clone())
        };
        let of = |conditions: &RawConditions| {
            Report::of(&question(conditions).resolve().expect("whole").design, &grid).expect("computes")
        };
        let [plain, night] = [of(&RawConditions::default()), of(&conditions)];
        assert!(night.conditions.ends_with("preset Night"), "{}", night.conditions);
        let level = |report: &Report| line(&report.traces, Quantity::Level, None).clone();
        near(&level(&night), &level(&plain), -6.0, 1e-3);
        // What is clean at most is a matter of drivers and box; what may never be exceeded is not.
        let judged = |conditions: &RawConditions| {
            let loudest = RawBrief { loudest: at("99 dB"), ..brief.clone() };
            let brief = conditions.asked(&loudest).expect("a brief");
            let checks = judge(&Case::of(&brief, design).expect("whole"));
            ["loudness", "loudest"]
                .map(|id| checks.iter().find(|check| check.id == id).expect("asked").reached.clone())
        };
        let [[clean, loud], [clean_at_night, softer]] =
            [judged(&RawConditions::default()), judged(&conditions)];
        assert_eq!(clean, clean_at_night, "{}", design.name);
        assert_ne!(loud, softer);
    }
}

#[test]
fn the_brief_may_ask_at_the_seats() {
    let build = demo_build("Narrowboat nook");
    let brief = RawBrief { at_seats: true, ..build.brief.expect("a brief") };
    let design = &build.variants[1];
    let chip = |place: Option<RawListeningPlace>| {
        let conditions = RawConditions { place, ..RawConditions::default() };
        let brief = conditions.asked(&brief).expect("a brief");
        let case = Case::of(&brief, design).expect("whole");
        let found = judge(&case).into_iter().find(|check| check.id == "loudness").expect("asked");
        let reached: f64 = found.reached.trim_end_matches(" dB").parse().expect("a level");
        (reached, found.words + &found.why, case.drive())
    };
    let (open, said, drive) = chip(None);
    assert!(said.contains("No listening place is chosen"), "{said}");
    let (seated, said, in_room) = chip(Some(room()));
    assert!(said.contains("seats in Lounge"), "{said}");
    assert_ne!(in_room, drive);
    // What is clean at 1 m and what the room does to it, as the lanes have both, over a third of an octave.
    let grid = FrequencyGrid::logarithmic(30.0, 90.0, Case::POINTS).expect("a grid");
    let question = asked(design, Some(&brief), room());
    let lanes = Report::of(&question.resolve().expect("whole").design, &grid).expect("computes");
    let values = |quantity, origin| -> Vec<f64> {
        let line = lanes.lines(quantity, origin).next().expect("a line");
        line.values.iter().map(|value| f64::from(value.expect("a level"))).collect()
    };
    let [seats, free, clean] = [
        values(Quantity::SeatLevel, TraceOrigin::Simulated),
        values(Quantity::Level, TraceOrigin::Simulated),
        values(Quantity::Level, TraceOrigin::Limit),
    ];
    let step = 3f64.log2() / (Case::POINTS - 1) as f64;
    let reach = (1.0 / 6.0 / step + 1e-9).floor() as usize;
    let heard = (0..free.len()).map(|k| {
        let around = k.saturating_sub(reach)..(k + reach + 1).min(free.len());
        let count = around.len() as f64;
        clean[k]
            + 10.0 * (around.map(|k| 10f64.powf((seats[k] - free[k]) / 10.0)).sum::<f64>() / count).log10()
    });
    assert_relative_eq!(heard.fold(f64::MAX, f64::min), seated, epsilon = 0.06);
    assert!(open.is_finite());
    // Without reflections, 2 m before it, it is what the open gives.
    let before = RawSeat { up: at("0.2 m"), ..seat("0 m", "2.2 m") };
    let (flat, _, _) = chip(Some(field(vec![before])));
    let space = chip(Some(field(vec![RawSeat { up: at("0.2 m"), ..seat("0 m", "20.2 m") }]))).0;
    assert!((flat - space - 20.0).abs() < 0.6, "{flat} and {space}");
}

#[test]
fn a_search_is_more_even_than_before_and_its_places_say_so_once_they_are_taken() {
    let question = asked(&sealed(), None, room());
    let before = report(&question).spread.expect("a room");
    let search = RawPlaceSearch::of(&question, 1).expect("a search");
    let candidates = search.candidates().expect("places");
    let whole = candidates.best(0..candidates.len(), &Stop::default()).expect("not stopped");
    let half = candidates.len() / 2;
    let pieces = [0..half, half..candidates.len()]
        .map(|piece| candidates.best(piece, &Stop::default()).expect("not stopped"));
    let [first, second] = pieces;
    assert_eq!(first.with(second), whole);
    assert_relative_eq!(whole.now.expect("it stands"), before, max_relative = 1e-9);
    let best = &whole.found[0];
    assert!(best.spread < before);
    assert!(whole.found.windows(2).all(|two| two[0].spread <= two[1].spread));
    let [x, y, z] = best.at[0];
    let taken = RawListeningPlace {
        cabinets: vec![RawStand { up: at(&format!("{z} m")), ..stand(&format!("{x} m"), &format!("{y} m")) }],
        ..room()
    };
    let after = report(&asked(&sealed(), None, taken)).spread.expect("a room");
    assert_relative_eq!(after, best.spread, max_relative = 1e-6);
    // Without seats nobody can say.
    let empty = RawListeningPlace { seats: Vec::new(), ..room() };
    assert!(RawPlaceSearch::of(&asked(&sealed(), None, empty), 1).expect("a search").candidates().is_err());
}

#[test]
fn a_map_shows_at_a_seat_what_the_seat_hears() {
    // Sources and seat on the grid of the map: 48 points along 4.8 m.
    let place = RawListeningPlace {
        width: at("4.8 m"),
        length: at("4.8 m"),
        seats: vec![seat("1.65 m", "1.55 m")],
        ..room()
    };
    let question = asked(&sealed(), None, place);
    let traces = report(&question).traces;
    let seat = line(&traces, Quantity::SeatLevel, None);
    let frequency = f64::from(seat.frequency[200]);
    let map = level_map(&question, frequency).expect("a map");
    assert_eq!((map.levels.len(), map.levels[0].len()), (48, 48));
    assert!((map.levels[15][16] - seat.values[200].expect("a level")).abs() < 0.02);
}

#[test]
fn a_car_lifts_the_bottom_as_the_rule_of_thumb_says() {
    let car = RawListeningPlace {
        kind: RawListening::Car,
        width: at("1.4 m"),
        length: at("2.6 m"),
        height: at("1.15 m"),
        absorption: at("10 %"),
        leak: at("4 Hz"),
        cabinets: vec![stand("0.7 m", "0.3 m")],
        seats: vec![RawSeat { up: at("1 m"), ..seat("0.4 m", "1.7 m") }],
        ..RawListeningPlace { name: "Estate".to_owned(), ..RawListeningPlace::default() }
    };
    let lift = report(&asked(&sealed(), None, car)).room.expect("a cabin").lift.expect("a car");
    // The cabin's own crossing lies above c/2L, so the rule is low by 40 lg of the two: signal_place gives 3 dB between 2 fl and fc/2.
    let raised = 40.0 * (lift.crossing / lift.upper).log10();
    for [frequency, rule, pressure, seats] in lift.rows {
        if (2.0 * lift.leak..=lift.upper / 2.0).contains(&frequency) {
            assert!((rule + raised - seats).abs() < 3.0, "{frequency} Hz: {rule} + {raised} and {seats}");
            assert!((pressure - seats).abs() < 3.0, "{frequency} Hz: {pressure} and {seats}");
        }
    }
}

#[test]
fn energy_ears_and_neighbours_are_their_formulas() {
    let build = demo_build("Busker's upright");
    let mut place = build.places[0].clone();
    let brief = build.brief.clone().expect("a brief");
    let seated = RawBrief { at_seats: true, ..brief.clone() };
    let found = report(&asked(&build.variants[1], Some(&seated), place.clone()));
    let energy = found.energy.expect("a battery");
    // 600 Wh at 85 %; music of 10 dB crest has a mean power 6.99 dB under a sine at clipping.
    let mean = energy.rated * 10f64.powf(-(10.0 - 3.0103) / 10.0);
    assert_relative_eq!(energy.full[0], 8.0 + mean / 0.7, max_relative = 1e-3);
    assert_relative_eq!(energy.full[1], 510.0 / energy.full[0], max_relative = 1e-9);
    if let Some([backoff, drawn, hours]) = energy.asked {
        assert_relative_eq!(drawn, 8.0 + mean * 10f64.powf(-backoff / 10.0) / 0.7, max_relative = 1e-3);
        assert!(hours > energy.full[1]);
    }
    // NIOSH: 102 dB(A) may last 480 min / 2^(17/3).
    let ears = found.exposure;
    assert!(ears.asked);
    assert_relative_eq!(ears.whole, 480.0 * 60.0 / (17f64 / 3.0).exp2(), max_relative = 1e-9);
    assert_relative_eq!(ears.dose.expect("a time"), 100.0 * 4.0 * 3600.0 / ears.whole, max_relative = 1e-9);
    // The curve takes between 34.0 dB, at 41.2 Hz, and 4.8 dB, at 400 Hz (IEC 61672-1, table 3).
    // 2 m before it in the open, the brief's own distance, it is louder than at the seats, which are farther on average.
    let open = report(&asked(&build.variants[1], Some(&brief), place.clone())).exposure;
    assert!(open.asked && open.level < ears.level);
    assert!((4.8..34.0).contains(&(ears.level - ears.weighted)) && ears.bass > ears.whole);
    // The mass law at 63 Hz for 200 kg/m2: 20 lg(12,600) - 47 = 35.0 dB.
    place.wall_mass = at("200 kg/m2");
    let wall = report(&asked(&build.variants[1], Some(&seated), place.clone())).neighbours.expect("a wall");
    let band = wall.bands.iter().find(|band| (band.frequency - 63.0).abs() < 0.5).expect("an octave");
    assert_relative_eq!(band.reduction, 35.0, epsilon = 0.02);
    assert_relative_eq!(band.beyond, band.inside - band.reduction);
    assert!(wall.words.contains("rough"));
    // A battery of no size is refused with its place.
    place.battery = Some(RawBattery { efficiency: at("70 %"), ..RawBattery::default() });
    let problems = resolve_listening_place(&place).expect_err("no capacity");
    assert_eq!(problems[0].field, "battery.capacity");
}

#[test]
fn every_demo_build_has_a_place_that_its_cabinets_fit_and_seats_with_figures() {
    for build in demo_builds() {
        let place = build.places.first().expect("a place");
        for design in &build.variants {
            let found = report(&asked(design, build.brief.as_ref(), place.clone()));
            let name = format!("{}, {}", build.name, design.name);
            assert!(
                found.cabinets.iter().all(|cabinet| cabinet.outside.is_none()),
                "{name}: {:?}",
                found.cabinets
            );
            assert!(found.seats.iter().all(|seat| seat.level.is_some() && !seat.near), "{name}");
            assert_eq!(found.traces.len(), place.seats.len() + 2, "{name}");
            let outdoors = place.kind == RawListening::Outdoors;
            assert_eq!((found.energy.is_some(), found.room.is_none()), (outdoors, outdoors), "{name}");
            assert_eq!(found.field.is_some(), outdoors, "{name}");
        }
    }
}

#[test]
fn what_is_wrong_with_a_place_is_said_with_its_field_and_range() {
    let wrong = |change: fn(&mut RawListeningPlace), field: &str, words: &str| {
        let mut raw = room();
        change(&mut raw);
        let problems = resolve_listening_place(&raw).expect_err(field);
        let found =
            problems.iter().find(|problem| problem.field == field).unwrap_or_else(|| panic!("{problems:?}"));
        assert!(found.to_string().contains(words), "{found}");
    };
    wrong(|place| place.seats[1].across = at("4.2 m"), "seats[1].across", "0 m to 4 m");
    wrong(|place| place.seats[0].up = at("2.6 m"), "seats[0].up", "2.5 m");
    wrong(|place| place.cabinets[0].along = None, "cabinets[0].along", "missing");
    wrong(|place| place.height = None, "height", "missing");
    wrong(|place| place.absorption = at("60 %"), "absorption", "30 %");
    wrong(
        |place| place.walls = Some(RawWalls { floor: at("0 %"), ..RawWalls::default() }),
        "walls.floor",
        "1 %",
    );
    wrong(|place| place.name = "  ".to_owned(), "name", "1");
    wrong(|place| place.seats = vec![seat("1 m", "1 m"); 13], "seats", "12");
    // In a question it is said where it stands there.
    let question = asked(&sealed(), None, RawListeningPlace { width: None, ..room() });
    assert_eq!(question.resolve().expect_err("no width")[0].field, "conditions.place.width");
    let nowhere = RawQuestion::of(sealed());
    assert_eq!(place(&nowhere).expect_err("no place")[0].field, "conditions");
}

#[test]
fn each_cabinet_that_stands_is_heard_whatever_the_brief_counts() {
    let brief = |cabinets: f64| RawBrief { cabinets: Some(Typed::Number(cabinets)), ..RawBrief::default() };
    let far = |count: usize| RawListeningPlace {
        cabinets: vec![stand("0 m", "0 m"); count],
        ..field(vec![RawSeat { up: at("0 m"), ..seat("0 m", "100 m") }])
    };
    let heard = |cabinets: f64, stands: usize| {
        let found = report(&asked(&sealed(), Some(&brief(cabinets)), far(stands)));
        let level = line(&found.traces, Quantity::SeatLevel, None).values[200].expect("a level");
        (f64::from(level), found.note)
    };
    // Two that stand are 6 dB louder than one; that the brief counts two changes only how they load each other.
    assert!((heard(1.0, 2).0 - heard(1.0, 1).0 - 6.0206).abs() < 1e-3);
    let (paired, note) = heard(2.0, 1);
    assert!((paired - heard(1.0, 1).0).abs() < 0.3);
    assert!(note.expect("said").contains("counts 2 cabinets"));
    assert_eq!(heard(2.0, 2).1, None);
}

#[test]
fn a_pair_that_is_steered_as_proposed_plays_to_the_front_alone() {
    let seats = vec![seat("0 m", "80 m"), seat("0 m", "-80 m")];
    let alone = report(&asked(&sealed(), None, field(seats.clone())));
    let steered = alone.field.expect("in the open").steered;
    let second = RawStand {
        delay: at(&format!("{} s", steered.delay)),
        inverted: true,
        ..stand(&format!("{} m", steered.at[0]), &format!("{} m", steered.at[1]))
    };
    let pair = RawListeningPlace { cabinets: vec![stand("0 m", "0 m"), second], ..field(seats) };
    let both = report(&asked(&sealed(), None, pair));
    let at = |found: &PlaceReport, label: &str| {
        let line = line(&found.traces, Quantity::SeatLevel, Some(label));
        let k = line.frequency.partition_point(|frequency| f64::from(*frequency) < steered.frequency);
        f64::from(line.values[k].expect("a level"))
    };
    assert!(
        at(&both, "Seat 1") > at(&both, "Seat 2") + 20.0,
        "{} {}",
        at(&both, "Seat 1"),
        at(&both, "Seat 2")
    );
}
