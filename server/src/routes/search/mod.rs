mod begin;
mod best;
mod cancel;
mod design;
mod driver;
mod of_build;
mod points;

use utoipa_actix_web::service_config::ServiceConfig;

pub fn configure(config: &mut ServiceConfig<'_>) {
    config
        .service(begin::begin)
        .service(of_build::of_build)
        .service(best::best)
        .service(points::points)
        .service(driver::driver)
        .service(design::design)
        .service(cancel::cancel);
}
