/** The work list: the sites to open, with a way to begin one and to bring one in from a file. */
import { keepPreviousData, useInfiniteQuery } from "@tanstack/react-query";
import { type SyntheticEvent, useEffect, useRef, useState } from "react";
import type { Fault } from "../core/types";
import { createSite, importSite } from "../keep/files";
import { sendHeld } from "../keep/sendHeld";
import { type Listed, type Page, listSites, pin } from "../keep/sites";
import { Faults } from "../ui/Faults";
import { Masthead } from "../ui/Masthead";
import { OWN_CAMERAS, PHONES, goTo, siteAddress, stepAddress } from "../ui/address";
import { SiteRow } from "./SiteRow";
import "./sites.css";

/** How often a server that was away is asked again, ms. */
const RETRY = 2000;
/** How often what stands on this device alone is tried to be sent, ms. */
const SEND = 8000;

/** The list, a page at a time; asked again every few seconds while the server is away. */
function useSites(named: string) {
  return useInfiniteQuery({
    queryKey: ["sites", named],
    initialPageParam: null as string | null,
    queryFn: ({ pageParam, signal }) => listSites(pageParam, named, signal),
    getNextPageParam: (last: Page) => last.next,
    refetchInterval: ({ state }) => (state.data?.pages.some((page) => page.away) ? RETRY : false),
    placeholderData: keepPreviousData,
    // A browser that says it is offline is not always right: the server may be on this machine.
    networkMode: "always",
    retry: false,
    gcTime: 0,
  });
}

/** Sends what stands on this device alone, at once and as long as something is left. */
function useSending(unsaved: boolean, again: () => Promise<unknown>): void {
  useEffect(() => {
    const left = new AbortController();
    const send = (): void => void sendHeld(left.signal).then((sent) => (sent ? again() : undefined));
    send();
    window.addEventListener("online", send);
    const timer = unsaved ? window.setInterval(send, SEND) : undefined;
    return () => {
      left.abort();
      window.removeEventListener("online", send);
      window.clearInterval(timer);
    };
  }, [unsaved, again]);
}

/** What a hand types is looked for once it rests, ms. */
const TYPED = 250;

