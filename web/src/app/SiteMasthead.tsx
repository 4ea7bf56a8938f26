/** The strip on top of a site's stages: its name, the stages, undo and redo, and how far everything is kept. */
import { RedoOutlined, UndoOutlined } from "@ant-design/icons";
import { Button, Dropdown, Input, Tooltip } from "antd";
import { Suspense, useState } from "react";
import { useStore } from "zustand";
import { useShallow } from "zustand/react/shallow";
import { exportSite } from "../keep/files";
import { lastStep, nextStep, useHistory } from "../keep/history";
import { type Saving, useSite } from "../keep/store";
import { Masthead } from "../ui/Masthead";
import { type Stage, stageAddress } from "../ui/address";
import { STAGES } from "./stages";

export function SiteMasthead({ stage }: { stage: Stage }) {
  // Not the site itself: it changes at every move of a hand.
  const open = useSite(
    useShallow(
      ({ open: held }) =>
        held && {
          id: held.id,
          name: held.site.name,
          saving: held.saving,
          savedAt: held.savedAt,
          revision: held.revision,
        },
    ),
  );
  const { undo, redo } = useSite.getState();
  const [rules, setRules] = useState(false);
  // What can be undone changes with the steps.
  useStore(useHistory.temporal, (steps) => `${steps.pastStates.length}/${steps.futureStates.length}`);
  if (!open) return null;
  const [back, forth] = [lastStep(), nextStep()];
  const { Tools = null, Limits = null } = STAGES.find((known) => known.stage === stage) ?? {};
  return (
    <Masthead
      title={<SiteName name={open.name} />}
      stages={
        <nav className="stages" aria-label="Stages">
          {STAGES.map(({ stage: to, word }) => (
            <a key={to} href={stageAddress(open.id, to)} aria-current={to === stage ? "page" : undefined}>
              {word}
            </a>
          ))}
        </nav>
      }
    >
      <Tooltip title={back !== null ? `Undo: ${back}` : "Nothing to undo"}>
        <Button size="small" ghost disabled={back === null} onClick={undo} icon={<UndoOutlined />} aria-label="Undo" />
      </Tooltip>
      <Tooltip title={forth !== null ? `Redo: ${forth}` : "Nothing to redo"}>
        <Button size="small" ghost disabled={forth === null} onClick={redo} icon={<RedoOutlined />} aria-label="Redo" />
      </Tooltip>
      <SavingState saving={open.saving} savedAt={open.savedAt} revision={open.revision} />
      <Dropdown
        trigger={["click"]}
        menu={{
          items: [
            { key: "rules", label: "Limits of this site", onClick: () => setRules(true) },
            {
              key: "export",
              label: "Save as a site file",
              onClick: () => {
                const site = useSite.getState().open?.site;
                if (site) exportSite(site);
              },
            },
          ],
        }}
      >
        <Button size="small" ghost>
          Site
        </Button>
      </Dropdown>
      <Suspense fallback={null}>
        {Tools && <Tools />}
        {Limits && rules && <Limits close={() => setRules(false)} />}
      </Suspense>
    </Masthead>
  );
}

function SiteName({ name }: { name: string }) {
  const edit = useSite((state) => state.edit);
  const [typed, setTyped] = useState<string | null>(null);
  const commit = (): void => {
    const taken = typed?.trim();
    if (taken && taken !== name)
      edit("Rename the site", (site) => {
        site.name = taken;
      });
    setTyped(null);
  };
  return (
    <Input
      className="site-name"
      variant="borderless"
      aria-label="Name of the site"
      maxLength={200}
      value={typed ?? name}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={commit}
      onPressEnter={(event) => event.currentTarget.blur()}
    />
  );
}

function SavingState({ saving, savedAt, revision }: { saving: Saving; savedAt: string; revision: number }) {
  const time = new Date(savedAt).toLocaleTimeString([], { hour: "2-digit", minute: "2-digit" });
  const words: Record<Saving["kind"], string> = {
    kept: `Kept ${time} · rev ${revision}`,
    waiting: "Keeping …",
    keeping: "Keeping …",
    away: "In this browser, server away",
    refused: "Not kept",
    stale: "Two versions",
  };
  const [fault] = saving.kind === "refused" ? saving.faults : [];
  return (
    <span
      className={`saving saving-${saving.kind}`}
      role="status"
      data-testid="saving"
      title={fault && `${fault.path}: ${fault.message}`}
    >
      {words[saving.kind]}
    </span>
  );
}
