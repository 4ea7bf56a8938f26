//! Time zones by name: the rule that each follows now, as POSIX writes it, out of the IANA database (`outside/zones`). Tables of
//! years past are left out: the sun is told for this year and those to come.

/// `name,rule` a line, sorted by name.
const TABLE: &str = include_str!("../../data/zones.csv");

/// The rule of a zone, as in `GMT0BST,M3.5.0/1,M10.5.0`; `None` for a name that is not in the database.
///
/// ```
/// # use bright_angle_core::file::zones::rule_of;
/// assert_eq!(rule_of("Europe/London"), Some("GMT0BST,M3.5.0/1,M10.5.0"));
/// assert_eq!(rule_of("Europe/Atlantis"), None);
/// ```
pub fn rule_of(name: &str) -> Option<&'static str> {
    TABLE
        .lines()
        .skip(1)
        .find_map(|line| line.split_once(',').filter(|(known, _)| *known == name).map(|(_, rule)| rule))
}
