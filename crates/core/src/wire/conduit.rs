//! Which cables run in which way, and how much of a conduit they fill.

use super::told::PathTold;
use crate::file::{Cable, CablePath, CableWay, Existing, Point2, SiteFile};
use crate::math::nearest_on;
use crate::verdict::Verdict;
use glam::DVec2;

/// The share of a conduit that one cable, two, or more may fill (US National Electrical Code, chapter 9, table 1).
const MOST_FILL: [f64; 3] = [0.53, 0.31, 0.40];
/// A cable that lies so near to a way along one of its stretches runs in it, m.
const ON_M: f64 = 0.05;

/// The most that so many cables may fill.
pub fn most_fill(cables: usize) -> f64 {
    MOST_FILL[cables.clamp(1, 3) - 1]
}

/// What is told of the ways of a site.
pub(super) fn paths_told(site: &SiteFile) -> Vec<PathTold> {
    let Some(network) = &site.network else { return vec![] };
    let ends = |cable: &Cable| [&cable.from, &cable.to].map(|id| end_of(site, id));
    let laid: Vec<(&Cable, Vec<Point2>)> = network
        .cables
        .iter()
        .filter(|cable| cable.existing != Some(Existing::Goes))
        .map(|cable| {
            let [from, to] = ends(cable);
            (cable, from.into_iter().chain(cable.route.iter().copied()).chain(to).collect())
        })
        .collect();
    let told = |path: &CablePath| {
        let inside: Vec<&Cable> =
            laid.iter().filter(|(_, route)| runs_in(route, &path.points)).map(|(cable, _)| *cable).collect();
        let wide = path.inside_mm.filter(|_| path.way == CableWay::Conduit && !inside.is_empty());
        let fill =
            wide.map(|wide| inside.iter().map(|cable| cable.kind.width_mm().powi(2)).sum::<f64>() / (wide * wide));
        let most = fill.map(|_| most_fill(inside.len()));
        PathTold {
            id: path.id.clone(),
            cables: inside.iter().map(|cable| cable.id.clone()).collect(),
            fill,
            most_fill: most,
            verdict: match fill.zip(most) {
                Some((fill, most)) => Verdict::of(fill <= most, fill <= most),
                None if path.way == CableWay::Conduit && !inside.is_empty() => Verdict::Unknown,
                None => Verdict::Kept,
            },
        }
    };
    network.ways.iter().map(told).collect()
}

/// Where a camera or a box is.
pub fn end_of(site: &SiteFile, id: &str) -> Option<Point2> {
    let camera = || site.cameras.iter().find(|camera| camera.id == id).map(|camera| camera.position);
    let nodes = site.network.iter().flat_map(|network| &network.nodes);
    let mut nodes = nodes.filter(|node| node.id == id);
    camera().or_else(|| nodes.next().map(|node| node.position))
}

/// Whether a route lies on a stretch of a way: both ends of the shorter of the two stretches on the longer, and not in one point.
fn runs_in(route: &[Point2], way: &[Point2]) -> bool {
    let length = |s: &[Point2]| (s[1][0] - s[0][0]).hypot(s[1][1] - s[0][1]);
    let on = |s: &[Point2], of: &[Point2]| length(s) > 2.0 * ON_M && s.iter().all(|point| apart(*point, of) <= ON_M);
    route.windows(2).any(|leg| way.windows(2).any(|stretch| on(leg, stretch) || on(stretch, leg)))
}

fn apart(point: Point2, of: &[Point2]) -> f64 {
    let at = DVec2::from_array(point);
    nearest_on(at, DVec2::from_array(of[0]), DVec2::from_array(of[1])).distance(at)
}
