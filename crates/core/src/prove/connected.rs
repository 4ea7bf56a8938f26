//! Tiles that hang together.

/// The tiles of a grid for which something holds, in groups that hang together by a side or a corner.
pub fn connected([columns, rows]: [usize; 2], of: &dyn Fn(usize) -> bool) -> Vec<Vec<usize>> {
    let mut seen = vec![false; columns * rows];
    let mut regions = Vec::new();
    for begin in 0..columns * rows {
        if seen[begin] || !of(begin) {
            continue;
        }
        let (mut region, mut next) = (Vec::new(), vec![begin]);
        seen[begin] = true;
        while let Some(place) = next.pop() {
            region.push(place);
            let (x, y) = (place % columns, place / columns);
            for y in y.saturating_sub(1)..=(y + 1).min(rows - 1) {
                for x in x.saturating_sub(1)..=(x + 1).min(columns - 1) {
                    let there = y * columns + x;
                    if !seen[there] && of(there) {
                        seen[there] = true;
                        next.push(there);
                    }
                }
            }
        }
        regions.push(region);
    }
    regions
}
