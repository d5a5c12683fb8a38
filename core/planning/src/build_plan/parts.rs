//! What is bought: every part with its amount, price and shop.

use oak_cabinetry::cut::{FlatHole, HoleKind};
use std::f64::consts::PI;

use oak_acoustics::medium::CrossSection;
use oak_cabinetry::cut::{Dowel, Joinery};
use oak_cabinetry::{PartKind, PortBuild, PortSize};
use oak_design::file::{RawAssembly, RawDesign, RawFeet, RawFinish, RawFixing, RawLeads, RawTerminal};

use serde::Serialize;
use utoipa::ToSchema;

use super::amounts::hole_area;
use super::catalogue::{Glue, Shop, amplifier_price, radiator_price, tube_price, ware_of};
use super::finish::stages;
use super::hardware::{Screw, Wire, head, spade, thread_for};
use super::making::Making;
use super::sheets::is_of_sheets;

/// One line of the parts list, of all cabinets.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Item {
    /// Its name in lists and steps.
    pub id: String,
    /// What to call it.
    pub name: String,
    /// Where one buys it.
    pub shop: Shop,
    /// How much is needed.
    pub amount: f64,
    /// What that is counted in.
    pub unit: &'static str,
    /// How much is in a pack.
    pub pack: f64,
    /// What a pack costs; unknown of a driver whose sheet has no price.
    pub price: Option<f64>,
    /// Whether the workshop set that price.
    pub own_price: bool,
    /// How much is in stock.
    pub stock: f64,
    /// Whether the rest has been bought.
    pub bought: bool,
    /// Mass of all of it that stays in the cabinets, kg; nothing of what weighs little.
    pub mass: f64,
    /// What to look for.
    pub note: String,
}

impl Item {
    /// How many packs are bought.
    pub fn packs(&self) -> f64 {
        let short = (self.amount - self.stock).max(0.0);
        ((short / self.pack) - 1e-9).ceil().max(0.0)
    }

    /// What they cost.
    pub fn cost(&self) -> Option<f64> {
        if self.packs() == 0.0 { Some(0.0) } else { Some(self.packs() * self.price?) }
    }
}

/// Everything that is bought for a build.
#[derive(Debug, Clone, PartialEq)]
pub struct PartsList {
    /// Its lines, shop by shop.
    pub items: Vec<Item>,
}

impl PartsList {
    /// What everything costs; unknown where the price of a part is.
    pub fn total(&self) -> Option<f64> {
        self.items.iter().map(Item::cost).sum()
    }

    /// What one shop gets of it; unknown where the price of a part is.
    pub fn of_shop(&self, shop: Shop) -> Option<f64> {
        self.items.iter().filter(|item| item.shop == shop).map(Item::cost).sum()
    }

    /// The line of a name.
    pub fn find(&self, id: &str) -> Option<&Item> {
        self.items.iter().find(|item| item.id == id)
    }

    /// Mass of what stays in the cabinets beside their boards, kg.
    pub fn mass(&self) -> f64 {
        self.items.iter().map(|item| item.mass).sum()
    }
}

struct List<'a, 'b> {
    making: &'b Making<'a>,
    items: Vec<Item>,
}

impl Making<'_> {
    /// What is bought.
    pub fn parts(&self) -> PartsList {
        let mut list = List { making: self, items: Vec::new() };
        list.sound();
        list.boards();
        list.joints();
        list.ports();
        list.wiring();
        list.damping();
        list.hardware();
        list.finish();
        let mut items = list.items;
        items.retain(|item| item.amount > 0.0);
        items.sort_by_key(|item| item.shop);
        for item in &mut items {
            let Some(own) = self.workshop.items.iter().find(|own| own.item == item.id) else { continue };
            item.own_price = own.price.is_some();
            item.price = own.price.or(item.price);
            (item.stock, item.bought) = (own.stock, own.bought);
        }
        PartsList { items }
    }
}

