/** From the cut to the screen: along the ground in metres, heights drawn larger where there is room. */
import type { Point, Section } from "../../../core/types";

const MARGIN = { left: 14, right: 16, top: 22, bottom: 34 };
/** Heights are drawn at most so many times larger than distances. */
const MOST_EXAGGERATION = 3;

export interface Cut {
  exaggeration: number;
  /** The screen's place of a distance along the ground and a height. */
  at(along: number, height: number): Point;
  /** The distance and height of a place on the screen. */
  site(at: Point): Point;
  /** What the picture covers, as a path. */
  wedge(edges: NonNullable<Section["edges"]>): string;
  right: number;
  bottom: number;
}

export function cutOf(section: Section, [width, height]: [number, number]): Cut {
  const tallest = Math.max(
    section.camera_height_m,
    section.target_height_m,
    2.4,
    ...section.solids.filter((s) => s.in_the_way).map((s) => s.top_m),
  );
  const across = (width - MARGIN.left - MARGIN.right) / (section.to_m - section.from_m);
  const up = Math.min((height - MARGIN.top - MARGIN.bottom) / (tallest * 1.08), across * MOST_EXAGGERATION);
  const ground = height - MARGIN.bottom;
  const at = (along: number, h: number): Point => [MARGIN.left + (along - section.from_m) * across, ground - h * up];
  const end = section.to_m;
  const drop = (degrees: number): number =>
    section.camera_height_m - end * Math.tan((Math.min(Math.max(degrees, -89), 89) * Math.PI) / 180);
  return {
    exaggeration: up / across,
    at,
    site: ([u, v]) => [(u - MARGIN.left) / across + section.from_m, (ground - v) / up],
    wedge: ({ top_deg, bottom_deg, unseen_ground_to_m }) => {
      const points = [at(0, section.camera_height_m), at(end, drop(top_deg))];
      // The lower edge ends where it meets the ground, and the picture goes on along it.
      if (unseen_ground_to_m !== null && unseen_ground_to_m < end) points.push(at(end, 0), at(unseen_ground_to_m, 0));
      else points.push(at(end, drop(bottom_deg)));
      return `M${points.map((p) => p.join(" ")).join("L")}Z`;
    },
    right: width,
    bottom: height,
  };
}
