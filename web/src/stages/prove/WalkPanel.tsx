/** The walk test: every promise by design, as built and as proved, what is left, and the test at the one in hand. */
import type { PromiseProved, Proved, ProveTodo, SiteFile, Verdict } from "../../core/types";
import { useSite } from "../../keep/store";
import { Told } from "../../ui/Told";
import { VerdictMark } from "../../ui/VerdictMark";
import { goTo, proveAddress } from "../../ui/address";
import { useProveView } from "./proveView";
import { WalkTest } from "./WalkTest";
import { VERDICT_WORDS } from "./words";

interface Props {
  site: SiteFile;
  proved: Proved | null;
  settled: boolean;
  item: string | null;
}

export function WalkPanel({ site, proved, settled, item }: Props) {
  const id = useSite((state) => state.open?.id) ?? "";
  const promise = proved?.promises.find((one) => one.target === item);
  return (
    <div className={item === null ? "prove-three" : "prove-three prove-one"}>
      <section className="promises prove-list" aria-label="Promises">
        <div className="panel-head">
          <h2>Promises</h2>
          <span className="figure" data-testid="proved-count">
            {proved ? `${proved.promises.filter(isProved).length} of ${proved.promises.length} proved` : "working …"}
          </span>
        </div>
        {site.targets.length === 0 && (
          <p className="hint">Nothing is promised yet: what must be seen is put on the plan on the stage Aim.</p>
        )}
        <Told settled={settled} testId="proved">
          <div className="prove-columns" aria-hidden>
            <span>design</span>
            <span>built</span>
            <span>day</span>
            <span>night</span>
          </div>
          <ol className="promise-rows">
            {proved?.promises.map((one) => (
              <Row key={one.target} promise={one} id={id} chosen={one.target === item} />
            ))}
          </ol>
          {proved && <Left left={proved.left} done={proved.done} id={id} />}
        </Told>
      </section>
      {promise ? (
        <WalkTest key={promise.target} site={site} promise={promise} settled={settled} />
      ) : (
        <section className="prove-empty">
          <p className="hint">
            {item !== null && proved
              ? "There is no such promise any more."
              : "Choose a promise, stand at its place with a board or a car, and measure it in the camera’s picture: by day, and by night with every lamp as it will be."}
          </p>
          <p className="caution">
            Look out for traffic, edges and holes where you stand, more so by night. Local rules decide.
          </p>
        </section>
      )}
    </div>
  );
}

const isProved = (promise: PromiseProved): boolean =>
  promise.day.verdict === "kept" && promise.night.verdict === "kept";

function Row({ promise, id, chosen }: { promise: PromiseProved; id: string; chosen: boolean }) {
  const parts: [string, Verdict][] = [
    ["by design", promise.design],
    ["as built", promise.built],
    ["by day", promise.day.verdict],
    ["by night", promise.night.verdict],
  ];
  return (
    <li className={chosen ? "promise promise-in-hand" : "promise"}>
      <button
        type="button"
        className="prove-row"
        aria-pressed={chosen}
        data-testid={`prove-${promise.target}`}
        data-day={promise.day.verdict}
        data-night={promise.night.verdict}
        onClick={() => goTo(proveAddress(id, "walk", promise.target))}
      >
        <span className="promise-name">{promise.name}</span>
        <span className="prove-marks">
          {parts.map(([word, verdict]) => (
            <span key={word} title={`${word}: ${VERDICT_WORDS[verdict]}`}>
              <VerdictMark verdict={verdict} />
            </span>
          ))}
        </span>
        <span className="promise-task">
          {promise.day.says === promise.night.says
            ? promise.day.says
            : `Day: ${promise.day.says}. Night: ${promise.night.says}.`}
        </span>
      </button>
    </li>
  );
}

/** What is left until all of it is proved. */
function Left({ left, done, id }: { left: ProveTodo[]; done: boolean; id: string }) {
  const set = useProveView((state) => state.set);
  if (done)
    return (
      <p className="prove-done" data-testid="prove-done">
        All of it is proved, by day and by night.
      </p>
    );
  const address = (todo: ProveTodo): string =>
    todo.target
      ? proveAddress(id, "walk", todo.target)
      : proveAddress(id, "pictures", todo.head ? keyOf(todo.head) : undefined);
  return (
    <details className="prove-left" open={left.length < 6}>
      <summary>
        Left to prove: <span className="figure">{left.length}</span>
      </summary>
      <ul data-testid="prove-left">
        {left.map((todo) => (
          <li key={`${todo.kind} ${todo.says}`} data-kind={todo.kind}>
            <a href={address(todo)} onClick={() => set({ night: todo.night })}>
              {todo.says}
            </a>
          </li>
        ))}
      </ul>
    </details>
  );
}

/** A view as it stands in an address. */
export const keyOf = ({ camera, head, view }: { camera: string; head: string; view?: string | null }): string =>
  [camera, head, ...(view ? [view] : [])].join("~");
