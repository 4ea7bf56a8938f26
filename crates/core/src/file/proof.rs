//! What was tried out at a target once the cameras hung: a walk test.

use super::evidence::view_of;
use super::{Evidence, HeadRef, Hung};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One try at one target, in one camera's picture.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Proof {
    /// Its id.
    pub id: String,
    /// The target's id.
    pub target: String,
    /// The camera's id.
    pub camera: String,
    /// The head's id.
    pub head: String,
    /// The id of the preset or flattened view; its own aim where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub view: Option<String>,
    /// When, as in `2026-11-24T14:02:00Z`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub at: Option<String>,
    /// Who tried.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub by: Option<String>,
    /// By night.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub night: bool,
    /// What was tried, and what came of it.
    pub how: ProofHow,
    /// The picture that shows it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub picture: Option<Evidence>,
    /// What was turned or moved to get there, in words.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub moved: Option<String>,
    /// How the camera hung.
    pub hung: Hung,
    /// What it was held against, px/m: a need that was raised since is not proved by it.
    pub needed_px_per_m: f64,
}

/// What was tried.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum ProofHow {
    /// Two marks a known distance apart, clicked in the picture.
    Marks {
        /// One, in pixels of the head's full picture.
        a: [f64; 2],
        /// The other.
        b: [f64; 2],
        /// How far they are from each other, m.
        apart_m: f64,
        /// Whether they stand above each other, as on a board, and not beside each other.
        #[serde(default)]
        upright: bool,
        /// How well each is clicked, ± px of the full picture.
        clicked_px: f64,
    },
    /// A plate that was shown, and what was read in the picture.
    Plate {
        /// What was there.
        shown: String,
        /// What was read; `?` where a character could not be.
        read: String,
    },
    /// Whether the client says that it will do: a face that is known again, an area that is seen.
    Yes {
        /// They do.
        yes: bool,
    },
}

impl Proof {
    /// The view that it was tried in.
    pub fn head_ref(&self) -> HeadRef {
        view_of(&self.camera, &self.head, self.view.as_deref())
    }
}
