//! The project's own PostgreSQL cluster: create, start, stop, throw away.
//!
//! It uses the server programs of Debian's packages, never the stock cluster. It listens on loopback
//! alone, with a password, and without a socket in the file system. As root the server programs run as
//! the `postgres` user.

mod error;
mod password;
mod programs;
mod throwaway;

pub use error::ClusterError;
pub use programs::Programs;
pub use throwaway::Throwaway;

use std::fs;
use std::net::TcpListener;
use std::path::{Path, PathBuf};

/// Name of the database user and of its database.
const NAME: &str = "oak_drum";

/// Whether what is written must survive a power cut.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Durability {
    /// `fsync` stays on.
    Kept,
    /// For tests.
    Lost,
}

/// A cluster in a folder of its own.
#[derive(Debug)]
pub struct Cluster {
    programs: Programs,
    folder: PathBuf,
    durability: Durability,
    port: u16,
    password: String,
}

impl Cluster {
    /// Opens the cluster in a folder, made now where there is none, and starts it.
    ///
    /// # Errors
    /// See [`ClusterError`].
    pub fn start_in(folder: &Path) -> Result<Self, ClusterError> {
        Self::start(folder, Durability::Kept)
    }

    fn start(folder: &Path, durability: Durability) -> Result<Self, ClusterError> {
        let programs = Programs::find(&folder.join("data"))?;
        programs.make_folder(folder)?;
        let password = password::of(folder)?;
        let mut cluster = Self { programs, folder: folder.to_owned(), durability, port: 0, password };
        if !cluster.data().join("PG_VERSION").exists() {
            cluster.create()?;
        }
        cluster.run()?;
        cluster.make_database()?;
        Ok(cluster)
    }

    /// Address of the database, with its password: for the environment of a child, never for an
    /// argument list.
    pub fn url(&self) -> String {
        self.url_of(NAME)
    }

    /// Where its data are kept, with what else belongs to them.
    pub fn folder(&self) -> &Path {
        &self.folder
    }

    /// Address of a database in this cluster.
    pub fn url_of(&self, database: &str) -> String {
        format!("postgres://{NAME}:{}@127.0.0.1:{}/{database}", self.password, self.port)
    }

    /// Stops the cluster; what was committed stays.
    ///
    /// # Errors
    /// Where the server program refuses.
    pub fn stop(&self) -> Result<(), ClusterError> {
        self.programs.run("pg_ctl", &["-D", &path(&self.data()), "-m", "fast", "-w", "stop"], None)?;
        Ok(())
    }

    /// Ends every process of the server at once, as a power cut would: nothing is written out first.
    ///
    /// # Errors
    /// Where the server program refuses.
    pub fn crash(&self) -> Result<(), ClusterError> {
        self.programs.run("pg_ctl", &["-D", &path(&self.data()), "-m", "immediate", "-w", "stop"], None)?;
        Ok(())
    }

    /// Starts the server again after [`Self::crash`] or [`Self::stop`], at the port it had.
    ///
    /// # Errors
    /// See [`ClusterError`].
    pub fn revive(&self) -> Result<(), ClusterError> {
        self.serve(self.port)
    }

    /// Makes an empty database.
    ///
    /// # Errors
    /// Where there is one of that name.
    pub fn create_database(&self, name: &str) -> Result<(), ClusterError> {
        let port = self.port.to_string();
        let arguments = ["-h", "127.0.0.1", "-p", &port, "-U", NAME, "-w", name];
        self.programs.run_with_password("createdb", &arguments, &self.password)?;
        Ok(())
    }

    fn data(&self) -> PathBuf {
        self.folder.join("data")
    }

    fn create(&self) -> Result<(), ClusterError> {
        let data = path(&self.data());
        let mut arguments = vec![
            "-D",
            &data,
            "-U",
            NAME,
            "-E",
            "UTF8",
            "--locale=C.UTF-8",
            "-A",
            "scram-sha-256",
            "--pwfile=/dev/stdin",
        ];
        if self.durability == Durability::Lost {
            arguments.push("--no-sync");
        }
        self.programs.run("initdb", &arguments, Some(&self.password))?;
        Ok(())
    }

    /// Starts the server, or finds the one that an earlier start left running.
    fn run(&mut self) -> Result<(), ClusterError> {
        let data = path(&self.data());
        let note = self.folder.join("port");
        if self.programs.run("pg_ctl", &["-D", &data, "status"], None).is_ok() {
            let noted = fs::read_to_string(&note).ok().and_then(|text| text.trim().parse().ok());
            self.port = noted.ok_or_else(|| ClusterError::PortUnknown { folder: self.folder.clone() })?;
            return Ok(());
        }
        self.port = free_port()?;
        fs::write(&note, self.port.to_string())?;
        self.serve(self.port)
    }

    fn serve(&self, port: u16) -> Result<(), ClusterError> {
        let data = path(&self.data());
        let sync = if self.durability == Durability::Kept { "on" } else { "off" };
        let options = format!(
            "-c listen_addresses=127.0.0.1 -c port={port} -c unix_socket_directories= -c fsync={sync} -c max_connections=200"
        );
        let log = path(&self.folder.join("server.log"));
        self.programs.run(
            "pg_ctl",
            &["-D", &data, "-l", &log, "-w", "-t", "60", "-o", &options, "start"],
            None,
        )?;
        Ok(())
    }

    fn make_database(&self) -> Result<(), ClusterError> {
        match self.create_database(NAME) {
            Err(ClusterError::Program { output, .. }) if output.contains("already exists") => Ok(()),
            outcome => outcome,
        }
    }
}

fn free_port() -> Result<u16, ClusterError> {
    Ok(TcpListener::bind(("127.0.0.1", 0))?.local_addr()?.port())
}

fn path(path: &Path) -> String {
    path.to_string_lossy().into_owned()
}
