//! Data sheets typed or pasted as text. The sheets are invented; their notations are those of sheets and shops (common practice).

use oak_design::exchange::{SheetReading, read_data_sheet};
use oak_design::field::driver_fields;
use oak_design::file::{RawSheetCoils, Typed};
use proptest::prelude::*;

/// What is expected of a sheet: SI by field.
type Expected = &'static [(&'static str, f64)];

/// The values of one driver, in the notation of most sheets.
const HERON: Expected = &[
    ("fs", 28.0),
    ("re", 3.6),
    ("qms", 5.4),
    ("qes", 0.38),
    ("qts", 0.355),
    ("vas", 0.0633),
    ("sd", 0.0346),
    ("xmax", 0.0115),
];

/// Twenty sheets in twenty notations.
const SHEETS: [(&str, Expected); 20] = [
    // One value a line, with a unit.
    (
        "Heron 250/4\nFs 28 Hz\nRe 3.6 ohm\nQms 5.4\nQes 0.38\nQts 0.355\nVas 63.3 l\nSd 346 cm2\nXmax 11.5 mm",
        HERON,
    ),
    // Colons, decimal commas, no space before the unit.
    (
        "Fs: 28Hz\nRe: 3,6 Ohm\nQms: 5,4\nQes: 0,38\nQts: 0,355\nVas: 63,3 Ltr\nSd: 346 cm²\nXmax: 11,5mm",
        HERON,
    ),
    // A table with columns by tabulators: name, symbol, value, unit.
    (
        "Resonance frequency\tFs\t28\tHz\nDC resistance\tRe\t3.6\tΩ\nMechanical Q\tQms\t5.4\t\nElectrical Q\tQes\t0.38\t\nTotal Q\tQts\t0.355\t\nEquivalent volume\tVas\t63.3\tlitres\nPiston area\tSd\t346\tcm²\nLinear excursion\tXmax\t11.5\tmm",
        HERON,
    ),
    // Dots that lead to the value.
    (
        "Fs ........ 28 Hz\nRe ........ 3.6 ohms\nQms ....... 5.40\nQes ....... 0.380\nQts ....... 0.355\nVas ....... 63.3 liters\nSd ........ 346 sq cm\nXmax ...... 11.5 mm",
        HERON,
    ),
    // Inches and feet, the unit in brackets before the value.
    (
        "Vas (cu.ft) 2.2354\nSd (sq in) 53.63\nXmax (in) 0.4528\nFs (Hz) 28\nRe (ohms) 3.6\nQms 5.4 Qes .38 Qts .355",
        &[("vas", 0.0633), ("sd", 0.0346), ("xmax", 0.0115), ("fs", 28.0), ("re", 3.6), ("qms", 5.4)],
    ),
    // Everything in one line.
    (
        "Heron: Fs 28 Hz, Re 3.6 ohm, Qms 5.4, Qes 0.38, Qts 0.355, Vas 63.3 l, Sd 346 cm2, Xmax 11.5 mm",
        HERON,
    ),
    // Pipes, as in pages of hobbyists.
    (
        "| Parameter | Value |\n|---|---|\n| Fs | 28 Hz |\n| Re | 3.6 Ohm |\n| Qms | 5.4 |\n| Qes | 0.38 |\n| Qts | 0.355 |\n| Vas | 63.3 L |\n| Sd | 346 cm^2 |\n| Xmax | 11.5 mm |",
        HERON,
    ),
    // Equals signs, SI units.
    (
        "fs = 28 Hz; Re = 3.6 Ω; Qms = 5.4; Qes = 0.38; Qts = 0.355; Vas = 0.0633 m³; Sd = 0.0346 m²; Xmax = 0.0115 m",
        HERON,
    ),
    // Each cell a line of its own, as a table comes out of a page.
    (
        "Fs\n28 Hz\nRe\n3.6 Ohm\nQms\n5.4\nQes\n0.38\nQts\n0.355\nVas\n63.3 l\nSd\n346 cm²\nXmax\n11.5 mm",
        HERON,
    ),
    // Names and values in two lines.
    ("Fs;Re;Qms;Qes;Qts\n28;3.6;5.4;0.38;0.355\nVas 63.3 l\nSd 346 cm2\nXmax 11.5 mm", HERON),
    // Typographic dashes and spaces.
    (
        "Fs – 28\u{a0}Hz\nRe – 3.6\u{a0}Ω\nQms – 5.4\nQes – 0.38\nQts – 0.355\nVas – 63.3\u{202f}l\nSd – 346\u{202f}cm²\nXmax – ±11.5\u{a0}mm",
        HERON,
    ),
    // Subscripts, the conditions beside the label.
    (
        "Fₛ 28 Hz\nRₑ (20 °C) 3.6 Ω\nQₘₛ 5.4\nQₑₛ 0.38\nQₜₛ 0.355\nVₐₛ 63.3 l\nS𝖽 n/a\nSd 346 cm²\nXₘₐₓ 11.5 mm\nLe @ 1 kHz 1.15 mH\nSensitivity (2.83 V / 1 m) 89.4 dB",
        &[("fs", 28.0), ("re", 3.6), ("qms", 5.4), ("vas", 0.0633), ("le", 1.15e-3), ("level_2v83", 89.4)],
    ),
    // From peak to peak; power in two kinds, other masses and diameters beside.
    (
        "Fs 28 Hz Re 3.6 Ohm Qts 0.355 Vas 63.3 l\nXmax (peak-to-peak) 23 mm\nXmech 40 mm\nPower handling 300 W RMS, max power 600 W\nVoice coil diameter 50 mm\nNet weight 5.2 kg\nMms 118 g\nMmd 110 g\nBL 12.6 T·m",
        &[("xmax", 0.0115), ("pe", 300.0), ("mms", 0.118), ("bl", 12.6), ("fs", 28.0), ("re", 3.6)],
    ),
    // Two coils, each stated.
    (
        "Otter\nImpedance 2 x 4 Ohm\nRe 2 x 3.6 Ohm\nFs 38 Hz\nQms 4.1\nQes 0.52\nQts 0.46\nVas 8.9 l\nSd 133 cm²",
        &[
            ("nominal", 4.0),
            ("re", 3.6),
            ("fs", 38.0),
            ("qms", 4.1),
            ("qes", 0.52),
            ("qts", 0.46),
            ("vas", 8.9e-3),
            ("sd", 0.0133),
        ],
    ),
    // Two coils in series.
    (
        "Dual voice coil, coils in series\nZ: dual 4 ohm\nRe: 7,2 ohm\nFs: 38 Hz\nQts: 0,46\nQms: 4,1\nVas: 8,9 l",
        &[("nominal", 8.0), ("re", 7.2), ("fs", 38.0), ("qts", 0.46), ("qms", 4.1), ("vas", 8.9e-3)],
    ),
    // Values that share their labels' line.
    (
        "Qms / Qes / Qts: 5.4 / 0.38 / 0.355\nFs / Re: 28 Hz / 3.6 ohm\nVas: 63.3 dm³",
        &[("qms", 5.4), ("qes", 0.38), ("qts", 0.355), ("fs", 28.0), ("re", 3.6), ("vas", 0.0633)],
    ),
    // Powers of ten, micrometres, newtons per ampere.
    (
        "Cms 2.74 × 10⁻⁴ m/N\nMms 0.118 kg\nBl 12.6 N/A\nSd 3.46e-2 m2\nRe 3.6 ohm\nLe 1150 µH\nQms 5.4",
        &[("cms", 2.74e-4), ("mms", 0.118), ("bl", 12.6), ("sd", 0.0346), ("re", 3.6), ("le", 1.15e-3)],
    ),
    // Words in full; fractions of an inch; thousands.
    (
        "Resonance frequency: 28 Hz\nDC resistance: 3.6 ohms\nMechanical Q factor: 5.4\nElectrical Q factor: 0.38\nTotal Q factor: 0.355\nEquivalent air volume: 2.24 cubic feet\nMounting depth: 5 5/16 in\nRMS power: 1,200 watts",
        &[
            ("fs", 28.0),
            ("re", 3.6),
            ("qms", 5.4),
            ("qts", 0.355),
            ("vas", 0.06343),
            ("depth", 0.13494),
            ("pe", 1200.0),
        ],
    ),
    // No units at all.
    ("Fs 28\nRe 3.6\nQms 5.4\nQes 0.38\nQts 0.355\nVas 63.3\nSd 346\nXmax 11.5", HERON),
    // Stated twice: first in one unit, then in the other.
    (
        "Vas 63.3 liters (2.235 ft³)\nSd 346 cm² (53.6 in²)\nMms 118 grams (4.16 oz)\nXmax 11.5 mm (0.45\")\nFs 28 Hz Qts 0.355 Re 3.6 ohm\nFrequency range 25 - 500 Hz",
        &[("vas", 0.0633), ("sd", 0.0346), ("mms", 0.118), ("xmax", 0.0115), ("fs", 28.0), ("re", 3.6)],
    ),
];

