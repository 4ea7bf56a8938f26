//! How a camera hangs, and what it stands in.

use super::SpotKind;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// How a camera hangs.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum MountedAs {
    /// Under a ceiling or a soffit.
    Ceiling,
    /// On a wall.
    Wall,
    /// On a pole, from an arm.
    Pole,
    /// From an arm or a pipe.
    Pendant,
}

impl MountedAs {
    /// How one hangs at a sort of spot; none where that says nothing.
    pub fn at(kind: SpotKind) -> Option<MountedAs> {
        match kind {
            SpotKind::Ceiling | SpotKind::Soffit => Some(MountedAs::Ceiling),
            SpotKind::Wall | SpotKind::InsideCorner => Some(MountedAs::Wall),
            SpotKind::Pole => Some(MountedAs::Pole),
            SpotKind::Parapet => Some(MountedAs::Pendant),
            SpotKind::Tree => None,
        }
    }

    /// The words for it.
    pub fn word(self) -> &'static str {
        match self {
            MountedAs::Ceiling => "under a ceiling",
            MountedAs::Wall => "on a wall",
            MountedAs::Pole => "on a pole",
            MountedAs::Pendant => "from an arm",
        }
    }
}

/// A housing around a camera.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Housing {
    /// Its protection against dust and water, as in `IP66` (IEC 60529).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ip: Option<String>,
    /// Its protection against blows, as in `IK10` (IEC 62262).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ik: Option<String>,
}

/// The grade that a rating states, as in 66 for `IP66` and 10 for `IK10`; of several the highest. `None` where it states none.
///
/// ```
/// use bright_angle_core::file::grade;
/// assert_eq!(grade(Some("IP66/IP67")), Some(67));
/// assert_eq!(grade(Some("none")), None);
/// ```
pub fn grade(rating: Option<&str>) -> Option<u32> {
    let figures = rating?.split(|letter: char| !letter.is_ascii_digit());
    figures.filter_map(|figure| figure.parse().ok()).max()
}
