/** The cameras whose way leads over a box. */
import type { WiredShown } from "./wired";

export const camerasBehind = ({ runs }: WiredShown, node: string): string[] =>
  [...runs.values()].filter((run) => run.nodes.includes(node)).map((run) => run.camera);