/// Texts that are no data sheets, with words and numbers that sheets have.
const OTHERS: [&str; 10] = [
    "",
    "Re: our call at 5 pm. Power is back, please bring 2 m of cable and the size 8 drill.",
    "Mix 250 g of flour and 2 l of milk, depth of the tin 5 cm, power 800 W for 12 minutes.",
    "Camera: f/2.8, 1/60 s, sensitivity 400, weight 620 g, size 12 cm, price 450",
    "Washing machine. Power 2200 W, depth 60 cm, weight 70 kg, level 52 dB, frequency 50 Hz, impedance n/a",
    "Plates 18 mm, cut-out 233 mm, 8 bolts on a circle of 245 mm, depth 140 mm, magnet diameter 120 mm",
    "The low E is 41.2 Hz, the low B 30.9 Hz; a box of 60 l tuned to 28 Hz with a 100 mm port.",
    "Resistor 3.6 ohm 10 W, inductance 1.15 mH, capacitor 100 uF",
    "Fs, Qts and Vas are the three that count. Where do I find them?",
    "name,price,weight\nscrews,4.20,0.5 kg\nglue,6.00,1 kg",
];

fn si(reading: &SheetReading, field: &str) -> Option<f64> {
    let value = reading.driver.values().into_iter().find(|(name, _)| *name == field)?.1;
    driver_fields().find(|known| known.name() == field)?.read(value.as_ref())
}

