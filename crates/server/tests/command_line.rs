//! The program as it is called: answers on standard output, faults on standard error, exit codes.

use serde_json::{Value, json};
use std::io::Write;
use std::process::{Command, Output, Stdio};

const DEMO: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo/tern-quay.json");

fn call(args: &[&str], input: &[u8]) -> Output {
    let mut program = Command::new(env!("CARGO_BIN_EXE_bright-angle"));
    let mut running =
        program.args(args).stdin(Stdio::piped()).stdout(Stdio::piped()).stderr(Stdio::piped()).spawn().unwrap();
    // A program that refuses early may close its ear before all is said.
    let _ = running.stdin.take().unwrap().write_all(input);
    running.wait_with_output().unwrap()
}

fn text(bytes: &[u8]) -> String {
    String::from_utf8(bytes.to_vec()).unwrap()
}

fn answer(args: &[&str]) -> Value {
    let done = call(args, b"");
    assert!(done.status.success(), "{}", text(&done.stderr));
    serde_json::from_slice(&done.stdout).unwrap()
}

#[test]
fn evaluate_from_a_file_and_from_standard_input() {
    let from_file = answer(&["evaluate", DEMO]);
    assert_eq!(from_file["targets"].as_array().unwrap().len(), 9);
    let done = call(&["evaluate", "-"], &std::fs::read(DEMO).unwrap());
    assert_eq!(serde_json::from_slice::<Value>(&done.stdout).unwrap(), from_file);
}

#[test]
fn ways_and_section_of_a_sight_line() {
    let line = ["--camera", "c4", "--head", "h1", "--target", "t1"];
    let ways = answer(&[&["ways", DEMO], &line[..]].concat());
    assert_eq!(ways["why_none"], Value::Null);
    assert_eq!(ways["ways"][0]["effects"][0], json!({"target": "t1", "before": "broken", "after": "kept"}));
    assert_eq!(answer(&[&["section", DEMO], &line[..]].concat())["solids"][0]["id"], "o1");
    let done = call(&["ways", DEMO, "--camera", "c99", "--head", "h1", "--target", "t1"], b"");
    assert_eq!(
        (done.status.code(), text(&done.stderr)),
        (Some(2), "--camera: the site has no camera \"c99\"\n".into())
    );
}

#[test]
fn the_relief_is_an_ascii_grid() {
    let bounds = ["--at-height-m", "1.6", "--cell-m", "0.5", "--bounds", "-10,-5,110,85"];
    let done = call(&[&["relief", DEMO], &bounds[..]].concat(), b"");
    assert!(done.status.success(), "{}", text(&done.stderr));
    let grid = text(&done.stdout);
    let lines: Vec<&str> = grid.lines().collect();
    assert_eq!(
        lines[..6],
        ["ncols 240", "nrows 180", "xllcorner -10", "yllcorner -5", "cellsize 0.5", "NODATA_value -9999"]
    );
    assert_eq!((lines.len(), lines[6].split(' ').count()), (186, 240));
    // With all cores of the machine it is what one alone works out.
    let site = bright_angle_core::Site::parse(&std::fs::read_to_string(DEMO).unwrap()).unwrap();
    let cells = bright_angle_core::math::Grid::over([-10.0, -5.0, 110.0, 85.0], 0.5);
    assert_eq!(grid, bright_angle_core::show::coverage::relief::Relief::of(&site, cells, 1.6).to_ascii_grid());
    let refused = call(&["relief", DEMO, "--bounds", "0,0,10"], b"");
    assert_eq!(
        (refused.status.code(), text(&refused.stderr)),
        (Some(2), "--bounds: are four figures: west,south,east,north, m\n".into())
    );
    assert_eq!(call(&["relief", DEMO, "--cell-m", "0", "--bounds", "0,0,10,10"], b"").status.code(), Some(2));
}

#[test]
fn the_survey_on_the_command_line() {
    let found = answer(&["adjust", DEMO]);
    let doubtful: Vec<&Value> =
        found["readings"].as_array().unwrap().iter().filter(|r| r["doubtful"] == true).collect();
    assert_eq!(doubtful.len(), 1);
    let left = answer(&["survey", DEMO]);
    assert_eq!(left["before_you_leave"][0]["field"], "retention_days");
    let csv = text(&call(&["readings", DEMO], b"").stdout);
    assert!(csv.starts_with("id,from,to,slope_m,"));
    assert_eq!(csv.lines().count(), 1 + found["readings"].as_array().unwrap().len());
}

