//! What a firm charges, and what a quote says beside it. A price that is left out is unknown, never nothing.

use super::Amount;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// The price list of a site. Models and parts of mounts may carry prices of their own; what stands here goes before them.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct Prices {
    /// The money of all prices of the site, three capital letters as in `EUR` (ISO 4217).
    #[serde(skip_serializing_if = "Option::is_none")]
    pub currency: Option<String>,
    /// What things cost, by their names on the list of materials.
    #[schema(required = false)]
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub items: Vec<ItemPrice>,
    /// An hour of one person's work.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub hour: Option<Amount>,
    /// Kinds of work that take another time, or are charged otherwise.
    #[schema(required = false)]
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub work: Vec<WorkPrice>,
    /// The way there and back, each visit.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub visit: Option<Amount>,
    /// A lift, each day that one is needed.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub lift_day: Option<Amount>,
    /// What is put on top of what is bought, per cent.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub margin_percent: Option<Amount>,
    /// Tax on all of it, per cent.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub tax_percent: Option<Amount>,
    /// Whatever else is charged.
    #[schema(required = false)]
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub extras: Vec<ExtraPrice>,
    /// The last day that a quote holds, as in `2026-12-31`.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub valid_until: Option<String>,
    /// Who offers it: the firm, as it stands on the paper.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub firm: Option<String>,
    /// What the firm wants to say beside it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub note: Option<String>,
}

/// What a thing costs.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ItemPrice {
    /// Its name.
    pub what: String,
    /// What one of it costs, or a metre.
    pub each: Amount,
}

/// A kind of work.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Work {
    /// Cameras on the bench.
    Bench,
    /// Boxes of the network; a metre of cable has its own price, with the labour in it.
    Boxes,
    /// Cameras from ladders.
    Ladder,
    /// Cameras from a lift.
    Lift,
    /// Looking again by night.
    Night,
}

impl Work {
    /// All of them, in the order of the work.
    pub const ALL: [Work; 5] = [Work::Bench, Work::Boxes, Work::Ladder, Work::Lift, Work::Night];
}

/// How a kind of work is charged on this site.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct WorkPrice {
    /// Which.
    pub work: Work,
    /// Hours of one person, all together; as the day of fitting reckons them where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hours: Option<Amount>,
    /// An hour of it; the usual one where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hour: Option<Amount>,
}

/// Something else that is charged.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ExtraPrice {
    /// What it is called.
    pub name: String,
    /// How much of it.
    pub count: Amount,
    /// What one costs; unknown where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub each: Option<Amount>,
}

impl Prices {
    /// Whether nobody has said anything.
    pub fn is_unknown(&self) -> bool {
        *self == Prices::default()
    }
}
