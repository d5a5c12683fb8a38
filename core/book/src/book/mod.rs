//! The build book.

mod boards;
mod work;

use oak_acoustics::response::FrequencyGrid;
use oak_cabinetry::drawing::{View, millimetres, view};
use oak_design::Problem;
use oak_design::report::compute;
use oak_planning::Case;
use oak_planning::build_plan::{BuildPlan, Making, RawPlanQuestion, with_plan};
use oak_planning::check::judge;

use crate::curves::{self, Curve};
use crate::face::{Face, printable};
use crate::flow::{Flow, words};

use crate::paper::{MM, Mark, Paper, Tone};
use crate::picture;
use crate::write::write;

/// A part of the book.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Chapter {
    /// What it is for and what it does.
    Design,
    /// The box.
    Drawings,
    /// Boards.
    Panels,
    /// Sheets with their cuts.
    Sheets,
    /// Holes.
    Holes,
    /// What is bought.
    Parts,
    /// What is done.
    Steps,
    /// When.
    Calendar,
    /// What is measured.
    Measuring,
    /// Filters and amplifier.
    Signal,
    /// Room to write.
    Notes,
}

impl Chapter {
    /// All of them, in order.
    pub const ALL: [Self; 11] = [
        Self::Design,
        Self::Drawings,
        Self::Panels,
        Self::Sheets,
        Self::Holes,
        Self::Parts,
        Self::Steps,
        Self::Calendar,
        Self::Measuring,
        Self::Signal,
        Self::Notes,
    ];

    /// Its name in addresses.
    pub fn id(self) -> &'static str {
        match self {
            Self::Design => "design",
            Self::Drawings => "drawings",
            Self::Panels => "panels",
            Self::Sheets => "sheets",
            Self::Holes => "holes",
            Self::Parts => "parts",
            Self::Steps => "steps",
            Self::Calendar => "calendar",
            Self::Measuring => "measuring",
            Self::Signal => "signal",
            Self::Notes => "notes",
        }
    }
}

/// The book of a design, or one part of it, as PDF; `None` where it has no box. `told` hears how many of how many parts are done.
///
/// # Errors
/// Every problem with the question; why its box cannot be built.
pub fn book(
    question: &RawPlanQuestion,
    chapters: &[Chapter],
    told: &mut dyn FnMut(u32, u32),
) -> Result<Option<Vec<u8>>, Vec<Problem>> {
    let name = printable(&question.question.design.name);
    with_plan(question, |making, design, plan| {
        let paper = Paper::of(making.workshop.paper);
        let running = format!("{name}, {}. Measure before you cut.", question.today);
        let mut book = Book { flow: Flow::new(paper, &running), plan: &plan, making, question };
        for (at, chapter) in (0..).zip(chapters) {
            book.write(*chapter, design);
            told(at + 1, chapters.len() as u32);
        }
        write(&format!("{name}, build book"), paper, &book.flow.finish())
    })
}

struct Book<'a, 'b> {
    flow: Flow,
    plan: &'b BuildPlan,
    making: &'b Making<'a>,
    question: &'b RawPlanQuestion,
}

type Design = oak_design::resolve::ResolvedDesign;

impl Book<'_, '_> {
    fn write(&mut self, chapter: Chapter, design: &Design) {
        match chapter {
            Chapter::Design => self.design(design),
            Chapter::Drawings => self.drawings(),
            Chapter::Panels => self.panels(),
            Chapter::Sheets => self.sheets(),
            Chapter::Holes => self.holes(),
            Chapter::Parts => self.parts(),
            Chapter::Steps => self.steps(),
            Chapter::Calendar => self.calendar(),
            Chapter::Measuring => self.measuring(),
            Chapter::Signal => self.signal(),
            Chapter::Notes => self.notes(),
        }
    }

