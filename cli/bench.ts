import { cpus, totalmem } from "node:os";
import { benchApi } from "./bench/benchApi.ts";
import { benchCalls } from "./bench/benchCalls.ts";
import { benchCare } from "./bench/benchCare.ts";
import { benchDock } from "./bench/benchDock.ts";
import { benchEdge } from "./bench/benchEdge.ts";
import { benchHour } from "./bench/benchHour.ts";
import { benchLarge } from "./bench/benchLarge.ts";
import { benchLibrary } from "./bench/benchLibrary.ts";
import { benchMarks } from "./bench/benchMarks.ts";
import { benchPower } from "./bench/benchPower.ts";
import { benchRoad } from "./bench/benchRoad.ts";
import { benchRoute } from "./bench/benchRoute.ts";
import { benchStart } from "./bench/benchStart.ts";
import { benchWeb } from "./bench/benchWeb.ts";
import { describeFigure } from "./bench/figures.ts";
import { goalReferenceMs, type Load, measureReference } from "./bench/reference.ts";

/** `npm run bench [-- benchDock]`: the figures of docs/bench.md, on this machine. Needs a build. Never a test. */
const machine = `${cpus()[0]?.model}, ${cpus().length} cores, ${Math.round(totalmem() / 2 ** 30)} GiB, Node ${process.version}`;
console.log(`Machine: ${machine}\n`);
const reference = await measureReference();
const asMs = (load: Load) =>
  `${load} ${reference[load].toFixed(1)} ms (${goalReferenceMs[load]} where the goals were set)`;
console.log(`Reference loads: ${asMs("compute")}, ${asMs("disk")}, ${asMs("paint")}\n`);
console.log("| what | measured | goal | met |\n| --- | --- | --- | --- |");
const parts = {
  benchHour,
  benchRoute,
  benchLibrary,
  benchPower,
  benchCalls,
  benchRoad,
  benchWeb,
  benchDock,
  benchCare,
  benchStart,
  benchApi,
  benchMarks,
  benchEdge,
  benchLarge,
};
const [only] = process.argv.slice(2);
for (const [name, part] of Object.entries(parts)) {
  if (only !== undefined && only !== name) continue;
  // The machine may be slower by now: each part is held against the reference of its own minute.
  const before = await measureReference();
  for (const figure of await part()) {
    const { what, value, goal, isMet } = describeFigure(figure, before);
    console.log(`| ${what} | ${value} | ${goal} | ${isMet ? "yes" : "no"} |`);
  }
}
