//! The certificate that the shared door shows: the firm's own, or one of an authority that is made once in the data folder. That
//! authority may sign for the door's own host names and local networks alone (RFC 5280, section 4.2.1.10, name constraints): who trusts
//! it trusts it for nothing else, whoever may get at its key.

use super::ShareSettings;
use super::names::Names;
use rcgen::{
    BasicConstraints, CertificateParams, CidrSubnet, DnType, ExtendedKeyUsagePurpose, GeneralSubtree, IsCa, Issuer,
    KeyPair, KeyUsagePurpose, NameConstraints, SanType,
};
use rustls_pki_types::pem::PemObject;
use rustls_pki_types::{CertificateDer, PrivateKeyDer};
use serde::{Deserialize, Serialize};
use sha2::{Digest, Sha256};
use std::io::Write;
use std::net::IpAddr;
use std::os::unix::fs::{DirBuilderExt, OpenOptionsExt};
use std::path::Path;
use std::sync::Arc;
use time::{Duration, OffsetDateTime};
use tokio_rustls::rustls::ServerConfig;
use tokio_rustls::rustls::crypto::ring;

/// How long the authority lasts, and the certificate: no browser takes one of more than 398 days from anybody else, nor needs this one to last.
const AUTHORITY_DAYS: i64 = 3650;
const SERVER_DAYS: i64 = 397;
/// The certificate is made anew so long before it ends.
const RENEWED_DAYS: i64 = 30;
/// Clocks differ.
const EARLIER: Duration = Duration::DAY;

/// What the door shows.
pub struct Shown {
    /// For the door.
    pub config: Arc<ServerConfig>,
    /// The authority to be trusted, PEM; none with a certificate of the firm's own.
    pub authority: Option<String>,
    /// The SHA-256 of the authority's certificate, in pairs of hexadecimal digits.
    pub fingerprint: Option<String>,
}

/// What the authority is bound to, and what the certificate was made for.
#[derive(Serialize, Deserialize, PartialEq)]
struct Bound {
    networks: Vec<(IpAddr, u8)>,
    hosts: Vec<String>,
    addresses: Vec<IpAddr>,
    #[serde(with = "time::serde::rfc3339")]
    until: OffsetDateTime,
    #[serde(with = "time::serde::rfc3339")]
    authority_until: OffsetDateTime,
}

/// The certificate for these names: the one that is there, or a new one where they are others, or it ends soon.
///
/// # Errors
/// In words, with the file.
pub fn certificate(settings: &ShareSettings, names: &Names, now: OffsetDateTime) -> Result<Shown, String> {
    if let Some((chain, key)) = &settings.own {
        let read = |path: &Path| std::fs::read(path).map_err(|error| format!("{}: {error}", path.display()));
        let config = config(&read(chain)?, &read(key)?)
            .map_err(|error| format!("{} with {}: {error}", chain.display(), key.display()))?;
        return Ok(Shown { config, authority: None, fingerprint: None });
    }
    let folder = &settings.folder;
    let at = |error: String| format!("{}: {error}", folder.display());
    own_folder(folder).map_err(|error| at(error.to_string()))?;
    let wanted = |until, authority_until| Bound {
        networks: names.addresses.iter().map(super::names::Address::network).collect(),
        hosts: names.hosts.clone(),
        addresses: names.addresses.iter().map(|address| address.ip).collect(),
        until,
        authority_until,
    };
    let held = std::fs::read(folder.join("bound.json")).ok();
    let held: Option<Bound> = held.and_then(|text| serde_json::from_slice(&text).ok());
    let files = ["authority.pem", "authority.key", "server.pem", "server.key"];
    let whole = files.iter().all(|file| folder.join(file).is_file());
    let held = held.filter(|_| whole);
    let lasts = held.as_ref().filter(|held| held.authority_until > now + Duration::days(SERVER_DAYS));
    // An authority that may sign for more than is wanted now is bound anew, too.
    let same_bounds = |held: &&Bound| {
        let new = wanted(held.until, held.authority_until);
        held.hosts == new.hosts && held.networks == new.networks
    };
    let authority_until = match lasts.filter(same_bounds) {
        Some(held) => held.authority_until,
        None => {
            let until = now + Duration::days(AUTHORITY_DAYS);
            make_authority(folder, names, now, until).map_err(at)?;
            until
        }
    };
    let serves = |held: &&Bound| {
        held.authority_until == authority_until
            && held.until > now + Duration::days(RENEWED_DAYS)
            && **held == wanted(held.until, held.authority_until)
    };
    if held.as_ref().filter(serves).is_none() {
        let until = now + Duration::days(SERVER_DAYS);
        make_certificate(folder, names, now, until).map_err(at)?;
        let bound =
            serde_json::to_vec_pretty(&wanted(until, authority_until)).map_err(|error| at(error.to_string()))?;
        // Last: what is half-made is made again.
        write(&folder.join("bound.json"), &bound).map_err(at)?;
    }
    let read = |name: &str| std::fs::read(folder.join(name)).map_err(|error| at(format!("{name}: {error}")));
    let config = config(&read("server.pem")?, &read("server.key")?).map_err(at)?;
    let authority = String::from_utf8(read("authority.pem")?).map_err(|error| at(error.to_string()))?;
    let der = CertificateDer::from_pem_slice(authority.as_bytes()).map_err(|error| at(error.to_string()))?;
    let pairs: Vec<String> = Sha256::digest(&der).iter().map(|byte| format!("{byte:02X}")).collect();
    Ok(Shown { config, authority: Some(authority), fingerprint: Some(pairs.join(":")) })
}

