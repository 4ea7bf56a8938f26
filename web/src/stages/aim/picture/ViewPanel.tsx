/** What the head in hand will see, with its promises, and in its corner the sensor's own pixels of the promise in hand. */
import { Dropdown } from "antd";
import { memo, useState } from "react";
import useMeasure from "react-use-measure";
import { useHand } from "../../../core/hand";
import type { HeadRef, PictureTold, SiteFile } from "../../../core/types";
import { usePicture } from "../../../core/usePicture";
import { useSite } from "../../../keep/store";
import { useInHand } from "../../../model/inHand";
import { headOf, targetOf } from "../../../model/lookups";
import { keyOf } from "../../../model/views";
import { Measure, plain } from "../../../ui/Measure";
import { cardsAddress, goTo } from "../../../ui/address";
import { share } from "../../../ui/words";
import { LoupePixels, loupeCorner, loupeSays, loupeSize, markOf, toldBy, useLoupe } from "./Loupe";
import { WholePicture } from "./WholePicture";
import { saveView } from "./saveView";
import { SHUTTER_TIME, lightOf, sensorOf, usePictureLook, widthIn } from "./pictureView";
import { Button, Segmented } from "../../../ui/controls";
import "./picture.css";

/** The tallest that it is beside the evidence, px. */
const TALL = 200;
/** Room of the loupe in its corner, px. */
const LOUPE: [number, number] = [188, 128];

/** `site` follows the hand that drags the picture, and is as it is read under any other. */
export const ViewPanel = memo(function ViewPanel({ site }: { site: SiteFile }) {
  const { head: inHand, target } = useInHand();
  const look = usePictureLook();
  const [frame, { width }] = useMeasure();
  const head = inHand && headOf(site, inHand.camera, inHand.head) ? inHand : null;
  const light = lightOf(look);
  const sensor = head && sensorOf(site, head);
  const wide = sensor ? widthIn(sensor, width, TALL) : 0;
  const tall = sensor ? Math.round((wide * sensor[1]) / sensor[0]) : 0;
  const whole = usePicture(
    site,
    head,
    wide > 0 ? JSON.stringify({ window: { whole: { width: wide } }, light, grid: look.grid, shutter_s: 0 }) : null,
    "view",
    look.dragged ? "hand" : "reader",
  );
  const held = target !== null && targetOf(site, target) ? target : null;
  // Its own shutter, where it has one.
  const own = head && headOf(site, head.camera, head.head)?.exposure;
  const shutter = own?.shutter_s ? Math.round(1 / own.shutter_s) : look.shutter;
  const mark = held && whole.shown ? markOf(whole.shown.told, held) : undefined;
  const size = loupeSize(mark?.bracket, LOUPE);
  const loupe = useLoupe(
    site,
    head,
    wide > 0 ? held : null,
    size,
    { light, shutter },
    "loupe",
    look.dragged ? "hand" : "rest",
  );
  const holds = useHand((hand) => hand.holds);
  const moves = held ? (targetOf(site, held)?.speed_mps ?? 0) > 0 : false;
  return (
    <section
      className={holds ? "view-panel" : "view-panel told told-slow"}
      aria-label="What the camera will see"
      data-testid="view-panel"
      data-settled={whole.settled && (!held || loupe.settled || !loupe.shown)}
    >
      <div className="view-room" ref={frame} style={{ minHeight: tall || TALL }}>
        {whole.shown && head ? (
          <WholePicture
            shown={whole.shown}
            head={head}
            site={site}
            inHand={held}
            lines={look.lines}
            size={[wide, tall]}
          >
            {held && loupe.shown && (
              <figure
                className={`loupe loupe-${loupeCorner(whole.shown.told, held, [wide, tall], size)}`}
                data-testid="loupe"
              >
                <LoupePixels shown={loupe.shown} target={held} times={size.times} />
              </figure>
            )}
          </WholePicture>
        ) : (
          <p className="hint">{head ? "Working …" : "Choose a camera on the plan: here is what it will see."}</p>
        )}
      </div>
      <div className="view-bar">
        <Segmented
          size="small"
          aria-label="Light of the picture"
          value={look.night ? "night" : "day"}
          options={[
            { value: "day", label: "Day" },
            { value: "night", label: "Night" },
          ]}
          onChange={(value) => look.set({ night: value === "night" })}
        />
        {look.night && own?.shutter_s && own.mode !== "auto" && (
          <Segmented
            size="small"
            aria-label="Exposure of the picture"
            value={look.exposed ?? "set"}
            options={[
              { value: "set", label: "As set" },
              { value: "automatic", label: "Automatic" },
            ]}
            onChange={(exposed) => look.set({ exposed: exposed === "automatic" ? exposed : null })}
          />
        )}
        {look.night && (
          <Measure
            of="look"
            label="Brighter by"
            value={look.stops}
            quantity={plain("stops", 1, 0.5)}
            min={-12}
            max={12}
            hint="Shown brighter than it is exposed; in stops, each twice as bright"
            onChange={(stops) => look.set({ stops })}
          />
        )}
        {moves && !own && (
          <Measure
            of="look"
            label="Shutter"
            value={look.shutter}
            quantity={SHUTTER_TIME}
            min={1}
            max={100000}
            hint="In the loupe what moves is drawn out for so long"
            onChange={(shutter) => look.set({ shutter })}
          />
        )}
        {head && sensor && <More site={site} head={head} sensor={sensor} />}
      </div>
      <p className="fine view-says" data-testid="view-says">
        {held && whole.shown && loupeSays(toldBy(whole.shown, loupe.shown), site, held)}{" "}
        {whole.shown && <Says told={whole.shown.told} night={look.night} />}
      </p>
    </section>
  );
});

