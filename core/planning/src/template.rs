//! Briefs to begin with. Every number is common practice, meant to be changed.

use oak_design::file::{RawAirNoise, RawBrief, RawFamily, RawProgramme, RawSpace, Typed};
use serde::Serialize;
use utoipa::ToSchema;

/// A brief to begin with.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Template {
    /// Stays the same.
    pub id: &'static str,
    /// What to call it.
    pub name: &'static str,
    /// What it is for, in one line.
    pub about: &'static str,
    /// The brief.
    pub brief: RawBrief,
}

fn text(value: &str) -> Option<Typed> {
    Some(Typed::from(value))
}

/// All of them.
pub fn templates() -> Vec<Template> {
    let of = |id: &'static str, name, about, brief: RawBrief| Template {
        id,
        name,
        about,
        brief: RawBrief { template: Some(id.to_owned()), ..brief },
    };
    vec![
        of(
            "home_both",
            "Films and music",
            "Music from the low B, film effects as far as the box allows, in a living room.",
            RawBrief {
                space: Some(RawSpace::Quarter),
                programme: Some(RawProgramme::Film),
                lowest: text("28 Hz"),
                crossover: text("80 Hz"),
                loudness: text("100 dB"),
                distance: text("3 m"),
                width: text("45 cm"),
                height: text("60 cm"),
                depth: text("50 cm"),
                amplifier_power: text("250 W"),
                amplifier_load: text("4 ohm"),
                air_noise: Some(RawAirNoise::Straight),
                ..RawBrief::default()
            },
        ),
        of(
            "home_film",
            "Home, film",
            "Effects down to 20 Hz, loud peaks, a large box in a corner is allowed.",
            RawBrief {
                space: Some(RawSpace::Quarter),
                programme: Some(RawProgramme::Film),
                lowest: text("20 Hz"),
                crossover: text("80 Hz"),
                loudness: text("105 dB"),
                distance: text("3 m"),
                width: text("55 cm"),
                height: text("70 cm"),
                depth: text("60 cm"),
                amplifier_power: text("500 W"),
                amplifier_load: text("4 ohm"),
                air_noise: Some(RawAirNoise::Straight),
                ..RawBrief::default()
            },
        ),
        of(
            "home_music",
            "Home, music",
            "Clean and even from the low E of a bass, in a box that may stand in a living room.",
            RawBrief {
                space: Some(RawSpace::Half),
                programme: Some(RawProgramme::Music),
                lowest: text("E1"),
                crossover: text("100 Hz"),
                loudness: text("95 dB"),
                distance: text("3 m"),
                width: text("36 cm"),
                height: text("50 cm"),
                depth: text("42 cm"),
                amplifier_power: text("200 W"),
                amplifier_load: text("4 ohm"),
                air_noise: Some(RawAirNoise::Silent),
                families: vec![
                    RawFamily::Sealed,
                    RawFamily::Ported,
                    RawFamily::PassiveRadiator,
                    RawFamily::Line,
                ],
                ..RawBrief::default()
            },
        ),
        of(
            "car",
            "Car, in the boot",
            "A box behind the seats; the cabin lifts the lowest octave by itself.",
            RawBrief {
                space: Some(RawSpace::Eighth),
                programme: Some(RawProgramme::Music),
                lowest: text("38 Hz"),
                crossover: text("80 Hz"),
                loudness: text("110 dB"),
                distance: text("1.5 m"),
                width: text("75 cm"),
                height: text("40 cm"),
                depth: text("40 cm"),
                amplifier_power: text("400 W"),
                amplifier_load: text("2 ohm"),
                air_noise: Some(RawAirNoise::Flared),
                ..RawBrief::default()
            },
        ),
        of(
            "car_seat",
            "Car, under a seat",
            "Very little room and much power; the cabin lifts the lowest octave by itself.",
            RawBrief {
                space: Some(RawSpace::Eighth),
                programme: Some(RawProgramme::Music),
                lowest: text("45 Hz"),
                crossover: text("90 Hz"),
                loudness: text("105 dB"),
                distance: text("1 m"),
                volume: text("18 l"),
                amplifier_power: text("250 W"),
                amplifier_load: text("2 ohm"),
                air_noise: Some(RawAirNoise::Flared),
                families: vec![RawFamily::Sealed, RawFamily::Ported, RawFamily::PassiveRadiator],
                ..RawBrief::default()
            },
        ),
        of(
            "bass_guitar",
            "Bass guitar cabinet",
            "The low E at stage level, light enough for one person, under the amplifier's head.",
            RawBrief {
                space: Some(RawSpace::Half),
                programme: Some(RawProgramme::Music),
                lowest: text("E1"),
                crossover: text("400 Hz"),
                loudness: text("115 dB"),
                distance: text("1 m"),
                width: text("60 cm"),
                height: text("55 cm"),
                depth: text("42 cm"),
                amplifier_power: text("350 W"),
                amplifier_load: text("4 ohm"),
                air_noise: Some(RawAirNoise::Flared),
                ..RawBrief::default()
            },
        ),
        of(
            "organ",
            "Organ, electric",
            "Sustained pedal notes down to the low C of a 16-foot stop, even and without noise.",
            RawBrief {
                space: Some(RawSpace::Quarter),
                programme: Some(RawProgramme::Sine),
                lowest: text("C1"),
                crossover: text("150 Hz"),
                loudness: text("95 dB"),
                distance: text("4 m"),
                width: text("60 cm"),
                height: text("110 cm"),
                depth: text("60 cm"),
                amplifier_power: text("200 W"),
                amplifier_load: text("4 ohm"),
                air_noise: Some(RawAirNoise::Silent),
                ..RawBrief::default()
            },
        ),
        of(
            "two_way",
            "Bass box of a small two-way",
            "A small woofer that meets a tweeter or wide-band driver; looks matter.",
            RawBrief {
                space: Some(RawSpace::Half),
                programme: Some(RawProgramme::Music),
                lowest: text("50 Hz"),
                crossover: text("400 Hz"),
                loudness: text("92 dB"),
                distance: text("2.5 m"),
                width: text("22 cm"),
                height: text("38 cm"),
                depth: text("30 cm"),
                amplifier_power: text("80 W"),
                amplifier_load: text("4 ohm"),
                air_noise: Some(RawAirNoise::Straight),
                families: vec![
                    RawFamily::Sealed,
                    RawFamily::Ported,
                    RawFamily::PassiveRadiator,
                    RawFamily::Line,
                ],
                ..RawBrief::default()
            },
        ),
        of(
            "outdoor",
            "Outdoor",
            "Level at a distance from little power; size matters less than efficiency.",
            RawBrief {
                space: Some(RawSpace::Half),
                programme: Some(RawProgramme::Music),
                lowest: text("45 Hz"),
                crossover: text("120 Hz"),
                loudness: text("100 dB"),
                distance: text("10 m"),
                width: text("80 cm"),
                height: text("120 cm"),
                depth: text("90 cm"),
                amplifier_power: text("300 W"),
                amplifier_load: text("4 ohm"),
                air_noise: Some(RawAirNoise::Flared),
                ..RawBrief::default()
            },
        ),
    ]
}
