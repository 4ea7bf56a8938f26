//! Outdoors in a build that takes the weather.

use crate::file::Form;
use crate::judge::sight::Sight;
use crate::verdict::{RuleName, RuleResult, Unit, Verdict};

/// The least protection against dust and water outdoors: strong jets (IEC 60529).
const LEAST_IP: u32 = 66;

/// At a spot outdoors: a camera that states IP66 or better, or stands in a housing, is kept; one that states nothing tight; one that states
/// less, and a bare box camera, broken (handbook, section 6).
pub fn judge(sight: &Sight) -> Option<RuleResult> {
    let mounting = sight.head.mounting();
    if mounting.outdoor != Some(true) {
        return None;
    }
    let (verdict, basis) = match mounting.ip {
        None if mounting.is_housed => (Verdict::Kept, "outdoors in a housing"),
        Some(ip) if ip >= LEAST_IP && (mounting.is_housed || mounting.form != Form::Box) => {
            (Verdict::Kept, "outdoors: withstands strong jets (IEC 60529)")
        }
        _ if mounting.form == Form::Box && !mounting.is_housed => {
            (Verdict::Broken, "a bare box camera stands outdoors; common practice, no source")
        }
        None => (Verdict::Tight, "outdoors, and it does not state what weather it withstands (IEC 60529)"),
        Some(_) => (Verdict::Broken, "outdoors, and it states less than IP66 (IEC 60529)"),
    };
    let found = RuleResult::of(RuleName::Weather, Unit::Ip, mounting.ip.map(f64::from)).limit(f64::from(LEAST_IP));
    Some(found.judged(verdict, basis))
}
