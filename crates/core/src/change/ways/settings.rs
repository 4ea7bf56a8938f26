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

/// What a plate on its way wants of the settings of a camera.
struct Wanted {
    shutter_s: f64,
    share: Option<f64>,
    /// Whether its shutter leaves too much blur, or lets headlights glare.
    too_slow: bool,
}

impl Search<'_> {
    /// Only another setting: one alone before two.
    pub(super) fn settings(&self) -> Option<Candidate> {
        let kept = |exposure: Exposure| {
            let candidate = Candidate { head: self.head, changes: vec![Change::Exposure(exposure)], effort: 0.05 };
            self.desk.keeps(&candidate.applied(self.camera)).then_some(candidate)
        };
        let held = self.camera.heads[self.head.0].exposure;
        let Some(wanted) = self.wanted(self.camera) else {
            // What stands: only more of its own light can help.
            let held = held.filter(|held| held.infrared_share.is_some_and(|share| share < 1.0))?;
            return SHARES.iter().rev().find_map(|share| kept(Exposure { infrared_share: Some(*share), ..held }));
        };
        let base = held.unwrap_or(Exposure::fixed(wanted.shutter_s, USUAL_FPS));
        let focused = Exposure { focus_m: None, ..base };
        let with_shutter = |of: Exposure| of.with_shutter(wanted.shutter_s);
        let lit = |of: Exposure| wanted.share.map(|share| Exposure { infrared_share: Some(share), ..of });
        let faster = FPS.into_iter().filter(|fps| *fps > base.fps).map(|fps| Exposure { fps, ..base });
        let one: Vec<Exposure> = [with_shutter(base), focused]
            .into_iter()
            .chain(lit(base))
            .chain(faster.clone())
            .chain(
                SHARES
                    .into_iter()
                    .filter(|_| wanted.share.is_some())
                    .map(|share| Exposure { infrared_share: Some(share), ..base }),
            )
            .chain(SHUTTERS_S.into_iter().map(|shutter| base.with_shutter(shutter)))
            .collect();
        let all = with_shutter(focused);
        let several = [lit(with_shutter(base)), Some(all), lit(all)].into_iter().flatten();
        let several = several.chain(faster.map(|faster| Exposure { fps: faster.fps, ..lit(all).unwrap_or(all) }));
        one.into_iter().chain(several).filter(|exposure| Some(*exposure) != held).find_map(kept)
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
