/** The heads of a multi-head camera: which one is in hand, their lenses, and how they are spread along the ring. */
import { App } from "antd";
import { useState } from "react";
import { Refused } from "../../../../core/errors";
import { ask } from "../../../../core/port";
import { useSite } from "../../../../keep/store";
import { putCamera } from "../../../../model/cameras";
import { useInHand } from "../../../../model/inHand";
import { headOf } from "../../../../model/lookups";
import { refOf } from "../../../../model/views";
import { Measure, plain } from "../../../../ui/Measure";
import type { FormProps } from "./formProps";
import { Button, Segmented } from "../../../../ui/controls";

export function RingPanel({ camera, head }: FormProps) {
  const edit = useSite((state) => state.edit);
  const takeHead = useInHand((state) => state.takeHead);
  const { message } = App.useApp();
  const [over, setOver] = useState(360);
  const spread = async (): Promise<void> => {
    const site = useSite.getState().open?.site;
    if (!site) return;
    try {
      const spreadOut = await ask(site, { ask: "spread", camera: camera.id, over_deg: over });
      edit(`Spread the views of ${camera.name}`, (draft) => putCamera(draft, spreadOut));
    } catch (error) {
      if (error instanceof Refused) void message.warning(error.faults[0]?.message ?? "They don't fit.");
      else throw error;
    }
  };
  const own = head.lens;
  return (
    <div className="form-panel" aria-label={`Camera views of ${camera.name}`} role="group">
      <Segmented
        size="small"
        aria-label="Selected camera view"
        value={head.id}
        options={camera.heads.map((h) => ({ value: h.id, label: `${h.id} ${h.pan_deg.toFixed(0)}°` }))}
        onChange={(id: string) => {
          const taken = camera.heads.find((h) => h.id === id);
          if (taken) takeHead(refOf(camera, taken));
        }}
      />
      <div className="dials">
        <Measure
          of={`${camera.id}/${head.id}`}
          label="Spread over"
          value={over}
          quantity={plain("°", 0, 10)}
          min={30}
          max={360}
          onChange={(value) => setOver(value)}
        />
        <Measure
          of={`${camera.id}/${head.id}`}
          label="Own lens"
          value={own?.focal_min_mm ?? camera.model.lens.focal_min_mm}
          quantity={plain("mm", 1, 0.1)}
          min={1}
          max={25}
          hint="A lens of this view's own, without a published field of view: then it counts as free of distortion"
          onChange={(value, gesture) =>
            edit(
              `Lens of ${camera.name} ${head.id}`,
              (site) => {
                const h = headOf(site, camera.id, head.id);
                if (!h) return;
                h.lens = { focal_min_mm: value, focal_max_mm: value };
                h.focal_mm = value;
              },
              gesture ? `own-lens-${camera.id}-${head.id}` : "",
            )
          }
        />
      </div>
      <Button size="small" onClick={() => void spread()}>
        Spread evenly
      </Button>
      {own && (
        <Button
          size="small"
          onClick={() =>
            edit(`The model's lens for ${camera.name} ${head.id}`, (site) => {
              const h = headOf(site, camera.id, head.id);
              if (!h) return;
              delete h.lens;
              h.focal_mm = camera.model.lens.focal_min_mm;
            })
          }
        >
          Back to the model's lens
        </Button>
      )}
      <p className="fine">Each view is turned by its grip on the plan; it stops before the next one.</p>
    </div>
  );
}
