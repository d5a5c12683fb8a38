mod design;
mod driver;
mod of_build;
mod points;
mod read;
mod start;

use utoipa_actix_web::service_config::ServiceConfig;

pub fn configure(config: &mut ServiceConfig<'_>) {
    config
        .service(start::start)
        .service(of_build::of_build)
        .service(read::read)
        .service(points::points)
        .service(driver::driver)
        .service(design::design);
}
