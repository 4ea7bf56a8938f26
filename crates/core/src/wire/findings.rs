//! What was found about a thing, with verdicts.

use crate::verdict::Verdict;

/// Findings with their verdicts: the worst is the verdict of all.
#[derive(Default)]
pub(super) struct Findings(Vec<(Verdict, String)>);

impl Findings {
    pub(super) fn that(&mut self, verdict: Verdict, says: impl FnOnce() -> String) {
        if verdict != Verdict::Kept {
            self.0.push((verdict, says()));
        }
    }

    pub(super) fn told(mut self) -> (Verdict, Vec<String>) {
        self.0.sort_by_key(|(verdict, _)| std::cmp::Reverse(*verdict));
        let verdict = self.0.first().map_or(Verdict::Kept, |(verdict, _)| *verdict);
        (verdict, self.0.into_iter().map(|(_, says)| says).collect())
    }
}
