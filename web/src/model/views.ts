/** The views of a head: its own aim, its presets, the dewarped pictures cut out of a fisheye's round one. */
import type { Camera, CameraHead, Flattened, HeadRef, Preset, SiteFile } from "../core/types";
import { headOf } from "./lookups";

/** What has an aim: a head, a preset of it, or a flattened view. */
export type Aimed = CameraHead | Preset | Flattened;

/** The preset or flattened view of a head by its id. */
export function viewOf(head: CameraHead, view: string | null | undefined): Preset | Flattened | undefined {
  return view ? [...(head.presets ?? []), ...(head.flattened ?? [])].find((held) => held.id === view) : undefined;
}

/** What is aimed when a head is in hand: the view that is named, else the head itself. */
export function aimedOf(site: SiteFile, ref: HeadRef): Aimed | undefined {
  const head = headOf(site, ref.camera, ref.head);
  return head && (viewOf(head, ref.view) ?? head);
}

/** Whether something has a focal length of its own. */
export const hasFocal = (aimed: Aimed): aimed is CameraHead | Preset => "focal_mm" in aimed;

/** The head with one of its views: one that tours is looked at preset by preset. */
export function refOf(camera: Camera, head: CameraHead, view?: string | null): HeadRef {
  const held = viewOf(head, view) ?? head.presets?.[0];
  return { camera: camera.id, head: head.id, ...(held ? { view: held.id } : {}) };
}

/** All views of a camera that are judged, with what they are called. */
export function viewsOf(camera: Camera): { ref: HeadRef; name: string }[] {
  return camera.heads.flatMap((head) => {
    const of = camera.heads.length > 1 ? `${camera.name} ${head.id}` : camera.name;
    const own = head.presets?.length ? [] : [{ ref: refOf(camera, head), name: of }];
    const more = [...(head.presets ?? []), ...(head.flattened ?? [])];
    return [...own, ...more.map((view) => ({ ref: refOf(camera, head, view.id), name: `${of} · ${view.name}` }))];
  });
}

/** A head's name as one text, for lists. */
export const keyOf = ({ camera, head, view }: HeadRef): string => [camera, head, view ?? ""].join("/");

export function refOfKey(key: string): HeadRef {
  const [camera = "", head = "", view = ""] = key.split("/");
  return { camera, head, ...(view ? { view } : {}) };
}

/** What a head is called on this site. */
export function nameOf(site: SiteFile, ref: HeadRef): string {
  const camera = site.cameras.find((held) => held.id === ref.camera);
  const found = camera && viewsOf(camera).find((held) => keyOf(held.ref) === keyOf(ref));
  return found?.name ?? camera?.name ?? ref.camera;
}
