//! Routing: what is not wired yet, wired the cheapest legal way that is found: which cable to which box, where a switch is put down, who
//! shares a cable. An integer program over the legal ways of each camera (see [`attach`](super::attach)); routes of single cables are
//! shortest paths over the site's ways.

use super::attach::{Attachment, Bench, cable_along};
use super::attach_box::new_box;
use super::greedy::{First, Stock};
use super::length::{End, length_m};
use super::paths::{Paths, Route};
use super::places::{KITS, Place, Stands, places};
use super::prices::Laying;
use super::told::Wired;
use super::wired::wired;
use crate::file::{
    Cable, CableKind, CableWay, CameraFile, Existing, Fault, Network, Node, NodeKind, PatchOp, Point2, SiteFile,
    fresh_id,
};
use microlp::{ComparisonOp, LinearExpr, OptimizationDirection, Problem, SolveOptions, Variable};
use serde::{Deserialize, Serialize};
use serde_json::{Value, json};
use std::collections::HashMap;
use utoipa::ToSchema;

/// Up to so many cameras the best answer is proved; beyond it the search ends earlier and says how far from the best it may be.
pub const PROVED_UP_TO: usize = 12;
/// How many nodes of the search are looked at, at most: where it is to be proved, and else.
const MOST_NODES: [u64; 2] = [5_000, 60];
/// Where losses are counted each of them takes longer.
const MOST_NODES_LOST: u64 = 15;
/// A search of many cameras ends so near to its bound.
const NEAR: f64 = 0.01;
/// A switch for the higher classes costs so many times a plain one (common practice, no source).
const HIGH_POWER: f64 = 1.5;
/// The best answer is proved to so small a share.
const PROVED: f64 = 1e-5;
/// So many rings are ruled out, one by one.
const MOST_RINGS: usize = 50;
/// Two cameras share a cable only where they are this near to each other, m.
const SHARE_M: f64 = 60.0;
/// With how many neighbours a camera may share a cable.
const SHARE_WITH: usize = 3;

/// What counts most.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RouteWish {
    /// What it costs.
    #[default]
    Cheapest,
    /// The fewest metres along walls and through the air.
    FewestAloft,
    /// The fewest cameras lost together when one box or one link fails.
    LeastLost,
}

/// A camera that no legal way leads to.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Unmet {
    /// Its id.
    pub camera: String,
    /// Why not.
    pub why: String,
}

/// An answer of routing.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Routed {
    /// What counted most.
    pub wish: RouteWish,
    /// What it costs: money where all prices are known, else metres along a wall.
    pub costs: f64,
    /// Whether that is money.
    pub priced: bool,
    /// New cable, m.
    pub metres: f64,
    /// Of its routes, metres along walls and through the air.
    pub aloft_m: f64,
    /// New boxes.
    pub boxes: usize,
    /// What the cameras and what is lost on the way to them draw of the boxes together, W.
    pub watts: f64,
    /// The most cameras that are lost with one box or one link behind the recorder.
    pub lost_most: usize,
    /// How far from the best it may be, a share; 0 where it is proved.
    pub gap: f64,
    /// The change.
    pub patch: Vec<PatchOp>,
    /// What cannot be wired.
    pub unmet: Vec<Unmet>,
}

/// Wires what is not wired yet.
///
/// # Errors
/// A site without a recorder: nothing can lead anywhere.
pub fn route(site: &SiteFile, wish: RouteWish) -> Result<Routed, Fault> {
    Router::of(site)?.solved(wish)
}

/// A link between places, not laid yet.
struct Link {
    from: usize,
    to: usize,
    cable: Cable,
    costs: f64,
    digs: Vec<(usize, f64)>,
    aloft_m: f64,
}

/// All that there is to choose from.
struct Router<'a> {
    site: &'a SiteFile,
    before: Wired,
    laying: Laying,
    cameras: Vec<&'a CameraFile>,
    places: Vec<Place>,
    attachments: Vec<Attachment>,
    links: Vec<Link>,
    /// The cameras that hang on each box already.
    below: Vec<usize>,
}

/// The cameras that no cable goes to.
fn unwired(site: &SiteFile) -> Vec<&CameraFile> {
    let cables: Vec<&Cable> = site
        .network
        .iter()
        .flat_map(|network| &network.cables)
        .filter(|cable| cable.kind != CableKind::Cord && cable.existing != Some(Existing::Goes))
        .collect();
    let wired = |id: &str| cables.iter().any(|cable| cable.from == id || cable.to == id);
    site.cameras.iter().filter(|camera| !camera.goes() && !wired(&camera.id)).collect()
}

