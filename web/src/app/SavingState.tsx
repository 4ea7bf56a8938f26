/** How far the site in hand is saved, and how safe what is on this device is. */
import { Alert, Button, Popover } from "antd";
import { useEffect, useRef, useState } from "react";
import { useShallow } from "zustand/react/shallow";
import { useOffline } from "../keep/offline";
import { throwAway, tryAgain, usePhotoStore } from "../keep/photoOutbox";
import { persist, room, useShelf } from "../keep/shelf";
import { type Saving, useSite } from "../keep/store";

/** How a site stands, in a few words. */
function wordsOf(saving: Saving, at: string, revision: number): string {
  const time = new Date(at).toLocaleTimeString([], { hour: "2-digit", minute: "2-digit" });
  switch (saving.kind) {
    case "saved":
      return revision === 0 ? "On this device" : `Saved ${time} · rev ${revision}`;
    case "waiting":
    case "saving":
      return "Saving …";
    case "away":
      return "On this device, server away";
    case "refused":
      return "Not saved";
    case "clash":
      return "Two versions";
    case "gone":
      return "Not on the server";
    case "looking":
      return `Looking at rev ${revision}`;
  }
}

export function SavingState() {
  const open = useSite(
    useShallow(
      ({ open: held }) =>
        held && { saving: held.saving, savedAt: held.savedAt, revision: held.revision, offline: held.offline },
    ),
  );
  const trouble = useShelf((state) => state.trouble);
  const stuck = usePhotoStore((state) => state.waiting.some((photo) => photo.stuck !== null));
  if (!open) return null;
  const kind = trouble !== null && open.saving.kind !== "saved" ? "refused" : open.saving.kind;
  return (
    <Popover trigger="click" placement="bottomRight" title="Where your data is" content={<Storage />}>
      <button type="button" className={`saving saving-${kind}`} aria-label="Where this site is saved">
        <span role="status" data-testid="saving">
          {wordsOf(open.saving, open.savedAt, open.revision)}
          {open.offline && open.saving.kind === "saved" && ", server away"}
        </span>
        {(trouble !== null || stuck) && <span className="saving-mark"> !</span>}
      </button>
    </Popover>
  );
}

/** A number of bytes as people say it. */
const size = (bytes: number): string =>
  bytes < 1e6
    ? `${Math.ceil(bytes / 1e3)} kB`
    : bytes < 1e9
      ? `${Math.round(bytes / 1e6)} MB`
      : `${(bytes / 1e9).toFixed(1)} GB`;

function Storage() {
  const saving = useSite((state) => state.open?.saving);
  const trouble = useShelf((state) => state.trouble);
  const ready = useOffline((state) => state.ready);
  const photos = usePhotoStore((state) => state.waiting);
  const [held, setHeld] = useState<{ usage: number; quota: number } | null>(null);
  const [safe, setSafe] = useState<boolean | null>(null);
  useEffect(() => {
    void room().then(setHeld);
    void persist().then(setSafe);
  }, []);
  return (
    <div className="storage">
      {trouble !== null && <Alert type="error" showIcon title={trouble} />}
      {saving?.kind === "refused" && (
        <Alert
          type="error"
          showIcon
          title="The server does not take it"
          description={saving.faults.map((f) => f.message).join("; ")}
        />
      )}
      {saving?.kind === "away" && (
        <p>
          The server has not answered ({saving.why}). What you did stands on this device and goes out by itself.{" "}
          <Button size="small" onClick={() => useSite.getState().saveNow()}>
            Try now
          </Button>
        </p>
      )}
      <dl>
        <dt>Opens without a network</dt>
        <dd>
          {ready
            ? "yes, with every site that was opened here"
            : "not yet: the application is still being put on this device"}
        </dd>
        <dt>Safe from clearing</dt>
        <dd>
          {safe === null
            ? "…"
            : safe
              ? "yes, the browser keeps it until you delete it"
              : "the browser may clear it when the device runs short: let the server have it soon"}
        </dd>
        {held && (
          <>
            <dt>On this device</dt>
            <dd>
              {size(held.usage)} of {size(held.quota)}
            </dd>
          </>
        )}
        <dt>Photos on their way</dt>
        <dd>{photos.length === 0 ? "none" : photos.length}</dd>
      </dl>
      <StuckPhotos />
    </div>
  );
}

/** Photos that don't go on by themselves. */
function StuckPhotos() {
  const site = usePhotoStore((state) => state.site);
  const photos = usePhotoStore((state) => state.waiting);
  const stuck = photos.filter((photo) => photo.stuck !== null);
  if (!site || stuck.length === 0) return null;
  return (
    <ul className="stuck-photos">
      {stuck.map((photo) => (
        <li key={photo.key}>
          <StuckPhoto blob={photo.blob} />
          <span>This photo waits: {photo.stuck}.</span>
          <Button size="small" onClick={() => void tryAgain(site, photo.key)}>
            Try again
          </Button>
          <Button size="small" danger onClick={() => void throwAway(site, photo.key)}>
            Throw away
          </Button>
        </li>
      ))}
    </ul>
  );
}

function StuckPhoto({ blob }: { blob: Blob }) {
  const picture = useRef<HTMLImageElement>(null);
  useEffect(() => {
    const made = URL.createObjectURL(blob);
    if (picture.current) picture.current.src = made;
    return () => URL.revokeObjectURL(made);
  }, [blob]);
  return <img ref={picture} alt="Photo on its way" width={64} height={48} />;
}
