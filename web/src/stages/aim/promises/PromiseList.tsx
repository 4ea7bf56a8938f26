/** What must be seen: each promise with what it needs, what it gets, and how it stands. */
import { EditOutlined, ImportOutlined, PlusOutlined, SelectOutlined } from "@ant-design/icons";
import { Dropdown } from "antd";
import { memo, useState } from "react";
import { useHand } from "../../../core/hand";
import { useAnswer } from "../../../core/useAsked";
import type { Target, Verdict, WishTold } from "../../../core/types";
import type { Shown } from "../../../core/useSights";
import { useSettings } from "../../../keep/settings";
import { duplicateThing, removeThing } from "../../../keep/things";
import { useInHand } from "../../../model/inHand";
import { VerdictMark } from "../../../ui/VerdictMark";
import { TASK_WORDS, shortPixels } from "../../../ui/words";
import { useBringIn } from "../draw/drawView";
import { draw, selectByBox } from "../draw/drawing";
import { byImportance } from "../../../model/lines";
import { PromiseForm } from "./PromiseForm";
import { Button } from "../../../ui/controls";
import "./promises.css";

export const PromiseList = memo(function PromiseList({ shown }: { shown: Shown }) {
  const { target: inHand, takeTarget, place } = useInHand();
  const opened = useOpened(inHand);
  const units = useSettings((settings) => settings.units);
  const results = new Map(shown.sights?.summary.targets.map((result) => [result.target, result]));
  // Why each stands as it does, under a hand a few times a second.
  const because = useAnswer(shown.site, { ask: "reasons", units }, { rest: "live", every: 250, by: "surveyor" });
  const reasons = new Map(because.value?.map((reason) => [reason.target, reason]));
  const wished = shown.site.targets.some((target) => target.cameras_shall);
  const wishes = useAnswer(shown.site, wished ? { ask: "wishes", units } : null, { by: "surveyor", keeps: true });
  const wishOf = new Map(wishes.value?.map((wish) => [wish.target, wish]));
  const kept = [...results.values()].filter((result) => result.verdict === "kept").length;
  const { cameras } = shown.site;
  const targets = byImportance(shown.site.targets);
  const names = new Map(cameras.map(({ id, name }) => [id, name]));
  return (
    <section className="promises" aria-label="Promises">
      <div className="panel-head">
        <h2>Promises</h2>
        <span className="figure">
          {targets.length === 0 ? "" : shown.sights ? `${kept} of ${targets.length} kept` : "working …"}
        </span>
      </div>
      {targets.length === 0 && (
        <p className="hint">
          A promise is something that must be seen: a till, a door, a gate. Put the first one on the plan.
        </p>
      )}
      <ol className="promise-rows">
        {targets.map((target) => {
          const { verdict = null, px_per_m = null, needs_px_per_m = null, best } = results.get(target.id) ?? {};
          return (
            <PromiseRow
              key={target.id}
              target={target}
              selected={target.id === inHand}
              open={target.id === opened}
              camera={(best && names.get(best.camera)) ?? "no camera"}
              verdict={verdict}
              got={reasons.get(target.id)?.px_per_m ?? px_per_m}
              need={needs_px_per_m}
              says={reasons.get(target.id)?.says ?? null}
              byPixels={reasons.get(target.id)?.rule === "pixel_density"}
              saysNow={because.settled}
              wish={target.cameras_shall ? (wishOf.get(target.id) ?? null) : null}
              wishNow={wishes.settled}
              onTake={takeTarget}
            />
          );
        })}
      </ol>
      <AddButtons first={targets.length === 0 ? "target" : cameras.length === 0 ? "camera" : null} place={place} />
    </section>
  );
});

/** Whose form is open: that of the promise in hand, but none opens under a hand that drags. */
function useOpened(inHand: string | null): string | null {
  const holds = useHand((hand) => hand.holds);
  const [opened, setOpened] = useState(inHand);
  if (!holds && opened !== inHand) setOpened(inHand);
  return opened === inHand ? opened : null;
}

