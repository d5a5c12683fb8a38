//! A design where it is listened to.

use std::ops::RangeInclusive;

use oak_design::built::Built;
use oak_design::heard::{self, Heard, SPAN};
use oak_design::report::Computed;
use oak_design::resolve::{Brief, ListeningPlace, Standing};
use oak_signal::in_place::Stand;
use oak_signal::room::Room;

/// A design where it is listened to.
pub(super) struct Scene<'a> {
    pub computed: &'a Computed,
    pub brief: Option<&'a Brief>,
    pub place: &'a ListeningPlace,
    pub room: Option<Room>,
    pub stands: Vec<Stand>,
    pub heard: Option<Heard>,
    /// dB at 1 m in the open, at every frequency of the response.
    pub free: Vec<f64>,
}

/// The frequencies of a judgement where a brief names none, Hz.
const USUAL_BAND: [f64; 2] = [20.0, 120.0];

impl Scene<'_> {
    pub fn built(&self) -> &Built {
        &self.computed.built
    }

    pub fn seats(&self) -> Vec<[f64; 3]> {
        self.place.seats.iter().map(|seat| seat.at).collect()
    }

    /// What the brief is about, Hz; within what a place is looked at.
    pub fn band(&self) -> RangeInclusive<f64> {
        let lowest = self.brief.and_then(|brief| brief.lowest);
        let [from, to] = lowest.map_or(USUAL_BAND, |lowest| {
            let brief = self.brief.expect("it names a lowest note");
            [lowest, crate::case::upper_end(brief, lowest)]
        });
        let [low, high] = SPAN;
        let from = from.clamp(low, high / 2.0);
        from..=to.clamp(2.0 * from, high)
    }

    /// Mean of the power at the seats, else at 1 m, at the frequencies of the band: Hz and dB at this drive.
    pub fn spectrum(&self) -> Vec<(f64, f64)> {
        let band = self.band();
        let levels = match &self.heard {
            Some(heard) => heard.frequency.iter().copied().zip(heard.mean()).collect::<Vec<_>>(),
            None => self.computed.response.frequency.iter().copied().zip(self.free.iter().copied()).collect(),
        };
        levels.into_iter().filter(|(frequency, _)| band.contains(frequency)).collect()
    }

    /// Power mean of the spectrum, dB: how loud it is at this drive.
    pub fn level(&self) -> f64 {
        power_mean(self.spectrum().into_iter().map(|(_, level)| level))
    }

    /// The same at 1 m in the open, dB.
    pub fn free_level(&self) -> f64 {
        let band = self.band();
        let all = self.computed.response.frequency.iter().zip(&self.free);
        power_mean(all.filter(|(frequency, _)| band.contains(frequency)).map(|(_, level)| *level))
    }

    /// By how much it is turned down from this drive until it is as loud as the brief asks, dB; nothing where it asks no level.
    pub fn turned_down(&self) -> Option<f64> {
        let brief = self.brief?;
        let asked = brief.loudness?;
        if brief.at_seats {
            return Some(self.level() - asked);
        }
        Some(self.free_level() - 20.0 * brief.distance.log10() - asked)
    }

    /// Level at the seats, else at 1 m, once it is as loud as the brief asks, dB; what this drive gives where it asks none.
    pub fn loudness(&self) -> (f64, bool) {
        let down = self.turned_down();
        (self.level() - down.unwrap_or(0.0), down.is_some())
    }

    /// Places (m), factors and delays (s) of the first thing that sounds of each cabinet.
    pub fn cones(&self) -> Vec<([f64; 3], f64, f64)> {
        let of = |standing: &Standing| (cone(self.built(), standing), standing.gain, standing.delay);
        self.place.stands.iter().map(of).collect()
    }
}

/// Where the first thing that sounds of a cabinet is, m.
pub(super) fn cone(built: &Built, standing: &Standing) -> [f64; 3] {
    cone_at(standing.at, standing.turned, heard::cone(built))
}

/// Where a cone is whose box stands somewhere, turned: over the middle of its underside, m.
pub(super) fn cone_at(at: [f64; 3], turned: f64, over: [f64; 3]) -> [f64; 3] {
    Stand { place: at, turned, gain: 1.0, delay: 0.0 }.point(over)
}

/// Mean of the power of levels, dB.
pub(super) fn power_mean(levels: impl Iterator<Item = f64>) -> f64 {
    let (count, power) =
        levels.fold((0.0, 0.0), |(count, power), level| (count + 1.0, power + 10f64.powf(level / 10.0)));
    10.0 * (power / f64::max(count, 1.0)).log10()
}
