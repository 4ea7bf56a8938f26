//! Fitting: steps for each form against a list written from the handbook, mounts by hand, materials, the day, how a head hangs in words.

use bright_angle_core::Site;
use bright_angle_core::file::{Fitting, HeadRef, MountPart, SiteFile, StepDone, StepHow, Surface};
use bright_angle_core::fit::day::{Trade, days};
use bright_angle_core::fit::hangs::{HangsWish, PictureSize, hangs};
use bright_angle_core::fit::landmarks::clickables;
use bright_angle_core::fit::materials::{materials, materials_csv};
use bright_angle_core::fit::mount_checks::{anchor_kg, mount_checks, with_mount};
use bright_angle_core::fit::pose::PoseWish;
use bright_angle_core::fit::pose_points::PosePoint;
use bright_angle_core::fit::settings_card::{settings_cards, settings_cards_csv};
use bright_angle_core::fit::steps::{FitState, Phase, Steps, steps_of};
use bright_angle_core::fit::turns::TurnKind;
use bright_angle_core::judge::Session;
use bright_angle_core::verdict::Verdict;
use glam::DVec3;
use serde_json::{Value, json};

fn demo() -> SiteFile {
    SiteFile::parse(include_str!("../../../demo/tern-quay.json")).unwrap()
}

/// The demo's camera c3 as some other form, with more said of it.
fn card_of(form: &str, model: Value, camera: Value) -> Steps {
    let mut file = serde_json::to_value(demo()).unwrap();
    let one = file["cameras"].as_array_mut().unwrap().iter_mut().find(|camera| camera["id"] == "c3").unwrap();
    one["model"]["form"] = json!(form);
    for (key, value) in model.as_object().unwrap() {
        one["model"][key] = value.clone();
    }
    for (key, value) in camera.as_object().unwrap() {
        one[key] = value.clone();
    }
    let file: SiteFile = serde_json::from_value(file).unwrap();
    steps_of(&file, "c3").unwrap()
}

fn all(steps: &Steps) -> String {
    let said = steps.steps.iter().map(|step| format!("{} {}", step.says, step.caution.as_deref().unwrap_or_default()));
    said.collect::<Vec<_>>().join(" | ").to_lowercase()
}

/// Written from the handbook, sections 8 and 13: what must be said at every camera that is put up, in some words of it.
const EVERY: &[&str] = &[
    "damage",
    "count the parts",
    "power it on the bench",
    "firmware",
    "password",
    "clock",
    "name and spot",
    "restart",
    "picture by light and in the dark",
    "infrared light from near",
    "sun straight",
    "film and the covers",
    "template",
    "arrow",
    "19 mm",
    "pipes and cables",
    "five times the weight",
    "lanyard",
    "seal",
    "flush",
    "pinched",
    "10 to 12 cm",
    "strip 6 mm",
    "polarity",
    "licensed electrician",
    "do not cut",
    "20 to 30 cm",
    "drip loop",
    "weather boot",
    "in its jacket and taped",
    "link lights",
    "picture is in your hand",
    "show the client",
    "lock it",
    "by hand only",
    "look again",
    "desiccant",
    "film off",
    "ladder",
    "packing until",
    "settings sheet",
    "photo of it",
];

/// The same for each form.
const OF_FORM: &[(&str, &[&str])] = &[
    ("turret", &["set screw out by hand", "base off at its tab", "notch to tab", "base up by the sticker", "2.4 m"]),
    ("bullet", &["collar tight", "sun shield forward but out of the picture"]),
    (
        "dome",
        &["its strap holds it", "three screws", "lens tool", "fingers leave prints", "by its grooves", "all screws"],
    ),
    ("vandal_dome", &["its strap holds it", "three screws", "lens tool", "by its grooves", "all screws"]),
    ("fisheye", &["arrow points up on a wall", "microphone's switch inside"]),
    ("box", &["lens cap off", "zoom locked by its band"]),
    (
        "multi_head",
        &[
            "both hooks click",
            "status light is green",
            "goes dark by itself",
            "power off while a lens module",
            "about 30°",
            "spring",
            "shields on",
            "inner lenses before its cover",
            "pan, tilt and turn",
        ],
    ),
    (
        "ptz",
        &[
            "packing out from inside",
            "before any power",
            "through its range",
            "heavier mount",
            "class 4",
            "6 to 8",
            "preset",
        ],
    ),
    ("plate", &["shutter, gain and light", "read a plate"]),
];

