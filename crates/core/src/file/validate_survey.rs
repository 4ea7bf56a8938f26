//! The faults of what the survey adds: brief, drawing, spots, readings.

use super::drawing::{Drawing, MOST_PX};
use super::site_change::Touched;
use super::validate::{Check, FAR_M, GROUNDS_M, HEIGHTS_M};
use super::{Brief, FaultCode, Height, Photo, Point2, Reading, SiteFile, Spot, TargetFile};
use std::collections::{HashMap, HashSet};

const MOST_SPOTS: usize = 500;
const MOST_READINGS: usize = 5_000;
/// How many points may be measured: the adjustment takes them all at once.
const MOST_MEASURED: usize = 400;
pub(crate) const MOST_SHOTS: usize = 50;
const MOST_PHOTOS: usize = 20;
/// So many points are clicked in a photo at most; and a photo's sides, px.
const MOST_MARKS: usize = 60;
const PHOTO_PX: std::ops::RangeInclusive<f64> = 16.0..=20_000.0;
const LONGEST_TEXT: usize = 2_000;
/// Distances that a reading may have, m.
const SLOPES_M: std::ops::RangeInclusive<f64> = 0.01..=10_000.0;
/// One standard deviation of a position or distance, m.
const SIGMAS_M: std::ops::RangeInclusive<f64> = 1e-4..=1_000.0;

impl Check {
    pub(super) fn survey(&mut self, file: &SiteFile, touched: &Touched) {
        if touched.heading {
            if let Some(brief) = &file.brief {
                self.brief(brief);
            }
            if let Some(drawing) = &file.drawing {
                self.drawing(drawing);
            }
        }
        let all = touched.all;
        let of = |ids: &HashSet<String>, id: &str| all || ids.contains(id);
        self.list("spots", &file.spots, MOST_SPOTS, |id| of(&touched.spots, id), Check::spot);
        self.list("readings", &file.readings, MOST_READINGS, |id| of(&touched.readings, id), Check::reading);
        // Spots are spoken of by id: when one comes or goes, all that may speak of it is looked at again.
        let spots_changed = all || !touched.spots.is_empty();
        let spots: HashSet<&str> = file.spots.iter().map(|spot| spot.id.as_str()).collect();
        for (place, target) in file.targets.iter().enumerate() {
            if spots_changed || of(&touched.targets, &target.id) {
                self.target_survey(&format!("targets[{place}]"), target, &spots);
            }
        }
        for (place, camera) in file.cameras.iter().enumerate() {
            if let Some(id) = &camera.spot
                && (spots_changed || of(&touched.cameras, &camera.id))
            {
                let known = spots.contains(id.as_str());
                self.coded(FaultCode::UnknownId, &format!("cameras[{place}].spot"), known, || {
                    format!("there is no spot \"{id}\"")
                });
            }
        }
        if spots_changed || !touched.targets.is_empty() || !touched.readings.is_empty() {
            self.ends(file);
        }
    }

    fn target_survey(&mut self, at: &str, target: &TargetFile, spots: &HashSet<&str>) {
        self.that(&format!("{at}.id"), !spots.contains(target.id.as_str()), || {
            format!("\"{}\" is a spot's id too: readings could not tell them apart", target.id)
        });
        self.maybe(format!("{at}.position_sigma_m"), target.position_sigma_m, SIGMAS_M, " m");
        self.maybe(format!("{at}.distance.plus_minus_m"), target.distance.plus_minus_m, 0.0..=1_000.0, " m");
        let known = &target.distance.from;
        self.that(&format!("{at}.distance.from"), known.len() <= MOST_SPOTS, || {
            format!("are more than the {MOST_SPOTS} spots that a site may hold")
        });
        for (from, known) in known.iter().enumerate().take(MOST_SPOTS) {
            let at = format!("{at}.distance.from[{from}]");
            self.number(format!("{at}.plus_minus_m"), known.plus_minus_m, 0.0..=1_000.0, " m");
            self.that(&format!("{at}.spot"), spots.contains(known.spot.as_str()), || {
                format!("there is no spot \"{}\"", known.spot)
            });
        }
        self.notes(at, &[("used_for", &target.used_for), ("night_light", &target.night_light)]);
        self.photos(at, &target.photos);
    }

