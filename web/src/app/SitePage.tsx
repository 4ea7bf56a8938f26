/** A site's stages with the site: opened, away, not there, or ready to work on. */
import { Alert, Button, Result, Skeleton } from "antd";
import { Suspense, useEffect } from "react";
import { useCoreState } from "../core/state";
import { Gone, NotThere } from "../keep/http";
import { useOffline } from "../keep/offline";
import { usePendingPhotos } from "../keep/photoOutbox";
import { useSite } from "../keep/store";
import { endSite } from "../model/perSite";
import { Masthead } from "../ui/Masthead";
import { type Stage, goTo, siteAddress } from "../ui/address";
import { SiteMasthead } from "./SiteMasthead";
import { ClashNotice } from "./ClashNotice";
import { GoneNotice } from "./GoneNotice";
import { STAGES } from "./stages";
import { useUndoKeys } from "./useUndoKeys";

interface Props {
  id: string;
  stage: Stage;
  step: string | null;
  item: string | null;
  /** The revision to look at; the newest, to work on, where it is left out. */
  looking?: number | null;
}

export function SitePage({ id, stage, step, item, looking = null }: Props) {
  const opened = useSite((state) => state.open?.id);
  const failed = useSite((state) => state.failed);
  const { load, close } = useSite.getState();
  useEffect(() => {
    void load(id, looking);
    return () => {
      close();
      endSite();
    };
  }, [id, looking, load, close]);
  useUndoKeys();
  usePendingPhotos(id);
  const Screen = STAGES.find((known) => known.stage === stage)?.Screen;
  if (opened === id && Screen) {
    return (
      <div className={`stage stage-${stage}`}>
        <SiteMasthead stage={stage} />
        {looking !== null && <Looking id={id} number={looking} />}
        <Notices />
        <Suspense fallback={<Skeleton active />}>
          <Screen step={step} item={item} />
        </Suspense>
        <ClashNotice />
        <GoneNotice />
      </div>
    );
  }
  return (
    <>
      <Masthead />
      <main className="sites">
        {failed ? <Failed error={failed} again={() => void load(id, looking)} /> : <Skeleton active />}
      </main>
    </>
  );
}

/** An old revision under the eye: it cannot be changed, but brought back. */
function Looking({ id, number }: { id: string; number: number }) {
  const bringBack = async (): Promise<void> => {
    const site = useSite.getState().open?.site;
    if (!site) return;
    const { load, edit } = useSite.getState();
    await load(id);
    edit(`Bring back revision ${number}`, site);
    goTo(siteAddress(id));
  };
  return (
    <Alert
      banner
      type="info"
      title={`This is revision ${number}, to look at. Nothing here can be changed.`}
      action={
        <span className="row">
          <Button size="small" onClick={() => void bringBack()}>
            Bring it back
          </Button>
          <Button size="small" type="primary" href={siteAddress(id)}>
            To the newest
          </Button>
        </span>
      }
    />
  );
}

/** What is said once: what was taken in from elsewhere, and that a newer version of the application is there. */
function Notices() {
  const notice = useSite((state) => state.notice);
  const renew = useOffline((state) => state.renew);
  const trouble = useCoreState((state) => state.trouble);
  return (
    <>
      {notice !== null && (
        <Alert banner type="info" title={notice} closable={{ onClose: () => useSite.setState({ notice: null }) }} />
      )}
      {trouble !== null && (
        <Alert
          banner
          type="warning"
          data-testid="core-trouble"
          title={`The computation stopped (${trouble}). It is started again by itself; figures that are not of this state have a dashed line.`}
        />
      )}
      {renew && (
        <Alert
          banner
          type="info"
          title="A newer version of the application is on this device."
          action={
            <Button size="small" onClick={renew}>
              Take it
            </Button>
          }
        />
      )}
    </>
  );
}

function Failed({ error, again }: { error: Error; again(): void }) {
  if (error instanceof Gone) {
    return <Result status="404" title="This site was deleted" extra={<Button href="#/">All sites</Button>} />;
  }
  if (error instanceof NotThere) {
    return <Result status="404" title="There is no such site here" extra={<Button href="#/">All sites</Button>} />;
  }
  return (
    <Alert
      type="warning"
      showIcon
      title="The site cannot be opened now"
      description={`${error.message}, and the site was never opened on this device. Nothing is lost.`}
      action={<Button onClick={again}>Try again</Button>}
    />
  );
}
