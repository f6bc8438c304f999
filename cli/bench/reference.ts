import { closeSync, fsyncSync, mkdtempSync, openSync, rmSync, writeSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { launchBrowser } from "../browser.ts";
import { quantile } from "./quantile.ts";

/** What a figure mostly spends its time on: computing, writing to disk, or painting in a browser. */
export type Load = "compute" | "disk" | "paint";
export type Reference = Readonly<Record<Load, number>>;

/**
 * The reference loads in ms on the machine the goals were set for, in a quiet hour (2 cores at 2.5 GHz). A goal of so many
 * ms stands for so many times these. Reckoned back on 2026-11-27, in three minutes that were unlike each other: computing
 * took 241, 276 and 233 ms while the trace of 360,000 samples, whose code had not changed since that hour, took 2.3, 2.8
 * and 2.0 times as long as then; painting 30 ms while unchanged screens took 1.35 times as long.
 */
export const goalReferenceMs: Reference = { compute: 108, disk: 1.2, paint: 22 };

const rounds = 9;
const median = (valuesMs: readonly number[]) => quantile(valuesMs, 0.5);
function time(work: () => void): number {
  const startMs = performance.now();
  work();
  return performance.now() - startMs;
}

/** A plain loop, a sort, and objects made, written, read and counted: a neighbour may slow memory and leave the loop alone. */
function compute() {
  let x = 1;
  for (let i = 0; i < 1_000_000; i++) x = (x * 1_103_515_245 + 12_345) % 2_147_483_648;
  const values = Array.from({ length: 60_000 }, (_, i) => (i * 7919 + x) % 60_013);
  values.sort((a, b) => a - b);
  const objects = values.map((value, i) => ({ id: `${value}-${i}`, value, of: { at: i, even: value % 2 === 0 } }));
  const read = JSON.parse(JSON.stringify(objects)) as typeof objects;
  const counts = new Map<number, number>();
  for (const { value, of } of read) counts.set(value % 997, (counts.get(value % 997) ?? 0) + of.at);
}

/** A write of a page with fsync, ten times over. */
function disk(file: string) {
  const page = Buffer.alloc(4096, 7);
  const handle = openSync(file, "w");
  for (let i = 0; i < 10; i++) {
    writeSync(handle, page);
    fsyncSync(handle);
  }
  closeSync(handle);
}

/** From a changed page to the task after its frame. */
const paint = () =>
  new Promise<number>((resolve) => {
    const startMs = performance.now();
    document.body.replaceChildren(
      ...Array.from({ length: 400 }, (_, i) => {
        const line = document.createElement("p");
        line.textContent = `${i} ${startMs}`;
        return line;
      }),
    );
    requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - startMs)));
  });

/** Times the reference loads as this machine is just now. */
export async function measureReference(): Promise<Reference> {
  const folder = mkdtempSync(join(tmpdir(), "ravik-reference-"));
  const browser = await launchBrowser();
  const page = await browser.newPage();
  await page.setContent("<!doctype html><title>reference</title>");
  const paintsMs: number[] = [];
  for (let i = 0; i < rounds * 2; i++) paintsMs.push(await page.evaluate(paint));
  await browser.close();
  compute();
  const reference = {
    compute: median(Array.from({ length: rounds }, () => time(compute))),
    disk: median(Array.from({ length: rounds }, () => time(() => disk(join(folder, "page"))))),
    paint: median(paintsMs.slice(rounds)),
  };
  rmSync(folder, { recursive: true, force: true });
  return reference;
}
