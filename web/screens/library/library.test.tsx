// @vitest-environment jsdom
import { cleanup, screen, waitFor, within } from "@testing-library/react";
import "../../testing/fileText.ts";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { LibrarySheet, TemplateLine } from "../../../api/index.ts";
import { glossary, rigTemplates, synonyms, topics } from "../../../content/index.ts";
import { answerWith, refuse, showScreen } from "../../testing/answerWith.tsx";
import { formatConditionProblem } from "./formatConditionProblem.ts";
import { GlossaryScreen } from "./GlossaryScreen.tsx";
import { LibraryScreen } from "./LibraryScreen.tsx";
import { SchoolsScreen } from "./SchoolsScreen.tsx";
import { StylesScreen } from "./StylesScreen.tsx";
import { TemplatesScreen } from "./TemplatesScreen.tsx";

const lines: TemplateLine[] = Object.entries(rigTemplates).map(([id, { maker, model, family, loaM, beamM }]) => ({
  id,
  name: model,
  maker,
  model,
  family,
  loaM,
  beamM,
  isShipped: id !== "sedge-18",
}));
const plain: LibrarySheet = {
  topics: [...topics],
  edits: [],
  schools: {},
  ownStyles: [],
  minutesOf: { horn: 1.26 },
  forgotten: { horn: { late: 3, calls: 2 } },
};
const horn = topics.find(({ id }) => id === "horn")!;
const ours = { ...horn, say: "Ours: one press, and look who turns round." };
const edited: LibrarySheet = {
  ...plain,
  topics: topics.map((topic) => (topic.id === "horn" ? ours : topic)),
  edits: [
    {
      topic: "horn",
      by: "Odile",
      at: "2026-05-02T08:00:00.000Z",
      shipped: horn,
      isBehind: true,
      basis: null,
      setAside: null,
    },
  ],
};

const pages = [
  { path: "/library", element: <LibraryScreen /> },
  { path: "/library/topic/:topic", element: <LibraryScreen /> },
  { path: "/library/schools", element: <SchoolsScreen /> },
  { path: "/library/styles", element: <StylesScreen /> },
  { path: "/library/templates", element: <TemplatesScreen /> },
  { path: "/library/glossary", element: <GlossaryScreen /> },
];
const serve = (library: LibrarySheet = plain, more: Parameters<typeof answerWith>[0] = {}) =>
  answerWith({
    library: () => library,
    templates: () => ({ templates: lines }),
    template: ({ params }) => {
      const line = lines.find(({ id }) => id === params.template)!;
      return { ...line, rig: rigTemplates[line.id as "sedge-18"] };
    },
    boats: () => ({ boats: [], boatsFound: 0, boatsInAll: 0 }),
    glossary: () => ({ synonyms, entries: glossary }),
    ...more,
  });
