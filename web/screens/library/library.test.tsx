// @vitest-environment jsdom
import { cleanup, screen, waitFor, within } from "@testing-library/react";
import "../../testing/fileText.ts";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { glossary, rigTemplates, synonyms, topics } from "../../../content/index.ts";
import {
  edited,
  horn,
  lines,
  plain,
  serveLibrary as serve,
  showLibrary as show,
  user,
} from "../../testing/libraryStage.tsx";

/** What is read: without the meanings that open on a touch. */
const readText = (element: HTMLElement) => {
  const copy = element.cloneNode(true) as HTMLElement;
  for (const meaning of copy.querySelectorAll("[popover]")) meaning.remove();
  return copy.textContent;
};

beforeEach(() => localStorage.clear());
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

describe("reading a topic", () => {
  it("shows it as it is told on the boat chosen, with why it is here", async () => {
    serve();
    show("/library/topic/extinguisher");
    expect((await screen.findByText(/^Part of the walk on the/)).parentElement!.textContent).toContain(
      "Part of the walk on the Wending 23",
    );
    const reading = screen.getByRole("region", { name: "The topic as it is explained" });
    expect(readText(reading)).toContain("bracket under the helm seat");
    await user.selectOptions(screen.getByLabelText("Read on this boat"), "template:haldern-25");
    await waitFor(() => expect(readText(reading)).toContain("inside the cabin door"));
    expect(localStorage.getItem("ravik-library-boat")).toBe("template:haldern-25");
  });

  it("says which boat it is not told on, and why", async () => {
    serve();
    show("/library/topic/galley");
    expect((await screen.findByText(/^Not on the/)).parentElement!.textContent).toContain("it has no stove");
  });

  it("explains a trade word where it is met", async () => {
    serve();
    show("/library/topic/drain-plug");
    const word = await screen.findByRole("button", { name: "transom" });
    expect(document.getElementById(word.getAttribute("popovertarget")!)!.textContent).toContain("back of the hull");
  });

  it("says what this store takes for it, where that differs", async () => {
    serve();
    show("/library/topic/horn");
    expect(await screen.findByText(/1.3 min as we take it/)).toBeDefined();
    expect(screen.getByText(/Often left out here/).textContent).toContain("3 times, called about 2 times");
  });
});

describe("finding", () => {
  it("counts what fits, and offers a way out when nothing does", async () => {
    serve();
    show("/library");
    const field = await screen.findByLabelText("Find a topic");
    await waitFor(() =>
      expect(screen.getByText(new RegExp(`of ${topics.length} topics`)).textContent).not.toContain(
        `${topics.length} of ${topics.length}`,
      ),
    );
    await user.click(screen.getByRole("checkbox", { name: "only what it has" }));
    expect(screen.getByText(`${topics.length} of ${topics.length} topics`)).toBeDefined();
    await user.click(screen.getByRole("button", { name: "Water" }));
    const water = topics.filter(({ system }) => system === "water").length;
    expect(screen.getByText(`${water} of ${topics.length} topics`)).toBeDefined();
    await user.type(field, "xyzzy");
    expect(screen.getByText(/Nothing fits/)).toBeDefined();
  });

  it("can keep to the store's own wording", async () => {
    serve(edited);
    show("/library");
    await user.click(await screen.findByRole("checkbox", { name: "only our wording" }));
    expect(screen.getByText(`1 of ${topics.length} topics`)).toBeDefined();
  });
});

describe("topics in a file", () => {
  const give = (text: string) =>
    user.upload(
      screen.getByLabelText("Read topics from a file"),
      new File([text], "t.json", { type: "application/json" }),
    );

  it("are taken in, or refused with what is wrong", async () => {
    const log = serve(plain, { importTopics: () => ({ changed: 1, same: 2 }) });
    show("/library");
    await screen.findByLabelText("Find a topic");
    await give("no json");
    expect((await screen.findByText(/The file is not JSON/)).textContent).toContain("Not taken");
    await give(JSON.stringify({ format: "ravik.topics/1", topics: [{ ...horn, minutes: 99 }] }));
    expect((await screen.findByText(/topics.0.minutes/)).textContent).toContain("Not taken");
    await give(JSON.stringify({ format: "ravik.topics/1", topics: [horn] }));
    expect((await screen.findByText(/1 changed, 2 the same already/)).textContent).toBeTruthy();
    expect(log.filter(({ name }) => name === "importTopics").map(({ body }) => body)).toEqual([{ topics: [horn] }]);
  });
});

