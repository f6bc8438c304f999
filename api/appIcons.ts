/** Icons of the app on a home screen, in `web/public`; the maskable one has its sign within the inner four fifths. */
export const appIcons = [
  { src: "/ravik-192.png", sizes: "192x192", type: "image/png" },
  { src: "/ravik-512.png", sizes: "512x512", type: "image/png" },
  { src: "/ravik-maskable-512.png", sizes: "512x512", type: "image/png", purpose: "maskable" },
  { src: "/ravik.svg", sizes: "any", type: "image/svg+xml" },
] as const;
