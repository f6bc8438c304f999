// @vitest-environment jsdom
import "fake-indexeddb/auto";
import { QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Boat } from "../../../api/index.ts";
import { boatCarePack, breakInPacks, rigTemplates, servicePacks } from "../../../content/index.ts";
import { type CareQuestion, describeCare, describePlan } from "../../../core/care/index.ts";
import { addDays } from "../../../core/dates/index.ts";
import { learnFleet } from "../../../core/hours/index.ts";
import { meQuery, queryClient } from "../../app/queries.ts";
import { makeMe } from "../../testing/makeMe.ts";
import type { Inks } from "../../ui/Chart.tsx";
import { HoursFan } from "./HoursFan.tsx";
import { RecordService } from "./RecordService.tsx";
import { ServicesDone } from "./ServicesDone.tsx";
import { ServiceTable } from "./ServiceTable.tsx";
import { YearsLine } from "./YearsLine.tsx";

type Drawing = {
  series: { data: [string, number][]; markLine?: { data: { yAxis?: number; xAxis?: string }[] } }[];
};
const inks = new Proxy({}, { get: (_, name) => name }) as Inks;
vi.mock("../../ui/LazyChart.tsx", () => ({
  LazyChart: ({ draw, says }: { draw: (inks: Inks) => unknown; says: string }) => (
    <div role="img" aria-label={says} data-drawing={JSON.stringify(draw(inks))} />
  ),
}));
const drawn = () => JSON.parse(screen.getByRole("img", { name: /a year/ }).dataset.drawing!) as Drawing;

const today = "2026-06-20";
const asBuilt: Boat["rig"] = rigTemplates["wending-23"];
const [port, starboard] = asBuilt.engines;
const season = [0, 0.01, 0.03, 0.07, 0.13, 0.19, 0.22, 0.18, 0.1, 0.05, 0.02, 0];

/** A boat with twins, handed over in May and read twice, as the server tells it. */
function createBoat(
  services: Boat["services"] = [],
  { rig, inService }: Pick<Boat, "rig" | "inService"> = { rig: asBuilt, inService: "2026-05-01" },
): Boat {
  const readings = rig.engines.flatMap(({ id }) =>
    (
      [
        ["2026-05-01", 1],
        ["2026-06-15", 12.5],
      ] as const
    ).map(([date, hours], i) => ({
      id: `${id}${i}`,
      boatId: "w1",
      engine: id,
      date,
      hours,
      reason: null,
      by: "n",
      source: "phone",
      answer: null,
      photo: null,
    })),
  );
  const question: CareQuestion = {
    rig,
    inService,
    today,
    packs: { breakIn: breakInPacks, service: servicePacks, boatCare: boatCarePack },
    fleet: learnFleet(
      [],
      season.map((share) => share * 55),
    ),
    readings,
    services: services.map((service) => ({ ...service, boatId: "w1" })),
    fills: [],
    runs: [],
  };
  return {
    id: "w1",
    name: "Wending 23",
    rig,
    today,
    inService,
    care: describeCare(question),
    ...describePlan(question, [{ id: "flares", title: "Flares out of date", date: "2027-03-01" }]),
    readings,
    services,
  } as unknown as Boat;
}

const posts: { path: string; body: Record<string, unknown> | Blob }[] = [];
beforeEach(() => {
  posts.length = 0;
  queryClient.setQueryData(meQuery.queryKey, makeMe({ id: "ines", name: "Ines", role: "service" }));
  vi.stubGlobal("fetch", async (path: string, { body }: { body: string | Blob }) => {
    posts.push({ path, body: typeof body === "string" ? JSON.parse(body) : body });
    return new Response(
      JSON.stringify(path.startsWith("/api/files/") ? { file: path.split("/").at(-1) } : { done: true }),
    );
  });
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});
const user = userEvent.setup();

