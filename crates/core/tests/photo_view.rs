//! A view laid into a photo: held against the homography of two pinholes in one place, K' R' Rᵀ K⁻¹ (R. Hartley, A. Zisserman, *Multiple
//! View Geometry*, 2nd ed., section 8.4; from memory), made here from plain matrices that share nothing with the core.

use crate::support::*;
use bright_angle_core::file::{Photo, PhotoMark};
use bright_angle_core::offer::photo_view::{PhotoLaid, lay};
use nalgebra::{Matrix3, Vector3};
use serde_json::{Value, json};

/// A turn's matrix, site to camera: right, down, forward (handbook, section 3).
fn turn([pan, tilt, roll]: [f64; 3]) -> Matrix3<f64> {
    let [(ps, pc), (ts, tc), (rs, rc)] = [pan, tilt, roll].map(|angle| angle.to_radians().sin_cos());
    let forward = Vector3::new(ps * tc, pc * tc, -ts);
    let level = Vector3::new(pc, -ps, 0.0);
    let under = forward.cross(&level);
    let rows = [level * rc + under * rs, under * rc - level * rs, forward];
    Matrix3::from_rows(&rows.map(|row| row.transpose()))
}

fn pinhole(focal_px: f64, [width, height]: [f64; 2]) -> Matrix3<f64> {
    Matrix3::new(focal_px, 0.0, width / 2.0, 0.0, focal_px, height / 2.0, 0.0, 0.0, 1.0)
}

const VIEW: ([f64; 3], f64, [f64; 2]) = ([10.0, 8.0, 0.0], 6.0 / 5.376 * 1920.0, [1920.0, 1080.0]);
const PLACES: [[f64; 3]; 6] =
    [[0.0, 12.0, 0.0], [6.0, 15.0, 1.6], [-3.0, 20.0, 2.0], [3.0, 9.0, 0.5], [9.0, 30.0, 4.0], [1.0, 25.0, 6.0]];

/// A photo as it is clicked that was held so, its focal length as on a frame 36 mm wide.
fn photo(angles: [f64; 3], focal_36: f64, size: [f64; 2]) -> Photo {
    let camera = pinhole(focal_36 / 36.0 * size[0], size) * turn(angles);
    let mark = |(place, at): (usize, &[f64; 3])| {
        let seen = camera * (Vector3::from(*at) - Vector3::new(0.0, 0.0, 3.0));
        PhotoMark { id: format!("m{place}"), at: *at, sigma_m: None, px: [seen.x / seen.z, seen.y / seen.z] }
    };
    let marks = PLACES.iter().enumerate().map(mark);
    let inside = |mark: &PhotoMark| (0.0..size[0]).contains(&mark.px[0]) && (0.0..size[1]).contains(&mark.px[1]);
    Photo {
        picture: "a".repeat(64),
        note: None,
        taken_at: None,
        size_px: Some(size),
        marks: marks.filter(inside).collect(),
    }
}

fn file() -> Value {
    site(vec![CameraAt { pan: 10.0, tilt: 8.0, ..CameraAt::default() }.json()], vec![], vec![])
}

fn laid(photo: &Photo) -> Result<PhotoLaid, Vec<bright_angle_core::Fault>> {
    let site = parse(&file());
    lay(&site, &site.heads()[0], photo)
}

#[test]
fn each_place_of_the_view_is_where_the_homography_has_it() {
    // Level and across, on its side as phones are held, and turned far.
    for (angles, focal, size) in [
        ([15.0, 5.0, 2.0], 28.0, [1600.0, 1200.0]),
        ([8.0, 10.0, -3.0], 26.0, [1200.0, 1600.0]),
        ([20.0, 0.0, 12.0], 18.0, [3000.0, 2000.0]),
    ] {
        let photo = photo(angles, focal, size);
        let found = laid(&photo).unwrap();
        assert!(found.fits && found.doubtful.is_none() && found.off_share < 1e-6, "{found:?}");
        assert!((found.focal_36_mm - focal).abs() < 1e-4, "{} for {focal}", found.focal_36_mm);
        let (aim, focal_px, view) = VIEW;
        let map = pinhole(focal / 36.0 * size[0], size) * turn(angles) * turn(aim).transpose();
        let map = map * pinhole(focal_px, view).try_inverse().unwrap();
        let mut shown = 0;
        for (place, at) in found.at.iter().enumerate() {
            let (row, column) = (place / found.columns, place % found.columns);
            let share = [column as f64 / (found.columns - 1) as f64, row as f64 / (found.rows - 1) as f64];
            let seen = map * Vector3::new(share[0] * view[0], share[1] * view[1], 1.0);
            let expected = [seen.x / seen.z / size[0], seen.y / seen.z / size[1]];
            let inside = seen.z > 0.0 && expected.iter().all(|part| (0.0..=1.0).contains(part));
            if let Some(at) = at {
                shown += 1;
                assert!((0..2).all(|axis| (at[axis] - expected[axis]).abs() < 1e-6), "{at:?} for {expected:?}");
            } else {
                assert!(!inside || expected.iter().any(|part| part.min(1.0 - part).abs() < 1e-6), "{expected:?}");
            }
        }
        assert!(shown > 300 && (found.share - f64::from(shown) / found.at.len() as f64).abs() < 1e-12, "{shown}");
        // Between the places it runs nearly straight: a pixel of a photo 1600 wide.
        let share = [0.413, 0.377];
        let seen = map * Vector3::new(share[0] * view[0], share[1] * view[1], 1.0);
        let [u, v] = found.place(share).unwrap();
        assert!((u - seen.x / seen.z / size[0]).hypot(v - seen.y / seen.z / size[1]) < 1.0 / 1600.0);
    }
}

