import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [react()],
  // The front end is served by the application itself; while it is worked on, Vite asks that one.
  server: { proxy: { "/api": "http://127.0.0.1:8017" }, fs: { allow: [".."] } },
  build: { chunkSizeWarningLimit: 1600 },
  test: { include: ["src/**/*.test.ts"] },
});
