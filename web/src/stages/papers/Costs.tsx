/** What something costs; what is unknown is never nothing. */
import type { Bill } from "../../core/types";
import { costs } from "./words";

export function Costs({ bill }: { bill: Bill }) {
  const [known = "", ...rest] = costs(bill).split(" and ");
  return (
    <p className="papers-price figure">
      {known}
      {rest.length > 0 && <small>and what is not priced yet</small>}
    </p>
  );
}
