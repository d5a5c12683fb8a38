//! Sweeps against scipy and their own identities.

use oak_design::file::RawTraceKind;
use oak_metering::Complex;
use oak_metering::reading::{Take, read_recording};
use oak_metering::sweep::{Depth, Recording, Sweep, Window, deconvolve, read_wav, write_wav};
use oak_rig::{Act, Played, Scenario, Wired};
use rand::{Rng, SeedableRng};
use rand_chacha::ChaCha8Rng;

fn sweep() -> Sweep {
    Sweep::new(48_000, 2.0, 20.0, 2000.0).expect("a sweep")
}

fn table(text: &str) -> Vec<Vec<f64>> {
    let rows =
        text.lines().skip(1).map(|row| row.split(',').map(|cell| cell.parse().expect("a number")).collect());
    rows.collect()
}

/// Through the sections of a filter (direct form), late by so many samples.
fn through(sections: &[Vec<f64>], samples: &[f64], late: usize) -> Vec<f64> {
    let mut all = vec![0.0; late];
    all.extend_from_slice(samples);
    all.resize(late + samples.len() + 24_000, 0.0);
    for section in sections {
        let [b0, b1, b2, _, a1, a2] = section[..] else { panic!("six values") };
        let [mut x, mut y] = [[0.0; 2]; 2];
        for sample in &mut all {
            let next = b0 * *sample + b1 * x[0] + b2 * x[1] - a1 * y[0] - a2 * y[1];
            x = [*sample, x[0]];
            y = [next, y[0]];
            *sample = next;
        }
    }
    all
}

#[test]
fn a_system_is_found_as_scipy_finds_it() {
    let filter = table(include_str!("../../../../reference/sweep/filter.csv"));
    let recorded = through(&filter, &sweep().samples(), 480);
    let [impulse] = deconvolve([recorded.as_slice()], &sweep());
    let wanted = table(include_str!("../../../../reference/sweep/system.csv"));
    let frequencies: Vec<f64> = wanted.iter().map(|row| row[0]).collect();
    let found = impulse.response(0.01, Window { before: 0.25, after: 0.6 }, &frequencies);
    for (found, row) in found.iter().zip(&wanted) {
        let (size, off) = (row[1].hypot(row[2]), (found.re - row[1]).hypot(found.im - row[2]));
        assert!(off < 0.01 * size.max(0.1), "{} Hz: {found}, by scipy {} {}", row[0], row[1], row[2]);
    }
    assert!((impulse.arrives() - 0.01).abs() < 0.003, "{}", impulse.arrives());
}

#[test]
fn what_is_bent_shows_as_a_harmonic_of_its_own() {
    // A square of amplitude a on a sine gives half of a in the second harmonic (cos 2x = 1 - 2 sin^2 x), a cube a quarter in the third.
    for (order, wanted) in [(2, 0.5 * 0.02), (3, 0.25 * 0.02)] {
        let samples = sweep().samples();
        let bent: Vec<f64> = samples.iter().map(|sample| sample + 0.02 * sample.powi(order as i32)).collect();
        let [impulse] = deconvolve([bent.as_slice()], &sweep());
        for found in impulse.harmonic(order, &[60.0, 100.0, 200.0, 300.0]) {
            assert!(
                (found.norm() / wanted - 1.0).abs() < 0.08,
                "{order}: {} and {wanted} wanted",
                found.norm()
            );
        }
        let other = if order == 2 { 3 } else { 2 };
        for found in impulse.harmonic(other, &[100.0, 200.0]) {
            assert!(found.norm() < 0.1 * wanted, "{other}: {}", found.norm());
        }
    }
}

#[test]
fn a_sweep_grows_by_the_same_factor_in_the_same_time() {
    let samples = sweep().samples();
    // Crossings of zero in a tenth of a second about the middle: at 1 s it passes sqrt(20 x 2000) = 200 Hz.
    let middle = &samples[45_600..50_400];
    let crossings = middle.windows(2).filter(|pair| pair[0] < 0.0 && pair[1] >= 0.0).count();
    assert!((19..=21).contains(&crossings), "{crossings}");
    assert!((sweep().ahead(2) - 2.0 * 2f64.ln() / 100f64.ln()).abs() < 1e-12);
    assert!(samples.iter().all(|sample| sample.abs() <= 1.0) && samples[0].abs() < 1e-9);
}

#[test]
fn recordings_come_back_as_they_were_written() {
    let mut random = ChaCha8Rng::seed_from_u64(3);
    let samples: Vec<f64> = (0..4800).map(|_| random.random_range(-0.9..0.9)).collect();
    for (depth, most) in
        [(Depth::Bits16, 5e-5), (Depth::Bits24, 2e-7), (Depth::Bits32, 1e-8), (Depth::Float, 1e-7)]
    {
        for rate in [44_100, 48_000, 96_000, 192_000] {
            let back = read_wav("a.wav", &write_wav(rate, &samples, depth)).expect("a recording");
            assert_eq!((back.rate, back.channels.len(), back.clipped), (rate, 1, 0));
            let off = back.channels[0].iter().zip(&samples).map(|(a, b)| (a - b).abs()).fold(0.0, f64::max);
            assert!(off < most && back.channels[0].len() == samples.len(), "{depth:?}: {off}");
        }
    }
    let loud = read_wav("a.wav", &write_wav(48_000, &[0.1, 1.0, -1.0], Depth::Bits16)).expect("a recording");
    assert_eq!(loud.clipped, 2);
}

