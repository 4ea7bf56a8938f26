//! What makes a network's figures and ids valid. Whether it hangs together is told by the wiring itself: a camera that is taken off the
//! plan leaves its cable behind, and the site stays one.

use super::validate::Check;
use super::{Cable, Network, Node};

/// So many boxes and cables a site may have.
const MOST_NODES: usize = 1_000;
const MOST_CABLES: usize = 2_000;
/// So many corners the way of a cable may have.
const MOST_CORNERS: usize = 500;

impl Check {
    pub(super) fn network(&mut self, network: &Network) {
        self.list("network.nodes", &network.nodes, MOST_NODES, |_| true, Check::node);
        self.list("network.cables", &network.cables, MOST_CABLES, |_| true, Check::cable);
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
            ("disk_gb", node.disk_gb, 0.0..=100_000_000.0, " GB"),
        ] {
            if let Some(value) = value {
                self.number(format!("{at}.{name}"), value, range, unit);
            }
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
            ("volts", cable.volts, 1.0..=400.0, " V"),
            ("ohm_per_m", cable.ohm_per_m, 0.0..=10.0, " ohms"),
        ] {
            if let Some(value) = value {
                self.number(format!("{at}.{name}"), value, range, unit);
            }
        }
    }
}
