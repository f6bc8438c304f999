// @vitest-environment jsdom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, expect, it, vi } from "vitest";
import type { RestoredSheet } from "../../../api/index.ts";
import { queryClient } from "../../app/queries.ts";
import { answerWith, showScreen } from "../../testing/answerWith.tsx";
import { makeMe } from "../../testing/makeMe.ts";
import { setStoreZone } from "../../ui/storeTime.ts";
import { Restored } from "./Restored.tsx";

// Wherever the machine stands.
setStoreZone("UTC");

afterEach(() => {
  cleanup();
  queryClient.clear();
  vi.unstubAllGlobals();
});

const at = (text: string) => text as never;
const sheet: RestoredSheet = {
  why: "restored",
  at: at("2026-06-13T12:00:00.000Z"),
  of: at("2026-06-13T03:15:00.000Z"),
  released: null,
  jobs: [
    {
      id: "hello:w104",
      kind: "hello",
      boat: "w104",
      boatName: "Wending 23",
      dueAtMs: Date.parse("2026-06-13T10:00:00Z"),
    },
  ],
  messages: { waiting: 1, ready: 0 },
  missingPhotos: [
    {
      photo: "p1",
      delivery: "d-w118",
      boat: "w118",
      boatName: "Wending 19",
      topic: null,
      at: at("2026-06-13T09:00:00.000Z"),
      by: "Nessa Quill",
    },
  ],
};
const show = (restored: RestoredSheet | null) => {
  const asked = answerWith({
    me: () => makeMe({ role: "owner" }),
    restored: () => ({ restored }),
    giveUpPhotos: () => ({ restored: restored === null ? null : { ...restored, missingPhotos: [] } }),
    release: () => ({
      restored: { ...sheet, jobs: [], released: { at: at("2026-06-13T13:00:00.000Z"), by: "Odile" } },
    }),
  });
  showScreen([{ path: "/store", element: <Restored /> }], "/store");
  return asked;
};

it("says from when the store is, what waits and what is missing; what is due goes on only where the owner says so", async () => {
  const asked = show(sheet);
  const region = await screen.findByRole("region", { name: "Put back from a backup" });
  expect(region.textContent).toMatch(/put back to what it was on .*2026, 03:15/);
  expect(region.textContent).toContain(
    "1 message that the server writes by itself and 1 message that somebody wrote wait",
  );
  expect(screen.getByRole("list", { name: "What the server would write" }).textContent).toMatch(
    /First message.*Wending 23/,
  );
  expect(screen.getByRole("list", { name: "Missing photos" }).textContent).toContain(
    "Wending 19, taken by Nessa Quill",
  );
  await userEvent.setup().click(screen.getByRole("button", { name: "Go on, without those" }));
  expect(await screen.findByText(/Odile let jobs and messages go on/)).toBeTruthy();
  expect(asked.filter(({ name }) => name === "release").map(({ body }) => body)).toEqual([{ due: "leave-out" }]);
});

it("gives up photos only when it is said twice, and no longer lists them then", async () => {
  const asked = show(sheet);
  const user = userEvent.setup();
  await user.click(await screen.findByRole("button", { name: "Give them up" }));
  expect(asked.some(({ name }) => name === "giveUpPhotos")).toBe(false);
  await user.click(screen.getByRole("button", { name: "Give them up for good" }));
  await vi.waitFor(() => expect(screen.queryByRole("list", { name: "Missing photos" })).toBeNull());
  expect(asked.filter(({ name }) => name === "giveUpPhotos")).toHaveLength(1);
});

it("is nothing where the store was never put back, or all of it is settled", async () => {
  const asked = show(null);
  await vi.waitFor(() => expect(asked.length).toBeGreaterThan(0));
  expect(screen.queryByRole("region")).toBeNull();
  cleanup();
  queryClient.clear();
  const settled = show({ ...sheet, missingPhotos: [], released: { at: sheet.at, by: "Odile" } });
  await vi.waitFor(() => expect(settled.length).toBeGreaterThan(0));
  expect(screen.queryByRole("region")).toBeNull();
});