export function SitesPage() {
  const [typed, setTyped] = useState("");
  const [named, setNamed] = useState("");
  useEffect(() => {
    const timer = setTimeout(() => setNamed(typed.trim()), TYPED);
    return () => clearTimeout(timer);
  }, [typed]);
  const listing = useSites(named);
  const pages = listing.data?.pages ?? [];
  const sites = pages.flatMap((page) => page.sites);
  const away = pages.some((page) => page.away);
  useSending(!away && sites.some((site) => site.unsaved), listing.refetch);
  const [faults, setFaults] = useState<{ name: string; faults: Fault[] } | null>(null);
  const [wrong, setWrong] = useState("");
  const [naming, setNaming] = useState(false);
  const bringIn = async (file: File): Promise<void> => {
    setFaults(null);
    try {
      const made = await importSite(file);
      if ("id" in made) goTo(siteAddress(made.id));
      else setFaults({ name: file.name, faults: made.faults });
    } catch (error) {
      setWrong(`${file.name} was not brought in: ${(error as Error).message}.`);
    }
  };
  const keepHere = async (site: Listed, pinned: boolean): Promise<void> => {
    try {
      await pin(site.id, pinned);
      void listing.refetch();
    } catch (error) {
      setWrong(`${site.name} was not put on this device: ${(error as Error).message}.`);
    }
  };
  const rows = (of: Listed[]) =>
    of.map((site) => (
      <SiteRow key={site.id} site={site} there={!away} keepHere={(pinned) => void keepHere(site, pinned)} />
    ));
  const [own, demos] = [sites.filter((site) => !site.demo), sites.filter((site) => site.demo)];
  return (
    <>
      <Masthead />
      <main className="sites">
        <div className="sites-head">
          <h1>Sites</h1>
          <a className="plain-button" href={OWN_CAMERAS}>
            My cameras
          </a>
          <a className="plain-button" href={PHONES}>
            Phones
          </a>
          <FileButton onFile={(file) => void bringIn(file)} />
          <button type="button" className="plain-button plain-primary" onClick={() => setNaming(true)}>
            New site
          </button>
        </div>
        {naming && <NewSite close={() => setNaming(false)} fail={setWrong} />}
        {wrong && (
          <div className="notice-box notice-bad" role="alert">
            {wrong}
            <button type="button" className="plain-button" onClick={() => setWrong("")}>
              Close
            </button>
          </div>
        )}
        {faults && (
          <div className="notice-box notice-bad" role="alert">
            <div>
              <strong>{faults.name} was not brought in, nothing was stored</strong>
              <Faults faults={faults.faults} />
            </div>
            <button type="button" className="plain-button" aria-label="Close" onClick={() => setFaults(null)}>
              Close
            </button>
          </div>
        )}
        {away && (
          <div className="notice-box" role="alert">
            <div>
              <strong>The server does not answer</strong>
              <p>
                These are the sites on this device; they open and can be worked on. The others appear as soon as it is
                back.
              </p>
            </div>
          </div>
        )}
        {listing.error && (
          <div className="notice-box notice-bad" role="alert">
            The list cannot be read: {listing.error.message}
          </div>
        )}
        {(sites.length > 4 || named !== "" || typed !== "") && (
          <input
            type="search"
            className="sites-find"
            placeholder="Find by name, client, address, last change"
            aria-label="Find a site"
            maxLength={200}
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
          />
        )}
        {listing.isPending && <p className="hint">Working …</p>}
        {!listing.isPending && sites.length === 0 && <Nothing named={named} begin={() => setNaming(true)} />}
        {own.length > 0 && (
          <ul className="site-rows" aria-label="Sites">
            {rows(own)}
          </ul>
        )}
        {demos.length > 0 && (
          <section aria-label="Demo sites">
            <h2>Demo sites, to look at</h2>
            <ul className="site-rows">{rows(demos)}</ul>
          </section>
        )}
        {listing.hasNextPage && (
          <button type="button" className="plain-button" onClick={() => void listing.fetchNextPage()}>
            {listing.isFetchingNextPage ? "Working …" : "Older sites"}
          </button>
        )}
        <p className="fine">
          Bright Angle advises; local codes and licensed practice decide. A site is one open file: what you keep here
          can be taken out again at any time.
        </p>
      </main>
    </>
  );
}

function Nothing({ named, begin }: { named: string; begin(): void }) {
  if (named !== "") return <p className="hint">No site has “{named}” in its name, client, address or last change.</p>;
  return (
    <div className="sites-empty">
      <p>No site yet. Begin one, or bring in a site file.</p>
      <button type="button" className="plain-button plain-primary" onClick={begin}>
        New site
      </button>
    </div>
  );
}

function FileButton({ onFile }: { onFile(file: File): void }) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <button type="button" className="plain-button" onClick={() => input.current?.click()}>
        Bring in a site file
      </button>
      <input
        ref={input}
        type="file"
        accept=".json,application/json"
        hidden
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          // The same file may be chosen again once it was mended.
          event.target.value = "";
          if (file) onFile(file);
        }}
      />
    </>
  );
}

function NewSite({ close, fail }: { close(): void; fail(why: string): void }) {
  const [name, setName] = useState("");
  const [busy, setBusy] = useState(false);
  const begin = async (event: SyntheticEvent): Promise<void> => {
    event.preventDefault();
    if (busy || name.trim() === "") return;
    setBusy(true);
    try {
      goTo(stepAddress(await createSite(name.trim()), "brief"));
    } catch (error) {
      setBusy(false);
      fail(`The site was not made: ${(error as Error).message}.`);
    }
  };
  return (
    <form className="new-site" aria-label="New site" onSubmit={(event) => void begin(event)}>
      <label>
        Name of the site
        <input
          autoFocus
          maxLength={200}
          value={name}
          onChange={(event) => setName(event.target.value)}
          onKeyDown={(event) => event.key === "Escape" && close()}
        />
      </label>
      <button type="submit" className="plain-button plain-primary" disabled={busy || name.trim() === ""}>
        Begin
      </button>
      <button type="button" className="plain-button" onClick={close}>
        Leave it
      </button>
    </form>
  );
}
