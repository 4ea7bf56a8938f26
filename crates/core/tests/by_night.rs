//! Light by night, sample by sample: what is too dark and what is bleached, on plates' ways, beside walls and behind posts (handbook,
//! section 9, "Infrared" and "Too bright").

use crate::support::{CameraAt, DEMOS, evaluated, parse, site, target};
use bright_angle_core::answer::{Ask, Door};
use bright_angle_core::judge::Session;
use bright_angle_core::light::{lux_upright, retro_gain};
use serde_json::{Value, json};

fn night(mut site: Value) -> Value {
    site["conditions"] = json!({"night": true});
    site
}

fn rule(site: &Value, name: &str) -> Value {
    let found = evaluated(site);
    let rules = found["sight_lines"][0]["rules"].as_array().unwrap().clone();
    rules.into_iter().find(|rule| rule["rule"] == name).unwrap_or(Value::Null)
}

fn verdict(site: &Value, name: &str) -> String {
    rule(site, name)["verdict"].as_str().unwrap_or("none").to_owned()
}

/// The lane of the demo as its one camera sees it, without the lorry's wish for an overview.
fn lane() -> Value {
    let mut site: Value = serde_json::from_str(DEMOS[3]).unwrap();
    site["cameras"] = json!([site["cameras"][0]]);
    site["targets"] = json!([site["targets"][0]]);
    site["rules"] = json!({"overview_pair": false});
    night(site)
}

/// A plate camera rated 30 m at 1/1000 s, level with a plate that it looks straight at.
fn plate_at(far: f64, share: Option<f64>) -> Value {
    let mut camera = CameraAt { height: 1.0, tilt: 0.0, focal: 25.0, ..CameraAt::default() }.json();
    camera["model"]["form"] = json!("plate");
    camera["model"]["infrared"] = json!({"range_m": 30, "beam_deg": 30});
    camera["heads"][0]["exposure"] = json!({"shutter_s": 0.001, "fps": 25});
    if let Some(share) = share {
        camera["heads"][0]["exposure"]["infrared_share"] = json!(share);
    }
    let mut plate = target("plate", "read", [0.0, far], 0.75);
    plate["facing_deg"] = json!(180);
    night(site(vec![camera], vec![plate], vec![]))
}

#[test]
fn what_is_read_in_the_dark_is_not_kept() {
    let mut site = lane();
    site["cameras"][0]["heads"][0]["exposure"]["infrared_share"] = json!(0);
    let (mut dark, mut kept) = (0, 0);
    // One setting after another: whenever it is kept, each sample that counts has light.
    for focal in [12.0, 14.0, 16.0, 19.0, 19.2, 22.0, 26.0, 32.0] {
        site["cameras"][0]["heads"][0]["focal_mm"] = json!(focal);
        let line = evaluated(&site)["sight_lines"][0].clone();
        let parsed = parse(&site);
        let lane = parsed.targets()[0].lane.clone().unwrap();
        let eye = parsed.heads()[0].position();
        // By hand: 0.008 lux at 1/30 s are 0.267 at 1/1000 s.
        let lux = |point: &glam::DVec3| lux_upright(parsed.lamps(), parsed.scene(), *point, eye).0;
        let lit = |ends: &Value| {
            let ends = [0, 1].map(|end| ends[end].as_f64().unwrap());
            let there = lane.along.iter().zip(&lane.samples).filter(|(along, _)| (ends[0]..=ends[1]).contains(*along));
            there.filter(|(_, point)| lux(point) >= 0.008 * 1000.0 / 30.0).count()
        };
        let zone = &line["zone"];
        let any = lit(&json!([zone["from"], zone["to"]]));
        let found = verdict(&site, "light_enough");
        assert!(any > 0 || found == "broken", "{focal}: {found}");
        if line["verdict"] == "kept" {
            kept += 1;
            let ends: Vec<f64> = zone["serves"].as_array().unwrap().iter().map(|end| end.as_f64().unwrap()).collect();
            // Every sample of the stretch, one each tenth of a metre.
            assert_eq!(lit(&zone["serves"]), ((ends[1] - ends[0]) / 0.1).round() as usize + 1, "{focal}: {zone}");
        }
        dark += usize::from(any == 0);
    }
    assert!(dark > 2, "{dark} {kept}");
}

