//! The typefaces that the program ships, and how wide words are in them.

use std::collections::HashMap;
use std::sync::LazyLock;

use krilla::text::Font;
use skrifa::instance::{LocationRef, Size};
use skrifa::{FontRef, MetadataProvider};

/// A typeface.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Face {
    /// Text.
    Text,
    /// Text that stands out.
    Bold,
    /// Figures, each as wide as the other.
    Figures,
    /// Headings.
    Heading,
}

const FILES: [&[u8]; 4] = [
    include_bytes!("../fonts/text.ttf"),
    include_bytes!("../fonts/bold.ttf"),
    include_bytes!("../fonts/figures.ttf"),
    include_bytes!("../fonts/heading.ttf"),
];

static FONTS: LazyLock<Vec<Font>> = LazyLock::new(|| {
    FILES.iter().map(|bytes| Font::new((*bytes).into(), 0).expect("a font that ships")).collect()
});

static WIDTHS: LazyLock<Vec<Widths>> =
    LazyLock::new(|| FILES.iter().map(|bytes| Widths::of(bytes)).collect());

struct Widths {
    /// Of each character that the typeface has, over the size.
    of: HashMap<char, f32>,
    missing: f32,
}

impl Widths {
    fn of(bytes: &[u8]) -> Self {
        let font = FontRef::new(bytes).expect("a font that ships");
        let metrics = font.glyph_metrics(Size::new(1.0), LocationRef::default());
        let advance = |glyph| metrics.advance_width(glyph).unwrap_or(0.5);
        let known = font
            .charmap()
            .mappings()
            .filter_map(|(code, glyph)| Some((char::from_u32(code)?, advance(glyph))));
        Self { of: known.collect(), missing: advance(skrifa::GlyphId::new(0)) }
    }
}

impl Face {
    fn index(self) -> usize {
        match self {
            Self::Text => 0,
            Self::Bold => 1,
            Self::Figures => 2,
            Self::Heading => 3,
        }
    }

    pub(crate) fn font(self) -> Font {
        FONTS[self.index()].clone()
    }

    /// How wide words are at a size, points; kerning left out.
    pub(crate) fn width(self, words: &str, size: f64) -> f64 {
        let widths = &WIDTHS[self.index()];
        let sum: f32 = words.chars().map(|c| widths.of.get(&c).copied().unwrap_or(widths.missing)).sum();
        f64::from(sum) * size
    }

    /// Words broken into lines no wider than this, points. A word that is wider alone is broken.
    pub(crate) fn lines(self, words: &str, size: f64, width: f64) -> Vec<String> {
        let mut lines = Vec::new();
        for paragraph in words.lines() {
            let mut line = String::new();
            for word in paragraph.split_whitespace() {
                let longer = if line.is_empty() { word.to_owned() } else { format!("{line} {word}") };
                if self.width(&longer, size) <= width {
                    line = longer;
                    continue;
                }
                if !line.is_empty() {
                    lines.push(std::mem::take(&mut line));
                }
                for c in word.chars() {
                    if !line.is_empty() && self.width(&format!("{line}{c}"), size) > width {
                        lines.push(std::mem::take(&mut line));
                    }
                    line.push(c);
                }
            }
            lines.push(line);
        }
        lines
    }
}

/// Words in characters that the typefaces have: signs are written out, control characters left out.
pub(crate) fn printable(words: &str) -> String {
    let mut out = String::with_capacity(words.len());
    for c in words.chars() {
        match c {
            'Ω' | '\u{2126}' => out.push_str("ohm"),
            '→' => out.push_str("to"),
            '⌀' => out.push_str("dia"),
            '≤' => out.push_str("at most"),
            '≥' => out.push_str("at least"),
            '\n' => out.push(' '),
            c if c.is_control() => {}
            c if !WIDTHS[0].of.contains_key(&c) => out.push('?'),
            c => out.push(c),
        }
    }
    out
}