impl<'a> Router<'a> {
    fn of(site: &'a SiteFile) -> Result<Router<'a>, Fault> {
        let before = wired(site);
        let laying = Laying::of(&site.rules.wiring.prices);
        let places = places(site, &before);
        if !places.iter().any(Place::records) {
            return Err(Fault::new("network.nodes", "there is no recorder: put it on the plan first"));
        }
        let cameras = unwired(site);
        let things: Vec<Point2> =
            cameras.iter().map(|camera| camera.position).chain(places.iter().map(|place| place.position)).collect();
        let paths = Paths::of(site, &things, &laying);
        let mut router = Router {
            site,
            before,
            laying,
            below: vec![0; places.len()],
            cameras,
            places,
            attachments: vec![],
            links: vec![],
        };
        router.count_below();
        router.attach(&paths);
        router.link(&paths);
        Ok(router)
    }

    /// The cameras that hang on boxes which have no way to a recorder yet.
    fn count_below(&mut self) {
        let network = self.site.network.iter().flat_map(|network| &network.cables);
        let cables: Vec<&Cable> = network.filter(|cable| cable.kind != CableKind::Cord).collect();
        for (place, of) in self.places.iter().enumerate() {
            let Stands::Box { node, reached: false, .. } = &of.stands else { continue };
            let hangs = |camera: &&CameraFile| {
                cables.iter().any(|cable| {
                    (cable.from == node.id && cable.to == camera.id) || (cable.to == node.id && cable.from == camera.id)
                })
            };
            self.below[place] = self.site.cameras.iter().filter(hangs).count();
        }
    }

    fn attach(&mut self, paths: &Paths) {
        let bench = Bench { rules: &self.site.rules.wiring, laying: &self.laying };
        let at: Vec<Point2> = self.cameras.iter().map(|camera| camera.position).collect();
        let between: Vec<Vec<(usize, Route)>> =
            at.iter().enumerate().map(|(i, _)| self.neighbours(paths, i, &at)).collect();
        for (p, place) in self.places.iter().enumerate() {
            let routes: Vec<Option<Route>> = paths.routes(place.position, &at);
            // They are told from the place; a cable begins at its camera.
            let routes: Vec<Option<Route>> = routes.into_iter().map(|route| route.map(turned)).collect();
            for (c, route) in routes.iter().enumerate() {
                let Some(route) = route else { continue };
                let mut found = bench.single((p, place), (c, self.cameras[c]), route);
                for (other, across) in &between[c] {
                    found.extend(bench.pair(
                        (p, place),
                        (c, self.cameras[c]),
                        (*other, self.cameras[*other]),
                        [route, across],
                    ));
                }
                self.attachments.extend(found);
            }
        }
        self.leave_out_the_worse();
    }

    /// Leaves out what is in nothing better than another way of the same cameras to the same place.
    fn leave_out_the_worse(&mut self) {
        let digs_within = |a: &Attachment, digs: &[(usize, f64)]| a.digs.iter().all(|dig| digs.contains(dig));
        let no_worse = |a: &Attachment, b: &Attachment| {
            a.costs <= b.costs
                && a.class <= b.class
                && a.watts <= b.watts + 1e-9
                && a.aloft_m <= b.aloft_m
                && a.extended <= b.extended
                && a.mbps <= b.mbps
                && digs_within(a, &b.digs)
        };
        let mut by: HashMap<(usize, Vec<usize>), Vec<Attachment>> = HashMap::new();
        for attachment in std::mem::take(&mut self.attachments) {
            let mut cameras = attachment.cameras.clone();
            cameras.sort_unstable();
            let held = by.entry((attachment.place, cameras)).or_default();
            if !held.iter().any(|other| no_worse(other, &attachment)) {
                held.retain(|other| !no_worse(&attachment, other));
                held.push(attachment);
            }
        }
        // A cable that two share is no use where ports are not scarce and a cable each is no worse in anything else.
        let plenty = |place: usize| self.places[place].left.ports >= self.cameras.len() as f64 + 8.0;
        let singles = |place: usize, camera: usize| by.get(&(place, vec![camera])).into_iter().flatten();
        let mut kept: Vec<Attachment> = vec![];
        for ((place, cameras), found) in &by {
            for pair in found {
                let worse = cameras.len() == 2
                    && (plenty(*place) || matches!(self.places[*place].stands, Stands::Free { .. }))
                    && singles(*place, cameras[0]).any(|one| {
                        singles(*place, cameras[1]).any(|other| {
                            one.costs + other.costs <= pair.costs
                                && one.class.max(other.class) <= pair.class
                                && one.watts + other.watts <= pair.watts
                                && one.aloft_m + other.aloft_m <= pair.aloft_m
                                && one.extended + other.extended <= pair.extended
                                && digs_within(one, &pair.digs)
                                && digs_within(other, &pair.digs)
                        })
                    });
                if !worse {
                    kept.push(pair.clone());
                }
            }
        }
        kept.sort_by(|a, b| (a.place, &a.cameras).cmp(&(b.place, &b.cameras)).then(a.costs.total_cmp(&b.costs)));
        self.attachments = kept;
    }

    /// The cameras nearest to one, with the routes from them to it.
    fn neighbours(&self, paths: &Paths, of: usize, at: &[Point2]) -> Vec<(usize, Route)> {
        let far = |i: usize| (at[i][0] - at[of][0]).hypot(at[i][1] - at[of][1]);
        let mut near: Vec<usize> = (0..at.len()).filter(|i| *i != of && far(*i) <= SHARE_M).collect();
        near.sort_by(|a, b| far(*a).total_cmp(&far(*b)));
        near.truncate(SHARE_WITH);
        let to: Vec<Point2> = near.iter().map(|i| at[*i]).collect();
        let routes = paths.routes(at[of], &to);
        near.into_iter().zip(routes).filter_map(|(i, route)| Some((i, turned(route?)))).collect()
    }

    /// The links that places without a way to a recorder could have.
    fn link(&mut self, paths: &Paths) {
        let rules = &self.site.rules.wiring;
        let to: Vec<Point2> = self.places.iter().map(|place| place.position).collect();
        let seeks = |place: &Place| !matches!(place.stands, Stands::Box { reached: true, .. });
        for (from, place) in self.places.iter().enumerate().filter(|(_, place)| seeks(place)) {
            for (to, route) in paths.routes(place.position, &to).into_iter().enumerate() {
                let Some(route) = route.filter(|_| to != from) else { continue };
                let copper = cable_along("u", ["a", "b"], CableKind::Cat6, &route);
                let ends = [place, &self.places[to]].map(|p| End { at: p.position, height_m: p.height_m });
                let metres = length_m(&copper, ends[0], ends[1], rules);
                let outdoors = matches!(route.way, CableWay::Trench | CableWay::Air);
                let reaches = metres <= if outdoors { rules.sure_m } else { rules.channel_m };
                let kind = if reaches { CableKind::Cat6 } else { CableKind::Fibre };
                self.links.push(Link {
                    from,
                    to,
                    cable: Cable { kind, ..copper },
                    costs: route.costs + if reaches { 0.0 } else { self.laying.fibre_ends },
                    digs: route.digs.clone(),
                    aloft_m: route.aloft_m,
                });
            }
        }
    }

    fn solved(&self, wish: RouteWish) -> Result<Routed, Fault> {
        let mut asked = Asked { wish, lost_most: None, rings: vec![] };
        if wish == RouteWish::LeastLost {
            // First how few can be lost together, then the cheapest that loses no more.
            let (chosen, _) = self.search(&Asked { lost_most: Some(Lost::Fewest), ..asked.clone() })?;
            asked.lost_most = Some(Lost::AtMost(chosen.lost));
        }
        for _ in 0..MOST_RINGS {
            let (chosen, gap) = self.search(&asked)?;
            let Some(ring) = self.ring(&chosen) else { return Ok(self.told(wish, &chosen, gap)) };
            asked.rings.push(ring);
        }
        Err(no_answer())
    }

    /// The best choice that is found, and how far from the best it may be.
    fn search(&self, asked: &Asked) -> Result<(Chosen, f64), Fault> {
        let program = Program::of(self, asked);
        let proves = self.cameras.len() <= PROVED_UP_TO;
        let mut options = SolveOptions::default();
        let longer = !proves && asked.lost_most.is_some();
        options.node_limit = Some(if longer { MOST_NODES_LOST } else { MOST_NODES[usize::from(!proves)] });
        options.mip_gap = if proves { PROVED } else { NEAR };
        options.warm_start = Some(program.from(&self.first()));
        let outcome = program.problem.solve_with(options);
        let solution = outcome.ok().and_then(|outcome| outcome.into_solution().ok()).ok_or_else(no_answer)?;
        let holds = |variable: &Variable| solution.var_value(*variable) > 0.5;
        let chosen = Chosen {
            attachments: (0..self.attachments.len()).filter(|a| holds(&program.attach[*a])).collect(),
            links: (0..self.links.len()).filter(|l| holds(&program.link[*l])).collect(),
            kits: (0..self.places.len())
                .filter_map(|p| Some((p, program.kits[p].iter().find(|(_, variable)| holds(variable))?.0)))
                .collect(),
            unmet: (0..self.cameras.len()).filter(|c| holds(&program.slack[*c])).collect(),
            lost: program.most.map_or(0.0, |most| solution.var_value(most).round()),
        };
        Ok((chosen, solution.gap().unwrap_or(1.0).abs()))
    }

    /// A first answer, by hand.
    fn first(&self) -> First {
        let reached = |place: &Place| matches!(place.stands, Stands::Box { reached: true, .. });
        let costs = |link: &Link| link.costs + link.digs.iter().map(|dig| dig.1).sum::<f64>();
        let cheapest = |from: usize| {
            let links = self.links.iter().enumerate();
            let links = links.filter(|(_, link)| link.from == from && reached(&self.places[link.to]));
            let (place, link) = links.min_by(|a, b| costs(a.1).total_cmp(&costs(b.1)))?;
            Some((place, link.to, costs(link)))
        };
        Stock {
            places: &self.places,
            attachments: &self.attachments,
            link: (0..self.places.len()).map(cheapest).collect(),
            kits: (0..KITS.len()).map(|kit| self.kit_costs(kit)).collect(),
            cameras: self.cameras.len(),
            free: self.site.rules.wiring.free_share,
            must_open: self.below.iter().map(|below| *below > 0).collect(),
        }
        .first()
    }

    /// Places whose links lead round in a ring.
    fn ring(&self, chosen: &Chosen) -> Option<Vec<usize>> {
        let up: HashMap<usize, usize> = chosen.links.iter().map(|l| (self.links[*l].from, self.links[*l].to)).collect();
        up.keys().find_map(|first| {
            let (mut at, mut way) = (*first, vec![]);
            while let Some(next) = up.get(&at) {
                if let Some(began) = way.iter().position(|seen| *seen == at) {
                    return Some(way.split_off(began));
                }
                way.push(at);
                at = *next;
            }
            None
        })
    }

    fn told(&self, wish: RouteWish, chosen: &Chosen, gap: f64) -> Routed {
        let (nodes, cables) = self.built(chosen);
        let mut after = self.site.clone();
        let network = after.network.get_or_insert_default();
        network.nodes.extend(nodes.iter().cloned());
        network.cables.extend(cables.iter().cloned());
        let told = wired(&after);
        let costs: f64 = chosen.attachments.iter().map(|a| self.attachments[*a].costs).sum::<f64>()
            + chosen.links.iter().map(|l| self.links[*l].costs).sum::<f64>()
            + chosen.kits.values().map(|kit| self.kit_costs(*kit)).sum::<f64>()
            + self.digs(chosen).values().sum::<f64>();
        let new = |id: &str| cables.iter().any(|cable| cable.id == id);
        let aloft = chosen.attachments.iter().map(|a| self.attachments[*a].aloft_m).sum::<f64>()
            + chosen.links.iter().map(|l| self.links[*l].aloft_m).sum::<f64>();
        let total = |wired: &Wired| wired.cables.iter().filter_map(|c| Some(c.watts? + c.watts_lost?)).sum::<f64>();
        Routed {
            wish,
            costs,
            priced: self.laying.priced,
            metres: told.cables.iter().filter(|cable| new(&cable.id)).map(|cable| cable.length_m).sum(),
            // A sum of nothing is minus zero.
            aloft_m: aloft + 0.0,
            boxes: nodes.len(),
            watts: total(&told) - total(&self.before),
            lost_most: told.links.iter().map(|link| link.cameras.len()).max().unwrap_or(0),
            gap: if gap <= PROVED { 0.0 } else { gap },
            patch: patch_of(self.site.network.as_ref(), nodes, cables),
            unmet: chosen.unmet.iter().map(|c| self.why_not(*c)).collect(),
        }
    }

    fn kit_costs(&self, kit: usize) -> f64 {
        let plain = if KITS[kit].ports > 8 { self.laying.switch_16 } else { self.laying.switch_8 };
        if KITS[kit].port_class > 4 { plain * HIGH_POWER } else { plain }
    }

    fn digs(&self, chosen: &Chosen) -> HashMap<usize, f64> {
        let of = chosen.attachments.iter().flat_map(|a| &self.attachments[*a].digs);
        of.chain(chosen.links.iter().flat_map(|l| &self.links[*l].digs)).copied().collect()
    }

    /// The boxes and cables of a choice, with ids that the site does not have yet.
    fn built(&self, chosen: &Chosen) -> (Vec<Node>, Vec<Cable>) {
        let held = self.site.network.as_ref();
        let mut node_ids: Vec<String> = held.iter().flat_map(|n| &n.nodes).map(|node| node.id.clone()).collect();
        node_ids.extend(self.site.cameras.iter().map(|camera| camera.id.clone()));
        let mut cable_ids: Vec<String> = held.iter().flat_map(|n| &n.cables).map(|cable| cable.id.clone()).collect();
        let fresh = |letter: &str, ids: &mut Vec<String>| {
            let id = fresh_id(letter, ids.iter().map(String::as_str));
            ids.push(id.clone());
            id
        };
        let (mut nodes, mut cables) = (vec![], vec![]);
        let mut at: HashMap<usize, String> = HashMap::new();
        for (p, place) in self.places.iter().enumerate() {
            match &place.stands {
                Stands::Box { node, .. } => drop(at.insert(p, node.id.clone())),
                Stands::Free { beside } => {
                    let Some(kit) = chosen.kits.get(&p).map(|kit| KITS[*kit]) else { continue };
                    let id = fresh("sw", &mut node_ids);
                    let name = format!("{} at {beside}", kit.name).chars().take(200).collect::<String>();
                    let mut node = new_box(&id, NodeKind::Switch, &name, place.position, place.height_m);
                    (node.ports, node.budget_w) = (Some(kit.ports), Some(kit.budget_w));
                    (node.port_class, node.gives_power) = (Some(kit.port_class), true);
                    nodes.push(node);
                    at.insert(p, id);
                }
            }
        }
        for l in &chosen.links {
            let link = &self.links[*l];
            let ends = [&at[&link.from], &at[&link.to]];
            let id = fresh("k", &mut cable_ids);
            cables.push(Cable { id, from: ends[0].clone(), to: ends[1].clone(), ..link.cable.clone() });
        }
        for a in &chosen.attachments {
            let attachment = &self.attachments[*a];
            let mut names: HashMap<String, String> = HashMap::new();
            names.insert("here".to_owned(), at[&attachment.place].clone());
            for node in &attachment.nodes {
                let id = fresh("b", &mut node_ids);
                names.insert(node.id.clone(), id.clone());
                nodes.push(Node { id, ..node.clone() });
            }
            for cable in &attachment.cables {
                let named = |id: &String| names.get(id).cloned().unwrap_or_else(|| id.clone());
                let id = fresh("k", &mut cable_ids);
                cables.push(Cable { id, from: named(&cable.from), to: named(&cable.to), ..cable.clone() });
            }
        }
        (nodes, cables)
    }

    /// Why a camera has no legal way: what stands against the nearest place.
    fn why_not(&self, camera: usize) -> Unmet {
        let of = self.cameras[camera];
        let any = self.attachments.iter().any(|attachment| attachment.cameras.contains(&camera));
        let far = |place: &Place| (place.position[0] - of.position[0]).hypot(place.position[1] - of.position[1]);
        let near = self.places.iter().map(far).fold(f64::INFINITY, f64::min);
        let why = if any {
            "ports, power or links of the boxes in reach do not suffice: another outlet or a larger switch is wanted"
                .to_owned()
        } else {
            format!(
                "no legal cable leads to it: {near:.0} m to the nearest box or outlet as the crow flies. Put an outlet nearer to it"
            )
        };
        Unmet { camera: of.id.clone(), why }
    }
}

/// What is asked of the program.
#[derive(Clone)]
struct Asked {
    wish: RouteWish,
    lost_most: Option<Lost>,
    /// Places that links may not lead round in a ring.
    rings: Vec<Vec<usize>>,
}

/// How many cameras may be lost together.
#[derive(Clone, Copy)]
enum Lost {
    /// As few as can be.
    Fewest,
    /// So many at most.
    AtMost(f64),
}

fn no_answer() -> Fault {
    Fault::new("network", "no way to wire it was found in the time that there is")
}

/// What was chosen.
struct Chosen {
    attachments: Vec<usize>,
    links: Vec<usize>,
    /// The kit at each place where one is put down.
    kits: HashMap<usize, usize>,
    unmet: Vec<usize>,
    /// The most cameras on one link, where that counted.
    lost: f64,
}

/// A route told from its other end.
fn turned(mut route: Route) -> Route {
    route.corners.reverse();
    route
}

fn patch_of(network: Option<&Network>, nodes: Vec<Node>, cables: Vec<Cable>) -> Vec<PatchOp> {
    let add = |path: &str, value: Value| PatchOp { op: "add", path: path.to_owned(), value: Some(value) };
    if nodes.is_empty() && cables.is_empty() {
        return vec![];
    }
    let Some(network) = network else {
        return vec![add("/network", json!({"nodes": nodes, "cables": cables}))];
    };
    // A list that is left out of the file is none to append to: an empty one is put there whole.
    let list = |path: &str, held: bool, things: Vec<Value>| match (held, things.is_empty()) {
        (_, true) => vec![],
        (false, _) => vec![add(path, Value::Array(things))],
        (true, _) => things.into_iter().map(|thing| add(&format!("{path}/-"), thing)).collect(),
    };
    let of_nodes = nodes.iter().map(|node| json!(node)).collect();
    let of_cables = cables.iter().map(|cable| json!(cable)).collect();
    [
        list("/network/nodes", !network.nodes.is_empty(), of_nodes),
        list("/network/cables", !network.cables.is_empty(), of_cables),
    ]
    .concat()
}

/// The integer program.
struct Program {
    problem: Problem,
    attach: Vec<Variable>,
    link: Vec<Variable>,
    slack: Vec<Variable>,
    /// The most cameras on one link, where that counts.
    most: Option<Variable>,
    /// Whether a box is used that is there and leads nowhere.
    used: Vec<Option<Variable>>,
    /// The kits of each place with their variables.
    kits: Vec<Vec<(usize, Variable)>>,
}

/// An expression that is built up term by term; terms of one variable add up.
#[derive(Default)]
struct Sum(HashMap<Variable, f64>);

impl Sum {
    fn add(&mut self, variable: Variable, times: f64) {
        *self.0.entry(variable).or_insert(0.0) += times;
    }

