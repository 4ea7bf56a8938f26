//! What must hold whatever bytes come in: no panic, no endless work, and what is taken is written and read again as it is.
//! The fuzzer's targets call these, and `crates/server/tests/corpus.rs` calls them with all that is in `fuzz/corpus`.

use super::dxf;
use super::picture::{Picture, unpacked_mib};
use bright_angle_core::exchange::{Import, geojson};
use bright_angle_core::survey::drawing::parse_world_file;
use bright_angle_core::survey::{read_csv, write_csv};
use bright_angle_core::work::Patience;
use bright_angle_core::{Site, evaluate_within};
use std::sync::atomic::{AtomicUsize, Ordering};

/// So many steps of a computation are waited for.
const STEPS: usize = 3_000;

/// A site file.
pub fn site_file(bytes: &[u8]) {
    let Ok(text) = std::str::from_utf8(bytes) else { return };
    let Ok(site) = Site::parse(text) else { return };
    let written = serde_json::to_string(site.file()).expect("a site can be written");
    let again = Site::parse(&written).expect("what was written is in order");
    assert_eq!(again.file(), site.file());
    let steps = AtomicUsize::new(0);
    let goes_on = || steps.fetch_add(1, Ordering::Relaxed) < STEPS;
    if let Ok(found) = evaluate_within(&site, &Patience::while_it(&goes_on)) {
        assert_eq!(found.targets.len(), site.targets().len());
        let figures =
            found.sight_lines.iter().flat_map(|line| [Some(line.slant_m), line.px_per_m, Some(line.hidden_share)]);
        assert!(figures.flatten().all(f64::is_finite), "a figure is none");
    }
}

/// Readings as CSV.
pub fn readings_csv(bytes: &[u8]) {
    let Ok(text) = std::str::from_utf8(bytes) else { return };
    let read = read_csv(text, &["r1"]).readings;
    let again = read_csv(&write_csv(&read), &[]);
    assert!(again.faults.is_empty(), "{:?}", again.faults);
    assert_eq!(again.readings, read);
}

/// A picture.
pub fn picture(bytes: &[u8]) {
    let Ok(mib) = unpacked_mib(bytes) else { return };
    // The fuzzer's own memory is small.
    if mib > 16 {
        return;
    }
    let Ok(taken) = Picture::take(bytes) else { return };
    let again = Picture::take(&taken.bytes).expect("what was written is a picture");
    assert_eq!((again.width_px, again.height_px), (taken.width_px, taken.height_px));
}

/// A world file.
pub fn world_file(bytes: &[u8]) {
    let Ok(text) = std::str::from_utf8(bytes) else { return };
    if let Ok(found) = parse_world_file(text) {
        assert!(found.metres_per_px.is_finite() && found.metres_per_px > 0.0 && found.turn_deg.is_finite());
    }
}

/// A drawing as DXF: whatever the library makes of what is left of it, it is an answer.
pub fn dxf(bytes: &[u8]) {
    // The library may fall over, which is caught: the fuzzer's own hook would end the program before.
    std::panic::set_hook(Box::new(|_| {}));
    taken(dxf::read(bytes, None).ok());
}

/// A drawing as GeoJSON.
pub fn geojson(bytes: &[u8]) {
    let Ok(text) = std::str::from_utf8(bytes) else { return };
    taken(geojson::read(text).ok());
}

fn taken(import: Option<Import>) {
    let Some(import) = import else { return };
    let corners = import.layers.iter().flat_map(|layer| &layer.obstacles).flat_map(|obstacle| &obstacle.outline);
    assert!(corners.flatten().all(|axis| axis.is_finite()), "a corner is nowhere");
}
