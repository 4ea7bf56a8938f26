/** The fixed views that point a head that is turned from afar: the pairs of what both see, how well they agree, and pointing through them. */
import { useState } from "react";
import { ask } from "../../../../core/port";
import { useAnswer } from "../../../../core/useAsked";
import { Measure, type Quantity, plain } from "../../../../ui/Measure";
import { GUIDE } from "../../../../core/guide";
import type {
  Camera,
  CameraHead,
  Hung,
  Link,
  LinkFound,
  Point,
  PointedThrough,
  SiteFile,
} from "../../../../core/types";
import { useSite } from "../../../../keep/store";
import { headOf } from "../../../../model/lookups";
import { aimedOf } from "../../../../model/views";
import { Button, Select } from "../../../../ui/controls";
import { Cautions, PairList } from "./PairList";
import { PairsInPictures } from "./PairsInPictures";

/** So many fixed views point one head at most. */
const MOST = 4;
/** Pairs that agree less well than this have one that is doubtful (our default). */
const DOUBTFUL_DEG = 0.2;

interface Props {
  site: SiteFile;
  camera: Camera;
  head: CameraHead;
  view: string | null;
}

const linksOf = (head: CameraHead): Link[] =>
  head.pointed_by ? [head.pointed_by, ...(head.also_pointed_by ?? [])] : [];

function setLinks(head: CameraHead, links: Link[]): void {
  const [first, ...also] = links;
  if (first) head.pointed_by = first;
  else delete head.pointed_by;
  if (also.length > 0) head.also_pointed_by = also;
  else delete head.also_pointed_by;
}

export function LinkPanel({ site, camera, head, view }: Props) {
  const edit = useSite((state) => state.edit);
  const links = linksOf(head);
  const pairs = links.reduce((sum, link) => sum + link.pairs.length, 0);
  const enough = pairs >= GUIDE.link_pairs;
  const { value, refused } = useAnswer(site, enough ? { ask: "link_of", camera: camera.id, head: head.id } : null, {
    rest: "live",
  });
  const onLinks = (says: string, change: (links: Link[]) => void): void =>
    edit(`${says} ${camera.name}`, (draft) => {
      const held = headOf(draft, camera.id, head.id);
      if (!held) return;
      const now = linksOf(held);
      change(now);
      setLinks(held, now);
    });
  return (
    <div className="link-panel">
      {[...links.keys(), ...(links.length < MOST ? [links.length] : [])].map((place) => (
        <OneLink
          key={place}
          {...{ site, camera, head, view, links, place, onLinks }}
          found={value}
          first={links.slice(0, place).reduce((sum, link) => sum + link.pairs.length, 0)}
        />
      ))}
      {links.length > 0 && pairs < GUIDE.link_pairs && (
        <p className="fine">{GUIDE.link_pairs - pairs} more pairs are needed, of things on the ground.</p>
      )}
      {enough && value && (
        <p className="fine">
          The pairs agree to {value.rms_deg.toFixed(2)}°. Its pan of zero looks to {value.pan_zero_deg.toFixed(1)}°; it
          hangs {value.moved_m.toFixed(2)} m from where it is drawn. Where it looks may change; when a fixed view or its
          own place does, take the pairs again.
        </p>
      )}
      {enough && refused && <p className="caution">{refused}</p>}
    </div>
  );
}

interface OneProps extends Props {
  links: Link[];
  place: number;
  found: LinkFound | null;
  /** How many pairs the views before have. */
  first: number;
  onLinks(says: string, change: (links: Link[]) => void): void;
}

function OneLink({ site, camera, head, view, links, place, found, first, onLinks }: OneProps) {
  const link = links[place];
  const fixed = site.cameras
    .filter((held) => held.id !== camera.id)
    .flatMap((held) => held.heads.filter((h) => !h.presets?.length).map((h) => ({ camera: held, head: h })));
  const others = links.filter((_, other) => other !== place).map((held) => `${held.camera}/${held.head}`);
  const past = found?.views[place]?.past;
  return (
    <section aria-label={place === 0 ? "Fixed view" : `Fixed view ${place + 1}`}>
      <label>
        {place === 0 ? "Pointed by" : "And by"}{" "}
        <Select
          size="small"
          aria-label={place === 0 ? "Fixed view that points it" : `Fixed view ${place + 1} that points it`}
          value={link ? `${link.camera}/${link.head}` : ""}
          popupMatchSelectWidth={false}
          options={[
            { value: "", label: place === 0 ? "no fixed view" : "no further view" },
            ...fixed
              .map((held) => ({
                value: `${held.camera.id}/${held.head.id}`,
                label: held.camera.heads.length > 1 ? `${held.camera.name} ${held.head.id}` : held.camera.name,
              }))
              .filter(({ value }) => !others.includes(value)),
          ]}
          onChange={(chosen: string) =>
            onLinks("Fixed view of", (now) => {
              const [of = "", by = ""] = chosen.split("/");
              if (chosen === "") now.splice(place, 1);
              else now[place] = { camera: of, head: by, pairs: [] };
            })
          }
        />
      </label>
      {past && <p className="caution">{past}.</p>}
      {link && <Pairs {...{ site, camera, head, view, link, place, found, first, onLinks }} />}
    </section>
  );
}

