//! The walk around the site: what is still to ask, to measure or to settle before one leaves.

pub mod adjustment;
mod before_you_leave;
pub mod drawing;
pub mod finished_lines;
pub mod first_answer;
pub mod pocket;
mod readings_csv;
mod shots;
pub mod spot_for;
mod take_shot;

use crate::file::Fault;
use crate::site::Site;
use crate::work::Patience;
use adjustment::{Adjustment, adjust_within};
pub use before_you_leave::{Step, Todo};
use drawing::{ScaleFit, fit};
pub use readings_csv::{ReadCsv, read_csv, read_csv_into, read_csv_within, write_csv};
use serde::Serialize;
pub use shots::{Shots, shots};
pub use take_shot::{TakenShot, take_shot, take_shot_on};
use utoipa::ToSchema;

/// Where the survey of a site stands.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Survey {
    /// What is still missing or doubtful, in the order of the walk; empty when there is nothing left to ask.
    pub before_you_leave: Vec<Todo>,
    /// What the readings make of the drawn positions; null when they do not settle.
    #[schema(required)]
    pub adjustment: Option<Adjustment>,
    /// Why they do not.
    #[schema(required)]
    pub unsettled: Option<Fault>,
    /// What the repeated shots of each reading make together; null for one without. In the readings' order.
    pub shots: Vec<Option<Shots>>,
    /// The drawing's scale by the distances given for it; null without any.
    #[schema(required)]
    pub scale: Option<ScaleFit>,
}

/// Surveys a site.
pub fn survey(site: &Site) -> Survey {
    survey_within(site, &Patience::ENDLESS)
}

/// The same while somebody waits; positions that take longer are said to be unsettled.
pub fn survey_within(site: &Site, patience: &Patience) -> Survey {
    let (adjustment, unsettled) = match adjust_within(site, patience) {
        Ok(adjustment) => (Some(adjustment), None),
        Err(fault) => (None, Some(fault)),
    };
    let scale = site.file().drawing.as_ref().and_then(|drawing| fit(&drawing.scale_from));
    let of_readings = site.file().readings.iter().map(|reading| shots(&reading.shots_m)).collect();
    let before_you_leave = before_you_leave::todos(site, adjustment.as_ref(), scale.as_ref());
    Survey { before_you_leave, adjustment, unsettled, shots: of_readings, scale }
}
