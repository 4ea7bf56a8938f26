//! The plan as SVG (W3C, SVG 1.1): solids, targets and cameras, a unit a metre, north up.

use super::take::box_of;
use crate::file::{Point2, ShapeKind, SiteFile};
use std::fmt::Write;

/// Room around the plan, m.
const MARGIN_M: f64 = 4.0;

/// The plan of a site as an SVG document.
pub fn write(site: &SiteFile) -> String {
    let outlines = site.obstacles.iter().flat_map(|o| o.standing());
    let targets = site.targets.iter().flat_map(|t| &t.shape.points);
    let cameras = site.cameras.iter().map(|camera| &camera.position);
    let points = outlines.chain(targets).chain(cameras);
    let [low, high] = box_of(points);
    let [low, high] = if low[0] > high[0] { [[0.0; 2], [1.0; 2]] } else { [low, high] };
    let (x, y) = (low[0] - MARGIN_M, -high[1] - MARGIN_M);
    let (width, height) = (high[0] - low[0] + 2.0 * MARGIN_M, high[1] - low[1] + 2.0 * MARGIN_M);
    let mut out = String::new();
    // Writing to a string cannot fail.
    let _ = write!(
        out,
        "<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"{x:.3} {y:.3} {width:.3} {height:.3}\" width=\"{width:.3}mm\" height=\"{height:.3}mm\" \
         font-family=\"sans-serif\" font-size=\"1.2\" stroke-width=\"0.12\" fill=\"none\" stroke=\"#18222d\">\n<title>{}</title>\n",
        escaped(&site.name)
    );
    out.push_str("<g id=\"obstacles\">\n");
    for obstacle in &site.obstacles {
        let fill = if obstacle.closed { " fill=\"#ece5d4\"" } else { "" };
        let dash = if obstacle.see_through > 0.5 { " stroke-dasharray=\"0.6 0.4\"" } else { "" };
        path(&mut out, obstacle.standing(), obstacle.closed, &format!("{fill}{dash}"), &obstacle.name);
    }
    out.push_str("</g>\n<g id=\"targets\" stroke=\"#a3221b\">\n");
    for target in &site.targets {
        match (target.shape.kind, target.shape.points.as_slice()) {
            (ShapeKind::Point, [at, ..]) => {
                let _ = writeln!(
                    out,
                    "<circle cx=\"{:.3}\" cy=\"{:.3}\" r=\"0.5\"><title>{}</title></circle>",
                    at[0],
                    -at[1],
                    escaped(&target.name)
                );
            }
            (kind, points) => {
                path(&mut out, points, kind == ShapeKind::Area, " stroke-dasharray=\"0.5 0.4\"", &target.name)
            }
        }
    }
    out.push_str("</g>\n<g id=\"cameras\">\n");
    for camera in &site.cameras {
        let [x, y] = [camera.position[0], -camera.position[1]];
        for head in &camera.heads {
            let turn = head.pan_deg.to_radians();
            let _ = writeln!(
                out,
                "<line x1=\"{x:.3}\" y1=\"{y:.3}\" x2=\"{:.3}\" y2=\"{:.3}\"/>",
                x + 2.0 * turn.sin(),
                y - 2.0 * turn.cos()
            );
        }
        let _ = writeln!(
            out,
            "<circle cx=\"{x:.3}\" cy=\"{y:.3}\" r=\"0.45\" fill=\"#ffffff\"/><text x=\"{:.3}\" y=\"{:.3}\" stroke=\"none\" fill=\"#18222d\">{}</text>",
            x + 0.7,
            y + 0.4,
            escaped(&camera.name)
        );
    }
    out.push_str("</g>\n</svg>\n");
    out
}

fn path(out: &mut String, points: &[Point2], closed: bool, style: &str, name: &str) {
    let line: Vec<String> = points.iter().map(|p| format!("{:.3} {:.3}", p[0], -p[1])).collect();
    let end = if closed { "Z" } else { "" };
    let _ = writeln!(out, "<path d=\"M{}{end}\"{style}><title>{}</title></path>", line.join("L"), escaped(name));
}

/// A text as XML writes it, without what XML cannot hold (XML 1.0, production 2, Char).
fn escaped(text: &str) -> String {
    let held = |c: &char| matches!(c, '\t' | '\n' | '\r' | ' '..='\u{d7ff}' | '\u{e000}'..='\u{fffd}' | '\u{10000}'..);
    let text: String = text.chars().filter(held).collect();
    text.replace('&', "&amp;").replace('<', "&lt;").replace('>', "&gt;").replace('"', "&quot;")
}
