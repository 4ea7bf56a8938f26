//! The ways that cables can take on a site, as a graph: drawn ways, walls, ceilings, and over open ground where nothing else leads.

use super::prices::Laying;
use crate::file::{CableWay, Existing, ObstacleKind, Point2, SiteFile};
use crate::math::nearest_on;
use glam::DVec2;
use petgraph::algo::dijkstra;
use petgraph::graph::{NodeIndex, UnGraph};
use petgraph::visit::EdgeRef;
use std::collections::HashMap;

/// Points nearer than this are one, m.
const ONE_M: f64 = 0.05;
/// A thing so near to a way lies on it, m.
const ON_M: f64 = 0.5;
/// How many ways a thing is led to, the nearest ones.
const LED_TO: usize = 4;
/// How many other things, and how many other walls, something is led to over open ground.
const NEIGHBOURS: usize = 8;
/// How deep a trench is, m (common practice, no source).
pub const TRENCH_M: f64 = 0.5;

/// A straight stretch that a cable can take.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Leg {
    /// How long it is, m.
    pub metres: f64,
    /// How a cable goes there.
    pub way: CableWay,
    /// What laying a cable along it costs, digging left aside.
    pub costs: f64,
    /// What digging it costs, once for all cables in it.
    pub dig: f64,
    /// How high it is, m, where that is said.
    pub height_m: Option<f64>,
}

/// A stretch before it is cut at what meets it.
#[derive(Clone, Copy)]
struct Stretch {
    from: DVec2,
    to: DVec2,
    way: CableWay,
    /// Whether it was drawn and is there already: no digging.
    there: bool,
    height_m: Option<f64>,
}

/// The ways of a site.
pub struct Paths {
    graph: UnGraph<DVec2, Leg>,
    places: HashMap<(i64, i64), NodeIndex>,
}

/// A route between two things.
#[derive(Clone, Debug, PartialEq)]
pub struct Route {
    /// Its corners between its ends, m.
    pub corners: Vec<Point2>,
    /// How most of it goes: through the air or in the ground wherever some of it does.
    pub way: CableWay,
    /// The height that it goes at, where that is said.
    pub height_m: Option<f64>,
    /// What laying it costs, digging left aside.
    pub costs: f64,
    /// Metres along walls and through the air.
    pub aloft_m: f64,
    /// What must be dug: the stretches by their ends, and what each costs.
    pub digs: Vec<(usize, f64)>,
}

impl Paths {
    /// The ways of a site between some things of it.
    pub fn of(site: &SiteFile, things: &[Point2], laying: &Laying) -> Paths {
        let mut paths = Paths { graph: UnGraph::new_undirected(), places: HashMap::new() };
        let buildings = Building::all(site);
        let mut stretches = drawn(site);
        stretches.extend(walls(site));
        let things: Vec<DVec2> = things.iter().map(|at| DVec2::from_array(*at)).collect();
        let leads = leads(&things, &stretches, &buildings);
        let open = over_open_ground(&things, &stretches, &buildings);
        stretches.extend(leads);
        let whole = stretches.len();
        stretches.extend(open);
        for (place, stretch) in stretches.iter().enumerate() {
            paths.add(place, stretch, &stretches[..whole], laying);
        }
        for at in things {
            paths.place(at);
        }
        paths
    }

    fn place(&mut self, at: DVec2) -> NodeIndex {
        let key = ((at.x / ONE_M).round() as i64, (at.y / ONE_M).round() as i64);
        *self.places.entry(key).or_insert_with(|| self.graph.add_node(at))
    }

    /// Adds a stretch, cut where others meet it.
    fn add(&mut self, own: usize, stretch: &Stretch, others: &[Stretch], laying: &Laying) {
        let along = stretch.to - stretch.from;
        if along.length() < ONE_M {
            return;
        }
        let mut shares = vec![0.0, 1.0];
        for (place, other) in others.iter().enumerate() {
            if place != own {
                shares.extend(meet(stretch, other));
            }
        }
        shares.sort_by(f64::total_cmp);
        for pair in shares.windows(2) {
            let (from, to) = (stretch.from + along * pair[0], stretch.from + along * pair[1]);
            let metres = from.distance(to);
            let (a, b) = (self.place(from), self.place(to));
            if a == b || metres < 1e-9 {
                continue;
            }
            let dig = if stretch.way == CableWay::Trench && !stretch.there { laying.dig * metres } else { 0.0 };
            let leg = Leg {
                metres,
                way: stretch.way,
                costs: laying.per_m(stretch.way) * metres,
                dig,
                height_m: stretch.height_m,
            };
            let held = self.graph.find_edge(a, b);
            match held {
                Some(held) if self.graph[held].costs + self.graph[held].dig <= leg.costs + leg.dig => {}
                Some(held) => self.graph[held] = leg,
                None => drop(self.graph.add_edge(a, b, leg)),
            }
        }
    }

