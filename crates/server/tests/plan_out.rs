//! Plans as they go out: what geopandas, ezdxf and CairoSVG find in them (outside/exchange/readback.py) against the site; the outlines
//! of coverage against the coverage map; and that what is no solid does not come back as one.

use bright_angle::coverage::coverage;
use bright_angle::dxf;
use bright_angle::plan_out::written;
use bright_angle::relief::whole_relief;
use bright_angle_core::exchange::geojson;
use bright_angle_core::exchange::plan::{HEIGHT_M, TASKS, coverage_grid};
use bright_angle_core::work::Patience;
use bright_angle_core::{Site, evaluate};
use geo::{Contains, LineString, Point, Polygon};
use serde_json::{Value, json};

fn site(name: &str) -> Site {
    let path = format!("{}/../../demo/{name}.json", env!("CARGO_MANIFEST_DIR"));
    Site::parse(&std::fs::read_to_string(path).unwrap()).unwrap()
}

fn read_back() -> Value {
    serde_json::from_str(include_str!("../../../outside/exchange/readback.json")).unwrap()
}

#[test]
fn geopandas_finds_each_thing_on_its_layer_with_its_verdict() {
    for (name, found) in read_back().as_object().unwrap() {
        let site = site(name);
        let (file, found) = (site.file(), &found["geojson"]);
        assert_eq!(found["valid"], json!(true), "{name}");
        let count = |layer: &str| found["layers"][layer].as_u64().unwrap_or(0) as usize;
        let aims = file.cameras.iter().map(|camera| camera.heads.len()).sum::<usize>();
        assert_eq!(
            [count("cameras"), count("promises"), count("spots"), count("aims")],
            [file.cameras.len(), file.targets.len(), file.spots.len(), aims],
            "{name}"
        );
        for result in evaluate(&site).targets {
            assert_eq!(found["verdicts"][&result.target], json!(result.verdict), "{name} {}", result.target);
        }
        // As much ground as the cells of the map have; GDAL's metres are UTM's, up to 0.04 % short or long.
        let grid = coverage_grid(file);
        let relief = whole_relief(&site, grid, HEIGHT_M, &Patience::ENDLESS).unwrap();
        for task in TASKS {
            let need = site.rules().needs.need(task).px_per_m;
            let cells = relief.best().iter().filter(|density| f64::from(**density) >= need).count();
            let (cells_m2, gis_m2) =
                (cells as f64 * grid.cell * grid.cell, found["coverage_m2"][&format!("{need:?}")].as_f64().unwrap());
            assert!((cells_m2 - gis_m2).abs() < 0.03 * cells_m2 + 10.0, "{name} {need}: {cells_m2} m², {gis_m2} m²");
        }
    }
}

#[test]
fn ezdxf_finds_cameras_at_their_heights_names_with_verdicts_and_solids_as_thick_as_high() {
    for (name, found) in read_back().as_object().unwrap() {
        let site = site(name);
        let (file, found) = (site.file(), &found["dxf"]);
        assert_eq!((&found["errors"], &found["units"]), (&json!(0), &json!(6)), "{name}: metres");
        let mut cameras: Vec<[f64; 3]> =
            file.cameras.iter().map(|c| [c.position[0], c.position[1], c.ground_m + c.height_m]).collect();
        cameras.sort_by(|a, b| a.partial_cmp(b).unwrap());
        let read: Vec<[f64; 3]> = serde_json::from_value(found["cameras"].clone()).unwrap();
        assert!(read.iter().flatten().zip(cameras.iter().flatten()).all(|(a, b)| (a - b).abs() < 1e-3), "{name}");
        assert_eq!(read.len(), cameras.len());
        let names: Vec<String> = serde_json::from_value(found["names"].clone()).unwrap();
        for result in evaluate(&site).targets {
            let target = file.targets.iter().find(|target| target.id == result.target).unwrap();
            assert!(names.contains(&format!("{}: {}", target.name, result.verdict.word())), "{names:?}");
        }
        let mut solids: Vec<(f64, usize)> =
            file.obstacles.iter().map(|o| (((o.top_m - o.base_m) * 1e3).round() / 1e3, o.outline.len())).collect();
        solids.sort_by(|a, b| a.partial_cmp(b).unwrap());
        assert_eq!(json!(solids), found["solids"], "{name}");
    }
}

