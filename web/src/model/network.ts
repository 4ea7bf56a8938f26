/** Edits of the network: boxes, cables, the ways that cables take. */
import type { Cable, CablePath, Network, Node, NodeKind, Point, SiteFile } from "../core/types";
import { freshId, roundPoint } from "./points";

/** Everything of a site's network; empty where it has none. */
export const networkOf = (site: SiteFile): Required<Pick<Network, "nodes" | "cables" | "ways">> => ({
  nodes: site.network?.nodes ?? [],
  cables: site.network?.cables ?? [],
  ways: site.network?.ways ?? [],
});

/** The lists to change. */
function lists(site: SiteFile): { nodes: Node[]; cables: Cable[]; ways: CablePath[] } {
  const network = (site.network ??= {});
  return { nodes: (network.nodes ??= []), cables: (network.cables ??= []), ways: (network.ways ??= []) };
}

export const NODE_WORDS: Record<NodeKind, string> = {
  recorder: "Recorder",
  switch: "Switch",
  injector: "Injector",
  extender: "Extender",
  repeater: "Repeater",
  router: "Router",
  outlet: "Outlet",
};
export const NODE_KINDS = Object.keys(NODE_WORDS) as NodeKind[];

export const CABLE_WORDS: Record<Cable["kind"], string> = {
  cat5e: "Cat 5e",
  cat6: "Cat 6",
  cat6a: "Cat 6A",
  fibre: "Fibre",
  cord: "Cord",
  wireless: "Wireless",
};
export const WAY_WORDS: Record<CablePath["in"], string> = {
  wall: "on a wall",
  ceiling: "above a ceiling",
  conduit: "in a conduit",
  trench: "in a trench",
  air: "through the air",
};

/** How a box begins: what is usual of its kind. */
const BEGINS: Record<NodeKind, Partial<Node>> = {
  recorder: { ports: 8, budget_w: 120, port_class: 4, gives_power: true, disk_gb: 4000, height_m: 1 },
  switch: { ports: 8, budget_w: 120, port_class: 4, gives_power: true, height_m: 2 },
  injector: { ports: 2, budget_w: 60, port_class: 6, gives_power: true, height_m: 2 },
  extender: { ports: 3, power_class_in: 4, height_m: 3 },
  repeater: { ports: 2, power_class_in: 4, height_m: 3 },
  router: { ports: 4, height_m: 1 },
  outlet: { height_m: 0.3 },
};

const LETTERS: Record<NodeKind, string> = {
  recorder: "nvr",
  switch: "sw",
  injector: "in",
  extender: "ex",
  repeater: "rp",
  router: "rt",
  outlet: "out",
};

export function addNode(site: SiteFile, kind: NodeKind, at: Point): string {
  const { nodes } = lists(site);
  const alike = nodes.filter((node) => node.kind === kind).length;
  // Cables name boxes and cameras alike.
  const taken = new Set([...nodes, ...site.cameras].map((held) => held.id));
  let number = alike + 1;
  while (taken.has(`${LETTERS[kind]}${number}`)) number++;
  const id = `${LETTERS[kind]}${number}`;
  nodes.push({
    id,
    name: `${NODE_WORDS[kind]}${alike > 0 ? ` ${alike + 1}` : ""}`,
    kind,
    position: roundPoint(at),
    ...BEGINS[kind],
  });
  return id;
}

export const nodeOf = (site: SiteFile, id: string): Node | undefined =>
  site.network?.nodes?.find((node) => node.id === id);
export const cableOf = (site: SiteFile, id: string): Cable | undefined =>
  site.network?.cables?.find((cable) => cable.id === id);

export function moveNode(site: SiteFile, id: string, to: Point): void {
  const node = nodeOf(site, id);
  if (node) node.position = roundPoint(to);
}

/** Takes a box out, with the cables that end in it. */
export function removeNode(site: SiteFile, id: string): void {
  if (!site.network) return;
  site.network.nodes = (site.network.nodes ?? []).filter((node) => node.id !== id);
  uncable(site, id);
}

/** Takes the cables of a camera or box out. */
export function uncable(site: SiteFile, id: string): void {
  if (site.network?.cables?.some((cable) => cable.from === id || cable.to === id))
    site.network.cables = site.network.cables.filter((cable) => cable.from !== id && cable.to !== id);
}

/** A cable between two things; it begins at the camera, if one of them is one. */
export function addCable(site: SiteFile, from: string, to: string): string | null {
  const { cables } = lists(site);
  const isCamera = (id: string): boolean => site.cameras.some((camera) => camera.id === id);
  if (from === to || (isCamera(from) && isCamera(to))) return null;
  const id = freshId("k", cables);
  const outlet = [from, to].some((end) => nodeOf(site, end)?.kind === "outlet");
  const [begins, ends] = isCamera(to) && !isCamera(from) ? [to, from] : [from, to];
  cables.push({
    id,
    from: begins,
    to: ends,
    ...(outlet ? { kind: "cord" as const, volts: 12, ohm_per_m: 0.0214 } : { kind: "cat6" as const }),
  });
  return id;
}

export function removeCable(site: SiteFile, id: string): void {
  if (site.network?.cables) site.network.cables = site.network.cables.filter((cable) => cable.id !== id);
}

export function addPath(site: SiteFile, points: Point[]): string {
  const { ways } = lists(site);
  const id = freshId("w", ways);
  ways.push({ id, name: `Cable way ${ways.length + 1}`, in: "conduit", points: points.map(roundPoint) });
  return id;
}

export function removePath(site: SiteFile, id: string): void {
  if (site.network?.ways) site.network.ways = site.network.ways.filter((way) => way.id !== id);
}

/** Where an end of a cable is. */
export function endOf(site: SiteFile, id: string): Point | null {
  const held = site.cameras.find((camera) => camera.id === id) ?? nodeOf(site, id);
  return held ? (held.position as Point) : null;
}

/** What a camera or a box is called. */
export const nameOf = (site: SiteFile, id: string): string =>
  site.cameras.find((camera) => camera.id === id)?.name ?? nodeOf(site, id)?.name ?? id;

/** A cable as it is drawn: its ends with its corners between; none where an end is not there. */
export function lineOf(site: SiteFile, cable: Cable): Point[] | null {
  const [from, to] = [endOf(site, cable.from), endOf(site, cable.to)];
  return from && to ? [from, ...((cable.route ?? []) as Point[]), to] : null;
}
