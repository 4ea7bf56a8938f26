/** A head's picture on paper: brackets around its promises, numbered crosses at its landmarks, masks left as paper. */
import type { SiteFile } from "../../../core/types";
import { Bracket, Graticule, LevelLines, Masks, shownBox } from "../picture/Overlays";
import { Pixels } from "../../../ui/Pixels";
import "../picture/picture.css";
import type { CardShown } from "./useCards";

interface Props {
  site: SiteFile;
  name: string;
  shown: CardShown;
  /** Whether landmarks and lines are drawn. */
  aiming: boolean;
}

export function CardPicture({ site, name, shown: { card, picture }, aiming }: Props) {
  if (!picture) return null;
  const { width, height } = picture.told.frame;
  const { scale } = picture.told.frame;
  return (
    <div className="card-picture" style={{ aspectRatio: `${width} / ${height}` }}>
      <Pixels shown={picture} className="picture-pixels" label={`What ${name} will see`} />
      <svg viewBox={`0 0 ${width} ${height}`} aria-hidden="true">
        <Masks told={picture.told} scale={scale} site={site} />
        {aiming && <LevelLines told={picture.told} scale={scale} />}
        <Graticule width={width} height={height} />
        {picture.told.marks.map((mark) => {
          const box = mark.clear ? shownBox(mark.bracket, scale, [width, height]) : null;
          return (
            box && (
              <g key={mark.target} className="mark">
                <Bracket box={box} verdict={mark.verdict} />
              </g>
            )
          );
        })}
        {aiming &&
          card.landmarks.map(({ says, at_percent: [left = 0, top = 0] }, place) => (
            <g key={says} className="landmark" transform={`translate(${(left * width) / 100} ${(top * height) / 100})`}>
              <path d="M-14 0H14M0 -14V14" className="landmark-under" />
              <path d="M-14 0H14M0 -14V14" />
              <circle cx={13} cy={-13} r={9} />
              <text x={13} y={-8.5} textAnchor="middle">
                {place + 1}
              </text>
            </g>
          ))}
      </svg>
    </div>
  );
}
