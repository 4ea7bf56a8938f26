/** The ways to mend a cable or a box, each with what stands differently then, and one press to take it. */
import { App } from "antd";
import type { SiteFile, WireWay } from "../../core/types";
import { useAnswer } from "../../core/useAsked";
import { takeOver } from "../../keep/rebase";
import { nameOf } from "../../model/network";
import { patched } from "../../model/patch";
import { Told } from "../../ui/Told";
import { VerdictMark } from "../../ui/VerdictMark";
import { Button } from "../../ui/controls";

export function WireWays({ site, id }: { site: SiteFile; id: string }) {
  const { value, of, settled } = useAnswer(site, { ask: "wire_ways", id }, { by: "surveyor" });
  return (
    <Told settled={settled} className="wire-ways" label="Ways to mend it" testId="wire-ways">
      <h3>Ways to mend it</h3>
      {value === null && <p className="hint">Looking …</p>}
      {value?.length === 0 && (
        <p className="hint">
          None of the usual ones is enough. Move the recorder or a switch nearer, or route it anew.
        </p>
      )}
      <ul className="wire-mends">{value && of && value.map((way) => <Row key={way.says} site={of} way={way} />)}</ul>
    </Told>
  );
}

function Row({ site, way }: { site: SiteFile; way: WireWay }) {
  const { message } = App.useApp();
  const apply = async (): Promise<void> => {
    if (!(await takeOver(way.says.slice(0, 200), site, patched(site, way.patch))))
      void message.warning("The site has moved on since this was found; it is being looked for anew.");
  };
  return (
    <li className="wire-mend">
      <div>
        <p className="wire-mend-says">{way.says}</p>
        <ul className="effects">
          {way.effects.map((effect) => (
            <li key={effect.id}>
              <VerdictMark verdict={effect.before} size={13} /> → <VerdictMark verdict={effect.after} size={13} />{" "}
              {nameOf(site, effect.id)}
            </li>
          ))}
        </ul>
      </div>
      <Button size="small" type="primary" aria-label={`Do it: ${way.says}`} onClick={() => void apply()}>
        Do it
      </Button>
    </li>
  );
}
