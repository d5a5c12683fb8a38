//! Filters that would help, each put in and computed.

use std::f64::consts::SQRT_2;

use oak_design::field::{self, Field};
use oak_design::file::{RawFilter, RawFilterKind, Typed};
use oak_design::resolve::resolve_filter;
use oak_signal::filter::FLATTEST;
use oak_signal::helper::{Protection, flatten, protect, transform};
use serde::Serialize;
use utoipa::ToSchema;

use super::survey::{Survey, decibels, magnitude, signed};
use crate::case::upper_end;

/// A filter that would help, or why none does.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Proposal {
    /// `protect`, `flatten`, `transform` or `extend`.
    pub id: &'static str,
    /// What it is for.
    pub name: &'static str,
    /// What it does here, what it costs, or why there is none.
    pub words: String,
    /// To be added behind the others; absent where none helps or none is needed.
    pub filter: Option<RawFilter>,
}

pub(super) fn proposals(present: &[RawFilter], survey: &Survey) -> Vec<Proposal> {
    let all = [protecting(survey), flattening(survey), transforming(present, survey), extending(survey)];
    all.into_iter().flatten().collect()
}

fn typed(field: &'static Field, value: f64, digits: u32) -> Option<Typed> {
    Some(field.typed(value, digits))
}

/// Largest travel once a filter is added, m, and where, Hz.
fn travel_with(survey: &Survey, filter: &RawFilter) -> [f64; 2] {
    let chain = resolve_filter(filter).unwrap_or_default();
    survey.largest_travel(|frequency| magnitude(&chain, frequency))
}

/// The gentlest high-pass of fourth order that keeps the cone within Xmax at this drive.
fn protecting(survey: &Survey) -> Option<Proposal> {
    const ORDER: u32 = 4;
    let (id, name) = ("protect", "Protect the cone");
    let xmax = survey.design.allowance.xmax?;
    let vented = survey.figures.excursion_minimum.map(|still| still.frequency);
    let none = |words: String| Some(Proposal { id, name, words, filter: None });
    let volts = survey.design.drive.volts;
    match protect(survey.frequencies(), &survey.travel, xmax, ORDER, vented) {
        Protection::NotNeeded => none(format!(
            "No high-pass is needed: at {volts:.1} V the cone stays within ±{:.1} mm at every frequency.",
            xmax * 1e3
        )),
        Protection::LessPower(share) => {
            let power = (volts * volts / survey.design.as_driven().nominal) * share;
            none(format!(
                "No high-pass helps: above the tuning the cone already moves {:.1} mm at {volts:.1} V. {power:.0} W keep it within ±{:.1} mm.",
                xmax * 1e3 / share.sqrt(),
                xmax * 1e3
            ))
        }
        Protection::HighPass(corner) => {
            // Rounded up, so that it still protects.
            let corner = (corner * 10.0).ceil() / 10.0;
            let filter = RawFilter {
                kind: RawFilterKind::HighPass,
                order: Some(Typed::from(f64::from(ORDER))),
                frequency: typed(&field::FILTER_FREQUENCY, corner, 4),
                ..RawFilter::default()
            };
            let [before, at] = survey.largest_travel(|_| 1.0);
            let [after, _] = travel_with(survey, &filter);
            let lowest = survey.lowest().map_or_else(String::new, |lowest| {
                let chain = resolve_filter(&filter).unwrap_or_default();
                format!(" It costs {:.1} dB at {lowest:.0} Hz.", -decibels(magnitude(&chain, lowest)))
            });
            Some(Proposal {
                id,
                name,
                words: format!(
                    "High-pass {corner:.1} Hz, 24 dB/octave: the lowest that keeps the cone within ±{:.1} mm at {volts:.1} V; {:.1} mm at {at:.0} Hz become {:.1} mm.{lowest}",
                    xmax * 1e3,
                    before * 1e3,
                    after * 1e3
                ),
                filter: Some(filter),
            })
        }
    }
}

/// One band against the highest peak of what is played.
fn flattening(survey: &Survey) -> Option<Proposal> {
    let from = survey.nearest(survey.lowest().or(survey.figures.f3)?);
    let to = survey.nearest(
        survey
            .brief
            .as_ref()
            .map_or(200.0, |brief| brief.lowest.map_or(200.0, |lowest| upper_end(brief, lowest))),
    );
    if to <= from + 4 {
        return None;
    }
    let found =
        flatten(&survey.frequencies()[from..=to], &survey.level[from..=to], survey.figures.reference_level)?;
    let filter = RawFilter {
        kind: RawFilterKind::Parametric,
        frequency: typed(&field::FILTER_FREQUENCY, found.frequency, 3),
        gain: typed(&field::FILTER_GAIN, (found.gain * 10.0).round() / 10.0, 3),
        q: typed(&field::FILTER_Q, found.q.clamp(field::FILTER_Q.min, field::FILTER_Q.max), 2),
        ..RawFilter::default()
    };
    let words = format!(
        "A cut of {:.1} dB at {:.0} Hz, Q {:.2}, takes the peak from {} to {} dB. It costs no travel and no power. A dip that the room makes is not filled so: \
         only peaks can be taken down.",
        -found.gain,
        found.frequency,
        found.q,
        signed(found.peak[0]),
        signed(found.peak[1])
    );
    Some(Proposal { id: "flatten", name: "Take the peak down", words, filter: Some(filter) })
}

