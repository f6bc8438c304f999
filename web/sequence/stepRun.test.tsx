// @vitest-environment jsdom
import { act, cleanup, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { MemoryRouter } from "react-router";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { rigTemplates, sequences } from "../../content/index.ts";
import { regions } from "../../core/region/index.ts";
import { findRun } from "../../core/sequence/index.ts";
import type { EntryOf } from "../../core/walk/index.ts";
import type { NewEntry } from "../offline/syncQueue.ts";
import { setStoreRegion, storeDay } from "../ui/storeTime.ts";
import { StepRun } from "./StepRun.tsx";

const rig = rigTemplates["wending-23"];
let kept: EntryOf<"step">[];

beforeEach(() => {
  setStoreRegion(regions.us);
  sessionStorage.clear();
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

function Stage({ of }: { of: string }) {
  const [entries, setEntries] = useState<EntryOf<"step">[]>([]);
  const onAdd = (entry: NewEntry) => {
    const whole = { ...entry, id: `E${entries.length}`, at: new Date(1e12 + entries.length * 1000).toISOString() };
    kept = [...entries, whole as EntryOf<"step">];
    setEntries(kept);
  };
  return <StepRun sequence={sequences.find(({ id }) => id === of)!} port={{ rig, entries, onAdd }} />;
}

function open(of: string, at = "/") {
  kept = [];
  render(
    <MemoryRouter initialEntries={[at]}>
      <Stage of={of} />
    </MemoryRouter>,
  );
  return userEvent.setup();
}
const next = () => within(screen.getByRole("region", { name: "Next step" }));
const said = () => next().getByRole("heading", { level: 2 }).textContent!;
const done = () => next().getByRole("button", { name: /^Done/ });
async function goTo(user: ReturnType<typeof userEvent.setup>, step: RegExp) {
  for (let i = 0; i < 60 && !step.test(said()); i++) await user.click(done());
  expect(said()).toMatch(step);
}

it("goes on by one touch, opens again what was marked wrongly, and says at the end what was left out", async () => {
  const user = open("launch");
  await user.selectOptions(screen.getByLabelText("How many"), "alone");
  expect(screen.queryByLabelText("I am the")).toBeNull();
  const first = said();
  await user.click(done());
  expect(said()).not.toBe(first);
  await user.click(screen.getByRole("button", { name: `Open again: ${first}` }));
  expect(said()).toBe(first);
  await user.click(screen.getByRole("button", { name: `Leave out: ${first}` }));
  while (screen.queryByRole("region", { name: "Next step" }) !== null) await user.click(done());
  expect(screen.getByRole("region", { name: "Done" }).textContent).toContain("1 step was left out");
  await user.click(screen.getByRole("button", { name: "Begin again" }));
  await user.click(screen.getByRole("button", { name: "Yes, begin again" }));
  expect(said()).toBe(first);
  await user.click(done());
  expect(kept.at(-1)!.run).toBe(`launch-${storeDay(Date.now())}-2`);
});

it("takes over what another phone has passed, and holds the helper back until the car stands", async () => {
  const run = findRun([], "launch", storeDay(Date.now()), Date.now());
  const user = open("launch", `/?role=helper#${run}~partner~winch~people.plug.straps`);
  expect(screen.getByText("The other phone passed 3 steps on to this one.")).toBeTruthy();
  expect(screen.getByLabelText("I am the")).toHaveProperty("value", "helper");
  await goTo(user, /^The car stands/);
  expect(done()).toHaveProperty("disabled", true);
  for (const button of next().getAllByRole("button", { name: /^I saw it done/ })) await user.click(button);
  expect(done()).toHaveProperty("disabled", false);
  expect(kept.at(-1)!.role).toBe("skipper");
});

it("judges hubs as they are read in the store's unit, and does not call a hot one done", async () => {
  const user = open("hitch");
  await user.selectOptions(screen.getByLabelText("How many"), "alone");
  await goTo(user, /^Feel each hub/);
  await user.type(screen.getByLabelText("Hub, port front"), "104");
  await user.click(screen.getByRole("button", { name: "Save: Hub, port front" }));
  expect(next().getByText(/104 °F\. Warm, as it should be/)).toBeTruthy();
  await user.click(screen.getByRole("button", { name: "Hub, starboard front feels hot" }));
  expect(next().getByText(/Hot: do not drive on/)).toBeTruthy();
  expect(done().textContent).toBe("Done, and put right");
  expect(kept.find(({ step }) => step === "hubs-port-1")).toMatchObject({ value: 40, typed: { value: 104 } });
});

it("counts the minutes of a flush by the clock, also after the page was left", async () => {
  const user = open("put-away");
  await user.selectOptions(screen.getByLabelText("How many"), "alone");
  await goTo(user, /flush port/);
  vi.useFakeTimers();
  const start = () => screen.getByRole("button", { name: /^Start \d+ minutes/ });
  act(() => start().click());
  act(() => void vi.advanceTimersByTime(61_000));
  expect(screen.getByRole("timer").textContent).toBe("3:59");
  act(() => void vi.advanceTimersByTime(10 * 60_000));
  expect(screen.getByText("5 minutes are over.")).toBeTruthy();
});

it("teaches on the water from one screen, with who does each step", async () => {
  const user = open("lesson");
  expect(screen.queryByLabelText("How many")).toBeNull();
  expect(next().getByText(/: the teacher$/)).toBeTruthy();
  await user.click(done());
  expect(kept[0]!.role).toBe("helper");
  expect(next().getByText(/: the driver$/)).toBeTruthy();
  expect(screen.queryByRole("button", { name: /other phone/ })).toBeNull();
});

it("says of a boat without a trailer that there is nothing to do", () => {
  const sequence = sequences.find(({ id }) => id === "launch")!;
  render(
    <MemoryRouter>
      <StepRun sequence={sequence} port={{ rig: { ...rig, trailer: null }, entries: [], onAdd: () => undefined }} />
    </MemoryRouter>,
  );
  expect(screen.getByText(/no trailer on its sheet/)).toBeTruthy();
});
