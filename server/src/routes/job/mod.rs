mod cancel;
mod list;
mod read;

use utoipa_actix_web::service_config::ServiceConfig;

pub fn configure(config: &mut ServiceConfig<'_>) {
    config.service(list::list).service(read::read).service(cancel::cancel);
}
