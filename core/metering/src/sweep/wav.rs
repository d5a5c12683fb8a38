//! WAV files.

use std::io::Cursor;

use hound::{SampleFormat, WavReader, WavSpec, WavWriter};
use oak_design::Problem;

use super::signal::RATES;
use crate::trace::wrong;

/// A recording.
#[derive(Debug, Clone, PartialEq)]
pub struct Recording {
    /// Samples a second.
    pub rate: u32,
    /// Of each channel its samples, -1 to 1.
    pub channels: Vec<Vec<f64>>,
    /// Samples that stand at the end of their range, of all channels.
    pub clipped: usize,
}

/// How a sample is written.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Depth {
    /// 16 bits.
    Bits16,
    /// 24 bits.
    Bits24,
    /// 32 bits.
    Bits32,
    /// 32 bits, floating.
    Float,
}

/// Longest recording, s, and most channels.
const LONGEST: f64 = 180.0;
const CHANNELS: u16 = 8;
/// As loud as a sample can be, near enough.
const FULL: f64 = 0.9999;

/// Reads a recording of integers of 16, 24 or 32 bits or floating ones; `file` names it in what is wrong with it.
///
/// # Errors
/// It is no WAV file, is damaged, of an unusual rate, or too long.
pub fn read_wav(file: &str, bytes: &[u8]) -> Result<Recording, Problem> {
    let broken = |error: hound::Error| wrong(file, format!("it is no WAV file that can be read: {error}"));
    let reader = WavReader::new(Cursor::new(bytes)).map_err(broken)?;
    let WavSpec { channels, sample_rate, bits_per_sample, sample_format } = reader.spec();
    if !RATES.contains(&sample_rate) {
        return Err(wrong(file, format!("{sample_rate} samples a second are not among {RATES:?}")));
    }
    if !(1..=CHANNELS).contains(&channels) {
        return Err(wrong(file, format!("it has {channels} channels; 1 to {CHANNELS} are allowed")));
    }
    let seconds = f64::from(reader.duration()) / f64::from(sample_rate);
    if seconds > LONGEST {
        return Err(wrong(file, format!("it lasts {seconds:.0} s; at most {LONGEST} s are allowed")));
    }
    let whole = f64::from(1u32 << (bits_per_sample - 1).min(31));
    let samples: Result<Vec<f64>, hound::Error> = match sample_format {
        SampleFormat::Float => reader.into_samples::<f32>().map(|sample| sample.map(f64::from)).collect(),
        SampleFormat::Int => {
            reader.into_samples::<i32>().map(|sample| sample.map(|value| f64::from(value) / whole)).collect()
        }
    };
    let samples = samples.map_err(broken)?;
    if let Some(at) = samples.iter().position(|sample| !sample.is_finite()) {
        return Err(wrong(file, format!("sample {at} is no number")));
    }
    if samples.is_empty() {
        return Err(wrong(file, "it holds no sound".to_owned()));
    }
    let channel =
        |number: usize| samples.iter().skip(number).step_by(usize::from(channels)).copied().collect();
    let clipped = samples.iter().filter(|sample| sample.abs() >= FULL).count();
    Ok(Recording { rate: sample_rate, channels: (0..usize::from(channels)).map(channel).collect(), clipped })
}

/// Writes one channel, -1 to 1.
pub fn write_wav(rate: u32, samples: &[f64], depth: Depth) -> Vec<u8> {
    let (bits_per_sample, sample_format) = match depth {
        Depth::Bits16 => (16, SampleFormat::Int),
        Depth::Bits24 => (24, SampleFormat::Int),
        Depth::Bits32 => (32, SampleFormat::Int),
        Depth::Float => (32, SampleFormat::Float),
    };
    let spec = WavSpec { channels: 1, sample_rate: rate, bits_per_sample, sample_format };
    let most = f64::from((1u32 << (bits_per_sample - 1)) - 1);
    let mut file = Cursor::new(Vec::new());
    let mut write = || -> Result<(), hound::Error> {
        let mut writer = WavWriter::new(&mut file, spec)?;
        for sample in samples {
            let sample = sample.clamp(-1.0, 1.0);
            match depth {
                Depth::Float => writer.write_sample(sample as f32)?,
                _ => writer.write_sample((sample * most).round() as i32)?,
            }
        }
        writer.finalize()
    };
    // A file in memory takes whatever is written.
    write().expect("memory");
    file.into_inner()
}
