//! Findings in words, each with how sure it is.

use oak_acoustics::enclosure::Enclosure;
use oak_acoustics::medium::Air;
use oak_design::built::Built;
use serde::Serialize;
use utoipa::ToSchema;

use super::TuningWay;
use crate::answer::{Answer, Estimate};
use crate::loopback::LowpassKind;
use crate::session::{LEAKING, Worked};

/// What a finding means.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FindingVerdict {
    /// It wants a look.
    Look,
    /// It is as it should be.
    Good,
    /// It is said for what it is.
    Note,
    /// The traces do not contain it.
    Open,
}

/// One thing that was found.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Finding {
    /// Its name for programs.
    pub id: &'static str,
    /// What it means.
    pub verdict: FindingVerdict,
    /// What it is about.
    pub title: String,
    /// What was found.
    pub words: String,
    /// How sure that is; empty where nothing is found.
    pub sure: String,
}

/// A ripple's frequency over that of a standing wave, when it is taken for it.
const SAME: f64 = 0.06;

/// How far the null of a cone may be off the tuning (common practice).
const ROUGH: f64 = 0.05;

struct Told<'a> {
    worked: &'a Worked,
    built: &'a Built,
    air: &'a Air,
    all: Vec<Finding>,
}

/// All findings, what wants a look first.
pub(super) fn findings(worked: &Worked, built: &Built, air: &Air, tunings: &[TuningWay]) -> Vec<Finding> {
    let mut told = Told { worked, built, air, all: Vec::new() };
    told.polarity();
    told.tuning();
    told.leak();
    told.qtc();
    told.port();
    told.volume();
    told.wave();
    told.driver();
    told.chain();
    told.apart();
    told.null(tunings);
    let good = !told.all.iter().any(|one| one.verdict == FindingVerdict::Look)
        && told.all.iter().any(|one| one.verdict == FindingVerdict::Good);
    if good && worked.found.is_some() {
        told.say(
            "good",
            FindingVerdict::Good,
            "As it should be",
            "Within what was measured, the box is what was drawn. There is nothing to fix.".to_owned(),
            String::new(),
        );
    }
    told.all.sort_by_key(|one| one.verdict);
    told.all
}

/// `24.3 ± 0.1 Hz`: two standard errors, to the digit that they leave and no further than four of the value.
fn plus_minus(of: Estimate, unit: &str) -> String {
    let error = 2.0 * of.se;
    let told = |size: f64| if size > 0.0 { (-size.log10().floor()).clamp(0.0, 3.0) as usize } else { 3 };
    let most = (3.0 - of.value.abs().max(1e-9).log10().floor()).clamp(0.0, 3.0) as usize;
    let digits = told(error).min(most);
    let step = 10f64.powi(-(digits as i32));
    let error = (error / step).ceil().max(1.0) * step;
    let space = if unit.is_empty() { "" } else { " " };
    format!("{:.digits$} ± {error:.digits$}{space}{unit}", of.value)
}

/// How sure it is that a value lies beyond a bound, by how many standard errors that is.
fn sure(beyond: f64, se: f64) -> String {
    let errors = beyond.abs() / se.max(1e-12);
    match errors {
        20.0.. => "certain".to_owned(),
        4.0.. => format!("certain: {errors:.0} standard errors"),
        2.0.. => format!("likely: {errors:.1} standard errors"),
        _ => "within the error of the measurement".to_owned(),
    }
}

