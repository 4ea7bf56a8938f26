/** What every head will see, on one sheet for the client; or the aiming sheet of one, for the ladder. */
import { useMemo } from "react";
import type { Camera, HeadRef, SiteFile } from "../../../core/types";
import { useSettings } from "../../../keep/settings";
import { useSite } from "../../../keep/store";
import { keyOf, viewsOf } from "../../../model/views";
import { VerdictMark } from "../../../ui/VerdictMark";
import { cardsAddress, siteAddress } from "../../../ui/address";
import { pixels } from "../../../ui/words";
import { lightOf, usePictureLook } from "../picture/pictureView";
import { AimingCard } from "./AimingCard";
import { CardPicture } from "./CardPicture";
import { PartsList } from "./PartsList";
import { type CardShown, useCards } from "./useCards";
import { Button, Segmented } from "../../../ui/controls";
import "./cards.css";

const NONE_YET: ReadonlyMap<string, CardShown> = new Map();

export function CardsScreen({ item }: { item: string | null }) {
  const site = useSite((state) => state.open?.site) as SiteFile;
  const id = useSite((state) => state.open?.id) ?? "";
  const units = useSettings((settings) => settings.units);
  const look = usePictureLook();
  const views = useMemo(() => site.cameras.flatMap((camera) => viewsOf(camera)), [site.cameras]);
  const wanted = item === null ? null : decodeURIComponent(item);
  const chosen = views.filter(({ ref }) => wanted === null || keyOf(ref) === wanted);
  const cards = useCards(
    site,
    JSON.stringify(chosen.map(({ ref }) => ref)),
    lightOf({ night: look.night, stops: 0, exposed: null }),
  );
  const shown = cards.of === site && cards.value ? cards.value : NONE_YET;
  const ready = cards.settled;
  return (
    <main className="cards" aria-label={wanted === null ? "All cameras" : "Aiming sheet"} data-ready={ready}>
      <div className="row no-print">
        <Button href={siteAddress(id)}>Back to the plan</Button>
        {wanted !== null && <Button href={cardsAddress(id)}>All cameras</Button>}
        <Segmented
          aria-label="Light of the pictures"
          value={look.night ? "night" : "day"}
          options={[
            { value: "day", label: "Day" },
            { value: "night", label: "Night" },
          ]}
          onChange={(value) => look.set({ night: value === "night" })}
        />
        <Button type="primary" disabled={!ready} onClick={() => window.print()}>
          Print
        </Button>
        {!ready && <span className="fine">Working …</span>}
      </div>
      {chosen.length === 0 && (
        <p className="hint">
          {wanted === null ? "No camera yet: there is nothing to be seen." : "This camera is not on the site any more."}
        </p>
      )}
      {wanted === null ? (
        <Sheet site={site} id={id} shown={shown} night={look.night} />
      ) : (
        chosen.map(({ ref }) => {
          const card = shown.get(keyOf(ref));
          return (
            card && <AimingCard key={keyOf(ref)} site={site} head={ref} shown={card} units={units} night={look.night} />
          );
        })
      )}
    </main>
  );
}

interface SheetProps {
  site: SiteFile;
  id: string;
  shown: ReadonlyMap<string, CardShown>;
  night: boolean;
}

/** All cameras; those of one camera in a strip of their own. */
function Sheet({ site, id, shown, night }: SheetProps) {
  const alone = site.cameras.filter((camera) => viewsOf(camera).length === 1);
  const together = site.cameras.filter((camera) => viewsOf(camera).length > 1);
  return (
    <>
      <h1 className="cards-title">
        {site.name}: what the cameras will see{night ? " by night" : ""}
      </h1>
      <div className="contact-sheet">
        {alone
          .flatMap((camera) => viewsOf(camera))
          .map((view) => (
            <Contact
              key={keyOf(view.ref)}
              site={site}
              id={id}
              head={view.ref}
              name={view.name}
              shown={shown.get(keyOf(view.ref))}
            />
          ))}
      </div>
      {together.map((camera) => (
        <Strip key={camera.id} site={site} id={id} camera={camera} shown={shown} />
      ))}
      <PartsList site={site} />
      <p className="fine">
        Computed from the survey, not evidence: no lens blur, noise, weather or shadows by day. Brackets are what was
        promised; their marks say whether it is kept.
      </p>
    </>
  );
}

function Strip({ site, id, camera, shown }: Omit<SheetProps, "night"> & { camera: Camera }) {
  return (
    <section className="contact-strip" aria-label={`Camera views of ${camera.name}`}>
      <h2>
        {camera.name} · {camera.model.name}
      </h2>
      <div>
        {viewsOf(camera).map((view) => (
          <Contact
            key={keyOf(view.ref)}
            site={site}
            id={id}
            head={view.ref}
            name={view.name}
            shown={shown.get(keyOf(view.ref))}
          />
        ))}
      </div>
    </section>
  );
}

interface ContactProps {
  site: SiteFile;
  id: string;
  head: HeadRef;
  name: string;
  shown: CardShown | undefined;
}

function Contact({ site, id, head, name, shown }: ContactProps) {
  const units = useSettings((settings) => settings.units);
  const model = site.cameras.find((camera) => camera.id === head.camera)?.model.name;
  const serves = shown?.card.promises.filter((promise) => promise.serves) ?? [];
  return (
    <figure className="contact" data-testid={`contact-${keyOf(head)}`}>
      <a href={cardsAddress(id, keyOf(head))} aria-label={`Aiming sheet of ${name}`}>
        {shown ? (
          <CardPicture site={site} name={name} shown={shown} aiming={false} />
        ) : (
          <div className="card-picture card-picture-waiting" />
        )}
      </a>
      <figcaption>
        <strong>{name}</strong> <span className="fine">{model}</span>
        <ul>
          {serves.map((promise) => (
            <li key={promise.target}>
              <VerdictMark verdict={promise.verdict} size={13} /> {promise.name}{" "}
              <span className="figure">{pixels(promise.px_per_m, units)}</span>
            </li>
          ))}
          {shown && serves.length === 0 && <li className="fine">best for no promise</li>}
        </ul>
      </figcaption>
    </figure>
  );
}
