//! Whether what a camera hangs by will do: loads, reach, edges, arms in the picture, cable entry, conduits (handbook, sections 7 and 13).

use super::spot_facts::{LADDER_TO_M, SpotFacts};
use crate::equipment::mounts::fits;
use crate::file::{Access, CableEntry, CameraFile, Fault, MountPart, MountedAs, PartKind, Surface};
use crate::math::{Angle, nearest_on};
use crate::scene::Solid;
use crate::site::{Head, Site};
use crate::verdict::Verdict;
use glam::{DVec2, DVec3};
use serde::Serialize;
use utoipa::ToSchema;

/// A mount holds so many times the weight of camera and bracket (handbook, section 7; common practice, no source).
pub const LOAD_TIMES: f64 = 5.0;
/// The widest conduit that goes into a camera by the side, mm (handbook, section 13; common practice, no source).
pub const SIDE_CONDUIT_MM: f64 = 13.0;
/// So far from an edge a screw in stone does not break it out, m (common practice, no source).
const EDGE_M: f64 = 0.1;
/// A lift is for heights up to this, m (ours).
const LIFT_TO_M: f64 = 20.0;
/// Within this of the end of its tilt a bubble's ring may cover the light, degrees (ours).
const RING_DEG: f64 = 3.0;
/// Points along an arm that are looked at.
const ALONG: usize = 24;
/// What is nearer to the lens than this is the camera's own, m.
const OWN_M: f64 = 0.06;

/// What one screw with its anchor holds, pulled out of a surface, kg at breaking; common practice, no source: the anchor's own data
/// decide.
pub fn anchor_kg(surface: Surface) -> f64 {
    match surface {
        Surface::Concrete => 150.0,
        Surface::Steel => 200.0,
        Surface::Brick => 80.0,
        Surface::Wood => 90.0,
        Surface::Block => 45.0,
        Surface::SheetMetal => 35.0,
        Surface::Stucco => 30.0,
        Surface::Plasterboard => 20.0,
        Surface::CeilingTile => 0.0,
    }
}

/// A check of a mount.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct MountCheck {
    /// What is checked.
    pub rule: &'static str,
    /// How it stands.
    pub verdict: Verdict,
    /// What was found, in words.
    pub says: String,
    /// The figure, where there is one.
    #[schema(required)]
    pub value: Option<f64>,
    /// What it is held against.
    #[schema(required)]
    pub limit: Option<f64>,
    /// Its unit.
    pub unit: &'static str,
    /// Where the limit comes from.
    pub basis: &'static str,
    /// What mends it, where something does.
    #[schema(required)]
    pub way: Option<String>,
}

impl MountCheck {
    fn new(rule: &'static str, verdict: Verdict, says: String, basis: &'static str) -> MountCheck {
        MountCheck { rule, verdict, says, value: None, limit: None, unit: "", basis, way: None }
    }

    fn figures(self, value: f64, limit: f64, unit: &'static str) -> MountCheck {
        MountCheck { value: Some(value), limit: Some(limit), unit, ..self }
    }

    fn way(self, way: &str) -> MountCheck {
        let way = (self.verdict != Verdict::Kept).then(|| way.to_owned());
        MountCheck { way, ..self }
    }
}

/// What a camera hangs by, judged: the worst first.
///
/// # Errors
/// Names the camera that the site does not have.
pub fn mount_checks(site: &Site, camera: &str) -> Result<Vec<MountCheck>, Fault> {
    let file = site.file();
    let found = file.cameras.iter().find(|held| held.id == camera);
    let found = found.ok_or_else(|| Fault::new("camera", format!("the site has no camera \"{camera}\"")))?;
    let facts = SpotFacts::of(file, found);
    let mut checks: Vec<MountCheck> = parts_carry(&facts);
    checks.push(anchors_hold(&facts));
    checks.extend(misfits(&facts));
    checks.push(reach(&facts));
    checks.extend(edge(&facts));
    checks.extend(arm_in_picture(site, found));
    checks.push(entry(&facts));
    checks.extend(room(&facts));
    checks.extend(conduit(&facts));
    checks.extend(emitters(site, &facts));
    checks.sort_by_key(|check| std::cmp::Reverse(check.verdict));
    Ok(checks)
}

