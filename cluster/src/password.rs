use std::fs::{self, OpenOptions};
use std::io::{Read, Write};
use std::os::unix::fs::OpenOptionsExt;
use std::path::Path;

use crate::ClusterError;

/// The password of the cluster in a folder, made now where there is none. Only the owner of the file may
/// read it.
pub(crate) fn of(folder: &Path) -> Result<String, ClusterError> {
    let file = folder.join("password");
    if let Ok(text) = fs::read_to_string(&file) {
        return Ok(text.trim().to_owned());
    }
    let mut bytes = [0u8; 24];
    fs::File::open("/dev/urandom")?.read_exact(&mut bytes)?;
    let password: String = bytes.iter().map(|byte| format!("{byte:02x}")).collect();
    let mut writer = OpenOptions::new().write(true).create_new(true).mode(0o600).open(&file)?;
    writer.write_all(password.as_bytes())?;
    Ok(password)
}