describe("five years on a line", () => {
  it("has a mark for each visit in its place, and says what is done there, why and with what", async () => {
    const boat = createBoat();
    render(<YearsLine boat={boat} />);
    const line = within(screen.getByRole("region", { name: /The next five years/ }));
    const marks = line.getAllByRole("button");
    expect(marks).toHaveLength(boat.visits.length);
    const places = marks.map(({ style }) => Number.parseFloat(style.left));
    expect(places).toEqual([...places].sort((a, b) => a - b));
    expect(places.every((place) => place >= 0 && place <= 100)).toBe(true);
    for (const year of [2027, 2028, 2029, 2030, 2031]) expect(line.getByText(String(year))).toBeTruthy();
    expect(marks[0]!.getAttribute("aria-pressed")).toBe("true");
    const flares = marks.find((mark) => mark.getAttribute("aria-label")!.includes("Flares out of date"))!;
    await user.click(flares);
    expect(flares.getAttribute("aria-pressed")).toBe("true");
    expect(line.getByText("Flares out of date")).toBeTruthy();
    expect(line.getByText(/at the latest; about/)).toBeTruthy();
  });

  it("adds up its visits and their work, and gives calendar and history", () => {
    const boat: Boat = { ...createBoat(), language: "fr" };
    render(<YearsLine boat={boat} />);
    const hours = Math.round(boat.visits.reduce((sum, { labourH }) => sum + labourH, 0));
    expect(screen.getByText(`${boat.visits.length} visits, about ${hours} h of work`)).toBeTruthy();
    expect(screen.getByRole("link", { name: "Calendar (.ics)" }).getAttribute("download")).toBe("w1.ics");
    const papers = screen.getAllByRole("link", { name: /Service history/ });
    expect(papers.map((link) => [link.textContent, link.getAttribute("href")])).toEqual([
      ["Service history (PDF)", expect.stringMatching(/history\.pdf.*language=en/)],
      ["Service history (PDF), Français", expect.stringMatching(/history\.pdf.*language=fr/)],
    ]);
  });

  it("marks what is past due, and is not there before the handover", () => {
    const boat = createBoat();
    const [first, ...rest] = boat.visits;
    const late = { ...first!, items: first!.items.map((item) => ({ ...item, isOverdue: true })) };
    const { rerender } = render(<YearsLine boat={{ ...boat, visits: [late, ...rest] }} />);
    expect(screen.getAllByText(/^▲ past due/).length).toBeGreaterThan(0);
    rerender(<YearsLine boat={{ ...boat, visits: [] }} />);
    expect(screen.queryByRole("region")).toBeNull();
  });
});

describe("the fan of hours", () => {
  it("draws what was read and what is likely, with the hours of the next service across it, and says it", async () => {
    const boat = createBoat();
    render(<HoursFan boat={boat} />);
    const { p10, p50, p90 } = boat.care[0]!.forecast!.yearH;
    expect(p10 < p50 && p50 < p90).toBe(true);
    const says = screen.getByTestId(`forecast-${port!.id}`).textContent!;
    expect(says).toContain(`runs ${p10.toFixed(0)} to ${p90.toFixed(0)} h a year, likely ${p50.toFixed(0)}.`);
    expect(says).toMatch(/at 20 h: likely \d+ \w+ 2026, between/);
    const { series } = drawn();
    const [low, spread, likely, reported] = series.map(({ data }) => data);
    expect(reported).toEqual([
      ["2026-05-01", 1],
      ["2026-06-15", 12.5],
    ]);
    likely!.forEach(([date, hours], i) => {
      expect(date >= today).toBe(true);
      expect(low![i]![1] <= hours && hours <= low![i]![1] + spread![i]![1]).toBe(true);
    });
    expect(series[3]!.markLine!.data).toEqual([
      expect.objectContaining({ xAxis: today }),
      expect.objectContaining({ yAxis: 20 }),
    ]);
  });

  it("of twins shows one at a time", async () => {
    render(<HoursFan boat={createBoat()} />);
    await user.click(screen.getByRole("radio", { name: starboard!.label }));
    expect(screen.getByTestId(`forecast-${starboard!.id}`)).toBeTruthy();
    expect(screen.queryByTestId(`forecast-${port!.id}`)).toBeNull();
  });
});

