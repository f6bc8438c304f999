import { readFileSync } from "node:fs";
import { expect, it } from "vitest";
import { listFormats } from "./listFormats.ts";

it.each(listFormats().map(({ file, text }) => [file, text] as const))(
  "docs/formats/%s is what the schema says now (else run npm run formats)",
  (file, text) => {
    const published = readFileSync(new URL(`../docs/formats/${file}`, import.meta.url), "utf8");
    expect(JSON.parse(published)).toEqual(JSON.parse(text));
    expect(published).toContain("$schema");
  },
);
