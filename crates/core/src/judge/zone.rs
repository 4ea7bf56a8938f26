//! Where along its way a plate reads, and what time, blur, focus and light make of that (handbook, section 10).

use crate::equipment::optics::{Sharp, centring_focus_m};
use crate::judge::sight::Viewer;
use crate::judge::zone_light::ZoneLight;
use crate::light::infrared::stops_across;
use crate::math::Angle;
use crate::site::{Lane, Run, Target};
use crate::verdict::Verdict;
use glam::DVec3;
use serde::Serialize;
use utoipa::ToSchema;

/// Where a head reads a plate on its way.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) struct Zone {
    /// The longest run of samples at which every geometric rule holds as stated.
    pub stated: Run,
    /// The longest part of it at which they hold at worst.
    pub sure: Option<Run>,
}

/// Where along its way a plate reads, and what comes of it. What nobody said enough for is null.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ZoneTold {
    /// Where it begins to read, metres along the way.
    pub from: f64,
    /// Where it ends to.
    pub to: f64,
    /// The least slant distance in it, m.
    pub near_m: f64,
    /// The greatest, m.
    pub far_m: f64,
    /// Whether some of it is read from the front of the vehicle.
    pub front: bool,
    /// How long the plate is in it, s; null for one that stands.
    #[schema(required)]
    pub time_s: Option<f64>,
    /// How many pictures are taken of it there.
    #[schema(required)]
    pub looks: Option<f64>,
    /// The chance that a tour sees it at all, 0 to 1; null for a head that never looks away, and for a plate that stands.
    #[schema(required)]
    pub chance: Option<f64>,
    /// The shutter that leaves no more blur than is kept, s.
    #[schema(required)]
    pub shutter_wanted_s: Option<f64>,
    /// The worst blur at the shutter that is set, px.
    #[schema(required)]
    pub blur_px: Option<f64>,
    /// The distance that it is, or should be, focused at, m.
    pub focus_m: f64,
    /// What is sharp then.
    #[schema(required)]
    pub sharp: Option<SharpTold>,
    /// By how many stops infrared light differs between the ends.
    pub infrared_stops: f64,
    /// The least height of its characters, px.
    pub char_height_px: f64,
    /// The least width of their strokes, px.
    pub stroke_px: f64,
    /// The least and the greatest width of a plate that a reader should look for, px.
    pub size_window_px: [f64; 2],
    /// The greatest width of the picture there, m.
    pub scene_width_m: f64,
    /// Where it begins and ends, metres east and north, with the corners of the way between.
    pub path: Vec<[f64; 2]>,
    /// The part that reads at worst, metres along the way.
    #[schema(required)]
    pub sure: Option<[f64; 2]>,
    /// By night the longest part of where it reads that is lit as it should be as stated, metres along the way; null by day.
    #[schema(required)]
    pub lit: Option<[f64; 2]>,
    /// The longest part of what is sure which is also sharp, evenly lit and no wider than a lane, metres along the way.
    #[schema(required)]
    pub serves: Option<[f64; 2]>,
    /// The same as a line, metres east and north; empty where there is none.
    pub serves_path: Vec<[f64; 2]>,
}

/// What is sharp.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct SharpTold {
    /// From, m.
    pub near_m: f64,
    /// To, m; null where it goes on without end.
    #[schema(required)]
    pub far_m: Option<f64>,
}

/// How many pictures are taken while the plate goes so many metres.
pub(crate) fn looks(viewer: Viewer, lane: &Lane, length: f64) -> f64 {
    let fps = viewer.head.exposure().map_or(0.0, |exposure| exposure.fps);
    // A figure that should be whole is not lost to a rounding.
    (fps * length / lane.speed * (1.0 + 1e-12)).floor()
}

/// The same at worst: a tour has just looked away when the plate comes (handbook, section 10).
pub(crate) fn looks_at_worst(viewer: Viewer, lane: &Lane, length: f64) -> f64 {
    let unseen = viewer.head.gap_s().unwrap_or(0.0) * lane.speed;
    looks(viewer, lane, (length - unseen).max(0.0))
}

