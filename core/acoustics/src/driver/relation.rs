//! What the values of a data sheet have to do with each other (Small 1972): solved for whichever is not known.
//!
//! `2 pi Fs sqrt(Mms Cms) = 1`, `Qes = 2 pi Fs Mms Re/Bl^2` and `Vas = rho c^2 Sd^2 Cms` are linear in the logarithms, so that
//! they can be solved together; `1/Qts = 1/Qms + 1/Qes` stands by itself.

use std::f64::consts::TAU;

use crate::medium::Air;

/// A value that others determine.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Quantity {
    /// Free-air resonance.
    Fs,
    /// DC resistance.
    Re,
    /// Cone area.
    Sd,
    /// Mechanical Q.
    Qms,
    /// Electrical Q.
    Qes,
    /// Equivalent volume.
    Vas,
    /// Compliance.
    Cms,
    /// Moving mass.
    Mms,
    /// Force factor.
    Bl,
    /// Total Q.
    Qts,
}

impl Quantity {
    /// All, in the order in which they are believed.
    pub const ALL: [Self; 10] = [
        Self::Fs,
        Self::Re,
        Self::Sd,
        Self::Qms,
        Self::Qes,
        Self::Vas,
        Self::Cms,
        Self::Mms,
        Self::Bl,
        Self::Qts,
    ];
}

/// What is known so far, SI.
#[derive(Debug, Clone, Copy, Default, PartialEq)]
pub(super) struct Known([Option<f64>; Quantity::ALL.len()]);

impl Known {
    pub fn get(&self, quantity: Quantity) -> Option<f64> {
        self.0[quantity as usize]
    }

    pub fn set(&mut self, quantity: Quantity, value: f64) {
        self.0[quantity as usize] = Some(value);
    }

    fn count(&self) -> usize {
        self.0.iter().flatten().count()
    }
}

/// A product of powers that is known: exponents, and the value.
type Product = (&'static [(Quantity, f64)], f64);

fn products(air: &Air) -> [Product; 3] {
    use Quantity::{Bl, Cms, Fs, Mms, Qes, Re, Sd, Vas};
    [
        (&[(Fs, 2.0), (Mms, 1.0), (Cms, 1.0)], TAU.powi(-2)),
        (&[(Fs, 1.0), (Mms, 1.0), (Re, 1.0), (Bl, -2.0), (Qes, -1.0)], TAU.recip()),
        (&[(Vas, 1.0), (Sd, -2.0), (Cms, -1.0)], air.bulk_modulus()),
    ]
}

/// Everything that follows from what is known.
///
/// # Errors
/// [`Missing::QtsNotBelow`] where the third Q would not be positive.
pub(super) fn close(mut known: Known, air: &Air) -> Result<Known, Missing> {
    loop {
        let before = known.count();
        third_q(&mut known)?;
        solve_products(&mut known, &products(air));
        if known.count() == before {
            return Ok(known);
        }
    }
}

fn third_q(known: &mut Known) -> Result<(), Missing> {
    use Quantity::{Qes, Qms, Qts};
    let third = |one: f64, qts: f64| {
        if qts < one {
            Ok(1.0 / (1.0 / qts - 1.0 / one))
        } else {
            Err(Missing::QtsNotBelow { qts, other: one })
        }
    };
    match (known.get(Qms), known.get(Qes), known.get(Qts)) {
        (Some(qms), Some(qes), None) => known.set(Qts, 1.0 / (1.0 / qms + 1.0 / qes)),
        (Some(qms), None, Some(qts)) => known.set(Qes, third(qms, qts)?),
        (None, Some(qes), Some(qts)) => known.set(Qms, third(qes, qts)?),
        _ => {}
    }
    Ok(())
}

/// Smallest coefficient that counts; all are small whole numbers.
const NOTHING: f64 = 1e-9;

/// Gauss-Jordan elimination over the unknown logarithms; a row that is left with one unknown determines it.
fn solve_products(known: &mut Known, products: &[Product; 3]) {
    const N: usize = Quantity::ALL.len();
    let mut rows = [[0.0; N + 1]; 3];
    for (row, (factors, value)) in rows.iter_mut().zip(products) {
        row[N] = value.ln();
        for (quantity, exponent) in *factors {
            match known.get(*quantity) {
                Some(given) => row[N] -= exponent * given.ln(),
                None => row[*quantity as usize] = *exponent,
            }
        }
    }
    let mut pivots = 0;
    for column in 0..N {
        let Some(pivot) = (pivots..3).find(|row| rows[*row][column].abs() > NOTHING) else { continue };
        rows.swap(pivots, pivot);
        let lead = rows[pivots][column];
        rows[pivots].iter_mut().for_each(|entry| *entry /= lead);
        let upper = rows[pivots];
        for (_, row) in rows.iter_mut().enumerate().filter(|(row, _)| *row != pivots) {
            let factor = row[column];
            row.iter_mut().zip(upper).for_each(|(entry, upper)| *entry -= factor * upper);
        }
        pivots += 1;
    }
    for row in rows {
        let mut unknown = Quantity::ALL.iter().filter(|quantity| row[**quantity as usize].abs() > NOTHING);
        if let (Some(quantity), None) = (unknown.next(), unknown.next()) {
            known.set(*quantity, (row[N] / row[*quantity as usize]).exp());
        }
    }
}

/// What a sheet lacks.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Missing {
    /// No DC resistance.
    Re,
    /// No resonance frequency.
    Fs,
    /// No cone area.
    Sd,
    /// Fewer than two of Qms, Qes and Qts.
    TwoOfTheQs,
    /// Qts is not below both others, so the third Q would not be positive.
    QtsNotBelow {
        /// The Qts that was stated.
        qts: f64,
        /// The Q it must be below.
        other: f64,
    },
    /// None of Vas, Cms, Mms and Bl.
    Suspension,
}
