//! A session after any changes is a fresh evaluation of the same file.

use crate::support;
use bright_angle_core::file::{CameraFile, ListChange, Obstacle, SiteChange, SiteFile, TargetFile};
use bright_angle_core::judge::Session;
use bright_angle_core::{Site, evaluate};
use proptest::prelude::*;
use serde_json::{Value, json};
use support::DEMOS;

fn demo() -> SiteFile {
    SiteFile::parse(DEMOS[0]).unwrap()
}

fn ids<T>(list: &[T], id: fn(&T) -> &String) -> Vec<String> {
    list.iter().map(|item| id(item).clone()).collect()
}

/// Every list of the file.
const LISTS: u8 = 8;

/// One thing that a hand may do.
#[derive(Clone, Debug)]
enum Act {
    MoveCamera(usize, f64, f64),
    Turn(usize, f64, f64),
    Raise(usize, f64),
    MoveTarget(usize, f64, f64),
    Reshape(usize, u8),
    Need(usize, f64),
    MoveObstacle(usize, f64, f64),
    Top(usize, f64),
    SeeThrough(usize, f64),
    Delete(u8, usize),
    Copy(u8, usize),
    Reverse(u8),
    Limits(f64),
    Heads(usize, usize),
    MoveSpot(usize, f64),
    Mount(usize, usize),
    Night(bool),
    Lamp(f64, f64),
    Garden(f64, f64),
    Expose(usize, u8),
    Emitter(usize, f64, f64),
    Hang(usize, u8),
    Plate(usize, f64),
    Existing(usize, u8),
    Matters(usize, u32),
}

fn act() -> impl Strategy<Value = Act> {
    let (n, step) = (0..12_usize, -20.0..20.0_f64);
    prop_oneof![
        (n.clone(), step.clone(), step.clone()).prop_map(|(n, x, y)| Act::MoveCamera(n, x, y)),
        (n.clone(), -180.0..180.0_f64, -20.0..80.0_f64).prop_map(|(n, pan, tilt)| Act::Turn(n, pan, tilt)),
        (n.clone(), 0.5..8.0_f64).prop_map(|(n, height)| Act::Raise(n, height)),
        (n.clone(), step.clone(), step.clone()).prop_map(|(n, x, y)| Act::MoveTarget(n, x, y)),
        (n.clone(), 0..3_u8).prop_map(|(n, kind)| Act::Reshape(n, kind)),
        (n.clone(), 5.0..400.0_f64).prop_map(|(n, need)| Act::Need(n, need)),
        (n.clone(), step.clone(), step.clone()).prop_map(|(n, x, y)| Act::MoveObstacle(n, x, y)),
        (n.clone(), 0.5..9.0_f64).prop_map(|(n, top)| Act::Top(n, top)),
        (n.clone(), 0.0..1.0_f64).prop_map(|(n, see)| Act::SeeThrough(n, see)),
        (0..LISTS, n.clone()).prop_map(|(list, n)| Act::Delete(list, n)),
        (0..LISTS, n.clone()).prop_map(|(list, n)| Act::Copy(list, n)),
        (0..LISTS).prop_map(Act::Reverse),
        (0.1..3.0_f64).prop_map(Act::Limits),
        (n.clone(), 1..4_usize).prop_map(|(n, heads)| Act::Heads(n, heads)),
        (n.clone(), 0.0..0.2_f64).prop_map(|(n, by)| Act::MoveSpot(n, by)),
        (n.clone(), n.clone()).prop_map(|(n, on)| Act::Mount(n, on)),
        any::<bool>().prop_map(Act::Night),
        (0.0..80.0_f64, 0.0..60.0_f64).prop_map(|(x, y)| Act::Lamp(x, y)),
        (0.0..80.0_f64, 0.0..60.0_f64).prop_map(|(x, y)| Act::Garden(x, y)),
        (n.clone(), 0..4_u8).prop_map(|(n, how)| Act::Expose(n, how)),
        (n.clone(), -6.0..6.0_f64, -6.0..6.0_f64).prop_map(|(n, x, y)| Act::Emitter(n, x, y)),
        (n.clone(), 0..6_u8).prop_map(|(n, how)| Act::Hang(n, how)),
        (n.clone(), 0.0..12.0_f64).prop_map(|(n, speed)| Act::Plate(n, speed)),
        (n.clone(), 0..4_u8).prop_map(|(n, how)| Act::Existing(n, how)),
        (n, 1..9_u32).prop_map(|(n, importance)| Act::Matters(n, importance)),
    ]
}

