//! Biquads against their prototypes and against scipy.

use approx::assert_relative_eq;
use oak_acoustics::Complex;
use oak_acoustics::source::Chain;
use oak_signal::biquad::{BiquadError, Biquads, NumberFormat, SAMPLE_RATES};
use oak_signal::filter::{Alignment, Filter, Pass, Slope, Width};

fn usual() -> Chain {
    let pass = |pass, alignment, order, frequency| Filter::Pass { pass, alignment, order, frequency };
    let filters = [
        pass(Pass::High, Alignment::Butterworth, 4, 18.0),
        pass(Pass::Low, Alignment::LinkwitzRiley, 4, 80.0),
        pass(Pass::Low, Alignment::Bessel, 3, 300.0),
        Filter::Parametric { frequency: 41.0, gain: -5.0, width: Width::Q(2.0) },
        Filter::Shelf { side: Pass::Low, frequency: 30.0, gain: 4.0, slope: Slope::S(0.8) },
        Filter::Shelf { side: Pass::High, frequency: 120.0, gain: -3.0, slope: Slope::First },
        Filter::LinkwitzTransform { own: [48.0, 0.9], wanted: [24.0, 0.6] },
        Filter::AllPass { frequency: 60.0, q: Some(0.7) },
        Filter::Gain(-2.0),
        Filter::Invert,
    ];
    filters.iter().map(|filter| filter.chain().expect("a filter")).fold(Chain::default(), Chain::then)
}

#[test]
fn biquads_follow_their_prototypes() {
    for (rate, decibels, degrees) in [(48_000.0, 0.02, 0.1), (96_000.0, 0.005, 0.03)] {
        let [level, phase] = Biquads::of(&usual(), rate).expect("biquads").deviation(&usual());
        assert!(
            level < decibels && phase.to_degrees() < degrees,
            "{rate}: {level} dB, {} deg",
            phase.to_degrees()
        );
    }
    for rate in SAMPLE_RATES {
        assert_eq!(Biquads::of(&usual(), rate).expect("biquads").sections.len(), usual().sections.len());
    }
}

#[test]
fn coefficients_answer_as_scipy_says() {
    let file = concat!(env!("CARGO_MANIFEST_DIR"), "/../../reference/filters/biquads.csv");
    let mut reader = csv::Reader::from_path(file).expect("reference");
    let biquads = Biquads::of(&usual(), 48_000.0).expect("biquads");
    let mut rows = 0;
    for row in reader.deserialize::<(f64, f64, f64)>() {
        let (frequency, re, im) = row.expect("a row");
        let (found, wanted) = (biquads.transfer(frequency), Complex::new(re, im));
        // Near zero frequency scipy's own evaluation loses digits.
        assert!((found - wanted).norm() <= 1e-6 * wanted.norm(), "{frequency} Hz: {found} not {wanted}");
        rows += 1;
    }
    assert_eq!(rows, 21);
}

#[test]
fn coarse_numbers_cost_what_they_cost() {
    let low = Filter::Pass { pass: Pass::High, alignment: Alignment::Butterworth, order: 2, frequency: 15.0 };
    let chain = low.chain().expect("a filter");
    let exact = Biquads::of(&chain, 96_000.0).expect("biquads");
    let off = |format| exact.kept_as(format).deviation(&chain)[0];
    assert!(exact.deviation(&chain)[0] < 1e-3);
    assert!(off(NumberFormat::Decimals(12)) < 0.05, "{}", off(NumberFormat::Decimals(12)));
    assert!(off(NumberFormat::Single) > 0.05, "{}", off(NumberFormat::Single));
    assert!(off(NumberFormat::Decimals(6)) > 0.2, "{}", off(NumberFormat::Decimals(6)));
}

#[test]
fn what_cannot_be_sampled_is_refused_and_a_delay_stands_apart() {
    let high = Filter::AllPass { frequency: 25_000.0, q: None }.chain().expect("a filter");
    let refused = Biquads::of(&high, 48_000.0).expect_err("refused");
    assert_eq!(refused, BiquadError::AboveNyquist { frequency: 25_000.0, nyquist: 24_000.0 });
    let later = Filter::Delay(0.005).chain().expect("a filter");
    let biquads = Biquads::of(&later, 44_100.0).expect("biquads");
    assert!(biquads.sections.is_empty());
    assert_relative_eq!(biquads.delay_samples, 220.5, max_relative = 1e-12);
}
