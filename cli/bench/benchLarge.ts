import { existsSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { ulid } from "ulid";
import { dayOf } from "../../core/dates/index.ts";
import { makeLarge } from "../makeLarge.ts";
import { type Figure, figureMs } from "./figures.ts";
import { startStore } from "./startStore.ts";

const boats = 20_000;
/** Made once, which takes some ten minutes, and kept: the next bench measures on the same. */
const folder = ".data/large";

/** A store of 20,000 boats and all their handovers: its first walk after a start, its call list, its workshop, its memory. */
export async function benchLarge(): Promise<Figure[]> {
  if (!existsSync(join(folder, "ravik.sqlite"))) await makeLarge(boats, folder);
  const firstMs: number[] = [];
  for (let i = 0; i < 3; i++) {
    const server = await startStore(folder, "ines");
    firstMs.push((await server.call("GET", "/api/deliveries/d-w118")).ms);
    await server.stop();
  }
  const { child, call, stop } = await startStore(folder, "ines");
  await call("GET", "/api/care");
  const [careMs, workshopMs]: [number[], number[]] = [[], []];
  for (let i = 0; i < 45; i++) {
    // Hours come in all the while: what is known of that boat is worked out anew.
    const date = dayOf(Date.now(), "UTC");
    const reading = { id: ulid(), engine: "port", date, hours: 200 + i / 10, source: "phone", answer: "as-read" };
    await call("POST", "/api/boats/w097/readings", reading);
    const care = await call("GET", "/api/care");
    const workshop = await call("GET", "/api/workshop");
    await call("GET", "/api/today");
    if (i < 5) continue;
    careMs.push(care.ms);
    workshopMs.push(workshop.ms);
  }
  await call("GET", "/api/boats");
  await call("GET", "/api/owed");
  const mostMb = Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${child.pid}/status`, "utf8"))![1]) / 1000;
  await stop();
  const of = `${boats.toLocaleString("en-GB")} boats, 1.3 million entries`;
  return [
    figureMs(`first walk opened after a start, ${of}`, firstMs, 2000, "compute"),
    figureMs("call list of that store, hours coming in", careMs, 150, "compute"),
    figureMs("workshop of that store, hours coming in", workshopMs, 300, "compute"),
    {
      what: "memory of that server, the most it had",
      value: `${mostMb.toFixed(0)} MB`,
      goal: "500 MB",
      isMet: mostMb < 500,
    },
  ];
}
