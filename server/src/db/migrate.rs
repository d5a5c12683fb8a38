//! Brings the database to this program's version.

use std::collections::HashSet;

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
    /// A step failed.
    #[error("the database could not be brought to this version: {0}")]
    Failed(Box<dyn std::error::Error + Send + Sync>),
}

/// Runs the steps that are missing, and refuses a database that is ahead of this program.
///
/// # Errors
/// See [`MigrateError`].
pub fn migrate(connection: &mut PgConnection) -> Result<(), MigrateError> {
    let known = MigrationSource::<diesel::pg::Pg>::migrations(&MIGRATIONS).map_err(MigrateError::Failed)?;
    let known: HashSet<String> = known.iter().map(|step| step.name().version().to_string()).collect();
    let applied = connection.applied_migrations().map_err(MigrateError::Failed)?;
    let unknown = applied.iter().map(ToString::to_string).filter(|version| !known.contains(version)).max();
    if let Some(newest) = unknown {
        return Err(MigrateError::Newer { newest });
    }
    connection.run_pending_migrations(MIGRATIONS).map_err(MigrateError::Failed)?;
    Ok(())
}
