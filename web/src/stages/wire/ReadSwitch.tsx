/** What the switch reports, against what is planned. */
import { useState } from "react";
import type { Node, SiteFile, SwitchReport } from "../../core/types";
import { useAnswer } from "../../core/useAsked";
import { readSwitch } from "../../device/managedSwitch";
import { Told } from "../../ui/Told";
import { VerdictMark } from "../../ui/VerdictMark";
import { Button } from "../../ui/controls";
import { take } from "./held";

export function ReadSwitch({ site, node }: { site: SiteFile; node: Node }) {
  const [report, setReport] = useState<SwitchReport | null>(null);
  const [reading, setReading] = useState(false);
  const [failed, setFailed] = useState<string | null>(null);
  const wanted = report && { ask: "switch_differs" as const, node: node.id, report };
  const { value, settled } = useAnswer(site, wanted, { by: "surveyor" });
  const read = async (): Promise<void> => {
    setReading(true);
    setFailed(null);
    try {
      setReport(await readSwitch(site, node.id));
    } catch (error) {
      setFailed(error instanceof Error ? error.message : String(error));
    }
    setReading(false);
  };
  return (
    <section className="wire-read" aria-label={`What ${node.name} reports`}>
      <h3>Read it</h3>
      <Button size="small" loading={reading} onClick={() => void read()}>
        Read the {node.kind}
      </Button>
      {failed !== null && (
        <p role="alert" className="verdict-word-broken">
          {failed}
        </p>
      )}
      {report && (
        <Told settled={settled} testId="switch-differs">
          <p className="fine">
            {report.name}: {report.ports.length} ports
            {value && (value.length === 0 ? ", all as planned" : `, ${value.length} not as planned`)}
          </p>
          <ul className="wire-differs">
            {value?.map((found, place) => (
              <li key={place}>
                <VerdictMark verdict={found.verdict} size={14} />{" "}
                <button
                  type="button"
                  className="wire-step"
                  disabled={found.cable === null}
                  onClick={() => found.cable && take({ kind: "cable", id: found.cable }, site)}
                >
                  {found.port === null ? "Recorder" : `Port ${found.port}`}
                  {found.name && `, ${found.name}`}: {found.says}
                </button>
              </li>
            ))}
          </ul>
        </Told>
      )}
    </section>
  );
}
