/** What falls when a link or a box fails: the cameras behind it, and the promises that only they keep. */
import type { SiteFile } from "../../core/types";
import { useAnswer } from "../../core/useAsked";
import { targetOf } from "../../model/lookups";
import { nameOf } from "../../model/network";
import { Told } from "../../ui/Told";
import { VerdictMark } from "../../ui/VerdictMark";

export function Lost({ site, cameras, what }: { site: SiteFile; cameras: string[]; what: string }) {
  const wanted = cameras.length > 0 ? { ask: "lost_together" as const, cameras } : null;
  const { value, settled } = useAnswer(site, wanted, { by: "surveyor" });
  if (cameras.length === 0) return null;
  return (
    <Told settled={settled} className="wire-lost" label={`Lost with ${what}`} testId="wire-lost">
      <h3>Lost together, if {what} fails</h3>
      <p>{cameras.map((id) => nameOf(site, id)).join(", ")}</p>
      {value?.length === 0 && <p className="fine">No promise falls: others see the same.</p>}
      {value && value.length > 0 && (
        <ul className="effects">
          {value.map((fallen) => (
            <li key={fallen.target}>
              <VerdictMark verdict={fallen.before} size={13} /> → <VerdictMark verdict={fallen.after} size={13} />{" "}
              {targetOf(site, fallen.target)?.name ?? fallen.target}
            </li>
          ))}
        </ul>
      )}
    </Told>
  );
}
