//! A drawing with its blocks opened: outlines, measured points and texts, in metres of the plan.

use super::curves::{self, Spline, arc, round};
use super::text;
use super::{MOST_POINTS, MOST_THINGS};
use bright_angle_core::Fault;
use bright_angle_core::exchange::{Drawn, DrawnPoint, DrawnText, Found, LeftOut};
use bright_angle_core::file::Point2;
use dxf::entities::{Entity, EntityType, Insert, Polyline};
use dxf::{Drawing, Point, Vector};
use glam::DVec3;
use std::collections::HashMap;
use std::f64::consts::TAU;

/// So deep blocks may stand in blocks.
const DEEPEST: usize = 8;
/// So far the sides that stand for something round may be off it, m.
const ROUND_OFF_M: f64 = 0.04;
/// A block that stands on a plane that leans more than this (the cosine of its lean) is not taken.
const FLAT: f64 = 0.999;
/// What is no wider on the plan than this share of its length stands upright.
const UPRIGHT: f64 = 1e-6;

/// What a drawing holds; `scale` are the metres in its unit.
///
/// # Errors
/// One that holds too much, its blocks opened.
pub fn opened(drawing: &Drawing, scale: f64) -> Result<Found, Fault> {
    let blocks = drawing.blocks().map(|block| (block.name.clone(), block)).collect();
    let mut opened = Opened { blocks, found: Found::default(), points: 0, things: 0 };
    opened.all(drawing.entities(), &Placed::plain(scale), &mut vec![])?;
    Ok(opened.found)
}

/// How what is drawn in a block comes to lie on the plan: scaled, turned, moved.
#[derive(Clone, Debug)]
struct Placed {
    /// East and north on the plan of a step east and one north in the block.
    x: Point2,
    y: Point2,
    at: Point2,
    /// Of heights.
    scale: f64,
    /// How high the block's own zero lies, m.
    base: f64,
    /// The layer that things on layer 0 take over.
    layer: Option<String>,
}

impl Placed {
    fn plain(scale: f64) -> Placed {
        Placed { x: [scale, 0.0], y: [0.0, scale], at: [0.0; 2], scale, base: 0.0, layer: None }
    }

    fn point(&self, [x, y]: [f64; 2]) -> Point2 {
        [self.at[0] + self.x[0] * x + self.y[0] * y, self.at[1] + self.x[1] * x + self.y[1] * y]
    }

    fn height(&self, z: f64) -> f64 {
        self.base + z * self.scale
    }

    /// How far sides may be off what is round, in the block's unit.
    fn off(&self) -> f64 {
        ROUND_OFF_M / self.x[0].hypot(self.x[1]).max(self.y[0].hypot(self.y[1])).max(1e-12)
    }

    /// The same for what stands in a block that stands here, so many columns and rows on.
    fn within(&self, insert: &Insert, base: &Point, layer: &str, mirrored: bool, on: [f64; 2]) -> Placed {
        let turn = insert.rotation.to_radians();
        let (sin, cos) = turn.sin_cos();
        let mirror = if mirrored { -1.0 } else { 1.0 };
        let step = |x: f64, y: f64| {
            let there = self.point([x * mirror, y]);
            [there[0] - self.at[0], there[1] - self.at[1]]
        };
        let x = step(cos * insert.x_scale_factor, sin * insert.x_scale_factor);
        let y = step(-sin * insert.y_scale_factor, cos * insert.y_scale_factor);
        let (east, north) = (cos * on[0] - sin * on[1], sin * on[0] + cos * on[1]);
        let at = self.point([(insert.location.x + east) * mirror, insert.location.y + north]);
        let at = [at[0] - x[0] * base.x - y[0] * base.y, at[1] - x[1] * base.x - y[1] * base.y];
        let scale = self.scale * insert.z_scale_factor * mirror;
        let base = self.height(insert.location.z * mirror) - base.z * scale;
        Placed { x, y, at, scale, base, layer: Some(layer.to_owned()) }
    }
}

