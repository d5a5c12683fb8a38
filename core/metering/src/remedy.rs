//! What would fix a box: each remedy as a design of its own, taken from the box as it was found.

use oak_acoustics::enclosure::Enclosure;
use oak_design::Problem;
use oak_design::built::Built;
use oak_design::conditions::RawQuestion;
use oak_design::field::{self, Field};
use oak_design::file::{
    LONGEST_NAME, RawDesign, RawEnclosureShape, RawFoundBox, RawFoundValue, RawMeasured, RawMeasuredVolume,
    RawSheetCoils, RawSource, RawSourceKind, Typed,
};
use oak_design::report::compute;
use oak_design::response::FrequencyGrid;
use serde::Serialize;
use utoipa::ToSchema;

use crate::answer::{Answer, Estimate, Prediction, RemedyAnswer};
use crate::driver::Measured;
use crate::learned::tabled_absorption;
use crate::session::Worked;

/// Something that would fix a box.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BoxRemedy {
    /// Its name for programs.
    pub id: &'static str,
    /// What is done.
    pub title: String,
    /// How much of it.
    pub by: String,
    /// What it takes and what it costs.
    pub words: String,
    /// How it is done, a step a line.
    pub steps: Vec<String>,
    /// The design with it done; absent where the box then is as it was drawn, and the design stays.
    pub design: Option<RawDesign>,
    /// The box as it was found with it done, for the lines.
    pub foretold: RawDesign,
    /// What it comes to.
    pub outcome: RemedyOutcome,
}

/// What a box comes to.
#[derive(Debug, Clone, Copy, Default, PartialEq, Serialize, ToSchema)]
pub struct RemedyOutcome {
    /// Tuning or Fc, with how sure it is, Hz.
    pub tuning: Option<Estimate>,
    /// Total Q of a closed box.
    pub qtc: Option<f64>,
    /// −3 dB frequency in the conditions that were asked in, Hz.
    pub f3: Option<f64>,
    /// Net volume, m3.
    pub volume: f64,
}

/// Leakage that a sound box is taken to have where the design says nothing (common practice).
const SOUND: f64 = 7.0;
/// What fill can make of a volume at most in practice (common practice).
const FILLED: f64 = 1.2;
/// What is done to a volume changes it by no more than this, as a share.
const MOST: f64 = 0.35;
/// A coil's law is read off here, over Fs: within what the fit has seen, and carried on from there.
const COIL: [f64; 2] = [4.0, 10.0];

/// The design as it was measured: its driver where that was measured, its losses, its volume, and how its ports act. `on` is the day.
///
/// The sizes of the box stay as they are drawn, and its ports as long.
///
/// # Errors
/// The design cannot be settled any more.
pub fn as_found(raw: &RawDesign, built: &Built, worked: &Worked, on: &str) -> Result<RawDesign, Problem> {
    let mut design = raw.clone();
    adopt_driver(&mut design, built, &worked.drivers, on);
    let Some(found) = worked.found else { return Ok(design) };
    freeze(&mut design, built);
    let typed =
        |field: &Field, estimate: Estimate| field.typed(estimate.value.clamp(field.min, field.max), 3);
    if let Some(ql) = worked.answer.ql {
        design.enclosure.ql = Some(typed(&field::QL, ql));
    }
    if let Some(qa) = worked.answer.qa {
        design.enclosure.qa = Some(typed(&field::QA, qa));
    }
    let air = found.air / built.design.gains[0];
    let now = built.design.enclosure.air() / built.design.gains[0];
    volume(&mut design, now, air);
    if let Enclosure::Ported(ported) = &built.design.enclosure {
        let before = ported.ports.first().map_or(0.0, |port| port.extra);
        let limits = &field::MEASURED_PORT_ENDS;
        let longer = (before + found.longer).clamp(limits.min, limits.max);
        design.measured.get_or_insert_default().port_ends = Some(limits.typed(longer, 4));
        lengths(&mut design, built, |length| length);
    }
    design.measured.get_or_insert_default().found = Some(found_box(raw, &design, &worked.answer));
    Ok(design)
}

