/** What is noted of a device on the network: address, hardware address, firmware, and that its password was changed. */
import type { Camera, Node } from "../core/types";
import { changeOf } from "../keep/things";
import { TextLine } from "./TextLine";
import { Switch } from "./controls";

type Noted = NonNullable<Node["device"]>;
type Text = "address" | "hardware" | "firmware";

const ADDRESS = /^(\d{1,3})\.(\d{1,3})\.(\d{1,3})\.(\d{1,3})$/;
const HARDWARE = /^([0-9a-f]{2}[:.\- ]?){5}[0-9a-f]{2}$/i;
const isAddress = (text: string): boolean =>
  ADDRESS.test(text) && text.split(".").every((part) => Number(part) <= 255 && String(Number(part)) === part);

const FIELDS: { field: Text; label: string; right: (text: string) => boolean; wrong: string }[] = [
  { field: "address", label: "Address", right: isAddress, wrong: "four figures such as 192.168.50.21" },
  {
    field: "hardware",
    label: "Hardware address",
    right: (text) => HARDWARE.test(text),
    wrong: "as in 02:00:5E:10:00:01",
  },
  { field: "firmware", label: "Firmware", right: (text) => text.length <= 100, wrong: "100 characters at most" },
];

export function DeviceFields({ kind, thing }: { kind: "camera" | "node"; thing: Camera | Node }) {
  const change = changeOf(kind, thing);
  const device: Noted = thing.device ?? { password_changed: false };
  const put = (says: string, part: Partial<Noted>): void =>
    change(says, (held) => {
      held.device = { ...(held.device ?? { password_changed: false }), ...part };
    });
  return (
    <details className="wire-device">
      <summary>On the network</summary>
      {FIELDS.map(({ field, label, right, wrong }) => (
        <TextLine
          key={field}
          of={thing.id}
          word={label}
          value={device[field] ?? ""}
          right={right}
          wrong={wrong}
          onChange={(text) => put(`Note the ${label.toLowerCase()}`, { [field]: text === "" ? null : text })}
        />
      ))}
      {kind === "camera" && <PictureAt device={device} of={thing.id} put={put} />}
      <label className="switch-line">
        <Switch
          size="small"
          checked={device.password_changed ?? false}
          onChange={(changed) => put("Tick the password", { password_changed: changed })}
        />{" "}
        password changed (it is not kept here)
      </label>
    </details>
  );
}

/** Where a camera gives its picture: it is asked when somebody aims it. */
function PictureAt({ device, of, put }: { device: Noted; of: string; put(says: string, part: Partial<Noted>): void }) {
  return (
    <>
      <TextLine
        of={of}
        word="Its picture is at"
        placeholder="/picture.jpg"
        value={device.picture_path ?? ""}
        right={(text) => /^\/[!-~]*$/.test(text) && !text.includes("#") && text.length <= 200}
        wrong="begins with /, as in /picture.jpg"
        onChange={(text) => put("Note where its picture is", { picture_path: text === "" ? null : text })}
      />
      <TextLine
        of={of}
        word="at the port"
        placeholder="80"
        value={device.picture_port == null ? "" : String(device.picture_port)}
        right={(text) => /^\d{1,5}$/.test(text) && Number(text) > 0 && Number(text) < 65536}
        wrong="a number up to 65535"
        onChange={(text) => put("Note the port of its picture", { picture_port: text === "" ? null : Number(text) })}
      />
    </>
  );
}
