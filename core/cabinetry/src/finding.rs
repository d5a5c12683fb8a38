//! What does not fit.

use std::fmt;

use crate::geometry::Face;

/// Something that does not fit, or hardly. Lengths in m, volumes in m3.
#[derive(Debug, Clone, PartialEq)]
pub enum Finding {
    /// More goes in than there is room.
    Overfull {
        /// Which chamber.
        chamber: usize,
        /// By how much.
        by: f64,
    },
    /// The shape has no such flat face.
    NoFace {
        /// What was to go there.
        part: String,
        /// Which face.
        face: Face,
    },
    /// A face is too small for what goes in it.
    FaceTooSmall {
        /// Which face.
        face: Face,
        /// What goes in it.
        part: String,
        /// Width and height it needs.
        needs: [f64; 2],
        /// Width and height inside.
        has: [f64; 2],
    },
    /// A port does not end within the room, with clear air before its end.
    PortTooLong {
        /// Which.
        part: String,
        /// Straight length it needs with that air, from the inner side of its board.
        needs: f64,
        /// What there is.
        has: f64,
        /// How much of it is clear air.
        gap: f64,
        /// How often it turns.
        turns: u32,
    },
    /// A slot between both sides that is not as wide as the room.
    NotAcross {
        /// Which.
        part: String,
        /// What is beside it; less than nothing where it is too wide.
        beside: f64,
    },
    /// A port for a corner where the shape has none.
    NoCorner {
        /// Which.
        part: String,
    },
    /// A slot in a slanting face.
    Slanting {
        /// Which.
        part: String,
    },
    /// A part reaches into a wall.
    Outside {
        /// Which.
        part: String,
    },
    /// Two parts take the same room.
    Touches {
        /// One.
        part: String,
        /// The other.
        other: String,
    },
    /// Two parts, or a magnet and a wall, are too near for air.
    Close {
        /// One.
        part: String,
        /// The other.
        other: String,
        /// What is between them.
        distance: f64,
        /// What there should be.
        wanted: f64,
    },
    /// A board stands in the clear air before a port's inner end.
    Blocked {
        /// The port.
        part: String,
        /// The board.
        other: String,
        /// What is between them.
        distance: f64,
        /// What there should be.
        wanted: f64,
    },
    /// Both sides of a driver cannot speak into channels beside each other.
    NoSeat,
    /// The front of a driver between two channels speaks into the way far from its place.
    WrongChannel {
        /// Where it should, m from the beginning.
        wanted: f64,
        /// Where it does.
        found: f64,
    },
    /// The board between two channels is too small for the drivers in it.
    PanelTooSmall {
        /// Width and length they need.
        needs: [f64; 2],
        /// Width and length of the board around their place.
        has: [f64; 2],
    },
    /// Something that belongs to a way and is not folded with it.
    Apart {
        /// What.
        what: &'static str,
    },
    /// Room beside a chamber that is shorter than its way's channels.
    ClosedOff {
        /// How much.
        volume: f64,
    },
    /// The wall of a pipe is thin for a cabinet.
    ThinPipe {
        /// Its wall.
        wall: f64,
        /// What it should have at least.
        wanted: f64,
    },
    /// A place beyond the room.
    Beyond {
        /// Which part.
        part: String,
        /// The farthest there is.
        most: f64,
    },
}

impl Finding {
    /// Whether it cannot be built so; otherwise it is only near.
    pub fn forbids(&self) -> bool {
        !matches!(
            self,
            Self::Close { .. } | Self::Apart { .. } | Self::ThinPipe { .. } | Self::ClosedOff { .. }
        )
    }

    /// The part that it is about.
    pub fn part(&self) -> Option<&str> {
        match self {
            Self::Overfull { .. } | Self::Apart { .. } | Self::ThinPipe { .. } | Self::ClosedOff { .. } => {
                None
            }
            Self::NoSeat | Self::WrongChannel { .. } | Self::PanelTooSmall { .. } => Some("driver"),
            Self::NoFace { part, .. }
            | Self::FaceTooSmall { part, .. }
            | Self::PortTooLong { part, .. }
            | Self::Slanting { part }
            | Self::NotAcross { part, .. }
            | Self::NoCorner { part }
            | Self::Outside { part }
            | Self::Touches { part, .. }
            | Self::Close { part, .. }
            | Self::Blocked { part, .. }
            | Self::Beyond { part, .. } => Some(part),
        }
    }
}

