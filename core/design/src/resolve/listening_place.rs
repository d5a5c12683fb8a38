//! Where a build is listened to, from its raw form.

use oak_acoustics::medium::Air;
use oak_signal::best_place::{Area, INSET};
use oak_signal::room::Room;

use super::reading::Reading;
use crate::field::{self, Field};
use crate::file::{
    LONGEST_NAME, MOST_AREAS, MOST_SEATS, MOST_STANDS, RawArea, RawBattery, RawListening, RawListeningPlace,
    RawSeat, RawStand, Typed,
};
use crate::problem::{Problem, ProblemKind, Range};

/// Where a build is listened to, SI. Places are across, along and up from the corner at the left below on the floor.
#[derive(Debug, Clone, PartialEq)]
pub struct ListeningPlace {
    /// What it is called.
    pub name: String,
    /// What kind of place it is.
    pub kind: RawListening,
    /// The room or cabin, in air that its user replaces; `None` in the open.
    pub room: Option<Room>,
    /// Where the cabinets stand.
    pub stands: Vec<Standing>,
    /// Where people listen.
    pub seats: Vec<Seat>,
    /// Where a cabinet may stand, as the middle of its underside; empty where nothing is said.
    pub areas: Vec<Area>,
    /// What it runs from.
    pub battery: Option<Battery>,
    /// Mass of the wall to the neighbours, kg/m2.
    pub wall_mass: Option<f64>,
    /// How long it plays a day, s.
    pub hours: Option<f64>,
}

/// Where one cabinet stands and how it plays.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Standing {
    /// Middle of its underside, m.
    pub at: [f64; 3],
    /// Which way its front faces: 0 along the second axis, turning to the left, rad.
    pub turned: f64,
    /// Factor; negative where its polarity is reversed.
    pub gain: f64,
    /// How much later it plays, s.
    pub delay: f64,
}

/// Where somebody listens.
#[derive(Debug, Clone, PartialEq)]
pub struct Seat {
    /// What it is called.
    pub name: String,
    /// The ears, m.
    pub at: [f64; 3],
}

/// A battery, SI.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Battery {
    /// What it gives until it must be charged, J.
    pub usable: f64,
    /// Share of what is drawn that reaches the drivers.
    pub efficiency: f64,
    /// Drawn without any sound, W.
    pub idle: f64,
    /// What the sun brings a day, J.
    pub solar: Option<f64>,
}

/// Absorption where nothing is said of a room, and of a car (common practice).
const USUAL_ABSORPTION: [f64; 2] = [0.10, 0.15];
/// Leak corner of a car where nothing is said, Hz (common practice).
const USUAL_CAR_LEAK: f64 = 8.0;
/// Ears of somebody seated, m.
const USUAL_EARS: f64 = 1.2;

/// Resolves where a build is listened to.
///
/// # Errors
/// Every problem, with its place.
pub fn resolve_listening_place(raw: &RawListeningPlace) -> Result<ListeningPlace, Vec<Problem>> {
    let mut reading = Reading::default();
    reading.text("name", &raw.name, 1, LONGEST_NAME);
    for (name, found, max) in [
        ("cabinets", raw.cabinets.len(), MOST_STANDS),
        ("seats", raw.seats.len(), MOST_SEATS),
        ("areas", raw.areas.len(), MOST_AREAS),
    ] {
        if found > max {
            reading.note(name, ProblemKind::TooMany { found, max });
        }
    }
    let room = room(raw, &mut reading);
    let size = match (raw.kind, &room) {
        (RawListening::Outdoors, _) => Inside { size: None },
        (_, Some(room)) => Inside { size: Some(room.size) },
        // Nothing can be said of places in a room of no known size.
        (_, None) => return Err(reading.problems),
    };
    let stands = raw.cabinets.iter().take(MOST_STANDS).enumerate();
    let seats = raw.seats.iter().take(MOST_SEATS).enumerate();
    let areas = raw.areas.iter().take(MOST_AREAS).enumerate();
    let place = ListeningPlace {
        name: raw.name.trim().to_owned(),
        kind: raw.kind,
        stands: stands.filter_map(|(index, stand)| size.stand(index, stand, &mut reading)).collect(),
        seats: seats.filter_map(|(index, seat)| size.seat(index, seat, &mut reading)).collect(),
        areas: areas.filter_map(|(index, area)| size.area(index, area, &mut reading)).collect(),
        battery: raw.battery.as_ref().and_then(|battery| self::battery(battery, &mut reading)),
        wall_mass: reading.optional("wall_mass", &field::PLACE_WALL_MASS, &raw.wall_mass),
        hours: reading.optional("hours", &field::PLACE_HOURS, &raw.hours),
        room,
    };
    if reading.problems.is_empty() { Ok(place) } else { Err(reading.problems) }
}

