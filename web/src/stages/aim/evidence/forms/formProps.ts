/** What every panel of a form of camera is given. */
import type { Camera, CameraHead, SiteFile } from "../../../../core/types";

export interface FormProps {
  site: SiteFile;
  camera: Camera;
  head: CameraHead;
  /** The id of the head's view in hand. */
  view: string | null;
}
