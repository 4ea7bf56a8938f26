/** The evidence for the sight line in hand, the dials that change it, and the ways to keep it. */
import { CopyOutlined } from "@ant-design/icons";
import { App } from "antd";
import { memo } from "react";
import type { HeadRef, HeadResult, SightLine, SiteFile, Target, TargetResult } from "../../../core/types";
import { useCalm } from "../../../core/hand";
import type { Shown } from "../../../core/useSights";
import { useWays } from "../../../core/useWays";
import { useSettings } from "../../../keep/settings";
import { useInHand } from "../../../model/inHand";
import { cameraOf, headOf, targetOf } from "../../../model/lookups";
import { keyOf, nameOf, refOfKey, viewsOf } from "../../../model/views";
import { VerdictMark } from "../../../ui/VerdictMark";
import { formatLength } from "../../../ui/length";
import { pixels, share } from "../../../ui/words";
import { CameraHeader } from "./CameraHeader";
import { Dials, PlaceDials } from "./Dials";
import { ExposureDials, OwnEmitter } from "./ExposureDials";
import { FormPanel } from "./FormPanel";
import { PictureUsePanel } from "./PictureUsePanel";
import { densityOf, lineAsText } from "./lineAsText";
import { RuleRow } from "./RuleRow";
import { WaysList } from "./WaysList";
import { ViewPanel } from "../picture/ViewPanel";
import { usePictureLook } from "../picture/pictureView";
import { Button, Select } from "../../../ui/controls";
import "./evidence.css";

export function EvidencePanel({ shown, calm }: { shown: Shown; calm: Shown }) {
  const { head, target } = useCalm(useInHand());
  const dragged = usePictureLook((look) => look.dragged);
  return (
    <div className="evidence">
      <ViewPanel site={(dragged ? shown : calm).site} />
      <Evidence shown={calm} inHand={head} targetId={target} />
    </div>
  );
}

interface Props {
  shown: Shown;
  inHand: HeadRef | null;
  targetId: string | null;
}

const Evidence = memo(function Evidence({ shown, inHand, targetId }: Props) {
  const units = useSettings((settings) => settings.units);
  const camera = inHand ? cameraOf(shown.site, inHand.camera) : undefined;
  const head = inHand ? headOf(shown.site, inHand.camera, inHand.head) : undefined;
  const target = targetId ? targetOf(shown.site, targetId) : undefined;
  const result = lineOf(shown);
  const promise = shown.sights?.summary.targets.find((held) => held.target === targetId);
  const lacksOverview = promise?.overview != null && promise.overview.verdict !== "kept";
  const ways = useWays(shown.site, shown.line, result?.verdict !== "kept" || lacksOverview, shown.settled, units);
  if (!camera || !head) {
    return (
      <section aria-label="Evidence">
        <p className="hint">
          {shown.site.cameras.length === 0
            ? "No camera yet. Add one: it is aimed at the selected promise."
            : "Choose a camera on the plan."}
        </p>
      </section>
    );
  }
  const ofHead =
    shown.sights?.head?.camera === camera.id && shown.sights.head.head === head.id ? shown.sights.head : null;
  return (
    <section aria-label="Evidence">
      {target && <Finding shown={shown} target={target} result={result} />}
      <CameraHeader
        id={camera.id}
        name={camera.name}
        model={camera.model.name}
        head={head.id}
        view={inHand?.view ?? null}
      />
      <Dials camera={camera} head={head} view={inHand?.view ?? null} line={shown.line} result={result} />
      {target && (
        <WaysList
          state={ways}
          verdict={
            lacksOverview && result?.verdict === "kept"
              ? "tight"
              : (result?.verdict ?? (shown.settled ? "broken" : null))
          }
          site={shown.site}
          inHand={inHand ?? { camera: camera.id, head: head.id }}
        />
      )}
      {target && (
        <p className="fine finding-note" data-testid="leaves-out">
          {shown.sights?.summary.targets.find((promise) => promise.target === target.id)?.leaves_out}
        </p>
      )}
      <ExposureDials camera={camera} head={head} plate={target?.subject === "plate"} />
      <OwnEmitter camera={camera} />
      <PlaceDials camera={camera} head={head} />
      <FormPanel site={shown.site} camera={camera} head={head} view={inHand?.view ?? null} />
      {ofHead && <PictureFacts result={ofHead} width={camera.model.sensor.width_px} units={units} />}
      <PictureUsePanel shown={shown} head={head.id} camera={camera.id} view={inHand?.view ?? null} units={units} />
    </section>
  );
});

/** What was found of the sight line in hand; nothing of another line. */
function lineOf({ line, sights }: Shown): SightLine | undefined {
  const found = sights?.line;
  if (!found || !line || found.camera !== line.camera || found.head !== line.head) return undefined;
  return found.target === line.target && (found.preset ?? found.flattened) === (line.view ?? null) ? found : undefined;
}

