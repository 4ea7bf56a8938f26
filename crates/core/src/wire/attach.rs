//! The legal ways to wire one camera, or two with one cable, to a place. Whether a way is legal is asked of the same rules that tell of a
//! finished network: each is put up by itself and looked at.

use super::attach_box::{direct_cable, new_box};
use super::middle::middle_of;
use super::paths::{Route, TRENCH_M};
use super::places::{KITS, Place, Stands};
use super::prices::Laying;
use super::wired::wired;
use crate::file::{Cable, CableKind, CableWay, CameraFile, Network, Node, NodeKind, Point2, SiteFile, WiringRules};
use crate::verdict::Verdict;

/// The id that the place itself has while a way is looked at.
const HERE: &str = "here";

/// A legal way to wire one or two cameras to a place.
#[derive(Clone, Debug, PartialEq)]
pub struct Attachment {
    /// The cameras, by their places among those that are not wired.
    pub cameras: Vec<usize>,
    /// The place.
    pub place: usize,
    /// The highest class that it takes of a port; 0 where it takes no power.
    pub class: u32,
    /// New boxes. Their ids are `a`, `b`; the place is [`HERE`].
    pub nodes: Vec<Node>,
    /// New cables.
    pub cables: Vec<Cable>,
    /// What it costs, digging left aside.
    pub costs: f64,
    /// What must be dug for it.
    pub digs: Vec<(usize, f64)>,
    /// Metres of cable, and of these along walls and through the air.
    pub metres: f64,
    /// Metres along walls and through the air.
    pub aloft_m: f64,
    /// What it draws of the place, W.
    pub watts: f64,
    /// What it sends, Mbit/s, at most.
    pub mbps: f64,
    /// How many extended-reach ports it takes.
    pub extended: f64,
}

/// A way under the hand.
struct Built {
    nodes: Vec<Node>,
    cables: Vec<Cable>,
    extra: f64,
    routes: Vec<Route>,
}

/// What all ways are tried on.
pub struct Bench<'a> {
    /// The limits.
    pub rules: &'a WiringRules,
    /// What laying costs.
    pub laying: &'a Laying,
}

/// A cable along a route.
pub fn cable_along(id: &str, [from, to]: [&str; 2], kind: CableKind, route: &Route) -> Cable {
    let height = if route.way == CableWay::Trench { route.height_m.or(Some(-TRENCH_M)) } else { route.height_m };
    Cable {
        route: route.corners.clone(),
        route_height_m: height,
        length_m: None,
        way: Some(route.way),
        ..direct_cable(id, [from, to], kind, 0.0)
    }
}

