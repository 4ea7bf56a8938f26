//! Every fault of a site file, each with its place.

use super::limits::{LIMITS, PROVING, UNCERTAINTIES, WIRE_PRICES, WIRING};
use super::site_change::{Named, Touched};
use super::site_file::{FORMAT, VERSION};
use super::{
    CameraFile, Emitter, Exposure, ExposureMode, Fault, FaultCode, Flattened, HeadFile, Housing, Infrared, Lamp, Lens,
    Link, Model, MountPart, Obstacle, ObstacleKind, Point2, Preset, PrivatePlace, Rules, Sensor, ShapeKind, SiteFile,
    Subject, TargetFile, Variant,
};
use crate::math::projection::{EQUISOLID, PINHOLE, greatest_angle, radius};
use crate::math::{is_simple, sampling};
use geo::{Area, LineString, Polygon};
use std::collections::HashSet;
use std::ops::RangeInclusive;

/// How far from the origin a point may lie, m.
pub(crate) const FAR_M: f64 = 100_000.0;
/// Heights that a site may have, m.
pub(super) const HEIGHTS_M: RangeInclusive<f64> = 0.0..=500.0;
/// An outline that encloses less than this encloses nothing, m².
const LEAST_AREA_M2: f64 = 1e-6;
/// How many of each a site may hold.
pub(crate) const MOST_OBSTACLES: usize = 5_000;
/// Each takes some thousand rays of every head that may have it in view.
const MOST_PRIVATE: usize = 200;
const MOST_LAMPS: usize = 500;
const MOST_TARGETS: usize = 2_000;
const MOST_CAMERAS: usize = 500;
const MOST_HEADS: usize = 16;
const MOST_PRESETS: usize = 64;
/// So many fixed views point one head at most.
const MOST_LINKS: usize = 4;
const MOST_FLATTENED: usize = 8;
const MOST_VARIANTS: usize = 12;
const MOST_AGREEMENTS: usize = 100;
const MOST_PROOFS: usize = 4_000;
const MOST_SNAPSHOTS: usize = 10_000;
const MOST_VISITS: usize = 1_000;
/// Heights that the ground of a site may have, m.
pub(super) const GROUNDS_M: RangeInclusive<f64> = -100.0..=500.0;
pub(crate) const MOST_CORNERS: usize = 2_000;
/// How many corners all outlines and lines of a site may have together.
const MOST_ALL_CORNERS: usize = 100_000;
/// So far may a published field of view be off the nearest projection of the family, as a share of the focal length: a lens maker
/// rounds both. Common practice, no source.
const FIELD_OFF: f64 = 0.25;
/// A plate's way has so many samples to one of a line's, and no more than this.
const WAY_TIMES: f64 = 5.0;
const MOST_OF_A_WAY: f64 = 5000.0;
/// How many samples the lines and areas of a site may take together.
const MOST_SAMPLES: f64 = 400_000.0;

/// All faults of a file that was read; none for a file that is in order.
pub fn faults(file: &SiteFile) -> Vec<Fault> {
    faults_of(file, &Touched::everything())
}

/// The faults of a model by itself, under a place.
pub fn model_faults(at: &str, model: &Model) -> Vec<Fault> {
    let mut check = Check::default();
    check.model(at, model);
    check.faults
}

/// The faults of a part of a mount by itself, under a place.
pub fn mount_part_faults(at: &str, part: &MountPart) -> Vec<Fault> {
    let mut check = Check::default();
    check.mount_part(at, part);
    check.faults
}

/// The faults that a change may have brought into a file that was in order before it.
pub fn faults_of(file: &SiteFile, touched: &Touched) -> Vec<Fault> {
    let mut check = Check::default();
    if !check.corners(file) {
        return check.faults;
    }
    if touched.heading {
        check.that("format", file.format == FORMAT, || format!("expected \"{FORMAT}\""));
        check.that("version", file.version == VERSION, || format!("expected {VERSION}"));
        check.text("name", &file.name, 200);
        check.rules(&file.rules);
        check.number("conditions.years".into(), file.conditions.years, 0.0..=50.0, "");
        if let Some(design) = &file.design {
            check.text("design", design, 200);
        }
        if let Some(prices) = &file.prices {
            check.prices("prices", prices);
        }
        check.faults.extend(file.place.iter().flat_map(|place| place.faults()));
    }
    let all = touched.all;
    let of = |ids: &HashSet<String>, id: &str| all || ids.contains(id);
    check.list("obstacles", &file.obstacles, MOST_OBSTACLES, |id| of(&touched.obstacles, id), Check::obstacle);
    check.list("lamps", &file.lamps, MOST_LAMPS, |id| of(&touched.lamps, id), Check::lamp);
    check.list("private", &file.private, MOST_PRIVATE, |id| of(&touched.private, id), Check::private_place);
    check.list("targets", &file.targets, MOST_TARGETS, |id| of(&touched.targets, id), Check::target);
    check.list("cameras", &file.cameras, MOST_CAMERAS, |id| of(&touched.cameras, id), Check::camera);
    check.list("variants", &file.variants, MOST_VARIANTS, |id| of(&touched.variants, id), Check::variant);
    check.list("agreements", &file.agreements, MOST_AGREEMENTS, |id| of(&touched.agreements, id), Check::agreement);
    check.list("proofs", &file.proofs, MOST_PROOFS, |id| of(&touched.proofs, id), Check::proof);
    check.list("snapshots", &file.snapshots, MOST_SNAPSHOTS, |id| of(&touched.snapshots, id), Check::snapshot);
    check.list("visits", &file.visits, MOST_VISITS, |id| of(&touched.visits, id), Check::visit);
    if let Some(network) = &file.network {
        check.network(network, touched);
    }
    if all || !touched.cameras.is_empty() {
        check.links("cameras", &file.cameras);
    }
    check.mountings(file, touched);
    check.survey(file, touched);
    if all || !touched.targets.is_empty() {
        check.samples(&file.targets);
    }
    check.faults
}