fn one<T>(put: T) -> Option<ListChange<T>> {
    Some(ListChange { order: None, put: vec![put] })
}

fn camera(file: &SiteFile, n: usize, change: impl FnOnce(&mut CameraFile)) -> SiteChange {
    let Some(held) = file.cameras.get(n % file.cameras.len().max(1)) else { return SiteChange::default() };
    let mut held = held.clone();
    change(&mut held);
    SiteChange { cameras: one(held), ..SiteChange::default() }
}

fn target(file: &SiteFile, n: usize, change: impl FnOnce(&mut TargetFile)) -> SiteChange {
    let Some(held) = file.targets.get(n % file.targets.len().max(1)) else { return SiteChange::default() };
    let mut held = held.clone();
    change(&mut held);
    SiteChange { targets: one(held), ..SiteChange::default() }
}

fn obstacle(file: &SiteFile, n: usize, change: impl FnOnce(&mut Obstacle)) -> SiteChange {
    let Some(held) = file.obstacles.get(n % file.obstacles.len().max(1)) else { return SiteChange::default() };
    let mut held = held.clone();
    change(&mut held);
    SiteChange { obstacles: one(held), ..SiteChange::default() }
}

/// A list with something taken out, copied, or turned about.
fn relisted<T: Clone>(list: &[T], id: fn(&T) -> &String, rename: fn(&mut T, String), act: &Act) -> ListChange<T> {
    let mut order = ids(list, id);
    let mut put = vec![];
    match act {
        Act::Delete(_, n) if !order.is_empty() => drop(order.remove(n % list.len())),
        Act::Copy(_, n) if !order.is_empty() => {
            let mut copy = list[n % list.len()].clone();
            let fresh = (0..).map(|i| format!("copy{i}")).find(|id| !order.contains(id)).unwrap();
            rename(&mut copy, fresh.clone());
            order.insert(n % list.len(), fresh);
            put.push(copy);
        }
        Act::Reverse(_) => order.reverse(),
        _ => {}
    }
    ListChange { order: Some(order), put }
}