/// What a zone comes to.
pub(crate) fn told(viewer: Viewer, target: &Target, lane: &Lane, zone: Zone) -> ZoneTold {
    told_with(viewer, target, lane, zone, ZoneLight::of(viewer, target, lane, zone.stated).as_ref())
}

/// The same where the light on it is known.
pub(crate) fn told_with(
    viewer: Viewer,
    target: &Target,
    lane: &Lane,
    zone: Zone,
    light: Option<&ZoneLight>,
) -> ZoneTold {
    let head = viewer.head;
    let [from, to] = zone.stated;
    let mut near_m = f64::INFINITY;
    let mut far_m = 0.0_f64;
    let (mut speed_px, mut across_least, mut up_least) = (0.0_f64, f64::INFINITY, f64::INFINITY);
    let (mut plate_least, mut plate_most) = (f64::INFINITY, 0.0_f64);
    let eye = head.position();
    let view = head.view();
    for (place, point) in (from..=to).flat_map(|place| lane.heights(place).map(move |point| (place, point))) {
        let slant = point.distance(eye);
        (near_m, far_m) = (near_m.min(slant), far_m.max(slant));
        let moves = (lane.travel[place] * lane.speed).extend(0.0);
        let direction = view.pose.to_camera(point - eye);
        speed_px = speed_px.max(view.projection.pixel_velocity(direction, view.pose.to_camera(moves)).length());
        if let Some(look) = head.look(point) {
            across_least = across_least.min(look.across);
            up_least = up_least.min(look.up);
            let wide = look.across * turned(lane, place, eye, target.facing) * lane.size.x;
            (plate_least, plate_most) = (plate_least.min(wide), plate_most.max(wide));
        }
    }
    let exposure = head.exposure();
    let length = lane.along[to] - lane.along[from];
    let moves = lane.speed > 0.0;
    let focus_m = exposure.and_then(|exposure| exposure.focus_m).unwrap_or(centring_focus_m(near_m, far_m));
    let sharp = head.sharp_at(focus_m).map(|Sharp { near_m, far_m }| SharpTold { near_m, far_m });
    let serves = serves(viewer, lane, zone, sharp, light);
    let emitter = head.light().beam.map_or(eye, |beam| beam.from);
    let [nearest, farthest] = ends(lane, zone.stated, emitter);
    let most = viewer.rules.overexposed_times;
    let lit = light.and_then(|light| longest(zone.stated, |place| light.stands(place, most) <= Verdict::Tight));
    ZoneTold {
        from: lane.along[from],
        to: lane.along[to],
        near_m,
        far_m,
        front: (from..=to).any(|place| lane.shows_front(place, eye.truncate(), target.facing)),
        time_s: moves.then(|| length / lane.speed),
        looks: exposure.filter(|_| moves).map(|_| looks(viewer, lane, length)),
        chance: head.tour_chance(length / lane.speed).filter(|_| moves),
        shutter_wanted_s: (speed_px > 0.0).then(|| viewer.rules.blur_kept_px / speed_px),
        blur_px: exposure.and_then(|exposure| exposure.shutter_s).map(|shutter| speed_px * shutter),
        focus_m,
        sharp,
        infrared_stops: stops_across(nearest, farthest),
        char_height_px: up_least * lane.plate.character_m,
        stroke_px: across_least * lane.plate.stroke_m,
        size_window_px: [0.9 * plate_least, 1.1 * plate_most],
        scene_width_m: view.projection.size().x / across_least,
        path: path(lane, zone.stated),
        sure: zone.sure.map(|[from, to]| [lane.along[from], lane.along[to]]),
        lit: lit.map(|run| run.map(|place| lane.along[place])),
        serves,
        serves_path: serves.map_or(vec![], |ends| path(lane, ends.map(|end| sample_at(lane, end)))),
    }
}

