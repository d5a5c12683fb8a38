//! What errors say, and with which status.

use std::panic::catch_unwind;

use diesel::result::{DatabaseErrorInformation, DatabaseErrorKind, Error};

use actix_web::ResponseError;
use oak_server::error::{ApiError, message};

#[test]
fn what_a_panic_said_is_found_however_it_was_said() {
    let said = |work: fn()| message(&*catch_unwind(work).expect_err("a panic")).to_owned();
    assert_eq!(said(|| panic!("plainly")), "plainly");
    assert_eq!(said(|| panic!("with {}", 5)), "with 5");
    assert_eq!(said(|| std::panic::panic_any(7)), "no message");
}

struct Told(&'static str);

impl DatabaseErrorInformation for Told {
    fn message(&self) -> &str {
        self.0
    }
    fn details(&self) -> Option<&str> {
        None
    }
    fn hint(&self) -> Option<&str> {
        None
    }
    fn table_name(&self) -> Option<&str> {
        None
    }
    fn column_name(&self) -> Option<&str> {
        None
    }
    fn constraint_name(&self) -> Option<&str> {
        None
    }
    fn statement_position(&self) -> Option<i32> {
        None
    }
}

/// 503 asks to come back, 409 is a clash, 500 our own mistake.
#[test]
fn what_the_database_says_is_told_apart() {
    let status = |kind, words| {
        ApiError::from(Error::DatabaseError(kind, Box::new(Told(words)))).status_code().as_u16()
    };
    assert_eq!(status(DatabaseErrorKind::Unknown, "canceling statement due to lock timeout"), 503);
    assert_eq!(status(DatabaseErrorKind::Unknown, "canceling statement due to statement timeout"), 503);
    assert_eq!(status(DatabaseErrorKind::Unknown, "FATAL: the database system is starting up"), 503);
    assert_eq!(status(DatabaseErrorKind::ClosedConnection, "gone"), 503);
    assert_eq!(status(DatabaseErrorKind::UniqueViolation, "twice"), 409);
    assert_eq!(status(DatabaseErrorKind::Unknown, "column \"x\" does not exist"), 500);
    assert_eq!(ApiError::from(Error::NotFound).status_code().as_u16(), 500);
}

#[test]
fn an_answer_to_a_mistake_of_ours_says_what_to_look_for_and_is_as_strict_as_the_others() {
    let error = ApiError::internal("a secret of the database");
    let ApiError::Internal { id } = error else { panic!("{error}") };
    assert!(error.to_string().contains(&id.to_string()) && !error.to_string().contains("secret"));
    let answer = error.error_response();
    assert_eq!(answer.status().as_u16(), 500);
    assert!(answer.headers().contains_key("content-security-policy"));
    let busy = ApiError::Overloaded.error_response();
    assert_eq!(busy.status().as_u16(), 429);
    assert_eq!(busy.headers().get("retry-after").expect("told when").to_str().expect("text"), "1");
}
