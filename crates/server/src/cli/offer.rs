//! The subcommands of the offer: how few cameras do, options, prices.

use super::compute::{json, session};
use super::{Answer, input};
use crate::papers::{PaperPart, PaperSize, PaperWish, pdf};
use bright_angle_core::Fault;
use bright_angle_core::offer::bill::bill as core_bill;
use bright_angle_core::offer::fewest::{FewestAmong, FewestBy, Waiting, fewest as core_fewest};
use bright_angle_core::offer::paper::priced_options;
use bright_angle_core::offer::prices_csv;
use bright_angle_core::words::units::Units;
use bright_angle_core::work::Patience;
use clap::ValueEnum;
use std::collections::HashMap;
use std::path::Path;

/// What counts.
#[derive(Clone, Copy, ValueEnum)]
pub enum ByArg {
    /// How many cameras there are
    Count,
    /// What the cameras that are bought cost
    Price,
    /// How many cameras have to be put up
    Trips,
    /// As many promises as can be kept twice, then how many cameras there are
    BackUp,
}

impl From<ByArg> for FewestBy {
    fn from(by: ByArg) -> Self {
        match by {
            ByArg::Count => FewestBy::Count,
            ByArg::Price => FewestBy::Price,
            ByArg::Trips => FewestBy::Trips,
            ByArg::BackUp => FewestBy::BackUp,
        }
    }
}

/// What is chosen from.
#[derive(Clone, Copy, ValueEnum)]
pub enum AmongArg {
    /// The cameras of the file as they are aimed
    Present,
    /// Those, and every model at every surveyed spot
    Spots,
}

impl From<AmongArg> for FewestAmong {
    fn from(among: AmongArg) -> Self {
        match among {
            AmongArg::Present => FewestAmong::Present,
            AmongArg::Spots => FewestAmong::Spots,
        }
    }
}

pub fn fewest(file: &Path, by: FewestBy, among: FewestAmong, units: Units) -> Answer {
    let session = session(input::site(file)?)?;
    let waiting = Waiting { patience: &Patience::ENDLESS, progress: &|_| () };
    let found = core_fewest(&session, among, &[by], units, &waiting).map_err(|fault| vec![fault])?;
    json(&found.first())
}

/// Units as the papers name them.
#[derive(Clone, Copy, ValueEnum)]
pub enum PaperUnits {
    /// Metres
    M,
    /// Feet and inches
    Ft,
}

impl From<PaperUnits> for Units {
    fn from(units: PaperUnits) -> Self {
        match units {
            PaperUnits::M => Units::Metres,
            PaperUnits::Ft => Units::Feet,
        }
    }
}

pub fn papers(file: &Path, out: &Path, parts: Vec<PaperPart>, size: PaperSize, units: Units) -> Answer {
    let session = session(input::site(file)?)?;
    let wish = PaperWish { parts, size, units };
    // Photos are kept by the server, not in the file.
    let bytes = pdf(&session, &HashMap::new(), &wish, &Patience::ENDLESS).map_err(|fault| vec![fault])?;
    std::fs::write(out, bytes).map_err(|error| vec![Fault::new("--out", error.to_string())])?;
    Ok(String::new())
}

pub fn options(file: &Path) -> Answer {
    json(&priced_options(&session(input::site(file)?)?, &Patience::ENDLESS).map_err(|fault| vec![fault])?)
}

/// What nobody has priced is told on standard error.
pub fn bill(file: &Path, csv: bool) -> Answer {
    let site = input::site(file)?;
    let bill = core_bill(site.file()).map_err(|fault| vec![fault])?;
    for what in &bill.unknown {
        eprintln!("{what}: no price");
    }
    if csv {
        return Ok(prices_csv::write(site.file()).map_err(|fault| vec![fault])?.trim_end().to_owned());
    }
    json(&bill)
}
