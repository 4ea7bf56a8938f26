import { describe, expect, it } from "vitest";
import type { Obstacle, Point, SiteFile } from "../core/types";
import { setKind, setOpen, swingOver } from "./obstacles";
import { addDrawn, copyAll, inBox, moveAll, offsetOutline, removeAll, setTops, splitObstacle } from "./shapes";
import { along, snap } from "./snap";

const square: Point[] = [
  [0, 0],
  [10, 0],
  [10, 6],
  [0, 6],
];

function yard(): SiteFile {
  const site: SiteFile = {
    format: "bright-angle/site",
    version: 1,
    name: "Yard",
    obstacles: [],
    targets: [],
    cameras: [],
  };
  addDrawn(site, "building", square, true, 3);
  addDrawn(
    site,
    "wall",
    [
      [20, 0],
      [30, 0],
    ],
    false,
    2,
  );
  return site;
}

const outlineOf = (site: SiteFile, place: number): number[][] => site.obstacles?.[place]?.outline ?? [];

describe("a hand that draws", () => {
  const held = yard().obstacles as Obstacle[];
  const at = (x: number, y: number, drawn: Point[] = []): ReturnType<typeof snap> => snap([x, y], 0.5, held, drawn);

  it("is pulled to corners before edges, and to edges before what is free", () => {
    expect(at(10.3, 6.2)).toEqual({ at: [10, 6], to: "corner" });
    expect(at(5, 6.2)).toEqual({ at: [5, 6], to: "edge" });
    expect(at(14.123, 12.456)).toEqual({ at: [14.12, 12.46], to: null });
  });

  it("follows an edge past its end, and keeps a right angle to the side before", () => {
    expect(at(15, 6.1)).toEqual({ at: [15, 6], to: "extension" });
    const bent = at(35.2, 21, [
      [30, 15],
      [35, 15],
    ]);
    expect([bent.at.map((v) => Number(v.toFixed(2))), bent.to]).toEqual([[35, 21], "right angle"]);
  });

  it("closes on its first corner once there is something to close", () => {
    const drawn: Point[] = [
      [40, 40],
      [45, 40],
      [45, 45],
    ];
    expect(at(40.2, 40.1, drawn)).toEqual({ at: [40, 40], to: "first" });
    expect(at(40.2, 40.1, drawn.slice(0, 2)).to).not.toBe("first");
  });

  it("goes so far on a bearing as was typed", () => {
    expect(along([70, 24], 12.4, 90)).toEqual([82.4, 24]);
    expect(along([82.4, 24], 5, 0)).toEqual([82.4, 29]);
  });
});

describe("what stands there", () => {
  it("is offset by so much on every side, whichever way round it was drawn", () => {
    const out = [
      [-1, -1],
      [11, -1],
      [11, 7],
      [-1, 7],
    ];
    expect(offsetOutline(square, true, 1)).toEqual(out);
    expect(offsetOutline([...square].reverse(), true, 1)).toEqual([...out].reverse());
    expect(offsetOutline([...square], true, -1)[2]).toEqual([9, 5]);
    expect(
      offsetOutline(
        [
          [20, 0],
          [30, 0],
        ],
        false,
        2,
      ),
    ).toEqual([
      [20, -2],
      [30, -2],
    ]);
  });

  it("is split into two that together are what it was", () => {
    const site = yard();
    splitObstacle(site, "o1");
    expect(outlineOf(site, 0)).toEqual([
      [0, 0],
      [5, 0],
      [5, 6],
      [0, 6],
    ]);
    expect(outlineOf(site, 2)).toEqual([
      [5, 0],
      [10, 0],
      [10, 6],
      [5, 6],
    ]);
    splitObstacle(site, "o2");
    expect([outlineOf(site, 1), outlineOf(site, 3)]).toEqual([
      [
        [20, 0],
        [25, 0],
      ],
      [
        [25, 0],
        [30, 0],
      ],
    ]);
  });

  it("is chosen by a box, and moved, raised, copied and removed together", () => {
    const site = yard();
    expect(inBox(site, [31, 1], [19, -1])).toEqual(["o2"]);
    const both = inBox(site, [-1, -1], [31, 9]);
    moveAll(site, both, 1, -2);
    setTops(site, both, 4);
    expect(site.obstacles?.map((o) => [o.outline[0], o.top_m])).toEqual([
      [[1, -2], 4],
      [[21, -2], 4],
    ]);
    const copies = copyAll(site, both);
    removeAll(site, both);
    expect(site.obstacles?.map((o) => o.id)).toEqual(copies);
  });

  it("opens as a door about the end that it hangs by", () => {
    const site = yard();
    const door = site.obstacles?.[1];
    if (!door) throw new Error("no wall");
    setKind(door, "door");
    setOpen(door, true);
    expect(door.open_outline).toEqual([
      [20, 0],
      [20, 10],
    ]);
    swingOver(door);
    expect(door.open_outline).toEqual([
      [30, 0],
      [30, -10],
    ]);
    setKind(door, "fence");
    expect([door.open, door.open_outline]).toEqual([undefined, undefined]);
  });
});
