// `npm run dev`: the server on the demo store, restarted on change, and Vite with hot reload in front of it.
import { spawn } from "node:child_process";
import { ensureInstalled, root } from "./ensureInstalled.mjs";

ensureInstalled();
const options = { cwd: root, stdio: "inherit" };
const children = [
  spawn(process.execPath, ["node_modules/tsx/dist/cli.mjs", "watch", "cli/demoServer.ts"], options),
  spawn(process.execPath, ["node_modules/vite/bin/vite.js", "--config", "web/vite.config.ts"], options),
];
for (const child of children) child.on("exit", () => children.forEach((other) => void other.kill()));
