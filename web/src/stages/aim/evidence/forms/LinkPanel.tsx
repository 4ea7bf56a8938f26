/** The fixed view that points a head that is turned from afar: the pairs of what both see, how well they agree, and pointing through it. */
import { useState } from "react";
import { ask } from "../../../../core/port";
import { useAnswer } from "../../../../core/useAsked";
import { Measure, type Quantity, plain } from "../../../../ui/Measure";
import { GUIDE } from "../../../../core/guide";
import type { Camera, CameraHead, Point, SiteFile } from "../../../../core/types";
import { useSite } from "../../../../keep/store";
import { headOf } from "../../../../model/lookups";
import { aimedOf } from "../../../../model/views";
import { Button, Select } from "../../../../ui/controls";

interface Props {
  site: SiteFile;
  camera: Camera;
  head: CameraHead;
  view: string | null;
}

export function LinkPanel({ site, camera, head, view }: Props) {
  const edit = useSite((state) => state.edit);
  const link = head.pointed_by;
  const onHead = (says: string, change: (h: CameraHead) => void): void =>
    edit(`${says} ${camera.name}`, (draft) => {
      const h = headOf(draft, camera.id, head.id);
      if (h) change(h);
    });
  const fixed = site.cameras
    .filter((held) => held.id !== camera.id)
    .flatMap((held) => held.heads.filter((h) => !h.presets?.length).map((h) => ({ camera: held, head: h })));
  return (
    <div className="link-panel">
      <label>
        Pointed by{" "}
        <Select
          size="small"
          aria-label="Fixed view that points it"
          value={link ? `${link.camera}/${link.head}` : ""}
          popupMatchSelectWidth={false}
          options={[
            { value: "", label: "no fixed view" },
            ...fixed.map((held) => ({
              value: `${held.camera.id}/${held.head.id}`,
              label: held.camera.heads.length > 1 ? `${held.camera.name} ${held.head.id}` : held.camera.name,
            })),
          ]}
          onChange={(chosen: string) =>
            onHead("Fixed view of", (h) => {
              const [of = "", by = ""] = chosen.split("/");
              if (chosen === "") delete h.pointed_by;
              else h.pointed_by = { camera: of, head: by, pairs: [] };
            })
          }
        />
      </label>
      {link && <Pairs site={site} camera={camera} head={head} view={view} onHead={onHead} />}
    </div>
  );
}

function Pairs({
  site,
  camera,
  head,
  view,
  onHead,
}: Props & { onHead(says: string, change: (h: CameraHead) => void): void }) {
  const pairs = head.pointed_by?.pairs ?? [];
  const enough = pairs.length >= GUIDE.link_pairs;
  const link = useAnswer(site, enough ? { ask: "link_of", camera: camera.id, head: head.id } : null, { rest: "live" });
  const { value: found, refused } = link;
  const edit = useSite((state) => state.edit);
  const point = async (pixel: Point): Promise<void> => {
    const [pan, tilt] = await ask(site, { ask: "point_through", camera: camera.id, head: head.id, pixel });
    edit(`Point ${camera.name}`, (draft) => {
      const aimed = aimedOf(draft, { camera: camera.id, head: head.id, view });
      if (aimed) [aimed.pan_deg, aimed.tilt_deg] = [Number(pan.toFixed(2)), Number(tilt.toFixed(2))];
    });
  };
  return (
    <>
      <ol className="view-list" aria-label="Pairs of what both see">
        {pairs.map((pair, place) => (
          <li key={place}>
            <span className="figure">
              {pair.pixel.map((axis) => axis.toFixed(0)).join(", ")} px ↔ {pair.pan_deg.toFixed(1)}°,{" "}
              {pair.tilt_deg.toFixed(1)}° down
              {found && `, off ${(found.off_deg[place] ?? 0).toFixed(2)}°`}
              {found && found.worst === place && found.rms_deg > 0.2 && " – the worst"}
            </span>
            <Button
              size="small"
              type="text"
              aria-label={`Delete pair ${place + 1}`}
              onClick={() => onHead("Delete a pair of", (h) => h.pointed_by?.pairs.splice(place, 1))}
            >
              ×
            </Button>
          </li>
        ))}
      </ol>
      <p className="fine">A thing in the fixed view, and the pan and tilt that have it in the middle:</p>
      <Figures
        of={`${camera.id}/${head.id}`}
        fields={[RIGHT, DOWN, PAN, TILT]}
        button="Add the pair"
        onTyped={([u = 0, v = 0, pan_deg = 0, tilt_deg = 0]) =>
          onHead("Add a pair to", (h) => h.pointed_by?.pairs.push({ pixel: [u, v], pan_deg, tilt_deg }))
        }
      />
      {pairs.length < GUIDE.link_pairs ? (
        <p className="fine">{GUIDE.link_pairs - pairs.length} more pairs are needed, of things on the ground.</p>
      ) : found ? (
        <>
          <p className="fine">
            The pairs agree to {found.rms_deg.toFixed(2)}°. Its pan of zero looks to {found.pan_zero_deg.toFixed(1)}°;
            it hangs {found.moved_m.toFixed(2)} m from where it is drawn. When either is moved, do it again.
          </p>
          <p className="fine">A pixel of the fixed view:</p>
          <Figures
            of={`${camera.id}/${head.id}`}
            fields={[RIGHT, DOWN]}
            button="Point there"
            onTyped={([u = 0, v = 0]) => void point([u, v])}
          />
        </>
      ) : (
        refused && <p className="caution">{refused}</p>
      )}
    </>
  );
}

interface FigureField {
  label: string;
  quantity: Quantity;
  min: number;
  max: number;
}
const RIGHT: FigureField = { label: "Right", quantity: plain("px", 0, 10), min: 0, max: 100_000 };
const DOWN: FigureField = { ...RIGHT, label: "Down in it" };
const PAN: FigureField = { label: "Its pan", quantity: plain("°", 1, 1), min: -360, max: 360 };
const TILT: FigureField = { label: "Its tilt", quantity: plain("°", 1, 1), min: -90, max: 90 };

/** Some figures that belong together: taken with a press once each is there. */
function Figures({
  of,
  fields,
  button,
  onTyped,
}: {
  of: string;
  fields: FigureField[];
  button: string;
  onTyped(figures: number[]): void;
}) {
  const [typed, setTyped] = useState<Record<string, number>>({});
  const figures = fields.map(({ label }) => typed[label]).filter((figure) => figure !== undefined);
  const without = (label: string): Record<string, number> =>
    Object.fromEntries(Object.entries(typed).filter(([held]) => held !== label));
  return (
    <div className="dials">
      {fields.map((field) => (
        <Measure
          key={field.label}
          of={of}
          {...field}
          value={typed[field.label] ?? null}
          empty={{ word: "–", onEmpty: () => setTyped(without(field.label)) }}
          onChange={(value) => setTyped({ ...typed, [field.label]: value })}
        />
      ))}
      <Button
        size="small"
        disabled={figures.length < fields.length}
        onClick={() => {
          onTyped(figures);
          setTyped({});
        }}
      >
        {button}
      </Button>
    </div>
  );
}
