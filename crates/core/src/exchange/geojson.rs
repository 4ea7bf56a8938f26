//! Obstacles from and to GeoJSON (RFC 7946).
//!
//! Its coordinates are degrees east and north; they are projected to metres about the middle of the file with the radii of
//! curvature of the WGS 84 ellipsoid there (textbook formulas, from memory): within a few centimetres over a kilometre. A file that this
//! program wrote (`geojson_write`) says where the plan has its origin, or that its coordinates are metres of the plan, and is read as such.

use super::drawn::{Drawn, DrawnPoint, Found, LeftOut, box_of};
use super::take::{Import, take};
use crate::file::{Fault, Point2};
use geojson::{Feature, GeoJson, GeometryValue as Value, JsonObject, JsonValue, Position};
use serde_json::json;

/// The foreign member by which a file says that its coordinates are metres of a plan.
pub(super) const METRES: &str = "coordinates_are";
/// The foreign member by which a file of this program says where its plan has its origin: degrees east and north.
pub(super) const ORIGIN: &str = "plan_origin";
/// The property by which it says what a feature is that is no solid.
pub(super) const IS: &str = "is";
/// So many positions a file may hold.
const MOST_POSITIONS: usize = 400_000;
/// Semi-major axis of WGS 84, m, and its first eccentricity squared.
const EARTH_M: f64 = 6_378_137.0;
const EARTH_E2: f64 = 0.006_694_379_990_14;

/// What a GeoJSON file brings.
///
/// # Errors
/// What cannot be read, holds too much, or nothing that can be taken.
pub fn read(text: &str) -> Result<Import, Fault> {
    let bad = |error: geojson::Error| Fault::new("file", format!("is no GeoJSON: {error}"));
    let parsed: GeoJson = text.parse().map_err(bad)?;
    let (features, foreign) = match parsed {
        GeoJson::FeatureCollection(collection) => (collection.features, collection.foreign_members),
        GeoJson::Feature(feature) => {
            let foreign = feature.foreign_members.clone();
            (vec![feature], foreign)
        }
        GeoJson::Geometry(geometry) => (vec![Feature { geometry: Some(geometry), ..Feature::default() }], None),
    };
    let metres = foreign.as_ref().is_some_and(|members| members.get(METRES) == Some(&json!("metres")));
    let origin: Option<Point2> =
        foreign.as_ref().and_then(|members| serde_json::from_value(members.get(ORIGIN)?.clone()).ok());
    let ours = metres || origin.is_some();
    let mut gathered = Gathered::default();
    for (place, feature) in features.iter().enumerate() {
        // Cameras and promises of a plan of ours are no solids.
        if !(ours && feature.properties.as_ref().is_some_and(|properties| properties.contains_key(IS))) {
            gathered.feature(place, feature)?;
        }
    }
    let Gathered { mut drawn, mut points, left_out, .. } = gathered;
    let found = |drawn, points, left_out| Found { drawn, points, left_out, ..Found::default() };
    if metres {
        return take("metres of the plan, as the file says".to_owned(), found(drawn, points, left_out));
    }
    let middle = origin.unwrap_or_else(|| middle_of(&drawn, &points));
    let places = drawn.iter().flat_map(|one| &one.points).chain(points.iter().map(|point| &point.at));
    if let Some(off) = places.into_iter().find(|p| !(p[0].abs() <= 180.0 && p[1].abs() <= 90.0)) {
        return Err(Fault::new(
            "file",
            format!("{}, {} are no degrees east and north, as GeoJSON has them (RFC 7946)", off[0], off[1]),
        ));
    }
    for one in &mut drawn {
        one.points.iter_mut().for_each(|point| *point = projected(*point, middle));
    }
    points.iter_mut().for_each(|point| point.at = projected(point.at, middle));
    let says = format!("degrees about {:.5}° north, {:.5}° east, projected to metres", middle[1], middle[0]);
    take(says, found(drawn, points, left_out))
}

#[derive(Default)]
struct Gathered {
    drawn: Vec<Drawn>,
    points: Vec<DrawnPoint>,
    left_out: Vec<LeftOut>,
    positions: usize,
}

impl Gathered {
    fn feature(&mut self, place: usize, feature: &Feature) -> Result<(), Fault> {
        let properties = feature.properties.as_ref();
        let text = |names: &[&str]| {
            names.iter().find_map(|name| properties?.get(*name)?.as_str().map(str::to_owned)).unwrap_or_default()
        };
        let begun = Drawn {
            source: format!("feature {}", place + 1),
            layer: text(&["layer", "kind", "building", "barrier"]),
            name: Some(text(&["name"])).filter(|name| !name.is_empty()),
            base_m: figure(properties, &["base_m", "min_height"]),
            top_m: figure(properties, &["top_m", "height_m", "height"]),
            ..Drawn::default()
        };
        match &feature.geometry {
            Some(geometry) => self.geometry(&geometry.value, &begun, 0),
            None => {
                self.leave(&begun, "has no geometry");
                Ok(())
            }
        }
    }

