//! What is measured of a build, and what it says.

mod compare;
mod learned;
mod plan;
mod read;
mod recording;
mod report;
mod rig;
mod sweep;

use utoipa_actix_web::service_config::ServiceConfig;

/// All routes of measuring.
pub(super) fn configure(config: &mut ServiceConfig<'_>) {
    config
        .service(compare::compare)
        .service(learned::list)
        .service(learned::apply)
        .service(plan::plan)
        .service(read::read)
        .service(recording::keep)
        .service(recording::give)
        .service(report::report)
        .service(rig::identify)
        .service(rig::sweep)
        .service(rig::act)
        .service(sweep::sweep);
}
