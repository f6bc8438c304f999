// @vitest-environment jsdom
import "fake-indexeddb/auto";
import { QueryClientProvider } from "@tanstack/react-query";
import { act, cleanup, render, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { EngineCare, FillLine, NewFill, NewRun, RunLine } from "../../api/index.ts";
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
import type { Inks } from "../ui/Chart.tsx";
import { BreakInPanel } from "./BreakInPanel.tsx";
import type { BreakInPort } from "./breakInPort.ts";
import { FollowRun } from "./FollowRun.tsx";
import { RunChart } from "./RunChart.tsx";
import { RunVerdict } from "./RunVerdict.tsx";
import { cutLegs, findLeg, keepFollowing, readFollowing } from "./useFollow.ts";

vi.mock("../ui/LazyChart.tsx", () => ({
  LazyChart: ({ draw, says }: { draw: (inks: Inks) => unknown; says: string }) => (
    <div role="img" aria-label={says} data-drawing={JSON.stringify(draw(inks))} />
  ),
}));
const inks = new Proxy({}, { get: (_, name) => name }) as Inks;

const pack = breakInPacks[0]!;
const limits = createLimits(pack, 6000);

function createCare(engine: string, label: string, hours: number, change: Partial<EngineCare> = {}): EngineCare {
  const coverage = describeCoverage(limits, {}, hours, 6000);
  return {
    engine,
    label,
    kind: "outboard",
    reportedH: hours,
    meterH: hours,
    reportedOn: "2026-06-01",
    likelyNowH: hours,
    breakInTitle: pack.title,
    breakInBasis: pack.basis,
    isByTanks: false,
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

function show(care: EngineCare[], runs: RunLine[] = [], fills: FillLine[] = []) {
  const kept: NewRun[] = [];
  const noted: (NewFill | string)[] = [];
  const port: BreakInPort = {
    key: "b1",
    about: "b1",
    hasGateway: true,
    today: "2026-06-20",
    care,
    runs,
    fills,
    addFill: async (fill) => {
      noted.push(fill);
    },
    withdraw: async ({ id, reason }) => {
      noted.push(`${id} ${reason}`);
    },
    mayCorrect: () => true,
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
      temperatures: [
        [0, 18],
        [30, 71.6],
        [60, 68],
      ],
    }),
  };
  render(
    <QueryClientProvider client={queryClient}>
      <BreakInPanel port={port} />
    </QueryClientProvider>,
  );
  return { kept, noted };
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
  it("of twins keeps to the stricter limits, and says for each of them side by side why a leg is there", () => {
    const port = createCare("port", "Port engine", 5);
    const turned = port.coverage.map((band) => ({ ...band, s: 300 }));
    show([{ ...port, coverage: turned }, createCare("starboard", "Starboard engine", 0.2)]);
    const legs = legsOnPage();
    expect(screen.getByRole("columnheader", { name: "Port engine" })).toBeTruthy();
    expect(screen.getByRole("columnheader", { name: "Starboard engine" })).toBeTruthy();
    expect(legs[0]!.slice(4)).toEqual(["warm up", "warm up"]);
    expect(legs.at(-1)!.slice(4)).toEqual(["cool down before you switch off", "cool down before you switch off"]);
    expect(legs.some((cells) => cells[4] === "5 of 20 min by then" && cells[5] === "not turned yet")).toBe(true);
    const first30 = legs
      .filter((cells) => Number(cells[3]!.split(":")[0]) < 48)
      .map((cells) => Number(cells[1]!.replace(",", "")));
    for (const rpm of first30) expect(rpm).toBeLessThanOrEqual(3000);
  });

  it("of twins may be a plan for each, and a kicker is always run by itself", async () => {
    show([
      createCare("port", "Port engine", 5),
      createCare("starboard", "Starboard engine", 0.2),
      createCare("kicker", "Kicker", 1, { kind: "kicker" }),
    ]);
    const engines = () => within(screen.getByRole("radiogroup", { name: "Engines of this run" }));
    await user.click(engines().getByRole("radio", { name: "Each by its own plan" }));
    const tables = within(screen.getByRole("region", { name: "Next run" })).getAllByRole("table");
    const highest = tables.map((table) =>
      Math.max(
        ...within(table)
          .getAllByRole("row")
          .slice(1)
          .map((row) => Number(within(row).getAllByRole("cell")[1]!.textContent!.replace(",", ""))),
      ),
    );
    expect(highest[0]).toBeGreaterThan(highest[1]!);
    expect(screen.getByText(/the boat pulls to one side/)).toBeTruthy();
    await user.click(engines().getByRole("radio", { name: "Kicker" }));
    expect(within(screen.getByRole("region", { name: "Next run" })).getAllByRole("table")).toHaveLength(1);
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
    show([createCare("main", "Engine", 0, { breakIn: null, limits: [], isByTanks: true })]);
    expect(screen.getByText(/There is a plan as soon as hours have been reported/)).toBeTruthy();
    expect(screen.getByText(/Counted in tanks: as soon as its burn is known/)).toBeTruthy();
  });

  const entered = { tanks: 3, burnt: 0.3, lowH: 7.7, likelyH: 10, highH: 14.3, burnLph: 18, measured: null };
  it("says how far tanks may be off", () => {
    show([createCare("main", "Engine", 1, { tankHours: entered })]);
    expect(
      screen.getByText(/About 0.3 of 3 tanks burnt. All 3 are about 10 h, between 8 and 14 as it burns/),
    ).toBeTruthy();
  });
});

