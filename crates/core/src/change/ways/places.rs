//! The search for another place of a camera: surveyed spots, nearer, back, and sideways along the wall that it hangs on.

use super::change::{Candidate, Change, Moved, Place};
use super::search::Search;
use crate::change::edits::neat;
use crate::file::{CameraFile, ObstacleKind, Point2, Spot, SpotKind, Subject};
use crate::math::nearest_on;
use crate::scene::{Scene, Solid};
use glam::DVec2;

/// Steps of the neat values that are tried, m.
const NEARER_STEP_M: f64 = 0.1;
const STEP_M: f64 = 0.25;
/// A camera is not put nearer to its target than this, m.
const NEAREST_M: f64 = 1.0;
/// Nor further back or sideways than this from where it is, m.
const FARTHEST_M: f64 = 8.0;
/// A camera hangs as far off a wall as before if it is no further off than this, m.
const HANGS_ON_M: f64 = 0.05;
/// A camera that is this near to a solid may hang on it, m: brackets reach 0.1 to 0.5 m; common practice, no source.
const BRACKET_M: f64 = 0.5;
/// What an inside corner is worth, in effort (our scale).
const CORNER: f64 = 0.3;
/// A spot that is this near to a camera is taken, m.
const TAKEN_M: f64 = 0.3;

impl Search<'_> {
    /// A surveyed spot that is free, each perhaps with another focal length; the nearest first.
    pub(super) fn spots(&self) -> Vec<Candidate> {
        let here = DVec2::from_array(self.camera.position);
        let mut free = free_spots(self.desk.site.file());
        let far = |spot: &Spot| DVec2::from_array(spot.position).distance(here);
        // What a hand can reach is no place for a camera that watches people.
        let plate = self.desk.target().subject == Subject::Plate;
        free.retain(|spot| far(spot) > TAKEN_M && (plate || spot.height_m >= self.desk.site.rules().mount_min_m));
        free.sort_by(|a, b| far(a).total_cmp(&far(b)));
        free.into_iter().filter_map(|spot| self.spot(spot, far(spot))).collect()
    }

    fn spot(&self, spot: &Spot, by: f64) -> Option<Candidate> {
        let how = Moved::Spot { id: spot.id.clone(), height_m: spot.height_m.max(0.05), ground_m: spot.ground_m };
        let place =
            Change::Place(Place { how, position: spot.position, by, on: Some(spot.name.clone()), mounted_on: None });
        let corner = spot.kind == Some(SpotKind::InsideCorner);
        // An inside corner sees two walls, and is sheltered.
        let effort = 2.5 + by / 40.0 - if corner { CORNER } else { 0.0 };
        let changes = self.followed(place, true);
        self.kept(changes.clone(), effort).or_else(|| {
            self.focals()
                .into_iter()
                .find_map(|focal| self.kept([changes.clone(), vec![Change::Focal(focal)]].concat(), effort + 0.3))
        })
    }

    /// A place nearer to the target along the ground where there is something to hold on to, perhaps with the aim following.
    pub(super) fn nearer(&self, aiming: bool) -> Option<Candidate> {
        let (centre, ground) = self.towards_target();
        let farthest = (ground - NEAREST_M).min(FARTHEST_M);
        let steps = (farthest / NEARER_STEP_M).floor().max(0.0) as u32;
        let toward = (DVec2::from_array(centre) - DVec2::from_array(self.camera.position)) / ground.max(1e-9);
        let base = if aiming { 6.0 } else { 5.0 };
        (1..=steps).find_map(|step| {
            let by = neat(f64::from(step) * NEARER_STEP_M, 0.1);
            let hold = self.holds_on(DVec2::from_array(self.camera.position) + toward * by)?;
            self.moved(Moved::Nearer, toward * by, by, hold, aiming, base + by / 20.0)
        })
    }

    /// A place straight back from the target where there is something to hold on to, the aim following: what is seen too steeply is seen
    /// flatter from there.
    pub(super) fn back(&self) -> Option<Candidate> {
        let (centre, ground) = self.towards_target();
        let away = (DVec2::from_array(self.camera.position) - DVec2::from_array(centre)) / ground.max(1e-9);
        (1..=(FARTHEST_M / STEP_M) as u32).find_map(|step| {
            let by = f64::from(step) * STEP_M;
            let hold = self.holds_on(DVec2::from_array(self.camera.position) + away * by)?;
            self.moved(Moved::Back, away * by, by, hold, true, 6.0 + by / 20.0)
        })
    }

    /// A place sideways along the wall that it hangs on, as far off it as it hangs now, the aim following.
    pub(super) fn sideways(&self) -> Option<Candidate> {
        let here = DVec2::from_array(self.camera.position);
        let (solid, along) = self.hangs_on(here)?;
        let off = |at: DVec2| solid.nearest_on_outline(at).distance(at);
        let hold = Hold { on: self.name_of(solid), mounted_on: self.camera.mounted_on.clone() };
        (1..=(FARTHEST_M / STEP_M) as u32).find_map(|step| {
            let by = f64::from(step) * STEP_M;
            [1.0, -1.0].into_iter().find_map(|side| {
                let step = along * by * side;
                // Past the wall's end there is nothing to hang it on.
                let still = (off(here + step) - off(here)).abs() < HANGS_ON_M;
                still.then(|| self.moved(Moved::Sideways, step, by, hold.clone(), true, 4.5 + by / 20.0)).flatten()
            })
        })
    }

    /// What there is to hold on to at a place: a wall, a pole or a corner within a bracket's reach.
    fn holds_on(&self, at: DVec2) -> Option<Hold> {
        let height = self.camera.ground_m + self.camera.height_m;
        let file = self.desk.site.file();
        // A van drives away, and a door opens.
        let stays = |solid: &&Solid| {
            let kind = file.obstacles.iter().find(|o| o.id == solid.id()).map(|o| o.kind);
            !matches!(kind, Some(ObstacleKind::Vehicle | ObstacleKind::Door | ObstacleKind::Glass))
        };
        let solid = near_solids(self.desk.site.scene(), height, at).find(stays)?;
        Some(Hold { on: self.name_of(solid), mounted_on: None })
    }

    fn moved(&self, how: Moved, step: DVec2, by: f64, hold: Hold, aiming: bool, effort: f64) -> Option<Candidate> {
        let at = DVec2::from_array(self.camera.position) + step;
        let position: Point2 = [neat(at.x, 0.001), neat(at.y, 0.001)];
        let place = Change::Place(Place { how, position, by, on: hold.on, mounted_on: hold.mounted_on });
        self.kept(self.followed(place, aiming), effort)
    }

    /// The solid that the camera hangs on, and the direction of its face there.
    fn hangs_on(&self, here: DVec2) -> Option<(&Solid, DVec2)> {
        let height = self.camera.ground_m + self.camera.height_m;
        let named = |solid: &&Solid| self.camera.mounted_on.as_deref() == Some(solid.id());
        let mut near = near_solids(self.desk.site.scene(), height, here);
        let first = near.next()?;
        let solid = std::iter::once(first).chain(near).find(named).unwrap_or(first);
        let off = |(a, b): &(DVec2, DVec2)| nearest_on(here, *a, *b).distance(here);
        let edge = solid.edges().min_by(|a, b| off(a).total_cmp(&off(b)))?;
        Some((solid, (edge.1 - edge.0).normalize_or_zero()))
    }

    fn name_of(&self, solid: &Solid) -> Option<String> {
        self.desk.site.file().obstacles.iter().find(|obstacle| obstacle.id == solid.id()).map(|o| o.name.clone())
    }
}

