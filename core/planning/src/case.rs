//! A design as its brief has it used.

use oak_acoustics::response::FrequencyGrid;
use oak_design::Problem;
use oak_design::built::Built;
use oak_design::file::RawDesign;
use oak_design::heard::Heard;
use oak_design::report::{Computed, compute_unboxed, compute_undelayed};
use oak_design::resolve::{Brief, ResolvedDesign, resolve_design};

/// A design, computed in the brief's space and against the brief's amplifier and air.
#[derive(Debug)]
pub struct Case<'a> {
    /// What must be reached.
    pub brief: &'a Brief,
    /// As typed.
    pub raw: &'a RawDesign,
    /// As resolved, in the brief's surroundings.
    pub design: ResolvedDesign,
    /// As computed.
    pub computed: Computed,
    /// The part of the curves that the brief is about, as positions: all of them, or none where no lowest note is asked.
    pub band: std::ops::Range<usize>,
    /// How much quieter it is where people listen than at 1 m, dB, at each point.
    away: Vec<f64>,
}

/// Level at 1 m that a brief asks for, dB.
pub(crate) fn level_at_one_metre(brief: &Brief) -> Option<f64> {
    brief.loudness.map(|loudness| loudness + 20.0 * brief.distance.log10())
}

/// Where the band ends that a brief asks for from a lowest note (Hz), Hz.
pub(crate) fn upper_end(brief: &Brief, lowest: f64) -> f64 {
    brief.crossover.unwrap_or(lowest * OCTAVES.exp2())
}

/// What is computed where a brief names no lowest note, Hz.
const WHOLE: (f64, f64) = (10.0, 1000.0);
/// Where a brief leaves the crossover open, two octaves are judged: what a subwoofer plays.
const OCTAVES: f64 = 2.0;

/// How much quieter it is where a brief means its level than at 1 m, dB: by the distance in the open, or at the seats of the place that it is
/// played in, as the mean of their power over a third of an octave.
fn away(brief: &Brief, computed: &Computed) -> Vec<f64> {
    let response = &computed.response;
    let open = vec![20.0 * brief.distance.log10(); response.frequency.len()];
    let Some(place) = brief.playing.place.as_ref().filter(|_| brief.at_seats) else { return open };
    let Some(heard) = Heard::of(&computed.built, place, &response.frequency) else { return open };
    let first = response.frequency.partition_point(|frequency| *frequency < heard.frequency[0]);
    let levels: Vec<f64> = response.level().skip(first).take(heard.frequency.len()).collect();
    let lift: Vec<f64> = heard.mean().iter().zip(levels).map(|(seat, free)| seat - free).collect();
    let smooth = |around: f64| {
        let near = |frequency: &f64| (frequency / around).log2().abs() <= SMOOTHED / 2.0;
        let powers: Vec<f64> = heard
            .frequency
            .iter()
            .zip(&lift)
            .filter(|(frequency, _)| near(frequency))
            .map(|(_, lift)| 10f64.powf(lift / 10.0))
            .collect();
        -10.0 * (powers.iter().sum::<f64>() / powers.len() as f64).log10()
    };
    // Beyond what a place is looked at it is as at the end.
    let [low, high] = [heard.frequency[0], heard.frequency[heard.frequency.len() - 1]];
    response.frequency.iter().map(|frequency| smooth(frequency.clamp(low, high))).collect()
}

/// Octaves over which the level at the seats is a mean: narrower dips are no matter of loudness.
const SMOOTHED: f64 = 1.0 / 3.0;

impl<'a> Case<'a> {
    /// How many frequencies a design is judged at, from the lowest note to the crossover.
    pub const POINTS: usize = 240;

    /// Computes a design for a brief.
    ///
    /// # Errors
    /// What is wrong with the design.
    pub fn of(brief: &'a Brief, raw: &'a RawDesign) -> Result<Self, Vec<Problem>> {
        Self::computed(brief, raw, compute_undelayed)
    }

    /// The same without a look at its box, about which nothing can then be said.
    ///
    /// # Errors
    /// What is wrong with the design.
    pub fn unboxed(brief: &'a Brief, raw: &'a RawDesign) -> Result<Self, Vec<Problem>> {
        Self::computed(brief, raw, compute_unboxed)
    }

    fn computed(
        brief: &'a Brief,
        raw: &'a RawDesign,
        compute: fn(&ResolvedDesign, &FrequencyGrid) -> Result<Computed, Problem>,
    ) -> Result<Self, Vec<Problem>> {
        let design = resolve_design(raw)?.in_use(Some(brief));
        let (from, to) = brief.lowest.map_or(WHOLE, |lowest| (lowest, upper_end(brief, lowest)));
        let grid = FrequencyGrid::logarithmic(from, to, Self::POINTS).expect("within the allowed range");
        let computed = compute(&design, &grid).map_err(|problem| vec![problem])?;
        let band = if brief.lowest.is_some() { 0..Self::POINTS } else { 0..0 };
        let away = away(brief, &computed);
        Ok(Self { brief, raw, computed, band, design, away })
    }

    /// How much quieter it is where people listen than at 1 m, dB, at a point of the curves.
    pub fn away(&self, k: usize) -> f64 {
        self.away[k]
    }

    /// Where the level of the brief is meant, in words.
    pub fn listeners(&self) -> String {
        match &self.brief.playing.place {
            Some(place) if self.brief.at_seats => {
                format!("As the mean of the seats in {}, over a third of an octave", place.name)
            }
            _ if self.brief.at_seats => {
                format!("No listening place is chosen: {} m away in the open", self.brief.distance)
            }
            _ => format!("In the space that the brief names, {} m away", self.brief.distance),
        }
    }

    /// As it is built.
    pub fn built(&self) -> &Built {
        &self.computed.built
    }

    /// By how much the drive of the response is to be multiplied at each point of the band until the brief's level is reached;
    /// empty where none is asked.
    pub fn drive(&self) -> Vec<f64> {
        let Some(asked) = self.brief.loudness else { return Vec::new() };
        let levels: Vec<f64> = self.computed.response.level().collect();
        self.band.clone().map(|k| 10f64.powf((asked + self.away[k] - levels[k]) / 20.0)).collect()
    }

    /// Air that the cabinet holds in all chambers and ways, m3.
    pub fn air(&self) -> f64 {
        self.built().design.air()
    }

    /// How many drivers there are.
    pub fn drivers(&self) -> u32 {
        let driver_array = &self.design.driver_array;
        driver_array.wiring.count() * if driver_array.isobaric.is_some() { 2 } else { 1 }
    }
}
