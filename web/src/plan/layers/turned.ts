/** A figure that points north, at a place and turned, as a path: by its figures, since each transform is a layer to the browser. */
import type { Point } from "../../core/types";

export function turned(lines: readonly (readonly Point[])[], [u, v]: Point, degrees: number, closed = false): string {
  const turn = (degrees * Math.PI) / 180;
  const [sin, cos] = [Math.sin(turn), Math.cos(turn)];
  const at = ([x, y]: Point): string => `${(u + x * cos - y * sin).toFixed(2)} ${(v + x * sin + y * cos).toFixed(2)}`;
  return lines.map((line) => `M${line.map(at).join("L")}${closed ? "Z" : ""}`).join("");
}
