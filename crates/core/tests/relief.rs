//! The relief, cell by cell, against sight lines, and against what a change leaves behind.

use crate::support;
use bright_angle_core::Site;
use bright_angle_core::math::Grid;
use bright_angle_core::show::coverage::relief::Relief;
use glam::DVec3;
use serde_json::{Value, json};
use support::DEMOS;

/// The best density at a point by one ray a head: another way than the code's.
fn by_rays(site: &Site, point: DVec3) -> f64 {
    if site.scene().solid_around(point).is_some() {
        return 0.0;
    }
    let heads = site.heads().iter().filter_map(|head| {
        let look = head.look(point)?;
        let clear = site.scene().first_blocker(head.position(), point).is_none();
        (look.in_view && clear).then_some(look.across)
    });
    heads.fold(0.0, f64::max)
}

fn agrees(site: &Site, grid: Grid, height: f64) {
    let relief = Relief::of(site, grid, height);
    let mut seen = 0;
    for row in 0..grid.rows {
        for column in 0..grid.columns {
            let centre = grid.centre(column, row);
            let expected = by_rays(site, centre.extend(height));
            let found = f64::from(relief.best()[row * grid.columns + column]);
            seen += usize::from(expected > 0.0);
            assert!(
                (found - expected).abs() <= 1e-6 * expected,
                "at {centre} and {height} m: {found}, by rays {expected}"
            );
        }
    }
    assert!(seen > grid.cells() / 20, "only {seen} of {} cells are seen", grid.cells());
}

#[test]
fn the_demos_agree_with_rays_at_every_height() {
    for demo in DEMOS {
        let site = Site::parse(demo).unwrap();
        let points = site.targets().iter().flat_map(|target| &target.samples);
        let (low, high) = points.fold((DVec3::MAX, DVec3::MIN), |(low, high), p| (low.min(*p), high.max(*p)));
        for height in [0.0, 0.7, 1.6, 5.0] {
            // Odd figures, so that no centre lies on an edge.
            agrees(&site, Grid::over([low.x - 20.03, low.y - 20.07, high.x + 20.0, high.y + 20.0], 0.713), height);
        }
    }
}

#[test]
fn every_model_of_the_catalogue_agrees_with_rays() {
    let models: Value = serde_json::from_str(bright_angle_core::equipment::catalogue::CATALOGUE_JSON).unwrap();
    for (n, model) in models.as_array().unwrap().iter().enumerate() {
        let focal = model["lens"]["focal_min_mm"].clone();
        let (height, roll) = ([1.2, 3.4, 6.0][n % 3], [0.0, 90.0, 12.0][n % 3]);
        let (tilt, east) = ([4.0, 20.0, 55.0, 90.0][n % 4], 1.0 + n as f64 * 0.3);
        let head =
            json!({"id": "h1", "pan_deg": (31 * n) % 360, "tilt_deg": tilt, "roll_deg": roll, "focal_mm": focal});
        let camera = json!({"id": "c1", "name": "C", "position": [east, 2.0], "height_m": height, "model": model, "heads": [head]});
        // A bay, thin walls, something that hovers, something seen through.
        let obstacles = json!([
            {"id": "o1", "name": "L", "kind": "building", "outline": [[8, 2], [14, 2], [14, 4], [10, 4], [10, 9], [8, 9]], "top_m": 3},
            {"id": "o2", "name": "Wall", "kind": "wall", "outline": [[-9, -9], [-3, -6], [3, -9]], "closed": false, "top_m": 1.5},
            {"id": "o3", "name": "Sign", "kind": "other", "outline": [[-6, 6], [-4, 6], [-4, 7], [-6, 7]], "base_m": 1.0, "top_m": 2.2},
            {"id": "o4", "name": "Net", "kind": "fence", "outline": [[3, 10], [5, 10], [5, 12]], "top_m": 4, "see_through": 0.8}]);
        let site = json!({"format": "bright-angle/site", "version": 1, "name": "All round", "obstacles": obstacles, "targets": [], "cameras": [camera]});
        let site = Site::parse(&site.to_string()).unwrap();
        let grid = Grid::over([-24.013, -23.027, 26.0, 26.0], 0.917);
        for height in [0.0, 1.6] {
            let relief = Relief::of(&site, grid, height);
            for row in 0..grid.rows {
                for column in 0..grid.columns {
                    let point = grid.centre(column, row).extend(height);
                    let (found, expected) =
                        (f64::from(relief.best()[row * grid.columns + column]), by_rays(&site, point));
                    assert!(
                        (found - expected).abs() <= 1e-6 * expected,
                        "{} at {point}: {found}, by rays {expected}",
                        model["name"]
                    );
                }
            }
        }
    }
}