/// What the workshop learns from.
fn found_box(raw: &RawDesign, as_found: &RawDesign, answer: &Answer) -> RawFoundBox {
    let found = |field: &Field, error: &Field, Estimate { value, se }: Estimate| RawFoundValue {
        value: field.typed(value.clamp(field.min, field.max), 4),
        error: error.typed(se.min(error.max), 2),
        expected: None,
    };
    let plain = |field, told: Option<Estimate>| Some(found(field, &field::FOUND_ERROR, told?));
    let expected = tabled_absorption(raw).map(|qa| field::FOUND_QA.typed(qa, 4));
    let measured = as_found.measured.as_ref();
    let longer = field::MEASURED_PORT_ENDS.read(measured.and_then(|measured| measured.port_ends.as_ref()));
    let ends = longer.zip(answer.port_length_mm);
    let ends = ends.map(|(value, length)| Estimate { value, se: length.se * 1e-3 });
    RawFoundBox {
        of: Some(raw.name.clone()),
        ql: plain(&field::FOUND_QL, answer.ql),
        qa: plain(&field::FOUND_QA, answer.qa).map(|found| RawFoundValue { expected, ..found }),
        port_ends: ends.map(|ends| found(&field::FOUND_PORT_ENDS, &field::FOUND_LENGTH_ERROR, ends)),
    }
}

