//! Outlines of a drawing made into obstacles, layer by layer; what cannot be one is left out and said so.

use super::drawn::{Drawn, DrawnPoint, Found, LeftOut, box_of};
use super::names;
use crate::file::{FAR_M, Fault, MOST_CORNERS, MOST_OBSTACLES, Obstacle, ObstacleKind, Point2};
use crate::math::is_simple;
use serde::Serialize;
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// Points nearer to each other than this are one, m.
const SAME_M: f64 = 1e-4;
/// So many things that were left out are told one by one.
const MOST_TOLD: usize = 200;
/// So many measured points may come.
const MOST_POINTS: usize = 1_000;
/// So many kinds of things are told where nothing can be taken.
const MOST_KINDS: usize = 8;
/// Height of what comes without one, m.
const USUAL_TOP_M: f64 = 3.0;

/// A layer of a drawing.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Layer {
    /// Its name.
    pub name: String,
    /// What its name says that is on it.
    pub kind: ObstacleKind,
    /// The obstacles that come of it; their ids are places in this import, not a site's.
    pub obstacles: Vec<Obstacle>,
}

/// What a drawing brings, to be looked at before any of it is taken.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Import {
    /// How its coordinates were read, as in `millimetres, by its header`.
    pub coordinates: String,
    /// Its layers.
    pub layers: Vec<Layer>,
    /// Its measured points, which may become spots or targets.
    pub points: Vec<DrawnPoint>,
    /// How much was left out in all.
    pub left_out_count: usize,
    /// What was left out, the first of it.
    pub left_out: Vec<LeftOut>,
    /// The middle of all that is taken, m.
    #[schema(value_type = [f64; 2])]
    pub middle: Point2,
    /// How wide and how tall all of it is, m.
    pub size_m: [f64; 2],
}

/// Makes obstacles of a drawing's outlines, and names what its texts stand at.
///
/// # Errors
/// A drawing of which nothing can be taken, or that holds more than a site may.
pub fn take(coordinates: String, found: Found) -> Result<Import, Fault> {
    let Found { mut drawn, mut points, texts, mut left_out, holds } = found;
    points.retain(|point| {
        let fits = point.at.iter().all(|axis| axis.abs() <= FAR_M) && (-100.0..=500.0).contains(&point.height_m);
        let left = || LeftOut {
            source: point.source.clone(),
            layer: point.layer.clone(),
            why: format!("lies farther off than {:.0} km, or at no height of a site", FAR_M / 1000.0),
        };
        left_out.extend((!fits).then(left));
        fits
    });
    if points.len() > MOST_POINTS {
        let why = format!(
            "and {} points more are over the {MOST_POINTS} that can be chosen among",
            points.len() - MOST_POINTS
        );
        left_out.push(LeftOut { source: points[MOST_POINTS].source.clone(), layer: String::new(), why });
        points.truncate(MOST_POINTS);
    }
    left_out.extend(names::given(&mut drawn, &mut points, texts));
    let layers = obstacles_of(drawn, &mut left_out)?;
    if layers.is_empty() && points.is_empty() {
        return Err(Fault::new("file", format!("nothing in it can be taken: {}", what_is_in_it(&holds, &left_out))));
    }
    let corners = layers.iter().flat_map(|layer| &layer.obstacles).flat_map(|obstacle| &obstacle.outline);
    let [lower, upper] = box_of(corners.chain(points.iter().map(|point| &point.at)));
    let left_out_count = left_out.len();
    left_out.truncate(MOST_TOLD);
    Ok(Import {
        coordinates,
        layers,
        points,
        left_out_count,
        left_out,
        middle: [0.5 * (lower[0] + upper[0]), 0.5 * (lower[1] + upper[1])],
        size_m: [upper[0] - lower[0], upper[1] - lower[1]],
    })
}

/// The obstacles of the outlines, by layer; what is none goes to what is left out.
fn obstacles_of(drawn: Vec<Drawn>, left_out: &mut Vec<LeftOut>) -> Result<Vec<Layer>, Fault> {
    let mut layers: BTreeMap<String, Layer> = BTreeMap::new();
    let mut count = 0;
    for one in drawn {
        let (source, layer) = (one.source.clone(), one.layer.clone());
        let named = if layer.is_empty() { "no layer".to_owned() } else { layer.clone() };
        match obstacle(one, count + 1, kind_of(&layer)) {
            Ok(obstacle) => {
                count += 1;
                let kind = kind_of(&named);
                let held = layers.entry(named.clone()).or_insert(Layer { name: named, kind, obstacles: vec![] });
                held.obstacles.push(obstacle);
            }
            Err(why) => left_out.push(LeftOut { source, layer, why }),
        }
        if count > MOST_OBSTACLES {
            let message =
                format!("brings more than the {MOST_OBSTACLES} outlines that a site may hold; take fewer layers");
            return Err(Fault::new("file", message));
        }
    }
    Ok(layers.into_values().collect())
}

