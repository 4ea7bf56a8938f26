/** Promises, plan, section and evidence, all of one sight line. */
import { useEffect, useMemo } from "react";
import { serverEngine } from "../engine/engine";
import type { Evaluation, Line, SiteFile } from "../engine/types";
import { type Shown, useStudy } from "../engine/useStudy";
import { headOf, targetOf } from "../site/edits";
import { SiteMasthead } from "../site/SiteMasthead";
import { useSite } from "../site/store";
import { EvidencePanel } from "./evidence/EvidencePanel";
import { type HeadInHand, useInHand } from "./inHand";
import { Plan } from "../plan/Plan";
import { PromiseList } from "./promises/PromiseList";
import { SectionView } from "./section/SectionView";
import { StaleNotice } from "../site/StaleNotice";
import { useKeys } from "./useKeys";

/** The line of the promise and head in hand, if both are there. */
function lineOf(site: SiteFile, target: string | null, head: HeadInHand | null): Line | null {
  if (!target || !head || !targetOf(site, target) || !headOf(site, head.camera, head.head)) return null;
  return { ...head, target };
}

/** The head that a promise is best looked at with; the first one while nothing is in front of it. */
function bestHead(site: SiteFile, evaluation: Evaluation, target: string): HeadInHand | null {
  const best = evaluation.targets.find((result) => result.target === target)?.best;
  const first = site.cameras[0];
  return best ?? (first?.heads[0] ? { camera: first.id, head: first.heads[0].id } : null);
}

export function AimScreen() {
  const site = useSite((state) => state.open?.site) as SiteFile;
  const { target, head, takeTarget, takeHead } = useInHand();
  const line = useMemo(() => lineOf(site, target, head), [site, target, head]);
  const shown = useStudy(serverEngine, site, line);
  const evaluation = shown.study?.evaluation;

  // Something is always in hand while there is something: first the promise that needs work most.
  useEffect(() => {
    if (!evaluation || (target && targetOf(site, target))) return;
    const order = ["broken", "tight", "unknown", "kept"];
    const worst = [...evaluation.targets].sort((a, b) => order.indexOf(a.verdict) - order.indexOf(b.verdict))[0];
    if (worst && targetOf(site, worst.target)) takeTarget(worst.target);
    else if (target) takeTarget(null, head);
  }, [evaluation, site, target, head, takeTarget]);
  useEffect(() => {
    if (!evaluation || !target || (head && headOf(site, head.camera, head.head))) return;
    const best = bestHead(site, evaluation, target);
    if (best && headOf(site, best.camera, best.head)) takeHead(best);
  }, [evaluation, site, target, head, takeHead]);

  useKeys(shown);
  return (
    <div className="aim">
      <SiteMasthead stage="aim" />
      <Notices shown={shown} />
      <div className="aim-columns">
        <PromiseList shown={shown} />
        <div className="aim-middle">
          <Plan shown={shown} />
          <SectionView shown={shown} />
        </div>
        <EvidencePanel shown={shown} />
      </div>
      <StaleNotice />
    </div>
  );
}

function Notices({ shown }: { shown: Shown }) {
  if (shown.away) {
    return (
      <div className="notice" role="status">
        The server does not answer: figures are paused. Your changes stay in this browser and are kept when it is back.
      </div>
    );
  }
  if (shown.faults) {
    const [first] = shown.faults;
    return (
      <div className="notice notice-bad" role="alert">
        This cannot be computed: {first?.path && <code>{first.path}</code>} {first?.message}. Undo takes it back.
      </div>
    );
  }
  return null;
}
