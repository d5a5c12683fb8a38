//! The steps of a build, in the order in which a builder works. Facts are common practice.

mod arrive;
mod assemble;
mod cut;
mod finish;
mod fit;

use oak_design::report::CutPanel;

use super::making::Making;
use super::parts::PartsList;
use super::step::{Phase, Step};

const SAW: &str = "Guards and push sticks at the saw; small parts held by clamps or tabs, never by double-sided tape. A respirator against the dust of MDF and hardwood.";
const ROUTER: &str =
    "Clamp the work; eyes, ears and a respirator. Take no more than a third of the depth at a time.";
const FIBRES: &str =
    "Gloves, long sleeves and a respirator with mineral or glass wool; keep fibres out of the port's path.";
const FUMES: &str = "Ventilate; a respirator against solvent and spray, gloves, no flame.";
const LOUD: &str =
    "Start low and stop at any buffeting. Ears: 85 dBA for 8 h, half the time for every 3 dB more (NIOSH).";
const MAINS: &str = "Mains inside: follow the maker's instructions and local electrical codes, and leave mains wiring to a licensed electrician.";
const HEAVY: &str = "Heavy: two people, and a bench while it is light.";

/// All of them.
pub(super) fn steps(making: &Making<'_>, parts: &PartsList) -> Vec<Step> {
    let mut plan = Plan { making, parts, steps: Vec::new() };
    plan.mock_up();
    plan.arrive();
    plan.cut();
    plan.holes();
    plan.assemble();
    plan.fit();
    plan.prove();
    plan.finish();
    plan.done();
    let ids: Vec<String> = plan.steps.iter().map(|step| step.id.clone()).collect();
    for (at, step) in plan.steps.iter_mut().enumerate() {
        step.after = before(&ids[..at], &step.id, &step.after);
        step.parts.sort();
        step.parts.dedup();
        // Each cabinet takes as long as the first.
        step.minutes *= f64::from(making.cabinets);
        if step.inside && step.phase > Phase::Assemble {
            step.reach = making.reach();
        }
    }
    plan.steps
}

/// The steps that come before one, of those before it: those it names, all coats of a coat that it names with them, and of a coat the one
/// before it. What this build does not have cannot come before.
fn before(earlier: &[String], id: &str, named: &[String]) -> Vec<String> {
    let coat_of = |id: &str| {
        id.rsplit_once(' ').and_then(|(name, coat)| Some((name.to_owned(), coat.parse::<u32>().ok()?)))
    };
    let last = coat_of(id).map(|(name, coat)| format!("{name} {}", coat.saturating_sub(1)));
    let is = |other: &String, name: &String| {
        other == name || other.strip_prefix(name.as_str()).is_some_and(|rest| rest.starts_with(' '))
    };
    let comes = |other: &&String| named.iter().any(|name| is(other, name)) || last.as_ref() == Some(*other);
    earlier.iter().filter(comes).cloned().collect()
}

struct Plan<'a, 'b> {
    making: &'b Making<'a>,
    parts: &'b PartsList,
    steps: Vec<Step>,
}

impl Plan<'_, '_> {
    fn add(&mut self, step: Step) {
        self.steps.push(step);
    }

    /// Lines of the parts list that begin with a name.
    fn lines(&self, begins: &[&str]) -> Vec<String> {
        let begins_so = |id: &str| begins.iter().any(|begin| id.starts_with(begin));
        self.parts.items.iter().map(|item| item.id.clone()).filter(|id| begins_so(id)).collect()
    }

    fn numbers(&self, wanted: impl Fn(&CutPanel) -> bool) -> Vec<u32> {
        self.making.cut.panels.iter().filter(|panel| wanted(panel)).map(|panel| panel.number).collect()
    }

    /// Work on all pieces of some boards of one cabinet, minutes.
    fn many(&self, minutes: f64, numbers: &[u32]) -> f64 {
        let panels = self.making.cut.panels.iter().filter(|panel| numbers.contains(&panel.number));
        let pieces: u32 = panels.map(|panel| panel.count).sum();
        minutes * f64::from(pieces) / f64::from(self.making.cabinets)
    }

    /// The thickness that the design had before it was measured, m.
    fn nominal(&self, material: &str, thickness: f64) -> f64 {
        let measured = self.making.raw.measured.iter().flat_map(|measured| &measured.boards);
        let read = |typed: &oak_design::file::Typed| oak_design::field::MEASURED_THICKNESS.read(Some(typed));
        measured
            .filter(|board| board.material.id() == material)
            .find(|board| read(&board.measured).is_some_and(|found| (found - thickness).abs() < 5e-5))
            .and_then(|board| read(&board.nominal))
            .unwrap_or(thickness)
    }

    fn driver_count(&self) -> String {
        match self.making.contents.drivers.in_all() * self.making.cabinets {
            1 => "One driver".to_owned(),
            many => format!("{many} drivers"),
        }
    }

    fn net(&self) -> f64 {
        self.making.cabinet.chambers.first().map_or(0.0, |chamber| chamber.ledger.net())
    }

    fn tuning(&self) -> Option<f64> {
        let compiled = &self.making.built.compiled;
        compiled.rear_tuning.as_ref().or(compiled.port_tuning.as_ref()).map(|tuning| tuning.reactance)
    }
}

/// A name as it stands within a sentence: abbreviations stay as they are.
fn in_a_sentence(name: &str) -> String {
    let second = name.chars().nth(1);
    if second.is_some_and(char::is_lowercase) {
        name.chars().take(1).flat_map(char::to_lowercase).chain(name.chars().skip(1)).collect()
    } else {
        name.to_owned()
    }
}
