/** How large the subject is: the usual size unless the promise says its own. */
import type { Target } from "../../../core/types";
import { GUIDE } from "../../../core/guide";
import { useSettings } from "../../../keep/settings";
import { Measure, length } from "../../../ui/Measure";

interface Props {
  target: Target;
  /** A size of its own, m; null for the usual one. */
  onSize(size: [number, number] | null, gesture: boolean): void;
}

export function SubjectSize({ target, onSize }: Props) {
  const units = useSettings((settings) => settings.units);
  const usual = GUIDE.sizes.find((known) => known.subject === target.subject)?.size_m;
  if (!usual) return null;
  const [width = 0, tall = 0] = target.size_m ?? usual;
  const set = (size: [number, number], gesture: boolean): void =>
    onSize(size[0] === usual[0] && size[1] === usual[1] ? null : size, gesture);
  return (
    <>
      <Measure
        of={target.id}
        label="Wide"
        hint="How wide the subject is"
        value={width}
        quantity={length(units)}
        min={0.01}
        max={50}
        onChange={(v, gesture) => set([v, tall], gesture)}
      />
      <Measure
        of={target.id}
        label="Tall"
        hint="How tall the subject is"
        value={tall}
        quantity={length(units)}
        min={0.01}
        max={50}
        onChange={(v, gesture) => set([width, v], gesture)}
      />
    </>
  );
}
