//! Starting points for a brief: to its lowest note, no larger than its place, with a box that goes in.

use oak_acoustics::Stop;
use oak_design::file::RawBrief;
use oak_design::resolve::{Brief, resolve_brief, resolve_design};
use oak_design::start::{RawAsk, StartReport};
use oak_design::{Problem, field};

use crate::check::size;
use crate::fitted::fitted;

/// What every starting point of a family says, with a box that can be built where one is found; where there is a brief, for that.
///
/// # Errors
/// Every problem with what was given, with its place.
pub fn starts(ask: &RawAsk, stop: &Stop) -> Result<Vec<StartReport>, Vec<Problem>> {
    let none = RawBrief::default();
    let raw = ask.brief.as_ref().unwrap_or(&none);
    let brief = resolve_brief(raw).map_err(|problems| {
        problems.into_iter().map(|problem| problem.within("brief")).collect::<Vec<_>>()
    })?;
    let starts = briefed(ask, raw, &brief)?.answer(stop)?;
    let in_place = |start: StartReport| StartReport {
        design: start.design.map(|design| fitted(&brief, raw, design)),
        ..start
    };
    Ok(starts.into_iter().take_while(|_| !stop.stopped()).map(in_place).collect())
}

/// The same question with what the brief says of what is not asked.
fn briefed(ask: &RawAsk, raw: &RawBrief, brief: &Brief) -> Result<RawAsk, Vec<Problem>> {
    let mut ask = ask.clone();
    ask.space = ask.space.or(raw.space);
    if ask.lowest.is_none() {
        let allowed = field::TUNING.min..=field::TUNING.max;
        ask.lowest = brief
            .lowest
            .filter(|lowest| allowed.contains(lowest))
            .map(|lowest| field::TUNING.typed(lowest, 5));
    }
    if ask.volume.is_none()
        && let Some(room) = size::room(brief)
    {
        let blank = resolve_design(&ask.blank())?;
        let drivers = blank.driver_array.wiring.count();
        let left = size::left(room, drivers, size::frame(&blank.driver));
        if (field::VOLUME.min..=field::VOLUME.max).contains(&left) {
            ask.volume = Some(field::VOLUME.typed(left, 3));
        }
    }
    Ok(ask)
}
