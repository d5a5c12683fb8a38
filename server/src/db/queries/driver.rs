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
pub(super) struct Row {
    pub(super) id: Uuid,
    pub(super) name: String,
    revision: i32,
    document: Value,
    nominal_ohm: f64,
    re_ohm: f64,
    fs_hz: f64,
    qts: f64,
    vas_m3: f64,
    sd_m2: f64,
    level_db: f64,
    xmax_m: Option<f64>,
    pe_w: Option<f64>,
    price: Option<f64>,
    on_hand: Option<i32>,
    archived_at: Option<DateTime<Utc>>,
    updated_at: DateTime<Utc>,
}

impl Row {
    pub(super) fn show(self) -> Result<Driver, ApiError> {
        Ok(Driver {
            id: self.id,
            revision: self.revision,
            document: from_value(format!("the driver {}", self.name), self.document)?,
            nominal: self.nominal_ohm,
            re: self.re_ohm,
            fs: self.fs_hz,
            qts: self.qts,
            vas: self.vas_m3,
            sd: self.sd_m2,
            level: self.level_db,
            xmax: self.xmax_m,
            pe: self.pe_w,
            price: self.price,
            on_hand: self.on_hand,
            archived_at: self.archived_at,
            updated_at: self.updated_at,
        })
    }
}

/// How the columns below are made. Counting it up makes the server fill them in anew.
const VALUES_VERSION: i32 = 1;

/// A driver's values as columns; made only from drivers that resolve.
#[derive(Insertable, AsChangeset)]
#[diesel(table_name = drivers, treat_none_as_null = true)]
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
    values_version: i32,
    found_by: String,
    tags: Vec<String>,
    size_m: Option<f64>,
    le_h: f64,
    qes: f64,
    qms: f64,
    mms_kg: f64,
    bl_tm: f64,
    xmax_m: Option<f64>,
    pe_w: Option<f64>,
    price: Option<f64>,
    on_hand: Option<i32>,
}

impl Values {
    fn of(raw: &RawDriver) -> Result<Self, ApiError> {
        let resolved = resolve_driver(raw)?;
        let (report, record) = (DriverReport::of(&resolved), resolved.record);
        let size = raw.size.as_ref().map(ToString::to_string).unwrap_or_default();
        let mut found_by = vec![raw.name.as_str(), &raw.maker, &size, &raw.notes];
        found_by.extend(raw.tags.iter().map(String::as_str));
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
            values_version: VALUES_VERSION,
            found_by: found_by.join("\n").to_lowercase(),
            tags: raw.tags.iter().map(|tag| tag.trim().to_owned()).collect(),
            size_m: record.size,
            le_h: report.le,
            qes: report.qes,
            qms: report.qms,
            mms_kg: report.mms,
            bl_tm: report.bl,
            xmax_m: report.xmax,
            pe_w: report.pe,
            price: record.price,
            on_hand: record.on_hand.map(|count| count as i32),
        })
    }
}

/// Values of all drivers that were kept by an older program, brought up to date.
pub fn refill(connection: &mut PgConnection) -> Result<(), ApiError> {
    connection.transaction(|connection| {
        let behind: Vec<(Uuid, String, Value)> = drivers::table
            .filter(drivers::values_version.lt(VALUES_VERSION))
            .select((drivers::id, drivers::name, drivers::document))
            .for_update()
            .load(connection)?;
        for (id, name, document) in behind {
            match from_value(name.as_str(), document).and_then(|document| Values::of(&document)) {
                Ok(values) => {
                    diesel::update(drivers::table.find(id)).set(values).execute(connection)?;
                }
                // It keeps the values that an older program found, and is tried again at the next start.
                Err(error) => tracing::warn!(driver = %name, %id, %error, "not brought up to date"),
            }
        }
        Ok(())
    })
}

/// Every driver's document, by size and name, with its name.
fn documents(connection: &mut PgConnection) -> Result<Vec<(String, Value)>, ApiError> {
    let found = drivers::table
        .filter(drivers::archived_at.is_null())
        .order((drivers::sd_m2, drivers::name))
        .select((drivers::name, drivers::document));
    Ok(found.load(connection)?)
}

/// Every driver's document as it is stored, readable or not.
pub fn all_as_stored(connection: &mut PgConnection) -> Result<Vec<Value>, ApiError> {
    Ok(documents(connection)?.into_iter().map(|(_, document)| document).collect())
}

/// Every driver that can be read.
pub fn all(connection: &mut PgConnection) -> Result<Vec<RawDriver>, ApiError> {
    let read = |(name, document)| match from_value(name, document) {
        Ok(driver) => Some(driver),
        Err(error) => {
            tracing::error!(%error, "left out of the table");
            None
        }
    };
    Ok(documents(connection)?.into_iter().filter_map(read).collect())
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

/// Rows of one statement; PostgreSQL takes 65535 values in all.
const AT_ONCE: usize = 1000;

/// Adds drivers, all or none.
pub fn add(connection: &mut PgConnection, raw: &[RawDriver]) -> Result<Vec<Driver>, ApiError> {
    connection.transaction(|connection| {
        let mut added = Vec::with_capacity(raw.len());
        for some in raw.chunks(AT_ONCE) {
            let values = some
                .iter()
                .map(|driver| Ok((drivers::id.eq(Uuid::now_v7()), Values::of(driver)?)))
                .collect::<Result<Vec<_>, ApiError>>()?;
            let rows: Vec<Row> = diesel::insert_into(drivers::table)
                .values(values)
                .returning(Row::as_returning())
                .get_results(connection)?;
            for row in rows {
                added.push(row.show()?);
            }
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
