//! What printed pages say, and which of them say something else now.

use oak_cabinetry::cut::HoleKind;
use oak_design::file::{RawProgress, RawSaid};
use serde::Serialize;
use utoipa::ToSchema;

use super::making::Making;
use super::parts::PartsList;

/// A page that says something else now.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct OutdatedReport {
    /// Which.
    pub page: String,
    /// When it was printed.
    pub at: String,
    /// What it said of each thing that is otherwise now, and what is now.
    pub changed: Vec<(String, String, String)>,
}

/// What pages say of this design, a line a thing that one would cut or buy wrongly by.
pub(super) fn says(making: &Making<'_>, parts: &PartsList) -> Vec<RawSaid> {
    let said = |what: String, value: String| RawSaid {
        what: what.chars().take(80).collect(),
        value: value.chars().take(120).collect(),
    };
    let millimetres = |length: f64| format!("{:.1}", length * 1e3);
    let mut says: Vec<RawSaid> = making
        .cut
        .panels
        .iter()
        .map(|panel| {
            let [width, height] = panel.size.map(millimetres);
            let thick = millimetres(panel.thickness);
            let value =
                format!("{} of {width} x {height} x {thick} mm, {}", panel.count, panel.material_name);
            said(format!("{} {}", panel.number, panel.name), value)
        })
        .collect();
    for hole in
        making.holes().iter().filter(|hole| !matches!(hole.hole.kind, HoleKind::Bolt | HoleKind::Dowel))
    {
        let [left, below] = hole.hole.at.map(millimetres);
        let size = if hole.hole.round {
            millimetres(hole.hole.size[0])
        } else {
            hole.hole.size.map(millimetres).join(" x ")
        };
        says.push(said(
            format!("board {}, {}", hole.panel, hole.hole.what),
            format!("{size} mm at {left}, {below}"),
        ));
    }
    for (front, ports) in [false, true].into_iter().zip(&making.contents.ports) {
        for (index, port) in ports.iter().enumerate() {
            let name = format!("{} {}", if front { "front port" } else { "port" }, index + 1);
            says.push(said(name, format!("{} mm long", millimetres(port.length))));
        }
    }
    let cost = parts.total().map_or_else(|| "unknown".to_owned(), |cost| format!("{cost:.0}"));
    says.push(said("cost".to_owned(), cost));
    // What stands there twice is told apart by its place in the list.
    for at in 1..says.len() {
        let same = says[..at].iter().filter(|said| said.what == says[at].what).count();
        if same > 0 {
            says[at].what = format!("{} ({})", says[at].what.chars().take(70).collect::<String>(), same + 1);
        }
    }
    says.truncate(200);
    says
}

/// Pages whose design says something else now.
pub(super) fn outdated(progress: &RawProgress, now: &[RawSaid]) -> Vec<OutdatedReport> {
    let find = |all: &[RawSaid], what: &str| {
        all.iter().find(|said| said.what == what).map(|said| said.value.clone())
    };
    let none = || "nothing".to_owned();
    let changed = |then: &[RawSaid]| -> Vec<(String, String, String)> {
        let were = then.iter().filter_map(|said| {
            let value = find(now, &said.what).unwrap_or_else(none);
            (value != said.value).then(|| (said.what.clone(), said.value.clone(), value))
        });
        let new = now.iter().filter(|said| find(then, &said.what).is_none());
        were.chain(new.map(|said| (said.what.clone(), none(), said.value.clone()))).collect()
    };
    let pages = progress.printed.iter().map(|printed| OutdatedReport {
        page: printed.page.clone(),
        at: printed.at.clone(),
        changed: changed(&printed.said),
    });
    pages.filter(|page| !page.changed.is_empty()).collect()
}