    /// The cheapest routes from one thing to each of others; none to what nothing leads to.
    pub fn routes(&self, from: Point2, to: &[Point2]) -> Vec<Option<Route>> {
        let known = |at: Point2| {
            let key = ((at[0] / ONE_M).round() as i64, (at[1] / ONE_M).round() as i64);
            self.places.get(&key).copied()
        };
        let Some(from) = known(from) else { return to.iter().map(|_| None).collect() };
        let far: HashMap<NodeIndex, f64> =
            dijkstra(&self.graph, from, None, |leg| leg.weight().costs + leg.weight().dig).into_iter().collect();
        to.iter().map(|to| self.back(from, known(*to)?, &far)).collect()
    }

    /// The route that the distances from its beginning tell, from its end back.
    fn back(&self, from: NodeIndex, to: NodeIndex, far: &HashMap<NodeIndex, f64>) -> Option<Route> {
        far.get(&to)?;
        let (mut at, mut legs, mut corners) = (to, vec![], vec![]);
        while at != from {
            let edges = self.graph.edges(at).filter_map(|edge| {
                let weight = edge.weight().costs + edge.weight().dig;
                Some((edge, far.get(&edge.target())? + weight))
            });
            // Where a stretch costs nothing it leads no nearer: the way itself must shrink.
            let (edge, _) =
                edges.filter(|(edge, _)| far[&edge.target()] < far[&at]).min_by(|a, b| a.1.total_cmp(&b.1))?;
            legs.push((edge.id().index(), *edge.weight()));
            at = edge.target();
            corners.push(self.graph[at]);
        }
        corners.pop();
        corners.reverse();
        let corners = straightened([vec![self.graph[from]], corners, vec![self.graph[to]]].concat());
        let of = |way: CableWay| legs.iter().filter(|(_, leg)| leg.way == way).map(|(_, leg)| leg.metres).sum::<f64>();
        let whole = [CableWay::Air, CableWay::Trench].into_iter().find(|way| of(*way) > 1.0);
        let most = || {
            let kinds = [CableWay::Wall, CableWay::Ceiling, CableWay::Conduit, CableWay::Trench, CableWay::Air];
            kinds.into_iter().max_by(|a, b| of(*a).total_cmp(&of(*b)))
        };
        let way = if legs.is_empty() { CableWay::Wall } else { whole.or_else(most)? };
        Some(Route {
            height_m: legs.iter().filter(|(_, leg)| leg.way == way).find_map(|(_, leg)| leg.height_m),
            way,
            corners,
            costs: legs.iter().map(|(_, leg)| leg.costs).sum(),
            aloft_m: of(CableWay::Air) + of(CableWay::Wall),
            digs: legs.iter().filter(|(_, leg)| leg.dig > 0.0).map(|(place, leg)| (*place, leg.dig)).collect(),
        })
    }
}

/// The corners between two ends, without those that lie on a straight line.
fn straightened(way: Vec<DVec2>) -> Vec<Point2> {
    let mut kept: Vec<DVec2> = vec![];
    for at in way {
        while let [.., before, last] = kept[..]
            && nearest_on(last, before, at).distance(last) < 1e-6
        {
            kept.pop();
        }
        kept.push(at);
    }
    let last = kept.len().saturating_sub(1);
    kept.get(1..last).unwrap_or_default().iter().map(|at| [neat(at.x), neat(at.y)]).collect()
}

fn neat(value: f64) -> f64 {
    (value * 100.0).round() / 100.0
}

/// The shares of a stretch at which another one meets it.
fn meet(of: &Stretch, other: &Stretch) -> Vec<f64> {
    let (along, across) = (of.to - of.from, other.to - other.from);
    let turn = along.perp_dot(across);
    let mut found = vec![];
    if turn.abs() > 1e-9 {
        let gap = other.from - of.from;
        let (share, its) = (gap.perp_dot(across) / turn, gap.perp_dot(along) / turn);
        let near = |share: f64, long: f64| (-ONE_M..=long + ONE_M).contains(&(share * long));
        if near(share, along.length()) && near(its, across.length()) {
            found.push(share.clamp(0.0, 1.0));
        }
    }
    // Along each other: its ends.
    for end in [other.from, other.to] {
        if nearest_on(end, of.from, of.to).distance(end) <= ONE_M {
            found.push(((end - of.from).dot(along) / along.length_squared()).clamp(0.0, 1.0));
        }
    }
    found
}

/// A building: cables go above its ceilings.
struct Building {
    outline: Vec<DVec2>,
}

impl Building {
    fn all(site: &SiteFile) -> Vec<Building> {
        let buildings = site.obstacles.iter().filter(|o| o.kind == ObstacleKind::Building && o.closed);
        buildings.map(|o| Building { outline: o.outline.iter().map(|at| DVec2::from_array(*at)).collect() }).collect()
    }

    fn edges(&self) -> impl Iterator<Item = (DVec2, DVec2)> {
        let next = self.outline.iter().cycle().skip(1);
        self.outline.iter().copied().zip(next.copied()).take(self.outline.len())
    }