impl List<'_, '_> {
    /// A ware of the catalogue, so much for all cabinets; with sizes behind its name where it has some.
    fn ware(&mut self, id: &str, sizes: &str, amount: f64, note: impl Into<String>) {
        let Some(ware) = ware_of(id) else {
            debug_assert!(false, "no ware {id}");
            return;
        };
        let id = if sizes.is_empty() { id.to_owned() } else { format!("{id} {sizes}") };
        let name = if sizes.is_empty() { ware.name.to_owned() } else { format!("{}, {sizes}", ware.name) };
        self.items.push(Item {
            id,
            name,
            shop: ware.shop,
            amount,
            unit: ware.unit,
            pack: ware.pack,
            price: Some(ware.price),
            own_price: false,
            stock: 0.0,
            bought: false,
            mass: 0.0,
            note: note.into(),
        });
    }

    /// Something of its own price a piece.
    fn piece(&mut self, id: &str, name: String, shop: Shop, count: f64, price: Option<f64>, note: &str) {
        self.items.push(Item {
            id: id.to_owned(),
            name,
            shop,
            amount: count,
            unit: "pieces",
            pack: 1.0,
            price,
            own_price: false,
            stock: 0.0,
            bought: false,
            mass: 0.0,
            note: note.to_owned(),
        });
    }

    fn weigh(&mut self, mass: f64) {
        let mass = self.making.each(mass);
        if let Some(item) = self.items.last_mut() {
            item.mass = mass;
        }
    }

    fn sound(&mut self) {
        let making = self.making;
        let (built, contents) = (making.built, making.contents);
        let weight = &making.weight;
        let price = built.design.driver.record.price;
        let count = making.each(f64::from(contents.drivers.in_all()));
        self.piece("driver", making.driver_name(), Shop::Sound, count, price, "");
        self.weigh(weight.drivers);
        if let Some(radiators) = contents.radiators {
            let cone = PI / 4.0 * radiators.cone * radiators.cone;
            let name = format!("Passive radiator, cone of {:.0} cm2", cone * 1e4);
            let count = making.each(f64::from(radiators.count));
            self.piece("radiator", name, Shop::Sound, count, Some(radiator_price(cone)), "");
            self.weigh(weight.radiators);
            let washers = &built.design.body.washers;
            let (number, mass) = washers.nearest();
            if mass > 0.0 {
                let each = format!("{:.0} g", washers.each * 1e3);
                self.ware("washer", &each, f64::from(number) * count, "Weigh them: count bolt and nut too.");
                self.ware(
                    "radiator.bolt",
                    "",
                    count,
                    "Locked with a second nut or lacquer: loose weights rattle.",
                );
            }
        }
        let amplifier = making.raw.signal.as_ref().and_then(|signal| signal.amplifier.as_ref());
        if let (Some(amplifier), Some(drive)) = (amplifier, built.design.amplifier) {
            let load = built.design.driver_array.equivalent().nominal;
            let power = drive.volts * drive.volts / load;
            let inside = amplifier.mounting.as_ref();
            let note = match inside {
                Some(mounting) if mounting.open_back => {
                    "Its back is open: it stands in a chamber of its own, sealed from the rest."
                }
                Some(_) => "Its back must be sealed, or it leaks: ask before you buy.",
                None => "It stands outside the box.",
            };
            let name = format!("Amplifier, {power:.0} W into {load:.0} ohm");
            self.piece("amplifier", name, Shop::Sound, making.each(1.0), Some(amplifier_price(power)), note);
        }
    }

