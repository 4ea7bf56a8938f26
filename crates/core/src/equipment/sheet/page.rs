//! The text of a sheet in lines, as its figures are looked for.

/// A line: as it stands, and with its signs made alike for whoever looks for figures.
#[derive(Clone, Debug)]
pub struct Line {
    /// As it stands, spaces made one.
    pub text: String,
    /// In small letters, with plain quotes, hyphens, decimal points and multiplication signs.
    pub plain: String,
}

/// A sheet.
pub struct Page {
    /// Its lines that say something; a name that stands alone over its figure is one line with it.
    pub lines: Vec<Line>,
}

/// The longest line that is looked at, bytes: prose that was never broken is cut at its sentences.
const LONGEST_LINE: usize = 2000;

impl Page {
    /// The page of a text.
    pub fn of(text: &str) -> Page {
        let mut lines: Vec<Line> = Vec::new();
        // Whether the line before is a name alone, which waits for its figure.
        let mut waits = false;
        for raw in unwrapped(text).iter().flat_map(|line| sentences(line)) {
            let text = raw.split_whitespace().collect::<Vec<_>>().join(" ");
            if text.is_empty() {
                continue;
            }
            let columns = raw.trim().contains(['|', '\t']) || raw.trim().contains("  ");
            // A table whose cells came out under each other: the name first, then its figure.
            match lines.last_mut() {
                Some(before) if waits && !columns && is_figure(&text) => {
                    before.text = format!("{} {text}", before.text);
                    before.plain = plain(&before.text);
                    waits = false;
                }
                _ => {
                    waits = !columns && !has_figure(&text) && is_name(&text);
                    lines.push(Line { plain: plain(&text), text });
                }
            }
        }
        Page { lines }
    }

    /// The lines that have one of some words.
    pub fn with<'a>(&'a self, words: &'a [&str]) -> impl Iterator<Item = &'a Line> {
        self.lines.iter().filter(move |line| line.has(words))
    }
}

impl Line {
    /// Whether one of some words stands in it, at the beginning of a word.
    pub fn has(&self, words: &[&str]) -> bool {
        words.iter().any(|word| {
            self.plain
                .match_indices(word)
                .any(|(place, _)| !self.plain[..place].chars().next_back().is_some_and(char::is_alphanumeric))
        })
    }
}

/// The lines of a text, those put together that a column's edge broke: prose that goes on in the next line.
fn unwrapped(text: &str) -> Vec<String> {
    let mut lines: Vec<String> = Vec::new();
    for raw in text.lines() {
        let goes_on = raw.trim_start().starts_with(|sign: char| sign.is_lowercase() || sign.is_ascii_digit());
        match lines.last_mut() {
            Some(before) if goes_on && breaks_off(before) && before.len() < LONGEST_LINE => {
                before.push(' ');
                before.push_str(raw.trim());
            }
            _ => lines.push(raw.to_owned()),
        }
    }
    lines
}

/// Whether a line is prose that has not come to its end: several words in small letters, no figure's name, no stop.
fn breaks_off(line: &str) -> bool {
    let words = line.split_whitespace().filter(|word| word.starts_with(char::is_lowercase)).count();
    words >= 4
        && !line.contains([':', '\t', '|'])
        && !line.contains("   ")
        && !line.trim_end().ends_with(['.', ';', ':'])
}

/// A long line in its sentences; any other as it is.
fn sentences(line: &str) -> Vec<&str> {
    if line.len() > 120 {
        let ends = line.split_inclusive(". ").flat_map(|part| part.split_inclusive("; "));
        ends.map(shortened).collect()
    } else {
        vec![line]
    }
}

/// Its beginning, where it is too long.
fn shortened(part: &str) -> &str {
    let end = part.char_indices().map(|(place, _)| place).find(|place| *place >= LONGEST_LINE);
    &part[..end.unwrap_or(part.len())]
}

fn has_figure(text: &str) -> bool {
    text.bytes().any(|byte| byte.is_ascii_digit())
}

/// Whether a line is a figure that has no name of its own.
fn is_figure(text: &str) -> bool {
    has_figure(text) && !text.contains(':')
}

/// Whether a line is a name and nothing more: a few words, no sentence.
fn is_name(text: &str) -> bool {
    text.split(' ').count() <= 6 && !text.ends_with('.')
}

/// A line with its signs made alike.
fn plain(text: &str) -> String {
    let signs: String = text
        .to_lowercase()
        .chars()
        .map(|sign| match sign {
            '\u{d7}' | '*' | '\u{2a2f}' => 'x',
            '\u{2013}' | '\u{2014}' | '\u{2212}' | '\u{2010}' | '\u{2011}' | '~' | '\u{223c}' | '\u{ff5e}' => '-',
            '\u{201c}' | '\u{201d}' | '\u{2033}' | '\u{201f}' => '"',
            '\u{2018}' | '\u{2019}' | '\u{2032}' => '\'',
            '\u{b5}' => '\u{3bc}',
            '\u{ba}' | '\u{2da}' => '\u{b0}',
            '|' | '\t' => ' ',
            other => other,
        })
        .collect();
    decimals(&signs)
}

/// Decimal commas as points; commas that part thousands left out. `2,8` and `0,005` are decimal, `1,920` is not.
fn decimals(text: &str) -> String {
    let signs: Vec<char> = text.chars().collect();
    let digits = |from: usize| signs[from..].iter().take_while(|sign| sign.is_ascii_digit()).count();
    let mut out = String::with_capacity(text.len());
    for (place, sign) in signs.iter().enumerate() {
        let before = signs[..place].iter().rev().take_while(|sign| sign.is_ascii_digit()).count();
        let after = digits(place + 1);
        match sign {
            ',' if before > 0 && after > 0 => {
                let zero = before == 1 && signs[place - 1] == '0';
                if after == 3 && before <= 3 && !zero {
                    continue;
                }
                out.push('.');
            }
            other => out.push(*other),
        }
    }
    out
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn signs_are_made_alike() {
        assert_eq!(plain("2,8 mm \u{2013} 12\u{a0}mm"), "2.8 mm - 12\u{a0}mm");
        assert_eq!(plain("2,688 \u{d7} 1,520"), "2688 x 1520");
        assert_eq!(plain("0,005 Lux, F1,6"), "0.005 lux, f1.6");
        assert_eq!(plain("1/2.8\u{201d} CMOS"), "1/2.8\" cmos");
    }

    #[test]
    fn a_name_over_its_figure_is_one_line_with_it() {
        let page = Page::of("Focal length\n2.8 mm\n\nIR range\n30 m\nFor indoor use.\n12 V");
        let texts: Vec<&str> = page.lines.iter().map(|line| line.text.as_str()).collect();
        assert_eq!(texts, ["Focal length 2.8 mm", "IR range 30 m", "For indoor use.", "12 V"]);
        assert!(page.lines[1].has(&["ir"]) && !page.lines[0].has(&["ngth"]));
    }
}
