//! Which kind of cabinet suits a driver and a brief, by what each comes to as it is built.

use std::cmp::Ordering;

use oak_acoustics::Stop;
use oak_design::file::{RawBrief, RawDesign, RawDriver, RawFamily};
use oak_design::resolve::{Brief, resolve_brief, resolve_driver};
use oak_design::start::RawAsk;
use oak_design::{Problem, field};
use rayon::prelude::*;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::build_plan::Cost;
use crate::check::{Check, Verdict, judge};
use crate::driver_match::DriverMatch;
use crate::{Case, fitted, starts};

/// A question for a recommendation.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawRecommend {
    /// The driver.
    pub driver: RawDriver,
    /// How many of them, wired as the brief's amplifier stands it; one where absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub drivers: Option<u32>,
    /// What must be reached; a brief without a lowest note is taken to ask for the driver's Fs.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub brief: Option<RawBrief>,
}

/// What is recommended, and what every kind of cabinet comes to.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Recommendation {
    /// The kind; absent where none of those that are asked for has a cabinet.
    pub family: Option<RawFamily>,
    /// Which, with the figures that decide; then what others would give, and when they would be chosen.
    pub sentences: Vec<String>,
    /// What was taken where the brief says nothing; empty where it says all that is needed.
    pub assumed: String,
    /// Every kind, the best first.
    pub kinds: Vec<KindReport>,
}

/// What a kind of cabinet comes to for a driver and a brief.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct KindReport {
    /// Which.
    pub family: RawFamily,
    /// As written for people.
    pub name: &'static str,
    /// Whether the brief allows it, or asks for none and it is one of the plain ones: sealed, ported, passive radiator.
    pub considered: bool,
    /// Where the design comes from, or why there is none.
    pub reason: String,
    /// The whole design with its box.
    pub design: Option<RawDesign>,
    /// Whether it can be built as it is drawn.
    pub buildable: bool,
    /// What is short, the worst first.
    pub short: Vec<ShortReport>,
    /// What is reached of what is asked where that is least, 1 where nothing is short.
    pub worst: f64,
    /// Air in it, m3.
    pub air: Option<f64>,
    /// What it takes of its place, m3.
    pub outside: Option<f64>,
    /// −3 dB frequency, Hz.
    pub f3: Option<f64>,
    /// Maximum clean level over the whole band at the listener, dB.
    pub loudness: Option<f64>,
    /// What its parts cost.
    pub cost: Option<f64>,
    /// How hard it is to build, 1 to 5 (common practice).
    pub effort: u8,
}

/// Something that is asked and not reached.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ShortReport {
    /// Which rule.
    pub id: &'static str,
    /// What is asked about.
    pub name: &'static str,
    /// What is reached.
    pub reached: String,
    /// What was asked, or by how much it is short.
    pub words: String,
}

/// Kinds that are recommended where a brief asks for none.
const PLAIN: [RawFamily; 3] = [RawFamily::Sealed, RawFamily::Ported, RawFamily::PassiveRadiator];
/// Kinds without a box of their own.
const BOXLESS: [RawFamily; 2] = [RawFamily::OpenBaffle, RawFamily::InfiniteBaffle];
/// Kinds that differ by a smaller share are as good.
const ALIKE: f64 = 0.05;

/// Recommends a kind of cabinet.
///
/// # Errors
/// Every problem with the driver or the brief.
pub fn recommend(ask: &RawRecommend, stop: &Stop) -> Result<Recommendation, Vec<Problem>> {
    let mut raw = ask.brief.clone().unwrap_or_default();
    let mut assumed = String::new();
    if raw.lowest.is_none() {
        let fs =
            resolve_driver(&ask.driver)?.driver.fs().clamp(field::BRIEF_LOWEST.min, field::BRIEF_LOWEST.max);
        raw.lowest = Some(field::BRIEF_LOWEST.typed(fs, 3));
        assumed = format!("No lowest note is asked for: taken as the driver's own resonance, {fs:.0} Hz.");
    }
    let within = |problem: Problem| problem.within("brief");
    let brief =
        resolve_brief(&raw).map_err(|problems| problems.into_iter().map(within).collect::<Vec<_>>())?;
    // What others would give is of interest whatever the brief allows.
    let open = RawBrief { families: Vec::new(), ..raw.clone() };
    let search = DriverMatch::new(&open, ask.drivers.unwrap_or(1))?;
    let searched = search.outcomes(&ask.driver)?;
    let question = Question { ask, open: &open, brief: &brief, search: &search };
    let mut kinds: Vec<KindReport> = RawFamily::ALL
        .par_iter()
        .filter(|family| !BOXLESS.contains(family) || brief.families.contains(family))
        .filter(|_| !stop.stopped())
        .map(|family| {
            let outcome = searched.iter().find(|outcome| outcome.family == *family);
            let mut found = match outcome.map(|outcome| &outcome.found) {
                Some(Ok(found)) => {
                    let design = search.found(ask.driver.clone(), found.clone());
                    vec![(found.reason.clone(), Some(fitted(&brief, &open, design)))]
                }
                Some(Err(why)) => vec![(why.clone(), None)],
                None => Vec::new(),
            };
            // A search that is short of something does not look at boxes; a starting point's may be better.
            if found.is_empty() || PLAIN.contains(family) {
                found.extend(question.starting(*family, stop));
            }
            question.best(*family, found)
        })
        .collect();
    kinds.sort_by(|a, b| b.considered.cmp(&a.considered).then(merit(a, b)));
    let sentences = sentences(&kinds);
    let family =
        kinds.first().filter(|best| best.considered && best.design.is_some()).map(|best| best.family);
    Ok(Recommendation { family, sentences, assumed, kinds })
}