#[test]
fn it_is_enough_that_there_is_light_where_the_pictures_are_taken() {
    let mut site = lane();
    site["cameras"][0]["model"]["infrared_m"] = json!(20);
    let found = rule(&site, "light_enough");
    assert_ne!(found["verdict"], "broken", "{found}");
    // And where it is taken, there is: (20/s)²·50/33.3 is one at 24.5 m.
    let zone = &evaluated(&site)["sight_lines"][0]["zone"];
    let serves = zone["serves"].as_array().expect("there is a stretch");
    let from = parse(&site).heads()[0].position();
    let lane = parse(&site).targets()[0].lane.clone().unwrap();
    let there = lane
        .along
        .iter()
        .zip(&lane.samples)
        .filter(|(along, _)| (serves[0].as_f64().unwrap()..=serves[1].as_f64().unwrap()).contains(*along));
    let slants: Vec<f64> = there.map(|(_, point)| point.distance(from)).collect();
    assert!(slants.len() > 10 && slants.iter().all(|slant| (9.0..24.5).contains(slant)), "{slants:?}");
}

#[test]
fn a_beam_that_reads_at_100_feet_bleaches_at_15() {
    // (30/s)²·50 against what 1/1000 s needs, 33.3 times.
    for (far, expected, times) in [(4.6, "broken", 63.8), (15.0, "broken", 6.0), (30.0, "kept", 1.5)] {
        let found = rule(&plate_at(far, None), "overexposed");
        assert_eq!(found["verdict"], expected, "{far} m: {found}");
        let value = found["value"].as_f64().unwrap();
        assert!((value / times - 1.0).abs() < 0.05, "{far} m: {value}, not {times}");
        assert_eq!((found["limit"].as_f64(), found["unit"].as_str()), (Some(4.0), Some("times")));
    }
    // By day nobody asks.
    let mut by_day = plate_at(4.6, None);
    by_day["conditions"] = json!({});
    assert_eq!(rule(&by_day, "overexposed"), Value::Null);
    // The limit is a setting.
    let mut patient = plate_at(15.0, None);
    patient["rules"] = json!({"overexposed_times": 10});
    assert_eq!(verdict(&patient, "overexposed"), "kept");
}

#[test]
fn turned_down_as_the_card_says_it_reads() {
    for far in [4.6, 15.0, 30.0] {
        let mut site = plate_at(far, None);
        let focal = far.max(10.0);
        site["cameras"][0]["model"]["lens"] = json!({"focal_min_mm": focal, "focal_max_mm": focal});
        site["cameras"][0]["heads"][0]["focal_mm"] = json!(focal);
        site["targets"][0]["shape"] = json!({"kind": "line", "points": [[0.0, far], [0.0, far - 0.6]]});
        site["targets"][0]["speed_mps"] = json!(1);
        site["targets"][0]["height_m"] = json!(0.95);
        site["rules"] = json!({"overview_pair": false});
        let head = bright_angle_core::file::HeadRef { camera: "c1".into(), head: "h1".into(), view: None };
        let ask = Ask::StartSettings { head, date: None, units: bright_angle_core::words::units::Units::Metres };
        let cards = serde_json::to_value(Door::on(Session::on(parse(&site))).ask(ask).unwrap()).unwrap();
        if far < 20.0 {
            assert_eq!(verdict(&site, "overexposed"), "broken", "{far}");
        }
        site["cameras"][0]["heads"][0]["exposure"] = cards[0]["exposure"].clone();
        for name in ["overexposed", "light_enough", "looks"] {
            assert_eq!(verdict(&site, name), "kept", "{far}: {}", rule(&site, name));
        }
    }
}

#[test]
fn plates_throw_light_back_to_where_it_came_from_only() {
    // Handbook, section 9: 50 within 2°, falling to 1 at 10°, linear in the logarithm.
    for (deg, gain) in [(0.0, 50.0), (2.0, 50.0), (6.0, 50_f64.sqrt()), (10.0, 1.0), (45.0, 1.0)] {
        assert!((retro_gain(f64::to_radians(deg), 50.0) - gain).abs() < 1e-9, "{deg}");
    }
    let aside = |off: f64| {
        let mut site = plate_at(20.0, None);
        site["cameras"][0]["emitter"] =
            json!({"position": [off, 0], "height_m": 1, "light": {"range_m": 60, "beam_deg": 90}});
        rule(&site, "light_enough")["value"].as_f64().unwrap()
    };
    // Ten metres aside are 27° as seen from the plate: paint.
    let square: f64 = 20.0 * 20.0 + 10.0 * 10.0 + 0.25 * 0.25;
    let power = 0.5_f64.ln() / 45_f64.to_radians().cos().ln();
    let plain = 3600.0 / square * (20.0 / square.sqrt()).powf(power) * 0.03;
    let [near, far] = [0.2, 10.0].map(aside);
    assert!((far / plain - 1.0).abs() < 1e-6, "{far}, not {plain}");
    assert!(near > 13.0, "{near}");
}

