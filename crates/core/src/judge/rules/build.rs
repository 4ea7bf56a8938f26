//! Aimed no further than the camera's build goes.

use crate::judge::build::build;
use crate::judge::sight::Sight;
use crate::verdict::{RuleName, RuleResult, Unit, Verdict};

/// Holds the aim against what the build takes as it hangs: as the model states, else as is usual for its form. Where nobody said how it
/// hangs it is enough that one usual way takes the aim.
pub fn judge(sight: &Sight) -> Option<RuleResult> {
    let build = build(sight.head, sight.scene())?;
    let verdict = if build.holds { Verdict::Kept } else { Verdict::Broken };
    let found = RuleResult::of(RuleName::Build, Unit::Deg, Some(build.value)).limit(build.limit);
    Some(found.judged(verdict, build.says))
}
