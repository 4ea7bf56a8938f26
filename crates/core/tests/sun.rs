//! The sun against pvlib and OpenCV (`outside/sun`), behind walls, by the clock, and what a hand does about it.

use crate::support::{parse, site};
use bright_angle_core::change::ways::mend::sun_ways;
use bright_angle_core::file::HeadRef;
use bright_angle_core::judge::Session;
use bright_angle_core::show::sun::sun_told::{calendar, sun_at, sun_told, sun_year};
use bright_angle_core::sun::{SunYear, position};
use bright_angle_core::words::units::Units;
use serde_json::{Value, json};

#[test]
fn positions_are_those_of_pvlib() {
    let table = include_str!("../../../outside/sun/positions.csv");
    let mut checked = 0;
    for line in table.lines().skip(1) {
        let fields: Vec<&str> = line.split(',').collect();
        let f = |place: usize| fields[place].parse::<f64>().unwrap();
        let begin: jiff::Timestamp = "2027-01-01T00:00:00Z".parse().unwrap();
        let at = jiff::Timestamp::from_second(begin.as_second() + 60 * fields[4].parse::<i64>().unwrap()).unwrap();
        let found = position::position(f(1), f(2), f(3), at).unwrap();
        let height = found.apparent_elevation_deg;
        assert!((height - f(6)).abs() < 1e-4, "{line}: {height}");
        let turn = (found.azimuth_deg - f(5) + 540.0).rem_euclid(360.0) - 180.0;
        assert!(turn.abs() * height.to_radians().cos() < 1e-4, "{line}: {}", found.azimuth_deg);
        checked += 1;
    }
    assert_eq!(checked, 1800);
}

fn sunny(cameras: Vec<Value>, targets: Vec<Value>, obstacles: Vec<Value>) -> Value {
    let mut site = site(cameras, targets, obstacles);
    site["place"] =
        json!({"latitude_deg": 52.4, "longitude_deg": -1.9, "elevation_m": 140, "time_zone": "Europe/London"});
    site
}

#[test]
fn minutes_in_the_picture_are_those_of_pvlib_and_opencv() {
    let expected: Value = serde_json::from_str(include_str!("../../../outside/sun/in_picture.json")).unwrap();
    for view in expected["views"].as_array().unwrap() {
        let f = |name: &str| view[name].as_f64().unwrap();
        let (width, height) = (f("width"), f("height"));
        // A sensor of such a size that the focal length in pixels comes out of 4 mm.
        let width_mm = 4.0 * width / f("focal_px");
        let mut lens = json!({"focal_min_mm": 4.0, "focal_max_mm": 4.0});
        if view["fisheye"] == true {
            lens["hfov_at_min_deg"] = json!((width / f("focal_px")).to_degrees());
        }
        let target = |id: &str, off: f64| {
            let (pan, tilt) = ((f("pan_deg") + off).to_radians(), f("tilt_deg").to_radians());
            json!({"id": id, "name": id, "subject": "scene", "task": "monitor", "height_m": 3.0 - 10.0 * tilt.sin() + 5.0,
                "shape": {"kind": "point", "points": [[10.0 * tilt.cos() * pan.sin(), 10.0 * tilt.cos() * pan.cos()]]}})
        };
        let camera = json!({"id": "c1", "name": "C1", "position": [0, 0], "height_m": 8.0,
            "model": {"name": "M", "form": "bullet", "lens": lens,
                "sensor": {"width_px": width as u32, "height_px": height as u32, "width_mm": width_mm, "height_mm": width_mm * height / width}},
            "heads": [{"id": "h1", "pan_deg": f("pan_deg"), "tilt_deg": f("tilt_deg"), "roll_deg": f("roll_deg"), "focal_mm": 4.0}]});
        let file = sunny(vec![camera], vec![target("t1", 0.0), target("t2", 12.0)], vec![]);
        let session = Session::on(parse(&file));
        let told = sun_told(&session, &sun_year(session.site(), 2027).unwrap(), |_| true);
        let minutes = i64::from(told.heads[0].minutes_in_picture);
        // A minute whose sun stands on the very edge may fall to either side.
        assert!((minutes - view["minutes"].as_i64().unwrap()).abs() <= 2, "{view}: {minutes}");
        for (target, behind) in told.targets.iter().zip(view["backlit"].as_array().unwrap()) {
            let apart = (i64::from(target.minutes_backlit) - behind.as_i64().unwrap()).abs();
            assert!(apart <= 2, "{view}: {} {}", target.target, target.minutes_backlit);
        }
        let runs: i64 = told.heads[0]
            .days
            .iter()
            .map(|run| {
                let [from, to] = [&run.from, &run.to].map(|time| time.parse::<jiff::Timestamp>().unwrap().as_second());
                assert!(run.from.starts_with(&run.date) && to >= from);
                (to - from) / 60 + 1
            })
            .sum();
        assert_eq!(runs, minutes, "the runs hold every minute once");
    }
}

