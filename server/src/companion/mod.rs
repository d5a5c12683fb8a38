//! Pages for phones: a listener of its own on one address of the local network, off unless it is asked for. It has its own application and
//! its own role in the database, speaks TLS alone, opens the pages of a link and nothing else, and stops when nobody has used it for long.

mod certificate;
mod guard;
mod joins;
mod page;
mod secret;
mod state;
mod steps;

use std::net::SocketAddr;
use std::path::PathBuf;
use std::sync::Arc;
use std::time::Duration;

use actix_web::middleware::from_fn;
use actix_web::{App, HttpServer, web};
use diesel::prelude::*;

use crate::compute::Compute;
use crate::db::{self, Pool};
use crate::error::ApiError;

pub use secret::Secret;
pub use state::Companion;

use state::CompanionState;

/// How the listener is started.
#[derive(Debug, Clone)]
pub struct Options {
    /// Address of one interface and port; port 0 takes any free one.
    pub address: SocketAddr,
    /// Folder that keeps the certificate; made for this run alone where absent.
    pub keys: Option<PathBuf>,
    /// After how long without use it stops.
    pub idle: Duration,
}

/// After how long without use it stops where nothing else is said.
pub const IDLE: Duration = Duration::from_secs(8 * 3600);

/// Why it cannot be started.
#[derive(Debug, thiserror::Error)]
pub enum CompanionError {
    /// Everything would be listened to.
    #[error("{0} is every interface; name the address of one, such as 192.168.1.20:7474")]
    Everywhere(SocketAddr),
    /// The database has no such role.
    #[error(
        "the database gives the role oak_companion to nobody; its administrator makes it with CREATE ROLE oak_companion, before the program is started anew: {0}"
    )]
    NoRole(String),
    /// The certificate cannot be made or read.
    #[error("the certificate for phones: {0}")]
    Certificate(String),
    /// The address is taken, or none of this machine.
    #[error("{address} cannot be used for phones: {reason}")]
    Address {
        /// Which.
        address: SocketAddr,
        /// Why.
        reason: String,
    },
}

/// Starts the listener; it runs until it is stopped with the program, or by itself.
///
/// # Errors
/// See [`CompanionError`].
pub fn start(
    database_url: &str,
    compute: Compute,
    options: &Options,
) -> Result<Arc<Companion>, CompanionError> {
    let wanted = options.address;
    if wanted.ip().is_unspecified() {
        return Err(CompanionError::Everywhere(wanted));
    }
    let pool = db::companion_pool(database_url, 2);
    check_role(&pool)?;
    let identity = certificate::of(wanted.ip(), options.keys.as_deref())
        .map_err(|error| CompanionError::Certificate(format!("{error:#}")))?;
    // The address is only known once it is bound, and every worker needs it.
    let refused =
        |error: std::io::Error| CompanionError::Address { address: wanted, reason: error.to_string() };
    let socket = std::net::TcpListener::bind(wanted).map_err(refused)?;
    let address = socket.local_addr().map_err(refused)?;
    let companion = Arc::new(Companion::at(address, identity.fingerprint));
    let state = CompanionState { pool, compute, companion: companion.clone(), joins: Arc::default() };
    let server = HttpServer::new(move || {
        App::new()
            .app_data(web::Data::new(state.clone()))
            .app_data(
                web::PathConfig::default().error_handler(|_, _| ApiError::NotFound { what: "page" }.into()),
            )
            .wrap(from_fn(crate::guard::panics))
            .wrap(from_fn(guard::ours))
            .service(page::page)
            .service(page::asset)
            .service(steps::join)
            .service(steps::read)
            .service(steps::write)
            .default_service(web::to(page::nothing))
    })
    .workers(1)
    .client_request_timeout(Duration::from_secs(10))
    .client_disconnect_timeout(Duration::from_secs(2))
    .max_connections(64)
    .disable_signals()
    .shutdown_timeout(2)
    .listen_rustls_0_23(socket, identity.tls)
    .map_err(refused)?
    .run();
    let handle = server.handle();
    let (watched, idle) = (companion.clone(), options.idle);
    actix_web::rt::spawn(async move {
        while watched.unused() < idle {
            tokio::time::sleep((idle / 8).clamp(Duration::from_millis(50), Duration::from_secs(60))).await;
        }
        watched.end();
        handle.stop(true).await;
    });
    actix_web::rt::spawn(async move {
        if let Err(error) = server.await {
            tracing::error!(%error, "the listener for phones stopped");
        }
    });
    Ok(companion)
}

fn check_role(pool: &Pool) -> Result<(), CompanionError> {
    let role = |error: String| CompanionError::NoRole(error);
    let mut connection = pool.get().map_err(|error| role(error.to_string()))?;
    diesel::sql_query("SELECT 1")
        .execute(&mut connection)
        .map(|_| ())
        .map_err(|error| role(error.to_string()))
}