#[test]
fn the_pocket_calculator() {
    let found = answer(&["lens", "--distance-m", "18.9", "--task", "identify", "--json"]);
    // f = n·s·w/W = 250 · 18.9 · 5.376 / 2688 by hand.
    assert!((found["focal_mm"].as_f64().unwrap() - 9.45).abs() < 1e-12);
    assert!((found["scene_width_m"].as_f64().unwrap() - 10.752).abs() < 1e-12);
    for lens in found["lenses"].as_array().unwrap() {
        assert_eq!(lens["reaches"], json!(lens["px_per_m"].as_f64().unwrap() >= 250.0), "{lens}");
        assert_eq!(lens["reaches"], json!(lens["greatest_range_m"].as_f64().unwrap() >= 18.9), "{lens}");
    }
    let words = text(&call(&["lens", "--distance-m", "18.9", "--task", "identify"], b"").stdout);
    assert!(words.contains("9.45 mm or longer"), "{words}");
    let zone = text(&call(&["lens", "--distance-m", "22.86", "--from-m", "7.62", "--task", "read"], b"").stdout);
    assert!(zone.contains("infrared light 3.2 stops stronger"), "{zone}");
    for (args, path) in [
        (&["--distance-m", "NaN", "--task", "identify"][..], "--distance-m: "),
        (&["--distance-m", "20", "--task", "stare"], "--task: "),
        (&["--distance-m", "20", "--task", "read", "--from-m", "21"], "--from-m: "),
    ] {
        let done = call(&[&["lens"], args].concat(), b"");
        assert_eq!(done.status.code(), Some(2));
        assert!(text(&done.stderr).starts_with(path), "{}", text(&done.stderr));
    }
    assert_eq!(call(&["lens", "--distance-m", "20", "--task", "read", "--sensor", "big"], b"").status.code(), Some(2));
}

#[test]
fn faults_are_a_line_each_and_exit_code_two() {
    let mut site: Value = serde_json::from_slice(&std::fs::read(DEMO).unwrap()).unwrap();
    site["cameras"][3]["heads"][0]["focal_mm"] = json!(7);
    site["readings"] = json!([]);
    site["targets"][1]["id"] = json!("t1");
    let done = call(&["evaluate", "-"], site.to_string().as_bytes());
    assert_eq!(done.status.code(), Some(2));
    assert!(done.stdout.is_empty());
    assert_eq!(
        text(&done.stderr),
        "targets[1].id: \"t1\" stands twice in targets\ncameras[3].heads[0].focal_mm: 7 is not the lens's 6\n"
    );
    for input in [&b"{"[..], b"", b"\xff\xfe", &b" ".repeat(9 * 1024 * 1024)] {
        let done = call(&["evaluate", "-"], input);
        assert_eq!(done.status.code(), Some(2));
        assert_eq!(text(&done.stderr).lines().count(), 1);
    }
    let missing = call(&["evaluate", "/nowhere/at/all.json"], b"");
    assert_eq!(missing.status.code(), Some(2));
    assert!(text(&missing.stderr).starts_with("/nowhere/at/all.json: "));
}

#[test]
fn schema_openapi_and_help() {
    assert_eq!(answer(&["schema"])["$schema"], "https://json-schema.org/draft/2020-12/schema");
    assert_eq!(answer(&["openapi"])["info"]["title"], "Bright Angle");
    let help = text(&call(&["--help"], b"").stdout);
    for command in ["evaluate", "ways", "section", "adjust", "survey", "readings", "lens", "schema", "serve"] {
        assert!(help.contains(command), "{help}");
    }
    assert!(!call(&["serve", "--port", "0"], b"").status.success(), "without a database there is nothing to serve");
}

#[test]
fn the_picture_of_a_head_is_a_png_with_what_it_shows() {
    let folder = tempfile::tempdir().unwrap();
    let out = folder.path().join("view.png");
    let out = out.to_str().unwrap();
    let head = ["--camera", "c1", "--head", "h1"];
    let told = answer(&[&["view", DEMO, "--width", "320", "-o", out, "--night", "--stops=-1"], &head[..]].concat());
    let picture = image::open(out).unwrap();
    assert_eq!((picture.width(), picture.height()), (320, 180));
    assert_eq!(told["infrared"], true);
    // A mark stands where the sight line does.
    let evaluation = answer(&["evaluate", DEMO]);
    let lines = evaluation["sight_lines"].as_array().unwrap();
    let line = lines.iter().find(|line| line["camera"] == "c1" && line["target"] == "t2").unwrap();
    let mark = told["marks"].as_array().unwrap().iter().find(|mark| mark["target"] == "t2").unwrap();
    assert_eq!((&mark["pixel"], &mark["verdict"]), (&line["pixel"], &line["verdict"]));
    let loupe = answer(&[&["view", DEMO, "-o", out, "--loupe", "t2"], &head[..]].concat());
    assert_eq!((loupe["frame"]["width"].as_u64(), loupe["frame"]["scale"].as_f64()), (Some(160), Some(1.0)));
    for (wrong, says) in [
        (["--loupe", "t99"], "--loupe: the site has no target \"t99\"\n"),
        (["--width", "0"], "--width: 0 is outside 1 to 8192 px\n"),
        (["--shutter-s", "2"], "--shutter-s: 2 is outside 0 to 1 s\n"),
        (["--overhead", "/nowhere.png"], "--overhead: No such file or directory (os error 2)\n"),
    ] {
        let done = call(&[&["view", DEMO, "-o", out], &head[..], &wrong[..]].concat(), b"");
        assert_eq!((done.status.code(), text(&done.stderr)), (Some(2), says.into()));
    }
}

