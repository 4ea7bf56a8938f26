//! Ways that leave the head in question as it is: measure what is not sure, let another head see it, put one more camera up.

use super::change::patch;
use super::desk::Desk;
use super::rank::{Rank, compare_sites};
use super::search::Search;
use super::way::{Measures, Way, WayKind};
use super::words;
use crate::change::edits::{fresh_id, new_camera};
use crate::file::{CameraFile, Distance, DistanceHow, Form, HeadRef, Model, PatchOp, Subject, Which};
use crate::judge::evaluation::{Seen, eye_around, promise_of, seen_by, verdicts, view, viewer_of};
use crate::judge::sight_line::{judge, keeps};
use crate::site::{Head, Target};
use crate::verdict::Verdict;
use crate::words::units::Units;
use serde_json::json;

/// How many other heads are asked.
const MOST_HEADS: usize = 6;

/// Where it holds as drawn and only the distance is not sure enough: the tape.
pub fn measured(desk: &Desk) -> Option<(Rank, Way)> {
    let file = &desk.site.file().targets[desk.target_place];
    if file.distance.how == DistanceHow::Laser {
        return None;
    }
    desk.budget.next_search();
    let mut then = file.clone();
    then.distance = Distance { how: DistanceHow::Laser, ..Distance::default() };
    let target = Target::new(&then, desk.site.rules());
    if !desk.keeps_target(desk.camera(), &target) {
        return None;
    }
    let judged: Vec<_> = desk
        .site
        .heads()
        .iter()
        .map(|head| {
            let eye = eye_around(desk.site, head);
            (head, judge(viewer_of(desk.site, head, &eye), &target))
        })
        .collect();
    let heads: Vec<_> = judged.iter().map(|(head, judged)| (*head, judged)).collect();
    let mut results = desk.session.results().to_vec();
    results[desk.target_place] = promise_of(desk.site, &target, &heads);
    let (rank, effects) = compare_sites(0.8, desk.site, desk.session.results(), &results);
    let path = format!("/targets/{}/distance", desk.target_place);
    let value = Some(json!(then.distance));
    let way = Way {
        kind: WayKind::Measure,
        says: "Measure it by laser".to_owned(),
        why: "as drawn it holds: only how far it is, is not sure enough. If the tape says otherwise, this verdict follows it".to_owned(),
        head: desk.head(desk.camera()).name(),
        target: Some(desk.target().id.clone()),
        measures: Measures::default(),
        patch: vec![PatchOp { op: "add", path, value }],
        effects,
        harms: rank.harms(),
    };
    Some((rank, way))
}

/// Other heads that are there and keep the promise once they are turned or zoomed; the nearest few are asked.
pub fn other_heads(desk: &Desk, units: Units) -> Vec<(Rank, Way)> {
    let middle = desk.target().middle;
    let plate = desk.target().subject == Subject::Plate;
    // A plate camera sees no people by night, and a general one no plates.
    let suits = |head: &&Head| head.camera() != desk.camera_place && (head.mounting().form == Form::Plate) == plate;
    let mut heads: Vec<&Head> = desk.site.heads().iter().filter(suits).collect();
    heads.sort_by(|a, b| a.position().distance(middle).total_cmp(&b.position().distance(middle)));
    heads.truncate(MOST_HEADS);
    heads.into_iter().filter_map(|head| other_head(desk, head, units)).collect()
}

fn other_head(desk: &Desk, head: &Head, units: Units) -> Option<(Rank, Way)> {
    desk.budget.next_search();
    let other = Desk::of(desk.session, head, desk.target_place, desk.budget);
    let search = Search::new(&other);
    // One that keeps it already is no way: the promise would be kept.
    let candidate = search.turned_or_zoomed()?;
    let then = candidate.applied(other.camera());
    let (rank, effects) = other.consequences(1.5 + candidate.effort, &then)?;
    if !keeps_promise(desk, &effects) {
        return None;
    }
    let says = words::says(&other, &candidate, units);
    let way = Way {
        kind: WayKind::OtherHead,
        says: format!("Let {} see it: {}", other.camera().name, lower(&says)),
        why: words::why(&other, &candidate, units),
        head: other.head(&then).name(),
        target: Some(desk.target().id.clone()),
        measures: Measures::default(),
        patch: patch(other.camera_place, other.camera(), &then),
        effects,
        harms: rank.harms(),
    };
    Some((rank, way))
}

