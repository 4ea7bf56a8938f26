//! The angles at which a plate may be seen, under the site's school.

use crate::file::{PlateSchool, Subject};
use crate::judge::sight::Sight;

/// Side limit, vertical limit and basis; `None` where the subject is not a plate.
pub(super) fn limits(sight: &Sight) -> Option<(f64, f64, &'static str)> {
    if sight.target.subject != Subject::Plate {
        return None;
    }
    let rules = sight.rules;
    Some(match rules.plate_school {
        PlateSchool::Level => {
            (rules.level_side_deg, rules.level_vertical_deg, "level method; common practice, no source")
        }
        PlateSchool::Raised => {
            (rules.raised_side_deg, rules.raised_vertical_deg, "raised method; common practice, no source")
        }
    })
}
