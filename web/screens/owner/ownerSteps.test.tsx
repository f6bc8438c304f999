// @vitest-environment jsdom
import { QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { afterEach, expect, it, vi } from "vitest";
import type { OwnerPage } from "../../../api/index.ts";
import { gearPacks, rigTemplates, sequences } from "../../../content/index.ts";
import { phraseBooks } from "../../../content/languages/index.ts";
import { queryClient } from "../../app/queries.ts";
import { answerWith, refuse } from "../../testing/answerWith.tsx";
import { BookContext } from "../../ui/tell.ts";
import OwnerSteps from "./OwnerSteps.tsx";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

it("are said in the language of whoever reads, whole, and so is what went wrong", async () => {
  queryClient.clear();
  answerWith({
    guides: () => ({ sequences, gearPacks, hasForecast: false }),
    addOwnerEntries: () => refuse("link-ended", { store: "Pellow & Marr", phone: "555 0142" }, 410),
  });
  const delivery = { id: "d-1", rig: rigTemplates["wending-23"], entries: [] };
  render(
    <BookContext value={phraseBooks.find(({ language }) => language === "fr")!}>
      <QueryClientProvider client={queryClient}>
        <MemoryRouter>
          <OwnerSteps token={"A".repeat(22)} page={{ delivery } as unknown as OwnerPage} sequence="hitch" />
        </MemoryRouter>
      </QueryClientProvider>
    </BookContext>,
  );
  expect(await screen.findByRole("heading", { level: 2, name: "Calez les roues de la remorque." })).toBeTruthy();
  expect(document.body.textContent).not.toMatch(/\b(the|and|with|of|not)\b/i);
  await userEvent.setup().click(screen.getByRole("button", { name: "Fait" }));
  expect((await screen.findByRole("alert")).textContent).toContain("Cette adresse est terminée");
});

it("a step that the yard does not take is said where it was entered, and does not stand as done", async () => {
  queryClient.clear();
  answerWith({
    guides: () => ({ sequences, gearPacks, hasForecast: false }),
    addOwnerEntries: () => refuse("link-ended", { store: "Pellow & Marr", phone: "555 0142" }, 410),
  });
  const delivery = { id: "d-1", rig: rigTemplates["wending-23"], entries: [] };
  render(
    <QueryClientProvider client={queryClient}>
      <MemoryRouter>
        <OwnerSteps token={"A".repeat(22)} page={{ delivery } as unknown as OwnerPage} sequence="launch" />
      </MemoryRouter>
    </QueryClientProvider>,
  );
  await userEvent.setup().click(await screen.findByRole("button", { name: "Done" }));
  expect((await screen.findByRole("alert")).textContent).toContain("This address has ended");
  expect(await screen.findByText(/^0 of \d+ steps done/)).toBeTruthy();
});
