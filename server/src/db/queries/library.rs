//! Searching the driver library.

use std::collections::{HashMap, HashSet};

use diesel::dsl::sql;
use diesel::pg::{Pg, PgConnection};
use diesel::prelude::*;
use diesel::sql_types::Text;
use oak_design::exchange::AlikeRow;
use oak_design::file::{RawDriver, plain_text};
use oak_design::report::DriverReport;
use oak_design::resolve::resolve_driver;
use oak_design::{Problem, ProblemKind};
use oak_units::{Dimension, parse_number, parse_quantity, unit_named};
use serde::Deserialize;
use utoipa::{IntoParams, ToSchema};
use uuid::Uuid;

use super::driver::Row;
use crate::db::rows::{AlikeDriver, DriverPage, Unreadable};
use crate::db::schema::drivers;
use crate::error::ApiError;

/// What a driver is sorted by.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Sort {
    /// Area of the cone, then the name.
    #[default]
    Sd,
    /// Name.
    Name,
    /// Nominal impedance.
    Nominal,
    /// Resonance.
    Fs,
    /// Total Q.
    Qts,
    /// Equivalent volume.
    Vas,
    /// Excursion.
    Xmax,
    /// Power.
    Pe,
    /// Level for 2.83 V.
    Level,
    /// Price.
    Price,
    /// How many are on hand.
    OnHand,
    /// Last change.
    Changed,
}

/// What is wanted of the library. All bounds are SI and counted in; a driver that lacks a value is not within any bound of it.
#[derive(Debug, Default, Deserialize, IntoParams)]
#[serde(deny_unknown_fields, default)]
pub struct Wanted {
    /// Words that must all be in name, maker, size, tags or notes; "12", "10in" and "30 cm" also mean frames of that size.
    pub find: String,
    /// A tag it must have.
    pub tag: String,
    /// Whether only archived drivers are meant.
    pub archived: bool,
    /// Whether only drivers on hand are meant.
    pub in_stock: bool,
    /// What to sort by.
    #[param(inline)]
    pub sort: Sort,
    /// Whether the largest comes first.
    pub descending: bool,
    /// How many to leave out at the beginning.
    #[param(minimum = 0)]
    pub offset: i64,
    /// How many to give, at most 500; 100 where nothing is said.
    #[param(maximum = 500)]
    pub limit: Option<i64>,
    /// Size of the frame, m.
    pub size_min: Option<f64>,
    /// See `size_min`.
    pub size_max: Option<f64>,
    /// Nominal impedance, ohm.
    pub nominal_min: Option<f64>,
    /// See `nominal_min`.
    pub nominal_max: Option<f64>,
    /// Hz.
    pub fs_min: Option<f64>,
    /// Hz.
    pub fs_max: Option<f64>,
    /// Electrical Q.
    pub qes_min: Option<f64>,
    /// Electrical Q.
    pub qes_max: Option<f64>,
    /// Mechanical Q.
    pub qms_min: Option<f64>,
    /// Mechanical Q.
    pub qms_max: Option<f64>,
    /// Total Q.
    pub qts_min: Option<f64>,
    /// Total Q.
    pub qts_max: Option<f64>,
    /// m3.
    pub vas_min: Option<f64>,
    /// m3.
    pub vas_max: Option<f64>,
    /// m2.
    pub sd_min: Option<f64>,
    /// m2.
    pub sd_max: Option<f64>,
    /// kg.
    pub mms_min: Option<f64>,
    /// kg.
    pub mms_max: Option<f64>,
    /// T m.
    pub bl_min: Option<f64>,
    /// T m.
    pub bl_max: Option<f64>,
    /// ohm.
    pub re_min: Option<f64>,
    /// ohm.
    pub re_max: Option<f64>,
    /// H.
    pub le_min: Option<f64>,
    /// H.
    pub le_max: Option<f64>,
    /// m.
    pub xmax_min: Option<f64>,
    /// m.
    pub xmax_max: Option<f64>,
    /// W.
    pub pe_min: Option<f64>,
    /// W.
    pub pe_max: Option<f64>,
    /// dB for 2.83 V at 1 m.
    pub level_min: Option<f64>,
    /// dB for 2.83 V at 1 m.
    pub level_max: Option<f64>,
    /// Price of one.
    pub price_min: Option<f64>,
    /// Price of one.
    pub price_max: Option<f64>,
}

/// Most drivers on one page.
const MOST: i64 = 500;
/// Drivers on a page where nothing is said.
const USUAL: i64 = 100;

type Query<'a> = drivers::BoxedQuery<'a, Pg>;

macro_rules! within {
    ($query:ident, $wanted:ident, $($column:ident: $min:ident, $max:ident;)*) => {
        $(
            if let Some(min) = $wanted.$min {
                $query = $query.filter(drivers::$column.ge(min));
            }
            if let Some(max) = $wanted.$max {
                $query = $query.filter(drivers::$column.le(max));
            }
        )*
    };
}

