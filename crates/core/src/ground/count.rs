//! How many cameras see each cell of a relief well enough for a need: those that never look away, and those that do in turns.

use crate::show::coverage::relief::Relief;
use crate::site::{Head, Site};

/// Who sees each cell of a grid at a need.
#[derive(Clone, Debug, PartialEq)]
pub struct Counts {
    /// Cameras that see it and never look away: heads in one housing fail together and count once.
    pub steady: Vec<u8>,
    /// Cameras that see it only now and then, from presets of a tour.
    pub in_turns: Vec<u8>,
}

/// Counts over the layers of a relief of a site.
pub fn counts(site: &Site, relief: &Relief, need: f32) -> Counts {
    let cells = relief.grid().cells();
    let mut counts = Counts { steady: vec![0; cells], in_turns: vec![0; cells] };
    // The camera that each cell was counted for last, by its place and one.
    let mut last_steady = vec![0_u16; cells];
    let mut last_in_turns = vec![0_u16; cells];
    // What never looks away comes first, so that a camera counts once.
    let toured = |head: &Head| head.gap_s().is_some_and(|gap| gap > 0.0);
    for wanted in [false, true] {
        for (place, head) in site.heads().iter().enumerate().filter(|(_, head)| toured(head) == wanted) {
            let camera = head.camera() as u16 + 1;
            relief.each_at_least(place, need, |cell| {
                if last_steady[cell] == camera || (wanted && last_in_turns[cell] == camera) {
                    return;
                }
                let (count, last) = match wanted {
                    false => (&mut counts.steady[cell], &mut last_steady[cell]),
                    true => (&mut counts.in_turns[cell], &mut last_in_turns[cell]),
                };
                *count = count.saturating_add(1);
                *last = camera;
            });
        }
    }
    counts
}
