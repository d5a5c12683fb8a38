//! Traces as text, as many programs write them.

use std::fmt::Write;

use oak_design::exchange::{TraceReading, TraceUnit, read_trace_text};
use proptest::prelude::*;

fn read(text: &str) -> TraceReading {
    read_trace_text(text).unwrap_or_else(|problem| panic!("{text}: {problem}"))
}

#[test]
fn every_usual_form_is_the_same_trace() {
    let forms = [
        "20 81.5 -120\n40 90.25 -60\n80 91 0.5\n",
        "Freq(Hz)\tSPL(dB)\tPhase(deg)\n20\t81.5\t-120\n40\t90.25\t-60\n80\t91\t0.5",
        "* made by a program\n* 2026-11-29; 12 points\nHz;dB;Grad\n20;81,5;-120\n40;90,25;-60\n80;91;0,5\n",
        "\u{feff}\"Hz\",\"dB\",\"deg\"\r\n20,81.5,-120\r\n40,90.25,-60\r\n80,91,0.5\r\n",
        "# kHz dB deg\n0.020  81.5  -120\n0.040  90.25  -60\n0.080  91  0.5\n",
        "20\t81,5\t-120\t\n40\t90,25\t-60\t\n80\t91\t0,5\t\n",
        "80 91 0.5\n40 90.25 -60\n20 81.5 -120\n",
        "20 81.5 -120\n20 81.5 -120\n40 90.25 -60\nnan 1 1\n80 91 0.5\n0 3 3\n",
        "Hz dB rad\n20 81.5 -2.0943951023931953\n40 90.25 -1.0471975511965976\n80 91 0.008726646259971648\n",
        "Hz Pa(linear) deg\n20 11885.022274370185 -120\n40 32546.178349804585 -60\n80 35481.33892335755 0.5\n",
    ];
    for text in forms {
        let found = read(text);
        let levels = found.levels(100).expect("levels");
        for (row, expected) in
            levels.iter().zip([[20.0, 81.5, -120.0], [40.0, 90.25, -60.0], [80.0, 91.0, 0.5]])
        {
            for (found, expected) in row.iter().zip(expected) {
                assert!((found - expected).abs() < 1e-9, "{text}: {row:?}");
            }
        }
        assert_eq!(levels.len(), 3, "{text}");
    }
    assert!(read(forms[2]).form.contains("semicolons between, decimal comma"));
    assert_eq!(read(forms[7]).notes.len(), 3);
}

#[test]
fn a_trace_without_phase_and_one_of_impedance_are_told_apart() {
    let plain = read("20,80\n30,81\n");
    assert_eq!((plain.phase.clone(), plain.unit), (None, TraceUnit::Decibel));
    assert_eq!(plain.levels(10).expect("levels")[1].map(|value| value.to_string()), ["30", "81", "0"]);
    let impedance = read("Frequency [Hz] Impedance [Ohm] Phase [deg]\n20 8.1 30\n30 20.5 0\n");
    assert_eq!(impedance.unit, TraceUnit::Ohm);
    assert_eq!(impedance.levels(10), None);
    // Two columns with decimal commas and a space between.
    assert_eq!(read("20,5 80,1\n30,5 81,2\n").frequency, [20.5, 30.5]);
}

#[test]
fn what_is_no_trace_is_refused_and_much_of_one_thinned() {
    for text in [
        "",
        "hello\nworld\n",
        "20\n30\n",
        "nan nan\ninf 3\n",
        "20 80\n",
        "-3 80\n-2 80\n",
        "20 80\u{0}\n30 80\n",
    ] {
        assert!(read_trace_text(text).is_err(), "{text:?}");
    }
    let mut long = String::new();
    for k in 0..50_000 {
        writeln!(long, "{:.4} {}", 5.0 + f64::from(k) * 0.4, k % 7).expect("to memory");
    }
    let thinned = read(&long).levels(2000).expect("levels");
    assert!(thinned.len() <= 2000 && thinned.len() > 900, "{}", thinned.len());
    assert!(thinned.windows(2).all(|two| two[0][0] < two[1][0]));
    let endless = "1 2\n".repeat(200_001);
    assert!(read_trace_text(&endless).is_err());
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(64))]

    /// Nothing that is sent makes it fall over, and what it gives is in order and finite.
    #[test]
    fn any_text_gives_a_trace_in_order_or_a_reason(text in "([0-9.,; \t*#a-zA-Z\\-\n]{0,200})") {
        if let Ok(found) = read_trace_text(&text) {
            prop_assert!(found.frequency.windows(2).all(|two| two[0] < two[1]));
            prop_assert!(found.frequency.iter().chain(&found.magnitude).all(|value| value.is_finite()));
        }
    }
}
