// `npm run test:days [ID …]`: unit tests on each of the days, browser tests on those for the browser. All are tried, then it ends
// with 1 if any failed. `--unit`, `--browser`: these alone.
import { spawnSync } from "node:child_process";
import { dayEnv, testDays } from "./chooseDay.mjs";
import { root } from "./ensureInstalled.mjs";

const asked = process.argv.slice(2).filter((each) => !each.startsWith("--"));
const wants = (what) => process.argv.includes(`--${what}`) || !process.argv.some((each) => each.startsWith("--"));
const unknown = asked.filter((id) => !testDays.some((day) => day.id === id));
if (unknown.length > 0) {
  console.error(`No such day: ${unknown.join(", ")}. There are ${testDays.map(({ id }) => id).join(", ")}`);
  process.exit(1);
}
const days = testDays.filter(({ id }) => asked.length === 0 || asked.includes(id));
const failed = [];
const tryOn = (day, what, command, args) => {
  const startMs = performance.now();
  console.log(`\n${day.id}: ${day.what}, ${day.now} in ${day.zone}: ${what}`);
  const { status } = spawnSync(command, args, { cwd: root, stdio: "inherit", env: { ...process.env, ...dayEnv(day) } });
  console.log(
    `${day.id}: ${what} ${status === 0 ? "green" : "RED"}, ${Math.round((performance.now() - startMs) / 1000)} s`,
  );
  if (status !== 0) failed.push(`${day.id} (${what})`);
};
// Core reads no clock: lint and its tsconfig hold that, so its tests cannot tell one day from another.
if (wants("unit"))
  for (const day of days)
    tryOn(day, "unit tests", "npx", [
      "vitest",
      "run",
      "--silent",
      "--reporter=dot",
      "api",
      "content/",
      "server",
      "cli",
      "demo",
      "web",
    ]);
if (wants("browser"))
  for (const day of days.filter(({ isForBrowser }) => isForBrowser))
    tryOn(day, "browser tests", "npx", ["playwright", "test"]);
console.log(failed.length === 0 ? "\nGreen on every day." : `\nRed: ${failed.join(", ")}`);
process.exit(failed.length === 0 ? 0 : 1);