/// Collects faults.
#[derive(Default)]
pub(super) struct Check {
    pub(super) faults: Vec<Fault>,
}

impl Check {
    pub(super) fn that(&mut self, path: &str, holds: bool, otherwise: impl FnOnce() -> String) {
        if !holds {
            self.faults.push(Fault::new(path, otherwise()));
        }
    }

    /// A finite number in a range.
    /// As [`Check::that`], with the kind of fault.
    pub(super) fn coded(&mut self, code: FaultCode, path: &str, holds: bool, message: impl FnOnce() -> String) {
        if !holds {
            self.faults.push(Fault::new(path, message()).of(code));
        }
    }

    pub(super) fn number(&mut self, path: String, value: f64, range: RangeInclusive<f64>, unit: &str) {
        if range.contains(&value) {
            return;
        }
        // A figure of hundreds of digits would bury the message.
        let shown = if value.abs() < 1e9 { value.to_string() } else { format!("{value:e}") };
        let message = format!("{shown} is outside {} to {}{unit}", range.start(), range.end());
        let fault = Fault::new(path, message).of(FaultCode::OutOfRange);
        let far_over = value > 5.0 * range.end().abs() && *range.end() > 0.0;
        self.faults.push(if far_over { fault.hint("Is the decimal point where it should be?") } else { fault });
    }

    pub(super) fn text(&mut self, path: &str, value: &str, most: usize) {
        self.that(path, !value.trim().is_empty(), || "must not be empty".to_owned());
        self.that(path, value.chars().count() <= most, || format!("is longer than {most} characters"));
        self.that(path, !value.chars().any(char::is_control), || "holds control characters".to_owned());
    }

    /// A list with ids of its own and not too many in it; `which` says by its id whether an item has to be looked at.
    pub(super) fn list<T: Named>(
        &mut self,
        path: &str,
        items: &[T],
        most: usize,
        which: impl Fn(&str) -> bool,
        each: fn(&mut Check, &str, &T),
    ) {
        if items.len() > most {
            self.faults
                .push(Fault::new(path, format!("{} are more than the {most} that a site may hold", items.len())));
            return;
        }
        let mut seen = HashSet::with_capacity(items.len());
        for (place, item) in items.iter().enumerate() {
            let id = item.id();
            let once = seen.insert(id);
            if once && !which(id) {
                continue;
            }
            let at = format!("{path}[{place}]");
            let plain = |c: char| c.is_ascii_alphanumeric() || "_-.".contains(c);
            self.that(&format!("{at}.id"), (1..=64).contains(&id.len()) && id.chars().all(plain), || {
                "an id has 1 to 64 letters, digits, _ - or .".to_owned()
            });
            self.coded(FaultCode::DoubleId, &format!("{at}.id"), once, || format!("\"{id}\" stands twice in {path}"));
            each(self, &at, item);
        }
    }

    fn points(&mut self, path: &str, points: &[Point2], least: usize) -> bool {
        let before = self.faults.len();
        self.that(path, points.len() >= least, || match points.len() {
            0 => "is empty".to_owned(),
            found => format!("has {found} of the {least} points it takes"),
        });
        self.that(path, points.len() <= MOST_CORNERS, || format!("has more than {MOST_CORNERS} points"));
        for (place, point) in points.iter().enumerate().take(MOST_CORNERS) {
            for (axis, value) in point.iter().enumerate() {
                self.number(format!("{path}[{place}][{axis}]"), *value, -FAR_M..=FAR_M, " m");
            }
        }
        for (place, pair) in points.windows(2).enumerate() {
            self.that(&format!("{path}[{}]", place + 1), pair[0] != pair[1], || {
                "repeats the point before it".to_owned()
            });
        }
        self.faults.len() == before
    }

    /// Whether all shapes together have so few corners that they can be looked at one by one.
    fn corners(&mut self, file: &SiteFile) -> bool {
        let open = |o: &Obstacle| o.open_outline.as_ref().map_or(0, Vec::len);
        let obstacles = file.obstacles.iter().map(|obstacle| obstacle.outline.len() + open(obstacle));
        let targets = file.targets.iter().map(|target| target.shape.points.len());
        let private = file.private.iter().map(|place| place.outline.len());
        let [of_obstacles, of_targets] = [obstacles.chain(private).sum::<usize>(), targets.sum::<usize>()];
        let fits = of_obstacles + of_targets <= MOST_ALL_CORNERS;
        let most = if of_obstacles > of_targets { "obstacles" } else { "targets" };
        self.that(most, fits, || {
            format!("all shapes have {} corners, more than {MOST_ALL_CORNERS} together", of_obstacles + of_targets)
        });
        fits
    }

