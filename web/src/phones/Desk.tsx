/** The desk's side: the switch, the code to scan, and the devices that may come in. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { Share } from "../core/types";
import { request } from "../keep/http";
import { Code } from "./Code";
import { Trust } from "./Trust";

/** How often it is asked how things stand, ms: a device that is paired appears while one looks. */
const LOOKS = 2000;

export function Desk() {
  const queries = useQueryClient();
  const share = useQuery({
    queryKey: ["share"],
    queryFn: ({ signal }) => request<Share>("GET", "/api/share", undefined, signal),
    refetchInterval: LOOKS,
    networkMode: "always",
    retry: false,
  });
  const [fault, setFault] = useState("");
  // The switch goes over under the hand; how it stands comes with the next answer.
  const [switched, setSwitched] = useState<boolean | null>(null);
  const ask = async (method: string, path: string, body: unknown): Promise<void> => {
    setFault("");
    try {
      await request(method, path, body);
    } catch (error) {
      setFault((error as Error).message);
    }
    await queries.invalidateQueries({ queryKey: ["share"] });
  };
  if (!share.data) return <p className="hint">{share.error ? share.error.message : "Working …"}</p>;
  const { door, devices } = share.data;
  const open = door.addresses.length > 0;
  return (
    <>
      <label className="phones-switch">
        <input
          type="checkbox"
          role="switch"
          checked={switched ?? door.wanted}
          onChange={(event) => {
            setSwitched(event.target.checked);
            void ask("PUT", "/api/share", { open: event.target.checked }).finally(() => setSwitched(null));
          }}
        />
        <span>
          <strong>Let phones in on this network</strong>
          <span className="fine">Encrypted, and only phones that you pair here.</span>
        </span>
      </label>
      {(fault || (door.wanted && door.wrong)) && (
        <div className="notice-box notice-bad" role="alert">
          It does not go: {fault || door.wrong}.
        </div>
      )}
      {door.wanted && !open && !door.wrong && <p className="hint">Opening …</p>}
      {open && (
        <>
          <Code known={devices.length} />
          <Devices share={share.data} end={(id) => void ask("DELETE", `/api/share/devices/${id}`, null)} />
          <Trust fingerprint={door.fingerprint} qr={share.data.trust_qr_svg} />
          <p className="fine">
            Open at {door.addresses.join(", ")}. Nothing else is answered there. Give this machine a fixed address in
            the router: at another address a phone has to be paired again.
          </p>
        </>
      )}
      {!open && devices.length > 0 && (
        <Devices share={share.data} end={(id) => void ask("DELETE", `/api/share/devices/${id}`, null)} />
      )}
    </>
  );
}

function Devices({ share, end }: { share: Share; end(id: string): void }) {
  if (share.devices.length === 0) return <p className="hint">No phone is paired yet.</p>;
  const when = (text: string): string => new Date(text).toLocaleString([], { dateStyle: "medium", timeStyle: "short" });
  return (
    <section aria-label="Paired phones">
      <h2>Paired phones</h2>
      <ul className="devices">
        {share.devices.map((device) => (
          <li key={device.id} data-testid="device">
            <span>
              <strong>{device.name}</strong>
              <span className="fine">
                last seen {when(device.seen_at)}, paired {when(device.paired_at)}
              </span>
            </span>
            <button
              type="button"
              className="plain-button"
              aria-label={`End ${device.name}`}
              onClick={() => end(device.id)}
            >
              End
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
