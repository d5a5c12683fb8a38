//! The families of cabinets, with what each is good and bad for.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

macro_rules! families {
    ($($variant:ident, $id:literal, $effort:literal, $name:literal, $good:literal, $bad:literal;)*) => {
        /// Kind of cabinet.
        #[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
        #[serde(rename_all = "snake_case")]
        pub enum RawFamily {
            $(
                #[doc = $name]
                $variant,
            )*
        }

        impl RawFamily {
            /// All of them, plain ones first.
            pub const ALL: &'static [Self] = &[$(Self::$variant),*];

            /// As written in files.
            pub fn id(self) -> &'static str {
                match self { $(Self::$variant => $id),* }
            }

            /// The one written so.
            pub fn of_id(id: &str) -> Option<Self> {
                match id { $($id => Some(Self::$variant),)* _ => None }
            }

            /// As written for people.
            pub fn name(self) -> &'static str {
                match self { $(Self::$variant => $name),* }
            }

            /// How hard it is to build, from 1 to 5, common practice.
            pub fn effort(self) -> u8 {
                match self { $(Self::$variant => $effort),* }
            }

            /// What it is good for, common practice.
            pub fn good(self) -> &'static str {
                match self { $(Self::$variant => $good),* }
            }

            /// What it is bad at, common practice.
            pub fn bad(self) -> &'static str {
                match self { $(Self::$variant => $bad),* }
            }
        }
    };
}

families! {
    Sealed, "sealed", 1, "Sealed", "Small, tight and forgiving; falls gently, 12 dB an octave.", "Needs cone travel and power for the lowest notes.";
    Ported, "ported", 2, "Ported", "Louder and lower for the same driver; the cone rests at the tuning.", "Larger; nothing holds the cone below the tuning; the port needs room.";
    PassiveRadiator, "passive_radiator", 2, "Passive radiator", "As ported, without air noise or pipe resonance, in a box too small for a port.", "Costs a second cone that must move at least twice the air; a notch below the tuning.";
    Aperiodic, "aperiodic", 2, "Aperiodic", "Tames a high Qts in a small box; an even load for the amplifier.", "Gives up level in the bass; the vent is found by trial.";
    Bandpass4, "bandpass4", 3, "Bandpass, 4th order", "Filters itself: little noise and distortion above its band; the cone is hidden.", "Slow to start and stop; a wrong volume is not forgiven.";
    Bandpass6Parallel, "bandpass6_parallel", 4, "Bandpass, 6th order parallel", "Loud over an octave or more from both chambers.", "Large and hard to get right; nothing holds the cone below both tunings.";
    Bandpass6Series, "bandpass6_series", 4, "Bandpass, 6th order series", "Low for its size with two chambers in a row.", "Large and hard to get right; long group delay.";
    Line, "line", 4, "Transmission line", "The cone rests at the tuning with little delay; deep from a slim tower.", "A long path to fold and build; its odd modes must be damped by fill and by where the driver sits.";
    MassLoadedLine, "mass_loaded_line", 4, "Mass-loaded line", "A shorter line, tuned down by a port at its end.", "As a line, and the port can be heard.";
    BackHorn, "back_horn", 5, "Back-loaded horn", "Helps a small full-range driver to bass with high efficiency.", "A path of 2.7 m and more to fold; uneven bass; nothing holds the cone below its range.";
    FrontHorn, "front_horn", 5, "Front-loaded horn", "20 to 30 % efficiency: loud outdoors from little power.", "As long as half a wave of its lowest note; a mouth to match.";
    TappedHorn, "tapped_horn", 5, "Tapped horn", "Nearly a horn's output from about half its bulk.", "A narrow band with a hard upper end; the driver must stand high pressure.";
    SlotFlare, "slot_flare", 3, "Slot and flare", "A stage cabinet: a slot that a short flare couples to the air, with punch above the tuning.", "Not for the lowest notes; a narrow slot turns resistive.";
    OpenBaffle, "open_baffle", 1, "Open baffle", "No box to resonate; little sound to the sides.", "Bass cancels around the edge: needs large, soft drivers and power.";
    InfiniteBaffle, "infinite_baffle", 1, "Infinite baffle", "The driver as it is, in a wall to a large room.", "Needs that room; nothing holds the cone below Fs.";
}

impl RawFamily {
    /// Whether the sizes of its box follow from the volumes of its chambers alone, and these from the sizes.
    pub fn is_of_its_volume(self) -> bool {
        matches!(
            self,
            Self::Sealed
                | Self::Ported
                | Self::PassiveRadiator
                | Self::Aperiodic
                | Self::Bandpass4
                | Self::Bandpass6Parallel
                | Self::Bandpass6Series
        )
    }
}
