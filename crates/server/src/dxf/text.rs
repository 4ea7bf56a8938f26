//! The text of a DXF file: binary ones written out as text, and what is not UTF-8 read by the code page that the file names.

use bright_angle_core::Fault;
use encoding_rs::{Encoding, UTF_8, WINDOWS_1252};
use std::borrow::Cow;
use std::io::Write;

/// What a binary DXF begins with (the format's published reference).
const BINARY: &[u8] = b"AutoCAD Binary DXF\r\n\x1a\0";

/// The text of a file, and the code page that it was read by where that is not known here.
///
/// # Errors
/// A binary file that ends in the middle.
pub fn text_of(bytes: &[u8]) -> Result<(String, Option<String>), Fault> {
    let written;
    let bytes = match bytes.strip_prefix(BINARY) {
        Some(pairs) => {
            written = written_out(pairs)?;
            &written
        }
        None => bytes,
    };
    if let Some((encoding, mark)) = Encoding::for_bom(bytes) {
        return Ok((encoding.decode_without_bom_handling(&bytes[mark..]).0.into_owned(), None));
    }
    if let Ok(text) = std::str::from_utf8(bytes) {
        return Ok((text.to_owned(), None));
    }
    let (encoding, unknown) = encoding_of(bytes);
    // Line by line: some programs mix their code page with UTF-8.
    let mut text = String::with_capacity(bytes.len());
    for line in bytes.split_inclusive(|byte| *byte == b'\n') {
        match std::str::from_utf8(line) {
            Ok(line) => text.push_str(line),
            Err(_) => text.push_str(&encoding.decode_without_bom_handling(line).0),
        }
    }
    Ok((text, unknown))
}

/// The encoding that the header names: UTF-8 from the version of 2007 on, before that a code page; Western European where it says nothing.
fn encoding_of(bytes: &[u8]) -> (&'static Encoding, Option<String>) {
    let value_of = |name: &str| {
        let at = bytes.windows(name.len()).position(|window| window == name.as_bytes())?;
        let mut lines = bytes[at..].split(|byte| *byte == b'\n').skip(2);
        Some(String::from_utf8_lossy(lines.next()?).trim().to_ascii_uppercase())
    };
    if value_of("$ACADVER").is_some_and(|version| version.as_str() >= "AC1021") {
        return (UTF_8, None);
    }
    let Some(page) = value_of("$DWGCODEPAGE") else { return (WINDOWS_1252, None) };
    let number = page.strip_prefix("ANSI_").or_else(|| page.strip_prefix("DOS")).unwrap_or(&page);
    let label = match number {
        "932" => "shift_jis".to_owned(),
        "936" => "gbk".to_owned(),
        "949" => "euc-kr".to_owned(),
        "950" => "big5".to_owned(),
        "866" => "ibm866".to_owned(),
        number if page.starts_with("ANSI_") => format!("windows-{number}"),
        _ => String::new(),
    };
    match Encoding::for_label(label.as_bytes()) {
        Some(encoding) => (encoding, None),
        None => (WINDOWS_1252, Some(page.chars().take(40).collect())),
    }
}

/// A binary file's pairs as lines of text. Group codes are one byte before the version of release 13, two since.
fn written_out(pairs: &[u8]) -> Result<Vec<u8>, Fault> {
    let short = || Fault::new("file", "is no DXF that can be read: it is a binary one that ends in the middle");
    let mut rest = Rest(pairs);
    let narrow = pairs.get(1) != Some(&0);
    let mut out = Vec::with_capacity(pairs.len() * 2);
    while !rest.0.is_empty() {
        let code = if narrow {
            let code = rest.bytes::<1>().ok_or_else(short)?[0];
            // What does not fit comes behind a mark.
            if code == 255 { rest.whole_2().ok_or_else(short)? } else { i64::from(code) }
        } else {
            rest.whole_2().ok_or_else(short)?
        };
        // Writing to memory cannot fail.
        let _ = writeln!(out, "{code}");
        rest.value(code, &mut out).ok_or_else(short)?;
        out.push(b'\n');
        if code == 0 && out.ends_with(b"\nEOF\n") {
            break;
        }
    }
    Ok(out)
}

/// What is still to be read.
struct Rest<'a>(&'a [u8]);

