/** Ways that mend a picture, each with its price: what is left of the trouble, how much of the picture stays of use, which promises change. */
import type { Mends, SiteFile } from "../../core/types";
import { WayRow } from "./ways/WayRow";

interface Props {
  mends: Mends;
  site: SiteFile;
  /** How much of the trouble there is, in words. */
  left(amount: number): string;
  label: string;
}

export function Mending({ mends, site, left, label }: Props) {
  if (mends.ways.length === 0) return null;
  return (
    <ul className="ways-beside" aria-label={label}>
      {mends.ways.map((way) => (
        <WayRow key={way.says} way={way} site={site} verb="Try">
          {left(mends.now)} → <span className="figure">{left(way.left ?? 0)}</span> · picture used{" "}
          <span className="figure">
            {percent(mends.useful)} → {percent(way.useful ?? 0)}
          </span>
        </WayRow>
      ))}
    </ul>
  );
}

const percent = (share: number): string => `${Math.round(share * 100)} %`;
