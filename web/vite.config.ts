import react from "@vitejs/plugin-react";
import { compression } from "vite-plugin-compression2";
import { defineConfig } from "vitest/config";

export default defineConfig({
  // What is served compressed is compressed once, here.
  plugins: [react(), compression({ algorithms: ["brotliCompress"], include: /\.(js|css|wasm|svg)$/, threshold: 1024 })],
  worker: { format: "es" },
  // The front end is served by the application itself; while it is worked on, Vite asks that one.
  server: { proxy: { "/api": "http://127.0.0.1:8017" }, fs: { allow: [".."] } },
  build: { chunkSizeWarningLimit: 900 },
  test: { include: ["src/**/*.test.ts"] },
});
