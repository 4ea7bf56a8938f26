/** The private place in hand: its figures, which heads see it, how much of their pictures must be masked, and what that costs. */
import type { Masked, PrivatePlace, SiteFile, Verdict } from "../../../core/types";
import { useSettings } from "../../../keep/settings";
import { useInHand } from "../../../model/inHand";
import { setFilled } from "../../../model/obstacles";
import { keyOf, nameOf } from "../../../model/views";
import { Dial } from "../../../ui/Dial";
import { length } from "../../../ui/Measure";
import { ThingCard } from "../ThingCard";
import { Told } from "../../../ui/Told";
import { VerdictMark } from "../../../ui/VerdictMark";
import { share } from "../../../ui/words";
import { useMasks } from "./useMasks";
import { Select, Switch } from "../../../ui/controls";

export function PrivateCard({ site, thing: place }: { site: SiteFile; thing: PrivatePlace }) {
  const units = useSettings((settings) => settings.units);
  const [base, top] = [place.base_m ?? 0, place.top_m];
  return (
    <ThingCard kind="private" thing={place} className="private-card">
      {(change) => (
        <>
          <label className="switch-line">
            <Switch
              size="small"
              checked={place.closed !== false}
              onChange={(filled) => change("Change the outline", (held) => setFilled(held, filled))}
            />{" "}
            filled: all over this ground
          </label>
          <label className="stacked">
            Whose it is
            <Select<Whose>
              size="small"
              aria-label="Whose ground it is"
              value={place.whose ?? "private"}
              options={WHOSE.map(([value, label]) => ({ value, label }))}
              onChange={(whose) =>
                change("Change whose it is", (held) => {
                  if (whose === "private") delete held.whose;
                  else held.whose = whose;
                })
              }
            />
          </label>
          <div className="dials">
            <Dial
              change={change}
              of={place.id}
              label="Upper edge"
              value={top}
              quantity={length(units)}
              min={base + 0.01}
              max={500}
              set={(held, v) => (held.top_m = v)}
            />
            <Dial
              change={change}
              of={place.id}
              label="Lower edge"
              value={base}
              quantity={length(units)}
              min={-100}
              max={top - 0.01}
              set={(held, v) => (held.base_m = v)}
            />
          </div>
          <SeenBy site={site} place={place.id} />
        </>
      )}
    </ThingCard>
  );
}

/** Who sees it. */
function SeenBy({ site, place }: { site: SiteFile; place: string }) {
  const { value, settled } = useMasks(site);
  const mine = value?.filter((mask) => mask.place === place);
  return (
    <Told className="seen-by" testId="seen-by" settled={settled}>
      {mine === undefined && <p className="fine">Working …</p>}
      {mine?.length === 0 && <p className="fine">No camera sees it.</p>}
      {mine?.map((mask) => (
        <MaskRow key={keyOf(mask)} mask={mask} site={site} />
      ))}
      {mine?.some((mask) => mask.whose !== "private") && (
        <p className="hint">
          Filming public ground or the neighbour’s is restricted in many places: ask local law first, and turn or mask
          what need not be seen.
        </p>
      )}
      {mine?.some((mask) => mask.whose === "private") && (
        <p className="fine">
          The corners of each mask stand on the camera's aiming sheet. Set it once the aim is fixed.
        </p>
      )}
    </Told>
  );
}

type Whose = NonNullable<PrivatePlace["whose"]>;
const WHOSE: readonly (readonly [Whose, string])[] = [
  ["private", "private: masked"],
  ["public", "public ground"],
  ["neighbour", "the neighbour’s ground"],
];

function MaskRow({ mask, site }: { mask: Masked; site: SiteFile }) {
  const takeHead = useInHand((state) => state.takeHead);
  const takeThing = useInHand((state) => state.take);
  const ref = { camera: mask.camera, head: mask.head, ...(mask.view ? { view: mask.view } : {}) };
  const take = (): void => {
    takeHead(ref);
    takeThing({ kind: "private", id: mask.place });
  };
  return (
    <div className="mask-row">
      <button type="button" onClick={take}>
        {nameOf(site, ref)}
      </button>{" "}
      {mask.whose === "private" ? (
        <>
          masks <span className="figure">{share(mask.share)}</span> of its picture
          {mask.costs.length === 0 ? ", which costs no promise." : ":"}
        </>
      ) : (
        <>
          shows it in up to <span className="figure">{share(mask.share)}</span> of its picture.
        </>
      )}
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
