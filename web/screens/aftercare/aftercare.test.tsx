// @vitest-environment jsdom
import "fake-indexeddb/auto";
import { cleanup, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Boat, CallList, CareLine, MessageLine, WorkshopSheet } from "../../../api/index.ts";
import { messageTemplates, rigTemplates } from "../../../content/index.ts";
import { addDays, type LocalDate, toInstant } from "../../../core/dates/index.ts";
import { careQuery, queryClient } from "../../app/queries.ts";
import { syncQueue } from "../../offline/useSync.ts";
import { answerWith, refuse, showScreen } from "../../testing/answerWith.tsx";
import type { Inks } from "../../ui/Chart.tsx";
import { formatLoad, WorkshopScreen } from "../workshop/WorkshopScreen.tsx";
import { fillMessage } from "./CallSheet.tsx";
import { CareScreen } from "./CareScreen.tsx";

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

const today = "2026-06-15";
const line = (change: Partial<CareLine> = {}): CareLine => ({
  boat: "b1",
  boatName: "Wending 23",
  serial: "23118",
  buyers: "Ilse Warrender-Featherstonehaugh-Okonkwo and Piet Marram",
  contact: { name: "", phone: "555 0100", email: "", optOut: false },
  delivery: "d1",
  weight: 80,
  reasons: [
    {
      reason: "service",
      says: "First service is past due",
      date: "2026-06-01",
      isOverdue: true,
      range: null,
      isAnyDay: false,
    },
  ],
  reportedH: 14,
  likelyNowH: 22,
  reportedOn: "2026-05-20",
  lastMessage: null,
  booking: null,
  callBack: null,
  questions: [],
  ...change,
});
const callListOf = (lines: CareLine[]): CallList => ({
  date: today,
  lines,
  linesInAll: lines.length,
  boats: 40,
  templates: messageTemplates,
  store: "A yard",
  phone: "555 0142",
  jobs: [
    {
      id: "hello:b1",
      kind: "hello",
      boat: "b1",
      boatName: "Wending 23",
      dueAt: "2026-06-17T10:00:00.000Z",
      state: "waiting",
      tries: 0,
      note: "",
    },
    {
      id: "hello:b2",
      kind: "hello",
      boat: "b2",
      boatName: "Sedge 18",
      dueAt: "2026-06-14T10:00:00.000Z",
      state: "failed",
      tries: 5,
      note: "nobody answers",
    },
  ],
});
const boat = {
  id: "b1",
  name: "Wending 23",
  hull: "",
  rig: rigTemplates["wending-23"],
  today,
  inService: "2026-03-01",
  care: [
    { engine: "port", label: "Port engine", likelyNowH: 19 },
    { engine: "starboard", label: "starboard", likelyNowH: 19 },
  ],
  visits: [
    {
      date: "2026-06-29",
      labourH: 3,
      items: ["port", "starboard"].map((scope) => ({
        scope,
        label: scope,
        item: "first-service",
        title: "First service",
        work: [],
        parts: ["Engine oil", "Oil filter"],
        labourH: 1.5,
        dueDate: "2026-06-29",
        by: "hours",
        isOverdue: false,
        range: null,
        isAnyDay: false,
      })),
    },
  ],
} as unknown as Boat;

const user = userEvent.setup();
beforeEach(() =>
  vi.stubGlobal(
    "ResizeObserver",
    class {
      observe() {}
      disconnect() {}
    },
  ),
);
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