/// Makes the folder of the keys, which its owner alone sees, where it is not there yet.
pub fn own_folder(folder: &Path) -> std::io::Result<()> {
    std::fs::DirBuilder::new().recursive(true).mode(0o700).create(folder)
}

fn make_authority(folder: &Path, names: &Names, now: OffsetDateTime, until: OffsetDateTime) -> Result<(), String> {
    let said = |error: rcgen::Error| error.to_string();
    let mut params = CertificateParams::default();
    params.distinguished_name.push(DnType::CommonName, authority_name(names));
    params.is_ca = IsCa::Ca(BasicConstraints::Constrained(0));
    params.key_usages = vec![KeyUsagePurpose::KeyCertSign, KeyUsagePurpose::CrlSign];
    params.extended_key_usages = vec![ExtendedKeyUsagePurpose::ServerAuth];
    (params.not_before, params.not_after) = (now - EARLIER, until);
    // Where nothing of a kind is allowed, all of it would be: a name that nobody has stands for none.
    let none = ["bright-angle.invalid".to_owned()];
    let hosts = if names.hosts.is_empty() { &none[..] } else { &names.hosts[..] };
    let hosts = hosts.iter().cloned().map(GeneralSubtree::DnsName);
    let networks = names.addresses.iter().map(|address| {
        GeneralSubtree::IpAddress(match address.network() {
            (IpAddr::V4(ip), prefix) => CidrSubnet::from_v4_prefix(ip.octets(), prefix),
            (IpAddr::V6(ip), prefix) => CidrSubnet::from_v6_prefix(ip.octets(), prefix),
        })
    });
    let permitted_subtrees = hosts.chain(networks).collect();
    params.name_constraints = Some(NameConstraints { permitted_subtrees, excluded_subtrees: vec![] });
    let key = KeyPair::generate().map_err(said)?;
    let made = params.self_signed(&key).map_err(said)?;
    write(&folder.join("authority.key"), key.serialize_pem().as_bytes())?;
    write(&folder.join("authority.pem"), made.pem().as_bytes())
}

/// What a phone lists it as.
fn authority_name(names: &Names) -> String {
    format!("Bright Angle on {}", names.hosts.first().map_or("this desk", String::as_str))
}

fn make_certificate(folder: &Path, names: &Names, now: OffsetDateTime, until: OffsetDateTime) -> Result<(), String> {
    let said = |error: rcgen::Error| error.to_string();
    let read = |name: &str| std::fs::read_to_string(folder.join(name)).map_err(|error| format!("{name}: {error}"));
    let key = KeyPair::from_pem(&read("authority.key")?).map_err(said)?;
    let issuer = Issuer::from_ca_cert_pem(&read("authority.pem")?, key).map_err(said)?;
    let mut params = CertificateParams::default();
    params.distinguished_name.push(DnType::CommonName, "Bright Angle");
    params.extended_key_usages = vec![ExtendedKeyUsagePurpose::ServerAuth];
    params.key_usages = vec![KeyUsagePurpose::DigitalSignature];
    params.use_authority_key_identifier_extension = true;
    (params.not_before, params.not_after) = (now - EARLIER, until);
    let hosts = names.hosts.iter().map(|host| Ok(SanType::DnsName(host.as_str().try_into().map_err(said)?)));
    let addresses = names.addresses.iter().map(|address| Ok(SanType::IpAddress(address.ip)));
    params.subject_alt_names = hosts.chain(addresses).collect::<Result<_, String>>()?;
    let key = KeyPair::generate().map_err(said)?;
    let made = params.signed_by(&key, &issuer).map_err(said)?;
    write(&folder.join("server.key"), key.serialize_pem().as_bytes())?;
    write(&folder.join("server.pem"), made.pem().as_bytes())
}

