/** The head of what is in hand: its verdict, its name, what is wrong, and taking it out. */
import type { ReactNode } from "react";
import type { Verdict } from "../../core/types";
import { VerdictMark } from "../../ui/VerdictMark";
import { Button } from "../../ui/controls";

interface Props {
  kind: string;
  verdict: Verdict | null;
  name: ReactNode;
  says?: string[];
  settled: boolean;
  onRemove?: () => void;
  children: ReactNode;
}

export function Card({ kind, verdict, name, says = [], settled, onRemove, children }: Props) {
  return (
    <section className="wire-card" aria-label={kind}>
      <header className="wire-card-head">
        <VerdictMark verdict={verdict} />
        <div>
          <span className="fine">{kind}</span>
          {name}
        </div>
      </header>
      {says.length > 0 && (
        <ul
          className={`wire-says told verdict-word-${verdict ?? "none"}`}
          data-settled={settled}
          data-testid="wire-says"
        >
          {says.map((said) => (
            <li key={said}>{said}</li>
          ))}
        </ul>
      )}
      {children}
      {onRemove && (
        <div className="wire-card-foot">
          <Button size="small" danger onClick={onRemove}>
            Delete
          </Button>
        </div>
      )}
    </section>
  );
}

/** Figures by name; what is not known is left out. */
export function Figures({ of, settled }: { of: [string, string | null | undefined][]; settled: boolean }) {
  return (
    <dl className="wire-figures told" data-settled={settled}>
      {of.map(([name, value]) =>
        value == null ? null : (
          <div key={name}>
            <dt>{name}</dt>
            <dd className="figure">{value}</dd>
          </div>
        ),
      )}
    </dl>
  );
}
