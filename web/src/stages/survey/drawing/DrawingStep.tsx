/** The drawing: a picture from above with its scale, north and fade; or a sketch paced out. */
import { Alert, Button, Slider, Upload } from "antd";
import { useState } from "react";
import { Refused } from "../../../core/errors";
import { ask } from "../../../core/port";
import type { PictureHead, Point, SiteDrawing, SiteFile } from "../../../core/types";
import type { SurveyState } from "../../../core/useSurvey";
import { request } from "../../../keep/http";
import { useSite } from "../../../keep/store";
import { rounded } from "../../../model/points";
import { scaleOf, toPixel } from "../../../plan/drawingPlace";
import { Faults } from "../../../ui/Faults";
import { Measure, plain } from "../../../ui/Measure";
import { SurveyPlan } from "../SurveyPlan";
import { scaleDown } from "../../../ui/photos/scaleDown";
import { PaceOut } from "./PaceOut";
import { changeMarks } from "./scale";
import { ScaleMarks, ScaleMarksOnPlan } from "./ScaleMarks";

export function DrawingStep({ site, state }: { site: SiteFile; state: SurveyState }) {
  const [first, setFirst] = useState<Point | null>(null);
  const [marking, setMarking] = useState(false);
  const edit = useSite((store) => store.edit);
  const drawing = site.drawing;
  const change = (says: string, recipe: (drawing: SiteDrawing) => void, gesture = ""): void =>
    edit(
      says,
      (draft) => {
        if (draft.drawing) recipe(draft.drawing);
      },
      gesture,
    );
  const tap = (at: Point): void => {
    if (!drawing) return;
    const pixel = toPixel(drawing, at).map((c) => rounded(c, 1)) as Point;
    if (!first) return setFirst(pixel);
    if (first[0] === pixel[0] && first[1] === pixel[1]) return;
    void changeMarks("Mark a distance on the drawing", (d) => {
      d.scale_from = [
        ...(d.scale_from ?? []),
        {
          a: first,
          b: pixel,
          distance_m: rounded(Math.hypot(pixel[0] - first[0], pixel[1] - first[1]) * scaleOf(d), 2),
        },
      ];
    });
    setFirst(null);
    setMarking(false);
  };
  return (
    <section className="drawing-step" aria-label="Drawing">
      <SurveyPlan
        site={site}
        tapping={
          marking
            ? first
              ? "Tap the other end of the distance."
              : "Tap one end of a distance that you know or can measure."
            : null
        }
        onTap={tap}
      >
        {(view) =>
          drawing && (
            <ScaleMarksOnPlan view={view} drawing={drawing} first={first} odd={state.survey?.scale?.odd_one ?? null} />
          )
        }
      </SurveyPlan>
      <div className="form-page">
        <h1>Drawing</h1>
        <ImportPicture site={site} />
        {drawing && (
          <>
            <ScaleMarks
              drawing={drawing}
              scale={state.survey?.scale ?? null}
              marking={marking}
              mark={() => setMarking(true)}
            />
            <div className="dials">
              <Measure
                of="drawing"
                label="Top points to"
                value={drawing.turn_deg ?? 0}
                quantity={plain("°", 1, 1)}
                min={-360}
                max={360}
                hint="The bearing that the top of the picture points to: 0 where north is up"
                onChange={(v, g) =>
                  change(
                    "Turn the drawing",
                    (d) => {
                      d.turn_deg = v;
                    },
                    g ? "turn-drawing" : "",
                  )
                }
              />
              <label className="dial">
                <span className="dial-label">Fade</span>
                <Slider
                  ariaLabelForHandle="Fade"
                  min={0}
                  max={0.9}
                  step={0.05}
                  value={drawing.fade ?? 0}
                  onChange={(fade) =>
                    change(
                      "Fade the drawing",
                      (d) => {
                        d.fade = fade;
                      },
                      "fade-drawing",
                    )
                  }
                />
              </label>
            </div>
            <Button
              danger
              onClick={() =>
                edit("Take the drawing out", (draft) => {
                  delete draft.drawing;
                })
              }
            >
              Take the drawing out
            </Button>
          </>
        )}
        <PaceOut />
      </div>
    </section>
  );
}

const MOST_MIB = 6;

/** Brings in a picture, and its world file if that is chosen with it. */
function ImportPicture({ site }: { site: SiteFile }) {
  const drawing = site.drawing ?? null;
  const [fault, setFault] = useState<{ name: string; error: Error } | null>(null);
  const [busy, setBusy] = useState(false);
  const edit = useSite((store) => store.edit);
  const bringIn = async (files: File[]): Promise<void> => {
    setFault(null);
    setBusy(true);
    let name = "";
    try {
      const world = files.find((file) => /\.(pgw|jgw|wld|pngw|jpgw)$/i.test(file.name));
      const picture = files.find((file) => file !== world);
      // A world file that is no good is said before the picture is sent.
      const text = world ? await world.slice(0, 4096).text() : null;
      const lies = async (share: number): Promise<Partial<SiteDrawing>> => {
        if (!world || text === null) return {};
        name = world.name;
        const { metres_per_px, turn_deg } = await ask(site, { ask: "world_file", text, share });
        return { metres_per_px, turn_deg };
      };
      const unscaled = await lies(1);
      if (picture) {
        name = picture.name;
        const head = await send(picture);
        const placed = await lies(head.share);
        edit("Bring in a drawing", (draft) => {
          draft.drawing = {
            centre: [0, 0],
            turn_deg: 0,
            fade: 0.3,
            scale_from: [],
            picture: head.name,
            width_px: head.width_px,
            height_px: head.height_px,
            ...placed,
          };
        });
      } else if (world) {
        edit("Take the scale from a world file", (draft) => {
          if (draft.drawing) Object.assign(draft.drawing, unscaled);
        });
      }
    } catch (error) {
      setFault({ name, error: error as Error });
    }
    setBusy(false);
  };
  return (
    <>
      <Upload
        accept="image/png,image/jpeg,.pgw,.jgw,.wld"
        multiple
        showUploadList={false}
        beforeUpload={(file, all) => {
          if (file === all[0]) void bringIn(all);
          return false;
        }}
      >
        <Button size="large" loading={busy} type={drawing ? "default" : "primary"}>
          {drawing ? "Another picture" : "Bring in a picture from above"}
        </Button>
      </Upload>
      <p className="fine">
        PNG or JPEG, with its world file (.pgw, .jgw) if there is one. A photo of a paper plan will do. At most{" "}
        {MOST_MIB} MiB as sent.
      </p>
      {fault && (
        <Alert
          type="error"
          showIcon
          closable={{ onClose: () => setFault(null) }}
          title={`${fault.name} was not brought in`}
          description={fault.error instanceof Refused ? <Faults faults={fault.error.faults} /> : fault.error.message}
        />
      )}
    </>
  );
}

/** Sends a picture scaled down if it is large; one that the browser cannot read goes as it is, so that the server says why not. */
async function send(file: File): Promise<PictureHead & { share: number }> {
  const scaled = await scaleDown(file, true).catch(() => null);
  const head = await request<PictureHead>("POST", "/api/pictures", scaled?.blob ?? file);
  const original = scaled ? await createImageBitmap(file, { imageOrientation: "from-image" }) : null;
  const share = original ? head.width_px / original.width : 1;
  original?.close();
  return { ...head, share };
}