/** What the sight line in hand is worth, in one figure and rule by rule. */
function Finding({ shown, target, result }: { shown: Shown; target: Target; result: SightLine | undefined }) {
  const density = result ? densityOf(result) : null;
  const { settled, sights } = shown;
  const units = useSettings((settings) => settings.units);
  const promise = sights?.summary.targets.find((held) => held.target === target.id);
  return (
    <>
      <div className="finding-head">
        <VerdictMark verdict={result?.verdict ?? null} size={20} />
        <h2>
          <LineChoice shown={shown} target={target} />
        </h2>
        <span className={`verdict-word verdict-word-${result?.verdict ?? "none"}`} data-testid="verdict">
          {result?.verdict ?? (settled ? "behind" : "…")}
        </span>
      </div>
      {result ? (
        <>
          <CopyText
            text={() =>
              lineAsText(shown.of ?? shown.site, target, result, {
                needs: promise?.needs_px_per_m ?? null,
                leavesOut: promise?.leaves_out ?? "",
                units,
              })
            }
          />
          <p className="finding-figure">
            <strong className="figure" data-testid="density">
              {density === null ? "Out of the picture" : pixels(density, units)}
            </strong>
            <span>{sights?.shortfall}</span>
          </p>
          {promise?.overview && <OverviewSays overview={promise.overview} site={shown.site} />}
          {result.samples.all > 1 && !result.zone && <PartsSeen result={result} site={shown.site} />}
          <div className="rules">
            {result.rules.map((rule) => (
              <RuleRow key={rule.rule} rule={rule} line={result} shown={shown} />
            ))}
          </div>
        </>
      ) : (
        <p className="hint">
          {settled ? "The promise lies behind this camera. Turn it, or choose another." : "Working …"}
        </p>
      )}
    </>
  );
}

/** Puts the sight line into the clipboard, as text for a message: the figures that stand on screen, with the site that they are of. */
function CopyText({ text }: { text(): string }) {
  const { message } = App.useApp();
  const copy = async (): Promise<void> => {
    try {
      await navigator.clipboard.writeText(text());
      void message.success("Copied as text, for a message.");
    } catch {
      void message.warning("This browser does not let anything be copied from here.");
    }
  };
  return (
    <Button
      size="small"
      type="text"
      className="copy-text"
      icon={<CopyOutlined />}
      aria-label="Copy as text"
      title="Copy as text, for a message to the client"
      onClick={() => void copy()}
    />
  );
}

/** How the second camera stands that sees the vehicle where its plate is read. */
function OverviewSays({ overview, site }: { overview: NonNullable<TargetResult["overview"]>; site: SiteFile }) {
  return (
    <p className="fine finding-note" data-testid="overview">
      <VerdictMark verdict={overview.verdict} size={13} /> Overview of the vehicle:{" "}
      {overview.head
        ? `${nameOf(site, overview.head)}, ${overview.verdict}`
        : "no other camera keeps observe where the plate is read, so the promise is tight at best"}
    </p>
  );
}

/** How much of a line or an area the head in hand has. */
function PartsSeen({ result, site }: { result: SightLine; site: SiteFile }) {
  const { samples, unseen } = result;
  const names = unseen?.behind.map((id) => site.obstacles?.find((o) => o.id === id)?.name ?? id) ?? [];
  return (
    <p className="fine finding-note" data-testid="parts-seen">
      {samples.kept} of {samples.all} samples kept, {samples.seen} seen
      {unseen && unseen.hidden_share > 0 && `; ${share(unseen.hidden_share)} of it hidden behind ${names.join(", ")}`}
      {unseen && unseen.outside_share > 0 && `; ${share(unseen.outside_share)} out of the picture`}. The figures are
      those of the place that decides.
    </p>
  );
}

/** Which head looks at the promise in hand. */
function LineChoice({ shown, target }: { shown: Shown; target: Target }) {
  const { head } = useCalm(useInHand());
  // A camera that is dragged changes at every move of the hand, the choice does not.
  const heads = shown.site.cameras.flatMap((camera) => viewsOf(camera).map(({ ref, name }) => [keyOf(ref), name]));
  const verdicts = shown.sights?.heads.map((s) => [keyOf(s), s.verdict ?? "behind"]) ?? [];
  return (
    <>
      <HeadSelect value={head ? keyOf(head) : null} choices={JSON.stringify({ heads, verdicts })} />
      <span> → {target.name}</span>
    </>
  );
}

/** `choices` is JSON, so that equal choices are the same ones. */
const HeadSelect = memo(function HeadSelect({ value, choices }: { value: string | null; choices: string }) {
  const takeHead = useInHand((state) => state.takeHead);
  const { heads, verdicts } = JSON.parse(choices) as { heads: [string, string][]; verdicts: [string, string][] };
  const verdict = new Map(verdicts);
  return (
    <Select
      size="small"
      variant="borderless"
      aria-label="Camera that looks at it"
      popupMatchSelectWidth={false}
      value={value}
      onChange={(chosen: string) => takeHead(refOfKey(chosen))}
      options={heads.map(([key, label]) => ({ value: key, label, title: verdict.get(key) ?? "behind" }))}
    />
  );
});

function PictureFacts({ result, width, units }: { result: HeadResult; width: number; units: "metres" | "feet" }) {
  return (
    <dl className="facts">
      <div>
        <dt>Picture</dt>
        <dd className="figure">
          {result.hfov_deg.toFixed(1)}° × {result.vfov_deg.toFixed(1)}°, {width} px wide
        </dd>
      </div>
      <div>
        <dt>On the ground ahead</dt>
        <dd className="figure">
          {result.near_edge_m === null
            ? "none"
            : `${formatLength(result.near_edge_m, units, 1)} to ${result.far_edge_m === null ? "the horizon" : formatLength(result.far_edge_m, units, 1)}`}
        </dd>
      </div>
      {!result.takes_tilt && (
        <div>
          <dt>Build</dt>
          <dd>this aim cannot be set: {result.build.split(";")[0]}</dd>
        </div>
      )}
      {result.told && (
        <div>
          <dt>Height</dt>
          <dd>{result.told.split(";")[0]}</dd>
        </div>
      )}
      <div>
        <dt>Lens bend</dt>
        <dd className="figure">{result.published_field ? result.bend.toFixed(2) : "1, no published field of view"}</dd>
      </div>
    </dl>
  );
}
