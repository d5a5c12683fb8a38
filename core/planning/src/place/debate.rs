//! Where builders disagree about rooms, with what each way gives in this one.

use oak_acoustics::Complex;
use oak_design::resolve::Standing;
use oak_signal::best_place::{frequencies, judge};
use oak_signal::in_place::Stand;

use super::scene::{Scene, cone};
use crate::signal::Debate;

/// How far behind its front an open baffle sounds the other way, m: the way around a baffle of usual size.
const DIPOLE: f64 = 0.4;
/// Where the bottom is compared, Hz.
const BOTTOM: f64 = 30.0;

pub(super) fn debates(scene: &Scene<'_>) -> Vec<Debate> {
    let equaliser = Debate {
        name: "An equaliser for the room?",
        words: "Peaks of the room can be cut, which also shortens how long they last at the seat they are cut for. Dips where sound cancels cannot be filled: what is added cancels too. What is \
                cut for one seat is missing at the others, so cut what all seats have in common."
            .to_owned(),
    };
    std::iter::once(equaliser).chain(open_baffle(scene)).collect()
}

fn open_baffle(scene: &Scene<'_>) -> Option<Debate> {
    let (room, seats) = (scene.room?, scene.seats());
    let closed = scene.cones();
    let behind = |(stand, standing): (&Stand, &Standing)| {
        let at = cone(scene.built(), standing);
        let front = stand.point([0.0, 0.0, 1.0]);
        let back = [0, 1, 2].map(|axis| {
            let away = front[axis] - stand.place[axis];
            (at[axis] - DIPOLE * away).clamp(0.0, room.size[axis])
        });
        (back, -stand.gain, stand.delay)
    };
    let open: Vec<_> =
        closed.iter().copied().chain(scene.stands.iter().zip(&scene.place.stands).map(behind)).collect();
    let [sealed, dipole] = [&closed, &open].map(|sources| judge(&room, sources, &seats));
    let (sealed, dipole) = (sealed?, dipole?);
    let bottom = |sources: &[([f64; 3], f64, f64)]| -> f64 {
        let places: Vec<[f64; 3]> = sources.iter().map(|(at, _, _)| *at).collect();
        let transfers = room.transfers(&places, &seats, &[BOTTOM]).values;
        let at = |seat: usize| -> Complex {
            sources.iter().zip(&transfers).map(|((_, gain, _), seats)| seats[seat][0] * *gain).sum()
        };
        (0..seats.len()).map(|seat| at(seat).norm_sqr()).sum::<f64>() / seats.len() as f64
    };
    let softer = 10.0 * (bottom(&closed) / bottom(&open)).log10();
    let count = frequencies().len();
    Some(Debate {
        name: "A box or an open baffle in this room?",
        words: format!(
            "An open baffle pushes at one place while it pulls at another, so it hardly drives what is the same at both: above all the pressure of the whole room. Here, at {count} frequencies \
             from 20 to 120 Hz, it would spread by {:.1} dB over the seats instead of {:.1} dB, and at {BOTTOM:.0} Hz be {softer:.0} dB softer for the same movement of the cone.",
            dipole.cost, sealed.cost
        ),
    })
}
