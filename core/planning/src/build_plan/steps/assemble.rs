//! The box is put together, with all that no hand reaches afterwards.

use oak_design::file::{RawAssembly, RawGlue};

use super::{FIBRES, FUMES, HEAVY, LOUD, Plan};
use crate::build_plan::catalogue::Glue;
use crate::build_plan::finish::slower;
use crate::build_plan::hardware::{Screw, clamps};
use crate::build_plan::sheets::is_of_sheets;
use crate::build_plan::step::{Phase, Step};

impl Plan<'_, '_> {
    pub(super) fn assemble(&mut self) {
        let making = self.making;
        let glue = Glue::of(making.workshop.glue);
        let slow = slower(making.workshop.temperature);
        let clamp = glue.clamp * slow;
        let body = &making.built.design.body;
        let [low, high] = making.cabinet.outer.bounds();
        let outside = [0, 1, 2].map(|k| high[k] - low[k]);
        let widest = outside.into_iter().fold(0.0, f64::max);
        let outer = self.numbers(|panel| panel.outside);
        let inner = self.numbers(|panel| !panel.outside && is_of_sheets(panel));
        self.add(
            Step::new("glue.dry", Phase::Assemble, "Put it together dry", 30.0)
                .how("Everything, with clamps and without glue, driver and port held in. Sand a brace flush that stands proud.")
                .why("A brace half a millimetre proud lifts the front off its edges.")
                .tools(&["clamps", "square"])
                .panels(self.numbers(|_| true))
                .after(&["holes.cut", "holes.ports", "holes.plates", "holes.windows", "holes.grooves", "holes.dowels", "cut.bevels", "cut.label"])
                .check("No gap lets a card through, the driver goes in, diagonals are equal.")
                .fails("A joint does not close.", "Find the board that is too long; never close it with a clamp's force.", None),
        );
        if !inner.is_empty() {
            self.add(
                Step::new("glue.mark", Phase::Assemble, "Mark the boards inside", 10.0)
                    .how("With everything dry in place draw along every brace and fold, and carry the line to the outside.")
                    .why("A nail beside the brace goes into the air, and shows.")
                    .tools(&["square", "pencil"])
                    .panels(inner.clone())
                    .after(&["glue.dry"])
                    .check("Every brace is square to its board, and its line stands outside."),
            );
        }
        self.add(
            Step::new("glue.port_paint", Phase::Assemble, "Seal or paint the inside", 30.0)
                .how("The whole inside, dark where one looks into the port; glued faces stay bare, masked with tape.")
                .why("Raw MDF breathes, and one sees into the port for ever.")
                .tools(&["brush", "masking tape"])
                .parts(&["sealer"])
                .caution(FUMES)
                .wait("sealer", 4.0 * slow)
                .after(&["glue.dry"])
                .check("No bare wood but where glue goes.")
                .methods(&[
                    ("Only the port", "What is seen is painted; the rest is in the dark."),
                    ("The whole inside", "Sealed wood takes no damp and leaks no air through the edges."),
                ]),
        );
        let mut first = Step::new("glue.first", Phase::Assemble, "Glue the first U", 30.0)
            .how("Three outer boards, with a fourth unglued between them as jig. A bead, spread to an even film, clamps from the middle outwards. Thick glue slides: clamp again after half a minute.")
            .why("Three boards that stand square hold everything that follows square.")
            .tools(&["clamps", "square", "damp cloth"])
            .parts(&[glue.id])
            .caution(HEAVY)
            .wait(glue.name, clamp)
            .after(&["glue.port_paint", "glue.mark"])
            .check("Square inside in both corners while it can still be moved.")
            .methods(&[
                ("Glue and nails", "Brads hold while glue sets: quick, few clamps; filler over every head."),
                ("Clamps only", "Nothing to fill; 8 to 12 clamps of a big box, one joint after the other."),
                ("Pocket screws", "Pull every joint tight from inside; no clamps, pockets show inside only."),
            ]);
        first.panels = outer.iter().copied().take(3).collect();
        let around = making
            .cut
            .panels
            .iter()
            .filter(|panel| panel.outside)
            .map(|panel| 2.0 * (panel.size[0] + panel.size[1]));
        first.clamps = Some((clamps(around.fold(0.0, f64::max)), widest + 0.1));
        first.parts.extend(self.lines(&["brads", "screw.pocket", "dowel"]));
        if making.workshop.assembly == RawAssembly::Screws {
            first.parts.push(format!("screw.wood {}", Screw::into_edge(body.panel.thickness).name()));
        }
        if making.workshop.temperature < glue.coldest {
            first.caution = Some("Too cold for this glue: it does not set. Warm the workshop, or wait.");
        }
        let clamps_needed = first.clamps;
        self.add(first);
        if making.cut.panels.iter().any(|panel| panel.layer.is_some()) {
            let mut layers = Step::new("glue.layers", Phase::Assemble, "Glue double boards on each other", 20.0)
                .how("Glue spread over the whole face, screws or weights in the middle, clamps round the edge; holes lined up on the pin.")
                .why("A layer that lifts in the middle rattles.")
                .tools(&["clamps", "glue roller"])
                .parts(&[glue.id])
                .panels(self.numbers(|panel| panel.layer.is_some()))
                .wait(glue.name, clamp)
                .after(&["glue.port_paint"])
                .check("Tapped all over it sounds the same.");
            layers.clamps = clamps_needed;
            self.add(layers);
        }
        if !inner.is_empty() {
            let mut inside = Step::new("glue.inside", Phase::Assemble, "Glue the boards inside", self.many(8.0, &inner) + 10.0)
                .how("Partitions and folds first, then braces, each on its line; glue on every edge that meets a board.")
                .why("A brace that is not glued all round rattles.")
                .tools(&["clamps", "square"])
                .parts(&[glue.id])
                .panels(inner)
                .wait(glue.name, clamp)
                .after(&["glue.first", "glue.mark"])
                .check("Square, on its line, flush with the edges that the last board lies on.")
                .inside();
            inside.clamps = clamps_needed;
            self.add(inside);
        }
        if body.strips > 0.0 {
            let mut strips = Step::new("glue.strips", Phase::Assemble, "Glue the corner strips", 20.0)
                .how("Along every inside edge that is open yet; the last ones on the closing board, so that they fall into place.")
                .why("They double the glued face of a joint.")
                .tools(&["clamps"])
                .panels(self.numbers(|panel| !is_of_sheets(panel)))
                .wait(glue.name, clamp)
                .after(&["glue.first"])
                .check("No strip blocks the closing board.")
                .inside();
            strips.parts = self.lines(&["timber.strip"]);
            strips.parts.push(glue.id.to_owned());
            self.add(strips);
        }
        self.early();
        let folded = making.cabinet.fold.is_some();
        if folded {
            self.add(
                Step::new("glue.listen", Phase::Assemble, "Clamp the last side on and listen", 45.0)
                    .how("The side on with clamps and tape as a gasket, driver in; sweep and listen before it is glued.")
                    .why("A line or horn can only be changed while it is open: fill moved, a fold shifted.")
                    .tools(&["clamps", "amplifier"])
                    .caution(LOUD)
                    .after(&["glue.inside", "glue.fill", "glue.wire"])
                    .check("Impedance peaks are where the design has them, and nothing honks.")
                    .fails("A resonance stands out.", "More fill near the closed end, or a softer corner, before it is glued.", Some("enclosure.fill")),
            );
        }
        let mut close = Step::new("glue.close", Phase::Assemble, "Glue the last boards", 40.0)
            .how("One after the other, the largest opening last. Glue on every edge; wipe what comes out inside while a hand still reaches it.")
            .why("After this nothing goes in but through the holes.")
            .tools(&["clamps", "damp cloth"])
            .parts(&[glue.id])
            .caution(HEAVY)
            .wait(&format!("{} to full strength", glue.name), glue.full * slow)
            .after(&["glue.first", "glue.inside", "glue.layers", "glue.strips", "glue.listen", "glue.seams", "glue.fill", "glue.wire", "glue.flares", "glue.port"])
            .check("Glue comes out of every joint all round.")
            .fails("A joint stands open.", "Inject glue, clamp again; a gap of over half a millimetre gets a sliver of wood.", None)
            .methods(&[
                ("Glue and nails", "Closed in minutes."),
                ("Clamps only", "Ten minutes of clamping, no heads to fill."),
                ("Pocket screws", "Not for the last board: its pockets would be outside."),
            ]);
        close.clamps = clamps_needed;
        close.panels = outer.iter().copied().skip(3).collect();
        self.add(close);
        if making.workshop.glue == RawGlue::Polyurethane
            && let Some(step) = self.steps.last_mut()
        {
            step.how.push_str(" It foams: mask what is seen.");
        }
    }

