/** The pixels of a picture, on a canvas. */
import { useEffect, useRef } from "react";
import type { PictureShown } from "../core/pictures";

interface Props {
  shown: PictureShown;
  className: string;
  /** How wide it is shown, px; one to one where left out. */
  width?: number;
  label?: string;
}

export function Pixels({ shown, className, width: wide, label }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { rgba, told } = shown;
  const { width, height } = told.frame;
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    context?.putImageData(new ImageData(new Uint8ClampedArray(rgba), width, height), 0, 0);
  }, [rgba, width, height]);
  return (
    <canvas
      ref={canvas}
      width={width}
      height={height}
      className={className}
      style={wide ? { width: wide } : {}}
      {...(label ? { role: "img", "aria-label": label } : {})}
    />
  );
}
