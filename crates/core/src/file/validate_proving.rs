//! Faults of what was tried out, kept and done at visits.

use super::validate::{Check, FAR_M, HEIGHTS_M};
use super::{Compared, Evidence, Hung, Proof, ProofHow, Snapshot, Upkept, Visit};

/// A camera has no more pixels a side, times what lies beside its picture.
const FAR_PX: f64 = 100_000.0;
const MOST_DONE: usize = 5_000;
const MOST_REGIONS: usize = 200;
const MOST_TILES: usize = 100_000;

impl Check {
    pub(super) fn proof(&mut self, at: &str, proof: &Proof) {
        let says = [("target", &proof.target), ("camera", &proof.camera), ("head", &proof.head)];
        for (name, text) in says {
            self.text(&format!("{at}.{name}"), text, 64);
        }
        self.time_and_hand(at, proof.at.as_deref(), proof.by.as_deref());
        if let Some(moved) = &proof.moved {
            self.text(&format!("{at}.moved"), moved, 400);
        }
        if let Some(picture) = &proof.picture {
            self.evidence(&format!("{at}.picture"), picture);
        }
        self.hung(&format!("{at}.hung"), &proof.hung);
        self.number(format!("{at}.needed_px_per_m"), proof.needed_px_per_m, 0.0..=100_000.0, " px/m");
        let at = format!("{at}.how");
        match &proof.how {
            ProofHow::Marks { a, b, apart_m, clicked_px, .. } => {
                for (name, mark) in [("a", a), ("b", b)] {
                    for (axis, figure) in mark.iter().enumerate() {
                        self.number(format!("{at}.{name}[{axis}]"), *figure, -FAR_PX..=FAR_PX, " px");
                    }
                }
                self.number(format!("{at}.apart_m"), *apart_m, 0.01..=100.0, " m");
                self.number(format!("{at}.clicked_px"), *clicked_px, 0.0..=1000.0, " px");
                self.that(&at, a != b, || "both marks are at one place".to_owned());
            }
            ProofHow::Plate { shown, read } => {
                self.text(&format!("{at}.shown"), shown, 20);
                self.that(&format!("{at}.read"), read.chars().count() <= 20, || "is longer than 20".to_owned());
            }
            ProofHow::Yes { .. } => {}
        }
    }

    pub(super) fn snapshot(&mut self, at: &str, snapshot: &Snapshot) {
        for (name, text) in [("camera", &snapshot.camera), ("head", &snapshot.head)] {
            self.text(&format!("{at}.{name}"), text, 64);
        }
        self.time_and_hand(at, Some(&snapshot.at), snapshot.by.as_deref());
        self.evidence(&format!("{at}.picture"), &snapshot.picture);
        self.hung(&format!("{at}.hung"), &snapshot.hung);
        if let Some(off) = snapshot.clock_off_s {
            self.number(format!("{at}.clock_off_s"), off, -4e9..=4e9, " s");
        }
        if let Some(against) = &snapshot.against {
            self.text(&format!("{at}.against.reference"), &against.reference, 64);
            self.compared(&format!("{at}.against.found"), &against.found);
        }
    }

    fn compared(&mut self, at: &str, found: &Compared) {
        for (name, share) in [
            ("sharpness_share", found.sharpness_share),
            ("contrast_share", found.contrast_share),
            ("light_share", found.light_share),
        ] {
            self.number(format!("{at}.{name}"), share, 0.0..=1e6, "");
        }
        if let Some(moved) = found.moved {
            for (name, figure) in [
                ("right_deg", moved.right_deg),
                ("down_deg", moved.down_deg),
                ("roll_deg", moved.roll_deg),
                ("scale", moved.scale),
            ] {
                self.number(format!("{at}.moved.{name}"), figure, -360.0..=360.0, "");
            }
        }
        self.that(&format!("{at}.says"), found.says.len() <= 16, || "are more than 16".to_owned());
        let regions = found.regions.len();
        self.that(&format!("{at}.regions"), regions <= MOST_REGIONS, || format!("are more than {MOST_REGIONS}"));
        for (place, region) in found.regions.iter().enumerate().take(MOST_REGIONS) {
            let at = format!("{at}.regions[{place}]");
            self.number(format!("{at}.share"), region.share, 0.0..=1.0, "");
            for (side, figure) in region.box_px.iter().enumerate() {
                self.number(format!("{at}.box_px[{side}]"), *figure, -FAR_PX..=FAR_PX, " px");
            }
        }
        let hidden = &found.hidden;
        let all = hidden.columns.saturating_mul(hidden.rows);
        let sound = all <= MOST_TILES && hidden.places.len() <= all && hidden.places.iter().all(|place| *place < all);
        self.that(&format!("{at}.hidden"), sound, || "names tiles that are not there".to_owned());
    }

    pub(super) fn visit(&mut self, at: &str, visit: &Visit) {
        self.day(&format!("{at}.date"), &visit.date);
        self.time_and_hand(at, None, visit.by.as_deref());
        if let Some(note) = &visit.note {
            self.text(&format!("{at}.note"), note, 2_000);
        }
        self.list(&format!("{at}.done"), &visit.done, MOST_DONE, |_| true, Check::upkept);
    }

    fn upkept(&mut self, at: &str, done: &Upkept) {
        self.text(&format!("{at}.says"), &done.says, 400);
        self.time_and_hand(at, done.at.as_deref(), None);
        if let Some(note) = &done.note {
            self.text(&format!("{at}.note"), note, 1_000);
        }
        if let Some(oldest) = &done.oldest {
            self.day(&format!("{at}.oldest"), oldest);
        }
    }

    fn time_and_hand(&mut self, at: &str, time: Option<&str>, by: Option<&str>) {
        if let Some(time) = time {
            self.that(&format!("{at}.at"), time.len() <= 40 && time.parse::<jiff::Timestamp>().is_ok(), || {
                "is no time such as 2026-11-24T14:02:00Z".to_owned()
            });
        }
        if let Some(by) = by {
            self.text(&format!("{at}.by"), by, 200);
        }
    }

    fn evidence(&mut self, at: &str, picture: &Evidence) {
        self.picture(&format!("{at}.picture"), &picture.picture);
        self.number(format!("{at}.width_px"), picture.width_px, 1.0..=FAR_PX, " px");
        self.number(format!("{at}.height_px"), picture.height_px, 1.0..=FAR_PX, " px");
    }

    pub(super) fn hung(&mut self, at: &str, hung: &Hung) {
        for (axis, value) in hung.position.iter().enumerate() {
            self.number(format!("{at}.position[{axis}]"), *value, -FAR_M..=FAR_M, " m");
        }
        self.number(format!("{at}.height_m"), hung.height_m, HEIGHTS_M, " m");
        self.aimed(&format!("{at}.aimed"), &hung.aimed);
        self.text(&format!("{at}.model"), &hung.model, 200);
    }
}
