//! All tours of a site, and how far each head that is turned reaches.

use crate::file::Task;
use crate::site::{Head, Site, Tour};
use serde::Serialize;
use utoipa::ToSchema;

/// The event that chances are told for where nobody says another, s.
pub const USUAL_EVENT_S: f64 = 10.0;

/// The tours of a site.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Tours {
    /// Each of them.
    pub tours: Vec<TourTold>,
}

/// One tour.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct TourTold {
    /// The camera's id.
    pub camera: String,
    /// The head's id.
    pub head: String,
    /// How long it takes, s.
    pub cycle_s: f64,
    /// Its stops.
    pub presets: Vec<StopTold>,
    /// How far its longest focal length reaches, need by need.
    pub reach: Vec<Reach>,
}

/// One stop of a tour.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct StopTold {
    /// The preset's id.
    pub preset: String,
    /// How long it stays, s.
    pub dwell_s: f64,
    /// How long the move to it takes, s.
    pub move_s: f64,
    /// How long what is seen from here only goes unseen, s.
    pub gap_s: f64,
    /// The chance that an event of the length asked for is seen at all.
    pub chance: f64,
}

/// How far a need reaches.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct Reach {
    /// The task.
    pub task: Task,
    /// Its need, px/m.
    pub px_per_m: f64,
    /// The greatest slant distance on the axis, m.
    pub slant_m: f64,
}

/// Tells all tours of a site, with the chances for an event of a length, s (handbook, section 11).
pub fn tours(site: &Site, event_s: f64) -> Tours {
    let file = site.file();
    let heads = site.heads().iter().filter(|head| head.gap_s().is_some());
    let mut seen = None;
    let mut tours = Vec::new();
    for head in heads {
        if seen == Some((head.camera(), head.place())) {
            continue;
        }
        seen = Some((head.camera(), head.place()));
        let of = &file.cameras[head.camera()].heads[head.place()];
        let Some(tour) = Tour::of(of) else { continue };
        let stop = |(place, preset): (usize, &crate::file::Preset)| StopTold {
            preset: preset.id.clone(),
            dwell_s: preset.dwell_s,
            move_s: tour.stops()[place].move_s,
            gap_s: tour.gap_s(place),
            chance: tour.chance(place, event_s),
        };
        tours.push(TourTold {
            camera: head.camera_id().to_owned(),
            head: head.id().to_owned(),
            cycle_s: tour.cycle_s(),
            presets: of.presets.iter().enumerate().map(stop).collect(),
            reach: reach(site, head),
        });
    }
    Tours { tours }
}

/// The greatest range for each need of the site's table, W·f/(w·n), with the longest focal length (handbook, section 4).
fn reach(site: &Site, head: &Head) -> Vec<Reach> {
    let lens = site.file().cameras[head.camera()].lens_of(head.place());
    let focal_px = head.fitted().projection(lens.focal_max_mm).focal_px();
    let needs = site.rules().needs.contours();
    needs.into_iter().map(|(task, px_per_m)| Reach { task, px_per_m, slant_m: focal_px / px_per_m }).collect()
}
