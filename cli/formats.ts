import { writeFileSync } from "node:fs";
import { listFormats } from "./listFormats.ts";

/** `npm run formats`: writes the published JSON Schemas of docs/formats anew from the schemas of core. */
for (const { file, text } of listFormats()) writeFileSync(new URL(`../docs/formats/${file}`, import.meta.url), text);
