//! A plan as DXF, in metres: a layer a kind of solid, and one each for what is no solid.

use super::PROJECT;
use bright_angle_core::Fault;
use bright_angle_core::exchange::plan::{CableLine, Plan, cable_lines, coverage_layer, layer_of};
use bright_angle_core::file::{Obstacle, Point2, ShapeKind};
use dxf::entities::{Entity, EntityType, Line, LwPolyline, ModelPoint, Text};
use dxf::enums::{AcadVersion, Units};
use dxf::{Drawing, LwPolylineVertex, Point};

/// Letters are so tall, m, and stand so far beside what they name.
const LETTERS_M: f64 = 0.5;
const BESIDE_M: f64 = 0.4;

/// A plan as DXF: solids as thick as they are high; cameras, spots and promises with their names at their heights.
///
/// # Errors
/// What the library cannot write.
pub fn write(plan: &Plan) -> Result<String, Fault> {
    let mut drawing = Drawing::new();
    drawing.header.version = AcadVersion::R2004;
    drawing.header.default_drawing_units = Units::Meters;
    drawing.header.project_name = PROJECT.to_owned();
    let mut out = Written { drawing };
    let site = plan.file;
    site.obstacles.iter().for_each(|obstacle| out.solid(obstacle));
    for place in &site.private {
        let (base, top) = (place.ground_m + place.base_m, place.ground_m + place.top_m);
        out.outline(layer_of(place), &place.outline, place.closed, base, top - base);
    }
    for target in &site.targets {
        let z = target.ground_m + target.height_m;
        let verdict = plan.verdict(target).map_or_else(String::new, |verdict| format!(": {}", verdict.word()));
        match (target.shape.kind, target.shape.points.as_slice()) {
            (ShapeKind::Point, [at, ..]) => out.point("promises", *at, z),
            (kind, points) => out.outline("promises", points, kind == ShapeKind::Area, z, 0.0),
        }
        if let Some(at) = target.shape.points.first() {
            out.text("promises", *at, z, &format!("{}{verdict}", target.name));
        }
    }
    for spot in &site.spots {
        out.named("spots", spot.position, spot.ground_m + spot.height_m, &spot.name);
    }
    for camera in &site.cameras {
        out.named("cameras", camera.position, camera.ground_m + camera.height_m, &camera.name);
    }
    for (place, _, [from, to]) in plan.aims() {
        let z = site.cameras[place].ground_m + site.cameras[place].height_m;
        let [p1, p2] = [from, to].map(|[x, y]| Point { x, y, z });
        out.add("aims", 0.0, EntityType::Line(Line { p1, p2, ..Line::default() }));
    }
    for CableLine { line, .. } in cable_lines(site) {
        out.outline("cables", &line, false, 0.0, 0.0);
    }
    for node in site.network.iter().flat_map(|network| &network.nodes) {
        out.named("boxes", node.position, node.height_m, &node.name);
    }
    for path in site.network.iter().flat_map(|network| &network.ways) {
        out.outline("cable ways", &path.points, false, path.height_m.unwrap_or(0.0), 0.0);
    }
    for coverage in &plan.coverage {
        let layer = coverage_layer(coverage);
        coverage.areas.iter().flatten().for_each(|ring| out.outline(&layer, ring, true, 0.0, 0.0));
    }
    let mut bytes = Vec::new();
    out.drawing.save(&mut bytes).map_err(|error| Fault::new("", error.to_string()))?;
    String::from_utf8(bytes).map_err(|error| Fault::new("", error.to_string()))
}

struct Written {
    drawing: Drawing,
}

impl Written {
    fn add(&mut self, layer: &str, elevation: f64, thing: EntityType) {
        let mut entity = Entity::new(thing);
        entity.common.layer = layer.to_owned();
        entity.common.elevation = elevation;
        self.drawing.add_entity(entity);
    }

    fn solid(&mut self, obstacle: &Obstacle) {
        let kind = serde_json::to_value(obstacle.kind).ok();
        let layer = kind.as_ref().and_then(|kind| kind.as_str()).unwrap_or("other");
        let base = obstacle.ground_m + obstacle.base_m;
        self.outline(layer, &obstacle.outline, obstacle.closed, base, obstacle.top_m - obstacle.base_m);
    }

    fn outline(&mut self, layer: &str, points: &[Point2], closed: bool, base: f64, thickness: f64) {
        let corner = |p: &Point2| LwPolylineVertex { x: p[0], y: p[1], ..LwPolylineVertex::default() };
        let vertices = points.iter().map(corner).collect();
        let mut line = LwPolyline { vertices, thickness, ..LwPolyline::default() };
        line.set_is_closed(closed);
        self.add(layer, base, EntityType::LwPolyline(line));
    }

    fn point(&mut self, layer: &str, [x, y]: Point2, z: f64) {
        self.add(
            layer,
            0.0,
            EntityType::ModelPoint(ModelPoint { location: Point { x, y, z }, ..ModelPoint::default() }),
        );
    }

    fn text(&mut self, layer: &str, [x, y]: Point2, z: f64, says: &str) {
        let location = Point { x: x + BESIDE_M, y: y + BESIDE_M, z };
        // A line of text is one line of the file.
        let value = says.split_whitespace().collect::<Vec<_>>().join(" ");
        self.add(layer, 0.0, EntityType::Text(Text { location, text_height: LETTERS_M, value, ..Text::default() }));
    }

    fn named(&mut self, layer: &str, at: Point2, z: f64, says: &str) {
        self.point(layer, at, z);
        self.text(layer, at, z, says);
    }
}