#[test]
fn the_sheet_is_rendered_by_another_program_with_its_legend() {
    for (name, found) in read_back().as_object().unwrap() {
        let found = &found["svg"];
        assert_eq!(found["size"], json!([297 * 8, 210 * 8]), "{name}: A4");
        let tints: Vec<String> = serde_json::from_value(found["tints"].clone()).unwrap();
        let plan = written(site(name), "svg", &Patience::ENDLESS).unwrap();
        assert!(tints.iter().all(|tint| plan.contains(tint)) && tints.len() == TASKS.len(), "{tints:?}");
        assert!(found["inked"].as_u64().unwrap() > 30_000, "something is drawn");
    }
}

#[test]
fn a_place_lies_in_an_outline_of_coverage_where_the_map_says_so() {
    let site = site("tern-quay");
    let grid = coverage_grid(site.file());
    let relief = whole_relief(&site, grid, HEIGHT_M, &Patience::ENDLESS).unwrap();
    let told = coverage(&site, &Patience::ENDLESS).unwrap();
    assert_eq!(told.len(), TASKS.len());
    let (mut within, mut near) = (0, 0);
    for one in told {
        let ring = |points: &Vec<[f64; 2]>| points.iter().map(|at| (at[0], at[1])).collect::<LineString<f64>>();
        let areas: Vec<Polygon<f64>> = one
            .areas
            .iter()
            .map(|rings| Polygon::new(ring(&rings[0]), rings[1..].iter().map(ring).collect()))
            .collect();
        let covered = |column: usize, row: usize| f64::from(relief.best()[row * grid.columns + column]) >= one.px_per_m;
        for (column, row) in (1..grid.columns - 1).flat_map(|c| (1..grid.rows - 1).step_by(3).map(move |r| (c, r))) {
            let is = covered(column, row);
            // An outline runs between the cells that it parts: those whose neighbours are all alike lie on one side of it.
            let alike = (0..9).all(|i| covered(column + i % 3 - 1, row + i / 3 - 1) == is);
            let at = grid.centre(column, row);
            let lies_in = areas.iter().any(|area| area.contains(&Point::new(at.x, at.y)));
            within += usize::from(lies_in);
            assert!(!alike || lies_in == is, "{} px/m at {at}", one.px_per_m);
            near += usize::from(!alike);
        }
    }
    assert!(within > 5_000 && near * 3 < within, "{within}, {near}");
}

#[test]
fn only_solids_come_back_from_a_plan_and_somebody_elses_layers_of_those_names_are_taken() {
    for name in ["tern-quay", "saltpan-lane", "umber-yard"] {
        let file = site(name).file().clone();
        let plan = |format: &str| written(site(name), format, &Patience::ENDLESS).unwrap();
        let back = dxf::read(plan("dxf").as_bytes(), None).unwrap();
        let taken = back.layers.iter().map(|layer| layer.obstacles.len()).sum::<usize>();
        assert_eq!((taken, back.points.len()), (file.obstacles.len(), 0), "{name}");
        let back = geojson::read(&plan("geojson")).unwrap();
        let taken = back.layers.iter().map(|layer| layer.obstacles.len()).sum::<usize>();
        assert_eq!((taken, back.points.len()), (file.obstacles.len(), 0), "{name}");
    }
    let theirs = written(site("tern-quay"), "dxf", &Patience::ENDLESS).unwrap().replace("Bright Angle plan", "Marina");
    let taken = dxf::read(theirs.as_bytes(), None).unwrap();
    assert!(!taken.points.is_empty() && taken.layers.iter().any(|layer| layer.name == "promises"));
}

#[test]
fn what_a_name_holds_stays_text() {
    let mut file = site("tern-quay").file().clone();
    file.name = "Quay & <script>alert(1)</script>".to_owned();
    file.cameras[0].name = "C\"1\" <b>".to_owned();
    let svg = written(Site::from_file(file).unwrap(), "svg", &Patience::ENDLESS).unwrap();
    let document = roxmltree::Document::parse(&svg).unwrap();
    assert!(document.descendants().all(|node| !node.has_tag_name("script") && !node.has_tag_name("b")));
    assert!(document.descendants().any(|node| node.text() == Some("Quay & <script>alert(1)</script>")));
}
