//! The plan as SVG (W3C, SVG 1.1): a sheet of A4 that one can print, to scale, north up. Coverage, solids, promises with their verdicts,
//! cameras with their names and aims, spots, a group each; a scale bar, north, and a legend.

use super::plan::{Coverage, HEIGHT_M, Plan, bounds, coverage_layer, layer_of};
use crate::file::{Point2, ShapeKind};
use crate::verdict::Verdict;

/// The sheet, mm, its margin, and what the legend takes of it on the right.
const SHEET: [f64; 2] = [297.0, 210.0];
const MARGIN: f64 = 10.0;
const LEGEND: f64 = 62.0;
const HEAD: f64 = 14.0;
const FOOT: f64 = 12.0;
/// Room around what is drawn, m.
const AROUND_M: f64 = 2.0;
/// Scales that a rule has, one to so many.
const SCALES: [f64; 19] = [
    10.0, 20.0, 25.0, 50.0, 100.0, 150.0, 200.0, 250.0, 300.0, 400.0, 500.0, 600.0, 750.0, 1000.0, 1500.0, 2000.0,
    2500.0, 5000.0, 10_000.0,
];
/// The tints of coverage, the palest first.
const TINTS: [&str; 5] = ["#eef3ee", "#d8e7e4", "#b7d5d6", "#8bbcc4", "#569bab"];
const INK: &str = "#18222d";

/// A plan as an SVG document.
pub fn write(plan: &Plan) -> String {
    let sheet = Sheet::around(plan);
    let mut out = Out(String::new());
    let [wide, tall] = SHEET;
    out.line(&format!(
        "<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 {wide} {tall}\" width=\"{wide}mm\" height=\"{tall}mm\" \
         font-family=\"sans-serif\" font-size=\"2.8\" stroke-width=\"0.25\" stroke-linejoin=\"round\" fill=\"none\" stroke=\"{INK}\">"
    ));
    out.line(&format!("<title>{}</title>", escaped(&plan.file.name)));
    out.line(&format!("<rect width=\"{wide}\" height=\"{tall}\" fill=\"#ffffff\" stroke=\"none\"/>"));
    let [x, y, width, height] = sheet.frame;
    out.line(&format!(
        "<clipPath id=\"frame\"><rect x=\"{x:.2}\" y=\"{y:.2}\" width=\"{width:.2}\" height=\"{height:.2}\"/></clipPath>"
    ));
    out.line("<g id=\"plan\" clip-path=\"url(#frame)\">");
    covered(&mut out, &sheet, &plan.coverage);
    places(&mut out, &sheet, plan);
    promises(&mut out, &sheet, plan);
    cameras(&mut out, &sheet, plan);
    out.line("</g>");
    out.line(&format!(
        "<rect x=\"{x:.2}\" y=\"{y:.2}\" width=\"{width:.2}\" height=\"{height:.2}\" stroke-width=\"0.35\"/>"
    ));
    titles(&mut out, &sheet, plan);
    legend(&mut out, plan);
    out.line("</svg>");
    out.0
}

/// Where the plan lies on the sheet.
struct Sheet {
    /// Left, top, width and height of what the plan is drawn in, mm.
    frame: [f64; 4],
    /// One to so many.
    scale: f64,
    /// What of the plan lies in the middle of it, m.
    middle: Point2,
}

impl Sheet {
    fn around(plan: &Plan) -> Sheet {
        let frame = [MARGIN, HEAD, SHEET[0] - 2.0 * MARGIN - LEGEND, SHEET[1] - HEAD - FOOT];
        let [low, high] = bounds(plan.file);
        let size = [0, 1].map(|axis| high[axis] - low[axis] + 2.0 * AROUND_M);
        let least = (size[0] * 1000.0 / frame[2]).max(size[1] * 1000.0 / frame[3]);
        // Past the last of them by whole tens of thousands.
        let scale = SCALES.into_iter().find(|scale| *scale >= least);
        let scale = scale.unwrap_or_else(|| (least / 10_000.0).ceil() * 10_000.0);
        Sheet { frame, scale, middle: [0, 1].map(|axis| 0.5 * (low[axis] + high[axis])) }
    }

