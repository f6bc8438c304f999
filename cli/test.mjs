// `npm test`: install what is missing, then types, lint and build, then unit and browser tests. The first that fails ends it.
import { spawn, spawnSync } from "node:child_process";
import { existsSync } from "node:fs";
import { chooseBrowserDay, dayEnv } from "./chooseDay.mjs";
import { ensureInstalled, root, run } from "./ensureInstalled.mjs";
import { retryFlaky } from "./retryFlaky.mjs";

const startMs = performance.now();
/** Beside others, on the other core; resolved with whether it went well. */
const start = (command, args) =>
  new Promise((resolve) => {
    spawn(command, args, { cwd: root, stdio: "inherit" }).once("exit", (status) => resolve(status === 0));
  });
const endIfAnyFailed = async (started) => {
  const results = await Promise.all(started);
  if (results.includes(false)) process.exit(1);
};
const sayTime = (what) => console.log(`${what} after ${Math.round((performance.now() - startMs) / 1000)} s`);

// The browser that drives the screens, pdftotext, which reads the printed record back, and what `ravik install` puts before the
// server, with what tells a browser whom to trust: fetched while packages compile.
const tools = ["bin/chromium", "bin/pdftotext", "bin/openssl", "bin/certutil", "sbin/nginx"];
const packages = "chromium poppler-utils openssl libnss3-tools nginx";
const hasBrowser = tools.every((tool) => existsSync(`/usr/${tool}`));
const browser = hasBrowser ? [] : [start("sh", ["-c", `apt-get update -qq && apt-get install -y -qq ${packages}`])];
ensureInstalled();
await endIfAnyFailed(browser);
sayTime("Installed");
await endIfAnyFailed(["test:types", "test:lint", "build"].map((script) => start("npm", ["run", "-s", script])));
sayTime("Types, lint and build");
run("npm", ["run", "-s", "test:unit"]);
sayTime("Unit tests");
// One day by turns: today, or one of those on which something is different.
const commits = spawnSync("git", ["rev-list", "--count", "HEAD"], { cwd: root, encoding: "utf8" });
const day = chooseBrowserDay(Number(commits.stdout) || 0);
console.log(`Browser tests on ${day === null ? "today" : `${day.id}: ${day.what}, ${day.now} in ${day.zone}`}`);
const env = { ...process.env, ...(day === null ? {} : dayEnv(day)) };
retryFlaky(env);
run("npm", ["run", "-s", "test:e2e"], { env });
sayTime("Browser tests");