describe("schools", () => {
  it("are picked one a topic, beside those picked before", async () => {
    const [first, second] = topics.filter(({ schools }) => schools !== undefined);
    const before = { [first!.id]: first!.schools![1]!.id };
    const log = serve({ ...plain, schools: before }, { setSchools: () => ({ done: true }) });
    show("/library/schools");
    const group = await screen.findByRole("group", { name: first!.title });
    expect(
      within(group).getByRole<HTMLInputElement>("radio", { name: new RegExp(first!.schools![1]!.name) }).checked,
    ).toBe(true);
    const other = screen.getByRole("group", { name: second!.title });
    await user.click(within(other).getByRole("radio", { name: new RegExp(second!.schools![1]!.name) }));
    expect(log.find(({ name }) => name === "setSchools")!.body).toEqual({
      schools: { ...before, [second!.id]: second!.schools![1]!.id },
    });
  });

  it("can be read by all and picked by some", async () => {
    serve();
    show("/library/schools", "technician");
    const [radio] = await screen.findAllByRole("radio");
    expect(radio!.closest("fieldset")!.disabled).toBe(true);
  });
});

describe("route styles", () => {
  it("of the store's own are made, said in a line, changed and removed", async () => {
    const own = {
      id: "own-x",
      name: "Ours",
      start: null,
      end: null,
      sweep: "none",
      trailer: "last",
      systems: [],
    } as const;
    const log = serve({ ...plain, ownStyles: [{ ...own, systems: [] }] }, { setStyles: () => ({ done: true }) });
    show("/library/styles");
    await user.click(await screen.findByRole("button", { name: "Change" }));
    await user.selectOptions(screen.getByLabelText("Goes"), "stern-to-bow");
    const form = screen.getByRole("region", { name: "A style of our own" });
    expect(form.textContent).toContain("stern to bow");
    await user.click(screen.getByRole("button", { name: "Save the style" }));
    expect(log.at(-2)!.name === "setStyles" || log.at(-1)!.name === "setStyles").toBe(true);
    const sent = () => log.findLast(({ name }) => name === "setStyles")!.body as { styles: (typeof own)[] };
    expect(sent().styles).toEqual([{ ...own, sweep: "stern-to-bow" }]);
    await waitFor(() => expect(screen.queryByRole("region", { name: "A style of our own" })).toBeNull());
    await user.click(screen.getByRole("button", { name: "Make a style of our own" }));
    await user.type(screen.getByLabelText("Name"), "Ours");
    await user.click(screen.getByRole("button", { name: "Save the style" }));
    await waitFor(() => expect(sent().styles.map(({ id }) => id)).toEqual(["own-x", "own-ours"]));
    await user.click(await screen.findByRole("button", { name: "Remove" }));
    await waitFor(() => expect(sent().styles).toEqual([]));
    // What vanished can be brought back from where it stood.
    await screen.findByText(/^The style Ours was taken away/);
    await user.click(screen.getByRole("button", { name: "Undo" }));
    await waitFor(() => expect(sent().styles.map(({ id }) => id)).toContain("own-x"));
    await waitFor(() => expect(screen.queryByText(/was taken away/)).toBeNull());
  });
});

