//! Ids that nobody has yet.

/// An id that nobody has yet: the letter and the next free number.
pub fn fresh_id<'a>(letter: &str, taken: impl Iterator<Item = &'a str>) -> String {
    let taken: std::collections::HashSet<&str> = taken.collect();
    let mut number = taken.len() + 1;
    loop {
        let id = format!("{letter}{number}");
        if !taken.contains(id.as_str()) {
            return id;
        }
        number += 1;
    }
}
