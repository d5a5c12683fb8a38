use actix_web::web::Json;
use actix_web::{get, web};
use uuid::Uuid;

use crate::app::State;
use crate::db::queries::search;
use crate::db::{self, rows};
use crate::error::{ApiError, ProblemDocument};

/// The search of a build; null where there has been none.
#[utoipa::path(tag = "searches", params(("id" = Uuid, Path)), responses(
    (status = 200, body = Option<rows::Search>),
    (status = 503, body = ProblemDocument, content_type = "application/problem+json"),
))]
#[get("/builds/{id}/search")]
pub async fn of_build(
    id: web::Path<Uuid>,
    state: web::Data<State>,
) -> Result<Json<Option<rows::Search>>, ApiError> {
    Ok(Json(db::run(&state.pool, move |connection| search::of_build(connection, *id)).await?))
}