    /// Millimetres of so many metres.
    fn mm(&self, metres: f64) -> f64 {
        metres * 1000.0 / self.scale
    }

    fn at(&self, [east, north]: Point2) -> Point2 {
        let [left, top, width, height] = self.frame;
        [left + 0.5 * width + self.mm(east - self.middle[0]), top + 0.5 * height - self.mm(north - self.middle[1])]
    }

    fn path(&self, points: &[Point2], closed: bool) -> String {
        let line: Vec<String> = points.iter().map(|p| self.at(*p)).map(|[x, y]| format!("{x:.2} {y:.2}")).collect();
        if line.is_empty() { String::new() } else { format!("M{}{}", line.join("L"), if closed { "Z" } else { "" }) }
    }
}

struct Out(String);

impl Out {
    fn line(&mut self, text: &str) {
        self.0.push_str(text);
        self.0.push('\n');
    }

    fn path(&mut self, line: &str, style: &str, name: &str) {
        self.line(&format!("<path d=\"{line}\"{style}><title>{}</title></path>", escaped(name)));
    }

    /// A word that stands out from what lies beneath it: its rim first, then its letters.
    fn word(&mut self, [x, y]: Point2, size: f64, style: &str, says: &str) {
        let short: String = says.chars().take(48).collect();
        let short = escaped(&short);
        let begun = format!("<text x=\"{x:.2}\" y=\"{y:.2}\" font-size=\"{size}\"{style}");
        self.line(&format!(
            "{begun} fill=\"none\" stroke=\"#ffffff\" stroke-width=\"0.7\" aria-hidden=\"true\">{short}</text>"
        ));
        self.line(&format!("{begun} fill=\"{INK}\" stroke=\"none\">{short}</text>"));
    }
}

fn covered(out: &mut Out, sheet: &Sheet, coverage: &[Coverage]) {
    out.line("<g id=\"coverage\" stroke=\"#3d8496\" stroke-width=\"0.12\">");
    for (one, tint) in coverage.iter().zip(TINTS) {
        let rings: String = one.areas.iter().flatten().map(|ring| sheet.path(ring, true)).collect();
        if !rings.is_empty() {
            out.path(&rings, &format!(" fill=\"{tint}\" fill-rule=\"evenodd\""), &coverage_layer(one));
        }
    }
    out.line("</g>");
}

fn places(out: &mut Out, sheet: &Sheet, plan: &Plan) {
    out.line("<g id=\"obstacles\">");
    for obstacle in &plan.file.obstacles {
        let fill = if obstacle.closed { " fill=\"#ece5d4\"" } else { "" };
        let dash = if obstacle.see_through > 0.5 { " stroke-dasharray=\"1.2 0.8\"" } else { "" };
        out.path(&sheet.path(obstacle.standing(), obstacle.closed), &format!("{fill}{dash}"), &obstacle.name);
    }
    out.line("</g>");
    out.line("<g id=\"private\" stroke=\"#7a3b8f\" stroke-dasharray=\"0.6 0.6\">");
    for place in &plan.file.private {
        let says = format!("{} ({})", place.name, layer_of(place));
        out.path(&sheet.path(&place.outline, place.closed), "", &says);
    }
    out.line("</g>");
    out.line("<g id=\"spots\">");
    for spot in &plan.file.spots {
        let [x, y] = sheet.at(spot.position);
        let mark = format!("M{:.2} {y:.2}h2.4M{x:.2} {:.2}v2.4", x - 1.2, y - 1.2);
        out.path(&mark, "", &spot.name);
    }
    out.line("</g>");
}

