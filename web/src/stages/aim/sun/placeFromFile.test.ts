import { expect, test } from "vitest";
import { placeFromFile } from "./placeFromFile";

const polygon = {
  type: "FeatureCollection",
  features: [
    {
      type: "Feature",
      properties: { coordinates: "no numbers" },
      geometry: {
        type: "Polygon",
        coordinates: [
          [
            [-1.2, 50.7],
            [-1.0, 50.7],
            [-1.0, 50.9],
            [-1.2, 50.7],
          ],
        ],
      },
    },
  ],
};

test("a GeoJSON file lies at the middle of its box", () => {
  expect(placeFromFile("a.geojson", JSON.stringify(polygon))).toEqual({ latitude_deg: 50.8, longitude_deg: -1.1 });
});

test("a world file in degrees says where its corner lies", () => {
  expect(placeFromFile("a.wld", "0.00001\n0\n0\n-0.00001\n1.05\n52.93\n")).toEqual({
    latitude_deg: 52.93,
    longitude_deg: 1.05,
  });
});

test("what is no place is named", () => {
  expect(placeFromFile("a.wld", "0.1\n0\n0\n-0.1\n430000\n220000\n")).toMatch("not in degrees");
  expect(placeFromFile("a.wld", "0.1\n0\nx\n")).toMatch("no coordinates");
  expect(placeFromFile("a.json", "{")).toMatch("no coordinates");
  expect(placeFromFile("a.json", "{}")).toMatch("no coordinates");
});
