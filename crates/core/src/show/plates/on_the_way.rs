//! Where every head reads every plate on its way: one answer for other programs (`bright-angle plates`).

use crate::file::{Fault, PlateSchool, Question, Rules};
use crate::judge::Session;
use crate::judge::evaluation::{eye_around, eyes, viewer_of};
use crate::judge::lane::look_along_lane;
use crate::judge::sight::{Sight, Viewer};
use crate::judge::zone::{SharpTold, ZoneTold, told};
use serde::Serialize;
use utoipa::ToSchema;

/// One head and one plate on its way, of which it has some part in view and clear.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PlateTold {
    /// The camera's id.
    pub camera: String,
    /// The head's id.
    pub head: String,
    /// The id of the preset or flattened view; null for its own aim.
    #[schema(required)]
    pub view: Option<String>,
    /// The target's id.
    pub target: String,
    /// Where it reads; null where it does not.
    #[schema(required)]
    pub zone: Option<ZoneEnds>,
    /// What comes of it, all null where it does not read.
    #[serde(flatten)]
    pub found: PlateFigures,
}

/// Where a plate begins and ends to read.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct ZoneEnds {
    /// Metres along the way.
    pub from: f64,
    /// Metres along the way.
    pub to: f64,
    /// The least slant distance in between, m.
    pub near_m: f64,
    /// The greatest, m.
    pub far_m: f64,
}

/// The figures of a zone.
#[derive(Clone, Copy, Debug, Default, PartialEq, Serialize, ToSchema)]
pub struct PlateFigures {
    /// s.
    #[schema(required)]
    pub time_s: Option<f64>,
    /// Pictures.
    #[schema(required)]
    pub looks: Option<f64>,
    /// s.
    #[schema(required)]
    pub shutter_wanted_s: Option<f64>,
    /// px.
    #[schema(required)]
    pub blur_px: Option<f64>,
    /// m.
    #[schema(required)]
    pub focus_m: Option<f64>,
    /// m.
    #[schema(required)]
    pub sharp: Option<SharpTold>,
    /// Stops.
    #[schema(required)]
    pub infrared_stops: Option<f64>,
    /// px.
    #[schema(required)]
    pub char_height_px: Option<f64>,
    /// px.
    #[schema(required)]
    pub stroke_px: Option<f64>,
    /// px, least and most.
    #[schema(required)]
    pub size_window_px: Option<[f64; 2]>,
    /// m.
    #[schema(required)]
    pub scene_width_m: Option<f64>,
}

/// Every head with every plate's way of which it sees some part, standing ones too.
pub fn plates(session: &Session) -> Vec<PlateTold> {
    let site = session.site();
    let eyes = eyes(site);
    let mut all = Vec::new();
    for head in site.heads() {
        let viewer = viewer_of(site, head, &eyes[head.camera()]);
        for target in site.targets() {
            let Some(lane) = &target.lane else { continue };
            let of = look_along_lane(viewer, target, lane);
            if of.seen == 0 {
                continue;
            }
            let zone = of.zone.map(|zone| told(viewer, target, lane, zone));
            all.push(PlateTold {
                camera: head.camera_id().to_owned(),
                head: head.id().to_owned(),
                view: head.view_id().map(str::to_owned),
                target: target.id.clone(),
                zone: zone.as_ref().map(|z| ZoneEnds { from: z.from, to: z.to, near_m: z.near_m, far_m: z.far_m }),
                found: zone.map(found).unwrap_or_default(),
            });
        }
    }
    all
}

/// What a school of plate cameras makes of a sight line.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SchoolTold {
    /// The school.
    pub school: PlateSchool,
    /// How much of the way reads, m.
    pub reads_m: f64,
    /// Its least density there, px/m; null where it reads nowhere.
    #[schema(required)]
    pub px_per_m: Option<f64>,
    /// The greatest side and vertical angle that it is read at, degrees.
    pub worst_deg: [f64; 2],
}

/// Where a plate on its way reads from a head by each of the two schools: what the choice between them is worth here.
///
/// # Errors
/// Names the id that the site does not have, or a target that has no way.
pub fn schools(session: &Session, line: &Question) -> Result<Vec<SchoolTold>, Fault> {
    let site = session.site();
    let head = site.view(&line.head_ref())?;
    let target = &site.targets()[site.target_place(&line.target)?];
    let lane = target.lane.as_ref().ok_or_else(|| Fault::new("target", "is no moving plate"))?;
    let eye = eye_around(site, head);
    let of = |school| {
        let rules = Rules { plate_school: school, ..*site.rules() };
        let viewer = Viewer { rules: &rules, ..viewer_of(site, head, &eye) };
        let zone = look_along_lane(viewer, target, lane).zone;
        let reads_m = zone.map_or(0.0, |zone| lane.along[zone.stated[1]] - lane.along[zone.stated[0]]);
        let samples = || zone.into_iter().flat_map(|zone| zone.stated[0]..=zone.stated[1]);
        let least = samples().map(|sample| head.view().across_at(lane.samples[sample])).reduce(f64::min);
        let worst_deg = samples().fold([0.0_f64; 2], |worst, sample| {
            let sight = Sight::on_lane(viewer, target, lane, sample, true);
            [worst[0].max(sight.side_deg().unwrap_or(0.0)), worst[1].max(sight.separation.depression().abs().deg())]
        });
        SchoolTold { school, reads_m, px_per_m: least, worst_deg }
    };
    Ok([PlateSchool::Level, PlateSchool::Raised].map(of).into())
}

fn found(zone: ZoneTold) -> PlateFigures {
    PlateFigures {
        time_s: zone.time_s,
        looks: zone.looks,
        shutter_wanted_s: zone.shutter_wanted_s,
        blur_px: zone.blur_px,
        focus_m: Some(zone.focus_m),
        sharp: zone.sharp,
        infrared_stops: Some(zone.infrared_stops),
        char_height_px: Some(zone.char_height_px),
        stroke_px: Some(zone.stroke_px),
        size_window_px: Some(zone.size_window_px),
        scene_width_m: Some(zone.scene_width_m),
    }
}
