// `npm test`: install what is missing, then types, lint, unit and browser tests. The first that fails ends it.
import { existsSync } from "node:fs";
import { ensureInstalled, run } from "./ensureInstalled.mjs";

ensureInstalled();
if (!existsSync("/usr/bin/chromium")) {
  run("apt-get", ["update", "-qq"]);
  run("apt-get", ["install", "-y", "-qq", "chromium"]);
}
for (const script of ["test:types", "test:lint", "test:unit", "build", "test:e2e"]) run("npm", ["run", "-s", script]);
