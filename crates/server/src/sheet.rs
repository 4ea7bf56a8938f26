//! Data sheets as they come: text in whatever code page, or the text of a PDF.

use bright_angle_core::Fault;
use bright_angle_core::equipment::sheet::{self, LONGEST, Sheet};

/// Reads a sheet.
///
/// # Errors
/// What is none: a picture, a packed file, one that is locked, broken or too long.
pub fn read(bytes: &[u8]) -> Result<Sheet, Fault> {
    let fault = |why: &str| Fault::new("file", why.to_owned());
    let starts = |marks: &[&[u8]]| marks.iter().any(|mark| bytes.starts_with(mark));
    if starts(&[b"\x89PNG", b"\xff\xd8\xff", b"GIF8", b"BM", b"II*\0", b"MM\0*"]) {
        return Err(fault("is a picture: a sheet is text or a PDF with text in it; type what it shows"));
    }
    if starts(&[b"PK\x03\x04", b"\xd0\xcf\x11\xe0", b"\x1f\x8b"]) {
        return Err(fault("is a packed file: open it, and paste its text"));
    }
    let text =
        if bytes.iter().take(1024).collect::<Vec<_>>().windows(5).any(|five| five.iter().map(|b| **b).eq(*b"%PDF-")) {
            pdf_extract::extract_text_from_mem(bytes)
                .map_err(|error| Fault::new("file", format!("cannot be read as a PDF ({error}): paste its text")))?
        } else {
            decoded(bytes)
        };
    if text.len() > LONGEST {
        return Err(fault("is too long for a data sheet: paste the page with the figures"));
    }
    let unreadable = text.chars().filter(|sign| sign.is_control() && !sign.is_whitespace()).count();
    if unreadable * 20 > text.chars().count() {
        return Err(fault("is no text: paste the text of the sheet"));
    }
    Ok(sheet::read(&text))
}

/// Text by its byte order mark, else UTF-8, else as old Western programs write it.
fn decoded(bytes: &[u8]) -> String {
    let wide = |order: fn([u8; 2]) -> u16| {
        let units: Vec<u16> = bytes[2..].chunks_exact(2).map(|pair| order([pair[0], pair[1]])).collect();
        String::from_utf16_lossy(&units)
    };
    match bytes {
        [0xff, 0xfe, ..] => wide(u16::from_le_bytes),
        [0xfe, 0xff, ..] => wide(u16::from_be_bytes),
        _ => String::from_utf8(bytes.to_vec()).unwrap_or_else(|_| {
            // Windows-1252 where it differs from Latin-1 in a data sheet: quotes and dashes.
            let western = |byte: &u8| match byte {
                0x91 | 0x92 => '\u{2019}',
                0x93 | 0x94 => '\u{201d}',
                0x96 | 0x97 => '\u{2013}',
                other => char::from(*other),
            };
            bytes.iter().map(western).collect()
        }),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn old_code_pages_and_wide_ones_are_text() {
        let wide: Vec<u8> = [0xfeff_u16]
            .into_iter()
            .chain("Lens 2.8 mm, 103° horizontal".encode_utf16())
            .flat_map(u16::to_le_bytes)
            .collect();
        let western = b"Lens 2.8 mm, horizontal field of view 103\xb0, sensor 1/2.7\x94";
        for bytes in [&wide[..], &western[..]] {
            let sheet = read(bytes).unwrap();
            assert_eq!(sheet.models[0]["lens"]["hfov_at_min_deg"], 103.0, "{sheet:?}");
        }
    }

    #[test]
    fn what_is_no_sheet_is_told_what_it_is() {
        let told = |bytes: &[u8]| read(bytes).unwrap_err().message;
        assert!(told(b"\x89PNG\r\n\x1a\n123").contains("a picture"));
        assert!(told(b"PK\x03\x04rest").contains("packed"));
        assert!(told(b"%PDF-1.7\nbroken").contains("as a PDF"));
        assert!(told(&[7; 4000]).contains("no text"));
        assert!(told("lens ".repeat(300_000).as_bytes()).contains("too long"));
    }
}
