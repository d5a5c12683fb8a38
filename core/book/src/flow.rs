//! Words, tables and pictures laid out down the pages.

use crate::face::{Face, printable};
use crate::paper::{MM, Mark, Page, Paper, Pen, Tone};

/// Margins of a page, left and right, above and below, points; the left one is wider, for holes.
const LEFT: f64 = 20.0 * MM;
const RIGHT: f64 = 15.0 * MM;
const ABOVE: f64 = 20.0 * MM;
const BELOW: f64 = 18.0 * MM;
/// Sizes of type, points.
const TEXT: f64 = 9.5;
const SMALL: f64 = 8.0;
/// Height of a line over its size.
const LEADING: f64 = 1.32;

/// A column of a table.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Column {
    pub name: &'static str,
    /// Share of the width.
    pub share: f64,
    /// Whether figures stand in it, to the right.
    pub figures: bool,
}

/// Words to the left.
pub(crate) const fn words(name: &'static str, share: f64) -> Column {
    Column { name, share, figures: false }
}

/// Figures to the right.
pub(crate) const fn figures(name: &'static str, share: f64) -> Column {
    Column { name, share, figures: true }
}

/// Pages as they fill.
pub(crate) struct Flow {
    pub paper: Paper,
    pages: Vec<Page>,
    /// Where the next line begins, from the top.
    y: f64,
    /// Said at the foot of every page.
    running: String,
}

impl Flow {
    pub(crate) fn new(paper: Paper, running: &str) -> Self {
        Self { paper, pages: vec![Page::default()], y: ABOVE, running: printable(running) }
    }

    /// From the left margin to the right one.
    pub(crate) fn width(&self) -> f64 {
        self.paper.size[0] - LEFT - RIGHT
    }

    fn bottom(&self) -> f64 {
        self.paper.size[1] - BELOW
    }

    /// What is left of this page.
    pub(crate) fn left(&self) -> f64 {
        self.bottom() - self.y
    }

    pub(crate) fn page_break(&mut self) {
        if self.y > ABOVE {
            self.pages.push(Page::default());
            self.y = ABOVE;
        }
    }

    /// A new page where less than this is left.
    pub(crate) fn keep(&mut self, height: f64) {
        if self.left() < height {
            self.page_break();
        }
    }

    pub(crate) fn space(&mut self, height: f64) {
        self.y += height;
    }

    pub(crate) fn mark(&mut self, mark: Mark) {
        if let Some(page) = self.pages.last_mut() {
            page.marks.push(mark);
        }
    }

    /// Where a picture of a height lies: its upper left corner; the flow goes on below it.
    pub(crate) fn frame(&mut self, height: f64) -> [f64; 2] {
        self.keep(height);
        let at = [LEFT, self.y];
        self.y += height;
        at
    }

    fn set(&mut self, words: &str, face: Face, size: f64, tone: Tone, left: f64, width: f64) {
        for line in face.lines(&printable(words), size, width) {
            let height = size * LEADING;
            self.keep(height);
            let at = [left, self.y + size];
            self.mark(Mark::Words { at, face, size, words: line, tone, turned: false });
            self.y += height;
        }
    }

    pub(crate) fn title(&mut self, words: &str) {
        self.set(words, Face::Heading, 26.0, Tone::Ink, LEFT, self.width());
        self.space(4.0);
    }

    /// Begins a chapter, on a new page where this one is more than half full.
    pub(crate) fn chapter(&mut self, words: &str) {
        self.keep(0.5 * self.paper.size[1]);
        if self.y > ABOVE {
            self.space(22.0);
        }
        self.set(words, Face::Heading, 18.0, Tone::Ink, LEFT, self.width());
        let (from, to) = ([LEFT, self.y + 2.0], [LEFT + self.width(), self.y + 2.0]);
        self.mark(Mark::Line {
            points: vec![from, to],
            closed: false,
            fill: None,
            pen: Some(Pen { tone: Tone::Oak, width: 1.4, dash: None }),
        });
        self.space(10.0);
    }

    pub(crate) fn heading(&mut self, words: &str) {
        self.keep(60.0);
        self.space(7.0);
        self.set(words, Face::Heading, 12.5, Tone::Ink, LEFT, self.width());
        self.space(2.0);
    }

    pub(crate) fn paragraph(&mut self, words: &str) {
        self.set(words, Face::Text, TEXT, Tone::Ink, LEFT, self.width());
        self.space(3.0);
    }

    pub(crate) fn small(&mut self, words: &str) {
        self.set(words, Face::Text, SMALL, Tone::Soft, LEFT, self.width());
        self.space(2.0);
    }

    /// A name and what is said of it, the name in a column of its own.
    pub(crate) fn said(&mut self, name: &str, words: &str) {
        let indent = 32.0 * MM;
        let lines = Face::Text.lines(&printable(words), TEXT, self.width() - indent);
        self.keep(TEXT * LEADING * lines.len().min(4) as f64);
        let at = [LEFT, self.y + TEXT];
        self.mark(Mark::Words {
            at,
            face: Face::Bold,
            size: TEXT,
            words: printable(name),
            tone: Tone::Ink,
            turned: false,
        });
        self.set(words, Face::Text, TEXT, Tone::Ink, LEFT + indent, self.width() - indent);
        self.space(1.0);
    }

