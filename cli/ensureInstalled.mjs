// Plain JavaScript without packages: this runs before anything is installed.
import { spawnSync } from "node:child_process";
import { existsSync, readFileSync } from "node:fs";

export const root = new URL("..", import.meta.url).pathname;

export function run(command, args, options = {}) {
  const { status } = spawnSync(command, args, { cwd: root, stdio: "inherit", ...options });
  if (status !== 0) process.exit(status ?? 1);
}

/** Installs the packages of the lock file when they are not there or belong to another one. */
export function ensureInstalled() {
  const lock = `${root}package-lock.json`;
  const installed = `${root}node_modules/.package-lock.json`;
  if (existsSync(installed) && existsSync(`${root}node_modules/sqlite3/build/Release/node_sqlite3.node`)) {
    const names = (path) => Object.entries(JSON.parse(readFileSync(path, "utf8")).packages);
    const have = new Map(names(installed).map(([name, { version }]) => [name, version]));
    const isSame = names(lock).every(
      ([name, entry]) => name === "" || entry.optional || entry.peer || have.get(name) === entry.version,
    );
    if (isSame) return;
  }
  console.log("Installing packages. sqlite3 compiles from source, which takes some minutes the first time.");
  run("npm", ["ci", "--no-audit", "--no-fund"], { env: { ...process.env, JOBS: "max" } });
}
