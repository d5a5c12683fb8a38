mod archive;
mod change;
mod create;
mod export;
mod read;
mod restore;
mod revisions;

use utoipa_actix_web::service_config::ServiceConfig;

pub fn configure(config: &mut ServiceConfig<'_>) {
    config
        .service(create::create)
        .service(read::read)
        .service(change::change)
        .service(archive::archive)
        .service(restore::restore)
        .service(revisions::revisions)
        .service(export::file)
        .service(export::response);
}
