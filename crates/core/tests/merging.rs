//! Two people at one site: what each did is there, and what both did is chosen about.

use bright_angle_core::change::compare::{Thing, compare};
use bright_angle_core::change::merge::{Choice, merge};
use bright_angle_core::change::side::Side;
use bright_angle_core::file::SiteFile;
use bright_angle_core::words::units::Units;
use serde_json::{Value, json};

fn demo() -> Value {
    serde_json::from_str(include_str!("../../../demo/tern-quay.json")).unwrap()
}

fn file(site: &Value) -> SiteFile {
    SiteFile::parse(&site.to_string()).unwrap()
}

fn changed(change: impl Fn(&mut Value)) -> SiteFile {
    let mut site = demo();
    change(&mut site);
    file(&site)
}

fn said(before: &SiteFile, after: &SiteFile) -> Vec<(Thing, String, String)> {
    compare(before, after, Units::Metres).into_iter().map(|d| (d.thing, d.id, d.says)).collect()
}

#[test]
fn what_changed_is_told_thing_by_thing_in_words() {
    let base = file(&demo());
    assert_eq!(said(&base, &base), []);
    let after = changed(|site| {
        site["name"] = json!("Tern Quay");
        site["cameras"][3]["height_m"] = json!(4.2);
        site["cameras"][3]["heads"][0]["tilt_deg"] = json!(11);
        site["cameras"][0]["position"][0] = json!(site["cameras"][0]["position"][0].as_f64().unwrap() + 1.5);
        site["targets"].as_array_mut().unwrap().remove(1);
        site["obstacles"][0]["outline"][0][0] = json!(-1);
        site["brief"] = json!({"client": "The harbour office"});
    });
    let found = said(&base, &after);
    let says = |thing: Thing, id: &str| {
        found.iter().find(|(t, i, _)| *t == thing && i == id).map(|(_, _, says)| says.as_str()).unwrap_or_default()
    };
    assert_eq!(says(Thing::Site, "name"), "“Tern Quay Boatyard” → “Tern Quay”");
    assert_eq!(
        says(Thing::Camera, "c4"),
        format!(
            "tilt {:.1}° → 11.0°; height 3.60 m → 4.20 m",
            demo()["cameras"][3]["heads"][0]["tilt_deg"].as_f64().unwrap()
        )
    );
    assert_eq!(says(Thing::Camera, "c1"), "moved by 1.50 m");
    assert_eq!(says(Thing::Target, "t2"), "removed");
    assert_eq!(says(Thing::Obstacle, demo()["obstacles"][0]["id"].as_str().unwrap()), "outline changed");
    assert!(says(Thing::Brief, "client").ends_with("→ “The harbour office”"));
    assert!(said(&after, &base).contains(&(Thing::Target, "t2".into(), "added".into())));
    let feet = compare(&base, &after, Units::Feet);
    assert!(feet.iter().any(|d| d.says.contains("11' 10\" → 13' 9\"")), "{feet:?}");
}

#[test]
fn what_only_one_side_changed_is_taken_from_that_side() {
    let base = file(&demo());
    let mine = changed(|site| {
        site["cameras"][3]["height_m"] = json!(4.2);
        site["targets"].as_array_mut().unwrap().remove(8);
        site["brief"]["worry"] = json!("Fuel goes at night");
    });
    let theirs = changed(|site| {
        site["cameras"][2]["height_m"] = json!(5);
        site["name"] = json!("Theirs");
        site["brief"]["hours"] = json!("7 to 17");
    });
    let merged = merge(&base, &mine, &theirs, &[], Units::Metres);
    assert_eq!((&merged.clashes, &merged.faults), (&vec![], &vec![]));
    let site = merged.site.unwrap();
    assert_eq!((site.cameras[3].height_m, site.cameras[2].height_m, site.name.as_str()), (4.2, 5.0, "Theirs"));
    assert_eq!(site.targets.len(), base.targets.len() - 1);
    let brief = site.brief.unwrap();
    assert_eq!((brief.worry.as_deref(), brief.hours.as_deref()), (Some("Fuel goes at night"), Some("7 to 17")));
    // Whoever merges, the same comes of it.
    let other = merge(&base, &theirs, &mine, &[], Units::Metres).site.unwrap();
    assert_eq!(
        said(&site_sorted(&other), &site_sorted(&merge(&base, &mine, &theirs, &[], Units::Metres).site.unwrap())),
        []
    );
}

