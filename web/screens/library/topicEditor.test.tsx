// @vitest-environment jsdom
import { cleanup, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { LibrarySheet } from "../../../api/index.ts";
import { topics } from "../../../content/index.ts";
import { proposeMinutes } from "../../../core/route/index.ts";
import type { Topic } from "../../../core/topic/index.ts";
import { refuse } from "../../testing/answerWith.tsx";
import {
  edited,
  horn,
  ours,
  plain,
  serveLibrary as serve,
  showLibrary as show,
  user,
} from "../../testing/libraryStage.tsx";
import { formatConditionProblem } from "./formatConditionProblem.ts";

beforeEach(() => localStorage.clear());
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

/** A library that keeps what it is sent, as the server does. */
function answerLibrary(stored: { library: LibrarySheet }) {
  return serve(plain, {
    library: () => stored.library,
    setTopic: ({ body }) => {
      const topic = body as Topic;
      const others = stored.library.topics.filter(({ id }) => id !== topic.id);
      stored.library = { ...edited, topics: [...others, topic] };
      return { done: true };
    },
    revertTopic: () => {
      stored.library = plain;
      return { done: true };
    },
  });
}

describe("editing a topic", () => {
  it("previews what is typed, and sends it whole", async () => {
    const log = serve(plain, { setTopic: () => ({ done: true }) });
    show("/library/topic/horn");
    await user.click(await screen.findByRole("button", { name: "Edit this topic" }));
    await user.clear(screen.getByLabelText("Say"));
    await user.type(screen.getByLabelText("Say"), "One press.");
    expect(screen.getByRole("region", { name: "The topic as it is explained" }).textContent).toContain("One press.");
    await user.click(screen.getByRole("checkbox", { name: "Must: never left out" }));
    await user.clear(screen.getByLabelText("Cautions"));
    await user.type(screen.getByLabelText("Cautions"), "Ears.{Enter}Neighbours.");
    await user.click(screen.getByRole("button", { name: "Save" }));
    await waitFor(() => expect(screen.queryByRole("button", { name: "Save" })).toBeNull());
    expect(log.find(({ name }) => name === "setTopic")!.body).toEqual({
      ...horn,
      say: "One press.",
      must: true,
      cautions: ["Ears.", "Neighbours."],
      // Its minutes follow its words: they were the reckoned ones.
      minutes: proposeMinutes({ ...horn, say: "One press.", must: true, cautions: ["Ears.", "Neighbours."] }),
    });
  });

  it("keeps what was typed when the server refuses, and says why", async () => {
    serve(plain, { setTopic: () => refuse("cycle") });
    show("/library/topic/horn");
    await user.click(await screen.findByRole("button", { name: "Edit this topic" }));
    await user.clear(screen.getByLabelText("Title"));
    expect(screen.getByRole("alert").textContent).toContain("Must not be empty");
    await user.type(screen.getByLabelText("Title"), "Horn, ours");
    await user.click(screen.getByRole("button", { name: "Save" }));
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
    expect(await screen.findByText(/original has changed since/)).toBeDefined();
    await user.click(screen.getByRole("button", { name: "Compare with the original" }));
    const row = screen.getByRole("row", { name: /^Say/ });
    expect(within(row).getByText(ours.say)).toBeDefined();
    expect(within(row).getByText(horn.say)).toBeDefined();
    expect(screen.getAllByRole("row")).toHaveLength(2);
    await user.click(screen.getByRole("button", { name: "Back to the original" }));
    expect(log.find(({ name }) => name === "revertTopic")!.params).toEqual({ topic: "horn" });
  });

  it("is one touch away again after it was taken back", async () => {
    const stored = { library: edited };
    const log = answerLibrary(stored);
    show("/library/topic/horn");
    await user.click(await screen.findByRole("button", { name: "Back to the original" }));
    await user.click(await screen.findByRole("button", { name: "Undo: back to our wording" }));
    expect(await screen.findByText(/Our wording, by Odile/)).toBeDefined();
    expect(log.find(({ name }) => name === "setTopic")!.body).toEqual(ours);
    expect(screen.queryByText(/This is the original again/)).toBeNull();
  });

  it("of a topic that was merged waits beside the merged one, until it is put away", async () => {
    const winch = topics.find(({ id }) => id === "winch")!;
    const old = { ...winch, id: "winch-handle", title: "Winch handle", say: "Ours: never let go." };
    const edit = {
      ...edited.edits[0]!,
      topic: "winch-handle",
      shipped: winch,
      basis: { ...old, say: "Never let go." },
    };
    const log = serve({ ...plain, edits: [{ ...edit, setAside: old }] }, { revertTopic: () => ({ done: true }) });
    show("/library/topic/winch");
    const aside = await screen.findByRole("region", { name: "Our wording of Winch handle" });
    const row = within(aside).getByRole("row", { name: /^Say/ });
    for (const text of ["Never let go.", winch.say, "Ours: never let go."])
      expect(within(row).getByText(text)).toBeDefined();
    expect(screen.getByText(/1 wording of ours is older/)).toBeDefined();
    await user.click(within(aside).getByRole("button", { name: "Put our old wording away" }));
    expect(log.find(({ name }) => name === "revertTopic")!.params).toEqual({ topic: "winch-handle" });
  });

  it("says why a topic of the store's own cannot go yet", async () => {
    const own = { ...edited, edits: [{ ...edited.edits[0]!, shipped: null }] };
    serve(own, { revertTopic: () => refuse("topic-needed", { neededBy: "Docking" }) });
    show("/library/topic/horn");
    await user.click(await screen.findByRole("button", { name: "Remove this topic" }));
    await user.click(screen.getByRole("button", { name: "Remove it" }));
    expect((await screen.findByRole("alert")).textContent).toContain('"Docking" comes after this topic');
  });
});

describe("a new topic", () => {
  // Pasted, not typed: a whole page is drawn anew for every letter.
  const write = async (label: string, text: string) => {
    await user.click(screen.getByLabelText(label));
    await user.paste(text);
  };

  it("is made on the screen: words, the boats it is for, its place, and the minutes that follow", async () => {
    const log = answerLibrary({ library: plain });
    show("/library");
    await user.click(await screen.findByRole("link", { name: "New topic" }));
    const save = () => screen.getByRole<HTMLButtonElement>("button", { name: "Save" });
    expect(save().disabled).toBe(true);
    expect(screen.getByText(/^Before it can be saved: the title, /)).toBeDefined();
    await write("Title", "Ice box: drain it after the trip");
    await write("Say", "Open the drain when you are home. The drain is ");
    await user.selectOptions(screen.getByLabelText("Put a place into: Say"), "where the livewell is");
    await write("Show", "Open it and close it.");
    await write("They do", "Close it.");
    await write("What goes wrong", "It smells: it stayed shut.");
    await write("Why it matters", "Water that stands smells.");
    await user.click(screen.getByRole("button", { name: "Only some boats" }));
    await user.selectOptions(screen.getByLabelText("Line 1"), "have a livewell");
    await user.click(screen.getByRole("button", { name: "And also" }));
    await user.selectOptions(screen.getByLabelText("Line 2"), "are on a trailer");
    await user.click(screen.getByRole("button", { name: "Line 2: or" }));
    await user.selectOptions(screen.getByLabelText("Line 2, way 2"), "are new");
    expect(screen.getByRole("status", { name: "Which boats, in words" }).textContent).toBe(
      "Boats that have a livewell, and are on a trailer or are new.",
    );
    expect(screen.getByRole("region", { name: "The topic as it is explained" }).textContent).toContain("The drain is");
    await user.selectOptions(screen.getByLabelText("About which thing"), "Livewell");
    await user.click(save());
    expect(await screen.findByRole("button", { name: "Edit this topic" })).toBeDefined();
    const sent = log.find(({ name }) => name === "setTopic")!.body as Topic;
    expect(sent).toMatchObject({
      id: "ice-box-drain-it-after-the-trip",
      of: "livewell",
      say: "Open the drain when you are home. The drain is {at:livewell}",
      when: {
        all: [
          { has: "livewell" },
          { any: [{ not: { equals: "trailer", value: null } }, { equals: "used", value: null }] },
        ],
      },
    });
    expect(sent.minutes).toBe(proposeMinutes(sent));
    expect(localStorage.getItem("ravik-topic-draft-*new*")).toBeNull();
  });

  it("is still there after another page was looked at, and gone when it was cancelled", async () => {
    serve();
    show("/library/new");
    await screen.findByLabelText("Title");
    await write("Title", "Half a thought");
    cleanup();
    show("/library/new");
    expect((await screen.findByLabelText<HTMLInputElement>("Title")).value).toBe("Half a thought");
    await user.click(screen.getByRole("button", { name: "Cancel" }));
    cleanup();
    show("/library/new");
    expect((await screen.findByLabelText<HTMLInputElement>("Title")).value).toBe("");
  });

  it("is not offered to those who may not write", async () => {
    serve();
    show("/library/new", "technician");
    await screen.findByLabelText("Find a topic");
    expect(screen.queryByRole("link", { name: "New topic" })).toBeNull();
    expect(screen.queryByLabelText("Title")).toBeNull();
  });
});

describe("the minutes of a topic", () => {
  it("follow words and level until somebody sets them, and can be taken back to the proposal", async () => {
    serve();
    show("/library/topic/horn");
    await user.click(await screen.findByRole("button", { name: "Edit this topic" }));
    const takes = () => Number(screen.getByLabelText<HTMLInputElement>("Takes").value);
    await user.selectOptions(screen.getByLabelText("Taken as far as"), "explained");
    expect(takes()).toBe(proposeMinutes({ ...horn, level: "told" }));
    await user.clear(screen.getByLabelText("Takes"));
    await user.type(screen.getByLabelText("Takes"), "4");
    await user.selectOptions(screen.getByLabelText("Taken as far as"), "done by them");
    expect(takes()).toBe(4);
    await user.click(screen.getByRole("button", { name: "Use the proposed minutes" }));
    expect(takes()).toBe(proposeMinutes(horn));
  });
});