/// The least and the greatest distance of the samples of a run from a point, m.
fn ends(lane: &Lane, [from, to]: Run, point: DVec3) -> [f64; 2] {
    let far = lane.samples[from..=to].iter().map(|sample| sample.distance(point));
    far.fold([f64::INFINITY, 0.0], |[near, most], far| [near.min(far), most.max(far)])
}

/// The longest part of a run at which all samples hold.
pub(crate) fn longest([first, last]: Run, holds: impl Fn(usize) -> bool) -> Option<Run> {
    let (mut best, mut begun): (Option<Run>, Option<usize>) = (None, None);
    for place in first..=last {
        begun = if holds(place) { begun.or(Some(place)) } else { None };
        if let Some(from) = begun
            && best.is_none_or(|[a, b]| place - from > b - a)
        {
            best = Some([from, place]);
        }
    }
    best
}

/// How much of its width a plate shows at a sample.
fn turned(lane: &Lane, place: usize, eye: DVec3, facing: Option<Angle>) -> f64 {
    let facing = facing.unwrap_or_else(|| lane.facing(place, eye.truncate()));
    let to_camera = (eye - lane.samples[place]).truncate().normalize_or_zero();
    (facing.sin() * to_camera.x + facing.cos() * to_camera.y).max(0.0)
}

/// The sample nearest to so many metres along the way.
pub(crate) fn sample_at(lane: &Lane, along: f64) -> usize {
    lane.along.partition_point(|at| *at < along - 1e-9).min(lane.along.len() - 1)
}

/// The ends of a run, with the corners of the way between.
fn path(lane: &Lane, [from, to]: Run) -> Vec<[f64; 2]> {
    let corner = |place: &usize| *place == from || *place == to || lane.travel[*place] != lane.travel[*place - 1];
    (from..=to).filter(corner).map(|place| lane.samples[place].truncate().to_array()).collect()
}

/// The longest stretch, metres along the way, on which a plate surely reads and is sharp, with infrared light that differs little enough
/// and a picture that is narrow enough; by night surely with enough light and not too much.
fn serves(
    viewer: Viewer,
    lane: &Lane,
    zone: Zone,
    sharp: Option<SharpTold>,
    light: Option<&ZoneLight>,
) -> Option<[f64; 2]> {
    let [first, last] = zone.sure?;
    let (head, limits) = (viewer.head, viewer.rules);
    let beam = head.light().beam;
    // At a point there are no ends that one setting has to serve.
    let on_its_way = lane.through.is_none();
    let ratio = if beam.is_some() && on_its_way { 2_f64.powf(limits.zone_stops / 2.0) } else { f64::INFINITY };
    let least_density = head.view().projection.size().x / limits.lane_width_m;
    let slant = |place: usize| lane.samples[place].distance(head.position());
    let from_light = |place: usize| lane.samples[place].distance(beam.map_or(head.position(), |beam| beam.from));
    let good = |place: usize| {
        let at = slant(place);
        let in_focus = sharp.is_none_or(|sharp| at >= sharp.near_m && sharp.far_m.is_none_or(|far| at <= far));
        let narrow = || lane.heights(place).all(|point| head.view().across_at(point) >= least_density);
        (!on_its_way || in_focus && narrow())
            && light.is_none_or(|light| light.stands(place, limits.overexposed_times) == Verdict::Kept)
    };
    let good: Vec<bool> = (first..=last).map(good).collect();
    let mut best: Option<Run> = None;
    for from in first..=last {
        let (mut near, mut far) = (f64::INFINITY, 0.0_f64);
        for to in from..=last {
            (near, far) = (near.min(from_light(to)), far.max(from_light(to)));
            if !good[to - first] || far > near * ratio {
                break;
            }
            if best.is_none_or(|[a, b]| to - from > b - a) {
                best = Some([from, to]);
            }
        }
        if best.is_some_and(|[a, b]| last - from <= b - a) {
            break;
        }
    }
    best.map(|run| run.map(|place| lane.along[place]))
}
