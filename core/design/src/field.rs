//! Every quantity a file can hold: its name, unit, range and meaning, in one table.
//!
//! Range checks, error texts, the table import and the front end's editors are all made from it.

use oak_units::{Dimension, Unit, unit_named};

use crate::typed::Typed;

/// One quantity.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Field {
    /// Place in a design file, without list positions: `enclosure.ports.diameter`.
    pub path: &'static str,
    /// The field's own symbol: `Vas`.
    pub symbol: &'static str,
    /// What it measures.
    pub dimension: Dimension,
    /// Unit it is usually written in; empty for plain numbers.
    pub unit: &'static str,
    /// Smallest allowed value, SI.
    pub min: f64,
    /// Largest allowed value, SI.
    pub max: f64,
    /// One plain sentence for people who meet it first.
    pub meaning: &'static str,
}

impl Field {
    /// Last part of the path.
    pub fn name(&self) -> &'static str {
        self.path.rsplit('.').next().unwrap_or(self.path)
    }

    /// The unit it is usually written in.
    pub fn usual_unit(&self) -> Option<&'static Unit> {
        unit_named(self.unit).filter(|unit| unit.dimension == self.dimension)
    }

    /// A value (SI) as a file has it: in the usual unit, rounded to some digits.
    pub fn typed(&self, si: f64, digits: u32) -> Typed {
        match self.usual_unit() {
            Some(unit) => Typed::Text(oak_units::format_in(si, unit, digits)),
            None => oak_units::significant(si, digits).parse().map_or(Typed::Number(si), Typed::Number),
        }
    }

    /// What was typed, SI; nothing where it cannot be read.
    pub fn read(&self, typed: Option<&Typed>) -> Option<f64> {
        match typed? {
            Typed::Number(number) => Some(*number),
            Typed::Text(text) => oak_units::parse_quantity(text, self.dimension).ok().map(|parsed| parsed.si),
        }
    }
}

macro_rules! fields {
    ($($constant:ident = $path:literal, $symbol:literal, $dimension:ident, $unit:literal, $min:expr, $max:expr, $meaning:literal;)*) => {
        $(
            #[doc = $meaning]
            pub static $constant: Field = Field {
                path: $path,
                symbol: $symbol,
                dimension: Dimension::$dimension,
                unit: $unit,
                min: $min,
                max: $max,
                meaning: $meaning,
            };
        )*
        /// All of them.
        pub static FIELDS: &[&Field] = &[$(&$constant),*];
    };
}

