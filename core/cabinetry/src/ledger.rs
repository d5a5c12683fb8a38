//! What eats volume.

/// One entry.
#[derive(Debug, Clone, PartialEq)]
pub struct Entry {
    /// What it is.
    pub what: String,
    /// m3.
    pub volume: f64,
    /// Whether it rests on sizes that nobody stated.
    pub estimated: bool,
}

/// The room of one chamber, added up.
#[derive(Debug, Clone, PartialEq)]
pub struct Ledger {
    /// Room between the boards, m3.
    pub gross: f64,
    /// What is taken off it.
    pub entries: Vec<Entry>,
    /// What the design asks for, m3.
    pub wanted: f64,
    /// By how much fill makes the net volume seem larger.
    pub gain: f64,
}

impl Ledger {
    /// All that is taken off, m3.
    pub fn taken(&self) -> f64 {
        self.entries.iter().map(|entry| entry.volume).sum()
    }

    /// What is left, m3; less than nothing where it does not all go in.
    pub fn net(&self) -> f64 {
        self.gross - self.taken()
    }
}