    /// Readings go between different points that exist, and no slope is shorter than the heights are apart.
    fn ends(&mut self, file: &SiteFile) {
        if file.spots.len() > MOST_SPOTS || file.readings.len() > MOST_READINGS {
            return;
        }
        let mut heights: HashMap<&str, Height> = HashMap::new();
        heights.extend(
            file.targets
                .iter()
                .filter(|t| t.is_point())
                .map(|t| (t.id.as_str(), Height { over_ground: t.height_m, ground: t.ground_m })),
        );
        heights.extend(
            file.spots
                .iter()
                .map(|spot| (spot.id.as_str(), Height { over_ground: spot.height_m, ground: spot.ground_m })),
        );
        let mut measured = HashSet::new();
        for (place, reading) in file.readings.iter().enumerate() {
            let at = format!("readings[{place}]");
            let before = self.faults.len();
            for (name, id) in [("from", &reading.from), ("to", &reading.to)] {
                let known = heights.contains_key(id.as_str());
                self.that(&format!("{at}.{name}"), known, || {
                    match file.targets.iter().any(|target| &target.id == id) {
                        true => format!("\"{id}\" is a line or an area; a reading goes to a spot or a point target"),
                        false => format!("there is no spot or target \"{id}\""),
                    }
                });
            }
            self.that(&format!("{at}.to"), reading.from != reading.to, || "is where it was taken from".to_owned());
            if self.faults.len() > before {
                continue;
            }
            measured.extend([&reading.from, &reading.to]);
            let [from, to] =
                [&reading.from, &reading.to].map(|id| heights.get(id.as_str()).copied().unwrap_or_default());
            self.that(&format!("{at}.slope_m"), reading.horizontal_m(from, to).is_some(), || {
                format!("{} m is not longer than the two heights are apart", reading.slope_m)
            });
        }
        self.that("readings", measured.len() <= MOST_MEASURED, || {
            format!("{} points are measured, more than the {MOST_MEASURED} that are adjusted at once", measured.len())
        });
    }

    fn spot(&mut self, at: &str, spot: &Spot) {
        self.text(&format!("{at}.name"), &spot.name, 200);
        self.place(&format!("{at}.position"), spot.position);
        self.number(format!("{at}.height_m"), spot.height_m, HEIGHTS_M, " m");
        self.number(format!("{at}.ground_m"), spot.ground_m, GROUNDS_M, " m");
        self.maybe(format!("{at}.position_sigma_m"), spot.position_sigma_m, SIGMAS_M, " m");
        self.maybe(format!("{at}.cable_m"), spot.cable_m, 0.0..=FAR_M, " m");
        self.notes(at, &[("surface", &spot.surface), ("note", &spot.note)]);
        self.photos(at, &spot.photos);
    }

    fn reading(&mut self, at: &str, reading: &Reading) {
        self.number(format!("{at}.slope_m"), reading.slope_m, SLOPES_M, " m");
        // Straight up or down there is no ground distance to learn.
        self.maybe(format!("{at}.inclination_deg"), reading.inclination_deg, -89.0..=89.0, "°");
        self.maybe(format!("{at}.from_height_m"), reading.from_height_m, -100.0..=500.0, " m");
        self.maybe(format!("{at}.to_height_m"), reading.to_height_m, -100.0..=500.0, " m");
        self.maybe(format!("{at}.sigma_m"), reading.sigma_m, SIGMAS_M, " m");
        self.that(&format!("{at}.shots_m"), reading.shots_m.len() <= MOST_SHOTS, || {
            format!("has more than {MOST_SHOTS} shots")
        });
        for (place, shot) in reading.shots_m.iter().enumerate().take(MOST_SHOTS) {
            self.number(format!("{at}.shots_m[{place}]"), *shot, SLOPES_M, " m");
        }
        let fits = reading.shots_deg.is_empty() || reading.shots_deg.len() == reading.shots_m.len();
        self.that(&format!("{at}.shots_deg"), fits, || "has not as many as shots_m".to_owned());
        for (place, shot) in reading.shots_deg.iter().enumerate().take(MOST_SHOTS) {
            self.maybe(format!("{at}.shots_deg[{place}]"), *shot, -89.0..=89.0, "°");
        }
        let texts =
            [("by", &reading.by), ("taken", &reading.taken), ("device", &reading.device), ("note", &reading.note)];
        self.notes(at, &texts);
    }

    fn brief(&mut self, brief: &Brief) {
        if let Some(days) = brief.retention_days {
            self.number("brief.retention_days".to_owned(), f64::from(days), 1.0..=3660.0, " days");
        }
        self.notes(
            "brief",
            &[
                ("client", &brief.client),
                ("contact", &brief.contact),
                ("address", &brief.address),
                ("worry", &brief.worry),
                ("must_see", &brief.must_see),
                ("recorder_place", &brief.recorder_place),
                ("colour", &brief.colour),
                ("style", &brief.style),
                ("viewers", &brief.viewers),
                ("hours", &brief.hours),
                ("night_light", &brief.night_light),
                ("access", &brief.access),
                ("private_places", &brief.private_places),
                ("decides", &brief.decides),
            ],
        );
    }

