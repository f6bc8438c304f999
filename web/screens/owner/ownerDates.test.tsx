// @vitest-environment jsdom
import { cleanup, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it } from "vitest";
import type { OwnerPage } from "../../../api/index.ts";
import { rigTemplates } from "../../../content/index.ts";
import { foldWalk } from "../../../core/walk/index.ts";
import { answerWith, showScreen } from "../../testing/answerWith.tsx";
import { GearDates } from "./GearDates.tsx";
import { HowToReach } from "./HowToReach.tsx";

const rig = rigTemplates["wending-23"];
const flares = rig.gear.find(({ label }) => /flare/i.test(label))!;
const page = {
  today: "2026-06-13",
  store: "A yard",
  delivery: { id: "d-1", rig },
  gearDates: { [flares.id]: "2026-05-01" },
  isUnreached: true,
} as unknown as OwnerPage;
const token = "A".repeat(22);
const user = userEvent.setup();

afterEach(() => {
  cleanup();
  localStorage.clear();
});

describe("what runs out", () => {
  it("says what has run out, and keeps the day an owner reads where it is entered", async () => {
    const asked = answerWith({ setOwnerDate: () => ({ done: true as const }) });
    const element = <GearDates token={token} page={page} state={foldWalk([])} />;
    showScreen([{ path: "/", element }], "/");
    const list = within(screen.getByRole("region", { name: "What runs out" }));
    expect(list.getByText(/^▲ ran out 1 May 2026, 43 days ago/)).toBeTruthy();
    const input = list.getByLabelText("Good until: Registration");
    await user.type(input, "2027-03-31");
    expect(await list.findByText("Saved.")).toBeTruthy();
    expect(asked).toMatchObject([{ name: "setOwnerDate", body: { item: "registration", until: "2027-03-31" } }]);
  });
});

describe("how to reach them", () => {
  const show = () => showScreen([{ path: "/", element: <HowToReach token={token} page={page} /> }], "/");

  it("is asked with their consent, and thanked for", async () => {
    const asked = answerWith({ setOwnerContact: () => ({ done: true as const }) });
    show();
    const form = within(screen.getByRole("form", { name: "How may we reach you" }));
    expect(form.getByRole("button", { name: "Save" })).toHaveProperty("disabled", true);
    await user.type(form.getByLabelText("E-mail"), "ana@example.test");
    // Nobody is taken to agree.
    expect(form.getByRole("button", { name: "Save" })).toHaveProperty("disabled", true);
    await user.click(form.getByRole("radio", { name: "only call me" }));
    await user.click(form.getByRole("button", { name: "Save" }));
    await waitFor(() => expect(screen.getByRole("status").textContent).toContain("does not write to you"));
    expect(asked[0]?.body).toEqual({ phone: "", email: "ana@example.test", optOut: true });
  });

  it("is asked once: said no to, it stays away", async () => {
    show();
    await user.click(screen.getByRole("button", { name: "Not now" }));
    expect(screen.queryByRole("form", { name: "How may we reach you" })).toBeNull();
    cleanup();
    show();
    expect(screen.queryByRole("form", { name: "How may we reach you" })).toBeNull();
  });
});
