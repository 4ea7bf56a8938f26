/** The private place in hand: its figures, which heads see it, how much of their pictures must be masked, and what that costs. */
import { Button, Switch } from "antd";
import type { Masked, PrivatePlace, SiteFile, Verdict } from "../../../core/types";
import { useSettings } from "../../../keep/settings";
import { useSite } from "../../../keep/store";
import { useInHand } from "../../../model/inHand";
import { privateOf } from "../../../model/lookups";
import { setFilled } from "../../../model/obstacles";
import { keyOf, nameOf } from "../../../model/views";
import { Told } from "../../../ui/Told";
import { NameInput } from "../../../ui/NameInput";
import { Measure, length } from "../../../ui/Measure";
import { VerdictMark } from "../../../ui/VerdictMark";
import { share } from "../../../ui/words";
import { removePrivate } from "../planActions";
import { useMasks } from "./useMasks";

export function PrivateCard({ site }: { site: SiteFile }) {
  const { privatePlace, takePrivate } = useInHand();
  const place = privatePlace ? privateOf(site, privatePlace) : undefined;
  if (!place) return null;
  return <Card key={place.id} site={site} place={place} close={() => takePrivate(null)} />;
}

function Card({ site, place, close }: { site: SiteFile; place: PrivatePlace; close(): void }) {
  const units = useSettings((settings) => settings.units);
  const edit = useSite((state) => state.edit);
  const change = (says: string, recipe: (held: PrivatePlace) => void, turned = false): void =>
    edit(
      `${says}: ${place.name}`.slice(0, 200),
      (draft) => {
        const held = privateOf(draft, place.id);
        if (held) recipe(held);
      },
      turned ? `private-${says}-${place.id}` : "",
    );
  const rename = (name: string): void =>
    change("Rename", (held) => {
      held.name = name;
    });
  const [base, top] = [place.base_m ?? 0, place.top_m];
  return (
    <section className="obstacle-card private-card" aria-label={`Private place ${place.name}`}>
      <NameInput of={place.id} name={place.name} label="Name of the private place" onName={rename} />
      <label className="switch-line">
        <Switch
          size="small"
          checked={place.closed !== false}
          onChange={(filled) => change("Change the outline", (held) => setFilled(held, filled))}
        />{" "}
        filled: all over this ground
      </label>
      <div className="dials">
        <Measure
          of={place.id}
          label="Upper edge"
          value={top}
          quantity={length(units)}
          min={base + 0.01}
          max={500}
          onChange={(v, g) =>
            change(
              "Upper edge",
              (held) => {
                held.top_m = v;
              },
              g,
            )
          }
        />
        <Measure
          of={place.id}
          label="Lower edge"
          value={base}
          quantity={length(units)}
          min={-100}
          max={top - 0.01}
          onChange={(v, g) =>
            change(
              "Lower edge",
              (held) => {
                held.base_m = v;
              },
              g,
            )
          }
        />
      </div>
      <SeenBy site={site} place={place.id} />
      <div className="obstacle-card-foot">
        <Button size="small" danger onClick={() => removePrivate(place)}>
          Delete
        </Button>
        <Button size="small" type="primary" onClick={close}>
          Done
        </Button>
      </div>
    </section>
  );
}

/** Who sees it. */
function SeenBy({ site, place }: { site: SiteFile; place: string }) {
  const { value, settled } = useMasks(site);
  const mine = value?.filter((mask) => mask.place === place);
  return (
    <Told className="seen-by" testId="seen-by" settled={settled}>
      {mine === undefined && <p className="fine">Working …</p>}
      {mine?.length === 0 && <p className="fine">No head sees it: nothing is to be masked.</p>}
      {mine?.map((mask) => (
        <MaskRow key={keyOf(mask)} mask={mask} site={site} />
      ))}
      {mine && mine.length > 0 && (
        <p className="fine">The corners of each mask stand on the head's aiming card. Set it once the aim is fixed.</p>
      )}
    </Told>
  );
}

function MaskRow({ mask, site }: { mask: Masked; site: SiteFile }) {
  const takeHead = useInHand((state) => state.takeHead);
  const takePrivate = useInHand((state) => state.takePrivate);
  const ref = { camera: mask.camera, head: mask.head, ...(mask.view ? { view: mask.view } : {}) };
  const take = (): void => {
    takeHead(ref);
    takePrivate(mask.place);
  };
  return (
    <div className="mask-row">
      <button type="button" onClick={take}>
        {nameOf(site, ref)}
      </button>{" "}
      masks <span className="figure">{share(mask.share)}</span> of its picture
      {mask.costs.length === 0 ? ", which costs no promise." : ":"}
      {mask.costs.map((cost) => (
        <Cost key={cost.target} verdict={cost.verdict} name={site.targets.find((t) => t.id === cost.target)?.name} />
      ))}
    </div>
  );
}

function Cost({ verdict, name = "" }: { verdict: Verdict; name: string | undefined }) {
  return (
    <p className="mask-cost">
      <VerdictMark verdict={verdict} size={13} /> {name}{" "}
      {verdict === "broken" ? "is lost behind it" : "may come behind it"}
    </p>
  );
}
