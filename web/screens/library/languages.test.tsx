// @vitest-environment jsdom
import { cleanup, screen, within } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { cards } from "../../../content/index.ts";
import { phraseBooks } from "../../../content/languages/index.ts";
import { refuse } from "../../testing/answerWith.tsx";
import { plain, serveLibrary as serve, showLibrary as show, user } from "../../testing/libraryStage.tsx";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const sheet = {
  books: [...phraseBooks],
  own: {},
  cards,
  places: ["Beside the tiller", "Under the floor hatch"],
  labels: ["Drain plug"],
  says: ["Nothing runs"],
};

describe("the languages of the library", () => {
  it("say how much of each part has words, and what is missing", async () => {
    serve(plain, { languages: () => sheet });
    show("/library/languages");
    expect(await screen.findByRole("button", { name: /Topics that are musts (\d+) of \1/ })).not.toBeNull();
    await user.click(screen.getByRole("button", { name: /Places on the boats 1 of 2/ }));
    await user.click(screen.getByRole("button", { name: "Only what is missing" }));
    expect(screen.getByText("Beside the tiller")).not.toBeNull();
    expect(screen.queryByText("Under the floor hatch")).toBeNull();
  });

  it("keep words where they were typed, and say why some are refused", async () => {
    const log = serve(plain, {
      languages: () => sheet,
      setPhrase: ({ body }) =>
        (body as { words: string }).words.includes("{")
          ? refuse("braces-differ", { wanted: [], got: ["at:horn"] })
          : { done: true },
    });
    show("/library/languages?part=places");
    const field = await screen.findByRole("textbox", { name: "Français: Beside the tiller" });
    const line = within(field.closest("li")!);
    expect(line.getByText("Stays English.")).not.toBeNull();
    await user.type(field, "à côté de la barre {{at:horn}");
    await user.click(line.getByRole("button", { name: "Save" }));
    expect(await line.findByText(/There are braces in it/)).not.toBeNull();
    await user.clear(field);
    await user.type(field, "à côté de la barre franche");
    await user.click(line.getByRole("button", { name: "Save" }));
    expect(log.filter(({ name }) => name === "setPhrase").at(-1)!.body).toEqual({
      kind: "places",
      text: "Beside the tiller",
      words: "à côté de la barre franche",
    });
  });

  it("are read, not written, by whoever does not write the library", async () => {
    serve(plain, { languages: () => sheet });
    show("/library/languages?part=places", "sales");
    const field = await screen.findByRole("textbox", { name: "Français: Beside the tiller" });
    expect((field as HTMLTextAreaElement).readOnly).toBe(true);
  });
});
