//! The listener's own certificate: made here, because no authority vouches for an address at home. A phone warns of it once, and its
//! fingerprint stands beside the link to be compared.

use std::fs;
use std::io::Write;
use std::net::IpAddr;
use std::os::unix::fs::OpenOptionsExt;
use std::path::Path;
use std::sync::Arc;

use anyhow::{Context, Result};
use rcgen::string::Ia5String;
use rcgen::{CertificateParams, DistinguishedName, DnType, KeyPair, SanType};
use rustls::ServerConfig;
use rustls::pki_types::pem::PemObject;
use rustls::pki_types::{CertificateDer, PrivateKeyDer};
use sha2::{Digest, Sha256};

/// A certificate with its key, ready to listen.
pub struct Identity {
    /// For the listener.
    pub tls: ServerConfig,
    /// SHA-256 of the certificate, in pairs of digits.
    pub fingerprint: String,
}

/// The certificate of an address: the one that a folder keeps, or a new one, which it then keeps.
pub fn of(address: IpAddr, folder: Option<&Path>) -> Result<Identity> {
    let text = match folder {
        None => made(address)?,
        Some(folder) => {
            let file = folder.join(format!("phones-{}.pem", address.to_string().replace(':', "-")));
            match fs::read_to_string(&file) {
                Ok(text) => text,
                Err(error) if error.kind() == std::io::ErrorKind::NotFound => {
                    let text = made(address)?;
                    fs::create_dir_all(folder)?;
                    // Only its owner reads the key.
                    let mut kept =
                        fs::OpenOptions::new().write(true).create_new(true).mode(0o600).open(&file)?;
                    kept.write_all(text.as_bytes())?;
                    text
                }
                Err(error) => return Err(error).with_context(|| file.display().to_string()),
            }
        }
    };
    let certificate = CertificateDer::from_pem_slice(text.as_bytes())?;
    let key = PrivateKeyDer::from_pem_slice(text.as_bytes())?;
    let digits: Vec<String> = Sha256::digest(&certificate).iter().map(|byte| format!("{byte:02X}")).collect();
    let provider = Arc::new(rustls::crypto::ring::default_provider());
    let tls = ServerConfig::builder_with_provider(provider)
        .with_safe_default_protocol_versions()?
        .with_no_client_auth()
        .with_single_cert(vec![certificate], key)?;
    Ok(Identity { tls, fingerprint: digits.join(":") })
}

/// Certificate and key as text.
fn made(address: IpAddr) -> Result<String> {
    let mut parameters = CertificateParams::default();
    parameters.subject_alt_names = vec![SanType::IpAddress(address)];
    if address.is_loopback() {
        parameters.subject_alt_names.push(SanType::DnsName(Ia5String::try_from("localhost")?));
    }
    let mut name = DistinguishedName::new();
    name.push(DnType::CommonName, "Oak Drum, pages for phones");
    parameters.distinguished_name = name;
    let now = chrono::Utc::now();
    let day = |at: chrono::DateTime<chrono::Utc>| {
        use chrono::Datelike;
        rcgen::date_time_ymd(at.year(), at.month() as u8, at.day() as u8)
    };
    parameters.not_before = day(now - chrono::Duration::days(1));
    // Longer than phones accept it makes them refuse it outright.
    parameters.not_after = day(now + chrono::Duration::days(390));
    let key = KeyPair::generate()?;
    let certificate = parameters.self_signed(&key)?;
    Ok(certificate.pem() + &key.serialize_pem())
}
