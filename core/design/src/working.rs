//! How each figure is worked out: its formula, what went into it here, and where it comes from.

use oak_acoustics::network::Reference;
use oak_cabinetry::modes::{plain, standing_waves};
use oak_cabinetry::panel;
use serde::Serialize;
use utoipa::ToSchema;

use crate::built::Boxed;
use crate::problem::Problem;
use crate::report::{Computed, WeightReport, compute};
use crate::resolve::ResolvedDesign;
use oak_acoustics::response::FrequencyGrid;

/// How one figure is worked out.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Working {
    /// Which figure: `f3`, `clean`, `peak`, `air_volume`, `air_speed`, `excursion`, `load`, `tuning`, `port_length`, `radiator`, `fc`, `qtc`,
    /// `level`, `group_delay`, `efficiency`, `way`, `net_volume`, `board`, `standing_wave`, `mass`.
    pub id: &'static str,
    /// What it is called.
    pub name: &'static str,
    /// What it comes to here.
    pub result: String,
    /// The formula, or the rule by which it is read off the solution.
    pub formula: &'static str,
    /// What went into it.
    pub inputs: Vec<Input>,
    /// Where formula or rule come from.
    pub source: &'static str,
}

/// A value that went into a figure.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Input {
    /// As in the formula.
    pub symbol: &'static str,
    /// What it is here, with its unit.
    pub value: String,
}

const NETWORK: &str = "Solved from the network of driver, air and openings with radiation, losses and wall friction in it; \
    no table of alignments. The elements and their sources stand in the project's acoustics crate.";

/// The grid that curves are read off here: 10 Hz to 1 kHz, a ninetieth of an octave apart.
const POINTS: usize = 600;

/// Works out every figure of a design.
///
/// # Errors
/// What only shows when the ports are worked out.
pub fn workings(design: &ResolvedDesign) -> Result<Vec<Working>, Problem> {
    let grid = FrequencyGrid::logarithmic(10.0, 1000.0, POINTS).expect("within the allowed range");
    let computed = compute(design, &grid)?;
    let design = &computed.built.design;
    let rules: [fn(&ResolvedDesign, &Computed) -> Option<Working>; 20] = [
        f3,
        level,
        clean,
        peak,
        excursion,
        air_speed,
        tuning,
        port_length,
        radiator,
        fc,
        qtc,
        load,
        group_delay,
        efficiency,
        air_volume,
        way,
        net_volume,
        board,
        standing_wave,
        mass,
    ];
    Ok(rules.iter().filter_map(|rule| rule(design, &computed)).collect())
}

fn input(symbol: &'static str, value: f64, unit: &str) -> Input {
    let space = if unit.is_empty() || unit.starts_with('°') { "" } else { " " };
    Input { symbol, value: format!("{}{space}{unit}", oak_units::significant(value, 4)) }
}

fn words(symbol: &'static str, value: &str) -> Input {
    Input { symbol, value: value.to_owned() }
}

fn hertz(value: f64) -> String {
    format!("{value:.1} Hz")
}

fn f3(_: &ResolvedDesign, computed: &Computed) -> Option<Working> {
    let f3 = computed.figures.f3?;
    Some(Working {
        id: "f3",
        name: "F3",
        result: hertz(f3),
        formula: "lowest f with L(f) = Lref − 3 dB",
        inputs: vec![
            input("Lref", computed.figures.reference_level, "dB"),
            words(
                "Lref is",
                match computed.figures.reference {
                    Reference::Piston => "the level that the driver's parameters promise for its piston band",
                    Reference::Passband => "the mean power of the passband, the band within 3 dB of it",
                },
            ),
        ],
        source: NETWORK,
    })
}

