mod alike;
mod archive;
mod change;
mod create;
mod export;
mod import;
mod list;
mod read;
mod resolve;
mod restore;
mod sheet;

use utoipa_actix_web::service_config::ServiceConfig;

pub fn configure(config: &mut ServiceConfig<'_>) {
    config
        .service(list::list)
        .service(create::create)
        .service(resolve::resolve)
        .service(alike::alike)
        .service(sheet::read_sheet)
        .service(import::import)
        .service(export::table)
        .service(export::files)
        .service(export::file)
        .service(read::read)
        .service(change::change)
        .service(archive::archive)
        .service(restore::restore);
}
