/** The list of sites to open, with a way to begin one and to bring one in from a file. */
import { Alert, App, Button, Empty, Input, Modal, Skeleton, Switch, Table, Tag, Upload } from "antd";
import { keepPreviousData, useInfiniteQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import type { Fault } from "../core/types";
import { createSite, importSite } from "../keep/files";
import { sendHeld, useHeld } from "../keep/sendHeld";
import { type Listed, type Page, listSites, pin } from "../keep/sites";
import { Faults } from "../ui/Faults";
import { Masthead } from "../ui/Masthead";
import { goTo, siteAddress, stepAddress } from "../ui/address";
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

export function SitesPage() {
  const [named, setNamed] = useState("");
  const listing = useSites(named);
  const unsaved = listing.data?.pages.some((page) => !page.away && page.sites.some((site) => site.unsaved)) ?? false;
  useSending(unsaved, listing.refetch);
  const pages = listing.data?.pages ?? [];
  const sites = pages.flatMap((page) => page.sites);
  const [faults, setFaults] = useState<{ name: string; faults: Fault[] } | null>(null);
  const [naming, setNaming] = useState(false);
  const { message } = App.useApp();
  const bringIn = async (file: File): Promise<void> => {
    setFaults(null);
    try {
      const made = await importSite(file);
      if ("id" in made) goTo(siteAddress(made.id));
      else setFaults({ name: file.name, faults: made.faults });
    } catch (error) {
      void message.error(`${file.name} was not brought in: ${(error as Error).message}.`);
    }
  };
  return (
    <>
      <Masthead />
      <main className="sites">
        <div className="sites-head">
          <h1>Sites</h1>
          <Upload
            accept=".json,application/json"
            showUploadList={false}
            beforeUpload={(file) => {
              void bringIn(file);
              return false;
            }}
          >
            <Button>Bring in a site file</Button>
          </Upload>
          <Button type="primary" onClick={() => setNaming(true)}>
            New site
          </Button>
        </div>
        {faults && (
          <Alert
            type="error"
            closable={{ onClose: () => setFaults(null) }}
            className="sites-faults"
            title={`${faults.name} was not brought in, nothing was stored`}
            description={<Faults faults={faults.faults} />}
          />
        )}
        {pages.some((page) => page.away) && (
          <Alert
            type="warning"
            showIcon
            title="The server does not answer"
            description="These are the sites on this device; they open and can be worked on. The others appear as soon as it is back."
          />
        )}
        {listing.error && (
          <Alert type="error" showIcon title="The list cannot be read" description={listing.error.message} />
        )}
        {((pages[0]?.total ?? 0) > 10 || named !== "") && (
          <Input.Search
            className="sites-find"
            allowClear
            placeholder="Find by name"
            aria-label="Find a site by its name"
            maxLength={200}
            onSearch={setNamed}
          />
        )}
        {listing.isPending ? (
          <Skeleton active paragraph={{ rows: 4 }} />
        ) : (
          <SiteTable sites={sites} begin={() => setNaming(true)} again={() => void listing.refetch()} />
        )}
        {listing.hasNextPage && (
          <Button onClick={() => void listing.fetchNextPage()} loading={listing.isFetchingNextPage}>
            Older sites
          </Button>
        )}
        <p className="fine">
          Bright Angle advises; local codes and licensed practice decide. A site is one open file: what you keep here
          can be taken out again at any time.
        </p>
      </main>
      {naming && <NewSite close={() => setNaming(false)} />}
    </>
  );
}

function SiteTable({ sites, begin, again }: { sites: Listed[]; begin(): void; again(): void }) {
  const { message } = App.useApp();
  const stuck = useHeld((held) => held.stuck);
  const keepHere = async (site: Listed, pinned: boolean): Promise<void> => {
    try {
      await pin(site.id, pinned);
      again();
    } catch (error) {
      void message.error(`${site.name} was not put on this device: ${(error as Error).message}.`);
    }
  };
  if (sites.length === 0) {
    return (
      <Empty description="No site yet. Begin one, or bring in a site file.">
        <Button type="primary" onClick={begin}>
          New site
        </Button>
      </Empty>
    );
  }
  return (
    <Table<Listed>
      rowKey="id"
      dataSource={sites}
      pagination={false}
      scroll={{ x: "max-content" }}
      columns={[
        { title: "Site", dataIndex: "name", render: (name: string, site) => <a href={siteAddress(site.id)}>{name}</a> },
        { title: "Promises", dataIndex: "targets", align: "right", className: "figure" },
        { title: "Cameras", dataIndex: "cameras", align: "right", className: "figure" },
        { title: "Last change", dataIndex: "says" },
        {
          title: "Saved",
          dataIndex: "saved_at",
          render: (at: string) => new Date(at).toLocaleString([], { dateStyle: "medium", timeStyle: "short" }),
        },
        {
          title: "Revision",
          dataIndex: "revision",
          align: "right",
          className: "figure",
          render: (number: number) => (number === 0 ? "–" : number),
        },
        {
          title: "On this device",
          key: "here",
          render: (_, site) => (
            <span className="sites-here">
              <label className="switch-line">
                <Switch
                  size="small"
                  checked={site.here}
                  disabled={site.revision === 0 || site.here}
                  onChange={(pinned) => void keepHere(site, pinned)}
                  aria-label={`Keep ${site.name} on this device`}
                />
              </label>
              {site.unsaved && <Tag color="warning">{stuck[site.id] ?? "not saved yet"}</Tag>}
            </span>
          ),
        },
      ]}
    />
  );
}

function NewSite({ close }: { close(): void }) {
  const [name, setName] = useState("");
  const [busy, setBusy] = useState(false);
  const { message } = App.useApp();
  const begin = async (): Promise<void> => {
    setBusy(true);
    try {
      goTo(stepAddress(await createSite(name.trim()), "brief"));
    } catch (error) {
      setBusy(false);
      void message.error(`The site was not made: ${(error as Error).message}.`);
    }
  };
  return (
    <Modal
      open
      title="New site"
      okText="Begin"
      onCancel={close}
      onOk={() => void begin()}
      confirmLoading={busy}
      okButtonProps={{ disabled: name.trim() === "" }}
    >
      <label className="stacked">
        Name of the site
        <Input
          autoFocus
          maxLength={200}
          value={name}
          onChange={(event) => setName(event.target.value)}
          onPressEnter={() => name.trim() && void begin()}
        />
      </label>
    </Modal>
  );
}
