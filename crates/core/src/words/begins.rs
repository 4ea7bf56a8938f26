//! How things begin that somebody puts down: our own, usual values, all of them to be changed by whoever does.

use crate::file::{Exposure, ObstacleKind, USUAL_FPS};
use serde::Serialize;
use utoipa::ToSchema;

/// How an obstacle of a kind begins.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct ObstacleBegins {
    /// The kind.
    pub kind: ObstacleKind,
    /// Filled, or a thin wall.
    pub closed: bool,
    /// Height of its underside, m.
    pub base_m: f64,
    /// Height of its top, m.
    pub top_m: f64,
    /// How well one sees through it, 0 to 1.
    pub see_through: f64,
}

/// From where to where something upright reaches.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct Upright {
    /// Its lower edge, m.
    pub base_m: f64,
    /// Its upper edge, m.
    pub top_m: f64,
}

/// How a lamp begins.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct LampBegins {
    /// Its height, m.
    pub height_m: f64,
    /// Its light, lm.
    pub lumens: f64,
}

/// How a flat picture that is cut out of a round one begins.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct FlattenedBegins {
    /// How far it looks below the horizontal, degrees.
    pub tilt_deg: f64,
    /// How wide it is, degrees.
    pub hfov_deg: f64,
}

/// All of it.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Begins {
    /// Obstacles, by kind.
    pub obstacles: Vec<ObstacleBegins>,
    /// How well one sees through a bare crown, 0 to 1; common practice, no source.
    pub bare_see_through: f64,
    /// A private place that is all that happens over a piece of ground.
    pub private_ground: Upright,
    /// One that is a window.
    pub private_window: Upright,
    /// A usual yard lamp; common practice, no source.
    pub lamp: LampBegins,
    /// A plate camera (handbook, section 6).
    pub exposure: Exposure,
    /// How long a tour stays at a preset, s (handbook, section 6).
    pub dwell_s: f64,
    /// A flattened view of a fisheye.
    pub flattened: FlattenedBegins,
}

const fn obstacle(kind: ObstacleKind, closed: bool, base_m: f64, top_m: f64, see_through: f64) -> ObstacleBegins {
    ObstacleBegins { kind, closed, base_m, top_m, see_through }
}

/// How things begin.
pub fn begins() -> Begins {
    Begins {
        obstacles: vec![
            obstacle(ObstacleKind::Building, true, 0.0, 3.0, 0.0),
            obstacle(ObstacleKind::Wall, false, 0.0, 2.0, 0.0),
            obstacle(ObstacleKind::Fence, false, 0.0, 1.8, 0.8),
            obstacle(ObstacleKind::Tree, true, 2.0, 7.0, 0.0),
            obstacle(ObstacleKind::Glass, false, 0.0, 2.2, 0.9),
            obstacle(ObstacleKind::Vehicle, true, 0.0, 1.8, 0.0),
            obstacle(ObstacleKind::Eave, true, 2.6, 2.9, 0.0),
            obstacle(ObstacleKind::Door, false, 0.0, 2.1, 0.0),
            obstacle(ObstacleKind::Other, true, 0.0, 2.0, 0.0),
        ],
        bare_see_through: 0.7,
        private_ground: Upright { base_m: 0.0, top_m: 2.0 },
        private_window: Upright { base_m: 0.9, top_m: 2.2 },
        lamp: LampBegins { height_m: 4.0, lumens: 4000.0 },
        exposure: Exposure::fixed(0.001, USUAL_FPS),
        dwell_s: 5.0,
        flattened: FlattenedBegins { tilt_deg: 30.0, hfov_deg: 70.0 },
    }
}
