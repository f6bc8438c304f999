// @vitest-environment jsdom
import "fake-indexeddb/auto";
import { cleanup, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { WorkshopSheet } from "../../../api/index.ts";
import { addDays } from "../../../core/dates/index.ts";
import { answerWith, refuse, showScreen } from "../../testing/answerWith.tsx";
import { boat, callListOf, today } from "../../testing/careStage.ts";
import type { Inks } from "../../ui/Chart.tsx";
import { formatLoad, WorkshopScreen } from "./WorkshopScreen.tsx";

vi.mock("../../ui/LazyChart.tsx", () => ({
  LazyChart: ({
    draw,
    says,
    onPick,
  }: {
    draw: (inks: Inks) => unknown;
    says: string;
    onPick?: (i: number) => void;
  }) => (
    <>
      <div role="img" aria-label={says} data-drawing={JSON.stringify(draw(inks))} />
      <button type="button" onClick={() => onPick?.(1)}>
        The second column
      </button>
    </>
  ),
}));
const inks = new Proxy({}, { get: (_, name) => name }) as Inks;

const user = userEvent.setup();
afterEach(() => {
  cleanup();
});

describe("the workshop", () => {
  const week = (i: number, expectedH: number): WorkshopSheet["weeks"][number] => ({
    begins: addDays("2026-06-15", 7 * i),
    capacityH: 32,
    expectedH,
    p10H: expectedH - 4,
    p90H: expectedH + 4,
    jobs: 5,
    byKind: { "first-service": expectedH, yearly: 0, season: 0, booked: 0, other: 0 },
  });
  const sheet: WorkshopSheet = {
    date: today,
    engines: 60,
    workshop: { hoursPerDay: [6, 6, 6, 6, 6, 2, 0], closed: [] },
    weeks: [week(0, 20), week(1, 45), week(2, 10)],
    offers: [
      {
        boat: "b1",
        items: [{ scope: "port", item: "first-service", title: "First service" }],
        labourH: 1.5,
        dueDate: "2026-06-24",
        range: null,
        isAnyDay: false,
        fromWeek: "2026-06-22",
        toWeek: "2026-06-15",
        boatName: "Wending 23",
        serial: "23118",
        buyers: "Dov Anselm",
      },
    ],
    bookings: [
      {
        id: "01HZZZZZZZZZZZZZZZZZZZZZ01",
        boat: "b1",
        date: "2026-06-16",
        startMin: 570,
        labourH: 7,
        items: [],
        note: "hose first",
        state: "booked",
        by: "Ines",
        boatName: "Wending 23",
        serial: "23118",
        buyers: "Dov Anselm",
      },
    ],
  };
  const show = (role = "service", read = sheet) => {
    const asked = answerWith({
      workshop: () => read,
      callList: () => callListOf([]),
      boat: () => boat,
      setBooking: () => ({ done: true as const }),
      setWorkshop: () => ({ done: true as const }),
      workshopWeek: () => ({
        boats: [
          {
            ...{ boat: "b1", boatName: "Wending 23", serial: "23118", buyers: "Dov Anselm", titles: ["First service"] },
            ...{ expectedH: 2.4, isBooked: false },
          },
        ],
        more: 3,
      }),
      addService: () => ({ done: true as const }),
      sendMessage: () => refuse("opted-out"),
      makeFeed: () => ({ token: "A".repeat(22) }),
    });
    showScreen([{ path: "/aftercare/workshop", element: <WorkshopScreen /> }], "/aftercare/workshop", role);
    return asked;
  };

  it("says the year in a sentence", () => {
    expect(formatLoad(sheet)).toBe(
      "One week has more than the workshop can do. The most is expected in the week of Mon 22 Jun: 45 h of 32 h.",
    );
    expect(formatLoad({ weeks: [week(0, 20)] })).toMatch(/^Every week has room/);
  });

  it("draws each week by kind, with its band and what the workshop can do, and opens a week at a touch", async () => {
    show();
    const chart = await screen.findByRole("img", { name: /one week is too full/ });
    const { series, xAxis } = JSON.parse(chart.dataset.drawing!);
    expect(xAxis.data).toEqual(["2026-06-15", "2026-06-22", "2026-06-29"]);
    const values = (name: string) => series.find((each: { name?: string }) => each.name === name).data;
    expect(values("first service").map(({ value }: { value: number }) => value)).toEqual([20, 45, 10]);
    expect(values("booked").map(({ value }: { value: number }) => value)).toEqual([0, 0, 0]);
    const [low, spread, capacity] = series.slice(-3).map(({ data }: { data: number[] }) => data);
    expect([low, spread, capacity]).toEqual([
      [16, 41, 6],
      [8, 8, 8],
      [32, 32, 32],
    ]);
    await user.click(screen.getByRole("button", { name: "The second column" }));
    expect(screen.getByText(/22 Jun/, { selector: "h2 *, h2" })).toBeTruthy();
  });

  it("marks a day that holds more than it can, cancels and takes back", async () => {
    const asked = show();
    const days = await screen.findByRole("region", { name: /^Week of 15 Jun 2026/ });
    expect(days.textContent).toContain("▲ 7.0 of 6 h");
    expect(days.textContent).toContain("09:30 Wending 23");
    await user.click(within(days).getByRole("button", { name: "Cancel the slot" }));
    await user.click(await within(days).findByRole("button", { name: "Take it back" }));
    const states = asked
      .filter(({ name }) => name === "setBooking")
      .map(({ body }) => (body as { state: string }).state);
    expect(states).toEqual(["cancelled", "booked"]);
  });

  it("says what a week comes to and whose boats make it", async () => {
    show();
    const days = await screen.findByRole("region", { name: /^Week of 15 Jun 2026/ });
    expect(within(days).getByText("0.0 h booked, 20.0 h more expected, of 32 h.")).toBeTruthy();
    await user.click(within(days).getByRole("button", { name: "Which boats make this week" }));
    const boats = await within(days).findByRole("list", { name: "Boats that make this week" });
    expect(boats.textContent).toContain("Wending 23 23118, Dov Anselm");
    expect(boats.textContent).toContain("2.4 h");
    expect(boats.textContent).toContain("and 3 boats with less");
  });

  it("writes down what was done of a slot, with parts of its pack, and closes it; one to come is asked about", async () => {
    const items = ["port", "starboard"].map((scope) => ({ scope, item: "first-service", title: "First service" }));
    const [slot] = sheet.bookings;
    const asked = show("technician", { ...sheet, bookings: [{ ...slot!, items }] });
    await user.click(await screen.findByRole("button", { name: "Done" }));
    const form = within(await screen.findByRole("form", { name: "What was done on Wending 23 23118" }));
    expect(form.getByText(/This slot is on Tue 16 Jun/)).toBeTruthy();
    await user.click(form.getByRole("checkbox", { name: "First service, starboard" }));
    await user.click(form.getByRole("checkbox", { name: "Oil filter" }));
    const hours = form.getByLabelText(/^Hours, /);
    expect(hours).toHaveProperty("value", "");
    await user.click(form.getByRole("button", { name: "Save what was done" }));
    expect(form.getByRole("alert").textContent).toContain("type what the meter shows, such as 20.5");
    await user.clear(hours);
    await user.type(hours, "19.5");
    await user.type(form.getByLabelText("Other parts"), "Hose clamp");
    await user.click(form.getByRole("button", { name: "Save what was done" }));
    await waitFor(() => expect(asked.some(({ name }) => name === "setBooking")).toBe(true));
    const [service, ...others] = asked.filter(({ name }) => name === "addService");
    expect(others).toEqual([]);
    expect(service?.body).toMatchObject({
      ...{ engine: "port", item: "first-service", date: today, hours: 19.5, outcome: "done" },
      ...{ parts: "Engine oil, Hose clamp", labourH: 7, mechanic: "Nessa" },
    });
    expect(asked.find(({ name }) => name === "setBooking")?.body).toMatchObject({ state: "done", date: today });
  });

  it("says while booking what room the day has, and asks before it is overfilled", async () => {
    show();
    await user.click(await screen.findByRole("button", { name: "Book Wending 23 23118" }));
    const form = within(await screen.findByRole("form", { name: "Book a slot" }));
    expect(form.getByText("▲ Tue 16 Jun would hold 8.5 of 6 h. Book it there?")).toBeTruthy();
    expect(form.getByRole("list", { name: "Booked that day" }).textContent).toContain("09:30 to 16:30, Wending 23");
    expect(form.getByRole("button", { name: "Book it anyway" })).toBeTruthy();
    await user.clear(form.getByLabelText(/^Day/));
    await user.type(form.getByLabelText(/^Day/), "2026-06-17");
    expect(form.getByText("Wed 17 Jun: 0.0 of 6 h booked, 6.0 h free.")).toBeTruthy();
    await user.clear(form.getByLabelText(/^Day/));
    await user.type(form.getByLabelText(/^Day/), "2026-06-21");
    expect(form.getByText("◷ Sun 21 Jun: the workshop is closed.")).toBeTruthy();
  });

  it("offers an earlier slot, and says why one could not be offered", async () => {
    const asked = show();
    await user.click(await screen.findByRole("button", { name: "Offer Wending 23 23118 a slot" }));
    // What they will read is shown first, and nothing is sent before that.
    const words = await screen.findByLabelText("Dov Anselm will read");
    expect((words as HTMLTextAreaElement).value).toContain("In the week of Mon 15 Jun we have time for you");
    expect(asked.filter(({ name }) => name === "sendMessage")).toEqual([]);
    await user.click(screen.getByRole("button", { name: "Send it" }));
    expect((await screen.findByRole("alert")).textContent).toContain("asked not to be written to");
    expect(asked.find(({ name }) => name === "sendMessage")?.body).toMatchObject({
      kind: "earlier",
      text: expect.stringContaining("In the week of Mon 15 Jun we have time"),
    });
    await user.click(screen.getByRole("button", { name: "Book Wending 23 23118" }));
    const form = await screen.findByRole("form", { name: "Book a slot" });
    expect((within(form).getByLabelText("Day") as HTMLInputElement).value).toBe("2026-06-16");
    expect((within(form).getByRole("checkbox", { name: /port/ }) as HTMLInputElement).checked).toBe(true);
    expect((within(form).getByRole("checkbox", { name: /starboard/ }) as HTMLInputElement).checked).toBe(false);
  });

  it("keeps hours and closed days, refuses what is none, and is not for everybody to change", async () => {
    const asked = show();
    await user.click(await screen.findByText("Shop capacity and closed days"));
    const begins = screen.getByLabelText("Mon");
    await user.clear(begins);
    await user.click(screen.getByRole("button", { name: "Save" }));
    expect(screen.getByRole("alert").textContent).toContain("Mon: type hours such as 14");
    await user.type(begins, "8,5");
    await user.click(screen.getByRole("button", { name: "Save" }));
    expect(asked.find(({ name }) => name === "setWorkshop")?.body).toMatchObject({
      hoursPerDay: [8.5, 6, 6, 6, 6, 2, 0],
    });
    expect(await screen.findByText("Saved.")).toBeTruthy();
    cleanup();
    show("sales");
    await screen.findByRole("region", { name: /^Week of/ });
    expect(screen.queryByText("Shop capacity and closed days")).toBeNull();
  });

  it("shows the store's calendar address once", async () => {
    show();
    await user.click(await screen.findByRole("button", { name: "Make the store's calendar address" }));
    expect(await screen.findByText(new RegExp(`/api/feeds/${"A".repeat(22)}`))).toBeTruthy();
  });
});
