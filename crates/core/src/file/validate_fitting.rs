//! Faults of what a camera hangs by, and of what was done at it.

use super::validate::{Check, FAR_M, HEIGHTS_M};
use super::{Aimed, AsBuilt, Fitting, Mount, MountPart, PictureZone, Reacts, StepDone};

/// A mount has no more parts, and a camera no more steps.
const MOST_PARTS: usize = 20;
const MOST_STEPS: usize = 400;
const MOST_ZONES: usize = 32;

impl Check {
    pub(super) fn mount(&mut self, at: &str, mount: &Mount) {
        self.list(&format!("{at}.parts"), &mount.parts, MOST_PARTS, |_| true, Check::mount_part);
        for (axis, value) in mount.foot.iter().flatten().enumerate() {
            self.number(format!("{at}.foot[{axis}]"), *value, -FAR_M..=FAR_M, " m");
        }
        for (name, value, range, unit) in [
            ("foot_height_m", mount.foot_height_m, HEIGHTS_M, " m"),
            ("out_deg", mount.out_deg, -360.0..=360.0, "°"),
            ("conduit_mm", mount.conduit_mm, 5.0..=200.0, " mm"),
            ("seal_holes", mount.seal_holes.map(f64::from), 1.0..=16.0, ""),
            ("edge_m", mount.edge_m, 0.0..=100.0, " m"),
        ] {
            if let Some(value) = value {
                self.number(format!("{at}.{name}"), value, range, unit);
            }
        }
    }

    pub(super) fn mount_part(&mut self, at: &str, part: &MountPart) {
        self.text(&format!("{at}.name"), &part.name, 200);
        self.number(format!("{at}.weight_kg"), part.weight_kg, 0.0..=500.0, " kg");
        self.number(format!("{at}.reach_m"), part.reach_m, 0.0..=20.0, " m");
        self.number(format!("{at}.drop_m"), part.drop_m, -20.0..=20.0, " m");
        for (name, value, range, unit) in [
            ("carries_kg", part.carries_kg, 0.0..=5000.0, " kg"),
            ("plate_m", part.plate_m, 0.01..=5.0, " m"),
            ("screws", part.screws.map(f64::from), 0.0..=64.0, ""),
            ("conduit_mm", part.conduit_mm, 5.0..=200.0, " mm"),
            ("price", part.price, 0.0..=10_000_000.0, ""),
        ] {
            if let Some(value) = value {
                self.number(format!("{at}.{name}"), value, range, unit);
            }
        }
        self.that(&format!("{at}.bought_with"), part.bought_with.len() <= 20, || "are more than 20".to_owned());
        for (place, other) in part.bought_with.iter().enumerate() {
            self.text(&format!("{at}.bought_with[{place}]"), other, 200);
        }
    }

    pub(super) fn fitting(&mut self, at: &str, fitting: &Fitting) {
        self.list(&format!("{at}.done"), &fitting.done, MOST_STEPS, |_| true, Check::step_done);
        self.photos(at, &fitting.photos);
        if let Some(note) = &fitting.note {
            self.that(&format!("{at}.note"), note.chars().count() <= 2000, || {
                "is longer than 2000 characters".to_owned()
            });
        }
    }

    fn step_done(&mut self, at: &str, step: &StepDone) {
        if let Some(time) = &step.at {
            self.text(&format!("{at}.at"), time, 40);
        }
    }

    pub(super) fn reacts(&mut self, at: &str, reacts: &Reacts) {
        self.list(&format!("{at}.zones"), &reacts.zones, MOST_ZONES, |_| true, Check::picture_zone);
        for (name, text) in [
            ("hours", &reacts.hours),
            ("alarm_in", &reacts.alarm_in),
            ("alarm_out", &reacts.alarm_out),
            ("tells", &reacts.tells),
            ("voice", &reacts.voice),
        ] {
            if let Some(text) = text {
                self.text(&format!("{at}.{name}"), text, 400);
            }
        }
    }

    fn picture_zone(&mut self, at: &str, zone: &PictureZone) {
        self.text(&format!("{at}.name"), &zone.name, 200);
        self.text(&format!("{at}.head"), &zone.head, 64);
        self.that(&format!("{at}.corners"), (3..=40).contains(&zone.corners.len()), || {
            "a zone has 3 to 40 corners".to_owned()
        });
        for (place, corner) in zone.corners.iter().enumerate().take(40) {
            for (axis, value) in corner.iter().enumerate() {
                self.number(format!("{at}.corners[{place}][{axis}]"), *value, 0.0..=1.0, "");
            }
        }
    }

    pub(super) fn aimed(&mut self, at: &str, aimed: &Aimed) {
        self.number(format!("{at}.pan_deg"), aimed.pan_deg, -360.0..=360.0, "°");
        self.number(format!("{at}.tilt_deg"), aimed.tilt_deg, -90.0..=90.0, "°");
        self.number(format!("{at}.roll_deg"), aimed.roll_deg, -360.0..=360.0, "°");
        self.number(format!("{at}.focal_mm"), aimed.focal_mm, 0.1..=10_000.0, " mm");
    }

    pub(super) fn as_built(&mut self, at: &str, built: &AsBuilt) {
        self.aimed(&format!("{at}.found"), &built.found);
        self.aimed(&format!("{at}.designed"), &built.designed);
        self.number(format!("{at}.aim_sigma_deg"), built.aim_sigma_deg, 0.0..=90.0, "°");
        self.number(format!("{at}.focal_sigma"), built.focal_sigma, 0.0..=1.0, "");
        if let Some(time) = &built.at {
            self.text(&format!("{at}.at"), time, 40);
        }
    }
}
