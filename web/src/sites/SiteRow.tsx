/** A site in the list: its plan, whose it is and where, how its promises stand, what is left to do, what changed last. */
import { useQuery } from "@tanstack/react-query";
import type { Standing, Verdict } from "../core/types";
import { useHeld } from "../keep/sendHeld";
import { type Listed, standingOf } from "../keep/sites";
import { VerdictMark } from "../ui/VerdictMark";
import { siteAddress } from "../ui/address";
import { SmallPlan } from "./SmallPlan";

const NONE: Standing["plan"] = { outlines: [], walls: [], cameras: [], targets: [] };

interface Props {
  site: Listed;
  /** Whether the server answers: it knows where a site stands. */
  there: boolean;
  keepHere(pinned: boolean): void;
}

export function SiteRow({ site, there, keepHere }: Props) {
  const { data: standing } = useQuery({
    queryKey: ["standing", site.id, site.revision],
    queryFn: ({ signal }) => standingOf(site.id, signal),
    enabled: there && site.revision > 0,
    staleTime: Infinity,
    retry: false,
    networkMode: "always",
  });
  const stuck = useHeld((held) => held.stuck);
  const whose = [site.client, site.address].filter(Boolean).join(", ");
  return (
    <li className="site-row" data-testid="site-row">
      <SmallPlan plan={standing?.plan ?? NONE} name={site.name} />
      <div>
        <a href={siteAddress(site.id)} className="site-link">
          {site.name}
        </a>
        {whose && <p>{whose}</p>}
        <p className="site-standing">
          {standing ? <Stands standing={standing} /> : `${site.targets} promises, ${site.cameras} cameras`}
        </p>
        <p className="fine">
          {site.says} · {new Date(site.saved_at).toLocaleString([], { dateStyle: "medium", timeStyle: "short" })}
          {site.unsaved && <strong className="site-unsaved"> · {stuck[site.id] ?? "not saved yet"}</strong>}
        </p>
      </div>
      <label className="site-here">
        <input
          type="checkbox"
          checked={site.here}
          disabled={site.revision === 0 || site.here}
          onChange={(event) => keepHere(event.target.checked)}
          aria-label={`Keep ${site.name} on this device`}
        />
        On this device
      </label>
    </li>
  );
}

/** What is due by the end of this month, and what of it is past its day. */
function DueSoon({ days }: { days: string[] }) {
  const now = new Date();
  const day = (date: Date): string =>
    `${date.getFullYear()}-${String(date.getMonth() + 1).padStart(2, "0")}-${String(date.getDate()).padStart(2, "0")}`;
  const [today, end] = [day(now), day(new Date(now.getFullYear(), now.getMonth() + 1, 0))];
  const due = days.filter((one) => one <= end).length;
  const over = days.filter((one) => one < today).length;
  if (due === 0) return null;
  return (
    <span className="fine" data-testid="due-soon">
      {due} due this month{over > 0 ? `, ${over} overdue` : ""}
    </span>
  );
}

const ORDER: readonly Verdict[] = ["broken", "unknown", "tight", "kept"];

/** How the promises stand, the worst first, and what is left to ask. */
function Stands({ standing }: { standing: Standing }) {
  const known = ORDER.filter((verdict) => standing[verdict] > 0);
  return (
    <>
      {known.length === 0 && "no promise yet"}
      {known.map((verdict) => (
        <span key={verdict}>
          <VerdictMark verdict={verdict} size={14} /> {standing[verdict]} {verdict}
        </span>
      ))}
      {standing.left > 0 && <span className="fine">{standing.left} left to ask on site</span>}
      <DueSoon days={standing.due} />
    </>
  );
}
