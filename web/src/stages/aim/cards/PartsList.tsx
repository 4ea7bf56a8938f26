/** What a design is made of: its cameras by model, to be ordered and loaded. */
import type { SiteFile } from "../../../core/types";
import { useAnswer } from "../../../core/useAsked";
import { Told } from "../../../ui/Told";

export function PartsList({ site }: { site: SiteFile }) {
  const { value: parts, settled } = useAnswer(site, { ask: "parts" });
  if (!parts || parts.length === 0) return null;
  return (
    <Told className="parts" testId="parts" label="Cameras by model" settled={settled}>
      <h2>Cameras by model</h2>
      <ul>
        {parts.map(({ model, count, cameras }) => (
          <li key={model}>
            <strong className="figure">{count} ×</strong> {model} <span className="fine">{cameras.join(", ")}</span>
          </li>
        ))}
      </ul>
    </Told>
  );
}
