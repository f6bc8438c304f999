// `npm run dangers`: every sentence that ships with a word of danger in it, as each boat is told it, into docs/dangers.md: to be read
// from first to last by whoever changes content.
import { writeFileSync } from "node:fs";
import { printDangers } from "../content/dangers.ts";

writeFileSync(new URL("../docs/dangers.md", import.meta.url), printDangers());
