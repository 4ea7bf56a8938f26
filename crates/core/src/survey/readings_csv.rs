//! Readings as CSV, out and in: as programs write it, and as spreadsheets do (semicolons, decimal commas, a byte-order mark).

use crate::file::{Fault, Reading};
use crate::site::Site;
use crate::words::sheet_text::{guarded, unguarded};
use crate::work::{Over, Patience};
use serde::Serialize;
use std::collections::HashSet;
use utoipa::ToSchema;

const COLUMNS: [&str; 13] = [
    "id",
    "from",
    "to",
    "slope_m",
    "inclination_deg",
    "from_height_m",
    "to_height_m",
    "sigma_m",
    "used",
    "by",
    "taken",
    "device",
    "note",
];

/// So many columns a file may have: a spreadsheet's own beside ours.
const MOST_COLUMNS: usize = 200;
/// So many lines are read: more than a site takes.
const MOST_LINES: usize = 100_000;

/// What a CSV file held.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ReadCsv {
    /// The readings of the good lines.
    pub readings: Vec<Reading>,
    /// The bad lines, each with its number.
    pub faults: Vec<Fault>,
}

/// Writes readings, a header line first.
pub fn write_csv(readings: &[Reading]) -> String {
    let mut out = csv::Writer::from_writer(Vec::new());
    let number = |value: Option<f64>| value.map(|value| value.to_string()).unwrap_or_default();
    // Writing to memory cannot fail.
    let _ = out.write_record(COLUMNS);
    for r in readings {
        let text = |value: &Option<String>| guarded(value.as_deref().unwrap_or_default());
        let _ = out.write_record([
            guarded(&r.id),
            guarded(&r.from),
            guarded(&r.to),
            r.slope_m.to_string(),
            number(r.inclination_deg),
            number(r.from_height_m),
            number(r.to_height_m),
            number(r.sigma_m),
            r.used.to_string(),
            text(&r.by),
            text(&r.taken),
            text(&r.device),
            text(&r.note),
        ]);
    }
    String::from_utf8(out.into_inner().unwrap_or_default()).unwrap_or_default()
}

/// Reads readings. Columns go by their names in the first line, in any order; `from`, `to` and `slope_m` must be there. Good lines
/// are kept, bad ones named. `taken` are the ids that are in use already; lines without an id get the next free one.
pub fn read_csv(text: &str, taken: &[&str]) -> ReadCsv {
    // Who waits however long it takes is never told that it is over.
    read_csv_within(text, taken, &Patience::ENDLESS)
        .unwrap_or_else(|over| ReadCsv { readings: vec![], faults: vec![Fault::new("", over.to_string())] })
}

/// Reads readings as [`read_csv`] does, while somebody waits.
///
/// # Errors
/// When nobody waits any more.
pub fn read_csv_within(text: &str, taken: &[&str], patience: &Patience<'_>) -> Result<ReadCsv, Over> {
    let text = text.trim_start_matches('\u{feff}');
    let delimiter = delimiter(text);
    let mut reader =
        csv::ReaderBuilder::new().delimiter(delimiter).flexible(true).trim(csv::Trim::All).from_reader(text.as_bytes());
    let mut read = ReadCsv { readings: vec![], faults: vec![] };
    let header = match reader.headers() {
        Ok(header) => header.clone(),
        Err(error) => {
            read.faults.push(Fault::new("line 1", error.to_string()));
            return Ok(read);
        }
    };
    if header.len() > MOST_COLUMNS {
        read.faults.push(Fault::new("line 1", format!("has more than {MOST_COLUMNS} columns")));
        return Ok(read);
    }
    let columns = COLUMNS.map(|name| header.iter().position(|column| column == name));
    for needed in ["from", "to", "slope_m"] {
        if place_of(needed).and_then(|place| columns[place]).is_none() {
            read.faults.push(Fault::new("line 1", format!("has no column \"{needed}\"")));
        }
    }
    if !read.faults.is_empty() {
        return Ok(read);
    }
    let mut ids = Ids { next: 1, taken: taken.iter().map(|id| (*id).to_owned()).collect() };
    for record in reader.records() {
        let done = read.readings.len() + read.faults.len();
        if done >= MOST_LINES {
            read.faults
                .push(Fault::new("", format!("holds more than {MOST_LINES} lines; what comes after is not read")));
            break;
        }
        if done.is_multiple_of(256) {
            patience.check(|| format!("it has more than {done} lines"))?;
        }
        let (line, parsed) = match record {
            Ok(record) => {
                let line = record.position().map_or(0, csv::Position::line);
                if record.iter().all(str::is_empty) {
                    continue;
                }
                (line, Line { columns: &columns, record: &record, comma: delimiter != b',' }.reading(&mut ids))
            }
            Err(error) => (error.position().map_or(0, csv::Position::line), Err(error.to_string())),
        };
        match parsed {
            Ok(reading) => read.readings.push(reading),
            Err(message) => read.faults.push(Fault::new(format!("line {line}"), message)),
        }
    }
    Ok(read)
}