describe("recording a service", () => {
  const start = (priceCents: number | null = null) => {
    const onDone = vi.fn();
    const boat = createBoat();
    const visits = boat.visits.map((visit) => ({
      ...visit,
      items: visit.items.map((item) => ({ ...item, priceCents })),
    }));
    render(
      <QueryClientProvider client={queryClient}>
        <RecordService boat={{ ...boat, visits }} engine={port!.id} item="first-service" onDone={onDone} />
      </QueryClientProvider>,
    );
    return onDone;
  };
  const keep = () => user.click(screen.getByRole("button", { name: "Save the service" }));

  it("begins with today and says what hours are likely, keeps only what is typed, with parts and price", async () => {
    const onDone = start();
    const hours = screen.getByLabelText<HTMLInputElement>("At engine hours");
    expect(hours.value).toBe("");
    expect(hours.closest("div")!.textContent).toContain(`about ${createBoat().care[0]!.likelyNowH!.toFixed(0)} likely`);
    await keep();
    expect(screen.getByRole("alert").textContent).toContain("Type hours such as 20.5");
    expect(posts).toEqual([]);
    await user.type(hours, "19,5");
    await user.type(screen.getByLabelText("Parts and remarks"), "oil filter");
    await user.type(screen.getByLabelText("Price"), "312,40");
    await keep();
    await waitFor(() => expect(onDone).toHaveBeenCalled());
    expect(posts[0]).toMatchObject({
      path: "/api/boats/w1/services",
      body: { engine: port!.id, item: "first-service", date: today, hours: 19.5, outcome: "done", note: "oil filter" },
    });
    expect((posts[0]!.body as { priceCents: number }).priceCents).toBe(31_240);
  });

  it("begins with the price the store has filled in", () => {
    start(28_000);
    expect(screen.getByLabelText<HTMLInputElement>("Price").value).toBe("280.00");
  });

  it("done elsewhere asks who did it, and takes a file that shows it", async () => {
    const onDone = start(28_000);
    await user.click(screen.getByRole("radio", { name: "Done elsewhere" }));
    await keep();
    expect(screen.getByRole("alert").textContent).toContain("Who did it, and what shows it: say it in a few words.");
    await user.type(screen.getByLabelText("Who did it, and what shows it"), "Yard on the north shore");
    await user.type(screen.getByLabelText("At engine hours"), "21");
    const invoice = new File(["%PDF-1.7"], "invoice 12.pdf", { type: "application/pdf" });
    await user.upload(screen.getByLabelText("File (PDF, text)"), invoice);
    const link = await screen.findByRole("link", { name: "invoice 12.pdf" });
    expect(link.getAttribute("download")).toBe("invoice 12.pdf");
    await keep();
    await waitFor(() => expect(onDone).toHaveBeenCalled());
    const file = posts[0]!.path.split("/").at(-1);
    expect(posts[1]!.body).toMatchObject({ outcome: "elsewhere", file, fileName: "invoice 12.pdf" });
    // What another yard took is not ours to say.
    expect(posts[1]!.body).not.toHaveProperty("priceCents");
  });

  it("refuses files that are none or too large before they are sent, and lets one be taken off again", async () => {
    const onDone = start();
    const upload = (file: File) => user.upload(document.querySelector<HTMLInputElement>('input[accept*="pdf"]')!, file);
    const large = new File(["x"], "all.pdf", { type: "application/pdf" });
    Object.defineProperty(large, "size", { value: 10_000_001 });
    await upload(large);
    expect((await screen.findByRole("alert")).textContent).toContain("the limit is 10 MB");
    expect(posts).toEqual([]);
    await upload(new File(["done"], "note.txt", { type: "text/plain" }));
    await user.click(await screen.findByRole("button", { name: "Without file" }));
    await user.type(screen.getByLabelText("At engine hours"), "21");
    await keep();
    await waitFor(() => expect(onDone).toHaveBeenCalled());
    expect(posts.at(-1)!.body).not.toHaveProperty("file");
  });

  it("skipped wants a reason; hours and prices that are none are said, not sent", async () => {
    start();
    await user.click(screen.getByRole("radio", { name: "Skipped" }));
    expect(screen.queryByLabelText("Price")).toBeNull();
    await keep();
    expect(screen.getByRole("alert").textContent).toContain("Why it is skipped");
    await user.click(screen.getByRole("radio", { name: "Done here" }));
    await user.type(screen.getByLabelText("Price"), "dear");
    await keep();
    expect(screen.getByRole("alert").textContent).toContain("Type the price as a number");
    await user.clear(screen.getByLabelText("Price"));
    await user.type(screen.getByLabelText("At engine hours"), "19 and a half");
    await keep();
    expect(screen.getByRole("alert").textContent).toContain("Type hours such as 20.5");
    expect(posts).toEqual([]);
  });

  it("moves the next one on, and stands in the list with its proof", () => {
    const before = createBoat();
    const done: Boat["services"][number] = {
      id: "01",
      engine: port!.id,
      item: "first-service",
      date: addDays(today, -2),
      hours: 14,
      by: "Ines",
      outcome: "elsewhere",
      note: "Yard on the north shore",
      photo: null,
      file: "f1",
      fileName: "invoice.pdf",
      priceCents: 31_240,
      parts: "Engine oil, Oil filter",
      labourH: 1.5,
      mechanic: "Tobin",
    };
    const after = createBoat([done]);
    const isFirst = ({ item, scope }: { item: string; scope: string }) =>
      item === "first-service" && scope === port!.id;
    expect(before.visits.some(({ items }) => items.some(isFirst))).toBe(true);
    expect(after.visits.some(({ items }) => items.some(isFirst))).toBe(false);
    const withdrawn: Boat["withdrawn"] = [
      {
        kind: "service",
        id: "02",
        reason: "The other boat",
        by: "Ines",
        at: "2026-06-19T10:00:00.000Z",
        isCorrected: false,
        engine: port!.id,
        date: "2026-06-10",
        amount: 13,
        what: "first-service",
      },
    ];
    render(
      <QueryClientProvider client={queryClient}>
        <ServicesDone boat={{ ...after, withdrawn }} />
      </QueryClientProvider>,
    );
    expect(screen.getByText("Entered wrong: 1").closest("details")!.textContent).toContain(
      "Service First service, 13 h, Port engine, 10 Jun 2026 taken out: The other boat Ines, 19 Jun 2026",
    );
    const row = screen.getAllByRole("row")[1]!;
    expect(row.textContent).toContain("14.0 h");
    expect(row.textContent).toContain("elsewhere, Tobin · 1.5 h of workentered by Ines");
    expect(row.textContent).toContain("312.40");
    expect(within(row).getByRole("link", { name: "invoice.pdf" }).getAttribute("href")).toBe("/api/files/f1");
  });
});