fn looking_west() -> Value {
    json!({"id": "c1", "name": "C1", "position": [0, 0], "height_m": 4.0,
        "model": {"name": "M", "form": "bullet", "lens": {"focal_min_mm": 4.0, "focal_max_mm": 4.0},
            "sensor": {"width_px": 2688, "height_px": 1520, "width_mm": 5.376, "height_mm": 3.04}},
        "heads": [{"id": "h1", "pan_deg": 250.0, "tilt_deg": 2.0, "roll_deg": 0, "focal_mm": 4.0}]})
}

fn person() -> Value {
    json!({"id": "t1", "name": "T1", "subject": "person", "task": "detect", "height_m": 1.0,
        "shape": {"kind": "point", "points": [[-9.4, -3.4]]}, "distance": {"how": "laser"}})
}

fn minutes(file: &Value) -> u32 {
    let session = Session::on(parse(file));
    sun_told(&session, &sun_year(session.site(), 2027).unwrap(), |_| true).heads[0].minutes_in_picture
}

fn head() -> HeadRef {
    HeadRef { camera: "c1".into(), head: "h1".into(), view: None }
}

#[test]
fn walls_keep_the_sun_off_and_glass_does_not() {
    let open = minutes(&sunny(vec![looking_west()], vec![person()], vec![]));
    assert!(open > 1000, "{open}");
    let wall = |see_through: f64| {
        json!({"id": "o1", "name": "Wall", "kind": "wall", "top_m": 40, "see_through": see_through,
            "outline": [[-40, -60], [-39, -60], [-39, 60], [-40, 60]]})
    };
    assert_eq!(minutes(&sunny(vec![looking_west()], vec![person()], vec![wall(0.0)])), 0);
    assert_eq!(minutes(&sunny(vec![looking_west()], vec![person()], vec![wall(0.9)])), open);
    // Tilted down until its top edge is under the horizon it never sees the sun.
    let mut down = looking_west();
    down["heads"][0]["tilt_deg"] = json!(25.0);
    assert_eq!(minutes(&sunny(vec![down], vec![person()], vec![])), 0);
}

#[test]
fn where_the_sun_stays_up_or_down() {
    let year = |latitude: f64| {
        let mut file = sunny(vec![looking_west()], vec![person()], vec![]);
        file["place"] = json!({"latitude_deg": latitude, "longitude_deg": 20.0, "time_zone": "Europe/Oslo"});
        let session = Session::on(parse(&file));
        calendar(&session, &head(), Some("t1"), &sun_year(session.site(), 2027).unwrap()).unwrap()
    };
    for latitude in [78.0, -78.0, 90.0, -90.0] {
        let calendar = year(latitude);
        assert_eq!(calendar.days.len(), 365);
        let of = |date: &str| calendar.days.iter().find(|day| day.date == date).unwrap().up.clone();
        let (summer, winter) = if latitude > 0.0 { ("2027-06-21", "2027-12-21") } else { ("2027-12-21", "2027-06-21") };
        assert_eq!(of(summer), vec![[0, 1439]], "{latitude}: up all day");
        assert!(of(winter).is_empty(), "{latitude}: down all day");
    }
    // At the equator it is up for half a day and some minutes, every day.
    let calendar = year(0.0);
    let long =
        calendar.days.iter().skip(1).take(363).map(|day| day.up.iter().map(|[from, to]| to - from + 1).sum::<u16>());
    assert!(long.clone().all(|minutes| (720..=732).contains(&minutes)), "{:?}", long.collect::<Vec<_>>());
}

