//! The papers as typeset PDFs: tagged, with text that can be selected, vector plans, and pictures at print resolution. Lines are broken and
//! scripts are set by parley, the file is written by krilla; the fonts ship with the program.

mod compose;
mod layout;
mod type_set;
mod views;

pub use compose::{PaperPart, PaperSize, PaperWish, pdf};
