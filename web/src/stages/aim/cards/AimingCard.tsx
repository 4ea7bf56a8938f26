/** The aiming sheet of a head: what to set, where things must sit in the picture, what the tape must show. */
import { useState } from "react";
import type { Card, HeadRef, SiteFile, Units } from "../../../core/types";
import { cameraOf } from "../../../model/lookups";
import { nameOf } from "../../../model/views";
import { VerdictMark } from "../../../ui/VerdictMark";
import { formatLength } from "../../../ui/length";
import { density, share } from "../../../ui/words";
import { saveView } from "../picture/saveView";
import { CardPicture } from "./CardPicture";
import type { CardShown } from "./useCards";
import { Button } from "../../../ui/controls";

interface Props {
  site: SiteFile;
  head: HeadRef;
  shown: CardShown;
  units: Units;
  night: boolean;
}

export function AimingCard({ site, head, shown, units, night }: Props) {
  const { card } = shown;
  const name = nameOf(site, head);
  return (
    <article className="aiming-card" aria-label={`Aiming sheet of ${name}`} data-testid={`card-${card.camera}`}>
      <header>
        <h2>{name}</h2>
        <span>{cameraOf(site, head.camera)?.model.name}</span>
        <span className="fine">
          {site.name}
          {night ? " · by night" : ""}
        </span>
        <SaveButton site={site} head={head} night={night} />
      </header>
      <CardPicture site={site} name={name} shown={shown} aiming />
      <p className="fine">
        Computed picture, not evidence. Dashes: the horizon. Dots: a line that is level when the camera hangs level
        {card.roll_deg === 0 ? "" : ", before its roll"}.
      </p>
      <dl className="card-set">
        <Set word="Height" says={formatLength(card.height_m, units)} />
        <Set word="Pan (bearing)" says={`${card.bearing_deg.toFixed(1)}°`} />
        <Set word={card.tilt_deg < 0 ? "Up" : "Down"} says={`${Math.abs(card.tilt_deg).toFixed(1)}°`} />
        <Set word="Roll" says={`${card.roll_deg.toFixed(0)}°`} />
        {card.focal_mm !== null && <Set word="Focal length" says={`${card.focal_mm.toFixed(1)} mm`} />}
        <Set word="Picture across" says={`${card.hfov_deg.toFixed(1)}°`} />
      </dl>
      <Landmarks card={card} units={units} />
      <Promises card={card} units={units} />
      <MaskList card={card} />
      <p className="caution">{card.cautions.join(" ")}</p>
    </article>
  );
}

const Set = ({ word, says }: { word: string; says: string }) => (
  <div>
    <dt>{word}</dt>
    <dd className="figure">{says}</dd>
  </div>
);

const place = ([left = 0, top = 0]: number[]): string =>
  `${left.toFixed(0)} % from the left, ${top.toFixed(0)} % from the top`;

function Landmarks({ card, units }: { card: Card; units: Units }) {
  if (card.landmarks.length === 0)
    return (
      <p className="hint">
        No corner is in this picture. Let somebody stand where the promise is, and aim by the bracket.
      </p>
    );
  return (
    <>
      <h3>What must sit where</h3>
      <ol className="card-landmarks">
        {card.landmarks.map((landmark) => (
          <li key={landmark.says}>
            <strong>{landmark.says}</strong>
            <span className="figure">{place(landmark.at_percent)}</span>
            <span className="fine">{formatLength(landmark.slant_m, units)} away</span>
          </li>
        ))}
      </ol>
    </>
  );
}

function Promises({ card, units }: { card: Card; units: Units }) {
  if (card.promises.length === 0) return <p className="hint">Nothing that was promised is in its clear view.</p>;
  return (
    <>
      <h3>What it must show, and what the tape must say</h3>
      <ul className="card-promises">
        {card.promises.map((promise) => (
          <li key={promise.target}>
            <strong>
              <VerdictMark verdict={promise.verdict} size={15} /> {promise.name}
              {promise.serves ? "" : " (another camera keeps it)"}
            </strong>
            <span className="figure">{place(promise.at_percent)}</span>
            <span className="figure">
              {formatLength(promise.slant_m, units)} from the lens, {formatLength(promise.ground_m, units)} level
            </span>
            <span className="figure">
              the picture is {formatLength(promise.scene_width_m, units)} wide there, {density(promise.px_per_m)} px/m
            </span>
          </li>
        ))}
      </ul>
    </>
  );
}

function MaskList({ card }: { card: Card }) {
  if (card.masks.length === 0) return null;
  return (
    <>
      <h3>What must be masked</h3>
      <ul className="card-masks">
        {card.masks.map((mask) => (
          <li key={mask.place}>
            <strong>{mask.name}</strong>, {share(mask.share)} of the picture. Corners, per cent from the left and from
            the top: <span className="figure">{corners(mask.corners_percent)}</span>
          </li>
        ))}
      </ul>
      <p className="fine">Set masks once the aim is fixed, and see on the screen that nothing of the place is left.</p>
    </>
  );
}

const corners = (list: number[][]): string => list.map((at) => at.map((v) => v.toFixed(1)).join(", ")).join(" · ");

function SaveButton({ site, head, night }: { site: SiteFile; head: HeadRef; night: boolean }) {
  const [done, setDone] = useState<number | null>(null);
  const save = async (): Promise<void> => {
    setDone(0);
    try {
      await saveView(site, head, { night, stops: 0, exposed: null, grid: false }, setDone);
    } finally {
      setDone(null);
    }
  };
  return (
    <Button size="small" className="no-print" disabled={done !== null} onClick={() => void save()}>
      {done === null ? "View as PNG" : `${Math.round(done * 100)} %`}
    </Button>
  );
}
