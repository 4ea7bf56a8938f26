//! What is noted of a device on the network, so that whoever comes next finds it. Passwords are not: only that they were changed.

use serde::{Deserialize, Serialize};
use std::net::Ipv4Addr;
use utoipa::ToSchema;

/// A camera or a box as the network knows it.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NetDevice {
    /// Its address; planned where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(value_type = Option<String>)]
    pub address: Option<Ipv4Addr>,
    /// Its hardware address, which the reservation is made for.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hardware: Option<String>,
    /// Whether the password that it came with was changed.
    #[serde(default)]
    pub password_changed: bool,
    /// The firmware that is on it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub firmware: Option<String>,
    /// The port at which it gives a picture; 80 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub picture_port: Option<u16>,
    /// Where at that port its picture is, as in `/picture.jpg`; it is asked for none where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub picture_path: Option<String>,
}

impl NetDevice {
    /// The hardware address in order: six pairs of hexadecimal digits, with colons.
    pub fn hardware_of(text: &str) -> Option<String> {
        let digits: String = text.chars().filter(|c| !matches!(c, ':' | '-' | '.' | ' ')).collect();
        let whole = digits.len() == 12 && digits.chars().all(|c| c.is_ascii_hexdigit());
        let pairs = || digits.as_bytes().chunks(2).map(|pair| String::from_utf8_lossy(pair).to_uppercase());
        whole.then(|| pairs().collect::<Vec<_>>().join(":"))
    }
}
