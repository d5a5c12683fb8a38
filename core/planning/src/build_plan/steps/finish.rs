//! The surface, and the last steps.

use oak_design::file::{RawFeet, RawFinish};

use super::{FUMES, LOUD, Plan, ROUTER};
use crate::build_plan::finish::{slower, stages};
use crate::build_plan::step::{Phase, Step};

impl Plan<'_, '_> {
    pub(super) fn finish(&mut self) {
        let making = self.making;
        let workshop = making.workshop;
        if workshop.finish == RawFinish::Raw {
            return;
        }
        let slow = slower(workshop.temperature);
        self.add(
            Step::new("finish.unmount", Phase::Finish, "Take everything out again", 20.0)
                .how("Driver, terminal and feet out, in a box with a lid; holes masked from inside.")
                .why("It has been proved; now it may become beautiful. Dust and paint stay off the driver.")
                .after(&["prove.leak", "prove.tuning", "prove.travel", "prove.port", "prove.volume"])
                .check("No dust can get inside."),
        );
        let round = workshop.round_over;
        if round > 0.0 {
            self.add(
                Step::new("finish.round", Phase::Finish, "Round the edges over", 25.0)
                    .how(format!("A round-over cutter of {:.0} mm with a bearing, in two passes; no screw or brad in its way.", round * 1e3))
                    .why("Edges that are round keep their paint and hurt no shin.")
                    .tools(&["router"])
                    .caution(ROUTER)
                    .after(&["finish.unmount"])
                    .check("No step to be felt between face and round."),
            );
        }
        let area = making.amounts.outside;
        let mut before: &'static str = if round > 0.0 { "finish.round" } else { "finish.unmount" };
        for stage in stages(workshop.finish, workshop.coats) {
            for coat in 1..=stage.coats {
                let many = stage.coats > 1;
                let id = if many { format!("{} {coat}", stage.id) } else { stage.id.to_owned() };
                let title = if many {
                    format!("{}, coat {coat} of {}", stage.title, stage.coats)
                } else {
                    stage.title.to_owned()
                };
                let minutes = (stage.minutes * area).max(if stage.minutes > 0.0 { 5.0 } else { 0.0 });
                let mut step = Step::new(id, Phase::Finish, title, minutes)
                    .how(stage.how)
                    .check(stage.check)
                    .wait(if stage.id == "finish.cure" { "hardening" } else { "drying" }, stage.wait * slow);
                step.parts = stage.ware.map(|(ware, _)| ware.to_owned()).into_iter().collect();
                step.parts.extend(stage.grits.iter().map(|grit| format!("paper {grit}")));
                if ["finish.veneer", "finish.carpet"].contains(&stage.id) {
                    step.parts.extend(self.lines(&["veneer", "carpet"]));
                }
                if stage.ware.is_some() || stage.id == "finish.sand" {
                    step.caution = Some(FUMES);
                }
                if ["finish.paint", "finish.clear"].contains(&stage.id) {
                    step = step.methods(&[
                        ("Roller", "Even, cheap, indoors; a fine orange skin stays."),
                        ("Spray", "Smooth; more coats, more masking, more fumes."),
                    ]);
                }
                // One after the other, whatever their names.
                step.after = vec![before.to_owned()];
                self.add(step);
            }
            before = stage.id;
        }
    }

    pub(super) fn done(&mut self) {
        let making = self.making;
        let finished = making.workshop.finish != RawFinish::Raw;
        let feet = self.lines(&["feet"]);
        let mut fit = Step::new("done.fit", Phase::Done, "Mount everything for good", 30.0)
            .how("Check the gaskets, tighten the screws crosswise, put feet, handles, corners and grille on. Cladding hovers a millimetre or two, so that it cannot rattle.")
            .why("Everything goes back as it was when it was proved.")
            .tools(&["screwdriver"])
            .after(if finished { &["finish.unmount", "finish.cure", "finish.carpet", "prove.travel"] } else { &["prove.travel", "prove.port"] })
            .check("Nothing rattles when you knock on every side.");
        fit.parts = feet;
        fit.parts.extend(self.lines(&["handle", "corner", "grille", "timber.frame"]));
        if making.workshop.feet != RawFeet::None {
            fit = fit.methods(&[
                ("Feet", "Rubber: floors are spared, and neighbours a little."),
                ("Spikes", "It cannot walk; a disc under each on wood."),
            ]);
        }
        self.add(fit);
        self.add(
            Step::new("done.leak", Phase::Done, "Leak test again", 10.0)
                .how("As before, with everything in its last place.")
                .why("A gasket that was lifted once does not always lie again.")
                .caution(LOUD)
                .after(&["done.fit"])
                .check("The cone takes a second to come back.")
                .fails("It leaks now.", "A new gasket.", None),
        );
        self.add(
            Step::new("done.record", Phase::Done, "Measure it and write it down", 30.0)
                .how("Impedance and near field as built; hours, money, and what went wrong into the log.")
                .why("A log of mistake, cause and fix is worth more than the plan.")
                .after(&["done.leak"])
                .check("The next one begins with what this one taught."),
        );
    }
}
