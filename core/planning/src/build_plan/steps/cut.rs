//! Boards, and what is milled and drilled into them.

use oak_cabinetry::cut::HoleKind;
use oak_design::file::RawFixing;

use super::{Plan, ROUTER, SAW};
use crate::build_plan::hardware;
use crate::build_plan::sheets::is_of_sheets;
use crate::build_plan::step::{Phase, Step};

impl Plan<'_, '_> {
    pub(super) fn cut(&mut self) {
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

    pub(super) fn holes(&mut self) {
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
                    let thread = hardware::thread_for(making.bolts().1);
                    let hole = hardware::nut_hole(thread, making.workshop.fixing == RawFixing::Inserts);
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
}
