import react from "@vitejs/plugin-react";
import { VitePWA, type VitePWAOptions } from "vite-plugin-pwa";
import { compression } from "vite-plugin-compression2";
import { defineConfig } from "vitest/config";

/** What stands on a device so that the application opens there without a network. */
const offline: Partial<VitePWAOptions> = {
  registerType: "prompt",
  injectRegister: false,
  manifest: {
    name: "Bright Angle",
    short_name: "Bright Angle",
    description: "Aim security cameras with evidence.",
    start_url: "/",
    display: "standalone",
    background_color: "#f4efe4",
    theme_color: "#1d2b33",
    icons: [{ src: "mark.svg", sizes: "any", type: "image/svg+xml" }],
  },
  workbox: {
    globPatterns: ["**/*.{html,js,css,wasm,svg,woff2}"],
    // The core is larger than what is usually kept.
    maximumFileSizeToCacheInBytes: 8_000_000,
    navigateFallback: "index.html",
    navigateFallbackDenylist: [/^\/api\//, /^\/pair/],
    cleanupOutdatedCaches: true,
    runtimeCaching: [
      {
        // A picture never changes under its name.
        urlPattern: ({ url }) => url.pathname.startsWith("/api/pictures/"),
        handler: "CacheFirst",
        options: { cacheName: "pictures", cacheableResponse: { statuses: [200] }, expiration: { maxEntries: 500 } },
      },
    ],
  },
};

export default defineConfig({
  // What is served compressed is compressed once, here.
  plugins: [
    react(),
    VitePWA(offline),
    compression({ algorithms: ["brotliCompress"], include: /\.(js|css|wasm|svg)$/, threshold: 1024 }),
  ],
  worker: { format: "es" },
  // The front end is served by the application itself; while it is worked on, Vite asks that one.
  server: {
    // As that one expects to be asked: by its own name, from its own page.
    proxy: {
      "/api": { target: "http://127.0.0.1:8017", changeOrigin: true, headers: { origin: "http://127.0.0.1:8017" } },
    },
    fs: { allow: [".."] },
  },
  build: { chunkSizeWarningLimit: 900 },
  test: { include: ["src/**/*.test.{ts,tsx}"], testTimeout: 20_000 },
});
