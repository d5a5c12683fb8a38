//! The one place that turns errors into answers.

use actix_web::http::StatusCode;
use actix_web::{HttpResponse, ResponseError};
use oak_design::exchange::{ImportReport, TableError};
use oak_design::response::GridError;
use oak_design::transient::BurstError;
use oak_design::{Problem, ProblemKind};
use serde::Serialize;
use utoipa::ToSchema;

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
    #[error("the If-Match header must name the revision that is being changed, as in If-Match: \"3\"")]
    NoPrecondition,
    /// The body is too long.
    #[error("the body is longer than {limit} bytes")]
    TooLarge {
        /// Most bytes allowed.
        limit: usize,
    },
    /// The body is of another kind.
    #[error("the body must be {wanted}")]
    MediaType {
        /// What is wanted.
        wanted: &'static str,
    },
    /// A build holds enough.
    #[error("a build holds at most {most} variants")]
    TooMany {
        /// Most allowed.
        most: i64,
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
    /// The database did not do it.
    #[error("the database could not be reached or refused; nothing was changed")]
    Database(#[source] Box<dyn std::error::Error + Send + Sync>),
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
            Self::MediaType { .. } => {
                (StatusCode::UNSUPPORTED_MEDIA_TYPE, "media-type", "The body is of another kind")
            }
            Self::TooMany { .. } => (StatusCode::UNPROCESSABLE_ENTITY, "too-many", "Too many"),
            Self::ForeignHost { .. } => (StatusCode::MISDIRECTED_REQUEST, "foreign-host", "Foreign host"),
            Self::ForeignOrigin { .. } => (StatusCode::FORBIDDEN, "foreign-origin", "Foreign origin"),
            Self::Database(_) => {
                (StatusCode::SERVICE_UNAVAILABLE, "database", "The database is not available")
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
        if let Self::Database(source) = self {
            tracing::error!(%source, "database");
        }
        HttpResponse::build(self.status_code()).content_type("application/problem+json").json(self.document())
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
        Self::Database(error.into())
    }
}
