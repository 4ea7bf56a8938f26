//! The light on a subject by night, in what a picture needs of it.

use crate::verdict::Verdict;

/// As stated, and the least and the most over all that is uncertain.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct Spread {
    /// As stated.
    pub stated: f64,
    /// The least.
    pub least: f64,
    /// The most.
    pub most: f64,
}

impl Spread {
    /// So many times as much.
    #[must_use]
    pub fn times(self, by: f64) -> Spread {
        Spread { stated: self.stated * by, least: self.least * by, most: self.most * by }
    }
}

/// So many times the light that a picture needs.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Lit {
    /// Of its own infrared light; none for a head without.
    pub infrared: Option<Spread>,
    /// Of lamps; none where there is light, and nobody said how little the model needs.
    pub lamps: Option<Spread>,
    /// Whether nobody said anything of the head's light.
    pub nothing_stated: bool,
}

impl Lit {
    /// As stated and at worst, of infrared light or of lamps, whichever is more; none where nothing is known.
    pub fn best(&self) -> [Option<f64>; 2] {
        let known = [self.lamps, self.infrared];
        let best = |of: fn(&Spread) -> f64| known.iter().flatten().map(of).reduce(f64::max);
        if self.nothing_stated { [None; 2] } else { [best(|found| found.stated), best(|found| found.least)] }
    }

    /// Infrared light and lamps together, as stated and at most.
    pub fn together(&self) -> [f64; 2] {
        let known = [self.lamps, self.infrared];
        [|found: &Spread| found.stated, |found: &Spread| found.most]
            .map(|of| known.iter().flatten().map(of).fold(0.0, |sum, part| sum + part))
    }

    /// Whether it is enough.
    pub fn enough(&self) -> Verdict {
        let [stated, worst] = self.best().map(|found| found.is_some_and(|found| found >= 1.0));
        match Verdict::of(stated, worst) {
            Verdict::Broken if self.lamps.is_none() || self.nothing_stated => Verdict::Unknown,
            verdict => verdict,
        }
    }

    /// Whether it is no more than so many times what is needed.
    pub fn not_over(&self, most: f64) -> Verdict {
        let [stated, worst] = self.together().map(|found| found <= most);
        match Verdict::of(stated, worst) {
            Verdict::Kept | Verdict::Tight if self.lamps.is_none() || self.nothing_stated => Verdict::Unknown,
            verdict => verdict,
        }
    }

    /// Whether lamps alone make it as light as it is.
    pub fn is_by_lamps(&self) -> bool {
        self.lamps.is_some_and(|lamps| lamps.stated > 0.0 && Some(lamps.stated) == self.best()[0])
    }
}
