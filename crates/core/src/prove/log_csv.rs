//! The log of visits as a table.

use crate::file::{SiteFile, StepHow, Visit};
use crate::words::sheet_text::guarded;
use jiff::civil::Date;

/// The visits as CSV, a line for each thing that was due: when, who, what, what became of it, what was found, and how far recordings went
/// back.
pub fn log_csv(site: &SiteFile) -> String {
    let mut out = csv::Writer::from_writer(Vec::new());
    // Writing to memory cannot fail.
    let _ = out.write_record(["date", "by", "what", "how", "found", "recordings_days", "promised_days"]);
    let promised = site.brief.as_ref().and_then(|brief| brief.retention_days);
    let promised = promised.map(|days| days.to_string()).unwrap_or_default();
    for visit in &site.visits {
        let by = visit.by.as_deref().unwrap_or_default();
        for done in &visit.done {
            let how = match done.how {
                StepHow::Done => "done",
                StepHow::Later => "left for later",
                StepHow::LeftOut => "left out",
            };
            let back = days_back(visit, done.oldest.as_deref());
            let promised = if back.is_empty() { "" } else { promised.as_str() };
            let found = done.note.as_deref().unwrap_or_default();
            let _ = out.write_record([&visit.date, by, &done.says, how, found, &back, promised].map(guarded));
        }
        if let Some(note) = &visit.note {
            let _ = out.write_record([&visit.date, by, "note", "", note, "", ""].map(guarded));
        }
    }
    String::from_utf8(out.into_inner().unwrap_or_default()).unwrap_or_default()
}

/// How many days before a visit the oldest recording was from.
fn days_back(visit: &Visit, oldest: Option<&str>) -> String {
    let dates = oldest.and_then(|oldest| Some((oldest.parse::<Date>().ok()?, visit.date.parse::<Date>().ok()?)));
    dates.map(|(from, to)| (to - from).get_days().to_string()).unwrap_or_default()
}