/// The axes of a thing's own plane, from its normal, by the format's arbitrary axis algorithm (its published reference).
fn own_axes(normal: &Vector) -> [DVec3; 3] {
    let up = DVec3::new(normal.x, normal.y, normal.z).normalize_or(DVec3::Z);
    let nearly_upright = up.x.abs() < 1.0 / 64.0 && up.y.abs() < 1.0 / 64.0;
    let across = if nearly_upright { DVec3::Y.cross(up) } else { DVec3::Z.cross(up) }.normalize();
    [across, up.cross(across), up]
}

/// An outline in the drawing, before its block is placed.
struct Outline {
    kind: &'static str,
    corners: Vec<DVec3>,
    closed: bool,
    /// How much higher its top is than its corners.
    tall: f64,
}

struct Opened<'a> {
    blocks: HashMap<String, &'a dxf::Block>,
    found: Found,
    points: usize,
    things: usize,
}

impl Opened<'_> {
    fn all<'b>(
        &mut self,
        entities: impl Iterator<Item = &'b Entity>,
        placed: &Placed,
        within: &mut Vec<String>,
    ) -> Result<(), Fault> {
        for entity in entities {
            self.count()?;
            self.one(entity, placed, within)?;
        }
        Ok(())
    }

    /// One thing more, if there are not too many.
    fn count(&mut self) -> Result<(), Fault> {
        self.things += 1;
        if self.things > MOST_THINGS || self.points > MOST_POINTS {
            let message = format!("holds more than {MOST_THINGS} things or {MOST_POINTS} corners; take a part of it");
            return Err(Fault::new("file", message));
        }
        Ok(())
    }

    fn one(&mut self, entity: &Entity, placed: &Placed, within: &mut Vec<String>) -> Result<(), Fault> {
        let on = text::name(&entity.common.layer);
        let layer = placed.layer.clone().filter(|_| on == "0").unwrap_or_else(|| on.into_owned());
        if entity.common.is_in_paper_space {
            self.leave(&kind_of(&entity.specific), &layer, "is on a sheet of paper, not on the plan");
            return Ok(());
        }
        let at = |p: &Point| [p.x, p.y];
        match &entity.specific {
            EntityType::Insert(insert) => return self.insert(insert, &layer, placed, within),
            EntityType::ModelPoint(point) => {
                let source = self.source("point");
                let (at, height_m) = (placed.point(at(&point.location)), placed.height(point.location.z));
                self.found.points.push(DrawnPoint { source, layer, name: None, at, height_m });
            }
            EntityType::Text(text) => self.text(&text.value, &text.location, &layer, placed),
            EntityType::MText(text) => {
                let whole = text.extended_text.concat() + &text.text;
                self.text(&whole, &text.insertion_point, &layer, placed);
            }
            other => match self.outline(other, entity.common.elevation, placed.off()) {
                Ok(outline) => self.draw(layer, outline, placed),
                Err(why) => self.leave(&kind_of(other), &layer, &why),
            },
        }
        Ok(())
    }

    /// The outline of a thing, or why it has none.
    fn outline(&mut self, thing: &EntityType, elevation: f64, off: f64) -> Result<Outline, String> {
        let at = |p: &Point| DVec3::new(p.x, p.y, p.z);
        let flat = |corners: Vec<[f64; 2]>, z: f64| corners.into_iter().map(|[x, y]| DVec3::new(x, y, z)).collect();
        Ok(match thing {
            EntityType::Line(line) => {
                Outline { kind: "line", corners: vec![at(&line.p1), at(&line.p2)], closed: false, tall: line.thickness }
            }
            EntityType::LwPolyline(line) => {
                let sides: Vec<_> = line.vertices.iter().map(|vertex| ([vertex.x, vertex.y], vertex.bulge)).collect();
                let corners = flat(bulged(&sides, line.is_closed(), off), elevation);
                Outline { kind: "polyline", corners, closed: line.is_closed(), tall: line.thickness }
                    .in_the_world(&line.extrusion_direction)
            }
            EntityType::Polyline(line) if line.is_3d_polygon_mesh() || line.is_polyface_mesh() => {
                return Err("is a mesh".to_owned());
            }
            EntityType::Polyline(line) => polyline(line, off),
            EntityType::Circle(c) => {
                let corners = round([c.center.x, c.center.y], [c.radius, 0.0], [0.0, c.radius], off);
                let corners = flat(corners, c.center.z);
                Outline { kind: "circle", corners, closed: true, tall: c.thickness }.in_the_world(&c.normal)
            }
            EntityType::Arc(a) => {
                let turn = (a.end_angle - a.start_angle).rem_euclid(360.0);
                let turn = if turn == 0.0 { TAU } else { turn.to_radians() };
                let axes = ([a.radius, 0.0], [0.0, a.radius]);
                let corners = arc([a.center.x, a.center.y], axes.0, axes.1, a.start_angle.to_radians(), turn, off);
                let corners = flat(corners, a.center.z);
                Outline { kind: "arc", corners, closed: false, tall: a.thickness }.in_the_world(&a.normal)
            }
            EntityType::Ellipse(ellipse) => elliptic(ellipse, off),
            EntityType::Spline(spline) => self.spline(spline, off)?,
            EntityType::Solid(s) => {
                let corners = [&s.first_corner, &s.second_corner, &s.fourth_corner, &s.third_corner].map(at);
                face("solid", corners, s.thickness).in_the_world(&s.extrusion_direction)
            }
            EntityType::Trace(t) => {
                let corners = [&t.first_corner, &t.second_corner, &t.fourth_corner, &t.third_corner].map(at);
                face("trace", corners, t.thickness).in_the_world(&t.extrusion_direction)
            }
            EntityType::Face3D(f) => {
                face("face", [&f.first_corner, &f.second_corner, &f.third_corner, &f.fourth_corner].map(at), 0.0)
            }
            _ => return Err("is no line, outline, curve, point, text or block".to_owned()),
        })
    }

    fn spline(&mut self, spline: &dxf::entities::Spline, off: f64) -> Result<Outline, String> {
        let places = |points: &[Point]| points.iter().map(|p| [p.x, p.y]).collect::<Vec<_>>();
        let controls = places(&spline.control_points);
        let curve = Spline {
            degree: usize::try_from(spline.degree_of_curve).unwrap_or(0),
            knots: &spline.knot_values,
            controls: &controls,
            weights: &spline.weight_values,
        };
        let z = spline.control_points.first().or(spline.fit_points.first()).map_or(0.0, |p| p.z);
        let corners = match curve.corners(off) {
            Some(corners) => corners,
            None if controls.is_empty() && spline.fit_points.len() > 1 => {
                self.leave("spline", "", "says only which points it runs through: it is taken straight between them");
                places(&spline.fit_points)
            }
            None => return Err("has figures of no spline, or too many turns".to_owned()),
        };
        let corners = corners.into_iter().map(|[x, y]| DVec3::new(x, y, z)).collect();
        Ok(Outline { kind: "spline", corners, closed: spline.flags & 1 != 0, tall: 0.0 })
    }

    fn insert(&mut self, insert: &Insert, layer: &str, placed: &Placed, within: &mut Vec<String>) -> Result<(), Fault> {
        for attribute in insert.attributes() {
            self.text(&attribute.value, &attribute.location, layer, placed);
        }
        let Some(block) = self.blocks.get(&insert.name).copied() else {
            self.leave("block", layer, &format!("\"{}\" is not in the file", insert.name));
            return Ok(());
        };
        if within.contains(&insert.name) {
            self.leave("block", layer, &format!("\"{}\" stands in itself", insert.name));
            return Ok(());
        }
        if within.len() >= DEEPEST {
            self.leave("block", layer, "stands in blocks too deep");
            return Ok(());
        }
        let [_, _, up] = own_axes(&insert.extrusion_direction);
        if up.z.abs() < FLAT {
            self.leave("block", layer, "stands on a plane that leans");
            return Ok(());
        }
        within.push(insert.name.clone());
        let count = |count: i16| usize::try_from(count).unwrap_or(1).max(1);
        for place in 0..count(insert.column_count) * count(insert.row_count) {
            let (column, row) = (place % count(insert.column_count), place / count(insert.column_count));
            let on = [column as f64 * insert.column_spacing, row as f64 * insert.row_spacing];
            let inner = placed.within(insert, &block.base_point, layer, up.z < 0.0, on);
            self.all(block.entities.iter(), &inner, within)?;
            // Empty blocks cost time, too: a thousand million of them stand in one line.
            self.count()?;
        }
        within.pop();
        Ok(())
    }

    fn text(&mut self, says: &str, at: &Point, layer: &str, placed: &Placed) {
        let says = text::plain(says);
        if !says.is_empty() {
            let (source, at) = (self.source("text"), placed.point([at.x, at.y]));
            self.found.texts.push(DrawnText { source, layer: layer.to_owned(), says, at });
        }
    }

    fn draw(&mut self, layer: String, outline: Outline, placed: &Placed) {
        let Outline { kind, mut corners, mut closed, mut tall } = outline;
        let heights = corners.iter().map(|corner| corner.z);
        let (low, high) = heights.fold((f64::MAX, f64::MIN), |(low, high), z| (low.min(z), high.max(z)));
        // What stands upright is a wall from its lowest to its highest corner.
        if let Some(ends) = foot(&corners).filter(|_| high > low && corners.len() > 2) {
            (corners, closed, tall) = (ends.to_vec(), false, high - low);
        } else if high - low > 1e-9 * high.abs().max(1.0) && kind != "face" {
            self.leave(kind, &layer, "rises and falls: it is taken as flat, from its lowest corner");
        }
        self.points += corners.len();
        // Negative thickness reaches down.
        let [a, b] = [placed.height(low), placed.height(low + tall)];
        let (base, top) = (a.min(b), a.max(b));
        let points = corners.into_iter().map(|corner| placed.point([corner.x, corner.y])).collect();
        let source = self.source(kind);
        let top_m = Some(top).filter(|top| *top > base);
        self.found.drawn.push(Drawn { source, layer, name: None, points, closed, base_m: Some(base), top_m });
    }

    fn source(&self, kind: &str) -> String {
        format!("{kind} {}", self.things)
    }

    fn leave(&mut self, kind: &str, layer: &str, why: &str) {
        let source = self.source(kind);
        self.found.left_out.push(LeftOut { source, layer: layer.to_owned(), why: why.to_owned() });
    }
}

