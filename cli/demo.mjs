// `npm run demo`: install if needed, build if needed, make the demo store if there is none, serve.
import { spawn } from "node:child_process";
import { existsSync, readdirSync, statSync } from "node:fs";
import { ensureInstalled, root, run } from "./ensureInstalled.mjs";

const parts = ["web", "server", "api", "core", "content", "demo", "cli/demoServer.ts"];

function newest(path) {
  const stat = statSync(path);
  if (!stat.isDirectory()) return stat.mtimeMs;
  return Math.max(0, ...readdirSync(path).map((name) => newest(`${path}/${name}`)));
}

ensureInstalled();
const built = `${root}dist/server/demo.js`;
if (!existsSync(built) || statSync(built).mtimeMs < Math.max(...parts.map((part) => newest(root + part)))) {
  run("npm", ["run", "-s", "build"]);
}
const server = spawn(process.execPath, ["dist/server/demo.js"], { cwd: root, stdio: "inherit" });
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => server.kill(signal));
server.on("exit", (code) => process.exit(code ?? 0));