fields! {
    SIZE = "driver.size", "Size", Length, "mm", 0.02, 1.0, "Nominal size of the driver's frame.";
    NOMINAL = "driver.nominal", "Z", Resistance, "ohm", 0.5, 64.0, "Impedance printed on the driver. Power is stated into it.";
    RE = "driver.re", "Re", Resistance, "ohm", 0.1, 100.0, "Resistance of the coil measured with direct current.";
    LE = "driver.le", "Le", Inductance, "mH", 0.0, 0.1, "Inductance of the coil. It lowers the level at the top of the range.";
    FS = "driver.fs", "Fs", Frequency, "Hz", 5.0, 2000.0, "Resonance of the bare driver in free air. Not a limit of how low it plays: the box decides that.";
    QMS = "driver.qms", "Qms", Number, "", 0.1, 100.0, "How long the cone swings by itself; high means little friction.";
    QES = "driver.qes", "Qes", Number, "", 0.05, 20.0, "How firmly the motor brakes the cone; low means a strong motor.";
    QTS = "driver.qts", "Qts", Number, "", 0.05, 20.0, "Both kinds of damping together. Low asks for a port or horn, high for a sealed box.";
    VAS = "driver.vas", "Vas", Volume, "l", 1e-5, 5.0, "The volume of air that is just as springy as the cone's suspension.";
    CMS = "driver.cms", "Cms", Compliance, "mm/N", 1e-6, 0.1, "Softness of the suspension.";
    MMS = "driver.mms", "Mms", Mass, "g", 1e-4, 5.0, "Everything that moves, with the air that moves along.";
    BL = "driver.bl", "Bl", ForceFactor, "T m", 0.05, 500.0, "Strength of the motor: force per ampere.";
    SD = "driver.sd", "Sd", Area, "cm2", 1e-4, 0.5, "Area of the cone that pushes air, with half the surround.";
    XMAX = "driver.xmax", "Xmax", Length, "mm", 1e-4, 0.1, "How far the cone moves one way before the motor loses control.";
    PE = "driver.pe", "Pe", Power, "W", 0.1, 20_000.0, "Power that the coil can turn into heat for hours.";
    L2 = "driver.l2", "L2", Inductance, "mH", 0.0, 0.1, "Second part of the coil's inductance, the one that eddy currents in the pole shunt. Counts together with R2.";
    R2 = "driver.r2", "R2", Resistance, "ohm", 0.01, 1000.0, "Eddy currents in the pole, as a resistance across L2.";
    INDUCTANCE_EXPONENT = "driver.inductance_exponent", "n", Number, "", 0.3, 1.0, "How the coil's impedance grows with frequency: 1 is a plain inductance, 0.5 a solid iron pole. Takes the place of L2 and R2; Le is then the value at 1 kHz.";
    DEPTH = "driver.depth", "Depth", Length, "mm", 0.01, 1.0, "From the front of the frame to the back of the magnet.";
    CUTOUT = "driver.cutout", "Cut-out", Length, "mm", 0.01, 1.0, "Across the hole that the driver needs in its board.";
    MAGNET = "driver.magnet", "Magnet", Length, "mm", 0.01, 1.0, "Across the magnet.";
    DISPLACEMENT = "driver.displacement", "Displacement", Volume, "l", 1e-5, 0.1, "How much of a box's volume the driver takes up. Estimated from its sizes where absent.";
    RIM = "driver.rim", "Rim", Length, "mm", 1e-3, 0.05, "How thick the frame is where it lies on the board, with its gasket. It stands so far proud unless it is let in.";
    BOLT_CIRCLE = "driver.bolt_circle", "Circle", Length, "mm", 0.02, 1.0, "Diameter of the circle on which the holes for its bolts stand.";
    BOLTS = "driver.bolts", "Bolts", Number, "", 3.0, 24.0, "How many bolts hold it.";
    BOLT_HOLE = "driver.bolt_hole", "Hole", Length, "mm", 2e-3, 0.02, "Diameter of the hole for each bolt.";
    SEALED_VOLUME = "driver.sealed_volume", "Sealed", Volume, "l", 1e-4, 10.0, "Net volume of the sealed box that its maker recommends; one of the starting points.";
    PORTED_VOLUME = "driver.ported_volume", "Ported", Volume, "l", 1e-4, 10.0, "Net volume of the ported box that its maker recommends; one of the starting points.";
    PORTED_TUNING = "driver.ported_tuning", "at Fb", Frequency, "Hz", 5.0, 500.0, "Tuning of the ported box that its maker recommends.";
    LEVEL_1W = "driver.level_1w", "1 W", Level, "dB", 40.0, 130.0, "Printed sensitivity for 1 W at 1 m. Only compared with what the other values give.";
    LEVEL_2V83 = "driver.level_2v83", "2.83 V", Level, "dB", 40.0, 130.0, "Printed sensitivity for 2.83 V at 1 m. Only compared with what the other values give.";
    PRICE = "driver.price", "Price", Number, "", 0.0, 1e6, "What one costs, in your currency.";
    ON_HAND = "driver.on_hand", "In stock", Number, "", 0.0, 10_000.0, "How many you have in stock.";
    ADDED_MASS = "driver_array.added_mass", "Added mass", Mass, "g", 0.0, 2.0, "Mass glued to each cone. Lowers Fs, raises Qts and costs level.";
    BREAK_IN = "driver_array.break_in", "Break-in", Fraction, "%", 0.0, 1.0, "How much softer the suspension has become by playing; 10 to 20 % is usual.";
    COIL_TEMPERATURE = "driver_array.coil_temperature", "Coil", Temperature, "degC", -20.0, 300.0, "Temperature of the voice coil at work. A hot coil resists more: less level, higher Qts.";
    BRAKE_RESISTANCE = "driver_array.idle_coil_resistance", "Across the idle coil", Resistance, "ohm", 0.0, 1000.0, "What closes the coil that is not driven; 0 is a short.";
    SERIES = "driver_array.series", "In series", Number, "", 1.0, 16.0, "Drivers one after the other on the wire in each group.";
    PARALLEL = "driver_array.parallel", "In parallel", Number, "", 1.0, 16.0, "Groups side by side on the amplifier.";
    SERIES_RESISTANCE = "driver_array.series_resistance", "Series resistance", Resistance, "ohm", 0.0, 100.0, "Resistance between the amplifier and the drivers: its output, a coil, a cable measured both ways. Raises Qes and costs level.";
    CABLE_LENGTH = "driver_array.cable_length", "Cable length", Length, "m", 0.0, 200.0, "From the amplifier to the drivers, one way. Its two cores add their resistance.";
    CABLE_AREA = "driver_array.cable_area", "Cable core", Area, "mm2", 5e-8, 1e-4, "Copper of one core, such as 2.5 mm2 or AWG 14.";
    TRAPPED = "driver_array.isobaric.volume", "Trapped air", Volume, "l", 1e-5, 1.0, "Air between the two cones of one pair. The less, the more they move as one.";
    VOLUME = "enclosure.volume", "Vb", Volume, "l", 1e-4, 10.0, "Air in the box, without what driver, port and braces take.";
    GAIN = "enclosure.gain", "Gain", Number, "", 1.0, 1.4, "Apparent volume over the net volume with this fill; 1.4 at most.";
    BAFFLE_PATH = "enclosure.baffle_path", "Baffle path", Length, "m", 0.02, 20.0, "How much farther the sound of the rear travels around the baffle to the listener.";
    VENT_RESISTANCE = "enclosure.vent_resistance", "Vent", AcousticResistance, "Pa s/m3", 10.0, 1e7, "How much the vent resists the flow through it.";
    QL = "enclosure.ql", "QL", Number, "", 1.0, 1000.0, "How tight the box is. 7 is a usual ported box, 3 leaks badly, 20 is very tight.";
    CHAMBER_FILL = "enclosure.fill_density", "Fill by weight", Density, "kg/m3", 0.1, 60.0, "Fill in the chamber, its mass over the volume: grams per litre. 5 is half full of polyester wool, 10 loosely filled, 20 packed.";
    QA = "enclosure.qa", "QA", Number, "", 1.0, 1000.0, "How little the air and its filling absorb. 100 is an empty box, 20 a lined one.";
    TUNING = "enclosure.tuning", "Fb", Frequency, "Hz", 5.0, 500.0, "Where the port does the work and the cone nearly stands still.";
    DIAMETER = "enclosure.ports.diameter", "Diameter", Length, "mm", 5e-3, 1.0, "Inside diameter of the port.";
    WIDTH = "enclosure.ports.width", "Width", Length, "mm", 5e-3, 2.0, "Inside width of the slot.";
    HEIGHT = "enclosure.ports.height", "Height", Length, "mm", 1e-3, 1.0, "Inside height of the slot.";
    WAIST = "enclosure.ports.waist", "Height in the middle", Length, "mm", 1e-3, 2.0, "Height half-way in of a slot that narrows evenly and widens again. The air is fastest there, and the slot tunes lower for its length.";
    SIDE = "enclosure.ports.side", "Side", Length, "mm", 5e-3, 1.0, "How far a port in a corner reaches along each of its two walls, inside.";
    LENGTH = "enclosure.ports.length", "Length", Length, "mm", 1e-3, 10.0, "Length of the port. Longer tunes lower.";
    COUNT = "enclosure.ports.count", "Ports", Number, "", 1.0, 16.0, "How many equal ports. More move the air slower and must be longer.";
    PATH = "enclosure.ports.path", "Extra path", Length, "mm", 0.0, 20.0, "How much farther this mouth has to the listener than the cone.";
    RADIATOR_AREA = "enclosure.radiator.area", "Sp", Area, "cm2", 1e-4, 0.5, "Area of one radiator that pushes air.";
    RADIATOR_MASS = "enclosure.radiator.mass", "Mmp", Mass, "g", 1e-3, 20.0, "Moving mass of one radiator as it is sold, with its air load.";
    RADIATOR_ADDED = "enclosure.radiator.added_mass", "Added mass", Mass, "g", 0.0, 20.0, "Mass screwed to each radiator, bolt and nut counted. More tunes lower.";
    RADIATOR_COMPLIANCE = "enclosure.radiator.compliance", "Cmp", Compliance, "mm/N", 1e-6, 0.1, "Softness of one radiator's suspension.";
    RADIATOR_RESISTANCE = "enclosure.radiator.resistance", "Rmp", MechanicalResistance, "kg/s", 0.0, 100.0, "Friction in one radiator's suspension.";
    RADIATOR_XMAX = "enclosure.radiator.xmax", "Xmax", Length, "mm", 1e-3, 0.2, "How far a radiator can move one way.";
    RADIATOR_COUNT = "enclosure.radiator.count", "Radiators", Number, "", 1.0, 4.0, "How many equal radiators. An opposed pair keeps the box from walking.";
    SEGMENT_LENGTH = "enclosure.passage.segments.length", "Length", Length, "m", 0.005, 20.0, "Length of this stretch along its middle.";
    SEGMENT_START = "enclosure.passage.segments.start", "Start area", Area, "cm2", 1e-4, 10.0, "Area where this stretch begins.";
    SEGMENT_END = "enclosure.passage.segments.end", "End area", Area, "cm2", 1e-4, 10.0, "Area where this stretch ends.";
    SEGMENT_T = "enclosure.passage.segments.t", "T", Number, "", 0.0, 20.0, "Shape of a hyperbolic flare: 1 is exponential, 0.6 loads better just above the cut-off, 0 is a catenoid.";
    SEGMENT_WIDTH = "enclosure.passage.segments.width", "Width", Length, "mm", 0.005, 5.0, "Inside width of a rectangular passage; without one it counts as round.";
    FILL_DENSITY = "enclosure.passage.segments.fill_density", "Fill", Density, "kg/m3", 0.5, 200.0, "Fill in this stretch, mass over volume. 8 is loose, 20 well filled.";
    FILL_SHARE = "enclosure.passage.segments.fill_share", "Filled share", Fraction, "%", 0.01, 1.0, "How much of the section the fill takes: all of it, or less where it lines walls. A lining of 30 mm on one side of a passage 120 mm high is 25 %.";
    FILL_RESISTIVITY = "enclosure.passage.segments.fill_resistivity", "Resistivity", FlowResistivity, "Pa s/m2", 10.0, 2e5, "How much the fill resists a steady flow. Found from the density of polyester where absent.";
    DRIVER_AT = "enclosure.passage.driver_at", "Driver at", Length, "m", 0.0, 20.0, "Where the drivers sit along the path, from its closed end. A fifth to a third quiets the next odd mode.";
    FRONT_AT = "enclosure.passage.front_at", "Front at", Length, "m", 0.01, 20.0, "Where the other side of the drivers speaks into the horn, from its throat.";
    COUPLING = "enclosure.passage.chamber", "Coupling", Volume, "l", 1e-4, 10.0, "Air between the drivers and the line. It takes the upper end away from the line.";
    MOUTH_PATH = "enclosure.passage.path", "Extra path", Length, "m", 0.0, 20.0, "How much farther the mouth has to the listener than the cone.";
    BODY_WIDTH = "body.width", "Width", Length, "mm", 0.03, 8.0, "Of the box, from side to side. Found from the volume where you leave it open.";
    BODY_HEIGHT = "body.height", "Height", Length, "mm", 0.03, 8.0, "Of the box, from the floor up. Found from the volume where you leave it open.";
    BODY_DEPTH = "body.depth", "Depth", Length, "mm", 0.03, 8.0, "Of the box, from front to back. Found from the volume where you leave it open.";
    BODY_TOP_DEPTH = "body.top_depth", "Top depth", Length, "mm", 0.01, 8.0, "Depth of the box at its top.";
    BODY_BACK_HEIGHT = "body.back_height", "Back height", Length, "mm", 0.01, 8.0, "Height of the box at its back; a box under a seat is lower there.";
    BODY_LEAN = "body.lean", "Lean", Length, "mm", 0.0, 4.0, "How far the top of the front leans back.";
    BODY_TOP_WIDTH = "body.top_width", "Top width", Length, "mm", 0.01, 8.0, "Width of the box at its top.";
    BODY_SIDES = "body.sides", "Sides", Number, "", 3.0, 12.0, "How many sides the prism has.";
    BODY_RADIUS = "body.radius", "Radius", Length, "mm", 0.001, 2.0, "Of the round upright edges, outside.";
    BODY_STEP_HEIGHT = "body.step_height", "Step height", Length, "mm", 0.01, 8.0, "How far the step comes down from the top.";
    BODY_STEP_DEPTH = "body.step_depth", "Step depth", Length, "mm", 0.01, 8.0, "How far the step comes forward from the back.";
    THICKNESS = "body.thickness", "Boards", Length, "mm", 0.001, 0.1, "Thickness of the boards as you measure it, not as it is sold: ply is often half a millimetre thinner.";
    PARTITION = "body.partition", "Partition", Length, "mm", 0.001, 0.1, "Thickness of the board between two chambers.";
    BOARD_THICKNESS = "body.panels.thickness", "Thickness", Length, "mm", 0.001, 0.1, "Thickness of one layer of this board as measured.";
    BOARD_LAYERS = "body.panels.layers", "Layers", Number, "", 1.0, 4.0, "How many layers this board is of. A front is often doubled.";
    BOARD_INSET = "body.panels.inset", "Set back", Length, "mm", 0.0, 0.5, "How far this board is set back from the edges of its neighbours.";
    DRIVER_ACROSS = "body.driver.across", "From the left", Length, "mm", 0.0, 8.0, "Middle of the driver from the left as seen from the front; in a side from the back.";
    DRIVER_UP = "body.driver.up", "From below", Length, "mm", 0.0, 8.0, "Middle of the driver from below; in a lid or floor from the back.";
    RADIATOR_ACROSS = "body.radiator.across", "From the left", Length, "mm", 0.0, 8.0, "Middle of the radiator from the left as seen from the front; in a side from the back.";
    RADIATOR_UP = "body.radiator.up", "From below", Length, "mm", 0.0, 8.0, "Middle of the radiator from below; in a lid or floor from the back.";
    PORT_ACROSS = "body.ports.across", "From the left", Length, "mm", 0.0, 8.0, "Middle of the port from the left as seen from the front; in a side from the back.";
    PORT_UP = "body.ports.up", "From below", Length, "mm", 0.0, 8.0, "Middle of the port from below; in a lid or floor from the back.";
    PORT_WALL = "body.ports.wall", "Wall", Length, "mm", 0.0005, 0.1, "Thickness of the tube's wall, or of the slot's board.";
    PORT_TURNS = "body.ports.turns", "Turns", Number, "", 0.0, 2.0, "How often the port turns by a right angle on its way in.";
    PORT_OUTER_FLARE = "body.ports.outer_flare", "Flare outside", Length, "mm", 0.0, 0.3, "Radius of the rounded edge at the port's mouth. It lets the air go faster before it is heard.";
    PORT_INNER_FLARE = "body.ports.inner_flare", "Flare inside", Length, "mm", 0.0, 0.3, "Radius of the rounded edge at the port's inner end.";
    PORT_FLANGE = "body.ports.flange", "Flange", Length, "mm", 0.0, 2.0, "Across the port's flange on the outside.";
    PORT_ELBOW = "body.ports.elbow", "Elbow", Length, "mm", 0.005, 1.0, "From the corner of an elbow to the shoulder up to which the pipe goes in.";
    PORT_SOCKET = "body.ports.socket", "Socket", Length, "mm", 0.005, 0.5, "How deep a pipe goes into an elbow, a coupling or a cap.";
    PORT_COUPLING = "body.ports.coupling", "Coupling", Length, "mm", 0.01, 2.0, "Across a coupling outside: what must pass beside the tube.";
    PORT_CAP = "body.ports.cap", "Cap", Length, "mm", 0.005, 1.0, "Length of a cap that closes the pipe, over all.";
    BRACE_AT = "body.braces.at", "At", Length, "mm", 0.0, 8.0, "Middle of the brace from the left, from below or from the back of the room.";
    BRACE_THICKNESS = "body.braces.thickness", "Thickness", Length, "mm", 0.001, 0.1, "Thickness of the brace.";
    BRACE_OPEN = "body.braces.open", "Open", Fraction, "%", 0.0, 0.95, "Share of the brace that is cut out as a window, so that air can pass.";
    RECESS = "body.recess", "Recess", Length, "mm", 0.0, 0.05, "How deep the frames of drivers and radiators are let into their boards. As deep as a frame is thick, it stands flush.";
    STRIPS = "body.strips", "Strips", Length, "mm", 0.0, 0.1, "Side of the square strips along the inside edges.";
    WASHER = "body.washers.each", "A washer", Mass, "g", 1e-4, 1.0, "What one of your washers weighs: weigh ten.";
    BOLT = "body.washers.bolt", "Bolt and nut", Mass, "g", 0.0, 2.0, "What the bolt that holds the washers weighs with its nut.";
    ITEM_WIDTH = "body.items.width", "Along", Length, "mm", 0.001, 4.0, "Its size along the board it stands against.";
    ITEM_HEIGHT = "body.items.height", "Up", Length, "mm", 0.001, 4.0, "Its size up the board it stands against.";
    ITEM_DEPTH = "body.items.depth", "Into the room", Length, "mm", 0.001, 4.0, "How far it reaches into the room, with its own walls.";
    ITEM_ACROSS = "body.items.across", "From the left", Length, "mm", 0.0, 8.0, "Its middle from the left as seen from the front; in a side from the back.";
    ITEM_UP = "body.items.up", "From below", Length, "mm", 0.0, 8.0, "Its middle from below; in a lid or floor from the back.";
    MEASURED_NOMINAL = "measured.boards.nominal", "Thickness in the design", Length, "mm", 0.001, 0.1, "The thickness that the design has for this board.";
    MEASURED_THICKNESS = "measured.boards.measured", "Measured thickness", Length, "mm", 0.001, 0.1, "The thickness of the board in hand, by calliper, in several places.";
    MEASURED_CUTOUT = "measured.cutout", "Hole for the driver", Length, "mm", 0.02, 1.5, "Diameter of the hole that the driver in hand needs.";
    MEASURED_DEPTH = "measured.depth", "Depth of the driver", Length, "mm", 0.01, 1.0, "From the front of its frame to the back of its magnet, as measured.";
    MEASURED_VOLUME = "measured.volume.measured", "Measured volume", Volume, "l", 0.00005, 20.0, "Net volume behind the drivers, as it was found.";
    EXPECTED_VOLUME = "measured.volume.expected", "Volume in the design", Volume, "l", 0.00005, 20.0, "Net volume behind the drivers that the design had when it was measured.";
    MEASURED_PORT_ENDS = "measured.port_ends", "Port acts longer by", Length, "mm", -0.3, 0.6, "How much longer each port acts than its length and the formulas of its ends say, as the tuning that was measured tells.";
    FOUND_QL = "measured.found.ql", "Leakage found", Number, "", 0.1, 1e4, "QL of the finished box, as its traces say.";
    FOUND_QA = "measured.found.qa", "Absorption found", Number, "", 0.1, 1e4, "QA of the finished box, as its traces say.";
    FOUND_PORT_ENDS = "measured.found.port_ends", "Ports longer by", Length, "mm", -0.3, 0.6, "How much longer each port was found to act than its length and the formulas of its ends say.";
    FOUND_ERROR = "measured.found.error", "Standard error", Number, "", 0.0, 1e4, "How far off the value may be that was found: one standard error.";
    FOUND_LENGTH_ERROR = "measured.found.port_ends.error", "Standard error", Length, "mm", 0.0, 0.3, "How far off the length may be that was found: one standard error.";
    ITEM_RIM = "body.items.rim", "Rim", Length, "mm", 0.0, 0.2, "How far its plate reaches beyond the opening on every side: the gasket and every screw need their place there.";
    ITEM_VOLUME = "body.items.volume", "Displacement", Volume, "l", 0.0, 1.0, "How much volume it takes up: its outside, with its own box if it has one.";
    LAYER_THICKNESS = "body.fills.thickness", "Thick", Length, "mm", 0.001, 3.0, "How thick this layer of fill is.";
    LAYER_DENSITY = "body.fills.density", "Density", Density, "kg/m3", 0.5, 200.0, "Fill in this layer, mass over volume. 10 is loose, 30 firm, 60 and more a board.";
    LAYER_RESISTIVITY = "body.fills.resistivity", "Resistivity", FlowResistivity, "Pa s/m2", 10.0, 2e5, "How much the fill resists a steady flow. Found from the density of polyester where absent.";
    FOLDS = "body.fold.folds", "Folds", Number, "", 0.0, 12.0, "How often the path turns back in its box.";
    FOLD_THICKNESS = "body.fold.thickness", "Boards between", Length, "mm", 0.001, 0.1, "Thickness of the boards between the channels.";
    FOLD_AT = "body.fold.panels.at", "At", Length, "mm", 0.0, 8.0, "Middle of this board from the top, or of upright ones from the front, of the path's room.";
    AMPLIFIER_POWER = "signal.amplifier.power", "Amplifier", Power, "W", 0.1, 20_000.0, "What the amplifier gives into the nominal load.";
    AMPLIFIER_POWER_8 = "signal.amplifier.power_8", "Into 8 Ω", Power, "W", 0.1, 20_000.0, "What the amplifier gives into 8 ohm.";
    AMPLIFIER_POWER_4 = "signal.amplifier.power_4", "Into 4 Ω", Power, "W", 0.1, 20_000.0, "What the amplifier gives into 4 ohm.";
    AMPLIFIER_POWER_2 = "signal.amplifier.power_2", "Into 2 Ω", Power, "W", 0.1, 20_000.0, "What the amplifier gives into 2 ohm.";
    AMPLIFIER_VOLTAGE = "signal.amplifier.voltage", "Amplifier", Voltage, "V", 0.1, 500.0, "Highest voltage of the amplifier, RMS of a sine.";
    AMPLIFIER_CURRENT = "signal.amplifier.current", "Current", Current, "A", 0.1, 500.0, "Highest current of the amplifier, RMS of a sine.";
    AMPLIFIER_LOAD = "signal.amplifier.minimum_load", "Minimum load", Resistance, "ohm", 0.5, 64.0, "The lowest impedance that the amplifier stands.";
    AMPLIFIER_RESISTANCE = "signal.amplifier.output_resistance", "Output resistance", Resistance, "ohm", 0.0, 50.0, "Resistance of the amplifier at its terminals: hundredths of an ohm of most, ohms of valves. Raises Qes as a cable does.";
    MOUNTING_WIDTH = "signal.amplifier.mounting.width", "Inside width", Length, "mm", 0.02, 2.0, "Width of the part of the amplifier that reaches into the box, along its board.";
    MOUNTING_HEIGHT = "signal.amplifier.mounting.height", "Inside height", Length, "mm", 0.02, 2.0, "Height of the part of the amplifier that reaches into the box, up its board.";
    MOUNTING_DEPTH = "signal.amplifier.mounting.depth", "Depth", Length, "mm", 0.01, 1.0, "How deep the amplifier reaches behind its board.";
    MOUNTING_RIM = "signal.amplifier.mounting.rim", "Rim", Length, "mm", 0.0, 0.2, "How far its plate reaches beyond the opening on every side: the gasket and every screw need their place there.";
    MOUNTING_ACROSS = "signal.amplifier.mounting.across", "From the left", Length, "mm", 0.0, 8.0, "Its middle from the left as seen from the front; in a side from the back.";
    MOUNTING_UP = "signal.amplifier.mounting.up", "From below", Length, "mm", 0.0, 8.0, "Its middle from below; in a lid or floor from the back.";
    FILTER_ORDER = "signal.filters.order", "Order", Number, "", 1.0, 8.0, "How steep it is: 6 dB per octave each.";
    FILTER_FREQUENCY = "signal.filters.frequency", "Frequency", Frequency, "Hz", 1.0, 20_000.0, "The corner of a pass or shelf filter, the middle of a band.";
    FILTER_Q = "signal.filters.q", "Q", Number, "", 0.1, 50.0, "How narrow it is, or how much it overshoots.";
    FILTER_GAIN = "signal.filters.gain", "Gain", Level, "dB", -40.0, 40.0, "How much louder it makes the sound.";
    FILTER_OCTAVES = "signal.filters.octaves", "Octaves", Number, "", 0.05, 6.0, "How wide it is: from the one frequency to the other at which it has half its gain in dB.";
    FILTER_SLOPE = "signal.filters.slope", "Slope", Number, "", 0.1, 1.0, "How steeply a shelf passes over; 1 is the steepest without overshoot.";
    WANTED_FREQUENCY = "signal.filters.wanted_frequency", "New Fc", Frequency, "Hz", 5.0, 500.0, "The corner frequency that the box has with this filter.";
    WANTED_Q = "signal.filters.wanted_q", "New Qtc", Number, "", 0.3, 2.0, "The Q that the box has with this filter; 0.71 is flattest.";
    FILTER_DELAY = "signal.filters.delay", "Delay", Time, "ms", 0.0, 0.2, "How much later it plays.";
    PART_RESISTANCE = "signal.parts.resistance", "R", Resistance, "ohm", 0.01, 1000.0, "Resistor at this place of the passive circuit.";
    PART_INDUCTANCE = "signal.parts.inductance", "L", Inductance, "mH", 1e-6, 0.2, "Coil at this place of the passive circuit.";
    PART_COIL_RESISTANCE = "signal.parts.coil_resistance", "DCR", Resistance, "ohm", 0.0, 20.0, "Resistance of the coil's wire.";
    PART_CAPACITANCE = "signal.parts.capacitance", "C", Capacitance, "uF", 1e-8, 0.1, "Capacitor at this place of the passive circuit.";
    PART_CAPACITOR_RESISTANCE = "signal.parts.capacitor_resistance", "ESR", Resistance, "ohm", 0.0, 20.0, "Series resistance of the capacitor.";
    MAINS_FREQUENCY = "signal.mains.frequency", "Mains F3", Frequency, "Hz", 10.0, 1000.0, "Where the level of the main loudspeakers has fallen by 3 dB by themselves.";
    MAINS_ORDER = "signal.mains.order", "Mains order", Number, "", 1.0, 8.0, "How steeply the mains fall below that: 2 for sealed ones, 4 for ported ones.";
    MAINS_CORNER = "signal.mains.high_pass.frequency", "High-pass", Frequency, "Hz", 1.0, 20_000.0, "Corner of the high-pass before the main loudspeakers.";
    MAINS_DISTANCE = "signal.mains.distance", "Mains distance", Length, "m", 0.1, 100.0, "From the main loudspeakers to the listener.";
    SUB_DISTANCE = "signal.mains.sub_distance", "Sub distance", Length, "m", 0.1, 100.0, "From the sub to the listener.";
    LINK_DELAY = "signal.mains.link_delay", "Link delay", Time, "ms", 0.0, 0.2, "Delay of a wireless or digital link to the sub.";
    DRIVE_POWER = "signal.drive.power", "Drive", Power, "W", 1e-3, 20_000.0, "Amplifier power into the driver's nominal impedance.";
    DRIVE_VOLTAGE = "signal.drive.voltage", "Drive", Voltage, "V", 1e-3, 500.0, "Voltage at the driver's terminals.";
    BRIEF_LOWEST = "brief.lowest", "Lowest note", Frequency, "Hz", 5.0, 500.0, "The lowest note that is to be heard in full, in hertz or by its name, such as E1.";
    BRIEF_LOUDNESS = "brief.loudness", "Loudness", Level, "dB", 50.0, 140.0, "How loud it is to be where the listener is. A loud living room is 95 dB, a film's peaks 105 dB and more.";
    BRIEF_LOUDEST = "brief.loudest", "Never above", Level, "dB", 50.0, 160.0, "The highest level that it may ever reach where the listener is, for neighbours or for ears: low, but never loud.";
    BRIEF_DISTANCE = "brief.distance", "Distance", Length, "m", 0.2, 100.0, "How far the listener is.";
    BRIEF_WIDTH = "brief.width", "Width", Length, "cm", 0.05, 5.0, "Most that it may measure outside, from side to side.";
    BRIEF_HEIGHT = "brief.height", "Height", Length, "cm", 0.05, 5.0, "Most that it may measure outside, from the floor up.";
    BRIEF_DEPTH = "brief.depth", "Depth", Length, "cm", 0.05, 5.0, "Most that it may measure outside, from front to back.";
    BRIEF_TOP_DEPTH = "brief.top_depth", "Depth at its top", Length, "cm", 0.0, 5.0, "How deep the place is at its top, where it is a wedge: behind a seat, under a roof.";
    BRIEF_HEAD = "brief.head_width", "Amplifier head", Length, "cm", 0.05, 2.0, "Width of the amplifier head that is to stand on it.";
    BRIEF_WEIGHT = "brief.weight", "Weight", Mass, "kg", 0.5, 1000.0, "Most that the finished cabinet may weigh, with its drivers.";
    BRIEF_FREE = "brief.volume", "Outside volume", Volume, "l", 1e-3, 20.0, "Most that the whole cabinet may take up.";
    BRIEF_CABINETS = "brief.cabinets", "Cabinets", Number, "", 1.0, 16.0, "How many equal ones stand close together, each with such an amplifier: a pair, a stack. Sizes and weight are those of one, loudness and cost those of all.";
    BRIEF_BUDGET = "brief.budget", "Budget", Number, "", 0.0, 1e6, "What everything in the parts list may cost in all, in your currency: drivers, boards, hardware, finish.";
    BRIEF_POWER = "brief.amplifier_power", "Amplifier", Power, "W", 0.1, 20_000.0, "What the amplifier gives into its load.";
    BRIEF_LOAD = "brief.amplifier_load", "Minimum load", Resistance, "ohm", 0.5, 64.0, "The lowest impedance that the amplifier stands.";
    BRIEF_CROSSOVER = "brief.crossover", "Crossover", Frequency, "Hz", 20.0, 1000.0, "Where the other loudspeakers take over.";
    WORKSHOP_KERF = "workshop.kerf", "Kerf", Length, "mm", 0.0, 0.01, "Width of the cut that the saw makes: 3.2 mm of most table saws, 2 mm of thin blades.";
    WORKSHOP_TRIM = "workshop.trim", "Edge trim", Length, "mm", 0.0, 0.05, "What is taken off every edge of a sheet first, because corners and edges are bruised.";
    WORKSHOP_OVERSIZE = "workshop.oversize", "Cut over", Length, "mm", 0.0, 0.05, "How much larger boards are cut at first on every side, to be trimmed to size later; shops that cut roughly need about 13 mm.";
    WORKSHOP_HATCH = "workshop.hatch_width", "Into the car, width", Length, "mm", 0.2, 4.0, "Narrower side of the largest piece that goes into the car; sheets are cut to that at the shop.";
    WORKSHOP_HATCH_LENGTH = "workshop.hatch_length", "Into the car, length", Length, "mm", 0.2, 6.0, "Longer side of the largest piece that goes into the car.";
    WORKSHOP_KIT = "workshop.kit", "Kit costs", Number, "", 0.0, 1e5, "What a kit of ready-cut and drilled boards for one cabinet costs; it is compared with cutting them from sheets.";
    WORKSHOP_COATS = "workshop.coats", "Coats", Number, "", 1.0, 12.0, "How many coats of the finish.";
    WORKSHOP_ROUND_OVER = "workshop.round_over", "Round-over", Length, "mm", 0.0, 0.06, "Radius that the outside edges are rounded with.";
    WORKSHOP_HANDLES = "workshop.handles", "Handles", Number, "", 0.0, 8.0, "How many handles a cabinet has.";
    WORKSHOP_SLACK = "workshop.slack", "Slack of leads", Length, "mm", 0.0, 2.0, "Length of lead beyond what is needed, so that the driver can be connected outside its hole.";
    WORKSHOP_HAND = "workshop.hand", "Room for a hand", Length, "mm", 0.05, 0.4, "Opening that a hand needs to reach inside.";
    WORKSHOP_CUTTER = "workshop.cutter", "Cutter", Length, "mm", 0.002, 0.05, "Diameter of the cutter in the router.";
    WORKSHOP_BUSH = "workshop.bush", "Guide bush", Length, "mm", 0.004, 0.08, "Outside diameter of the guide bush on the router, which runs along a template.";
    WORKSHOP_HOURS = "workshop.hours", "Free hours", Number, "", 0.0, 24.0, "Hours on this day of the week that can be worked.";
    WORKSHOP_TEMPERATURE = "workshop.temperature", "Workshop", Temperature, "degC", -10.0, 45.0, "Temperature of the workshop: glue and paint set slower where it is cold.";
    SHEET_THICKNESS = "workshop.sheets.thickness", "Thickness", Length, "mm", 0.001, 0.1, "Thickness of the sheet as the design has it.";
    SHEET_WIDTH = "workshop.sheets.width", "Width", Length, "mm", 0.05, 4.0, "Width of the sheet, across its grain.";
    SHEET_HEIGHT = "workshop.sheets.height", "Length", Length, "mm", 0.05, 6.0, "Length of the sheet, along its grain.";
    SHEET_PRICE = "workshop.sheets.price", "Price", Number, "", 0.0, 1e5, "What one sheet costs.";
    SHEET_AT_HAND = "workshop.sheets.at_hand", "At hand", Number, "", 1.0, 99.0, "How many offcuts like it are at hand.";
    ITEM_PRICE = "workshop.items.price", "Price", Number, "", 0.0, 1e6, "What one costs, in your currency.";
    ITEM_STOCK = "workshop.items.stock", "In stock", Number, "", 0.0, 1e6, "How much of it is in stock.";
    ENTRY_HOURS = "entry.hours", "Hours", Time, "h", 0.0, 3.6e5, "How long it took.";
    MEASUREMENT_DRIVER = "measurement.driver", "Driver", Number, "", 1.0, 16.0, "Which of the drivers, counted from 1.";
    MEASUREMENT_MASS = "measurement.added_mass", "Mass on the cone", Mass, "g", 1e-4, 1.0, "What was stuck to the cone, as weighed. About a quarter of the moving mass tells most.";
    MEASUREMENT_DISTANCE = "measurement.distance", "Distance", Length, "mm", 0.0, 100.0, "From the microphone to what it listens to.";
    MEASUREMENT_ANGLE = "measurement.angle", "Off axis", Angle, "deg", -3.15, 3.15, "How far to the side the microphone stood.";
    MEASUREMENT_DRIVE = "measurement.drive", "Voltage", Voltage, "V", 1e-4, 200.0, "RMS at the terminals.";
    MEASUREMENT_TEMPERATURE = "measurement.room_temperature", "Room temperature", Temperature, "degC", -20.0, 50.0, "By a thermometer beside the box: the tuning rises by 0.17 % for each degree.";
    ENTRY_COST = "entry.cost", "Cost", Number, "", 0.0, 1e6, "What it cost, in your currency.";
    PLACE_WIDTH = "place.width", "Width", Length, "m", 0.5, 60.0, "Inside, from the left wall to the right one.";
    PLACE_LENGTH = "place.length", "Length", Length, "m", 0.5, 60.0, "Inside, from the bottom of the plan to its top; in a car from the back to the dashboard.";
    PLACE_HEIGHT = "place.height", "Height", Length, "m", 0.5, 20.0, "Inside, from the floor to the ceiling.";
    PLACE_ABSORPTION = "place.absorption", "Absorption", Fraction, "%", 0.01, 0.3, "Share of the sound that the walls swallow at low frequencies: bare concrete 2 %, plaster on studs 10 %, light boards and large windows 20 % and more (common practice).";
    PLACE_WALL_ABSORPTION = "place.walls", "Absorption", Fraction, "%", 0.01, 0.3, "Share of the sound that this wall swallows.";
    PLACE_LEAK = "place.leak", "Leak corner", Frequency, "Hz", 0.0, 40.0, "Below it the pressure of the whole room escapes through gaps and vents; some hertz in a car, none in a room that is said to be tight.";
    PLACE_HOURS = "place.hours", "Playing time", Time, "h", 60.0, 86_400.0, "How long it plays a day, for ears and battery.";
    PLACE_WALL_MASS = "place.wall_mass", "Wall to the neighbours", SurfaceDensity, "kg/m2", 1.0, 2000.0, "Mass of the wall to the neighbours per area: plasterboard on studs 25, a brick wall 200, concrete 400 (common practice).";
    STAND_ACROSS = "place.cabinets.across", "From the left", Length, "m", -500.0, 500.0, "Middle of the cabinet from the left wall.";
    STAND_ALONG = "place.cabinets.along", "Up the plan", Length, "m", -500.0, 500.0, "Middle of the cabinet from the wall at the bottom of the plan.";
    STAND_UP = "place.cabinets.up", "Above the floor", Length, "m", 0.0, 20.0, "Underside of the cabinet above the floor.";
    STAND_TURNED = "place.cabinets.turned", "Turned", Angle, "deg", -6.3, 6.3, "Which way its front faces: 0 up on the plan, 90 to the left.";
    STAND_GAIN = "place.cabinets.gain", "Gain", Level, "dB", -40.0, 20.0, "How much louder it plays than the others.";
    STAND_DELAY = "place.cabinets.delay", "Delay", Time, "ms", 0.0, 0.2, "How much later it plays.";
    SEAT_ACROSS = "place.seats.across", "From the left", Length, "m", -500.0, 500.0, "The ears from the left wall.";
    SEAT_ALONG = "place.seats.along", "Up the plan", Length, "m", -500.0, 500.0, "The ears from the wall at the bottom of the plan.";
    SEAT_UP = "place.seats.up", "Ear height", Length, "m", 0.0, 20.0, "The ears above the floor: 1.2 m seated, 1.7 m standing.";
    AREA_LEFT = "place.areas.left", "From the left", Length, "m", 0.0, 60.0, "Where the area begins, from the left wall.";
    AREA_RIGHT = "place.areas.right", "To the right", Length, "m", 0.0, 60.0, "Where the area ends, from the left wall.";
    AREA_BELOW = "place.areas.below", "From the bottom", Length, "m", 0.0, 60.0, "Where the area begins, from the wall at the bottom of the plan.";
    AREA_ABOVE = "place.areas.above", "Up to", Length, "m", 0.0, 60.0, "Where the area ends, from the wall at the bottom of the plan.";
    AREA_UP = "place.areas.up", "Above the floor", Length, "m", 0.0, 20.0, "Underside of a cabinet there above the floor: 0 on the floor, more on a shelf.";
    BATTERY_CAPACITY = "place.battery.capacity", "Battery", Energy, "Wh", 3600.0, 3.6e8, "What the battery holds: its volts times its ampere hours.";
    BATTERY_USABLE = "place.battery.usable", "Usable", Fraction, "%", 0.05, 1.0, "Share of it that may be used: lead 50 %, lithium iron phosphate 80 to 90 % (common practice).";
    BATTERY_EFFICIENCY = "place.battery.efficiency", "Efficiency", Fraction, "%", 0.05, 1.0, "Share of what is drawn that reaches the drivers: converter times amplifier.";
    BATTERY_IDLE = "place.battery.idle", "Idle", Power, "W", 0.0, 1000.0, "What amplifier and converter draw without any sound.";
    BATTERY_SOLAR = "place.battery.solar", "Solar a day", Energy, "Wh", 0.0, 3.6e8, "What a solar panel brings on a usual day: its watts times three to five hours of full sun.";
    TEMPERATURE = "air.temperature", "Temperature", Temperature, "degC", -20.0, 50.0, "Temperature of the air.";
    PRESSURE = "air.pressure", "Pressure", Pressure, "kPa", 5e4, 1.1e5, "Pressure of the air.";
    HUMIDITY = "air.humidity", "Humidity", Fraction, "%", 0.0, 1.0, "Relative humidity of the air.";
}

/// The driver's fields.
pub fn driver_fields() -> impl Iterator<Item = &'static Field> {
    FIELDS.iter().copied().filter(|field| field.path.starts_with("driver."))
}
