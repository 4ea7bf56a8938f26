/** What a hand does on the Wire plan, as edits of the site. */
import type { NodeKind, Point, SiteFile } from "../../core/types";
import { useSite } from "../../keep/store";
import { moveThing, removeThing } from "../../keep/things";
import { addCable, addNode, addPath, cableOf, nameOf, networkOf } from "../../model/network";
import { roundPoint } from "../../model/points";
import { edgesOf, footOn, toEdge } from "../../model/snap";
import { usePlanView } from "../../plan/planView";
import { take } from "./held";
import type { WireActions } from "./marks";
import { useWireView } from "./wireView";

/** What is so near pulls a box or a corner to it, px. */
const PULL = 10;
/** A tap so near to a camera or a box means it, px. */
const NEAR = 24;

const { edit } = useSite.getState();
const siteNow = (): SiteFile | undefined => useSite.getState().open?.site;

/** Where a hand means to be: on a drawn way, on a wall, on another run; the nearest of them. */
export function pulled(site: SiteFile, at: Point, but: string | null = null): Point {
  const reach = PULL / usePlanView.getState().scale;
  const { ways, cables } = networkOf(site);
  const runs = cables.filter((cable) => cable.id !== but).map((cable) => cable.route ?? []);
  const edges = [
    ...ways.filter((way) => way.id !== but).flatMap((way) => edgesOf(way.points, false)),
    ...(site.obstacles ?? [])
      .filter((held) => held.kind === "building" || held.kind === "wall")
      .flatMap((held) => edgesOf(held.outline, held.closed !== false)),
    ...runs.flatMap((route) => edgesOf(route, false)),
  ];
  const corner = edges.flat().find((end) => Math.hypot(end[0] - at[0], end[1] - at[1]) <= reach);
  if (corner) return roundPoint(corner);
  const near = edges.filter((edge) => toEdge(edge, at) <= reach).sort((a, b) => toEdge(a, at) - toEdge(b, at))[0];
  return roundPoint(near ? footOn(near, at).at : at);
}

/** The corners of a cable or a way to change, without the ends of a cable. */
function cornersOf(site: SiteFile, kind: "cable" | "path", id: string): Point[] | undefined {
  if (kind === "path") return site.network?.ways?.find((way) => way.id === id)?.points as Point[] | undefined;
  const cable = cableOf(site, id);
  if (!cable) return undefined;
  return (cable.route ??= []) as Point[];
}

/** A corner's place in its list: a cable's first corner is its end, which is not in it. */
const placeIn = (kind: "cable" | "path", place: number): number => (kind === "cable" ? place - 1 : place);

export const wireActions: WireActions = {
  onTake: (kind, id) => {
    const site = siteNow();
    const { placing, set } = useWireView.getState();
    if (!site) return;
    if (placing?.what === "cable" && (kind === "node" || kind === "camera")) return join(id);
    if (placing) set({ placing: null, drawn: [] });
    take({ kind, id }, site);
  },
  onMoveNode: (node, to, gesture) => {
    const site = siteNow();
    if (site) moveThing("node")(node, pulled(site, to), gesture);
  },
  onCorner: (kind, id, place, to, gesture) => {
    const site = siteNow();
    if (!site) return;
    const at = pulled(site, to, id);
    edit(
      "Move a corner",
      (draft) => {
        const corners = cornersOf(draft, kind, id);
        if (corners?.[placeIn(kind, place)]) corners[placeIn(kind, place)] = at;
      },
      gesture,
    );
  },
  onNewCorner: (kind, id, place, at) =>
    edit("Add a corner", (draft) => {
      cornersOf(draft, kind, id)?.splice(placeIn(kind, place) + 1, 0, roundPoint(at));
    }),
  onRemoveCorner: (kind, id, place) =>
    edit("Take a corner out", (draft) => {
      const corners = cornersOf(draft, kind, id);
      // A way has two ends at least.
      if (corners && (kind === "cable" || corners.length > 2)) corners.splice(placeIn(kind, place), 1);
    }),
  onRemove: (kind, thing) => {
    const site = siteNow();
    removeThing(kind, thing);
    if (site) take(null, site);
  },
};

/** The first end of a cable, or the second: then it is laid. */
function join(id: string): void {
  const { placing, set } = useWireView.getState();
  if (placing?.what !== "cable") return;
  if (placing.from === null) return set({ placing: { what: "cable", from: id } });
  let made = null as string | null;
  const { from } = placing;
  edit("Lay a cable", (site) => {
    made = addCable(site, from, id);
  });
  const site = siteNow();
  set({ placing: null });
  if (made && site) take({ kind: "cable", id: made }, site);
}

/** What a tap on the plan does while something is being put down. */
export function tapped(at: Point): void {
  const site = siteNow();
  const { placing, drawn, set } = useWireView.getState();
  if (!site || !placing) return;
  if (placing.what === "node") return putNode(placing.kind, pulled(site, at));
  if (placing.what === "path") return set({ drawn: [...drawn, pulled(site, at)] });
  const reach = NEAR / usePlanView.getState().scale;
  const ends = [...networkOf(site).nodes, ...site.cameras].map(({ id, position }) => ({
    id,
    far: Math.hypot((position[0] ?? 0) - at[0], (position[1] ?? 0) - at[1]),
  }));
  const near = ends.filter(({ far }) => far <= reach).sort((a, b) => a.far - b.far)[0];
  if (near) join(near.id);
}

function putNode(kind: NodeKind, at: Point): void {
  let made = "";
  edit(`Add a ${kind}`, (site) => {
    made = addNode(site, kind, at);
  });
  useWireView.getState().set({ placing: null });
  const site = siteNow();
  if (site && made) take({ kind: "node", id: made }, site);
}

/** The way that was drawn is put on the plan. */
export function finishPath(): void {
  const { drawn, set } = useWireView.getState();
  set({ placing: null, drawn: [] });
  if (drawn.length < 2) return;
  let made = "";
  edit("Draw a cable way", (site) => {
    made = addPath(site, drawn);
  });
  const site = siteNow();
  if (site && made) take({ kind: "path", id: made }, site);
}

/** What the next tap does, in words. */
export function tapWords(site: SiteFile): string | null {
  const { placing } = useWireView.getState();
  if (!placing) return null;
  if (placing.what === "node") return `where the ${placing.kind} goes`;
  if (placing.what === "path") return "the next corner of the cable way";
  return placing.from === null ? "where the cable begins" : `where the cable from ${nameOf(site, placing.from)} ends`;
}
