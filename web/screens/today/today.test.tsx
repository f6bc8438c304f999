// @vitest-environment jsdom
import { cleanup, render, screen } from "@testing-library/react";
import { MemoryRouter } from "react-router";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Today } from "../../../api/index.ts";
import { setStoreZone } from "../../ui/storeTime.ts";
import { Coming } from "./Coming.tsx";
import { OffCourse } from "./CourseAndSlots.tsx";
import { NowAndNext } from "./NowAndNext.tsx";

type Handover = Today["handovers"][number];
const handover = (change: Partial<Handover>): Handover => ({
  delivery: "d-1",
  boat: "w118",
  boatName: "Wending 23",
  serial: "23118",
  time: "10:30",
  buyers: "Dov Anselm",
  note: "",
  family: "centre-console",
  loaM: 7,
  beamM: 2.5,
  engines: 2,
  readyDone: 3,
  readyOf: 3,
  readyOpen: [],
  mustsOpen: 20,
  mustsOf: 20,
  stopping: [],
  style: "Sweep",
  stops: 12,
  moves: 11,
  totalMin: 90,
  state: "planned",
  ...change,
});
const today = "2026-06-01";
const show = (element: React.ReactElement) => render(<MemoryRouter>{element}</MemoryRouter>);
const at = (clock: string) => vi.setSystemTime(`2026-06-01T${clock}:00.000Z`);

beforeEach(() => {
  vi.useFakeTimers();
  setStoreZone("UTC");
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

describe("now and next", () => {
  const says = () => screen.getByRole("region", { name: "Now and next" }).textContent;

  it.each([
    ["09:00", "be at the boat by 10:15, in 1 h 15 min"],
    ["10:20", "go now"],
    ["10:42", "▲ 12 min late, not begun"],
  ])("at %s says of a walk at 10:30: %s", (clock, words) => {
    at(clock);
    show(<NowAndNext date={today} handovers={[handover({})]} />);
    expect(says()).toContain(words);
  });

  it("says how long the one under way goes on, and by how much it is over", () => {
    at("11:00");
    const walking = handover({ state: "walking" });
    const { unmount } = show(
      <NowAndNext date={today} handovers={[walking, handover({ delivery: "d-2", time: "14:00" })]} />,
    );
    expect(says()).toContain("until about 12:00");
    expect(says()).toContain("14:00");
    unmount();
    at("12:07");
    show(<NowAndNext date={today} handovers={[walking]} />);
    expect(says()).toContain("▲ 7 min over its time");
  });

  it("says nothing of a day that is over, as of a list kept without signal", () => {
    at("10:20");
    show(<NowAndNext date="2026-05-31" handovers={[handover({})]} />);
    expect(screen.queryByRole("region")).toBeNull();
  });

  it("says nothing where all is signed", () => {
    show(<NowAndNext date={today} handovers={[handover({ state: "signed" })]} />);
    expect(screen.queryByRole("region")).toBeNull();
  });
});

describe("what a role looks at first", () => {
  it("is for a technician the coming boats, with what stops them before what is open", () => {
    const line = { delivery: "d-1", boat: "w118", boatName: "Wending 23", serial: "23118", buyers: "Dov", readyOf: 30 };
    const coming: Today["coming"] = [
      { ...line, date: "2026-06-01", time: "10:30", readyOpen: ["Keys counted"], stopping: ["Tell-tale weak"] },
      { ...line, delivery: "d-2", date: "2026-06-03", time: "09:00", readyOpen: [], stopping: [] },
    ];
    show(<Coming coming={coming} date="2026-06-01" />);
    const [first, second] = screen.getAllByRole("listitem");
    expect(first!.textContent).toMatch(/Today, 10:30.*▲ Tell-tale weak/);
    expect(first!.textContent).not.toContain("Keys counted");
    expect(second!.textContent).toContain("● made ready");
  });

  it("is for the owner what is off course, one or many, and where it is put right", () => {
    const none = {
      backup: "good" as const,
      isHeld: false,
      isDamaged: false,
      failedMessages: 0,
      failedJobs: 0,
      latePromises: 0,
      openMusts: 0,
      unowned: 0,
      overdueBoats: 0,
      stopped: 0,
    };
    const { unmount } = show(<OffCourse course={none} />);
    expect(screen.getByRole("heading").textContent).toBe("Everything is on course");
    unmount();
    show(<OffCourse course={{ ...none, failedMessages: 1, overdueBoats: 3 }} />);
    expect(screen.getByRole("link", { name: /1 message did not arrive/ }).getAttribute("href")).toBe("/messages");
    expect(screen.getByRole("link", { name: /3 services are overdue/ })).not.toBeNull();
  });
});
