/** The designs of a site: the one in hand and those kept aside; one is adopted, two are laid side by side. */
import { App } from "antd";
import { ask } from "../../../core/port";
import { NameInput } from "../../../ui/NameInput";
import type { SiteFile } from "../../../core/types";
import { takeOver } from "../../../keep/rebase";
import { useSite } from "../../../keep/store";
import { IN_HAND, designsOf, keepAside, removeDesign, renameDesign } from "../../../model/designs";
import { patched } from "../../../model/patch";
import { useDesigns } from "./designsView";
import { Button } from "../../../ui/controls";
import "./designs.css";

/** Takes a design of the site in hand; the one before is kept in its place. */
export async function adopt(site: SiteFile, id: string, name: string): Promise<boolean> {
  const patch = await ask(site, { ask: "adopt", design: id });
  return takeOver(`Use option ${name}`.slice(0, 200), site, patched(site, patch));
}

export function DesignsPanel({ site }: { site: SiteFile }) {
  const edit = useSite((state) => state.edit);
  const lay = useDesigns((state) => state.lay);
  const { message } = App.useApp();
  const designs = designsOf(site);
  const aside = (): void =>
    edit("Save as option", (draft) => {
      draft.design ??= IN_HAND;
      keepAside(draft, `${draft.design} (copy)`.slice(0, 200));
    });
  const take = async (id: string, name: string): Promise<void> => {
    if (!(await adopt(site, id, name))) void message.warning("The site has moved on; try again.");
  };
  return (
    <div className="designs-panel">
      <ul aria-label="Options">
        {designs.map(({ id, name }) => (
          <li key={id ?? "in hand"} className={id === null ? "view-in-hand" : ""}>
            <NameInput
              of={id ?? "in hand"}
              label="Name of the option"
              name={name}
              onName={(wanted) => edit(`Rename ${name}`, (draft) => renameDesign(draft, id, wanted))}
            />
            <span className="fine">{camerasOf(site, id)}</span>
            {id === null ? (
              <span className="fine">on the plan now</span>
            ) : (
              <>
                <Button size="small" onClick={() => lay(null, id)}>
                  Side by side
                </Button>
                <Button size="small" onClick={() => void take(id, name)}>
                  Use this option
                </Button>
                <Button
                  size="small"
                  type="text"
                  aria-label={`Delete ${name}`}
                  onClick={() => edit(`Delete ${name}`, (draft) => removeDesign(draft, id))}
                >
                  ×
                </Button>
              </>
            )}
          </li>
        ))}
      </ul>
      <Button size="small" type="primary" onClick={aside}>
        Save as option
      </Button>
      <p className="fine">
        An option keeps the cameras as they are now. Change them on the plan, then compare both, side by side, on the
        same promises.
      </p>
    </div>
  );
}

function camerasOf(site: SiteFile, id: string | null): string {
  const cameras = id === null ? site.cameras : (site.variants?.find((held) => held.id === id)?.cameras ?? []);
  const heads = cameras.reduce((sum, camera) => sum + camera.heads.length, 0);
  const many = `${cameras.length} ${cameras.length === 1 ? "camera" : "cameras"}`;
  return heads === cameras.length ? many : `${many}, ${heads} camera views`;
}
