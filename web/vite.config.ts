import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";
import { VitePWA } from "vite-plugin-pwa";
import { appIcons } from "../api/appIcons.ts";

export default defineConfig({
  root: import.meta.dirname,
  plugins: [
    react(),
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
