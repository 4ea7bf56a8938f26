/** The network sheet: addresses, ports, loads; labels to print, and the wiring as files. */
import { App, Dropdown } from "antd";
import type { NetworkFile, SiteFile } from "../../core/types";
import { ask } from "../../core/port";
import { useAnswer } from "../../core/useAsked";
import { useSettings } from "../../keep/settings";
import { saveFile } from "../../keep/files";
import { nameOf } from "../../model/network";
import { Told } from "../../ui/Told";
import { formatLength } from "../../ui/length";
import { Button } from "../../ui/controls";
import { mbps, watts } from "./figures";

const FILES: { of: NetworkFile; label: string; ending: string; type: string }[] = [
  { of: "cables", label: "Cable schedule, CSV", ending: "cables.csv", type: "text/csv" },
  { of: "ports", label: "Ports and addresses, CSV", ending: "ports.csv", type: "text/csv" },
  { of: "labels", label: "Labels, CSV", ending: "labels.csv", type: "text/csv" },
  { of: "materials", label: "Materials, CSV", ending: "materials.csv", type: "text/csv" },
  { of: "dot", label: "Graph, GraphViz DOT", ending: "dot", type: "text/vnd.graphviz" },
  { of: "graphml", label: "Graph, GraphML", ending: "graphml", type: "application/xml" },
];

export function SheetPanel({ site }: { site: SiteFile }) {
  const { value, settled } = useAnswer(site, { ask: "network_sheet" }, { by: "surveyor", keeps: true });
  const units = useSettings((settings) => settings.units);
  const { message } = App.useApp();
  const save = async ({ of, ending, type }: (typeof FILES)[number]): Promise<void> => {
    try {
      const text = await ask(site, { ask: "network_file", of }, "surveyor");
      saveFile(new Blob([text], { type }), site.name, ending);
    } catch (error) {
      void message.warning(error instanceof Error ? error.message : String(error));
    }
  };
  if (!value) return <p className="hint">Working …</p>;
  return (
    <Told settled={settled} className="wire-sheet" testId="network-sheet">
      <div className="wire-sheet-head">
        <span>
          Segment of the cameras: <span className="figure">{value.segment}</span>
        </span>
        <Button size="small" type="primary" onClick={() => window.print()}>
          Print labels
        </Button>
        <Dropdown
          trigger={["click"]}
          menu={{ items: FILES.map((file) => ({ key: file.of, label: file.label, onClick: () => void save(file) })) }}
        >
          <Button size="small">Save as …</Button>
        </Dropdown>
      </div>
      <table className="wire-rows">
        <thead>
          <tr>
            <th>Name</th>
            <th>Address</th>
            <th>On</th>
            <th>Class</th>
            <th>Draws</th>
            <th>Sends</th>
            <th>Set there</th>
            <th>Password</th>
          </tr>
        </thead>
        <tbody>
          {value.rows.map((row) => (
            <tr key={row.id}>
              <td>
                {row.name} <span className="fine">{row.model}</span>
              </td>
              <td className={`figure ${row.twice ? "verdict-word-broken" : ""}`}>
                {row.address ?? "none left"}
                {row.twice ? " twice" : row.planned ? <span className="fine"> planned</span> : ""}
              </td>
              <td>{row.on === null ? "" : `${nameOf(site, row.on)}, port ${row.port ?? "?"}`}</td>
              <td className="figure">{row.class ?? ""}</td>
              <td className="figure">{row.watts === null ? "" : watts(row.watts)}</td>
              <td className="figure">{row.mbps > 0 ? mbps(row.mbps) : ""}</td>
              <td>{row.settings.join(", ")}</td>
              <td>{row.password_changed ? "changed" : "to be changed"}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <ul className="wire-cautions" aria-label="Take care">
        {value.cautions.map((caution) => (
          <li key={caution}>{caution}</li>
        ))}
      </ul>
      <h3>Labels, both ends of every cable</h3>
      <ul className="wire-labels" data-testid="labels" aria-label="Labels">
        {value.labels.map((label, place) => (
          <li key={`${label.cable}-${place}`}>
            <strong>{label.cable}</strong>
            <span>{label.here}</span>
            <span>→ {label.there}</span>
            <span className="figure">{formatLength(label.length_m, units, 0)}</span>
          </li>
        ))}
      </ul>
    </Told>
  );
}
