/** A site's stages with the site: opened, away, not there, or ready to work on. */
import { Alert, Button, Result, Skeleton } from "antd";
import { useEffect } from "react";
import { Refused } from "../engine/http";
import { AimScreen } from "../aim/AimScreen";
import { useInHand } from "../aim/inHand";
import { Masthead } from "../shell/Masthead";
import type { Stage } from "../shell/route";
import { SurveyScreen } from "../survey/SurveyScreen";
import { useSite } from "./store";

export function SitePage({ id, stage }: { id: string; stage: Stage }) {
  const { open, failed, load, close } = useSite();
  const drop = useInHand((inHand) => inHand.drop);
  useEffect(() => {
    drop();
    void load(id);
    return close;
  }, [id, load, close, drop]);
  if (open?.id === id) return stage === "aim" ? <AimScreen /> : <SurveyScreen />;
  return (
    <>
      <Masthead />
      <main className="sites">{failed ? <Failed error={failed} again={() => void load(id)} /> : <Skeleton active />}</main>
    </>
  );
}

function Failed({ error, again }: { error: Error; again(): void }) {
  if (error instanceof Refused && error.status === 404) {
    return <Result status="404" title="There is no such site here" extra={<Button href="#/">All sites</Button>} />;
  }
  return (
    <Alert
      type="warning" showIcon message="The site cannot be opened now"
      description={`${error.message}. Nothing is lost.`} action={<Button onClick={again}>Try again</Button>}
    />
  );
}