    /// A simple outline that encloses something.
    fn outline(&mut self, path: &str, points: &[Point2]) {
        let least_ok = self.points(path, points, 3);
        if !least_ok {
            return;
        }
        if points.first() == points.last() {
            let message = "repeats the first point at the end; leave it out, the outline closes itself";
            self.faults.push(Fault::new(format!("{path}[{}]", points.len() - 1), message));
            return;
        }
        let ring = LineString::from(points.iter().map(|p| (p[0], p[1])).collect::<Vec<_>>());
        let area = Polygon::new(ring, vec![]);
        if area.unsigned_area() < LEAST_AREA_M2 || !is_simple(points) {
            self.faults.push(Fault::new(path, "crosses or touches itself, or encloses nothing"));
        }
    }

    fn rules(&mut self, rules: &Rules) {
        for limit in &LIMITS {
            let [least, most] = limit.range;
            self.number(format!("rules.{}", limit.field), (limit.of)(rules), least..=most, limit.unit);
        }
        for limit in &UNCERTAINTIES {
            let [least, most] = limit.range;
            let value = (limit.of)(&rules.uncertainties);
            self.number(format!("rules.uncertainties.{}", limit.field), value, least..=most, limit.unit);
        }
        for limit in &WIRING {
            let [least, most] = limit.range;
            self.number(format!("rules.wiring.{}", limit.field), (limit.of)(&rules.wiring), least..=most, limit.unit);
        }
        for limit in &PROVING {
            let [least, most] = limit.range;
            self.number(format!("rules.proving.{}", limit.field), (limit.of)(&rules.proving), least..=most, limit.unit);
        }
        for limit in &WIRE_PRICES {
            let [least, most] = limit.range;
            let value = (limit.of)(&rules.wiring.prices);
            self.number(format!("rules.wiring.prices.{}", limit.field), value, least..=most, limit.unit);
        }
        self.that("rules.wiring.segment_bits", (8..=30).contains(&rules.wiring.segment_bits), || {
            format!("{} is outside 8 to 30", rules.wiring.segment_bits)
        });
        self.that("rules.wiring.sure_m", rules.wiring.sure_m <= rules.wiring.channel_m, || {
            format!("{} m is over channel_m, {} m", rules.wiring.sure_m, rules.wiring.channel_m)
        });
        for (name, tight, kept) in [
            ("face", rules.face_tight_deg, rules.face_kept_deg),
            ("identify_turned", rules.identify_turned_tight_deg, rules.identify_turned_kept_deg),
            ("recognise_turned", rules.recognise_turned_tight_deg, rules.recognise_turned_kept_deg),
        ] {
            self.that(&format!("rules.{name}_tight_deg"), tight >= kept, || {
                format!("{tight} is under {name}_kept_deg, {kept}")
            });
        }
        self.that("rules.mount_max_m", rules.mount_max_m >= rules.mount_min_m, || {
            format!("{} m is under mount_min_m, {} m", rules.mount_max_m, rules.mount_min_m)
        });
        self.that("rules.looks_tight", rules.looks_tight <= rules.looks_kept, || {
            format!("{} is over looks_kept, {}", rules.looks_tight, rules.looks_kept)
        });
    }

    fn obstacle(&mut self, at: &str, obstacle: &Obstacle) {
        self.text(&format!("{at}.name"), &obstacle.name, 200);
        let heights = [obstacle.base_m, obstacle.top_m];
        self.prism(at, (&obstacle.outline, obstacle.closed), heights, obstacle.ground_m);
        self.number(format!("{at}.see_through"), obstacle.see_through, 0.0..=1.0, "");
        self.standing(at, obstacle);
    }

    fn lamp(&mut self, at: &str, lamp: &Lamp) {
        self.text(&format!("{at}.name"), &lamp.name, 200);
        for (axis, value) in lamp.position.iter().enumerate() {
            self.number(format!("{at}.position[{axis}]"), *value, -FAR_M..=FAR_M, " m");
        }
        self.number(format!("{at}.height_m"), lamp.height_m, 0.05..=500.0, " m");
        self.number(format!("{at}.lumens"), lamp.lumens, 0.0..=1_000_000.0, " lm");
        self.number(format!("{at}.ground_m"), lamp.ground_m, GROUNDS_M, " m");
    }

    fn infrared(&mut self, at: &str, light: &Infrared) {
        self.number(format!("{at}.range_m"), light.range_m, 0.0..=2000.0, " m");
        if let Some(beam) = light.beam_deg {
            self.number(format!("{at}.beam_deg"), beam, 1.0..=179.0, "°");
        }
    }