fn room(raw: &RawListeningPlace, reading: &mut Reading) -> Option<Room> {
    let car = match raw.kind {
        RawListening::Outdoors => return None,
        RawListening::Room => false,
        RawListening::Car => true,
    };
    let width = reading.required("width", &field::PLACE_WIDTH, &raw.width);
    let length = reading.required("length", &field::PLACE_LENGTH, &raw.length);
    let height = reading.required("height", &field::PLACE_HEIGHT, &raw.height);
    let even = reading
        .optional("absorption", &field::PLACE_ABSORPTION, &raw.absorption)
        .unwrap_or(USUAL_ABSORPTION[usize::from(car)]);
    let walls = raw.walls.clone().unwrap_or_default();
    let [left, right, below, above, floor, ceiling] = [
        ("left", &walls.left),
        ("right", &walls.right),
        ("below", &walls.below),
        ("above", &walls.above),
        ("floor", &walls.floor),
        ("ceiling", &walls.ceiling),
    ]
    .map(|(name, typed)| {
        let place = format!("walls.{name}");
        reading.optional(&place, &field::PLACE_WALL_ABSORPTION, typed).unwrap_or(even)
    });
    let leak = reading.optional("leak", &field::PLACE_LEAK, &raw.leak);
    Some(Room {
        size: [width?, length?, height?],
        absorption: [[left, right], [below, above], [floor, ceiling]],
        leak: leak.unwrap_or(if car { USUAL_CAR_LEAK } else { 0.0 }),
        air: Air::reference(),
    })
}

/// Within what walls a place has to be; without any, anywhere.
struct Inside {
    size: Option<[f64; 3]>,
}

impl Inside {
    /// A coordinate that must be given.
    fn needed(
        &self,
        axis: usize,
        place: &str,
        field: &'static Field,
        typed: &Option<Typed>,
        reading: &mut Reading,
    ) -> Option<f64> {
        let found = reading.required(place, field, typed)?;
        self.within(axis, found, place, field, typed, reading)
    }

    /// A height, or what is usual.
    fn height(
        &self,
        usual: f64,
        place: &str,
        field: &'static Field,
        typed: &Option<Typed>,
        reading: &mut Reading,
    ) -> Option<f64> {
        if typed.is_none() {
            let most = self.size.map_or(usual, |size| size[2]);
            return Some(usual.min(most));
        }
        let found = reading.optional(place, field, typed)?;
        self.within(2, found, place, field, typed, reading)
    }

    fn within(
        &self,
        axis: usize,
        found: f64,
        place: &str,
        field: &'static Field,
        typed: &Option<Typed>,
        reading: &mut Reading,
    ) -> Option<f64> {
        let Some(size) = self.size else { return Some(found) };
        if (-1e-9..=size[axis] + 1e-9).contains(&found) {
            return Some(found);
        }
        let given = typed.as_ref().map(ToString::to_string).unwrap_or_default();
        let range = Range { min: 0.0, max: size[axis], field };
        reading.note(place, ProblemKind::OutOfRange { given, range });
        None
    }

