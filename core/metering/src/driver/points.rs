//! The classic way by hand: three points of the magnitude.

use crate::trace::Impedance;

/// What three points say.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Points {
    /// Ohm: the least below the peak.
    pub re: f64,
    /// Ohm: the peak.
    pub peak: f64,
    /// Hz.
    pub fs: f64,
    /// See [`points`].
    pub qms: f64,
    /// See [`points`].
    pub qes: f64,
}

/// Fs at the peak, and Q from the two frequencies where the magnitude is the root of Re times the peak: `Qms = Fs sqrt(r0)/(f2 - f1)`, `Qes = Qms/(r0 - 1)`, `r0 =
/// Zmax/Re` (Thiele 1971; AES2). `re` (ohm) may be known by a meter; else it is the least magnitude below the peak. `None` where the trace has no such peak.
pub fn points(trace: &Impedance, re: Option<f64>) -> Option<Points> {
    let size: Vec<f64> = trace.value.iter().map(|value| value.norm()).collect();
    let top =
        (1..size.len().checked_sub(1)?).filter(|at| size[*at] > size[at - 1] && size[*at] >= size[at + 1]);
    let top = top.max_by(|a, b| size[*a].total_cmp(&size[*b]))?;
    let re = re.unwrap_or_else(|| size[..top].iter().copied().fold(f64::INFINITY, f64::min));
    // A parabola through the three highest, over the logarithm of frequency.
    let [a, b, c] = [top - 1, top, top + 1].map(|at| (trace.frequency[at].ln(), size[at].ln()));
    let (low, high) = ((b.1 - a.1) / (b.0 - a.0), (c.1 - b.1) / (c.0 - b.0));
    let bend = (high - low) / (c.0 - a.0);
    let at = f64::midpoint(a.0, b.0) - low / (2.0 * bend);
    let peak = (b.1 - bend * (at - b.0).powi(2)).exp();
    let fs = at.exp();
    let share = peak / re;
    let wanted = (re * peak).sqrt();
    let crossing = |inner: usize, outer: usize| {
        let part = (size[inner] - wanted) / (size[inner] - size[outer]);
        let [inner, outer] = [inner, outer].map(|at| trace.frequency[at].ln());
        (inner + part * (outer - inner)).exp()
    };
    let below = (0..top).rfind(|at| size[*at] < wanted)?;
    let above = (top..size.len()).find(|at| size[*at] < wanted)?;
    let (first, second) = (crossing(below + 1, below), crossing(above - 1, above));
    let qms = fs * share.sqrt() / (second - first);
    (share > 1.0 && qms.is_finite()).then_some(Points { re, peak, fs, qms, qes: qms / (share - 1.0) })
}
