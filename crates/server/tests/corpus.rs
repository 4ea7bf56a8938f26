//! All that the fuzzer has found worth keeping, once more (`fuzz/corpus`, a folder a target).

use bright_angle::{dxf, picture};

#[path = "../../../fuzz/src/checks.rs"]
mod checks;

/// Calls a check with each file of a corpus; answers how many there were.
fn replay(target: &str, check: fn(&[u8])) -> usize {
    replay_in(&format!("fuzz/corpus/{target}"), "", check)
}

/// The same with the files of a folder that end so.
fn replay_in(folder: &str, ending: &str, check: fn(&[u8])) -> usize {
    let folder = std::path::Path::new(env!("CARGO_MANIFEST_DIR")).join("../..").join(folder);
    let files = std::fs::read_dir(&folder).unwrap_or_else(|error| panic!("{}: {error}", folder.display()));
    files
        .map(|entry| entry.unwrap().path())
        .filter(|path| path.to_string_lossy().ends_with(ending))
        .map(|path| {
            let bytes = std::fs::read(&path).unwrap();
            let done = std::panic::catch_unwind(|| check(&bytes));
            assert!(done.is_ok(), "{}", path.display());
        })
        .count()
}

#[test]
fn site_files() {
    assert!(replay("site_file", checks::site_file) >= 8);
}

#[test]
fn readings() {
    assert!(replay("readings_csv", checks::readings_csv) >= 4);
}

#[test]
fn pictures() {
    assert!(replay("picture", checks::picture) >= 8);
}

#[test]
fn world_files() {
    assert!(replay("world_file", checks::world_file) >= 3);
}

#[test]
fn drawings_as_dxf() {
    assert!(replay("dxf", checks::dxf) >= 4 && replay_in("outside/exchange", ".dxf", checks::dxf) >= 7);
}

#[test]
fn drawings_as_geojson() {
    assert!(replay("geojson", checks::geojson) >= 3 && replay_in("outside/exchange", ".geojson", checks::geojson) >= 1);
}