    fn stand(&self, index: usize, raw: &RawStand, reading: &mut Reading) -> Option<Standing> {
        let at = |name: &str| format!("cabinets[{index}].{name}");
        let across = self.needed(0, &at("across"), &field::STAND_ACROSS, &raw.across, reading);
        let along = self.needed(1, &at("along"), &field::STAND_ALONG, &raw.along, reading);
        let up = self.height(0.0, &at("up"), &field::STAND_UP, &raw.up, reading);
        let turned = reading.optional(&at("turned"), &field::STAND_TURNED, &raw.turned);
        let gain = reading.optional(&at("gain"), &field::STAND_GAIN, &raw.gain).unwrap_or(0.0);
        let delay = reading.optional(&at("delay"), &field::STAND_DELAY, &raw.delay);
        let sign = if raw.inverted { -1.0 } else { 1.0 };
        Some(Standing {
            at: [across?, along?, up?],
            turned: turned.unwrap_or(0.0),
            gain: sign * 10f64.powf(gain / 20.0),
            delay: delay.unwrap_or(0.0),
        })
    }

    fn seat(&self, index: usize, raw: &RawSeat, reading: &mut Reading) -> Option<Seat> {
        let at = |name: &str| format!("seats[{index}].{name}");
        reading.text(&at("name"), &raw.name, 0, LONGEST_NAME);
        let across = self.needed(0, &at("across"), &field::SEAT_ACROSS, &raw.across, reading);
        let along = self.needed(1, &at("along"), &field::SEAT_ALONG, &raw.along, reading);
        let up = self.height(USUAL_EARS, &at("up"), &field::SEAT_UP, &raw.up, reading);
        let name = match raw.name.trim() {
            "" => format!("Seat {}", index + 1),
            name => name.to_owned(),
        };
        Some(Seat { name, at: [across?, along?, up?] })
    }

    fn area(&self, index: usize, raw: &RawArea, reading: &mut Reading) -> Option<Area> {
        let at = |name: &str| format!("areas[{index}].{name}");
        let left = self.needed(0, &at("left"), &field::AREA_LEFT, &raw.left, reading);
        let right = self.needed(0, &at("right"), &field::AREA_RIGHT, &raw.right, reading);
        let below = self.needed(1, &at("below"), &field::AREA_BELOW, &raw.below, reading);
        let above = self.needed(1, &at("above"), &field::AREA_ABOVE, &raw.above, reading);
        let up = self.height(0.0, &at("up"), &field::AREA_UP, &raw.up, reading);
        let area = Area { low: [left?, below?], high: [right?, above?], height: up? };
        let ends =
            [(0, "right", &field::AREA_RIGHT, &raw.right), (1, "above", &field::AREA_ABOVE, &raw.above)];
        for (axis, name, field, typed) in ends {
            if area.high[axis] < area.low[axis] {
                let max = self.size.map_or(field.max, |size| size[axis]);
                let range = Range { min: area.low[axis], max, field };
                let given = typed.as_ref().map(ToString::to_string).unwrap_or_default();
                reading.note(&at(name), ProblemKind::OutOfRange { given, range });
                return None;
            }
        }
        Some(area)
    }
}

fn battery(raw: &RawBattery, reading: &mut Reading) -> Option<Battery> {
    let capacity = reading.required("battery.capacity", &field::BATTERY_CAPACITY, &raw.capacity);
    let usable = reading.optional("battery.usable", &field::BATTERY_USABLE, &raw.usable);
    let efficiency = reading.optional("battery.efficiency", &field::BATTERY_EFFICIENCY, &raw.efficiency);
    let idle = reading.optional("battery.idle", &field::BATTERY_IDLE, &raw.idle);
    let solar = reading.optional("battery.solar", &field::BATTERY_SOLAR, &raw.solar);
    Some(Battery {
        usable: capacity? * usable.unwrap_or(0.8),
        efficiency: efficiency.unwrap_or(0.75),
        idle: idle.unwrap_or(10.0),
        solar,
    })
}

impl ListeningPlace {
    /// Where a cabinet may stand: the areas, or the whole floor clear of the walls.
    pub fn allowed(&self) -> Vec<Area> {
        match &self.room {
            Some(room) if self.areas.is_empty() => {
                let side = |axis: usize| (room.size[axis] - INSET).max(INSET);
                vec![Area { low: [INSET; 2], high: [side(0), side(1)], height: 0.0 }]
            }
            _ => self.areas.clone(),
        }
    }
}