impl Outline {
    /// In the drawing's own axes, where it was drawn in those of its plane.
    fn in_the_world(mut self, normal: &Vector) -> Outline {
        let axes = own_axes(normal);
        let turned = |corner: DVec3| axes[0] * corner.x + axes[1] * corner.y + axes[2] * corner.z;
        self.corners.iter_mut().for_each(|corner| *corner = turned(*corner));
        // It is thick along its normal.
        self.tall *= axes[2].z;
        self
    }
}

fn polyline(line: &Polyline, off: f64) -> Outline {
    // Beside the corners that it runs through a smoothed one keeps those that it was smoothed from.
    let held: Vec<_> = line.vertices().filter(|vertex| !vertex.is_spline_frame_control_point()).collect();
    let closed = line.is_closed();
    if line.is_3d_polyline() {
        let corners = held.iter().map(|v| DVec3::new(v.location.x, v.location.y, v.location.z)).collect();
        return Outline { kind: "polyline", corners, closed, tall: line.thickness };
    }
    let z = held.first().map_or(0.0, |vertex| vertex.location.z);
    let sides: Vec<_> = held.iter().map(|v| ([v.location.x, v.location.y], v.bulge)).collect();
    let corners = bulged(&sides, closed, off).into_iter().map(|[x, y]| DVec3::new(x, y, z)).collect();
    Outline { kind: "polyline", corners, closed, tall: line.thickness }.in_the_world(&line.normal)
}

