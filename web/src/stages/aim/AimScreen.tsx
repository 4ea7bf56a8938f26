/** Promises, plan, section and evidence, all of one sight line. */
import { useEffect, useState } from "react";
import { faultInWords } from "../../ui/place";
import type { HeadRef, Sights, SiteFile } from "../../core/types";
import { type Shown, useSights } from "../../core/useSights";
import { useSite } from "../../keep/store";
import { useInHand } from "../../model/inHand";
import { headOf, targetOf } from "../../model/lookups";
import { AimPlan } from "./AimPlan";
import { EvidencePanel } from "./evidence/EvidencePanel";
import { PromiseList } from "./promises/PromiseList";
import { SectionView } from "./section/SectionView";
import { useKeys } from "./useKeys";
import "./aim.css";

/** The head that a promise is best looked at with; the first one while nothing is in front of it. */
function bestHead(site: SiteFile, sights: Sights, target: string): HeadRef | null {
  const best = sights.summary.targets.find((result) => result.target === target)?.best;
  const first = site.cameras[0];
  return best ?? (first?.heads[0] ? { camera: first.id, head: first.heads[0].id } : null);
}

const ORDER = ["broken", "tight", "unknown", "kept"];

export function AimScreen() {
  const site = useSite((state) => state.open?.site) as SiteFile;
  const { target, head, takeTarget, takeHead } = useInHand();
  const known = head && headOf(site, head.camera, head.head) ? head : null;
  const shown = useSights(site, target && targetOf(site, target) ? target : null, known);
  const { sights, of } = shown;

  // Something is always in hand while there is something: first the promise that needs work most.
  useEffect(() => {
    if (!sights || of !== site || (target && targetOf(site, target))) return;
    const worst = [...sights.summary.targets].sort((a, b) => ORDER.indexOf(a.verdict) - ORDER.indexOf(b.verdict))[0];
    if (worst && targetOf(site, worst.target)) takeTarget(worst.target);
    else if (target) takeTarget(null, head);
  }, [sights, of, site, target, head, takeTarget]);
  useEffect(() => {
    if (!sights || of !== site || !target || (head && headOf(site, head.camera, head.head))) return;
    const best = bestHead(site, sights, target);
    if (best && headOf(site, best.camera, best.head)) takeHead(best);
  }, [sights, of, site, target, head, takeHead]);

  useKeys(shown.site);
  const slow = useSlow(!shown.settled);
  return (
    <div className={slow ? "aim unsettled" : "aim"} data-settled={shown.settled}>
      <Notices shown={shown} />
      <div className="aim-columns">
        <PromiseList shown={shown} />
        <div className="aim-middle">
          <AimPlan shown={shown} />
          <SectionView shown={shown} />
        </div>
        <EvidencePanel shown={shown} />
      </div>
    </div>
  );
}

/** How long figures may be behind the hand before that is shown, ms: a blink. */
const BLINK = 150;

/** Whether something has gone on for longer than a blink. */
function useSlow(goesOn: boolean): boolean {
  const [slow, setSlow] = useState(false);
  useEffect(() => {
    const timer = window.setTimeout(() => setSlow(goesOn), goesOn ? BLINK : 0);
    return () => window.clearTimeout(timer);
  }, [goesOn]);
  return slow && goesOn;
}

function Notices({ shown }: { shown: Shown }) {
  if (!shown.faults) return null;
  const [first] = shown.faults;
  return (
    <div className="notice notice-bad" role="alert">
      This cannot be computed: {first && faultInWords(first)}. Undo takes it back.
    </div>
  );
}
