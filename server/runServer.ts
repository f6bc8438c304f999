import { readConfig } from "./config.ts";
import type { Demo } from "./createServices.ts";
import { StartRefused } from "./startRefused.ts";
import { startStore } from "./startStore.ts";

/** What whoever started it reads in the terminal: how to begin. Said anew at every start until somebody has. */
function sayNewStore(address: string, code: string) {
  console.log(`\nThis store is new. Open ${address}/set-up and type this code:\n\n    ${code}\n`);
}

/**
 * The store that the environment names, as a program of its own, which ends well when it is told to. `demo`: null for a real store.
 * `takesGivenNow`: whether RAVIK_NOW may set its clock. Failure: `StartRefused`.
 */
export async function runServer(demo: Demo | null, { takesGivenNow = demo !== null } = {}): Promise<void> {
  const config = readConfig(process.env);
  if (config.givenNow !== null && !takesGivenNow)
    throw new StartRefused("RAVIK_NOW is for tests and the demo: a store goes by the wall clock. Start without it");
  const store = await startStore(config, demo).catch((error: NodeJS.ErrnoException) => {
    if (error.code !== "EADDRINUSE") throw error;
    throw new StartRefused(
      `port ${config.port} is taken: stop what listens there, or start this one with another PORT`,
    );
  });
  if (store.code !== null) sayNewStore(config.publicAddress ?? `http://${config.host}:${store.port}`, store.code);
  process.send?.({ ready: true, port: store.port });
  // A terminal sends the signal to the whole group and npm may pass it on: the second is not news.
  const stop = () => void store.stop().then(() => process.exit(0));
  process.on("SIGTERM", stop);
  process.on("SIGINT", stop);
}