fn promises(out: &mut Out, sheet: &Sheet, plan: &Plan) {
    out.line("<g id=\"targets\">");
    for target in &plan.file.targets {
        let points = target.shape.points.as_slice();
        if target.shape.kind != ShapeKind::Point {
            let closed = target.shape.kind == ShapeKind::Area;
            out.path(&sheet.path(points, closed), " stroke-dasharray=\"1 0.8\"", &target.name);
        }
        let count = points.len().max(1) as f64;
        let middle = [0, 1].map(|axis| points.iter().map(|p| p[axis]).sum::<f64>() / count);
        let at = sheet.at(middle);
        mark(out, at, plan.verdict(target), &target.name);
        out.word([at[0] + 2.2, at[1] + 1.0], 2.6, "", &target.name);
    }
    out.line("</g>");
}

/// A verdict's mark: a full disc, a half one, a ring with a stroke, a broken ring.
fn mark(out: &mut Out, [x, y]: Point2, verdict: Option<Verdict>, name: &str) {
    let r = 1.5;
    let ring = |style: &str| format!("<circle cx=\"{x:.2}\" cy=\"{y:.2}\" r=\"{r}\" fill=\"#ffffff\"{style}/>");
    let says = verdict.map_or("not judged", Verdict::word);
    out.line(&format!("<g stroke-width=\"0.35\"><title>{}: {says}</title>", escaped(name)));
    match verdict {
        Some(Verdict::Kept) => {
            out.line(&format!("<circle cx=\"{x:.2}\" cy=\"{y:.2}\" r=\"{r}\" fill=\"#1b7a52\" stroke=\"#ffffff\"/>"));
            out.line(&format!("<path d=\"M{:.2} {y:.2}l0.5 0.6l0.9 -1.2\" stroke=\"#ffffff\"/>", x - 0.7));
        }
        Some(Verdict::Tight) => {
            out.line(&ring(" stroke=\"#9a5b00\""));
            let (top, bottom) = (y - r, y + r);
            let half = format!("M{x:.2} {top:.2}A{r} {r} 0 0 0 {x:.2} {bottom:.2}Z");
            out.line(&format!("<path d=\"{half}\" fill=\"#9a5b00\" stroke=\"none\"/>"));
        }
        Some(Verdict::Broken) => {
            out.line(&ring(" stroke=\"#b3261e\""));
            out.line(&format!("<path d=\"M{:.2} {:.2}l2.1 2.1\" stroke=\"#b3261e\"/>", x - 1.05, y - 1.05));
        }
        Some(Verdict::Unknown) | None => out.line(&ring(" stroke-dasharray=\"0.7 0.5\"")),
    }
    out.line("</g>");
}

fn cameras(out: &mut Out, sheet: &Sheet, plan: &Plan) {
    out.line("<g id=\"aims\" stroke-width=\"0.4\">");
    for (place, _, [from, to]) in plan.aims() {
        let ([x, y], there) = (sheet.at(from), sheet.at(to));
        let length = (there[0] - x).hypot(there[1] - y).max(1e-9);
        let [dx, dy] = [(there[0] - x) / length * 7.0, (there[1] - y) / length * 7.0];
        // A wedge, so that the way it looks can be told from a wall.
        let wedge =
            format!("M{x:.2} {y:.2}l{:.2} {:.2}l{:.2} {:.2}Z", dx - dy * 0.3, dy + dx * 0.3, dy * 0.6, -dx * 0.6);
        out.path(&wedge, " fill=\"#f2a900\" fill-opacity=\"0.55\"", &plan.file.cameras[place].name);
    }
    out.line("</g>");
    out.line("<g id=\"cameras\">");
    for camera in &plan.file.cameras {
        let [x, y] = sheet.at(camera.position);
        out.line(&format!(
            "<circle cx=\"{x:.2}\" cy=\"{y:.2}\" r=\"1.3\" fill=\"{INK}\" stroke=\"#ffffff\"><title>{}</title></circle>",
            escaped(&format!("{}, {}", camera.name, camera.model.name))
        ));
        out.word([x + 1.9, y - 1.1], 3.0, " font-weight=\"700\"", &camera.name);
    }
    out.line("</g>");
}

