//! Figures with their units in a plain line, in the order in which they stand.

use regex::Regex;

/// A figure with what stands behind it.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Figure {
    pub value: f64,
    /// Where in the line it begins.
    pub at: usize,
}

macro_rules! pattern {
    ($name:ident = $text:expr) => {
        pub static $name: std::sync::LazyLock<regex::Regex> =
            std::sync::LazyLock::new(|| regex::Regex::new($text).expect("a pattern that is written right"));
    };
}
pub(super) use pattern;

pattern!(MILLIMETRES = r"(\d+(?:\.\d+)?)\s*mm\b");
pattern!(DEGREES = r"(\d+(?:\.\d+)?)\s*(?:°|deg\b|degrees\b)");
pattern!(METRES = r"(\d+(?:\.\d+)?)\s*(?:m\b|met(?:er|re)s?\b)");
pattern!(FEET = r"(\d+(?:\.\d+)?)\s*(?:ft\b|feet\b|')");
pattern!(WATTS = r"(\d+(?:\.\d+)?)\s*(?:w\b|watts?\b)");
pattern!(FPS = r"(\d+(?:\.\d+)?)\s*(?:fps\b|frames? per second|frames?/s\b|bilder/s\b|images/s\b)");
pattern!(LUX = r"(\d*\.?\d+)\s*(?:lux|lx)\b");

/// The figures of a line with a unit.
pub fn figures(plain: &str, unit: &Regex) -> Vec<Figure> {
    let of = |found: regex::Captures<'_>| {
        let figure = found.get(1)?;
        Some(Figure { value: figure.as_str().parse().ok()?, at: figure.start() })
    };
    unit.captures_iter(plain).filter_map(of).collect()
}

/// A length said in metres, in feet, or both: in metres; both where they do not agree to a tenth.
pub fn length_m(plain: &str) -> Option<Result<f64, (f64, f64)>> {
    const FOOT: f64 = 0.3048;
    let metres = figures(plain, &METRES).first().map(|figure| figure.value);
    let feet = figures(plain, &FEET).first().map(|figure| figure.value * FOOT);
    match (metres, feet) {
        (Some(metres), Some(feet)) if (feet / metres - 1.0).abs() > 0.1 => Some(Err((metres, feet))),
        (Some(metres), _) => Some(Ok(metres)),
        (None, Some(feet)) => Some(Ok((feet * 100.0).round() / 100.0)),
        (None, None) => None,
    }
}