/// What a drawing holds of which nothing can be taken.
fn what_is_in_it(holds: &[(String, usize)], left_out: &[LeftOut]) -> String {
    let first = left_out.first().map(|first| format!("{}: {}", first.source, first.why));
    let kinds: Vec<String> = holds.iter().take(MOST_KINDS).map(|(kind, count)| format!("{kind} × {count}")).collect();
    match (kinds.is_empty(), first) {
        (true, None) => "it holds no lines and no outlines".to_owned(),
        (true, Some(first)) => first,
        (false, None) => format!("it holds no lines, outlines or points, but {}", kinds.join(", ")),
        (false, Some(first)) => format!("it holds {}. {first}", kinds.join(", ")),
    }
}

/// What a layer's name says that is on it, in English; a building where it says nothing.
fn kind_of(layer: &str) -> ObstacleKind {
    let name = layer.to_lowercase();
    let words = [
        ("fence", ObstacleKind::Fence),
        ("tree", ObstacleKind::Tree),
        ("hedge", ObstacleKind::Tree),
        ("glass", ObstacleKind::Glass),
        ("window", ObstacleKind::Glass),
        ("door", ObstacleKind::Door),
        ("gate", ObstacleKind::Door),
        ("eave", ObstacleKind::Eave),
        ("roof", ObstacleKind::Eave),
        ("car", ObstacleKind::Vehicle),
        ("vehicle", ObstacleKind::Vehicle),
        ("wall", ObstacleKind::Wall),
    ];
    words.iter().find(|(word, _)| name.contains(word)).map_or(ObstacleKind::Building, |(_, kind)| *kind)
}

/// The obstacle of one outline, or why it is none.
fn obstacle(drawn: Drawn, number: usize, kind: ObstacleKind) -> Result<Obstacle, String> {
    let Drawn { name, mut points, mut closed, base_m, top_m, .. } = drawn;
    if points.len() > 50 * MOST_CORNERS {
        return Err(format!("has {} corners, more than the {MOST_CORNERS} that an outline may have", points.len()));
    }
    if points.iter().flatten().any(|axis| !axis.is_finite()) {
        return Err("a coordinate of it is no number".to_owned());
    }
    if let Some(far) = points.iter().find(|p| p[0].hypot(p[1]) > FAR_M) {
        let km = far[0].hypot(far[1]) / 1000.0;
        return Err(format!("lies {km:.0} km from the origin: is the unit another one, or are these map coordinates?"));
    }
    points.dedup_by(|a, b| (a[0] - b[0]).hypot(a[1] - b[1]) < SAME_M);
    let ends_meet = |points: &[Point2]| match points {
        [first, .., last] => (first[0] - last[0]).hypot(first[1] - last[1]) < SAME_M,
        _ => false,
    };
    if points.len() > 3 && ends_meet(&points) {
        points.pop();
        closed = true;
    }
    if points.len() < 2 {
        return Err("is a single point".to_owned());
    }
    if points.len() > MOST_CORNERS {
        return Err(format!("has {} corners, more than the {MOST_CORNERS} that an outline may have", points.len()));
    }
    closed &= points.len() > 2;
    if closed && (area(&points).abs() < 1e-4 || !is_simple(&points)) {
        return Err("crosses or touches itself, or encloses nothing".to_owned());
    }
    let base = base_m.filter(|base| (-100.0..=500.0).contains(base)).unwrap_or(0.0);
    let top = top_m.filter(|top| (-100.0..=500.0).contains(top)).unwrap_or(base + USUAL_TOP_M);
    if top <= base {
        return Err(format!("its top, {top} m, is not above its underside, {base} m"));
    }
    let points = points.into_iter().map(|p| p.map(|axis| (axis * 1e3).round() / 1e3)).collect();
    let called = name.filter(|name| !name.trim().is_empty() && !name.chars().any(char::is_control));
    let called = called.map_or_else(|| format!("Outline {number}"), |name| name.chars().take(120).collect());
    Ok(Obstacle { base_m: base, closed, ..Obstacle::new(&format!("i{number}"), &called, kind, points, top) })
}

/// The area of an outline, m²; positive when it runs counter-clockwise.
pub(super) fn area(points: &[Point2]) -> f64 {
    let pairs = points.iter().zip(points.iter().cycle().skip(1));
    0.5 * pairs.map(|(a, b)| a[0] * b[1] - b[0] * a[1]).sum::<f64>()
}
