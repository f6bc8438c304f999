// @vitest-environment jsdom
import "fake-indexeddb/auto";
import { cleanup, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Boat, NewRun, RunLine } from "../../../api/index.ts";
import { breakInPacks, rigTemplates } from "../../../content/index.ts";
import { createLimits, describeCoverage, findBreakInStanding, measureProgress } from "../../../core/breakin/index.ts";
import { judgeRun } from "../../../server/services/runService.ts";
import { syncQueue } from "../../offline/useSync.ts";
import { answerWith, showScreen } from "../../testing/answerWith.tsx";
import { RunsScreen } from "./RunsScreen.tsx";

vi.mock("../../ui/LazyChart.tsx", () => ({
  LazyChart: ({ says }: { says: string }) => <div role="img" aria-label={says} />,
}));

const rig = rigTemplates["ferrin-20"];
const [engine] = rig.engines;
const pack = breakInPacks.find(({ id }) => id === engine!.breakInPack)!;
const limits = createLimits(pack, engine!.ratedRpm.to);

/** A boat four hours into its break-in, as the yard tells it; runs are judged as the server judges them. */
const createBoat = (runs: RunLine[], inService: string | null = "2026-06-01"): Boat => {
  const coverage = describeCoverage(limits, {}, 4, engine!.ratedRpm.to);
  return {
    id: "f1",
    name: "Ferrin 20",
    hull: "FRN20001A626",
    rig,
    today: "2026-06-20",
    inService,
    runs,
    care: [
      {
        engine: engine!.id,
        label: engine!.label,
        kind: engine!.kind,
        reportedH: 4,
        meterH: 4,
        breakInTitle: pack.title,
        breakInBasis: pack.basis,
        tankHours: null,
        breakIn: findBreakInStanding(pack, 4, engine!.ratedRpm.to),
        limits,
        ratedToRpm: engine!.ratedRpm.to,
        coverage,
        progress: measureProgress(coverage, 4, pack.totalH),
      },
    ],
  } as unknown as Boat;
};
const judge = ({ date, startMin, source, fileName, engines }: NewRun): RunLine[] =>
  engines.map(({ id, engine: of, samples }) => ({
    id,
    engine: of,
    date,
    startMin,
    source,
    fileName,
    hoursBefore: 4,
    by: "Nessa",
    verdict: judgeRun(limits, 4, samples, startMin, engine!.ratedRpm.to),
  }));

const user = userEvent.setup();
let kept: RunLine[];
beforeEach(() => {
  kept = [];
  localStorage.clear();
  Element.prototype.scrollIntoView = () => undefined;
});
afterEach(async () => {
  cleanup();
  for (const { id } of syncQueue.listPosts("f1")) await syncQueue.discardPost(id);
  vi.unstubAllGlobals();
});
const show = (inService: string | null = "2026-06-01") => {
  const asked = answerWith({
    boat: () => createBoat(kept, inService),
    addRun: ({ body }) => {
      const runs = judge(body as NewRun);
      kept = [...kept, ...runs];
      return { runs };
    },
    run: ({ params }) => ({
      run: kept.find(({ id }) => id === params.run)!,
      limits,
      samples: [
        [0, 900],
        [600, 900],
      ],
      temperatures: [],
    }),
  });
  showScreen([{ path: "/boats/:boat/runs", element: <RunsScreen /> }], "/boats/f1/runs", "service");
  return asked;
};
const write = async (minutes: string, rpm: string) => {
  await user.clear(await screen.findByLabelText("Minutes of leg 1"));
  await user.type(screen.getByLabelText("Minutes of leg 1"), minutes);
  await user.clear(screen.getByLabelText("rpm of leg 1"));
  await user.type(screen.getByLabelText("rpm of leg 1"), rpm);
  await user.click(screen.getByRole("button", { name: "Save" }));
};

describe("a boat's runs at the yard", () => {
  it("written down are judged and opened at once, with what to do next time", async () => {
    show();
    expect(await screen.findByText(/No run is logged yet/)).toBeTruthy();
    await write("40", "3,000");
    const verdict = within(await screen.findByRole("region", { name: "What this run was like" }));
    expect(verdict.getByText(/one stretch to change next time/)).toBeTruthy();
    expect(verdict.getByText(/12:00–12:40 at 3,000/)).toBeTruthy();
    expect(verdict.getByText("Next run.")).toBeTruthy();
    expect(await screen.findByRole("img", { name: /Engine speed over 40 minutes/ })).toBeTruthy();
  });

  it("that keep to the limits are said to, and close again at a touch", async () => {
    show();
    await write("6", "1200");
    expect(await screen.findByText("Just as the break-in asks.")).toBeTruthy();
    await user.click(screen.getByRole("button", { name: /as asked/ }));
    expect(screen.queryByText("Just as the break-in asks.")).toBeNull();
  });

  it("written without signal are kept on the device, and judged when there is one", async () => {
    const asked = show();
    await screen.findByText(/No run is logged yet/);
    const answering = globalThis.fetch;
    vi.stubGlobal("fetch", async () => {
      throw new TypeError("failed to fetch");
    });
    await write("6", "1200");
    const here = await screen.findByRole("list", { name: "Kept on this device" });
    expect(here.textContent).toContain("The run of 20 Jun 2026, 12:00");
    vi.stubGlobal("fetch", answering);
    window.dispatchEvent(new Event("online"));
    await waitFor(() => expect(screen.queryByRole("list", { name: "Kept on this device" })).toBeNull());
    expect(asked.filter(({ name }) => name === "addRun")).toHaveLength(1);
    expect(await screen.findByRole("button", { name: /20 Jun 2026.*6 min.*as asked/ })).toBeTruthy();
  });

  it("wait for the handover", async () => {
    show(null);
    expect(await screen.findByText(/Not handed over yet/)).toBeTruthy();
    expect(screen.queryByRole("button", { name: "Save" })).toBeNull();
  });
});