    fn emitter(&mut self, at: &str, emitter: &Emitter) {
        for (axis, value) in emitter.position.iter().enumerate() {
            self.number(format!("{at}.position[{axis}]"), *value, -FAR_M..=FAR_M, " m");
        }
        self.number(format!("{at}.height_m"), emitter.height_m, 0.05..=500.0, " m");
        self.infrared(&format!("{at}.light"), &emitter.light);
    }

    fn housing(&mut self, at: &str, housing: &Housing) {
        for (name, rating) in [("ip", &housing.ip), ("ik", &housing.ik)] {
            if let Some(rating) = rating {
                self.text(&format!("{at}.{name}"), rating, 20);
            }
        }
    }

    fn exposure(&mut self, at: &str, exposure: &Exposure) {
        if let Some(shutter) = exposure.shutter_s {
            self.number(format!("{at}.shutter_s"), shutter, 0.00001..=1.0, " s");
        } else if exposure.mode == Some(ExposureMode::Fixed) {
            self.faults.push(Fault::new(format!("{at}.shutter_s"), "a fixed exposure says its shutter"));
        }
        if let Some(gain) = exposure.gain_max_db {
            self.number(format!("{at}.gain_max_db"), gain, 0.0..=100.0, " dB");
        }
        self.number(format!("{at}.fps"), exposure.fps, 0.1..=240.0, " pictures a second");
        if let Some(focus) = exposure.focus_m {
            self.number(format!("{at}.focus_m"), focus, 0.1..=10_000.0, " m");
        }
        if let Some(share) = exposure.infrared_share {
            self.number(format!("{at}.infrared_share"), share, 0.0..=1.0, "");
        }
    }

    fn private_place(&mut self, at: &str, place: &PrivatePlace) {
        self.text(&format!("{at}.name"), &place.name, 200);
        self.prism(at, (&place.outline, place.closed), [place.base_m, place.top_m], place.ground_m);
    }

    /// An outline between two heights over its ground.
    fn prism(&mut self, at: &str, (outline, closed): (&[Point2], bool), [base, top]: [f64; 2], ground: f64) {
        let path = format!("{at}.outline");
        if closed {
            self.outline(&path, outline);
        } else {
            self.points(&path, outline, 2);
        }
        self.number(format!("{at}.base_m"), base, -100.0..=500.0, " m");
        self.number(format!("{at}.top_m"), top, -100.0..=500.0, " m");
        self.that(&format!("{at}.top_m"), top > base, || format!("{top} is not above the base, {base}"));
        self.number(format!("{at}.ground_m"), ground, GROUNDS_M, " m");
    }

    /// What only doors and trees have.
    fn standing(&mut self, at: &str, obstacle: &Obstacle) {
        let (kind, tree) = (obstacle.kind, obstacle.kind == ObstacleKind::Tree);
        if let Some(open) = &obstacle.open_outline {
            let outline = format!("{at}.open_outline");
            self.that(&outline, kind == ObstacleKind::Door, || "only a door or gate stands open".to_owned());
            if obstacle.closed {
                self.outline(&outline, open);
            } else {
                self.points(&outline, open, 2);
            }
        }
        self.that(&format!("{at}.open"), !obstacle.open || obstacle.open_outline.is_some(), || {
            "stands open, but nothing says where its leaf is then (open_outline)".to_owned()
        });
        for (name, value, range, unit) in [
            ("trunk_m", obstacle.trunk_m, 0.02..=5.0, " m"),
            ("growth_m_per_year", Some(obstacle.growth_m_per_year).filter(|growth| *growth != 0.0), 0.0..=5.0, " m"),
            ("bare_see_through", obstacle.bare_see_through, 0.0..=1.0, ""),
        ] {
            if let Some(value) = value {
                self.that(&format!("{at}.{name}"), tree, || "only a tree has it".to_owned());
                self.number(format!("{at}.{name}"), value, range, unit);
            }
        }
    }

