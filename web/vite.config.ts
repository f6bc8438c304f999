import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { gzipSync } from "node:zlib";
import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig, type Plugin } from "vite";
import { VitePWA } from "vite-plugin-pwa";
import { appIcons } from "../api/appIcons.ts";

/** Leaves each asset zipped beside itself, which the server hands out as it is: zipped anew it would keep a tablet waiting. */
const zipAssets: Plugin = {
  name: "zip-assets",
  writeBundle({ dir }) {
    const assets = join(dir!, "assets");
    for (const name of readdirSync(assets).filter((each) => /\.(js|css|svg)$/.test(each))) {
      const bytes = readFileSync(join(assets, name));
      if (bytes.length > 1000) writeFileSync(join(assets, `${name}.gz`), gzipSync(bytes, { level: 9 }));
    }
  },
};

export default defineConfig({
  root: import.meta.dirname,
  plugins: [
    react(),
    zipAssets,
    tailwindcss(),
    VitePWA({
      registerType: "prompt",
      injectRegister: null,
      includeAssets: ["ravik.svg", "ravik-*.png"],
      manifest: {
        name: "Ravik",
        short_name: "Ravik",
        description: "Boat handovers: the walk, the record, break-in and first service.",
        theme_color: "#FBFAF6",
        background_color: "#FBFAF6",
        display: "standalone",
        icons: [...appIcons],
      },
      workbox: {
        globPatterns: ["**/*.{js,css,html,svg,woff2}"],
        navigateFallback: "/index.html",
        navigateFallbackDenylist: [/^\/api\//],
        clientsClaim: true,
        runtimeCaching: [
          {
            // What a walk needs: from the server while it answers, else as it was last read. The name is saved.ts's too.
            urlPattern: /\/api\/(me|today|boats|glossary|faults|guides|owed|deliveries\/[^/]+|owner\/[^/]+)$/,
            handler: "NetworkFirst",
            options: {
              cacheName: "saved-11",
              networkTimeoutSeconds: 4,
              // What a screen asks for anew (client.ts) is the server's word or none: an answer saved before a change would undo it there.
              plugins: [
                {
                  cachedResponseWillBeUsed: async ({ request, cachedResponse }) =>
                    request.cache === "no-cache" ? null : cachedResponse,
                },
              ],
              cacheableResponse: { statuses: [200] },
              expiration: { maxEntries: 200 },
            },
          },
          {
            urlPattern: /\/api\/photos\/[^/]+/,
            handler: "CacheFirst",
            options: {
              cacheName: "saved-photos-3",
              cacheableResponse: { statuses: [200] },
              expiration: { maxEntries: 300 },
            },
          },
        ],
      },
    }),
  ],
  build: {
    outDir: "../dist/web",
    emptyOutDir: true,
    target: "es2022",
    assetsInlineLimit: 0,
    // What a screen needs besides itself is not listed in the first file: the worker has all of it aboard after the first visit.
    modulePreload: { resolveDependencies: (_, deps, { hostType }) => (hostType === "html" ? deps : []) },
  },
  server: { proxy: { "/api": "http://127.0.0.1:4600" } },
});
