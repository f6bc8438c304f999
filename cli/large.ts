import { existsSync } from "node:fs";
import { join } from "node:path";
import { makeLarge } from "./makeLarge.ts";

/** `npm run large -- 20000 FOLDER`: a store with so many boats and all their handovers, to see how Ravik does with it. */
const [boats, folder] = process.argv.slice(2);
const count = Number(boats);
if (!Number.isInteger(count) || count < 1 || folder === undefined) {
  console.error("large: expected how many boats and a folder, as in `npm run large -- 20000 .data/large`");
  process.exit(2);
}
if (existsSync(join(folder, "ravik.sqlite"))) {
  console.error(`large: there is a store in ${folder} already; it is left as it is`);
  process.exit(2);
}
const startMs = performance.now();
const entries = await makeLarge(count, folder, (made) => {
  if (process.stdout.isTTY) process.stdout.write(`\r${made.toLocaleString("en-GB")} boats `);
});
const tookS = Math.round((performance.now() - startMs) / 1000);
console.log(
  `${entries.toLocaleString("en-GB")} entries, made in ${tookS} s. Start it with RAVIK_DATA=${folder} npm start`,
);
