#!/usr/bin/env node
// `ravik setup`, `ravik verify handover.json`, `ravik export store.ndjson` and the others from anywhere: the commands of the terminal by their names.
import { spawnSync } from "node:child_process";
import { existsSync } from "node:fs";
import { fileURLToPath } from "node:url";

const commands = ["setup", "owner", "verify", "compute", "export", "import", "backup", "restore", "install", "doctor"];
const [command, ...rest] = process.argv.slice(2);
if (!commands.includes(command)) {
  console.error(`ravik: expected one of ${commands.join(", ")}, got ${command ?? "nothing"}`);
  process.exit(2);
}
const script = fileURLToPath(new URL(`../dist/server/${command}.js`, import.meta.url));
if (!existsSync(script)) {
  console.error("ravik: not built yet; run `npm run build` first");
  process.exit(2);
}
process.exit(spawnSync(process.execPath, [script, ...rest], { stdio: "inherit" }).status ?? 1);