    fn expr(&self) -> LinearExpr {
        let mut terms: Vec<(Variable, f64)> = self.0.iter().map(|(variable, times)| (*variable, *times)).collect();
        terms.retain(|(_, times)| *times != 0.0);
        terms.sort_by_key(|(variable, _)| variable.idx());
        terms.into_iter().collect()
    }
}

impl Program {
    fn of(router: &Router, asked: &Asked) -> Program {
        let mut problem = Problem::new(OptimizationDirection::Minimize);
        let all: f64 = router.attachments.iter().map(|a| a.costs).fold(1.0, f64::max);
        // In shares of the dearest cable, so that figures stay of one size.
        let weigh = |costs: f64, aloft_m: f64| match (asked.lost_most, asked.wish) {
            (Some(Lost::Fewest), _) => 0.0,
            (_, RouteWish::FewestAloft) => aloft_m / 100.0 + 1e-3 * costs / all,
            _ => costs / all,
        };
        let unmet = 1_000.0;
        let attach: Vec<Variable> =
            router.attachments.iter().map(|a| problem.add_binary_var(weigh(a.costs, a.aloft_m))).collect();
        let link: Vec<Variable> =
            router.links.iter().map(|l| problem.add_binary_var(weigh(l.costs, l.aloft_m))).collect();
        let slack: Vec<Variable> = router.cameras.iter().map(|_| problem.add_binary_var(unmet)).collect();
        let kits: Vec<Vec<(usize, Variable)>> = router
            .places
            .iter()
            .map(|place| match place.stands {
                Stands::Free { .. } => {
                    (0..KITS.len()).map(|k| (k, problem.add_binary_var(weigh(router.kit_costs(k), 0.0)))).collect()
                }
                Stands::Box { .. } => vec![],
            })
            .collect();
        // A box that is there and leads nowhere is used or not.
        let used: Vec<Option<Variable>> = router
            .places
            .iter()
            .zip(&router.below)
            .map(|(place, below)| match place.stands {
                Stands::Box { reached: false, .. } => Some(problem.add_integer_var(0.0, (i32::from(*below > 0), 1))),
                _ => None,
            })
            .collect();
        let most = asked.lost_most.map(|lost| match lost {
            Lost::Fewest => problem.add_integer_var(1.0, (0, i32::MAX)),
            Lost::AtMost(most) => problem.add_var(0.0, (most, most)),
        });
        let mut program = Program { problem, attach, link, slack, most, used, kits };
        program.cover(router);
        program.open(router);
        program.hold(router);
        program.flow(router);
        program.no_rings(router, &asked.rings);
        program.dig(router, &weigh);
        program
    }