#[test]
fn no_step_of_the_handbook_is_missing_for_its_form() {
    for (form, said) in OF_FORM {
        let card = card_of(form, json!({}), json!({}));
        let text = all(&card);
        for words in EVERY.iter().chain(*said) {
            assert!(text.contains(words), "{form}: \"{words}\" is missing");
        }
        let ids: std::collections::HashSet<&str> = card.steps.iter().map(|step| step.id.as_str()).collect();
        assert_eq!(ids.len(), card.steps.len(), "{form}: a step twice");
        assert!(!text.contains('{'), "{form}: a blank is left: {text}");
    }
}

#[test]
fn steps_follow_what_is_known_of_mount_surface_and_cable() {
    let housed = all(&card_of("box", json!({}), json!({"housing": {"ip": "IP66"}})));
    for words in [
        "bracket first",
        "sled out",
        "zoom ring band",
        "spacer",
        "screw well forward",
        "before it goes in",
        "not touching",
        "both ends of the focus",
        "no lanyard",
        "pan and tilt screws",
    ] {
        assert!(housed.contains(words), "\"{words}\" is missing");
    }
    let motor = all(&card_of("dome", json!({"motor_aimed": true}), json!({})));
    assert!(motor.contains("never turn it by hand") && motor.contains("level it by its own sensor"));
    let card = all(&card_of("dome", json!({"card_gb": 256}), json!({})));
    assert!(card.contains("without force") && card.contains("recording on the card") && card.contains("rust and fog"));
    let several = all(&card_of("multi_head", json!({"card_gb": 256}), json!({})));
    assert!(several.contains("a card for each head"));
    for (surface, words) in [
        ("wood", "pilot holes"),
        ("concrete", "screws in the box are for wood"),
        ("block", "hollow blocks"),
        ("stucco", "render alone"),
        ("plasterboard", "toggles"),
        ("ceiling_tile", "board above the tile"),
        ("sheet_metal", "sheet metal"),
        ("steel", "straps or bolts"),
    ] {
        let said = all(&card_of("dome", json!({}), json!({"mount": {"surface": surface}})));
        assert!(said.contains(words), "{surface}");
        assert!(!said.contains("nobody said what the surface is"), "{surface}");
    }
    let solid = all(&card_of(
        "dome",
        json!({}),
        json!({"mount": {"surface": "concrete", "parts": [{"id": "b", "name": "Box", "kind": "back_box", "weight_kg": 1}]}}),
    ));
    assert!(solid.contains("back box goes up first"));
    let crimped =
        all(&card_of("dome", json!({}), json!({"mount": {"crimped_before": true, "seal_holes": 4, "conduit_mm": 13}})));
    assert!(
        crimped.contains("a seal with a slit")
            && crimped.contains("every hole of the seal")
            && crimped.contains("13 mm")
    );
    assert!(!crimped.contains("without its plug"));
    let turned = card_of(
        "dome",
        json!({}),
        json!({"heads": [{"id": "h1", "pan_deg": 0, "tilt_deg": 30, "roll_deg": 90, "focal_mm": 2.8}]}),
    );
    assert!(all(&turned).contains("corridor setting"));
    let stays = all(&card_of("dome", json!({}), json!({"existing": "stays"})));
    assert!(!stays.contains("drill") && !stays.contains("film off") && stays.contains("firmware"));
}

fn with_done(mut file: SiteFile, done: Vec<StepDone>) -> SiteFile {
    let camera = file.cameras.iter_mut().find(|camera| camera.id == "c3").unwrap();
    camera.fitting = Some(Fitting { done, ..Fitting::default() });
    file
}