#[test]
fn a_card_says_where_landmarks_sit_and_masks_are_told_head_by_head() {
    let card = answer(&["card", DEMO, "--camera", "c4", "--head", "h1"]);
    let landmarks = card["landmarks"].as_array().unwrap();
    assert!(
        landmarks.iter().any(|landmark| landmark["says"].as_str().unwrap().starts_with("Fuel pontoon rail")),
        "{card}"
    );
    assert_eq!(card["focal_mm"], 6.0);
    assert_eq!(answer(&["masks", DEMO]), serde_json::json!([]));
    let mut site: Value = serde_json::from_str(&std::fs::read_to_string(DEMO).unwrap()).unwrap();
    site["private"] = serde_json::json!([{ "id": "n1", "name": "Window", "outline": [[66.5, 50.3], [66.5, 51.5]],
        "closed": false, "base_m": 1, "top_m": 2.2 }]);
    let masks: Value = serde_json::from_slice(&call(&["masks", "-"], site.to_string().as_bytes()).stdout).unwrap();
    let of_c3 = masks.as_array().unwrap().iter().find(|mask| mask["camera"] == "c3").unwrap();
    assert_eq!((&of_c3["place"], &of_c3["costs"][0]["target"]), (&"n1".into(), &"t4".into()));
    let inside =
        |corner: &Value| corner.as_array().unwrap().iter().all(|v| (0.0..=100.0).contains(&v.as_f64().unwrap()));
    assert!(of_c3["corners_percent"].as_array().unwrap().iter().all(inside));
}

/// A few small pictures, kept: what changes how they look is seen here first. They are made by `BRIGHT_ANGLE_GOLDEN=write cargo test`.
#[test]
fn golden_pictures_look_as_they_did() {
    let umber = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo/umber-yard.json");
    let overhead = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo/tern-quay.png");
    let golden = concat!(env!("CARGO_MANIFEST_DIR"), "/tests/golden");
    let folder = tempfile::tempdir().unwrap();
    let cases: [(&str, &str, &[&str]); 4] = [
        ("quay", DEMO, &["--camera", "c4", "--head", "h1", "--overhead", overhead]),
        ("lane-by-night", DEMO, &["--camera", "c1", "--head", "h1", "--night", "--stops=4"]),
        ("wall", DEMO, &["--camera", "c3", "--head", "h1", "--grid"]),
        ("fisheye", umber, &["--camera", "c2", "--head", "h1"]),
    ];
    for (name, site, how) in cases {
        let out = folder.path().join(format!("{name}.png"));
        answer(&[&["view", site, "--width", "120", "--samples", "3", "-o", out.to_str().unwrap()], how].concat());
        let kept = format!("{golden}/{name}.png");
        if std::env::var_os("BRIGHT_ANGLE_GOLDEN").is_some() {
            std::fs::copy(&out, &kept).unwrap();
        }
        let [found, kept] =
            [image::open(&out).unwrap(), image::open(&kept).unwrap()].map(image::DynamicImage::into_rgba8);
        assert_eq!(found.dimensions(), kept.dimensions());
        let off = found.as_raw().iter().zip(kept.as_raw()).map(|(a, b)| u64::from(a.abs_diff(*b))).sum::<u64>();
        let mean = off as f64 / found.as_raw().len() as f64;
        assert!(mean < 0.5, "{name}: {mean} of 255 off on the mean");
    }
}

