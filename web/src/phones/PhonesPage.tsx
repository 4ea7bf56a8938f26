/** Phones and tablets on the local network: at the desk they are let in and ended, on a device it says what that device is. */
import { useQuery } from "@tanstack/react-query";
import { request } from "../keep/http";
import type { Me } from "../core/types";
import { Masthead } from "../ui/Masthead";
import { Desk } from "./Desk";
import { Trust } from "./Trust";
import "./phones.css";

export function PhonesPage() {
  const me = useQuery({
    queryKey: ["me"],
    queryFn: ({ signal }) => request<Me>("GET", "/api/share/me", undefined, signal),
    networkMode: "always",
    retry: false,
    gcTime: 0,
  });
  return (
    <>
      <Masthead />
      <main className="phones">
        <h1>Phones</h1>
        {me.isPending && <p className="hint">Working …</p>}
        {me.error && (
          <div className="notice-box notice-bad" role="alert">
            The desk does not answer: {me.error.message}.
          </div>
        )}
        {me.data &&
          (me.data.device === null ? (
            <Desk />
          ) : (
            <>
              <p>
                This device is paired as <strong>{me.data.device}</strong>. What it saves goes by that name in the
                revisions. It is ended at the desk.
              </p>
              <Trust fingerprint={me.data.fingerprint} qr={null} />
            </>
          ))}
      </main>
    </>
  );
}
