/** The lines that were taken so far, by the numbers that stand on the plan. */
import type { SiteFile } from "../../../core/types";
import { isAimedAt } from "../../../model/lines";

export function Taken({ site, go }: { site: SiteFile; go(target: string): void }) {
  if (site.cameras.length === 0) return null;
  return (
    <section className="lines-taken" aria-label="Taken so far">
      <h2>Taken so far</h2>
      <ol>
        {site.cameras.map((camera) => {
          const sees = site.targets.filter((target) => isAimedAt({ ...site, cameras: [camera] }, target));
          const [first] = sees;
          return (
            <li key={camera.id} data-testid="taken-line">
              <strong className="figure">{camera.name}</strong>{" "}
              {first ? (
                <button type="button" className="plain-button" onClick={() => go(first.id)}>
                  {sees.map(({ name }) => name).join(", ")}
                </button>
              ) : (
                "aimed at no target"
              )}
              <span className="fine">{camera.model.name}</span>
            </li>
          );
        })}
      </ol>
    </section>
  );
}