/// An ellipse, or an arc of one. Its centre and axes are the drawing's; it runs round its normal.
fn elliptic(ellipse: &dxf::entities::Ellipse, off: f64) -> Outline {
    let centre = DVec3::new(ellipse.center.x, ellipse.center.y, ellipse.center.z);
    let across = DVec3::new(ellipse.major_axis.x, ellipse.major_axis.y, ellipse.major_axis.z);
    let along = own_axes(&ellipse.normal)[2].cross(across) * ellipse.minor_axis_ratio;
    let turn = (ellipse.end_parameter - ellipse.start_parameter).rem_euclid(TAU);
    let whole = turn < 1e-9 || TAU - turn < 1e-9;
    // As shares of its axes first: it may lean.
    let (axes, off) = (([1.0, 0.0], [0.0, 1.0]), off / across.length().max(along.length()).max(1e-12));
    let shares = if whole {
        round([0.0; 2], axes.0, axes.1, off)
    } else {
        arc([0.0; 2], axes.0, axes.1, ellipse.start_parameter, turn, off)
    };
    let corners = shares.into_iter().map(|[u, v]| centre + across * u + along * v).collect();
    Outline { kind: "ellipse", corners, closed: whole, tall: 0.0 }
}

/// Corners with what stands for the round sides between them.
fn bulged(sides: &[([f64; 2], f64)], closed: bool, off: f64) -> Vec<[f64; 2]> {
    let mut corners = Vec::with_capacity(sides.len());
    for (place, (corner, bulge)) in sides.iter().enumerate() {
        corners.push(*corner);
        let next = sides.get(place + 1).or(sides.first().filter(|_| closed));
        if let Some((next, _)) = next.filter(|_| *bulge != 0.0) {
            corners.extend(curves::bulge(*corner, *next, *bulge, off));
        }
    }
    corners
}