#[test]
fn a_card_goes_on_where_it_stopped_and_asks_again_for_what_was_left() {
    let card = steps_of(&demo(), "c3").unwrap();
    assert_eq!((card.state, card.next.as_deref()), (FitState::OnTheBench, Some("unpack")));
    let tick = |id: &str, how| StepDone { id: id.to_owned(), at: None, how };
    let later = "lanyard";
    let upto = |phase: Phase| {
        let steps = card.steps.iter().filter(|step| step.phase <= phase);
        steps
            .map(|step| tick(&step.id, if step.id == later { StepHow::Later } else { StepHow::Done }))
            .collect::<Vec<_>>()
    };
    for (phase, state) in
        [(Phase::Bench, FitState::Ready), (Phase::PutUp, FitState::Hung), (Phase::Aim, FitState::Aimed)]
    {
        let now = steps_of(&with_done(demo(), upto(phase)), "c3").unwrap();
        assert_eq!(now.state, state);
        let next = now.steps.iter().find(|step| Some(&step.id) == now.next.as_ref()).unwrap();
        assert!(next.phase > phase && next.how.is_none());
    }
    // All said, one left for later: it is asked again, and the camera is not closed.
    let mut done = upto(Phase::Close);
    let open = steps_of(&with_done(demo(), done.clone()), "c3").unwrap();
    assert!(open.steps.iter().any(|step| step.id == "later-again"));
    done.push(tick("later-again", StepHow::Done));
    let open = steps_of(&with_done(demo(), done.clone()), "c3").unwrap();
    assert_eq!((open.state, open.next.as_deref(), open.left), (FitState::Aimed, Some(later), 1));
    done.iter_mut().find(|step| step.id == later).unwrap().how = StepHow::LeftOut;
    let file = with_done(demo(), done);
    // What is noted so can be kept.
    Site::from_file(file.clone()).unwrap();
    let closed = steps_of(&file, "c3").unwrap();
    assert_eq!((closed.state, closed.next, closed.left), (FitState::Closed, None, 0));
}

fn part(name: &str) -> MountPart {
    let parts = bright_angle_core::equipment::mounts::mount_parts().unwrap();
    parts.into_iter().find(|part| part.id == name).unwrap()
}

#[test]
fn an_arm_brings_the_camera_out_of_its_wall_and_down() {
    let site = Site::from_file(demo()).unwrap();
    let parts = vec![part("arm-long"), part("cap")];
    let moved = with_mount(&site, "c4", parts.clone(), Some(180.0)).unwrap();
    // Its spot is at 74.0, 51.6 and 3.6 m up; south by 0.45 m, down by 0.1 m.
    assert!((moved.position[0] - 74.0).abs() < 1e-9 && (moved.position[1] - (51.6 - 0.45)).abs() < 1e-9);
    assert!((moved.height_m - 3.5).abs() < 1e-9);
    // Moved by a hand it takes its foot along.
    let mut file = demo();
    let place = file.cameras.iter().position(|camera| camera.id == "c4").unwrap();
    let mut by_hand = moved.clone();
    by_hand.position[0] += 2.0;
    file.cameras[place] = by_hand;
    let shorter = with_mount(&Site::from_file(file).unwrap(), "c4", vec![part("arm-short")], None).unwrap();
    assert!((shorter.position[0] - 76.0).abs() < 1e-9 && (shorter.position[1] - (51.6 - 0.25)).abs() < 1e-9);
    // Off again it is back at its spot.
    let mut file = demo();
    let place = file.cameras.iter().position(|camera| camera.id == "c4").unwrap();
    file.cameras[place] = moved;
    let back = with_mount(&Site::from_file(file).unwrap(), "c4", vec![], None).unwrap();
    assert!((back.position[1] - 51.6).abs() < 1e-9 && (back.height_m - 3.6).abs() < 1e-9);
}