describe("fuel taken", () => {
  const tankHours = { tanks: 3, burnt: 0.9, lowH: 7.7, likelyH: 10, highH: 14.3, burnLph: 18, measured: null };
  const byTanks = createCare("main", "Engine", 3, { isByTanks: true, tankHours });
  const brim: FillLine = {
    id: "01HZZZZZZZZZZZZZZZZZZZZZ01",
    date: "2026-06-12",
    litres: 0,
    isFull: true,
    by: "Owner",
    hasHours: false,
  };
  const note = () => user.click(screen.getByRole("button", { name: "Note the fuel" }));

  it("is asked for where a break-in is counted in tanks, and nowhere else", () => {
    show([createCare("main", "Engine", 3)]);
    expect(screen.queryByRole("region", { name: "Fuel taken" })).toBeNull();
  });

  it("is noted in the units of the store, with a comma or a point; a first brim needs none", async () => {
    const { noted } = show([byTanks]);
    expect(screen.getByText("18 L/h, as entered on the boat sheet.")).toBeTruthy();
    await note();
    await user.type(screen.getByLabelText("Went in"), "41,5");
    await user.click(screen.getByLabelText("Full tank"));
    await note();
    await user.type(screen.getByLabelText("Went in"), "10 gal");
    await note();
    expect(noted).toMatchObject([
      { date: "2026-06-20", litres: 0, isFull: true },
      { date: "2026-06-20", litres: 41.5, typed: { value: 41.5, unit: "L" }, isFull: false },
      { date: "2026-06-20", litres: 37.85411784, typed: { value: 10, unit: "us-gal" }, isFull: false },
    ]);
    expect((screen.getByLabelText("Went in") as HTMLInputElement).value).toBe("");
  });

  it("after the first brim needs an amount, says which brim does not count, and takes one back", async () => {
    const { noted } = show([byTanks], [], [brim]);
    expect(screen.getByText("full, not counted")).toBeTruthy();
    expect(screen.getByText(/No hours reported on that day/)).toBeTruthy();
    expect(screen.getByText(/One full tank is noted/)).toBeTruthy();
    await note();
    expect(screen.getByRole("alert").textContent).toContain("Type how much went in");
    expect(noted).toEqual([]);
    await user.click(screen.getByRole("button", { name: "Correct the fuel of 12 Jun 2026" }));
    const pad = within(screen.getByRole("form", { name: "Correct the fuel of 12 Jun 2026" }));
    await user.click(pad.getByRole("button", { name: "Take it out" }));
    expect(pad.getByRole("alert").textContent).toContain("what was wrong");
    expect(noted).toEqual([]);
    await user.type(pad.getByLabelText("What was wrong"), "another boat");
    await user.click(pad.getByRole("button", { name: "Take it out" }));
    await waitFor(() => expect(noted).toEqual([`${brim.id} another boat`]));
  });

  it("says what was measured, of which engine", () => {
    const measured = { ...tankHours, burnLph: 16.25, measured: { litres: 65, hours: 4 } };
    show([
      createCare("port", "Port engine", 3, { isByTanks: true, tankHours: measured }),
      createCare("starboard", "Starboard engine", 3, { isByTanks: true, tankHours: null }),
    ]);
    const region = screen.getByRole("region", { name: "Fuel taken" });
    expect(region.textContent).toContain("Port engine: 16.3 L/h, measured over 4.0 h and 65 L, its share.");
    expect(region.textContent).toContain("Starboard engine: What it burns is not known yet.");
  });
});

