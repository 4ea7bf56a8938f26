/** The cameras' pictures over the years: the one kept as the reference, later ones held against it, and what differs. */
import type { Looked, Proved, SiteFile } from "../../core/types";
import { useSite } from "../../keep/store";
import { Told } from "../../ui/Told";
import { goTo, proveAddress } from "../../ui/address";
import { HeadPictures } from "./HeadPictures";
import { useProveView } from "./proveView";
import { LOOK_WORDS, half } from "./words";
import { keyOf } from "./WalkPanel";

interface Props {
  site: SiteFile;
  proved: Proved | null;
  settled: boolean;
  item: string | null;
}

export function PicturesPanel({ site, proved, settled, item }: Props) {
  const id = useSite((state) => state.open?.id) ?? "";
  const { night, set } = useProveView();
  const looked = proved?.cameras ?? [];
  const inHand = looked.find((one) => keyOf(one.head) === item && one.night === night);
  const kept = looked.filter((one) => one.reference !== null).length;
  return (
    <div className={item === null ? "prove-three" : "prove-three prove-one"}>
      <section className="promises prove-list" aria-label="Cameras">
        <div className="panel-head">
          <h2>Cameras</h2>
          <span className="figure">{proved ? `${kept} of ${looked.length} kept` : "working …"}</span>
        </div>
        {proved && looked.length === 0 && <p className="hint">There are no cameras yet: they come on the stage Aim.</p>}
        <Told settled={settled} testId="looked">
          <ul className="promise-rows">
            {looked.map((one) => (
              <li
                key={`${keyOf(one.head)} ${one.night ? "night" : "day"}`}
                className={one === inHand ? "promise promise-in-hand" : "promise"}
              >
                <button
                  type="button"
                  className="prove-row"
                  aria-pressed={one === inHand}
                  data-testid={`look-${one.head.camera}-${one.night ? "night" : "day"}`}
                  data-state={stateOf(one)}
                  onClick={() => {
                    set({ night: one.night });
                    goTo(proveAddress(id, "pictures", keyOf(one.head)));
                  }}
                >
                  <span className="promise-name">
                    {one.name}, {half(one.night)}
                  </span>
                  <span className="promise-task">{saysOf(one)}</span>
                </button>
              </li>
            ))}
          </ul>
        </Told>
      </section>
      {inHand ? (
        <HeadPictures
          key={`${keyOf(inHand.head)} ${inHand.night ? "night" : "day"}`}
          site={site}
          looked={inHand}
          settled={settled}
        />
      ) : (
        <section className="prove-empty">
          <p className="hint">
            Choose a camera. Its picture at hand-over is kept as the reference, by day and by night; each later one is
            compared with it: whether it moved, is out of focus, dirty, grown over or darker.
          </p>
        </section>
      )}
    </div>
  );
}

function stateOf(looked: Looked): "none" | "past" | "differs" | "same" | "kept" {
  if (looked.reference === null) return "none";
  if (looked.past !== null) return "past";
  if (looked.later === null) return "kept";
  return looked.faults.length > 0 ? "differs" : "same";
}

function saysOf(looked: Looked): string {
  switch (stateOf(looked)) {
    case "none":
      return "no reference yet";
    case "past":
      return `keep a new reference: ${looked.past ?? ""}`;
    case "kept":
      return "reference kept, nothing compared with it yet";
    case "same":
      return "as it was";
    case "differs":
      return looked.faults.map(({ kind }) => LOOK_WORDS[kind].toLowerCase()).join(", ");
  }
}