    fn boards(&mut self) {
        let making = self.making;
        for group in &making.sheets {
            for (sheet, count) in group.bought() {
                let [width, height] = sheet.size.map(|side| side * 1e3);
                let thickness = oak_units::significant(group.thickness * 1e3, 3);
                self.piece(
                    &format!("board {} {thickness} mm, {height:.0} x {width:.0}", group.material.id),
                    format!("{} {thickness} mm, sheet of {height:.0} x {width:.0} mm", group.material.name),
                    Shop::Timber,
                    f64::from(count),
                    Some(sheet.price),
                    "Measure its thickness before anything is cut.",
                );
            }
        }
        let strips: Vec<_> = making.cut.panels.iter().filter(|panel| !is_of_sheets(panel)).collect();
        if let Some(first) = strips.first() {
            let long = |size: &[f64; 2]| size[0].max(size[1]);
            let length: f64 = strips.iter().map(|strip| long(&strip.size) * f64::from(strip.count)).sum();
            let side = format!("{:.0} mm", first.thickness * 1e3);
            self.ware("timber.strip", &side, length * 1.1, "A tenth more for the saw.");
        }
    }

    fn joints(&mut self) {
        let making = self.making;
        let glue = Glue::of(making.workshop.glue);
        let amount = making.each(making.amounts.glued * glue.spread * 1.2);
        let note = format!(
            "Boards together within {:.0} minutes, clamped for {:.0} h, full strength after {:.0} h.",
            glue.open, glue.clamp, glue.full
        );
        self.ware(glue.id, "", amount, note);
        let joints = making.each(making.amounts.joints);
        self.ware("sealant", "", joints * SEAM, "A bead in every inside seam, smoothed with a finger.");
        let design = &making.built.design;
        let board = design.body.panel.thickness;
        match making.workshop.assembly {
            RawAssembly::Clamps => {}
            RawAssembly::Nails => {
                let length = [0.025, 0.032, 0.038, 0.050].into_iter().find(|length| *length >= 2.0 * board);
                let length = format!("{:.0} mm", length.unwrap_or(0.05) * 1e3);
                self.ware("brads", &length, joints / 0.1, "They only hold while the glue sets.");
            }
            RawAssembly::Screws => {
                let screw = Screw::into_edge(board);
                let count = (joints / 0.15).ceil();
                self.ware("screw.wood", &screw.name(), count, "With pilot holes: boards split at the edge.");
            }
            RawAssembly::PocketScrews => {
                let length = if board < 0.016 { "25 mm" } else { "32 mm" };
                self.ware("screw.pocket", length, (joints / 0.15).ceil(), "Pockets on the inside.");
            }
        }
        let doweled = making.cut.panels.iter().flat_map(|panel| {
            panel.edges.iter().map(|edge| edge.dowels.len() as f64 * f64::from(panel.count))
        });
        let dowels: f64 = doweled.sum();
        if dowels > 0.0 {
            let dowel = Dowel::of(board);
            let size = format!("{:.0} x {:.0} mm", dowel.diameter * 1e3, dowel.length * 1e3);
            self.ware("dowel", &size, dowels, "Fluted, so that glue and air get out.");
        }
        debug_assert!(dowels > 0.0 || design.joints.usual != Joinery::Dowels || making.cut.panels.len() < 2);
    }

    fn ports(&mut self) {
        let making = self.making;
        let body = &making.built.design.body;
        for (front, ports) in [false, true].into_iter().zip(&making.contents.ports) {
            for (index, port) in ports.iter().enumerate() {
                let build = body.port_build(front, index);
                if let CrossSection::Round { radius } = port.section {
                    self.tube(port, &build, radius);
                }
            }
        }
        let weight = &making.weight;
        let first = self.items.iter_mut().find(|item| item.id.starts_with("tube"));
        if let Some(tube) = first {
            tube.mass = making.each(weight.tubes);
        }
    }