#[test]
fn the_calendar_counts_what_is_told_by_the_clock_and_finds_the_worst_days() {
    let file = sunny(vec![looking_west()], vec![person()], vec![]);
    let session = Session::on(parse(&file));
    let year = SunYear::new(session.site().file().place.as_ref().unwrap(), 2027).unwrap();
    let calendar = calendar(&session, &head(), Some("t1"), &year).unwrap();
    let inked: u32 =
        calendar.days.iter().flat_map(|day| &day.in_picture).map(|[from, to]| u32::from(to - from) + 1).sum();
    assert_eq!(inked, minutes(&file), "every minute of it is inked once");
    assert!((calendar.hours_in_picture * 60.0 - f64::from(inked)).abs() < 1e-9);
    assert_eq!(calendar.changes.len(), 2);
    assert!(
        calendar.changes[0].starts_with("2027-03-28: the clock is put on by 1 h, to 02:00"),
        "{:?}",
        calendar.changes
    );
    // The hour that the clock skips is on no day, that which it shows twice is there.
    let worst = &calendar.worst[0];
    let day = calendar.days.iter().find(|day| day.date == worst.date).unwrap();
    let [from, _] = day.in_picture[0];
    let at = sun_at(session.site(), &head(), &worst.date, from).unwrap();
    assert!(
        at.pixel.is_some() && at.clear && (at.azimuth_deg - worst.bearings_deg[0]).abs() < 0.01,
        "{at:?} {worst:?}"
    );
    assert!(sun_at(session.site(), &head(), &worst.date, from - 5).unwrap().pixel.is_none());
    assert!(!calendar.seasons.is_empty());
}

#[test]
fn ways_out_of_the_sun_hold_once_they_are_applied() {
    let file = sunny(vec![looking_west()], vec![person()], vec![]);
    let session = Session::on(parse(&file));
    let year = sun_year(session.site(), 2027).unwrap();
    let found = sun_ways(&session, &head(), &year, Units::Metres).unwrap();
    assert!(!found.ways.is_empty() && found.now > 10.0);
    // The two methods of tilt are priced whatever they do.
    assert_eq!(found.ways.iter().filter(|way| way.says.starts_with("Method: ")).count(), 2);
    for way in &found.ways {
        let mut then = file.clone();
        let patch: json_patch::Patch = serde_json::from_value(json!(way.patch)).unwrap();
        json_patch::patch(&mut then, &patch).unwrap();
        let hours = f64::from(minutes(&then)) / 60.0;
        // While ways are tried every fifth minute is looked at.
        assert!(
            (hours - way.measures.left.unwrap()).abs() < 0.02 * found.now + 1.0,
            "{}: {hours} not {}",
            way.says,
            way.measures.left.unwrap()
        );
        assert!(hours < found.now * 0.75 || way.says.starts_with("Method: "));
    }
}

#[test]
fn bad_places_and_years_are_named() {
    let fault = |place: Value| {
        let mut file = sunny(vec![looking_west()], vec![person()], vec![]);
        file["place"] = place;
        let faults = bright_angle_core::Site::parse(&file.to_string()).unwrap_err();
        faults.iter().map(ToString::to_string).collect::<Vec<_>>().join("; ")
    };
    assert!(fault(json!({"latitude_deg": 91, "longitude_deg": 0, "time_zone": "UTC"})).contains("place.latitude_deg"));
    assert!(
        fault(json!({"latitude_deg": 9, "longitude_deg": 200, "time_zone": "UTC"})).contains("place.longitude_deg")
    );
    assert!(
        fault(json!({"latitude_deg": 9, "longitude_deg": 20, "time_zone": "Mars/Base"})).contains("place.time_zone")
    );
    let session = Session::on(parse(&sunny(vec![looking_west()], vec![person()], vec![])));
    for year in [1, 9999] {
        assert!(sun_year(session.site(), year).unwrap_err().message.contains("1900 to 2100"));
    }
    let nowhere = Session::on(parse(&site(vec![looking_west()], vec![person()], vec![])));
    assert_eq!(sun_year(nowhere.site(), 2027).unwrap_err().path, "place");
}
