//! The door: what it keeps between questions is always of the state that it is in.

use bright_angle_core::answer::{Answer, Ask, Door};
use bright_angle_core::file::{HeadRef, ListChange, SiteChange, SiteFile};
use bright_angle_core::ground::told::{GroundWish, ground};
use bright_angle_core::show::coverage::live_relief::{ReliefWish, Share};
use bright_angle_core::show::coverage::relief::Relief;
use bright_angle_core::show::sun::sun_told::{calendar, sun_told};
use bright_angle_core::sun::SunYear;
use serde_json::json;

fn demo() -> Door {
    Door::open(SiteFile::parse(include_str!("../../../demo/tern-quay.json")).unwrap()).unwrap()
}

/// The door after its first camera was turned and raised.
fn changed(door: &mut Door) {
    let mut camera = door.session().site().file().cameras[0].clone();
    camera.height_m += 0.7;
    camera.heads[0].pan_deg -= 25.0;
    let cameras = Some(ListChange { order: None, put: vec![camera] });
    door.change(SiteChange { cameras, ..SiteChange::default() }).unwrap();
}

#[test]
fn the_ground_that_is_kept_is_of_the_state_after_a_change() {
    let mut door = demo();
    let wish = GroundWish { need_px_per_m: 25.0, height_m: 1.6, goal: None };
    let before = door.ask(Ask::Ground { wish }).unwrap();
    changed(&mut door);
    let Answer::Ground(kept) = door.ask(Ask::Ground { wish }).unwrap() else { panic!("the ground") };
    assert_eq!(kept, ground(door.session().site(), &wish).unwrap());
    assert_ne!(serde_json::to_value(&before).unwrap(), serde_json::to_value(&kept).unwrap());
    let seen = door.ground_counts(25.0).iter().filter(|count| **count > 0).count();
    assert!(seen > 0);
}

#[test]
fn the_suns_year_that_is_kept_answers_as_a_fresh_one() {
    let mut door = demo();
    let year = SunYear::new(door.session().site().file().place.as_ref().unwrap(), 2027).unwrap();
    changed(&mut door);
    let told = sun_told(door.session(), &year, |_| true);
    for (place, own) in told.heads.iter().enumerate() {
        let Answer::SunHours(hours) = door.ask(Ask::SunHours { year: 2027, place }).unwrap() else { panic!("hours") };
        assert_eq!(hours.heads, told.heads.len());
        assert_eq!((hours.of_head.unwrap().hours * 60.0).round(), f64::from(own.minutes_in_picture));
    }
    let past = door.ask(Ask::SunHours { year: 2027, place: told.heads.len() }).unwrap();
    assert_eq!(serde_json::to_value(&past).unwrap()["of_head"], json!(null));
    let head = HeadRef { camera: told.heads[0].camera.clone(), head: told.heads[0].head.clone(), view: None };
    let ask = Ask::SunCalendar { head: head.clone(), target: None, year: 2027 };
    let Answer::SunCalendar(found) = door.ask(ask).unwrap() else { panic!("a calendar") };
    assert_eq!(found, calendar(door.session(), &head, None, &year).unwrap());
    assert_eq!(door.ask(Ask::SunHours { year: 12, place: 0 }).unwrap_err().len(), 1, "a year that nobody knows");
}

#[test]
fn shares_of_a_relief_make_the_whole_and_follow_a_change() {
    let mut door = demo();
    let wish = ReliefWish { west: 0.0, south: 0.0, east: 60.0, north: 40.0, cell: 1.0, height: 1.6 };
    let work = |door: &mut Door, hand: usize| {
        door.want_relief(0, &wish, Share { hand, hands: 2 }).unwrap();
        while door.step_relief(0) {}
        door.relief(0).to_vec()
    };
    work(&mut door, 0);
    changed(&mut door);
    let (one, other) = (work(&mut door, 0), work(&mut door, 1));
    let whole = Relief::of(door.session().site(), wish.grid().unwrap(), 1.6);
    let best: Vec<f32> = one.iter().zip(&other).map(|(a, b)| a.max(*b)).collect();
    assert_eq!(best, whole.best());
}

#[test]
fn a_wish_for_a_relief_that_makes_no_sense_is_refused() {
    let mut door = demo();
    let good = ReliefWish { west: 0.0, south: 0.0, east: 60.0, north: 40.0, cell: 1.0, height: 1.6 };
    for bad in [
        ReliefWish { east: -1.0, ..good },
        ReliefWish { cell: 0.0, ..good },
        ReliefWish { cell: 1e-6, ..good },
        ReliefWish { north: f64::NAN, ..good },
        ReliefWish { height: f64::INFINITY, ..good },
    ] {
        assert!(door.want_relief(0, &bad, Share::WHOLE).is_err(), "{bad:?}");
    }
    assert!(door.want_relief(0, &good, Share::WHOLE).is_ok());
}

#[test]
fn every_answer_in_the_schema_has_its_questions_name() {
    use utoipa::PartialSchema;
    let names = |schema: serde_json::Value, of: &dyn Fn(&serde_json::Value) -> Option<String>| -> Vec<String> {
        schema["oneOf"].as_array().unwrap().iter().map(|one| of(one).unwrap()).collect()
    };
    let answers = names(serde_json::to_value(Answer::schema()).unwrap(), &|one| {
        one["properties"].as_object()?.keys().next().cloned()
    });
    let asks = names(serde_json::to_value(Ask::schema()).unwrap(), &|one| {
        let tagged = one["allOf"].as_array().and_then(|parts| parts.last()).unwrap_or(one);
        tagged["properties"]["ask"]["enum"][0].as_str().map(str::to_owned)
    });
    assert_eq!(answers, asks);
}

#[test]
fn every_question_is_known_when_it_is_read_and_a_wrong_field_is_named() {
    use utoipa::PartialSchema;
    let schema = serde_json::to_value(Ask::schema()).unwrap();
    for one in schema["oneOf"].as_array().unwrap() {
        let tagged = one["allOf"].as_array().and_then(|parts| parts.last()).unwrap_or(one);
        let name = tagged["properties"]["ask"]["enum"][0].as_str().unwrap();
        match Ask::read(&serde_json::json!({ "ask": name }).to_string()) {
            Ok(ask) => assert_eq!(serde_json::to_value(&ask).unwrap()["ask"], name),
            Err(faults) => assert!(faults[0].message.starts_with("missing field"), "{name}: {}", faults[0].message),
        }
        let more = serde_json::json!({ "ask": name, "nonsense": 1 }).to_string();
        assert!(Ask::read(&more).is_err(), "{name} takes nonsense");
    }
    let wrong = Ask::read(r#"{"ask": "who"}"#).err().unwrap();
    assert!(wrong[0].message.contains("unknown variant `who`"), "{}", wrong[0].message);
    let site = include_str!("../../../demo/tern-quay.json");
    let text = format!(r#"{{"ask": "compare", "before": {site}, "units": "feet"}}"#);
    let Ok(Ask::Compare { before, .. }) = Ask::read(&text) else { panic!("a site in a question") };
    assert_eq!(before.name, "Tern Quay Boatyard");
    let faults = Ask::read(&text.replacen("\"targets\"", "\"goals\"", 1)).err().unwrap();
    assert!(faults[0].path.starts_with("before"), "{}", faults[0].path);
}
