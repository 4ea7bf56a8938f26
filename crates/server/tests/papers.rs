//! The papers as PDFs, opened by a reader that has nothing to do with the writer (lopdf, pdf-extract): pages, sizes, tags, fonts, pictures,
//! and the text as somebody selects it.

use bright_angle::papers::{PaperPart, PaperSize, PaperWish, pdf};
use bright_angle_core::file::SiteFile;
use bright_angle_core::judge::Session;
use bright_angle_core::words::units::Units;
use bright_angle_core::work::Patience;
use lopdf::{Document, Object};
use std::collections::HashMap;

fn demo() -> SiteFile {
    serde_json::from_str(include_str!("../../../demo/saltpan-lane.json")).unwrap()
}

fn made(file: SiteFile, parts: &[PaperPart], size: PaperSize) -> Vec<u8> {
    let wish = PaperWish { parts: parts.to_vec(), size, units: Units::Metres };
    pdf(&Session::open(file).unwrap(), &HashMap::new(), &wish, &Patience::ENDLESS).unwrap()
}

const QUOTE: [PaperPart; 6] =
    [PaperPart::Quote, PaperPart::Options, PaperPart::Plan, PaperPart::Views, PaperPart::Notes, PaperPart::Sign];
const HAND_OVER: [PaperPart; 9] = [
    PaperPart::Cover,
    PaperPart::Plan,
    PaperPart::Schedule,
    PaperPart::Views,
    PaperPart::Promises,
    PaperPart::Network,
    PaperPart::Settings,
    PaperPart::Notes,
    PaperPart::Sign,
];

/// All dictionaries of a kind.
fn of_type<'a>(document: &'a Document, kind: &str) -> Vec<&'a lopdf::Dictionary> {
    let dictionaries = document.objects.values().filter_map(|object| match object {
        Object::Dictionary(dictionary) => Some(dictionary),
        Object::Stream(stream) => Some(&stream.dict),
        _ => None,
    });
    dictionaries
        .filter(|held| held.get(b"Type").and_then(Object::as_name).is_ok_and(|name| name == kind.as_bytes()))
        .collect()
}

fn media_box(document: &Document) -> Vec<[f32; 2]> {
    let of = |id| {
        let page = document.get_dictionary(id).unwrap();
        let sides = page.get(b"MediaBox").unwrap().as_array().unwrap();
        [sides[2].as_float().unwrap(), sides[3].as_float().unwrap()]
    };
    document.get_pages().into_values().map(of).collect()
}

#[test]
fn the_quote_has_pages_tags_fonts_pictures_and_text_that_can_be_selected() {
    let bytes = made(demo(), &QUOTE, PaperSize::A4);
    let document = Document::load_mem(&bytes).unwrap();
    let sizes = media_box(&document);
    // A page a view, and what comes before and after.
    assert!(sizes.len() >= demo().cameras.len() + 2, "{sizes:?}");
    // ISO 216: 210 × 297 mm at 72 points to 25.4 mm.
    let is = |size: &[f32; 2], wide: f32, tall: f32| (size[0] - wide).abs() < 0.02 && (size[1] - tall).abs() < 0.02;
    let upright = sizes.iter().filter(|size| is(size, 595.28, 841.89)).count();
    // The plan lies on its side.
    let broad = sizes.iter().filter(|size| is(size, 841.89, 595.28)).count();
    assert_eq!((upright, broad), (sizes.len() - 1, 1), "{sizes:?}");
    let catalog = document.catalog().unwrap();
    let marked = catalog.get(b"MarkInfo").and_then(|info| document.dereference(info)).unwrap().1;
    assert!(marked.as_dict().unwrap().get(b"Marked").unwrap().as_bool().unwrap());
    assert!(catalog.has(b"StructTreeRoot") && catalog.has(b"Lang"));
    let tags: Vec<String> = of_type(&document, "StructElem")
        .iter()
        .filter_map(|element| Some(String::from_utf8_lossy(element.get(b"S").ok()?.as_name().ok()?).into_owned()))
        .collect();
    for tag in ["H1", "H2", "P", "Table", "TR", "TH", "TD", "L", "LI", "Figure"] {
        assert!(tags.iter().any(|held| held == tag), "{tag} of {tags:?}");
    }
    // Every figure says what it shows.
    let figures = of_type(&document, "StructElem")
        .into_iter()
        .filter(|element| element.get(b"S").and_then(Object::as_name).is_ok_and(|name| name == b"Figure"));
    assert!(figures.into_iter().all(|figure| figure.has(b"Alt")));
    // All fonts are in the file.
    let fonts = of_type(&document, "FontDescriptor");
    assert!(!fonts.is_empty());
    assert!(fonts.iter().all(|font| font.has(b"FontFile2") || font.has(b"FontFile3")), "{fonts:?}");
    // A picture a view, each at 110 dots to an inch of its width on the page, or more.
    let pictures: Vec<i64> = document
        .objects
        .values()
        .filter_map(|object| object.as_stream().ok())
        .filter(|stream| stream.dict.get(b"Subtype").and_then(Object::as_name).is_ok_and(|name| name == b"Image"))
        .filter_map(|stream| stream.dict.get(b"Width").and_then(Object::as_i64).ok())
        .collect();
    assert!(pictures.len() >= demo().cameras.len() && pictures.iter().all(|wide| *wide >= 770), "{pictures:?}");
    let text = pdf_extract::extract_text_from_mem(&bytes).unwrap();
    for camera in &demo().cameras {
        assert!(text.contains(&camera.name), "{} is in it", camera.name);
    }
    for words in ["Saltpan Lane Depot", "What is promised", "What falls away", "What it does not do", "not priced yet"]
    {
        assert!(text.contains(words), "{words}: {text}");
    }
}