describe("fillMessage", () => {
  const fill = (id: string, change: Partial<CareLine> = {}) =>
    fillMessage(messageTemplates.find((each) => each.id === id)!.text, line(change), {
      store: "A yard",
      phone: "555 0142",
    });

  it("puts in first names, boat, what and when, and leaves the address for the server", () => {
    const reasons: CareLine["reasons"] = [
      {
        reason: "service",
        says: "First service falls due",
        date: "2026-06-01",
        isOverdue: false,
        range: null,
        isAnyDay: false,
      },
    ];
    expect(fill("service", { reasons })).toBe(
      "Hello Ilse and Piet, first service of your Wending 23 falls due about Mon 1 Jun. Shall we book a date for you? Answer here or call 555 0142.",
    );
    expect(fill("ask-hours")).toContain("{link}");
  });
  it("says since when something is past due, with its year", () => {
    const reasons: CareLine["reasons"] = [
      {
        reason: "service",
        says: "First service is past due",
        date: "2025-05-03",
        isOverdue: true,
        range: null,
        isAnyDay: false,
      },
    ];
    expect(fill("service", { reasons })).toContain("first service of your Wending 23 has been due since 3 May 2025.");
  });
  it("asks for an answer instead where there is no page", () => {
    expect(fill("ask-hours", { delivery: null })).not.toContain("{link}");
    expect(fill("ask-hours", { delivery: null })).toContain("Just answer here.");
  });
  it("does so whatever words a store has for the sentence with the address", () => {
    const said = fillMessage("Hello {buyers}. Type it in here, please: {link}", line({ delivery: null }), {
      store: "A yard",
      phone: "555 0142",
    });
    expect(said).toBe("Hello Ilse and Piet. Just answer here.");
  });
  it("speaks of what is owed when that is the reason", () => {
    const reasons: CareLine["reasons"] = [
      {
        reason: "promise-late",
        says: "Promise overdue: table leg",
        date: "2026-06-01",
        isOverdue: true,
        range: null,
        isAnyDay: false,
      },
    ];
    expect(fill("promise", { reasons })).toContain("what we owe you for your Wending 23: table leg");
  });
});