impl Told<'_> {
    fn say(&mut self, id: &'static str, verdict: FindingVerdict, title: &str, words: String, sure: String) {
        self.all.push(Finding { id, verdict, title: title.to_owned(), words, sure });
    }

    fn answer(&self) -> &Answer {
        &self.worked.answer
    }

    fn has(&self, alarm: &str) -> bool {
        self.answer().alarms.iter().any(|one| one == alarm)
    }

    fn polarity(&mut self) {
        if self.answer().reversed == Some(true) {
            self.say(
                "reversed",
                FindingVerdict::Look,
                "One driver works against the others",
                "The impedance shows drivers that push against each other: one of them is wired backwards. Box, port and leaks cannot be seen until its leads are swapped.".to_owned(),
                "certain".to_owned(),
            );
        } else if self.answer().reversed == Some(false) && self.built.design.driver_array.wiring.count() > 1 {
            self.say(
                "reversed",
                FindingVerdict::Good,
                "Wiring",
                "All drivers work together.".to_owned(),
                String::new(),
            );
        }
    }

    fn tuning(&mut self) {
        let Some(found) = self.answer().tuning_hz else { return };
        let compiled = &self.built.compiled;
        let there = self.air.speed / self.built.design.air.speed;
        if let Some(tuning) = &compiled.port_tuning {
            let aim = tuning.reactance * there;
            let off = found.value - aim;
            let look = self.has("tuning");
            let words = if look {
                let way = if off < 0.0 { "low" } else { "high" };
                format!(
                    "The box is tuned to {}. The design has {:.1} Hz in the air of that day: it is {:.1} Hz too {way}.",
                    plus_minus(found, "Hz"),
                    aim,
                    off.abs()
                )
            } else {
                format!(
                    "The box is tuned to {}; the design has {aim:.1} Hz in the air of that day. Nobody hears that difference.",
                    plus_minus(found, "Hz")
                )
            };
            let verdict = if look { FindingVerdict::Look } else { FindingVerdict::Good };
            let sure = if look { sure(off, found.se) } else { String::new() };
            self.say("tuning", verdict, "Tuning", words, sure);
        } else if let Some(closed) = &compiled.closed_box {
            let words = format!("Fc is {}; the design has {:.1} Hz.", plus_minus(found, "Hz"), closed.fc);
            let off = (found.value / closed.fc - 1.0).abs();
            let verdict = if off > 0.1 { FindingVerdict::Look } else { FindingVerdict::Good };
            self.say(
                "tuning",
                verdict,
                "Resonance in the box",
                words,
                sure(found.value - closed.fc, found.se),
            );
        }
    }

    fn leak(&mut self) {
        let (Some(leak), Some(ql)) = (self.answer().leak, self.answer().ql) else { return };
        if leak {
            self.say(
                "leak",
                FindingVerdict::Look,
                "It leaks",
                format!("QL is {}. A sound box has 4 and more, a very tight one 20: somewhere air goes out, at the terminal cup, a screw, the gasket or a seam.", plus_minus(ql, "")),
                sure(LEAKING - ql.value, ql.se),
            );
        } else {
            self.say(
                "leak",
                FindingVerdict::Good,
                "Tightness",
                format!("QL is {}: no leak that matters.", plus_minus(ql, "")),
                String::new(),
            );
        }
    }

    fn qtc(&mut self) {
        let Some(found) = self.answer().qtc else { return };
        let wanted = self.built.compiled.closed_box.as_ref().map(|closed| closed.qtc);
        let words = wanted.map_or_else(
            || format!("Qtc is {}.", plus_minus(found, "")),
            |wanted| format!("Qtc is {}; the design has {wanted:.2}.", plus_minus(found, "")),
        );
        self.say("qtc", FindingVerdict::Note, "Damping of the box", words, String::new());
    }

    fn port(&mut self) {
        let Some(length) = self.answer().port_length_mm else { return };
        let drawn = self
            .built
            .compiled
            .port_tuning
            .as_ref()
            .and_then(|tuning| tuning.ports.first())
            .map(|port| port.length * 1e3);
        let Some(drawn) = drawn else { return };
        let off = length.value - drawn;
        let way = if off > 0.0 { "longer" } else { "shorter" };
        let words = format!(
            "Each port acts as one of {} would; {drawn:.0} mm are drawn, so it is {:.0} mm {way} or its ends act so.",
            plus_minus(length, "mm"),
            off.abs()
        );
        self.say("port", FindingVerdict::Note, "Length of the port", words, sure(off, length.se));
    }

    fn volume(&mut self) {
        let Some(found) = self.answer().effective_volume_l else { return };
        let drawn = self.built.design.enclosure.air() * 1e3;
        self.say(
            "volume",
            FindingVerdict::Note,
            "Apparent volume",
            format!("{}; the design has {drawn:.1} l with its fill.", plus_minus(found, "l")),
            sure(found.value - drawn, found.se),
        );
    }

    fn wave(&mut self) {
        let Some(found) = self.answer().box_mode_hz else { return };
        let drawn = self.built.lowest_wave();
        let (name, hint) = match drawn.map(|drawn| found.value / drawn) {
            Some(share) if (share - 1.0).abs() < SAME => (
                "the lowest standing wave of the drawing",
                "A dense block of fill at the end away from the port hits it.",
            ),
            Some(share) if (share - 2.0).abs() < 2.0 * SAME => (
                "twice the lowest standing wave of the drawing",
                "Fill against the boards that face each other hits it.",
            ),
            _ => (
                "no standing wave of the drawing's longest side; another side, or the pipe",
                "Look in Box, Standing waves, which one it is.",
            ),
        };
        self.say(
            "wave",
            FindingVerdict::Note,
            "A ripple of a standing wave",
            format!(
                "At {}: {name}. {hint} Below about half of that frequency it does nothing.",
                plus_minus(found, "Hz")
            ),
            "very likely".to_owned(),
        );
    }

    fn driver(&mut self) {
        let driver = self.answer().driver.clone();
        let Some(fs) = driver.fs_hz else { return };
        let sheet = &self.built.design.driver.driver;
        let qes = driver.qes.map_or_else(String::new, |qes| {
            format!(", Qes {} (sheet {:.2})", plus_minus(qes, ""), sheet.qes())
        });
        let vas = driver.vas_l.map_or_else(String::new, |vas| {
            format!(", Vas {} (sheet {:.1} l)", plus_minus(vas, "l"), sheet.vas(&self.built.design.air) * 1e3)
        });
        let facts = format!("Fs {} (sheet {:.1} Hz){qes}{vas}.", plus_minus(fs, "Hz"), sheet.fs());
        if self.has("driver") {
            let stiff = fs.value > 1.04 * sheet.fs();
            let why = if stiff {
                " It is stiffer than its sheet: break it in and measure again before the box is changed."
            } else {
                " It is another driver than its sheet: take these values into the design."
            };
            self.say(
                "driver",
                FindingVerdict::Look,
                "The driver is not what its sheet says",
                facts + why,
                sure(fs.value - sheet.fs(), fs.se),
            );
        } else {
            self.say("driver", FindingVerdict::Good, "Driver", facts + " As its sheet says.", String::new());
        }
        if let Some(spread) = driver.spread_fs_hz {
            let share = spread / fs.value;
            let words = format!("Fs of the drivers is spread by {spread:.2} Hz ({:.1} %).", 100.0 * share);
            let matched = if share < 0.03 {
                " They go together."
            } else {
                " Under about 3 % they are a matched set (common practice)."
            };
            self.say(
                "spread",
                if share < 0.03 { FindingVerdict::Good } else { FindingVerdict::Look },
                "Matched drivers",
                words + matched,
                String::new(),
            );
        }
    }

    fn chain(&mut self) {
        if let Some(found) = self.answer().lowpass {
            let kind = match found.kind {
                LowpassKind::Butterworth => "Butterworth",
                LowpassKind::Lr => "Linkwitz-Riley",
            };
            self.say(
                "lowpass",
                FindingVerdict::Look,
                "A low-pass is hidden in the chain",
                format!("Corner {:.0} Hz, {} dB per octave, {kind}. It is electrical: the box has nothing to do with it. Switch it off, or take it into Signal.", found.corner_hz, 6 * found.order),
                "certain".to_owned(),
            );
        }
    }

    fn apart(&mut self) {
        for [a, b] in self.answer().cannot_tell_apart.clone() {
            let name = |id: &str| match id {
                "volume" => "the volume of the box",
                "vas" => "Vas",
                "mms" => "Mms",
                "bl" => "Bl",
                _ => "what is not named",
            };
            let words = format!(
                "From these traces {} and {} cannot be told apart. A mass on the cone in free air tells them.",
                name(&a),
                name(&b)
            );
            self.say("apart", FindingVerdict::Open, "Not in these traces", words, String::new());
        }
        if self.worked.found.is_none() && self.answer().reversed.is_none() {
            let known = matches!(self.built.design.enclosure, Enclosure::Sealed(_) | Enclosure::Ported(_));
            let words = if known {
                "Tuning, leaks and volume are told by the impedance of the finished box; it is not measured yet."
            } else {
                "Of this kind of cabinet no values are fitted: compare the lines."
            };
            self.say("box", FindingVerdict::Open, "The box", words.to_owned(), String::new());
        }
    }

    /// Without an impedance the null of the cone tells a tuning, roughly.
    fn null(&mut self, tunings: &[TuningWay]) {
        if self.answer().tuning_hz.is_some() {
            return;
        }
        let Some(null) = tunings.iter().find(|way| way.id == "null") else { return };
        let aim = self.built.compiled.port_tuning.as_ref().map_or(0.0, |tuning| tuning.reactance);
        let off = (null.hz / aim - 1.0).abs();
        let words = format!(
            "The cone stands nearly still at {:.1} Hz, so the tuning is about there, within some percent; the design has {aim:.1} Hz. The impedance of the box tells it to a tenth of a hertz.",
            null.hz
        );
        let verdict = if off > ROUGH { FindingVerdict::Look } else { FindingVerdict::Good };
        self.say("null", verdict, "Tuning, roughly", words, "within about 3 %".to_owned());
    }
}
