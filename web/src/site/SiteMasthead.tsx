/** The strip on top of a site's stages: its name, the stages, undo and redo, and how far everything is kept. */
import { RedoOutlined, UndoOutlined } from "@ant-design/icons";
import { Button, Dropdown, Input, Tooltip } from "antd";
import { useState } from "react";
import { Masthead } from "../shell/Masthead";
import { KeysHelp } from "../aim/KeysHelp";
import { SiteRules } from "../aim/SiteRules";
import { type Stage, stageAddress } from "../shell/route";
import { exportSite } from "./files";
import { type Saving, useSite } from "./store";

const STAGES: [Stage, string][] = [["survey", "Survey"], ["aim", "Aim"]];

export function SiteMasthead({ stage }: { stage: Stage }) {
  const open = useSite((state) => state.open);
  const { undo, redo } = useSite.getState();
  const [rules, setRules] = useState(false);
  if (!open) return null;
  const back = open.past.at(-1);
  const forth = open.future[0];
  return (
    <Masthead title={<SiteName name={open.site.name} />} stages={
      <nav className="stages" aria-label="Stages">
        {STAGES.map(([to, word]) => (
          <a key={to} href={stageAddress(open.id, to)} aria-current={to === stage ? "page" : undefined}>{word}</a>
        ))}
      </nav>
    }>
      <Tooltip title={back ? `Undo: ${back.says}` : "Nothing to undo"}>
        <Button size="small" ghost disabled={!back} onClick={undo} icon={<UndoOutlined />} aria-label="Undo" />
      </Tooltip>
      <Tooltip title={forth ? `Redo: ${forth.says}` : "Nothing to redo"}>
        <Button size="small" ghost disabled={!forth} onClick={redo} icon={<RedoOutlined />} aria-label="Redo" />
      </Tooltip>
      <SavingState saving={open.saving} savedAt={open.savedAt} revision={open.revision} />
      <Dropdown
        trigger={["click"]}
        menu={{
          items: [
            { key: "rules", label: "Limits of this site", onClick: () => setRules(true) },
            { key: "export", label: "Save as a site file", onClick: () => exportSite(open.site) },
          ],
        }}
      >
        <Button size="small" ghost>Site</Button>
      </Dropdown>
      {stage === "aim" && <KeysHelp />}
      {rules && <SiteRules close={() => setRules(false)} />}
    </Masthead>
  );
}

function SiteName({ name }: { name: string }) {
  const edit = useSite((state) => state.edit);
  const [typed, setTyped] = useState<string | null>(null);
  const commit = (): void => {
    const taken = typed?.trim();
    if (taken && taken !== name) edit("Rename the site", (site) => { site.name = taken; });
    setTyped(null);
  };
  return (
    <Input
      className="site-name" variant="borderless" aria-label="Name of the site" maxLength={200} value={typed ?? name}
      onChange={(event) => setTyped(event.target.value)} onBlur={commit}
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
    <span className={`saving saving-${saving.kind}`} role="status" data-testid="saving" title={fault && `${fault.path}: ${fault.message}`}>
      {words[saving.kind]}
    </span>
  );
}
