//! The addresses and host names that the shared door answers to.

use super::ShareSettings;
use std::net::{IpAddr, Ipv4Addr, Ipv6Addr};

/// An address with the network that it is in.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub struct Address {
    /// The address.
    pub ip: IpAddr,
    /// How many of its leading bits name the network.
    pub prefix: u8,
}

/// What the door answers to.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Names {
    /// Its addresses, in their order.
    pub addresses: Vec<Address>,
    /// Its host names.
    pub hosts: Vec<String>,
}

impl Names {
    /// Those of this machine, or those that were named.
    ///
    /// # Errors
    /// In words: no network, a name that is none.
    pub fn here(settings: &ShareSettings) -> Result<Names, String> {
        let mut addresses = if settings.addresses.is_empty() {
            local().map_err(|error| format!("this machine's addresses cannot be read: {error}"))?
        } else {
            settings.addresses.iter().map(|ip| Address { ip: *ip, prefix: whole(*ip) }).collect()
        };
        addresses.sort();
        addresses.dedup();
        if addresses.is_empty() {
            return Err("this machine is on no local network just now".to_owned());
        }
        let hosts = if settings.names.is_empty() { own_name() } else { settings.names.clone() };
        if let Some(wrong) = hosts.iter().find(|name| !is_host_name(name)) {
            return Err(format!("{wrong}: is no host name"));
        }
        Ok(Names { addresses, hosts })
    }

    /// What stands in `Host` of a request that is addressed to it.
    pub fn authorities(&self, port: u16) -> Vec<String> {
        let port = if port == 443 { String::new() } else { format!(":{port}") };
        let ips = self.addresses.iter().map(|address| match address.ip {
            IpAddr::V4(ip) => format!("{ip}{port}"),
            IpAddr::V6(ip) => format!("[{ip}]{port}"),
        });
        ips.chain(self.hosts.iter().map(|host| format!("{host}{port}"))).collect()
    }
}

fn whole(ip: IpAddr) -> u8 {
    if ip.is_ipv4() { 32 } else { 128 }
}

/// The addresses of this machine that are of a local network: what the whole world can reach is served only where it is named.
fn local() -> std::io::Result<Vec<Address>> {
    let of = |interface: if_addrs::Interface| match interface.addr {
        if_addrs::IfAddr::V4(v4) => Some(Address { ip: v4.ip.into(), prefix: v4.prefixlen }),
        if_addrs::IfAddr::V6(v6) => Some(Address { ip: v6.ip.into(), prefix: v6.prefixlen }),
    };
    Ok(if_addrs::get_if_addrs()?.into_iter().filter_map(of).filter(|address| is_local(address.ip)).collect())
}

/// RFC 1918, 3927 and 4193: what no router passes on to the world.
fn is_local(ip: IpAddr) -> bool {
    match ip {
        IpAddr::V4(ip) => ip.is_private() || ip.is_link_local(),
        IpAddr::V6(ip) => ip.is_unique_local(),
    }
}

/// What this machine is called on its network: as name servers know it, and as it says itself (multicast DNS).
fn own_name() -> Vec<String> {
    let name = hostname::get().ok().and_then(|name| name.into_string().ok()).unwrap_or_default().to_ascii_lowercase();
    if !is_host_name(&name) {
        return vec![];
    }
    if name.contains('.') { vec![name] } else { vec![format!("{name}.local"), name] }
}

/// RFC 1123: labels of letters, digits and hyphens; an address in figures is none.
fn is_host_name(name: &str) -> bool {
    let label = |label: &str| {
        (1..=63).contains(&label.len())
            && label.bytes().all(|byte| byte.is_ascii_alphanumeric() || byte == b'-')
            && !label.starts_with('-')
            && !label.ends_with('-')
    };
    name.len() <= 253
        && name.split('.').all(label)
        && name.rsplit('.').next().is_some_and(|last| last.bytes().any(|byte| byte.is_ascii_alphabetic()))
}

impl Address {
    /// The network's first address and how many bits name it, as in `192.168.1.0/24`.
    pub fn network(&self) -> (IpAddr, u8) {
        let first = match self.ip {
            IpAddr::V4(ip) => {
                let keep = u32::MAX.checked_shl(32 - u32::from(self.prefix.min(32))).unwrap_or(0);
                IpAddr::V4(Ipv4Addr::from_bits(ip.to_bits() & keep))
            }
            IpAddr::V6(ip) => {
                let keep = u128::MAX.checked_shl(128 - u32::from(self.prefix.min(128))).unwrap_or(0);
                IpAddr::V6(Ipv6Addr::from_bits(ip.to_bits() & keep))
            }
        };
        (first, self.prefix)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn only_addresses_of_local_networks_are_taken_by_themselves() {
        // RFC 1918, section 3; RFC 3927, section 2.1; RFC 4193, section 3.1.
        for local in ["10.1.2.3", "172.16.0.9", "172.31.255.1", "192.168.1.20", "169.254.7.7", "fd12:3456::1"] {
            assert!(is_local(local.parse().unwrap()), "{local}");
        }
        for wide in ["8.8.8.8", "172.32.0.1", "192.169.0.1", "2001:db8::1", "127.0.0.1", "fe80::1", "0.0.0.0"] {
            assert!(!is_local(wide.parse().unwrap()), "{wide}");
        }
    }

    #[test]
    fn a_network_is_the_address_with_its_own_bits_left_out() {
        let address = |ip: &str, prefix| Address { ip: ip.parse().unwrap(), prefix };
        assert_eq!(address("192.168.7.20", 24).network(), ("192.168.7.0".parse().unwrap(), 24));
        assert_eq!(address("10.9.8.7", 8).network(), ("10.0.0.0".parse().unwrap(), 8));
        assert_eq!(address("10.9.8.7", 0).network(), ("0.0.0.0".parse().unwrap(), 0));
        assert_eq!(address("fd00:1:2:3::9", 64).network(), ("fd00:1:2:3::".parse().unwrap(), 64));
    }

    #[test]
    fn a_host_name_is_one_by_rfc_1123() {
        for good in ["desk.local", "office-2", "a.b.example", "3com.example"] {
            assert!(is_host_name(good), "{good}");
        }
        for bad in ["", "-a.local", "a_b", "a..b", "192.168.1.2", "x.1", "ä.local", &"a".repeat(64)] {
            assert!(!is_host_name(bad), "{bad}");
        }
    }
}
