#!/usr/bin/env node
// `ravik verify handover.json` and `ravik compute …` from anywhere: the terminal doors of this house by their names.
import { spawnSync } from "node:child_process";
import { createRequire } from "node:module";
import { fileURLToPath } from "node:url";

const doors = ["verify", "compute"];
const [door, ...rest] = process.argv.slice(2);
if (!doors.includes(door)) {
  console.error(`ravik: expected one of ${doors.join(", ")}, got ${door ?? "nothing"}`);
  process.exit(2);
}
const loader = createRequire(import.meta.url).resolve("tsx/cli");
const script = fileURLToPath(new URL(`${door}.ts`, import.meta.url));
process.exit(spawnSync(process.execPath, [loader, script, ...rest], { stdio: "inherit" }).status ?? 1);