    pub(super) fn target(&mut self, at: &str, target: &TargetFile) {
        self.text(&format!("{at}.name"), &target.name, 200);
        if let Some(need) = target.needs_px_per_m {
            self.number(format!("{at}.needs_px_per_m"), need, 0.1..=100_000.0, " px/m");
        }
        let points = format!("{at}.shape.points");
        match target.shape.kind {
            ShapeKind::Point => {
                self.points(&points, &target.shape.points, 1);
                self.that(&points, target.shape.points.len() <= 1, || "a point target has one point".to_owned());
            }
            ShapeKind::Line => {
                self.points(&points, &target.shape.points, 2);
            }
            ShapeKind::Area => self.outline(&points, &target.shape.points),
        }
        self.number(format!("{at}.height_m"), target.height_m, HEIGHTS_M, " m");
        for (axis, size) in target.size_m.iter().flatten().enumerate() {
            self.number(format!("{at}.size_m[{axis}]"), *size, 0.01..=50.0, " m");
        }
        if let Some(facing) = target.facing_deg {
            self.number(format!("{at}.facing_deg"), facing, -360.0..=360.0, "°");
        }
        self.number(format!("{at}.ground_m"), target.ground_m, GROUNDS_M, " m");
        if let Some(wish) = target.unseen_at_most_s {
            self.number(format!("{at}.unseen_at_most_s"), wish, 0.0..=86_400.0, " s");
        }
        if let Some(plate) = &target.plate {
            let at = format!("{at}.plate");
            self.that(&at, target.subject == Subject::Plate, || "only a plate has it".to_owned());
            self.text(&format!("{at}.name"), &plate.name, 100);
            self.number(format!("{at}.character_m"), plate.character_m, 0.005..=1.0, " m");
            self.number(format!("{at}.stroke_m"), plate.stroke_m, 0.0005..=0.5, " m");
            if let Some(need) = plate.needs_px_per_m {
                self.number(format!("{at}.needs_px_per_m"), need, 0.1..=100_000.0, " px/m");
            }
        }
        if let Some(to) = target.height_to_m {
            let at = format!("{at}.height_to_m");
            self.that(&at, target.subject == Subject::Plate, || "only plates sit at several heights".to_owned());
            self.number(at, to, HEIGHTS_M, " m");
        }
        self.number(format!("{at}.speed_mps"), target.speed_mps, 0.0..=150.0, " m/s");
        self.number(format!("{at}.heads_wanted"), f64::from(target.heads_wanted), 1.0..=8.0, "");
        if let Some(importance) = target.importance {
            self.number(format!("{at}.importance"), f64::from(importance), 1.0..=99.0, "");
        }
    }

    /// Lines and areas are sampled: a site of nothing but samples would never answer.
    fn samples(&mut self, targets: &[TargetFile]) {
        let mut so_far = 0.0;
        for (place, target) in targets.iter().enumerate() {
            let expected = sampling::expected(&target.shape.points, target.shape.kind == ShapeKind::Area);
            // The way of a plate is looked at every tenth of a metre besides.
            let is_way = target.subject == Subject::Plate && target.shape.kind == ShapeKind::Line;
            so_far += if is_way { expected + (WAY_TIMES * expected).min(MOST_OF_A_WAY) } else { expected };
            if so_far.is_nan() || so_far > MOST_SAMPLES {
                let message = "with this one the lines and areas of the site are too large to be sampled every half metre; make it smaller or split the site";
                self.faults.push(Fault::new(format!("targets[{place}].shape.points"), message));
                return;
            }
        }
    }

    pub(super) fn camera(&mut self, at: &str, camera: &CameraFile) {
        self.text(&format!("{at}.name"), &camera.name, 200);
        for (axis, value) in camera.position.iter().enumerate() {
            self.number(format!("{at}.position[{axis}]"), *value, -FAR_M..=FAR_M, " m");
        }
        self.number(format!("{at}.height_m"), camera.height_m, 0.05..=500.0, " m");
        self.number(format!("{at}.ground_m"), camera.ground_m, GROUNDS_M, " m");
        self.model(&format!("{at}.model"), &camera.model);
        if let Some(emitter) = &camera.emitter {
            self.emitter(&format!("{at}.emitter"), emitter);
        }
        if let Some(housing) = &camera.housing {
            self.housing(&format!("{at}.housing"), housing);
        }
        for (name, value, range, unit) in [
            ("power.class", camera.power.and_then(|power| power.class).map(f64::from), 1.0..=8.0, ""),
            ("power.watts", camera.power.and_then(|power| power.watts), 0.0..=200.0, " W"),
            ("power.battery_months", camera.power.and_then(|power| power.battery_months), 0.1..=600.0, " months"),
            ("stream.mbps", camera.stream.and_then(|stream| stream.mbps), 0.0..=10_000.0, " Mbit/s"),
            ("stream.fps", camera.stream.and_then(|stream| stream.fps), 0.1..=240.0, " pictures a second"),
            ("stream.share_recorded", camera.stream.and_then(|stream| stream.share_recorded), 0.0..=1.0, ""),
        ] {
            if let Some(value) = value {
                self.number(format!("{at}.{name}"), value, range, unit);
            }
        }
        if let Some(device) = &camera.device {
            self.device(&format!("{at}.device"), device);
        }
        if let Some(reacts) = &camera.reacts {
            self.reacts(&format!("{at}.reacts"), reacts);
        }
        if let Some(mount) = &camera.mount {
            self.mount(&format!("{at}.mount"), mount);
        }
        if let Some(fitting) = &camera.fitting {
            self.fitting(&format!("{at}.fitting"), fitting);
        }
        let heads = format!("{at}.heads");
        self.that(&heads, !camera.heads.is_empty(), || "a camera has at least one head".to_owned());
        let before = self.faults.len();
        self.list(&heads, &camera.heads, MOST_HEADS, |_| true, Check::head);
        if self.faults.len() == before {
            self.focals(&heads, camera);
        }
    }

