/** A way as it is offered, wherever: what to do, what that gives, which promises change, and one press to take it. */
import { App } from "antd";
import type { ReactNode } from "react";
import type { SiteFile, Way } from "../../../core/types";
import { takeOver } from "../../../keep/rebase";
import { patched } from "../../../model/patch";
import { VerdictMark } from "../../../ui/VerdictMark";
import { Button } from "../../../ui/controls";
import "../evidence/evidence.css";
import "./ways.css";

interface Props {
  way: Way;
  /** The state that it was found for: the places in its patch are of that. */
  site: SiteFile;
  /** What the button says; with what to do it is the button's name. */
  verb: string;
  /** The first among what can be done, or one beside it. */
  large?: boolean;
  /** What it comes to, in words and figures. */
  children?: ReactNode;
  onTaken?(): void;
}

export function WayRow({ way, site, verb, large = false, children, onTaken }: Props) {
  const { message } = App.useApp();
  const apply = async (): Promise<void> => {
    if (await takeOver(way.says.slice(0, 200), site, patched(site, way.patch))) onTaken?.();
    else void message.warning("The site has moved on since this way was found; the ways are being looked for anew.");
  };
  const name = (id: string): string => site.targets.find((target) => target.id === id)?.name ?? id;
  const changed = way.effects.filter((effect) => effect.before !== effect.after);
  return (
    <li className={large ? "way" : "way way-small"}>
      <div>
        <p className="way-says">{way.says}</p>
        {way.why && <p className="fine">{way.why}</p>}
        {children && <p className="fine">{children}</p>}
        {changed.length > 0 && (
          <ul className="effects">
            {changed.map((effect) => (
              <li key={effect.target}>
                <VerdictMark verdict={effect.before} size={13} /> → <VerdictMark verdict={effect.after} size={13} />{" "}
                {name(effect.target)}: {effect.after}
              </li>
            ))}
          </ul>
        )}
      </div>
      <Button
        type={large ? "primary" : "default"}
        size={large ? "middle" : "small"}
        onClick={() => void apply()}
        aria-label={`${verb}: ${way.says}`}
      >
        {verb}
      </Button>
    </li>
  );
}
