mod archive;
mod archived;
mod arrange;
mod change;
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
        .service(change::change)
        .service(archive::archive)
        .service(archived::archived)
        .service(arrange::arrange)
        .service(restore::restore)
        .service(export::export);
}
