import { runServer } from "../server/runServer.ts";
import { sayRefusals } from "../server/startRefused.ts";

// A real store for tests: begins on the day they give it (RAVIK_NOW).
await sayRefusals(() => runServer(null, { takesGivenNow: true }));
