/** The whole picture of a head: dragged, it turns the head; the wheel zooms its lens; a bracket takes its promise in hand. */
import { type ReactNode, useEffect, useRef } from "react";
import { useHand } from "../../../core/hand";
import type { Aim, HeadRef, Point, SiteFile } from "../../../core/types";
import type { PictureState } from "../../../core/usePicture";
import { useSite } from "../../../keep/store";
import { useInHand } from "../../../model/inHand";
import { cameraOf, lensOf, targetOf } from "../../../model/lookups";
import { rounded } from "../../../model/points";
import { aimedOf, hasFocal } from "../../../model/views";
import { type Drag, Handle, HandlesProvider, useHandles } from "../../../ui/Handle";
import { Bracket, Graticule, LevelLines, Masks, shownBox } from "./Overlays";
import { Pixels } from "../../../ui/Pixels";
import { usePictureLook } from "./pictureView";

interface Props {
  shown: PictureState;
  head: HeadRef;
  site: SiteFile;
  /** The promise in hand. */
  inHand: string | null;
  lines: boolean;
  /** How large it is shown, px. */
  size: [number, number];
  /** What lies over it. */
  children?: ReactNode;
}

export function WholePicture({ shown, head, site, inHand, lines, size, children }: Props) {
  const { told } = shown;
  const svg = useRef<SVGSVGElement>(null);
  const edit = useSite((state) => state.edit);
  const takeTarget = useInHand((state) => state.takeTarget);
  const [width, height] = size;
  const scale = (told.sensor_px[0] ?? 1) / width;
  const name = cameraOf(site, head.camera)?.name ?? head.camera;
  const taken = useRef<Aim | null>(null);
  const handles = useHandles(svg, {
    onWheel: (turned) =>
      edit(
        `Zoom ${name}`,
        (draft) => {
          const aimed = aimedOf(draft, head);
          const lens = lensOf(draft, head);
          if (!aimed || !hasFocal(aimed) || !lens) return;
          const focal = aimed.focal_mm * Math.exp(-turned / 800);
          aimed.focal_mm = rounded(Math.min(Math.max(focal, lens.focal_min_mm), lens.focal_max_mm), 2);
        },
        `picture-zoom-${head.camera}-${head.head}-${head.view ?? ""}`,
      ),
  });
  const dragging = usePictureLook((look) => look.set);
  const holds = useHand((hand) => hand.holds);
  useEffect(() => {
    if (!holds) dragging({ dragged: false });
  }, [holds, dragging]);
  const drag = ({ moved: [right, down], first, gesture, keys }: Drag): void => {
    const now = aimedOf(useSite.getState().open?.site ?? site, head);
    if (!now) return;
    if (first && !keys) dragging({ dragged: true });
    if (first || !taken.current) taken.current = { pan_deg: now.pan_deg, tilt_deg: now.tilt_deg };
    const aim = dragged(taken.current, [right * scale, down * scale], told.focal_px, rollOf(now));
    edit(
      `Aim ${name}`,
      (draft) => {
        const aimed = aimedOf(draft, head);
        if (aimed) [aimed.pan_deg, aimed.tilt_deg] = aim;
      },
      gesture,
    );
  };
  return (
    <div className="picture-whole" style={{ width, height }}>
      <Pixels shown={shown} className="picture-pixels" />
      <svg ref={svg} width={width} height={height} role="group" aria-label={`What ${name} sees`}>
        <HandlesProvider value={handles}>
          <Handle
            label={`Picture of ${name}: drag to aim, wheel to zoom`}
            testId="picture-aim"
            className="picture-aim"
            onDrag={drag}
          >
            <rect width={width} height={height} className="reach picture-ground" />
          </Handle>
          <Masks told={told} scale={scale} site={site} />
          {lines && <LevelLines told={told} scale={scale} />}
          <Graticule width={width} height={height} />
          {told.marks.map((mark) => {
            const box = mark.clear ? shownBox(mark.bracket, scale, size) : null;
            return (
              box && (
                <Handle
                  key={mark.target}
                  label={`${targetOf(site, mark.target)?.name ?? mark.target}, ${mark.verdict}`}
                  testId={`mark-${mark.target}`}
                  pressed={mark.target === inHand}
                  className={mark.target === inHand ? "mark mark-in-hand" : "mark"}
                  onChoose={() => takeTarget(mark.target, head)}
                  onDrag={drag}
                >
                  <Bracket box={box} verdict={mark.verdict} />
                </Handle>
              )
            );
          })}
        </HandlesProvider>
      </svg>
      {children}
    </div>
  );
}

const rollOf = (aimed: object): number => ("roll_deg" in aimed ? Number(aimed.roll_deg ?? 0) : 0);

/** The aim that keeps what was taken under the hand, to first order, after a drag by so many pixels of the sensor. */
function dragged(from: Aim, [right, down]: Point, focal: number, roll: number): [number, number] {
  const turn = (roll * Math.PI) / 180;
  const across = right * Math.cos(turn) - down * Math.sin(turn);
  const along = right * Math.sin(turn) + down * Math.cos(turn);
  const degrees = (px: number): number => (Math.atan(px / focal) * 180) / Math.PI;
  const lean = Math.max(Math.cos((from.tilt_deg * Math.PI) / 180), 0.2);
  const pan = from.pan_deg - degrees(across) / lean;
  return [
    rounded(((pan % 360) + 360) % 360, 2),
    rounded(Math.min(Math.max(from.tilt_deg - degrees(along), -90), 90), 2),
  ];
}