/// A face with four corners, or three of them.
fn face(kind: &'static str, corners: [DVec3; 4], thickness: f64) -> Outline {
    let mut corners = corners.to_vec();
    corners.dedup();
    Outline { kind, corners, closed: true, tall: thickness }
}

/// The ends of what encloses nothing on the plan, since all of it stands on one line.
fn foot(corners: &[DVec3]) -> Option<[DVec3; 2]> {
    let first = corners.first()?;
    let apart = |a: &DVec3, b: &DVec3| a.truncate().distance(b.truncate());
    let to = corners.iter().max_by(|a, b| apart(first, a).total_cmp(&apart(first, b)))?;
    let from = corners.iter().max_by(|a, b| apart(to, a).total_cmp(&apart(to, b)))?;
    let line = (to - from).truncate();
    let off = |p: &DVec3| line.perp_dot((p - from).truncate()).abs();
    let on_line = line.length() > 0.0 && corners.iter().all(|p| off(p) <= UPRIGHT * line.length_squared());
    on_line.then_some([*from, *to])
}

/// What a thing is called, in small letters: the first word that the library says of it, and no more of what may be megabytes.
fn kind_of(thing: &EntityType) -> String {
    struct FirstWord(String);
    impl std::fmt::Write for FirstWord {
        fn write_str(&mut self, text: &str) -> std::fmt::Result {
            let word = text.split(['(', ' ', '{']).next().unwrap_or_default();
            self.0.push_str(word);
            if word.len() == text.len() { Ok(()) } else { Err(std::fmt::Error) }
        }
    }
    let mut word = FirstWord(String::new());
    let _ = std::fmt::write(&mut word, format_args!("{thing:?}"));
    word.0.to_lowercase()
}