/// One more camera, on a free surveyed spot.
pub fn one_more(desk: &Desk, catalogue: &[Model], units: Units) -> Option<(Rank, Way)> {
    desk.budget.next_search();
    let file = desk.site.file();
    let target = &desk.target().id;
    let plate = desk.target().subject == Subject::Plate;
    let reader = || catalogue.iter().find(|model| model.form == Form::Plate).cloned();
    let suits = |model: &Model| (model.form == Form::Plate) == plate;
    let models = [Some(desk.camera().model.clone()).filter(suits), if plate { reader() } else { None }];
    let mut spots = super::places::free_spots(file);
    spots.retain(|spot| plate || spot.height_m >= desk.site.rules().mount_min_m);
    spots.iter().flat_map(|spot| models.iter().map(move |model| (spot, model))).find_map(|(spot, model)| {
        let mut camera = new_camera(desk.site, spot.position, 0.1, Some(target)).ok()?;
        let of_one_head = |model: &&Model| model.head_count.unwrap_or(1) == 1 && model.form != Form::Ptz;
        if let Some(model) = model.as_ref().filter(of_one_head) {
            camera.model = model.clone();
        }
        camera.heads.truncate(1);
        camera.id = fresh_id("c", file.cameras.iter().map(|camera| camera.id.as_str()));
        let focals = super::search::focal_steps(camera.model.lens.focal_min_mm, camera.model.lens.focal_max_mm, 4.0);
        let found = focals.into_iter().find_map(|focal| {
            let mut camera = camera.clone();
            camera.heads[0].focal_mm = focal;
            desk.budget.pay(1).then(|| added(desk, camera, ONE_MORE)).flatten()
        });
        let (rank, effects, camera) = found?;
        let way = Way {
            kind: WayKind::Camera,
            says: format!("Put up one more camera at {}: {}", spot.name, camera.model.name),
            why: words::of_new(desk, &camera, units),
            head: first_head_of(&camera),
            target: Some(target.clone()),
            measures: Measures::default(),
            patch: vec![PatchOp { op: "add", path: "/cameras/-".to_owned(), value: Some(json!(camera)) }],
            effects,
            harms: rank.harms(),
        };
        Some((rank, way))
    })
}

/// The first head of a camera that is put up.
pub(super) fn first_head_of(camera: &CameraFile) -> HeadRef {
    let head = camera.heads.first().map(|head| head.id.clone()).unwrap_or_default();
    HeadRef { camera: camera.id.clone(), head, view: None }
}

/// The effort of one more camera.
const ONE_MORE: f64 = 7.0;

/// What one more camera does to the promises at some effort, if it keeps the one in question.
pub fn added(desk: &Desk, camera: CameraFile, effort: f64) -> Option<(Rank, Vec<super::way::Effect>, CameraFile)> {
    let file = desk.site.file();
    let head = desk.site.head_of(file.cameras.len(), &camera, (0, Which::Own));
    let eye = eye_around(desk.site, &head);
    let viewer = viewer_of(desk.site, &head, &eye);
    let mut looked = |_: usize, _: bool| desk.budget.pay(1);
    if desk.site.scene().solid_around(eye.from()).is_some() || !keeps(viewer, desk.target(), 0, &mut looked) {
        return None;
    }
    if !desk.pays_for_all(1) {
        return None;
    }
    let view = view(desk.site, &head, &eye);
    let mut seen: Vec<Seen> = seen_by(desk.site, desk.session.views());
    seen.push(Seen { head: &head, view: &view });
    let (rank, effects) = compare_sites(effort, desk.site, desk.session.results(), &verdicts(desk.site, &seen));
    let rank = desk.by_school(rank, &seen);
    // A plate may lack its overview still: it is better off than before.
    let better = |effect: &super::way::Effect| effect.target == desk.target().id && effect.after < effect.before;
    let helps = keeps_promise(desk, &effects) || desk.target().moving_lane().is_some() && effects.iter().any(better);
    helps.then_some((rank, effects, camera))
}

fn keeps_promise(desk: &Desk, effects: &[super::way::Effect]) -> bool {
    effects.iter().any(|effect| effect.target == desk.target().id && effect.after == Verdict::Kept)
}

fn lower(text: &str) -> String {
    let mut letters = text.chars();
    letters.next().map_or(String::new(), |first| first.to_lowercase().chain(letters).collect())
}