    fn leave(&mut self, begun: &Drawn, why: &str) {
        self.left_out.push(LeftOut { source: begun.source.clone(), layer: begun.layer.clone(), why: why.to_owned() });
    }

    fn geometry(&mut self, value: &Value, begun: &Drawn, depth: usize) -> Result<(), Fault> {
        match value {
            Value::LineString { coordinates } => self.outline(coordinates, begun, false)?,
            Value::MultiLineString { coordinates } => {
                for line in coordinates {
                    self.outline(line, begun, false)?;
                }
            }
            Value::Polygon { coordinates } => self.polygon(coordinates, begun)?,
            Value::MultiPolygon { coordinates } => {
                for polygon in coordinates {
                    self.polygon(polygon, begun)?;
                }
            }
            Value::GeometryCollection { geometries } if depth < 8 => {
                for geometry in geometries {
                    self.geometry(&geometry.value, begun, depth + 1)?;
                }
            }
            Value::GeometryCollection { .. } => self.leave(begun, "is nested too deep"),
            Value::Point { coordinates } => self.point(coordinates, begun),
            Value::MultiPoint { coordinates } => coordinates.iter().for_each(|position| self.point(position, begun)),
        }
        Ok(())
    }

    fn point(&mut self, position: &Position, begun: &Drawn) {
        // Its own height comes before what its properties say; without either it lies on the ground.
        let height_m = position.as_slice().get(2).copied().or(begun.top_m).unwrap_or(0.0);
        self.points.push(DrawnPoint {
            source: begun.source.clone(),
            layer: begun.layer.clone(),
            name: begun.name.clone(),
            at: [at(position, 0), at(position, 1)],
            height_m,
        });
    }

    fn polygon(&mut self, rings: &[Vec<Position>], begun: &Drawn) -> Result<(), Fault> {
        let Some(outer) = rings.first() else {
            self.leave(begun, "is empty");
            return Ok(());
        };
        if rings.len() > 1 {
            self.leave(begun, "has holes, which are filled: only its outer outline is taken");
        }
        self.outline(outer, begun, true)
    }

    fn outline(&mut self, positions: &[Position], begun: &Drawn, closed: bool) -> Result<(), Fault> {
        self.positions += positions.len();
        if self.positions > MOST_POSITIONS {
            return Err(Fault::new("file", format!("holds more than {MOST_POSITIONS} positions; take a part of it")));
        }
        let points = positions.iter().map(|position| [at(position, 0), at(position, 1)]).collect();
        self.drawn.push(Drawn { points, closed, ..begun.clone() });
        Ok(())
    }
}

/// One coordinate of a position; what is missing is no number.
fn at(position: &Position, axis: usize) -> f64 {
    position.as_slice().get(axis).copied().unwrap_or(f64::NAN)
}

/// The first of some properties that is a number, also one written as text (`4.2 m`).
fn figure(properties: Option<&JsonObject>, names: &[&str]) -> Option<f64> {
    names.iter().find_map(|name| match properties?.get(*name)? {
        JsonValue::Number(number) => number.as_f64(),
        JsonValue::String(text) => text.trim().trim_end_matches('m').trim().parse().ok(),
        _ => None,
    })
}

/// The middle of the box around all outlines, or all points where there are none, degrees.
fn middle_of(drawn: &[Drawn], points: &[DrawnPoint]) -> Point2 {
    let corners = drawn.iter().flat_map(|one| &one.points).filter(|p| p.iter().all(|axis| axis.is_finite()));
    let mut corners: Vec<&Point2> = corners.collect();
    if corners.is_empty() {
        corners.extend(points.iter().map(|point| &point.at));
    }
    let [low, high] = box_of(corners.into_iter());
    [0.5 * (low[0] + high[0]), 0.5 * (low[1] + high[1])]
}

/// Degrees east and north as metres about a middle.
pub fn projected([east, north]: Point2, [middle_east, middle_north]: Point2) -> Point2 {
    let (across, along_meridian) = radii(middle_north);
    [(east - middle_east).to_radians() * across, (north - middle_north).to_radians() * along_meridian]
}

/// Metres about an origin as degrees east and north: the same the other way round.
pub fn unprojected([x, y]: Point2, [origin_east, origin_north]: Point2) -> Point2 {
    let (across, along_meridian) = radii(origin_north);
    [origin_east + (x / across).to_degrees(), origin_north + (y / along_meridian).to_degrees()]
}

/// Metres in a radian of longitude, and of latitude, at a latitude.
fn radii(north: f64) -> (f64, f64) {
    let sine = north.to_radians().sin();
    let root = (1.0 - EARTH_E2 * sine * sine).sqrt();
    (EARTH_M / root * north.to_radians().cos(), EARTH_M * (1.0 - EARTH_E2) / root.powi(3))
}
