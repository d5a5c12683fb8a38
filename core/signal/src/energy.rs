//! How long a battery lasts.

use oak_acoustics::response::mean_share;

/// An amplifier on a battery.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Budget {
    /// What the battery gives until it must be charged, Wh.
    pub usable: f64,
    /// Power that is drawn without any sound, W.
    pub idle: f64,
    /// Share of what is drawn that reaches the drivers: converter and amplifier together.
    pub efficiency: f64,
    /// Power of a sine at which the amplifier clips, W.
    pub rated: f64,
    /// Peak over RMS of the programme, dB: music 10, film 12 (common practice).
    pub crest: f64,
    /// How far the peaks are kept below clipping, dB.
    pub backoff: f64,
}

impl Budget {
    /// Mean power into the drivers: `P_rated 10^(-(crest - 3.01)/10) 10^(-backoff/10)`, W.
    pub fn mean_power(&self) -> f64 {
        self.rated * mean_share(self.crest) * 10f64.powf(-self.backoff / 10.0)
    }

    /// Power that is drawn from the battery, W.
    pub fn drawn(&self) -> f64 {
        self.idle + self.mean_power() / self.efficiency
    }

    /// Hours until it is empty.
    pub fn hours(&self) -> f64 {
        self.usable / self.drawn()
    }

    /// Hours of playing a day that a solar panel (Wh a day) pays for.
    pub fn solar_hours(&self, daily: f64) -> f64 {
        daily / self.drawn()
    }
}

/// Hours, as people say them.
pub fn hours_in_words(hours: f64) -> String {
    if hours < 10.0 {
        let minutes = (hours * 60.0).round();
        let (whole, rest) = ((minutes / 60.0).floor(), minutes % 60.0);
        if whole < 1.0 { format!("{rest:.0} min") } else { format!("{whole:.0} h {rest:.0} min") }
    } else {
        format!("{hours:.0} h")
    }
}
