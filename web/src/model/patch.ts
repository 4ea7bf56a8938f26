/** JSON Patches (RFC 6902) that the core answers, made on a draft. */
import { type Patch, applyPatches, enablePatches } from "immer";
import type { SiteFile, Way } from "../core/types";

enablePatches();

/** A JSON Pointer as a path: places in lists are numbers. */
const pathOf = (pointer: string): (string | number)[] =>
  pointer
    .split("/")
    .slice(1)
    .map((part) => (/^\d+$/.test(part) ? Number(part) : part.replaceAll("~1", "/").replaceAll("~0", "~")));

/** The state that a patch leads to. */
export function patched(site: SiteFile, patch: Way["patch"]): SiteFile {
  return applyPatches(
    site,
    patch.map(({ op, path, value }): Patch => ({ op: op as Patch["op"], path: pathOf(path), value })),
  );
}