fn site_sorted(site: &SiteFile) -> SiteFile {
    let mut site = site.clone();
    site.targets.sort_by(|a, b| a.id.cmp(&b.id));
    site.cameras.sort_by(|a, b| a.id.cmp(&b.id));
    site
}

#[test]
fn what_both_changed_is_shown_by_thing_and_taken_as_chosen() {
    let base = file(&demo());
    let mine = changed(|site| {
        site["cameras"][3]["height_m"] = json!(4.2);
        site["cameras"][2]["height_m"] = json!(3.1);
        site["targets"].as_array_mut().unwrap().remove(8);
    });
    let theirs = changed(|site| {
        site["cameras"][3]["height_m"] = json!(5);
        site["targets"][8]["name"] = json!("Slip");
    });
    let open = merge(&base, &mine, &theirs, &[], Units::Metres);
    let renamed = format!("name “{}” → “Slip”", base.targets[8].name);
    let clashes: Vec<(&str, &str, &str)> =
        open.clashes.iter().map(|c| (c.id.as_str(), c.mine.as_str(), c.theirs.as_str())).collect();
    assert_eq!(
        clashes,
        [("t9", "removed", renamed.as_str()), ("c4", "height 3.60 m → 4.20 m", "height 3.60 m → 5.00 m")]
    );
    let choice = |thing, id: &str, take| Choice { thing, id: id.to_owned(), take };
    let choices = [choice(Thing::Camera, "c4", Side::Theirs), choice(Thing::Target, "t9", Side::Mine)];
    let chosen = merge(&base, &mine, &theirs, &choices, Units::Metres);
    assert_eq!(chosen.clashes, []);
    let site = chosen.site.unwrap();
    assert_eq!((site.cameras[3].height_m, site.cameras[2].height_m), (5.0, 3.1));
    assert!(!site.targets.iter().any(|target| target.id == "t9"));
    // The same change on both sides is none to choose about.
    assert_eq!(merge(&base, &mine, &mine, &[], Units::Metres).clashes, []);
}

#[test]
fn what_both_added_under_one_id_is_two_things() {
    let spot = |name: &str| json!({"id": "s90", "name": name, "position": [3, 4], "height_m": 3});
    let base = file(&demo());
    let mine = changed(|site| {
        site["spots"].as_array_mut().unwrap().push(spot("Mine"));
        site["readings"].as_array_mut().unwrap().push(json!({"id": "r90", "from": "t1", "to": "s90", "slope_m": 20}));
        site["cameras"][3]["spot"] = json!("s90");
        site["targets"][0]["distance"] = json!({"how": "laser", "from": [{"spot": "s90", "plus_minus_m": 0.1}]});
    });
    let theirs = changed(|site| site["spots"].as_array_mut().unwrap().push(spot("Theirs")));
    let merged = merge(&base, &mine, &theirs, &[], Units::Metres);
    assert_eq!((&merged.clashes, &merged.faults), (&vec![], &vec![]));
    let site = merged.site.unwrap();
    let id = |name: &str| site.spots.iter().find(|spot| spot.name == name).unwrap().id.clone();
    assert_ne!(id("Mine"), id("Theirs"));
    assert_eq!(site.readings.last().unwrap().to, id("Mine"));
    assert_eq!(site.cameras[3].spot.as_ref(), Some(&id("Mine")));
    assert_eq!(site.targets[0].distance.from[0].spot, id("Mine"));
}

#[test]
fn what_does_not_hold_together_is_said_and_not_made() {
    let with_spot = |also: &dyn Fn(&mut Value)| {
        changed(|site| {
            site["spots"]
                .as_array_mut()
                .unwrap()
                .push(json!({"id": "s90", "name": "S", "position": [3, 4], "height_m": 3}));
            also(site);
        })
    };
    let base = with_spot(&|_| {});
    // I shoot at a spot that they take away.
    let mine = with_spot(&|site| {
        let reading = json!({"id": "r90", "from": "t1", "to": "s90", "slope_m": 20});
        site["readings"].as_array_mut().unwrap().push(reading);
    });
    let merged = merge(&base, &mine, &file(&demo()), &[], Units::Metres);
    assert_eq!(merged.site, None);
    assert!(merged.faults.iter().any(|fault| fault.message.contains("s90")), "{:?}", merged.faults);
}