    /// Whether a point is inside or on its wall.
    fn holds(&self, at: DVec2) -> bool {
        let crossed = self
            .edges()
            .filter(|(a, b)| (a.y > at.y) != (b.y > at.y) && at.x < (b.x - a.x) * (at.y - a.y) / (b.y - a.y) + a.x);
        crossed.count() % 2 == 1 || self.edges().any(|(a, b)| nearest_on(at, a, b).distance(at) <= ON_M)
    }

    /// Whether a straight line runs through its inside.
    fn crossed(&self, from: DVec2, to: DVec2) -> bool {
        let along = to - from;
        let cut = |(a, b): (DVec2, DVec2)| {
            let turn = along.perp_dot(b - a);
            if turn.abs() < 1e-9 {
                return false;
            }
            let (share, its) = ((a - from).perp_dot(b - a) / turn, (a - from).perp_dot(along) / turn);
            let long = along.length();
            share * long > ONE_M && (1.0 - share) * long > ONE_M && (0.0..=1.0).contains(&its)
        };
        self.edges().any(cut)
    }
}

fn drawn(site: &SiteFile) -> Vec<Stretch> {
    let ways = site.network.iter().flat_map(|network| &network.ways).filter(|way| way.existing != Some(Existing::Goes));
    ways.flat_map(|path| {
        let there = path.existing.is_some();
        path.points.windows(2).map(move |pair| Stretch {
            from: DVec2::from_array(pair[0]),
            to: DVec2::from_array(pair[1]),
            way: path.way,
            there,
            height_m: path.height_m,
        })
    })
    .collect()
}

fn walls(site: &SiteFile) -> Vec<Stretch> {
    let walls = site.obstacles.iter().filter(|o| matches!(o.kind, ObstacleKind::Building | ObstacleKind::Wall));
    walls
        .flat_map(|o| {
            let corners: Vec<DVec2> = o.outline.iter().map(|at| DVec2::from_array(*at)).collect();
            let count = if o.closed { corners.len() } else { corners.len().saturating_sub(1) };
            (0..count).map(move |place| Stretch {
                from: corners[place],
                to: corners[(place + 1) % corners.len()],
                way: CableWay::Wall,
                there: false,
                height_m: None,
            })
        })
        .collect()
}

/// What leads things to the ways beside them, and inside a building straight to its corners and to each other.
fn leads(things: &[DVec2], stretches: &[Stretch], buildings: &[Building]) -> Vec<Stretch> {
    let lead = |from: DVec2, to: DVec2, way: CableWay| Stretch { from, to, way, there: false, height_m: None };
    let mut found = vec![];
    for at in things {
        let inside = buildings.iter().find(|building| building.holds(*at));
        let mut near: Vec<(f64, DVec2, CableWay)> = stretches
            .iter()
            .map(|stretch| {
                let on = nearest_on(*at, stretch.from, stretch.to);
                (on.distance(*at), on, stretch.way)
            })
            .collect();
        near.sort_by(|a, b| a.0.total_cmp(&b.0));
        let open = |on: DVec2| !buildings.iter().any(|building| building.crossed(*at, on));
        let near = near.into_iter().filter(|(far, on, _)| *far <= ON_M || inside.is_some() || open(*on));
        for (far, on, way) in near.take(LED_TO) {
            let way = if far <= ON_M {
                way
            } else if inside.is_some() {
                CableWay::Ceiling
            } else {
                CableWay::Trench
            };
            found.push(lead(*at, on, way));
        }
        if let Some(building) = inside {
            let others = things.iter().filter(|other| *other != at && building.holds(**other));
            found.extend(building.outline.iter().chain(others).map(|to| lead(*at, *to, CableWay::Ceiling)));
        }
    }
    found
}

/// Straight over open ground: from each thing to its neighbours, and from each wall or drawn way to the nearest ones.
fn over_open_ground(things: &[DVec2], stretches: &[Stretch], buildings: &[Building]) -> Vec<Stretch> {
    let mut found = vec![];
    let mut add = |from: DVec2, to: DVec2| {
        let clear = !buildings.iter().any(|building| building.crossed(from, to));
        let indoors = buildings.iter().any(|building| building.holds(from) && building.holds(to));
        if clear && !indoors {
            found.push(Stretch { from, to, way: CableWay::Trench, there: false, height_m: None });
        }
    };
    for (place, at) in things.iter().enumerate() {
        let mut others: Vec<DVec2> = things.iter().enumerate().filter(|(o, _)| *o != place).map(|(_, o)| *o).collect();
        others.sort_by(|a, b| a.distance_squared(*at).total_cmp(&b.distance_squared(*at)));
        for other in others.into_iter().take(NEIGHBOURS) {
            add(*at, other);
        }
    }
    for stretch in stretches {
        for end in [stretch.from, stretch.to] {
            let mut near: Vec<DVec2> = stretches.iter().map(|other| nearest_on(end, other.from, other.to)).collect();
            near.sort_by(|a, b| a.distance_squared(end).total_cmp(&b.distance_squared(end)));
            near.dedup_by(|a, b| a.distance(*b) < ONE_M);
            for other in near.into_iter().filter(|other| other.distance(end) > ONE_M).take(NEIGHBOURS) {
                add(end, other);
            }
        }
    }
    found
}
