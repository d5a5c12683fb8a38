//! Brings the database to this program's version.

use std::collections::BTreeSet;

use diesel::migration::{Migration, MigrationSource};
use diesel::pg::PgConnection;
use diesel_migrations::{EmbeddedMigrations, MigrationHarness, embed_migrations};

const MIGRATIONS: EmbeddedMigrations = embed_migrations!("../migrations");

/// Why the database cannot be used.
#[derive(Debug, thiserror::Error)]
pub enum MigrateError {
    /// It holds migrations that this program does not know.
    #[error(
        "the database was written by a newer Oak Drum (it knows step {newest}); start that version, or restore an older backup"
    )]
    Newer {
        /// The newest step in the database.
        newest: String,
    },
    /// It lacks steps that this program needs.
    #[error(
        "the database is that of an older Oak Drum (step {missing} is missing); start the server first, it brings it up to date"
    )]
    Other {
        /// The first step that is missing.
        missing: String,
    },
    /// A step failed.
    #[error("the database could not be brought to this version: {0}")]
    Failed(Box<dyn std::error::Error + Send + Sync>),
}

/// Whether the database is at just this program's version.
///
/// # Errors
/// It is behind or ahead, or cannot be asked.
pub fn check_schema(connection: &mut PgConnection) -> Result<(), MigrateError> {
    let known = MigrationSource::<diesel::pg::Pg>::migrations(&MIGRATIONS).map_err(MigrateError::Failed)?;
    let known: BTreeSet<String> = known.iter().map(|step| step.name().version().to_string()).collect();
    let applied = connection.applied_migrations().map_err(MigrateError::Failed)?;
    let applied: BTreeSet<String> = applied.iter().map(ToString::to_string).collect();
    if let Some(newest) = applied.difference(&known).max() {
        return Err(MigrateError::Newer { newest: newest.clone() });
    }
    match known.difference(&applied).next() {
        Some(missing) => Err(MigrateError::Other { missing: missing.clone() }),
        None => Ok(()),
    }
}

/// Runs the steps that are missing, and refuses a database that is ahead of this program.
///
/// # Errors
/// See [`MigrateError`].
pub fn migrate(connection: &mut PgConnection) -> Result<(), MigrateError> {
    match check_schema(connection) {
        Ok(()) => return Ok(()),
        Err(MigrateError::Other { .. }) => {}
        Err(error) => return Err(error),
    }
    connection.run_pending_migrations(MIGRATIONS).map_err(MigrateError::Failed)?;
    Ok(())
}