    fn tube(&mut self, port: &PortSize, build: &PortBuild, radius: f64) {
        let making = self.making;
        let count = making.each(f64::from(port.count));
        let outside = 2.0 * (radius + build.wall);
        let size = format!("{:.0} x {:.1} mm", outside * 1e3, build.wall * 1e3);
        // Cut longer at first: what is cut off does not grow back.
        let length = port.length + SPARE_TUBE;
        self.items.push(Item {
            id: format!("tube {size}"),
            name: format!("Tube, {size}"),
            shop: Shop::Pipes,
            amount: length * count,
            unit: "m",
            pack: 0.5,
            price: Some(0.5 * tube_price(2.0 * radius)),
            own_price: false,
            stock: 0.0,
            bought: false,
            mass: 0.0,
            note: format!(
                "{:.0} mm longer than drawn, to be trimmed when the tuning is known.",
                SPARE_TUBE * 1e3
            ),
        });
        let flares = build.flares.into_iter().filter(|flare| *flare > 0.0).count() as f64;
        let bore = format!("{:.0} mm", 2.0 * radius * 1e3);
        if flares > 0.0 {
            self.ware("flare", &bore, flares * count, "The wide one may have to go on from inside.");
        }
        if build.turns > 0 {
            self.ware("elbow", &bore, f64::from(build.turns) * count, "");
        }
    }

    fn wiring(&mut self) {
        let making = self.making;
        let drivers = &making.contents.drivers;
        let terminals = making.each(1.0);
        if !making.has_amplifier_inside() {
            match making.workshop.terminal {
                RawTerminal::Cup => self.ware("terminal.cup", "", terminals, "With a gasket of its own."),
                RawTerminal::Posts => {
                    self.ware("terminal.posts", "", terminals, "Sealed where they pass the board.");
                }
                RawTerminal::Locking => self.ware("terminal.locking", "", terminals, "Sealed behind."),
                RawTerminal::None => {}
            }
        }
        let length = making.lead();
        let wire = making.wire();
        let size = format!("{} AWG ({} mm2)", wire.gauge, wire.square_millimetres());
        let count = f64::from(drivers.in_all());
        let note = format!("{:.0} mm to work outside the hole are in it.", making.workshop.slack * 1e3);
        self.ware("wire", &size, making.each(length * count), note);
        let ends = making.each(2.0 * count);
        match making.workshop.leads {
            RawLeads::Spades => {
                let width = format!("{} mm", spade(drivers.frame));
                self.ware(
                    "spade",
                    &width,
                    ends * 2.0,
                    "Measure the driver's tabs: the two are of different width on many.",
                );
            }
            RawLeads::Rings => self.ware("ring", "", ends * 2.0, ""),
            RawLeads::Soldered => self.ware("solder", "", 1.0, ""),
        }
    }

    fn damping(&mut self) {
        let making = self.making;
        let weight = &making.weight;
        if weight.fill > 0.0 {
            let layers = !making.built.design.body.fills.is_empty();
            let id = if layers { "fill.layers" } else { "fill.polyester" };
            let note = "Weighed as you tear it; fluffed up, kept off the port and the cone.";
            self.ware(id, "", making.each(weight.fill * 1e3), note);
            self.weigh(weight.fill);
        }
        let holes = making.cut.panels.iter().flat_map(|panel| {
            let round = |hole: &FlatHole| {
                if hole.round { PI * hole.size[0] } else { 2.0 * (hole.size[0] + hole.size[1]) }
            };
            let sealed = panel.holes.iter().filter(|hole| {
                matches!(hole.kind, HoleKind::Driver | HoleKind::Radiator | HoleKind::Item)
                    && hole.depth.is_none()
            });
            // Layers of one board have one gasket.
            let first = panel.layer.is_none_or(|[layer, _]| layer == 1);
            sealed.filter(move |_| first).map(move |hole| round(hole) * f64::from(panel.count))
        });
        let length: f64 = holes.sum();
        self.ware("gasket", "", length * 1.1, "Closed cells, under every frame and plate.");
    }