fn checks_of(camera: &str, with: impl FnOnce(&mut SiteFile)) -> Vec<bright_angle_core::fit::mount_checks::MountCheck> {
    let mut file = demo();
    with(&mut file);
    mount_checks(&Site::from_file(file).unwrap(), camera).unwrap()
}

/// By hand: a turret of 0.37 kg on an arm of 0.7 kg and 0.25 m with a cap of 0.3 kg, on brick. All weigh 1.37 kg; the plate is 0.14 m high
/// with four screws, two of them at the top: each is pulled with 5 · 1.37 · 0.25 / 0.14 / 2 = 6.116 kg.
#[test]
fn loads_are_those_worked_out_by_hand() {
    let checks = checks_of("c4", |file| {
        let camera = file.cameras.iter_mut().find(|camera| camera.id == "c4").unwrap();
        let mount = json!({"surface": "brick", "parts": [part("arm-short"), part("cap")]});
        camera.mount = Some(serde_json::from_value(mount).unwrap());
    });
    let of = |rule: &str| checks.iter().filter(|check| check.rule == rule).collect::<Vec<_>>();
    let anchors = of("anchor_load")[0];
    assert!((anchors.value.unwrap() - 5.0 * 1.37 * 0.25 / 0.14 / 2.0).abs() < 1e-9, "{anchors:?}");
    assert_eq!(anchors.limit, Some(anchor_kg(Surface::Brick)));
    let arm = of("part_load").into_iter().find(|check| check.says.starts_with("Wall arm")).unwrap();
    assert!((arm.value.unwrap() - 5.0 * (0.37 + 0.3)).abs() < 1e-9 && arm.verdict == Verdict::Kept);
    // A heavy one is not carried.
    let heavy = checks_of("c4", |file| {
        let camera = file.cameras.iter_mut().find(|camera| camera.id == "c4").unwrap();
        camera.model.weight_kg = Some(4.0);
        camera.mount =
            Some(serde_json::from_value(json!({"surface": "plasterboard", "parts": [part("arm-short")]})).unwrap());
    });
    assert_eq!(
        (heavy[0].verdict, heavy.iter().filter(|check| check.verdict == Verdict::Broken).count()),
        (Verdict::Broken, 2)
    );
    assert!(heavy.iter().filter(|check| check.verdict != Verdict::Kept).all(|check| check.way.is_some()));
}

#[test]
fn an_arm_in_the_picture_a_wet_entry_and_a_wide_conduit_are_found() {
    let of = |pan: f64, more: Value| {
        checks_of("c4", |file| {
            let site = Site::from_file(file.clone()).unwrap();
            let mut moved = with_mount(&site, "c4", vec![part("arm-long"), part("cap")], Some(180.0)).unwrap();
            moved.heads[0].pan_deg = pan;
            moved.heads[0].tilt_deg = 0.0;
            let mut mount = serde_json::to_value(moved.mount.take().unwrap()).unwrap();
            for (key, value) in more.as_object().unwrap() {
                mount[key] = value.clone();
            }
            moved.mount = Some(serde_json::from_value(mount).unwrap());
            *file.cameras.iter_mut().find(|camera| camera.id == "c4").unwrap() = moved;
        })
    };
    let verdict = |checks: &[bright_angle_core::fit::mount_checks::MountCheck], rule: &str| {
        checks.iter().find(|check| check.rule == rule).map(|check| check.verdict)
    };
    // Looking away from its wall the arm is behind it; looking back along it, in its picture.
    assert_eq!(verdict(&of(180.0, json!({})), "arm_in_picture"), Some(Verdict::Kept));
    assert_eq!(verdict(&of(0.0, json!({})), "arm_in_picture"), Some(Verdict::Broken));
    assert_eq!(verdict(&of(180.0, json!({"entry": "above"})), "entry"), Some(Verdict::Broken));
    assert_eq!(verdict(&of(180.0, json!({"conduit_mm": 40})), "conduit"), Some(Verdict::Broken));
    assert_eq!(verdict(&of(180.0, json!({"conduit_mm": 20})), "conduit"), Some(Verdict::Kept));
    assert_eq!(verdict(&of(180.0, json!({"edge_m": 0.15, "surface": "brick"})), "edge"), Some(Verdict::Tight));
    assert_eq!(verdict(&of(180.0, json!({"edge_m": 0.05})), "edge"), Some(Verdict::Broken));
}