#[test]
fn the_zone_of_a_lamp_aside_is_that_of_the_lamp() {
    let mut site = lane();
    site["cameras"][0]["emitter"] =
        json!({"position": [20.0, 33.0], "height_m": 6.0, "light": {"range_m": 40, "beam_deg": 120}});
    let zone = evaluated(&site)["sight_lines"][0]["zone"].clone();
    let [from, to] = ["from", "to"].map(|end| zone[end].as_f64().unwrap());
    let lane = parse(&site).targets()[0].lane.clone().unwrap();
    let lamp = glam::DVec3::new(20.0, 33.0, 6.0);
    let there = lane.along.iter().zip(&lane.samples).filter(|(along, _)| (from..=to).contains(*along));
    let far: Vec<f64> = there.map(|(_, point)| point.distance(lamp)).collect();
    let (least, most) = far.iter().fold((f64::INFINITY, 0.0_f64), |(a, b), s| (a.min(*s), b.max(*s)));
    let stops = 2.0 * (most / least).log2();
    assert!((zone["infrared_stops"].as_f64().unwrap() / stops - 1.0).abs() < 1e-9, "{zone}, not {stops}");
}

/// A face and an infrared lamp aside, with a post of 4 cm so far off the line between the two.
fn post(off: f64) -> Value {
    let mut camera = CameraAt { tilt: 6.0, ..CameraAt::default() }.json();
    camera["emitter"] = json!({"position": [6.0, 0.0], "height_m": 3, "light": {"range_m": 30, "beam_deg": 150}});
    let middle = [3.0 + off, 6.0];
    let corners: Vec<[f64; 2]> = [[-0.02, -0.02], [0.02, -0.02], [0.02, 0.02], [-0.02, 0.02]]
        .map(|[x, y]| [middle[0] + x, middle[1] + y])
        .into();
    let post = json!({"id": "o1", "name": "Post", "kind": "other", "top_m": 4, "outline": corners});
    night(site(vec![camera], vec![target("face", "recognise", [0.0, 12.0], 1.6)], vec![post]))
}

#[test]
fn what_nearly_shades_a_lamp_aside_makes_it_tight() {
    let found: Vec<String> =
        [0.0, 0.03, 0.05, 0.3].into_iter().map(|off| verdict(&post(off), "light_enough")).collect();
    assert_eq!(found, ["broken", "tight", "tight", "kept"]);
    // A site's lamp, too.
    let lit = |off: f64| {
        let mut site = post(off);
        site["cameras"][0].as_object_mut().unwrap().remove("emitter");
        site["cameras"][0]["model"]["least_lux"] = json!(0.05);
        site["lamps"] = json!([{"id": "l1", "name": "L", "position": [6.0, 0.0], "height_m": 5, "lumens": 6000}]);
        site["obstacles"][0]["top_m"] = json!(9);
        verdict(&site, "light_enough")
    };
    assert_eq!([0.0, 0.03, 0.05, 0.3].map(lit), ["broken", "tight", "tight", "kept"]);
}

#[test]
fn nobody_stands_inside_a_wall_where_it_is_dark() {
    // A door 2 cm before a wall: what is uncertain reaches into the wall, where the target cannot be.
    let mut site = lamp_at_a_wall();
    assert_eq!(verdict(&site, "light_enough"), "kept");
    // A thin one, as well.
    site["obstacles"][0] = json!({"id": "o1", "name": "Wall", "kind": "wall", "top_m": 4, "closed": false, "outline": [[-5, 12.02], [5, 12.02]]});
    assert_eq!(verdict(&site, "light_enough"), "kept");
}

fn lamp_at_a_wall() -> Value {
    let mut camera = CameraAt { tilt: 6.0, ..CameraAt::default() }.json();
    camera["model"]["least_lux"] = json!(0.5);
    let wall = json!({"id": "o1", "name": "Wall", "kind": "wall", "top_m": 4, "outline": [[-5, 12.02], [5, 12.02], [5, 12.5], [-5, 12.5]]});
    let mut site = night(site(vec![camera], vec![target("face", "recognise", [0.0, 12.0], 1.6)], vec![wall]));
    site["lamps"] = json!([{"id": "l1", "name": "L", "position": [1.0, 8.0], "height_m": 5, "lumens": 3000}]);
    site
}