describe("the call list", () => {
  const show = (lines: CareLine[], role = "service") => {
    const sent: MessageLine[] = [];
    const asked = answerWith({
      callList: () => callListOf(lines),
      boatMessages: () => ({ messages: sent }),
      sendMessage: ({ body }) => {
        const { id, kind, text } = body as { id: string; kind: string; text: string };
        const message: MessageLine = {
          id,
          kind,
          text,
          recipient: "Ilse Warrender and Piet Warrender",
          at: `${today}T10:00:00.000Z`,
          state: kind === "call" ? "answered" : "sent",
          answer: null,
        };
        sent.unshift(message);
        return message;
      },
      setContact: () => ({ done: true as const }),
      setMessageTexts: () => ({ done: true as const }),
      boat: () => boat,
      setBooking: () => ({ done: true as const }),
    });
    showScreen([{ path: "/aftercare", element: <CareScreen /> }], "/aftercare", role);
    return asked;
  };

  it("never changes whose sheet is open by itself: what was sent is confirmed by name, and they stay when the list moves on", async () => {
    const lines = [line(), line({ boat: "b2", buyers: "Dov Anselm", boatName: "Sedge 18" })];
    show(lines);
    const sheet = () => screen.getByRole("region", { name: /Ilse/ });
    await user.click(
      within(await screen.findByRole("region", { name: /Ilse/ })).getByRole("button", { name: "Send it" }),
    );
    expect(await within(sheet()).findByText(/^Sent to Ilse/)).toBeTruthy();
    // Written to, they drop out of the list, and somebody new comes first.
    lines.splice(0, 2, line({ boat: "b9", buyers: "Ada New" }), lines[1]!);
    await queryClient.invalidateQueries({ queryKey: careQuery.queryKey });
    await screen.findByText(/Ada New/);
    expect(within(sheet()).getByText(/^Sent to Ilse/)).toBeTruthy();
    expect(screen.getByText(/^Nothing is open with Ilse/)).toBeTruthy();
    await user.click(screen.getByRole("button", { name: /Dov Anselm/ }));
    expect(screen.getByRole("region", { name: /Dov Anselm/ })).toBeTruthy();
    expect(screen.queryByText(/^Nothing is open/)).toBeNull();
  });

  it("where nothing carries messages, one is taken up whole, sent by hand and marked as sent", async () => {
    const message: MessageLine = {
      id: "m1",
      kind: "ask-hours",
      text: "Your page: {link}",
      recipient: "Ilse Warrender",
      at: `${today}T10:00:00.000Z`,
      state: "ready",
      answer: null,
    };
    const asked = answerWith({
      callList: () => callListOf([line()]),
      boatMessages: () => ({ messages: [message] }),
      prepareMessage: () => ({
        text: "Your page: https://yard.test/o/abc",
        phone: "555 0100",
        email: "ilse@example.test",
      }),
      markSent: () => ({ done: true as const }),
    });
    showScreen([{ path: "/aftercare", element: <CareScreen /> }], "/aftercare", "service");
    const list = within(await screen.findByRole("list", { name: "Messages and calls" }));
    expect(await list.findByText("not sent yet")).toBeTruthy();
    await user.click(list.getByRole("button", { name: "Open it to send" }));
    expect((await list.findByTestId("ready-text")).textContent).toBe("Your page: https://yard.test/o/abc");
    expect(list.getByRole("link", { name: "Text message" }).getAttribute("href")).toBe(
      "sms:5550100?body=Your%20page%3A%20https%3A%2F%2Fyard.test%2Fo%2Fabc",
    );
    expect(list.getByRole("link", { name: "E-mail" }).getAttribute("href")).toMatch(
      /^mailto:ilse%40example\.test\?body=/,
    );
    await user.click(list.getByRole("button", { name: "Mark as sent" }));
    expect(asked.map(({ name }) => name)).toEqual(expect.arrayContaining(["prepareMessage", "markSent"]));
  });

  it("says who needs nobody, when it is all", async () => {
    show([]);
    expect(await screen.findByText(/Nobody needs you this week/)).toBeTruthy();
  });

  it("opens the first, writes in its words, and keeps what was sent in sight", async () => {
    const asked = show([
      line(),
      line({
        boat: "b2",
        buyers: "Dov Anselm",
        reasons: [
          {
            reason: "no-hours",
            says: "No hours reported for 60 days; about 20 h run since",
            date: "2026-04-16",
            isOverdue: false,
            range: null,
            isAnyDay: false,
          },
        ],
      }),
    ]);
    const beside = await screen.findByRole("region", { name: /Ilse/ });
    expect(screen.getByRole("group", { name: "Boats on the call list" }).textContent).toContain(
      "14.0 h reported, 22 likely",
    );
    await user.click(within(beside).getByRole("button", { name: "Send it" }));
    expect(await within(beside).findByText(/Shall we book a date for you/, { selector: "li span" })).toBeTruthy();
    expect(asked.find(({ name }) => name === "sendMessage")?.body).toMatchObject({ kind: "service", withLink: false });
    await user.click(screen.getByRole("button", { name: /Dov Anselm/ }));
    const other = await screen.findByRole("region", { name: /Dov Anselm/ });
    await user.click(within(other).getByRole("button", { name: "Send it" }));
    expect(asked.filter(({ name }) => name === "sendMessage").at(-1)?.body).toMatchObject({
      kind: "ask-hours",
      withLink: true,
    });
  });

  it("keeps a call, and sends nothing to who does not want it", async () => {
    const asked = show([line({ contact: { name: "", phone: "", email: "", optOut: true } })]);
    const beside = await screen.findByRole("region", { name: /Ilse/ });
    expect(within(beside).getByRole("button", { name: "Send it" }).hasAttribute("disabled")).toBe(true);
    expect(within(beside).getByText(/They do not want messages/)).toBeTruthy();
    await user.type(within(beside).getByLabelText("What was said on the phone"), "Comes on Tuesday{Enter}");
    expect(asked.find(({ name }) => name === "sendMessage")?.body).toMatchObject({
      kind: "call",
      text: "Comes on Tuesday",
    });
  });

  it("parts what is due from what only lacks hours and from who named a day; a question stands in full and is answered there", async () => {
    syncQueue.setUser({ id: "ines", name: "Ines Marr" });
    const reason = (what: CareLine["reasons"][number]["reason"], says: string, date: LocalDate) =>
      ({ reason: what, says, date, isOverdue: false, range: null, isAnyDay: false }) as const;
    const asks = {
      delivery: "d1",
      ref: "01ARZ3NDEKTSV4RRFFQ69G5FAV",
      text: "Which oil do I buy?",
      since: toInstant(0),
    };
    show([
      line({ questions: [asks], reasons: [reason("question", "They ask: Which oil do I buy?", "2026-06-14")] }),
      line({ boat: "b2", buyers: "Dov Anselm", reasons: [reason("no-hours", "No hours for 60 days", "2026-04-16")] }),
      line({
        boat: "b3",
        buyers: "Ada New",
        callBack: { on: "2026-07-01", note: "after the holidays", by: "ines" },
        reasons: [reason("call-back", "Call back: after the holidays", "2026-07-01")],
      }),
    ]);
    const groups = within(await screen.findByRole("group", { name: "Boats on the call list" }));
    const peopleOf = (title: string) => groups.getByRole("list", { name: `Boats: ${title}` }).textContent;
    expect(peopleOf("This week")).toContain("Ilse");
    expect(peopleOf("Only hours are missing")).toContain("Dov Anselm");
    expect(peopleOf("Call back later")).toContain("1 Jul 2026");
    const beside = within(screen.getByRole("region", { name: /Ilse/ }));
    const question = within(beside.getByRole("list", { name: "What they ask" }));
    await user.click(question.getByRole("button", { name: "Answer: Which oil do I buy?" }));
    await user.type(question.getByLabelText("Your answer (they see it)"), "The one on the card{Enter}");
    expect(syncQueue.listOf("d1")).toMatchObject([{ kind: "settle", ref: asks.ref, note: "The one on the card" }]);
  });

  it("asks for a number where there is none and keeps it; with a call goes the day they named", async () => {
    const asked = show([line({ contact: { name: "", phone: "", email: "", optOut: false } })]);
    const beside = within(await screen.findByRole("region", { name: /Ilse/ }));
    expect(beside.getByRole("button", { name: "Send it" })).toHaveProperty("disabled", true);
    expect(beside.getByText(/There is no number to send it to/)).toBeTruthy();
    await user.type(beside.getByLabelText(/^Phone/), "555 0188{Enter}");
    expect(asked.find(({ name }) => name === "setContact")?.body).toEqual({
      ...{ name: "", phone: "555 0188", email: "", optOut: false },
    });
    await user.type(beside.getByLabelText("Call back on"), "2026-07-01");
    await user.type(beside.getByLabelText("What was said on the phone"), "Away until July{Enter}");
    expect(asked.find(({ name }) => name === "sendMessage")?.body).toMatchObject({
      kind: "call",
      callBackOn: "2026-07-01",
    });
  });

  it("books what comes up next, with its hours of work", async () => {
    const asked = show([line()]);
    await user.click(await screen.findByRole("button", { name: "Book a slot" }));
    const form = await screen.findByRole("form", { name: "Book a slot" });
    expect(form.textContent).toContain("3.0 h of work");
    await user.click(within(form).getByRole("checkbox", { name: /starboard/ }));
    expect(form.textContent).toContain("1.5 h of work");
    await user.click(within(form).getByRole("button", { name: "Book it" }));
    expect(asked.find(({ name }) => name === "setBooking")?.body).toMatchObject({
      boat: "b1",
      date: "2026-06-29",
      startMin: 540,
      labourH: 1.5,
      items: [{ scope: "port", item: "first-service", title: "First service" }],
      state: "booked",
    });
  });

  it("shows what the server does by itself, what failed with why, and the store's own words", async () => {
    const asked = show([line()]);
    await user.click(await screen.findByText(/Automatic messages: 2 planned/));
    expect(screen.getByText(/failed after 5 tries: nobody answers/)).toBeTruthy();
    await user.click(screen.getByText("Our words for messages"));
    const words = screen.getByLabelText("Words: How is it going?");
    await user.clear(words);
    expect(screen.getByRole("button", { name: "Save our words" }).hasAttribute("disabled")).toBe(true);
    await user.type(words, "Good day");
    await user.click(screen.getByRole("button", { name: "Save our words" }));
    expect(
      (asked.find(({ name }) => name === "setMessageTexts")!.body as { texts: Record<string, string> }).texts.hello,
    ).toBe("Good day");
  });
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
