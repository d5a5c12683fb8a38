//! What is bought, done, measured and written down.

use oak_cabinetry::drawing::millimetres;
use oak_planning::signal::filter_name;

use super::Book;
use crate::flow::{figures, words};
use crate::paper::{MM, Mark, Pen, Tone};

impl Book<'_, '_> {
    pub(super) fn parts(&mut self) {
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

    pub(super) fn steps(&mut self) {
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

    pub(super) fn calendar(&mut self) {
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

    pub(super) fn measuring(&mut self) {
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

    pub(super) fn signal(&mut self) {
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

    pub(super) fn notes(&mut self) {
        self.flow.chapter("Notes");
        self.flow.paragraph("Date, what went wrong, why, and how it was put right.");
        while self.flow.left() > 12.0 * MM {
            let height = 9.0 * MM;
            let width = self.flow.width();
            let [left, top] = self.flow.frame(height);
            let points = vec![[left, top + height - 2.0], [left + width, top + height - 2.0]];
            let pen = Pen { tone: Tone::Rule, width: 0.5, dash: None };
            self.flow.mark(Mark::Line { points, closed: false, fill: None, pen: Some(pen) });
        }
    }
}
