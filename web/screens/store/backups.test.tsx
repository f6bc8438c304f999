// @vitest-environment jsdom
import { cleanup, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, expect, it, vi } from "vitest";
import type { BackupSheet } from "../../../api/index.ts";
import { queryClient } from "../../app/queries.ts";
import { answerWith, showScreen } from "../../testing/answerWith.tsx";
import { setStoreZone } from "../../ui/storeTime.ts";
import { Backups } from "./Backups.tsx";

// Wherever the machine stands.
setStoreZone("UTC");

afterEach(() => {
  cleanup();
  queryClient.clear();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const made = (at: string) => ({ name: at, at: at as never, bytes: 3_700_000, boats: 130, entries: 946, hasKey: false });
const sheet: BackupSheet = {
  folder: "/backup",
  isSameDisk: false,
  isRunning: false,
  failed: null,
  backups: [made("2026-06-13T03:15:00.000Z"), made("2026-06-12T03:15:00.000Z")],
};
const show = (backups: BackupSheet, then: BackupSheet = backups) => {
  let isBegun = false;
  const asked = answerWith({
    backups: () => (isBegun ? then : backups),
    backUp: () => {
      isBegun = true;
      return { ...backups, isRunning: true };
    },
  });
  showScreen([{ path: "/store", element: <Backups /> }], "/store");
  return asked;
};

it("says when the last one was made and that it was checked, and makes one by a touch", async () => {
  vi.useFakeTimers({ toFake: ["Date"], now: Date.parse("2026-06-16T12:00:00.000Z") });
  const now = { ...made("2026-06-13T14:40:00.000Z"), boats: 131, entries: 977 };
  const asked = show(sheet, { ...sheet, backups: [now, ...sheet.backups] });
  const section = await screen.findByRole("region", { name: "Backup" });
  await waitFor(() =>
    expect(section.textContent).toMatch(/The last one is of .*2026, 03:15, 3 days ago: 130 boats, 946 entries, 3.7 MB/),
  );
  expect(screen.queryByRole("alert")).toBeNull();
  await userEvent.setup().click(screen.getByRole("button", { name: "Back up now" }));
  expect(((await screen.findByRole("button", { name: "Making one …" })) as HTMLButtonElement).disabled).toBe(true);
  await waitFor(() => expect(section.textContent).toMatch(/14:40, 2 days ago: 131 boats/), { timeout: 6000 });
  expect(section.textContent).toContain("Against the one before: 31 entries more, 1 boat more.");
  expect(screen.getByRole("button", { name: "Back up now" })).toHaveProperty("disabled", false);
  expect(asked.filter(({ name }) => name === "backUp")).toHaveLength(1);
});

it("says why the last try failed, and that one disk takes both", async () => {
  const failed = { at: "2026-06-13T03:15:00.000Z" as never, why: "there is too little room in /backup" };
  show({ ...sheet, isSameDisk: true, failed });
  expect((await screen.findByRole("alert")).textContent).toContain("failed: there is too little room in /backup");
  expect(screen.getByText(/on the same disk as the store/)).toBeTruthy();
});

it("says what is to be done where no folder is named, and where there is none yet", async () => {
  show({ ...sheet, folder: null, backups: [] });
  expect(await screen.findByText("No backup is made.")).toBeTruthy();
  expect(screen.queryByRole("button")).toBeNull();
  cleanup();
  queryClient.clear();
  show({ ...sheet, backups: [] });
  expect(await screen.findByText("There is none yet.")).toBeTruthy();
});

it("says beside a backup that the store's key is not in it, and how it gets in", async () => {
  show(sheet);
  expect((await screen.findByText("The store's key is not in it.")).parentElement?.textContent).toContain(
    "RAVIK_BACKUP_PASSPHRASE",
  );
  cleanup();
  queryClient.clear();
  show({ ...sheet, backups: sheet.backups.map((each) => ({ ...each, hasKey: true })) });
  expect(await screen.findByText(/The store's key is in it, locked/)).toBeTruthy();
  expect(screen.queryByText("The store's key is not in it.")).toBeNull();
});
