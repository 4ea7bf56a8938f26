//! The shared door under way: it opens and closes when told to, and follows the machine's addresses.

use super::ShareSettings;
use super::certificate::certificate;
use super::codes::{Codes, Crowd};
use super::names::Names;
use crate::front::{Front, Side};
use rocket::tokio;
use serde::Serialize;
use std::net::SocketAddr;
use std::sync::{Arc, PoisonError, RwLock};
use std::time::Duration;
use time::OffsetDateTime;
use tokio::sync::watch;
use tokio_rustls::TlsAcceptor;
use tokio_util::sync::CancellationToken;
use utoipa::ToSchema;

/// How often this machine's addresses are looked at, and what went wrong is tried again.
const LOOKS: Duration = Duration::from_secs(10);
/// The file that says that the door was open when the program ended.
const OPEN: &str = "open";

/// Where the shared door is.
#[derive(Clone, Debug, Default, PartialEq, Serialize, ToSchema)]
pub struct Where {
    /// Whether it is to be open.
    pub wanted: bool,
    /// The addresses that it is open at, as in https://192.168.1.5:8443; none while it is closed.
    pub addresses: Vec<String>,
    /// Why it is not open though it is to be; null if nothing is wrong.
    #[schema(required)]
    pub wrong: Option<String>,
    /// The SHA-256 of the certificate that a device is told to trust; null with a certificate of the firm's own.
    #[schema(required)]
    pub fingerprint: Option<String>,
}

/// What everybody who asks about the shared door holds.
pub type Shared = Arc<Sharing>;

/// The shared door: what is wanted of it, how it stands, and who may pair.
pub struct Sharing {
    settings: Option<ShareSettings>,
    wanted: watch::Sender<bool>,
    stands: RwLock<Stands>,
    /// The codes that are waiting.
    pub codes: Codes,
    /// How much those ask who are not paired.
    pub crowd: Crowd,
}

#[derive(Default)]
struct Stands {
    at: Where,
    /// What stands in `Host` of what is addressed to it.
    authorities: Vec<String>,
    authority: Option<String>,
}

impl Sharing {
    /// A door that can be opened, if it is told where its keys lie.
    pub fn new(settings: Option<ShareSettings>) -> Shared {
        let was = settings.as_ref().is_some_and(|told| told.open || told.folder.join(OPEN).is_file());
        Arc::new(Sharing {
            settings,
            wanted: watch::Sender::new(was),
            stands: RwLock::default(),
            codes: Codes::default(),
            crowd: Crowd::default(),
        })
    }

    /// Where it is.
    pub fn at(&self) -> Where {
        let at = self.read(|stands| stands.at.clone());
        Where { wanted: *self.wanted.borrow(), ..at }
    }

    /// Whether a request's `Host` is one that it answers to.
    pub fn answers_to(&self, host: &str) -> bool {
        self.read(|stands| stands.authorities.iter().any(|known| known.eq_ignore_ascii_case(host)))
    }

    /// The certificate that a device is told to trust, PEM.
    pub fn authority(&self) -> Option<String> {
        self.read(|stands| stands.authority.clone())
    }

    /// Opens or closes it, and remembers that for the next start.
    ///
    /// # Errors
    /// In words: there is no folder for its keys.
    pub fn open(&self, open: bool) -> Result<(), String> {
        let settings = self
            .settings
            .as_ref()
            .ok_or("the program was started without a data folder: there is no place for the keys")?;
        let mark = settings.folder.join(OPEN);
        let marked = if open {
            super::certificate::own_folder(&settings.folder).and_then(|()| std::fs::write(&mark, ""))
        } else {
            std::fs::remove_file(&mark)
                .or_else(|error| if error.kind() == std::io::ErrorKind::NotFound { Ok(()) } else { Err(error) })
        };
        marked.map_err(|error| format!("{}: {error}", mark.display()))?;
        self.wanted.send_replace(open);
        Ok(())
    }

    fn read<T>(&self, what: impl FnOnce(&Stands) -> T) -> T {
        what(&self.stands.read().unwrap_or_else(PoisonError::into_inner))
    }

    fn set(&self, stands: Stands) {
        *self.stands.write().unwrap_or_else(PoisonError::into_inner) = stands;
    }
}

/// Keeps the door as it is wanted, until the program stops.
pub async fn keep(sharing: Shared, front: Front, stop: CancellationToken) {
    let Some(settings) = sharing.settings.clone() else { return };
    let mut wanted = sharing.wanted.subscribe();
    let mut looks = tokio::time::interval(LOOKS);
    let mut open: Option<(Names, CancellationToken)> = None;
    loop {
        tokio::select! {
            () = stop.cancelled() => break,
            changed = wanted.changed() => if changed.is_err() { break },
            _ = looks.tick() => {}
        }
        let wants = *wanted.borrow_and_update();
        let names = wants.then(|| Names::here(&settings));
        let now = OffsetDateTime::now_utc();
        // Another address, no network, or not wanted any more.
        if let Some((held, door)) = &open
            && !matches!(&names, Some(Ok(names)) if names == held)
        {
            door.cancel();
            open = None;
            sharing.set(Stands::default());
        }
        if let (Some(names), None) = (names, &open) {
            match names.and_then(|names| open_at(&settings, &sharing, &front, names, now)) {
                Ok(opened) => open = Some(opened),
                Err(wrong) => {
                    sharing.set(Stands { at: Where { wrong: Some(wrong), ..Where::default() }, ..Stands::default() })
                }
            }
        }
    }
    if let Some((_, door)) = open {
        door.cancel();
    }
}

/// Opens it at all its addresses.
fn open_at(
    settings: &ShareSettings,
    sharing: &Sharing,
    front: &Front,
    names: Names,
    now: OffsetDateTime,
) -> Result<(Names, CancellationToken), String> {
    let shown = certificate(settings, &names, now)?;
    let mut listeners = Vec::new();
    for address in &names.addresses {
        let at = SocketAddr::new(address.ip, settings.port);
        listeners.push(crate::front::listen(at).map_err(|error| format!("{at}: {error}"))?);
    }
    let door = CancellationToken::new();
    for listener in listeners {
        let side = Side::Shared(TlsAcceptor::from(shown.config.clone()));
        tokio::spawn(front.clone().serve(listener, side, door.clone()));
    }
    let authorities = names.authorities(settings.port);
    // With a certificate of the firm's own its names are what it is good for.
    let first = if settings.own.is_some() && !settings.names.is_empty() { names.addresses.len() } else { 0 };
    let mut addresses: Vec<String> = authorities.iter().map(|authority| format!("https://{authority}")).collect();
    addresses.rotate_left(first);
    sharing.set(Stands {
        at: Where { wanted: true, addresses, wrong: None, fingerprint: shown.fingerprint },
        authorities,
        authority: shown.authority,
    });
    Ok((names, door))
}
