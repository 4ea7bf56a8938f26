//! A site as GeoJSON (RFC 7946): degrees of WGS 84 where the site has a place on the earth, metres of the plan, which the file says, where
//! it has none or they are asked for. Solids, cameras with their aims, promises with their verdicts, spots and private places, each a layer.

use super::geojson::{IS, METRES, ORIGIN, unprojected};
use super::plan::{CableLine, Coverage, Plan, cable_lines, coverage_layer, layer_of};
use super::take::area;
use crate::file::{CameraFile, Obstacle, Point2, ShapeKind};
use geojson::{Feature, FeatureCollection, GeoJson, Geometry, GeometryValue as Value, JsonObject, JsonValue, Position};
use serde_json::json;

/// Degrees are written to a tenth of a millimetre, metres as they are.
const DEGREE_STEPS: f64 = 1e9;
/// Where the plan's points go.
struct Onto(Option<Point2>);

impl Onto {
    fn position(&self, at: Point2) -> Position {
        let Some(origin) = self.0 else { return Position::from(at) };
        Position::from(unprojected(at, origin).map(|degrees| (degrees * DEGREE_STEPS).round() / DEGREE_STEPS))
    }

    fn line(&self, points: &[Point2]) -> Vec<Position> {
        points.iter().map(|point| self.position(*point)).collect()
    }

    /// A ring ends where it begins, and its outer one runs counter-clockwise (RFC 7946, 3.1.6).
    fn ring(&self, points: &[Point2], inner: bool) -> Vec<Position> {
        let mut ring = self.line(points);
        if (area(points) < 0.0) != inner {
            ring.reverse();
        }
        ring.extend(ring.first().cloned());
        ring
    }

    fn outline(&self, points: &[Point2], closed: bool) -> Value {
        if closed {
            Value::Polygon { coordinates: vec![self.ring(points, false)] }
        } else {
            Value::LineString { coordinates: self.line(points) }
        }
    }
}

/// A plan as GeoJSON: in metres of the plan where they are asked for.
pub fn write(plan: &Plan, metres: bool) -> String {
    let site = plan.file;
    let origin = site.place.as_ref().filter(|_| !metres).map(|place| [place.longitude_deg, place.latitude_deg]);
    let onto = Onto(origin);
    let mut features: Vec<Feature> = site.obstacles.iter().map(|obstacle| solid(&onto, obstacle)).collect();
    for place in &site.private {
        let heights = json!({IS: "private place", "layer": layer_of(place), "id": place.id, "name": place.name, "whose": place.whose,
            "base_m": place.ground_m + place.base_m, "top_m": place.ground_m + place.top_m});
        features.push(feature(onto.outline(&place.outline, place.closed), heights));
    }
    for target in &site.targets {
        let says = json!({IS: "promise", "layer": "promises", "id": target.id, "name": target.name, "subject": target.subject,
            "task": target.task, "height_m": target.ground_m + target.height_m, "verdict": plan.verdict(target)});
        let shape = match (target.shape.kind, target.shape.points.as_slice()) {
            (ShapeKind::Point, [at, ..]) => Value::Point { coordinates: onto.position(*at) },
            (kind, points) => onto.outline(points, kind == ShapeKind::Area),
        };
        features.push(feature(shape, says));
    }
    for spot in &site.spots {
        let says = json!({IS: "spot", "layer": "spots", "id": spot.id, "name": spot.name, "height_m": spot.ground_m + spot.height_m});
        features.push(feature(Value::Point { coordinates: onto.position(spot.position) }, says));
    }
    features.extend(site.cameras.iter().map(|camera| camera_at(&onto, camera)));
    for (place, head, line) in plan.aims() {
        let (camera, head) = (&site.cameras[place], &site.cameras[place].heads[head]);
        let line = Value::LineString { coordinates: onto.line(&line) };
        let says = json!({IS: "aim", "layer": "aims", "camera": camera.id, "head": head.id, "pan_deg": head.pan_deg,
            "tilt_deg": head.tilt_deg, "focal_mm": head.focal_mm});
        features.push(feature(line, says));
    }
    for CableLine { cable, line, length_m } in cable_lines(site) {
        let says = json!({IS: "cable", "layer": "cables", "id": cable.id, "kind": cable.kind, "in": cable.way, "from": cable.from,
            "to": cable.to, "length_m": length_m});
        features.push(feature(Value::LineString { coordinates: onto.line(&line) }, says));
    }
    for node in site.network.iter().flat_map(|network| &network.nodes) {
        let says = json!({IS: "box", "layer": "boxes", "id": node.id, "name": node.name, "kind": node.kind, "height_m": node.height_m});
        features.push(feature(Value::Point { coordinates: onto.position(node.position) }, says));
    }
    for path in site.network.iter().flat_map(|network| &network.ways) {
        let says = json!({IS: "cable way", "layer": "cable ways", "id": path.id, "name": path.name, "in": path.way});
        features.push(feature(Value::LineString { coordinates: onto.line(&path.points) }, says));
    }
    features.extend(plan.coverage.iter().map(|coverage| covered(&onto, coverage)));
    let mut foreign = JsonObject::new();
    match origin {
        Some(origin) => foreign.insert(ORIGIN.to_owned(), json!(origin)),
        None => foreign.insert(METRES.to_owned(), json!("metres")),
    };
    GeoJson::FeatureCollection(FeatureCollection { bbox: None, features, foreign_members: Some(foreign) }).to_string()
}

/// Where cameras give at least what a task needs.
fn covered(onto: &Onto, coverage: &Coverage) -> Feature {
    let polygon = |rings: &Vec<Vec<Point2>>| {
        rings.iter().enumerate().map(|(place, ring)| onto.ring(ring, place > 0)).collect::<Vec<_>>()
    };
    let coordinates = coverage.areas.iter().map(polygon).collect();
    let says = json!({IS: "coverage", "layer": coverage_layer(coverage), "task": coverage.task, "px_per_m": coverage.px_per_m});
    feature(Value::MultiPolygon { coordinates }, says)
}

fn feature(value: Value, properties: JsonValue) -> Feature {
    let properties = if let JsonValue::Object(properties) = properties { Some(properties) } else { None };
    Feature { geometry: Some(Geometry::new(value)), properties, ..Feature::default() }
}

fn solid(onto: &Onto, obstacle: &Obstacle) -> Feature {
    let properties = json!({"id": obstacle.id, "name": obstacle.name, "layer": obstacle.kind,
        "base_m": obstacle.ground_m + obstacle.base_m, "top_m": obstacle.ground_m + obstacle.top_m,
        "see_through": obstacle.see_through});
    feature(onto.outline(&obstacle.outline, obstacle.closed), properties)
}

/// A camera where it hangs.
fn camera_at(onto: &Onto, camera: &CameraFile) -> Feature {
    let says = json!({IS: "camera", "layer": "cameras", "id": camera.id, "name": camera.name, "model": camera.model.name,
        "height_m": camera.ground_m + camera.height_m, "existing": camera.existing});
    feature(Value::Point { coordinates: onto.position(camera.position) }, says)
}