impl<'a> Rest<'a> {
    fn take(&mut self, count: usize) -> Option<&'a [u8]> {
        let (taken, rest) = self.0.split_at_checked(count)?;
        self.0 = rest;
        Some(taken)
    }

    fn bytes<const N: usize>(&mut self) -> Option<[u8; N]> {
        self.take(N)?.try_into().ok()
    }

    fn whole_2(&mut self) -> Option<i64> {
        Some(i64::from(i16::from_le_bytes(self.bytes()?)))
    }

    /// The value of a group, of the sort that its code has (the format's published reference), as text.
    fn value(&mut self, code: i64, out: &mut Vec<u8>) -> Option<()> {
        let written = match code {
            10..=59 | 110..=149 | 210..=239 | 460..=469 | 1010..=1059 => f64::from_le_bytes(self.bytes()?).to_string(),
            60..=79 | 170..=179 | 270..=289 | 370..=389 | 400..=409 | 1060..=1070 => self.whole_2()?.to_string(),
            90..=99 | 420..=429 | 440..=459 | 1071 => i32::from_le_bytes(self.bytes()?).to_string(),
            160..=169 => i64::from_le_bytes(self.bytes()?).to_string(),
            290..=299 => self.bytes::<1>()?[0].to_string(),
            310..=319 | 1004 => {
                let length = usize::from(self.bytes::<1>()?[0]);
                self.take(length)?.iter().map(|byte| format!("{byte:02X}")).collect()
            }
            _ => {
                let end = self.0.iter().position(|byte| *byte == 0)?;
                let text = self.take(end)?;
                self.take(1)?;
                // A line's end within a text would be two lines.
                out.extend(text.iter().map(|byte| if matches!(byte, b'\r' | b'\n') { b' ' } else { *byte }));
                return Some(());
            }
        };
        out.extend_from_slice(written.as_bytes());
        Some(())
    }
}

/// What a text of a drawing says, in one line: without the signs by which its letters are dressed.
///
/// `%%d` is a degree sign, `%%c` a diameter, `%%p` plus or minus; `\\U+00E9` a letter; `\\P` a new line; the rest of what a backslash
/// begins is about fonts, heights and colours, up to a semicolon.
pub fn plain(text: &str) -> String {
    let mut out = String::new();
    let mut rest = text;
    while let Some(c) = rest.chars().next() {
        let after = &rest[c.len_utf8()..];
        rest = match c {
            '{' | '}' => after,
            '%' if after.starts_with('%') => percent(&after[1..], &mut out),
            '\\' => backslash(after, &mut out),
            c => {
                out.push(if c.is_control() { ' ' } else { c });
                after
            }
        };
    }
    let words: Vec<&str> = out.split_whitespace().collect();
    words.join(" ").chars().take(120).collect()
}

fn percent<'a>(rest: &'a str, out: &mut String) -> &'a str {
    let Some(c) = rest.chars().next() else { return rest };
    match c.to_ascii_lowercase() {
        'd' => out.push('°'),
        'c' => out.push('Ø'),
        'p' => out.push('±'),
        '%' => out.push('%'),
        'u' | 'o' | 'k' => {}
        _ => return rest,
    }
    &rest[c.len_utf8()..]
}

fn backslash<'a>(rest: &'a str, out: &mut String) -> &'a str {
    let Some(c) = rest.chars().next() else { return rest };
    let after = &rest[c.len_utf8()..];
    match c {
        'P' | 'n' | '~' => out.push(' '),
        '\\' | '{' | '}' => out.push(c),
        'U' if after.starts_with('+') => {
            let code = after.get(1..5).and_then(|hex| u32::from_str_radix(hex, 16).ok()).and_then(char::from_u32);
            if let Some(letter) = code {
                out.push(letter);
                return &after[5..];
            }
        }
        'L' | 'l' | 'O' | 'o' | 'K' | 'k' => {}
        _ => return after.split_once(';').map_or(after, |(_, rest)| rest),
    }
    after
}

/// The name of a layer or a thing as it was typed.
pub fn name(text: &str) -> Cow<'_, str> {
    if text.contains("\\U+") { Cow::Owned(plain(text)) } else { Cow::Borrowed(text) }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn dressed_texts_say_what_is_read() {
        for (text, says) in [
            ("{\\fArial|b0;Main \\H2.5x;gate}\\Peast", "Main gate east"),
            ("90%%d %%c12 %%p5 %%%", "90° Ø12 ±5 %"),
            ("Caf\\U+00E9", "Café"),
            ("a\\\\b \\{x\\}", "a\\b {x}"),
            ("torn \\U+00", "torn +00"),
            ("\\", ""),
        ] {
            assert_eq!(plain(text), says, "{text}");
        }
    }

    #[test]
    fn a_code_page_is_taken_by_its_name() {
        let file = |page: &str| format!("  9\n$ACADVER\n  1\nAC1015\n  9\n$DWGCODEPAGE\n  3\n{page}\n");
        for (page, bytes, says) in [
            ("ANSI_1252", &b"Caf\xe9"[..], "Café"),
            ("ANSI_1251", b"\xc4\xce\xcc", "ДОМ"),
            ("ANSI_932", b"\x96\xe5", "門"),
            ("dos866", b"\x84\x8e\x8c", "ДОМ"),
        ] {
            let (text, unknown) = text_of(&[file(page).as_bytes(), bytes].concat()).unwrap();
            assert!(text.ends_with(says) && unknown.is_none(), "{text}");
        }
        let (_, unknown) = text_of(&[file("DOS850").as_bytes(), b"\x82"].concat()).unwrap();
        assert_eq!(unknown.as_deref(), Some("DOS850"));
    }
}
