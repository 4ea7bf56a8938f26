//! Heads found without clicks, in pictures that the core draws of them as they hang, turned, with grain and lighter or darker than
//! the plan has it; and nothing found in a picture of something else.

use bright_angle_core::Site;
use bright_angle_core::file::{HeadRef, SiteFile};
use bright_angle_core::fit::edge_match::{EdgeMatch, GreyPicture, Trust, edge_match};
use bright_angle_core::judge::Session;
use bright_angle_core::picture::{Light, Picture, PictureWish, Window};

const WIDE: u32 = 480;

fn demo() -> SiteFile {
    SiteFile::parse(include_str!("../../../demo/tern-quay.json")).unwrap()
}

fn name(camera: &str) -> HeadRef {
    HeadRef { camera: camera.to_owned(), head: "h1".to_owned(), view: None }
}

/// The picture of a head that is turned so, in grey, with grain.
fn picture(camera: &str, [pan, tilt, roll]: [f64; 3], grain: f64) -> GreyPicture {
    let mut file = demo();
    let head = &mut file.cameras.iter_mut().find(|held| held.id == camera).unwrap().heads[0];
    head.pan_deg += pan;
    head.tilt_deg += tilt;
    head.roll_deg += roll;
    let session = Session::on(Site::from_file(file).unwrap());
    let wish = PictureWish {
        window: Window::Whole { width: WIDE },
        light: Light::Day,
        grid: false,
        samples: 2,
        shutter_s: 0.0,
    };
    let mut drawn = Picture::begin(&session, &name(camera), &wish, None).unwrap();
    while drawn.step(session.site()) {}
    let noise = |place: usize| ((place as f64 * 0.754_877_666).fract() - 0.5) * grain;
    let grey = drawn.rgba().chunks(4).enumerate().map(|(place, rgba)| {
        let mean = 0.299 * f64::from(rgba[0]) + 0.587 * f64::from(rgba[1]) + 0.114 * f64::from(rgba[2]);
        (0.8 * mean + 12.0 + noise(place)).clamp(0.0, 255.0) as u8
    });
    GreyPicture { width: WIDE as usize, grey: grey.collect() }
}

fn found(camera: &str, turned: [f64; 3]) -> (EdgeMatch, [f64; 3]) {
    let site = Site::from_file(demo()).unwrap();
    let told = edge_match(&site, &name(camera), &picture(camera, turned, 12.0)).unwrap();
    let designed = &site.file().cameras.iter().find(|held| held.id == camera).unwrap().heads[0];
    let wrapped = |deg: f64| (deg + 540.0).rem_euclid(360.0) - 180.0;
    let off = [
        wrapped(told.pan_deg - designed.pan_deg - turned[0]),
        told.tilt_deg - designed.tilt_deg - turned[1],
        wrapped(told.roll_deg - designed.roll_deg - turned[2]),
    ];
    (told, off)
}

#[test]
fn what_is_trusted_is_right() {
    let mut trusted = 0;
    for camera in ["c3", "c4", "c5", "c6"] {
        for turned in [[0.0, 0.0, 0.0], [3.0, 0.0, 2.0], [-6.5, 2.5, -1.0], [4.0, -3.0, 180.0]] {
            let (told, off) = found(camera, turned);
            if told.trust == Trust::Good {
                trusted += 1;
                assert!(off.iter().all(|deg| deg.abs() < 1.0), "{camera} {turned:?}: {off:?}");
            }
        }
    }
    assert!(trusted >= 5, "{trusted}");
}

#[test]
fn a_picture_of_something_else_is_not_trusted() {
    let site = Site::from_file(demo()).unwrap();
    for (camera, other) in [("c4", "c6"), ("c5", "c3"), ("c6", "c7")] {
        let told = edge_match(&site, &name(camera), &picture(other, [0.0; 3], 12.0)).unwrap();
        assert_ne!(told.trust, Trust::Good, "{camera} in {other}");
    }
    let plain = GreyPicture { width: 480, grey: vec![100; 480 * 271] };
    let told = edge_match(&site, &name("c4"), &plain).unwrap();
    assert_eq!((told.trust, told.marks.len()), (Trust::None, 0));
}

#[test]
fn what_is_no_picture_is_refused() {
    let site = Site::from_file(demo()).unwrap();
    let of = |width: usize, count: usize| edge_match(&site, &name("c4"), &GreyPicture { width, grey: vec![0; count] });
    assert!(of(480, 1000).is_err());
    assert!(of(0, 0).is_err());
    assert!(of(480, 480 * 480).unwrap_err().message.contains("shape"));
    assert!(of(5000, 5000 * 2800).is_err());
}
