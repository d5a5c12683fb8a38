mod archive;
mod create;
mod export;
mod import;
mod list;
mod open;
mod restore;

use utoipa_actix_web::service_config::ServiceConfig;

pub fn configure(config: &mut ServiceConfig<'_>) {
    config
        .service(list::list)
        .service(create::create)
        .service(import::import)
        .service(open::open)
        .service(archive::archive)
        .service(restore::restore)
        .service(export::export);
}
