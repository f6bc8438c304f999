// @vitest-environment jsdom
import { cleanup, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, expect, it, vi } from "vitest";
import type { ReportSheet } from "../../../api/index.ts";
import { estimateMean, estimateMedian, estimateRate, estimateShare } from "../../../core/reports/index.ts";
import { answerWith, showScreen } from "../../testing/answerWith.tsx";
import { ReportsScreen } from "./ReportsScreen.tsx";

vi.mock("../../ui/LazyChart.tsx", () => ({
  LazyChart: ({ says }: { says: string }) => <div role="img" aria-label={says} />,
}));
const saved = vi.hoisted(() => ({ files: [] as { name: string; text: string }[] }));
vi.mock("../../ui/saveFile.ts", () => ({
  saveFile: (name: string, _: string, text: string) => saved.files.push({ name, text }),
}));
afterEach(() => {
  cleanup();
  saved.files = [];
  vi.unstubAllGlobals();
});

const nothing: ReportSheet = {
  from: "2025-11-29",
  to: "2026-11-29",
  closed: { now: 0, before: 0 },
  minutes: { topics: [], places: [], people: [] },
  putOff: [],
  notDone: [],
  firstServices: { months: [], now: null, before: null },
  runs: { months: [], now: null, before: null },
  forgotten: [],
  snags: [],
  promises: { months: [], now: null, before: null },
  calls: { months: [], topics: [], now: null, before: null },
  load: { months: [], now: { bookedH: 0, capacityH: 0 }, before: { bookedH: 0, capacityH: 0 } },
};
const share = (k: number, n: number, kBefore: number, nBefore: number) => ({
  k,
  n,
  kBefore,
  nBefore,
  now: estimateShare(k, n),
  before: estimateShare(kBefore, nBefore),
});
const year: ReportSheet = {
  ...nothing,
  closed: { now: 40, before: 30 },
  minutes: {
    topics: [
      { id: "plug", name: "Drain plug", plannedMin: 1, now: estimateMean(10, 30, 95), before: null },
      { id: "horn", name: "Horn", plannedMin: 1, now: estimateMean(10, 10, 12), before: null },
    ],
    places: [{ id: "helm", name: "helm", plannedMin: 1, now: estimateMean(20, 18, 18), before: null }],
    people: [],
  },
  putOff: [{ id: "a b", name: "Radar", boat: "Wending 23", topic: "b", ...share(6, 20, 0, 0) }],
  notDone: [
    { id: "plug", name: "Drain plug", ...share(1, 40, 2, 30), reasons: [{ reason: "Buyer knows it, says so", k: 1 }] },
  ],
  firstServices: {
    months: [{ month: "2026-03", kept: 9, late: 1, lost: 0, open: 2 }],
    now: estimateShare(90, 100),
    before: estimateShare(50, 100),
  },
  runs: { months: [], now: null, before: null },
  forgotten: [{ id: "a c", name: "Windlass", boat: "Wending 23", topic: "c", ...share(3, 20, 0, 0) }],
  snags: [
    {
      id: "a",
      name: "Wending 23",
      ...share(8, 20, 2, 20),
      days: estimateMedian([1, 2, 5, 6, 7, 8, 20]),
      daysBefore: null,
      open: 2,
    },
  ],
  promises: {
    months: [{ month: "2026-03", kept: 9, late: 1, open: 2 }],
    now: estimateShare(9, 10),
    before: estimateShare(8, 10),
  },
  calls: {
    months: [
      { month: "2026-03", calls: 6, handovers: 20, isOver: true },
      { month: "2026-11", calls: 1, handovers: 4, isOver: false },
    ],
    topics: [{ id: "horn", name: "Horn", ...share(4, 20, 1, 20) }],
    now: estimateRate(6, 20),
    before: estimateRate(4, 20),
  },
  load: {
    months: [
      { month: "2026-03", bookedH: 60, capacityH: 240 },
      { month: "2026-05", bookedH: 264, capacityH: 240 },
    ],
    now: { bookedH: 324, capacityH: 480 },
    before: { bookedH: 0, capacityH: 480 },
  },
};
const show = (sheet: ReportSheet) => {
  answerWith({ reports: () => sheet });
  showScreen([{ path: "/reports", element: <ReportsScreen /> }], "/reports", "owner");
};
const region = async (name: string) => within(await screen.findByRole("region", { name }));

