/** The revisions of a site: what was saved when, what is different now, one to look at, to name, or to bring back. */
import { Alert, App, Button, Drawer, Input, List, Skeleton, Tag } from "antd";
import { useInfiniteQuery, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useAnswer } from "../core/useAsked";
import type { Revision, RevisionHead, SiteFile } from "../core/types";
import { request } from "../keep/http";
import { useSettings } from "../keep/settings";
import { useSite } from "../keep/store";
import { THINGS } from "../ui/words";
import { goTo, revisionAddress } from "../ui/address";

const A_PAGE = 50;

export function Revisions({ id, close }: { id: string; close(): void }) {
  const [chosen, setChosen] = useState<number | null>(null);
  const { data, error, hasNextPage, fetchNextPage, isFetching } = useInfiniteQuery({
    queryKey: ["revisions", id],
    initialPageParam: 0,
    queryFn: ({ pageParam, signal }) =>
      request<RevisionHead[]>(
        "GET",
        `/api/sites/${id}/revisions?most=${A_PAGE}${pageParam ? `&under=${pageParam}` : ""}`,
        undefined,
        signal,
      ),
    getNextPageParam: (last) => (last.length < A_PAGE ? undefined : last.at(-1)?.number),
    gcTime: 0,
    networkMode: "always",
    retry: false,
  });
  const heads = data?.pages.flat() ?? [];
  return (
    <Drawer open onClose={close} title="Revisions" size={520} className="revisions">
      <p className="fine">
        Every change is a revision. Of older ones the last of each hour stays, after a week the last of each day; what
        has a name stays for ever.
      </p>
      {error && <Alert type="warning" showIcon title="They cannot be listed now" description={error.message} />}
      {isFetching && heads.length === 0 && <Skeleton active />}
      <List
        dataSource={heads}
        rowKey="number"
        renderItem={(head) => (
          <List.Item className="revision" data-testid={`revision-${head.number}`}>
            <RevisionLine id={id} head={head} open={chosen === head.number} choose={setChosen} close={close} />
          </List.Item>
        )}
        loadMore={hasNextPage && <Button onClick={() => void fetchNextPage()}>Older ones</Button>}
      />
    </Drawer>
  );
}

interface LineProps {
  id: string;
  head: RevisionHead;
  open: boolean;
  choose(number: number | null): void;
  close(): void;
}

function RevisionLine({ id, head, open, choose, close }: LineProps) {
  const at = new Date(head.saved_at).toLocaleString([], { dateStyle: "medium", timeStyle: "short" });
  return (
    <div className="revision-line">
      <button
        type="button"
        className="revision-head"
        aria-expanded={open}
        onClick={() => choose(open ? null : head.number)}
      >
        <span className="figure">{head.number}</span> <span>{head.says}</span>{" "}
        <span className="fine">
          {at}, {head.device ?? "at the desk"}
        </span>
        {head.name && <Tag color={head.agreed ? "green" : "default"}>{head.name}</Tag>}
      </button>
      {open && <OneRevision id={id} head={head} close={close} />}
    </div>
  );
}

function OneRevision({ id, head, close }: Omit<LineProps, "open" | "choose">) {
  const current = useSite((state) => state.open?.site);
  const { data, error } = useQuery({
    queryKey: ["revision", id, head.number],
    queryFn: ({ signal }) => request<Revision>("GET", `/api/sites/${id}/revisions/${head.number}`, undefined, signal),
    networkMode: "always",
    retry: false,
  });
  const bringBack = (site: SiteFile): void => {
    useSite.getState().edit(`Bring back revision ${head.number}`, site);
    close();
  };
  if (error) return <Alert type="warning" showIcon title="It cannot be read now" description={error.message} />;
  if (!data || !current) return <Skeleton active />;
  return (
    <div className="one-revision">
      <Differences before={data.site} after={current} />
      <div className="row">
        <Button
          onClick={() => {
            close();
            goTo(revisionAddress(id, head.number));
          }}
        >
          Look at it
        </Button>
        <Button type="primary" onClick={() => bringBack(data.site)}>
          Bring it back
        </Button>
      </div>
      <NameIt id={id} head={head} />
    </div>
  );
}

/** What is different now, in words. */
function Differences({ before, after }: { before: SiteFile; after: SiteFile }) {
  const units = useSettings((settings) => settings.units);
  // A state that makes no sense is told elsewhere.
  const { value, settled } = useAnswer(after, { ask: "compare", before, units }, { rest: "live" });
  const data = settled ? value : null;
  if (!data) return <Skeleton active paragraph={{ rows: 1 }} />;
  if (data.length === 0) return <p>The site is now as it was then.</p>;
  return (
    <>
      <p>Since then:</p>
      <ul className="differences" aria-label="What changed since then">
        {data.map((one) => (
          <li key={`${one.thing}/${one.id}`}>
            {THINGS[one.thing]} <strong>{one.name}</strong>: {one.says}
          </li>
        ))}
      </ul>
    </>
  );
}

function NameIt({ id, head }: { id: string; head: RevisionHead }) {
  const [name, setName] = useState(head.name ?? "");
  const queries = useQueryClient();
  const { message } = App.useApp();
  const put = async (agreed: boolean): Promise<void> => {
    try {
      const named = name.trim() === "" ? null : name.trim();
      await request("PUT", `/api/sites/${id}/revisions/${head.number}/name`, { name: named, agreed });
      await queries.invalidateQueries({ queryKey: ["revisions", id] });
    } catch (error) {
      void message.error(`It was not named: ${(error as Error).message}.`);
    }
  };
  return (
    <div className="row name-it">
      <Input
        aria-label={`Name of revision ${head.number}`}
        placeholder="Name, as in “First offer”"
        maxLength={200}
        value={name}
        onChange={(event) => setName(event.target.value)}
      />
      <Button onClick={() => void put(false)}>Name it</Button>
      <Button disabled={name.trim() === ""} onClick={() => void put(true)}>
        Agreed
      </Button>
    </div>
  );
}