/// The values of a driver with one coil as they were measured, the mean of several, each with what stood there before.
fn adopt_driver(design: &mut RawDesign, built: &Built, drivers: &[Measured], on: &str) {
    // Of two coils nobody has said how they were joined on the bench.
    let single = matches!(design.driver.coils, None | Some(RawSheetCoils::Single));
    if drivers.is_empty() || !single {
        return;
    }
    let count = drivers.len() as f64;
    let mean = |of: &dyn Fn(&Measured) -> f64| drivers.iter().map(of).sum::<f64>() / count;
    let weighed = drivers.iter().all(|one| one.mms.is_some());
    let sheet = &built.design.driver.driver;
    // A stiff suspension is not a heavier cone: without a mass on it the cone weighs what the sheet says.
    let mms = if weighed { mean(&|one| one.mms.map_or(0.0, |mms| mms.0)) } else { sheet.mms };
    let coil = |frequency: f64| mean(&|one| one.model.coil.impedance(frequency).norm());
    let fs = mean(&|one| one.fs.0);
    let at = COIL.map(|times| times * fs);
    let [low, high] = at.map(coil);
    let exponent = ((high / low).ln() / (at[1] / at[0]).ln())
        .clamp(field::INDUCTANCE_EXPONENT.min, field::INDUCTANCE_EXPONENT.max);
    let at_1_khz = high * (1000.0 / at[1]).powf(exponent);
    let raw = &mut design.driver;
    let values: [(&'static Field, &mut Option<Typed>, f64); 7] = [
        (&field::RE, &mut raw.re, mean(&|one| one.re.0)),
        (&field::FS, &mut raw.fs, fs),
        (&field::QMS, &mut raw.qms, mean(&|one| one.qms.0)),
        (&field::QES, &mut raw.qes, mean(&|one| one.qes.0)),
        (&field::MMS, &mut raw.mms, mms),
        (&field::LE, &mut raw.le, at_1_khz / (std::f64::consts::TAU * 1000.0)),
        (&field::INDUCTANCE_EXPONENT, &mut raw.inductance_exponent, exponent),
    ];
    let kind =
        |name: &str| if name == "mms" && !weighed { RawSourceKind::Derived } else { RawSourceKind::Measured };
    for (field, typed, value) in values {
        let was = typed.replace(field.typed(value, 4));
        let source = RawSource { kind: kind(field.name()), on: on.to_owned(), was };
        raw.sources.insert(field.name().to_owned(), source);
    }
    // What follows from those above would contradict them.
    for (name, typed) in [
        ("qts", &mut raw.qts),
        ("vas", &mut raw.vas),
        ("cms", &mut raw.cms),
        ("bl", &mut raw.bl),
        ("l2", &mut raw.l2),
        ("r2", &mut raw.r2),
    ] {
        raw.sources.remove(name);
        *typed = None;
    }
    if let Some(array) = &mut design.driver_array {
        array.break_in = None;
    }
}

/// States the sizes that a box has, so that they stay while its volume is another.
fn freeze(design: &mut RawDesign, built: &Built) {
    let body = design.body.get_or_insert_default();
    if !built.design.body.sized()
        && body.shape == RawEnclosureShape::Box
        && let Some(outside) = built.outside()
    {
        body.measured = RawMeasured::Outside;
        let fields = [&field::BODY_WIDTH, &field::BODY_HEIGHT, &field::BODY_DEPTH];
        let [width, height, depth] = [0, 1, 2].map(|k| Some(fields[k].typed(outside[k], 6)));
        (body.width, body.height, body.depth) = (width, height, depth);
        body.order.clear();
        design.enclosure.volume = None;
    }
}

/// The net volume (m3) as it is found instead of what it was, by its sizes or by itself.
fn volume(design: &mut RawDesign, was: f64, found: f64) {
    if design.enclosure.volume.is_some() {
        design.enclosure.volume = Some(field::VOLUME.typed(found, 5));
        return;
    }
    let measured = design.measured.get_or_insert_default();
    let read = |typed: &Typed| field::MEASURED_VOLUME.read(Some(typed));
    let before =
        measured.volume.as_ref().and_then(|volume| Some(read(&volume.expected)? - read(&volume.measured)?));
    measured.volume = Some(RawMeasuredVolume {
        measured: field::MEASURED_VOLUME.typed(found, 6),
        expected: field::EXPECTED_VOLUME.typed(was + before.unwrap_or(0.0), 6),
    });
}

/// States the lengths of the ports, from those that they have (m), to a tenth of a millimetre.
fn lengths(design: &mut RawDesign, built: &Built, of: impl Fn(f64) -> f64) {
    let Some(tuning) = &built.compiled.port_tuning else { return };
    design.enclosure.tuning = None;
    for (port, length) in design.enclosure.ports.iter_mut().zip(tuning.lengths()) {
        let tenths = (of(length) * 1e4).round() * 1e-4;
        port.length = Some(field::LENGTH.typed(tenths.max(field::LENGTH.min), 6));
    }
}

/// Everything that would fix the box, the easiest first, with what comes of it in the conditions of a question; nothing where it is as good as it is.
///
/// # Errors
/// A design that cannot be settled.
pub fn remedies(
    question: &RawQuestion,
    built: &Built,
    worked: &Worked,
    on: &str,
) -> Result<Vec<BoxRemedy>, Vec<Problem>> {
    let raw = &question.design;
    let answer = &worked.answer;
    if answer.reversed == Some(true) {
        return Ok(vec![swap(question)?]);
    }
    let mut all = Vec::new();
    let Some(found) = worked.found else { return Ok(all) };
    let one = |problem| vec![problem];
    let as_found = as_found(raw, built, worked, on).map_err(one)?;
    let mut sealed = as_found.clone();
    if answer.leak == Some(true) {
        let tight = field::QL.read(raw.enclosure.ql.as_ref()).unwrap_or(SOUND).max(SOUND);
        sealed.enclosure.ql = Some(field::QL.typed(tight, 3));
        let seal = Draft { question, answer, id: "seal", title: "Seal the leak".to_owned() }.with(
            sealed.clone(),
            format!("QL {} becomes about {tight:.0}", shown(answer.ql)),
            "The bass that a leak costs comes back; the tuning stays where it is.",
            &[
                "Push the cone in slowly with the port shut: it comes back slowly from a tight box, at once from a leaking one.",
                "Hold a hand, smoke or soapy water along seams, terminal cup, gasket and screws while the box plays 20 to 30 Hz softly.",
                "Sealant on seams from inside, gasket tape under frame and cup, screws crosswise.",
                "Measure the finished box again.",
            ],
        )?;
        // Sealed it is what was drawn.
        all.push(BoxRemedy { design: None, ..seal });
    }
    let aims = Aims { question, built, answer, sealed: &sealed, air: found.air / built.design.gains[0] };
    if answer.alarms.iter().any(|alarm| alarm == "tuning") {
        all.extend(aims.ports()?);
        all.extend(aims.volumes()?);
    }
    Ok(all)
}

fn swap(question: &RawQuestion) -> Result<BoxRemedy, Vec<Problem>> {
    let raw = &question.design;
    Ok(BoxRemedy {
        id: "swap",
        title: "Swap the leads of one driver".to_owned(),
        by: "the one whose cone moves inwards while the others move outwards on a small battery".to_owned(),
        words: "Drivers that work against each other cancel most of the bass. Nothing else of the box can be told until they work together.".to_owned(),
        steps: [
            "Switch off. Touch a 1.5 V battery to the terminals for a moment and watch the cones.",
            "Swap the two leads of the one that goes the other way.",
            "Measure the finished box again.",
        ]
        .map(str::to_owned)
        .to_vec(),
        outcome: outcome(question, raw, None)?,
        design: None,
        foretold: raw.clone(),
    })
}

fn shown(estimate: Option<Estimate>) -> String {
    estimate.map_or_else(|| "?".to_owned(), |estimate| format!("{:.1}", estimate.value))
}

/// The tuning that a box has, or its Fc, with an error (Hz).
fn tuning(built: &Built, error: Option<f64>) -> Option<Estimate> {
    let compiled = &built.compiled;
    let ported = compiled.port_tuning.as_ref().map(|tuning| tuning.reactance).filter(|tuning| *tuning > 0.0);
    let value = ported.or(compiled.closed_box.as_ref().map(|closed| closed.fc))?;
    Some(Estimate { value, se: error.unwrap_or(0.0) })
}

/// What designs are computed over.
pub(crate) fn grid() -> FrequencyGrid {
    FrequencyGrid::logarithmic(8.0, 500.0, 300).expect("a range of the solver")
}

/// What a variant is called of which something is done; what was done to it before is not repeated.
pub(crate) fn named(name: &str, done: &str) -> String {
    let base = name.split(" · ").next().unwrap_or_default();
    format!("{base} · {done}").chars().take(LONGEST_NAME).collect()
}

/// What a design comes to in the conditions of a question.
fn outcome(
    question: &RawQuestion,
    raw: &RawDesign,
    error: Option<f64>,
) -> Result<RemedyOutcome, Vec<Problem>> {
    let one = |problem| vec![problem];
    let design = question.about(raw)?.design;
    let computed = compute(&design, &grid()).map_err(one)?;
    let built = &computed.built;
    Ok(RemedyOutcome {
        tuning: tuning(built, error),
        qtc: built.compiled.closed_box.as_ref().map(|closed| closed.qtc),
        f3: computed.figures.f3,
        volume: built.design.enclosure.air() / built.design.gains[0],
    })
}

/// A remedy in the making.
struct Draft<'a> {
    question: &'a RawQuestion,
    answer: &'a Answer,
    id: &'static str,
    title: String,
}

