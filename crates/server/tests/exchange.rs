//! Drawings that other libraries wrote (outside/exchange/generate.py: ezdxf, the geojson package, PROJ) are taken as they are meant, broken
//! ones are answered clearly, and what goes out comes back in as it was.

use crate::support;

use bright_angle::dxf::{self, Unit};
use bright_angle_core::Site;
use bright_angle_core::exchange::plan::Plan;
use bright_angle_core::exchange::{Import, geojson, geojson_write, svg};
use bright_angle_core::file::{ObstacleKind, SiteFile};
use serde_json::{Value, json};
use std::path::PathBuf;

fn bytes(name: &str) -> Vec<u8> {
    std::fs::read(PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../../outside/exchange").join(name)).unwrap()
}

fn file(name: &str) -> String {
    String::from_utf8(bytes(name)).unwrap()
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
    let yard = dxf::read(file("yard.dxf").as_bytes(), None).unwrap();
    same(&yard, &expected("yard"), 1e-3);
    assert_eq!(yard.coordinates, "millimetres, by its header");
    let kinds: Vec<_> = yard.layers.iter().map(|layer| (layer.name.as_str(), layer.kind)).collect();
    let (building, wall) = (ObstacleKind::Building, ObstacleKind::Wall);
    assert_eq!(kinds, [("BUILDINGS", building), ("FENCE", ObstacleKind::Fence), ("Walls", wall)]);
    let tall = yard.layers[0].obstacles.iter().find(|o| o.outline.len() == 4 && o.outline[0] == [0.0, 0.0]).unwrap();
    assert_eq!((tall.base_m, tall.top_m), (0.0, 3.2), "as high as it is thick");
    assert_eq!(yard.left_out.len(), 1, "the text: {:?}", yard.left_out);
    same(&dxf::read(file("feet.dxf").as_bytes(), None).unwrap(), &expected("feet"), 1e-3);
    let chosen = dxf::read(file("feet.dxf").as_bytes(), Some(Unit::Metre)).unwrap();
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
    assert!(yard.left_out.is_empty(), "{:?}", yard.left_out);
    let [tap] = yard.points.as_slice() else { panic!("one point: {:?}", yard.points) };
    assert_eq!((tap.name.as_deref(), tap.height_m), (Some("Tap"), 0.0));
    assert!(yard.middle.iter().all(|axis| axis.abs() < 1.0), "about its middle: {:?}", yard.middle);
}

/// How far a point is from a run of straight sides.
fn from_sides(p: [f64; 2], corners: &[[f64; 2]]) -> f64 {
    let sides = corners.windows(2).map(|pair| {
        let ([ax, ay], [bx, by]) = (pair[0], pair[1]);
        let (dx, dy) = (bx - ax, by - ay);
        let square = dx * dx + dy * dy;
        let share = if square > 0.0 { (((p[0] - ax) * dx + (p[1] - ay) * dy) / square).clamp(0.0, 1.0) } else { 0.0 };
        (p[0] - ax - dx * share).hypot(p[1] - ay - dy * share)
    });
    sides.fold(f64::MAX, f64::min)
}

#[test]
fn round_things_are_outlines_within_five_centimetres_of_what_they_are() {
    let told: Value = serde_json::from_str(&file("round.json")).unwrap();
    let import = dxf::read(&bytes("round.dxf"), None).unwrap();
    let of = |name: &str| {
        let layer = import.layers.iter().find(|layer| layer.name == name);
        layer.unwrap_or_else(|| panic!("{name} is taken: {:?}", import.left_out)).obstacles[0].clone()
    };
    let curves = told["curves"].as_object().unwrap();
    assert!(curves.len() >= 14);
    for (name, points) in curves {
        let points: Vec<[f64; 3]> = serde_json::from_value(points.clone()).unwrap();
        let curve: Vec<[f64; 2]> = points.iter().map(|p| [p[0], p[1]]).collect();
        let taken = of(name);
        let mut corners = taken.outline.clone();
        corners.extend(corners.first().copied().filter(|_| taken.closed));
        // ezdxf draws circles as four cubic curves, 0.03 % off.
        // Both ways: nothing of the curve is far from the outline, and no corner of the outline far from the curve.
        let far = |from: &[[f64; 2]], to: &[[f64; 2]]| from.iter().map(|p| from_sides(*p, to)).fold(0.0, f64::max);
        assert!(far(&curve, &corners) < 0.05, "{name}: {} m off", far(&curve, &corners));
        assert!(far(&corners, &curve) < 0.01, "{name}: a corner {} m off", far(&corners, &curve));
        assert!((taken.base_m - points[0][2]).abs() < 1e-6, "{name} lies at {}", taken.base_m);
        assert!(corners.len() < 200, "{name} has {} corners", corners.len());
    }
    let upright = of("upright face");
    assert_eq!((upright.closed, upright.base_m, upright.top_m), (false, 0.0, 2.5));
    assert_eq!(upright.outline, [[70.0, 0.0], [74.0, 3.0]]);
    // An outline whose own axes stand on end, as the other library turns it: a wall.
    let corners: Vec<[f64; 3]> = serde_json::from_value(told["on_end"].clone()).unwrap();
    let on_end = of("outline on end");
    let span =
        |axis: usize| corners.iter().map(|c| c[axis]).fold([f64::MAX, f64::MIN], |[a, b], x| [a.min(x), b.max(x)]);
    assert_eq!([on_end.base_m, on_end.top_m], span(2));
    let mut along = on_end.outline.iter().map(|p| p[1]).collect::<Vec<_>>();
    along.sort_by(f64::total_cmp);
    assert_eq!((along, on_end.outline[0][0]), (span(1).to_vec(), span(0)[0]));
}

#[test]
fn other_alphabets_points_and_names_come_from_a_code_page_and_from_a_binary_file_alike() {
    let imports = ["letters-utf8.dxf", "letters-cp1251.dxf", "letters-binary.dxf"]
        .map(|name| dxf::read(&bytes(name), None).unwrap_or_else(|fault| panic!("{name}: {fault:?}")));
    assert!(std::str::from_utf8(&bytes("letters-cp1251.dxf")).is_err(), "it is no UTF-8");
    for import in &imports {
        let [building] = import.layers.as_slice() else { panic!("one layer: {:?}", import.layers) };
        let named: Vec<_> = building.obstacles.iter().map(|o| (o.name.as_str(), o.top_m)).collect();
        assert_eq!((building.name.as_str(), named), ("Здание", vec![("Склад", 3.0), ("Касса № 1", 3.0)]));
        let points: Vec<_> =
            import.points.iter().map(|p| (p.layer.as_str(), p.name.as_deref(), p.at, p.height_m)).collect();
        let point = |name, at, height| ("Точки", Some(name), at, height);
        assert_eq!(
            points,
            [point("P1", [20.0, 1.0], 1.25), point("P2", [21.5, 4.0], 2.9), point("P3", [30.0, -3.0], -0.4)]
        );
        let left: Vec<_> = import.left_out.iter().map(|left| left.why.as_str()).collect();
        assert_eq!(left.len(), 2, "{left:?}");
        assert!(left[0].contains("sheet of paper") && left[1].contains("Вид"), "{left:?}");
    }
}

#[test]
fn what_holds_nothing_to_take_says_what_it_holds_and_a_torn_binary_file_that_it_is_torn() {
    let fault = |bytes: &[u8]| dxf::read(bytes, None).unwrap_err().message;
    let words = fault(&bytes("words.dxf"));
    assert!(words.contains("hatch × 3, text × 1"), "{words}");
    let binary = bytes("letters-binary.dxf");
    for share in [0.01, 0.3, 0.6, 0.99] {
        let torn = &binary[..(binary.len() as f64 * share) as usize];
        assert!(
            dxf::read(torn, None).map_or_else(|f| !f.message.is_empty(), |import| import.layers.len() <= 1),
            "{share}"
        );
    }
    assert!(fault(&binary[..60]).contains("ends in the middle"), "{}", fault(&binary[..60]));
}

#[test]
fn more_points_than_can_be_chosen_among_do_not_keep_the_walls_out_and_a_field_of_nothing_ends() {
    let pairs = |things: &str| format!("0\nSECTION\n2\nENTITIES\n{things}0\nENDSEC\n0\nEOF\n");
    let line = "0\nLINE\n8\nWALLS\n10\n0\n20\n0\n11\n5\n21\n0\n";
    let points: String = (0..1_500).map(|i| format!("0\nPOINT\n8\nP\n10\n{i}\n20\n1\n30\n2\n")).collect();
    let import = dxf::read(pairs(&(points + line)).as_bytes(), None).unwrap();
    assert_eq!((import.points.len(), import.layers[0].obstacles.len()), (1_000, 1));
    assert!(import.left_out.iter().any(|left| left.why.contains("and 500 points more")), "{:?}", import.left_out);
    // An empty block, thirty thousand times thirty thousand.
    let block = "0\nSECTION\n2\nBLOCKS\n0\nBLOCK\n2\nNONE\n10\n0\n20\n0\n0\nENDBLK\n0\nENDSEC\n";
    let field = format!("{block}{}", pairs("0\nINSERT\n2\nNONE\n70\n30000\n71\n30000\n44\n1\n45\n1\n"));
    assert!(dxf::read(field.as_bytes(), None).unwrap_err().message.contains("more than 100000 things"));
    // Three by two of a block with a line in it.
    let block = block.replace("0\nENDBLK", &format!("{line}0\nENDBLK"));
    let rows =
        format!("{block}{}", pairs("0\nINSERT\n2\nNONE\n10\n100\n20\n0\n50\n90\n70\n3\n71\n2\n44\n10\n45\n20\n"));
    let import = dxf::read(rows.as_bytes(), None).unwrap();
    // By hand: turned by 90°, columns run north by 10 m, rows west by 20 m; each line 5 m to the north.
    let mut begins: Vec<[f64; 2]> = import.layers[0].obstacles.iter().map(|o| o.outline[0]).collect();
    begins.sort_by(|a, b| a.partial_cmp(b).unwrap());
    assert_eq!(begins, [[80.0, 0.0], [80.0, 10.0], [80.0, 20.0], [100.0, 0.0], [100.0, 10.0], [100.0, 20.0]]);
}

#[test]
fn each_broken_dxf_is_answered_for_what_it_is() {
    let fault = |name: &str| dxf::read(file(name).as_bytes(), None).unwrap_err().message;
    assert!(fault("crossing.dxf").contains("crosses or touches itself"), "{}", fault("crossing.dxf"));
    assert!(fault("empty.dxf").contains("no lines and no outlines"), "{}", fault("empty.dxf"));
    assert!(fault("far.dxf").contains("is the unit another one"), "{}", fault("far.dxf"));
    assert!(fault("laughs.dxf").contains("more than 100000 things"), "{}", fault("laughs.dxf"));
    let itself = dxf::read(file("itself.dxf").as_bytes(), None).unwrap();
    assert!(itself.left_out.iter().any(|left| left.why == "\"ROUND\" stands in itself"), "{:?}", itself.left_out);
    assert_eq!(itself.layers.iter().map(|layer| layer.obstacles.len()).sum::<usize>(), 2, "the rest of it is taken");
    let rising = dxf::read(file("rising.dxf").as_bytes(), None).unwrap();
    assert!(rising.left_out[0].why.contains("taken as flat"));
    for torn in ["", "nonsense", &file("yard.dxf")[..6000], "0\nSECTION\n2\nENTITIES\n0\nLINE\n10\nfar\n"] {
        assert!(dxf::read(torn.as_bytes(), None).is_err(), "{:?}", &torn[..torn.len().min(40)]);
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
    assert_eq!(of(&dxf::read(dxf::write(&Plan::bare(&site)).unwrap().as_bytes(), None).unwrap()), wanted);
    let back = geojson::read(&geojson_write::write(&Plan::bare(&site), true)).unwrap();
    assert_eq!(back.coordinates, "metres of the plan, as the file says");
    assert_eq!(of(&back), wanted);
    let plan = svg::write(&Plan::bare(&site));
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