/** What the picture is, and what it is not. */
function Says({ told, night }: { told: PictureTold; night: boolean }) {
  return (
    <>
      {night &&
        !told.infrared &&
        !told.lamps &&
        "This camera has no light of its own, and no lamps are known: it sees nothing. "}
      {night && told.clipped > 0.001 && `${share(told.clipped)} of it is overexposed. `}
      <span title="Not in it: lens blur, noise, compression, weather, shadows by day. Colours and figures are ours.">
        Computed picture, not evidence.
      </span>
    </>
  );
}

/** What is laid over the picture, and what is made of it. */
function More({ site, head, sensor }: { site: SiteFile; head: HeadRef; sensor: [number, number] }) {
  const look = usePictureLook();
  const id = useSite((state) => state.open?.id) ?? "";
  const [done, setDone] = useState<number | null>(null);
  const save = async (): Promise<void> => {
    setDone(0);
    try {
      await saveView(site, head, look, setDone);
    } finally {
      setDone(null);
    }
  };
  const mark = (on: boolean): string => (on ? "✓ " : "");
  return (
    <span className="view-more">
      {done !== null && (
        <span className="fine" role="status">
          {Math.round(done * 100)} %
        </span>
      )}
      <Dropdown
        trigger={["click"]}
        menu={{
          items: [
            { key: "grid", label: `${mark(look.grid)}Metre grid`, onClick: () => look.set({ grid: !look.grid }) },
            {
              key: "lines",
              label: `${mark(look.lines)}Horizon and level line`,
              onClick: () => look.set({ lines: !look.lines }),
            },
            { type: "divider" },
            {
              key: "png",
              label: `Save as PNG, ${sensor[0]} px wide`,
              disabled: done !== null,
              onClick: () => void save(),
            },
            { key: "card", label: "Aiming sheet", onClick: () => goTo(cardsAddress(id, keyOf(head))) },
            { key: "cards", label: "All cameras on one sheet", onClick: () => goTo(cardsAddress(id)) },
          ],
        }}
      >
        <Button size="small" type="text" aria-label="More for the picture">
          ⋯
        </Button>
      </Dropdown>
    </span>
  );
}
