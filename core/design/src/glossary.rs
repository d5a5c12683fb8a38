//! Terms of the trade in one plain sentence each, for those who meet them first.

/// Terms and what they mean; quantities of a design file have theirs in [`crate::field`].
pub static TERMS: &[(&str, &str)] = &[
    ("F3", "The frequency below which the level has fallen by 3 dB: where the bass begins to fade."),
    ("F6", "The frequency at which the level has fallen by 6 dB."),
    (
        "F10",
        "The frequency at which the level has fallen by 10 dB: in a room, often the lowest that is still heard.",
    ),
    ("Fc", "Resonance of the driver in a sealed box: on the spring of its suspension and of the air."),
    (
        "Qtc",
        "How a sealed box behaves at its resonance: 0.5 does not overshoot, 0.707 is flattest, above 1 the bass stands out.",
    ),
    (
        "Fb",
        "The tuning: where the air in the port swings against the spring of the box and the cone nearly stands still.",
    ),
    (
        "SPL",
        "Sound pressure level in dB; 3 dB more is twice the power, 10 dB more is heard as about twice as loud.",
    ),
    ("Excursion", "How far the cone moves from rest, one way."),
    ("Group delay", "How much later a note comes out than it went in; steep bass comes later."),
    ("Impedance", "What the amplifier sees: how much the driver resists at each frequency."),
    (
        "EBP",
        "Fs divided by Qes: below 50 a driver suits a sealed box, above 100 a ported one (common practice).",
    ),
    (
        "Reference efficiency",
        "The share of the electrical power that a driver turns to sound in its piston band.",
    ),
    ("Alignment", "A proven recipe of box and tuning for a driver of given parameters."),
    (
        "High-pass",
        "A filter that lets through what is above its corner; below a port's tuning it protects the cone.",
    ),
    ("Low-pass", "A filter that lets through what is below its corner, where other loudspeakers take over."),
    (
        "Parametric band",
        "A filter that makes a band around a frequency louder or softer; its Q says how narrow.",
    ),
    (
        "Linkwitz transform",
        "A filter that gives a sealed box another corner and Q, at the price of a boost below.",
    ),
    (
        "Trap",
        "A coil, a capacitor and a resistor side by side in the lead to the driver: they hold back a band.",
    ),
    ("Biquad", "A filter of second order as a signal processor takes it: five numbers."),
    (
        "Limit ribbon",
        "Shows along the frequency axis what limits the level: amplifier, coil, cone, air or radiator.",
    ),
    ("Maximum clean level", "The level at each frequency when the first limit is just met."),
    (
        "Standing wave",
        "Sound that runs back and forth between two walls and builds up at one frequency: a resonance of the box.",
    ),
    (
        "Isobaric pair",
        "Two drivers one behind the other that move as one: half the box, half the efficiency.",
    ),
    ("Passive radiator", "A cone without a motor that does the work of a port; tuned by its mass."),
    (
        "Transmission line",
        "A long filled pipe behind the driver; where it is a quarter of a wave long it holds the cone nearly still.",
    ),
    (
        "End correction",
        "The air just outside a port that moves along, so that the port acts longer than it is.",
    ),
    ("Half space", "On the ground or in a wall: the sound can spread in half of all directions."),
    (
        "Crest factor",
        "How far the peaks of what is played stand above its mean: 3 dB for a tone, 10 and more for music.",
    ),
    ("Peak", "How far the highest level stands above the passband level."),
];
