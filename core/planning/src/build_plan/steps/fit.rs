//! What goes into the closed box, and its proof.

use oak_cabinetry::PartKind;
use oak_design::file::RawFixing;

use super::{LOUD, MAINS, Plan};
use crate::build_plan::finish::slower;
use crate::build_plan::step::{Measures, Phase, Step};

impl Plan<'_, '_> {
    pub(super) fn fit(&mut self) {
        let making = self.making;
        if making.hands_reach() {
            self.seams(Phase::Fit, "fit.seams", &["glue.close"]);
            self.wire(Phase::Fit, "fit.wire", &["fit.seams", "glue.close"]);
            if making.cabinet.fold.is_none() {
                self.fill(Phase::Fit, "fit.fill", &["fit.seams", "fit.wire", "glue.close"]);
            }
        }
        if !self.lines(&["tube"]).is_empty() {
            let mut port = Step::new("fit.port", Phase::Fit, "Put the port in, held by tape", 15.0)
                .how("Some 20 mm longer than drawn. Tape it tight all round, not glued.")
                .why("It is trimmed when the tuning is known.")
                .tools(&["saw", "tape"])
                .after(&["glue.close"])
                .check("Nothing hisses round the tape.")
                .inside();
            port.parts = self.lines(&["tube", "flare", "elbow", "coupling"]);
            self.add(port);
        }
        let mut screws = format!(
            "screw.{}",
            if making.workshop.fixing == RawFixing::WoodScrews { "wood" } else { "machine" }
        );
        if let (RawFixing::WoodScrews, Some(screw)) = (making.workshop.fixing, making.driver_screw()) {
            screws = format!("screw.wood {}", screw.name());
        }
        let plates = making
            .built
            .design
            .body
            .items
            .iter()
            .any(|item| item.block.is_some_and(|block| block.opening.is_some()));
        let lines = self.lines(&["terminal", "amplifier"]);
        let inside = making.has_amplifier_inside();
        if plates || !lines.is_empty() {
            let mut terminal = Step::new("fit.terminal", Phase::Fit, "Mount the terminal or amplifier", 20.0)
                .how("On its gasket, screws crosswise, the lead pulled through first.")
                .why("A cup without a gasket is the second commonest leak.")
                .tools(&["screwdriver"])
                .parts(&["gasket"])
                .after(&["glue.close", "fit.wire", "fit.fill", "holes.plates"])
                .check("Nothing rattles when you knock beside it; no air passes.");
            terminal.parts.extend(lines);
            if plates {
                terminal.parts.extend(self.lines(&["screw.wood 4 x 20 mm"]));
            }
            if inside {
                terminal = terminal.caution(MAINS);
            }
            if making.lacks_terminal_hole() {
                terminal.how.push_str(" Its hole is not in the drawing yet: put it there on the sheet Holes, so that templates and drawings have it.");
            }
            self.add(terminal);
        }
        if making.has(PartKind::Radiator) {
            let mut radiators = Step::new("fit.radiators", Phase::Fit, "Mount the radiators", 20.0)
                .how("On their gaskets, weights on first and weighed with bolt and nut, locked so that they cannot turn loose.")
                .why("Loose weights rattle, and a gram is a tenth of a hertz.")
                .tools(&["screwdriver", "scale"])
                .parts(&["gasket"])
                .after(&["glue.close"])
                .check("Each hangs free and moves without scraping.");
            radiators.parts.extend(self.lines(&["radiator", "washer"]));
            radiators.parts.extend(self.lines(&[&screws]));
            self.add(radiators);
        }
        let mut driver = Step::new("fit.driver", Phase::Fit, "Mount the driver", 20.0)
            .how("Vacuum the box first. Gasket, driver in, screws crosswise, the last turns by hand. No power tool near the cone.")
            .why("A bit that slips goes through the cone; over-tightened screws bend the frame and strip the wood.")
            .tools(&["screwdriver", "vacuum cleaner"])
            .parts(&["driver", "gasket"])
            .after(&["glue.close", "fit.wire", "fit.fill", "fit.port", "fit.seams", "holes.pilots"])
            .check("The frame lies on all round; the cone moves without scraping.");
        driver.parts.extend(self.lines(&[&screws]));
        self.add(driver);
    }

    pub(super) fn prove(&mut self) {
        let making = self.making;
        self.add(
            Step::new("prove.leak", Phase::Prove, "Leak test", 10.0)
                .how("Port taped shut: push the cone in slowly and let go. Then a loud low tone, and a wet finger or an incense stick along every seam.")
                .why("A box that leaks has neither the tuning nor the damping of its plan.")
                .tools(&["tape"])
                .caution(LOUD)
                .after(&["fit.driver", "fit.terminal", "fit.radiators"])
                .check("The cone takes a second to come back, nothing flaps.")
                .fails("It leaks.", "Find it with the incense stick: gasket, terminal, a seam, a screw hole. Seal it and test again.", None),
        );
        if let Some(tuning) = self.tuning() {
            let mut tune = Step::new("prove.tuning", Phase::Prove, "Find the tuning", 25.0)
                .how(format!("Impedance sweep: the dip between the two peaks should be at {tuning:.1} Hz. Trim the port a little at a time until it is."))
                .why("No formula gets the ends of a real port quite right.")
                .tools(&["measuring rig or multimeter and resistor"])
                .caution(LOUD)
                .after(&["prove.leak"])
                .check(format!("{tuning:.1} Hz to half a hertz."))
                .fails("The tuning is off.", "Too low: trim the port. Too high: a longer one, or a solid block in the box.", Some("enclosure.ports.length"));
            tune.inside = false;
            self.add(tune);
        }
        let mut volume = Step::new("prove.volume", Phase::Prove, "Find the net volume", 20.0)
            .how("From the impedance with the port shut, or by pouring: bags of loose fill, litre by litre.")
            .why("Boards, glue and what was forgotten: the tuning follows the volume that is there.")
            .after(&["prove.leak"])
            .check(format!("{:.1} l to 2 %; else type what it is.", self.net() * 1e3))
            .fails(
                "The volume is not that of the plan.",
                "Type it: length of the port and tuning follow.",
                Some("enclosure.ports.length"),
            );
        volume.measures = Some(Measures::of("volume", self.net()));
        self.add(volume);
        self.add(
            Step::new("prove.travel", Phase::Prove, "Listen at full travel", 20.0)
                .how("A slow sweep from 20 Hz to the crossover at rising level; then music you know.")
                .why("What buzzes now is cured with a screw; under veneer it stays.")
                .caution(LOUD)
                .after(&["prove.leak", "prove.tuning"])
                .check("No buzz, no hiss, no knock up to the level you asked for.")
                .fails(
                    "Something buzzes.",
                    "Hold boards and parts one by one until it stops; brace, seal or damp that.",
                    None,
                ),
        );
        if !self.lines(&["tube"]).is_empty() {
            self.add(
                Step::new("prove.port", Phase::Prove, "Glue the port", 10.0)
                    .how("Now that its length is proved: glue or sealant all round.")
                    .why("Tape lets go.")
                    .parts(&["sealant"])
                    .wait("sealant", 12.0 * slower(making.workshop.temperature))
                    .after(&["prove.tuning", "prove.travel", "fit.port"])
                    .check("It does not move when you pull."),
            );
        }
    }
}