struct Question<'a> {
    ask: &'a RawRecommend,
    open: &'a RawBrief,
    brief: &'a Brief,
    search: &'a DriverMatch,
}

impl Question<'_> {
    /// What the starting points of a family say, each with where it comes from.
    fn starting(&self, family: RawFamily, stop: &Stop) -> Vec<(String, Option<RawDesign>)> {
        let driver_array = self.search.wired(&self.ask.driver).ok().flatten();
        let ask = RawAsk {
            driver_array,
            brief: Some(self.open.clone()),
            ..RawAsk::of(self.ask.driver.clone(), family)
        };
        match starts(&ask, stop) {
            Ok(starts) => starts.into_iter().map(|start| (start.reason, start.design)).collect(),
            Err(problems) => vec![(problems.first().map_or_else(String::new, Problem::to_string), None)],
        }
    }

    /// The best of some designs of a family.
    fn best(&self, family: RawFamily, found: Vec<(String, Option<RawDesign>)>) -> KindReport {
        let considered = if self.brief.families.is_empty() {
            PLAIN.contains(&family)
        } else {
            self.brief.families.contains(&family)
        };
        let none = |reason: String| KindReport {
            family,
            name: family.name(),
            considered,
            reason,
            design: None,
            buildable: false,
            short: Vec::new(),
            worst: 0.0,
            air: None,
            outside: None,
            f3: None,
            loudness: None,
            cost: None,
            effort: family.effort(),
        };
        let why = found.first().map_or_else(String::new, |(reason, _)| reason.clone());
        found
            .into_iter()
            .filter_map(|(reason, design)| self.report(none(reason), design?))
            .min_by(merit)
            .unwrap_or_else(|| none(why))
    }

    fn report(&self, kind: KindReport, design: RawDesign) -> Option<KindReport> {
        let name = format!("{}, {}", self.ask.driver.name, kind.name.to_lowercase());
        let design = RawDesign { name, notes: kind.reason.clone(), ..design };
        let case = Case::of(self.brief, &design).ok()?;
        // Which kinds are wanted is no figure of a cabinet.
        let checks: Vec<Check> = judge(&case).into_iter().filter(|check| check.id != "family").collect();
        let mut short: Vec<&Check> = checks.iter().filter(|check| check.verdict == Verdict::Short).collect();
        short.sort_by(|a, b| a.ratio.total_cmp(&b.ratio));
        let worst = short.first().map_or(1.0, |check| check.ratio.clamp(0.0, 1.0));
        let levels = case.computed.max_output.level[case.band.clone()].iter().copied();
        let loudness = levels.fold(f64::INFINITY, f64::min) - 20.0 * self.brief.distance.log10();
        let boxed = case.built().boxed.as_ref();
        let report = KindReport {
            buildable: case.built().unbuildable.is_none() && case.built().forbids().is_empty(),
            worst,
            short: short
                .into_iter()
                .map(|Check { id, name, reached, words, .. }| ShortReport {
                    id,
                    name,
                    reached: reached.clone(),
                    words: words.clone(),
                })
                .collect(),
            air: Some(case.air()),
            outside: boxed.map(|boxed| boxed.cabinet.outer.volume()),
            f3: case.computed.figures.f3,
            loudness: loudness.is_finite().then_some(loudness),
            cost: Cost::of(&case).map(|cost| cost.total),
            ..kind
        };
        Some(KindReport { design: Some(design), ..report })
    }
}

/// The better of two first: what can be built, what is least short, what is smaller outside.
fn merit(a: &KindReport, b: &KindReport) -> Ordering {
    let size = |kind: &KindReport| kind.outside.unwrap_or(f64::INFINITY);
    // What is reached to a thousandth is reached.
    let worst = |kind: &KindReport| (kind.worst * 1e3).round();
    b.design
        .is_some()
        .cmp(&a.design.is_some())
        .then(b.buildable.cmp(&a.buildable))
        .then(worst(b).total_cmp(&worst(a)))
        .then(size(a).total_cmp(&size(b)))
}

