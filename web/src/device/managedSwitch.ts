/** The managed switch: the server speaks to it. */
import type { SiteFile, SwitchReport } from "../core/types";
import { request } from "../keep/http";

/** What it reports of its ports. */
export const readSwitch = (site: SiteFile, node: string): Promise<SwitchReport> =>
  request("POST", "/api/switch", { site, node });
