//! Whether a camera's build takes an aim as it hangs (handbook, section 6, "Build").

use crate::equipment::build::{Takes, takes, usual};
use crate::file::MountedAs;
use crate::math::nearest_on;
use crate::scene::{Scene, Solid};
use crate::site::Head;
use glam::{DVec2, DVec3};

/// A wall so near to a camera is the one that it hangs on, m; common practice, no source: brackets are as long.
const ON_WALL_M: f64 = 0.6;
/// A figure that is typed as a limit is within it.
const GIVE_DEG: f64 = 1e-6;

/// What a build makes of an aim.
#[derive(Clone, Debug, PartialEq)]
pub(crate) struct Build {
    pub holds: bool,
    /// The tilt, or how far off its wall's axis it looks, degrees.
    pub value: f64,
    /// What that is held against: whichever end is nearer.
    pub limit: f64,
    /// The tilts that it takes, of a wall's at most.
    pub tilts: [f64; 2],
    /// Where that comes from.
    pub says: String,
}

/// What the build of a head's camera makes of its aim; none for a flat picture that is cut out of a round one.
pub(crate) fn build(head: &Head, scene: &Scene) -> Option<Build> {
    if head.is_flattened() {
        return None;
    }
    let mounting = head.mounting();
    if let Some(tilts) = mounting.tilts {
        let says = format!("tilts that the model states: {} to {}°", tilts[0], tilts[1]);
        return Some(by_tilt(head, tilts, says));
    }
    let form = mounting.form;
    let stated = mounting.mounted_as;
    let ways: &[MountedAs] = stated.as_ref().map_or(usual(form), std::slice::from_ref);
    let found = ways.iter().map(|mounted| {
        let hangs = match (stated, usual(form).len() > 1) {
            (_, false) => String::new(),
            (Some(_), true) => format!(" {}", mounted.word()),
            (None, true) => format!(" {}, if it is mounted so: not stated", mounted.word()),
        };
        match takes(form, mounting.long_range, *mounted) {
            Takes::Tilts(tilts) => {
                let says = format!(
                    "a {} takes {} to {}° down{hangs}; common practice, no source",
                    form.word(),
                    tilts[0],
                    tilts[1]
                );
                by_tilt(head, tilts, says)
            }
            Takes::OffWall(most) => off_wall(
                head,
                scene,
                most,
                format!("a {} takes {most}° off the axis of its base{hangs}; common practice, no source", form.word()),
            ),
        }
    });
    let found: Vec<Build> = found.collect();
    found.iter().find(|build| build.holds).or(found.first()).cloned()
}

fn by_tilt(head: &Head, tilts: [f64; 2], says: String) -> Build {
    let [least, most] = tilts;
    let value = head.tilt().deg();
    let limit = if value - least < most - value { least } else { most };
    let holds = (least - GIVE_DEG..=most + GIVE_DEG).contains(&value);
    Build { holds, value, limit, tilts, says }
}

fn off_wall(head: &Head, scene: &Scene, most: f64, says: String) -> Build {
    let forward = head.view().pose.forward;
    let flat = forward.with_z(0.0).normalize_or(DVec3::Y);
    // Where no wall is drawn it is taken to face where the camera looks.
    let out = wall_out(head, scene).map_or(flat, |out| out.extend(0.0));
    let value = forward.angle_between(out).to_degrees();
    Build { holds: value <= most + GIVE_DEG, value, limit: most, tilts: [-most, most], says }
}

/// The way out of the wall that a camera hangs on.
fn wall_out(head: &Head, scene: &Scene) -> Option<DVec2> {
    let at = head.position();
    let here = at.truncate();
    let near = |solid: &&Solid| {
        let named = head.mounted_on() == Some(solid.id());
        named || (solid.blocks() && solid.base() <= at.z && at.z <= solid.top() + ON_WALL_M)
    };
    let far = |solid: &&Solid| solid.nearest_on_outline(here).distance(here);
    let walls = scene.solids().iter().filter(near).filter(|solid| far(solid) <= ON_WALL_M);
    let wall = walls.min_by(|a, b| far(a).total_cmp(&far(b)))?;
    let edge = |(a, b): (DVec2, DVec2)| {
        let along = b - a;
        (here.distance(nearest_on(here, a, b)), along.perp().normalize_or_zero())
    };
    let (_, normal) = wall.edges().map(edge).min_by(|a, b| a.0.total_cmp(&b.0))?;
    // Out of what is filled; of a thin wall to the side that the camera is on, or looks to.
    let outwards = if wall.is_filled() {
        if wall.holds_or_touches(wall.nearest_on_outline(here) + normal * 0.02) { -normal } else { normal }
    } else {
        let side = here - wall.nearest_on_outline(here);
        let side = if side.length() > 1e-6 { side } else { head.view().pose.forward.truncate() };
        if side.dot(normal) < 0.0 { -normal } else { normal }
    };
    Some(outwards)
}
