import { runServer } from "./runServer.ts";
import { sayRefusals } from "./startRefused.ts";

await sayRefusals(() => runServer(null));
