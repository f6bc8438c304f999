#!/usr/bin/env node
// `ravik verify handover.json` and `ravik compute …` from anywhere: the commands of the terminal by their names.
import { spawnSync } from "node:child_process";
import { createRequire } from "node:module";
import { fileURLToPath } from "node:url";

const commands = ["verify", "compute"];
const [command, ...rest] = process.argv.slice(2);
if (!commands.includes(command)) {
  console.error(`ravik: expected one of ${commands.join(", ")}, got ${command ?? "nothing"}`);
  process.exit(2);
}
const loader = createRequire(import.meta.url).resolve("tsx/cli");
const script = fileURLToPath(new URL(`${command}.ts`, import.meta.url));
process.exit(spawnSync(process.execPath, [loader, script, ...rest], { stdio: "inherit" }).status ?? 1);