#[test]
fn a_camera_is_put_together_field_by_field_and_what_is_chosen_decides_only_what_both_changed() {
    let base = file(&demo());
    // Two windows: one turns the head and renames, the other raises and tilts it.
    let mine = changed(|site| {
        site["cameras"][3]["heads"][0]["pan_deg"] = json!(150);
        site["cameras"][3]["name"] = json!("Chandlery");
    });
    let theirs = changed(|site| {
        site["cameras"][3]["height_m"] = json!(4.2);
        site["cameras"][3]["heads"][0]["tilt_deg"] = json!(11);
    });
    for (mine, theirs) in [(&mine, &theirs), (&theirs, &mine)] {
        let merged = merge(&base, mine, theirs, &[], Units::Metres);
        assert_eq!(merged.clashes, []);
        let camera = &merged.site.unwrap().cameras[3];
        let head = &camera.heads[0];
        assert_eq!(
            (head.pan_deg, head.tilt_deg, camera.height_m, camera.name.as_str()),
            (150.0, 11.0, 4.2, "Chandlery")
        );
    }
    // Both turned it: that is asked about, and nothing else of it is lost, whatever is chosen.
    let turned = changed(|site| {
        site["cameras"][3]["heads"][0]["pan_deg"] = json!(200);
        site["cameras"][3]["height_m"] = json!(4.2);
    });
    let open = merge(&base, &mine, &turned, &[], Units::Metres);
    assert_eq!(open.clashes.iter().map(|clash| clash.id.as_str()).collect::<Vec<_>>(), ["c4"]);
    for (take, pan) in [(Side::Mine, 150.0), (Side::Theirs, 200.0)] {
        let choice = Choice { thing: Thing::Camera, id: "c4".into(), take };
        let merged = merge(&base, &mine, &turned, &[choice], Units::Metres);
        assert_eq!(merged.clashes, []);
        let camera = &merged.site.unwrap().cameras[3];
        assert_eq!((camera.heads[0].pan_deg, camera.height_m, camera.name.as_str()), (pan, 4.2, "Chandlery"));
    }
}

#[test]
fn a_lens_and_the_focal_length_set_on_it_are_not_taken_apart() {
    let base = file(&demo());
    let other = demo()["cameras"][0]["model"].clone();
    let mine = changed(|site| {
        site["cameras"][3]["model"] = other.clone();
        site["cameras"][3]["heads"][0]["focal_mm"] = other["lens"]["focal_min_mm"].clone();
    });
    let theirs = changed(|site| site["cameras"][3]["heads"][0]["pan_deg"] = json!(200));
    for (mine, theirs) in [(&mine, &theirs), (&theirs, &mine)] {
        let merged = merge(&base, mine, theirs, &[], Units::Metres);
        assert_eq!(merged.clashes.iter().map(|clash| clash.id.as_str()).collect::<Vec<_>>(), ["c4"]);
        assert!(merged.site.is_some(), "{:?}", merged.faults);
    }
}

#[test]
fn a_preset_that_one_adds_and_one_that_the_other_moves_are_both_there() {
    let umber: Value = serde_json::from_str(include_str!("../../../demo/umber-yard.json")).unwrap();
    let with = |change: &dyn Fn(&mut Value)| {
        let mut site = umber.clone();
        change(&mut site);
        file(&site)
    };
    let at = umber["cameras"].as_array().unwrap().iter().position(|c| c["heads"][0].get("presets").is_some()).unwrap();
    let base = file(&umber);
    let mine = with(&|site| {
        let presets = site["cameras"][at]["heads"][0]["presets"].as_array_mut().unwrap();
        let mut new = presets[0].clone();
        new["id"] = json!("p99");
        presets.push(new);
    });
    let theirs = with(&|site| site["cameras"][at]["heads"][0]["presets"][0]["dwell_s"] = json!(17));
    let merged = merge(&base, &mine, &theirs, &[], Units::Metres);
    assert_eq!(merged.clashes, []);
    let presets = &merged.site.unwrap().cameras[at].heads[0].presets;
    assert_eq!((presets[0].dwell_s, presets.last().unwrap().id.as_str()), (17.0, "p99"));
}
