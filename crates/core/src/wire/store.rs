//! What is recorded in a day, and for how many days it is kept.

use super::rate::{rate_of, share_recorded};
use crate::file::{NodeKind, SiteFile};
use crate::verdict::Verdict;
use serde::Serialize;
use utoipa::ToSchema;

/// 1 Mbit/s all day, GB (decimal): 86 400 s of a million bits, eight to a byte.
pub const GB_PER_MBPS_DAY: f64 = 10.8;

/// What the recordings take.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct StoreTold {
    /// In a day, GB.
    pub gb_per_day: f64,
    /// How many days were asked for; null where nobody said.
    #[schema(required)]
    pub days: Option<u32>,
    /// What these take, GB; null where nobody said how many.
    #[schema(required)]
    pub gb: Option<f64>,
    /// What the disks of the recorders hold, GB; null where none are said.
    #[schema(required)]
    pub disk_gb: Option<f64>,
    /// How many days these hold; null where none are said, or nothing is recorded.
    #[schema(required)]
    pub holds_days: Option<f64>,
    /// Whether they hold the days that were asked for, with bit rates as high as their start values may be.
    pub verdict: Verdict,
}

/// What the recordings of a site take.
pub fn store(site: &SiteFile) -> StoreTold {
    let cameras = || site.cameras.iter().filter(|camera| !camera.goes());
    let of_rates = |which: fn(&super::rate::Rate) -> f64| -> f64 {
        cameras().map(|camera| which(&rate_of(camera, &site.rules.wiring)) * share_recorded(camera)).sum::<f64>()
            * GB_PER_MBPS_DAY
    };
    let (gb_per_day, at_most) = (of_rates(|rate| rate.mbps), of_rates(|rate| rate.between[1]));
    let days = site.brief.as_ref().and_then(|brief| brief.retention_days);
    let nodes = site.network.iter().flat_map(|network| &network.nodes);
    let disks: Vec<f64> = nodes.filter(|n| n.kind == NodeKind::Recorder).filter_map(|node| node.disk_gb).collect();
    let disk_gb = (!disks.is_empty()).then(|| disks.iter().sum::<f64>());
    let wanted = days.map(f64::from);
    let verdict = match (wanted, disk_gb) {
        (Some(days), Some(disk)) => Verdict::of(gb_per_day * days <= disk, at_most * days <= disk),
        _ => Verdict::Unknown,
    };
    StoreTold {
        gb_per_day,
        days,
        gb: wanted.map(|days| gb_per_day * days),
        disk_gb,
        holds_days: disk_gb.filter(|_| gb_per_day > 0.0).map(|disk| disk / gb_per_day),
        verdict,
    }
}
