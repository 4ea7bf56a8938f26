//! The rooms of the core and the order in which they may import from each other.

use std::fs;
use std::path::{Path, PathBuf};

/// From the room that knows nobody to the one that may know all.
const ORDER: [&str; 16] = [
    "work",
    "math",
    "file",
    "equipment",
    "scene",
    "site",
    "light",
    "judge",
    "words",
    "show",
    "picture",
    "ground",
    "change",
    "exchange",
    "survey",
    "answer",
];

fn files(folder: &Path, found: &mut Vec<PathBuf>) {
    for entry in fs::read_dir(folder).unwrap() {
        let path = entry.unwrap().path();
        if path.is_dir() {
            files(&path, found);
        } else if path.extension().is_some_and(|ending| ending == "rs") {
            found.push(path);
        }
    }
}

/// What runs against the order in a file of a room, line by line.
fn against_the_order(room: &str, text: &str) -> Vec<String> {
    let place = ORDER.iter().position(|known| *known == room);
    let mut faults = Vec::new();
    for (number, line) in text.lines().enumerate() {
        // Words in documentation may speak of any room.
        if line.trim_start().starts_with("//") {
            continue;
        }
        for after in line.split("crate::").skip(1) {
            let name: String = after.chars().take_while(|c| c.is_alphanumeric() || *c == '_').collect();
            let known = ORDER.iter().position(|known| *known == name);
            if known.is_none() || known > place {
                faults.push(format!("line {}: imports from \"{name}\"", number + 1));
            }
        }
    }
    faults
}

#[test]
fn rooms_import_only_from_those_before_them() {
    let root = Path::new(env!("CARGO_MANIFEST_DIR")).join("src");
    let mut all = Vec::new();
    files(&root, &mut all);
    assert!(all.len() > 50, "the rooms are where they are looked for");
    let mut faults = Vec::new();
    for path in all.iter().filter(|path| path.file_name().unwrap() != "lib.rs") {
        let inside = path.strip_prefix(&root).unwrap();
        let room = inside.components().next().unwrap().as_os_str().to_str().unwrap().to_owned();
        assert!(ORDER.contains(&room.as_str()), "{} lies in no room", inside.display());
        let text = fs::read_to_string(path).unwrap();
        faults
            .extend(against_the_order(&room, &text).into_iter().map(|fault| format!("{}: {fault}", inside.display())));
    }
    assert_eq!(faults, Vec::<String>::new());
}

#[test]
fn an_import_against_the_order_is_found() {
    assert_eq!(against_the_order("scene", "use crate::verdict::Verdict;\nuse crate::math::Angle;").len(), 1);
    assert_eq!(against_the_order("judge", "    crate::Site::parse(text)").len(), 1, "the root is no room");
    assert_eq!(against_the_order("judge", "use crate::scene::Solid; // crate::math").len(), 0);
}