    /// What the integer variables are in a first answer.
    fn from(&self, first: &First) -> Vec<(Variable, f64)> {
        let set = |variables: &[Variable], chosen: &[usize]| -> Vec<(Variable, f64)> {
            variables.iter().enumerate().map(|(i, v)| (*v, f64::from(u8::from(chosen.contains(&i))))).collect()
        };
        let mut start =
            [set(&self.attach, &first.attachments), set(&self.link, &first.links), set(&self.slack, &first.left)]
                .concat();
        for (p, kits) in self.kits.iter().enumerate() {
            start.extend(kits.iter().map(|(kit, v)| (*v, f64::from(u8::from(first.kits[p] == Some(*kit))))));
            start.extend(self.used[p].map(|v| (v, f64::from(u8::from(first.used[p])))));
        }
        start
    }

    /// Each camera has one way, or none.
    fn cover(&mut self, router: &Router) {
        for (c, slack) in self.slack.iter().enumerate() {
            let mut sum = Sum::default();
            sum.add(*slack, 1.0);
            for (a, attachment) in router.attachments.iter().enumerate() {
                if attachment.cameras.contains(&c) {
                    sum.add(self.attach[a], 1.0);
                }
            }
            self.problem.add_constraint(sum.expr(), ComparisonOp::Eq, 1.0);
        }
    }

