/** Where the real picture comes from: the phone's own camera, a file, the camera's address, the stand-in. */
import { Input } from "antd";
import { useRef, useState } from "react";
import { type Snapped, takeSnapshot, takeStandIn, turnStandIn } from "../device/cameraPicture";
import type { Camera, CameraHead, SiteFile } from "../core/types";
import { Button, Select, Switch } from "../ui/controls";
import type { RealPicture } from "./realPicture";
import "./pictures.css";

export const STAND_IN = "the stand-in";
/** What the stand-in can be told to be, for trying out. */
const ORDERS: { value: string; label: string }[] = [
  { value: "", label: "as it hangs" },
  { value: "turned=1.5", label: "knocked, 1.5° to the right" },
  { value: "dirty=0.45", label: "a dirty cover" },
  { value: "overgrown=0.14", label: "grown over from above" },
  { value: "blurred=3", label: "out of focus" },
  { value: "clock=7", label: "its clock 7 min fast" },
];
const NO_TURN = { pan: "0", tilt: "0", roll: "0", zoom: "1" };

export function Sources({
  site,
  camera,
  head,
  real,
  evidence,
  standIn: hasStandIn = true,
  turns = true,
}: {
  site: SiteFile;
  camera: Camera;
  head: CameraHead;
  real: RealPicture;
  /** As evidence: by day or by night as is said there; not a byte is changed. */
  evidence?: { night: boolean };
  /** Whether the stand-in has this view: it knows heads, and none of their presets. */
  standIn?: boolean;
  /** Whether the stand-in can be turned here. */
  turns?: boolean;
}) {
  const photo = useRef<HTMLInputElement>(null);
  const file = useRef<HTMLInputElement>(null);
  const [asks, setAsks] = useState(false);
  const busy = real.coming;
  const [own, setOwn] = useState(false);
  const night = evidence?.night ?? own;
  const [order, setOrder] = useState("");
  const [tried, setTried] = useState(real.held?.from === STAND_IN);
  const as_it_is = evidence !== undefined;
  const taking = (from: string, get: () => Promise<Snapped>, needsNobody: boolean): Promise<void> =>
    real.awaits(async () => {
      real.say("");
      try {
        const { blob, clockOffS } = await get();
        await real.take(blob, { from, clockOffS }, needsNobody ? async () => (await get()).blob : undefined);
      } catch (error) {
        real.say(error instanceof Error ? error.message : String(error));
      }
    });
  const standIn = (): Promise<void> => {
    setTried(true);
    return taking(
      STAND_IN,
      () => takeStandIn({ site, camera: camera.id, head: head.id, night, as_it_is, faults: order ? [order] : [] }),
      true,
    );
  };
  return (
    <section aria-label="Where the picture comes from" className="real-sources">
      <div className="real-source-buttons">
        <Button type={real.held ? "default" : "primary"} onClick={() => photo.current?.click()}>
          Photo
        </Button>
        <Button onClick={() => file.current?.click()}>File</Button>
        <Button aria-expanded={asks} onClick={() => setAsks(!asks)}>
          Its address
        </Button>
        {hasStandIn && (
          <Button loading={busy} onClick={() => void standIn()}>
            Stand-in
          </Button>
        )}
        {!evidence && (
          <label className="switch-line">
            <Switch size="small" checked={night} onChange={setOwn} /> by night
          </label>
        )}
      </div>
      <input
        ref={photo}
        type="file"
        accept="image/*"
        capture="environment"
        hidden
        data-testid="fit-photo"
        onChange={(event) => chosen(event, real, "a photo")}
      />
      <input
        ref={file}
        type="file"
        accept="image/png,image/jpeg"
        hidden
        data-testid="fit-file"
        onChange={(event) => chosen(event, real, "a file")}
      />
      {asks && (
        <Address
          camera={camera}
          busy={busy}
          asItIs={as_it_is}
          take={(get, secret) => void taking("its address", get, !secret)}
        />
      )}
      {as_it_is && tried && (
        <label className="switch-line">
          The stand-in is
          <Select size="small" value={order} onChange={setOrder} options={ORDERS} aria-label="The stand-in is" />
        </label>
      )}
      {real.held && (
        <p className="fine">
          From {real.held.from}. It stays on this device {evidence ? "until you keep it" : "only"}.{" "}
          <button type="button" className="link" onClick={real.drop}>
            Throw it away
          </button>
        </p>
      )}
      {turns && !as_it_is && real.held?.from === STAND_IN && (
        <TurnStandIn camera={camera} head={head} again={standIn} real={real} />
      )}
    </section>
  );
}

