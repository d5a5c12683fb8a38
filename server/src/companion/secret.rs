//! Secrets that are handed out once and known by their hash afterwards.

use rand::TryRngCore;
use rand::rngs::OsRng;
use sha2::{Digest, Sha256};

/// 128 bits from the operating system, written as 32 digits.
#[derive(Clone, PartialEq, Eq)]
pub struct Secret(String);

impl Secret {
    /// A new one.
    ///
    /// # Errors
    /// The operating system has no randomness.
    pub fn new() -> Result<Self, rand::rand_core::OsError> {
        let mut bytes = [0; 16];
        OsRng.try_fill_bytes(&mut bytes)?;
        Ok(Self(bytes.iter().map(|byte| format!("{byte:02x}")).collect()))
    }

    /// As it was written; nothing where it is no such thing.
    pub fn read(text: &str) -> Option<Self> {
        let whole = text.len() == 32 && text.bytes().all(|byte| matches!(byte, b'0'..=b'9' | b'a'..=b'f'));
        whole.then(|| Self(text.to_owned()))
    }

    /// As it is handed out.
    pub fn text(&self) -> &str {
        &self.0
    }

    /// What is kept of it.
    pub fn hash(&self) -> Vec<u8> {
        Sha256::digest(self.0.as_bytes()).to_vec()
    }
}
