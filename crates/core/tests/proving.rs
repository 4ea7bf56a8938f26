//! Walk tests, pictures over the years and what is due: held against figures worked by hand from the handbook's formulas (sections 4 and
//! 14) and against dates counted on a calendar.

use crate::support::*;
use bright_angle_core::file::Proof;
use bright_angle_core::judge::Session;
use bright_angle_core::prove::due::{Due, DueKind, due};
use bright_angle_core::prove::later::{LookKind, Looked, looked};
use bright_angle_core::prove::log_csv::log_csv;
use bright_angle_core::prove::proved::{Proved, TodoKind, proved};
use bright_angle_core::prove::walk::proof_told;
use bright_angle_core::sun::SunYear;
use bright_angle_core::{Fault, Site, Verdict};
use serde_json::{Value, json};

/// A level camera, 3 m up, 6 mm on 5.376 mm and 1920 px: f = 2142.857 px. A face 20 m off and as high as the camera gets 107.14 px/m.
fn yard() -> Value {
    let camera = CameraAt { tilt: 0.0, ..CameraAt::default() }.json();
    let mut face = target("face", "recognise", [0.0, 20.0], 3.0);
    face["needs_px_per_m"] = json!(100);
    site(vec![camera], vec![face], vec![])
}

fn session(site: &Value) -> Session {
    Session::on(parse(site))
}

fn hung() -> Value {
    json!({"position": [0, 0], "height_m": 3, "model": "Test",
        "aimed": {"pan_deg": 0, "tilt_deg": 0, "roll_deg": 0, "focal_mm": 6}})
}

fn proof(how: &Value) -> Value {
    json!({"id": "p1", "target": "t1", "camera": "c1", "head": "h1", "at": "2027-05-30T10:00:00Z", "how": how,
        "hung": hung(), "needed_px_per_m": 100})
}

/// Two marks a metre apart across, so many pixels from each other around the middle of the picture.
fn across(px: f64, clicked_px: f64) -> Value {
    json!({"kind": "marks", "a": [960.0 - px / 2.0, 540], "b": [960.0 + px / 2.0, 540], "apart_m": 1, "clicked_px": clicked_px})
}

fn with(mut site: Value, list: &str, items: &[Value]) -> Value {
    site[list] = json!(items);
    site
}

fn proved_of(site: &Value) -> Proved {
    proved(&session(site))
}

#[test]
fn marks_say_what_is_got_of_what_was_promised() {
    let session = session(&yard());
    let told = |how: &Value| {
        let proof: Proof = serde_json::from_value(proof(how)).unwrap();
        proof_told(&session, &proof).unwrap()
    };
    // 107 px on a metre: kept where the clicks are sure to 1.5 px each (104 / 1.01 = 103), tight at 5 px (97 / 1.01 = 96).
    let kept = told(&across(107.0, 1.5));
    assert_eq!((kept.verdict, kept.says.as_str()), (Verdict::Kept, "107 px/m of 100"));
    assert!((kept.planned.unwrap() - 6.0 / 5.376 * 1920.0 / 20.0).abs() < 1e-9 && kept.odd.is_empty(), "{kept:?}");
    assert_eq!(told(&across(107.0, 5.0)).verdict, Verdict::Tight);
    let short = told(&across(80.0, 1.0));
    assert_eq!((short.verdict, short.says.as_str()), (Verdict::Broken, "80 px/m of 100, 20 % short"));
    // 80 where the plan has 107: a quarter less is said, too.
    assert!(short.odd[0].starts_with("25 % less than the plan's 107"), "{:?}", short.odd);
    // Marks in a corner of the picture are not where the target is.
    let aside = json!({"kind": "marks", "a": [100, 540], "b": [207, 540], "apart_m": 1, "clicked_px": 1});
    assert!(told(&aside).odd[0].contains("% of the picture from where the plan has it"));
}

