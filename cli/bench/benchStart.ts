import { spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { type Figure, figureMs } from "./figures.ts";

const root = new URL("../..", import.meta.url).pathname;

function findFreePort(): Promise<number> {
  return new Promise((resolve) => {
    const probe = createServer().listen(0, "127.0.0.1", () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => resolve(port));
    });
  });
}

/** `npm run demo`, installed and built: from the command to a health that says ready. First with no store, then with one. */
export async function benchStart(): Promise<Figure[]> {
  const folder = mkdtempSync(join(tmpdir(), "ravik-start-"));
  const startsMs: number[] = [];
  for (let i = 0; i < 4; i++) {
    const port = await findFreePort();
    const startMs = performance.now();
    const child = spawn("npm", ["run", "-s", "demo"], {
      cwd: root,
      detached: true,
      stdio: "ignore",
      env: { ...process.env, PORT: String(port), RAVIK_DATA: join(folder, "store") },
    });
    for (;;) {
      const health = await fetch(`http://127.0.0.1:${port}/api/health`).catch(() => null);
      if (health?.ok) break;
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
    startsMs.push(performance.now() - startMs);
    process.kill(-child.pid!, "SIGTERM");
    await new Promise((resolve) => child.once("exit", resolve));
  }
  rmSync(folder, { recursive: true, force: true });
  return [
    figureMs("demo start, installed, store made anew", startsMs.slice(0, 1), 5000, "compute"),
    figureMs("demo start, installed, store there", startsMs.slice(1), 5000, "compute"),
  ];
}
