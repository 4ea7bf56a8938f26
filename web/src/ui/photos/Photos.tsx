/** The photos of a spot or target. */
import { CameraOutlined } from "@ant-design/icons";
import { Alert, Button, Image, Switch } from "antd";
import { useRef, useState } from "react";
import type { Photo, Point } from "../../core/types";
import { type Owner, ownerOf, takePhoto, usePhotoStore } from "../../keep/photoOutbox";
import { useSite } from "../../keep/store";
import { scaleDown } from "./scaleDown";

export function Photos({ owner, photos, name }: { owner: Owner; photos: Photo[]; name: string }) {
  const input = useRef<HTMLInputElement>(null);
  const [fault, setFault] = useState("");
  const [keepPlace, setKeepPlace] = useState(false);
  const site = useSite((state) => state.open?.id) ?? "";
  const edit = useSite((state) => state.edit);
  const pending = usePhotoStore((state) => state.waiting);
  const mine = pending.filter((photo) => photo.owner.kind === owner.kind && photo.owner.id === owner.id);
  const waiting = mine.filter((photo) => photo.stuck === null).length;
  const stuck = mine.find((photo) => photo.stuck !== null);
  const take = async (file: File): Promise<void> => {
    setFault("");
    try {
      const { blob } = await scaleDown(file);
      const place = keepPlace ? await placeOf(file) : undefined;
      if (!(await takePhoto(site, owner, blob, place)))
        setFault(`${file.name} was not taken: this device has no room left for it.`);
    } catch (error) {
      setFault(`${file.name} ${(error as Error).message}`);
    }
  };
  const remove = (picture: string): void =>
    edit(`Remove a photo of ${name}`, (draft) => {
      const item = ownerOf(draft, owner);
      if (item?.photos) item.photos = item.photos.filter((photo) => photo.picture !== picture);
    });
  return (
    <div className="field" data-field="photos">
      <span className="field-label">Photos</span>
      <div className="photos">
        {photos.map((photo) => (
          <figure key={photo.picture}>
            <Image width={96} height={72} src={`/api/pictures/${photo.picture}`} alt={`Photo of ${name}`} />
            <Button
              size="small"
              type="text"
              onClick={() => remove(photo.picture)}
              aria-label={`Remove this photo of ${name}`}
            >
              Remove
            </Button>
          </figure>
        ))}
        <Button size="large" icon={<CameraOutlined />} onClick={() => input.current?.click()}>
          Photo
        </Button>
        <input
          ref={input}
          type="file"
          accept="image/png,image/jpeg"
          hidden
          data-testid={`photo-${owner.id}`}
          onChange={(event) => {
            const file = event.target.files?.[0];
            event.target.value = "";
            if (file) void take(file);
          }}
        />
      </div>
      {waiting > 0 && (
        <span className="fine" role="status">
          {waiting} on this device until the server has {waiting === 1 ? "it" : "them"}.
        </span>
      )}
      {fault && <Alert type="error" showIcon title={fault} />}
      {stuck && (
        <Alert
          type="warning"
          showIcon
          title={`A photo waits on this device: ${stuck.stuck ?? ""}. What becomes of it is asked where the site is said to be saved, above.`}
        />
      )}
      <label className="switch-line">
        <Switch size="small" checked={keepPlace} onChange={setKeepPlace} /> Keep where a photo was taken
      </label>
    </div>
  );
}

/** Where the file says that it was taken: degrees north and east. */
async function placeOf(file: File): Promise<Point | undefined> {
  const { default: reader } = await import("exifreader");
  try {
    const { gps } = await reader.load(file, { expanded: true });
    if (gps?.Latitude === undefined || gps.Longitude === undefined) return undefined;
    return [Number(gps.Latitude.toFixed(6)), Number(gps.Longitude.toFixed(6))];
  } catch {
    // A picture that says nothing of itself says nothing of its place.
    return undefined;
  }
}