/// Each part carries five times what hangs on it.
fn parts_carry(facts: &SpotFacts) -> Vec<MountCheck> {
    let (camera_kg, stated) = facts.camera_kg();
    let parts = facts.parts();
    let of = |(place, part): (usize, &MountPart)| {
        let beyond: f64 = camera_kg + parts[place + 1..].iter().map(|part| part.weight_kg).sum::<f64>();
        let load = LOAD_TIMES * beyond;
        let basis = "common practice, no source";
        let Some(carries) = part.carries_kg else {
            let says = format!("{}: nobody states what it carries", part.name);
            return MountCheck::new("part_load", Verdict::Unknown, says, basis);
        };
        let verdict = match (load <= carries, stated) {
            (false, _) => Verdict::Broken,
            (true, true) => Verdict::Kept,
            (true, false) => Verdict::Tight,
        };
        let guess = if stated { "" } else { ", the camera's weight as usual for its form" };
        let says = format!("{}: five times the {beyond:.1} kg that hang on it, of {carries} kg{guess}", part.name);
        MountCheck::new("part_load", verdict, says, basis).figures(load, carries, "kg").way(
            if verdict == Verdict::Broken { "Take a part that carries more" } else { "State what the camera weighs" },
        )
    };
    parts.iter().enumerate().map(of).collect()
}

/// The anchors hold five times the weight, and what an arm adds to it.
///
/// A weight W at a reach r turns the plate about its lower edge: half of its screws, at the top, are pulled with W·r/h in all, h the
/// plate's height (statics).
fn anchors_hold(facts: &SpotFacts) -> MountCheck {
    let basis = "statics; anchors: common practice, no source";
    let kg = facts.hangs_kg();
    let screws = f64::from(facts.screws());
    let Some(surface) = facts.surface else {
        let says = format!("Five times {kg:.1} kg: nobody says what it is screwed to");
        return MountCheck::new("anchor_load", Verdict::Unknown, says, basis).way("Say what the surface is");
    };
    if facts.has(PartKind::PoleStrap) {
        let says = format!("Straps around the pole carry {kg:.1} kg");
        return MountCheck::new("anchor_load", Verdict::Kept, says, "common practice, no source");
    }
    let reach: f64 = facts.parts().iter().map(|part| part.reach_m).sum::<f64>().max(0.05);
    let plate = facts.parts().first().and_then(|part| part.plate_m).unwrap_or(0.1);
    let hangs_down = facts.hangs == MountedAs::Ceiling;
    let pull = if hangs_down { kg / screws.max(1.0) } else { kg * reach / plate / (screws / 2.0).max(1.0) };
    let shear = if hangs_down { 0.0 } else { kg / screws.max(1.0) };
    let load = LOAD_TIMES * pull.max(shear);
    let holds = anchor_kg(surface);
    // An anchor's figure is a usual one: within half of it nothing is sure.
    let verdict = Verdict::of(load <= holds, load <= 0.5 * holds);
    let says = format!("{screws:.0} screws in {}: five times the load pulls {load:.0} kg on each", surface.word());
    MountCheck::new("anchor_load", verdict, says, basis)
        .figures(load, holds, "kg")
        .way("Take a plate that is higher or has more screws, a shorter arm, or anchors whose own data say more")
}

fn misfits(facts: &SpotFacts) -> Vec<MountCheck> {
    let form = facts.camera.model.form;
    let misfit = facts.parts().iter().filter(|part| !fits(part, form));
    misfit
        .map(|part| {
            let says = format!("{}: not made for a {}", part.name, form.word());
            MountCheck::new("fits_form", Verdict::Broken, says, "the catalogue of mounts")
                .way("Take a part for this form")
        })
        .collect()
}

/// Whether whoever looks after it gets there.
fn reach(facts: &SpotFacts) -> MountCheck {
    let height = facts.foot_m();
    let (to, what) = match facts.access() {
        Access::Ladder => (LADDER_TO_M, "a ladder"),
        Access::Lift => (LIFT_TO_M, "a lift"),
        Access::Roof => (f64::INFINITY, "the roof"),
    };
    let verdict = Verdict::of(height <= to, height <= to);
    let says = format!("Put up and looked after from {what}, {height:.1} m up");
    let check = MountCheck::new("access", verdict, says, "ours").way("From a lift, or lower");
    if to.is_finite() { check.figures(height, to, "m") } else { check }
}

