use std::sync::atomic::Ordering;
use std::time::Duration;

use actix_web::{HttpResponse, get, web};
use diesel::RunQueryDsl;
use serde::Serialize;
use utoipa::ToSchema;

use crate::db;
use crate::error::ApiError;
use crate::state::State;

/// Longest the database is waited for.
const PATIENCE: Duration = Duration::from_millis(20);

#[derive(Serialize, ToSchema)]
struct Health {
    /// Version of the server.
    version: &'static str,
    /// Whether the database answers.
    database: DatabaseHealth,
}

/// Whether the database answers.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
enum DatabaseHealth {
    /// It does.
    Reachable,
    /// Not within 20 ms.
    Busy,
    /// It cannot be reached; the status is 503 then.
    Unreachable,
}

/// Whether server and database work; answers at once whatever else goes on.
#[utoipa::path(operation_id = "readHealth", tag = "health", responses((status = 200, body = Health), (status = 503, body = Health)))]
#[get("/health")]
pub async fn health(state: web::Data<State>) -> HttpResponse {
    let ping = {
        let state = state.clone();
        // It comes to its end also where nobody waits for it any more, so that the next answer knows how it ended.
        actix_web::rt::spawn(async move {
            let outcome =
                db::run(&state.pool, |connection| Ok(diesel::sql_query("SELECT 1").execute(connection)?))
                    .await;
            // Where all connections are at work there is a database.
            let none = state.pool.state().connections == 0;
            let unreachable = none && matches!(outcome, Err(ApiError::Unavailable(_)));
            state.unreachable.store(unreachable, Ordering::Relaxed);
            outcome
        })
    };
    let database = match tokio::time::timeout(PATIENCE, ping).await {
        Ok(Ok(Ok(_))) => DatabaseHealth::Reachable,
        _ if state.unreachable.load(Ordering::Relaxed) => DatabaseHealth::Unreachable,
        _ => DatabaseHealth::Busy,
    };
    let health = Health { version: env!("CARGO_PKG_VERSION"), database };
    match database {
        DatabaseHealth::Unreachable => HttpResponse::ServiceUnavailable().json(health),
        _ => HttpResponse::Ok().json(health),
    }
}