/// The lowest corner of a sealed box at which the level stays clean.
fn transforming(present: &[RawFilter], survey: &Survey) -> Option<Proposal> {
    let closed = survey.built.compiled.closed_box?;
    let there = |filter: &RawFilter| filter.kind == RawFilterKind::LinkwitzTransform && !filter.bypassed;
    if present.iter().any(there) {
        return None;
    }
    let (id, name) = ("transform", "Give the box a lower corner");
    let level = survey.asked().unwrap_or(survey.figures.reference_level);
    let own = [closed.fc, closed.qtc];
    let from = survey.nearest(5.0);
    let Some(found) =
        transform(&survey.frequencies()[from..], &survey.max_output.level[from..], level, own, FLATTEST)
    else {
        let words = format!(
            "{level:.0} dB at 1 m is more than this box gives cleanly even at its own corner of {:.0} Hz.",
            closed.fc
        );
        return Some(Proposal { id, name, words, filter: None });
    };
    // Rounded up, so that it can still be paid for.
    let corner = (found.frequency * 10.0).ceil() / 10.0;
    if corner > 0.97 * closed.fc
        || !(field::WANTED_FREQUENCY.min..=field::WANTED_FREQUENCY.max).contains(&corner)
    {
        return None;
    }
    let filter = RawFilter {
        kind: RawFilterKind::LinkwitzTransform,
        frequency: typed(&field::FILTER_FREQUENCY, closed.fc, 4),
        q: typed(&field::FILTER_Q, closed.qtc, 3),
        wanted_frequency: typed(&field::WANTED_FREQUENCY, corner, 4),
        wanted_q: typed(&field::WANTED_Q, 1.0 / SQRT_2, 3),
        ..RawFilter::default()
    };
    let boost = 40.0 * (closed.fc / corner).log10();
    let words = format!(
        "A Linkwitz transform from {:.1} Hz, Q {:.2}, to {corner:.1} Hz, Q 0.71: the lowest at which {level:.0} dB at 1 m stays clean with this amplifier and cone. It boosts {boost:.1} dB at the \
         lowest frequencies, {:.1} times the power there; add a subsonic filter against what lies below.",
        closed.fc,
        closed.qtc,
        10f64.powf(boost / 10.0)
    );
    Some(Proposal { id, name, words, filter: Some(filter) })
}

/// Says where travel (m) passes Xmax at this drive, and by how much the drive must come down.
fn too_far(survey: &Survey, travel: f64) -> String {
    match survey.design.allowance.xmax {
        Some(xmax) if travel > xmax => {
            format!(
                ", past its ±{:.1} mm: play {:.1} dB softer or add a high-pass",
                xmax * 1e3,
                decibels(travel / xmax)
            )
        }
        _ => String::new(),
    }
}

/// A boost at the lowest note of a vented box, with what it takes.
fn extending(survey: &Survey) -> Option<Proposal> {
    let (lowest, tuning) = (survey.lowest()?, survey.built.compiled.port_tuning.as_ref()?.reactance);
    let k = survey.nearest(lowest);
    let missing = survey.figures.reference_level - survey.level[k];
    if missing < 1.0 {
        return None;
    }
    let (id, name) = ("extend", "Reach the lowest note by a boost");
    let most = survey.max_output.level[k];
    let level = survey.asked().unwrap_or(survey.figures.reference_level);
    let none = |words: String| Some(Proposal { id, name, words, filter: None });
    if lowest < 0.9 * tuning {
        return none(format!(
            "{lowest:.0} Hz lies below the tuning of {tuning:.1} Hz, where the cone is not held: never boost there. Tune lower in a larger box."
        ));
    }
    if most < level {
        return none(format!(
            "{missing:.1} dB are missing at {lowest:.0} Hz, and no boost brings them: what limits there leaves {most:.1} dB at 1 m, {level:.0} dB are asked."
        ));
    }
    let gain = missing.min(6.0);
    let filter = RawFilter {
        kind: RawFilterKind::Parametric,
        frequency: typed(&field::FILTER_FREQUENCY, lowest, 3),
        gain: typed(&field::FILTER_GAIN, (gain * 10.0).round() / 10.0, 3),
        q: Some(Typed::from(1.4)),
        ..RawFilter::default()
    };
    let [travel, at] = travel_with(survey, &filter);
    Some(Proposal {
        id,
        name,
        words: format!(
            "{gain:.1} dB at {lowest:.0} Hz, Q 1.4: {:.1} times the power there, and the cone moves up to {:.1} mm at {at:.0} Hz{}. Boost last: first try a larger box tuned lower.",
            10f64.powf(gain / 10.0),
            travel * 1e3,
            too_far(survey, travel)
        ),
        filter: Some(filter),
    })
}