    /// What must be done inside before the last board, because no hand or part gets there afterwards.
    pub(super) fn early(&mut self) {
        let making = self.making;
        let reaches = making.hands_reach();
        let mut flares: Vec<String> = Vec::new();
        for (name, width, passes) in making.wide_flares() {
            if !passes {
                flares.push(format!("{name}: {:.0} mm", width * 1e3));
            }
        }
        if !flares.is_empty() {
            self.add(
                Step::new("glue.flares", Phase::Assemble, "Put wide flares in from inside", 15.0)
                    .how(format!("They pass no hole of the closed box: {}. Put them on their tubes now, and the tubes in place.", flares.join(", ")))
                    .why("The flare inside is wider than its own hole.")
                    .after(&["glue.first", "glue.port_paint"])
                    .check("The tube can still be drawn or trimmed for tuning.")
                    .inside(),
            );
        }
        if !reaches {
            self.seams(Phase::Assemble, "glue.seams", &["glue.first", "glue.inside", "glue.strips"]);
            self.fill(Phase::Assemble, "glue.fill", &["glue.seams"]);
            self.wire(Phase::Assemble, "glue.wire", &["glue.seams"]);
        } else if making.cabinet.fold.is_some() {
            self.fill(Phase::Assemble, "glue.fill", &["glue.inside"]);
        }
    }