impl Bench<'_> {
    /// The legal ways of one camera to a place along a route, each cheaper one first.
    pub fn single(&self, place: (usize, &Place), camera: (usize, &CameraFile), route: &Route) -> Vec<Attachment> {
        let id = camera.1.id.as_str();
        let straight = |kind: CableKind| cable_along("k", [id, HERE], kind, route);
        let plain =
            Built { nodes: vec![], cables: vec![straight(CableKind::Cat6)], extra: 0.0, routes: vec![route.clone()] };
        let mut tried = vec![plain];
        let gives = match &place.1.stands {
            Stands::Box { node, .. } => node.gives_power,
            Stands::Free { .. } => true,
        };
        let mut injector = |built: &Built| {
            let mut node = new_box("a", NodeKind::Injector, "Injector", place.1.position, place.1.height_m);
            (node.gives_power, node.port_class, node.budget_w, node.ports) = (true, Some(8), Some(90.0), Some(2));
            let mut cables = built.cables.clone();
            cables[0].to = "a".to_owned();
            cables.push(direct_cable("u", ["a", HERE], CableKind::Cat6, 1.0));
            tried.push(Built { nodes: vec![node], cables, extra: self.laying.small_box, routes: built.routes.clone() });
        };
        let class_here = class_of(place.1);
        let class = camera_class(camera.1);
        if !gives || class_here.is_some_and(|here| here < class) {
            injector(&Built {
                nodes: vec![],
                cables: vec![straight(CableKind::Cat6)],
                extra: 0.0,
                routes: vec![route.clone()],
            });
        }
        if place.1.left.extended >= 1.0 {
            let mut cable = straight(CableKind::Cat6);
            cable.extended = true;
            tried.push(Built { nodes: vec![], cables: vec![cable], extra: 0.0, routes: vec![route.clone()] });
        }
        tried.extend(self.halfway(place.1, camera.1, route));
        self.legal(place, &[camera], tried)
    }

    /// A repeater half-way: the cable begins anew there.
    fn halfway(&self, place: &Place, camera: &CameraFile, route: &Route) -> Option<Built> {
        let ends = (camera.position, place.position);
        let (at, before, after) = middle_of(ends, &route.corners);
        let height = 0.5 * (camera.ground_m + camera.height_m + place.height_m);
        let mut node = new_box("a", NodeKind::Repeater, "Repeater", at, height);
        let class = camera_class(camera);
        // What it passes on and draws itself.
        node.power_class_in = Some((class + 1).min(8));
        let part = |corners: Vec<Point2>, id: &str, ends: [&str; 2]| {
            cable_along(id, ends, CableKind::Cat6, &Route { corners, ..route.clone() })
        };
        let cables = vec![part(before, "k", [&camera.id, "a"]), part(after, "u", ["a", HERE])];
        Some(Built { nodes: vec![node], cables, extra: self.laying.small_box, routes: vec![route.clone()] })
    }

    /// The legal way of two cameras with one cable: a box at the first one feeds both.
    pub fn pair(
        &self,
        place: (usize, &Place),
        first: (usize, &CameraFile),
        second: (usize, &CameraFile),
        [to_place, between]: [&Route; 2],
    ) -> Vec<Attachment> {
        let height = first.1.ground_m + first.1.height_m;
        let mut node = new_box("a", NodeKind::Extender, "Extender, 1 in, 2 out", first.1.position, height);
        (node.ports, node.power_class_in) = (Some(3), Some(class_for_two(first.1, second.1)));
        let cables = vec![
            direct_cable("k", [&first.1.id, "a"], CableKind::Cat6, 1.0),
            cable_along("l", [&second.1.id, "a"], CableKind::Cat6, between),
            cable_along("u", ["a", HERE], CableKind::Cat6, to_place),
        ];
        let built = Built {
            nodes: vec![node],
            cables,
            extra: self.laying.small_box,
            routes: vec![to_place.clone(), between.clone()],
        };
        self.legal(place, &[first, second], vec![built])
    }

    /// Those of the ways that are legal.
    fn legal(&self, place: (usize, &Place), cameras: &[(usize, &CameraFile)], tried: Vec<Built>) -> Vec<Attachment> {
        let of = |built: Built| -> Option<Attachment> {
            // A place where nothing stands yet offers each kind of switch: the least that will do counts.
            let classes: Vec<u32> = match &place.1.stands {
                Stands::Box { node, .. } => vec![node.port_class.unwrap_or(8)],
                Stands::Free { .. } => {
                    let mut classes: Vec<u32> = KITS.iter().map(|kit| kit.port_class).collect();
                    classes.dedup();
                    classes.sort_unstable();
                    classes.dedup();
                    classes
                }
            };
            classes.into_iter().find_map(|class| self.stands(place, cameras, &built, class))
        };
        tried.into_iter().filter_map(of).collect()
    }

    /// A way put up by itself on a box of a class: what it takes, if nothing of it is broken.
    fn stands(
        &self,
        (at, place): (usize, &Place),
        cameras: &[(usize, &CameraFile)],
        built: &Built,
        class: u32,
    ) -> Option<Attachment> {
        let mut here = match &place.stands {
            Stands::Box { node, .. } => (**node).clone(),
            Stands::Free { .. } => {
                let mut node = new_box(HERE, NodeKind::Switch, "switch", place.position, place.height_m);
                node.gives_power = true;
                node
            }
        };
        // Ports and power are counted over all that hangs there, not here.
        (here.id, here.kind, here.others) = (HERE.to_owned(), NodeKind::Recorder, vec![]);
        (here.ports, here.budget_w, here.port_class) = (None, None, here.gives_power.then_some(class));
        let mut site = SiteFile::empty("");
        site.rules.wiring = *self.rules;
        site.cameras = cameras.iter().map(|(_, camera)| (*camera).clone()).collect();
        let extended_here = matches!(&place.stands, Stands::Box { node, .. } if node.kind == NodeKind::Recorder);
        if !extended_here && built.cables.iter().any(|cable| cable.extended) {
            // A switch's own ports reach less far than a recorder's.
            here.kind = NodeKind::Switch;
            let up = Node { ports: None, ..new_box("top", NodeKind::Recorder, "top", place.position, place.height_m) };
            site.network = Some(Network { nodes: vec![up], cables: vec![], ways: vec![] });
        }
        let network = site.network.get_or_insert_default();
        if here.kind == NodeKind::Switch {
            network.cables.push(direct_cable("top", [HERE, "top"], CableKind::Cat6, 1.0));
        }
        network.nodes.push(here);
        network.nodes.extend(built.nodes.iter().cloned());
        network.cables.extend(built.cables.iter().cloned());
        let told = wired(&site);
        let broken = |verdict: Verdict| verdict == Verdict::Broken;
        if !told.faults.is_empty()
            || told.cables.iter().any(|cable| broken(cable.verdict))
            || told.nodes.iter().any(|node| broken(node.verdict))
        {
            return None;
        }
        let watts = told.nodes.iter().find(|node| node.id == HERE)?.drawn_w;
        let metres = told.cables.iter().filter(|cable| cable.id != "top").map(|cable| cable.length_m).sum();
        Some(Attachment {
            cameras: cameras.iter().map(|(place, _)| *place).collect(),
            place: at,
            class: if watts > 0.0 { class } else { 0 },
            nodes: built.nodes.clone(),
            cables: built.cables.clone(),
            costs: built.extra + built.routes.iter().map(|route| route.costs).sum::<f64>(),
            digs: built.routes.iter().flat_map(|route| route.digs.iter().copied()).collect(),
            metres,
            aloft_m: built.routes.iter().map(|route| route.aloft_m).sum(),
            watts,
            mbps: told.runs.iter().map(|run| run.most_mbps).sum(),
            extended: built.cables.iter().filter(|cable| cable.extended).count() as f64,
        })
    }
}

/// The class of a box's ports; none where nobody has said it, or nothing stands there.
fn class_of(place: &Place) -> Option<u32> {
    match &place.stands {
        Stands::Box { node, .. } => node.port_class,
        Stands::Free { .. } => None,
    }
}

/// The class that a camera takes.
fn camera_class(camera: &CameraFile) -> u32 {
    super::wired::draws(camera).1.unwrap_or(3)
}

/// The class that covers two cameras and the box between.
fn class_for_two(first: &CameraFile, second: &CameraFile) -> u32 {
    use crate::equipment::power_class::PowerClass;
    let most = |camera: &CameraFile| {
        let (watts, class) = super::wired::draws(camera);
        let of_class = class.and_then(PowerClass::of).map(|of| of.source_w);
        of_class.or(watts).unwrap_or(15.4)
    };
    PowerClass::for_watts(most(first) + most(second) + 3.0).unwrap_or(8)
}
