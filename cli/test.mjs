// `npm test`: install what is missing, then types, lint and build, then unit and browser tests. The first that fails ends it.
import { spawn } from "node:child_process";
import { existsSync } from "node:fs";
import { ensureInstalled, root, run } from "./ensureInstalled.mjs";

/** Beside others, on the other core; resolved with whether it went well. */
const start = (command, args) =>
  new Promise((resolve) => {
    spawn(command, args, { cwd: root, stdio: "inherit" }).once("exit", (status) => resolve(status === 0));
  });
const endIfAnyFailed = async (started) => {
  const results = await Promise.all(started);
  if (results.includes(false)) process.exit(1);
};

// The browser that drives the screens, and pdftotext, which reads the printed record back: fetched while packages compile.
const hasBrowser = existsSync("/usr/bin/chromium") && existsSync("/usr/bin/pdftotext");
const browser = hasBrowser
  ? []
  : [start("sh", ["-c", "apt-get update -qq && apt-get install -y -qq chromium poppler-utils"])];
ensureInstalled();
await endIfAnyFailed(browser);
await endIfAnyFailed(["test:types", "test:lint", "build"].map((script) => start("npm", ["run", "-s", script])));
for (const script of ["test:unit", "test:e2e"]) run("npm", ["run", "-s", script]);