#[test]
fn materials_count_what_is_there_once_and_what_is_bought_with_it() {
    let mut file = demo();
    let camera = file.cameras.iter_mut().find(|camera| camera.id == "c1").unwrap();
    camera.mount = Some(
        serde_json::from_value(json!({"surface": "steel", "parts": [part("pole-strap"), part("housing")]})).unwrap(),
    );
    camera.model.price = Some(400.0);
    let found = materials(&file);
    let line = |what: &str| found.bought.iter().find(|one| one.what.contains(what)).unwrap_or_else(|| panic!("{what}"));
    assert_eq!(line("Power supply for the housing").needed, 1.0);
    assert_eq!(line("Pole plate").goes_to, ["C1"]);
    // Seven cameras, one in a housing: six lanyards and one to spare.
    assert_eq!((line("Lanyard").needed, line("Lanyard").spare), (6.0, 1.0));
    let cameras: f64 = found
        .bought
        .iter()
        .filter(|one| one.kind == bright_angle_core::fit::materials::MaterialKind::Camera)
        .map(|one| one.needed)
        .sum();
    assert_eq!(cameras as usize, file.cameras.len());
    // Reels cover what is laid.
    let wired = bright_angle_core::wire::wired::wired(&file);
    let laid: f64 = found.bought.iter().filter(|one| one.unit == "m").map(|one| one.needed).sum();
    assert!(laid >= wired.cable_m && laid < wired.cable_m + 3.0, "{laid} for {}", wired.cable_m);
    // One that stays is not bought.
    file.cameras[0].existing = Some(bright_angle_core::file::Existing::Stays);
    let less = materials(&file);
    assert_eq!(less.there.iter().map(|one| one.needed).sum::<f64>(), 1.0);
    let csv = materials_csv(&less);
    let mut reader = csv::Reader::from_reader(csv.as_bytes());
    assert_eq!(reader.records().filter_map(Result::ok).count(), less.bought.len() + less.there.len());
}

#[test]
fn bench_comes_before_cable_and_cable_before_camera_and_no_day_is_too_long() {
    let file = demo();
    let found = days(&file).unwrap();
    let trades: Vec<Trade> = found.visits.iter().map(|visit| visit.trade).collect();
    assert!(trades.is_sorted(), "{trades:?}");
    let fitted = found.visits.iter().filter(|visit| matches!(visit.trade, Trade::Ladder | Trade::Lift));
    let ids: Vec<&str> = fitted.flat_map(|visit| &visit.stops).map(|stop| stop.id.as_str()).collect();
    let mut sorted = ids.clone();
    sorted.sort_unstable();
    assert_eq!(sorted, file.cameras.iter().map(|camera| camera.id.as_str()).collect::<Vec<_>>());
    // A day of eight hours, and the way between.
    assert!(
        found.visits.iter().all(|visit| visit.hours < 8.5),
        "{:?}",
        found.visits.iter().map(|v| v.hours).collect::<Vec<_>>()
    );
    assert_eq!(found.done_hours, 0.0);
    // A lift is for what hangs high.
    let mut high = file;
    high.cameras[3].height_m = 8.0;
    let lifted = days(&high).unwrap();
    let lift = lifted.visits.iter().find(|visit| visit.trade == Trade::Lift).unwrap();
    assert_eq!(lift.stops.iter().map(|stop| stop.id.as_str()).collect::<Vec<_>>(), ["c4"]);
    assert!(lift.packing.iter().any(|one| one.what.contains("Turret")));
}

