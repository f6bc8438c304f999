// @vitest-environment jsdom

import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter, useLocation } from "react-router";
import { afterEach, describe, expect, it } from "vitest";
import type { OwnerPage } from "../../../api/index.ts";
import { rigTemplates, synonyms, cards as texts, topics } from "../../../content/index.ts";
import { createCards } from "../../../core/card/index.ts";
import { regions } from "../../../core/region/index.ts";
import { listTopicsFor } from "../../../core/route/index.ts";
import { fillTopic } from "../../../core/topic/index.ts";
import { OwnerFind } from "./OwnerFind.tsx";

afterEach(cleanup);
const user = userEvent.setup();
const rig = rigTemplates["pipit-15"];
const told = listTopicsFor(rig, topics).map((topic) => fillTopic(topic, rig, regions.us));
const page = { delivery: { rig, topics: told }, synonyms } as unknown as OwnerPage;
const cards = createCards(texts, {
  rig,
  boatName: "Pipit 15",
  hull: "",
  store: "A yard",
  phone: "",
  breakInPacks: [],
  servicePacks: [],
  gear: new Map(),
  idiom: regions.us,
  emergency: regions.us.emergency,
});

function Address() {
  return <output>{useLocation().search}</output>;
}
const ask = async (words: string) => {
  render(
    <MemoryRouter>
      <OwnerFind page={page} cards={cards} />
      <Address />
    </MemoryRouter>,
  );
  await user.type(screen.getByLabelText("Ask about your boat"), words);
};
const links = () => screen.queryAllByRole("link").map(({ textContent }) => textContent!);

describe("an owner asks in their own words", () => {
  it.each([
    ["how do I flush it", /^Flush/],
    ["it wont start", /^It will not start/],
    ["life vests", /^Life jackets/],
    ["how do I hook up the trailer", /^Coupler/],
  ])("“%s” leads to %s, with its place", async (words, title) => {
    await ask(words);
    expect(
      links()
        .slice(0, 4)
        .some((text) => title.test(text)),
      links().join(" | "),
    ).toBe(true);
  });

  it("names the place of a thing, and keeps the words in the address for the way back", async () => {
    await ask("extinguisher");
    const part = rig.parts.find(({ kind }) => kind === "extinguisher")!;
    expect(screen.getByText(part.reach!, { exact: false })).toBeDefined();
    expect(screen.getByText("?q=extinguisher")).toBeDefined();
  });

  it("says so when nothing is found, and where to ask", async () => {
    await ask("xyzzy");
    expect(screen.getByText(/ask the yard below/)).toBeDefined();
  });
});
