//! Texts in tables for spreadsheets: none is taken for a formula.

/// A text that a spreadsheet would take for a formula, behind an apostrophe, which a spreadsheet takes for "this is text".
///
/// ```
/// use bright_angle_core::words::sheet_text::{guarded, unguarded};
/// assert_eq!(guarded("=1+1"), "'=1+1");
/// assert_eq!(guarded("Gate"), "Gate");
/// assert_eq!(unguarded(&guarded("@till")), "@till");
/// ```
pub fn guarded(text: &str) -> String {
    if is_formula(text) || unguarded(text) != text { format!("'{text}") } else { text.to_owned() }
}

/// What [`guarded`] was given.
pub fn unguarded(text: &str) -> &str {
    text.strip_prefix('\'').filter(|rest| is_formula(rest) || rest.starts_with('\'')).unwrap_or(text)
}

/// Common practice, no source: what spreadsheets take for a formula begins so.
pub fn is_formula(text: &str) -> bool {
    text.trim_start().starts_with(['=', '+', '-', '@', '\t', '\r']) || text.starts_with(['\t', '\r'])
}
