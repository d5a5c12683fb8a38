//! The driver library.

use chrono::{DateTime, Utc};
use diesel::dsl::now;
use diesel::pg::PgConnection;
use diesel::prelude::*;
use oak_design::file::RawDriver;
use oak_design::report::DriverReport;
use oak_design::resolve::resolve_driver;
use serde_json::Value;
use uuid::Uuid;

use crate::db::documents::{from_value, to_value};
use crate::db::rows::Driver;
use crate::db::schema::drivers;
use crate::error::ApiError;

#[derive(Queryable, Selectable)]
#[diesel(table_name = drivers, check_for_backend(diesel::pg::Pg))]
struct Row {
    id: Uuid,
    revision: i32,
    document: Value,
    nominal_ohm: f64,
    re_ohm: f64,
    fs_hz: f64,
    qts: f64,
    vas_m3: f64,
    sd_m2: f64,
    level_db: f64,
    updated_at: DateTime<Utc>,
}

impl Row {
    fn show(self) -> Result<Driver, ApiError> {
        Ok(Driver {
            id: self.id,
            revision: self.revision,
            document: from_value(self.document)?,
            nominal: self.nominal_ohm,
            re: self.re_ohm,
            fs: self.fs_hz,
            qts: self.qts,
            vas: self.vas_m3,
            sd: self.sd_m2,
            level: self.level_db,
            updated_at: self.updated_at,
        })
    }
}

/// A driver's values as columns; made only from drivers that resolve.
#[derive(Insertable, AsChangeset)]
#[diesel(table_name = drivers)]
struct Values {
    name: String,
    maker: String,
    document: Value,
    nominal_ohm: f64,
    re_ohm: f64,
    fs_hz: f64,
    qts: f64,
    vas_m3: f64,
    sd_m2: f64,
    level_db: f64,
}

impl Values {
    fn of(raw: &RawDriver) -> Result<Self, ApiError> {
        let report = DriverReport::of(&resolve_driver(raw)?);
        Ok(Self {
            name: raw.name.trim().to_owned(),
            maker: raw.maker.clone(),
            document: to_value(raw)?,
            nominal_ohm: report.nominal,
            re_ohm: report.re,
            fs_hz: report.fs,
            qts: report.qts,
            vas_m3: report.vas,
            sd_m2: report.sd,
            level_db: report.level_2v83,
        })
    }
}

/// All drivers, by size and name.
pub fn list(connection: &mut PgConnection) -> Result<Vec<Driver>, ApiError> {
    let rows = drivers::table
        .filter(drivers::archived_at.is_null())
        .order((drivers::sd_m2, drivers::name))
        .select(Row::as_select())
        .load(connection)?;
    rows.into_iter().map(Row::show).collect()
}

/// One driver.
pub fn find(connection: &mut PgConnection, id: Uuid) -> Result<Driver, ApiError> {
    let row = drivers::table
        .find(id)
        .filter(drivers::archived_at.is_null())
        .select(Row::as_select())
        .first(connection)
        .optional()?;
    row.ok_or(ApiError::NotFound { what: "driver" })?.show()
}

/// Adds drivers, all or none.
pub fn add(connection: &mut PgConnection, raw: &[RawDriver]) -> Result<Vec<Driver>, ApiError> {
    connection.transaction(|connection| {
        let mut added = Vec::with_capacity(raw.len());
        for driver in raw {
            let row = diesel::insert_into(drivers::table)
                .values((drivers::id.eq(Uuid::now_v7()), Values::of(driver)?))
                .returning(Row::as_returning())
                .get_result(connection)?;
            added.push(row.show()?);
        }
        Ok(added)
    })
}

/// Changes a driver that is still at a revision.
pub fn change(
    connection: &mut PgConnection,
    id: Uuid,
    expected: i32,
    raw: &RawDriver,
) -> Result<Driver, ApiError> {
    let values = Values::of(raw)?;
    let at_revision =
        drivers::table.find(id).filter(drivers::revision.eq(expected)).filter(drivers::archived_at.is_null());
    let row = diesel::update(at_revision)
        .set((values, drivers::revision.eq(expected + 1), drivers::updated_at.eq(now)))
        .returning(Row::as_returning())
        .get_result(connection)
        .optional()?;
    match row {
        Some(row) => row.show(),
        None => Err(ApiError::Stale { current: find(connection, id)?.revision }),
    }
}

/// Takes a driver out of the library; variants keep their own copy.
pub fn archive(connection: &mut PgConnection, id: Uuid, expected: i32) -> Result<(), ApiError> {
    let at_revision =
        drivers::table.find(id).filter(drivers::revision.eq(expected)).filter(drivers::archived_at.is_null());
    match diesel::update(at_revision).set(drivers::archived_at.eq(now)).execute(connection)? {
        0 => Err(ApiError::Stale { current: find(connection, id)?.revision }),
        _ => Ok(()),
    }
}

/// Brings an archived driver back.
pub fn restore(connection: &mut PgConnection, id: Uuid) -> Result<Driver, ApiError> {
    diesel::update(drivers::table.find(id))
        .set(drivers::archived_at.eq(None::<DateTime<Utc>>))
        .execute(connection)?;
    find(connection, id)
}