#[test]
fn the_hand_over_is_set_on_letter_paper_part_by_part() {
    let bytes = made(demo(), &HAND_OVER, PaperSize::Letter);
    let document = Document::load_mem(&bytes).unwrap();
    let sizes = media_box(&document);
    let broad = sizes.iter().filter(|size| **size == [792.0, 612.0]).count();
    assert_eq!(broad, 1, "the plan lies on its side: {sizes:?}");
    assert!(sizes.iter().all(|size| *size == [612.0, 792.0] || *size == [792.0, 612.0]), "{sizes:?}");
    let text = pdf_extract::extract_text_from_mem(&bytes).unwrap();
    for words in ["Hand-over", "Cameras", "Promises", "Runs, network and store", "Settings", "Upkeep", "Signature"] {
        assert!(text.contains(words), "{words}");
    }
    let few = made(demo(), &[PaperPart::Schedule], PaperSize::A4);
    assert_eq!(Document::load_mem(&few).unwrap().get_pages().len(), 1);
    assert!(!pdf_extract::extract_text_from_mem(&few).unwrap().contains("Upkeep"));
}

#[test]
fn names_are_only_names_whatever_is_in_them() {
    let mut file = demo();
    file.cameras[0].name = "<b>&amp;\\end{document}".into();
    file.cameras[1].name = "שער הכניסה".into();
    file.targets[0].name = "x".repeat(200);
    file.targets[1].name = format!("Вход {}", "на склад ".repeat(20)).trim().chars().take(200).collect();
    let bytes = made(file, &[PaperPart::Quote, PaperPart::Schedule], PaperSize::A4);
    let text = pdf_extract::extract_text_from_mem(&bytes).unwrap();
    assert!(text.contains("<b>&amp;\\end{document}"), "{text}");
    assert!(text.contains("Вход"), "{text}");
    // A word without a place to break is broken all the same: all of it is there.
    assert!(text.matches('x').count() >= 200, "{text}");
    assert!(text.chars().any(|letter| ('א'..='ת').contains(&letter)), "{text}");
}

#[test]
fn whoever_has_no_patience_is_told() {
    let session = Session::open(demo()).unwrap();
    let wish = PaperWish { parts: QUOTE.to_vec(), size: PaperSize::A4, units: Units::Metres };
    let over = Patience::while_it(&|| false);
    let refused = pdf(&session, &HashMap::new(), &wish, &over).unwrap_err();
    assert!(refused.message.starts_with("too large, because"), "{refused:?}");
}