    /// What cameras are said to be mounted on is there.
    fn mountings(&mut self, file: &SiteFile, touched: &Touched) {
        let aside = || file.variants.iter().flat_map(|variant| &variant.cameras);
        // Most sites say it of no camera, and this is asked at every move of a hand.
        if file.cameras.iter().chain(aside()).all(|camera| camera.mounted_on.is_none()) {
            return;
        }
        let obstacles: HashSet<&str> = file.obstacles.iter().map(|obstacle| obstacle.id.as_str()).collect();
        let all = touched.all || !touched.obstacles.is_empty();
        let mut mounted = |at: String, camera: &CameraFile, looked_at: bool| {
            if let Some(id) = camera.mounted_on.as_deref().filter(|_| looked_at) {
                let known = obstacles.contains(id);
                self.coded(FaultCode::UnknownId, &format!("{at}.mounted_on"), known, || {
                    format!("there is no obstacle \"{id}\"")
                });
            }
        };
        for (place, camera) in file.cameras.iter().enumerate() {
            mounted(format!("cameras[{place}]"), camera, all || touched.cameras.contains(&camera.id));
        }
        for (place, variant) in file.variants.iter().enumerate() {
            for (camera_place, camera) in variant.cameras.iter().enumerate() {
                let looked_at = all || touched.variants.contains(&variant.id);
                mounted(format!("variants[{place}].cameras[{camera_place}]"), camera, looked_at);
            }
        }
    }

    fn head(&mut self, at: &str, head: &HeadFile) {
        self.number(format!("{at}.pan_deg"), head.pan_deg, -360.0..=360.0, "°");
        self.number(format!("{at}.tilt_deg"), head.tilt_deg, -90.0..=90.0, "°");
        self.number(format!("{at}.roll_deg"), head.roll_deg, -360.0..=360.0, "°");
        self.number(format!("{at}.focal_mm"), head.focal_mm, 0.5..=2000.0, " mm");
        self.list(&format!("{at}.presets"), &head.presets, MOST_PRESETS, |_| true, Check::preset);
        self.list(&format!("{at}.flattened"), &head.flattened, MOST_FLATTENED, |_| true, Check::flattened);
        let named = |id: &str| head.presets.iter().any(|preset| preset.id == id);
        for (place, view) in head.flattened.iter().enumerate() {
            self.that(&format!("{at}.flattened[{place}].id"), !named(&view.id), || {
                format!("\"{}\" is a preset's id too", view.id)
            });
        }
        if let Some(exposure) = &head.exposure {
            self.exposure(&format!("{at}.exposure"), exposure);
        }
        if let Some(built) = &head.as_built {
            self.as_built(&format!("{at}.as_built"), built);
        }
        if let Some(slew) = head.slew_deg_s {
            self.number(format!("{at}.slew_deg_s"), slew, 0.1..=1000.0, "°/s");
        }
        if let Some(zoom) = head.zoom_s {
            self.number(format!("{at}.zoom_s"), zoom, 0.0..=60.0, " s");
        }
        if let Some(link) = &head.pointed_by {
            self.link(&format!("{at}.pointed_by"), link);
        }
        let also = &head.also_pointed_by;
        let first = also.is_empty() || head.pointed_by.is_some();
        self.that(&format!("{at}.also_pointed_by"), first && also.len() < MOST_LINKS, || {
            format!("are views beside the first in pointed_by, {} at most", MOST_LINKS - 1)
        });
        for (place, link) in also.iter().enumerate().take(MOST_LINKS) {
            self.link(&format!("{at}.also_pointed_by[{place}]"), link);
        }
    }

    fn preset(&mut self, at: &str, preset: &Preset) {
        self.text(&format!("{at}.name"), &preset.name, 200);
        self.number(format!("{at}.pan_deg"), preset.pan_deg, -360.0..=360.0, "°");
        self.number(format!("{at}.tilt_deg"), preset.tilt_deg, -90.0..=90.0, "°");
        self.number(format!("{at}.focal_mm"), preset.focal_mm, 0.5..=2000.0, " mm");
        self.number(format!("{at}.dwell_s"), preset.dwell_s, 0.1..=86_400.0, " s");
    }

    fn flattened(&mut self, at: &str, view: &Flattened) {
        self.text(&format!("{at}.name"), &view.name, 200);
        self.number(format!("{at}.pan_deg"), view.pan_deg, -360.0..=360.0, "°");
        self.number(format!("{at}.tilt_deg"), view.tilt_deg, -90.0..=90.0, "°");
        self.number(format!("{at}.hfov_deg"), view.hfov_deg, 5.0..=150.0, "°");
        self.number(format!("{at}.width_px"), f64::from(view.width_px), 16.0..=20_000.0, " px");
        self.number(format!("{at}.height_px"), f64::from(view.height_px), 16.0..=20_000.0, " px");
    }

    fn link(&mut self, at: &str, link: &Link) {
        let pairs = link.pairs.len();
        self.that(&format!("{at}.pairs"), pairs <= 200, || format!("{pairs} are more than the 200 that are taken"));
        for (place, pair) in link.pairs.iter().enumerate().take(200) {
            let at = format!("{at}.pairs[{place}]");
            for (axis, value) in pair.pixel.iter().enumerate() {
                self.number(format!("{at}.pixel[{axis}]"), *value, 0.0..=20_000.0, " px");
            }
            self.number(format!("{at}.pan_deg"), pair.pan_deg, -360.0..=360.0, "°");
            self.number(format!("{at}.tilt_deg"), pair.tilt_deg, -90.0..=90.0, "°");
        }
        if let Some(hung) = &link.hung {
            self.hung(&format!("{at}.hung.fixed"), &hung.fixed);
            self.hung(&format!("{at}.hung.turned"), &hung.turned);
        }
    }

