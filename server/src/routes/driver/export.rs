use actix_web::{HttpResponse, get, web};
use oak_design::exchange::write_driver_table;
use oak_design::file::RawDriver;
use uuid::Uuid;

use crate::db;
use crate::db::queries::driver;
use crate::error::ApiError;
use crate::routes::download::{download, download_json};
use crate::state::State;

/// All drivers as a table that can be imported again.
#[utoipa::path(operation_id = "exportDriversAsTable", tag = "drivers", responses((status = 200, body = String, content_type = "text/csv")))]
#[get("/drivers/export.csv")]
pub async fn table(state: web::Data<State>) -> Result<HttpResponse, ApiError> {
    let drivers = db::run(&state.pool, driver::all).await?;
    Ok(download("drivers.csv", "text/csv; charset=utf-8", write_driver_table(&drivers)))
}

/// All drivers as a list of driver files that can be imported again.
#[utoipa::path(operation_id = "exportDriversAsFiles", tag = "drivers", responses((status = 200, body = Vec<RawDriver>)))]
#[get("/drivers/export.json")]
pub async fn files(state: web::Data<State>) -> Result<HttpResponse, ApiError> {
    let drivers = db::run(&state.pool, driver::all_as_stored).await?;
    download_json("drivers", &drivers)
}

/// One driver as a driver file.
#[utoipa::path(operation_id = "exportDriver", tag = "drivers", params(("id" = Uuid, Path)), responses((status = 200, body = RawDriver)))]
#[get("/drivers/{id}/driver.json")]
pub async fn file(id: web::Path<Uuid>, state: web::Data<State>) -> Result<HttpResponse, ApiError> {
    let driver = db::run(&state.pool, move |connection| driver::find(connection, *id)).await?;
    download_json(&driver.document.name, &driver.document)
}
