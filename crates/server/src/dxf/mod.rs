//! Outlines from and to DXF, through a library that reads and writes it. Whatever it makes of a broken file is an answer, never a fall.

mod sieve;

use bright_angle_core::Fault;
use bright_angle_core::exchange::{Drawn, Import, LeftOut, take};
use bright_angle_core::file::{Point2, SiteFile};
use dxf::entities::{Entity, EntityType, Insert, LwPolyline, Polyline};
use dxf::enums::Units;
use dxf::{Drawing, LwPolylineVertex, Point};
use std::collections::HashMap;

/// So deep blocks may stand in blocks.
const DEEPEST: usize = 8;
/// So many corners and things a drawing may have, its blocks opened.
const MOST_POINTS: usize = 400_000;
const MOST_THINGS: usize = 100_000;
/// The corners that stand for a circle.
const ROUND: usize = 24;

/// A unit that somebody chose in place of the header's.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Unit {
    /// 0.001 m.
    Millimetre,
    /// 0.01 m.
    Centimetre,
    /// The metre.
    Metre,
    /// 0.0254 m.
    Inch,
    /// 0.3048 m.
    Foot,
}

impl Unit {
    /// Reads mm, cm, m, in or ft.
    ///
    /// # Errors
    /// Anything else.
    pub fn parse(text: &str) -> Result<Unit, Fault> {
        match text {
            "mm" => Ok(Unit::Millimetre),
            "cm" => Ok(Unit::Centimetre),
            "m" => Ok(Unit::Metre),
            "in" => Ok(Unit::Inch),
            "ft" => Ok(Unit::Foot),
            other => Err(Fault::new("unit", format!("\"{other}\" is not mm, cm, m, in or ft"))),
        }
    }

    fn metres(self) -> (f64, &'static str) {
        match self {
            Unit::Millimetre => (0.001, "millimetres"),
            Unit::Centimetre => (0.01, "centimetres"),
            Unit::Metre => (1.0, "metres"),
            Unit::Inch => (0.0254, "inches"),
            Unit::Foot => (0.3048, "feet"),
        }
    }
}

/// The metres in a unit of the header; `None` where it says nothing that is a length here.
fn of_header(units: Units) -> Option<(f64, &'static str)> {
    Some(match units {
        Units::Millimeters => Unit::Millimetre.metres(),
        Units::Centimeters => Unit::Centimetre.metres(),
        Units::Decimeters => (0.1, "decimetres"),
        Units::Meters => Unit::Metre.metres(),
        Units::Kilometers => (1000.0, "kilometres"),
        Units::Inches => Unit::Inch.metres(),
        Units::Feet => Unit::Foot.metres(),
        Units::Yards => (0.9144, "yards"),
        _ => return None,
    })
}

/// What a DXF file brings.
///
/// # Errors
/// What cannot be read, holds too much, or nothing that can be taken.
pub fn read(text: &str, unit: Option<Unit>) -> Result<Import, Fault> {
    let bad = |why: String| Fault::new("file", format!("is no DXF that can be read: {why}"));
    let text = sieve::sieve(text, sieve::Most { things: MOST_THINGS, corners: MOST_POINTS })?;
    // The library was written for files of programs that write it well.
    let loaded = std::panic::catch_unwind(|| Drawing::load(&mut text.as_bytes()));
    let drawing = match loaded {
        Ok(Ok(drawing)) => drawing,
        Ok(Err(error)) => return Err(bad(error.to_string())),
        Err(_) => return Err(bad("it is broken inside".to_owned())),
    };
    let (scale, says) = match (unit, of_header(drawing.header.default_drawing_units)) {
        (Some(unit), _) => (unit.metres().0, format!("{}, as was chosen", unit.metres().1)),
        (None, Some((scale, word))) => (scale, format!("{word}, by its header")),
        (None, None) => (1.0, "metres: its header names no unit".to_owned()),
    };
    let mut opened = Opened { blocks: HashMap::new(), drawn: vec![], left_out: vec![], points: 0, things: 0 };
    opened.blocks = drawing.blocks().map(|block| (block.name.clone(), block)).collect();
    opened.all(drawing.entities(), &Placed::plain(scale), &mut vec![])?;
    let Opened { drawn, left_out, .. } = opened;
    take(says, drawn, left_out)
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
    /// The layer that things on layer 0 take over.
    layer: Option<String>,
}

impl Placed {
    fn plain(scale: f64) -> Placed {
        Placed { x: [scale, 0.0], y: [0.0, scale], at: [0.0; 2], scale, layer: None }
    }

    fn point(&self, x: f64, y: f64) -> Point2 {
        [self.at[0] + self.x[0] * x + self.y[0] * y, self.at[1] + self.x[1] * x + self.y[1] * y]
    }

    /// The same for what stands in a block that stands here.
    fn within(&self, insert: &Insert, base: &Point, layer: &str) -> Placed {
        let turn = insert.rotation.to_radians();
        let (sin, cos) = turn.sin_cos();
        let step = |x: f64, y: f64| {
            let there = self.point(x, y);
            [there[0] - self.at[0], there[1] - self.at[1]]
        };
        let x = step(cos * insert.x_scale_factor, sin * insert.x_scale_factor);
        let y = step(-sin * insert.y_scale_factor, cos * insert.y_scale_factor);
        let at = self.point(insert.location.x, insert.location.y);
        let at = [at[0] - x[0] * base.x - y[0] * base.y, at[1] - x[1] * base.x - y[1] * base.y];
        Placed { x, y, at, scale: self.scale * insert.z_scale_factor, layer: Some(layer.to_owned()) }
    }
}