    /// What opens a place, as a sum: one of its kits, or its box in use.
    fn opens(&self, place: usize, class: u32) -> Sum {
        let mut sum = Sum::default();
        for (kit, variable) in &self.kits[place] {
            if KITS[*kit].port_class >= class {
                sum.add(*variable, 1.0);
            }
        }
        if let Some(used) = self.used[place] {
            sum.add(used, 1.0);
        }
        sum
    }

    /// Only what is open is used, and what is open leads on.
    fn open(&mut self, router: &Router) {
        let seeks = |place: usize| !self.kits[place].is_empty() || self.used[place].is_some();
        let mut rows = vec![];
        for (a, attachment) in router.attachments.iter().enumerate().filter(|(_, a)| seeks(a.place)) {
            let mut sum = self.opens(attachment.place, attachment.class);
            sum.add(self.attach[a], -1.0);
            rows.push((sum, ComparisonOp::Ge, 0.0));
        }
        for place in (0..router.places.len()).filter(|place| seeks(*place)) {
            let mut one = Sum::default();
            self.kits[place].iter().for_each(|(_, variable)| one.add(*variable, 1.0));
            if !self.kits[place].is_empty() {
                rows.push((one, ComparisonOp::Le, 1.0));
            }
            let mut leads = self.opens(place, 0);
            for (l, link) in router.links.iter().enumerate() {
                if link.from == place {
                    leads.add(self.link[l], -1.0);
                }
                if link.to == place {
                    let mut to = self.opens(place, 0);
                    to.add(self.link[l], -1.0);
                    rows.push((to, ComparisonOp::Ge, 0.0));
                }
            }
            rows.push((leads, ComparisonOp::Eq, 0.0));
        }
        for (sum, op, right) in rows {
            self.problem.add_constraint(sum.expr(), op, right);
        }
    }

