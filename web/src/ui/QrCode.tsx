/** A code to be scanned, as the server draws it. */

export function QrCode({ svg, alt }: { svg: string; alt: string }) {
  return <img src={`data:image/svg+xml;utf8,${encodeURIComponent(svg)}`} alt={alt} width={240} height={240} />;
}