#[test]
fn damaged_recordings_and_impossible_sweeps_are_refused() {
    let whole = write_wav(48_000, &[0.5; 1000], Depth::Bits24);
    for broken in [&whole[..20], &whole[..whole.len() - 100], b"", b"RIFFxxxxWAVE", b"ID3 and so on"] {
        let error = read_wav("take.wav", broken).expect_err("damaged").to_string();
        assert!(error.contains("take.wav"), "{error}");
    }
    let slow =
        read_wav("a.wav", &write_wav(8000, &[0.5; 10], Depth::Bits16)).expect_err("a rate").to_string();
    assert!(slow.contains("8000 samples"), "{slow}");
    let nothing = read_wav("a.wav", &write_wav(48_000, &[], Depth::Bits16)).expect_err("nothing").to_string();
    assert!(nothing.contains("no sound"), "{nothing}");
    let no_number = read_wav("a.wav", &write_wav(48_000, &[f64::NAN, 0.1], Depth::Float));
    assert!(no_number.expect_err("NaN").to_string().contains("no number"));
    let problems = Sweep::new(47_000, 0.1, 0.0, 90_000.0).expect_err("impossible");
    assert_eq!(problems.len(), 4, "{problems:?}");
}

/// The demo's cabinet, tight or as it comes, heard by a microphone.
#[test]
fn a_recording_of_a_cabinet_reads_as_the_cabinet_is() {
    let scenario = include_str!("../../../../demo/rig/pit-organ.json");
    let mut bench = Scenario::read(scenario).expect("a scenario").bench();
    for tight in [false, true] {
        if tight {
            bench.change(Act::Seal);
        }
        for (wired, of) in
            [(Wired::Cone, RawTraceKind::NearfieldCone), (Wired::Port, RawTraceKind::NearfieldPort)]
        {
            let (rate, seconds, range) = (48_000, 5.0, [5.0, 1000.0]);
            let played = Played { rate, seconds, range, silence: [0.7, 2.0] };
            let samples = bench.record(wired, &played);
            let recording = read_wav("a", &write_wav(rate, &samples, Depth::Float)).expect("a file");
            let sweep = Sweep::new(rate, seconds, range[0], range[1]).expect("a sweep");
            let take = Take { sweep, resistor: None, gate: None };
            let read = read_recording(of, "a", &recording, &take).expect("a trace");
            let arrives = read.arrives.expect("it is heard");
            assert!((arrives - 0.7).abs() < 0.02, "{arrives} s");
            let of = |frequency: f64| 20.0 * bench.value(wired, frequency).norm().log10();
            let points = read.points.iter().filter(|point| (12.0..500.0).contains(&point[0]));
            let off: Vec<[f64; 2]> = points.map(|[f, level, _]| [*f, level - of(*f)]).collect();
            let mean = off.iter().map(|[_, off]| off).sum::<f64>() / off.len() as f64;
            for [frequency, off] in off {
                // Hum stands where the mains are.
                if (frequency - 50.0).abs() > 1.5 {
                    assert!((off - mean).abs() < 0.5, "{wired:?} {frequency:.1} Hz: {:.2} dB", off - mean);
                }
            }
        }
    }
}

/// The far side of the resistor follows the near one through a pole, `H(z) = (1 - p) h/(1 - p/z)`: by the divider `Z = R H/(1 - H)`.
#[test]
fn two_channels_of_a_jig_read_as_the_impedance_behind_its_resistor() {
    let (rate, resistor, pole, share) = (48_000, 22.0, 0.97, 0.4);
    let sweep = Sweep::new(rate, 3.0, 5.0, 1000.0).expect("a sweep");
    let mut near = vec![0.0; 30_000];
    near.extend(sweep.samples());
    near.extend(vec![0.0; 100_000]);
    let mut last = 0.0;
    let far: Vec<f64> = near
        .iter()
        .map(|sample| {
            last = pole * last + (1.0 - pole) * share * sample;
            last
        })
        .collect();
    let take = Take { sweep, resistor: Some(resistor), gate: None };
    let recording = |channels: Vec<Vec<f64>>| Recording { rate, channels, clipped: 0 };
    let kind = RawTraceKind::ImpedanceBox;
    let read =
        read_recording(kind, "a", &recording(vec![near.clone(), far.clone()]), &take).expect("a trace");
    for [frequency, ohm, degrees] in read.points.iter().filter(|point| (8.0..800.0).contains(&point[0])) {
        let z = Complex::from_polar(1.0, std::f64::consts::TAU * frequency / f64::from(rate));
        let h = (1.0 - pole) * share / (1.0 - pole / z);
        let wanted = resistor * h / (1.0 - h);
        let found = Complex::from_polar(*ohm, degrees.to_radians());
        assert!((found / wanted - 1.0).norm() < 0.01, "{frequency:.1} Hz: {found} instead of {wanted}");
    }
    let told = |channels: Vec<Vec<f64>>| {
        read_recording(kind, "a", &recording(channels), &take).expect_err("refused").to_string()
    };
    assert!(told(vec![near.clone(), near.clone()]).contains("both channels hold the same"));
    assert!(told(vec![far, near.clone()]).contains("channels are swapped"));
    assert!(told(vec![near]).contains("asks for two"));
}