    /// A fixed view that points a head is there, and has enough pairs.
    fn links(&mut self, at: &str, cameras: &[CameraFile]) {
        for (place, camera) in cameras.iter().enumerate() {
            for (head, file) in camera.heads.iter().enumerate() {
                for (number, link) in file.links().enumerate() {
                    let fixed = cameras.iter().filter(|c| c.id == link.camera).flat_map(|c| &c.heads);
                    let known = fixed.filter(|h| h.id == link.head).any(|h| h.presets.is_empty());
                    let here = format!("{at}[{place}].heads[{head}]");
                    let here = match number {
                        0 => format!("{here}.pointed_by"),
                        _ => format!("{here}.also_pointed_by[{}]", number - 1),
                    };
                    self.that(&here, known && link.camera != camera.id, || {
                        format!("there is no fixed head \"{}\" of another camera \"{}\"", link.head, link.camera)
                    });
                }
            }
            if let Some(other) = &camera.housed_with {
                let known = *other != camera.id && cameras.iter().any(|held| held.id == *other);
                self.coded(FaultCode::UnknownId, &format!("{at}[{place}].housed_with"), known, || {
                    format!("there is no other camera \"{other}\"")
                });
            }
        }
    }

    fn variant(&mut self, at: &str, variant: &Variant) {
        self.text(&format!("{at}.name"), &variant.name, 200);
        let cameras = format!("{at}.cameras");
        self.list(&cameras, &variant.cameras, MOST_CAMERAS, |_| true, Check::camera);
        self.links(&cameras, &variant.cameras);
    }

    fn focals(&mut self, heads: &str, camera: &CameraFile) {
        for (place, head) in camera.heads.iter().enumerate() {
            let at = format!("{heads}[{place}]");
            if let Some(own) = &head.lens {
                let before = self.faults.len();
                self.lens(&format!("{at}.lens"), own);
                if self.faults.len() > before {
                    continue;
                }
                self.fields(&format!("{at}.lens"), &camera.model.sensor, own);
            }
            let lens = camera.lens_of(place);
            self.focal(&format!("{at}.focal_mm"), head.focal_mm, &lens);
            for (preset, aim) in head.presets.iter().enumerate() {
                self.focal(&format!("{at}.presets[{preset}].focal_mm"), aim.focal_mm, &lens);
            }
        }
    }

    fn focal(&mut self, at: &str, focal_mm: f64, lens: &Lens) {
        self.that(at, lens.has_focal(focal_mm), || {
            if lens.is_zoom() {
                format!("{focal_mm} is outside the lens's {}–{}", lens.focal_min_mm, lens.focal_max_mm)
            } else {
                format!("{focal_mm} is not the lens's {}", lens.focal_min_mm)
            }
        });
    }

    fn model(&mut self, at: &str, model: &Model) {
        self.text(&format!("{at}.name"), &model.name, 200);
        self.sensor(&format!("{at}.sensor"), &model.sensor);
        let before = self.faults.len();
        self.lens(&format!("{at}.lens"), &model.lens);
        if self.faults.len() == before {
            self.fields(&format!("{at}.lens"), &model.sensor, &model.lens);
        }
        for (name, value, range, unit) in [
            ("head_count", model.head_count.map(f64::from), 1.0..=16.0, ""),
            ("infrared_m", model.infrared_m, 0.0..=2000.0, " m"),
            ("least_lux", model.least_lux, 0.000_001..=10_000.0, " lux"),
            ("power_class", model.power_class.map(f64::from), 1.0..=8.0, ""),
            ("watts", model.watts, 0.0..=200.0, " W"),
            ("weight_kg", model.weight_kg, 0.0..=100.0, " kg"),
            ("apart_deg", model.apart_deg, 0.0..=180.0, "°"),
            ("price", model.price, 0.0..=10_000_000.0, ""),
            ("fps_max", model.fps_max, 0.1..=240.0, " pictures a second"),
            ("shutters_s[0]", model.shutters_s.map(|shutters| shutters[0]), 0.000_001..=10.0, " s"),
            ("shutters_s[1]", model.shutters_s.map(|shutters| shutters[1]), 0.000_001..=10.0, " s"),
            ("alarm_inputs", model.alarm_inputs.map(f64::from), 0.0..=64.0, ""),
            ("alarm_outputs", model.alarm_outputs.map(f64::from), 0.0..=64.0, ""),
            ("card_gb", model.card_gb.map(f64::from), 0.0..=16_384.0, " GB"),
            ("tilts_deg[0]", model.tilts_deg.map(|tilts| tilts[0]), -90.0..=90.0, "°"),
            ("tilts_deg[1]", model.tilts_deg.map(|tilts| tilts[1]), -90.0..=90.0, "°"),
        ] {
            if let Some(value) = value {
                self.number(format!("{at}.{name}"), value, range, unit);
            }
        }
        if let Some(light) = &model.infrared {
            self.infrared(&format!("{at}.infrared"), light);
        }
        if let Some([least, most]) = model.tilts_deg {
            self.that(&format!("{at}.tilts_deg"), most >= least, || format!("{most}° is under the least, {least}°"));
        }
        if let Some([least, most]) = model.shutters_s {
            self.that(&format!("{at}.shutters_s"), most >= least, || format!("{most} s is under the least, {least} s"));
        }
        for (name, text, most) in [
            ("ip", &model.ip, 20),
            ("ik", &model.ik, 20),
            ("back_box", &model.back_box, 200),
            ("note", &model.note, 2000),
        ] {
            if let Some(text) = text {
                self.text(&format!("{at}.{name}"), text, most);
            }
        }
        self.that(&format!("{at}.colours"), model.colours.len() <= 20, || "are more than 20".to_owned());
        for (place, colour) in model.colours.iter().enumerate() {
            self.text(&format!("{at}.colours[{place}]"), colour, 40);
        }
    }