/// The names and meanings that other programs rely on.
#[test]
fn sun_light_and_plates_answer_as_the_contract_says() {
    const LANE: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo/saltpan-lane.json");
    let nrel = ["--latitude-deg", "39.742476", "--longitude-deg", "-105.1786", "--elevation-m", "1830.14"];
    let sun = answer(&[&["sun-position", "--time", "2003-10-17T12:30:30-07:00"], &nrel[..]].concat());
    // NREL/TP-560-34302: azimuth 194.34024°; the zenith is of other air, a few thousandths off.
    assert!((sun["azimuth_deg"].as_f64().unwrap() - 194.34024).abs() < 1e-5);
    assert!((sun["zenith_deg"].as_f64().unwrap() - 50.11162).abs() < 5e-3);
    assert!(
        (sun["apparent_elevation_deg"].as_f64().unwrap() + sun["zenith_deg"].as_f64().unwrap() - 90.0).abs() < 1e-9
    );
    let year = answer(&["sun", LANE, "--year", "2027", "--camera", "c3", "--head", "h1"]);
    assert_eq!((year["heads"].as_array().unwrap().len(), &year["heads"][0]["camera"]), (1, &json!("c3")));
    let first = &year["heads"][0]["days"][0];
    assert!(first["from"].as_str().unwrap().starts_with(first["date"].as_str().unwrap()));
    assert!(year["targets"].as_array().unwrap().iter().all(|target| target["minutes_backlit"].is_u64()));
    let light = answer(&["light", LANE]);
    assert!(light["targets"][0]["lux_upright"].as_f64().unwrap() > 0.0 && light["infrared"][0]["stops"].is_f64());
    let plates = answer(&["plates", LANE]);
    for name in
        ["time_s", "looks", "blur_px", "focus_m", "infrared_stops", "char_height_px", "stroke_px", "scene_width_m"]
    {
        assert!(plates[0][name].is_f64(), "{name}");
    }
    assert!(plates[0]["zone"]["from"].as_f64().unwrap() < plates[0]["zone"]["to"].as_f64().unwrap());
    let card = call(&["settings", LANE, "--camera", "c1", "--head", "h1", "--date", "2027-06-21"], b"");
    assert!(text(&card.stdout).starts_with("camera,head,target,setting,value,why\nc1,h1,t1,Shutter,"));
}

#[test]
fn what_the_sun_is_not_told_for_is_named() {
    let refused = |args: &[&str]| {
        let done = call(args, b"");
        assert_eq!(done.status.code(), Some(2), "{args:?}");
        text(&done.stderr)
    };
    let at = |latitude: &str, time: &str| {
        refused(&["sun-position", "--latitude-deg", latitude, "--longitude-deg", "0", "--time", time])
    };
    assert!(at("95", "2027-06-21T12:00:00Z").starts_with("--latitude-deg: 95 is outside"));
    assert!(at("50", "0001-06-21T12:00:00Z").contains("1900 to 2100, not for 1"));
    assert!(at("50", "9999-06-21T12:00:00Z").contains("1900 to 2100, not for 9999"));
    assert!(at("50", "yesterday").starts_with("--time: "));
    assert!(refused(&["sun", DEMO, "--year", "1"]).starts_with("--year: "));
    assert!(refused(&["sun", DEMO, "--year", "2027", "--camera", "c99"]).contains("no camera \"c99\""));
}

#[test]
fn pixels_on_standard_input_are_read_from_the_first_line_on() {
    let call_rays = |input: &[u8]| call(&["rays", DEMO, "--camera", "c4", "--head", "h1"], input);
    let with_header = call_rays(b"u,v\n100,900\n2000,1200\n");
    let without = call_rays(b"100,900\n2000,1200\n");
    let out = text(&without.stdout);
    assert_eq!(out.lines().count(), 3, "{out}{}", text(&without.stderr));
    assert_eq!(out, text(&with_header.stdout));
    let neither = call_rays(b"pixel;row\n100,900\n");
    assert_eq!(neither.status.code(), Some(2));
    assert!(text(&neither.stderr).contains("line 1: is no pixel: u,v, nor a header"), "{}", text(&neither.stderr));
}

#[test]
fn the_guide_has_the_limits_with_their_ranges() {
    let guide = answer(&["guide"]);
    let limits = guide["limits"].as_array().unwrap();
    let range = limits.iter().find(|limit| limit["field"] == "face_tight_deg").unwrap();
    assert_eq!((&range["least"], &range["most"]), (&json!(0.0), &json!(90.0)));
    // Each limit is one of the settings, or one of the uncertainties beside them, and stands in its range.
    for limit in limits {
        let field = limit["field"].as_str().unwrap();
        let held = [&guide["rules"], &guide["rules"]["uncertainties"], &guide["wiring"], &guide["proving"]];
        let usual = held.into_iter().find_map(|settings| settings[field].as_f64());
        let usual = usual.unwrap_or_else(|| panic!("{field} has no usual value"));
        assert!(limit["least"].as_f64().unwrap() <= usual && usual <= limit["most"].as_f64().unwrap(), "{field}");
    }
}
