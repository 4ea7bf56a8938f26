/** The list of sites to open, with a way to begin one and to bring one in from a file. */
import { Alert, App, Button, Empty, Input, Modal, Skeleton, Table, Upload } from "antd";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Fault, SiteHead, SitePage } from "../core/types";
import { createSite, importSite } from "../keep/files";
import { Away, ask } from "../keep/http";
import { Faults } from "../ui/Faults";
import { Masthead } from "../ui/Masthead";
import { goTo, siteAddress } from "../ui/address";
import "./sites.css";

type Listing = { kind: "loading" } | { kind: "away" } | { kind: "here"; sites: SiteHead[] };

/** How long to wait before a server that was away is asked again, ms. */
const RETRY = 2000;

/** The list, asked again every few seconds while the server is away. */
function useSites(): Listing {
  const { data, failureReason } = useQuery({
    queryKey: ["sites"],
    queryFn: ({ signal }) => ask<SitePage>("GET", "/api/sites", undefined, signal),
    retry: (_, error) => error instanceof Away,
    retryDelay: RETRY,
    // A browser that says it is offline is not always right: the server may be on this machine.
    networkMode: "always",
    gcTime: 0,
  });
  if (failureReason instanceof Away) return { kind: "away" };
  return data ? { kind: "here", sites: data.sites } : { kind: "loading" };
}

export function SitesPage() {
  const listing = useSites();
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
        <SiteTable listing={listing} begin={() => setNaming(true)} />
        <p className="fine">
          Bright Angle advises; local codes and licensed practice decide. A site is one open file: what you keep here
          can be taken out again at any time.
        </p>
      </main>
      {naming && <NewSite close={() => setNaming(false)} />}
    </>
  );
}

function SiteTable({ listing, begin }: { listing: Listing; begin(): void }) {
  if (listing.kind === "loading") return <Skeleton active paragraph={{ rows: 4 }} />;
  if (listing.kind === "away") {
    return (
      <Alert
        type="warning"
        showIcon
        title="The server does not answer"
        description="The list appears as soon as it is back. Nothing is lost."
      />
    );
  }
  if (listing.sites.length === 0) {
    return (
      <Empty description="No site yet. Begin one, or bring in a site file.">
        <Button type="primary" onClick={begin}>
          New site
        </Button>
      </Empty>
    );
  }
  return (
    <Table<SiteHead>
      rowKey="id"
      dataSource={listing.sites}
      pagination={listing.sites.length > 20 ? { pageSize: 20 } : false}
      scroll={{ x: "max-content" }}
      columns={[
        { title: "Site", dataIndex: "name", render: (name: string, site) => <a href={siteAddress(site.id)}>{name}</a> },
        { title: "Promises", dataIndex: "targets", align: "right", className: "figure" },
        { title: "Cameras", dataIndex: "cameras", align: "right", className: "figure" },
        { title: "Last change", dataIndex: "says" },
        {
          title: "Kept",
          dataIndex: "saved_at",
          render: (at: string) => new Date(at).toLocaleString([], { dateStyle: "medium", timeStyle: "short" }),
        },
        { title: "Revision", dataIndex: "revision", align: "right", className: "figure" },
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
      goTo(siteAddress(await createSite(name.trim())));
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
