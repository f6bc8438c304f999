import { chromium } from "@playwright/test";

/** Debian's Chromium, as it starts without a monitor or a network. */
export const chromiumPath = "/usr/bin/chromium";
export const chromiumArgs = [
  "--no-sandbox",
  "--disable-gpu",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
];

export const launchBrowser = () => chromium.launch({ executablePath: chromiumPath, args: chromiumArgs });
