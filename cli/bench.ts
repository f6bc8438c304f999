import { cpus, totalmem } from "node:os";
import { benchApi } from "./bench/benchApi.ts";
import { benchCare } from "./bench/benchCare.ts";
import { benchDock } from "./bench/benchDock.ts";
import { benchLibrary } from "./bench/benchLibrary.ts";
import { benchRoute } from "./bench/benchRoute.ts";
import { benchStart } from "./bench/benchStart.ts";
import { benchWeb } from "./bench/benchWeb.ts";

/** `npm run bench [-- benchDock]`: the figures of docs/bench.md, on this machine. Needs a build. Never a test. */
const machine = `${cpus()[0]?.model}, ${cpus().length} cores, ${Math.round(totalmem() / 2 ** 30)} GiB, Node ${process.version}`;
console.log(`Machine: ${machine}\n`);
console.log("| what | measured | goal | met |\n| --- | --- | --- | --- |");
const parts = { benchRoute, benchLibrary, benchWeb, benchDock, benchCare, benchStart, benchApi };
const [only] = process.argv.slice(2);
for (const [name, part] of Object.entries(parts)) {
  if (only !== undefined && only !== name) continue;
  for (const { what, value, goal, isMet } of await part()) {
    console.log(`| ${what} | ${value} | ${goal} | ${isMet ? "yes" : "no"} |`);
  }
}
