//! Points whose place is known, with the pixels at which they were seen: as a table, checked, and what they cannot tell.

use crate::file::Fault;
use crate::site::Head;
use glam::{DVec2, DVec3};
use serde::{Deserialize, Serialize};
use std::collections::HashSet;
use utoipa::ToSchema;

/// The fewest points that tell a pose.
pub const LEAST_POINTS: usize = 3;
/// The most points that are taken.
const MOST_POINTS: usize = 1000;
/// A pixel may lie so far outside the picture, as a share of its width: a click at its edge that strays.
const OUTSIDE: f64 = 0.02;
/// Points that span less than this as seen from the camera tell no turn, degrees.
const LEAST_SPAN_DEG: f64 = 0.5;
/// Points whose span one way is less than this share of the other lie in one line.
const IN_LINE: f64 = 0.01;

/// A point of the site, and where it was seen.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PosePoint {
    /// Its id.
    pub id: String,
    /// East of the site frame's origin, m.
    pub x: f64,
    /// North of it, m.
    pub y: f64,
    /// Up, m.
    pub z: f64,
    /// Right from the full picture's left edge, px.
    pub u: f64,
    /// Down from its top edge, px.
    pub v: f64,
    /// How well its place is known, m each way; surely where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub sigma_m: Option<f64>,
}

impl PosePoint {
    /// Where it is, m.
    pub fn place(&self) -> DVec3 {
        DVec3::new(self.x, self.y, self.z)
    }

    /// Where it was seen, px.
    pub fn seen(&self) -> DVec2 {
        DVec2::new(self.u, self.v)
    }
}

/// Reads points out of a table with the columns `id,x,y,z,u,v` and, where there is one, `sigma_m`.
///
/// ```
/// use bright_angle_core::fit::pose_points::read_points;
/// let points = read_points("id,x,y,z,u,v\ngate,1,2,3,640,360\n").unwrap();
/// assert_eq!((points[0].id.as_str(), points[0].sigma_m), ("gate", None));
/// ```
///
/// # Errors
/// A fault a line, with its number.
pub fn read_points(text: &str) -> Result<Vec<PosePoint>, Vec<Fault>> {
    let text = text.trim_start_matches('\u{feff}');
    let mut reader = csv::ReaderBuilder::new().trim(csv::Trim::All).from_reader(text.as_bytes());
    let header = reader.headers().map_err(|error| Fault::new("line 1", error.to_string()))?.clone();
    let missing = ["id", "x", "y", "z", "u", "v"].into_iter().filter(|name| !header.iter().any(|held| held == *name));
    let mut faults: Vec<Fault> =
        missing.map(|name| Fault::new("line 1", format!("has no column \"{name}\""))).collect();
    if !faults.is_empty() {
        return Err(faults);
    }
    let column = |name: &str| header.iter().position(|held| held == name);
    let mut points = vec![];
    for (place, record) in reader.records().enumerate().take(MOST_POINTS + 1) {
        let line = format!("line {}", place + 2);
        let record = match record {
            Ok(record) => record,
            Err(error) => {
                faults.push(Fault::new(line, error.to_string()));
                continue;
            }
        };
        let text = |name: &str| column(name).and_then(|at| record.get(at)).unwrap_or_default();
        let mut number = |name: &str| {
            let read = text(name).parse::<f64>().ok().filter(|value| value.is_finite());
            if read.is_none() {
                faults.push(Fault::new(format!("{line}, {name}"), format!("\"{}\" is no number", text(name))));
            }
            read.unwrap_or_default()
        };
        let [x, y, z, u, v] = ["x", "y", "z", "u", "v"].map(&mut number);
        let sigma_m = (!text("sigma_m").is_empty()).then(|| number("sigma_m"));
        points.push(PosePoint { id: text("id").to_owned(), x, y, z, u, v, sigma_m });
    }
    if faults.is_empty() { Ok(points) } else { Err(faults) }
}

/// What is wrong with points, each with its place; too few of them are.
pub fn faults(points: &[PosePoint], head: &Head) -> Vec<Fault> {
    if points.len() > MOST_POINTS {
        return vec![Fault::new("points", format!("are more than {MOST_POINTS}"))];
    }
    let size = head.view().projection.size();
    let mut ids = HashSet::new();
    let mut faults = vec![];
    for (place, point) in points.iter().enumerate() {
        let mut say = |what: &str, message: String| faults.push(Fault::new(format!("points[{place}].{what}"), message));
        if point.id.trim().is_empty() {
            say("id", "must not be empty".to_owned());
        } else if !ids.insert(point.id.as_str()) {
            say("id", format!("\"{}\" is there twice", point.id));
        }
        for (name, value) in [("x", point.x), ("y", point.y), ("z", point.z)] {
            if !(-crate::file::FAR_M..=crate::file::FAR_M).contains(&value) {
                say(name, format!("{value} is outside −100000 to 100000 m"));
            }
        }
        let slack = DVec2::splat(OUTSIDE * size.x);
        let seen = point.seen();
        if !(seen.cmpge(-slack).all() && seen.cmple(size + slack).all()) {
            say("u", format!("{}, {} is outside the picture of {} × {} px", point.u, point.v, size.x, size.y));
        }
        if point.sigma_m.is_some_and(|sigma| !(0.0..=1000.0).contains(&sigma)) {
            say("sigma_m", format!("{} is outside 0 to 1000 m", point.sigma_m.unwrap_or_default()));
        }
        if point.place().distance(head.position()) < 1e-3 {
            say("x", "is where the camera is".to_owned());
        }
    }
    if faults.is_empty() && points.len() < LEAST_POINTS {
        let count = points.len();
        let of = if count == 1 { "point" } else { "points" };
        let message =
            format!("{count} {of} cannot tell how it hangs: it takes {LEAST_POINTS}, and four to find a wrong one");
        faults.push(Fault::new("points", message));
    }
    faults
}

/// How points lie as seen from the camera.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Spread {
    span_deg: f64,
    in_line: bool,
}

impl Spread {
    /// How they lie as seen from a place.
    pub fn of(points: &[PosePoint], from: DVec3) -> Spread {
        let rays: Vec<DVec3> = points.iter().map(|point| (point.place() - from).normalize_or_zero()).collect();
        let apart = |ray: &DVec3| rays.iter().map(|other| ray.angle_between(*other)).fold(0.0, f64::max);
        let span_deg = rays.iter().map(apart).fold(0.0, f64::max).to_degrees();
        let middle = points.iter().map(PosePoint::seen).sum::<DVec2>() / points.len().max(1) as f64;
        let (mut xx, mut xy, mut yy) = (0.0, 0.0, 0.0);
        for off in points.iter().map(|point| point.seen() - middle) {
            (xx, xy, yy) = (xx + off.x * off.x, xy + off.x * off.y, yy + off.y * off.y);
        }
        let (half, root) = (0.5 * (xx + yy), (0.25 * (xx - yy) * (xx - yy) + xy * xy).sqrt());
        Spread { span_deg, in_line: (half - root).max(0.0).sqrt() <= IN_LINE * (half + root).sqrt() }
    }

    /// Why such points cannot tell how a head hangs.
    pub fn why_not(&self) -> Fault {
        let message = if self.span_deg < LEAST_SPAN_DEG {
            "these points lie in one direction: take some that are far from each other in the picture"
        } else if self.in_line {
            "these points lie in one line: take one beside it"
        } else {
            "these points do not tell how it hangs: take more, at the corners of the picture, near and far"
        };
        Fault::new("points", message)
    }
}
