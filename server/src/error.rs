//! The one place that turns errors into answers.

use std::any::Any;

use actix_web::http::StatusCode;
use actix_web::http::header::RETRY_AFTER;
use actix_web::{HttpResponse, ResponseError};
use oak_design::exchange::{ImportReport, TableError};
use oak_design::response::GridError;
use oak_design::transient::BurstError;
use oak_design::{Problem, ProblemKind};
use oak_signal::biquad::BiquadError;
use serde::Serialize;
use utoipa::ToSchema;
use uuid::Uuid;

use crate::headers::secure;
use crate::rig::RigError;

/// Everything that can go wrong with a request.
#[derive(Debug, thiserror::Error)]
pub enum ApiError {
    /// The document is readable and its values are not acceptable.
    #[error("{} values cannot be used", .0.len())]
    Problems(Vec<Problem>),
    /// The body is not such a document.
    #[error("the body cannot be read: {0}")]
    Malformed(Problem),
    /// The frequency range makes no sense.
    #[error(transparent)]
    Grid(#[from] GridError),
    /// A burst that cannot be played.
    #[error(transparent)]
    Burst(#[from] BurstError),
    /// Filters that cannot be sampled.
    #[error(transparent)]
    Biquad(#[from] BiquadError),
    /// The part after the question mark cannot be read.
    #[error("the query cannot be read: {reason}")]
    Query {
        /// What the reader says.
        reason: String,
    },
    /// The table cannot be read at all.
    #[error(transparent)]
    Table(#[from] TableError),
    /// Rows of the table have problems.
    #[error("{} problems; nothing was imported", .0.problem_count)]
    Rows(Box<ImportReport>),
    /// There is no such thing.
    #[error("there is no such {what}")]
    NotFound {
        /// What was looked for.
        what: &'static str,
    },
    /// Somebody else changed it first.
    #[error("it was changed meanwhile; revision {current} is the newest")]
    Stale {
        /// The newest revision.
        current: i32,
    },
    /// A change without saying what it changes.
    #[error(
        "say what is written to: If-Match with the revision that is being changed, as in If-Match: \"3\", or If-None-Match: * for something new"
    )]
    NoPrecondition,
    /// The body is too long.
    #[error("the body is longer than {limit} bytes")]
    TooLarge {
        /// Most bytes allowed.
        limit: usize,
    },
    /// The body took too long to come.
    #[error("the body did not come within {seconds} s")]
    TooSlow {
        /// How long was waited.
        seconds: u64,
    },
    /// The body is of another kind.
    #[error("the body must be {wanted}")]
    MediaType {
        /// What is wanted.
        wanted: &'static str,
    },
    /// A build holds enough.
    #[error("a build holds at most {most} {what}")]
    TooMany {
        /// Most allowed.
        most: u32,
        /// Of what.
        what: &'static str,
    },
    /// A request for another host.
    #[error("\"{host}\" is not a name of this server; use 127.0.0.1 or localhost")]
    ForeignHost {
        /// What the Host header said.
        host: String,
    },
    /// A change asked for by another site's page.
    #[error("requests from \"{origin}\" are not accepted")]
    ForeignOrigin {
        /// What the Origin header said.
        origin: String,
    },
    /// Something of the kind is at work already.
    #[error("{what} is at work already; cancel it first or wait until it has ended")]
    AtWork {
        /// What.
        what: &'static str,
    },
    /// It clashes with what is stored.
    #[error("it clashes with what is stored: {reason}")]
    Conflict {
        /// How.
        reason: String,
    },
    /// A phone asks without a link that holds.
    #[error("this link does not open the page any more; ask for a new one")]
    NotJoined,
    /// A link has written as much as one may.
    #[error("one link takes at most {most} {what}")]
    Quota {
        /// Most allowed.
        most: i32,
        /// Of what.
        what: &'static str,
    },
    /// Phones are not listened to.
    #[error(
        "pages for phones are off; start the program with --companion and the address of this machine in the local network, such as --companion 192.168.1.20:7474"
    )]
    CompanionOff,
    /// No measuring box was named.
    #[error(
        "no measuring box was named; start the program with --rig and its address, such as --rig 127.0.0.1:7412"
    )]
    RigOff,
    /// The measuring box gave nothing.
    #[error(transparent)]
    Rig(#[from] RigError),
    /// More is being computed than can be.
    #[error("too much is being computed just now; try again in a second")]
    Overloaded,
    /// The database cannot be reached, or gave up waiting.
    #[error("the database cannot be reached or is busy; nothing was changed")]
    Unavailable(#[source] Box<dyn std::error::Error + Send + Sync>),
    /// A stored document that this program cannot read.
    #[error("{what} is stored in a form that this program cannot read: {reason}")]
    Unreadable {
        /// Which.
        what: String,
        /// What the reader says.
        reason: String,
    },
    /// Our own mistake.
    #[error("something went wrong in the program; the log says more under {id}")]
    Internal {
        /// What stands in the log.
        id: Uuid,
    },
}

/// Notes a mistake of our own in the log; returns what it stands under.
fn noted(what: &(dyn std::fmt::Display + Sync)) -> Uuid {
    let id = Uuid::now_v7();
    tracing::error!(incident = %id, "{what}");
    id
}

/// Notes a panic in the log; returns what it stands under.
pub fn incident(panic: &(dyn Any + Send)) -> Uuid {
    noted(&format!("panic: {}", message(panic)))
}

/// What a panic said.
pub fn message(panic: &(dyn Any + Send)) -> &str {
    let text = panic.downcast_ref::<String>().map(String::as_str);
    text.or_else(|| panic.downcast_ref::<&str>().copied()).unwrap_or("no message")
}

impl ApiError {
    /// A mistake of our own.
    pub fn internal(source: impl std::fmt::Display + Sync) -> Self {
        Self::Internal { id: noted(&source) }
    }

    /// A panic.
    pub fn panicked(panic: &(dyn Any + Send)) -> Self {
        Self::Internal { id: incident(panic) }
    }

    /// No connection.
    pub fn unreachable(source: impl std::error::Error + Send + Sync + 'static) -> Self {
        Self::Unavailable(source.into())
    }
}

/// An error as answered, after RFC 9457.
#[derive(Debug, Serialize, ToSchema)]
pub struct ProblemDocument {
    /// What kind of problem: `urn:oak-drum:...`.
    r#type: String,
    /// The same in short words.
    title: &'static str,
    /// HTTP status.
    status: u16,
    /// What is wrong, in one sentence.
    detail: String,
    /// Each field that is wrong.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    errors: Vec<FieldError>,
    /// Stale writes: the newest revision.
    #[serde(skip_serializing_if = "Option::is_none")]
    current_revision: Option<i32>,
    /// Imports: what is wrong row by row.
    #[serde(skip_serializing_if = "Option::is_none")]
    report: Option<ImportReport>,
}

/// One field that is wrong.
#[derive(Debug, Serialize, ToSchema)]
pub struct FieldError {
    /// Which: `enclosure.ports[0].diameter`.
    field: String,
    /// What is wrong, with the value and what is allowed.
    message: String,
    /// Smallest allowed value, SI.
    #[serde(skip_serializing_if = "Option::is_none")]
    min: Option<f64>,
    /// Largest allowed value, SI.
    #[serde(skip_serializing_if = "Option::is_none")]
    max: Option<f64>,
    /// Unit the field is usually written in.
    #[serde(skip_serializing_if = "Option::is_none")]
    unit: Option<&'static str>,
}

impl From<&Problem> for FieldError {
    fn from(problem: &Problem) -> Self {
        let range = problem.range();
        Self {
            field: problem.field.clone(),
            message: problem.kind.to_string(),
            min: range.map(|range| range.min),
            max: range.map(|range| range.max),
            unit: range.map(|range| range.field.unit),
        }
    }
}

impl ApiError {
    fn kind(&self) -> (StatusCode, &'static str, &'static str) {
        match self {
            Self::Problems(_) => {
                (StatusCode::UNPROCESSABLE_ENTITY, "invalid-values", "Some values cannot be used")
            }
            Self::Malformed(_) => (StatusCode::BAD_REQUEST, "malformed", "The body cannot be read"),
            Self::Grid(_) | Self::Burst(_) => {
                (StatusCode::UNPROCESSABLE_ENTITY, "invalid-range", "The frequency range cannot be used")
            }
            Self::Biquad(_) => {
                (StatusCode::UNPROCESSABLE_ENTITY, "unsampled-filter", "A filter cannot be sampled")
            }
            Self::Query { .. } => (StatusCode::BAD_REQUEST, "query", "The query cannot be read"),
            Self::Table(_) => {
                (StatusCode::UNPROCESSABLE_ENTITY, "unreadable-table", "The table cannot be read")
            }
            Self::Rows(_) => (StatusCode::UNPROCESSABLE_ENTITY, "bad-rows", "Nothing was imported"),
            Self::NotFound { .. } => (StatusCode::NOT_FOUND, "not-found", "Not found"),
            Self::Stale { .. } => (StatusCode::PRECONDITION_FAILED, "stale", "Changed meanwhile"),
            Self::NoPrecondition => {
                (StatusCode::PRECONDITION_REQUIRED, "no-precondition", "If-Match is missing")
            }
            Self::TooLarge { .. } => (StatusCode::PAYLOAD_TOO_LARGE, "too-large", "The body is too long"),
            Self::TooSlow { .. } => (StatusCode::REQUEST_TIMEOUT, "too-slow", "The body came too slowly"),
            Self::MediaType { .. } => {
                (StatusCode::UNSUPPORTED_MEDIA_TYPE, "media-type", "The body is of another kind")
            }
            Self::TooMany { .. } => (StatusCode::UNPROCESSABLE_ENTITY, "too-many", "Too many"),
            Self::ForeignHost { .. } => (StatusCode::MISDIRECTED_REQUEST, "foreign-host", "Foreign host"),
            Self::ForeignOrigin { .. } => (StatusCode::FORBIDDEN, "foreign-origin", "Foreign origin"),
            Self::AtWork { .. } => (StatusCode::CONFLICT, "at-work", "At work already"),
            Self::Conflict { .. } => (StatusCode::CONFLICT, "conflict", "A clash with what is stored"),
            Self::NotJoined => (StatusCode::FORBIDDEN, "not-joined", "The link does not hold"),
            Self::Quota { .. } => (StatusCode::TOO_MANY_REQUESTS, "quota", "Too many"),
            Self::CompanionOff => (StatusCode::CONFLICT, "companion-off", "Pages for phones are off"),
            Self::RigOff => (StatusCode::CONFLICT, "rig-off", "There is no measuring box"),
            Self::Rig(_) => (StatusCode::BAD_GATEWAY, "rig", "The measuring box gave nothing"),
            Self::Overloaded => (StatusCode::TOO_MANY_REQUESTS, "overloaded", "Too much at once"),
            Self::Unavailable(_) => {
                (StatusCode::SERVICE_UNAVAILABLE, "unavailable", "The database cannot be reached or is busy")
            }
            Self::Unreadable { .. } => {
                (StatusCode::INTERNAL_SERVER_ERROR, "unreadable", "A stored document cannot be read")
            }
            Self::Internal { .. } => {
                (StatusCode::INTERNAL_SERVER_ERROR, "internal", "Something went wrong in the program")
            }
        }
    }

    fn document(&self) -> ProblemDocument {
        let (status, kind, title) = self.kind();
        let mut document = ProblemDocument {
            r#type: format!("urn:oak-drum:{kind}"),
            title,
            status: status.as_u16(),
            detail: self.to_string(),
            errors: Vec::new(),
            current_revision: None,
            report: None,
        };
        match self {
            Self::Problems(problems) => {
                document.errors = problems.iter().map(Into::into).collect();
                document.detail = problems.iter().map(Problem::to_string).collect::<Vec<_>>().join("; ");
            }
            Self::Malformed(problem) => document.errors = vec![problem.into()],
            Self::Stale { current } => document.current_revision = Some(*current),
            Self::Rows(report) => document.report = Some((**report).clone()),
            _ => {}
        }
        document
    }
}

impl ResponseError for ApiError {
    fn status_code(&self) -> StatusCode {
        self.kind().0
    }

    fn error_response(&self) -> HttpResponse {
        let mut response = HttpResponse::build(self.status_code());
        match self {
            Self::Unavailable(source) => {
                tracing::error!(%source, "database");
                response.insert_header((RETRY_AFTER, "2"));
            }
            Self::Unreadable { .. } => tracing::error!(error = %self),
            Self::Overloaded => {
                response.insert_header((RETRY_AFTER, "1"));
            }
            _ => {}
        }
        let mut response = response.content_type("application/problem+json").json(self.document());
        // An error that no middleware has turned into an answer, as after a panic, passes none on its way out.
        secure(response.headers_mut());
        response
    }
}

impl From<Problem> for ApiError {
    fn from(problem: Problem) -> Self {
        match problem.kind {
            ProblemKind::Malformed { .. }
            | ProblemKind::OtherFormat { .. }
            | ProblemKind::OtherVersion { .. } => Self::Malformed(problem),
            _ => Self::Problems(vec![problem]),
        }
    }
}

impl From<Vec<Problem>> for ApiError {
    fn from(problems: Vec<Problem>) -> Self {
        Self::Problems(problems)
    }
}

impl From<diesel::result::Error> for ApiError {
    fn from(error: diesel::result::Error) -> Self {
        use diesel::result::{DatabaseErrorKind as Kind, Error};
        match &error {
            Error::DatabaseError(Kind::UniqueViolation | Kind::ForeignKeyViolation, information) => {
                Self::Conflict { reason: information.message().to_owned() }
            }
            Error::DatabaseError(kind, information) => {
                let passing = matches!(
                    kind,
                    Kind::ClosedConnection
                        | Kind::UnableToSendCommand
                        | Kind::SerializationFailure
                        | Kind::ReadOnlyTransaction
                ) || PASSING.iter().any(|words| information.message().contains(words));
                if passing { Self::Unavailable(error.into()) } else { Self::internal(error) }
            }
            Error::BrokenTransactionManager | Error::AlreadyInTransaction => Self::Unavailable(error.into()),
            _ => Self::internal(error),
        }
    }
}

/// What PostgreSQL says where it gives up for the moment: Diesel has no kinds for these.
const PASSING: [&str; 7] = [
    "due to lock timeout",
    "due to statement timeout",
    "deadlock detected",
    "terminating connection",
    "server closed the connection",
    "the database system is",
    "too many clients",
];

impl From<fang::QueueError> for ApiError {
    fn from(error: fang::QueueError) -> Self {
        match error {
            fang::QueueError::DieselError(error) => error.into(),
            fang::QueueError::PoolError(error) => Self::unreachable(error),
            other => Self::internal(other),
        }
    }
}
