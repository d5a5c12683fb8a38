//! Where a build is listened to: what arrives at the seats, what the place does to it, and how long ears, neighbours and battery stand it.

mod cabinet;
mod debate;
mod energy;
mod exposure;
mod field;
mod map;
mod neighbours;
mod room;
mod scene;
mod search;
mod seat;

pub use cabinet::StandReport;
pub use energy::EnergyReport;
pub use exposure::ExposureReport;
pub use field::{FieldReport, SteeredReport};
pub use map::{LevelMap, level_map};
pub use neighbours::{BandReport, NeighboursReport};
pub use room::{LiftReport, ModeReport, RoomReport};
pub use search::{BestPlace, BestPlaces, Candidates, RawPlaceSearch};
pub use seat::SeatReport;

use oak_acoustics::response::FrequencyGrid;
use oak_design::Problem;
use oak_design::conditions::{Question, RawQuestion};
use oak_design::file::RawListening;
use oak_design::heard::{Heard, SPAN, stands};
use oak_design::problem::ProblemKind;
use oak_design::report::{at_seats, compute_undelayed};
use oak_design::trace::{Quantity, Trace, TraceOrigin};
use oak_signal::best_place::judge;
use oak_signal::room::Room;
use serde::Serialize;
use utoipa::ToSchema;

use crate::signal::Debate;
use scene::Scene;

/// What a place does to a design.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PlaceReport {
    /// Drive and space in words: what the figures stand in.
    pub conditions: String,
    /// What the place is called.
    pub name: String,
    /// What kind of place it is.
    pub kind: RawListening,
    /// The room or cabin; nothing in the open.
    pub room: Option<RoomReport>,
    /// Each cabinet.
    pub cabinets: Vec<StandReport>,
    /// Each seat.
    pub seats: Vec<SeatReport>,
    /// SPL at the seats, the mean of their power first, and what the variant gives at 1 m in the open beside them.
    pub traces: Vec<Trace>,
    /// Standard deviation of what the room does over all seats from 20 to 120 Hz, dB; what a search for places makes small.
    pub spread: Option<f64>,
    /// Mean difference between the loudest and the softest seat there, dB.
    pub between_seats: Option<f64>,
    /// How long ears stand it.
    pub exposure: ExposureReport,
    /// What passes the wall to the neighbours; nothing where no wall is known.
    pub neighbours: Option<NeighboursReport>,
    /// How long the battery lasts; nothing where there is none.
    pub energy: Option<EnergyReport>,
    /// What is to be known in the open; nothing in a room.
    pub field: Option<FieldReport>,
    /// That the brief counts other cabinets than stand here.
    pub note: Option<String>,
    /// Where builders disagree.
    pub debates: Vec<Debate>,
}

const POINTS: usize = 400;

/// Reports on a design where it is listened to.
///
/// # Errors
/// Every problem with design, brief or place; that there is no place.
pub fn place(question: &RawQuestion) -> Result<PlaceReport, Vec<Problem>> {
    let Question { design, brief } = question.resolve()?;
    let Some(place) = design.playing.place.clone() else {
        return Err(no_place());
    };
    let [low, high] = SPAN;
    let grid = FrequencyGrid::logarithmic(low, high, POINTS).expect("within the allowed range");
    let computed = compute_undelayed(&design, &grid).map_err(|problem| vec![problem])?;
    let air = computed.built.design.air;
    let scene = Scene {
        heard: Heard::of(&computed.built, &place, &computed.response.frequency),
        stands: stands(&computed.built, &place.stands),
        room: place.room.map(|room| Room { air, ..room }),
        free: computed.response.level().collect(),
        brief: brief.as_ref(),
        place: &place,
        computed: &computed,
    };
    let even = scene.room.as_ref().and_then(|room| judge(room, &scene.cones(), &scene.seats()));
    let free = Trace::new(Quantity::Level, TraceOrigin::Simulated, &computed.response.frequency, &scene.free);
    let mut traces = at_seats(&computed, &place);
    traces.push(free);
    Ok(PlaceReport {
        conditions: computed.built.design.conditions(),
        name: place.name.clone(),
        kind: place.kind,
        room: room::report(&scene),
        cabinets: scene
            .stands
            .iter()
            .zip(&place.stands)
            .map(|(stand, at)| cabinet::report(&scene, stand, at))
            .collect(),
        seats: seat::reports(&scene),
        traces,
        spread: even.map(|found| found.cost),
        between_seats: seat::between(&scene),
        exposure: exposure::report(&scene),
        neighbours: neighbours::report(&scene),
        energy: energy::report(&scene),
        field: field::report(&scene),
        note: counted(&scene),
        debates: debate::debates(&scene),
    })
}

/// What is wrong with a question about a place that names none.
fn no_place() -> Vec<Problem> {
    let missing = ProblemKind::MissingOneOf { names: &["place"], needed: 1 };
    vec![Problem::new("conditions", missing)]
}

/// That the free response is that of other cabinets than those that stand here.
fn counted(scene: &Scene<'_>) -> Option<String> {
    let (brief, here) = (scene.built().design.cabinets as usize, scene.stands.len());
    (brief != here && brief > 1).then(|| {
        format!("The brief counts {brief} cabinets close together, and the curves at 1 m are of all of them. Here stand {here}, and the seats hear these.")
    })
}
