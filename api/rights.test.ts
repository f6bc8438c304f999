import { expect, it } from "vitest";
import type { Endpoint } from "./endpoint.ts";
import { type EndpointName, endpoints } from "./endpoints/index.ts";
import { listRights, listRightsOf } from "./rights.ts";

const all = Object.entries(endpoints) as [EndpointName, Endpoint][];
/** What is changed, and what not everybody may read. */
const limited = all.filter(
  ([, { method, admits }]) => admits !== "public" && (method !== "GET" || admits.length < endpoints.me.admits.length),
);

it("say every thing that is changed or not everybody's to read, once", () => {
  expect(listRightsOf().flat().toSorted()).toEqual(limited.map(([name]) => name).toSorted());
});

it("put into one line only what the same people may", () => {
  const uneven = listRightsOf().filter(
    (line) => new Set(line.map((name) => JSON.stringify([...endpoints[name].admits].sort()))).size > 1,
  );
  expect(uneven).toEqual([]);
});

it("are said in words of people, not of programs", () => {
  for (const { what } of listRights().flatMap(({ rights }) => rights))
    expect(what).not.toMatch(/\bnull\b|ravik\.|all or none|\bids?\b|JSON|CSV|endpoint/i);
});