fn sentences(kinds: &[KindReport]) -> Vec<String> {
    let Some(best) = kinds.first().filter(|kind| kind.considered) else { return Vec::new() };
    let first = match (best.design.is_some(), best.buildable, best.short.first()) {
        (false, ..) => format!("No cabinet of the kinds that are asked for suits: {}", best.reason),
        (true, false, short) => {
            let why = short.map_or(String::new(), |short| format!(" ({})", short.words));
            format!("No cabinet of the kinds that are asked for can be built here with this driver{why}.")
        }
        (true, true, None) => {
            format!("{} suits best: {}. It does all that is asked.", article(best), figures(best))
        }
        (true, true, Some(short)) => {
            let more = match best.short.len() - 1 {
                0 => String::new(),
                1 => ", and one thing more".to_owned(),
                more => format!(", and {more} things more"),
            };
            format!("{} comes closest: {}. Short: {}{more}.", article(best), figures(best), told(short))
        }
    };
    let mut second: Vec<String> =
        kinds[1..].iter().filter(|kind| kind.considered).take(2).map(other).collect();
    let beyond = kinds.iter().filter(|kind| !kind.considered).min_by(|a, b| merit(a, b));
    if let Some(beyond) = beyond.filter(|beyond| is_better(beyond, best)) {
        let (name, how) = (article(beyond), hard(beyond.effort));
        second.push(format!("{name} would come closer but is {how} to build: {}.", figures(beyond)));
    }
    std::iter::once(first).chain((!second.is_empty()).then(|| second.join(" "))).collect()
}

/// What is short, with both numbers.
fn told(ShortReport { name, reached, words, .. }: &ShortReport) -> String {
    format!("{} {reached}, {words}", lowered(name.split(',').next().unwrap_or(name)))
}

/// Whether a kind that is not considered is better by more than kinds differ that are as good.
fn is_better(beyond: &KindReport, best: &KindReport) -> bool {
    let closer = beyond.worst > best.worst * (1.0 + ALIKE);
    let smaller = beyond.worst >= best.worst
        && beyond.outside.zip(best.outside).is_some_and(|(a, b)| a < b * (1.0 - ALIKE));
    beyond.buildable && (closer || smaller || !best.buildable)
}

/// What another kind would give, and when a builder chooses it all the same.
fn other(kind: &KindReport) -> String {
    let gives = match (kind.design.is_some(), kind.buildable, kind.short.first()) {
        (false, ..) => return format!("{}: {}", kind.name, kind.reason),
        (true, false, _) => return format!("{}: cannot be built here.", kind.name),
        (true, true, None) => format!("all that is asked, with {}", figures(kind)),
        (true, true, Some(short)) => format!("{}; short: {}", figures(kind), told(short)),
    };
    format!("{} gives {gives}. Choose it where {}.", kind.name, chosen_where(kind.family))
}

/// When a builder chooses a kind (common practice).
fn chosen_where(family: RawFamily) -> &'static str {
    match family {
        RawFamily::Sealed => "the box must be small and the bass roll off gently",
        RawFamily::Ported => "depth and level matter more than size",
        RawFamily::PassiveRadiator => "a port would be too long or could be heard",
        RawFamily::Aperiodic => "a high Qts must be tamed in a small box",
        RawFamily::Bandpass4 => "one band must be loud and the cone hidden",
        RawFamily::Bandpass6Parallel | RawFamily::Bandpass6Series => {
            "level in one octave is worth a large box"
        }
        RawFamily::Line | RawFamily::MassLoadedLine => "a slim tower and calm delay are worth the folding",
        RawFamily::BackHorn | RawFamily::FrontHorn | RawFamily::TappedHorn => "level per watt matters most",
        RawFamily::SlotFlare => "punch on a stage matters more than depth",
        RawFamily::OpenBaffle => "no box is wanted at all",
        RawFamily::InfiniteBaffle => "there is a room behind a wall to use",
    }
}

fn figures(kind: &KindReport) -> String {
    let outside = kind.outside.map(|outside| format!("{:.0} l outside", outside * 1e3));
    let f3 = kind.f3.map(|f3| format!("F3 {f3:.1} Hz"));
    let loudness = kind.loudness.map(|loudness| format!("{loudness:.0} dB clean"));
    let cost = kind.cost.map(|cost| format!("about {cost:.0} in parts"));
    outside.into_iter().chain(f3).chain(loudness).chain(cost).collect::<Vec<_>>().join(", ")
}

fn article(kind: &KindReport) -> String {
    let noun = match kind.family {
        RawFamily::Sealed | RawFamily::Ported | RawFamily::Aperiodic => " box",
        _ => "",
    };
    let name = lowered(kind.name);
    let vowel = name.starts_with(['a', 'e', 'i', 'o', 'u']);
    format!("{} {name}{noun}", if vowel { "An" } else { "A" })
}

fn hard(effort: u8) -> &'static str {
    match effort {
        0..=1 => "easy",
        2 => "quite easy",
        3 => "harder",
        4 => "hard",
        _ => "very hard",
    }
}

fn lowered(words: &str) -> String {
    let mut letters = words.chars();
    letters.next().map_or_else(String::new, |first| first.to_lowercase().chain(letters).collect())
}