describe("a run that is followed", () => {
  const legs = [
    { rpm: 1250, minutes: 5 },
    { rpm: 2750, minutes: 4 },
    { rpm: 650, minutes: 2 },
  ];

  const lanes = [{ label: "Engine", engines: ["main"], legs }];

  it("shows twins side by side, each with its speed, and goes on at the next change of either", () => {
    vi.useFakeTimers({ now: 1_000_000 });
    const other = [
      { rpm: 1100, minutes: 8 },
      { rpm: 2000, minutes: 3 },
    ];
    const pair = [
      { label: "Port engine", engines: ["port"], legs },
      { label: "Starboard engine", engines: ["starboard"], legs: other },
    ];
    const onChange = vi.fn();
    render(
      <FollowRun
        following={{ lanes: pair, startedAtMs: 1_000_000, begunAtMs: 1_000_000, skipped: [], pausedAtMs: null }}
        onChange={onChange}
        onEnd={() => undefined}
      />,
    );
    for (const words of ["Port engine", "1,250", "Starboard engine", "1,100", "5:00", "8:00"])
      expect(screen.getByText(words)).toBeTruthy();
    act(() => screen.getByRole("button", { name: "Next speed" }).click());
    expect(onChange.mock.lastCall![0].startedAtMs).toBe(1_000_000 - 300_000);
    act(() => {
      vi.advanceTimersByTime(481_000);
    });
    expect(screen.getByText("2,750")).toBeTruthy();
    expect(screen.getByText("2,000")).toBeTruthy();
    vi.useRealTimers();
  });

  it("is cut where it was ended", () => {
    expect(cutLegs(legs, 301 + 90)).toEqual([
      { rpm: 1250, minutes: 5 },
      { rpm: 2750, minutes: 1.5 },
    ]);
    expect(cutLegs(legs, 2)).toEqual([]);
    expect(cutLegs(legs, 9999)).toEqual(legs);
    // What was skipped was not run, wherever it lies.
    expect(cutLegs(legs, 9999, [[60, 300]])).toEqual([{ ...legs[0]!, minutes: 1 }, ...legs.slice(1)]);
    expect(cutLegs(legs, 400, [[0, 300]])).toEqual([{ ...legs[1]!, minutes: 1.7 }]);
  });

  it("is at its leg by the clock, and over after the last", () => {
    expect(findLeg(legs, 0)).toEqual({ index: 0, leftS: 300 });
    expect(findLeg(legs, 300)).toEqual({ index: 1, leftS: 240 });
    expect(findLeg(legs, 659)).toEqual({ index: 2, leftS: 1 });
    expect(findLeg(legs, 660)).toBeNull();
  });

  it("is kept on the device, so that a reload finds it again", () => {
    keepFollowing("b1", { lanes, startedAtMs: 5, begunAtMs: 5, skipped: [], pausedAtMs: null });
    expect(readFollowing("b1")?.lanes).toEqual(lanes);
    keepFollowing("b1", null);
    expect(readFollowing("b1")).toBeNull();
    for (const broken of ["{", '{"legs":[],"startedAtMs":1}']) {
      localStorage.setItem("ravik-run-b1", broken);
      expect(readFollowing("b1")).toBeNull();
    }
  });

  it("shows speed, time left and what comes; changes with a signal, waits, goes on, ends", () => {
    vi.useFakeTimers({ now: 1_000_000 });
    const vibrate = vi.fn();
    Object.assign(navigator, { vibrate });
    const onChange = vi.fn();
    const onEnd = vi.fn();
    const following = { lanes, startedAtMs: 1_000_000, begunAtMs: 1_000_000, skipped: [], pausedAtMs: null };
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
    const { kept } = show([createCare("port", "Port engine", 5), createCare("starboard", "Starboard engine", 5)]);
    await user.clear(screen.getByLabelText("rpm of leg 1"));
    await user.type(screen.getByLabelText("rpm of leg 1"), "99999");
    await user.click(screen.getByRole("button", { name: "Save" }));
    expect(screen.getByRole("alert").textContent).toContain("Leg 1: rpm from 0 to 20,000.");
    await user.clear(screen.getByLabelText("rpm of leg 1"));
    await user.type(screen.getByLabelText("rpm of leg 1"), "1,200");
    await user.click(screen.getByRole("button", { name: "Another leg" }));
    await user.clear(screen.getByLabelText("Minutes of leg 2"));
    await user.type(screen.getByLabelText("Minutes of leg 2"), "7,5");
    await user.click(screen.getByRole("button", { name: "Save" }));
    expect(kept).toHaveLength(1);
    expect(kept[0]!.engines.map(({ engine }) => engine)).toEqual(["port", "starboard"]);
    expect(kept[0]!.engines[0]!.samples.at(-1)![0]).toBe(750);
    expect(kept[0]).toMatchObject({ source: "hand", date: "2026-06-20", startMin: 720 });
  });
});

