import { spawnSync } from "node:child_process";
import {
  chmodSync,
  cpSync,
  existsSync,
  mkdirSync,
  readFileSync,
  rmdirSync,
  rmSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { dirname, join } from "node:path";

export interface RunResult {
  readonly isGood: boolean;
  /** Its last words, where it failed. */
  readonly says: string;
}

/** The machine as an installation changes it. */
export interface Machine {
  run(command: readonly string[]): RunResult;
  /** Null where there is no such file. */
  read(path: string): { readonly text: string; readonly mode: number } | null;
  exists(path: string): boolean;
  write(path: string, text: string, mode: number): void;
  makeFolder(path: string, mode: number): void;
  copy(from: string, to: string): void;
  remove(path: string): void;
  /** Takes away a folder in which nothing is left; leaves any other. */
  removeEmpty(path: string): void;
}

/** This machine, or what lies under `root` of it. */
export function createMachine(root = "/", run: Machine["run"] = runCommand): Machine {
  const at = (path: string) => join(root, path);
  return {
    run,
    read: (path) =>
      existsSync(at(path)) ? { text: readFileSync(at(path), "utf8"), mode: statSync(at(path)).mode & 0o777 } : null,
    exists: (path) => existsSync(at(path)),
    write(path, text, mode) {
      mkdirSync(dirname(at(path)), { recursive: true });
      writeFileSync(at(path), text, { mode });
      // An older file keeps its own otherwise.
      chmodSync(at(path), mode);
    },
    makeFolder(path, mode) {
      mkdirSync(at(path), { recursive: true });
      chmodSync(at(path), mode);
    },
    copy: (from, to) => cpSync(from, at(to), { recursive: true, verbatimSymlinks: true }),
    remove: (path) => rmSync(at(path), { recursive: true, force: true }),
    removeEmpty(path) {
      try {
        rmdirSync(at(path));
      } catch {
        // Something is in it, or it is gone.
      }
    },
  };
}

function runCommand([program, ...args]: readonly string[]): RunResult {
  const { status, stdout, stderr, error } = spawnSync(program!, args, {
    encoding: "utf8",
    env: { ...process.env, DEBIAN_FRONTEND: "noninteractive" },
  });
  const last = `${stdout ?? ""}\n${stderr ?? ""}`.trim().split("\n").slice(-3).join(" ");
  return { isGood: status === 0, says: error === undefined ? last : error.message };
}
