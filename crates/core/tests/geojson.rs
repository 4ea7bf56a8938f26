//! The plan as GeoJSON: degrees where the site has a place, held against PROJ (`outside/exchange/wgs84.py`); read back as it was.

use bright_angle_core::Site;
use bright_angle_core::evaluate;
use bright_angle_core::exchange::geojson::{read, unprojected};
use bright_angle_core::exchange::geojson_write::write;
use bright_angle_core::exchange::plan::Plan;
use serde_json::Value;

#[test]
fn a_point_of_the_plan_lies_where_proj_puts_it() {
    let cases: Vec<Value> = serde_json::from_str(include_str!("../../../outside/exchange/wgs84.json")).unwrap();
    let pair = |value: &Value| [value[0].as_f64().unwrap(), value[1].as_f64().unwrap()];
    for case in &cases {
        let (at, origin) = (pair(&case["at"]), pair(&case["origin"]));
        let [lon, lat] = unprojected(at, origin);
        // A degree of latitude is 111 km; of longitude less towards the poles. Half a kilometre off, within two centimetres.
        let north_m = (lat - case["lat"].as_f64().unwrap()) * 111_320.0;
        let east_m = (lon - case["lon"].as_f64().unwrap()) * 111_320.0 * lat.to_radians().cos();
        assert!(north_m.hypot(east_m) < 0.02 + 1e-4 * at[0].hypot(at[1]), "{case}: {east_m:.4} {north_m:.4}");
    }
}

#[test]
fn a_site_with_a_place_is_written_in_degrees_with_all_its_layers_and_comes_back() {
    let site = Site::parse(include_str!("../../../demo/tern-quay.json")).unwrap();
    let judged = evaluate(&site);
    let verdicts: Vec<_> = judged.targets.iter().map(|found| (found.target.clone(), found.verdict)).collect();
    let text = write(&Plan { verdicts: verdicts.clone(), ..Plan::bare(site.file()) }, false);
    let written: Value = serde_json::from_str(&text).unwrap();
    let features = written["features"].as_array().unwrap();
    let of = |layer: &str| features.iter().filter(|one| one["properties"]["layer"] == layer).count();
    let file = site.file();
    assert_eq!(
        (of("cameras"), of("promises"), of("spots")),
        (file.cameras.len(), file.targets.len(), file.spots.len())
    );
    assert_eq!(of("aims"), file.cameras.iter().map(|camera| camera.heads.len()).sum::<usize>());
    let promise =
        |id: &str| features.iter().find(|one| one["properties"]["is"] == "promise" && one["properties"]["id"] == id);
    for (id, verdict) in &verdicts {
        assert_eq!(promise(id).unwrap()["properties"]["verdict"], serde_json::to_value(verdict).unwrap());
    }
    // Everything lies within a kilometre of the site's place (RFC 7946, section 4: longitude first).
    fn positions(value: &Value, found: &mut Vec<[f64; 2]>) {
        match value.as_array() {
            Some(pair) if pair.len() == 2 && pair[0].is_number() => {
                found.push([pair[0].as_f64().unwrap(), pair[1].as_f64().unwrap()]);
            }
            Some(list) => list.iter().for_each(|one| positions(one, found)),
            None => {}
        }
    }
    let mut all = Vec::new();
    features.iter().for_each(|one| positions(&one["geometry"]["coordinates"], &mut all));
    let place = file.place.as_ref().unwrap();
    assert!(all.len() > 40);
    assert!(
        all.iter()
            .all(|[lon, lat]| (lon - place.longitude_deg).abs() < 0.02 && (lat - place.latitude_deg).abs() < 0.01)
    );
    // The solids come back to the millimetre, and nothing else with them.
    let back = read(&text).unwrap();
    let points = back.layers.iter().flat_map(|layer| &layer.obstacles).flat_map(|obstacle| obstacle.outline.clone());
    let points: Vec<_> = points.collect();
    let near = |at: &[f64; 2]| points.iter().any(|p| (p[0] - at[0]).hypot(p[1] - at[1]) < 1e-3);
    assert!(file.obstacles.iter().flat_map(|obstacle| &obstacle.outline).all(near));
    assert_eq!(back.layers.iter().map(|layer| layer.obstacles.len()).sum::<usize>(), file.obstacles.len());
}

#[test]
fn metres_are_written_where_there_is_no_place_and_named_so() {
    let mut site: Value = serde_json::from_str(include_str!("../../../demo/tern-quay.json")).unwrap();
    let asked = write(&Plan::bare(Site::parse(&site.to_string()).unwrap().file()), true);
    site.as_object_mut().unwrap().remove("place");
    let without = write(&Plan::bare(Site::parse(&site.to_string()).unwrap().file()), false);
    assert_eq!(asked, without);
    let written: Value = serde_json::from_str(&without).unwrap();
    assert_eq!(written["coordinates_are"], "metres");
    assert_eq!(read(&without).unwrap().coordinates, "metres of the plan, as the file says");
}
