import { runServer } from "./runServer.ts";

await runServer(null);
