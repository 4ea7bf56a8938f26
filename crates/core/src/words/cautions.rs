//! What to mind before hands follow (handbook, section 8). Local codes and licensed practice decide.

/// Work on site that a change takes.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Work {
    /// A camera gets another place or height.
    Move,
    /// A camera or lens is exchanged.
    Exchange,
}

/// The cautions for some work, a sentence each; there is always work at height.
pub fn cautions(works: &[Work]) -> Vec<String> {
    let mut said =
        vec!["Before hands follow: work at height from a footed ladder or platform, and within local rules."];
    if works.contains(&Work::Move) {
        said.push(
            "A new place: look for concealed pipes and cables before drilling, and hang the lanyard before letting go.",
        );
    }
    if works.contains(&Work::Exchange) {
        said.push("A changed camera or lens: power off first; check what the mount bears.");
    }
    said.push("Local codes and licensed practice decide.");
    said.into_iter().map(str::to_owned).collect()
}
