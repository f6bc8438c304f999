// The types of core, server and web, by the compiler that is ten times as fast. `typescript-6` beside it is the one whose parser a
// test reads sources with; both bring a `tsc`, so this one is called by its path.
import { run } from "./ensureInstalled.mjs";

for (const project of ["core", "tsconfig.json", "web"]) run("node", ["node_modules/typescript/bin/tsc", "-p", project]);
