/** The strip on top of a site's stages: its name, the stages, undo and redo, and how far everything is saved. */
import { RedoOutlined, UndoOutlined } from "@ant-design/icons";
import { App, Button, Dropdown, Tooltip } from "antd";
import { Suspense, lazy, useState } from "react";
import { useStore } from "zustand";
import { useShallow } from "zustand/react/shallow";
import { type PlanFormat, exportPlan } from "../keep/drawings";
import { exportSite } from "../keep/files";
import { lastStep, nextStep, useHistory } from "../keep/history";
import { useSettings } from "../keep/settings";
import { useSite } from "../keep/store";
import { NameInput } from "../ui/NameInput";
import { Masthead } from "../ui/Masthead";
import { PHONES, type Stage, goTo, stageAddress } from "../ui/address";
import { useHelp } from "../ui/help";
import { usePhone } from "../ui/usePhone";
import { DeleteSite } from "./DeleteSite";
import { SavingState } from "./SavingState";
import { STAGES } from "./stages";

const Revisions = lazy(() => import("./Revisions").then((module) => ({ default: module.Revisions })));

export function SiteMasthead({ stage }: { stage: Stage }) {
  // Not the site itself: it changes at every move of a hand.
  const open = useSite(
    useShallow(
      ({ open: held }) =>
        held && {
          id: held.id,
          name: held.site.name,
          looking: held.saving.kind === "looking",
        },
    ),
  );
  const { undo, redo } = useSite.getState();
  const phone = usePhone();
  const { units, dark, set } = useSettings();
  const { message } = App.useApp();
  const saveAs = async (format: PlanFormat): Promise<void> => {
    const site = useSite.getState().open?.site;
    try {
      if (site) await exportPlan(site, format);
    } catch {
      void message.warning(
        "The server writes that file, and it does not answer just now. Save the site file meanwhile.",
      );
    }
  };
  const [asked, setAsked] = useState<"rules" | "revisions" | "delete" | null>(null);
  // What can be undone changes with the steps.
  useStore(useHistory.temporal, (steps) => `${steps.pastStates.length}/${steps.futureStates.length}`);
  if (!open) return null;
  const [back, forth] = [lastStep(), nextStep()];
  const { Tools = null, Limits = null } = STAGES.find((known) => known.stage === stage) ?? {};
  return (
    <Masthead
      title={<SiteName id={open.id} name={open.name} disabled={open.looking} />}
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
      {!phone && (
        <Tooltip title={forth !== null ? `Redo: ${forth}` : "Nothing to redo"}>
          <Button
            size="small"
            ghost
            disabled={forth === null}
            onClick={redo}
            icon={<RedoOutlined />}
            aria-label="Redo"
          />
        </Tooltip>
      )}
      <SavingState />
      <Dropdown
        trigger={["click"]}
        menu={{
          items: [
            ...(phone
              ? [
                  {
                    key: "redo",
                    label: forth !== null ? `Redo: ${forth}` : "Redo",
                    disabled: forth === null,
                    onClick: redo,
                  },
                  {
                    key: "units",
                    label: units === "feet" ? "Show metres" : "Show feet",
                    onClick: () => set({ units: units === "feet" ? "metres" : "feet" }),
                  },
                  { key: "dark", label: dark ? "Light theme" : "Dark theme", onClick: () => set({ dark: !dark }) },
                  ...(Tools
                    ? [{ key: "help", label: "Keys and words", onClick: () => useHelp.getState().show(true) }]
                    : []),
                  { type: "divider" as const },
                ]
              : []),
            { key: "rules", label: "Limits and settings", disabled: open.looking, onClick: () => setAsked("rules") },
            { key: "phones", label: "Phones", onClick: () => goTo(PHONES) },
            { key: "revisions", label: "Revisions", onClick: () => setAsked("revisions") },
            {
              key: "export",
              label: "Save as a site file",
              onClick: () => {
                const site = useSite.getState().open?.site;
                if (site) exportSite(site);
              },
            },
            ...(["geojson", "dxf", "svg"] as const).map((format) => ({
              key: format,
              label: `Save the plan as ${FORMATS[format]}`,
              onClick: () => void saveAs(format),
            })),
            { key: "delete", label: "Delete this site", danger: true, onClick: () => setAsked("delete") },
          ],
        }}
      >
        <Button size="small" ghost aria-label="Site">
          {phone ? "⋯" : "Site"}
        </Button>
      </Dropdown>
      <Suspense fallback={null}>
        {Tools && <Tools />}
        {Limits && asked === "rules" && <Limits close={() => setAsked(null)} />}
        {asked === "revisions" && <Revisions id={open.id} close={() => setAsked(null)} />}
      </Suspense>
      {asked === "delete" && <DeleteSite id={open.id} name={open.name} close={() => setAsked(null)} />}
    </Masthead>
  );
}

const FORMATS = { geojson: "GeoJSON", dxf: "DXF", svg: "SVG" };

function SiteName({ id, name, disabled }: { id: string; name: string; disabled: boolean }) {
  const edit = useSite((state) => state.edit);
  const rename = (taken: string): void =>
    edit("Rename the site", (site) => {
      site.name = taken;
    });
  return (
    <NameInput
      of={id}
      name={name}
      label="Name of the site"
      className="site-name"
      looks="title"
      disabled={disabled}
      onName={rename}
    />
  );
}