    /// A line to tick, with what is said below it.
    pub(crate) fn tick(&mut self, title: &str, aside: &str, below: &[(&str, String)]) {
        let indent = 7.0 * MM;
        let width = self.width() - indent;
        let height: f64 = below
            .iter()
            .map(|(_, words)| Face::Text.lines(&printable(words), SMALL + 0.7, width).len() as f64)
            .sum::<f64>()
            * (SMALL + 0.7)
            * LEADING
            + TEXT * LEADING;
        self.keep(height.min(self.bottom() - ABOVE) + 4.0);
        let side = 9.0;
        let (x, y) = (LEFT, self.y + 1.5);
        self.mark(Mark::Line {
            points: vec![[x, y], [x + side, y], [x + side, y + side], [x, y + side]],
            closed: true,
            fill: None,
            pen: Some(Pen { tone: Tone::Ink, width: 0.9, dash: None }),
        });
        let end = LEFT + self.width();
        let aside = printable(aside);
        let wide = Face::Figures.width(&aside, SMALL);
        let at = [end - wide, self.y + TEXT];
        self.mark(Mark::Words {
            at,
            face: Face::Figures,
            size: SMALL,
            words: aside,
            tone: Tone::Soft,
            turned: false,
        });
        self.set(title, Face::Bold, TEXT, Tone::Ink, LEFT + indent, width - wide - 8.0);
        for (name, words) in below.iter().filter(|(_, words)| !words.is_empty()) {
            let tone = if *name == "Caution" { Tone::Short } else { Tone::Ink };
            let words = if name.is_empty() { words.clone() } else { format!("{name}: {words}") };
            self.set(&words, Face::Text, SMALL + 0.7, tone, LEFT + indent, width);
        }
        self.space(5.0);
    }

    pub(crate) fn table(&mut self, columns: &[Column], rows: &[Vec<String>]) {
        let gap = 6.0;
        let shares: f64 = columns.iter().map(|column| column.share).sum();
        let widths: Vec<f64> = columns.iter().map(|column| column.share / shares * self.width()).collect();
        let lefts: Vec<f64> = widths
            .iter()
            .scan(LEFT, |left, width| {
                let here = *left;
                *left += width;
                Some(here)
            })
            .collect();
        self.keep(40.0);
        self.head(columns, &lefts, &widths);
        for row in rows {
            let cells: Vec<(Face, Vec<String>)> = columns
                .iter()
                .zip(row)
                .zip(&widths)
                .map(|((column, cell), width)| {
                    let face = if column.figures { Face::Figures } else { Face::Text };
                    (face, face.lines(&printable(cell), SMALL + 0.5, width - gap))
                })
                .collect();
            let lines = cells.iter().map(|(_, lines)| lines.len()).max().unwrap_or(1).max(1);
            let height = lines as f64 * (SMALL + 0.5) * LEADING + 2.0;
            if self.left() < height {
                self.page_break();
                self.head(columns, &lefts, &widths);
            }
            for (at, (face, lines)) in cells.into_iter().enumerate() {
                for (line, words) in lines.into_iter().enumerate() {
                    let y = self.y + SMALL + 0.5 + line as f64 * (SMALL + 0.5) * LEADING;
                    let x = if columns[at].figures {
                        lefts[at] + widths[at] - gap - face.width(&words, SMALL + 0.5)
                    } else {
                        lefts[at]
                    };
                    self.mark(Mark::Words {
                        at: [x, y],
                        face,
                        size: SMALL + 0.5,
                        words,
                        tone: Tone::Ink,
                        turned: false,
                    });
                }
            }
            self.y += height;
            self.rule(Tone::Rule, 0.35);
        }
        self.space(6.0);
    }

    fn head(&mut self, columns: &[Column], lefts: &[f64], widths: &[f64]) {
        for (at, column) in columns.iter().enumerate() {
            let wide = Face::Bold.width(column.name, SMALL);
            let x = if column.figures { lefts[at] + widths[at] - 6.0 - wide } else { lefts[at] };
            let words = column.name.to_owned();
            let at = [x, self.y + SMALL];
            self.mark(Mark::Words {
                at,
                face: Face::Bold,
                size: SMALL,
                words,
                tone: Tone::Soft,
                turned: false,
            });
        }
        self.y += SMALL * LEADING + 2.0;
        self.rule(Tone::Ink, 0.7);
    }

    fn rule(&mut self, tone: Tone, width: f64) {
        let points = vec![[LEFT, self.y], [LEFT + self.width(), self.y]];
        self.mark(Mark::Line {
            points,
            closed: false,
            fill: None,
            pen: Some(Pen { tone, width, dash: None }),
        });
    }

    /// The pages, each with its number and what runs along.
    pub(crate) fn finish(mut self) -> Vec<Page> {
        let count = self.pages.len();
        let y = self.paper.size[1] - 10.0 * MM;
        let end = LEFT + self.width();
        for (at, page) in self.pages.iter_mut().enumerate() {
            let number = format!("{} / {count}", at + 1);
            let x = end - Face::Figures.width(&number, SMALL);
            for (x, face, words) in [(LEFT, Face::Text, self.running.clone()), (x, Face::Figures, number)] {
                page.marks.push(Mark::Words {
                    at: [x, y],
                    face,
                    size: SMALL,
                    words,
                    tone: Tone::Soft,
                    turned: false,
                });
            }
        }
        self.pages
    }
}
