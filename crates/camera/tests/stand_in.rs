//! The stand-in's pictures: each fault does to them what it says, and nothing else does.

use bright_angle_camera::{StandIn, Turned};
use bright_angle_core::file::SiteFile;
use image::RgbImage;

const WIDE: u32 = 160;

fn picture(faults: &[&str]) -> RgbImage {
    let site = SiteFile::parse(include_str!("../../../demo/tern-quay.json")).unwrap();
    let stand_in = StandIn::of(site, faults.iter().map(|fault| fault.parse().unwrap()).collect());
    taken(&stand_in)
}

fn taken(stand_in: &StandIn) -> RgbImage {
    image::load_from_memory(&stand_in.picture("c6", "h1", false, WIDE, &[]).unwrap()).unwrap().into_rgb8()
}

/// The mean of how far two pictures are apart, of 255.
fn apart(a: &RgbImage, b: &RgbImage) -> f64 {
    assert_eq!(a.dimensions(), b.dimensions());
    let off: u64 = a.as_raw().iter().zip(b.as_raw()).map(|(a, b)| u64::from(a.abs_diff(*b))).sum();
    off as f64 / a.as_raw().len() as f64
}

/// How strongly neighbours differ, of 255.
fn detail(of: &RgbImage) -> f64 {
    let steps = of.enumerate_pixels().filter(|(x, ..)| *x > 0);
    steps.map(|(x, y, pixel)| f64::from(pixel[1].abs_diff(of.get_pixel(x - 1, y)[1]))).sum::<f64>() / of.len() as f64
}

#[test]
fn without_a_fault_it_is_the_design_and_each_fault_shows() {
    let plain = picture(&[]);
    assert_eq!(apart(&plain, &picture(&["c3/h1:turned=9", "c6/h2:film"])), 0.0);
    for fault in ["turned=3", "tilted=3", "rolled=4", "moved=2", "lens=6", "dirty=0.5", "overgrown=0.3"] {
        let off = apart(&plain, &picture(&[&format!("c6/h1:{fault}")]));
        assert!(off > 2.0, "{fault}: {off}");
    }
    for fault in ["blurred=3", "film"] {
        let spoilt = picture(&[&format!("c6:{fault}")]);
        assert!(detail(&spoilt) < 0.7 * detail(&plain), "{fault}");
    }
}

#[test]
fn upside_down_is_the_picture_turned_over_and_the_corridor_setting_lays_it_on_its_side() {
    let plain = picture(&[]);
    let over = image::imageops::rotate180(&picture(&["c6:upside_down"]));
    // The same but for what the coding and half a pixel do.
    assert!(apart(&plain, &over) < 4.0, "{}", apart(&plain, &over));
    let side = picture(&["c6:corridor"]);
    assert_eq!(side.dimensions(), (plain.height(), plain.width()));
}

#[test]
fn hands_turn_it_from_where_it_is_and_a_zoom_ends_where_it_ends() {
    let site = SiteFile::parse(include_str!("../../../demo/tern-quay.json")).unwrap();
    let mut stand_in = StandIn::of(site, vec!["c6/h1:turned=5".parse().unwrap(), "c6:clock=7".parse().unwrap()]);
    stand_in.turn("c6", "h1", Turned { pan_deg: -3.0, ..Turned::default() }).unwrap();
    stand_in.turn("c6", "h1", Turned { pan_deg: -2.0, ..Turned::default() }).unwrap();
    assert_eq!(apart(&picture(&[]), &taken(&stand_in)), 0.0);
    assert_eq!((stand_in.clock_off_min("c6", &[]), stand_in.clock_off_min("c3", &[])), (7.0, 0.0));
    assert!(stand_in.turn("c9", "h1", Turned::default()).is_err());
    let zoomed = |by: f64| {
        let site = SiteFile::parse(include_str!("../../../demo/tern-quay.json")).unwrap();
        let mut stand_in = StandIn::of(site, vec![]);
        stand_in.turn("c7", "h1", Turned { zoom: by, ..Turned::default() }).unwrap();
        image::load_from_memory(&stand_in.picture("c7", "h1", false, WIDE, &[]).unwrap()).unwrap().into_rgb8()
    };
    assert_eq!(apart(&zoomed(10.0), &zoomed(20.0)), 0.0);
    assert!(apart(&zoomed(1.0), &zoomed(10.0)) > 2.0);
}