#[test]
fn a_promise_is_proved_by_day_and_by_night_with_every_picture_kept() {
    let snapshot = |id: &str, night: bool| {
        json!({"id": id, "camera": "c1", "head": "h1", "at": "2027-05-30T10:00:00Z", "night": night, "hung": hung(),
            "picture": {"picture": "a".repeat(64), "width_px": 1920, "height_px": 1080}})
    };
    let found = proved_of(&yard());
    let kinds = |found: &Proved| found.left.iter().map(|todo| (todo.kind, todo.night)).collect::<Vec<_>>();
    assert_eq!(
        kinds(&found),
        [(TodoKind::Walk, false), (TodoKind::Walk, true), (TodoKind::Keep, false), (TodoKind::Keep, true)]
    );
    assert_eq!(found.left[0].says, "T1, by day: not tried yet");
    let night = |how: &Value| {
        let mut one = proof(how);
        (one["night"], one["id"]) = (json!(true), json!("p2"));
        one
    };
    let pictures = [snapshot("s1", false), snapshot("s2", true)];
    let all = with(yard(), "proofs", &[proof(&across(107.0, 1.0)), night(&across(107.0, 1.0))]);
    let found = proved_of(&with(all, "snapshots", &pictures));
    assert!(found.done && found.left.is_empty(), "{found:?}");
    // By night the client does not know who it is: enough pixels prove nothing then.
    let mut no = night(&json!({"kind": "yes", "yes": false}));
    no["id"] = json!("p3");
    let fails = with(yard(), "proofs", &[proof(&across(107.0, 1.0)), night(&across(107.0, 1.0)), no]);
    let found = proved_of(&with(fails, "snapshots", &pictures));
    assert_eq!(kinds(&found), [(TodoKind::Falls, true)]);
    assert_eq!(found.promises[0].night.verdict, Verdict::Broken);
}

#[test]
fn a_test_of_a_camera_that_was_turned_since_counts_no_more() {
    for (field, value, says) in [
        ("pan_deg", 1.0, "it looks elsewhere now"),
        ("height_m", 3.2, "it hangs elsewhere now"),
        ("needed_px_per_m", 90.0, "more is promised now"),
    ] {
        let mut one = proof(&json!({"kind": "yes", "yes": true}));
        match field {
            "pan_deg" => one["hung"]["aimed"][field] = json!(value),
            "height_m" => one["hung"][field] = json!(value),
            _ => one[field] = json!(value),
        }
        let day = proved_of(&with(yard(), "proofs", &[one])).promises[0].day.clone();
        assert_eq!((day.verdict, day.says.as_str()), (Verdict::Unknown, format!("to be tried again: {says}").as_str()));
    }
}

#[test]
fn the_newest_counts_and_as_many_cameras_as_were_promised() {
    let mut older = proof(&across(107.0, 1.0));
    let mut newer = proof(&across(80.0, 1.0));
    (older["at"], older["id"]) = (json!("2027-05-30T11:00:00+02:00"), json!("older"));
    newer["at"] = json!("2027-05-30T09:30:00Z");
    // 11:00 in Paris is 9:00 in London: the order is that of the clock, not of the file.
    let day = proved_of(&with(yard(), "proofs", &[newer, older.clone()])).promises[0].day.clone();
    assert_eq!((day.verdict, day.proofs[0].id.as_str()), (Verdict::Broken, "p1"));
    let mut two = with(yard(), "proofs", &[older]);
    two["targets"][0]["heads_wanted"] = json!(2);
    let day = proved_of(&two).promises[0].day.clone();
    assert_eq!((day.verdict, day.says.as_str()), (Verdict::Unknown, "1 of 2 cameras tried"));
}

#[test]
fn pixels_alone_read_no_plate() {
    let camera = CameraAt { tilt: 0.0, ..CameraAt::default() }.json();
    let plate = |proofs: &[Value]| {
        let mut plate = target("plate", "read", [0.0, 20.0], 3.0);
        plate["facing_deg"] = json!(180);
        proved_of(&with(site(vec![camera.clone()], vec![plate], vec![]), "proofs", proofs)).promises[0].day.clone()
    };
    let enough = proof(&across(900.0, 1.0));
    assert_eq!(plate(std::slice::from_ref(&enough)).says, "its plate is not read yet");
    let mut read = proof(&json!({"kind": "plate", "shown": "TQ 27 BRT", "read": "tq27brt"}));
    (read["id"], read["needed_px_per_m"]) = (json!("p2"), json!(1000));
    assert_eq!(plate(&[enough, read]).verdict, Verdict::Kept);
}