#[test]
fn a_corner_on_the_middle_of_a_row_shades_that_row_as_well() {
    // Corners at y = 4.5 lie on a row's middle: the outline, which is not convex, is crossed there once, not never.
    let obstacles = json!([{"id": "o1", "name": "L", "kind": "building", "top_m": 3,
        "outline": [[2, 2], [8, 2], [10, 4.5], [8, 9], [5, 4.5], [2, 9]]}]);
    let camera = json!({"id": "c1", "name": "C", "position": [5, -9], "height_m": 2.7,
        "model": {"name": "M", "form": "bullet", "lens": {"focal_min_mm": 2.8, "focal_max_mm": 2.8},
            "sensor": {"width_px": 2688, "height_px": 1520, "width_mm": 5.376, "height_mm": 3.04}},
        "heads": [{"id": "h1", "pan_deg": 0, "tilt_deg": 5, "focal_mm": 2.8}]});
    let site = json!({"format": "bright-angle/site", "version": 1, "name": "L", "obstacles": obstacles, "targets": [], "cameras": [camera]});
    agrees(&Site::parse(&site.to_string()).unwrap(), Grid::over([-6.0, 0.0, 16.0, 12.0], 1.0), 1.6);
}

#[derive(serde::Deserialize)]
struct Yard {
    site: Value,
    bounds: [f64; 4],
    cell_m: f64,
    at_height_m: f64,
    columns: usize,
    rows: usize,
    best: Vec<f64>,
}

/// Source: trimesh and Embree for what is in the way, OpenCV for pixels and densities (`outside/relief`).
#[test]
fn made_up_yards_agree_with_another_ray_caster_cell_by_cell() {
    let yards: Vec<Yard> = serde_json::from_str(include_str!("../../../outside/relief/relief.json")).unwrap();
    let (mut cells, mut apart) = (0, 0);
    for yard in &yards {
        let site = Site::parse(&yard.site.to_string()).unwrap();
        let grid = Grid::over(yard.bounds, yard.cell_m);
        assert_eq!((grid.columns, grid.rows), (yard.columns, yard.rows));
        let relief = Relief::of(&site, grid, yard.at_height_m);
        let theirs = |column: usize, row: usize| yard.best[row * grid.columns + column].max(0.0);
        let agree = |found: f64, expected: f64| (found - expected).abs() <= 1e-4 * expected;
        for row in 0..grid.rows {
            for column in 0..grid.columns {
                let found = f64::from(relief.best()[row * grid.columns + column]);
                cells += 1;
                if agree(found, theirs(column, row)) {
                    continue;
                }
                // An edge runs by: a neighbour has what was found here.
                apart += 1;
                let around = |place: usize, most: usize| place.saturating_sub(1)..=(place + 1).min(most - 1);
                let mut neighbours =
                    around(row, grid.rows).flat_map(|r| around(column, grid.columns).map(move |c| (c, r)));
                let edge = neighbours.any(|(c, r)| {
                    let value = theirs(c, r);
                    (found == 0.0) == (value == 0.0) && (found - value).abs() <= 0.3 * value.max(found)
                });
                assert!(edge, "{}: {found} at {column}, {row}, theirs {}", yard.site["name"], theirs(column, row));
            }
        }
    }
    assert!(cells > 19_000 && apart * 500 < cells, "{apart} of {cells} cells differ");
}

#[test]
fn a_head_that_moves_leaves_the_relief_of_a_fresh_site() {
    let mut file: Value = serde_json::from_str(DEMOS[0]).unwrap();
    let parse = |file: &Value| Site::parse(&file.to_string()).unwrap();
    let before = parse(&file);
    let grid = Grid::over([0.0, 0.0, 120.0, 90.0], 0.75);
    let mut relief = Relief::of(&before, grid, 1.6);
    for (place, pan) in [(3, 10.0), (0, 200.0), (3, 170.0)] {
        file["cameras"][place]["heads"][0]["pan_deg"] = json!(pan);
        let after = parse(&file);
        relief.put(&after, place);
        assert_eq!(relief.best(), Relief::of(&after, grid, 1.6).best());
    }
}

#[test]
fn reliefs_of_some_heads_make_that_of_all() {
    let site = Site::parse(DEMOS[0]).unwrap();
    let grid = Grid::over([0.0, 0.0, 120.0, 90.0], 1.0);
    let heads = site.heads().len();
    let mut parts = [Relief::empty(grid, 1.6, heads), Relief::empty(grid, 1.6, heads)];
    (0..heads).for_each(|head| parts[head % 2].put(&site, head));
    let [mut one, other] = parts;
    one.merge(&other);
    assert_eq!(one.best(), Relief::of(&site, grid, 1.6).best());
}

#[test]
fn an_ascii_grid_begins_with_its_head_and_in_the_north() {
    let site = Site::parse(DEMOS[0]).unwrap();
    let relief = Relief::of(&site, Grid::over([60.0, 30.0, 80.0, 50.0], 2.0), 1.6);
    let text = relief.to_ascii_grid();
    let lines: Vec<&str> = text.lines().collect();
    assert_eq!(
        lines[..6],
        ["ncols 10", "nrows 10", "xllcorner 60", "yllcorner 30", "cellsize 2", "NODATA_value -9999"]
    );
    assert_eq!(lines.len(), 16);
    let north: Vec<f32> = lines[6].split(' ').map(|word| word.parse().unwrap()).collect();
    let last_row = &relief.best()[90..];
    assert!(north.iter().zip(last_row).all(|(text, value)| *text == if *value > 0.0 { *value } else { -9999.0 }));
}
