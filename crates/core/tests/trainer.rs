//! The trainer's truths are what the site becomes when they are done: each is held against an evaluation of the changed site.

use crate::support::*;
use bright_angle_core::Site;
use bright_angle_core::judge::{Session, evaluate};
use bright_angle_core::trainer::lesson::{Lesson, LessonAnswer, LessonKind, lesson};
use serde_json::{Value, json};

fn invented(kind: LessonKind, number: u32) -> (Lesson, Value) {
    let nothing = Session::on(parse(&site(vec![], vec![], vec![])));
    let found = lesson(&nothing, kind, number, true).unwrap();
    let site = serde_json::to_value(found.site.as_ref().unwrap()).unwrap();
    (found, site)
}

fn truth(lesson: &Lesson) -> f64 {
    let LessonAnswer::Figure { truth, least, most, .. } = lesson.answer else { panic!("{lesson:?}") };
    assert!((least..=most).contains(&truth), "{lesson:?}");
    truth
}

fn rule(site: &Value, name: &str) -> (f64, f64) {
    let site = Site::parse(&site.to_string()).unwrap_or_else(|faults| panic!("{faults:?}"));
    let found = serde_json::to_value(evaluate(&site)).unwrap();
    let rules = found["sight_lines"][0]["rules"].as_array().unwrap().clone();
    let rule = rules.iter().find(|rule| rule["rule"] == name).unwrap_or_else(|| panic!("{name}: {rules:?}"));
    (rule["value"].as_f64().unwrap(), rule["limit"].as_f64().unwrap_or(f64::NAN))
}

#[test]
fn the_lens_that_is_true_gives_the_density_that_is_needed() {
    for number in 0..24 {
        let (lesson, mut site) = invented(LessonKind::Lens, number);
        let focal = truth(&lesson);
        // The same sensor behind a lens without distortion of that focal length, aimed as it was.
        let lens = json!({"focal_min_mm": focal, "focal_max_mm": focal});
        site["cameras"][0]["model"]["lens"] = lens;
        site["cameras"][0]["heads"][0]["focal_mm"] = json!(focal);
        let (got, need) = rule(&site, "pixel_density");
        // The target stands in the middle of the picture, where lenses with and without distortion differ by their stated field alone.
        assert!((got / need - 1.0).abs() < 0.16, "{number}: {got} of {need}");
    }
}

#[test]
fn as_high_as_is_true_a_face_is_seen_from_the_limit() {
    let mut asked = 0;
    for number in 0..24 {
        let nothing = Session::on(parse(&site(vec![], vec![], vec![])));
        let Ok(lesson) = lesson(&nothing, LessonKind::Height, number, true) else { continue };
        let mut site = serde_json::to_value(lesson.site.as_ref().unwrap()).unwrap();
        if site["targets"][0]["subject"] != "face" {
            continue;
        }
        asked += 1;
        site["cameras"][0]["height_m"] = json!(truth(&lesson));
        let (angle, _) = rule(&site, "face_from_above");
        assert!((angle - 15.0).abs() < 0.01, "{number}: {angle}°");
    }
    assert!(asked > 5);
}

#[test]
fn as_far_as_is_true_the_density_is_what_is_needed() {
    for number in 0..24 {
        let (lesson, mut site) = invented(LessonKind::Reach, number);
        let at: Vec<f64> =
            site["targets"][0]["shape"]["points"][0].as_array().unwrap().iter().map(|x| x.as_f64().unwrap()).collect();
        let camera = site["cameras"][0]["height_m"].as_f64().unwrap();
        let target = site["targets"][0]["height_m"].as_f64().unwrap();
        // Along the same line of sight, as much farther.
        let slant = (at[0] * at[0] + at[1] * at[1] + (camera - target).powi(2)).sqrt();
        let times = truth(&lesson) / slant;
        site["targets"][0]["shape"]["points"][0] = json!([at[0] * times, at[1] * times]);
        site["cameras"][0]["height_m"] = json!(target + (camera - target) * times);
        let (got, need) = rule(&site, "pixel_density");
        assert!((got / need - 1.0).abs() < 0.01, "{number}: {got} of {need}");
    }
}

#[test]
fn each_number_is_another_question_and_the_same_number_the_same() {
    let (one, site) = invented(LessonKind::Night, 3);
    assert_eq!(invented(LessonKind::Night, 3), (one.clone(), site));
    assert_ne!(invented(LessonKind::Night, 4).0.site, one.site);
    // In a yard without a lamp there is too little light, unless the camera brings its own.
    let LessonAnswer::Choice { options, truth } = one.answer else { panic!("{one:?}") };
    assert!(truth < options.len() && !one.because.is_empty());
}

#[test]
fn the_demos_have_questions_of_every_kind_and_a_site_without_a_view_says_so() {
    let session = Session::on(Site::parse(DEMOS[0]).unwrap());
    for kind in [LessonKind::Lens, LessonKind::Height, LessonKind::Reach, LessonKind::Night] {
        for number in 0..8 {
            let found = lesson(&session, kind, number, false).unwrap();
            assert!(found.site.is_none() && !found.asks.is_empty() && !found.because.is_empty());
        }
    }
    let nothing = Session::on(parse(&site(vec![], vec![], vec![])));
    assert_eq!(lesson(&nothing, LessonKind::Lens, 0, false).unwrap_err().path, "site");
}