    /// A published field of view that no projection of the family comes near to on this sensor is a slip of the pen.
    fn fields(&mut self, at: &str, sensor: &Sensor, lens: &Lens) {
        let ends = [
            ("hfov_at_min_deg", lens.hfov_at_min_deg, lens.focal_min_mm),
            ("hfov_at_max_deg", lens.hfov_at_max_deg, lens.focal_max_mm),
        ];
        for (name, hfov, focal) in ends {
            let Some(hfov) = hfov else { continue };
            let half = hfov.to_radians() / 2.0;
            let wanted = sensor.field_width_mm() / 2.0 / focal;
            let least = radius(EQUISOLID, half.min(greatest_angle(EQUISOLID)));
            let most = if half < greatest_angle(PINHOLE) { radius(PINHOLE, half) } else { f64::INFINITY };
            self.that(&format!("{at}.{name}"), (least * (1.0 - FIELD_OFF)..=most * (1.0 + FIELD_OFF)).contains(&wanted), || {
                let width = sensor.field_width_mm();
                format!("no lens of {focal} mm has a field of {hfov}° on {width} mm: is it the diagonal one, or another sensor's?")
            });
        }
    }

    fn sensor(&mut self, at: &str, sensor: &Sensor) {
        let before = self.faults.len();
        if let Some(circle) = sensor.image_circle_px {
            self.number(format!("{at}.image_circle_px"), circle, 16.0..=40_000.0, " px");
        }
        self.number(format!("{at}.width_px"), sensor.width(), 16.0..=20_000.0, " px");
        self.number(format!("{at}.height_px"), sensor.height(), 16.0..=20_000.0, " px");
        self.number(format!("{at}.width_mm"), sensor.width_mm, 0.5..=100.0, " mm");
        self.number(format!("{at}.height_mm"), sensor.height_mm, 0.5..=100.0, " mm");
        if self.faults.len() == before {
            let shape = sensor.width() * sensor.height_mm / (sensor.height() * sensor.width_mm);
            self.that(&format!("{at}.height_mm"), (0.9..=1.1).contains(&shape), || {
                format!(
                    "{} mm for {} px does not fit {} mm for {} px: the pixels would not be square",
                    sensor.height_mm, sensor.height_px, sensor.width_mm, sensor.width_px
                )
            });
        }
    }

    fn lens(&mut self, at: &str, lens: &Lens) {
        self.number(format!("{at}.focal_min_mm"), lens.focal_min_mm, 0.5..=2000.0, " mm");
        self.number(format!("{at}.focal_max_mm"), lens.focal_max_mm, 0.5..=2000.0, " mm");
        self.that(&format!("{at}.focal_max_mm"), lens.focal_max_mm >= lens.focal_min_mm, || {
            format!("{} is under the shortest focal length, {}", lens.focal_max_mm, lens.focal_min_mm)
        });
        for (name, hfov) in [("hfov_at_min_deg", lens.hfov_at_min_deg), ("hfov_at_max_deg", lens.hfov_at_max_deg)] {
            if let Some(hfov) = hfov {
                self.number(format!("{at}.{name}"), hfov, 0.1..=220.0, "°");
            }
        }
        if let (Some(wide), Some(narrow)) = (lens.hfov_at_min_deg, lens.hfov_at_max_deg) {
            self.that(&format!("{at}.hfov_at_max_deg"), narrow <= wide, || {
                format!("{narrow}° is wider than at the shortest focal length, {wide}°")
            });
            self.that(&format!("{at}.hfov_at_max_deg"), lens.is_zoom() || narrow == wide, || {
                format!("a fixed lens has one field of view, not {wide}° and {narrow}°")
            });
        }
        if lens.is_zoom() && lens.hfov_at_min_deg.is_none() {
            self.that(
                &format!("{at}.hfov_at_max_deg"),
                lens.hfov_at_max_deg.is_none_or(|narrow| narrow < 180.0),
                || "must be under 180° while the wide end's is not given".to_owned(),
            );
        }
        if let Some(f_number) = lens.f_number {
            self.number(format!("{at}.f_number"), f_number, 0.5..=64.0, "");
        }
    }
}
