//! The names of the rules.

use serde::Serialize;
use utoipa::ToSchema;

/// The name of a rule.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RuleName {
    /// Enough pixels per metre.
    PixelDensity,
    /// In the picture, with some slack in the aim.
    InView,
    /// Nothing in the way.
    Clear,
    /// A face not seen too steeply from above.
    FaceFromAbove,
    /// A face not turned away.
    TurnedAway,
    /// A plate not seen too much from the side.
    PlateSide,
    /// A plate not seen too steeply.
    PlateVertical,
    /// Not unseen for too long, of a head on tour.
    Unseen,
    /// Aimed no further than the camera's build goes.
    Build,
    /// Not within reach of a hand, or in a build that takes one.
    WithinReach,
    /// Outdoors in a build that takes the weather.
    Weather,
    /// Not behind the mask of a private place.
    Masked,
    /// By night: enough light on it.
    LightEnough,
    /// By night: a plate that is not bleached.
    Overexposed,
    /// By night: a front plate between headlights, with a shutter short enough for their glare.
    Headlights,
    /// A plate on the move: seen often enough.
    Looks,
    /// A plate on the move: not drawn out too far while the shutter is open.
    Blur,
    /// A plate on the move: sharp from where it begins to read to where it ends to.
    Sharp,
    /// A plate on the move: infrared light that differs little enough between both ends.
    ZoneInfrared,
    /// A plate on the move: a picture no wider than its lane.
    LaneWidth,
}