    /// Ports, power and extended ports of each place.
    fn hold(&mut self, router: &Router) {
        let free = 1.0 - router.site.rules.wiring.free_share;
        for (p, place) in router.places.iter().enumerate() {
            let [mut ports, mut watts, mut extended] = [Sum::default(), Sum::default(), Sum::default()];
            for (a, attachment) in router.attachments.iter().enumerate().filter(|(_, a)| a.place == p) {
                ports.add(self.attach[a], 1.0);
                watts.add(self.attach[a], attachment.watts / 10.0);
                extended.add(self.attach[a], attachment.extended);
            }
            let of_place = (0..router.links.len()).filter(|l| router.links[*l].to == p || router.links[*l].from == p);
            of_place.for_each(|l| ports.add(self.link[l], 1.0));
            for (kit, variable) in &self.kits[p] {
                ports.add(*variable, -(free * f64::from(KITS[*kit].ports) + 1e-9).floor());
                watts.add(*variable, -free * KITS[*kit].budget_w / 10.0);
            }
            for (sum, left) in
                [(ports, place.left.ports), (watts, place.left.watts / 10.0), (extended, place.left.extended)]
            {
                if left.is_finite() && !sum.0.is_empty() {
                    self.problem.add_constraint(sum.expr(), ComparisonOp::Le, left);
                }
            }
        }
    }

