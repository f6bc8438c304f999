// @vitest-environment jsdom
import "fake-indexeddb/auto";
import { cleanup, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, expect, it, vi } from "vitest";
import type { Boat, Delivery, DockCallSheet } from "../../../api/index.ts";
import { faultContent, rigTemplates } from "../../../content/index.ts";
import { syncQueue } from "../../offline/useSync.ts";
import { answerWith, showScreen } from "../../testing/answerWith.tsx";
import { FinderScreen } from "./FinderScreen.tsx";

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const handover = (id: string, state: "signed" | "planned") => ({ id, date: "2026-05-01", time: "10:00", state });
const boat = {
  id: "w1",
  name: "Wending 23",
  hull: "SLW23001A626",
  buyers: "Ada Brandwyck",
  rig: rigTemplates["wending-23"],
  deliveries: [handover("d-first", "signed"), handover("d-resold", "signed"), handover("d-next", "planned")],
} as unknown as Boat;
const hornLook = faultContent.kinds.find(({ id }) => id === "horn-stuck")!.check.slice(0, 20);
const nobody: DockCallSheet = { open: [], closed: [], learned: [], since: null };
const earlier = {
  id: "01J00000000000000000000000",
  kind: "ask",
  fault: { functions: { "horn-sounds": false }, components: { "horn-stuck": true } },
};

function open(search: string, calls = nobody) {
  const add = vi.spyOn(syncQueue, "add").mockResolvedValue({} as never);
  answerWith({
    boat: () => boat,
    faults: () => faultContent,
    dockCalls: () => calls,
    delivery: () => ({ topics: [{ id: "horn" }], entries: [earlier] }) as unknown as Delivery,
  });
  showScreen([{ path: "/boats/:boat/finder", element: <FinderScreen /> }], `/boats/w1/finder${search}`);
  return { add, user: userEvent.setup() };
}
const putDown = (name: string) => screen.findByRole("button", { name }) as Promise<HTMLButtonElement>;

it("a call is put down with the handover of those who have the boat now, not of those before", async () => {
  const { add, user } = open("?says=horn");
  await user.click(await screen.findByRole("button", { name: "Does not work: Horn sounds" }));
  const button = await putDown("Log the call, cause open");
  await waitFor(() => expect(button.disabled).toBe(false));
  await user.click(button);
  expect(add).toHaveBeenCalledWith("d-resold", expect.objectContaining({ kind: "call", topic: null }));
  const [, { fault }] = add.mock.calls[0] as unknown as [string, { fault: { fails: string; goesOn: null } }];
  expect(fault).toMatchObject({ fails: "Horn sounds", cause: null, goesOn: null });
});

it("goes on from an earlier call with what was seen, closes it, and names the topic that teaches the cause", async () => {
  const { add, user } = open(`?call=${earlier.id}&of=d-first`);
  expect(await screen.findByRole("button", { name: /^Take back: Horn sounds, not/ })).toBeTruthy();
  expect(screen.getByRole("button", { name: /^Take back: Horn wet or corroded, good/ })).toBeTruthy();
  await user.click(screen.getByRole("button", { name: /^Take back: Horn wet or corroded/ }));
  // Everything else is good, until the horn itself is looked at.
  for (let i = 0; i < 12 && screen.queryByRole("heading", { name: "Horn wet or corroded" }) === null; i++) {
    const look = screen.getByRole("heading", { name: /^Look next/ }).parentElement!;
    const isIt = look.textContent!.includes(hornLook);
    await user.click(within(look).getByRole("button", { name: isIt ? "No" : "Yes" }));
  }
  await user.click(await putDown("Log the call"));
  expect(add).toHaveBeenCalledWith("d-first", expect.objectContaining({ topic: "horn" }));
  const [, entry] = add.mock.calls[0] as unknown as [string, object];
  expect(entry).toMatchObject({ fault: { goesOn: earlier.id, cause: { kind: "horn-stuck" } } });
  // It was an owner's question: what is owed to them is settled with it.
  const settled = { kind: "settle", ref: earlier.id, note: expect.stringContaining("Horn wet or corroded") };
  await waitFor(() => expect(add).toHaveBeenCalledWith("d-first", settled));
});

it("a touch on the plan names what is there", async () => {
  const { user } = open("");
  const plan = await screen.findByRole("group", { name: /^Deck plan/ });
  await user.click(within(plan).getByRole("button", { name: /^Anchor locker/ }));
  const here = await screen.findByRole("region", { name: "At the place touched" });
  await user.click(within(here).getByRole("button", { name: "Does not work: Windlass turns" }));
  expect(screen.getByRole("button", { name: /^Take back: Windlass turns, not/ })).toBeTruthy();
});

it("looks first where this store's boats fail", async () => {
  const learned = [{ kind: "plug-corroded", family: null, calls: 40, causes: 38, prior: 0.6 }];
  const { user } = open("?says=horn", { ...nobody, learned });
  await user.click(await screen.findByRole("button", { name: "Does not work: Horn sounds" }));
  const first = screen.getByRole("heading", { name: "What it may be" }).parentElement!.querySelector("li")!;
  expect(first.textContent).toContain("corroded");
});
