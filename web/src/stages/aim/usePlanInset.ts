/** The plan as an inset beside a tool that fills the middle: it shows all of the site, and after that what it showed before. */
import { useEffect, useRef } from "react";
import type { SiteFile } from "../../core/types";
import { usePlanView } from "../../plan/planView";
import { type PlanView, fitting } from "../../plan/view";

export function usePlanInset(site: SiteFile, inset: boolean): void {
  const latest = useRef(site);
  useEffect(() => {
    latest.current = site;
  });
  useEffect(() => {
    if (!inset) return;
    const { centre, scale, size } = usePlanView.getState();
    const before: Pick<PlanView, "centre" | "scale"> = { centre, scale };
    // Once the plan has the size of the inset.
    const leave = usePlanView.subscribe((view) => {
      if (view.size[0] === size[0] && view.size[1] === size[1]) return;
      leave();
      view.set(fitting(latest.current, view.size));
    });
    return () => {
      leave();
      usePlanView.getState().set(before);
    };
  }, [inset]);
}
