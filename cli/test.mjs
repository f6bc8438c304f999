// `npm test`: install what is missing, then types, lint, unit and browser tests. The first that fails ends it.
import { existsSync } from "node:fs";
import { ensureInstalled, run } from "./ensureInstalled.mjs";

ensureInstalled();
// The browser that drives the screens, and pdftotext, which reads the printed record back.
if (!existsSync("/usr/bin/chromium") || !existsSync("/usr/bin/pdftotext")) {
  run("apt-get", ["update", "-qq"]);
  run("apt-get", ["install", "-y", "-qq", "chromium", "poppler-utils"]);
}
for (const script of ["test:types", "test:lint", "build", "test:unit", "test:e2e"]) run("npm", ["run", "-s", script]);
