//! The subcommands of the wiring.

use super::compute::{json, session};
use super::{Answer, input};
use bright_angle_core::change::store_cuts::store_cuts;
use bright_angle_core::exchange::network_file::NetworkFile;
use bright_angle_core::wire::route::{RouteWish, route as core_route};
use bright_angle_core::wire::wired::wired;
use clap::ValueEnum;
use std::path::Path;

/// What counts most in routing.
#[derive(Clone, Copy, ValueEnum)]
pub enum WishArg {
    /// What it costs
    Cheapest,
    /// The fewest metres along walls and through the air
    FewestAloft,
    /// The fewest cameras lost together
    LeastLost,
}

impl From<WishArg> for RouteWish {
    fn from(wish: WishArg) -> Self {
        match wish {
            WishArg::Cheapest => RouteWish::Cheapest,
            WishArg::FewestAloft => RouteWish::FewestAloft,
            WishArg::LeastLost => RouteWish::LeastLost,
        }
    }
}

/// A file of the wiring.
#[derive(Clone, Copy, ValueEnum)]
pub enum NetworkArg {
    /// Cables, as CSV
    Cables,
    /// Devices and ports, as CSV
    Ports,
    /// Labels for both ends of every cable, as CSV
    Labels,
    /// What is bought, as CSV
    Materials,
    /// A graph for GraphViz
    Dot,
    /// A graph as GraphML
    Graphml,
}

impl From<NetworkArg> for NetworkFile {
    fn from(of: NetworkArg) -> Self {
        match of {
            NetworkArg::Cables => NetworkFile::Cables,
            NetworkArg::Ports => NetworkFile::Ports,
            NetworkArg::Labels => NetworkFile::Labels,
            NetworkArg::Materials => NetworkFile::Materials,
            NetworkArg::Dot => NetworkFile::Dot,
            NetworkArg::Graphml => NetworkFile::Graphml,
        }
    }
}

pub fn wire(file: &Path) -> Answer {
    json(&wired(input::site(file)?.file()))
}

/// What cannot be wired is told on standard error.
pub fn route(file: &Path, wish: RouteWish, all: bool) -> Answer {
    let routed = core_route(input::site(file)?.file(), wish).map_err(|fault| vec![fault])?;
    for unmet in &routed.unmet {
        eprintln!("{}: {}", unmet.camera, unmet.why);
    }
    if all { json(&routed) } else { json(&routed.patch) }
}

pub fn network(file: &Path, of: NetworkFile) -> Answer {
    let text = of.written(input::site(file)?.file()).map_err(|fault| vec![fault])?;
    Ok(text.trim_end().to_owned())
}

pub fn store(file: &Path, days: u32) -> Answer {
    json(&store_cuts(&session(input::site(file)?)?, days).map_err(|fault| vec![fault])?)
}
