//! Drawings that other libraries wrote (outside/exchange/generate.py: ezdxf, the geojson package, PROJ) are taken as they are meant, broken
//! ones are answered clearly, and what goes out comes back in as it was.

mod support;

use bright_angle::dxf::{self, Unit};
use bright_angle_core::Site;
use bright_angle_core::exchange::geojson_write::Written;
use bright_angle_core::exchange::{Import, geojson, geojson_write, svg};
use bright_angle_core::file::{ObstacleKind, SiteFile};
use serde_json::{Value, json};
use std::path::PathBuf;

fn file(name: &str) -> String {
    let path = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../../outside/exchange").join(name);
    std::fs::read_to_string(path).unwrap()
}

fn expected(name: &str) -> Vec<(String, Vec<[f64; 2]>, bool)> {
    let all: Value = serde_json::from_str(&file("expected.json")).unwrap();
    serde_json::from_value(all[name].clone()).unwrap()
}

/// Holds what was taken against what the other library says is in it, in any order.
#[track_caller]
fn same(import: &Import, expected: &[(String, Vec<[f64; 2]>, bool)], within: f64) {
    let taken: Vec<_> = import.layers.iter().flat_map(|layer| &layer.obstacles).collect();
    assert_eq!(taken.len(), expected.len(), "{:?}", import.left_out);
    for (layer, points, closed) in expected {
        let alike = |outline: &Vec<[f64; 2]>| {
            outline.len() == points.len()
                && outline.iter().zip(points).all(|(a, b)| (a[0] - b[0]).hypot(a[1] - b[1]) < within)
        };
        let found = taken.iter().find(|obstacle| alike(&obstacle.outline) && obstacle.closed == *closed);
        assert!(
            found.is_some(),
            "{layer} {points:?} is not among {:?}",
            taken.iter().map(|o| &o.outline).collect::<Vec<_>>()
        );
    }
}

#[test]
fn a_dxf_is_taken_with_its_units_its_layers_and_its_blocks_opened() {
    let yard = dxf::read(&file("yard.dxf"), None).unwrap();
    same(&yard, &expected("yard"), 1e-3);
    assert_eq!(yard.coordinates, "millimetres, by its header");
    let kinds: Vec<_> = yard.layers.iter().map(|layer| (layer.name.as_str(), layer.kind)).collect();
    let (building, wall) = (ObstacleKind::Building, ObstacleKind::Wall);
    assert_eq!(kinds, [("BUILDINGS", building), ("FENCE", ObstacleKind::Fence), ("Walls", wall)]);
    let tall = yard.layers[0].obstacles.iter().find(|o| o.outline.len() == 4 && o.outline[0] == [0.0, 0.0]).unwrap();
    assert_eq!((tall.base_m, tall.top_m), (0.0, 3.2), "as high as it is thick");
    assert_eq!(yard.left_out.len(), 1, "the text: {:?}", yard.left_out);
    same(&dxf::read(&file("feet.dxf"), None).unwrap(), &expected("feet"), 1e-3);
    let chosen = dxf::read(&file("feet.dxf"), Some(Unit::Metre)).unwrap();
    assert_eq!((chosen.coordinates.as_str(), chosen.size_m), ("metres, as was chosen", [10.0, 10.0]));
}

#[test]
fn a_geojson_is_projected_about_its_middle_and_keeps_its_heights() {
    let yard = geojson::read(&file("yard.geojson")).unwrap();
    // A hundred metres across: half a centimetre between two ways to lay the Earth flat.
    same(&yard, &expected("geojson"), 0.005);
    let heights: Vec<_> =
        yard.layers.iter().flat_map(|layer| &layer.obstacles).map(|o| (o.name.as_str(), o.base_m, o.top_m)).collect();
    assert_eq!(heights, [("Shed", 0.0, 4.5), ("Fence", 0.0, 2.1), ("Two", 1.0, 3.0), ("Two", 1.0, 3.0)]);
    assert_eq!(yard.left_out.iter().map(|left| left.why.as_str()).collect::<Vec<_>>(), ["is a point"]);
    assert!(yard.middle.iter().all(|axis| axis.abs() < 1.0), "about its middle: {:?}", yard.middle);
}

#[test]
fn each_broken_dxf_is_answered_for_what_it_is() {
    let fault = |name: &str| dxf::read(&file(name), None).unwrap_err().message;
    assert!(fault("crossing.dxf").contains("crosses or touches itself"), "{}", fault("crossing.dxf"));
    assert!(fault("empty.dxf").contains("no lines and no outlines"), "{}", fault("empty.dxf"));
    assert!(fault("far.dxf").contains("is the unit another one"), "{}", fault("far.dxf"));
    assert!(fault("laughs.dxf").contains("more than 100000 things"), "{}", fault("laughs.dxf"));
    let itself = dxf::read(&file("itself.dxf"), None).unwrap();
    assert!(itself.left_out.iter().any(|left| left.why == "\"ROUND\" stands in itself"), "{:?}", itself.left_out);
    assert_eq!(itself.layers.iter().map(|layer| layer.obstacles.len()).sum::<usize>(), 2, "the rest of it is taken");
    let rising = dxf::read(&file("rising.dxf"), None).unwrap();
    assert!(rising.left_out[0].why.contains("taken as flat"));
    for torn in ["", "nonsense", &file("yard.dxf")[..6000], "0\nSECTION\n2\nENTITIES\n0\nLINE\n10\nfar\n"] {
        assert!(dxf::read(torn, None).is_err(), "{:?}", &torn[..torn.len().min(40)]);
    }
}