    /// What each place sends on: its cameras, counted where that counts, and their load where it could be too much.
    fn flow(&mut self, router: &Router) {
        let count = (router.cameras.len() + router.below.iter().sum::<usize>()) as f64;
        let load: f64 =
            router.cameras.iter().map(|c| super::rate::rate_of(c, &router.site.rules.wiring).between[1]).sum();
        let speed = super::wired::PORT_MBPS;
        let least = router.places.iter().filter_map(|place| match place.stands {
            Stands::Box { up: Some((_, left)), .. } => Some(left),
            _ => None,
        });
        let tight = load > least.fold(speed, f64::min);
        if self.most.is_some() {
            self.flows(router, count, |attachment| attachment.cameras.len() as f64, &|_| count, self.most);
        }
        if tight {
            // In tenths of a link.
            self.flows(router, 10.0, |attachment| attachment.mbps / speed * 10.0, &|left| left / speed * 10.0, None);
        }
    }

    /// Links lead from each place to one other, never round: no two to each other, and none round a ring that was found.
    fn no_rings(&mut self, router: &Router, rings: &[Vec<usize>]) {
        let pairs = router.links.iter().filter(|link| link.from < link.to).map(|link| vec![link.from, link.to]);
        for ring in pairs.chain(rings.iter().cloned()) {
            let mut sum = Sum::default();
            for (l, link) in router.links.iter().enumerate() {
                if ring.contains(&link.from) && ring.contains(&link.to) {
                    sum.add(self.link[l], 1.0);
                }
            }
            self.problem.add_constraint(sum.expr(), ComparisonOp::Le, ring.len() as f64 - 1.0);
        }
    }

