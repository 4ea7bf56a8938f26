/** The evidence for the sight line in hand, the dials that change it, and the ways to keep it. */
import { Select } from "antd";
import { serverEngine } from "../../engine/engine";
import type { HeadResult, SightLine, Target } from "../../engine/types";
import type { Shown } from "../../engine/useStudy";
import { useWays } from "../../engine/useWays";
import { useSettings } from "../../shell/settings";
import { cameraOf, headOf, targetOf } from "../../site/edits";
import { formatLength } from "../../units/length";
import { VerdictMark } from "../../verdict/VerdictMark";
import { density, shortfall } from "../../verdict/words";
import { useInHand } from "../inHand";
import { lineResult } from "../lineResult";
import { CameraHeader } from "./CameraHeader";
import { Dials } from "./Dials";
import { RuleRow } from "./RuleRow";
import { WaysList } from "./WaysList";

export function EvidencePanel({ shown }: { shown: Shown }) {
  const units = useSettings((settings) => settings.units);
  const { head: inHand, target: targetId } = useInHand();
  const camera = inHand ? cameraOf(shown.site, inHand.camera) : undefined;
  const head = inHand ? headOf(shown.site, inHand.camera, inHand.head) : undefined;
  const target = targetId ? targetOf(shown.site, targetId) : undefined;
  const result = lineResult(shown);
  const settled = shown.study !== null;
  const ways = useWays(serverEngine, shown.site, shown.line, settled && result?.verdict !== "kept", units);
  if (!camera || !head) {
    return (
      <section className="evidence" aria-label="Evidence">
        <p className="hint">{shown.site.cameras.length === 0 ? "No camera yet. Add one: it is aimed at the promise in hand." : "Choose a camera on the plan."}</p>
      </section>
    );
  }
  const ofHead = shown.study?.evaluation.heads.find((h) => h.camera === camera.id && h.head === head.id);
  return (
    <section className="evidence" aria-label="Evidence">
      {target && <Finding shown={shown} target={target} result={result} />}
      <CameraHeader camera={camera} head={head} />
      <Dials camera={camera} head={head} line={shown.line} result={result} />
      {ofHead && <PictureFacts result={ofHead} width={camera.model.sensor.width_px} units={units} />}
      {target && <WaysList state={ways} verdict={result?.verdict ?? (settled ? "broken" : null)} site={shown.site} />}
    </section>
  );
}

/** What the sight line in hand is worth, in one figure and rule by rule. */
function Finding({ shown, target, result }: { shown: Shown; target: Target; result: SightLine | undefined }) {
  const need = shown.study?.evaluation.targets.find((t) => t.target === target.id)?.needs_px_per_m;
  return (
    <>
      <div className="finding-head">
        <VerdictMark verdict={result?.verdict ?? null} size={20} />
        <h2><LineChoice shown={shown} target={target} /></h2>
        <span className={`verdict-word verdict-word-${result?.verdict ?? "none"}`} data-testid="verdict">{result?.verdict ?? (shown.study ? "behind" : "…")}</span>
      </div>
      {result ? (
        <>
          <p className="finding-figure">
            <strong className="figure" data-testid="density">{density(result.px_per_m)} px/m</strong>
            <span>{need !== undefined && shortfall(result.px_per_m, need, target.task)}</span>
          </p>
          {result.samples.all > 1 && (
            <p className="fine">{result.samples.kept} of {result.samples.all} samples kept, {result.samples.seen} seen; the figures are those of the one that decides.</p>
          )}
          <div className="rules">
            {result.rules.map((rule) => <RuleRow key={rule.rule} rule={rule} line={result} shown={shown} />)}
          </div>
        </>
      ) : (
        <p className="hint">{shown.study ? "The promise lies behind this head. Turn it, or choose another camera." : "Working …"}</p>
      )}
    </>
  );
}

/** Which head looks at the promise in hand. */
function LineChoice({ shown, target }: { shown: Shown; target: Target }) {
  const { head, takeHead } = useInHand();
  const heads = shown.site.cameras.flatMap((camera) =>
    camera.heads.map((h) => ({ camera, head: h, value: `${camera.id}/${h.id}` })),
  );
  const verdict = (camera: string, h: string): string =>
    shown.study?.evaluation.sight_lines.find((s) => s.camera === camera && s.head === h && s.target === target.id)?.verdict ?? "behind";
  return (
    <>
      <Select
        size="small" variant="borderless" aria-label="Camera that looks at it" popupMatchSelectWidth={false} value={head ? `${head.camera}/${head.head}` : null}
        onChange={(value) => {
          const [camera = "", h = ""] = value.split("/");
          takeHead({ camera, head: h });
        }}
        options={heads.map(({ camera, head: h, value }) => ({
          value,
          label: `${camera.name}${camera.heads.length > 1 ? ` ${h.id}` : ""}`,
          title: verdict(camera.id, h.id),
        }))}
      />
      <span> → {target.name}</span>
    </>
  );
}

function PictureFacts({ result, width, units }: { result: HeadResult; width: number; units: "metres" | "feet" }) {
  return (
    <dl className="facts">
      <div><dt>Picture</dt><dd className="figure">{result.hfov_deg.toFixed(1)}° × {result.vfov_deg.toFixed(1)}°, {width} px wide</dd></div>
      <div>
        <dt>On the ground ahead</dt>
        <dd className="figure">
          {result.near_edge_m === null ? "none" : `${formatLength(result.near_edge_m, units, 1)} to ${result.far_edge_m === null ? "the horizon" : formatLength(result.far_edge_m, units, 1)}`}
        </dd>
      </div>
      <div><dt>Lens bend</dt><dd className="figure">{result.published_field ? result.bend.toFixed(2) : "1, no published field of view"}</dd></div>
    </dl>
  );
}