function chosen(event: React.ChangeEvent<HTMLInputElement>, real: RealPicture, from: string): void {
  const file = event.target.files?.[0];
  event.target.value = "";
  if (file) void real.take(file, { from, at: new Date(file.lastModified).toISOString() });
}

function Address({
  camera,
  busy,
  asItIs,
  take,
}: {
  camera: Camera;
  busy: boolean;
  asItIs: boolean;
  /** `secret`: with a password, which is used once. */
  take(get: () => Promise<Snapped>, secret: boolean): void;
}) {
  const [user, setUser] = useState("");
  const [password, setPassword] = useState("");
  const device = camera.device;
  const [address, path] = [device?.address, device?.picture_path];
  if (!address || !path)
    return (
      <p className="hint">
        Note its address, and where its picture is, at “On the network” of its card. Only addresses of a local network
        are asked.
      </p>
    );
  const port = device?.picture_port ?? 80;
  return (
    <div className="real-address">
      <span className="figure">
        {address}:{port}
        {path}
      </span>
      <Input
        size="small"
        aria-label="Name"
        placeholder="Name"
        autoComplete="off"
        value={user}
        onChange={(event) => setUser(event.target.value)}
      />
      <Input.Password
        size="small"
        aria-label="Password"
        placeholder="Password"
        autoComplete="off"
        value={password}
        onChange={(event) => setPassword(event.target.value)}
      />
      <Button
        size="small"
        type="primary"
        loading={busy}
        onClick={() => {
          const who = user ? { user, password } : {};
          take(() => takeSnapshot({ address, port, path, as_it_is: asItIs, ...who }), user !== "");
          setPassword("");
        }}
      >
        Take it
      </Button>
      <span className="fine">Name and password are used for this once, and kept nowhere.</span>
    </div>
  );
}

/** The stand-in is turned here, as a hand turns a real one. */
function TurnStandIn({
  camera,
  head,
  again,
  real,
}: {
  camera: Camera;
  head: CameraHead;
  again(): Promise<void>;
  real: RealPicture;
}) {
  const [by, setBy] = useState(NO_TURN);
  const figure = (text: string): number => Number(text.replace(",", ".").replace("−", "-"));
  const sound = Object.values(by).every((text) => text.trim() !== "" && Number.isFinite(figure(text)));
  const turn = async (): Promise<void> => {
    try {
      await turnStandIn({
        camera: camera.id,
        head: head.id,
        pan_deg: figure(by.pan),
        tilt_deg: figure(by.tilt),
        roll_deg: figure(by.roll),
        zoom: figure(by.zoom),
      });
      setBy(NO_TURN);
      await again();
    } catch (error) {
      real.say(error instanceof Error ? error.message : String(error));
    }
  };
  const field = (name: keyof typeof NO_TURN, word: string) => (
    <label className="stacked">
      {word}
      <Input
        size="small"
        inputMode="decimal"
        value={by[name]}
        onChange={(event) => setBy({ ...by, [name]: event.target.value })}
      />
    </label>
  );
  return (
    <div className="real-turn" role="group" aria-label="Turn the stand-in">
      {field("pan", "right, °")}
      {field("tilt", "down, °")}
      {field("roll", "clockwise, °")}
      {field("zoom", "zoom, ×")}
      <Button size="small" disabled={!sound || real.coming} onClick={() => void real.awaits(turn)}>
        Turn it
      </Button>
    </div>
  );
}
