use std::path::PathBuf;

/// Why a cluster cannot be had.
#[derive(Debug, thiserror::Error)]
pub enum ClusterError {
    /// PostgreSQL's server programs are not on this machine.
    #[error("PostgreSQL is not installed; run: apt-get install postgresql")]
    NotInstalled,
    /// The data were written by another major version.
    #[error(
        "the data in {folder} were written by PostgreSQL {found}, which is not installed; run: apt-get install postgresql-{found}"
    )]
    OtherVersion {
        /// Where.
        folder: PathBuf,
        /// Which version.
        found: String,
    },
    /// As root, the `postgres` user must be able to reach the folder.
    #[error(
        "the postgres user cannot reach {folder}; set OAK_DRUM_DATA to a folder outside of it, as in OAK_DRUM_DATA=/var/lib/oak-drum"
    )]
    OutOfReach {
        /// Which folder.
        folder: PathBuf,
    },
    /// A server runs in the folder and nobody noted where it listens.
    #[error("a database runs in {folder} and its port is not known; stop it with pg_ctl")]
    PortUnknown {
        /// Which folder.
        folder: PathBuf,
    },
    /// A program failed.
    #[error("{program} failed: {output}")]
    Program {
        /// Which.
        program: String,
        /// What it said.
        output: String,
    },
    /// The file system refused.
    #[error(transparent)]
    Io(#[from] std::io::Error),
}
