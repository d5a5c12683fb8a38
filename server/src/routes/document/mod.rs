mod archived;
mod arrange;
mod export;
mod read;
mod revisions;
mod write;

use utoipa_actix_web::service_config::ServiceConfig;

pub fn configure(config: &mut ServiceConfig<'_>) {
    config
        .service(write::write)
        .service(read::read)
        .service(revisions::revisions)
        .service(archived::archived)
        .service(arrange::arrange)
        .service(export::file)
        .service(export::response);
}