struct Opened<'a> {
    blocks: HashMap<String, &'a dxf::Block>,
    drawn: Vec<Drawn>,
    left_out: Vec<LeftOut>,
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
            self.things += 1;
            if self.things > MOST_THINGS || self.points > MOST_POINTS {
                let message =
                    format!("holds more than {MOST_THINGS} things or {MOST_POINTS} corners; take a part of it");
                return Err(Fault::new("file", message));
            }
            self.one(entity, placed, within)?;
        }
        Ok(())
    }

    fn one(&mut self, entity: &Entity, placed: &Placed, within: &mut Vec<String>) -> Result<(), Fault> {
        let on = &entity.common.layer;
        let layer = placed.layer.clone().filter(|_| on == "0").unwrap_or_else(|| on.clone());
        match &entity.specific {
            EntityType::Line(line) => {
                let points = vec![placed.point(line.p1.x, line.p1.y), placed.point(line.p2.x, line.p2.y)];
                self.draw("line", layer, points, false, [line.p1.z, line.thickness], placed);
            }
            EntityType::LwPolyline(line) => self.light_polyline(line, entity.common.elevation, layer, placed),
            EntityType::Polyline(line) => self.polyline(line, layer, placed),
            EntityType::Circle(circle) => {
                let corner = |place: usize| {
                    let (sin, cos) = (std::f64::consts::TAU * place as f64 / ROUND as f64).sin_cos();
                    placed.point(circle.center.x + cos * circle.radius, circle.center.y + sin * circle.radius)
                };
                let points = (0..ROUND).map(corner).collect();
                self.draw("circle", layer, points, true, [circle.center.z, circle.thickness], placed);
            }
            EntityType::Insert(insert) => self.insert(insert, &layer, placed, within)?,
            other => {
                self.leave(&kind_of(other), &layer, "is no line, outline, circle or block");
            }
        }
        Ok(())
    }

    fn light_polyline(&mut self, line: &LwPolyline, base: f64, layer: String, placed: &Placed) {
        let points: Vec<Point2> = line.vertices.iter().map(|vertex| placed.point(vertex.x, vertex.y)).collect();
        if line.vertices.iter().any(|vertex| vertex.bulge != 0.0) {
            self.leave("polyline", &layer, "has round sides, which are taken as straight");
        }
        self.draw("polyline", layer, points, line.is_closed(), [base, line.thickness], placed);
    }

    fn polyline(&mut self, line: &Polyline, layer: String, placed: &Placed) {
        let places: Vec<&Point> = line.vertices().map(|vertex| &vertex.location).collect();
        let rises = places.iter().any(|place| (place.z - places[0].z).abs() > 1e-9);
        if rises {
            self.leave("polyline", &layer, "rises and falls: it is taken as flat");
        }
        let base = places.first().map_or(0.0, |place| if rises { 0.0 } else { place.z });
        let points = places.iter().map(|place| placed.point(place.x, place.y)).collect();
        self.draw("polyline", layer, points, line.is_closed(), [base, line.thickness], placed);
    }

    fn insert(&mut self, insert: &Insert, layer: &str, placed: &Placed, within: &mut Vec<String>) -> Result<(), Fault> {
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
        let inner = placed.within(insert, &block.base_point, layer);
        within.push(insert.name.clone());
        let opened = self.all(block.entities.iter(), &inner, within);
        within.pop();
        opened
    }

    fn draw(
        &mut self,
        kind: &str,
        layer: String,
        points: Vec<Point2>,
        closed: bool,
        [z, tall]: [f64; 2],
        placed: &Placed,
    ) {
        self.points += points.len();
        let base = z * placed.scale;
        let top = Some(base + tall * placed.scale).filter(|top| *top > base);
        let source = format!("{kind} {}", self.things);
        self.drawn.push(Drawn { source, layer, name: None, points, closed, base_m: Some(base), top_m: top });
    }

    fn leave(&mut self, kind: &str, layer: &str, why: &str) {
        let source = format!("{kind} {}", self.things);
        self.left_out.push(LeftOut { source, layer: layer.to_owned(), why: why.to_owned() });
    }
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

/// A site's obstacles as DXF: light polylines in metres, a layer a kind, as thick as they are high.
///
/// # Errors
/// What the library cannot write.
pub fn write(site: &SiteFile) -> Result<String, Fault> {
    let mut drawing = Drawing::new();
    drawing.header.version = dxf::enums::AcadVersion::R2000;
    drawing.header.default_drawing_units = Units::Meters;
    for obstacle in &site.obstacles {
        let corner = |p: &Point2| LwPolylineVertex { x: p[0], y: p[1], ..LwPolylineVertex::default() };
        let vertices = obstacle.outline.iter().map(corner).collect();
        let thickness = obstacle.top_m - obstacle.base_m;
        let mut line = LwPolyline { vertices, thickness, ..LwPolyline::default() };
        line.set_is_closed(obstacle.closed);
        let mut entity = Entity::new(EntityType::LwPolyline(line));
        entity.common.elevation = obstacle.ground_m + obstacle.base_m;
        let kind = serde_json::to_value(obstacle.kind).ok();
        entity.common.layer = kind.as_ref().and_then(|kind| kind.as_str()).unwrap_or("other").to_owned();
        drawing.add_entity(entity);
    }
    let mut out = Vec::new();
    drawing.save(&mut out).map_err(|error| Fault::new("", error.to_string()))?;
    String::from_utf8(out).map_err(|error| Fault::new("", error.to_string()))
}
