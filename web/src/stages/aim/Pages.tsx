/** The pages of the Aim screen on a phone: promises, plan and camera side by side, each a swipe or a tap away. */
import { type RefObject, useEffect, useState } from "react";
import { useInHand } from "../../model/inHand";

const PAGES = ["Promises", "Plan", "Camera"];

/** `columns` is what is pushed sideways; wide enough for all three side by side it is not. */
export function Pages({ columns }: { columns: RefObject<HTMLDivElement | null> }) {
  const [page, setPage] = useState(0);
  const placing = useInHand((state) => state.placing);
  useEffect(() => {
    const row = columns.current;
    if (!row) return;
    const look = (): void => setPage(Math.round(row.scrollLeft / Math.max(row.clientWidth, 1)));
    row.addEventListener("scroll", look, { passive: true });
    return () => row.removeEventListener("scroll", look);
  }, [columns]);
  const turnTo = (to: number): void =>
    columns.current?.scrollTo({ left: to * columns.current.clientWidth, behavior: "smooth" });
  // What is to be put on the plan is put there.
  useEffect(() => {
    if (placing) columns.current?.scrollTo({ left: columns.current.clientWidth });
  }, [columns, placing]);
  return (
    <nav className="aim-pages" aria-label="Pages">
      {PAGES.map((name, place) => (
        <button key={name} type="button" aria-current={place === page} onClick={() => turnTo(place)}>
          {name}
        </button>
      ))}
    </nav>
  );
}