    fn flows(
        &mut self,
        router: &Router,
        most_of_a_link: f64,
        sends: impl Fn(&Attachment) -> f64,
        most_of_a_laid_one: &dyn Fn(f64) -> f64,
        most: Option<Variable>,
    ) {
        let mut out: Vec<Sum> = router.places.iter().map(|_| Sum::default()).collect();
        for (l, link) in router.links.iter().enumerate() {
            let flow = self.problem.add_var(0.0, (0.0, most_of_a_link));
            let mut sum = Sum::default();
            sum.add(flow, 1.0);
            sum.add(self.link[l], -most_of_a_link);
            self.problem.add_constraint(sum.expr(), ComparisonOp::Le, 0.0);
            out[link.from].add(flow, 1.0);
            out[link.to].add(flow, -1.0);
            self.bound_by(flow, most);
        }
        for (p, place) in router.places.iter().enumerate() {
            if let Stands::Box { up: Some((to, left)), .. } = &place.stands {
                let flow = self.problem.add_var(0.0, (0.0, most_of_a_laid_one(*left)));
                out[p].add(flow, 1.0);
                out[*to].add(flow, -1.0);
                self.bound_by(flow, most);
            }
        }
        for p in (0..router.places.len()).filter(|p| !router.places[*p].records()) {
            for (a, attachment) in router.attachments.iter().enumerate().filter(|(_, a)| a.place == p) {
                out[p].add(self.attach[a], -sends(attachment));
            }
            // Those that hang there are counted where they are not yet.
            self.problem.add_constraint(out[p].expr(), ComparisonOp::Eq, router.below[p] as f64);
        }
    }

    fn bound_by(&mut self, flow: Variable, most: Option<Variable>) {
        if let Some(most) = most {
            let mut sum = Sum::default();
            sum.add(flow, 1.0);
            sum.add(most, -1.0);
            self.problem.add_constraint(sum.expr(), ComparisonOp::Le, 0.0);
        }
    }

    /// A trench is dug once.
    fn dig(&mut self, router: &Router, weigh: &dyn Fn(f64, f64) -> f64) {
        let mut users: HashMap<usize, (f64, Vec<Variable>)> = HashMap::new();
        let of_attachments = router.attachments.iter().zip(&self.attach).map(|(a, variable)| (&a.digs, *variable));
        let of_links = router.links.iter().zip(&self.link).map(|(l, variable)| (&l.digs, *variable));
        for (digs, variable) in of_attachments.chain(of_links) {
            for (leg, costs) in digs {
                users.entry(*leg).or_insert((*costs, vec![])).1.push(variable);
            }
        }
        // Legs that the same cables use are one.
        let mut together: HashMap<Vec<usize>, (f64, Vec<Variable>)> = HashMap::new();
        for (costs, by) in users.into_values() {
            let mut key: Vec<usize> = by.iter().map(|variable| variable.idx()).collect();
            key.sort_unstable();
            key.dedup();
            together.entry(key).or_insert((0.0, by)).0 += costs;
        }
        let mut together: Vec<_> = together.into_iter().collect();
        together.sort_by(|a, b| a.0.cmp(&b.0));
        for (_, (costs, by)) in together {
            let dug = self.problem.add_var(weigh(costs, 0.0), (0.0, 1.0));
            for variable in by {
                let mut sum = Sum::default();
                sum.add(variable, 1.0);
                sum.add(dug, -1.0);
                self.problem.add_constraint(sum.expr(), ComparisonOp::Le, 0.0);
            }
        }
    }
}