fn mm(metres: f64) -> String {
    format!("{:.0} mm", metres * 1e3)
}

impl fmt::Display for Finding {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::Overfull { by, .. } => {
                write!(
                    f,
                    "What goes into the box needs {:.1} l more than there is. Make the box larger, or take something out.",
                    by * 1e3
                )
            }
            Self::NoFace { part, face } => {
                write!(
                    f,
                    "The {part} is set to go into the {}, but this shape has no flat board there.",
                    face.name()
                )
            }
            Self::FaceTooSmall { face, part, needs, has } => write!(
                f,
                "The {} is too small for the {part}: that takes {} by {}, and {} by {} are free inside.",
                face.name(),
                mm(needs[0]),
                mm(needs[1]),
                mm(has[0]),
                mm(has[1])
            ),
            Self::PortTooLong { part, needs, has, gap, turns } => write!(
                f,
                "The {part} does not fit{}: with {} of clear air before its end it takes {} inside, and there are {}.",
                match turns {
                    0 => "",
                    1 => " even with its turn",
                    _ => " even with its turns",
                },
                mm(*gap),
                mm(*needs),
                mm(*has)
            ),
            Self::ThinPipe { wall, wanted } => write!(
                f,
                "A pipe with a wall of {} buzzes and goes out of round between its ends as a cabinet: take one of at least {}, such as \
                 pressure pipe, or glue thin boards around it.",
                mm(*wall),
                mm(*wanted)
            ),
            Self::NotAcross { part, beside } if *beside > 0.0 => write!(
                f,
                "The {part} is set to run from side to side, but leaves {} open beside it. Leave its width empty, and it is as wide as the box; or let it run along two walls, and it gets a board of its own.",
                mm(*beside)
            ),
            Self::NotAcross { part, beside } => write!(
                f,
                "The {part} is {} wider than the box inside. Leave its width empty, and it is as wide as the box.",
                mm(-beside)
            ),
            Self::NoCorner { part } => write!(
                f,
                "The {part} is set to run in a corner of the box, but this shape has no square corner at its board. Let it stand free, as a tube, or along one wall."
            ),
            Self::Slanting { part } => {
                write!(
                    f,
                    "The {part} is a slot and needs an upright or level board; this one slants. A tube would do."
                )
            }
            Self::Outside { part } => write!(f, "The {part} reaches into a wall."),
            Self::Touches { part, other } => write!(f, "The {part} and the {other} are in the same place."),
            Self::Close { part, other, distance, wanted } => write!(
                f,
                "There is only {} between the {part} and the {other}; the air needs {}.",
                mm(*distance),
                mm(*wanted)
            ),
            Self::Blocked { part, other, distance, wanted } => write!(
                f,
                "The {other} stands {} from the inner end of the {part}; the air needs {}.",
                mm(*distance),
                mm(*wanted)
            ),
            Self::NoSeat => write!(
                f,
                "The driver sits in a board between two channels, but where its rear is to open into the path there is none: another \
                 number of folds, or another place along the path, gives it one."
            ),
            Self::WrongChannel { wanted, found } => write!(
                f,
                "The front of the driver would open into the path {found:.2} m along instead of {wanted:.2} m: with so many folds \
                 other channels lie on the two sides of its board. One fold brings the mouth beside the throat."
            ),
            Self::Apart { what } => {
                write!(f, "The {what} is not part of the fold: give it its own room beside the path.")
            }
            Self::ClosedOff { volume } => write!(
                f,
                "The chamber is smaller than the room before the path: {:.1} l beside it are closed off by a board. They may hold an amplifier \
                 or sand; a larger chamber, or a narrower box, leaves less of it.",
                volume * 1e3
            ),
            Self::PanelTooSmall { needs, has } => write!(
                f,
                "The board between the channels is too small for the driver: that takes {} by {}, and around its place there are {} by {}.",
                mm(needs[0]),
                mm(needs[1]),
                mm(has[0]),
                mm(has[1])
            ),
            Self::Beyond { part, most } => {
                write!(f, "The {part} lies outside the room, which is {} long there.", mm(*most))
            }
        }
    }
}