fn change(file: &SiteFile, act: &Act) -> SiteChange {
    let shifted = |points: &mut [[f64; 2]], x: f64, y: f64| points.iter_mut().for_each(|p| *p = [p[0] + x, p[1] + y]);
    match act {
        Act::MoveCamera(n, x, y) => camera(file, *n, |c| shifted(std::slice::from_mut(&mut c.position), *x, *y)),
        Act::Turn(n, pan, tilt) => camera(file, *n, |c| (c.heads[0].pan_deg, c.heads[0].tilt_deg) = (*pan, *tilt)),
        Act::Raise(n, height) => camera(file, *n, |c| c.height_m = *height),
        Act::Heads(n, heads) => camera(file, *n, |c| {
            let first = c.heads[0].clone();
            c.heads = (0..*heads)
                .map(|i| {
                    let mut head = first.clone();
                    (head.id, head.pan_deg) = (format!("h{}", i + 1), first.pan_deg * 0.5 + 60.0 * i as f64);
                    head
                })
                .collect();
        }),
        Act::MoveTarget(n, x, y) => target(file, *n, |t| shifted(&mut t.shape.points, *x, *y)),
        Act::Reshape(n, kind) => target(file, *n, |t| {
            let [x, y] = t.shape.points[0];
            let points =
                [vec![[x, y]], vec![[x, y], [x + 4.0, y + 1.0]], vec![[x, y], [x + 4.0, y], [x + 2.0, y + 3.0]]];
            let kinds = ["point", "line", "area"].map(|kind| serde_json::from_value(json!(kind)).unwrap());
            (t.shape.kind, t.shape.points) = (kinds[*kind as usize], points[*kind as usize].clone());
        }),
        Act::Need(n, need) => target(file, *n, |t| t.needs_px_per_m = Some(*need)),
        Act::MoveObstacle(n, x, y) => obstacle(file, *n, |o| shifted(&mut o.outline, *x, *y)),
        Act::Top(n, top) => obstacle(file, *n, |o| o.top_m = *top),
        Act::SeeThrough(n, see) => obstacle(file, *n, |o| o.see_through = *see),
        Act::MoveSpot(n, by) => {
            // A camera that hangs a little off its spot is measured from elsewhere.
            let Some(mut spot) = file.spots.get(n % file.spots.len().max(1)).cloned() else {
                return SiteChange::default();
            };
            spot.position[0] += by;
            SiteChange { spots: one(spot), ..SiteChange::default() }
        }
        Act::Mount(n, on) => {
            let on = file.obstacles.get(on % file.obstacles.len().max(1)).map(|obstacle| obstacle.id.clone());
            camera(file, *n, |camera| camera.mounted_on = on)
        }
        Act::Limits(aim) => {
            let mut rules = file.rules;
            rules.uncertainties.aim_deg = *aim;
            let heading = json!({"name": "Other limits", "rules": rules});
            SiteChange { head: serde_json::from_value(heading).unwrap(), ..SiteChange::default() }
        }
        Act::Delete(list, _) | Act::Copy(list, _) | Act::Reverse(list) => match list {
            0 => {
                let cameras = relisted(&file.cameras, |c| &c.id, |c, id| c.id = id, act);
                SiteChange { cameras: Some(cameras), ..SiteChange::default() }
            }
            1 => {
                let targets = relisted(&file.targets, |t| &t.id, |t, id| t.id = id, act);
                SiteChange { targets: Some(targets), ..SiteChange::default() }
            }
            2 => {
                let obstacles = relisted(&file.obstacles, |o| &o.id, |o, id| o.id = id, act);
                SiteChange { obstacles: Some(obstacles), ..SiteChange::default() }
            }
            3 => {
                let lamps = relisted(&file.lamps, |l| &l.id, |l, id| l.id = id, act);
                SiteChange { lamps: Some(lamps), ..SiteChange::default() }
            }
            4 => {
                let private = relisted(&file.private, |p| &p.id, |p, id| p.id = id, act);
                SiteChange { private: Some(private), ..SiteChange::default() }
            }
            5 => {
                let spots = relisted(&file.spots, |s| &s.id, |s, id| s.id = id, act);
                SiteChange { spots: Some(spots), ..SiteChange::default() }
            }
            6 => {
                let readings = relisted(&file.readings, |r| &r.id, |r, id| r.id = id, act);
                SiteChange { readings: Some(readings), ..SiteChange::default() }
            }
            _ => {
                let variants = relisted(&file.variants, |v| &v.id, |v, id| v.id = id, act);
                SiteChange { variants: Some(variants), ..SiteChange::default() }
            }
        },
        Act::Night(night) => {
            let mut heading = json!({"name": file.name, "rules": file.rules, "conditions": file.conditions});
            heading["conditions"]["night"] = json!(night);
            heading["place"] = json!(file.place);
            SiteChange { head: serde_json::from_value(heading).unwrap(), ..SiteChange::default() }
        }
        Act::Lamp(x, y) => {
            let id = format!("lamp{}", file.lamps.len());
            let lamp = json!({"id": id, "name": "Lamp", "position": [x, y], "height_m": 5, "lumens": 5000});
            let order =
                ids(&file.lamps, |l| &l.id).into_iter().filter(|held| *held != id).chain([id.clone()]).collect();
            let lamps = ListChange { order: Some(order), put: vec![serde_json::from_value(lamp).unwrap()] };
            SiteChange { lamps: Some(lamps), ..SiteChange::default() }
        }
        Act::Garden(x, y) => {
            let id = format!("garden{}", file.private.len());
            let place = json!({"id": id, "name": "Garden", "base_m": 0, "top_m": 2.2,
                "outline": [[x, y], [x + 4.0, y], [x + 4.0, y + 3.0], [*x, y + 3.0]]});
            let order =
                ids(&file.private, |p| &p.id).into_iter().filter(|held| *held != id).chain([id.clone()]).collect();
            let private = ListChange { order: Some(order), put: vec![serde_json::from_value(place).unwrap()] };
            SiteChange { private: Some(private), ..SiteChange::default() }
        }
        Act::Expose(n, how) => camera(file, *n, |c| {
            let how = [
                json!(null),
                json!({"shutter_s": 0.001, "fps": 25}),
                json!({"fps": 12, "infrared_share": 0.1}),
                json!({"shutter_s": 0.01, "fps": 25, "mode": "auto"}),
            ][*how as usize]
                .clone();
            c.heads[0].exposure = serde_json::from_value(how).unwrap();
        }),
        Act::Emitter(n, x, y) => camera(file, *n, |c| {
            let [east, north] = c.position;
            let light = json!({"range_m": 40, "beam_deg": 90});
            let lamp = json!({"position": [east + x, north + y], "height_m": 3, "light": light});
            c.emitter = serde_json::from_value(lamp).unwrap();
        }),
        Act::Hang(n, how) => camera(file, *n, |c| {
            let (form, hangs) = [
                ("dome", json!("wall")),
                ("dome", json!(null)),
                ("dome", json!("ceiling")),
                ("turret", json!("pole")),
                ("box", json!(null)),
                ("plate", json!("wall")),
            ][*how as usize]
                .clone();
            (c.model.form, c.mounted_as) =
                (serde_json::from_value(json!(form)).unwrap(), serde_json::from_value(hangs).unwrap());
        }),
        Act::Existing(n, how) => camera(file, *n, |c| {
            let how = [json!(null), json!("stays"), json!("goes"), json!("reused")][*how as usize].clone();
            c.existing = serde_json::from_value(how).unwrap();
        }),
        Act::Matters(n, importance) => target(file, *n, |t| t.importance = Some(*importance)),
        Act::Plate(n, speed) => target(file, *n, |t| {
            t.subject = serde_json::from_value(json!("plate")).unwrap();
            t.task = serde_json::from_value(json!("read")).unwrap();
            (t.speed_mps, t.height_m, t.size_m) = (*speed, 0.8, None);
        }),
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(120))]
    #[test]
    fn a_session_is_a_fresh_evaluation(start in 0..4_usize, bare in any::<bool>(), night in any::<bool>(), acts in prop::collection::vec(act(), 1..12)) {
        let mut file = SiteFile::parse(DEMOS[start]).unwrap();
        if bare {
            // From none of what may come.
            (file.lamps, file.private) = (vec![], vec![]);
        }
        file.conditions.night = night;
        let mut session = Session::open(file).unwrap();
        for act in &acts {
            let before = session.site().file().clone();
            let change = change(&before, act);
            let mut file = before.clone();
            let fresh = change.clone().apply(&mut file).and_then(|_| Site::from_file(file.clone()));
            match (session.apply(change), fresh) {
                (Ok(delta), Ok(fresh)) => {
                    prop_assert_eq!(session.site().file(), &file);
                    let expected = evaluate(&fresh);
                    prop_assert_eq!(&session.evaluation(), &expected, "after {:?}", act);
                    for result in &delta.targets {
                        prop_assert!(expected.targets.contains(result));
                    }
                }
                (Err(found), Err(expected)) => {
                    prop_assert_eq!(found, expected, "the same faults, after {:?}", act);
                    prop_assert_eq!(session.site().file(), &before, "nothing is changed by what is refused");
                }
                (found, expected) => prop_assert!(false, "{act:?}: {found:?} but {:?}", expected.err()),
            }
        }
    }
}