#[test]
fn settings_say_the_start_values_of_plates_and_what_nobody_decided() {
    let cards = settings_cards(&demo());
    let plate = cards.iter().find(|card| card.camera == "c1").unwrap();
    let line = |name: &str| plate.lines.iter().find(|line| line.name.starts_with(name)).unwrap();
    assert!(plate.plates);
    assert_eq!((line("Brightness").day.as_str(), line("Brightness").night.as_str()), ("25", "3"));
    assert!(line("Day and night").day.contains("clock"));
    assert!(plate.reacts.iter().any(|[name, value]| name == "Told to whom" && value == "not decided"));
    assert!(
        cards.iter().filter(|card| !card.plates).all(|card| card.lines.iter().all(|line| !line.day.contains("roads")))
    );
    assert_eq!(
        settings_cards_csv(&cards).lines().count(),
        1 + cards.iter().map(|card| card.lines.len() + card.reacts.len()).sum::<usize>()
    );
}

/// Clicks in the picture of a head that hangs otherwise than planned.
fn clicked(built: &SiteFile, camera: &str) -> (Session, HangsWish) {
    let planned = Session::on(Site::from_file(demo()).unwrap());
    let name = HeadRef { camera: camera.to_owned(), head: "h1".to_owned(), view: None };
    let hung = Site::from_file(built.clone()).unwrap();
    let view = *hung.view(&name).unwrap().view();
    let marks = clickables(planned.site(), &name).unwrap();
    let seen = marks.iter().filter_map(|mark| {
        let (pixel, inside) = view.pixel_of(DVec3::from_array(mark.at))?;
        let [x, y, z] = mark.at;
        inside.then(|| PosePoint { id: mark.id.clone(), x, y, z, u: pixel.x, v: pixel.y, sigma_m: Some(mark.sigma_m) })
    });
    let points: Vec<PosePoint> = seen.take(8).collect();
    assert!(points.len() >= 4, "{camera}: {}", points.len());
    (planned, HangsWish { head: name, points, wish: PoseWish::default(), picture: None, at: None })
}

#[test]
fn words_say_what_a_hand_must_turn_and_taking_over_judges_what_hangs_there() {
    let mut built = demo();
    let place = built.cameras.iter().position(|camera| camera.id == "c3").unwrap();
    built.cameras[place].heads[0].pan_deg += 3.0;
    built.cameras[place].heads[0].roll_deg += 2.0;
    let (planned, wish) = clicked(&built, "c3");
    let mut surely = wish.clone();
    surely.points.iter_mut().for_each(|point| point.sigma_m = None);
    let found = hangs(&planned, &surely).unwrap();
    let turn = |kind: TurnKind| found.turns.iter().find(|turn| turn.kind == kind).unwrap();
    assert_eq!(turn(TurnKind::Pan).says, "3.0° left");
    assert_eq!(turn(TurnKind::Roll).says, "Level it 2.0° counter-clockwise");
    assert!(turn(TurnKind::Tilt).enough && turn(TurnKind::Lens).enough);
    // What the plan is uncertain by is said, not hidden.
    let unsure = hangs(&planned, &wish).unwrap();
    let pan = unsure.turns.iter().find(|turn| turn.kind == TurnKind::Pan).unwrap();
    assert!(pan.within > turn(TurnKind::Pan).within);
    // Taken over, what is judged is what hangs there, and the design stays beside it.
    let mut file = serde_json::to_value(demo()).unwrap();
    let patch: json_patch::Patch = serde_json::from_value(serde_json::to_value(&found.take_over).unwrap()).unwrap();
    json_patch::patch(&mut file, &patch).unwrap();
    let taken: SiteFile = serde_json::from_value(file).unwrap();
    let site = Site::from_file(taken.clone()).unwrap();
    let head = &taken.cameras[place].heads[0];
    assert!((head.pan_deg - built.cameras[place].heads[0].pan_deg).abs() < 1e-6);
    assert_eq!(taken.design.as_deref(), Some("As built"));
    assert_eq!(taken.variants.last().unwrap().cameras[place].heads[0].pan_deg, demo().cameras[place].heads[0].pan_deg);
    // Looked at again it is still not done, whatever was taken over: the plan is the design.
    let again = hangs(&Session::on(site.clone()), &surely).unwrap();
    assert_eq!(
        again.turns.iter().map(|turn| &turn.says).collect::<Vec<_>>(),
        found.turns.iter().map(|turn| &turn.says).collect::<Vec<_>>()
    );
    assert_eq!((again.done, &again.promises), (found.done, &found.promises));
    // It is known better than a hand's setting, until somebody turns it again.
    let aim = site.head("c3", "h1").unwrap().aim_uncertain().deg();
    assert!(aim < 1.0, "{aim}");
    let mut turned = taken;
    turned.cameras[place].heads[0].tilt_deg += 1.0;
    assert_eq!(Site::from_file(turned).unwrap().head("c3", "h1").unwrap().aim_uncertain().deg(), 1.0);
}

