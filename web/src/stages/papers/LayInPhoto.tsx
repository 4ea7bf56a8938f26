/** A camera's view laid into a photo from its spot: four known points are clicked in the photo, the core finds how it was held. */
import { Modal, Select } from "antd";
import { useState } from "react";
import type { HeadRef, Photo, PhotoLaid, SiteFile, Spot } from "../../core/types";
import { useAnswer } from "../../core/useAsked";
import { useOffer } from "../../core/useOffer";
import { useSite } from "../../keep/store";
import { Button } from "../../ui/controls";

/** So many points tell how a photo was held. */
const LEAST = 4;

/** The spot of a camera, if photos were taken from it. */
export function photographed(site: SiteFile, camera: string): Spot | null {
  const at = site.cameras.find(({ id }) => id === camera)?.spot;
  const spot = site.spots?.find(({ id }) => id === at);
  return spot && (spot.photos ?? []).length > 0 ? spot : null;
}

export function LayInPhoto({ site, head, spot }: { site: SiteFile; head: HeadRef; spot: Spot }) {
  const [open, setOpen] = useState(false);
  return (
    <p className="no-print">
      <Button size="small" onClick={() => setOpen(true)}>
        Lay it into a photo from {spot.name}
      </Button>
      {open && (
        <Modal open onCancel={() => setOpen(false)} footer={null} width={900} title={`A photo from ${spot.name}`}>
          <Lay site={site} head={head} spot={spot} />
        </Modal>
      )}
    </p>
  );
}

const setPhoto = (says: string, spot: string, picture: string, change: (photo: Photo) => void): void =>
  useSite.getState().edit(says, (draft) => {
    const photo = draft.spots?.find(({ id }) => id === spot)?.photos?.find((held) => held.picture === picture);
    if (photo) change(photo);
  });

function Lay({ site, head, spot }: { site: SiteFile; head: HeadRef; spot: Spot }) {
  const photos = spot.photos ?? [];
  const [chosen, setChosen] = useState(photos.find((one) => (one.marks ?? []).length > 0)?.picture);
  const photo = photos.find(({ picture }) => picture === chosen) ?? photos[0];
  const { value: known } = useAnswer(site, { ask: "clickables", head }, { keeps: true });
  const [taken, setTaken] = useState<string | null>(null);
  if (!photo) return <p className="hint">There is no photo from here.</p>;
  const marks = photo.marks ?? [];
  const list = known ?? [];
  const inHand = taken ?? list.find(({ id }) => !marks.some((mark) => mark.id === id))?.id ?? null;
  const click = (event: React.MouseEvent<HTMLImageElement>): void => {
    const image = event.currentTarget;
    const mark = list.find(({ id }) => id === inHand);
    if (!mark || image.naturalWidth === 0) return;
    const box = image.getBoundingClientRect();
    const size: [number, number] = [image.naturalWidth, image.naturalHeight];
    const px: [number, number] = [
      ((event.clientX - box.left) / box.width) * size[0],
      ((event.clientY - box.top) / box.height) * size[1],
    ];
    setPhoto("A point in a photo", spot.id, photo.picture, (draft) => {
      draft.size_px = size;
      const others = (draft.marks ?? []).filter(({ id }) => id !== mark.id);
      draft.marks = [...others, { id: mark.id, at: mark.at, sigma_m: mark.sigma_m, px }];
    });
    setTaken(null);
  };
  return (
    <>
      {photos.length > 1 && (
        <p>
          {photos.map((one, place) => (
            <Button
              key={one.picture}
              size="small"
              aria-pressed={one === photo}
              onClick={() => setChosen(one.picture)}
            >{`Photo ${place + 1}`}</Button>
          ))}
        </p>
      )}
      <label className="stacked">
        Click in the photo
        <Select
          value={inHand}
          options={list.map(({ id, says }) => ({ value: id, label: says }))}
          onChange={setTaken}
          showSearch={{ optionFilterProp: "label" }}
          aria-label="The point to click"
        />
      </label>
      <div className="papers-photo">
        <img
          src={`/api/pictures/${photo.picture}`}
          alt={`Photo from ${spot.name}`}
          onClick={click}
          draggable={false}
          data-testid="photo-to-click"
        />
        {photo.size_px && (
          <svg viewBox={`0 0 ${photo.size_px.join(" ")}`} aria-hidden>
            {marks.map(({ id, px: [u = 0, v = 0] }) => (
              <g key={id}>
                <circle cx={u} cy={v} r={(photo.size_px?.[0] ?? 0) / 90} className="papers-photo-halo" />
                <circle cx={u} cy={v} r={(photo.size_px?.[0] ?? 0) / 90} />
              </g>
            ))}
          </svg>
        )}
      </div>
      {marks.length < LEAST ? (
        <p className="hint" role="status">
          {LEAST - marks.length} more: far from each other, near and far.
        </p>
      ) : (
        <Found site={site} head={head} photo={photo} says={(id) => list.find((one) => one.id === id)?.says ?? id} />
      )}
      {marks.length > 0 && (
        <Button
          size="small"
          onClick={() =>
            setPhoto("Points of a photo", spot.id, photo.picture, (draft) => {
              delete draft.marks;
              delete draft.size_px;
            })
          }
        >
          Begin again
        </Button>
      )}
    </>
  );
}

interface FoundProps {
  site: SiteFile;
  head: HeadRef;
  photo: Photo;
  says(id: string): string;
}

function Found({ site, head, photo, says }: FoundProps) {
  const { value, refused, settled } = useOffer(site, { ask: "photo_view", head, photo });
  if (refused)
    return (
      <p role="alert" className="verdict-word-broken">
        {refused}
      </p>
    );
  if (!value) return <p className="hint">Working …</p>;
  return (
    <div role="status" data-testid="photo-laid" data-settled={settled}>
      <p>{fit(value, says)}</p>
      {value.share < 0.98 && (
        <p className="fine">The photo shows {Math.round(value.share * 100)} % of the view: the rest stays empty.</p>
      )}
    </div>
  );
}

function fit(laid: PhotoLaid, says: (id: string) => string): string {
  const off = `${(laid.off_share * 100).toFixed(1)} % of its width`;
  const wrong = laid.doubtful === null ? "" : ` Look at ${says(laid.doubtful)} again.`;
  return laid.fits
    ? `It fits: the points are off by ${off}. The quote shows this photo, turned to what the camera will see.${wrong}`
    : `The points are off by ${off}: the photo was taken from elsewhere, or a point is another.${wrong} The quote shows the computed picture.`;
}