/// Screws in stone keep off its edges, and the plate lies on it.
fn edge(facts: &SpotFacts) -> Option<MountCheck> {
    let edge = facts.camera.mount.as_ref()?.edge_m?;
    let half = facts.parts().first().and_then(|part| part.plate_m).unwrap_or(0.1) / 2.0;
    let stone = matches!(facts.surface, Some(Surface::Brick | Surface::Block | Surface::Concrete | Surface::Stucco));
    let needs = half + if stone { EDGE_M } else { 0.0 };
    let says = format!("{edge:.2} m from the middle of its plate to the nearest edge or corner");
    Some(
        MountCheck::new("edge", Verdict::of(edge >= half, edge >= needs), says, "common practice, no source")
            .figures(edge, needs, "m")
            .way("Farther from the edge, or around the corner on a corner plate"),
    )
}

/// The arm as a line from the foot to the camera: what of it each head has in its picture, its aim off either way.
fn arm_in_picture(site: &Site, camera: &CameraFile) -> Vec<MountCheck> {
    let Some(mount) = camera.mount.as_ref().filter(|mount| mount.offset_m()[0] > 2.0 * OWN_M) else { return vec![] };
    let Some(out) = mount.out_deg else { return vec![] };
    // From where the camera hangs now, wherever it was moved to.
    let (eye, [reach, drop]) = (camera.eye(), mount.offset_m());
    let (sin, cos) = out.to_radians().sin_cos();
    let foot = eye + DVec3::new(-reach * sin, -reach * cos, drop);
    // Out at the foot's height, then down to the camera.
    let bend = DVec3::new(eye.x, eye.y, foot.z);
    let along = |share: f64| if share < 0.5 { foot.lerp(bend, 2.0 * share) } else { bend.lerp(eye, 2.0 * share - 1.0) };
    let points: Vec<DVec3> =
        (0..=ALONG).map(|step| along(step as f64 / ALONG as f64)).filter(|at| at.distance(eye) > OWN_M).collect();
    let of = |head: &Head| {
        let seen = points.iter().filter(|at| head.view().holds(**at)).count();
        let perhaps = points.iter().filter(|at| head.shows_perhaps(**at)).count();
        let verdict = Verdict::of(seen == 0, perhaps == 0);
        let name = if camera.heads.len() > 1 { format!("Head {}: ", head.id()) } else { String::new() };
        let says = match verdict {
            Verdict::Kept => format!("{name}The arm is out of the picture"),
            Verdict::Tight => format!("{name}The arm is in the picture with the aim a little off"),
            _ => format!("{name}The arm is in the picture"),
        };
        MountCheck::new("arm_in_picture", verdict, says, "geometry of the arm")
            .way("A longer drop, a turned arm, or another aim")
    };
    site.heads().iter().filter(|head| head.camera_id() == camera.id && !head.is_flattened()).map(of).collect()
}

/// A cable enters on the dry side.
fn entry(facts: &SpotFacts) -> MountCheck {
    let (verdict, says) = match (facts.entry, facts.outdoor) {
        (CableEntry::Above, true) => (Verdict::Broken, "The cable comes in from above: water runs along it"),
        (CableEntry::Side, true) => (Verdict::Tight, "The cable comes in level: it needs its drip loop"),
        _ => (Verdict::Kept, "The cable comes in on the dry side"),
    };
    MountCheck::new("entry", verdict, says.to_owned(), "common practice, no source")
        .way("From below, or through the back")
}

/// Room for tails and their joints.
fn room(facts: &SpotFacts) -> Option<MountCheck> {
    if facts.wireless && facts.camera.power.is_some_and(|power| power.battery_months.is_some()) {
        return None;
    }
    let holds = facts.parts().iter().any(|part| part.holds_tails);
    let (verdict, says) = match (holds, facts.is_solid()) {
        (true, _) => (Verdict::Kept, "A box holds its tails and the joint"),
        (false, Some(false)) => (Verdict::Kept, "The hollow behind holds its tails and the joint"),
        (false, Some(true)) => (Verdict::Broken, "No room behind it for 20 to 30 cm of tails, and no box"),
        (false, None) => (Verdict::Unknown, "Nobody says whether there is room behind it for its tails"),
    };
    let check = MountCheck::new("room", verdict, says.to_owned(), "common practice, no source");
    Some(check.way("Add a back box"))
}

