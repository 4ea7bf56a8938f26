//! The second door: served on the local network too, encrypted, to devices that were paired.
//!
//! ```text
//! names        the addresses and host names that it answers to
//! certificate  an authority of its own, bound to these, and the certificate that the door shows
//! codes        what is paired with: one use, two minutes; and how often somebody who is not paired may ask
//! door         opens, closes, and follows the machine's addresses
//! ```

mod certificate;
mod codes;
mod door;
mod names;

pub use codes::{CODE_LASTS, Codes, Crowd, secret};
pub use door::{Shared, Sharing, Where, keep};

use std::net::IpAddr;
use std::path::PathBuf;

/// What the shared door is told when the program starts.
#[derive(Clone, Debug)]
pub struct ShareSettings {
    /// The folder that its keys lie in.
    pub folder: PathBuf,
    /// Its port.
    pub port: u16,
    /// Addresses to listen on; those of this machine on local networks where none is named.
    pub addresses: Vec<IpAddr>,
    /// Host names that it answers to besides its addresses; this machine's own where none is named.
    pub names: Vec<String>,
    /// The firm's own certificate chain and key, PEM files, in place of one of an authority of its own.
    pub own: Option<(PathBuf, PathBuf)>,
    /// Whether it is opened at once, whatever it was before.
    pub open: bool,
}
