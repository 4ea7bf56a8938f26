/** Other programs' drawings: looked at by the server before any of it is taken, and the site's own for them. */
import type { Import, SiteFile } from "../core/types";
import { saveFile } from "./files";
import { READS_LONG, request } from "./http";

/** What may be chosen in place of a drawing's own unit. */
export type Unit = "mm" | "cm" | "m" | "in" | "ft";

export type PlanFormat = "geojson" | "dxf" | "svg";

/** What a drawing would bring, and what would be left out. Rejects with `Refused` for one that cannot be read. */
export function lookAt(file: File, unit: Unit | null): Promise<Import> {
  const dxf = /\.dxf$/i.test(file.name);
  const path = dxf ? `/api/import/dxf${unit ? `?unit=${unit}` : ""}` : "/api/import/geojson";
  return request<Import>("POST", path, new Blob([file], { type: "text/plain" }), undefined, READS_LONG);
}

/** Saves the solids of a site, or its plan, as a file of another format. */
export async function exportPlan(site: SiteFile, format: PlanFormat): Promise<void> {
  const written = await request<unknown>("POST", `/api/export/${format}`, site, undefined, READS_LONG);
  const text = typeof written === "string" ? written : JSON.stringify(written);
  saveFile(new Blob([text], { type: "text/plain" }), site.name, format);
}