#[test]
fn twenty_notations_are_read() {
    let mut whole = 0;
    for (at, (text, expected)) in SHEETS.iter().enumerate() {
        let reading = read_data_sheet(text);
        let mut right = true;
        for (field, wanted) in *expected {
            let found = si(&reading, field);
            let same = found.is_some_and(|found| (found / wanted - 1.0).abs() < 0.005);
            // A wrong value is worse than none.
            assert!(same || found.is_none(), "sheet {}: {field} {found:?}, not {wanted}\n{text}", at + 1);
            right &= same;
        }
        // What else was taken stands there too.
        for value in &reading.found {
            let listed = expected.iter().chain(HERON).find(|(field, _)| *field == value.field);
            let same = listed.zip(si(&reading, value.field));
            assert!(
                same.is_some_and(|((_, wanted), found)| (found / wanted - 1.0).abs() < 0.005),
                "sheet {}: {value:?}\n{text}",
                at + 1
            );
        }
        if !right {
            eprintln!("sheet {} is not read whole: {reading:#?}", at + 1);
        }
        whole += usize::from(right);
    }
    assert!(whole >= 19, "{whole} of 20");
}

#[test]
fn what_is_no_data_sheet_gives_nothing() {
    for text in OTHERS {
        let reading = read_data_sheet(text);
        assert!(reading.found.is_empty(), "{text}: {:?}", reading.found);
        assert_eq!(reading.driver, oak_design::file::RawDriver::default());
    }
}

#[test]
fn each_value_says_where_it_stands_and_what_was_made_of_it() {
    let text = "Größe 10\"\nFs 28 Hz\nVas 63.3\nQts 0.355\nXmax (p-p) 23 mm\nRe 3.6 ohm\nRe 7.2 ohm\nSd 0.2 m2\nSd 9000 m2";
    let reading = read_data_sheet(text);
    let units: Vec<u16> = text.encode_utf16().collect();
    let stands = |field: &str| {
        let value = reading.found.iter().find(|value| value.field == field).expect(field);
        (String::from_utf16(&units[value.at[0]..value.at[1]]).expect("text"), value.note.clone())
    };
    assert_eq!(stands("fs"), ("28 Hz".to_owned(), String::new()));
    assert_eq!(stands("vas").1, "no unit is given: read as l");
    assert_eq!(stands("xmax").1, "half of what is given from peak to peak");
    let left = reading.left.join("\n");
    assert!(left.contains("Re is given again as 7.2 ohm: the first is taken"), "{left}");
    assert!(left.contains("Sd 9000 m2"), "{left}");
    assert_eq!(reading.driver.xmax, Some(Typed::from("11.5 mm")));
}

#[test]
fn two_coils_are_told_by_what_is_said_or_by_the_ratio() {
    let rest = "Fs 38 Hz\nQts 0.46\nQms 4.1\nVas 8.9 l";
    for (text, coils) in [
        ("Impedance 2 x 4 ohm\nRe 3.6 ohm", RawSheetCoils::DualEach),
        ("Impedance 2 x 4 ohm\nRe 7.2 ohm", RawSheetCoils::DualSeries),
        ("Impedance 2 x 4 ohm\nRe 1.8 ohm", RawSheetCoils::DualParallel),
        ("Re 3.6 + 3.6 ohm", RawSheetCoils::DualEach),
        ("DVC, coils in parallel\nRe 1.8 ohm", RawSheetCoils::DualParallel),
    ] {
        let reading = read_data_sheet(&format!("{text}\n{rest}"));
        assert_eq!(reading.driver.coils, Some(coils), "{text}: {reading:#?}");
    }
    assert_eq!(read_data_sheet(&format!("Re 3.6 ohm\n{rest}")).driver.coils, None);
}

proptest! {
    /// Whatever stands between the values, what is said to be found stands where it is said to, and is read by its field.
    #[test]
    fn what_is_found_stands_in_the_text(noise in "[a-zé Ω²µ:=|,.\t0-9()/-]{0,80}", fs in 15u32..90, more in "[A-Za-zß½ \n0-9,.;]{0,60}") {
        let text = format!("{noise}\nFs {fs} Hz\nRe 3.6 ohm\nQts 0.4\nVas 60 l\n{more}");
        let reading = read_data_sheet(&text);
        let units: Vec<u16> = text.encode_utf16().collect();
        for value in &reading.found {
            let [from, to] = value.at;
            prop_assert!(from < to && to <= units.len(), "{value:?}");
            let found = String::from_utf16(&units[from..to]).expect("whole characters");
            prop_assert!(found.chars().any(|c| c.is_ascii_digit()), "{found}");
        }
        prop_assert!(reading.found.iter().any(|value| value.field == "fs"), "{reading:?}");
    }
}