#[test]
fn what_was_designed_stands_beside_what_was_found() {
    // Hung 30° aside: by design the face is kept, as built it is out of the picture.
    let mut site = yard();
    let aim = |pan: f64| json!({"pan_deg": pan, "tilt_deg": 0, "roll_deg": 0, "focal_mm": 6});
    site["cameras"][0]["heads"][0]["pan_deg"] = json!(30);
    site["cameras"][0]["heads"][0]["as_built"] =
        json!({"found": aim(30.0), "designed": aim(0.0), "aim_sigma_deg": 0.1, "focal_sigma": 0.001});
    let one = proved_of(&site).promises[0].clone();
    assert!(one.found && one.design < one.built && one.built == Verdict::Broken, "{one:?}");
}

/// A later picture of the yard's camera on a day, with what differs.
fn later(id: &str, at: &str, found: &Value) -> Value {
    json!({"id": id, "camera": "c1", "head": "h1", "at": at, "hung": hung(),
        "picture": {"picture": "b".repeat(64), "width_px": 1280, "height_px": 720},
        "against": {"reference": "s0", "found": found}})
}

fn reference() -> Value {
    let mut one = later("s0", "2027-01-01T10:00:00Z", &json!({}));
    one.as_object_mut().unwrap().remove("against");
    one
}

fn found(says: &[&str], right_deg: f64, regions: &Value, hidden: &[usize]) -> Value {
    json!({"says": says, "moved": {"right_deg": right_deg, "down_deg": 0, "roll_deg": 0, "scale": 1},
        "sharpness_share": 1, "contrast_share": 1, "light_share": 1, "regions": regions,
        "hidden": {"columns": 40, "rows": 22, "places": hidden}})
}

fn by_day(site: &Value) -> Looked {
    looked(&session(site)).into_iter().find(|one| !one.night).unwrap()
}

#[test]
fn a_camera_that_was_knocked_costs_what_the_turned_one_no_longer_keeps() {
    // 24.1° to the right the face stands at the left edge (half of 48.2°); 30° to the right it is out of the picture.
    let turned = |deg: f64| {
        let one = later("s1", "2027-07-01T10:00:00Z", &found(&["moved"], deg, &json!([]), &[]));
        by_day(&with(yard(), "snapshots", &[reference(), one]))
    };
    let far = turned(30.0);
    assert_eq!((far.faults[0].kind, far.faults[0].says.as_str()), (LookKind::Moved, "it turned 30.0° to the right"));
    assert_eq!(far.faults[0].costs[0].now, Some(Verdict::Broken));
    assert!(turned(2.0).faults[0].costs.is_empty(), "two degrees cost nothing here");
    // Rolled and tilted: a camera on its side that turned to its right looks down or up.
    let mut side = yard();
    side["cameras"][0]["heads"][0]["roll_deg"] = json!(90);
    let one = later("s1", "2027-07-01T10:00:00Z", &found(&["moved"], 30.0, &json!([]), &[]));
    let site = with(side, "snapshots", &[reference(), one]);
    assert_eq!(by_day(&site).faults[0].costs[0].now, Some(Verdict::Broken));
}

#[test]
fn what_hides_costs_the_promises_that_lie_behind_it() {
    // The face stands in the middle of the picture.
    let hidden = |box_px: [u32; 4]| {
        let regions = json!([{"kind": "blocked", "box_px": box_px, "share": 0.1}]);
        let one = later("s1", "2027-07-01T10:00:00Z", &found(&["blocked"], 0.0, &regions, &[]));
        by_day(&with(yard(), "snapshots", &[reference(), one])).faults[0].clone()
    };
    assert_eq!(hidden([600, 300, 700, 400]).costs.len(), 1);
    assert!(hidden([0, 0, 200, 720]).costs.is_empty());
}

#[test]
fn growth_takes_three_pictures_of_three_days_in_which_the_camera_had_not_moved() {
    // A leaf of 3 × 4 tiles at the middle: 1.4 % of 880.
    let tiles: Vec<usize> = (9..13).flat_map(|row| (18..21).map(move |column| row * 40 + column)).collect();
    let kinds = |laters: &[(&str, bool)]| {
        let mut all = vec![reference()];
        for (place, (at, moved)) in laters.iter().enumerate() {
            let says: &[&str] = if *moved { &["moved"] } else { &[] };
            all.push(later(&format!("s{}", place + 1), at, &found(says, 0.0, &json!([]), &tiles)));
        }
        by_day(&with(yard(), "snapshots", &all)).faults.iter().map(|fault| fault.kind).collect::<Vec<_>>()
    };
    let days = [("2027-06-01T10:00:00Z", false), ("2027-06-08T10:00:00Z", false), ("2027-06-15T10:00:00Z", false)];
    assert_eq!(kinds(&days), [LookKind::Grown]);
    assert_eq!(kinds(&days[..2]), []);
    // A van that stands there for an afternoon is one picture, however often it is taken.
    let noon = [("2027-06-01T10:00:00Z", false), ("2027-06-01T12:00:00Z", false), ("2027-06-01T15:00:00Z", false)];
    assert_eq!(kinds(&noon), []);
    let knocked = [days[0], ("2027-06-08T10:00:00Z", true), days[2]];
    assert_eq!(kinds(&knocked), []);
    // What was there in two of three only has gone again.
    let mut all = vec![reference()];
    for (place, (at, _)) in days.iter().enumerate() {
        let there = if place == 1 { &tiles[..0] } else { &tiles[..] };
        all.push(later(&format!("s{}", place + 1), at, &found(&[], 0.0, &json!([]), there)));
    }
    assert!(by_day(&with(yard(), "snapshots", &all)).faults.is_empty());
}