/// Writes a file that its owner alone reads, whole or not at all.
fn write(path: &Path, bytes: &[u8]) -> Result<(), String> {
    let beside = path.with_extension("new");
    let write = || -> std::io::Result<()> {
        let _ = std::fs::remove_file(&beside);
        let mut file = std::fs::OpenOptions::new().write(true).create_new(true).mode(0o600).open(&beside)?;
        file.write_all(bytes)?;
        file.sync_all()?;
        std::fs::rename(&beside, path)
    };
    write().map_err(|error| format!("{}: {error}", path.display()))
}

fn config(chain: &[u8], key: &[u8]) -> Result<Arc<ServerConfig>, String> {
    let chain: Vec<CertificateDer> = CertificateDer::pem_slice_iter(chain)
        .collect::<Result<_, _>>()
        .map_err(|error| format!("the certificate cannot be read: {error}"))?;
    if chain.is_empty() {
        return Err("there is no certificate in it (PEM)".to_owned());
    }
    let key = PrivateKeyDer::from_pem_slice(key).map_err(|error| format!("the key cannot be read: {error}"))?;
    let provider = Arc::new(ring::default_provider());
    let config = ServerConfig::builder_with_provider(provider)
        .with_safe_default_protocol_versions()
        .map_err(|error| error.to_string())?
        .with_no_client_auth()
        .with_single_cert(chain, key);
    let mut config = config.map_err(|error| format!("certificate and key do not go together: {error}"))?;
    config.alpn_protocols = vec![b"http/1.1".to_vec()];
    Ok(Arc::new(config))
}

#[cfg(test)]
mod tests {
    use super::super::names::Address;
    use super::*;
    use std::os::unix::fs::PermissionsExt;

    fn names(ip: &str) -> Names {
        Names { addresses: vec![Address { ip: ip.parse().unwrap(), prefix: 24 }], hosts: vec!["desk.local".to_owned()] }
    }

    #[test]
    fn it_is_made_once_and_anew_when_the_address_changes() {
        let folder = tempfile::tempdir().unwrap();
        let settings = ShareSettings {
            folder: folder.path().join("share"),
            port: 8443,
            addresses: vec![],
            names: vec![],
            own: None,
            open: true,
        };
        let now = OffsetDateTime::now_utc();
        let made = |names: &Names, now| {
            let shown = certificate(&settings, names, now).unwrap();
            (shown.fingerprint.unwrap(), std::fs::read(settings.folder.join("server.pem")).unwrap())
        };
        let first = made(&names("192.168.7.20"), now);
        assert_eq!(made(&names("192.168.7.20"), now), first, "again the same");
        let moved = made(&names("192.168.7.21"), now);
        assert!(moved.0 == first.0 && moved.1 != first.1, "another address of the network: the authority stays");
        let away = made(&names("10.0.0.4"), now);
        assert!(away.0 != first.0, "another network is none that it may sign for");
        let soon_over = made(&names("10.0.0.4"), now + Duration::days(SERVER_DAYS - 10));
        assert!(soon_over.0 == away.0 && soon_over.1 != away.1, "renewed before it ends");
        for file in ["authority.key", "server.key", "authority.pem", "bound.json"] {
            let mode = std::fs::metadata(settings.folder.join(file)).unwrap().permissions().mode();
            assert_eq!(mode & 0o777, 0o600, "{file}");
        }
        assert_eq!(std::fs::metadata(&settings.folder).unwrap().permissions().mode() & 0o777, 0o700);
        // What was broken off half-way is made again.
        std::fs::remove_file(settings.folder.join("server.key")).unwrap();
        made(&names("10.0.0.4"), now);
    }

    #[test]
    fn the_firms_own_is_taken_with_its_key_and_no_other() {
        let folder = tempfile::tempdir().unwrap();
        let pair = |name: &str| {
            let key = KeyPair::generate().unwrap();
            let made = CertificateParams::new(vec!["desk.example".to_owned()]).unwrap().self_signed(&key).unwrap();
            let paths = [folder.path().join(format!("{name}.pem")), folder.path().join(format!("{name}.key"))];
            std::fs::write(&paths[0], made.pem()).unwrap();
            std::fs::write(&paths[1], key.serialize_pem()).unwrap();
            paths
        };
        let ([chain, key], [_, other]) = (pair("one"), pair("two"));
        let with = |chain: &Path, key: &Path| {
            let settings = ShareSettings {
                folder: folder.path().join("share"),
                port: 8443,
                addresses: vec![],
                names: vec![],
                own: Some((chain.to_owned(), key.to_owned())),
                open: true,
            };
            certificate(&settings, &names("10.0.0.4"), OffsetDateTime::now_utc())
        };
        assert!(with(&chain, &key).unwrap().authority.is_none());
        assert!(with(&chain, &other).err().unwrap().contains("do not go together"));
        assert!(with(&key, &key).err().unwrap().contains("no certificate"));
        assert!(with(&folder.path().join("none"), &key).err().unwrap().contains("none"));
    }
}