/// The words of a filter; a number and the unit of length behind it are one.
fn terms(find: &str) -> Vec<String> {
    let length = |word: &str| unit_named(word).is_some_and(|unit| unit.dimension == Dimension::Length);
    let mut terms: Vec<String> = Vec::new();
    for word in find.split_whitespace() {
        match terms.last_mut() {
            Some(number) if parse_number(number).is_ok() && length(word) => {
                *number = format!("{number} {word}");
            }
            _ => terms.push(word.to_owned()),
        }
    }
    terms
}

/// A bare number between these is a size in inches, as people speak of woofers.
const INCHES: std::ops::RangeInclusive<f64> = 3.0..=24.0;
/// How much smaller and larger than its nominal size a frame may be, m (common practice).
const FRAME: [f64; 2] = [0.008, 0.014];

/// Frames that a term means as a size of woofers, from and to, m.
fn nominal_size(term: &str) -> Option<[f64; 2]> {
    let inches = parse_number(term).ok().filter(|number| INCHES.contains(number));
    let inches = inches.and_then(|number| parse_quantity(&format!("{number} in"), Dimension::Length).ok());
    let size = inches.or_else(|| parse_quantity(term, Dimension::Length).ok())?.si;
    Some([size - FRAME[0], size + FRAME[1]])
}

fn filtered(wanted: &Wanted) -> Query<'static> {
    let mut query = drivers::table.into_boxed();
    query = if wanted.archived {
        query.filter(drivers::archived_at.is_not_null())
    } else {
        query.filter(drivers::archived_at.is_null())
    };
    for term in terms(&wanted.find.to_lowercase()) {
        let escaped = term.replace('\\', "\\\\").replace('%', "\\%").replace('_', "\\_");
        let written = drivers::found_by.like(format!("%{escaped}%"));
        query = match nominal_size(&term) {
            Some([low, high]) => {
                query.filter(written.or(drivers::size_m.ge(low).and(drivers::size_m.le(high))))
            }
            None => query.filter(written),
        };
    }
    if !wanted.tag.is_empty() {
        query = query.filter(drivers::tags.contains(vec![wanted.tag.clone()]));
    }
    if wanted.in_stock {
        query = query.filter(drivers::on_hand.gt(0));
    }
    within! { query, wanted,
        size_m: size_min, size_max;
        nominal_ohm: nominal_min, nominal_max;
        fs_hz: fs_min, fs_max;
        qes: qes_min, qes_max;
        qms: qms_min, qms_max;
        qts: qts_min, qts_max;
        vas_m3: vas_min, vas_max;
        sd_m2: sd_min, sd_max;
        mms_kg: mms_min, mms_max;
        bl_tm: bl_min, bl_max;
        re_ohm: re_min, re_max;
        le_h: le_min, le_max;
        xmax_m: xmax_min, xmax_max;
        pe_w: pe_min, pe_max;
        level_db: level_min, level_max;
        price: price_min, price_max;
    }
    query
}

macro_rules! sorted {
    ($query:expr, $column:expr, $descending:expr) => {
        if $descending {
            $query.order(($column.desc().nulls_last(), drivers::name.asc(), drivers::id.asc()))
        } else {
            $query.order(($column.asc().nulls_last(), drivers::name.asc(), drivers::id.asc()))
        }
    };
}

