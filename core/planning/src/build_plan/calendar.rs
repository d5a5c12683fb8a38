//! The steps laid into the hours that are free.
//!
//! Of the steps that can be begun the first in their order goes on; where none can because something dries, the next free hour is looked for. Times
//! are those of the workshop, without a zone.

use chrono::{Datelike, Duration, NaiveDate, NaiveDateTime, NaiveTime};

use super::step::Step;

/// When something is done.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Slot {
    /// Which step, as a position.
    pub step: usize,
    /// Begins.
    pub from: NaiveDateTime,
    /// Ends.
    pub to: NaiveDateTime,
    /// Whether it goes on after this in another slot.
    pub goes_on: bool,
    /// When what it leaves behind is dry or set.
    pub ready: NaiveDateTime,
}

/// A step that has been done.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Done {
    /// Its name.
    pub step: String,
    /// When.
    pub at: NaiveDateTime,
}

/// Hours on each day of the week from Monday on.
pub type Week = [f64; 7];

/// Work begins in the evening at this hour, on a day with more than a few hours in the morning at that one.
const EVENING: u32 = 18;
const MORNING: u32 = 9;
const LONG_DAY: f64 = 5.0;
/// Less than this is not begun, minutes.
const WORTH: i64 = 15;
/// How far ahead is planned, days.
const FAR: i64 = 3 * 366;

/// The hours of a day that are free.
fn window(week: &Week, day: NaiveDate) -> Option<[NaiveDateTime; 2]> {
    let hours = week[day.weekday().num_days_from_monday() as usize];
    let latest = if hours > LONG_DAY { MORNING } else { EVENING };
    // A long evening begins earlier rather than to end in the night.
    let begins = f64::from(latest).min(23.0 - hours).max(0.0);
    let from = day.and_time(NaiveTime::MIN) + minutes(begins * 60.0);
    (hours > 0.0).then(|| [from, from + minutes((hours * 60.0).min((24.0 - begins) * 60.0 - 1.0))])
}

fn minutes(minutes: f64) -> Duration {
    Duration::minutes(minutes.round() as i64)
}

/// Lays steps into the free hours from a day on; those that are done are left out, and what dries after them is waited for.
pub fn lay(steps: &[Step], week: &Week, begin: NaiveDateTime, done: &[Done]) -> Vec<Slot> {
    let done_at = |step: &Step| done.iter().find(|one| one.step == step.id).map(|one| one.at);
    let mut ready: Vec<Option<NaiveDateTime>> =
        steps.iter().map(|step| done_at(step).map(|at| at + wait(step))).collect();
    let mut slots = Vec::new();
    let mut now = begin;
    let last = begin + Duration::days(FAR);
    while ready.iter().any(Option::is_none) && now < last {
        let Some([from, to]) = window(week, now.date()) else {
            now = (now.date() + Duration::days(1)).and_time(NaiveTime::MIN);
            continue;
        };
        now = now.max(from);
        if to - now < Duration::minutes(WORTH) {
            now = (now.date() + Duration::days(1)).and_time(NaiveTime::MIN);
            continue;
        }
        let begins = |at: usize| begins_at(steps, &ready, at);
        let open = (0..steps.len()).filter(|at| ready[*at].is_none());
        let Some(next) = open.clone().find(|at| begins(*at).is_some_and(|at| at <= now)) else {
            // Something dries: until the first of it is ready.
            let soonest = open.filter_map(begins).min();
            now = soonest.unwrap_or(last).max(now + Duration::minutes(1));
            continue;
        };
        let mut left = minutes(steps[next].minutes);
        loop {
            let Some([from, to]) = window(week, now.date()) else {
                now = (now.date() + Duration::days(1)).and_time(NaiveTime::MIN);
                continue;
            };
            now = now.max(from);
            // Gluing is not put off half-way: what fits into one day is done in one.
            let whole = steps[next].clamps.is_some() && to - from >= left && to - now < left;
            if whole || to - now < Duration::minutes(WORTH).min(left) {
                now = (now.date() + Duration::days(1)).and_time(NaiveTime::MIN);
                continue;
            }
            let until = (now + left).min(to);
            left -= until - now;
            let goes_on = left > Duration::zero();
            let dry = until + wait(&steps[next]);
            slots.push(Slot { step: next, from: now, to: until, goes_on, ready: dry });
            now = until;
            if !goes_on {
                ready[next] = Some(dry);
                break;
            }
        }
    }
    slots
}

fn wait(step: &Step) -> Duration {
    step.wait.as_ref().map_or(Duration::zero(), |(_, hours)| minutes(hours * 60.0))
}

/// When a step can be begun at the soonest; nothing while something before it is not done.
fn begins_at(steps: &[Step], ready: &[Option<NaiveDateTime>], at: usize) -> Option<NaiveDateTime> {
    let before = steps.iter().zip(ready).filter(|(step, _)| steps[at].after.contains(&step.id));
    before
        .map(|(_, ready)| *ready)
        .collect::<Option<Vec<_>>>()
        .map(|all| all.into_iter().max().unwrap_or(NaiveDateTime::MIN))
}
