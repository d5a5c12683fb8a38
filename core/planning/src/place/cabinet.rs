//! Each cabinet where it stands: its outline, whether it is inside, what the walls beside it do.

use std::f64::consts::TAU;

use oak_design::resolve::Standing;
use oak_signal::boundary::power_gain;
use oak_signal::in_place::Stand;
use oak_signal::room::Room;
use serde::Serialize;
use utoipa::ToSchema;

use super::scene::{Scene, cone};

/// One cabinet where it stands.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct StandReport {
    /// Middle of its underside, m.
    pub at: [f64; 3],
    /// Corners of its outline on the plan, m.
    pub outline: Vec<[f64; 2]>,
    /// Height of its first cone over the floor, m.
    pub cone: f64,
    /// How tall it is, m; unknown without a box.
    pub height: Option<f64>,
    /// That it does not stand inside, by how much.
    pub outside: Option<String>,
    /// What the floor and the walls beside it do, in words; nothing in the open.
    pub walls: Option<String>,
}

pub(super) fn report(scene: &Scene<'_>, stand: &Stand, standing: &Standing) -> StandReport {
    let cone = cone(scene.built(), standing);
    let bounds = scene.built().boxed.as_ref().map(|boxed| boxed.cabinet.outer.bounds());
    let outline: Vec<[f64; 2]> = bounds
        .iter()
        .flat_map(|[low, high]| {
            [[low[0], low[2]], [high[0], low[2]], [high[0], high[2]], [low[0], high[2]]].map(
                |[across, forward]| {
                    let [x, y, _] = stand.point([across, low[1], forward]);
                    [x, y]
                },
            )
        })
        .collect();
    let height = bounds.map(|[low, high]| high[1] - low[1]);
    let top = height.map(|height| standing.at[2] + height);
    StandReport {
        at: standing.at,
        outside: scene.room.as_ref().and_then(|room| outside(room, &outline, top)),
        walls: scene.room.as_ref().map(|room| walls(room, cone)),
        cone: cone[2],
        outline,
        height,
    }
}

/// Less than this is a matter of rounding, m.
const TOUCHING: f64 = 1e-3;

fn outside(room: &Room, outline: &[[f64; 2]], top: Option<f64>) -> Option<String> {
    let names =
        [["left wall", "right wall"], ["wall at the bottom of the plan", "wall at the top of the plan"]];
    let past = |axis: usize| {
        let low = outline.iter().map(|corner| -corner[axis]).fold(f64::MIN, f64::max);
        let high = outline.iter().map(|corner| corner[axis] - room.size[axis]).fold(f64::MIN, f64::max);
        [(low, names[axis][0]), (high, names[axis][1])]
    };
    let up = top.map(|top| (top - room.size[2], "ceiling"));
    let all = past(0).into_iter().chain(past(1)).chain(up);
    let (by, wall) = all.filter(|(by, _)| *by > TOUCHING).max_by(|a, b| a.0.total_cmp(&b.0))?;
    Some(format!("It stands {:.0} mm through the {wall}.", by * 1e3))
}

/// Where the lift of the walls is read and where the dip of their reflections is looked for, Hz.
const LIFTED: f64 = 30.0;
const DIPS: std::ops::Range<u32> = 20..200;

fn walls(room: &Room, cone: [f64; 3]) -> String {
    let distances = [0, 1, 2].map(|axis| Some(cone[axis].min(room.size[axis] - cone[axis])));
    let gain = |frequency: f64| 10.0 * power_gain(distances, TAU * frequency / room.air.speed).log10();
    // Half space has the floor already.
    let over = |frequency: f64| gain(frequency) - 10.0 * 2f64.log10();
    let dip =
        DIPS.map(f64::from).map(|frequency| (over(frequency), frequency)).min_by(|a, b| a.0.total_cmp(&b.0));
    let (depth, at) = dip.expect("not empty");
    let lift = crate::signal::signed(over(LIFTED));
    if depth < -1.0 {
        format!(
            "Floor and nearest walls: {lift} dB at {LIFTED:.0} Hz over half space, {} dB at {at:.0} Hz, where they reflect against it.",
            crate::signal::signed(depth)
        )
    } else {
        format!("Floor and nearest walls: {lift} dB at {LIFTED:.0} Hz over half space, no dip below 200 Hz.")
    }
}
