// @vitest-environment jsdom
import { QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { MemoryRouter } from "react-router";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { gearPacks, rigTemplates } from "../../content/index.ts";
import { regions } from "../../core/region/index.ts";
import type { TripPlan } from "../../core/trip/index.ts";
import type { EntryOf } from "../../core/walk/index.ts";
import { queryClient } from "../app/queries.ts";
import { forgetSaved } from "../offline/saved.ts";
import { setStoreRegion } from "../ui/storeTime.ts";
import { TripPlanner } from "./TripPlanner.tsx";
import type { TripPort } from "./useTrip.ts";

const rig = rigTemplates["wending-23"];
let saved: Map<string, EntryOf<"trip">>;

beforeEach(() => {
  setStoreRegion(regions.us);
  sessionStorage.clear();
  vi.stubGlobal("matchMedia", () => ({ matches: false, addEventListener: () => 0, removeEventListener: () => 0 }));
  saved = new Map();
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

function Stage({ isAtYard = true }: { isAtYard?: boolean }) {
  const [, again] = useState(0);
  const port: TripPort = {
    key: "d-1",
    rig,
    boatName: "Wending 23",
    hull: "SLW23001A626",
    buyers: ["Ada Lunt", "Bo Lunt"],
    trips: saved,
    counted: new Map(),
    packs: gearPacks,
    care: [],
    today: "2026-06-12",
    timeZone: "America/Chicago",
    hasForecast: false,
    isAtYard: () => isAtYard,
    onSave: (trip: string, plan: TripPlan | null) => {
      saved = new Map(saved).set(trip, { kind: "trip", trip, plan } as EntryOf<"trip">);
      again((n) => n + 1);
    },
    pdfOf: (trip) => `/trips/${trip}.pdf`,
    language: "fr",
  };
  return <TripPlanner port={port} />;
}
const open = (stage = <Stage />) => {
  render(
    <QueryClientProvider client={queryClient}>
      <MemoryRouter>{stage}</MemoryRouter>
    </QueryClientProvider>,
  );
  return userEvent.setup();
};
const heading = () => screen.getByRole("heading", { level: 1 }).textContent!;
const type = async (user: ReturnType<typeof userEvent.setup>, label: string, text: string) => {
  const field = screen.getByLabelText(label);
  await user.clear(field);
  if (text !== "") await user.type(field, text);
};
async function planIt(user: ReturnType<typeof userEvent.setup>) {
  await user.click(screen.getByRole("button", { name: "Add a leg" }));
  await type(user, "Miles 1", "9");
  await type(user, "Cruising speed", "20");
  await type(user, "Burn at that speed, all engines", "16");
}

it("asks for the figures that nobody has entered, and makes none up", async () => {
  const user = open();
  expect(heading()).toBe("Not a go yet: enter how fast it cruises, how much fuel it burns.");
  expect(screen.getByRole("button", { name: "Save the trip" })).toHaveProperty("disabled", true);
  await planIt(user);
  expect(heading()).toMatch(/^▲ No go. You would be back at 12:54\spm$/);
  expect(screen.getByText(/Wind not checked: there are no figures/)).toBeTruthy();
  await type(user, "Burn at that speed, all engines", "");
  expect(heading()).toBe("Not a go yet: enter how much fuel it burns.");
});

it("keeps what is not saved over a look elsewhere, and once saved has its float plan where the yard has it", async () => {
  const user = open();
  await planIt(user);
  await type(user, "Name of the trip", "Round the island");
  cleanup();
  const again = open();
  expect(screen.getByLabelText("Name of the trip")).toHaveProperty("value", "Round the island");
  await again.click(screen.getByRole("button", { name: "Save the trip" }));
  expect(screen.getByRole("button", { name: "Saved" })).toHaveProperty("disabled", true);
  expect(screen.getByRole("link", { name: "Float plan as PDF" }).getAttribute("href")).toContain("/trips/t-");
  expect(screen.getByRole("link", { name: "Float plan as PDF, Français" }).getAttribute("href")).toMatch(
    /language=fr$/,
  );
  await again.click(screen.getByRole("button", { name: "Call it off" }));
  expect([...saved.values()].every(({ plan }) => plan === null)).toBe(true);
  expect(screen.getByLabelText("Name of the trip")).toHaveProperty("value", "First day out");
});

it("takes somebody ashore letter by letter, and blanks nothing while only one of two fields is filled", async () => {
  const user = open();
  await planIt(user);
  const half = () => screen.queryByText(/Enter both, the name and the phone/);
  await type(user, "Who waits for your call", "Runa Beck");
  expect(heading()).toMatch(/^▲ No go. You would be back at/);
  expect(screen.getByLabelText("Who waits for your call")).toHaveProperty("value", "Runa Beck");
  expect(half()).toBeTruthy();
  expect(screen.getByText(/Nobody ashore knows/)).toBeTruthy();
  cleanup();
  const again = open();
  expect(screen.getByLabelText("Who waits for your call")).toHaveProperty("value", "Runa Beck");
  await type(again, "Their phone", "555 0177");
  expect(half()).toBeNull();
  expect(screen.queryByText(/Nobody ashore knows/)).toBeNull();
  await again.click(screen.getByRole("button", { name: "Save the trip" }));
  expect([...saved.values()].at(-1)!.plan).toMatchObject({ ashore: { name: "Runa Beck", phone: "555 0177" } });
});

it("without signal says when the float plan can be printed", async () => {
  const user = open(<Stage isAtYard={false} />);
  await planIt(user);
  await user.click(screen.getByRole("button", { name: "Save the trip" }));
  expect(screen.getByText("The float plan can be printed as soon as there is signal.")).toBeTruthy();
  expect(screen.queryByRole("link", { name: "Float plan as PDF" })).toBeNull();
});

it("counts gear by who is aboard, and shows each thing on the plan", async () => {
  const user = open();
  await planIt(user);
  const jackets = () =>
    screen.getByText("Life jackets, adults", { exact: false, selector: "strong" }).closest("li")!.textContent;
  expect(jackets()).toContain("2 missing");
  for (let i = 0; i < 2; i++) await user.click(screen.getByRole("button", { name: "One more: Life jackets, adults" }));
  expect(jackets()).toContain("2 of 2");
  await user.click(screen.getByRole("button", { name: "Where: Fire extinguisher" }));
  expect(screen.getByRole("status").textContent).toContain("Fire extinguisher");
  expect(screen.getByRole("img", { name: /^Deck plan/ })).toBeTruthy();
  await user.click(screen.getByText("Who is aboard: 2"));
  await type(user, "Weight 1", "44");
  expect(screen.getByText(/^By weight: child jacket/)).toBeTruthy();
});

it("says in which line of the wind something is wrong, and takes nothing of it", async () => {
  const user = open();
  await planIt(user);
  await user.type(screen.getByLabelText(/^Time and knots/), "09:00 6{enter}noon 9");
  await user.click(screen.getByRole("button", { name: "Take this wind" }));
  expect(screen.getByText("▲ Line 2 is no time with knots: “noon 9”.")).toBeTruthy();
  expect(screen.getByText(/Wind not checked: there are no figures/)).toBeTruthy();
});

it("forgets what was not saved when somebody signs out: it names guests and telephones", async () => {
  const user = open();
  await planIt(user);
  await type(user, "Who waits for your call", "Cy Lunt");
  expect(Object.keys(sessionStorage)).toEqual(["ravik-trip d-1"]);
  await forgetSaved();
  expect(Object.keys(sessionStorage)).toEqual([]);
});
