/** The plan of the Wire stage: cameras, boxes, cables and the ways that cables take. */
import { Dropdown } from "antd";
import { useCallback, useMemo } from "react";
import type { Point, SiteFile } from "../../core/types";
import { useSettings } from "../../keep/settings";
import { useSite } from "../../keep/store";
import { NODE_KINDS, NODE_WORDS, networkOf } from "../../model/network";
import { Sheet } from "../../plan/Sheet";
import { Solids } from "../../plan/layers/Solids";
import { type PlanView, toScreen } from "../../plan/view";
import { Button } from "../../ui/controls";
import { useHeld } from "./held";
import { CableMark, CameraDot, Corners, NodeMark, PathMark, cableLines } from "./marks";
import { useWireView } from "./wireView";
import { finishPath, tapWords, tapped, wireActions } from "./wireActions";
import { useShown } from "./wired";

export function WirePlan({ site }: { site: SiteFile }) {
  const id = useSite((state) => state.open?.id) ?? "";
  const units = useSettings((settings) => settings.units);
  const { placing, drawn, set } = useWireView();
  const { obstacles } = site;
  const solids = useCallback(
    (view: PlanView) => <Solids view={view} obstacles={obstacles} units={units} />,
    [obstacles, units],
  );
  const words = placing && tapWords(site);
  return (
    <Sheet
      site={site}
      id={id}
      units={units}
      className="wire-plan"
      label={words ? `Plan. Click or press Enter: ${words}` : "Plan"}
      onTap={placing ? tapped : undefined}
      layers={[{ still: true, draw: solids }, { draw: (view) => <Network view={view} site={site} drawn={drawn} /> }]}
    >
      <Adding />
      {words && (
        <div className="plan-banner" role="status">
          Click: {words}. Enter takes the middle.
          {placing.what === "path" && drawn.length > 1 && (
            <Button size="small" type="primary" onClick={finishPath}>
              Done
            </Button>
          )}
          <Button size="small" onClick={() => set({ placing: null, drawn: [] })}>
            Leave it
          </Button>
        </div>
      )}
    </Sheet>
  );
}

/** What can be put on the plan. */
function Adding() {
  const set = useWireView((state) => state.set);
  return (
    <div className="wire-adding" role="group" aria-label="Put on the plan">
      <Dropdown
        trigger={["click"]}
        menu={{
          items: NODE_KINDS.map((kind) => ({
            key: kind,
            label: NODE_WORDS[kind],
            onClick: () => set({ placing: { what: "node", kind } }),
          })),
        }}
      >
        <Button size="small" aria-label="Add a box">
          + Box
        </Button>
      </Dropdown>
      <Button size="small" onClick={() => set({ placing: { what: "cable", from: null } })} aria-label="Lay a cable">
        + Cable
      </Button>
      <Button size="small" onClick={() => set({ placing: { what: "path" }, drawn: [] })} aria-label="Draw a cable way">
        + Cable way
      </Button>
    </div>
  );
}

function Network({ view, site, drawn }: { view: PlanView; site: SiteFile; drawn: Point[] }) {
  const shown = useShown();
  const held = useHeld(site);
  const lines = useMemo(() => cableLines(site), [site]);
  const { nodes, ways } = networkOf(site);
  const lit = new Set(held?.kind === "camera" ? shown.runs.get(held.id)?.cables : []);
  const line = held?.kind === "cable" ? lines.find(({ cable }) => cable.id === held.id)?.line : undefined;
  const path = held?.kind === "path" ? ways.find((way) => way.id === held.id) : undefined;
  return (
    <>
      {ways.map((way) => (
        <PathMark key={way.id} view={view} path={way} inHand={held?.id === way.id} actions={wireActions} />
      ))}
      {lines.map(({ cable, line: of }) => (
        <CableMark
          key={cable.id}
          view={view}
          cable={cable}
          line={of}
          verdict={shown.cables.get(cable.id)?.verdict ?? null}
          lit={lit.has(cable.id)}
          inHand={held?.kind === "cable" && held.id === cable.id}
          actions={wireActions}
        />
      ))}
      {site.cameras.map(({ id, name, position, existing }) =>
        existing === "goes" ? null : (
          <CameraDot
            key={id}
            view={view}
            id={id}
            name={name}
            position={position}
            verdict={shown.runs.get(id)?.verdict ?? null}
            inHand={held?.kind === "camera" && held.id === id}
            actions={wireActions}
          />
        ),
      )}
      {nodes.map((node) => (
        <NodeMark
          key={node.id}
          view={view}
          node={node}
          verdict={shown.nodes.get(node.id)?.verdict ?? null}
          inHand={held?.kind === "node" && held.id === node.id}
          actions={wireActions}
        />
      ))}
      {line && held && <Corners view={view} kind="cable" id={held.id} line={line} fixed actions={wireActions} />}
      {path && (
        <Corners
          view={view}
          kind="path"
          id={path.id}
          line={path.points as Point[]}
          fixed={false}
          actions={wireActions}
        />
      )}
      {drawn.length > 0 && (
        <path
          className="wire-drawn"
          d={drawn
            .map((at, place) => {
              const [u, v] = toScreen(view, at);
              return `${place === 0 ? "M" : "L"}${u} ${v}`;
            })
            .join("")}
        />
      )}
    </>
  );
}
