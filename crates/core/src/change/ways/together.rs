//! Ways in which several heads keep a line or an area together: the head in question turned to the part that nobody has, or a camera more
//! for that part.

use super::beyond::first_head_of;
use super::change::{Candidate, Change, patch};
use super::desk::Desk;
use super::rank::{Rank, compare_sites};
use super::search::focal_steps;
use super::way::{Effect, Measures, Way, WayKind};
use super::words;
use crate::change::edits::{aim_between, fresh_id, new_camera};
use crate::file::{Form, PatchOp, Subject, Which};
use crate::judge::evaluation::{Seen, eye_around, seen_by, verdicts, view};
use crate::verdict::Verdict;
use crate::words::units::Units;
use glam::DVec3;
use serde_json::json;

/// What a camera more takes, as one that does it alone, and a little more: two have to be looked after.
const ONE_MORE: f64 = 7.2;
/// How many spots are tried.
const MOST_SPOTS: usize = 4;

/// The ways in which heads keep a target together that one alone does not keep.
pub fn together(desk: &Desk, units: Units) -> Vec<(Rank, Way)> {
    let target = desk.target();
    if target.samples.len() < 2 || target.moving_lane().is_some() {
        return vec![];
    }
    // The samples that no head keeps.
    let kept = |place: usize| {
        let views = desk.session.views().iter().map(|view| &view.targets[desk.target_place]);
        views.into_iter().any(|judged| judged.part(place).verdict == Verdict::Kept)
    };
    let left: Vec<DVec3> =
        target.samples.iter().enumerate().filter(|(place, _)| !kept(*place)).map(|(_, sample)| *sample).collect();
    let any_kept = left.len() < target.samples.len();
    if left.is_empty() || !any_kept {
        return vec![];
    }
    turned_to_the_rest(desk, &left, units).into_iter().chain(one_more_for_the_rest(desk, &left, units)).collect()
}

fn keeps(desk: &Desk, effects: &[Effect]) -> bool {
    effects.iter().any(|effect| effect.target == desk.target().id && effect.after == Verdict::Kept)
}

fn turned_to_the_rest(desk: &Desk, left: &[DVec3], units: Units) -> Option<(Rank, Way)> {
    desk.budget.next_search();
    let camera = desk.camera();
    let head = (desk.head_place, desk.which);
    let now = camera.heads[head.0].aimed(head.1);
    let aim = aim_between(camera.eye(), left, now.pan_deg);
    let shares = [0.25, 0.5, 0.75, 1.0];
    shares.into_iter().find_map(|share| {
        let pan = now.pan_deg + turn(now.pan_deg, aim.pan_deg) * share;
        let tilt = now.tilt_deg + (aim.tilt_deg - now.tilt_deg) * share;
        let change = Change::Aim((pan * 10.0).round() / 10.0, (tilt * 10.0).round() / 10.0);
        let candidate = Candidate { head, changes: vec![change], effort: 1.0 + share };
        let then = candidate.applied(camera);
        if !desk.can_be_built(&then) {
            return None;
        }
        let (rank, effects) = desk.consequences(candidate.effort, &then)?;
        let way = Way {
            kind: WayKind::OtherHead,
            says: format!("{}: together with the others it has all of it", words::says(desk, &candidate, units)),
            why: words::why(desk, &candidate, units),
            head: desk.head(&then).name(),
            target: Some(desk.target().id.clone()),
            measures: Measures::default(),
            patch: patch(desk.camera_place, camera, &then),
            harms: rank.harms(),
            effects,
        };
        keeps(desk, &way.effects).then_some((rank, way))
    })
}

fn turn(from_deg: f64, to_deg: f64) -> f64 {
    (to_deg - from_deg + 180.0).rem_euclid(360.0) - 180.0
}

fn one_more_for_the_rest(desk: &Desk, left: &[DVec3], units: Units) -> Option<(Rank, Way)> {
    desk.budget.next_search();
    let file = desk.site.file();
    let plate = desk.target().subject == Subject::Plate;
    let middle = left.iter().sum::<DVec3>() / left.len() as f64;
    let mut spots = super::places::free_spots(file);
    spots.retain(|spot| plate || spot.height_m >= desk.site.rules().mount_min_m);
    let far = |at: [f64; 2]| (at[0] - middle.x).hypot(at[1] - middle.y);
    spots.sort_by(|a, b| far(a.position).total_cmp(&far(b.position)));
    let own = &desk.camera().model;
    let of_one_head = own.head_count.unwrap_or(1) == 1 && !matches!(own.form, Form::Ptz | Form::Fisheye);
    spots.into_iter().take(MOST_SPOTS).find_map(|spot| {
        let mut camera = new_camera(desk.site, spot.position, 0.1, None).ok()?;
        if of_one_head {
            camera.model = own.clone();
        }
        camera.heads.truncate(1);
        camera.id = fresh_id("c", file.cameras.iter().map(|camera| camera.id.as_str()));
        let aim = aim_between(camera.eye(), left, 0.0);
        (camera.heads[0].pan_deg, camera.heads[0].tilt_deg) = (aim.pan_deg, aim.tilt_deg);
        let focals = focal_steps(camera.model.lens.focal_min_mm, camera.model.lens.focal_max_mm, 4.0);
        focals.into_iter().step_by(4).find_map(|focal| {
            let mut camera = camera.clone();
            camera.heads[0].focal_mm = focal;
            if !desk.pays_for_all(1) {
                return None;
            }
            let head = desk.site.head_of(file.cameras.len(), &camera, (0, Which::Own));
            let eye = eye_around(desk.site, &head);
            let view = view(desk.site, &head, &eye);
            let mut seen: Vec<Seen> = seen_by(desk.site, desk.session.views());
            seen.push(Seen { head: &head, view: &view });
            let (rank, effects) =
                compare_sites(ONE_MORE, desk.site, desk.session.results(), &verdicts(desk.site, &seen));
            let rank = desk.by_school(rank, &seen);
            let way = Way {
                kind: WayKind::Camera,
                says: format!(
                    "Put up one more camera at {} for the part that no camera has: {}",
                    spot.name, camera.model.name
                ),
                why: words::of_new(desk, &camera, units),
                head: first_head_of(&camera),
                target: Some(desk.target().id.clone()),
                measures: Measures::default(),
                patch: vec![PatchOp { op: "add", path: "/cameras/-".to_owned(), value: Some(json!(camera)) }],
                harms: rank.harms(),
                effects,
            };
            keeps(desk, &way.effects).then_some((rank, way))
        })
    })
}