fn level(design: &ResolvedDesign, computed: &Computed) -> Option<Working> {
    let driver = design.as_driven();
    let (reference, formula, source) = match computed.figures.reference {
        Reference::Piston => (
            vec![
                input("E", computed.built.compiled.network.passband_volts(design.drive.volts), "V"),
                input("Bl", driver.bl, "T m"),
                input("Sd", driver.sd * 1e4, "cm²"),
                input("Re", driver.re, "Ω"),
                input("Mms", driver.mms * 1e3, "g"),
                input("ρ", design.air.density, "kg/m³"),
                input("Ω", design.space.angle(), "sr"),
                input("n", f64::from(design.cabinets), "cabinets"),
            ],
            "p = n ρ E Bl Sd/(Ω Re Mms),  L = 20 lg(p/20 µPa)",
            "Small 1972, Direct-radiator loudspeaker system analysis, J. Audio Eng. Soc. 20, eq. 24 in terms of pressure",
        ),
        Reference::Passband => (
            vec![input("E", design.drive.volts, "V")],
            "Lref = 10 lg(mean of p² over log f in the band)/p0², the band what lies within 3 dB of Lref",
            NETWORK,
        ),
    };
    Some(Working {
        id: "level",
        name: "SPL at 1 m",
        result: format!("{:.1} dB", computed.figures.reference_level),
        formula,
        inputs: reference,
        source,
    })
}

fn clean(design: &ResolvedDesign, computed: &Computed) -> Option<Working> {
    let f3 = computed.figures.f3?;
    let at = computed.response.frequency.partition_point(|frequency| *frequency < f3);
    let most = computed.max_output.level.get(at).filter(|level| level.is_finite())?;
    let allowance = &design.allowance;
    let given = [
        allowance.volts.map(|volts| input("amplifier", volts, "V")),
        allowance.amperes.map(|amperes| input("amplifier", amperes, "A")),
        allowance.heat.map(|heat| input("coils' heat", heat, "W")),
        allowance.xmax.map(|xmax| input("Xmax", xmax * 1e3, "mm")),
        Some(input("air", allowance.air_speed, "m/s")),
        Some(input("crest", allowance.crest, "dB")),
    ];
    Some(Working {
        id: "clean",
        name: "Maximum clean level",
        result: format!("{most:.1} dB at 1 m and {}", hertz(f3)),
        formula: "L(f) + 20 lg of the least of: volts/E, amperes/I, √(heat/(I² Re)), Xmax/x, air/v, E behind the filters",
        inputs: given.into_iter().flatten().collect(),
        source: "Each quantity grows with the drive, so the first to reach its limit decides. Small-signal values are used up to \
                 the limit; power compression and distortion below it are not counted.",
    })
}

fn peak(_: &ResolvedDesign, computed: &Computed) -> Option<Working> {
    let Computed { figures, .. } = computed;
    Some(Working {
        id: "peak",
        name: "Evenness",
        result: format!("{:+.1} dB", figures.level_peak.value - figures.reference_level),
        formula: "highest L(f) − Lref",
        inputs: vec![
            input("highest", figures.level_peak.value, "dB"),
            input("at", figures.level_peak.frequency, "Hz"),
            input("Lref", figures.reference_level, "dB"),
        ],
        source: NETWORK,
    })
}

fn excursion(design: &ResolvedDesign, computed: &Computed) -> Option<Working> {
    let travel = computed.figures.excursion_in_band?;
    let mut inputs = vec![input("E", design.drive.volts, "V"), input("f", travel.frequency, "Hz")];
    inputs.extend(design.allowance.xmax.map(|xmax| input("Xmax", xmax * 1e3, "mm")));
    Some(Working {
        id: "excursion",
        name: "Cone travel",
        result: format!("{} mm one way", oak_units::significant(travel.value * 1e3, 3)),
        formula: "x = √2 |v|/(2π f), v the velocity of the cone",
        inputs,
        source: NETWORK,
    })
}

fn air_speed(design: &ResolvedDesign, computed: &Computed) -> Option<Working> {
    let air = computed.figures.air_speed?;
    let opening = computed.built.compiled.network.openings.get(computed.figures.fastest_opening?)?;
    Some(Working {
        id: "air_speed",
        name: "Air speed",
        result: format!("{} m/s, peak", oak_units::significant(air.value, 3)),
        formula: "v = √2 |U|/S, U the flow through the opening",
        inputs: vec![
            words("opening", &opening.label),
            input("S", opening.area * 1e4, "cm²"),
            input("f", air.frequency, "Hz"),
            input("E", design.drive.volts, "V"),
        ],
        source: "Mean over the cross-section. 17 m/s for straight edges and 34 m/s for generous flares are common practice.",
    })
}