it("say in a sentence each what they mean, and compare only what chance does not explain", async () => {
  show(year);
  const minutes = await region("Minutes against the plan");
  expect(
    minutes.getByText(/^1 topic clearly takes longer than planned, of 2 .*“Drain plug” most, 3.0 min instead of 1.0/),
  ).toBeTruthy();
  expect(minutes.getByText("1.0 min, planned 1.0")).toBeTruthy();
  expect((await region("Topics put off")).getByText(/“Radar” on the Wending 23, in 6 of 20 handovers/)).toBeTruthy();
  const undone = await region("Musts not done, and why");
  expect(undone.getByText(/^1 must was left undone at least once/)).toBeTruthy();
  expect(undone.getByText("“Buyer knows it, says so” once")).toBeTruthy();
  const first = await region("First services kept");
  expect(first.getByText(/^90 % \(83 to 94\) .* The year before it was 50 %: it has risen\.$/)).toBeTruthy();
});

it("tell what was owed and what the workshop did, with the count each figure is made from", async () => {
  show(year);
  expect((await region("Topics never reached")).getByText(/“Windlass” on the Wending 23, in 3 of 20/)).toBeTruthy();
  const snags = await region("Snags, and the days to fix them");
  expect(snags.getByText(/Wending 23, in 8 of 20 handovers; half .* within 6 days\. 2 snags are open/)).toBeTruthy();
  expect(snags.getByText("6 days, the middle one of 7")).toBeTruthy();
  const promises = await region("Promises kept");
  expect(
    promises.getByText(/^90 % \(60 to 98\) of the promises .* kept, 10 in all.*80 %: within chance\.$/),
  ).toBeTruthy();
  const calls = await region("Calls after the handover");
  expect(
    calls.getByText(/^30 calls \(11 to 65\) .* before it was 20: within chance\. .*“Horn” most: 4 times/),
  ).toBeTruthy();
  const load = await region("Workshop load");
  expect(
    load.getByText(/324 of 480 h it was open \(68 %\), nothing the year before; fullest in May 26, 110 %/),
  ).toBeTruthy();
  const user = userEvent.setup();
  await user.click(screen.getByRole("button", { name: "Save as CSV: Calls after the handover" }));
  await vi.waitFor(() => expect(saved.files).toHaveLength(1));
  expect(saved.files[0]!.text).toContain("2026-11,1,4,25,no");
});

it("say so where nothing is known yet, and draw nothing", async () => {
  show(nothing);
  expect((await region("Minutes against the plan")).getByText(/^No topic has been walked five times/)).toBeTruthy();
  expect((await region("Musts not done, and why")).getByText("No must was left undone in 0 handovers.")).toBeTruthy();
  expect((await region("Break-ins run well")).getByText(/^No run was logged/)).toBeTruthy();
  expect(screen.queryByRole("img")).toBeNull();
});

it("make nothing of fewer than five", async () => {
  show({
    ...nothing,
    promises: { months: [], now: estimateShare(1, 2), before: estimateShare(8, 10) },
    calls: { months: [], topics: [], now: estimateRate(3, 4), before: null },
  });
  const promises = await region("Promises kept");
  expect(
    promises.getByText("1 of 2 promises that came to an end were kept. That is too few to make anything of."),
  ).toBeTruthy();
  const calls = await region("Calls after the handover");
  expect(calls.getByText(/^3 calls came in the first 90 days of 4 handovers: too few for a rate\.$/)).toBeTruthy();
});

it("are saved as CSV with units, spans and how many they are made from", async () => {
  show(year);
  await screen.findByRole("region", { name: "Topics put off" });
  await userEvent.setup().click(screen.getByRole("button", { name: "Save as CSV: Topics put off" }));
  await vi.waitFor(() => expect(saved.files).toHaveLength(1));
  const [file] = saved.files;
  expect(file!.name).toBe("topics-put-off.csv");
  const [head, row] = file!.text.split("\r\n");
  expect(head).toContain('topic,boat,put off,handovers,share,"share, low","share, high","share, of"');
  expect(head).toContain("share the year before");
  expect(row).toMatch(/^Radar,Wending 23,6,20,0\.3,0\.1\d+,0\.5\d+,20,,,,$/);
});