#[test]
fn a_wrong_point_is_named_and_a_photo_from_elsewhere_does_not_fit() {
    let mut wrong = photo([15.0, 5.0, 2.0], 28.0, [1600.0, 1200.0]);
    wrong.marks[1].px[0] += 160.0;
    let found = laid(&wrong).unwrap();
    assert_eq!(found.doubtful.as_deref(), Some(wrong.marks[1].id.as_str()));
    // Two points that were taken for each other fit no turn at all.
    let mut other = photo([15.0, 5.0, 2.0], 28.0, [1600.0, 1200.0]);
    let [first, second] = [other.marks[0].px, other.marks[2].px];
    (other.marks[0].px, other.marks[2].px) = (second, first);
    assert!(laid(&other).is_err() || !laid(&other).unwrap().fits);
}

#[test]
fn every_camera_of_the_demos_is_laid_into_a_photo_from_its_place() {
    let size = [1600.0, 1200.0];
    let mut seen = 0;
    for demo in DEMOS {
        let site = parse(&serde_json::from_str(demo).unwrap());
        for head in site.heads().iter().filter(|head| head.view_id().is_none()) {
            let axes = turn([head.view().heading().deg(), 10.0, 0.0]).transpose();
            let eye = Vector3::from(head.position().to_array());
            let marks = [[-0.4, -0.2, 9.0], [0.3, -0.25, 14.0], [-0.2, 0.2, 7.0], [0.4, 0.15, 11.0], [0.05, 0.0, 20.0]];
            let focal = 26.0 / 36.0 * size[0];
            let mark = |(place, [across, under, far]): (usize, &[f64; 3])| PhotoMark {
                id: format!("m{place}"),
                at: (eye + axes * Vector3::new(*across, *under, 1.0) * *far).into(),
                sigma_m: None,
                px: [size[0] / 2.0 + focal * across, size[1] / 2.0 + focal * under],
            };
            let marks = marks.iter().enumerate().map(mark).collect();
            let photo = Photo { picture: "a".repeat(64), note: None, taken_at: None, size_px: Some(size), marks };
            let found = lay(&site, head, &photo).unwrap_or_else(|faults| panic!("{}: {faults:?}", head.camera_id()));
            assert!(found.fits && (found.focal_36_mm - 26.0).abs() < 0.01, "{}: {found:?}", head.camera_id());
            seen += 1;
        }
    }
    assert!(seen >= 15, "{seen}");
}

#[test]
fn what_cannot_tell_says_so_and_a_file_with_nonsense_in_it_is_refused() {
    let good = photo([15.0, 5.0, 2.0], 28.0, [1600.0, 1200.0]);
    let few = Photo { marks: good.marks[..3].to_vec(), ..good.clone() };
    assert_eq!(laid(&few).unwrap_err()[0].path, "marks");
    assert_eq!(laid(&Photo { size_px: None, ..good.clone() }).unwrap_err()[0].path, "size_px");
    let same = Photo { marks: vec![good.marks[0].clone(); 4], ..good.clone() };
    assert!(laid(&same).is_err());
    let mut file = file();
    file["spots"] =
        json!([{"id": "s1", "name": "S1", "kind": "wall", "position": [0.0, 0.0], "height_m": 3.0, "photos": [good]}]);
    parse(&file);
    for (place, value) in [
        ("/spots/0/photos/0/size_px", Value::Null),
        ("/spots/0/photos/0/size_px/0", json!(0.0)),
        ("/spots/0/photos/0/marks/0/px/1", json!(1201.0)),
        ("/spots/0/photos/0/marks/0/at/2", json!(1e9)),
        ("/spots/0/photos/0/marks/1/id", json!("m0")),
    ] {
        let mut wrong = file.clone();
        *wrong.pointer_mut(place).unwrap() = value;
        let faults = bright_angle_core::Site::parse(&wrong.to_string()).unwrap_err();
        assert!(faults.iter().all(|fault| fault.path.starts_with("spots[0].photos[0].")), "{place}: {faults:?}");
    }
}