#[test]
fn only_what_a_change_touches_is_judged_again() {
    let mut session = Session::open(demo()).unwrap();
    let (heads, targets) = (session.site().heads().len(), session.site().targets().len());
    let file = session.site().file().clone();
    let judged = |session: &mut Session, act: &Act| session.apply(change(&file, act)).unwrap().judged;
    assert_eq!(judged(&mut session, &Act::Turn(0, 10.0, 5.0)), targets);
    assert_eq!(judged(&mut session, &Act::Need(0, 99.0)), heads);
    assert_eq!(judged(&mut session, &Act::Limits(2.0)), heads * targets);
    let moved = judged(&mut session, &Act::MoveObstacle(0, 0.1, 0.0));
    assert!(moved > 0 && moved < heads * targets, "{moved}");
    // Far from every line nothing is judged.
    session.apply(change(&file, &Act::MoveObstacle(0, 5000.0, 5000.0))).unwrap();
    let far = session.site().file().clone();
    assert_eq!(session.apply(change(&far, &Act::MoveObstacle(0, 10.0, 0.0))).unwrap().judged, 0);
}

#[test]
fn what_nobody_has_is_named() {
    let mut session = Session::open(demo()).unwrap();
    let stray: SiteChange = serde_json::from_value(json!({"cameras": {"order": ["c1", "c99"], "put": []}})).unwrap();
    assert!(session.apply(stray).unwrap_err()[0].message.contains("\"c99\""));
    let twice: SiteChange = serde_json::from_value(json!({"targets": {"order": ["t1", "t1"], "put": []}})).unwrap();
    assert!(session.apply(twice).is_err());
    let mut camera: Value = serde_json::to_value(&demo().cameras[0]).unwrap();
    camera["height_m"] = json!(-4.0);
    let low: SiteChange = serde_json::from_value(json!({"cameras": {"put": [camera]}})).unwrap();
    let faults = session.apply(low).unwrap_err();
    assert_eq!(faults[0].path, "cameras[0].height_m");
    assert_eq!(session.site().file(), &demo());
}

#[test]
fn a_season_a_door_and_a_tour_are_followed_as_if_opened_anew() {
    let file: SiteFile = serde_json::from_str(include_str!("../../../demo/umber-yard.json")).unwrap();
    let mut session = Session::open(file.clone()).unwrap();
    let heading = |leaves_off: bool| json!({"head": {"name": file.name, "brief": file.brief, "design": file.design, "conditions": {"leaves_off": leaves_off, "years": 3.0}}});
    let mut gate = serde_json::to_value(file.obstacles.iter().find(|o| o.id == "o8")).unwrap();
    gate["open"] = json!(false);
    let mut turned = serde_json::to_value(file.cameras.iter().find(|c| c.id == "c3")).unwrap();
    turned["heads"][0]["presets"][1]["dwell_s"] = json!(3.0);
    turned["heads"][0]["presets"].as_array_mut().unwrap().swap(0, 2);
    let changes =
        [heading(true), json!({"obstacles": {"put": [gate]}}), json!({"cameras": {"put": [turned]}}), heading(false)];
    for change in changes {
        session.apply(serde_json::from_value(change).unwrap()).unwrap();
        let anew = Session::open(session.site().file().clone()).unwrap();
        assert_eq!(session.evaluation(), anew.evaluation());
    }
}
