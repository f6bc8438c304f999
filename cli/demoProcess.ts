import { type ChildProcess, spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

export interface DemoProcess {
  readonly address: string;
  readonly dataFolder: string;
  stop(): Promise<void>;
}

/** A Ravik server of its own with a fresh demo store, on a free port. For pictures, measures and browser tests. */
export async function startDemoProcess(): Promise<DemoProcess> {
  const dataFolder = mkdtempSync(join(tmpdir(), "ravik-"));
  const { child, port } = await startServer("demo", { RAVIK_DATA: join(dataFolder, "store"), PORT: "0" });
  return {
    address: `http://127.0.0.1:${port}`,
    dataFolder: join(dataFolder, "store"),
    async stop() {
      await stopChild(child);
      rmSync(dataFolder, { recursive: true, force: true });
    },
  };
}

/** Starts a built server (`npm run build`) and waits until it says that it listens. */
export async function startServer(name: "demo" | "main", env: Record<string, string>) {
  const child = spawn(process.execPath, [`dist/server/${name}.js`], {
    cwd: new URL("..", import.meta.url).pathname,
    env: { ...process.env, RAVIK_LOG: "error", ...env },
    stdio: ["ignore", "ignore", "inherit", "ipc"],
  });
  const port = await new Promise<number>((resolve, reject) => {
    child.once("message", (message) => resolve((message as { port: number }).port));
    child.once("exit", (code) => reject(new Error(`server ended with ${code} before it was ready`)));
  });
  return { child, port };
}

export function stopChild(child: ChildProcess): Promise<void> {
  return new Promise((resolve) => {
    if (child.exitCode !== null) resolve();
    child.once("exit", () => resolve());
    child.kill("SIGTERM");
  });
}