/// What goes in by the side.
fn conduit(facts: &SpotFacts) -> Option<MountCheck> {
    let wide = facts.camera.mount.as_ref()?.conduit_mm?;
    let takes = facts.parts().iter().filter_map(|part| part.conduit_mm).reduce(f64::max).unwrap_or(SIDE_CONDUIT_MM);
    let says = format!("Conduit of {wide} mm; the entry takes {takes} mm");
    Some(
        MountCheck::new("conduit", Verdict::of(wide <= takes, wide <= takes), says, "common practice, no source")
            .figures(wide, takes, "mm")
            .way("Into a box that takes it"),
    )
}

/// Near the end of its tilt the ring of a bubble covers its light; behind another glass the light is thrown back.
fn emitters(site: &Site, facts: &SpotFacts) -> Vec<MountCheck> {
    if facts.camera.model.infrared_light().is_none() {
        return vec![];
    }
    if facts.is_housed() {
        let says = "Its infrared light stands behind the housing's glass: that throws it back".to_owned();
        let check = MountCheck::new("emitters", Verdict::Broken, says, "common practice, no source");
        return vec![check.way("Its own light off, and a lamp beside the housing")];
    }
    let ends = |head: &&Head| match head.mounting().tilts.filter(|_| head.camera_id() == facts.camera.id) {
        Some([least, most]) => (head.tilt().deg() - least).min(most - head.tilt().deg()) < RING_DEG,
        None => false,
    };
    let near = site.heads().iter().filter(ends);
    near.map(|head| {
        let says = format!("{:.0}° down is near the end of its tilt: the ring may cover its light", head.tilt().deg());
        MountCheck::new("emitters", Verdict::Tight, says, "ours")
            .way("Look at the picture in the dark before it is closed")
    })
    .collect()
}

/// A camera with another mount, moved to where its parts bring it: from its foot out by their reach and down by their drop.
///
/// # Errors
/// Names the camera that the site does not have.
pub fn with_mount(site: &Site, camera: &str, parts: Vec<MountPart>, out_deg: Option<f64>) -> Result<CameraFile, Fault> {
    let file = site.file();
    let found = file.cameras.iter().find(|held| held.id == camera);
    let mut camera = found.ok_or_else(|| Fault::new("camera", format!("the site has no camera \"{camera}\"")))?.clone();
    let mut mount = camera.mount.take().unwrap_or_default();
    // Its foot is where the parts that it has lead back to, wherever it was moved to since.
    let [reach, drop] = mount.offset_m();
    let (sin, cos) = mount.out_deg.unwrap_or(0.0).to_radians().sin_cos();
    let foot = [camera.position[0] - reach * sin, camera.position[1] - reach * cos];
    let height = camera.height_m + drop;
    let out = out_deg.or(mount.out_deg).unwrap_or_else(|| out_of_wall(site, &camera, foot)).rem_euclid(360.0);
    mount.parts = parts;
    let [reach, drop] = mount.offset_m();
    let (sin, cos) = out.to_radians().sin_cos();
    camera.position = [foot[0] + reach * sin, foot[1] + reach * cos];
    camera.height_m = (height - drop).max(0.05);
    (mount.foot, mount.foot_height_m, mount.out_deg) = (Some(foot), Some(height), Some(out));
    camera.mount = Some(mount);
    Ok(camera)
}

/// The bearing out of the wall that a foot is at; where there is none, the way its first head looks.
fn out_of_wall(site: &Site, camera: &CameraFile, foot: [f64; 2]) -> f64 {
    let here = DVec2::from_array(foot);
    let off = |at: DVec2| at.distance(here);
    let looks = camera.heads[0].pan_deg;
    let edges = site.scene().solids().iter().flat_map(Solid::edges);
    let nearest = edges
        .map(|(a, b)| (nearest_on(here, a, b), [a, b]))
        .min_by(|x, y| off(x.0).total_cmp(&off(y.0)))
        .filter(|(at, _)| off(*at) <= NEAR_WALL_M);
    let Some((_, [a, b])) = nearest else { return looks };
    let normal = (b - a).perp();
    let view = DVec2::new(looks.to_radians().sin(), looks.to_radians().cos());
    let out = if normal.dot(view) < 0.0 { -normal } else { normal };
    Angle::bearing_of(out.x, out.y).deg()
}

/// A wall so near to a foot is the one that it is on, m.
const NEAR_WALL_M: f64 = 1.0;
