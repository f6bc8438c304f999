// @vitest-environment jsdom
import { QueryClientProvider } from "@tanstack/react-query";
import { act, cleanup, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { EngineCare, NewRun, RunLine } from "../../api/index.ts";
import { breakInPacks } from "../../content/index.ts";
import {
  breakInTrace,
  createLimits,
  describeCoverage,
  findBreakInStanding,
  measureProgress,
  sampleLegs,
} from "../../core/breakin/index.ts";
import { queryClient } from "../app/queries.ts";
import { BreakInPanel } from "./BreakInPanel.tsx";
import type { BreakInDoor } from "./door.ts";
import { FollowRun } from "./FollowRun.tsx";
import { RunVerdict } from "./RunVerdict.tsx";
import { findLeg, keepFollowing, readFollowing } from "./useFollow.ts";

vi.mock("../ui/LazyChart.tsx", () => ({
  LazyChart: ({ says }: { says: string }) => <div role="img" aria-label={says} />,
}));

const pack = breakInPacks[0]!;
const limits = createLimits(pack, 6000);

function createCare(engine: string, label: string, hours: number, change: Partial<EngineCare> = {}): EngineCare {
  const coverage = describeCoverage(limits, {}, hours, 6000);
  return {
    engine,
    label,
    toldH: hours,
    meterH: hours,
    toldOn: "2026-06-01",
    likelyNowH: hours,
    breakInTitle: pack.title,
    breakInBasis: pack.basis,
    tankHours: null,
    breakIn: findBreakInStanding(pack, hours, 6000),
    limits,
    ratedToRpm: 6000,
    coverage,
    progress: measureProgress(coverage, hours, 10),
    serviceTitle: "",
    serviceBasis: "",
    items: [],
    forecast: null,
    ...change,
  };
}

function show(care: EngineCare[], runs: RunLine[] = []) {
  const kept: NewRun[] = [];
  const door: BreakInDoor = {
    key: "b1",
    today: "2026-06-20",
    care,
    runs,
    addRun: async (run) => {
      kept.push(run);
      return [];
    },
    fetchRun: async (id) => ({
      run: runs.find((run) => run.id === id)!,
      limits,
      samples: [
        [0, 700],
        [60, 700],
      ],
    }),
  };
  render(
    <QueryClientProvider client={queryClient}>
      <BreakInPanel door={door} />
    </QueryClientProvider>,
  );
  return kept;
}

beforeEach(() => {
  localStorage.clear();
  Element.prototype.scrollIntoView = () => undefined;
});
afterEach(cleanup);
const user = userEvent.setup();
const legsOnPage = () =>
  within(screen.getByRole("region", { name: "Next run" }))
    .getAllByRole("row")
    .slice(1)
    .map((row) =>
      within(row)
        .getAllByRole("cell")
        .map((cell) => cell.textContent ?? ""),
    );

describe("the next run", () => {
  it("keeps to the limits of the engine with the fewer hours, and says why each leg is there", () => {
    show([createCare("port", "Port engine", 5), createCare("starboard", "Starboard engine", 0.2)]);
    const legs = legsOnPage();
    expect(screen.getByText(/by the limits of Starboard engine, which has the fewer hours/)).toBeTruthy();
    expect(legs[0]).toContain("warm up");
    expect(legs.at(-1)).toContain("cool down before you switch off");
    expect(legs.some((cells) => cells.includes("not turned yet"))).toBe(true);
    const first30 = legs
      .filter((cells) => Number(cells[3]!.split(":")[0]) < 48)
      .map((cells) => Number(cells[1]!.replace(",", "")));
    for (const rpm of first30) expect(rpm).toBeLessThanOrEqual(3000);
  });

  it("is made anew for the time there is, and says when none keeps the limits", async () => {
    show([createCare("main", "Engine", 3)]);
    const before = legsOnPage().length;
    await user.click(screen.getByRole("radio", { name: /^30 min/ }));
    expect(legsOnPage().length).toBeLessThan(before);
    await user.clear(screen.getByLabelText("Minutes"));
    expect(screen.getByText("A run is 5 minutes at least.")).toBeTruthy();
  });

  it("waits for hours, and for the burn of a break-in by tanks", () => {
    show([createCare("main", "Engine", 0, { breakIn: null, limits: [] })]);
    expect(screen.getByText(/There is a plan as soon as hours were told/)).toBeTruthy();
    expect(screen.getByText(/Counted in tanks: with the engine's burn/)).toBeTruthy();
  });

  it("says how far tanks may be off", () => {
    show([createCare("main", "Engine", 1, { tankHours: { tanks: 3, lowH: 7.7, likelyH: 10, highH: 14.3 } })]);
    expect(screen.getByText(/3 tanks are about 10 h, between 8 and 14 as it burns/)).toBeTruthy();
  });
});

describe("a run that is followed", () => {
  const legs = [
    { rpm: 1250, minutes: 5 },
    { rpm: 2750, minutes: 4 },
    { rpm: 650, minutes: 2 },
  ];

  it("is at its leg by the clock, and over after the last", () => {
    expect(findLeg(legs, 0)).toEqual({ index: 0, leftS: 300 });
    expect(findLeg(legs, 300)).toEqual({ index: 1, leftS: 240 });
    expect(findLeg(legs, 659)).toEqual({ index: 2, leftS: 1 });
    expect(findLeg(legs, 660)).toBeNull();
  });

  it("is kept on the device, so that a reload finds it again", () => {
    keepFollowing("b1", { legs, startedAtMs: 5, pausedAtMs: null });
    expect(readFollowing("b1")?.legs).toEqual(legs);
    keepFollowing("b1", null);
    expect(readFollowing("b1")).toBeNull();
    localStorage.setItem("ravik-run-b1", "{");
    expect(readFollowing("b1")).toBeNull();
  });

  it("shows speed, time left and what comes; changes with a signal, waits, goes on, ends", () => {
    vi.useFakeTimers({ now: 1_000_000 });
    const vibrate = vi.fn();
    Object.assign(navigator, { vibrate });
    const onChange = vi.fn();
    const onEnd = vi.fn();
    const following = { legs, startedAtMs: 1_000_000, pausedAtMs: null };
    const { rerender } = render(<FollowRun following={following} onChange={onChange} onEnd={onEnd} />);
    expect(screen.getByText("1,250")).toBeTruthy();
    expect(screen.getByText("5:00")).toBeTruthy();
    expect(screen.getByText("Then 2,750 rpm for 4 min.")).toBeTruthy();
    act(() => {
      vi.advanceTimersByTime(301_000);
    });
    expect(screen.getByText("2,750")).toBeTruthy();
    expect(vibrate).toHaveBeenCalledTimes(1);
    act(() => screen.getByRole("button", { name: "Wait" }).click());
    expect(onChange.mock.lastCall![0].pausedAtMs).toBeGreaterThan(1_300_000);
    rerender(<FollowRun following={{ ...following, pausedAtMs: 1_301_000 }} onChange={onChange} onEnd={onEnd} />);
    act(() => {
      vi.advanceTimersByTime(60_000);
    });
    expect(screen.getByText("3:59")).toBeTruthy();
    act(() => screen.getByRole("button", { name: "Go on" }).click());
    expect(onChange.mock.lastCall![0]).toMatchObject({ pausedAtMs: null });
    act(() => screen.getByRole("button", { name: "End here" }).click());
    expect(Math.round(onEnd.mock.lastCall![0])).toBe(301);
    vi.useRealTimers();
  });
});

describe("a run by hand", () => {
  it("is written down leg by leg, for both engines of a pair, and says what is wrong with a leg", async () => {
    const kept = show([createCare("port", "Port engine", 5), createCare("starboard", "Starboard engine", 5)]);
    await user.clear(screen.getByLabelText("rpm of leg 1"));
    await user.type(screen.getByLabelText("rpm of leg 1"), "99999");
    await user.click(screen.getByRole("button", { name: "Keep the run" }));
    expect(screen.getByRole("alert").textContent).toContain("Leg 1: rpm from 0 to 20,000.");
    await user.clear(screen.getByLabelText("rpm of leg 1"));
    await user.type(screen.getByLabelText("rpm of leg 1"), "1,200");
    await user.click(screen.getByRole("button", { name: "Another leg" }));
    await user.clear(screen.getByLabelText("Minutes of leg 2"));
    await user.type(screen.getByLabelText("Minutes of leg 2"), "7,5");
    await user.click(screen.getByRole("button", { name: "Keep the run" }));
    expect(kept).toHaveLength(1);
    expect(kept[0]!.engines.map(({ engine }) => engine)).toEqual(["port", "starboard"]);
    expect(kept[0]!.engines[0]!.samples.at(-1)![0]).toBe(750);
    expect(kept[0]).toMatchObject({ source: "hand", date: "2026-06-20", startMin: 720 });
  });
});

describe("what a run was like", () => {
  const runOf = (rpm: number, minutes: number): RunLine => {
    const trace = breakInTrace({ phases: limits, hoursBefore: 3, samples: sampleLegs([{ rpm, minutes }]) });
    return {
      id: "01HZZZZZZZZZZZZZZZZZZZZZ01",
      engine: "main",
      date: "2026-06-01",
      startMin: 750,
      source: "file",
      fileName: "a.csv",
      hoursBefore: 3,
      by: "Owner",
      verdict: {
        ...trace,
        breaches: trace.breaches.map((breach) => ({ ...breach, says: `${breach.rule} too long` })),
        advice: ["Go on like this."],
      },
    };
  };

  it("is said plainly, good or not, without blame", () => {
    const { rerender } = render(<RunVerdict run={runOf(3000, 8)} />);
    expect(screen.getByText("Just as the break-in asks.")).toBeTruthy();
    rerender(<RunVerdict run={runOf(3000, 40)} />);
    expect(screen.getByText(/one stretch to do otherwise next time/)).toBeTruthy();
    expect(screen.getByText("steady too long")).toBeTruthy();
    expect(document.body.textContent).not.toMatch(/wrong|fault|mistake|should not have/i);
  });

  it("opens in the list with its chart, the last one by itself", async () => {
    show([createCare("main", "Engine", 3)], [runOf(3000, 40)]);
    expect(await screen.findByRole("img", { name: /one stretch outside the limits/ })).toBeTruthy();
    await user.click(screen.getByRole("button", { name: /1 to do otherwise/ }));
    expect(screen.queryByRole("img", { name: /Engine speed/ })).toBeNull();
  });
});