const show = (at: string, role?: string) => showScreen(pages, at, role);
const user = userEvent.setup();
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
    expect((await screen.findByText(/^Told on the/)).parentElement!.textContent).toContain("Told on the Wending 23");
    const reading = screen.getByRole("region", { name: "The topic as it is told" });
    expect(readText(reading)).toContain("bracket under the helm seat");
    await user.selectOptions(screen.getByLabelText("Read on this boat"), "template:haldern-25");
    await waitFor(() => expect(readText(reading)).toContain("inside the cabin door"));
    expect(localStorage.getItem("ravik-library-boat")).toBe("template:haldern-25");
  });

  it("says which boat it is not told on, and why", async () => {
    serve();
    show("/library/topic/galley");
    expect((await screen.findByText(/^Not told on the/)).parentElement!.textContent).toContain("there is no galley");
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
    expect(screen.getByText(/Often left out here/).textContent).toContain("3 times, rang about 2 times");
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

describe("editing a topic", () => {
  it("previews what is typed, and sends it whole", async () => {
    const log = serve(plain, { setTopic: () => ({ done: true }) });
    show("/library/topic/horn");
    await user.click(await screen.findByRole("button", { name: "Edit this topic" }));
    await user.clear(screen.getByLabelText("Say"));
    await user.type(screen.getByLabelText("Say"), "One press.");
    expect(screen.getByRole("region", { name: "The topic as it is told" }).textContent).toContain("One press.");
    await user.click(screen.getByRole("checkbox", { name: "Must: never left out" }));
    await user.clear(screen.getByLabelText("Cautions"));
    await user.type(screen.getByLabelText("Cautions"), "Ears.{Enter}Neighbours.");
    await user.click(screen.getByRole("button", { name: "Save our wording" }));
    await waitFor(() => expect(screen.queryByRole("button", { name: "Save our wording" })).toBeNull());
    expect(log.find(({ name }) => name === "setTopic")!.body).toEqual({
      ...horn,
      say: "One press.",
      must: true,
      cautions: ["Ears.", "Neighbours."],
    });
  });

  it("keeps what was typed when the server refuses, and says why", async () => {
    serve(plain, { setTopic: () => refuse("cycle") });
    show("/library/topic/horn");
    await user.click(await screen.findByRole("button", { name: "Edit this topic" }));
    await user.clear(screen.getByLabelText("Title"));
    expect(screen.getByRole("alert").textContent).toContain("Must not be empty");
    await user.type(screen.getByLabelText("Title"), "Horn, ours");
    await user.click(screen.getByRole("button", { name: "Save our wording" }));
    expect((await screen.findByRole("alert")).textContent).toContain("wait for each other in a circle");
    expect((screen.getByLabelText("Title") as HTMLInputElement).value).toBe("Horn, ours");
    await user.click(screen.getByRole("button", { name: "Cancel" }));
    expect(screen.getByRole("heading", { level: 2, name: horn.title })).toBeDefined();
  });

  it("takes each school's words apart", async () => {
    serve();
    const topic = topics.find(({ schools }) => schools !== undefined)!;
    show(`/library/topic/${topic.id}`);
    await user.click(await screen.findByRole("button", { name: "Edit this topic" }));
    for (const { name, say } of topic.schools!)
      expect((screen.getByLabelText(`Say, as “${name}”`) as HTMLTextAreaElement).value).toBe(say);
  });

  it("is not offered to those who may not", async () => {
    serve(edited);
    show("/library/topic/horn", "technician");
    expect(await screen.findByText(/Our wording, by Odile/)).toBeDefined();
    expect(screen.queryByRole("button", { name: "Edit this topic" })).toBeNull();
    expect(screen.queryByRole("button", { name: "Back to the original" })).toBeNull();
  });

  it.each([
    ['{"has":"windlass"}', null],
    ['{"any":[{"has":"head"},{"not":{"has":"galley"}}]}', null],
    ['{"has":"windlass"', "This is not JSON yet: check quotes and brackets."],
    ['{"has":"wings"}', expect.stringContaining("No such question")],
    ["[]", expect.stringContaining("No such question")],
  ])("a condition typed as %s is answered with %j", (typed, said) =>
    expect(formatConditionProblem(typed)).toEqual(said),
  );
});

describe("our wording against the shipped", () => {
  it("is set side by side, marked as behind, and taken back", async () => {
    const log = serve(edited, { revertTopic: () => ({ done: true }) });
    show("/library/topic/horn");
    expect(await screen.findByText(/shipped text has changed since/)).toBeDefined();
    await user.click(screen.getByRole("button", { name: "Compare with the original" }));
    const row = screen.getByRole("row", { name: /^say/ });
    expect(within(row).getByText(ours.say)).toBeDefined();
    expect(within(row).getByText(horn.say)).toBeDefined();
    expect(screen.getAllByRole("row")).toHaveLength(2);
    await user.click(screen.getByRole("button", { name: "Back to the original" }));
    expect(log.find(({ name }) => name === "revertTopic")!.params).toEqual({ topic: "horn" });
  });

  it("says why a topic of the store's own cannot go yet", async () => {
    const own = { ...edited, edits: [{ ...edited.edits[0]!, shipped: null }] };
    serve(own, { revertTopic: () => refuse("topic-needed", { neededBy: "Docking" }) });
    show("/library/topic/horn");
    await user.click(await screen.findByRole("button", { name: "Remove this topic" }));
    expect((await screen.findByRole("alert")).textContent).toContain('"Docking" comes after this topic');
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
  });
});

describe("templates", () => {
  it("that ship stay, the store's own can be removed, and one can come in from a file", async () => {
    const log = serve(plain, { removeTemplate: () => ({ done: true }), setTemplate: () => ({ done: true }) });
    show("/library/templates");
    expect(await screen.findAllByText("ships with Ravik")).toHaveLength(lines.length - 1);
    await user.click(screen.getByRole("button", { name: "Remove" }));
    expect(log.find(({ name }) => name === "removeTemplate")!.params).toEqual({ template: "sedge-18" });
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
