//! The application: routes, limits and guards put together.

use std::time::Duration;

use actix_web::body::MessageBody;
use actix_web::dev::{ServiceFactory, ServiceRequest, ServiceResponse};
use actix_web::middleware::{Compress, Condition, from_fn};
use actix_web::{App, Error, HttpServer, web};
use oak_planning::build_plan::{StepsOnPhone, ToldStep};
use tracing_actix_web::TracingLogger;
use utoipa::OpenApi;
use utoipa::openapi::OpenApi as Document;
use utoipa_actix_web::AppExt;

use crate::error::ApiError;
use crate::state::State;
use crate::{assets, guard, routes};

#[derive(OpenApi)]
#[openapi(
    info(
        title = "Oak Drum",
        description = "Drivers, builds and variants of subwoofers and bass cabinets, and the computation behind them. \
                   Errors are application/problem+json and name field, value and allowed range.",
        license(name = "MIT", identifier = "MIT")
    ),
    components(schemas(StepsOnPhone, ToldStep))
)]
struct Description;

/// The application, and its API description.
fn assemble(
    state: State,
    log: bool,
) -> (
    App<
        impl ServiceFactory<
            ServiceRequest,
            Config = (),
            Response = ServiceResponse<impl MessageBody>,
            Error = Error,
            InitError = (),
        >,
    >,
    Document,
) {
    let (app, document) = App::new()
        .into_utoipa_app()
        .openapi(Description::openapi())
        .app_data(web::Data::new(state))
        .app_data(
            web::QueryConfig::default()
                .error_handler(|error, _| ApiError::Query { reason: error.to_string() }.into()),
        )
        .app_data(
            web::PathConfig::default().error_handler(|_, _| ApiError::NotFound { what: "address" }.into()),
        )
        .map(|app| {
            app.wrap(from_fn(guard::panics))
                .wrap(from_fn(guard::headers))
                .wrap(from_fn(guard::origin))
                .wrap(Condition::new(log, TracingLogger::default()))
        })
        .service(
            utoipa_actix_web::scope("/api/v1")
                .configure(routes::configure)
                .map(|scope| scope.default_service(web::to(routes::unknown))),
        )
        .split_for_parts();
    let published = document.clone();
    let app = app
        .route("/api/openapi.json", web::get().to(move || std::future::ready(web::Json(published.clone()))))
        .service(web::scope("/api").default_service(web::to(routes::unknown)))
        .service(web::scope("").wrap(Compress::default()).default_service(web::to(assets::serve)));
    (app, document)
}

/// The description of the API, without running it.
pub fn openapi(state: State) -> Document {
    assemble(state, false).1
}

/// Longest a client may take over the head of a request, over saying good-bye, and between two requests.
const HEADERS: Duration = Duration::from_secs(10);
const DISCONNECT: Duration = Duration::from_secs(2);
const IDLE: Duration = Duration::from_secs(75);

/// Starts the server on loopback; port 0 takes any free one.
///
/// # Errors
/// Where the port is taken.
pub fn start(state: State, port: u16, workers: usize) -> std::io::Result<(actix_web::dev::Server, u16)> {
    let server = HttpServer::new(move || assemble(state.clone(), true).0)
        .workers(workers)
        .client_request_timeout(HEADERS)
        .client_disconnect_timeout(DISCONNECT)
        .keep_alive(IDLE)
        // A client that closes its side has left: what is computed for it is stopped.
        .h1_allow_half_closed(false)
        .shutdown_timeout(5)
        .bind(("127.0.0.1", port))?;
    let port = server.addrs()[0].port();
    Ok((server.run(), port))
}
