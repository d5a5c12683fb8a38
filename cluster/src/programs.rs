use std::fs;
use std::io::Write;
use std::os::unix::fs::MetadataExt;
use std::path::{Path, PathBuf};
use std::process::{Command, Output, Stdio};

use crate::ClusterError;

/// Where Debian keeps the server programs, one folder a major version.
const DEBIAN: &str = "/usr/lib/postgresql";

/// PostgreSQL's server programs and the user they run as.
#[derive(Debug, Clone)]
pub struct Programs {
    folder: PathBuf,
    as_postgres: bool,
}

impl Programs {
    /// Finds the programs: of the version that wrote the data, else the newest.
    ///
    /// # Errors
    /// Where they are not installed.
    pub fn find(data: &Path) -> Result<Self, ClusterError> {
        let mut versions: Vec<(u32, PathBuf)> = fs::read_dir(DEBIAN)
            .into_iter()
            .flatten()
            .filter_map(|entry| {
                let folder = entry.ok()?.path();
                let version = folder.file_name()?.to_str()?.parse().ok()?;
                folder.join("bin/initdb").exists().then(|| (version, folder.join("bin")))
            })
            .collect();
        versions.sort();
        let (_, newest) = versions.last().cloned().ok_or(ClusterError::NotInstalled)?;
        // Root is the one user the server programs refuse to run as.
        let as_postgres = fs::metadata("/proc/self")?.uid() == 0;
        let programs = Self { folder: newest, as_postgres };
        let Ok(found) = fs::read_to_string(data.join("PG_VERSION")) else { return Ok(programs) };
        let found = found.trim().to_owned();
        let written_by = versions.into_iter().find(|(version, _)| version.to_string() == found);
        match written_by {
            Some((_, folder)) => Ok(Self { folder, as_postgres }),
            None => Err(ClusterError::OtherVersion { folder: data.to_owned(), found }),
        }
    }

    /// Makes the cluster's folder, with a data folder that the server's user owns.
    pub(crate) fn make_folder(&self, folder: &Path) -> Result<(), ClusterError> {
        fs::create_dir_all(folder)?;
        if !self.as_postgres {
            return Ok(());
        }
        let reaches = self.command("test").args(["-x"]).arg(folder).status()?;
        if !reaches.success() {
            return Err(ClusterError::OutOfReach { folder: folder.to_owned() });
        }
        let data = folder.join("data");
        if !data.exists() {
            check(
                "install",
                &Command::new("install").args(["-d", "-o", "postgres", "-m", "700"]).arg(&data).output()?,
            )?;
        }
        let log = folder.join("server.log");
        if !log.exists() {
            fs::write(&log, "")?;
            check("chown", &Command::new("chown").arg("postgres").arg(&log).output()?)?;
        }
        Ok(())
    }

    /// Runs a server program and returns what it printed.
    pub(crate) fn run(
        &self,
        program: &str,
        arguments: &[&str],
        input: Option<&str>,
    ) -> Result<String, ClusterError> {
        let path = self.folder.join(program).to_string_lossy().into_owned();
        let mut command = if input.is_some() {
            // A pipe belongs to the user who made it, and /dev/stdin opens only for that user.
            let mut command = self.command("sh");
            command.args(["-c", "cat | \"$@\"", "sh", &path]);
            command
        } else {
            self.command(&path)
        };
        command.args(arguments);
        self.finish(program, command, input)
    }

    /// Runs a client program with the password in its environment.
    pub(crate) fn run_with_password(
        &self,
        program: &str,
        arguments: &[&str],
        password: &str,
    ) -> Result<String, ClusterError> {
        let mut command = Command::new(self.folder.join(program));
        command.args(arguments).env("PGPASSWORD", password);
        self.finish(program, command, None)
    }

    fn finish(
        &self,
        program: &str,
        mut command: Command,
        input: Option<&str>,
    ) -> Result<String, ClusterError> {
        command.stdin(if input.is_some() { Stdio::piped() } else { Stdio::null() });
        // pg_ctl leaves a server behind that would hold a pipe open for ever.
        let quiet = arguments_start_a_server(&command);
        let kind = || if quiet { Stdio::null() } else { Stdio::piped() };
        let mut child = command.stdout(kind()).stderr(kind()).spawn()?;
        if let (Some(text), Some(mut pipe)) = (input, child.stdin.take()) {
            pipe.write_all(text.as_bytes())?;
        }
        check(program, &child.wait_with_output()?)
    }

    /// A command as the server's user, in a folder that user may be in.
    fn command(&self, program: &str) -> Command {
        let mut command = if self.as_postgres {
            let mut command = Command::new("runuser");
            command.args(["-u", "postgres", "--", program]);
            command
        } else {
            Command::new(program)
        };
        command.current_dir("/");
        command
    }
}

fn arguments_start_a_server(command: &Command) -> bool {
    command.get_args().last().is_some_and(|last| last == "start")
}

fn check(program: &str, output: &Output) -> Result<String, ClusterError> {
    let mut text = String::from_utf8_lossy(&output.stdout).into_owned();
    if output.status.success() {
        return Ok(text);
    }
    text.push_str(&String::from_utf8_lossy(&output.stderr));
    let output = if text.trim().is_empty() {
        format!("{}; see server.log", output.status)
    } else {
        text.trim().to_owned()
    };
    Err(ClusterError::Program { program: program.to_owned(), output })
}
