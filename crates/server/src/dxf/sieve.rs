//! What is looked at of a DXF text before the library sees it: the pairs of lines that outlines are made of, and not too many.
//!
//! The library was written for files of programs that write it well: it follows nested groups until the stack ends, unpacks preview
//! pictures, and falls over a date that is none. None of that is needed here. What stays: of the header the version and the unit, and
//! the sections with blocks and entities, without group data (code 102) and extended data (1000 and up). A DXF text is pairs of lines,
//! a group code and its value (the format's published reference).

use bright_angle_core::Fault;
use std::collections::HashMap;
use std::fmt::Write;

/// So many characters of a name or another value are taken; the format's own limit for names.
const LONGEST: usize = 255;
/// So many kinds of things are counted.
const MOST_KINDS: usize = 100;
/// The header's variables that are read.
const VARIABLES: [&str; 4] = ["$ACADVER", "$INSUNITS", "$DWGCODEPAGE", "$PROJECTNAME"];
/// The sections that are read.
const SECTIONS: [&str; 3] = ["HEADER", "BLOCKS", "ENTITIES"];

/// How many there may be of what.
#[derive(Clone, Copy, Debug)]
pub struct Most {
    /// Things: lines, outlines, blocks, texts, …
    pub things: usize,
    /// Corners of outlines that are written as things of their own.
    pub corners: usize,
}

/// What is left of a text.
pub struct Sieved {
    /// The text without what is not read.
    pub text: String,
    /// What stood in it outside of blocks, by kind, the most first.
    pub holds: Vec<(String, usize)>,
}

/// The text without what is not read.
///
/// # Errors
/// A line that is no group code, or more than there may be.
pub fn sieve(text: &str, most: Most) -> Result<Sieved, Fault> {
    let bad = |why: String| Fault::new("file", format!("is no DXF that can be read: {why}"));
    let mut holds: HashMap<String, usize> = HashMap::new();
    let mut kept = Kept {
        out: String::with_capacity(text.len() / 2),
        section: Section::Between,
        groups: 0,
        taken: true,
        in_entities: false,
    };
    let (mut things, mut corners) = (0, 0);
    let mut lines = text.trim_start_matches('\u{feff}').lines().enumerate();
    while let (Some((place, code)), value) = (lines.next(), lines.next()) {
        let Some((_, value)) = value else { break };
        let code: i32 = code.trim().parse().map_err(|_| {
            let shown: String = code.chars().take(40).collect();
            bad(format!("line {}: \"{shown}\" is no group code", place + 1))
        })?;
        if code == 0 && matches!(kept.section, Section::Read) {
            match value.trim() {
                "VERTEX" => corners += 1,
                "SEQEND" | "ENDSEC" | "EOF" => {}
                name => {
                    things += 1;
                    if kept.in_entities && (holds.len() < MOST_KINDS || holds.contains_key(name)) {
                        *holds.entry(name.to_owned()).or_default() += 1;
                    }
                }
            }
            if things > most.things || corners > most.corners {
                let Most { things, corners } = most;
                let message = format!("holds more than {things} things or {corners} corners; take a part of it");
                return Err(Fault::new("file", message));
            }
        }
        kept.pair(code, value);
        // Whatever comes behind the end is no part of it.
        if code == 0 && value.trim() == "EOF" {
            break;
        }
    }
    let mut holds: Vec<(String, usize)> = holds.into_iter().map(|(name, count)| (word_of(&name), count)).collect();
    holds.sort_by(|a, b| b.1.cmp(&a.1).then(a.0.cmp(&b.0)));
    Ok(Sieved { text: kept.out, holds })
}

/// What a kind of thing is called.
fn word_of(name: &str) -> String {
    let word = match name {
        "MTEXT" => "paragraph of text",
        "INSERT" => "block",
        "IMAGE" => "picture",
        "LWPOLYLINE" => "polyline",
        "3DFACE" => "face",
        "3DSOLID" => "body",
        "ACAD_TABLE" => "table",
        "VIEWPORT" => "window of a sheet",
        "OLE2FRAME" | "OLEFRAME" => "embedded document",
        other => return other.chars().take(LONGEST).collect::<String>().to_lowercase(),
    };
    word.to_owned()
}

/// Where in the file it is.
enum Section {
    Between,
    /// A section begins; its name comes.
    Begins,
    /// One that is read.
    Read,
    /// The header, of which some variables are read.
    Header,
    /// One that is not.
    Skipped,
}

struct Kept {
    out: String,
    section: Section,
    /// How deep in group data it is.
    groups: usize,
    /// Whether the header's variable at hand is read.
    taken: bool,
    /// Whether it is in the section with what is drawn.
    in_entities: bool,
}

impl Kept {
    fn pair(&mut self, code: i32, value: &str) {
        let word = value.trim();
        match (code, word) {
            (0, "SECTION") => {
                (self.section, self.groups, self.taken) = (Section::Begins, 0, true);
                return;
            }
            (0, "ENDSEC") => {
                if matches!(self.section, Section::Read | Section::Header) {
                    self.write(0, "ENDSEC");
                }
                self.section = Section::Between;
                return;
            }
            (0, "EOF") => return self.write(0, "EOF"),
            _ => {}
        }
        match self.section {
            Section::Begins if code == 2 => {
                let read = SECTIONS.contains(&word);
                self.in_entities = word == "ENTITIES";
                if read {
                    self.write(0, "SECTION");
                    self.write(2, word);
                }
                self.section = match word {
                    "HEADER" => Section::Header,
                    _ if read => Section::Read,
                    _ => Section::Skipped,
                };
            }
            Section::Header => {
                if code == 9 {
                    self.taken = VARIABLES.contains(&word);
                }
                if self.taken {
                    self.write(code, value);
                }
            }
            Section::Read => self.entity(code, value),
            // What stands outside of sections is written there by no program: the library says what is wrong with it.
            Section::Between if code == 0 => self.write(code, value),
            Section::Begins | Section::Between | Section::Skipped => {}
        }
    }

    fn entity(&mut self, code: i32, value: &str) {
        match code {
            // A new thing ends whatever was left open.
            0 => {
                self.groups = 0;
                self.write(code, value);
            }
            102 if value.trim_start().starts_with('{') => self.groups += 1,
            102 => self.groups = self.groups.saturating_sub(1),
            999 | 1000.. => {}
            _ if self.groups > 0 => {}
            _ => self.write(code, value),
        }
    }

    fn write(&mut self, code: i32, value: &str) {
        let end = value.char_indices().nth(LONGEST).map_or(value.len(), |(end, _)| end);
        // Writing to a string cannot fail.
        let _ = writeln!(self.out, "{code}\n{}", &value[..end]);
    }
}
