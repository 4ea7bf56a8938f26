//! All that the Aim screen draws, in one answer for one state of the site.

use crate::footprint::{Footprint, footprints};
use crate::section::{Section, section};
use crate::ways::Question;
use crate::{Evaluation, Fault, Site, evaluate};
use serde::Serialize;
use utoipa::ToSchema;

/// An evaluation with what is drawn beside it.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Study {
    /// The evaluation.
    pub evaluation: Evaluation,
    /// Where each head meets each need.
    pub footprints: Vec<Footprint>,
    /// The section along the sight line in hand; null when none is.
    #[schema(required)]
    pub section: Option<Section>,
}

/// Evaluates a site and draws it, with a section along `line` if there is one in hand.
///
/// # Errors
/// Names the id of `line` that the site does not have.
pub fn study(site: &Site, line: Option<&Question>) -> Result<Study, Fault> {
    let section = line.map(|line| section(site, line)).transpose()?;
    Ok(Study { evaluation: evaluate(site), footprints: footprints(site), section })
}