impl Draft<'_> {
    fn with(
        self,
        mut design: RawDesign,
        by: String,
        words: &str,
        steps: &[&str],
    ) -> Result<BoxRemedy, Vec<Problem>> {
        design.name = named(&self.question.design.name, &self.title.to_lowercase());
        // It will be another box, of which nothing was found yet.
        if let Some(measured) = &mut design.measured {
            measured.found = None;
        }
        let error = self.answer.tuning_hz.map(|tuning| tuning.se);
        Ok(BoxRemedy {
            id: self.id,
            title: self.title,
            by,
            words: words.to_owned(),
            steps: steps.iter().map(|step| (*step).to_owned()).collect(),
            outcome: outcome(self.question, &design, error)?,
            design: Some(design.clone()),
            foretold: design,
        })
    }
}

/// Ways to the tuning of the design.
struct Aims<'a> {
    question: &'a RawQuestion,
    built: &'a Built,
    answer: &'a Answer,
    /// As found, without its leak.
    sealed: &'a RawDesign,
    /// Net, as found, m3.
    air: f64,
}

impl Aims<'_> {
    fn draft(&self, id: &'static str, title: String) -> Draft<'_> {
        Draft { question: self.question, answer: self.answer, id, title }
    }

    fn ports(&self) -> Result<Option<BoxRemedy>, Vec<Problem>> {
        let Some(cut) = self.answer.port_cut_mm else { return Ok(None) };
        let mut design = self.sealed.clone();
        lengths(&mut design, self.built, |length| length - cut.value * 1e-3);
        let whole = cut.value.abs().round();
        let count =
            self.built.compiled.port_tuning.iter().flat_map(|tuning| &tuning.ports).map(|port| port.count);
        let each = if count.sum::<u32>() > 1 { "each port" } else { "the port" };
        let error = format!("± {:.0} mm", (2.0 * cut.se).max(1.0).ceil());
        let made = if cut.value > 0.0 {
            self.draft("port", format!("Cut {each} by {whole:.0} mm")).with(
                design,
                format!("{whole:.0} mm {error}"),
                "Cut in two goes: three quarters first, then measure and cut the rest. What is cut off does not come back.",
                &[
                    "Seal every leak first.",
                    &format!("Cut {:.0} mm off {each}, smooth the edge, measure again.", (0.75 * whole).round()),
                    "Cut the rest by what that measurement says.",
                ],
            )?
        } else {
            self.draft("port", format!("Make {each} {whole:.0} mm longer")).with(
                design,
                format!("{whole:.0} mm {error}"),
                "A longer tube, or a ring glued to its inner end: the inside stays smooth, and one diameter of clear air stays behind it.",
                &[
                    "Seal every leak first.",
                    &format!("Set a piece of {whole:.0} mm on the inner end of {each}, tape it, and measure again."),
                    "Glue it when the tuning is right.",
                ],
            )?
        };
        Ok(Some(made))
    }

    /// By the volume instead of the ports: a block where it is tuned low, fill where it is tuned high.
    fn volumes(&self) -> Result<Option<BoxRemedy>, Vec<Problem>> {
        let (Some(found), Some(aim)) = (self.answer.tuning_hz, tuning(self.built, None)) else {
            return Ok(None);
        };
        if matches!(self.built.design.enclosure, Enclosure::Sealed(_)) {
            return Ok(None);
        }
        let share = (found.value / aim.value).powi(2);
        let wanted = self.air * share;
        if (share - 1.0).abs() > MOST {
            return Ok(None);
        }
        let litres = (self.air - wanted).abs() * 1e3;
        let mut design = self.sealed.clone();
        if share < 1.0 {
            volume(&mut design, self.air, wanted);
            let made = self.draft("block", format!("Fix a solid block of {litres:.1} l inside")).with(
                design,
                format!("{litres:.1} l"),
                "A smaller box with the same port is tuned higher. It can be taken out again; it costs volume, and so some of the lowest bass.",
                &[
                    &format!("Wood or a closed box of {litres:.1} l outside volume, away from driver and port, screwed so that it cannot rattle."),
                    "Measure the finished box again.",
                ],
            )?;
            return Ok(Some(made));
        }
        if share > FILLED {
            return Ok(None);
        }
        let gain = self.built.design.gains[0] * share;
        design.enclosure.gain = Some(field::GAIN.typed(gain.min(field::GAIN.max), 4));
        let made = self.draft("fill", format!("Add fill for {:.0} % more apparent volume", 100.0 * (share - 1.0))).with(
            design,
            format!("{litres:.1} l more apparent volume"),
            "Loose fill adds apparent volume, which tunes the box lower; it also absorbs. Never before the port's inner end.",
            &[
                "A little loose polyester at the end away from the port, then measure; step by step.",
                "Stop where the tuning is right, or where the upper peak of the impedance falls much.",
            ],
        )?;
        Ok(Some(made))
    }
}

impl From<&BoxRemedy> for RemedyAnswer {
    fn from(remedy: &BoxRemedy) -> Self {
        Self {
            what: remedy.title.clone(),
            by: remedy.by.clone(),
            predicted: Prediction { tuning_hz: remedy.outcome.tuning.map(|tuning| tuning.value) },
        }
    }
}