describe("templates", () => {
  it("that ship stay, the store's own can be removed, and one can come in from a file", async () => {
    const kept = rigTemplates["sedge-18"];
    const log = serve(plain, {
      removeTemplate: () => ({ done: true }),
      setTemplate: () => ({ done: true }),
      template: () => ({ ...lines.find(({ id }) => id === "sedge-18")!, rig: kept }),
    });
    show("/library/templates");
    expect(await screen.findAllByText("ships with Ravik")).toHaveLength(lines.length - 1);
    await user.click(screen.getByRole("button", { name: "Remove" }));
    await user.click(await screen.findByRole("button", { name: "Undo" }));
    expect(log.find(({ name }) => name === "removeTemplate")!.params).toEqual({ template: "sedge-18" });
    await waitFor(() => expect(log.findLast(({ name }) => name === "setTemplate")!.body).toMatchObject({ rig: kept }));
    log.length = 0;
    const rig = rigTemplates["pipit-15"];
    const give = (value: unknown) =>
      user.upload(
        screen.getByLabelText("Read a template from a file"),
        new File([JSON.stringify(value)], "r.json", { type: "application/json" }),
      );
    await give({ ...rig, beamM: 40 });
    expect((await screen.findByRole("alert")).textContent).toContain("beamM");
    await give(rig);
    await waitFor(() => expect(log.find(({ name }) => name === "setTemplate")).toBeDefined());
    expect(log.find(({ name }) => name === "setTemplate")).toMatchObject({
      params: { template: "pipit-15-from-a-file" },
      body: { name: "Pipit 15, from a file" },
    });
    expect(await screen.findByText("r.json was read and stands among the templates below.")).toBeTruthy();
  });
});

describe("the glossary", () => {
  it("is searched by word, other forms and meaning", async () => {
    serve();
    show("/library/glossary");
    await user.type(await screen.findByLabelText("Find a word"), "telltale");
    expect(screen.getAllByRole("term").map(({ textContent }) => textContent)).toEqual([
      "tell-tale, telltale, cooling water stream",
    ]);
    await user.clear(screen.getByLabelText("Find a word"));
    await user.type(screen.getByLabelText("Find a word"), "qqq");
    expect(screen.getByText(/No such word yet/)).toBeDefined();
  });
});

describe("the glossary of this store", () => {
  const word = glossary[0]!;
  const own = { ...word, means: "In our words." };

  it("takes other words for a term, leaves one out, and adds one, each sent as it is", async () => {
    const log = serve(plain, { setWord: () => ({ done: true }) });
    show("/library/glossary");
    await user.click(await screen.findByRole("button", { name: `Edit: ${word.term}` }));
    await user.clear(screen.getByLabelText("What it means"));
    await user.type(screen.getByLabelText("What it means"), "In our words.");
    await user.click(screen.getByRole("button", { name: "Save" }));
    await user.click(await screen.findByRole("button", { name: `Leave it out: ${glossary[1]!.term}` }));
    await user.click(screen.getByRole("button", { name: "New word" }));
    await user.type(screen.getByLabelText("Word"), "gunwale pad");
    await user.type(screen.getByLabelText("Other forms"), "pad, bolster");
    await user.type(screen.getByLabelText("What it means"), "A cushion along the side.");
    await user.click(screen.getByRole("button", { name: "Save" }));
    expect(log.filter(({ name }) => name === "setWord").map(({ body }) => body)).toEqual([
      { key: word.term, entry: own },
      { key: glossary[1]!.term, entry: null },
      {
        key: "gunwale pad",
        entry: { term: "gunwale pad", also: ["pad", "bolster"], means: "A cushion along the side." },
      },
    ]);
  });

  it("shows what ships beside ours, and goes back to it; what is left out can be put back", async () => {
    const ours = [{ key: word.term, term: own.term, original: word }];
    const log = serve(plain, {
      glossary: () => ({ synonyms, entries: [own], told: [], ours, leftOut: [glossary[1]!] }),
      setWord: () => ({ done: true }),
    });
    show("/library/glossary");
    expect((await screen.findByText(/Original: /)).textContent).toContain(word.means);
    await user.click(screen.getByRole("button", { name: `Back to the original: ${word.term}` }));
    await user.click(screen.getByRole("button", { name: `Put it back: ${glossary[1]!.term}` }));
    expect(log.filter(({ name }) => name === "setWord").map(({ body }) => body)).toEqual([
      { key: word.term },
      { key: glossary[1]!.term },
    ]);
  });
});
