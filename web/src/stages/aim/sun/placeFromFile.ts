/** Where a file with geographic coordinates lies: the middle of a GeoJSON file, or the corner of a world file. */

interface Found {
  latitude_deg: number;
  longitude_deg: number;
}

/** The place, or why there is none. */
export function placeFromFile(name: string, text: string): Found | string {
  const found = /\.(geo)?json$/i.test(name) ? fromGeoJson(text) : fromWorldFile(text);
  if (!found) return `${name} holds no coordinates.`;
  const [longitude, latitude] = found;
  if (Math.abs(longitude) > 180 || Math.abs(latitude) > 90)
    return `${name} is not in degrees: its coordinates are of a map grid.`;
  return { latitude_deg: rounded(latitude), longitude_deg: rounded(longitude) };
}

/** A metre is some hundred-thousandth of a degree. */
const rounded = (degrees: number): number => Number(degrees.toFixed(5));

/** The sixth lines of a world file: where the middle of its upper left pixel lies. */
function fromWorldFile(text: string): [number, number] | null {
  const lines = text.trim().split(/\s+/).map(Number);
  const [x, y] = [lines[4], lines[5]];
  return lines.length === 6 && x !== undefined && y !== undefined && lines.every(Number.isFinite) ? [x, y] : null;
}

function fromGeoJson(text: string): [number, number] | null {
  let parsed: unknown;
  try {
    parsed = JSON.parse(text);
  } catch {
    return null;
  }
  const box: [number, number, number, number] = [Infinity, Infinity, -Infinity, -Infinity];
  const look = (value: unknown): void => {
    if (!Array.isArray(value)) return;
    const [x, y] = value as unknown[];
    if (typeof x === "number" && typeof y === "number") {
      box[0] = Math.min(box[0], x);
      box[1] = Math.min(box[1], y);
      box[2] = Math.max(box[2], x);
      box[3] = Math.max(box[3], y);
    } else value.forEach(look);
  };
  const walk = (value: unknown): void => {
    if (Array.isArray(value)) value.forEach(walk);
    else if (value && typeof value === "object")
      for (const [key, held] of Object.entries(value)) {
        if (key === "coordinates") look(held);
        else walk(held);
      }
  };
  walk(parsed);
  return Number.isFinite(box[0]) ? [(box[0] + box[2]) / 2, (box[1] + box[3]) / 2] : null;
}