    fn hardware(&mut self) {
        let making = self.making;
        let contents = making.contents;
        let (count, _) = making.bolts();
        let drivers = making.each(f64::from(contents.drivers.in_all()));
        let radiators = contents.radiators.map_or(0.0, |radiators| making.each(f64::from(radiators.count)));
        let screws = f64::from(count) * (drivers + radiators);
        match making.workshop.fixing {
            RawFixing::WoodScrews => {
                let screw = making.driver_screw();
                let size = screw.map_or_else(|| "none is short enough".to_owned(), |screw| screw.name());
                let note = format!(
                    "Pan heads of {:.0} mm: wider than the holes of the frame.",
                    head(making.screw_diameter()) * 1e3
                );
                self.ware("screw.wood", &size, screws, note);
            }
            fixing => {
                let thread = thread_for(making.bolts().1);
                let size = format!("M{:.0}", thread * 1e3);
                let length = making.machine_screw();
                self.ware("screw.machine", &format!("{size} x {:.0} mm", length * 1e3), screws, "");
                let nut = if fixing == RawFixing::TNuts { "tnut" } else { "insert" };
                let note = if nut == "tnut" {
                    "Pulled in from behind before the driver is first mounted, with a drop of glue."
                } else {
                    "Screwed in with wax or glue, square to the face."
                };
                self.ware(nut, &size, screws, note);
            }
        }
        let plates = making
            .built
            .design
            .body
            .items
            .iter()
            .filter(|item| item.block.is_some_and(|block| block.opening.is_some()));
        let plates = making.each(plates.count() as f64);
        if plates > 0.0 {
            self.ware(
                "screw.wood",
                "4 x 20 mm",
                plates * 6.0,
                "For plates and cups; no longer than the board is thick.",
            );
        }
        let cabinets = making.each(1.0);
        match making.workshop.feet {
            RawFeet::Rubber => self.ware("feet.rubber", "", 4.0 * cabinets, ""),
            RawFeet::Spikes => {
                self.ware("feet.spikes", "", 4.0 * cabinets, "Discs under them on wood floors.");
            }
            RawFeet::Plinth | RawFeet::None => {}
        }
        self.ware(
            "handle",
            "",
            making.each(f64::from(making.workshop.handles)),
            "Sealed behind, or cups with a closed back.",
        );
        if making.workshop.corners {
            self.ware("corner", "", 8.0 * cabinets, "");
        }
        if making.workshop.grille {
            let face =
                making.cut.panels.iter().find(|panel| panel.outside && panel.name.starts_with("front"));
            let size = face.map_or([0.4, 0.4], |panel| panel.size);
            self.ware("grille.cloth", "", cabinets * hole_area(&size.map(|side| side + 0.06), false), "");
            self.ware("grille.studs", "", 4.0 * cabinets, "");
            let around = 2.0 * (size[0] + size[1]);
            self.ware("timber.frame", "", cabinets * around * 1.1, "It must clear the cone at full travel.");
        }
    }

    fn finish(&mut self) {
        let making = self.making;
        let workshop = making.workshop;
        let area = making.each(making.amounts.outside);
        // The whole inside is sealed or painted, not only the port.
        self.ware(
            "sealer",
            "",
            making.each(making.amounts.inside) * INSIDE,
            "For the whole inside, raw edges and the port.",
        );
        let mut amounts: Vec<(&str, f64)> = Vec::new();
        let mut grits: Vec<(u32, f64)> = Vec::new();
        for stage in stages(workshop.finish, workshop.coats) {
            if let Some((ware, per)) = stage.ware {
                let amount = per * area * f64::from(stage.coats);
                match amounts.iter_mut().find(|(known, _)| *known == ware) {
                    Some((_, sum)) => *sum += amount,
                    None => amounts.push((ware, amount)),
                }
            }
            // A sheet for a square metre, half of one between coats.
            for grit in stage.grits {
                let sheets = area * if stage.coats > 1 { 0.5 * f64::from(stage.coats) } else { 1.0 };
                match grits.iter_mut().find(|(known, _)| known == grit) {
                    Some((_, sum)) => *sum += sheets,
                    None => grits.push((*grit, sheets)),
                }
            }
        }
        for (ware, amount) in amounts {
            match self.items.iter_mut().find(|item| item.id == ware) {
                Some(item) => item.amount += amount,
                None => self.ware(ware, "", amount, ""),
            }
        }
        for (grit, sheets) in grits {
            self.ware("paper", &grit.to_string(), sheets.ceil(), "");
        }
        match workshop.finish {
            RawFinish::Veneer => {
                let note = "25 mm over on every side, sheets matched before they are cut.";
                self.ware("veneer", "", making.veneer(), note);
            }
            RawFinish::Carpet => self.ware("carpet", "", 1.15 * area, ""),
            _ => {}
        }
    }
}

