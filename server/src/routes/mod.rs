//! One handler a file, `noun/verb`.

mod brief;
mod build;
mod cabinet;
mod companion;
mod compare;
mod cut;
mod document;
mod download;
mod drawing_file;
mod driver;
mod driver_array;
mod driver_match;
mod health;
mod job;
mod lines;
mod measure;
mod motion;
mod photo;
mod place;
mod plan;
mod recommend;
mod scale;
mod signal;
mod simulate;
mod start;
mod suggestions;
mod sweep;
mod tolerance;
mod trace;
mod transient;
mod workings;

use actix_web::HttpResponse;
use utoipa_actix_web::service_config::ServiceConfig;

use crate::error::ApiError;

/// All routes below `/api/v1`.
pub fn configure(config: &mut ServiceConfig<'_>) {
    config
        .service(health::health)
        .service(simulate::simulate)
        .service(signal::signal)
        .service(signal::signal_biquads)
        .service(signal::signal_crossover)
        .service(signal::amplifier_kinds)
        .service(trace::read_trace)
        .service(companion::companion_links)
        .service(companion::make_companion_link)
        .service(companion::revoke_companion_link)
        .service(cut::panels)
        .service(photo::keep_photo)
        .service(photo::read_photo)
        .service(plan::plan_build)
        .service(plan::place_terminal)
        .service(plan::plan_file)
        .service(plan::read_prices)
        .service(plan::draw_flat)
        .service(plan::layouts)
        .service(plan::print_plan)
        .service(place::place)
        .service(place::place_map)
        .service(place::start_best_places)
        .service(place::best_places_of_build)
        .service(recommend::recommend)
        .service(scale::scale_design)
        .service(start::starts)
        .service(transient::transient)
        .service(brief::list)
        .service(brief::check_brief)
        .service(brief::judge)
        .service(driver_array::wirings)
        .service(driver_array::changes)
        .service(cabinet::cabinet)
        .service(cabinet::panels)
        .service(cabinet::firings)
        .service(cabinet::folds)
        .service(cabinet::cabinet_model)
        .service(cabinet::drawing)
        .service(cabinet::read_kit)
        .service(cabinet::cavity_check)
        .service(compare::compare)
        .service(suggestions::suggestions)
        .service(motion::motion)
        .service(sweep::sweep)
        .service(tolerance::tolerance)
        .service(workings::workings);
    driver::configure(config);
    build::configure(config);
    document::configure(config);
    driver_match::configure(config);
    job::configure(config);
    measure::configure(config);
}

/// Answers what is not there.
pub async fn unknown() -> Result<HttpResponse, ApiError> {
    Err(ApiError::NotFound { what: "address" })
}