    pub(super) fn seams(&mut self, phase: Phase, id: &'static str, after: &[&'static str]) {
        self.add(
            Step::new(id, phase, "Seal every seam inside", 30.0)
                .how("A bead in every corner, round every brace, tube and nut; smoothed with a wet finger.")
                .why("Small leaks cost more than anything else in a box, and hiss.")
                .tools(&["cartridge gun"])
                .parts(&["sealant"])
                .wait("sealant", 12.0 * slower(self.making.workshop.temperature))
                .after(after)
                .check("With a lamp inside and the room dark no light shows.")
                .inside(),
        );
    }

    pub(super) fn fill(&mut self, phase: Phase, id: &'static str, after: &[&'static str]) {
        let lines = self.lines(&["fill."]);
        if lines.is_empty() {
            return;
        }
        let mut fill = Step::new(id, phase, "Lay the fill", 20.0)
            .how("Weigh it, fluff it up, lay it where the box plan says; netting or a few staples keep it off the port and the driver.")
            .why("Too dense is worse than none, and wool in a port is a leak with a sound.")
            .tools(&["scale", "stapler"])
            .after(after)
            .caution(FIBRES)
            .check("Nothing lies within a hand's breadth of the port's inner end or of the cone.")
            .methods(&[
                ("Heavy fill", "Even in ported boxes: what is behind the cone must not come back."),
                ("Foam in the chamber only", "The port stays free."),
                ("Damping sheet alone", "Walls are quiet, air stays free."),
                ("None", "For liveliness, where the box plays low enough that nothing stands in it."),
            ])
            .inside();
        fill.parts = lines;
        self.add(fill);
    }

    pub(super) fn wire(&mut self, phase: Phase, id: &'static str, after: &[&'static str]) {
        let mut wire = Step::new(id, phase, "Lay the leads", 20.0)
            .how(format!("{:.1} m to each driver: along the walls, tied so that nothing rattles, {:.0} mm hanging out of the hole.", self.making.lead(), self.making.workshop.slack * 1e3))
            .why("A lead that is too short cannot be connected, one that lies loose rattles.")
            .tools(&["crimping tool", "cutter"])
            .after(after)
            .check("Plus and minus are marked at both ends.")
            .methods(&[
                ("Soldered", "Lasts, and never slips off; harder to swap."),
                ("Ring terminals", "Screwed on, for amplifiers and posts."),
                ("Crimped spades", "Quick to swap; the right width, with sleeves."),
            ])
            .inside();
        wire.parts = self.lines(&["wire", "spade", "ring", "solder"]);
        self.add(wire);
    }
}
