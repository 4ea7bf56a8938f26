//! What is due as a calendar: iCalendar (RFC 5545), an all-day event for each thing.

use bright_angle_core::prove::due::{Due, DueItem};
use icalendar::{Calendar, Component, Event, Property};

/// What is due at a site as iCalendar. The same thing keeps its UID, so that a calendar that takes the file in once more moves it.
pub fn calendar(site: &str, key: &str, due: &Due) -> String {
    let mut calendar = Calendar::new();
    calendar.name(site);
    for item in &due.items {
        calendar.push(event(site, key, due, item));
    }
    calendar.done().to_string()
}

fn event(site: &str, key: &str, due: &Due, item: &DueItem) -> Event {
    let plain = |day: &str| day.replace('-', "");
    // What is overdue stands at the day that it is told for.
    let at = if item.overdue { &due.on } else { &item.due };
    let overdue = if item.overdue { format!(". Overdue since {}", item.due) } else { String::new() };
    let mut start = Property::new("DTSTART", plain(at));
    start.add_parameter("VALUE", "DATE");
    let mut event = Event::new();
    event
        .append_property(start)
        .add_property("UID", format!("{}.{key}@bright-angle", item.id))
        .add_property("DTSTAMP", format!("{}T000000Z", plain(&due.on)))
        .add_property("SUMMARY", text(&item.says))
        .add_property("LOCATION", text(&format!("{site}, {}", item.name)))
        .add_property("DESCRIPTION", text(&format!("{}{overdue}. {}", item.why, due.cautions.join(" "))))
        .add_property("TRANSP", "TRANSPARENT");
    event.done()
}

/// A text on one line: what breaks lines or is no letter at all has no place in a calendar.
fn text(says: &str) -> String {
    says.chars().map(|c| if c.is_control() { ' ' } else { c }).collect()
}
