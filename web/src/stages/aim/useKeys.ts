/** The keyboard path: everything on the Aim screen without a mouse. */
import { useEffect, useRef } from "react";
import { tinykeys } from "tinykeys";
import type { SiteFile } from "../../core/types";
import { useSettings } from "../../keep/settings";
import { useSite } from "../../keep/store";
import { useInHand } from "../../model/inHand";
import { byImportance } from "../../model/lines";
import { cameraOf, lensOf } from "../../model/lookups";
import { aimedOf, hasFocal, keyOf } from "../../model/views";
import { rounded } from "../../model/points";
import { useHelp } from "../../ui/help";
import { free } from "../../ui/keys";
import { lengthStep } from "../../ui/length";
import { draw, selectByBox } from "./draw/drawing";
import { toggleFill } from "./lowerView";
import { TOOLS, toggle, turnTo } from "./tools";

export function useKeys(site: SiteFile): void {
  const order = useRef<string[]>([]);
  useEffect(() => {
    order.current = byImportance(site.targets).map((target) => target.id);
  }, [site]);
  useEffect(() => {
    const { place } = useInHand.getState();
    const turning: Record<string, (event: KeyboardEvent) => void> = {};
    for (const [key, pan, tilt] of [
      ["ArrowLeft", -1, 0],
      ["ArrowRight", 1, 0],
      ["ArrowUp", 0, -1],
      ["ArrowDown", 0, 1],
    ] as const) {
      for (const [with_, scale] of [
        ["", 1],
        ["Shift+", 10],
        ["Alt+", 0.1],
      ] as const)
        turning[with_ + key] = free(() => turn(pan * scale, tilt * scale));
    }
    return tinykeys(window, {
      ...turning,
      "[": free(() => zoom(-0.1)),
      "]": free(() => zoom(0.1)),
      PageUp: free(() => raise(1)),
      PageDown: free(() => raise(-1)),
      j: free(() => step(order.current, 1)),
      k: free(() => step(order.current, -1)),
      t: free(() => place("target")),
      c: free(() => place("camera")),
      o: free(() => place("obstacle")),
      d: free(draw),
      b: free(selectByBox),
      ...Object.fromEntries(TOOLS.flatMap(({ id, key }) => (key ? [[key.key, free(() => toggle(id))]] : []))),
      w: free(() => {
        turnTo("ground");
        place("why");
      }),
      f: free(toggleFill),
      Escape: free(() => place(null)),
      "Shift+?": free(() => useHelp.getState().show(true)),
      "?": free(() => useHelp.getState().show(true)),
    });
  }, []);
}

/** Changes the head in hand, if there is one. */
function turn(pan: number, tilt: number): void {
  const { head } = useInHand.getState();
  if (!head) return;
  useSite.getState().edit(
    "Aim",
    (site) => {
      const aimed = aimedOf(site, head);
      if (!aimed) return;
      aimed.pan_deg = rounded((aimed.pan_deg + pan + 360) % 360, 2);
      aimed.tilt_deg = rounded(Math.min(Math.max(aimed.tilt_deg + tilt, -90), 90), 2);
    },
    `keys-aim-${keyOf(head)}`,
  );
}

function zoom(by: number): void {
  const { head } = useInHand.getState();
  if (!head) return;
  useSite.getState().edit(
    "Change the focal length",
    (site) => {
      const lens = lensOf(site, head);
      const zoomed = aimedOf(site, head);
      if (!lens || !zoomed || !hasFocal(zoomed)) return;
      zoomed.focal_mm = rounded(Math.min(Math.max(zoomed.focal_mm + by, lens.focal_min_mm), lens.focal_max_mm), 2);
    },
    `keys-focal-${keyOf(head)}`,
  );
}

function raise(by: number): void {
  const { head } = useInHand.getState();
  if (!head) return;
  const step = lengthStep(useSettings.getState().units);
  useSite.getState().edit(
    "Change the height",
    (site) => {
      const camera = cameraOf(site, head.camera);
      if (camera) camera.height_m = rounded(Math.max(camera.height_m + by * step, 0.05), 4);
    },
    `keys-height-${head.camera}`,
  );
}

function step(targets: string[], by: number): void {
  const { target, takeTarget } = useInHand.getState();
  const place = target ? targets.indexOf(target) : -1;
  const next = targets[(place + by + targets.length) % targets.length];
  if (next) takeTarget(next);
}