#[test]
fn each_broken_geojson_is_answered_for_what_it_is() {
    let polygon = |ring: Value| {
        json!({"type": "Feature", "properties": {}, "geometry": {"type": "Polygon", "coordinates": [ring]}}).to_string()
    };
    let fault = |text: &str| geojson::read(text).unwrap_err().message;
    assert!(fault("{").contains("is no GeoJSON"));
    assert!(fault(r#"{"type": "FeatureCollection", "features": []}"#).contains("no lines and no outlines"));
    assert!(fault(&polygon(json!([[0, 0], [1e-4, 1e-4], [1e-4, 0], [0, 1e-4], [0, 0]]))).contains("crosses"));
    assert!(fault(&polygon(json!([[430000, 5400000], [430010, 5400000], [430010, 5400010]]))).contains("no degrees"));
    assert!(fault(&polygon(json!([]))).contains("single point"), "{}", fault(&polygon(json!([]))));
    let rising = geojson::read(&polygon(json!([[0, 0, 5], [1e-4, 0, 6], [1e-4, 1e-4, 7], [0, 0, 5]]))).unwrap();
    assert_eq!(rising.layers[0].obstacles[0].outline.len(), 3, "three dimensions, read as two");
    let long: Vec<[f64; 2]> = (0..450_000).map(|i| [f64::from(i) * 1e-6, 0.0]).collect();
    let endless = json!({"type": "LineString", "coordinates": long}).to_string();
    assert!(fault(&endless).contains("more than 400000 positions"));
    let deep = "[".repeat(200_000);
    assert!(geojson::read(&format!(r#"{{"type": "Polygon", "coordinates": {deep}"#)).is_err());
}

fn demo() -> SiteFile {
    Site::parse(include_str!("../../../demo/umber-yard.json")).unwrap().file().clone()
}

#[test]
fn what_goes_out_comes_back_as_it_was() {
    let site = demo();
    let of = |import: &Import| {
        let mut found: Vec<_> = import
            .layers
            .iter()
            .flat_map(|layer| &layer.obstacles)
            .map(|o| {
                (o.outline.clone(), o.closed, format!("{:.3} to {:.3}", o.ground_m + o.base_m, o.ground_m + o.top_m))
            })
            .collect();
        found.sort_by(|a, b| a.partial_cmp(b).unwrap());
        found
    };
    let mut wanted: Vec<_> = site
        .obstacles
        .iter()
        .map(|o| (o.outline.clone(), o.closed, format!("{:.3} to {:.3}", o.ground_m + o.base_m, o.ground_m + o.top_m)))
        .collect();
    wanted.sort_by(|a, b| a.partial_cmp(b).unwrap());
    assert_eq!(of(&dxf::read(&dxf::write(&site).unwrap(), None).unwrap()), wanted);
    let back = geojson::read(&geojson_write::write(&site, Written { metres: true, ..Written::default() })).unwrap();
    assert_eq!(back.coordinates, "metres of the plan, as the file says");
    assert_eq!(of(&back), wanted);
    let plan = svg::write(&site);
    let document = roxmltree::Document::parse(&plan).unwrap();
    let titles: Vec<_> =
        document.descendants().filter_map(|node| node.has_tag_name("title").then(|| node.text()).flatten()).collect();
    assert!(titles.contains(&"Customer's van") && titles.contains(&"Bin store"), "{titles:?}");
}

#[rocket::async_test]
async fn over_the_wire_a_file_is_looked_at_and_nothing_is_kept() {
    let served = support::Served::new().await;
    let before = served.get("/api/sites").await.1["total"].clone();
    let (status, import) = served.post("/api/import/dxf", &file("yard.dxf")).await;
    assert_eq!((status, import["layers"][0]["name"].as_str()), (200, Some("BUILDINGS")));
    let (status, faults) = served.post("/api/import/dxf?unit=furlong", &file("yard.dxf")).await;
    assert_eq!((status, faults[0]["path"].as_str()), (422, Some("unit")));
    let (status, faults) = served.post("/api/import/geojson", "{").await;
    assert_eq!((status, faults[0]["path"].as_str()), (422, Some("file")));
    let (status, _) = served.post("/api/import/dxf", &"0\nLINE\n".repeat(1_500_000)).await;
    assert_eq!(status, 413);
    assert_eq!(served.get("/api/sites").await.1["total"], before);
}