/// The place of a column's name among [`COLUMNS`].
fn place_of(name: &str) -> Option<usize> {
    COLUMNS.iter().position(|column| *column == name)
}

/// Reads readings for a site: what [`read_csv`] reads, less the lines that make no sense on this site (an end that it does not
/// have, a slope shorter than the heights are apart). Those are named too.
///
/// # Errors
/// When nobody waits any more.
pub fn read_csv_into(site: &Site, text: &str, patience: &Patience<'_>) -> Result<ReadCsv, Over> {
    let file = site.file();
    let taken: Vec<&str> = file.readings.iter().map(|reading| reading.id.as_str()).collect();
    let read = read_csv_within(text, &taken, patience)?;
    patience.check(|| "it has too many lines".into())?;
    let mut trial = file.clone();
    trial.readings.extend(read.readings.iter().cloned());
    let Err(found) = Site::from_file(trial) else { return Ok(read) };
    let ReadCsv { readings, mut faults } = read;
    let mut bad = HashSet::new();
    for fault in found {
        let place = place_in(&fault.path).and_then(|place| place.checked_sub(file.readings.len()));
        match place.and_then(|place| Some((place, readings.get(place)?))) {
            Some((place, reading)) => {
                bad.insert(place);
                // The place in the file that would come of it is nothing that the sheet's writer knows.
                let field = fault.path.rsplit('.').next().unwrap_or_default();
                faults.push(Fault::new(format!("reading {}", reading.id), format!("{field}: {}", fault.message)));
            }
            None => faults.push(fault),
        }
    }
    let kept = readings.into_iter().enumerate().filter(|(place, _)| !bad.contains(place));
    Ok(ReadCsv { readings: kept.map(|(_, reading)| reading).collect(), faults })
}

/// The place in `readings[place]…`.
fn place_in(path: &str) -> Option<usize> {
    path.strip_prefix("readings[")?.split(']').next()?.parse().ok()
}

/// The separator that the first line uses most.
fn delimiter(text: &str) -> u8 {
    let first = text.lines().next().unwrap_or_default();
    let count = |separator: char| first.matches(separator).count();
    [(b';', count(';')), (b'\t', count('\t')), (b',', count(','))]
        .into_iter()
        .max_by_key(|(_, n)| *n)
        .map_or(b',', |(s, _)| s)
}

/// The ids that are in use.
struct Ids {
    taken: HashSet<String>,
    /// All before it are in use.
    next: usize,
}

impl Ids {
    /// The next free one. What is taken stays taken, so it need not be looked for from the beginning.
    fn free(&mut self) -> String {
        loop {
            let id = format!("r{}", self.next);
            if !self.taken.contains(&id) {
                return id;
            }
            self.next += 1;
        }
    }
}

/// A line under its header.
struct Line<'a> {
    /// Where each of [`COLUMNS`] stands in a line.
    columns: &'a [Option<usize>; COLUMNS.len()],
    record: &'a csv::StringRecord,
    /// Whether a comma may stand for the decimal point.
    comma: bool,
}