    fn design(&mut self, design: &Design) {
        let raw = &self.question.question.design;
        self.flow.title(&raw.name);
        let plan = self.plan;
        let [low, high] = self.making.cabinet.outer.bounds();
        let sides = [0, 1, 2].map(|k| millimetres(high[k] - low[k])).join(" x ");
        let cost = plan.cost.map_or_else(|| "not known".to_owned(), |cost| format!("{cost:.0}"));
        let many =
            if plan.cabinets > 1 { format!("{} cabinets, each ", plan.cabinets) } else { String::new() };
        self.flow.said(
            "Cabinet",
            &format!(
                "{many}{}, {sides} mm outside (width, height, depth), {:.1} kg",
                raw.enclosure.family.name(),
                plan.mass
            ),
        );
        let net: Vec<String> = self
            .making
            .cabinet
            .chambers
            .iter()
            .map(|chamber| format!("{:.1} l", chamber.ledger.net() * 1e3))
            .collect();
        self.flow.said("Net volume", &net.join(", "));
        self.flow.said("Driver", &format!("{} × {}", self.making.contents.drivers.in_all(), raw.driver.name));
        self.flow.said(
            "Cost, work",
            &format!("{cost} for the parts, {:.0} h of work; finish: {}", plan.hours, plan.finish),
        );
        self.flow.said("Conditions", &design.conditions());
        if !raw.notes.is_empty() {
            self.flow.said("Notes", &raw.notes);
        }
        if let Some(brief) = self.making.brief
            && let Ok(case) = Case::of(brief, raw)
        {
            self.flow.heading("What was asked, and what it reaches");
            let rows: Vec<Vec<String>> = judge(&case)
                .into_iter()
                .map(|check| vec![check.name.to_owned(), check.reached, check.words])
                .collect();
            self.flow.table(&[words("Asked", 30.0), words("Reached", 22.0), words("", 48.0)], &rows);
        }
        let Ok(grid) = FrequencyGrid::logarithmic(10.0, 500.0, 300) else { return };
        let Ok(computed) = compute(design, &grid) else { return };
        let response = &computed.response;
        let level: Vec<f64> = response.level().collect();
        let impedance: Vec<f64> = response.impedance.iter().map(|z| z.norm()).collect();
        let travel: Vec<f64> = response.excursion().map(|x| x * 1e3).collect();
        let delay: Vec<f64> = response.group_delay.iter().map(|delay| delay * 1e3).collect();
        let clean = &computed.max_output.level;
        let all = [
            (
                "Level at 1 m, dashed the most that stays clean",
                level.as_slice(),
                Some(clean.as_slice()),
                false,
                "dB",
            ),
            ("Impedance", impedance.as_slice(), None, true, "ohm"),
            ("Cone travel, one way", travel.as_slice(), None, true, "mm peak"),
            ("Group delay", delay.as_slice(), None, true, "ms"),
        ];
        self.flow.heading("What it does");
        let width = self.flow.width();
        for pair in all.chunks(2) {
            let height = 52.0 * MM;
            let [left, top] = self.flow.frame(height);
            for (at, (name, values, limit, from_zero, unit)) in pair.iter().enumerate() {
                let frequency = &response.frequency;
                let curve = Curve { name, frequency, values, limit: *limit, from_zero: *from_zero, unit };
                let corner = [left + at as f64 * width / 2.0, top];
                for mark in curves::draw(&curve, corner, [width / 2.0 - 4.0, height - 6.0]) {
                    self.flow.mark(mark);
                }
            }
        }
    }

    fn drawings(&mut self) {
        self.flow.chapter("Drawings");
        let body = &self.making.built.design.body;
        let width = self.flow.width();
        for pair in [[View::Front, View::Side], [View::Plan, View::Exploded]] {
            let height = 112.0 * MM;
            let [left, top] = self.flow.frame(height);
            for (at, shown) in pair.into_iter().enumerate() {
                let drawing = view(shown, body, self.making.contents, self.making.cabinet);
                let corner = [left + at as f64 * width / 2.0, top + 14.0];
                self.flow.mark(Mark::Words {
                    at: [corner[0], top + 9.0],
                    face: Face::Bold,
                    size: 8.5,
                    words: shown.name().to_owned(),
                    tone: Tone::Ink,
                    turned: false,
                });
                for mark in picture::draw(&drawing, corner, [width / 2.0 - 10.0, height - 24.0]) {
                    self.flow.mark(mark);
                }
            }
        }
        self.flow.small("Sizes in mm. Not to scale: the templates are.");
    }
}