describe("a run of twins by hand", () => {
  it("may be told engine by engine, and says of which a leg is not right", async () => {
    const { kept } = show([createCare("port", "Port engine", 5), createCare("starboard", "Starboard engine", 5)]);
    await user.click(screen.getByRole("radio", { name: "Each by itself" }));
    const starboard = screen.getByLabelText("rpm of leg 1, Starboard engine");
    await user.clear(starboard);
    await user.click(screen.getByRole("button", { name: "Save" }));
    expect(screen.getByRole("alert").textContent).toContain("Starboard engine, leg 1: rpm from 0 to 20,000.");
    await user.type(starboard, "900");
    await user.click(screen.getByRole("button", { name: "Another leg, Port engine" }));
    await user.click(screen.getByRole("button", { name: "Save" }));
    expect(kept[0]!.engines.map(({ engine, samples }) => [engine, samples[0]![1], samples.at(-1)![0]])).toEqual([
      ["port", 1200, 600],
      ["starboard", 900, 300],
    ]);
  });

  it("is taken from what was followed, and can be changed before it is kept", async () => {
    const { kept } = show([createCare("main", "Engine", 3)]);
    await user.click(screen.getByRole("radio", { name: /^30 min/ }));
    const planned = legsOnPage().length;
    expect(planned).toBeGreaterThan(3);
    const begun = new Date(2026, 5, 20, 9, 40).getTime();
    let passedMs = 0;
    const clock = vi.spyOn(Date, "now").mockImplementation(() => begun + passedMs);
    const wait = async (minutes: number) => {
      passedMs += minutes * 60_000;
      await new Promise((resolve) => setTimeout(resolve, 300));
    };
    await user.click(screen.getByRole("button", { name: "Follow it at the helm" }));
    const dialog = within(screen.getByRole("dialog", { name: "The run now" }));
    // A minute of the first speed, half a minute of the second, and there it ends.
    await wait(1);
    await user.click(dialog.getByRole("button", { name: "Next speed" }));
    await wait(0.5);
    await user.click(dialog.getByRole("button", { name: "End here" }));
    clock.mockRestore();
    expect(screen.queryByRole("dialog")).toBeNull();
    const minutes = screen.getAllByLabelText<HTMLInputElement>(/^Minutes of leg/);
    expect(minutes.map(({ value }) => value)).toEqual(["1", "0.5"]);
    expect(screen.getByLabelText<HTMLInputElement>("Began at").value).toBe("09:40");
    await user.dblClick(screen.getByRole("button", { name: "Save" }));
    expect(kept[0]).toMatchObject({ date: "2026-06-20", startMin: 580 });
    expect(kept[0]!.engines[0]!.samples.at(-1)![0]).toBe(90);
    expect(new Set(kept.map(({ engines }) => engines[0]!.id)).size).toBe(1);
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
        breaches: trace.breaches.map((breach) => ({
          ...breach,
          says: { phrase: "{0} too long", values: [breach.rule] },
        })),
        advice: [{ phrase: "Go on like this.", values: [] }],
      },
    };
  };

  it("is said plainly, good or not, without blame", () => {
    const { rerender } = render(<RunVerdict run={runOf(3000, 8)} />);
    expect(screen.getByText("Just as the break-in asks.")).toBeTruthy();
    rerender(<RunVerdict run={runOf(3000, 40)} />);
    expect(screen.getByText(/one stretch to change next time/)).toBeTruthy();
    expect(screen.getByText("steady too long")).toBeTruthy();
    expect(document.body.textContent).not.toMatch(/wrong|fault|mistake|should not have/i);
  });

  it("is drawn against time, the limits of its hours shaded, breaches marked, coolant on an axis of its own", () => {
    const run = { ...runOf(3000, 40), hoursBefore: 0.5 };
    const samples: [number, number][] = [
      [0, 700],
      [2400, 3000],
    ];
    const draw = (temperatures: [number, number][]) => {
      const { unmount } = render(<RunChart sheet={{ run, limits, samples, temperatures }} topRpm={6000} />);
      const drawing = JSON.parse(screen.getByRole("img").dataset.drawing!);
      unmount();
      return drawing;
    };
    const cold = draw([]);
    expect(cold.series).toHaveLength(1);
    expect(cold.yAxis.map(({ name }: { name: string }) => name)).toEqual(["rpm"]);
    expect(cold.series[0].data).toEqual([
      [0, 700],
      [40, 3000],
    ]);
    // Half an hour is left at half speed; then the next stage's limit.
    const areas: { xAxis: number; yAxis: number }[][] = cold.series[0].markArea.data;
    expect(areas[0]).toEqual([
      { xAxis: 0, yAxis: 3000 },
      { xAxis: 30, yAxis: 6300 },
    ]);
    expect(areas[1]![0]).toEqual({ xAxis: 30, yAxis: limits[1]!.maxRpm });
    const { startS, endS } = run.verdict.breaches[0]!;
    expect(areas.at(-1)![0]).toMatchObject({ xAxis: startS / 60, yAxis: 0 });
    expect(areas.at(-1)![1]!.xAxis).toBe(endS / 60);
    const warm = draw([
      [0, 20],
      [600, 74],
    ]);
    expect(warm.yAxis[1].name).toBe("coolant, °C");
    expect(warm.series[1]).toMatchObject({
      yAxisIndex: 1,
      data: [
        [0, 20],
        [10, 74],
      ],
    });
  });

  it("opens in the list with its chart, the last one by itself", async () => {
    show([createCare("main", "Engine", 3)], [runOf(3000, 40)]);
    expect(await screen.findByRole("img", { name: /one stretch outside the limits; its coolant dashed/ })).toBeTruthy();
    expect(screen.getByText("72 °C, first at 12:30")).toBeTruthy();
    await user.click(screen.getByRole("button", { name: /1 to change/ }));
    expect(screen.queryByRole("img", { name: /Engine speed/ })).toBeNull();
  });
});
