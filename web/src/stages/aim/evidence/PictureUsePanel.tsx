/** What the picture of the head in hand is used for: a bar with its shares, why, and what would put more of it to use. */
import { useAnswer } from "../../../core/useAsked";
import { Told } from "../../../ui/Told";
import type { PictureUse, PictureWays, SiteFile, Units } from "../../../core/types";
import type { Shown } from "../../../core/useSights";
import { formatLength } from "../../../ui/length";
import { WayRow } from "../ways/WayRow";
import { TASK_WORDS, pixels } from "../../../ui/words";

/** How long the site must rest before the picture's shares are looked at, ms. */
const REST = 250;

interface Props {
  shown: Shown;
  camera: string;
  head: string;
  view: string | null;
  units: Units;
}

export function PictureUsePanel({ shown, camera, head, view, units }: Props) {
  const { site } = shown;
  const ref = { camera, head, view };
  const rests = { rest: REST, by: "surveyor" } as const;
  const { value: use, of, settled } = useAnswer(site, { ask: "picture_use", head: ref }, rests);
  const ways = useAnswer(site, { ask: "picture_ways", head: ref, units }, rests);
  if (!use || !of || !ways.value || !ways.of) return null;
  return (
    <Told className="picture-use" testId="picture-use" settled={settled && ways.settled}>
      <h3>
        Picture used / wasted
        <span className="figure"> {percent(use.useful)}</span>
      </h3>
      <Bar use={use} />
      <p className="fine">
        Useful is where somebody can be seen at {pixels(use.need_px_per_m, units)} to {TASK_WORDS[use.task]}.
      </p>
      <InBeam use={use} site={of} units={units} />
      <Ways ways={ways.value} site={ways.of} units={units} />
    </Told>
  );
}

const percent = (share: number): string => `${Math.round(share * 100)} %`;

const PARTS: [keyof PictureUse, string][] = [
  ["useful", "useful"],
  ["too_far", "ground too far"],
  ["solids", "walls"],
  ["near", "near things"],
  ["own", "own building"],
  ["sky", "sky"],
];

function Bar({ use }: { use: PictureUse }) {
  const parts = PARTS.map(([part, says]) => ({ part, says, share: use[part] as number })).filter(
    (p) => p.share > 0.004,
  );
  return (
    <>
      <div className="use-bar" role="img" aria-label={parts.map((p) => `${p.says} ${percent(p.share)}`).join(", ")}>
        {parts.map(({ part, says, share }) => (
          <span key={part} className={`use-${part}`} style={{ flexGrow: share }} title={`${says} ${percent(share)}`} />
        ))}
      </div>
      <ul className="use-key">
        {parts.map(({ part, says, share }) => (
          <li key={part}>
            <span className={`use-swatch use-${part}`} /> {says} {percent(share)}
          </li>
        ))}
      </ul>
    </>
  );
}

function InBeam({ use, site, units }: { use: PictureUse; site: SiteFile; units: Units }) {
  if (use.in_beam.length === 0) return null;
  const name = (id: string): string => site.obstacles?.find((o) => o.id === id)?.name ?? id;
  const says = use.in_beam.map(
    (held) => `${name(held.obstacle)} ${formatLength(held.nearest_m, units, 1)} away on ${percent(held.share)}`,
  );
  return (
    <p className="caution">
      In its infrared beam: {says.join(", ")}. By night that shines back and blinds the picture: keep a metre to the
      side and three ahead free.
    </p>
  );
}

function Ways({ ways, site, units }: { ways: PictureWays; site: SiteFile; units: Units }) {
  if (ways.ways.length === 0) return null;
  return (
    <ul className="ways-beside" aria-label="Ways to use more of the picture">
      {ways.ways.map((way) => (
        <WayRow key={way.kind} way={way} site={site} verb="Try">
          picture used{" "}
          <span className="figure">
            {percent(ways.useful)} → {percent(way.useful ?? 0)}
          </span>
          {Math.abs((way.reach_m ?? 0) - ways.reach_m) > 0.5 && (
            <>
              , reaches{" "}
              <span className="figure">
                {formatLength(ways.reach_m, units, 0)} → {formatLength(way.reach_m ?? 0, units, 0)}
              </span>
            </>
          )}
        </WayRow>
      ))}
    </ul>
  );
}
