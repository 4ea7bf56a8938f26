/** What there usually is to be seen on this kind of site, to tick: what matters most first. */
import { Button, Checkbox } from "antd";
import { useState } from "react";
import { GUIDE } from "../../../core/guide";
import type { SiteFile } from "../../../core/types";
import { useSite } from "../../../keep/store";
import { addUsual } from "../../../model/targets";

/** So many of the most important are ticked to begin with. */
const TICKED = 5;

export function UsualTargets({ site }: { site: SiteFile }) {
  const kind = site.brief?.kind;
  const usual = GUIDE.usual.find((known) => known.kind === kind)?.targets ?? [];
  const left = usual.filter(({ name }) => !site.targets.some((target) => target.name === name));
  if (!kind || left.length === 0) return null;
  return <Ticks key={`${kind}/${left.length}`} left={left} first={site.targets.length === 0} />;
}

function Ticks({ left, first }: { left: { name: string; says: string }[]; first: boolean }) {
  const edit = useSite((state) => state.edit);
  // Some are there already: then the rest was left out on purpose.
  const [ticked, setTicked] = useState(() => new Set(first ? left.slice(0, TICKED).map(({ name }) => name) : []));
  const add = (): void =>
    edit("Add usual targets", (draft) =>
      addUsual(
        draft,
        left.flatMap(({ name, says }) => {
          const task = GUIDE.tasks.find((known) => known.says === says);
          return task && ticked.has(name) ? [{ name, task }] : [];
        }),
      ),
    );
  return (
    <fieldset className="usual-targets">
      <legend>Usually to be seen, the most important first</legend>
      {left.map(({ name, says }) => (
        <Checkbox
          key={name}
          checked={ticked.has(name)}
          onChange={(event) => {
            const now = new Set(ticked);
            if (event.target.checked) now.add(name);
            else now.delete(name);
            setTicked(now);
          }}
        >
          <strong>{name}</strong> <span className="fine">{says}</span>
        </Checkbox>
      ))}
      <Button size="large" type="primary" disabled={ticked.size === 0} onClick={add}>
        Add {ticked.size === 1 ? "this target" : `these ${ticked.size} targets`}
      </Button>
    </fieldset>
  );
}