function Pairs({
  site,
  camera,
  head,
  view,
  link,
  place,
  found,
  first,
  onLinks,
}: Omit<OneProps, "links"> & { link: Link }) {
  const edit = useSite((state) => state.edit);
  const [through, setThrough] = useState<PointedThrough | null>(null);
  const [inPictures, setInPictures] = useState(false);
  const point = async (pixel: Point): Promise<PointedThrough> => {
    const told = await ask(site, { ask: "point_through", camera: camera.id, head: head.id, pixel, by: place });
    setThrough(told);
    edit(`Point ${camera.name}`, (draft) => {
      const aimed = aimedOf(draft, { camera: camera.id, head: head.id, view });
      if (aimed) [aimed.pan_deg, aimed.tilt_deg] = [Number(told.pan_deg.toFixed(2)), Number(told.tilt_deg.toFixed(2))];
    });
    return told;
  };
  const add = async (pair: Link["pairs"][number]): Promise<void> => {
    // How both hung when the first pair was taken is kept with it.
    const hung = link.pairs.length === 0 ? await bothHung(site, link, camera, head) : null;
    onLinks("Add a pair to", (now) => {
      const held = now[place];
      if (!held) return;
      held.pairs.push(pair);
      if (hung) held.hung = hung;
    });
  };
  const remove = (number: number): void => onLinks("Delete a pair of", (now) => now[place]?.pairs.splice(number, 1));
  const doubtful = found && found.rms_deg > DOUBTFUL_DEG ? found.worst - first : null;
  const off = found?.off_deg.slice(first, first + link.pairs.length) ?? [];
  const list = <PairList pairs={link.pairs} off={off} doubtful={doubtful} onDelete={remove} />;
  return (
    <>
      {list}
      <Button size="small" onClick={() => setInPictures(true)}>
        Click them in the pictures
      </Button>
      {inPictures && (
        <PairsInPictures
          {...{ site, camera, head, link, doubtful, add }}
          onPoint={found ? point : null}
          onClose={() => setInPictures(false)}
        >
          {list}
        </PairsInPictures>
      )}
      <p className="fine">Or type a thing in the fixed view, and the pan and tilt that have it in the middle:</p>
      <Figures
        of={`${camera.id}/${head.id}/${place}`}
        fields={[RIGHT, DOWN, PAN, TILT]}
        button="Add the pair"
        onTyped={([u = 0, v = 0, pan_deg = 0, tilt_deg = 0]) => void add({ pixel: [u, v], pan_deg, tilt_deg })}
      />
      {found && (
        <>
          <p className="fine">A pixel of the fixed view:</p>
          <Figures
            of={`${camera.id}/${head.id}/${place}`}
            fields={[RIGHT, DOWN]}
            button="Point there"
            onTyped={([u = 0, v = 0]) => void point([u, v])}
          />
          {through && <Cautions through={through} />}
        </>
      )}
    </>
  );
}

/** How the fixed view and the turned head hang now. */
async function bothHung(
  site: SiteFile,
  link: Link,
  camera: Camera,
  head: CameraHead,
): Promise<{ fixed: Hung; turned: Hung } | null> {
  const preset = head.presets?.[0]?.id;
  try {
    return {
      fixed: await ask(site, { ask: "hung", head: { camera: link.camera, head: link.head } }),
      turned: await ask(site, {
        ask: "hung",
        head: { camera: camera.id, head: head.id, ...(preset ? { view: preset } : {}) },
      }),
    };
  } catch {
    // What is not known is not held against it later.
    return null;
  }
}

interface FigureField {
  label: string;
  quantity: Quantity;
  min: number;
  max: number;
}
const RIGHT: FigureField = { label: "Right", quantity: plain("px", 0, 10), min: 0, max: 100_000 };
const DOWN: FigureField = { ...RIGHT, label: "Down in it" };
const PAN: FigureField = { label: "Its pan", quantity: plain("°", 1, 1), min: -360, max: 360 };
const TILT: FigureField = { label: "Its tilt", quantity: plain("°", 1, 1), min: -90, max: 90 };

/** Some figures that belong together: taken with a press once each is there. */
function Figures({
  of,
  fields,
  button,
  onTyped,
}: {
  of: string;
  fields: FigureField[];
  button: string;
  onTyped(figures: number[]): void;
}) {
  const [typed, setTyped] = useState<Record<string, number>>({});
  const figures = fields.map(({ label }) => typed[label]).filter((figure) => figure !== undefined);
  const without = (label: string): Record<string, number> =>
    Object.fromEntries(Object.entries(typed).filter(([held]) => held !== label));
  return (
    <div className="dials">
      {fields.map((field) => (
        <Measure
          key={field.label}
          of={of}
          {...field}
          value={typed[field.label] ?? null}
          empty={{ word: "–", onEmpty: () => setTyped(without(field.label)) }}
          onChange={(value) => setTyped({ ...typed, [field.label]: value })}
        />
      ))}
      <Button
        size="small"
        disabled={figures.length < fields.length}
        onClick={() => {
          onTyped(figures);
          setTyped({});
        }}
      >
        {button}
      </Button>
    </div>
  );
}