    fn drawing(&mut self, drawing: &Drawing) {
        self.picture("drawing.picture", &drawing.picture);
        let px = 1.0..=f64::from(MOST_PX);
        self.number("drawing.width_px".into(), f64::from(drawing.width_px), px.clone(), " px");
        self.number("drawing.height_px".into(), f64::from(drawing.height_px), px, " px");
        self.maybe("drawing.metres_per_px".into(), drawing.metres_per_px, super::drawing::SCALES, " m per px");
        self.place("drawing.centre", drawing.centre);
        self.number("drawing.turn_deg".into(), drawing.turn_deg, -360.0..=360.0, "°");
        self.number("drawing.fade".into(), drawing.fade, 0.0..=1.0, "");
        self.that("drawing.scale_from", drawing.scale_from.len() <= 50, || "has more than 50 distances".to_owned());
        for (place, mark) in drawing.scale_from.iter().enumerate().take(50) {
            let at = format!("drawing.scale_from[{place}]");
            self.place(&format!("{at}.a"), mark.a);
            self.place(&format!("{at}.b"), mark.b);
            self.that(&format!("{at}.b"), mark.a != mark.b, || "is the same point".to_owned());
            self.number(format!("{at}.distance_m"), mark.distance_m, SLOPES_M, " m");
        }
    }

    pub(super) fn photos(&mut self, at: &str, photos: &[Photo]) {
        self.that(&format!("{at}.photos"), photos.len() <= MOST_PHOTOS, || format!("are more than {MOST_PHOTOS}"));
        for (place, photo) in photos.iter().enumerate().take(MOST_PHOTOS) {
            let at = format!("{at}.photos[{place}]");
            self.picture(&format!("{at}.picture"), &photo.picture);
            self.notes(&at, &[("note", &photo.note)]);
            if let Some([north, east]) = photo.taken_at {
                self.number(format!("{at}.taken_at[0]"), north, -90.0..=90.0, "°");
                self.number(format!("{at}.taken_at[1]"), east, -180.0..=180.0, "°");
            }
            self.marks(&at, photo);
        }
    }

    fn marks(&mut self, at: &str, photo: &Photo) {
        let Some([width, height]) = photo.size_px else {
            self.that(&format!("{at}.size_px"), photo.marks.is_empty(), || {
                "has to be said where points were clicked".to_owned()
            });
            return;
        };
        self.number(format!("{at}.size_px[0]"), width, PHOTO_PX, " px");
        self.number(format!("{at}.size_px[1]"), height, PHOTO_PX, " px");
        self.that(&format!("{at}.marks"), photo.marks.len() <= MOST_MARKS, || format!("are more than {MOST_MARKS}"));
        let mut ids = HashSet::new();
        for (place, mark) in photo.marks.iter().enumerate().take(MOST_MARKS) {
            let at = format!("{at}.marks[{place}]");
            let named = !mark.id.is_empty() && mark.id.len() <= 200;
            self.that(&format!("{at}.id"), named && ids.insert(&mark.id), || {
                "is empty, too long, or there twice".to_owned()
            });
            for (axis, value) in mark.at.iter().enumerate() {
                self.number(format!("{at}.at[{axis}]"), *value, -FAR_M..=FAR_M, " m");
            }
            if let Some(sigma) = mark.sigma_m {
                self.number(format!("{at}.sigma_m"), sigma, 0.0..=100.0, " m");
            }
            for ((axis, value), most) in mark.px.iter().enumerate().zip([width, height]) {
                self.number(format!("{at}.px[{axis}]"), *value, 0.0..=most, " px");
            }
        }
    }

    pub(super) fn picture(&mut self, at: &str, name: &str) {
        let hex = |c: char| c.is_ascii_digit() || ('a'..='f').contains(&c);
        self.that(at, name.len() == 64 && name.chars().all(hex), || {
            "is not a picture's name: 64 hexadecimal digits".to_owned()
        });
    }

    pub(super) fn place(&mut self, at: &str, point: Point2) {
        for (axis, value) in point.iter().enumerate() {
            self.number(format!("{at}[{axis}]"), *value, -FAR_M..=FAR_M, " m");
        }
    }

    fn maybe(&mut self, at: String, value: Option<f64>, range: std::ops::RangeInclusive<f64>, unit: &str) {
        if let Some(value) = value {
            self.number(at, value, range, unit);
        }
    }

    /// Texts that may be left out and may hold several lines.
    fn notes(&mut self, at: &str, texts: &[(&str, &Option<String>)]) {
        for (name, text) in texts.iter().filter_map(|(name, text)| Some((name, text.as_ref()?))) {
            let path = format!("{at}.{name}");
            self.that(&path, text.chars().count() <= LONGEST_TEXT, || {
                format!("is longer than {LONGEST_TEXT} characters")
            });
            self.that(&path, !text.chars().any(|c| c.is_control() && c != '\n'), || {
                "holds control characters".to_owned()
            });
        }
    }
}
