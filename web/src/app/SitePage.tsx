/** A site's stages with the site: opened, away, not there, or ready to work on. */
import { Alert, Button, Result, Skeleton } from "antd";
import { Suspense, useEffect } from "react";
import { NotThere } from "../keep/http";
import { useSite } from "../keep/store";
import { useInHand } from "../model/inHand";
import { Masthead } from "../ui/Masthead";
import type { Stage } from "../ui/address";
import { SiteMasthead } from "./SiteMasthead";
import { StaleNotice } from "./StaleNotice";
import { STAGES } from "./stages";

interface Props {
  id: string;
  stage: Stage;
  step: string | null;
  item: string | null;
}

export function SitePage({ id, stage, step, item }: Props) {
  const opened = useSite((state) => state.open?.id);
  const failed = useSite((state) => state.failed);
  const { load, close } = useSite.getState();
  const drop = useInHand((inHand) => inHand.drop);
  useEffect(() => {
    drop();
    void load(id);
    return close;
  }, [id, load, close, drop]);
  const Screen = STAGES.find((known) => known.stage === stage)?.Screen;
  if (opened === id && Screen) {
    return (
      <div className={`stage stage-${stage}`}>
        <SiteMasthead stage={stage} />
        <Suspense fallback={<Skeleton active />}>
          <Screen step={step} item={item} />
        </Suspense>
        <StaleNotice />
      </div>
    );
  }
  return (
    <>
      <Masthead />
      <main className="sites">
        {failed ? <Failed error={failed} again={() => void load(id)} /> : <Skeleton active />}
      </main>
    </>
  );
}

function Failed({ error, again }: { error: Error; again(): void }) {
  if (error instanceof NotThere) {
    return <Result status="404" title="There is no such site here" extra={<Button href="#/">All sites</Button>} />;
  }
  return (
    <Alert
      type="warning"
      showIcon
      title="The site cannot be opened now"
      description={`${error.message}. Nothing is lost.`}
      action={<Button onClick={again}>Try again</Button>}
    />
  );
}