fn titles(out: &mut Out, sheet: &Sheet, plan: &Plan) {
    let [left, top, width, height] = sheet.frame;
    out.word([left, top - 4.0], 5.0, " font-weight=\"700\"", &plan.file.name);
    // A bar of a round length, about a quarter of the plan's width.
    let most = width * sheet.scale / 4000.0;
    let decade = 10.0_f64.powf(most.log10().floor());
    let length = [5.0, 2.0, 1.0].into_iter().map(|step| step * decade).find(|length| *length <= most).unwrap_or(decade);
    let (bar, y) = (sheet.mm(length), top + height + 5.0);
    out.line("<g id=\"scale\">");
    out.line(&format!("<path d=\"M{left:.2} {y:.2}v2h{bar:.2}v-2M{:.2} {y:.2}v2\"/>", left + 0.5 * bar));
    out.word([left + bar + 2.0, y + 2.0], 2.8, "", &format!("{length} m"));
    out.word([left + bar + 20.0, y + 2.0], 2.8, "", &format!("1 : {} on A4, printed at 100 %", sheet.scale));
    out.line("</g>");
    let [x, y] = [left + width - 7.0, top + 6.0];
    out.line("<g id=\"north\">");
    let arrow = format!("M{x:.2} {y:.2}l2.4 9l-2.4 -2l-2.4 2Z");
    out.line(&format!("<path d=\"{arrow}\" fill=\"{INK}\" stroke=\"#ffffff\"/>"));
    out.word([x, y - 1.0], 3.2, " font-weight=\"700\" text-anchor=\"middle\"", "N");
    out.line("</g>");
}

fn legend(out: &mut Out, plan: &Plan) {
    let x = SHEET[0] - MARGIN - LEGEND + 5.0;
    let mut y = HEAD + 4.0;
    out.line("<g id=\"legend\">");
    let heading = |out: &mut Out, says: &str, y: &mut f64| {
        out.word([x, *y], 3.2, " font-weight=\"700\"", says);
        *y += 5.0;
    };
    if !plan.coverage.is_empty() {
        let light = if plan.file.conditions.night { "by night" } else { "by day" };
        heading(out, &format!("Coverage, {light}, {HEIGHT_M} m up"), &mut y);
        for (one, tint) in plan.coverage.iter().zip(TINTS) {
            out.line(&format!("<rect x=\"{x}\" y=\"{:.2}\" width=\"6\" height=\"3\" fill=\"{tint}\"/>", y - 2.4));
            out.word([x + 8.0, y], 2.8, "", &format!("{} px/m and more: {}", one.px_per_m, one.task.word()));
            y += 4.4;
        }
        y += 3.0;
    }
    heading(out, "Promises", &mut y);
    for verdict in [Verdict::Kept, Verdict::Tight, Verdict::Broken, Verdict::Unknown] {
        mark(out, [x + 2.0, y - 1.0], Some(verdict), "Promise");
        let count = plan.verdicts.iter().filter(|(_, held)| *held == verdict).count();
        out.word([x + 8.0, y], 2.8, "", &format!("{}: {count}", verdict.word()));
        y += 4.4;
    }
    y += 3.0;
    heading(out, "Cameras", &mut y);
    let room = ((SHEET[1] - FOOT - y) / 4.0).floor().max(1.0) as usize;
    for camera in plan.file.cameras.iter().take(room) {
        out.word([x, y], 2.6, "", &format!("{}  {}, {:.2} m up", camera.name, camera.model.name, camera.height_m));
        y += 4.0;
    }
    if plan.file.cameras.len() > room {
        out.word([x, y], 2.6, "", &format!("and {} more", plan.file.cameras.len() - room));
    }
    out.line("</g>");
}

/// A text as XML writes it, without what XML cannot hold (XML 1.0, production 2, Char).
fn escaped(text: &str) -> String {
    let held = |c: &char| matches!(c, '\t' | '\n' | '\r' | ' '..='\u{d7ff}' | '\u{e000}'..='\u{fffd}' | '\u{10000}'..);
    let text: String = text.chars().filter(held).collect();
    text.replace('&', "&amp;").replace('<', "&lt;").replace('>', "&gt;").replace('"', "&quot;")
}
