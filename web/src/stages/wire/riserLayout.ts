/** Where boxes and cameras stand on the riser: the recorder on the left, what hangs on it to its right, each under the other. */
import type { SiteFile, Wired } from "../../core/types";
import { networkOf } from "../../model/network";

export interface RiserBox {
  id: string;
  /** A camera, or a box of the network. */
  camera: boolean;
  /** Columns from the left, rows from the top; a box stands in the middle of what hangs on it. */
  column: number;
  row: number;
}
export interface RiserRun {
  cable: string;
  from: RiserBox;
  to: RiserBox;
}
export interface RiserDrawing {
  boxes: RiserBox[];
  runs: RiserRun[];
  columns: number;
  rows: number;
}

/** Lays the riser out; what hangs nowhere stands by itself at the end. */
export function riserOf(site: SiteFile, wired: Wired): RiserDrawing {
  const { nodes, cables } = networkOf(site);
  const cords = new Set(cables.filter((cable) => cable.kind === "cord").map((cable) => cable.id));
  const joined = new Map<string, { cable: string; to: string }[]>();
  const told = new Set(wired.cables.map((cable) => cable.id));
  for (const cable of cables) {
    if (!told.has(cable.id) || cords.has(cable.id)) continue;
    for (const [from, to] of [
      [cable.from, cable.to],
      [cable.to, cable.from],
    ] as const)
      joined.set(from, [...(joined.get(from) ?? []), { cable: cable.id, to }]);
  }
  const cameras = new Set(site.cameras.filter((camera) => camera.existing !== "goes").map((camera) => camera.id));
  const drawing: RiserDrawing = { boxes: [], runs: [], columns: 0, rows: 0 };
  const seen = new Set<string>();
  const put = (id: string, column: number): RiserBox => {
    seen.add(id);
    const box: RiserBox = { id, camera: cameras.has(id), column, row: 0 };
    drawing.boxes.push(box);
    drawing.columns = Math.max(drawing.columns, column + 1);
    const below: RiserBox[] = [];
    // Nothing goes on behind a camera.
    for (const { cable, to } of box.camera ? [] : (joined.get(id) ?? [])) {
      if (seen.has(to)) continue;
      const next = put(to, column + 1);
      below.push(next);
      drawing.runs.push({ cable, from: box, to: next });
    }
    const [first, last] = [below[0], below.at(-1)];
    box.row = first && last ? (first.row + last.row) / 2 : drawing.rows++;
    return box;
  };
  const roots = [...nodes].sort((a, b) => Number(b.kind === "recorder") - Number(a.kind === "recorder"));
  for (const node of roots)
    if (node.existing !== "goes" && node.kind !== "outlet" && !seen.has(node.id)) put(node.id, 0);
  for (const id of cameras) if (!seen.has(id)) put(id, Math.max(drawing.columns - 1, 1));
  return drawing;
}

/** The boxes and cables on the way from the recorder to a thing. */
export function wayTo(drawing: RiserDrawing, id: string): Set<string> {
  const way = new Set<string>([id]);
  let at = id;
  for (;;) {
    const run = drawing.runs.find(({ to }) => to.id === at);
    if (!run) return way;
    way.add(run.cable).add(run.from.id);
    at = run.from.id;
  }
}
