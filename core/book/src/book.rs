//! The build book.

use oak_acoustics::response::FrequencyGrid;
use oak_cabinetry::cut::{EdgeJoint, HoleKind};
use oak_cabinetry::drawing::{View, millimetres, view};
use oak_design::Problem;
use oak_design::report::compute;
use oak_planning::Case;
use oak_planning::build_plan::{BuildPlan, Making, RawPlanQuestion, with_plan};
use oak_planning::check::judge;
use oak_planning::signal::filter_name;

use crate::curves::{self, Curve};
use crate::face::printable;
use crate::flow::{Flow, figures, words};
use crate::paper::{MM, Paper};
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
                self.flow.mark(crate::paper::Mark::Words {
                    at: [corner[0], top + 9.0],
                    face: crate::face::Face::Bold,
                    size: 8.5,
                    words: shown.name().to_owned(),
                    tone: crate::paper::Tone::Ink,
                    turned: false,
                });
                for mark in picture::draw(&drawing, corner, [width / 2.0 - 10.0, height - 24.0]) {
                    self.flow.mark(mark);
                }
            }
        }
        self.flow.small("Sizes in mm. Not to scale: the templates are.");
    }

    fn panels(&mut self) {
        self.flow.chapter("Panels");
        let cut = &self.making.cut;
        self.flow.paragraph("Numbers are those of the labels. Sizes are of the blank, outer side towards you; a positive bevel makes the outer side the longer one.");
        let columns = [
            figures("No.", 6.0),
            words("Panel", 24.0),
            figures("Pieces", 9.0),
            figures("Width", 13.0),
            figures("Height", 13.0),
            figures("Thick", 10.0),
            words("Of", 25.0),
        ];
        let rows: Vec<Vec<String>> = cut
            .panels
            .iter()
            .map(|panel| {
                vec![
                    panel.number.to_string(),
                    panel.name.clone(),
                    panel.count.to_string(),
                    millimetres(panel.size[0]),
                    millimetres(panel.size[1]),
                    millimetres(panel.thickness),
                    panel.material_name.to_owned(),
                ]
            })
            .collect();
        self.flow.table(&columns, &rows);
        if !self.plan.veneers.is_empty() {
            self.flow.paragraph("Veneer, 25 mm over on every side; it is trimmed once it is glued.");
            let rows: Vec<Vec<String>> = self
                .plan
                .veneers
                .iter()
                .map(|piece| {
                    let [width, height] = piece.size.map(millimetres);
                    vec![piece.panel.to_string(), piece.name.clone(), piece.count.to_string(), width, height]
                })
                .collect();
            self.flow.table(
                &[
                    figures("No.", 8.0),
                    words("For", 38.0),
                    figures("Pieces", 14.0),
                    figures("Width", 20.0),
                    figures("Height", 20.0),
                ],
                &rows,
            );
        }
        for note in &cut.notes {
            self.flow.paragraph(note);
        }
        let shown: Vec<u32> = cut
            .panels
            .iter()
            .filter(|panel| {
                !panel.holes.is_empty()
                    || !panel.grooves.is_empty()
                    || panel.window.is_some()
                    || !panel.stands.is_empty()
                    || panel.outer.len() != 4
                    || panel.edges.iter().any(|edge| edge.bevel.abs() > 0.05)
            })
            .map(|panel| panel.number)
            .collect();
        for number in shown {
            self.panel(number);
        }
    }

    fn panel(&mut self, number: u32) {
        let Some(panel) = self.making.cut.panels.iter().find(|panel| panel.number == number) else { return };
        let Some(drawing) = self.making.panel_drawing(number) else { return };
        let height = 78.0 * MM;
        self.flow.keep(height + 60.0);
        self.flow.heading(&format!(
            "{number} {}, {} x {} x {} mm",
            panel.name,
            millimetres(panel.size[0]),
            millimetres(panel.size[1]),
            millimetres(panel.thickness)
        ));
        let width = self.flow.width();
        let corner = self.flow.frame(height);
        for mark in picture::draw(&drawing, corner, [width, height - 4.0]) {
            self.flow.mark(mark);
        }
        let holes: Vec<Vec<String>> = panel
            .holes
            .iter()
            .filter(|hole| hole.kind != HoleKind::Dowel)
            .map(|hole| {
                let size = if hole.round {
                    format!("dia {}", millimetres(hole.size[0]))
                } else {
                    hole.size.map(millimetres).join(" x ")
                };
                let deep = hole.depth.map_or_else(|| "through".to_owned(), millimetres);
                vec![hole.what.clone(), size, deep, millimetres(hole.at[0]), millimetres(hole.at[1])]
            })
            .collect();
        if !holes.is_empty() {
            self.flow.table(
                &[
                    words("Hole", 36.0),
                    figures("Size", 20.0),
                    figures("Deep", 14.0),
                    figures("From the left", 15.0),
                    figures("From below", 15.0),
                ],
                &holes,
            );
        }
        let edges: Vec<Vec<String>> = panel
            .edges
            .iter()
            .filter_map(|edge| {
                let tilted = edge.bevel.abs() > 0.05;
                let meets = edge.meets.clone().or(tilted.then(|| "free end".to_owned()))?;
                let joint = match edge.joint {
                    EdgeJoint::Over => "reaches over it",
                    EdgeJoint::Under => "ends at its inner side",
                    EdgeJoint::Mitre => "mitred with it",
                    EdgeJoint::Round => "meets the round edge",
                    EdgeJoint::Free => "",
                };
                let saw = if edge.bevel.abs() > 0.05 {
                    format!("{:.1} deg", edge.bevel)
                } else {
                    "square".to_owned()
                };
                let dowels: Vec<String> = edge.dowels.iter().map(|at| millimetres(*at)).collect();
                let held = if dowels.is_empty() {
                    edge.joinery.name().to_owned()
                } else {
                    format!("dowels at {}", dowels.join(", "))
                };
                Some(vec![meets, joint.to_owned(), held, saw])
            })
            .collect();
        if !edges.is_empty() {
            self.flow.table(
                &[
                    words("Edge at the", 22.0),
                    words("Joint", 28.0),
                    words("Held by", 34.0),
                    figures("Saw", 16.0),
                ],
                &edges,
            );
        }
    }

    fn sheets(&mut self) {
        self.flow.chapter("Sheets");
        let mut number = 0;
        for group in &self.plan.sheets {
            for sheet in &group.sheets {
                let at = number;
                number += 1;
                self.flow.keep(105.0 * MM);
                let kind = if sheet.at_hand { "offcut" } else { "sheet" };
                self.flow.heading(&format!(
                    "{} {} mm, {kind} {number}: {} x {} mm",
                    group.material_name,
                    millimetres(group.thickness),
                    millimetres(sheet.size[1]),
                    millimetres(sheet.size[0])
                ));
                if let Some(drawing) = self.making.sheet_drawing(at) {
                    let width = self.flow.width();
                    let height = 74.0 * MM;
                    let corner = self.flow.frame(height);
                    for mark in picture::draw(&drawing, corner, [width, height - 4.0]) {
                        self.flow.mark(mark);
                    }
                }
                let rows: Vec<Vec<String>> = sheet
                    .cuts
                    .iter()
                    .zip(1..)
                    .map(|(cut, step)| {
                        let [_, size] = cut.piece;
                        let ready: Vec<String> =
                            cut.ready.iter().map(|number| format!("no. {number}")).collect();
                        vec![
                            step.to_string(),
                            format!("{}{}", millimetres(cut.fence), if cut.moves { " (set)" } else { "" }),
                            if cut.upright { "rip, along" } else { "cross-cut" }.to_owned(),
                            format!("{} x {}", millimetres(size[1]), millimetres(size[0])),
                            ready.join(", "),
                        ]
                    })
                    .collect();
                self.flow.table(
                    &[
                        figures("Cut", 8.0),
                        figures("Fence", 20.0),
                        words("", 18.0),
                        figures("Piece", 26.0),
                        words("Ready", 28.0),
                    ],
                    &rows,
                );
            }
        }
        self.flow.small("Fence settings are to the board's side of the blade; the kerf is counted. Guards and push sticks; small parts held by clamps.");
    }

    fn holes(&mut self) {
        self.flow.chapter("Holes and templates");
        self.flow.paragraph("Each is cut in scrap first and tried with the real part. The templates are a file of their own, at full size. In inches each is rounded up to the next 32nd.");
        let rows: Vec<Vec<String>> = self
            .plan
            .holes
            .iter()
            .filter(|plan| !matches!(plan.hole.kind, HoleKind::Bolt | HoleKind::Dowel))
            .map(|plan| {
                let hole = &plan.hole;
                let size = |[w, h]: [f64; 2]| {
                    if hole.round {
                        format!("dia {}", millimetres(w))
                    } else {
                        format!("{} x {}", millimetres(w), millimetres(h))
                    }
                };
                let pair = plan.pair.map(|pair| format!(", with no. {pair}")).unwrap_or_default();
                vec![
                    format!("no. {}{pair}", plan.panel),
                    hole.what.clone(),
                    size(hole.size),
                    format!("{}", inches(plan.inch32)),
                    hole.depth.map_or_else(|| "through".to_owned(), millimetres),
                    plan.template.map(size).unwrap_or_default(),
                ]
            })
            .collect();
        self.flow.table(
            &[
                words("Board", 22.0),
                words("For", 26.0),
                figures("Size, mm", 17.0),
                figures("Inches", 13.0),
                figures("Deep", 10.0),
                figures("Router template", 18.0),
            ],
            &rows,
        );
        for fault in &self.plan.faults {
            self.flow.said("Mind", fault);
        }
    }

    fn parts(&mut self) {
        self.flow.chapter("Parts");
        for shop in &self.plan.shops {
            let cost = shop.cost.map_or_else(String::new, |cost| format!(", {cost:.0}"));
            self.flow.heading(&format!("{}{cost}", shop.name));
            let items = self.plan.items.iter().filter(|item| item.item.shop == shop.id);
            let rows: Vec<Vec<String>> = items
                .map(|line| {
                    let item = &line.item;
                    let amount = if item.amount >= 100.0 {
                        format!("{:.0}", item.amount)
                    } else {
                        oak_units::significant(item.amount, 3)
                    };
                    vec![
                        item.name.clone(),
                        format!("{amount} {}", item.unit),
                        if line.packs > 0.0 {
                            oak_units::significant(line.packs, 4)
                        } else {
                            "in stock".to_owned()
                        },
                        line.cost.map_or_else(|| "?".to_owned(), |cost| format!("{cost:.0}")),
                        item.note.clone(),
                    ]
                })
                .collect();
            self.flow.table(
                &[
                    words("Part", 34.0),
                    figures("Needed", 16.0),
                    figures("Packs", 10.0),
                    figures("Cost", 8.0),
                    words("", 34.0),
                ],
                &rows,
            );
        }
        let cost = self
            .plan
            .cost
            .map_or_else(|| "not known, because a part has no price".to_owned(), |cost| format!("{cost:.0}"));
        self.flow.said("Together", &cost);
    }

    fn steps(&mut self) {
        self.flow.chapter("Steps");
        let mut phase = None;
        for step in &self.plan.steps {
            if phase != Some(step.phase) {
                phase = Some(step.phase);
                self.flow.heading(step.phase_name);
            }
            let wait = step
                .wait
                .as_ref()
                .map(|(_, hours)| format!(", then {} h", oak_units::significant(*hours, 2)))
                .unwrap_or_default();
            let aside = format!("{:.0} min{wait}", step.minutes);
            let names: Vec<String> = step
                .parts
                .iter()
                .map(|id| {
                    self.plan
                        .items
                        .iter()
                        .find(|line| line.item.id == *id)
                        .map_or_else(|| id.clone(), |line| line.item.name.clone())
                })
                .collect();
            let boards: Vec<String> = step.panels.iter().map(ToString::to_string).collect();
            let clamps = step
                .clamps
                .map(|(count, opening)| format!("{count} clamps opening {} mm", millimetres(opening)))
                .unwrap_or_default();
            let tools: Vec<String> = step
                .tools
                .iter()
                .map(|tool| (*tool).to_owned())
                .chain((!clamps.is_empty()).then_some(clamps))
                .collect();
            let below = [
                ("", step.how.clone()),
                ("Check", step.check.clone()),
                ("Caution", step.caution.unwrap_or_default().to_owned()),
                ("Parts", names.join("; ")),
                ("Boards", boards.join(", ")),
                ("Tools", tools.join(", ")),
            ];
            self.flow.tick(&step.title, &aside, &below);
        }
    }

    fn calendar(&mut self) {
        self.flow.chapter("Calendar");
        let rows: Vec<Vec<String>> = self
            .plan
            .calendar
            .iter()
            .map(|slot| {
                let waits = slot
                    .waits
                    .as_ref()
                    .map(|(of, until)| format!("{of} until {}", until.format("%a %d %b, %H:%M")))
                    .unwrap_or_default();
                vec![
                    slot.from.format("%a %d %b").to_string(),
                    format!("{}-{}", slot.from.format("%H:%M"), slot.to.format("%H:%M")),
                    format!("{}{}", slot.title, if slot.goes_on { " (goes on)" } else { "" }),
                    waits,
                ]
            })
            .collect();
        self.flow
            .table(&[words("Day", 16.0), words("Time", 15.0), words("Step", 40.0), words("", 36.0)], &rows);
    }

    fn measuring(&mut self) {
        self.flow.chapter("Measuring");
        let compiled = &self.making.built.compiled;
        let tuning =
            compiled.rear_tuning.as_ref().or(compiled.port_tuning.as_ref()).map(|tuning| tuning.reactance);
        self.flow.paragraph(
            "Start low and stop at any buffeting. One thing at a time; write the value down beside its line.",
        );
        let mut lines = vec![
            ("Driver in free air", "Impedance sweep, clamped, cone upright: its resonance, Q and resistance.".to_owned(), "before and after break-in".to_owned()),
            ("Box closed", "Impedance with the port shut by a hand or a plug: one peak, from which volume and leaks follow.".to_owned(), String::new()),
        ];
        if let Some(tuning) = tuning {
            lines.push(("Box open", format!("Impedance: the dip between the two peaks at {tuning:.1} Hz; trim the port until it is there."), format!("{tuning:.1} Hz")));
            lines.push(("Near field", format!("Microphone within a few millimetres of the cone's middle, then in the mouth of the port: the cone dips at {tuning:.1} Hz and the port peaks there; good to a few hundred hertz."), String::new()));
        } else {
            lines.push((
                "Near field",
                "Microphone within a few millimetres of the cone's middle; good to a few hundred hertz."
                    .to_owned(),
                String::new(),
            ));
        }
        lines.push((
            "Leaks",
            "Push the cone in slowly: it comes back in a second or so.".to_owned(),
            String::new(),
        ));
        lines.push(("At the seat", "Sweep or pink noise, smoothed to a sixth of an octave; cut peaks first, boost last and never below the tuning.".to_owned(), String::new()));
        for (title, how, aside) in lines {
            self.flow.tick(title, &aside, &[("", how), ("Found", "________________".to_owned())]);
        }
    }

    fn signal(&mut self) {
        self.flow.chapter("Signal");
        let raw = &self.question.question.design;
        let signal = raw.signal.as_ref();
        let filters = signal.map(|signal| signal.filters.as_slice()).unwrap_or_default();
        if filters.is_empty() {
            self.flow.paragraph("No filters before the amplifier.");
        }
        for filter in filters {
            let state = if filter.bypassed { "off" } else { "on" };
            self.flow.said(state, &filter_name(filter));
        }
        let amplifier = self.making.built.design.amplifier;
        self.flow.said(
            "Amplifier",
            &amplifier
                .map_or_else(|| "as at hand".to_owned(), |drive| format!("{:.1} V RMS at most", drive.volts)),
        );
        let load = self.making.built.design.driver_array.equivalent().nominal;
        self.flow.said("Load", &format!("{load:.1} ohm nominal"));
    }

    fn notes(&mut self) {
        self.flow.chapter("Notes");
        self.flow.paragraph("Date, what went wrong, why, and how it was put right.");
        while self.flow.left() > 12.0 * MM {
            let height = 9.0 * MM;
            let width = self.flow.width();
            let [left, top] = self.flow.frame(height);
            let points = vec![[left, top + height - 2.0], [left + width, top + height - 2.0]];
            let pen = crate::paper::Pen { tone: crate::paper::Tone::Rule, width: 0.5, dash: None };
            self.flow.mark(crate::paper::Mark::Line { points, closed: false, fill: None, pen: Some(pen) });
        }
    }
}

/// A length in 32nds of an inch as a carpenter writes it.
fn inches(thirty_seconds: u32) -> String {
    let (whole, mut over, mut under) = (thirty_seconds / 32, thirty_seconds % 32, 32);
    while over > 0 && over.is_multiple_of(2) {
        (over, under) = (over / 2, under / 2);
    }
    match (whole, over) {
        (whole, 0) => format!("{whole} in"),
        (0, over) => format!("{over}/{under} in"),
        (whole, over) => format!("{whole} {over}/{under} in"),
    }
}