#[test]
fn a_clock_is_wrong_from_the_sites_own_limit_on() {
    let says = |off: f64, limit: f64| {
        let mut one = later("s1", "2027-07-01T10:00:00Z", &found(&[], 0.0, &json!([]), &[]));
        one["clock_off_s"] = json!(off);
        let mut site = with(yard(), "snapshots", &[reference(), one]);
        site["rules"] = json!({"proving": {"clock_s": limit}});
        by_day(&site).faults.first().map(|fault| fault.says.clone())
    };
    assert_eq!(says(420.0, 30.0).as_deref(), Some("its clock is 7 min fast"));
    assert_eq!(says(-20.0, 30.0), None);
    assert_eq!(says(-20.0, 10.0).as_deref(), Some("its clock is 20 s slow"));
}

fn due_on(site: &Value, on: &str) -> Due {
    due(&session(site), on, None).unwrap()
}

fn dates(due: &Due, kind: DueKind) -> Vec<&str> {
    due.items.iter().filter(|item| item.kind == kind).map(|item| item.due.as_str()).collect()
}

#[test]
fn what_is_due_counts_from_the_hand_over_and_from_the_last_visit() {
    let kept = with(yard(), "snapshots", &[reference()]);
    // Handed over on the first of January: covers after six months, firmware too, joints and password after twelve.
    let found = due_on(&kept, "2027-07-02");
    assert_eq!(dates(&found, DueKind::Cover), ["2027-07-01"]);
    assert_eq!(dates(&found, DueKind::Joints), ["2028-01-01"]);
    let overdue: Vec<&str> = found.items.iter().filter(|item| item.overdue).map(|item| item.id.as_str()).collect();
    assert_eq!(overdue, ["pictures.c1", "cover.c1", "firmware.c1"]);
    assert_eq!(found.now, overdue);
    // Cleaned on the 31st of August: six months later is the last of February.
    let visit =
        |how: &str| json!({"id": "v1", "date": "2027-08-31", "done": [{"id": "cover.c1", "says": "…", "how": how}]});
    assert_eq!(
        dates(&due_on(&with(kept.clone(), "visits", &[visit("done")]), "2027-09-01"), DueKind::Cover),
        ["2028-02-29"]
    );
    let later = due_on(&with(kept.clone(), "visits", &[visit("later")]), "2027-09-01");
    assert_eq!(dates(&later, DueKind::Cover), ["2027-07-01"], "left for later is not done");
    // In a yard twice as often.
    let mut dusty = kept.clone();
    dusty["brief"] = json!({"kind": "yard"});
    assert_eq!(dates(&due_on(&dusty, "2027-07-02"), DueKind::Cover), ["2027-04-01"]);
    // Nothing kept, nothing closed: nothing to keep up.
    let none = due_on(&yard(), "2027-07-02");
    assert!(none.items.is_empty() && none.not_begun == ["c1"]);
    let refused: Fault = due(&session(&kept), "2027-02-30", None).unwrap_err();
    assert_eq!(refused.path, "on");
}

