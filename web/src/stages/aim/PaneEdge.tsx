/** The edge between the plan and the tools: drawn up or down, remembered on this device. */
import { type PointerEvent, useRef } from "react";
import { useSettings } from "../../keep/settings";

/** The least of the tools and of the plan, px. */
const LEAST = 140;
/** As tall as the tools are while nobody has drawn the edge, px. */
export const USUAL_TALL = 300;
/** What a key moves it by, px. */
const STEP = 24;

export function PaneEdge() {
  const tall = useSettings((settings) => settings.toolsTall) ?? USUAL_TALL;
  const from = useRef<{ y: number; tall: number } | null>(null);
  const edge = useRef<HTMLDivElement>(null);
  const draw = (wanted: number): void => {
    const room = edge.current?.parentElement?.parentElement?.clientHeight ?? 800;
    const most = Math.max(room - LEAST, LEAST);
    useSettings.getState().set({ toolsTall: Math.round(Math.min(Math.max(wanted, LEAST), most)) });
  };
  const take = (event: PointerEvent<HTMLDivElement>): void => {
    event.currentTarget.setPointerCapture(event.pointerId);
    const shown = event.currentTarget.parentElement?.clientHeight ?? tall;
    from.current = { y: event.clientY, tall: shown };
  };
  const letGo = (): void => {
    from.current = null;
  };
  return (
    <div
      ref={edge}
      className="pane-edge"
      role="separator"
      aria-orientation="horizontal"
      aria-label="Height of the tools"
      aria-valuenow={tall}
      aria-valuemin={LEAST}
      tabIndex={0}
      onPointerDown={take}
      onPointerMove={({ clientY }) => from.current && draw(from.current.tall + from.current.y - clientY)}
      onPointerUp={letGo}
      onPointerCancel={letGo}
      onDoubleClick={() => useSettings.getState().set({ toolsTall: null })}
      onKeyDown={(event) => {
        const by = { ArrowUp: STEP, ArrowDown: -STEP }[event.key];
        if (!by) return;
        event.preventDefault();
        event.stopPropagation();
        draw(tall + by);
      }}
    />
  );
}
