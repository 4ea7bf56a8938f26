//! What an automatic exposure aims at: the mean of its picture at 18 % of white (handbook, section 9, "Too bright").

/// The mean that an automatic brings its picture to: the grey card of photography.
const GREY: f64 = 0.18;
/// Halvings until the exposure is found.
const HALVINGS: usize = 60;

/// A part of a picture: how light it is with the rated exposure, 1 for white, and how large.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Part {
    /// How light.
    pub light: f64,
    /// The share of the picture.
    pub share: f64,
    /// How far away it is, m.
    pub far: f64,
}

/// The exposure, 1 for the rated one, between two that makes the mean grey of parts, before which others stand: these hide what is farther
/// away, and are hidden by what is nearer. What is lighter than white counts as white.
pub fn exposure_for_grey(parts: &[Part], before: &[Part], least: f64, most: f64) -> f64 {
    let whole: f64 = parts.iter().map(|part| part.share).sum();
    let at = before.iter().map(|part| part.far).fold(f64::INFINITY, f64::min);
    let farther: f64 = parts.iter().filter(|part| part.far > at).map(|part| part.share).sum();
    let covered = before.iter().map(|part| part.share).sum::<f64>().min(1.0);
    let seen = |part: &Part| if part.far > at { 1.0 - covered } else { 1.0 };
    let white = |part: &Part, exposure: f64| part.share * (part.light * exposure).min(1.0);
    let mean = |exposure: f64| {
        let own: f64 = parts.iter().map(|part| white(part, exposure) * seen(part)).sum();
        let before: f64 = before.iter().map(|part| white(part, exposure)).sum();
        (own + before * farther) / whole
    };
    if whole == 0.0 || mean(most) <= GREY {
        return most;
    }
    let (mut low, mut high) = (least.ln(), most.ln());
    for _ in 0..HALVINGS {
        let middle = 0.5 * (low + high);
        if mean(middle.exp()) > GREY { high = middle } else { low = middle }
    }
    low.exp()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_mean_is_brought_to_grey_within_the_limits() {
        let parts = [Part { light: 0.09, share: 0.5, far: 9.0 }, Part { light: 0.27, share: 0.5, far: 9.0 }];
        assert!((exposure_for_grey(&parts, &[], 1e-6, 10.0) - 1.0).abs() < 1e-9);
        // A lamp that takes a tenth of the picture is white however short the shutter: a mean of 0.18 needs 0.08 from the rest.
        let lamp = [Part { light: f64::MAX, share: 0.1, far: 5.0 }];
        let found = exposure_for_grey(&[Part { light: 0.4, share: 1.0, far: 9.0 }], &lamp, 1e-6, 10.0);
        assert!((found - 0.08 / 0.36).abs() < 1e-9, "{found}");
        // What is nearer hides it.
        let near = exposure_for_grey(&[Part { light: 0.4, share: 1.0, far: 1.0 }], &lamp, 1e-6, 10.0);
        assert!((near - 0.18 / 0.4).abs() < 1e-9, "{near}");
        assert_eq!(exposure_for_grey(&parts, &[], 1e-6, 0.5), 0.5, "it has no longer shutter");
        assert!((exposure_for_grey(&parts, &[], 2.0, 10.0) - 2.0).abs() < 1e-9, "nor a shorter");
        assert_eq!(
            exposure_for_grey(&[Part { light: 0.0, share: 1.0, far: 9.0 }], &[], 1e-6, 1.0),
            1.0,
            "in the dark all of it"
        );
    }
}
