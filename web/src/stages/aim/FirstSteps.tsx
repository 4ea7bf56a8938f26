/** The first steps on a site of nothing: what it may begin with, then one sentence at a time, each gone once it is done. */
import type { SiteFile } from "../../core/types";
import { useSettings } from "../../keep/settings";
import { useInHand } from "../../model/inHand";
import { goTo, stepAddress } from "../../ui/address";
import { Button } from "../../ui/controls";

export function FirstSteps({ site, id }: { site: SiteFile; id: string }) {
  const { placing, place } = useInHand();
  const led = useSettings((settings) => settings.led);
  if (placing) return null;
  const [targets, cameras] = [site.targets.length, site.cameras.length];
  if (targets + cameras === 0)
    return <Begin id={id} drawn={site.drawing != null || (site.obstacles ?? []).length > 0} />;
  if (cameras === 0)
    return (
      <Step>
        Now a camera: put it where one could hang. It is aimed at the promise.{" "}
        <Button size="small" type="primary" onClick={() => place("camera")}>
          Put a camera on the plan
        </Button>
      </Step>
    );
  if (targets === 0)
    return (
      <Step>
        Now what it must see.{" "}
        <Button size="small" type="primary" onClick={() => place("target")}>
          Begin with a promise
        </Button>
      </Step>
    );
  if (led || targets > 1 || cameras > 1) return null;
  return (
    <Step>
      Drag the camera, or press Try at one of the ways to keep the promise: the verdict follows.{" "}
      <Button size="small" onClick={() => useSettings.getState().set({ led: true })}>
        Got it
      </Button>
    </Step>
  );
}

function Begin({ id, drawn }: { id: string; drawn: boolean }) {
  const place = useInHand((state) => state.place);
  const draw = (): void => goTo(stepAddress(id, "drawing"));
  return (
    <div className="plan-empty">
      <p>{drawn ? "Walls and objects are there. What must be seen?" : "An empty site. What does it begin with?"}</p>
      <Button type="primary" onClick={() => place("target")}>
        Begin with a promise
      </Button>
      {!drawn && (
        <>
          <Button onClick={draw}>Bring in a picture</Button>
          <Button onClick={draw}>Pace out a sketch</Button>
        </>
      )}
    </div>
  );
}

function Step({ children }: { children: React.ReactNode }) {
  return (
    <div className="plan-banner plan-step" role="status">
      <span>{children}</span>
    </div>
  );
}