#[test]
fn leaves_are_cut_where_a_tree_stands_near_a_line_that_counts_and_by_the_hemisphere() {
    let tree = |x: f64| {
        json!({"id": "o1", "name": "Ash", "kind": "tree", "top_m": 6, "see_through": 0.3,
            "outline": [[x, 9], [x + 1.0, 9], [x + 1.0, 10], [x, 10]]})
    };
    let dates = |x: f64, latitude: f64| {
        let mut site = with(yard(), "snapshots", &[reference()]);
        site["obstacles"] = json!([tree(x)]);
        site["place"] = json!({"latitude_deg": latitude, "longitude_deg": 0, "time_zone": "UTC"});
        dates(&due_on(&site, "2027-03-01"), DueKind::Leaves).iter().map(|date| (*date).to_owned()).collect::<Vec<_>>()
    };
    // The line runs along x = 0: a metre beside it is near, four are not.
    assert_eq!(dates(1.0, 51.0), ["2027-05-01"]);
    assert!(dates(4.0, 51.0).is_empty());
    assert_eq!(dates(1.0, -34.0), ["2027-02-01"]);
}

#[test]
fn the_sun_comes_into_a_picture_when_its_year_says() {
    // Looking due east from the equator, level: around the equinoxes the sun rises in the middle of the picture, and at the solstices,
    // 23.4° to its side, inside half of 48.2° still. Looking to 30° south of east it is out of the picture in June.
    let mut site = with(yard(), "snapshots", &[reference()]);
    site["place"] = json!({"latitude_deg": 0, "longitude_deg": 0, "time_zone": "UTC"});
    let next = |pan: f64, on: &str| {
        let mut turned = site.clone();
        turned["cameras"][0]["heads"][0]["pan_deg"] = json!(pan);
        let session = session(&turned);
        let sun = SunYear::new(session.site().file().place.as_ref().unwrap(), 2027).unwrap();
        let found = due(&session, on, Some(&sun)).unwrap();
        dates(&found, DueKind::Sun).first().map(|date| (*date).to_owned())
    };
    assert_eq!(next(90.0, "2027-06-01").as_deref(), Some("2027-01-01"), "all the year");
    // Declination under −(30 − 24.1)° and the rest: from about the 7th of October on (declination −5.9°).
    let from = next(120.0, "2027-06-01").unwrap();
    assert!(("2027-08-20".."2027-10-20").contains(&from.as_str()), "{from}");
    assert_eq!(next(0.0, "2027-06-01"), None, "never straight north of the equator's east");
}

#[test]
fn the_log_is_a_table_that_no_spreadsheet_takes_for_a_formula() {
    let mut site = yard();
    site["brief"] = json!({"retention_days": 14});
    let visits = [json!({"id": "v1", "date": "2027-08-31", "by": "Ana", "note": "Gate left open",
        "done": [{"id": "playback.n1", "says": "Play back", "note": "=1+1", "oldest": "2027-08-22"},
                 {"id": "cover.c1", "says": "Clean \"it\"", "how": "later"}]})];
    let log = log_csv(parse(&with(site, "visits", &visits)).file());
    assert_eq!(
        log.lines().collect::<Vec<_>>(),
        [
            "date,by,what,how,found,recordings_days,promised_days",
            "2027-08-31,Ana,Play back,done,'=1+1,9,14",
            "2027-08-31,Ana,\"Clean \"\"it\"\"\",left for later,,,",
            "2027-08-31,Ana,note,,Gate left open,,",
        ]
    );
}

#[test]
fn nonsense_in_what_was_tried_and_kept_is_named_by_its_place() {
    let fault = |site: &Value| Site::parse(&site.to_string()).unwrap_err()[0].to_string();
    let mut one = proof(&across(100.0, 1.0));
    one["how"]["apart_m"] = json!(0);
    assert!(fault(&with(yard(), "proofs", &[one])).starts_with("proofs[0].how.apart_m: 0"));
    let same = json!({"kind": "marks", "a": [1, 1], "b": [1, 1], "apart_m": 1, "clicked_px": 1});
    assert_eq!(fault(&with(yard(), "proofs", &[proof(&same)])), "proofs[0].how: both marks are at one place");
    let mut when = reference();
    when["at"] = json!("yesterday");
    assert!(fault(&with(yard(), "snapshots", &[when])).starts_with("snapshots[0].at: is no time"));
    let tiles = later("s1", "2027-07-01T10:00:00Z", &found(&[], 0.0, &json!([]), &[880]));
    assert_eq!(
        fault(&with(yard(), "snapshots", &[reference(), tiles])),
        "snapshots[1].against.found.hidden: names tiles that are not there"
    );
    let visit = json!({"id": "v1", "date": "30 May"});
    assert!(fault(&with(yard(), "visits", &[visit])).starts_with("visits[0].date: is no day"));
}