describe("a used boat", () => {
  beforeEach(() => {});
  const used = { ...asBuilt, used: { changes: [] } };
  const rows = () =>
    screen
      .getAllByRole("row")
      .slice(1)
      .map((row) => row.textContent!);

  it("has no first service, and says of the rest when nobody knows the last time", () => {
    render(
      <QueryClientProvider client={queryClient}>
        <ServiceTable boat={createBoat([], { rig: used, inService: null })} />
      </QueryClientProvider>,
    );
    expect(rows().length).toBeGreaterThan(2);
    for (const row of rows()) {
      expect(row).not.toContain("First service");
      expect(row).toContain("last time not known");
    }
  });

  it("counts from what was done on it before it came", () => {
    const done: Boat["services"][number] = {
      id: "01",
      engine: port!.id,
      item: "annual",
      date: "2025-09-30",
      hours: 8,
      by: "Tobin",
      outcome: "elsewhere",
      note: "Bill came with the boat",
      photo: null,
      file: null,
      fileName: null,
      priceCents: null,
      parts: "",
      labourH: null,
      mechanic: "",
    };
    render(
      <QueryClientProvider client={queryClient}>
        <ServiceTable boat={createBoat([done], { rig: used, inService: "2026-05-01" })} />
      </QueryClientProvider>,
    );
    const [annual] = rows();
    expect(annual).toContain("last 30 Sept 2025");
    expect(annual).toContain("108 h");
    expect(annual).toContain("30 Sept 2026");
  });
});
