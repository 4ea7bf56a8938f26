//! The search for another setting of the head in question: shutter, pictures a second, focus, infrared light. Where one does it, nobody
//! climbs.

use super::change::{Candidate, Change};
use super::search::Search;
use crate::file::{CameraFile, Exposure, USUAL_FPS};
use crate::judge::lane::look_along_lane;
use crate::judge::zone::{ZoneTold, told};
use crate::show::plates::start_settings::{infrared_share, shutter_for};

/// Pictures a second that are tried; plate cameras give up to sixty (handbook, section 10).
const FPS: [f64; 4] = [15.0, 25.0, 30.0, 60.0];
/// Shares of its infrared light that are tried where the one that fits the far end does not do, and shutters, s.
const SHARES: [f64; 6] = [1.0, 0.5, 0.25, 0.12, 0.06, 0.03];
const SHUTTERS_S: [f64; 4] = [1.0 / 1000.0, 1.0 / 2000.0, 1.0 / 4000.0, 1.0 / 10_000.0];
/// By night a front plate wants no longer shutter, s (handbook, section 10).
const HEADLIGHTS_S: f64 = 1.0 / 1000.0;

/// What another setting takes (our scale): nobody climbs.
const EFFORT: f64 = 0.05;

/// What a plate on its way wants of the settings of a camera.
struct Wanted {
    shutter_s: f64,
    share: Option<f64>,
    /// Whether its shutter leaves too much blur, or lets headlights glare.
    too_slow: bool,
}

impl Search<'_> {
    /// Only another setting: of each kind the first that does it alone; where none does, the first of several together.
    pub(super) fn settings(&self) -> Vec<Candidate> {
        let kept = |(exposure, effort): (Exposure, f64)| {
            let candidate = Candidate { head: self.head, changes: vec![Change::Exposure(exposure)], effort };
            self.desk.keeps(&candidate.applied(self.camera)).then_some(candidate)
        };
        let held = self.camera.heads[self.head.0].exposure;
        let Some(wanted) = self.wanted(self.camera) else {
            // What stands: only more of its own light can help.
            let Some(held) = held.filter(|held| held.infrared_share.is_some_and(|share| share < 1.0)) else {
                return vec![];
            };
            let more = SHARES.iter().rev().map(|share| (Exposure { infrared_share: Some(*share), ..held }, EFFORT));
            return more.into_iter().find_map(kept).into_iter().collect();
        };
        let base = held.unwrap_or(Exposure::fixed(wanted.shutter_s, USUAL_FPS));
        let with_shutter = |of: Exposure| of.with_shutter(wanted.shutter_s);
        let lit = |of: Exposure| wanted.share.map(|share| Exposure { infrared_share: Some(share), ..of });
        let focused = Exposure { focus_m: None, ..base };
        let faster = || FPS.into_iter().filter(|fps| *fps > base.fps);
        let shares = || SHARES.into_iter().filter(|_| wanted.share.is_some());
        let alone: [Vec<Exposure>; 4] = [
            std::iter::once(with_shutter(base)).chain(SHUTTERS_S.into_iter().map(|s| base.with_shutter(s))).collect(),
            vec![focused],
            lit(base)
                .into_iter()
                .chain(shares().map(|share| Exposure { infrared_share: Some(share), ..base }))
                .collect(),
            faster().map(|fps| Exposure { fps, ..base }).collect(),
        ];
        // What was wanted anyway comes first: light where it is light that is wrong.
        let order = if wanted.too_slow { [0, 1, 2, 3] } else { [2, 1, 3, 0] };
        let differs = |exposure: &Exposure| Some(*exposure) != held;
        let singles = order.into_iter().enumerate().filter_map(|(place, kind)| {
            let effort = EFFORT + place as f64 * 0.01;
            alone[kind].iter().copied().filter(differs).find_map(|exposure| kept((exposure, effort)))
        });
        let singles: Vec<Candidate> = singles.collect();
        if !singles.is_empty() {
            return singles;
        }
        let all = with_shutter(focused);
        let several = [lit(with_shutter(base)), Some(all), lit(all)].into_iter().flatten();
        let several = several.chain(faster().map(|fps| Exposure { fps, ..lit(all).unwrap_or(all) }));
        several.filter(differs).find_map(|exposure| kept((exposure, EFFORT))).into_iter().collect()
    }

    /// The settings that a plate on the move wants of a changed camera; `None` where it has them, or reads nowhere.
    pub(super) fn fitting_exposure(&self, camera: &CameraFile) -> Option<Exposure> {
        let wanted = self.wanted(camera)?;
        let held = camera.heads[self.head.0].exposure;
        let base = held.unwrap_or(Exposure::fixed(wanted.shutter_s, USUAL_FPS));
        let shutter =
            if wanted.too_slow || base.fixed_s().is_none() { base.with_shutter(wanted.shutter_s) } else { base };
        let then = Exposure { focus_m: None, infrared_share: wanted.share.or(base.infrared_share), ..shutter };
        (Some(then) != held).then_some(then)
    }

    fn wanted(&self, camera: &CameraFile) -> Option<Wanted> {
        let target = self.desk.target();
        let lane = target.moving_lane()?;
        let head = self.desk.head(camera);
        let night = self.desk.site.file().conditions.night;
        self.desk.looking(&head, |viewer| {
            let zone = look_along_lane(viewer, target, lane).zone?;
            let found: ZoneTold = told(viewer, target, lane, zone);
            let shutter = shutter_for(found.shutter_wanted_s);
            let glare = night && found.front;
            let shutter_s = if glare { shutter.min(HEADLIGHTS_S) } else { shutter };
            let set = head.exposure().and_then(Exposure::fixed_s);
            let blurs = found.blur_px.is_none_or(|blur| blur > viewer.rules.blur_kept_px);
            let too_slow = blurs || glare && set.is_none_or(|set| set > HEADLIGHTS_S);
            let share = night.then(|| {
                let at = if too_slow { shutter_s } else { set.unwrap_or(shutter_s) };
                infrared_share(viewer, target, lane, zone, at)
            });
            Some(Wanted { shutter_s, share: share.flatten().map(|(share, ..)| share), too_slow })
        })
    }
}