impl Line<'_> {
    fn field(&self, name: &str) -> Option<&str> {
        self.record.get(self.columns[place_of(name)?]?).filter(|text| !text.is_empty())
    }

    fn number(&self, name: &str) -> Result<Option<f64>, String> {
        let Some(text) = self.field(name) else { return Ok(None) };
        let plain = if self.comma { text.replace(',', ".") } else { text.to_owned() };
        match plain.parse::<f64>() {
            Ok(value) if value.is_finite() => Ok(Some(value)),
            _ => Err(format!("{name}: \"{}\" is no number", text.chars().take(40).collect::<String>())),
        }
    }

    fn reading(&self, ids: &mut Ids) -> Result<Reading, String> {
        let text = |name: &str| self.field(name).map(|text| unguarded(text).to_owned());
        let needed = |name: &str| text(name).ok_or_else(|| format!("{name} is empty"));
        let used = match self.field("used").map(str::to_lowercase).as_deref() {
            None | Some("true" | "yes" | "1") => true,
            Some("false" | "no" | "0") => false,
            Some(other) => return Err(format!("used: \"{other}\" is neither true nor false")),
        };
        let id = match text("id") {
            Some(id) if ids.taken.contains(&id) => return Err(format!("there is a reading \"{id}\" already")),
            Some(id) => id,
            None => ids.free(),
        };
        let reading = Reading {
            id: id.clone(),
            from: needed("from")?,
            to: needed("to")?,
            slope_m: self.number("slope_m")?.ok_or("slope_m is empty")?,
            inclination_deg: self.number("inclination_deg")?,
            from_height_m: self.number("from_height_m")?,
            to_height_m: self.number("to_height_m")?,
            sigma_m: self.number("sigma_m")?,
            used,
            shots_m: vec![],
            shots_deg: vec![],
            by: text("by"),
            taken: text("taken"),
            device: text("device"),
            note: text("note"),
        };
        ids.taken.insert(id);
        Ok(reading)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::words::sheet_text::is_formula;

    #[test]
    fn what_is_written_is_read() {
        let text = "id,from,to,slope_m,inclination_deg,used,note\nr1,t1,s1,18.93,4.6,true,\"past the \"\"crane\"\", twice\"\nr2,t1,s2,7.5,,no,\n";
        let read = read_csv(text, &[]);
        assert!(read.faults.is_empty(), "{:?}", read.faults);
        assert_eq!(read.readings[0].note.as_deref(), Some("past the \"crane\", twice"));
        assert_eq!((read.readings[1].used, read.readings[1].inclination_deg), (false, None));
        assert_eq!(read_csv(&write_csv(&read.readings), &[]).readings, read.readings);
    }

    #[test]
    fn a_spreadsheets_semicolons_and_decimal_commas() {
        let read = read_csv("\u{feff}from;to;slope_m;sigma_m\r\nt1;s1;18,93;0,02\r\n;;;\r\nt2;s1;12.5;\r\n", &["r1"]);
        assert!(read.faults.is_empty(), "{:?}", read.faults);
        let found: Vec<(&str, f64)> = read.readings.iter().map(|r| (r.id.as_str(), r.slope_m)).collect();
        assert_eq!(found, [("r2", 18.93), ("r3", 12.5)]);
    }

    /// CWE-1236 (OWASP, "CSV injection"): cells that begin with = + - @ are run by spreadsheets.
    #[test]
    fn no_cell_is_a_formula_and_nothing_is_changed_by_that() {
        let texts = ["=1+1", "+1", "-1", "@SUM(A1)", " =1", "'=1", "''+", "'quoted'", "past the crane", "5 - 3"];
        for note in texts {
            let line = format!("id,from,to,slope_m,inclination_deg,note\n-7,t1,s1,3,-4.5,\"{}\"\n", guarded(note));
            let read = read_csv(&line, &[]).readings;
            assert_eq!((read[0].note.as_deref(), read[0].id.as_str()), (Some(note), "-7"), "{note}");
            let written = write_csv(&read);
            let cells: Vec<&str> = written.lines().nth(1).unwrap().split(',').collect();
            assert!(!is_formula(cells[0]) && !is_formula(cells[12].trim_matches('"')), "{written}");
            assert_eq!(cells[4], "-4.5", "a number stays one");
            assert_eq!(read_csv(&written, &[]).readings, read);
        }
    }

    #[test]
    fn many_lines_without_an_id_take_no_more_than_their_share() {
        let csv = format!("from,to,slope_m\n{}", "t1,s1,3\n".repeat(20_000));
        let read = read_csv(&csv, &["r5"]);
        assert_eq!(read.readings.len(), 20_000);
        assert_eq!(read.readings[4].id, "r6");
        let ids: HashSet<&str> = read.readings.iter().map(|r| r.id.as_str()).collect();
        assert_eq!(ids.len(), 20_000);
    }

    #[test]
    fn bad_lines_are_named_and_good_ones_kept() {
        let text =
            "id,from,to,slope_m\nr1,t1,s1,18.9\nr2,t1,s1,eighteen\nr1,t1,s1,3\n,t1,,4\nr5,t1,s1,NaN\nr6,t1,s1,5\n";
        let read = read_csv(text, &[]);
        assert_eq!(read.readings.iter().map(|r| r.id.as_str()).collect::<Vec<_>>(), ["r1", "r6"]);
        let paths: Vec<&str> = read.faults.iter().map(|fault| fault.path.as_str()).collect();
        assert_eq!(paths, ["line 3", "line 4", "line 5", "line 6"]);
        assert!(read.faults[0].message.contains("\"eighteen\" is no number"));
        assert_eq!(read_csv("a,b\n1,2\n", &[]).faults.len(), 3);
        assert_eq!(read_csv("", &[]).faults.len(), 3);
    }

    #[test]
    fn columns_are_found_once_and_bounded_and_who_does_not_wait_is_not_kept_waiting() {
        let many = format!("{}from,to,slope_m\n1,2,3\n", "x,".repeat(MOST_COLUMNS));
        assert!(read_csv(&many, &[]).faults[0].message.contains("columns"));
        let lines = format!("from,to,slope_m\n{}", "t1,s1,7\n".repeat(MOST_LINES + 5));
        let read = read_csv(&lines, &[]);
        assert_eq!((read.readings.len(), read.faults.len()), (MOST_LINES, 1));
        let over = read_csv_within(&lines, &[], &Patience::while_it(&|| false)).unwrap_err();
        assert!(over.to_string().contains("lines"), "{over}");
    }
}