fn tuning(design: &ResolvedDesign, computed: &Computed) -> Option<Working> {
    let tuning = computed.built.compiled.port_tuning.as_ref()?;
    Some(Working {
        id: "tuning",
        name: "Tuning Fb",
        result: hertz(tuning.reactance),
        formula: "Im Y(Fb) = 0, Y the admittance of box and ports; Helmholtz: c/(2π) √(S/(V Leff))",
        inputs: vec![
            input("Helmholtz", tuning.helmholtz, "Hz"),
            input("c", design.air.speed, "m/s"),
            input("V", design.enclosure.air() * 1e3, "l"),
        ],
        source: "Ports as pipes with friction and heat at their walls (Stinson 1991) and end corrections by their surroundings; \
                 Helmholtz's formula, with the same corrections, beside it.",
    })
}

fn port_length(design: &ResolvedDesign, computed: &Computed) -> Option<Working> {
    let tuning = computed.built.compiled.port_tuning.as_ref()?;
    let port = tuning.ports.first()?;
    let effective = design.air.speed / (2.0 * port.pipe_resonance);
    Some(Working {
        id: "port_length",
        name: "Port length",
        result: format!("{} mm", oak_units::significant(port.length * 1e3, 4)),
        formula: "L solved so that Im Y(Fb) = 0;  Leff = L + both end corrections;  first pipe resonance c/(2 Leff)",
        inputs: vec![
            input("S", port.area * 1e4, "cm²"),
            input("ports", f64::from(port.count), ""),
            input("Leff", effective * 1e3, "mm"),
            input("pipe", port.pipe_resonance, "Hz"),
        ],
        source: "A free end adds 0.61 and a flanged one 0.85 radii at low frequencies (Levine and Schwinger 1948; Rayleigh 1896); \
                 a port along walls of the box counts its mirror images.",
    })
}

fn radiator(design: &ResolvedDesign, computed: &Computed) -> Option<Working> {
    let travel = computed.figures.radiator_travel?;
    let xmax = computed.built.compiled.network.openings.iter().find_map(|opening| opening.xmax);
    let mut inputs = vec![input("E", design.drive.volts, "V"), input("f", travel.frequency, "Hz")];
    inputs.extend(xmax.map(|xmax| input("Xmax", xmax * 1e3, "mm")));
    Some(Working {
        id: "radiator",
        name: "Radiator travel",
        result: format!("{} mm one way", oak_units::significant(travel.value * 1e3, 3)),
        formula: "x = √2 |v|/(2π f), v the velocity of the radiator, the largest from F3 up",
        inputs,
        source: NETWORK,
    })
}

fn fc(design: &ResolvedDesign, computed: &Computed) -> Option<Working> {
    let closed = computed.built.compiled.closed_box?;
    let driver = design.as_driven();
    Some(Working {
        id: "fc",
        name: "Fc",
        result: hertz(closed.fc),
        formula: "Fc = Fs √(1 + Vas/Vb)",
        inputs: vec![
            input("Fs", driver.fs(), "Hz"),
            input("Vas", driver.vas(&design.air) * 1e3, "l"),
            input("Vb", design.enclosure.air() * 1e3, "l"),
        ],
        source: "Small 1972/73, Closed-box loudspeaker systems, J. Audio Eng. Soc.; Vb with the gain of its fill",
    })
}

fn qtc(design: &ResolvedDesign, computed: &Computed) -> Option<Working> {
    let closed = computed.built.compiled.closed_box?;
    let driver = design.as_driven();
    Some(Working {
        id: "qtc",
        name: "Qtc",
        result: oak_units::significant(closed.qtc, 3),
        formula: "1/Qtc = 1/Qec + 1/Qmc + 1/QB, each Q times Fc/Fs",
        inputs: vec![
            input("Qes", driver.qes(), ""),
            input("Qms", driver.qms(), ""),
            input("Fc/Fs", closed.fc / driver.fs(), ""),
        ],
        source: "Small 1972/73, Closed-box loudspeaker systems, J. Audio Eng. Soc.; QB are the losses of the box",
    })
}

