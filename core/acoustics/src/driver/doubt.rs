//! Where a data sheet contradicts itself, and which single value would put it right.

use super::complete::{Completed, Sheet};
use super::relation::Missing;
use super::relation::Quantity;
use crate::medium::Air;

/// Stated and derived values may differ by this much before it is worth saying: sheets round.
const TOLERANCE: f64 = 0.05;
/// The same for levels, dB: sheets print whole decibels.
const LEVEL_TOLERANCE: f64 = 1.0;

/// What can be contradicted.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Stated {
    /// One of the values that determine each other.
    Quantity(Quantity),
    /// The level for 1 W.
    Level1W,
    /// The level for 2.83 V.
    Level2V83,
}

/// A stated value that differs from what the values in use give.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Doubt {
    /// Which.
    pub stated: Stated,
    /// As stated, SI or dB.
    pub value: f64,
    /// As it follows from the values that were used.
    pub derived: f64,
}

impl Sheet {
    /// Every stated value that the ones in use contradict by more than 5 %, or 1 dB.
    pub fn doubts(&self, completed: &Completed, air: &Air) -> Vec<Doubt> {
        let d = &completed.driver;
        let quantities = Quantity::ALL.into_iter().filter_map(|quantity| {
            let (value, derived) = (self.stated(quantity)?, derived(completed, quantity, air));
            let off = (value / derived - 1.0).abs() > TOLERANCE;
            off.then_some(Doubt { stated: Stated::Quantity(quantity), value, derived })
        });
        let levels = [
            (Stated::Level1W, self.level_1w, d.reference_level(d.re.sqrt(), air)),
            (Stated::Level2V83, self.level_2v83, d.reference_level(2.83, air)),
        ];
        let levels = levels.into_iter().filter_map(|(stated, value, derived)| {
            let value = value?;
            ((value - derived).abs() > LEVEL_TOLERANCE).then_some(Doubt { stated, value, derived })
        });
        quantities.chain(levels).collect()
    }

    /// The values that would, each alone, put everything else in agreement, as they would then be.
    ///
    /// # Errors
    /// Where the sheet is not complete.
    pub fn reconciling(&self, air: &Air) -> Result<Vec<(Quantity, f64)>, Vec<Missing>> {
        if self.doubts(&self.complete(air)?, air).is_empty() {
            return Ok(Vec::new());
        }
        let found = Quantity::ALL.into_iter().filter_map(|quantity| {
            self.stated(quantity)?;
            let without = self.without(quantity);
            let completed = without.complete(air).ok()?;
            without.doubts(&completed, air).is_empty().then(|| (quantity, derived(&completed, quantity, air)))
        });
        Ok(found.collect())
    }
}

/// A quantity of a completed driver.
fn derived(completed: &Completed, quantity: Quantity, air: &Air) -> f64 {
    let d = &completed.driver;
    match quantity {
        Quantity::Fs => d.fs(),
        Quantity::Re => d.re,
        Quantity::Sd => d.sd,
        Quantity::Qms => d.qms(),
        Quantity::Qes => d.qes(),
        Quantity::Vas => d.vas(air),
        Quantity::Cms => d.cms,
        Quantity::Mms => d.mms,
        Quantity::Bl => d.bl,
        Quantity::Qts => d.qts(),
    }
}
