import { type ChildProcess, spawn } from "node:child_process";
import { cpSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { HostAnswer, HostQuestion } from "./demoHost.ts";

/** The time that a test, a picture or a measure lives in. */
export interface GivenTime {
  /** How far it is ahead of the wall clock; 0: it is the wall clock. */
  readonly aheadMs: number;
}
export const wallTime: GivenTime = { aheadMs: 0 };

/** The time that begins at this instant as this is called; without one the wall clock's. */
export const beginTime = (now: string | undefined): GivenTime =>
  now === undefined ? wallTime : { aheadMs: Date.parse(now) - Date.now() };
export const nowMsOf = ({ aheadMs }: GivenTime): number => Date.now() + aheadMs;

export interface DemoProcess {
  readonly address: string;
  readonly dataFolder: string;
  readonly time: GivenTime;
  /** Stops it and removes its data, which `before` may look at while it lies still. */
  stop(before?: (folder: string) => void): Promise<void>;
}

interface StoreOptions {
  /** The folder of a store that was made before (`makeDemoSeed`), to begin with a copy of it. */
  readonly seed?: string;
  readonly time?: GivenTime;
}

const programFolder = new URL("..", import.meta.url).pathname;
const sayTime = (time: GivenTime): Record<string, string> =>
  time === wallTime ? {} : { RAVIK_NOW: new Date(nowMsOf(time)).toISOString() };

function copySeed(seed: string | undefined) {
  const root = mkdtempSync(join(tmpdir(), "ravik-"));
  const dataFolder = join(root, "store");
  if (seed !== undefined) cpSync(seed, dataFolder, { recursive: true });
  return { root, dataFolder };
}

/** A Ravik server of its own with a fresh demo store, on a free port. For pictures, measures and browser tests. */
export async function startDemoProcess({ seed, time = wallTime }: StoreOptions = {}): Promise<DemoProcess> {
  const { root, dataFolder } = copySeed(seed);
  const { child, port } = await startServer("demo", { RAVIK_DATA: dataFolder, PORT: "0" }, time);
  return {
    address: `http://127.0.0.1:${port}`,
    dataFolder,
    time,
    async stop(before) {
      await stopChild(child);
      before?.(dataFolder);
      rmSync(root, { recursive: true, force: true });
    },
  };
}

export interface DemoHost {
  /** A store of its own, a copy of `seed`. */
  start(options: Required<StoreOptions>): Promise<DemoProcess>;
  close(): Promise<void>;
}

/** One process in which demo stores run one after the other, each a copy of one that was made before. */
export function startDemoHost(): DemoHost {
  const child = spawn(process.execPath, ["dist/server/host.js"], {
    cwd: programFolder,
    env: { ...process.env, RAVIK_LOG: "error" },
    stdio: ["ignore", "inherit", "inherit", "ipc"],
  });
  let last = 0;
  const ask = (what: { readonly start: Record<string, string> } | { readonly stop: number }) =>
    new Promise<{ id: number; port: number }>((resolve, reject) => {
      const id = ++last;
      const hear = (said: HostAnswer) => {
        if (said.id !== id) return;
        child.off("message", hear);
        if ("error" in said) reject(new Error(`demo host: ${said.error}`));
        else resolve(said);
      };
      child.on("message", hear);
      child.send({ id, ...what } satisfies HostQuestion);
    });
  return {
    async start({ seed, time }) {
      const { root, dataFolder } = copySeed(seed);
      const { id, port } = await ask({ start: { RAVIK_DATA: dataFolder, PORT: "0", ...sayTime(time) } });
      return {
        address: `http://127.0.0.1:${port}`,
        dataFolder,
        time,
        async stop(before) {
          await ask({ stop: id });
          before?.(dataFolder);
          rmSync(root, { recursive: true, force: true });
        },
      };
    },
    close: () => stopChild(child),
  };
}

/** The folder of a demo store as it is on its first day, for `startDemoProcess`; whoever made it removes it. */
export async function makeDemoSeed(time: GivenTime = wallTime): Promise<string> {
  const demo = await startDemoProcess({ time });
  const seed = mkdtempSync(join(tmpdir(), "ravik-seed-"));
  await demo.stop((folder) => cpSync(folder, seed, { recursive: true }));
  return seed;
}

/** Starts a built server (`npm run build`) and waits until it says that it listens. `main` takes no time but the wall clock's. */
export async function startServer(name: "demo" | "main" | "test", env: Record<string, string>, time = wallTime) {
  const child = spawn(process.execPath, [`dist/server/${name}.js`], {
    cwd: programFolder,
    env: { ...process.env, RAVIK_LOG: "error", ...sayTime(time), ...env },
    stdio: ["ignore", "pipe", "inherit", "ipc"],
  });
  let said = "";
  // Of a server that runs for long, its first words.
  child.stdout!.on("data", (data) => (said = (said + String(data)).slice(0, 10_000)));
  const port = await new Promise<number>((resolve, reject) => {
    child.once("message", (message) => resolve((message as { port: number }).port));
    child.once("exit", (code) => reject(new Error(`server ended with ${code} before it was ready`)));
  });
  return { child, port, said: () => said };
}

/** A Ravik server on a folder with nothing in it, and the code it prints for whoever sets it up. */
export async function startNewStore(time: GivenTime = wallTime): Promise<DemoProcess & { readonly code: string }> {
  const dataFolder = mkdtempSync(join(tmpdir(), "ravik-new-"));
  const { child, port, said } = await startServer("test", { RAVIK_DATA: dataFolder, PORT: "0" }, time);
  const find = () => /^ +([0-9A-Z]{5}-[0-9A-Z]{5})$/m.exec(said())?.[1];
  while (find() === undefined) await new Promise((resolve) => child.stdout!.once("data", resolve));
  return {
    address: `http://127.0.0.1:${port}`,
    dataFolder,
    time,
    code: find()!,
    async stop(before) {
      await stopChild(child);
      before?.(dataFolder);
      rmSync(dataFolder, { recursive: true, force: true });
    },
  };
}

export function stopChild(child: ChildProcess): Promise<void> {
  return new Promise((resolve) => {
    if (child.exitCode !== null) resolve();
    child.once("exit", () => resolve());
    child.kill("SIGTERM");
  });
}