fn load(design: &ResolvedDesign, computed: &Computed) -> Option<Working> {
    let least = computed.figures.impedance_minimum;
    let driver = design.as_driven();
    Some(Working {
        id: "load",
        name: "Lowest impedance",
        result: format!("{} Ω at {}", oak_units::significant(least.value, 3), hertz(least.frequency)),
        formula: "|Z| = E/|I|, the least from 10 Hz up",
        inputs: vec![
            input("Re with cable", driver.re, "Ω"),
            input("nominal", driver.nominal, "Ω"),
            input("drivers", f64::from(design.driver_array.wiring.count()), ""),
        ],
        source: NETWORK,
    })
}

fn group_delay(_: &ResolvedDesign, computed: &Computed) -> Option<Working> {
    let delay = computed.figures.group_delay;
    Some(Working {
        id: "group_delay",
        name: "Group delay",
        result: format!("{} ms at {}", oak_units::significant(delay.value * 1e3, 3), hertz(delay.frequency)),
        formula: "τ = −dφ/dω, without the travel time to the listener",
        inputs: vec![words("counted from", "F10 up")],
        source: NETWORK,
    })
}

fn efficiency(_: &ResolvedDesign, computed: &Computed) -> Option<Working> {
    let best = computed.figures.efficiency;
    Some(Working {
        id: "efficiency",
        name: "Efficiency",
        result: format!("{} % at {}", oak_units::significant(best.value * 100.0, 2), hertz(best.frequency)),
        formula: "η = radiated power/(E Re I)",
        inputs: Vec::new(),
        source: "Every opening works against its own radiation resistance and, where they stand close, against the others' sound.",
    })
}

fn net_volume(_: &ResolvedDesign, computed: &Computed) -> Option<Working> {
    let Boxed { cabinet, .. } = computed.built.boxed.as_ref()?;
    let ledger = &cabinet.chambers.first()?.ledger;
    let litres = |volume: f64| format!("{:.2} l", volume * 1e3);
    let mut inputs = vec![words("between the boards", &litres(ledger.gross))];
    let each = ledger.entries.iter().map(|entry| format!("{} {}", entry.what, litres(entry.volume)));
    inputs.push(words("taken", &each.collect::<Vec<_>>().join(", ")));
    Some(Working {
        id: "net_volume",
        name: "Net volume behind the drivers",
        result: litres(ledger.net()),
        formula: "space between the boards − what lies in it",
        inputs,
        source: "Prisms and frusta as they are drawn; of a driver what lies behind its board, of a port what lies inside. Checked by filling \
                 boxes with cubes.",
    })
}

fn board(design: &ResolvedDesign, computed: &Computed) -> Option<Working> {
    let Boxed { contents, cabinet } = computed.built.boxed.as_ref()?;
    let walls = panel::walls(&design.body, contents, cabinet);
    let weakest = walls.iter().filter_map(|wall| Some((wall, wall.weakest()?)));
    let (wall, plate) = weakest.min_by(|a, b| a.1.resonance().total_cmp(&b.1.resonance()))?;
    let material = plate.material;
    let free = if plate.free { ", one end of b free" } else { "" };
    let edges = format!("{:.0} % of the way from hinged to clamped{free}", plate.held * 100.0);
    Some(Working {
        id: "board",
        name: "Resonance of the weakest board",
        result: format!("{:.0} Hz, {}", plate.resonance(), wall.location.name()),
        formula: "f = π/2 √(D/(ρ h)) √k, k = Ga⁴/a⁴ + Gb⁴/b⁴ + 2 (ν Ha Hb + (1 − ν) Ja Jb)/(a b)², D = E h³/(12 (1 − ν²))",
        inputs: vec![
            input("a", plate.sides[0] * 1e3, "mm"),
            input("b", plate.sides[1] * 1e3, "mm"),
            input("h", plate.thickness * 1e3, "mm"),
            input("E", material.modulus / 1e9, "GPa"),
            input("ν", material.poisson, ""),
            input("ρ", material.density, "kg/m3"),
            input("k", plate.edges(), "1/m4"),
            words("edges", &edges),
        ],
        source: "Warburton 1954: G 1 hinged and 1.506 clamped, H and J 1 and 1.248; with a free end G 0 and 0.597, H 0 and −0.087, J 0.304 and \
                 0.471; within 1 % of Leissa 1969 (NASA SP-160). How firmly glue holds an \
                 edge is common practice.",
    })
}

