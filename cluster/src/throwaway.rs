use std::fs;
use std::path::PathBuf;
use std::process::{Command, Stdio};
use std::sync::atomic::{AtomicU32, Ordering};

use crate::{Cluster, ClusterError, Durability};

/// A cluster for tests, gone when the process that made it is gone.
#[derive(Debug)]
pub struct Throwaway {
    cluster: Cluster,
    folder: PathBuf,
    databases: AtomicU32,
}

impl Throwaway {
    /// Makes and starts one.
    ///
    /// # Errors
    /// See [`ClusterError`].
    pub fn start() -> Result<Self, ClusterError> {
        static COUNT: AtomicU32 = AtomicU32::new(0);
        let name = format!("oak-drum-test-{}-{}", std::process::id(), COUNT.fetch_add(1, Ordering::Relaxed));
        let folder = std::env::temp_dir().join(name);
        let cluster = Cluster::start(&folder, Durability::Lost)?;
        let throwaway = Self { cluster, folder, databases: AtomicU32::new(0) };
        throwaway.watch()?;
        Ok(throwaway)
    }

    /// The cluster itself, to be crashed and revived.
    pub fn cluster(&self) -> &Cluster {
        &self.cluster
    }

    /// Address of a new empty database.
    ///
    /// # Errors
    /// Where the server refuses.
    pub fn database(&self) -> Result<String, ClusterError> {
        let name = format!("test_{}", self.databases.fetch_add(1, Ordering::Relaxed));
        self.cluster.create_database(&name)?;
        Ok(self.cluster.url_of(&name))
    }

    /// Test runners end without unwinding statics, or are killed; a small shell of its own group waits
    /// for that and clears up.
    fn watch(&self) -> Result<(), ClusterError> {
        let pid_file = self.folder.join("data/postmaster.pid");
        let script = "while kill -0 \"$1\" 2>/dev/null; do sleep 0.3; done; \
                      kill -INT \"$(head -n 1 \"$2\")\" 2>/dev/null; sleep 1; rm -rf \"$3\"";
        Command::new("setsid")
            .args(["sh", "-c", script, "sh"])
            .arg(std::process::id().to_string())
            .arg(&pid_file)
            .arg(&self.folder)
            .stdin(Stdio::null())
            .stdout(Stdio::null())
            .stderr(Stdio::null())
            .spawn()?;
        Ok(())
    }
}

impl Drop for Throwaway {
    fn drop(&mut self) {
        // The watcher does the rest; a failed stop here would only repeat there.
        let _ = self.cluster.stop();
        let _ = fs::remove_dir_all(&self.folder);
    }
}
