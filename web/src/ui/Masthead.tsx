/** The strip on top: whose site, in which units, and what belongs to the page in hand. */
import { Button, Tooltip } from "antd";
import type { ReactNode } from "react";
import { usePhone } from "./usePhone";
import { unitWord } from "./words";
import { useSettings } from "../keep/settings";

export function Masthead({ title, stages, children }: { title?: ReactNode; stages?: ReactNode; children?: ReactNode }) {
  const { units, dark, set } = useSettings();
  const other = units === "feet" ? "metres" : "feet";
  // A site's page has them in its menu there.
  const inMenu = usePhone() && stages !== undefined;
  return (
    <header className="masthead">
      <a className="wordmark" href="#/" aria-label="Bright Angle, all sites">
        <svg viewBox="0 0 24 24" width="24" height="24" aria-hidden="true">
          <path d="M3 19H21M3 19L16 5" className="mark-ray" />
          <path d="M12 19A9 9 0 0 0 9.2 12.4" className="mark-arc" />
        </svg>
        <span>Bright Angle</span>
      </a>
      <div className="masthead-title">{title}</div>
      {stages}
      <div className="masthead-tools">
        {children}
        {!inMenu && (
          <>
            <Tooltip title={`Show ${other}`}>
              <Button
                size="small"
                ghost
                onClick={() => set({ units: other })}
                aria-label={`Units: ${units}. Show ${other}`}
              >
                {unitWord(units)}
              </Button>
            </Tooltip>
            <Tooltip title={dark ? "Light theme" : "Dark theme, for the van at night"}>
              <Button
                size="small"
                ghost
                onClick={() => set({ dark: !dark })}
                aria-label={dark ? "Light theme" : "Dark theme"}
              >
                {dark ? "Light" : "Dark"}
              </Button>
            </Tooltip>
          </>
        )}
      </div>
    </header>
  );
}
