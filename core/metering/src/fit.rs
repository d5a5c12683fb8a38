//! Nonlinear least squares with standard errors.

use levenberg_marquardt::{LeastSquaresProblem, LevenbergMarquardt};
use nalgebra::storage::Owned;
use nalgebra::{DMatrix, DVector, Dyn};

/// What a fit came to.
#[derive(Debug, Clone)]
pub struct Fit {
    /// The values, `[p]`.
    pub values: Vec<f64>,
    /// Their covariance, `[p][p]`.
    covariance: DMatrix<f64>,
}

/// Step of the differences that a derivative is made of.
const STEP: f64 = 1e-6;
/// Beyond so many times what is usual a residual counts as if it lay there (Huber 1964).
const FAR: f64 = 2.5;
/// Rounds of fitting and weighing.
pub(crate) const ROUNDS: usize = 3;

/// Values that make residuals least, from a first guess. `residuals` gives as many for every set of values: first `data` of them, then what
/// is known beforehand, each over its standard deviation, which says nothing of the noise.
///
/// Residuals of the data count by their own scatter, so they may be in any unit; far ones count less. `None` where the data leave a value open
/// altogether, or nothing is found.
pub fn fit(start: &[f64], data: usize, residuals: &dyn Fn(&[f64]) -> Vec<f64>) -> Option<Fit> {
    settle(start, &vec![1.0; data], ROUNDS, residuals)
}

/// The same in so many rounds of fitting and weighing, each residual of the data counting by its `trust`.
pub fn settle(
    start: &[f64],
    trust: &[f64],
    rounds: usize,
    residuals: &dyn Fn(&[f64]) -> Vec<f64>,
) -> Option<Fit> {
    let first = residuals(start);
    let data = trust.len();
    if data <= start.len() || data > first.len() {
        return None;
    }
    let mut values = start.to_vec();
    let mut scale = scatter(&first[..data]).max(f64::MIN_POSITIVE);
    let mut weights = trust.to_vec();
    for _ in 0..rounds {
        values = least(values, &weighted(residuals, &weights, scale))?;
        let left = residuals(&values);
        scale = scatter(&left[..data]).max(f64::MIN_POSITIVE);
        let far = |one: f64| (FAR * scale / one.abs()).min(1.0).sqrt();
        weights = left.iter().zip(trust).map(|(one, trust)| far(*one) * trust).collect();
    }
    let weighted = weighted(residuals, &weights, scale);
    let all = weighted(&values);
    let jacobian = jacobian(&values, &weighted);
    let covariance = (jacobian.transpose() * &jacobian).try_inverse()?;
    let used: f64 = weights.iter().sum();
    let chi: f64 = all.iter().take(data).map(|residual| residual * residual).sum();
    // What counts less has less to say of the error as well.
    let left = (chi / (used - values.len() as f64).max(1.0)).sqrt() * data as f64 / used;
    let covariance = covariance * (left * left * alike(all.as_slice().get(..data)?));
    covariance
        .diagonal()
        .iter()
        .all(|one| one.is_finite() && *one >= 0.0)
        .then_some(Fit { values, covariance })
}

impl Fit {
    /// A quantity that follows from the values, with its standard error to first order.
    pub fn of(&self, quantity: impl Fn(&[f64]) -> f64) -> (f64, f64) {
        let value = quantity(&self.values);
        let gradient = DVector::from_iterator(
            self.values.len(),
            (0..self.values.len()).map(|at| {
                let moved = |by: f64| {
                    let mut values = self.values.clone();
                    values[at] += by;
                    quantity(&values)
                };
                (moved(STEP) - moved(-STEP)) / (2.0 * STEP)
            }),
        );
        let variance = (gradient.transpose() * &self.covariance * gradient)[(0, 0)];
        (value, variance.max(0.0).sqrt())
    }
}

/// Values that make the sum of squares least (Levenberg and Marquardt).
fn least(from: Vec<f64>, residuals: &dyn Fn(&[f64]) -> DVector<f64>) -> Option<Vec<f64>> {
    let search = LevenbergMarquardt::new().with_ftol(1e-7).with_xtol(1e-6).with_patience(40);
    let (found, report) = search.minimize(Problem { at: DVector::from_vec(from), residuals });
    let whole = report.objective_function.is_finite() && found.at.iter().all(|value| value.is_finite());
    whole.then(|| found.at.as_slice().to_vec())
}

/// Residuals of the data over their scatter, each by its weight; what is known beforehand stays as it is.
fn weighted<'a>(
    residuals: &'a dyn Fn(&[f64]) -> Vec<f64>,
    weights: &'a [f64],
    scale: f64,
) -> impl Fn(&[f64]) -> DVector<f64> + 'a {
    move |values| {
        let mut all = residuals(values);
        for (residual, weight) in all.iter_mut().zip(weights) {
            *residual *= weight / scale;
        }
        DVector::from_vec(all)
    }
}

/// Standard deviation by the median, which far ones do not move.
fn scatter(residuals: &[f64]) -> f64 {
    let mut sizes: Vec<f64> = residuals.iter().map(|one| one.abs()).collect();
    sizes.sort_by(f64::total_cmp);
    1.4826 * sizes.get(sizes.len() / 2).copied().unwrap_or(0.0)
}

/// By how much the square of an error is more than of residuals that know nothing of each other: what a circuit does not hold leaves waves, and neighbours in a wave
/// count as one (of a first-order process, `(1 + r)/(1 - r)`; Bartlett 1946). Both parts of a complex value follow each other, so neighbours are two apart.
fn alike(residuals: &[f64]) -> f64 {
    let all: f64 = residuals.iter().map(|one| one * one).sum();
    let beside: f64 = residuals.iter().zip(residuals.iter().skip(2)).map(|(a, b)| a * b).sum();
    let r = (beside / all.max(f64::MIN_POSITIVE)).clamp(0.0, 0.98);
    (1.0 + r) / (1.0 - r)
}

fn jacobian(values: &[f64], residuals: &dyn Fn(&[f64]) -> DVector<f64>) -> DMatrix<f64> {
    let here = residuals(values);
    let columns: Vec<DVector<f64>> = (0..values.len())
        .map(|at| {
            let mut moved = values.to_vec();
            moved[at] += STEP;
            (residuals(&moved) - &here) / STEP
        })
        .collect();
    DMatrix::from_columns(&columns)
}

struct Problem<'a> {
    at: DVector<f64>,
    residuals: &'a dyn Fn(&[f64]) -> DVector<f64>,
}

impl LeastSquaresProblem<f64, Dyn, Dyn> for Problem<'_> {
    type ParameterStorage = Owned<f64, Dyn>;
    type ResidualStorage = Owned<f64, Dyn>;
    type JacobianStorage = Owned<f64, Dyn, Dyn>;

    fn set_params(&mut self, values: &DVector<f64>) {
        self.at.clone_from(values);
    }

    fn params(&self) -> DVector<f64> {
        self.at.clone()
    }

    fn residuals(&self) -> Option<DVector<f64>> {
        Some((self.residuals)(self.at.as_slice()))
    }

    fn jacobian(&self) -> Option<DMatrix<f64>> {
        Some(jacobian(self.at.as_slice(), self.residuals))
    }
}
