/** Promises, plan, section and evidence, all of one sight line. */
import { type CSSProperties, lazy, useEffect, useRef, useState } from "react";
import { faultInWords } from "../../ui/place";
import type { HeadRef, Sights, SiteFile } from "../../core/types";
import { useCalm } from "../../core/hand";
import { useGround } from "../../core/useGround";
import { type Shown, useSights } from "../../core/useSights";
import { useSettings } from "../../keep/settings";
import { useSite } from "../../keep/store";
import { useInHand } from "../../model/inHand";
import { cameraOf, headOf, targetOf } from "../../model/lookups";
import { keyOf, refOf } from "../../model/views";
import { AimPlan } from "./AimPlan";
import { EvidencePanel } from "./evidence/EvidencePanel";
import { PromiseList } from "./promises/PromiseList";
import { LowerPanel } from "./LowerPanel";
import { SideBySideView } from "./designs/SideBySideView";
import { useDesigns } from "./designs/designsView";
import { useGroundWish } from "./ground/groundView";
import { Pages } from "./Pages";
import { USUAL_TALL } from "./PaneEdge";
import { useLower } from "./lowerView";
import { useKeys } from "./useKeys";
import { usePlanInset } from "./usePlanInset";
import "../../ui/panels.css";
import "./aim.css";

/** The head that a promise is best looked at with; the first one while nothing is in front of it. */
function bestHead(site: SiteFile, sights: Sights, target: string): HeadRef | null {
  const best = sights.summary.targets.find((result) => result.target === target)?.best;
  const first = site.cameras[0];
  return best ?? (first?.heads[0] ? refOf(first, first.heads[0]) : null);
}

const ORDER = ["broken", "tight", "unknown", "kept"];

const CardsScreen = lazy(() => import("./cards/CardsScreen").then((module) => ({ default: module.CardsScreen })));

const SettingsScreen = lazy(() =>
  import("./lane/SettingsScreen").then((module) => ({ default: module.SettingsScreen })),
);

/** The screen, the sheet of what its heads will see, or what a plate camera is set to. */
export function AimScreen({ step, item }: { step: string | null; item: string | null }) {
  if (step === "settings") return <SettingsScreen item={item} />;
  return step === "cards" ? <CardsScreen item={item} /> : <Aiming />;
}

function Aiming() {
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

  // Of a head that tours a preset is in hand; a view that is gone leaves its head.
  useEffect(() => {
    const camera = head && cameraOf(site, head.camera);
    const held = head && headOf(site, head.camera, head.head);
    if (!camera || !held) return;
    const ref = refOf(camera, held, head.view);
    if (keyOf(ref) !== keyOf(head)) takeHead(ref);
  }, [site, head, takeHead]);

  useKeys(shown.site);
  const ground = useGround(site, useGroundWish(site));
  const laid = useDesigns((state) => state.laid);
  const fills = useLower((state) => state.fills);
  const tall = useSettings((settings) => settings.toolsTall);
  usePlanInset(site, fills);
  const columns = useRef<HTMLDivElement>(null);
  // A design that is gone lies beside nothing.
  const isDesign = (id: string | null): boolean => id === null || (site.variants ?? []).some((held) => held.id === id);
  const sides = laid && isDesign(laid.left) && isDesign(laid.right) ? laid : null;
  const slow = useSlow(!shown.settled);
  // Drawings follow the hand; words and figures beside them as fast as they are read.
  const calm = useCalm(shown);
  const calmGround = useCalm(ground);
  return (
    <div className={slow ? "aim unsettled" : "aim"} data-settled={shown.settled && calm === shown}>
      <Notices shown={shown} />
      {sides ? (
        <SideBySideView site={site} left={sides.left} right={sides.right} />
      ) : (
        <div className="aim-columns" ref={columns}>
          <PromiseList shown={calm} />
          <div
            className={fills ? "aim-middle aim-filled" : "aim-middle"}
            style={{ "--tools": `${tall ?? USUAL_TALL}px` } as CSSProperties}
          >
            <AimPlan shown={shown} ground={ground} />
            <LowerPanel shown={shown} calm={calm} ground={calmGround} />
          </div>
          <EvidencePanel shown={shown} calm={calm} />
        </div>
      )}
      {!sides && <Pages columns={columns} />}
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
