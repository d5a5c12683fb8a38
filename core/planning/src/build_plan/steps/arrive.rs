//! What comes before the saw: a test box, and a look at what arrived.

use super::{LOUD, MAINS, Plan, SAW, in_a_sentence};
use crate::build_plan::step::{Measures, Phase, Step};

impl Plan<'_, '_> {
    pub(super) fn mock_up(&mut self) {
        if !self.making.workshop.mock_up {
            return;
        }
        let volume = self.net() * 1e3;
        let tuning =
            self.tuning().map_or(String::new(), |tuning| format!(" and the same tuning, {tuning:.1} Hz"));
        self.add(
            Step::new("mock.cut", Phase::MockUp, "Cut a test box from offcuts", 60.0)
                .how(format!("Square edges, any boards at hand; measure each. Its inside must hold {volume:.1} l net{tuning}: inside sizes count, not outside ones."))
                .why("It proves driver, volume and tuning for the price of some offcuts, before good wood is cut.")
                .tools(&["saw", "calliper", "clamps"])
                .caution(SAW)
                .check("Inside length times width times height, less what stands in it, is the volume above."),
        );
        self.add(
            Step::new("mock.assemble", Phase::MockUp, "Screw and seal the test box", 45.0)
                .how("Screws without glue, sealing tape or putty in every seam, the driver on a gasket, the port held by tape.")
                .why("It is taken apart again.")
                .after(&["mock.cut"])
                .check("The cone comes back slowly when it is pushed in."),
        );
        self.add(
            Step::new("mock.measure", Phase::MockUp, "Measure the test box", 40.0)
                .how("Impedance sweep with the port open and closed; near field of cone and port.")
                .why("What it finds flows into the design: losses, the driver as it is, the length of the port.")
                .after(&["mock.assemble"])
                .caution(LOUD)
                .check("The tuning is within 1 Hz of the design's.")
                .fails("The test box is tuned beside the design.", "Correct the port's length, and the driver's values as they were measured.", Some("enclosure.ports.length")),
        );
    }

    pub(super) fn arrive(&mut self) {
        let making = self.making;
        let drivers = making.contents.drivers;
        let sound: Vec<String> = self.lines(&["driver", "radiator", "amplifier", "washer", "radiator.bolt"]);
        let mut inspect = Step::new("arrive.parts", Phase::Arrive, "Look at what arrived", 20.0)
            .how("Push the cone in evenly with all fingers: no scraping. Measure the coil's resistance. Look at the amplifier's back: sealed or open?")
            .why("What is wrong goes back before a hole is cut for it.")
            .tools(&["multimeter"])
            .check(format!("{} at {:.1} ohm, nothing scrapes.", self.driver_count(), making.built.design.driver.driver.re))
            .fails("A part is not what was ordered.", "Send it back, or enter what it is as another driver.", Some("driver"));
        inspect.parts =
            sound.into_iter().filter(|id| !id.starts_with("washer") && id != "radiator.bolt").collect();
        if making.has_amplifier_inside() {
            inspect = inspect.caution(MAINS);
        }
        self.add(inspect);
        let mut cutout = Step::new("arrive.cutout", Phase::Arrive, "Measure the hole that the driver needs", 5.0)
            .how("Calliper across the basket where it passes the board, gasket included, in two directions; take the larger.")
            .why("Sheets round; a hole that is too tight ends up leaking, a loose one leaves no wood for the screws.")
            .tools(&["calliper"])
            .check(format!("It is {:.1} mm, as drawn; else type what it is.", drivers.cutout * 1e3))
            .after(&["arrive.parts"])
            .methods(&[
                ("Tight", "No play: the basket is held and centred by its hole."),
                ("Rounded up", "To the next size of cutter: what is forced in tears the gasket and leaks."),
            ]);
        cutout.measures = Some(Measures::of("cutout", drivers.cutout));
        self.add(cutout);
        let mut depth = Step::new("arrive.depth", Phase::Arrive, "Measure how deep the driver is", 3.0)
            .how("From the front of the frame to the back of the magnet.")
            .why("A magnet against a brace or the back wall is found out too late.")
            .tools(&["ruler"])
            .check(format!("It is {:.0} mm, as drawn; else type what it is.", drivers.depth * 1e3))
            .after(&["arrive.parts"]);
        depth.measures = Some(Measures::of("depth", drivers.depth));
        self.add(depth);
        for group in &making.sheets {
            let id = format!(
                "arrive.board {} {}",
                group.material.id,
                oak_units::significant(group.thickness * 1e3, 3)
            );
            let mut board = Step::new(id, Phase::Arrive, format!("Measure the {} of {} mm", in_a_sentence(group.material.name), oak_units::significant(group.thickness * 1e3, 3)), 5.0)
                .how("Calliper in four places of every sheet.")
                .why("Ply of 18 mm is often 17.5, and two layers make a millimetre: sizes of every board, net volume and tuning follow.")
                .tools(&["calliper"])
                .check(format!("It is {:.1} mm everywhere; else type what it is.", group.thickness * 1e3));
            board.parts = self.lines(&[&format!(
                "board {} {} mm",
                group.material.id,
                oak_units::significant(group.thickness * 1e3, 3)
            )]);
            board.measures = Some(Measures {
                what: "thickness",
                material: Some(group.material.id),
                drawn: self.nominal(group.material.id, group.thickness),
            });
            self.add(board);
        }
        self.add(
            Step::new("arrive.break_in", Phase::Arrive, "Break the driver in", 10.0)
                .how("In free air, clamped, a sine of about 30 Hz at half its travel.")
                .why("New suspensions are stiff: its resonance falls, and what is measured before and after differs a lot.")
                .tools(&["amplifier", "signal source"])
                .after(&["arrive.parts"])
                .wait("break-in", 2.0)
                .caution(LOUD)
                .check("The coil is no more than lukewarm, nothing rattles."),
        );
    }
}
