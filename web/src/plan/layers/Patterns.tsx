/** The hatches that solids and private places are filled with, once for all layers. */
import { memo } from "react";

export const Patterns = memo(function Patterns() {
  return (
    <defs>
      <pattern id="hatch" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <line x1="0" y1="0" x2="0" y2="7" className="hatch-line" />
      </pattern>
      <pattern id="private-dots" width="6" height="6" patternUnits="userSpaceOnUse">
        <circle cx="1.5" cy="1.5" r="1.1" className="private-dot" />
        <circle cx="4.5" cy="4.5" r="1.1" className="private-dot" />
      </pattern>
    </defs>
  );
});
