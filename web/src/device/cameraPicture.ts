/** Pictures of cameras that hang: from their own addresses, and from the stand-in. The server asks; it keeps neither name nor password. */
import type { SnapshotRequest, StandInRequest, TurnRequest } from "../core/types";
import { request } from "../keep/http";

/** A picture with what its camera's clock says. */
export interface Snapped {
  blob: Blob;
  /** By how many seconds that is fast; null where the camera does not say. */
  clockOffS: number | null;
}

async function snapped(path: string, asked: SnapshotRequest | StandInRequest): Promise<Snapped> {
  let clockOffS: number | null = null;
  const blob = await request<Blob>("POST", path, asked, undefined, undefined, (headers) => {
    const said = headers.get("X-Clock-Off-S");
    clockOffS = said ? Number(said) : null;
  });
  return { blob, clockOffS };
}

export const takeSnapshot = (asked: SnapshotRequest): Promise<Snapped> => snapped("/api/snapshot", asked);

export const takeStandIn = (asked: StandInRequest): Promise<Snapped> => snapped("/api/stand-in/picture", asked);

/** Turns a head of the stand-in, as a hand on the ladder does. */
export const turnStandIn = (by: TurnRequest): Promise<boolean> => request("POST", "/api/stand-in/turn", by);
