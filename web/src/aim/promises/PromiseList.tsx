/** What must be seen: each promise with what it needs, what it gets, and how it stands. */
import { PlusOutlined } from "@ant-design/icons";
import { Button, Dropdown } from "antd";
import type { Target, TargetResult } from "../../engine/types";
import type { Shown } from "../../engine/useStudy";
import { duplicateTarget, removeTarget } from "../../site/edits";
import { useSite } from "../../site/store";
import { VerdictMark } from "../../verdict/VerdictMark";
import { TASK_WORDS, density } from "../../verdict/words";
import { useInHand } from "../inHand";
import { PromiseForm } from "./PromiseForm";

export function PromiseList({ shown }: { shown: Shown }) {
  const { target: inHand, takeTarget, place } = useInHand();
  const results = new Map(shown.study?.evaluation.targets.map((result) => [result.target, result]));
  const kept = [...results.values()].filter((result) => result.verdict === "kept").length;
  const { targets, cameras } = shown.site;
  const cameraName = (id: string | undefined): string => cameras.find((camera) => camera.id === id)?.name ?? "no camera";
  return (
    <section className="promises" aria-label="Promises">
      <div className="panel-head">
        <h2>Promises</h2>
        <span className="figure">{targets.length === 0 ? "" : shown.study ? `${kept} of ${targets.length} kept` : "working …"}</span>
      </div>
      {targets.length === 0 && <p className="hint">A promise is something that must be seen: a till, a door, a gate. Put the first one on the plan.</p>}
      <ol className="promise-rows">
        {targets.map((target) => {
          const result = results.get(target.id);
          const selected = target.id === inHand;
          return (
            <li key={target.id} className={selected ? "promise promise-in-hand" : "promise"}>
              <button type="button" className="promise-face" aria-pressed={selected} onClick={() => takeTarget(target.id)}>
                <VerdictMark verdict={result?.verdict ?? null} />
                <span className="promise-name">{target.name}</span>
                <span className="promise-task">{TASK_WORDS[target.task]} · {cameraName(result?.best?.camera)}</span>
                <span className="promise-density figure">{result ? `${density(result.px_per_m)} px/m` : "…"}</span>
                <NeedBar result={result} />
              </button>
              {selected && <PromiseMenu target={target} />}
              {selected && <PromiseForm target={target} />}
            </li>
          );
        })}
      </ol>
      <div className="promise-add">
        <Button size="small" icon={<PlusOutlined />} aria-label="Add a target" onClick={() => place("target")} type={targets.length === 0 ? "primary" : "default"}>Target</Button>
        <Button size="small" icon={<PlusOutlined />} aria-label="Add a camera" onClick={() => place("camera")} type={targets.length > 0 && cameras.length === 0 ? "primary" : "default"}>Camera</Button>
        <Button size="small" icon={<PlusOutlined />} aria-label="Add an obstacle" onClick={() => place("obstacle")}>Obstacle</Button>
      </div>
    </section>
  );
}

/** What it gets against what it needs: the mark stands at the need, the bar ends at twice that. */
function NeedBar({ result }: { result: TargetResult | undefined }) {
  const share = result ? Math.min(result.px_per_m / result.needs_px_per_m / 2, 1) : 0;
  return (
    <span className="need-bar" aria-hidden="true">
      <span className={`need-got verdict-bar-${result?.verdict ?? "none"}`} style={{ width: `${share * 100}%` }} />
      <span className="need-mark" />
    </span>
  );
}

function PromiseMenu({ target }: { target: Target }) {
  const edit = useSite((state) => state.edit);
  const takeTarget = useInHand((state) => state.takeTarget);
  const duplicate = (): void => {
    let copy: string | null = null;
    edit(`Duplicate ${target.name}`, (site) => { copy = duplicateTarget(site, target.id); });
    if (copy) takeTarget(copy);
  };
  const remove = (): void => edit(`Delete ${target.name}`, (site) => removeTarget(site, target.id));
  return (
    <Dropdown
      trigger={["click"]}
      menu={{ items: [
        { key: "duplicate", label: "Duplicate", onClick: duplicate },
        { key: "delete", label: "Delete", danger: true, onClick: remove },
      ] }}
    >
      <Button size="small" type="text" className="promise-menu" aria-label={`More for ${target.name}`}>⋯</Button>
    </Dropdown>
  );
}
