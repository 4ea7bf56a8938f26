/** Whether drawing and tape agree: how far points would move, the doubtful reading, and accepting it. */
import { Alert, App, Button, Table } from "antd";
import type { Adjustment, SiteFile } from "../../../core/types";
import type { SurveyState } from "../../../core/useSurvey";
import { useSettings } from "../../../keep/settings";
import { takeOver } from "../../../keep/rebase";
import { useSite } from "../../../keep/store";
import { patched } from "../../../model/patch";
import { nameOf } from "../../../model/readings";
import { formatLength } from "../../../ui/length";

/** Points that move less are not worth a line, m. */
const WORTH_M = 0.005;

export function Agreement({ site, state }: { site: SiteFile; state: SurveyState }) {
  const units = useSettings((settings) => settings.units);
  const { message } = App.useApp();
  if ((site.readings ?? []).length === 0) return null;
  const { survey } = state;
  if (!survey) return <p className="hint">Working …</p>;
  if (!survey.adjustment)
    return <Alert type="error" showIcon title={survey.unsettled?.message ?? "The readings do not settle."} />;
  const { points, patch, held_back } = survey.adjustment;
  const moving = points.filter((point) => point.moved_m >= WORTH_M);
  const doubtful = survey.adjustment.readings.find((reading) => reading.doubtful);
  const accept = async (): Promise<void> => {
    if (!(await takeOver("Accept the adjusted positions", site, patched(site, patch))))
      void message.warning("The site has moved on since; the positions are being adjusted anew.");
  };
  return (
    <section className="agreement" aria-label="Plan against measurements">
      <h2>Plan against measurements</h2>
      {moving.length === 0 && <p>They agree.</p>}
      {doubtful && <Doubtful site={site} adjustment={survey.adjustment} id={doubtful.id} />}
      {moving.length > 0 && (
        <>
          <Table
            size="small"
            rowKey="id"
            pagination={false}
            dataSource={moving}
            scroll={{ x: "max-content" }}
            columns={[
              { title: "Point", dataIndex: "id", render: (id: string) => nameOf(site, id) },
              {
                title: "Moves",
                dataIndex: "moved_m",
                align: "right",
                className: "figure",
                render: (m: number) => formatLength(m, units),
              },
              {
                title: "Known to",
                align: "right",
                className: "figure",
                render: (_, point) => `±${formatLength(2 * point.ellipse.major_m, units)}`,
              },
            ]}
          />
          {held_back === null ? (
            <Button size="large" type="primary" block onClick={() => void accept()}>
              Accept the adjusted positions
            </Button>
          ) : (
            <p className="hint">Nothing is taken over while a reading contradicts the others.</p>
          )}
        </>
      )}
    </section>
  );
}

function Doubtful({ site, adjustment, id }: { site: SiteFile; adjustment: Adjustment; id: string }) {
  const units = useSettings((settings) => settings.units);
  const edit = useSite((store) => store.edit);
  const reading = site.readings?.find((r) => r.id === id);
  const found = adjustment.readings.find((r) => r.id === id);
  if (!reading || !found) return null;
  const out = (): void =>
    edit("Throw a reading out", (draft) => {
      const held = draft.readings?.find((r) => r.id === id);
      if (held) held.used = false;
    });
  return (
    <Alert
      type="error"
      showIcon
      title={`${nameOf(site, reading.from)} to ${nameOf(site, reading.to)} is doubtful: about ${formatLength(Math.abs(found.gross_error_m ?? found.residual_m), units, 1)} too ${found.residual_m > 0 ? "long" : "short"} for the others.`}
      action={
        <Button danger size="large" onClick={out}>
          Throw it out
        </Button>
      }
    />
  );
}
