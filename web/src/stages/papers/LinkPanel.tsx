/** Links by which the client agrees on a device of their own: made at the desk, while phones are let in on this network. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Select } from "antd";
import { useState } from "react";
import type { MadeSignLink, Me, Share, SignLink, SignLinkRequest, SiteFile } from "../../core/types";
import { request } from "../../keep/http";
import { useSettings } from "../../keep/settings";
import { useSite } from "../../keep/store";
import { PHONES } from "../../ui/address";
import { QrCode } from "../../ui/QrCode";
import { Button } from "../../ui/controls";
import { shownMark, signSheet } from "./signPage";

/** How often it is asked whether somebody signed, ms. */
const LOOKS = 4000;
const DAYS = [3, 7, 14, 30];
const always = { networkMode: "always", retry: false } as const;

interface LinkPanelProps {
  site: SiteFile;
  /** Keeps what was signed; what is wrong with that in words. */
  takeOver(link: SignLink): Promise<string | null>;
}

export function LinkPanel({ site, takeOver }: LinkPanelProps) {
  const id = useSite((state) => state.open?.id) ?? "";
  const me = useQuery({ queryKey: ["me"], queryFn: () => request<Me>("GET", "/api/share/me"), ...always });
  const desk = me.data?.device === null;
  const share = useQuery({
    queryKey: ["share"],
    queryFn: () => request<Share>("GET", "/api/share"),
    enabled: desk,
    ...always,
  });
  const open = (share.data?.door.addresses.length ?? 0) > 0;
  return (
    <section aria-label="By a link">
      <h3>By a link</h3>
      {me.data && !desk && <p className="fine">Links are made at the desk.</p>}
      {me.error && <p className="fine">The desk does not answer: {me.error.message}.</p>}
      {desk && share.data && !open && (
        <p className="fine">
          A link opens only while phones are let in on this network: <a href={PHONES}>let them in</a>.
        </p>
      )}
      {desk && open && <Links key={id} id={id} site={site} takeOver={takeOver} />}
    </section>
  );
}

function Links({ id, site, takeOver }: LinkPanelProps & { id: string }) {
  const units = useSettings((settings) => settings.units);
  const queries = useQueryClient();
  const path = `/api/sites/${id}/links`;
  const links = useQuery({
    queryKey: ["links", id],
    queryFn: ({ signal }) => request<SignLink[]>("GET", path, undefined, signal),
    refetchInterval: LOOKS,
    ...always,
  });
  const [days, setDays] = useState(14);
  const [made, setMade] = useState<MadeSignLink | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const work = async (doing: () => Promise<string | null>): Promise<void> => {
    setBusy(true);
    try {
      setFault(await doing());
    } catch (error) {
      setFault((error as Error).message);
    } finally {
      setBusy(false);
      await queries.invalidateQueries({ queryKey: ["links", id] });
    }
  };
  const make = async (): Promise<null> => {
    const sheet = await signSheet(site, units);
    if (!sheet) return null;
    const asked: SignLinkRequest = { days, shown: await shownMark(site), sheet };
    setMade(await request<MadeSignLink>("POST", path, asked));
    return null;
  };
  const end = async (link: SignLink): Promise<null> => {
    await request("DELETE", `${path}/${link.id}`, null);
    if (made?.link.id === link.id) setMade(null);
    return null;
  };
  const take = async (link: SignLink): Promise<string | null> => (await takeOver(link)) ?? (await end(link));
  return (
    <>
      <p className="fine">
        Whoever has it sees the promises and views as they stand now, nothing else, and can sign once. It opens on this
        network; a browser that does not know the desk yet warns first.
      </p>
      <div className="row">
        <label>
          Opens for{" "}
          <Select
            value={days}
            options={DAYS.map((value) => ({ value, label: `${value} days` }))}
            onChange={setDays}
            aria-label="How long the link opens"
          />
        </label>
        <Button disabled={busy || site.targets.length === 0} onClick={() => void work(make)}>
          Make a link
        </Button>
      </div>
      {fault && (
        <p role="alert" className="verdict-word-broken">
          {fault}
        </p>
      )}
      {made && (
        <div data-testid="made-link">
          <p>
            <a href={made.url} target="_blank" rel="noreferrer" className="papers-link">
              {made.url}
            </a>
          </p>
          <QrCode svg={made.qr_svg} alt="Code of the link" />
          <p className="fine">It is shown this once: send it now.</p>
        </div>
      )}
      {links.error && <p className="fine">{links.error.message}</p>}
      <ul className="papers-links">
        {links.data?.map((link) => (
          <li key={link.id} data-testid="sign-link">
            <span>{stands(link)}</span>
            {link.signed_at && (
              <Button disabled={busy} onClick={() => void work(() => take(link))}>
                Take it over
              </Button>
            )}
            <Button disabled={busy} onClick={() => void work(() => end(link))}>
              End this link
            </Button>
          </li>
        ))}
      </ul>
    </>
  );
}

function stands(link: SignLink): string {
  const day = (text: string): string => text.slice(0, 10);
  if (link.signed_at) return `Signed by ${link.signed_name ?? ""} on ${day(link.signed_at)}`;
  if (new Date(link.ends_at) <= new Date()) return `Over since ${day(link.ends_at)}, not signed`;
  return `Made on ${day(link.made_at)}, opens until ${day(link.ends_at)}, not signed yet`;
}
