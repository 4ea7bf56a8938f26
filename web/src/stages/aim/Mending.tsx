/** Ways that mend a picture, each with its price: what is left of the trouble, how much of the picture stays of use, which promises change. */
import { App, Button } from "antd";
import type { Mend, Mends, SiteFile } from "../../core/types";
import { takeOver } from "../../keep/rebase";
import { patched } from "../../model/patch";
import { VerdictMark } from "../../ui/VerdictMark";

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
    <ul className="mends" aria-label={label}>
      {mends.ways.map((way) => (
        <Row key={way.says} way={way} site={site} now={mends} left={left} />
      ))}
    </ul>
  );
}

function Row({ way, site, now, left }: { way: Mend; site: SiteFile; now: Mends; left(amount: number): string }) {
  const { message } = App.useApp();
  const name = (id: string): string => site.targets.find((target) => target.id === id)?.name ?? id;
  const apply = async (): Promise<void> => {
    if (!(await takeOver(way.says.slice(0, 200), site, patched(site, way.patch))))
      void message.warning("The site has moved on since this was found; it is looked for anew.");
  };
  const changed = way.effects.filter((effect) => effect.before !== effect.after);
  return (
    <li>
      <div>
        <p>{way.says}</p>
        <p className="fine">
          {left(now.now)} → <span className="figure">{left(way.left)}</span> · picture of use{" "}
          <span className="figure">
            {percent(now.useful)} → {percent(way.useful)}
          </span>
          {changed.map((effect) => (
            <span key={effect.target} className="mend-effect">
              {" "}
              <VerdictMark verdict={effect.after} size={12} /> {name(effect.target)} {effect.after}
            </span>
          ))}
        </p>
      </div>
      <Button size="small" onClick={() => void apply()} aria-label={`Take: ${way.says}`}>
        Take
      </Button>
    </li>
  );
}

const percent = (share: number): string => `${Math.round(share * 100)} %`;
