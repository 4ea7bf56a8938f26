//! What makes a network's figures and ids valid. Whether it hangs together is told by the wiring itself: a camera that is taken off the
//! plan leaves its cable behind, and the site stays one.

use super::validate::Check;
use super::{Cable, CablePath, NetDevice, Network, Node, Touched};
use std::collections::HashSet;

/// So many boxes and cables a site may have.
const MOST_NODES: usize = 1_000;
const MOST_CABLES: usize = 2_000;
/// So many ways of cables.
const MOST_WAYS: usize = 500;
/// So many corners the way of a cable may have.
const MOST_CORNERS: usize = 500;

impl Check {
    pub(super) fn network(&mut self, network: &Network, touched: &Touched) {
        let of = |ids: &HashSet<String>, id: &str| touched.all || ids.contains(id);
        self.list("network.nodes", &network.nodes, MOST_NODES, |id| of(&touched.nodes, id), Check::node);
        self.list("network.cables", &network.cables, MOST_CABLES, |id| of(&touched.cables, id), Check::cable);
        self.list("network.ways", &network.ways, MOST_WAYS, |id| of(&touched.ways, id), Check::cable_path);
    }

    fn cable_path(&mut self, at: &str, path: &CablePath) {
        self.text(&format!("{at}.name"), &path.name, 200);
        let corners = path.points.len();
        self.that(&format!("{at}.points"), (2..=MOST_CORNERS).contains(&corners), || {
            format!("has {corners} corners: 2 to {MOST_CORNERS} are possible")
        });
        for (place, corner) in path.points.iter().enumerate().take(MOST_CORNERS) {
            self.place(&format!("{at}.points[{place}]"), *corner);
        }
        if let Some(height) = path.height_m {
            self.number(format!("{at}.height_m"), height, -100.0..=500.0, " m");
        }
        if let Some(inside) = path.inside_mm {
            self.number(format!("{at}.inside_mm"), inside, 1.0..=2_000.0, " mm");
        }
    }

    fn node(&mut self, at: &str, node: &Node) {
        self.text(&format!("{at}.name"), &node.name, 200);
        self.place(&format!("{at}.position"), node.position);
        self.number(format!("{at}.height_m"), node.height_m, -100.0..=500.0, " m");
        for (name, value, range, unit) in [
            ("ports", node.ports.map(f64::from), 1.0..=512.0, ""),
            ("extended_ports", Some(f64::from(node.extended_ports)), 0.0..=512.0, ""),
            ("budget_w", node.budget_w, 0.0..=100_000.0, " W"),
            ("port_class", node.port_class.map(f64::from), 1.0..=8.0, ""),
            ("power_class_in", node.power_class_in.map(f64::from), 1.0..=8.0, ""),
            ("speed_mbps", node.speed_mbps, 0.1..=1_000_000.0, " Mbit/s"),
            ("battery_wh", node.battery_wh, 0.0..=1_000_000.0, " Wh"),
            ("disk_gb", node.disk_gb, 0.0..=100_000_000.0, " GB"),
        ] {
            if let Some(value) = value {
                self.number(format!("{at}.{name}"), value, range, unit);
            }
        }
        self.that(&format!("{at}.others"), node.others.len() <= 512, || "has more than 512 entries".to_owned());
        for (place, other) in node.others.iter().enumerate().take(512) {
            self.text(&format!("{at}.others[{place}].name"), &other.name, 200);
            self.number(format!("{at}.others[{place}].watts"), other.watts, 0.0..=1_000.0, " W");
            self.number(format!("{at}.others[{place}].mbps"), other.mbps, 0.0..=100_000.0, " Mbit/s");
        }
        if let Some(device) = &node.device {
            self.device(&format!("{at}.device"), device);
        }
    }

    pub(super) fn device(&mut self, at: &str, device: &NetDevice) {
        if let Some(hardware) = &device.hardware {
            self.that(&format!("{at}.hardware"), NetDevice::hardware_of(hardware).is_some(), || {
                format!("\"{hardware}\" is no hardware address such as 02:00:5E:10:00:01")
            });
        }
        if let Some(firmware) = &device.firmware {
            self.text(&format!("{at}.firmware"), firmware, 100);
        }
        self.that(&format!("{at}.picture_port"), device.picture_port != Some(0), || "is no port".to_owned());
        if let Some(path) = &device.picture_path {
            self.text(&format!("{at}.picture_path"), path, 200);
            let plain = path.starts_with('/') && path.bytes().all(|byte| byte.is_ascii_graphic() && byte != b'#');
            self.that(&format!("{at}.picture_path"), plain, || "must begin with / and hold plain letters".to_owned());
        }
    }

    fn cable(&mut self, at: &str, cable: &Cable) {
        self.that(&format!("{at}.to"), cable.from != cable.to, || format!("begins and ends at \"{}\"", cable.to));
        for (name, end) in [("from", &cable.from), ("to", &cable.to)] {
            self.text(&format!("{at}.{name}"), end, 64);
        }
        let corners = cable.route.len();
        self.that(&format!("{at}.route"), corners <= MOST_CORNERS, || format!("has more than {MOST_CORNERS} corners"));
        for (place, corner) in cable.route.iter().enumerate().take(MOST_CORNERS) {
            self.place(&format!("{at}.route[{place}]"), *corner);
        }
        for (name, value, range, unit) in [
            ("length_m", cable.length_m, 0.0..=100_000.0, " m"),
            ("route_height_m", cable.route_height_m, -100.0..=500.0, " m"),
            ("signal_dbm", cable.signal_dbm, -120.0..=0.0, " dBm"),
            ("volts", cable.volts, 1.0..=400.0, " V"),
            ("ohm_per_m", cable.ohm_per_m, 0.0..=10.0, " ohms"),
        ] {
            if let Some(value) = value {
                self.number(format!("{at}.{name}"), value, range, unit);
            }
        }
    }
}
