/** All readings, with what the drawing says beside the tape; out and in as CSV. */
import { Alert, App, Button, Input, Switch, Table, Upload } from "antd";
import { useState } from "react";
import { ask } from "../../../core/port";
import type { Fault, SiteFile } from "../../../core/types";
import type { SurveyState } from "../../../core/useSurvey";
import { saveFile } from "../../../keep/files";
import { useSettings } from "../../../keep/settings";
import { useSite } from "../../../keep/store";
import { changeOf, removeThing } from "../../../keep/things";
import { nameOf } from "../../../model/readings";
import { Faults } from "../../../ui/Faults";
import { formatLength } from "../../../ui/length";

export function ReadingLog({ site, state, inHand }: { site: SiteFile; state: SurveyState; inHand: string | null }) {
  const { units, surveyor, set } = useSettings();
  const found = state.survey?.adjustment?.readings;
  const readings = site.readings ?? [];
  const rows = readings.map((reading, place) => ({ ...reading, found: found?.[place] ?? null }));
  return (
    <section aria-label="Log of readings">
      <h2>Log of readings</h2>
      <Table
        size="small"
        rowKey="id"
        pagination={rows.length > 50 ? { pageSize: 50 } : false}
        dataSource={rows}
        scroll={{ x: "max-content" }}
        locale={{ emptyText: "No reading yet." }}
        rowClassName={(row) =>
          `${row.id === inHand ? "reading-in-hand" : ""} ${row.found?.doubtful ? "reading-doubtful" : ""}`
        }
        columns={[
          { title: "From", render: (_, row) => nameOf(site, row.from) },
          { title: "To", render: (_, row) => nameOf(site, row.to) },
          {
            title: "Straight line",
            align: "right",
            className: "figure",
            render: (_, row) => formatLength(row.slope_m, units),
          },
          {
            title: "Horizontal",
            align: "right",
            className: "figure",
            render: (_, row) => (row.found ? formatLength(row.found.horizontal_m, units) : "…"),
          },
          {
            title: "Plan says",
            align: "right",
            className: "figure",
            render: (_, row) => (row.found ? formatLength(row.found.drawn_m, units) : "…"),
          },
          {
            title: "Off by",
            align: "right",
            className: "figure",
            render: (_, row) =>
              row.found ? `${formatLength(row.found.residual_m, units)}${row.found.doubtful ? " doubtful" : ""}` : "…",
          },
          { title: "By", render: (_, row) => row.by ?? "" },
          {
            title: "Used",
            render: (_, row) => (
              <label className="switch-line">
                <Switch
                  size="small"
                  aria-label={`Use reading ${row.id}`}
                  checked={row.used ?? true}
                  onChange={(used) =>
                    changeOf("reading", row)(
                      used ? "Use a reading again" : "Throw a reading out",
                      (held) => void (held.used = used),
                    )
                  }
                />
              </label>
            ),
          },
          {
            title: "",
            render: (_, row) => (
              <Button
                type="text"
                size="small"
                aria-label={`Delete reading ${row.id}`}
                onClick={() => removeThing("reading", { id: row.id })}
              >
                Delete
              </Button>
            ),
          },
        ]}
      />
      <label className="stacked">
        Who measures, on this device
        <Input
          aria-label="Who measures"
          maxLength={200}
          value={surveyor}
          onChange={(event) => set({ surveyor: event.target.value })}
        />
      </label>
      <CsvButtons site={site} />
    </section>
  );
}

function CsvButtons({ site }: { site: SiteFile }) {
  const [bad, setBad] = useState<{ name: string; kept: number; faults: Fault[] } | null>(null);
  const edit = useSite((store) => store.edit);
  const { message } = App.useApp();
  const out = async (): Promise<void> => {
    try {
      saveFile(
        new Blob([await ask(site, { ask: "write_readings" })], { type: "text/csv" }),
        `${site.name} readings`,
        "csv",
      );
    } catch (error) {
      void message.error((error as Error).message);
    }
  };
  const bringIn = async (file: File): Promise<void> => {
    setBad(null);
    try {
      const read = await ask(site, { ask: "read_readings", csv: await file.text() });
      if (read.readings.length > 0)
        edit(`Bring in ${read.readings.length} readings`, (draft) => {
          draft.readings = [...(draft.readings ?? []), ...read.readings];
        });
      if (read.faults.length > 0) setBad({ name: file.name, kept: read.readings.length, faults: read.faults });
      else void message.success(`${read.readings.length} readings of ${file.name}`);
    } catch (error) {
      void message.error(`${file.name}: ${(error as Error).message}`);
    }
  };
  return (
    <>
      <div className="row no-print">
        <Button onClick={() => void out()} disabled={(site.readings ?? []).length === 0}>
          Save as CSV
        </Button>
        <Upload
          accept=".csv,text/csv"
          showUploadList={false}
          beforeUpload={(file) => {
            void bringIn(file);
            return false;
          }}
        >
          <Button>Bring in a CSV file</Button>
        </Upload>
      </div>
      {bad && (
        <Alert
          type="warning"
          closable={{ onClose: () => setBad(null) }}
          title={`${bad.kept} good lines of ${bad.name} were kept; these were not:`}
          description={<Faults faults={bad.faults} />}
        />
      )}
    </>
  );
}
