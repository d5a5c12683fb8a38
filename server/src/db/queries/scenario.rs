//! What was loaded once.

use diesel::pg::PgConnection;
use diesel::prelude::*;

use crate::db::schema::loaded_scenarios;
use crate::error::ApiError;

/// Notes that a scenario is loaded; `false` where it was before.
pub fn claim(connection: &mut PgConnection, name: &str) -> Result<bool, ApiError> {
    let added = diesel::insert_into(loaded_scenarios::table)
        .values(loaded_scenarios::name.eq(name))
        .on_conflict_do_nothing()
        .execute(connection)?;
    Ok(added == 1)
}
