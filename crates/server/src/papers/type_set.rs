//! Text set in lines: fonts, sizes, and the scripts that a name may be written in.

use parley::layout::{Alignment, Layout};
use parley::style::{FontFamily, FontStack, LineHeight, StyleProperty};
use parley::{FontContext, LayoutContext};
use std::borrow::Cow;
use std::sync::Arc;

const REGULAR: &[u8] = include_bytes!("../../fonts/Barlow-Regular.ttf");
const BOLD: &[u8] = include_bytes!("../../fonts/Barlow-SemiBold.ttf");
/// What Barlow does not have: Greek, Cyrillic, Arabic, Hebrew and more.
const OTHERS: &[u8] = include_bytes!("../../fonts/DejaVuSans.ttf");
const OTHERS_BOLD: &[u8] = include_bytes!("../../fonts/DejaVuSans-Bold.ttf");

/// All of them.
pub const FONTS: [&[u8]; 4] = [REGULAR, BOLD, OTHERS, OTHERS_BOLD];

/// How tall a line is, of the size of its letters.
const LINE: f32 = 1.32;
/// The longest text that is set; nobody reads more of a name.
const MOST_LETTERS: usize = 4_000;

/// How some text looks.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Face {
    /// Size of its letters, pt.
    pub size: f32,
    /// Whether it is bold.
    pub bold: bool,
    /// Its grey, 0 for ink.
    pub grey: u8,
}

impl Face {
    /// What is read.
    pub const BODY: Face = Face { size: 9.6, bold: false, grey: 24 };
    /// What is read beside it.
    pub const FINE: Face = Face { size: 8.2, bold: false, grey: 84 };
    /// A word that stands out.
    pub const STRONG: Face = Face { size: 9.6, bold: true, grey: 24 };
    /// A heading.
    pub const HEADING: Face = Face { size: 13.0, bold: true, grey: 24 };
    /// The title of a paper.
    pub const TITLE: Face = Face { size: 22.0, bold: true, grey: 24 };
}

/// A text, broken into lines.
pub struct SetText {
    /// The text itself.
    pub text: String,
    /// Its lines; each run carries its grey.
    pub layout: Layout<u8>,
}

/// Sets text.
pub struct TypeSetter {
    fonts: FontContext,
    layouts: LayoutContext<u8>,
}

impl TypeSetter {
    /// With the fonts that ship, and none of the machine's.
    pub fn new() -> TypeSetter {
        let mut fonts = FontContext {
            collection: parley::fontique::Collection::new(parley::fontique::CollectionOptions {
                shared: false,
                system_fonts: false,
            }),
            source_cache: parley::fontique::SourceCache::default(),
        };
        for font in FONTS {
            let bytes: Arc<dyn AsRef<[u8]> + Send + Sync> = Arc::new(font);
            fonts.collection.register_fonts(parley::fontique::Blob::new(bytes), None);
        }
        TypeSetter { fonts, layouts: LayoutContext::new() }
    }

    /// A text in lines of a width, pt. Letters that cannot be printed are left out.
    pub fn set(&mut self, text: &str, face: Face, width: f32) -> SetText {
        let plain = |letter: char| if letter.is_control() { ' ' } else { letter };
        let text: String = text.chars().take(MOST_LETTERS).map(plain).collect();
        let mut builder = self.layouts.ranged_builder(&mut self.fonts, &text, 1.0, false);
        builder.push_default(StyleProperty::Brush(face.grey));
        let named = |name: &'static str| FontFamily::Named(Cow::Borrowed(name));
        let families = [named(if face.bold { "Barlow SemiBold" } else { "Barlow" }), named("DejaVu Sans")];
        builder.push_default(StyleProperty::FontStack(FontStack::List(Cow::Borrowed(&families))));
        if face.bold {
            builder.push_default(StyleProperty::FontWeight(parley::style::FontWeight::new(600.0)));
        }
        builder.push_default(StyleProperty::LineHeight(LineHeight::FontSizeRelative(LINE)));
        builder.push_default(StyleProperty::FontSize(face.size));
        builder.push_default(StyleProperty::OverflowWrap(parley::style::OverflowWrap::Anywhere));
        let mut layout = builder.build(&text);
        layout.break_all_lines(Some(width));
        layout.align(Some(width), Alignment::Start, Default::default());
        SetText { text, layout }
    }
}