#[test]
fn headlights_glare_on_a_front_plate_at_a_slow_shutter() {
    let with = |shutter: f64, away: bool| {
        let mut site = lane();
        site["cameras"][0]["heads"][0]["exposure"]["shutter_s"] = json!(shutter);
        if away {
            site["targets"][0]["shape"]["points"].as_array_mut().unwrap().reverse();
        }
        verdict(&site, "headlights")
    };
    // Common practice, no source (handbook, section 10): tight at shutters longer than 1/1000 s; tail lights do no harm.
    assert_eq!([with(0.001, false), with(0.002, false), with(0.002, true)], ["kept", "tight", "none"]);
    let mut by_day = lane();
    by_day["conditions"] = json!({});
    assert_eq!(verdict(&by_day, "headlights"), "none");
}

#[test]
fn why_a_place_is_not_seen_knows_the_night() {
    use bright_angle_core::ground::why::why;
    use bright_angle_core::words::units::Units;
    let mut site = post(3.0);
    site["cameras"][0]["emitter"]["light"] = json!({"range_m": 10, "beam_deg": 150});
    let says = |site: &Value| {
        let told = why(&parse(site), [0.0, 14.0], 1.6, 62.5, Units::Metres).unwrap();
        (told.cameras, told.heads[0].says.clone())
    };
    let (cameras, dark) = says(&site);
    assert!(cameras == 0 && dark.contains("too dark"), "{dark}");
    site["conditions"] = json!({});
    assert_eq!(says(&site).0, 1);
}

/// An automatic brings the mean of its picture to 18 % of white: on a dark road that bleaches a plate, before a lit wall it leaves it dark.
#[test]
fn an_automatic_is_judged_by_what_it_does_tonight() {
    let automatic = |wall: Option<f64>, exposure: Value| {
        let mut site = plate_at(15.0, None);
        site["cameras"][0]["heads"][0]["exposure"] = exposure;
        if let Some(far) = wall {
            site["obstacles"] = json!([{"id": "o1", "name": "Wall", "kind": "wall", "top_m": 9,
                "outline": [[0.02, far], [9, far], [9, far + 0.3], [0.02, far + 0.3]]}]);
        }
        [verdict(&site, "light_enough"), verdict(&site, "overexposed")]
    };
    assert_eq!(automatic(None, json!(null)), ["kept", "broken"], "a dark road");
    assert_eq!(automatic(Some(0.5), json!(null)), ["broken", "kept"], "a wall that takes the light");
    // With a shutter it is fixed, unless it says that it is not.
    let fixed = json!({"shutter_s": 0.000_25, "fps": 25});
    assert_eq!(automatic(Some(0.5), fixed), ["kept", "kept"]);
    let longest = json!({"shutter_s": 0.000_25, "fps": 25, "mode": "auto"});
    assert_eq!(automatic(None, longest), ["kept", "kept"], "no longer than that");
}

/// The picture that is drawn is the picture that is judged.
#[test]
fn what_the_automatic_does_is_what_its_picture_shows() {
    use bright_angle_core::file::HeadRef;
    use bright_angle_core::picture::{Exposed, Light, Picture, PictureWish, Window};
    let mut site = plate_at(15.0, None);
    site["obstacles"] = json!([{"id": "o1", "name": "Wall", "kind": "wall", "top_m": 9,
        "outline": [[-9, 22], [9, 22], [9, 22.3], [-9, 22.3]]}]);
    site["cameras"][0]["heads"][0]["tilt_deg"] = json!(3);
    let session = Session::on(parse(&site));
    let mean = |exposed: Option<Exposed>| {
        let light = Light::Night { stops: 0.0, exposed };
        let wish = PictureWish { window: Window::Whole { width: 240 }, light, grid: false, samples: 2, shutter_s: 0.0 };
        let head = HeadRef { camera: "c1".into(), head: "h1".into(), view: None };
        let mut picture = Picture::begin(&session, &head, &wish, None).unwrap();
        while picture.step(session.site()) {}
        let linear = |byte: u8| {
            let value = f64::from(byte) / 255.0;
            if value <= 0.040_45 { value / 12.92 } else { ((value + 0.055) / 1.055).powf(2.4) }
        };
        let bytes = picture.rgba();
        bytes.chunks(4).map(|pixel| linear(pixel[1])).sum::<f64>() / (bytes.len() / 4) as f64
    };
    let automatic = mean(Some(Exposed::Automatic));
    assert!((0.14..0.22).contains(&automatic), "about 18 % of white: it is metered on a coarse grid; not {automatic}");
    assert_eq!(mean(None), mean(Some(Exposed::AsSet)), "its shutter is fixed");
}
