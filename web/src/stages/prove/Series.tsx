/** Several later pictures at once, as growth asks for three: each is held against the reference and kept, one after the other. */
import { useEffect, useRef, useState } from "react";
import { comparer } from "../../core/comparer";
import { Refused } from "../../core/errors";
import type { HeadRef, Hung, Looked, SiteFile, Snapshot } from "../../core/types";
import { evidenceOf, keepEvidence } from "../../keep/evidence";
import { useSite } from "../../keep/store";
import { asEvidence } from "../../pictures/asEvidence";
import { Button } from "../../ui/controls";
import { keepSnapshot, snapshotOf } from "./proveEdits";

/** So many are taken at once. */
const MOST = 24;

interface Props {
  site: SiteFile;
  looked: Looked;
  reference: Snapshot;
  hung: Hung | null;
  head_ref: HeadRef;
  by: string;
}

export function Series({ site, looked, reference, hung, head_ref, by }: Props) {
  const id = useSite((state) => state.open?.id) ?? "";
  const input = useRef<HTMLInputElement>(null);
  const stop = useRef<AbortController | null>(null);
  const [says, setSays] = useState("");
  const [wrong, setWrong] = useState<string[]>([]);
  const [at, setAt] = useState<[number, number] | null>(null);
  useEffect(() => () => stop.current?.abort(), []);
  const begin = async (files: File[]): Promise<void> => {
    setWrong([]);
    setSays("");
    if (files.length > MOST) {
      setSays(`${files.length} pictures are more than the ${MOST} that are taken at once: none was taken.`);
      return;
    }
    const before = await evidenceOf(id, reference.picture.picture);
    if (!before || !hung) {
      setSays("The reference is not on this device, and the server is away: none was taken.");
      return;
    }
    const mine = (stop.current = new AbortController());
    let kept = 0;
    for (const [place, file] of files.entries()) {
      if (mine.signal.aborted) break;
      setAt([place + 1, files.length]);
      try {
        const picture = await asEvidence(file);
        const wish = {
          reference: { name: reference.picture.picture, blob: before },
          later: picture.blob,
          hfovDeg: looked.hfov_deg,
          limits: site.rules?.proving ?? {},
        };
        const found = await comparer.compared(wish, mine.signal);
        if (!found || !picture.name) continue;
        if (!(await keepEvidence(id, { ...picture, from: "a file", corners: null, points: [] }))) {
          setSays("This device has no room left: the rest was not taken.");
          break;
        }
        const whose = { head: head_ref, night: looked.night, by, hung };
        const taken = { ...picture, name: picture.name, at: new Date(file.lastModified).toISOString() };
        keepSnapshot(snapshotOf(whose, taken, { reference: reference.id, found }), looked.name);
        kept += 1;
      } catch (error) {
        const why = error instanceof Refused ? (error.faults[0]?.message ?? "is refused") : (error as Error).message;
        setWrong((held) => [...held, `${file.name} ${why}`]);
      }
    }
    setAt(null);
    setSays((held) => held || `${kept} of ${files.length} kept.`);
  };
  return (
    <div className="prove-series">
      {at ? (
        <div className="row">
          <span role="status">
            {at[0]} of {at[1]} …
          </span>
          <Button size="small" onClick={() => stop.current?.abort()}>
            Stop
          </Button>
        </div>
      ) : (
        <Button size="small" onClick={() => input.current?.click()}>
          Several later pictures
        </Button>
      )}
      <input
        ref={input}
        type="file"
        accept="image/png,image/jpeg"
        multiple
        hidden
        data-testid="look-series"
        onChange={(event) => {
          const files = [...(event.target.files ?? [])];
          event.target.value = "";
          if (files.length > 0) void begin(files);
        }}
      />
      {says && <p role="status">{says}</p>}
      {wrong.map((one) => (
        <p key={one} role="alert" className="verdict-word-broken fine">
          {one}
        </p>
      ))}
    </div>
  );
}