#[test]
fn another_lens_and_a_picture_upside_down_are_named() {
    let mut built = demo();
    let place = built.cameras.iter().position(|camera| camera.id == "c4").unwrap();
    let lens = json!({"focal_min_mm": 4.0, "focal_max_mm": 4.0, "hfov_at_min_deg": 78.0});
    built.cameras[place].heads[0].lens = Some(serde_json::from_value(lens).unwrap());
    built.cameras[place].heads[0].focal_mm = 4.0;
    let (planned, wish) = clicked(&built, "c4");
    let found = hangs(&planned, &wish).unwrap();
    let lens = found.turns.iter().find(|turn| turn.kind == TurnKind::Lens).unwrap();
    assert!(!lens.enough && lens.says.starts_with("Wrong lens") && !found.done, "{}", lens.says);

    let mut over = demo();
    over.cameras[place].heads[0].roll_deg = 180.0;
    let (planned, wish) = clicked(&over, "c4");
    let found = hangs(&planned, &wish).unwrap();
    assert!(found.turns[0].says.contains("stands on its head"), "{:?}", found.turns);
    // Whatever its promises get, it is not done so.
    assert!(!found.done);
}

#[test]
fn a_picture_of_another_shape_is_refused_with_what_helps() {
    let (planned, mut wish) = clicked(&demo(), "c4");
    wish.picture = Some(PictureSize { width_px: 1280.0, height_px: 1024.0 });
    let faults = hangs(&planned, &wish).unwrap_err();
    assert_eq!(faults[0].path, "picture");
    wish.picture = Some(PictureSize { width_px: 1520.0, height_px: 2688.0 });
    assert!(hangs(&planned, &wish).unwrap_err()[0].hint.as_deref().unwrap().contains("corridor"));
    // Half as large it is the same picture.
    wish.picture = Some(PictureSize { width_px: 1344.0, height_px: 760.0 });
    hangs(&planned, &wish).unwrap();
}

#[test]
fn what_makes_no_sense_is_refused_by_its_place() {
    for (field, value, place) in [
        (
            "mount",
            json!({"parts": [{"id": "a", "name": "A", "kind": "arm", "weight_kg": -1}]}),
            "cameras[0].mount.parts[0].weight_kg",
        ),
        ("mount", json!({"foot": [0, 1e9]}), "cameras[0].mount.foot[1]"),
        ("fitting", json!({"photos": [{"picture": "x"}]}), "cameras[0].fitting.photos[0].picture"),
        (
            "reacts",
            json!({"zones": [{"id": "z", "name": "Z", "head": "h1", "counts": true, "corners": [[0, 0], [1, 2], [0, 1]]}]}),
            "cameras[0].reacts.zones[0].corners[1][1]",
        ),
        ("device", json!({"picture_path": "picture.jpg"}), "cameras[0].device.picture_path"),
    ] {
        let mut file = serde_json::to_value(demo()).unwrap();
        file["cameras"][0][field] = value;
        let faults = Site::parse(&file.to_string()).unwrap_err();
        assert!(faults.iter().any(|fault| fault.path == place), "{place}: {faults:?}");
    }
}
