//! Near and far edge of the picture on the ground, straight ahead (handbook, section 4).

use super::Head;
use std::f64::consts::{FRAC_PI_2, PI};

/// Ground farther away than this is none, m.
const FARTHEST_M: f64 = 100_000.0;

/// Where the picture begins and ends on the ground straight ahead.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct GroundEdges {
    /// Ground distance to the nearest ground in the picture, m; zero when it reaches under the
    /// head, `None` when no ground is in it.
    pub near_m: Option<f64>,
    /// Ground distance to the farthest, m; `None` when the horizon is in view or no ground is.
    pub far_m: Option<f64>,
    /// Whether the horizon straight ahead is in the picture.
    pub horizon_in_view: bool,
}

impl GroundEdges {
    /// The edges for the ground at height zero.
    ///
    /// "Straight ahead" is the upright plane through the optical axis. Without roll that is the
    /// bottom-centre and the top-centre ray of the picture; with roll (a corridor picture) it is
    /// where that plane leaves the picture.
    pub fn of(head: &Head) -> Self {
        let half = half_upright(head);
        let (lowest, highest) = (head.tilt().rad() + half, head.tilt().rad() - half);
        let height = head.position().z;
        let ground_at = |below: f64| height / below.tan();
        let near_m = (lowest > 0.0 && highest < PI).then(|| if lowest >= FRAC_PI_2 { 0.0 } else { ground_at(lowest) });
        // So flat that only a rounding tells it from the horizon.
        let near_m = near_m.filter(|near| *near <= FARTHEST_M);
        let horizon_in_view = highest <= 0.0 && lowest >= 0.0;
        let far_m = (highest > 0.0).then(|| ground_at(highest).max(0.0));
        GroundEdges { near_m, far_m, horizon_in_view }
    }
}

/// Half the angle, radians, that the picture spans in the upright plane through the axis, whichever of its sides is up.
pub fn half_upright(head: &Head) -> f64 {
    let half = head.view().projection.size() / 2.0;
    let (across, down) = (head.roll().sin().abs(), head.roll().cos().abs());
    let px = (half.x / across).min(half.y / down).min(head.view().projection.circle());
    head.view().projection.angle_off_axis(px)
}
