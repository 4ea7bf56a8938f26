//! The search for another place of a camera: surveyed spots, nearer, back, and sideways along the wall that it hangs on.

use super::change::{Candidate, Change, Moved, Place};
use super::search::Search;
use crate::change::edits::neat;
use crate::file::{Point2, Spot};
use crate::scene::Solid;
use glam::DVec2;

/// Steps of the neat values that are tried, m.
const NEARER_STEP_M: f64 = 0.1;
const STEP_M: f64 = 0.25;
/// A camera is not put nearer to its target than this, m.
const NEAREST_M: f64 = 1.0;
/// Nor further back or sideways than this from where it is, m.
const FARTHEST_M: f64 = 8.0;
/// A camera that is this near to a solid hangs on it, m.
const HANGS_ON_M: f64 = 0.05;
/// A spot that is this near to a camera is taken, m.
const TAKEN_M: f64 = 0.3;

impl Search<'_> {
    /// A surveyed spot that is free, each perhaps with another focal length; the nearest first.
    pub(super) fn spots(&self) -> Vec<Candidate> {
        let here = DVec2::from_array(self.camera.position);
        let mut free = free_spots(self.desk.site.file());
        let far = |spot: &Spot| DVec2::from_array(spot.position).distance(here);
        free.retain(|spot| far(spot) > TAKEN_M);
        free.sort_by(|a, b| far(a).total_cmp(&far(b)));
        free.into_iter().filter_map(|spot| self.spot(spot, far(spot))).collect()
    }

    fn spot(&self, spot: &Spot, by: f64) -> Option<Candidate> {
        let how = Moved::Spot { id: spot.id.clone(), height_m: spot.height_m.max(0.05), ground_m: spot.ground_m };
        let place = Change::Place(Place { how, position: spot.position, by, on: Some(spot.name.clone()) });
        let effort = 2.5 + by / 40.0;
        let changes = self.followed(place, true);
        self.kept(changes.clone(), effort).or_else(|| {
            self.focals()
                .into_iter()
                .find_map(|focal| self.kept([changes.clone(), vec![Change::Focal(focal)]].concat(), effort + 0.3))
        })
    }

    /// A place nearer to the target along the ground, perhaps with the aim following.
    pub(super) fn nearer(&self, aiming: bool) -> Option<Candidate> {
        let (centre, ground) = self.towards_target();
        let steps = ((ground - NEAREST_M) / NEARER_STEP_M).floor().max(0.0) as u32;
        let toward = (DVec2::from_array(centre) - DVec2::from_array(self.camera.position)) / ground.max(1e-9);
        let base = if aiming { 6.0 } else { 5.0 };
        (1..=steps).find_map(|step| {
            let by = neat(f64::from(step) * NEARER_STEP_M, 0.1);
            self.moved(Moved::Nearer, toward * by, by, None, aiming, base + by / 20.0)
        })
    }

    /// A place straight back from the target, the aim following: what is seen too steeply is seen flatter from there.
    pub(super) fn back(&self) -> Option<Candidate> {
        let (centre, ground) = self.towards_target();
        let away = (DVec2::from_array(self.camera.position) - DVec2::from_array(centre)) / ground.max(1e-9);
        (1..=(FARTHEST_M / STEP_M) as u32).find_map(|step| {
            let by = f64::from(step) * STEP_M;
            self.moved(Moved::Back, away * by, by, None, true, 6.0 + by / 20.0)
        })
    }

    /// A place sideways, the aim following: along the wall that it hangs on, else square to the line.
    pub(super) fn sideways(&self) -> Option<Candidate> {
        let here = DVec2::from_array(self.camera.position);
        let wall = self.hangs_on(here);
        let (along, on, base) = match wall {
            Some((solid, along)) => (along, self.name_of(solid), 4.5),
            None => {
                let (centre, ground) = self.towards_target();
                ((DVec2::from_array(centre) - here).perp() / ground.max(1e-9), None, 6.0)
            }
        };
        (1..=(FARTHEST_M / STEP_M) as u32).find_map(|step| {
            let by = f64::from(step) * STEP_M;
            [1.0, -1.0].into_iter().find_map(|side| {
                let step = along * by * side;
                // Past the wall's end there is nothing to hang it on.
                let still = wall
                    .is_none_or(|(solid, _)| solid.nearest_on_outline(here + step).distance(here + step) < HANGS_ON_M);
                still.then(|| self.moved(Moved::Sideways, step, by, on.clone(), true, base + by / 20.0)).flatten()
            })
        })
    }

    fn moved(
        &self,
        how: Moved,
        step: DVec2,
        by: f64,
        on: Option<String>,
        aiming: bool,
        effort: f64,
    ) -> Option<Candidate> {
        let at = DVec2::from_array(self.camera.position) + step;
        let position: Point2 = [neat(at.x, 0.001), neat(at.y, 0.001)];
        let place = Change::Place(Place { how, position, by, on });
        self.kept(self.followed(place, aiming), effort)
    }

    /// The solid that the camera hangs on, and the direction of its face there.
    fn hangs_on(&self, here: DVec2) -> Option<(&Solid, DVec2)> {
        let scene = self.desk.site.scene();
        let height = self.camera.height_m;
        let solids = scene.solids().iter().filter(|solid| solid.base() < height && height < solid.top() + HANGS_ON_M);
        solids.filter(|solid| solid.nearest_on_outline(here).distance(here) < HANGS_ON_M).find_map(|solid| {
            let near = |(a, b): &(DVec2, DVec2)| {
                let along = *b - *a;
                let share = ((here - *a).dot(along) / along.length_squared()).clamp(0.0, 1.0);
                (*a + along * share).distance(here)
            };
            let edge = solid.edges().min_by(|a, b| near(a).total_cmp(&near(b)))?;
            Some((solid, (edge.1 - edge.0).normalize_or_zero()))
        })
    }

    fn name_of(&self, solid: &Solid) -> Option<String> {
        self.desk.site.file().obstacles.iter().find(|obstacle| obstacle.id == solid.id()).map(|o| o.name.clone())
    }
}

/// The spots of a site that no camera sits on.
pub(super) fn free_spots(file: &crate::file::SiteFile) -> Vec<&Spot> {
    let taken = |spot: &Spot| {
        let at = DVec2::from_array(spot.position);
        file.cameras.iter().any(|c| {
            c.spot.as_deref() == Some(spot.id.as_str()) || DVec2::from_array(c.position).distance(at) < TAKEN_M
        })
    };
    file.spots.iter().filter(|spot| !taken(spot)).collect()
}
