//! Closed intervals of the real line.

/// An interval from `start` to `end`, `start` ≤ `end`.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Interval {
    /// Where it begins.
    pub start: f64,
    /// Where it ends; may be infinite.
    pub end: f64,
}

impl Interval {
    /// The interval from `start` to `end`; `None` if that is empty.
    pub fn new(start: f64, end: f64) -> Option<Self> {
        (start < end).then_some(Interval { start, end })
    }

    /// What two intervals share.
    pub fn meet(self, other: Interval) -> Option<Self> {
        Interval::new(self.start.max(other.start), self.end.min(other.end))
    }

    /// How long it is.
    pub fn length(self) -> f64 {
        self.end - self.start
    }

    /// What is left of it without `holes`.
    pub fn without(self, holes: &mut [Interval]) -> Vec<Interval> {
        holes.sort_by(|a, b| a.start.total_cmp(&b.start));
        let mut left = Vec::new();
        let mut from = self.start;
        for hole in holes.iter() {
            left.extend(Interval::new(from, hole.start.min(self.end)));
            from = from.max(hole.end);
        }
        left.extend(Interval::new(from, self.end));
        left
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn holes_are_cut_out() {
        let whole = Interval { start: 0.0, end: 10.0 };
        let mut holes =
            [Interval { start: 6.0, end: 7.0 }, Interval { start: -1.0, end: 2.0 }, Interval { start: 6.5, end: 20.0 }];
        assert_eq!(whole.without(&mut holes), [Interval { start: 2.0, end: 6.0 }]);
        assert_eq!(whole.without(&mut []), [whole]);
    }
}