/// Up to where standing waves are looked for, Hz.
const HIGHEST_WAVE: f64 = 2000.0;

fn standing_wave(design: &ResolvedDesign, computed: &Computed) -> Option<Working> {
    let Boxed { cabinet, .. } = computed.built.boxed.as_ref()?;
    let room = &cabinet.chambers.first()?.interior;
    let [low, high] = room.bounds();
    let longest = (0..3).map(|k| high[k] - low[k]).fold(0.0, f64::max);
    let waves = standing_waves(room, plain(&design.body.shape), design.air.speed, HIGHEST_WAVE);
    let lowest = waves.into_iter().min_by(|a, b| a.frequency.total_cmp(&b.frequency))?;
    Some(Working {
        id: "standing_wave",
        name: "Lowest standing wave",
        result: format!("{:.0} Hz", lowest.frequency),
        formula: "f = c/2 √((nx/Lx)² + (ny/Ly)² + (nz/Lz)²) between square boards; else by slices along the axis",
        inputs: vec![
            input("longest", longest * 1e3, "mm"),
            input("c", design.air.speed, "m/s"),
            input("c/2L", design.air.speed / (2.0 * longest), "Hz"),
        ],
        source: "The wave equation in a room with hard walls (Morse and Ingard 1968, chapter 9); a cone or port where it has a node does not drive it.",
    })
}

fn mass(_: &ResolvedDesign, computed: &Computed) -> Option<Working> {
    let Boxed { contents, cabinet } = computed.built.boxed.as_ref()?;
    let weight = WeightReport::of(&computed.built.design, contents, cabinet);
    let kilograms = |mass: f64| format!("{mass:.1} kg");
    Some(Working {
        id: "mass",
        name: "Weight",
        result: kilograms(weight.total()),
        formula: "volume of each board as it is cut, around its holes, × density; drivers 75 kg/m² × frame²; density × volume of fill",
        inputs: vec![
            words("boards", &kilograms(weight.panels)),
            words("inside", &kilograms(weight.braces)),
            words("drivers", &kilograms(weight.drivers)),
            words("radiators", &kilograms(weight.radiators)),
            words("tubes", &kilograms(weight.tubes)),
            words("fill", &kilograms(weight.fill)),
        ],
        source: "Densities of the material table; braces, partition, fold and slot boards count as inside. What drivers weigh is common practice.",
    })
}

fn air_volume(design: &ResolvedDesign, _: &Computed) -> Option<Working> {
    let air = design.air();
    (air > 0.0).then(|| Working {
        id: "air_volume",
        name: "Air inside",
        result: format!("{} l", oak_units::significant(air * 1e3, 4)),
        formula: "all chambers and the path together, without what drivers, ports and braces take",
        inputs: Vec::new(),
        source: "What the box leaves beside everything that goes in, or the profile of the line or horn integrated.",
    })
}

fn way(design: &ResolvedDesign, computed: &Computed) -> Option<Working> {
    let facts = computed.built.compiled.passage?;
    let mut inputs = vec![
        input("length", facts.length, "m"),
        input("start area", facts.start * 1e4, "cm²"),
        input("end area", facts.end * 1e4, "cm²"),
        input("c/4L", design.air.speed / (4.0 * facts.length), "Hz"),
    ];
    inputs.extend(facts.cutoff.map(|cutoff| input("cut-off", cutoff, "Hz")));
    Some(Working {
        id: "way",
        name: "Line or horn",
        result: format!("{} m", oak_units::significant(facts.length, 3)),
        formula: "c/4L without taper; cut-off of an exponential path m c/4π, m = ln(end/begin)/L",
        inputs,
        source: "Cut into short slices, each solved exactly with friction and fill; cut-off after Keele 1977.",
    })
}