/// Sealant for a metre of seam, and sealer for a square metre of the inside in two coats, ml (common practice).
const SEAM: f64 = 15.0;
const INSIDE: f64 = 160.0;
/// How much longer a tube is cut at first, m.
const SPARE_TUBE: f64 = 0.02;
impl Making<'_> {
    /// Length of the lead of one driver, from the back of the box to it, with what is needed to work outside the hole, m.
    pub(super) fn lead(&self) -> f64 {
        let [low, high] = self.cabinet.interior.bounds();
        let diagonal = [0, 1, 2].map(|k| high[k] - low[k]);
        // Along the walls, to the farthest corner at most.
        diagonal.iter().sum::<f64>() + self.workshop.slack
    }

    /// What the leads are of.
    pub(super) fn wire(&self) -> Wire {
        let design = &self.built.design;
        let volts = design.amplifier.map_or(design.drive.volts, |drive| drive.volts).max(design.drive.volts);
        let load = design.driver_array.equivalent().nominal;
        Wire::usual(volts / load, self.lead(), load)
    }

    /// Diameter of the wood screws of a driver, m: they pass its frame's hole with little play.
    pub(super) fn screw_diameter(&self) -> f64 {
        let hole = self.bolts().1;
        [0.006, 0.005, 0.0045, 0.004, 0.0035].into_iter().find(|one| one + 0.0003 <= hole).unwrap_or(0.0035)
    }

    /// Boards that hold a driver, without its recess, m.
    pub(super) fn holds_driver(&self) -> f64 {
        let body = &self.built.design.body;
        let board =
            if self.contents.drivers_inside() { body.partition } else { *body.panel(body.drivers.face) };
        board.total() - body.recess.min(board.total())
    }

    /// The wood screw of a driver: as long as frame and board allow without coming out behind; `None` where none is short enough.
    pub(super) fn driver_screw(&self) -> Option<Screw> {
        Screw::within(self.screw_diameter(), self.contents.drivers.rim + self.holds_driver() - 0.001)
    }

    /// Length of machine screws through frame and board into a nut behind, m.
    pub(super) fn machine_screw(&self) -> f64 {
        let through = self.contents.drivers.rim + self.holds_driver();
        [0.016, 0.020, 0.025, 0.030, 0.035, 0.040, 0.050, 0.060, 0.080]
            .into_iter()
            .find(|length| *length >= through)
            .unwrap_or(0.08)
    }

    /// Whether something of a kind is mounted.
    pub(super) fn has(&self, kind: PartKind) -> bool {
        self.cabinet.parts.iter().any(|part| part.kind == kind)
    }
}

/// What a design costs whose box nobody has looked at: its driver, and boards for its air in the usual proportions.
pub(crate) fn unboxed_cost(raw: &RawDesign, drivers: u32, air: f64, cabinets: u32, price: f64) -> f64 {
    let thickness = 0.018;
    let sheet = super::catalogue::board_price("mdf") * thickness;
    // Surface of such a box over its volume to two thirds, with what its boards add outside, and what the saw leaves.
    let boards = sheet * 6.8 * 1.3 * air.powf(2.0 / 3.0);
    let tubes = raw.enclosure.ports.len() as f64 * 12.0;
    f64::from(cabinets) * (price * f64::from(drivers) + boards + tubes + USUAL_REST)
}

/// Glue, screws, terminal, wire, gasket and paint of one cabinet (common practice).
const USUAL_REST: f64 = 75.0;
