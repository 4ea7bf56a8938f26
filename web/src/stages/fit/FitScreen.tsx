/** Fit: the cameras by how far they are, the work in visits, what is bought; a camera's card; a head aimed by its picture. */
import type { SiteFile } from "../../core/types";
import { useAnswer } from "../../core/useAsked";
import { useSite } from "../../keep/store";
import { AimHead } from "./head/AimHead";
import { CameraCard } from "./card/CameraCard";
import { Overview } from "./Overview";
import "../../ui/panels.css";
import "./fit.css";

export function FitScreen({ step, item }: { step: string | null; item: string | null }) {
  const site = useSite((state) => state.open?.site) as SiteFile;
  const shown = useAnswer(site, { ask: "steps" }, { rest: "live", keeps: true });
  const camera = site.cameras.find(({ id }) => id === step);
  const head = camera?.heads.find(({ id }) => id === item);
  if (camera && head) return <AimHead key={`${camera.id}/${head.id}`} site={site} camera={camera} head={head} />;
  const steps = shown.value?.find((one) => one.camera === step);
  return (
    <>
      {shown.refused && (
        <div className="notice notice-bad" role="alert">
          This makes no sense together: {shown.refused}. Undo takes it back.
        </div>
      )}
      {camera ? (
        <CameraCard key={camera.id} site={site} camera={camera} steps={steps ?? null} settled={shown.settled} />
      ) : (
        <Overview site={site} steps={shown.value} settled={shown.settled} gone={step !== null} />
      )}
    </>
  );
}
