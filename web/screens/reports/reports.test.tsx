// @vitest-environment jsdom
import { cleanup, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, expect, it, vi } from "vitest";
import type { ReportSheet } from "../../../api/index.ts";
import { estimateMean, estimateShare } from "../../../core/reports/index.ts";
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
    minutes.getByText(/^1 topic takes surely longer than planned, of 2 .*“Drain plug” most, 3.0 min instead of 1.0/),
  ).toBeTruthy();
  expect(minutes.getByText("1.0 min, planned 1.0")).toBeTruthy();
  expect((await region("Topics put off")).getByText(/“Radar” on the Wending 23, in 6 of 20 handovers/)).toBeTruthy();
  const undone = await region("Musts not done, and why");
  expect(undone.getByText(/^1 must was left undone at least once/)).toBeTruthy();
  expect(undone.getByText("“Buyer knows it, says so” once")).toBeTruthy();
  const first = await region("First services kept");
  expect(first.getByText(/^90 % \(83 to 94\) .* The year before it was 50 %: it has risen\.$/)).toBeTruthy();
});

it("say so where nothing is known yet, and draw nothing", async () => {
  show(nothing);
  expect((await region("Minutes against the plan")).getByText(/^No topic has been walked five times/)).toBeTruthy();
  expect((await region("Musts not done, and why")).getByText("No must was left undone in 0 handovers.")).toBeTruthy();
  expect((await region("Break-ins run well")).getByText(/^No run was logged/)).toBeTruthy();
  expect(screen.queryByRole("img")).toBeNull();
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