fn ordered(query: Query<'static>, sort: Sort, down: bool) -> Query<'static> {
    match sort {
        Sort::Sd => sorted!(query, drivers::sd_m2, down),
        Sort::Name if down => query.order((drivers::name.desc(), drivers::id.asc())),
        Sort::Name => query.order((drivers::name.asc(), drivers::id.asc())),
        Sort::Nominal => sorted!(query, drivers::nominal_ohm, down),
        Sort::Fs => sorted!(query, drivers::fs_hz, down),
        Sort::Qts => sorted!(query, drivers::qts, down),
        Sort::Vas => sorted!(query, drivers::vas_m3, down),
        Sort::Xmax => sorted!(query, drivers::xmax_m, down),
        Sort::Pe => sorted!(query, drivers::pe_w, down),
        Sort::Level => sorted!(query, drivers::level_db, down),
        Sort::Price => sorted!(query, drivers::price, down),
        Sort::OnHand => sorted!(query, drivers::on_hand, down),
        Sort::Changed => sorted!(query, drivers::updated_at, down),
    }
}

/// Most words of one filter: each is a condition of its own.
const MOST_WORDS: usize = 20;
/// Longest filter, characters.
const LONGEST: usize = 1000;

/// Refuses what would cost more than a filter may.
fn check(wanted: &Wanted) -> Result<(), ApiError> {
    let words = wanted.find.split_whitespace().count();
    if words > MOST_WORDS {
        return Err(Problem::new("find", ProblemKind::TooMany { found: words, max: MOST_WORDS }).into());
    }
    for (field, text) in [("find", &wanted.find), ("tag", &wanted.tag)] {
        let found = text.chars().count();
        if found > LONGEST {
            return Err(Problem::new(field, ProblemKind::Length { found, min: 0, max: LONGEST }).into());
        }
        plain_text(field, text)?;
    }
    Ok(())
}

/// A page of what is wanted.
pub fn page(connection: &mut PgConnection, wanted: &Wanted) -> Result<DriverPage, ApiError> {
    check(wanted)?;
    let total = filtered(wanted).count().get_result(connection)?;
    let library = drivers::table.filter(drivers::archived_at.is_null()).count().get_result(connection)?;
    let limit = wanted.limit.unwrap_or(USUAL).clamp(1, MOST);
    let rows = ordered(filtered(wanted), wanted.sort, wanted.descending)
        .offset(wanted.offset.max(0))
        .limit(limit)
        .select(Row::as_select())
        .load(connection)?;
    let tags = drivers::table
        .filter(drivers::archived_at.is_null())
        .filter(drivers::tags.ne(Vec::<String>::new()))
        .select(sql::<Text>("unnest(tags)"))
        .distinct()
        .load::<String>(connection)?;
    let mut tags = tags;
    tags.sort_by_key(|tag| tag.to_lowercase());
    let (mut drivers, mut unreadable) = (Vec::with_capacity(rows.len()), Vec::new());
    for row in rows {
        let (id, name) = (row.id, row.name.clone());
        match row.show() {
            Ok(driver) => drivers.push(driver),
            Err(error) => unreadable.push(Unreadable { id, name, reason: error.to_string() }),
        }
    }
    Ok(DriverPage { total, library, drivers, tags, unreadable })
}

/// Two drivers whose values are all this near are one (1 %): sheets round, samples differ by more.
const SAME: f64 = 0.01;
/// Drivers alike that are told of one import.
const TOLD: usize = 500;

/// Fs, Qts, Vas, Sd and Re.
type Fingerprint = [f64; 5];

/// What the library holds, to compare new drivers with.
pub struct Holding {
    names: HashMap<(String, String), (Uuid, String)>,
    /// By Fs.
    values: Vec<(Fingerprint, Uuid, String)>,
}

fn key(name: &str, maker: &str) -> (String, String) {
    (name.trim().to_lowercase(), maker.trim().to_lowercase())
}

fn fingerprint(raw: &RawDriver) -> Result<Fingerprint, ApiError> {
    let report = DriverReport::of(&resolve_driver(raw)?);
    Ok([report.fs, report.qts, report.vas, report.sd, report.re])
}

impl Holding {
    /// Everything but what is archived.
    pub fn load(connection: &mut PgConnection) -> Result<Self, ApiError> {
        type Found = (Uuid, String, String, f64, f64, f64, f64, f64);
        let rows: Vec<Found> = drivers::table
            .filter(drivers::archived_at.is_null())
            .order(drivers::fs_hz)
            .select((
                drivers::id,
                drivers::name,
                drivers::maker,
                drivers::fs_hz,
                drivers::qts,
                drivers::vas_m3,
                drivers::sd_m2,
                drivers::re_ohm,
            ))
            .load(connection)?;
        let mut holding = Self { names: HashMap::new(), values: Vec::with_capacity(rows.len()) };
        for (id, name, maker, fs, qts, vas, sd, re) in rows {
            holding.names.entry(key(&name, &maker)).or_insert_with(|| (id, name.clone()));
            holding.values.push(([fs, qts, vas, sd, re], id, name));
        }
        Ok(holding)
    }

    /// Drivers with the same name and maker, or with the same values.
    pub fn alike(&self, raw: &RawDriver) -> Result<Vec<AlikeDriver>, ApiError> {
        let by_name = self.names.get(&key(&raw.name, &raw.maker));
        let mut found: Vec<_> = by_name
            .map(|(id, name)| AlikeDriver { id: *id, name: name.clone(), by: "name" })
            .into_iter()
            .collect();
        let wanted = fingerprint(raw)?;
        let from = self.values.partition_point(|(values, ..)| values[0] < wanted[0] * (1.0 - SAME));
        let near =
            self.values[from..].iter().take_while(|(values, ..)| values[0] <= wanted[0] * (1.0 + SAME));
        let same = |values: &Fingerprint| {
            values.iter().zip(wanted).all(|(value, wanted)| (value / wanted - 1.0).abs() <= SAME)
        };
        for (_, id, name) in near.filter(|(values, ..)| same(values)) {
            if found.iter().all(|other| other.id != *id) {
                found.push(AlikeDriver { id: *id, name: name.clone(), by: "values" });
            }
        }
        Ok(found)
    }
}

/// Which of some drivers are much like one in the library or an earlier one of themselves.
pub fn alike_rows(connection: &mut PgConnection, raw: &[RawDriver]) -> Result<Vec<AlikeRow>, ApiError> {
    let holding = Holding::load(connection)?;
    let mut earlier = HashSet::new();
    let mut rows = Vec::new();
    for driver in raw {
        let found = holding.alike(driver)?;
        let like = match found.first() {
            Some(one) if one.by == "name" => Some(format!("{} of the library, by its name", one.name)),
            Some(one) => Some(format!("{} of the library, by its values", one.name)),
            None if !earlier.insert(key(&driver.name, &driver.maker)) => {
                Some("an earlier row, by its name".to_owned())
            }
            None => None,
        };
        rows.extend(like.map(|like| AlikeRow { name: driver.name.clone(), like }));
        if rows.len() == TOLD {
            break;
        }
    }
    Ok(rows)
}