/// What a camera holds on to.
#[derive(Clone, Debug, Default)]
struct Hold {
    on: Option<String>,
    mounted_on: Option<String>,
}

/// The solids within a bracket's reach of a place that are as high as a camera would hang there, the nearest first.
fn near_solids(scene: &Scene, height: f64, at: DVec2) -> impl Iterator<Item = &Solid> {
    let off = move |solid: &Solid| solid.nearest_on_outline(at).distance(at);
    let high = |solid: &&Solid| solid.blocks() && solid.base() < height && height < solid.top() + BRACKET_M;
    let mut near: Vec<(f64, &Solid)> = scene.solids().iter().filter(high).map(|solid| (off(solid), solid)).collect();
    near.retain(|(off, _)| *off <= BRACKET_M);
    near.sort_by(|a, b| a.0.total_cmp(&b.0));
    near.into_iter().map(|(_, solid)| solid)
}

/// The spots of a site that no camera sits on.
pub(super) fn free_spots(file: &crate::file::SiteFile) -> Vec<&Spot> {
    let taken = |spot: &Spot| file.cameras.iter().any(|camera| hangs_at(camera, spot));
    file.spots.iter().filter(|spot| !taken(spot)).collect()
}

/// Whether a camera takes a spot.
pub(crate) fn hangs_at(camera: &CameraFile, spot: &Spot) -> bool {
    camera.spot.as_deref() == Some(spot.id.as_str())
        || DVec2::from_array(camera.position).distance(DVec2::from_array(spot.position)) < TAKEN_M
}
