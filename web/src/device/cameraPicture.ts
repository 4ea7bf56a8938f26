/** Pictures of cameras that hang: from their own addresses, and from the stand-in. The server asks; it keeps neither name nor password. */
import type { SiteFile, SnapshotRequest, TurnRequest } from "../core/types";
import { request } from "../keep/http";

export const takeSnapshot = (asked: SnapshotRequest): Promise<Blob> => request("POST", "/api/snapshot", asked);

export const takeStandIn = (site: SiteFile, camera: string, head: string, night: boolean): Promise<Blob> =>
  request("POST", "/api/stand-in/picture", { site, camera, head, night });

/** Turns a head of the stand-in, as a hand on the ladder does. */
export const turnStandIn = (by: TurnRequest): Promise<boolean> => request("POST", "/api/stand-in/turn", by);
