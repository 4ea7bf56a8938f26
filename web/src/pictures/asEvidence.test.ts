import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { asEvidence } from "./asEvidence";

const bitmap = { width: 640, height: 360, close: vi.fn() };
beforeEach(() => vi.stubGlobal("createImageBitmap", vi.fn().mockResolvedValue(bitmap)));
afterEach(() => vi.unstubAllGlobals());

const jpeg = (bytes: number): Blob => new Blob([new Uint8Array(bytes)], { type: "image/jpeg" });

test("what is small enough is kept to its last byte, and called by the hash of its bytes", async () => {
  // The SHA-256 of three zero bytes (FIPS 180-4; by sha256sum).
  const file = jpeg(3);
  const found = await asEvidence(file);
  expect(found).toEqual({
    blob: file,
    width: 640,
    height: 360,
    name: "709e80c88487a2411e1ee4dfb9f22a861492d20c4765150c0c794abd70f8147c",
  });
});

test("what is no picture, or of another kind, says so", async () => {
  await expect(asEvidence(new Blob(["<svg/>"], { type: "image/svg+xml" }))).rejects.toThrow("is no PNG or JPEG");
  vi.stubGlobal("createImageBitmap", vi.fn().mockRejectedValue(new Error("bad")));
  await expect(asEvidence(jpeg(10))).rejects.toThrow("is no picture that this browser can read");
});
