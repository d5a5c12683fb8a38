//! The steps of a build, in the order in which a builder works. Facts are common practice.

use oak_cabinetry::PartKind;
use oak_cabinetry::cut::HoleKind;
use oak_design::file::{RawAssembly, RawFeet, RawFinish, RawFixing, RawGlue, RawTerminal};
use oak_design::report::CutPanel;

use super::catalogue::Glue;
use super::finish::{slower, stages};
use super::hardware::clamps;
use super::making::Making;
use super::parts::PartsList;
use super::sheets::is_of_sheets;
use super::step::{Measures, Phase, Step};

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

    fn mock_up(&mut self) {
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

    fn arrive(&mut self) {
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
            .schools(&[
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

    fn cut(&mut self) {
        let making = self.making;
        let all = self.numbers(is_of_sheets);
        if making.workshop.saw.transport.is_some() || making.workshop.oversize > 0.0 {
            self.add(
                Step::new("cut.shop", Phase::Cut, "First cuts at the shop", 30.0)
                    .how("Hand over the plan of the sheets: pieces that go into the car, about 13 mm over. The kerf makes pieces smaller than a plain half or quarter.")
                    .why("A whole sheet is heavy, and a wall saw cuts truer than a hand saw on trestles.")
                    .check("Every piece still holds what is to be cut from it.")
                    .fails("The shop cut a piece too small.", "Lay the boards out again with that piece as an offcut at hand.", None),
            );
        }
        let mut cut = Step::new("cut.panels", Phase::Cut, "Cut the boards", self.many(6.0, &all) + 20.0)
            .how("A fresh blade. In the order of the sheets' list: all cuts of one setting of the fence before it moves.")
            .why("Every move of the fence is a board that is a little different.")
            .tools(&["table saw or guide rail", "square"])
            .panels(all.clone())
            .caution(SAW)
            .after(&["arrive.parts", "arrive.cutout", "arrive.board", "cut.shop"])
            .check("Diagonals of every board are equal to a millimetre; boards of one size stand level on each other.")
            .fails("A board is too small.", "Take its piece from what is left of the sheet; small boards can come from it.", None);
        cut.parts = self.lines(&["board "]);
        self.add(cut);
        if making.workshop.oversize > 0.0 {
            self.add(
                Step::new("cut.trim", Phase::Cut, "Trim to size", self.many(4.0, &all))
                    .how("Compare diagonals, then take each board to its size from a clean edge.")
                    .why("What was cut roughly is not square.")
                    .tools(&["table saw or guide rail", "square"])
                    .panels(all.clone())
                    .caution(SAW)
                    .after(&["cut.panels"])
                    .check("Every board has the size of the list to half a millimetre."),
            );
        }
        let mirrored = if making.workshop.mirrored && making.cabinets > 1 {
            " Boards that the sheets call mirrored are mirror images of the drawn ones: turn the drawing over for them, and mark L and R."
        } else {
            ""
        };
        self.add(
            Step::new("cut.label", Phase::Cut, "Label every board", 10.0)
                .how(format!("Number, outside or inside, and which way is up, in pencil on the face that is seen last.{mirrored}"))
                .why("Boards of nearly one size are glued in each other's place.")
                .panels(all)
                .after(&["cut.panels", "cut.trim"])
                .check("No board is without its number."),
        );
        let bevelled = self.numbers(|panel| panel.edges.iter().any(|edge| edge.bevel.abs() > 0.05));
        if !bevelled.is_empty() {
            self.add(
                Step::new("cut.bevels", Phase::Cut, "Saw the bevels", self.many(6.0, &bevelled))
                    .how("Tilt of the saw as the list says, tried in scrap first: two pieces of scrap must make the angle together.")
                    .why("Half a degree wrong is a gap of a millimetre in eight boards.")
                    .tools(&["table saw or guide rail", "bevel gauge"])
                    .panels(bevelled)
                    .caution(SAW)
                    .after(&["cut.label"])
                    .check("Two pieces of scrap close without light between them."),
            );
        }
    }

    fn holes(&mut self) {
        let making = self.making;
        let milled = self.numbers(|panel| !panel.grooves.is_empty());
        if !milled.is_empty() {
            self.add(
                Step::new(
                    "holes.grooves",
                    Phase::Holes,
                    "Mill rabbets, grooves and dadoes",
                    self.many(10.0, &milled),
                )
                .how("Each as deep as its drawing says; a scrap of the board that stands in it is the gauge.")
                .why("It makes the joint tight and sets the boards where they belong.")
                .tools(&["router", "straight edge"])
                .panels(milled)
                .caution(ROUTER)
                .after(&["cut.label", "cut.bevels"])
                .check("The board slides in by hand, without play."),
            );
        }
        let doweled = self.numbers(|panel| panel.edges.iter().any(|edge| !edge.dowels.is_empty()));
        if !doweled.is_empty() {
            let mut dowels = Step::new("holes.dowels", Phase::Holes, "Drill for dowels", self.many(8.0, &doweled))
                .how("A jig, a depth stop, and always from the same face; both boards of a joint one after the other.")
                .why("Half a millimetre beside is a step at the edge.")
                .tools(&["drill", "dowelling jig"])
                .panels(doweled)
                .after(&["cut.label", "holes.grooves"])
                .check("Put together dry, the edges are flush.");
            dowels.parts = self.lines(&["dowel"]);
            self.add(dowels);
        }
        let driven = self.numbers(|panel| {
            panel.holes.iter().any(|hole| matches!(hole.kind, HoleKind::Driver | HoleKind::Radiator))
        });
        self.add(
            Step::new("holes.test", Phase::Holes, "Test circle in scrap", 15.0)
                .how("Set the circle jig, cut the hole and, if there is one, the recess in a piece of the same board.")
                .why("An untested cut-out is the commonest mistake of all.")
                .tools(&["router", "circle jig", "scrap"])
                .caution(ROUTER)
                .after(&["arrive.cutout", "cut.label"])
                .check("The driver drops in and turns, with a gap that a card fills.")
                .fails("The hole in the scrap is too tight or too loose.", "Correct the radius and cut another; never widen by hand.", Some("measured.cutout")),
        );
        if making.built.design.body.recess > 0.0 {
            self.add(
                Step::new("holes.recess", Phase::Holes, "Recess for the frame", 20.0)
                    .how("First pass: wide and shallow, to the depth of the frame. The hole comes after, from the same centre.")
                    .why("Once the middle is gone the jig has nothing to turn on.")
                    .tools(&["router", "circle jig"])
                    .panels(self.numbers(|panel| panel.holes.iter().any(|hole| hole.kind == HoleKind::Recess)))
                    .caution(ROUTER)
                    .after(&["holes.test"])
                    .check("The frame lies flush, gasket included."),
            );
        }
        self.add(
            Step::new("holes.cut", Phase::Holes, "Cut the holes for drivers and radiators", self.many(15.0, &driven))
                .how("From both sides on one pin hole where the board is thick or doubled; boards that stand behind each other are drilled together.")
                .why("A hole through two boards on one axis only lines up if it is drilled once.")
                .tools(&["router", "circle jig"])
                .panels(driven)
                .caution(ROUTER)
                .after(&["holes.test", "holes.recess"])
                .check("The real driver drops in.")
                .fails("The driver does not go in.", "A ring of the right size as template and a bush on the router widens it evenly; a hole too wide gets a ring glued behind.", Some("measured.cutout")),
        );
        let ported =
            self.numbers(|panel| panel.holes.iter().any(|hole| hole.kind == HoleKind::Port && hole.round));
        if !ported.is_empty() {
            self.add(
                Step::new("holes.ports", Phase::Holes, "Cut the holes for the ports", self.many(10.0, &ported))
                    .how("To the tube's outside as measured, tried in scrap; round the edge over where the port has no flare.")
                    .why("A sharp edge hisses.")
                    .tools(&["router", "circle jig"])
                    .panels(ported)
                    .caution(ROUTER)
                    .after(&["holes.test"])
                    .check("The tube goes in with a hand's push."),
            );
        }
        let plated = self.numbers(|panel| panel.holes.iter().any(|hole| hole.kind == HoleKind::Item));
        if !plated.is_empty() {
            self.add(
                Step::new(
                    "holes.plates",
                    Phase::Holes,
                    "Cut the openings for plates and cups",
                    self.many(15.0, &plated),
                )
                .how("Lay the real plate on; leave a rim for the gasket and for every screw.")
                .why("What is behind the plate must pass, and its gasket must lie on wood all round.")
                .tools(&["jigsaw or router"])
                .panels(plated)
                .caution(ROUTER)
                .after(&["cut.label", "arrive.parts"])
                .check("Everything behind the plate passes, and all screws meet wood."),
            );
        }
        let braces = self.numbers(|panel| panel.window.is_some());
        if !braces.is_empty() {
            self.add(
                Step::new(
                    "holes.windows",
                    Phase::Holes,
                    "Cut the windows of the braces",
                    self.many(12.0, &braces),
                )
                .how("Drill the corners, saw between them; corners stay round.")
                .why("Round corners do not crack.")
                .tools(&["jigsaw", "drill"])
                .panels(braces)
                .caution(SAW)
                .after(&["cut.label"])
                .check("A hand passes where the plan needs it to."),
            );
        }
        let mut pilots = Step::new("holes.pilots", Phase::Holes, "Pilot holes for the driver", 15.0)
            .how(match making.workshop.fixing {
                RawFixing::WoodScrews => {
                    let screw = making.driver_screw();
                    let board = making.built.design.body.panel.material;
                    screw.map_or_else(
                        || "No screw is short enough for this board and frame: use T-nuts.".to_owned(),
                        |screw| format!("Lay the driver in, mark through its frame, drill {:.1} mm, {:.0} mm deep; turn the frame so that no screw stands in the end grain or over a joint.", screw.pilot(board) * 1e3, making.holds_driver() * 1e3 - 2.0),
                    )
                }
                RawFixing::TNuts | RawFixing::Inserts => {
                    let thread = super::hardware::thread_for(making.bolts().1);
                    let hole = super::hardware::nut_hole(thread, making.workshop.fixing == RawFixing::Inserts);
                    format!("Lay the driver in, mark through its frame, drill {:.1} mm square through for M{:.0}; pull the nuts in with a screw and a washer, not with a hammer.", hole * 1e3, thread * 1e3)
                }
            })
            .why("Screws without pilot split the board; most holes of drivers are not on the circle that the sheet says.")
            .tools(&["drill"])
            .after(&["holes.cut"])
            .check("Every screw turns in by hand for its last turns.");
        pilots.panels = self.numbers(|panel| panel.holes.iter().any(|hole| hole.kind == HoleKind::Driver));
        pilots.parts = self.lines(&["tnut", "insert"]);
        self.add(pilots);
    }

    fn assemble(&mut self) {
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
                .schools(&[
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
            .schools(&[
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
            first.parts.push(format!(
                "screw.wood {}",
                super::hardware::Screw::into_edge(body.panel.thickness).name()
            ));
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
            .schools(&[
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
    fn early(&mut self) {
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

    fn seams(&mut self, phase: Phase, id: &'static str, after: &[&'static str]) {
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

    fn fill(&mut self, phase: Phase, id: &'static str, after: &[&'static str]) {
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
            .schools(&[
                ("Heavy fill", "Even in ported boxes: what is behind the cone must not come back."),
                ("Foam in the chamber only", "The port stays free."),
                ("Damping sheet alone", "Walls are quiet, air stays free."),
                ("None", "For liveliness, where the box plays low enough that nothing stands in it."),
            ])
            .inside();
        fill.parts = lines;
        self.add(fill);
    }

    fn wire(&mut self, phase: Phase, id: &'static str, after: &[&'static str]) {
        let mut wire = Step::new(id, phase, "Lay the leads", 20.0)
            .how(format!("{:.1} m to each driver: along the walls, tied so that nothing rattles, {:.0} mm hanging out of the hole.", self.making.lead(), self.making.workshop.slack * 1e3))
            .why("A lead that is too short cannot be connected, one that lies loose rattles.")
            .tools(&["crimping tool", "cutter"])
            .after(after)
            .check("Plus and minus are marked at both ends.")
            .schools(&[
                ("Soldered", "Lasts, and never slips off; harder to swap."),
                ("Ring terminals", "Screwed on, for amplifiers and posts."),
                ("Crimped spades", "Quick to swap; the right width, with sleeves."),
            ])
            .inside();
        wire.parts = self.lines(&["wire", "spade", "ring", "solder"]);
        self.add(wire);
    }

    fn fit(&mut self) {
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
            if !inside && !making.has_terminal_hole() && making.workshop.terminal != RawTerminal::None {
                terminal.how.push_str(" Its hole is not in the drawing yet: add it to the box, or drill it on the back, away from the braces.");
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

    fn prove(&mut self) {
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

    fn finish(&mut self) {
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
                    step = step.schools(&[
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

    fn done(&mut self) {
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
            fit = fit.schools(&[
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

/// A name as it stands within a sentence: abbreviations stay as they are.
fn in_a_sentence(name: &str) -> String {
    let second = name.chars().nth(1);
    if second.is_some_and(char::is_lowercase) {
        name.chars().take(1).flat_map(char::to_lowercase).chain(name.chars().skip(1)).collect()
    } else {
        name.to_owned()
    }
}