/** What can be put on the plan; what comes first on an empty one stands out. */
const AddButtons = memo(function AddButtons({
  first,
  place,
}: {
  first: "target" | "camera" | null;
  place(what: "target" | "camera" | "obstacle"): void;
}) {
  return (
    <div className="promise-add">
      <Button
        size="small"
        icon={<PlusOutlined />}
        aria-label="Add a target"
        onClick={() => place("target")}
        type={first === "target" ? "primary" : "default"}
      >
        Target
      </Button>
      <Button
        size="small"
        icon={<PlusOutlined />}
        aria-label="Add a camera"
        onClick={() => place("camera")}
        type={first === "camera" ? "primary" : "default"}
      >
        Camera
      </Button>
      <Button size="small" icon={<PlusOutlined />} aria-label="Add an obstacle" onClick={() => place("obstacle")}>
        Obstacle
      </Button>
      <Button size="small" icon={<EditOutlined />} aria-label="Draw walls and objects" onClick={draw}>
        Draw
      </Button>
      <Button size="small" icon={<SelectOutlined />} aria-label="Select obstacles by a box" onClick={selectByBox}>
        Select
      </Button>
      <Button
        size="small"
        icon={<ImportOutlined />}
        aria-label="Bring in a drawing"
        onClick={() => useBringIn.getState().show(true)}
      >
        File
      </Button>
    </div>
  );
});

interface RowProps {
  target: Target;
  selected: boolean;
  /** Whether its form is open. */
  open: boolean;
  camera: string;
  verdict: Verdict | null;
  /** Pixel density that it gets and that it needs, px/m. */
  got: number | null;
  need: number | null;
  /** What decides, in words; null where it is kept. */
  says: string | null;
  /** Whether that is the pixel density, which the bar shows. */
  byPixels: boolean;
  /** Whether it is of the site as it is. */
  saysNow: boolean;
  /** Whether cameras are seen there as they shall be; and whether that is of the site as it is. */
  wish: WishTold | null;
  wishNow: boolean;
  onTake(target: string): void;
}

const PromiseRow = memo(function PromiseRow({
  target,
  selected,
  open,
  camera,
  verdict,
  got,
  need,
  onTake,
  wish,
  wishNow,
  ...why
}: RowProps) {
  const { says, byPixels, saysNow } = why;
  const units = useSettings((settings) => settings.units);
  const kept = verdict === "kept" || verdict === null;
  return (
    <li className={selected ? "promise promise-in-hand" : "promise"}>
      <button type="button" className="promise-face" aria-pressed={selected} onClick={() => onTake(target.id)}>
        <VerdictMark verdict={verdict} />
        <span className="promise-name">{target.name}</span>
        <span className="promise-task">
          {TASK_WORDS[target.task]} · {camera}
        </span>
        <span className="promise-density figure">{got === null ? "…" : shortPixels(got, units)}</span>
        {!kept && says && (
          <span
            className={`promise-says verdict-word-${verdict} told`}
            data-settled={saysNow}
            data-testid="promise-says"
          >
            {says}
          </span>
        )}
        {(kept || byPixels) && <NeedBar verdict={verdict} share={got === null || need === null ? 0 : got / need} />}
      </button>
      {wish && <Wish wish={wish} settled={wishNow} whole={selected} />}
      {selected && <PromiseMenu target={target} />}
      {open && <PromiseForm target={target} />}
    </li>
  );
});

const SHALL_WORDS: Record<WishTold["wish"], string> = { deter: "Shall deter", go_unnoticed: "Shall not be noticed" };

/** Whether the cameras themselves are seen here, as somebody wished. */
function Wish({ wish, settled, whole }: { wish: WishTold; settled: boolean; whole: boolean }) {
  return (
    <p className="promise-wish told" data-settled={settled} data-testid="promise-wish">
      <VerdictMark verdict={wish.verdict} />
      <span>
        <strong>{SHALL_WORDS[wish.wish]}:</strong>{" "}
        <span className={`verdict-word-${wish.verdict}`}>{wish.verdict}</span>. {wish.says}
        {whole && <span className="fine"> {wish.left_out}</span>}
      </span>
    </p>
  );
}

/** What it gets against what it needs: the mark stands at the need, the bar ends at twice that. */
function NeedBar({ verdict, share }: { verdict: Verdict | null; share: number }) {
  return (
    <span className="need-bar" aria-hidden="true">
      <span
        className={`need-got verdict-bar-${verdict ?? "none"}`}
        style={{ width: `${Math.min(share / 2, 1) * 100}%` }}
      />
      <span className="need-mark" />
    </span>
  );
}

const PromiseMenu = memo(function PromiseMenu({ target }: { target: Target }) {
  const takeTarget = useInHand((state) => state.takeTarget);
  const duplicate = (): void => {
    const copy = duplicateThing("target", target);
    if (copy) takeTarget(copy);
  };
  const remove = (): void => removeThing("target", target);
  return (
    <Dropdown
      trigger={["click"]}
      menu={{
        items: [
          { key: "duplicate", label: "Duplicate", onClick: duplicate },
          { key: "delete", label: "Delete", danger: true, onClick: remove },
        ],
      }}
    >
      <Button size="small" type="text" className="promise-menu" aria-label={`More for ${target.name}`}>
        ⋯
      </Button>
    </Dropdown>
  );
});
